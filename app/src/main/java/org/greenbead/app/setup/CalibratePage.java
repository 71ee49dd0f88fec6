package org.greenbead.app.setup;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.application.Platform;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.run.HeatChart;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Lessons;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.calibrate.Calibrator;
import org.greenbead.core.calibrate.Fit;
import org.greenbead.core.calibrate.History;
import org.greenbead.core.calibrate.Logged;
import org.greenbead.core.calibrate.RefusedException;
import org.greenbead.core.calibrate.SightFit;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.Format;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunLog;

/** What a kept run tells of its bench: factors with their intervals, measured against modelled, and what to mind. */
public final class CalibratePage extends Page {
    private final Desk desk;
    private final Navigator go;
    private final RunEntry entry;
    private final Label said = Looks.label("", "text-ink");
    private final ProgressBar bar = new ProgressBar(0);
    private final Factors factors = new Factors();
    private final VBox remarks = new VBox(5);
    private final HeatChart chart = new HeatChart();
    private final AtomicBoolean gone = new AtomicBoolean();
    private final VBox page;
    private final Label traces = Looks.label("", "caps");
    private Optional<Calibration> told = Optional.empty();
    private Optional<Bench> bench = Optional.empty();

    public CalibratePage(Desk desk, Navigator go, RunEntry entry) {
        this.desk = desk;
        this.go = go;
        this.entry = entry;
        Texts texts = desk.texts();
        said.setId("fit-said");
        bar.setMaxWidth(Double.MAX_VALUE);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("fit.caps"), "caps"),
                Looks.label(entry.jobId() + " · " + entry.recipe(), "now"), said), "instruction");
        var left = Looks.as(new VBox(10, Looks.label(texts.get("fit.factors"), "caps"), factors, remarks),
                "card");
        left.setMinWidth(300);
        left.setPrefWidth(330);
        left.setMaxWidth(360);
        VBox.setVgrow(chart, Priority.ALWAYS);
        var right = Looks.as(new VBox(6, traces, chart), "card");
        HBox.setHgrow(right, Priority.ALWAYS);
        var middle = new HBox(10, left, right);
        VBox.setVgrow(middle, Priority.ALWAYS);
        page = Looks.as(new VBox(head, middle, bar), "page");
        backWord(texts.get("key.back"));
        said.setText(texts.get("fit.wait"));
        pedal(Pedal.shut(texts.get("fit.working"), texts.get("fit.working.so")));
        desk.background(this::read, Runnable::run, this::failed);
    }

    /** Reads the log and fits; what comes back shows it. */
    private Runnable read() throws Exception {
        RunLog log = RunLog.read(desk.ledger().logFile(entry), desk.files());
        RunPlan plan = log.header().plan();
        bench = Optional.of(desk.ledger().document(Format.BENCH, plan.bench().id(), Bench.class));
        if (plan.bench().probes().isEmpty()) {
            SightFit.Learned learned = SightFit.fit(entry.id(), plan, log.events(), gone::get);
            return () -> show(learned);
        }
        Fit made = Calibrator.fit(Logged.of(entry.id(), plan, log.events()),
                done -> Platform.runLater(() -> bar.setProgress(done)), gone::get);
        return () -> show(made);
    }

    private void failed(Throwable error) {
        if (error instanceof CancellationException) {
            return;
        }
        Texts texts = desk.texts();
        bar.setVisible(false);
        said.setText(error instanceof RefusedException refused
                ? texts.get("fit.refused", texts.say(refused.why()))
                : texts.get("fit.failed", String.valueOf(error.getMessage())));
        pedal(new Pedal(texts.get("fit.back"), texts.get("fit.back.so"), true, this::back));
    }

    private void show(Fit made) {
        Texts texts = desk.texts();
        said.setText(
                texts.get("fit.residual", texts.rise(max(made.beforeK())), texts.rise(max(made.afterK()))));
        traces.setText(texts.get("fit.traces"));
        for (int i = 0; i < made.probes().size(); i++) {
            remark(texts.get("fit.probe", made.probes().get(i),
                    String.format(Locale.ROOT, "%.1f", made.beforeK()[i]),
                    String.format(Locale.ROOT, "%.1f", made.afterK()[i])), "text-ink");
        }
        boolean outlier = told(made.calibration(), made.remarks());
        chart.show(traces(made, texts));
        pedal(made.swapped()
                ? new Pedal(texts.get("fit.back"), texts.get("fit.swapped.so"), true, this::back)
                : keeping(outlier));
    }

    /** Led by eye: what was seen stands in the place of probes. */
    private void show(SightFit.Learned learned) {
        Texts texts = desk.texts();
        said.setText(texts.get("fit.seen.said", learned.believed(), learned.sights().size(),
                texts.rise(learned.beforeRmsK()), texts.rise(learned.calibration().residualK())));
        traces.setText(texts.get("fit.seen.caps"));
        for (SightFit.Looked sight : learned.sights()) {
            String at = org.greenbead.core.quantity.Words.clock(sight.timeS());
            boolean doubted = sight.trust() < SightFit.BELIEVED;
            remark(doubted
                    ? texts.get("fit.seen.doubted", texts.say(sight.sight().word()), at)
                    : texts.get("fit.seen.line", texts.say(sight.sight().word()), at,
                            signed(sight.beforeK()), signed(sight.afterK())),
                    doubted ? "ink-amber" : "text-ink");
        }
        remark(texts.get("fit.seen.together"), "text-ink");
        boolean outlier = told(learned.calibration(), List.of());
        double top = Math.max(max(learned.beforeC()), max(learned.afterC())) + 20;
        chart.show(new HeatChart.Data(
                List.of(new HeatChart.Curve("plan", texts.get("fit.before"), learned.timesS(),
                        learned.beforeC()),
                        new HeatChart.Curve("board", texts.get("fit.after"), learned.timesS(),
                                learned.afterC())),
                new double[0], top, top, "", List.of(), OptionalDouble.empty(),
                learned.timesS()[learned.timesS().length - 1], texts.words()::bare));
        pedal(keeping(outlier));
    }

    private String signed(double kelvin) {
        String size = desk.texts().rise(Math.abs(kelvin));
        return size.equals(desk.texts().rise(0)) ? size : (kelvin < 0 ? "−" : "+") + size;
    }

    private void remark(String text, String... classes) {
        remarks.getChildren().add(Looks.label(text, classes));
    }

    private Pedal keeping(boolean outlier) {
        Texts texts = desk.texts();
        return new Pedal(texts.get("fit.keep"), texts.get(outlier ? "fit.keep.outlier" : "fit.keep.so"), true,
                this::keep);
    }

    /** The factors with what is to be minded. @return whether it contradicts the bench's other runs */
    private boolean told(Calibration c, List<Phrase> minded) {
        Texts texts = desk.texts();
        told = Optional.of(c);
        bar.setVisible(false);
        boolean outlier = bench.map(b -> History.outlier(
                b.with(b.calibrations().stream().filter(o -> !o.run().equals(c.run())).toList()), c))
                .orElse(false);
        factors.show(c, texts);
        if (c.nozzleMm() > 0) {
            remark(texts.get("fit.air", plain(c.nozzleMm()),
                    texts.words().show(bench.orElseThrow().air().dial().says(c.flowLpm()))), "muted");
        }
        if (outlier) {
            remark(texts.get("fit.outlier"), "ink-hot");
        }
        for (Phrase remark : minded) {
            remark(texts.say(remark), "ink-amber");
        }
        remark(texts.get("fit.effective"), "muted", "small");
        return outlier;
    }

    private static double max(double[] values) {
        return java.util.Arrays.stream(values).max().orElse(0);
    }

    private static String plain(double value) {
        return String.format(Locale.ROOT, "%.0f", value);
    }

    private static HeatChart.Data traces(Fit made, Texts texts) {
        var curves = new ArrayList<HeatChart.Curve>();
        List<String> inks = List.of("board", "under", "neighbour", "top");
        for (int i = 0; i < made.probes().size(); i++) {
            curves.add(new HeatChart.Curve(inks.get(i % inks.size()),
                    made.probes().get(i),
                    made.timesS(), made.measuredC()[i]));
            curves.add(new HeatChart.Curve("plan", i == 0 ? texts.get("fit.modelled") : "", made.timesS(),
                    made.modelledC()[i]));
        }
        double top = 0;
        for (double[] trace : made.measuredC()) {
            for (double value : trace) {
                top = value > top ? value : top;
            }
        }
        return new HeatChart.Data(curves, new double[0], top + 20, top + 20, "", List.of(),
                OptionalDouble.empty(),
                made.timesS()[made.timesS().length - 1], texts.words()::bare);
    }

    private void keep() {
        Lessons.keep(desk, bench.orElseThrow().id(), told.orElseThrow(), () -> {
            go.benchChanged(bench.orElseThrow().id());
            go.setup();
        });
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        gone.set(true);
        go.replay(entry);
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.ESCAPE) {
            back();
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        gone.set(true);
    }
}
