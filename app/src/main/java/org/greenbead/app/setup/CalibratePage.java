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
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.calibrate.Calibrator;
import org.greenbead.core.calibrate.Fit;
import org.greenbead.core.calibrate.History;
import org.greenbead.core.calibrate.Logged;
import org.greenbead.core.calibrate.RefusedException;
import org.greenbead.core.quantity.Phrase;
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
    private Optional<Fit> fit = Optional.empty();
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
        var right = Looks.as(new VBox(6, Looks.label(texts.get("fit.traces"), "caps"), chart), "card");
        HBox.setHgrow(right, Priority.ALWAYS);
        var middle = new HBox(10, left, right);
        VBox.setVgrow(middle, Priority.ALWAYS);
        page = Looks.as(new VBox(head, middle, bar), "page");
        backWord(texts.get("key.back"));
        said.setText(texts.get("fit.wait"));
        pedal(Pedal.shut(texts.get("fit.working"), texts.get("fit.working.so")));
        desk.background(this::read, this::show, this::failed);
    }

    private Fit read() throws Exception {
        RunLog log = RunLog.read(desk.ledger().logFile(entry), desk.files());
        Logged logged = Logged.of(entry.id(), log.header().plan(), log.events());
        bench = Optional
                .of(desk.ledger().document(Format.BENCH, log.header().plan().bench().id(), Bench.class));
        return Calibrator.fit(logged, done -> Platform.runLater(() -> bar.setProgress(done)), gone::get);
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
        fit = Optional.of(made);
        bar.setVisible(false);
        Calibration c = made.calibration();
        boolean outlier = bench.map(b -> History.outlier(
                b.with(b.calibrations().stream().filter(o -> !o.run().equals(c.run())).toList()), c))
                .orElse(false);
        said.setText(
                texts.get("fit.residual", texts.rise(max(made.beforeK())), texts.rise(max(made.afterK()))));
        factors.show(c, texts);
        for (int i = 0; i < made.probes().size(); i++) {
            remarks.getChildren().add(Looks.label(texts.get("fit.probe", made.probes().get(i),
                    String.format(Locale.ROOT, "%.1f", made.beforeK()[i]),
                    String.format(Locale.ROOT, "%.1f", made.afterK()[i])), "text-ink"));
        }
        if (c.nozzleMm() > 0) {
            remarks.getChildren()
                    .add(Looks.label(texts.get("fit.air", plain(c.nozzleMm()),
                            texts.words().show(bench.orElseThrow().air().dial().says(c.flowLpm()))),
                            "muted"));
        }
        if (outlier) {
            remarks.getChildren().add(Looks.label(texts.get("fit.outlier"), "ink-hot"));
        }
        for (Phrase remark : made.remarks()) {
            remarks.getChildren().add(Looks.label(texts.say(remark), "ink-amber"));
        }
        remarks.getChildren().add(Looks.label(texts.get("fit.effective"), "muted", "small"));
        chart.show(traces(made, texts));
        pedal(made.swapped()
                ? new Pedal(texts.get("fit.back"), texts.get("fit.swapped.so"), true, this::back)
                : new Pedal(texts.get("fit.keep"), texts.get(outlier ? "fit.keep.outlier" : "fit.keep.so"),
                        true,
                        this::keep));
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
        Factors.keep(desk, bench.orElseThrow().id(), fit.orElseThrow().calibration(), () -> {
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
