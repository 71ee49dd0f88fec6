package org.greenbead.app.prove;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.application.Platform;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Settings;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.CurveRecords;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.electric.CurveCompare;
import org.greenbead.core.electric.CurveReference;
import org.greenbead.core.electric.SimulatedStart;
import org.greenbead.core.record.Kept;
import org.greenbead.core.run.LinkLostException;
import org.greenbead.core.run.PlanRules;
import org.greenbead.device.ScpiSupply;
import org.greenbead.device.SimulatedSupply;
import org.greenbead.store.CurrentCsv;
import org.greenbead.store.Format;

/** The current that the unit draws while it starts, beside that of healthy boards, stage by stage. */
public final class CurvePage extends Page {
    private static final int RECORD_S = 30;
    private static final int LEAST_SHOWN = 10;
    private static final int EVERY = 10;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final String beadId;
    private final CurveChart chart = new CurveChart();
    private final Label title = Looks.label("", "now");
    private final Label said = Looks.note("said");
    private final Label taken = Looks.label("", "text-ink", "strong");
    private final Rows<CurveReference.Stage> list;
    private final VBox about = Looks.as(new VBox(3), "card");
    private final VBox page;
    private final Subscription watching;
    private CurveRecords.Taken when;
    private Optional<Looked> shown = Optional.empty();
    private int turn;
    private final Line state;
    private final AtomicBoolean stop = new AtomicBoolean();
    private boolean recording;
    /** Address of the supply that stands at the bench of this job; empty where nobody noted one. */
    private String ofBench = "";

    /** A curve and what there is to say of it. @param file name it is kept by */
    private record Looked(CurrentTrace trace, String file, Optional<CurveReference> reference,
            Optional<CurveCompare.Compared> compared) {}

    /** @param beadId where it is asked for: before the work or after */
    public CurvePage(Desk desk, JobModel model, Navigator go, String beadId) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.beadId = beadId;
        when = beadId.startsWith("prove") ? CurveRecords.Taken.AFTER : CurveRecords.Taken.BEFORE;
        Texts texts = desk.texts();
        title.setId("curve-title");
        said.setId("curve-said");
        taken.setId("curve-taken");
        state = new Line("curve-state", texts.get("curve.record.state"));
        state.setFocusTraversable(false);
        list = new Rows<>("curve-stages", s -> "stage-" + s.number(), this::row, (s, press) -> {
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        var side = new VBox(8, about, list);
        side.setPrefWidth(290);
        side.setMinWidth(230);
        var card = Looks.as(new VBox(chart), "card");
        VBox.setVgrow(chart, Priority.ALWAYS);
        HBox.setHgrow(card, Priority.ALWAYS);
        var middle = new HBox(10, card, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("curve.caps"), "caps"), title), "instruction");
        page = Looks.as(new VBox(head, middle, said, Looks.label(texts.get("curve.keys"), "muted", "small")),
                "page");
        Drops.onto(page, this::take);
        backWord(texts.get("book.back"));
        noteWord(texts.get("curve.choose"));
        watching = model.findingsProperty()
                .subscribe(
                        f -> findings(PlanRules.timely(f, model.job().bead(beadId).orElseThrow().phase())));
        desk.io(() -> desk.ledger().document(Format.BENCH, model.job().bench(), Bench.class).equipment()
                .supply(),
                named -> ofBench = named, none -> {
                });
        newest();
    }

    private void newest() {
        Optional<String> file = model.job().records("curve").reversed().stream()
                .filter(r -> r.text("taken").equals(small(when))).map(r -> r.text("file")).findFirst();
        if (file.isPresent()) {
            look(() -> desk.ledger().curves().read(file.get()));
        } else {
            empty();
        }
    }

    private void empty() {
        Texts texts = desk.texts();
        shown = Optional.empty();
        title.setText(texts.get("curve.none"));
        aboutIt();
        list.show(List.of());
        chart.show(Optional.empty());
        pedal(new Pedal(texts.get("curve.choose"), texts.get("curve.choose.so"), true, this::choose));
    }

    private void aboutIt() {
        Texts texts = desk.texts();
        taken.setText(texts.get("curve.taken", word()));
        about.getChildren().setAll(taken);
        if (shown.isEmpty()) {
            about.getChildren().addAll(Looks.label(texts.get("curve.how"), "text-ink"),
                    Looks.label(texts.get("curve.how.supply"), "muted", "small"), state,
                    Looks.label(texts.get("curve.caution"), "ink-amber", "small"));
            return;
        }
        Looked l = shown.get();
        about.getChildren().add(Looks.label(l.reference()
                .map(r -> texts.get(r.boards() == 1 ? "curve.against.one" : "curve.against", r.boards()))
                .orElse(texts.get("curve.against.none")), "muted", "small"));
        l.trace().under().supplyV().ifPresent(v -> about.getChildren().add(Looks.label(
                texts.get("curve.supply", number(v, 1),
                        l.trace().under().limitA().map(a -> number(a, 2)).orElse("?")),
                "muted", "small")));
        if (!l.trace().under().unitState().isEmpty()) {
            about.getChildren().add(Looks.label(l.trace().under().unitState(), "muted", "small"));
        }
    }

    private String word() {
        Texts texts = desk.texts();
        return switch (when) {
            case BEFORE -> texts.get("curve.taken.before");
            case AFTER -> texts.get("curve.taken.after");
            case HEALTHY -> texts.get("curve.taken.healthy");
        };
    }

    private interface Source {
        CurrentTrace get() throws Exception;
    }

    /** A curve from a file. */
    public void take(Path file) {
        look(() -> CurrentCsv.read(file));
    }

    private void look(Source source) {
        Texts texts = desk.texts();
        int mine = ++turn;
        String board = model.job().board();
        title.setText(texts.get("curve.looking"));
        pedal(Pedal.shut(texts.get("curve.looking"), texts.get("curve.looking.so")));
        desk.io(() -> {
            CurrentTrace trace = source.get();
            String file = desk.ledger().curves().add(trace);
            Optional<CurveReference> reference = desk.ledger().curves()
                    .reference(CurveRecords.healthy(desk.ledger().jobs(), board, file), trace);
            return new Looked(trace, file, reference, reference.map(r -> CurveCompare.of(trace, r)));
        }, l -> {
            if (mine == turn) {
                show(l);
            }
        }, failed -> {
            if (mine == turn) {
                empty();
                said.setText(String.valueOf(failed.getMessage()));
            }
        });
    }

    private void show(Looked l) {
        Texts texts = desk.texts();
        shown = Optional.of(l);
        title.setText(l.compared().map(c -> CurveRecords.said(c, texts.words()))
                .orElse(texts.say("curveoutcome.no_reference")));
        said.setText(l.trace().gaps().isEmpty()
                ? ""
                : texts.get("curve.gap", number(l.trace().gaps().getFirst()[0], 1),
                        number(l.trace().gaps().getFirst()[1], 1)));
        aboutIt();
        list.show(l.reference().map(CurveReference::stages).orElse(List.of()));
        Optional<CurveCompare.Departure> first = l.compared().flatMap(CurveCompare.Compared::first);
        chart.show(Optional.of(new CurveChart.Data(
                new CurveChart.Curve(l.trace(),
                        l.compared().map(CurveCompare.Compared::onsetS).orElse(l.trace().timeS()[0])),
                texts.get("curve.line.mine"),
                l.reference().map(r -> new CurveChart.Curve(r.trace(), r.onsetS())),
                texts.get("curve.line.healthy"),
                l.reference().stream().flatMap(r -> r.stages().stream())
                        .map(s -> new CurveChart.Span(
                                s.number() + " " + CurveRecords.stage(s, texts.words()), s.fromS(), s.toS(),
                                first.filter(d -> d.stage().number() == s.number()).isPresent()))
                        .toList(),
                first.map(CurveCompare.Departure::atS).filter(s -> s >= 0))));
        boolean kept = model.job().records("curve").stream().anyMatch(
                r -> r.text("file").equals(l.file()) && r.text("taken").equals(small(when)));
        pedal(kept
                ? new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, () -> go.bead(beadId))
                : new Pedal(texts.get("curve.keep"), texts.get("curve.keep.so"), true, () -> keep(l)));
    }

    /** What the curve says goes to the job, and from there to the rule book. */
    private void keep(Looked l) {
        model.note(new Kept(model.job().freeId("curve"), "curve", desk.clock().instant(),
                desk.settings().technician().get(),
                CurveRecords.fields(l.trace(), when, l.compared(),
                        l.reference().map(CurveReference::boards).orElse(0), l.file())));
        show(l);
        said.setText(desk.texts().get("curve.kept"));
    }

    private Region row(CurveReference.Stage s) {
        Texts texts = desk.texts();
        Optional<CurveCompare.Seen> seen = shown.flatMap(Looked::compared).stream()
                .flatMap(c -> c.stages().stream()).filter(f -> f.stage().number() == s.number()).findFirst();
        Optional<CurveCompare.Departure> odd = shown.flatMap(Looked::compared).stream()
                .flatMap(c -> c.departures().stream()).filter(d -> d.stage().number() == s.number())
                .findFirst();
        var box = new VBox(1, Looks.label(s.number() + " " + CurveRecords.stage(s, texts.words()), "text-ink",
                "strong"));
        String found = seen.filter(f -> f.lengthS() > 0)
                .map(f -> texts.get("curve.stage.found", number(f.levelA(), 3), number(f.lengthS(), 1)))
                .orElse(texts.get("curve.stage.not"));
        box.getChildren().add(Looks.label(found, odd.isPresent() ? "ink-hot" : "text-ink", "small"));
        box.getChildren().add(Looks.label(
                texts.get("curve.stage.usual", number(s.levelA(), 3), number(s.lengthS(), 1)), "muted",
                "small"));
        odd.ifPresent(d -> box.getChildren()
                .add(Looks.label(texts.say("curvehow." + small(d.kind())), "cure-line", "small")));
        return box;
    }

    /** Where the supply answers; on the made-up bench nobody has to choose. */
    private String supply() {
        String named = ofBench.isEmpty() ? desk.settings().supply().get() : ofBench;
        // A made-up start proves nothing of a real board.
        return desk.demo()
                ? named.isBlank() ? Settings.SIMULATED : named
                : named.equals(Settings.SIMULATED) ? "" : named;
    }

    private void record() {
        Texts texts = desk.texts();
        if (recording) {
            stop.set(true);
            return;
        }
        String where = supply();
        if (where.isBlank()) {
            said.setText(texts.get("curve.record.no"));
            return;
        }
        recording = true;
        stop.set(false);
        int mine = ++turn;
        String unit = state.getText();
        title.setText(texts.get("curve.record.begins"));
        said.setText("");
        pedal(new Pedal(texts.get("curve.record.stop"), texts.get("curve.record.stop.so", RECORD_S), true,
                () -> stop.set(true)));
        Thread.ofVirtual().start(() -> {
            try {
                ScpiSupply.Recorded recorded = where.equals(Settings.SIMULATED)
                        ? simulated(unit)
                        : read(where, unit);
                Platform.runLater(() -> recorded(recorded, mine));
            } catch (IOException | LinkLostException | IllegalArgumentException e) {
                Platform.runLater(() -> {
                    recording = false;
                    if (mine == turn) {
                        empty();
                        said.setText(String.valueOf(e.getMessage()));
                    }
                });
            }
        });
    }

    private ScpiSupply.Recorded simulated(String unit) throws IOException, LinkLostException {
        var made = new SimulatedStart(12, 3, SimulatedStart.Fault.NONE);
        try (var there = new SimulatedSupply(made.trace(model.job().id().hashCode(), RECORD_S),
                System::nanoTime,
                Double.MAX_VALUE)) {
            return read(there.host() + ":" + there.port(), unit);
        }
    }

    private ScpiSupply.Recorded read(String where, String unit) throws LinkLostException {
        try (var supply = ScpiSupply.at(where, System::nanoTime)) {
            CurrentTrace.Conditions under = supply.conditions(unit);
            var samples = new ArrayList<double[]>();
            return supply.record(RECORD_S, under, (t, a) -> {
                samples.add(new double[]{t, a});
                if (samples.size() >= LEAST_SHOWN && samples.size() % EVERY == 0) {
                    CurrentTrace so = new CurrentTrace(samples.stream().mapToDouble(p -> p[0]).toArray(),
                            samples.stream().mapToDouble(p -> p[1]).toArray(), under);
                    Platform.runLater(() -> live(so));
                }
            }, stop::get);
        }
    }

    private void live(CurrentTrace so) {
        if (recording) {
            title.setText(desk.texts().get("curve.record.now", Math.round(so.durationS()),
                    number(so.ampere()[so.ampere().length - 1], 3)));
            chart.show(Optional.of(new CurveChart.Data(new CurveChart.Curve(so, so.timeS()[0]),
                    desk.texts().get("curve.line.mine"), Optional.empty(), "",
                    List.of(new CurveChart.Span("", 0, RECORD_S, false)), Optional.empty())));
        }
    }

    private void recorded(ScpiSupply.Recorded r, int mine) {
        recording = false;
        if (mine == turn) {
            look(r::trace);
            r.broke().ifPresent(b -> said.setText(desk.texts().get("curve.record.broke", b)));
        }
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("curve.choose"), texts.get("curve.kinds"),
                "*.csv", "*.txt").ifPresent(this::take);
    }

    @Override
    public List<String> about() {
        return List.of("curve");
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.bead(beadId);
    }

    @Override
    public void note() {
        if (!recording) {
            choose();
        }
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        if (code == KeyCode.DOWN || code == KeyCode.UP) {
            list.move(code == KeyCode.DOWN ? 1 : -1);
            return true;
        }
        if (code == KeyCode.R) {
            record();
            return true;
        }
        if (code != KeyCode.H || recording) {
            return recording;
        }
        when = when == CurveRecords.Taken.HEALTHY
                ? beadId.startsWith("prove") ? CurveRecords.Taken.AFTER : CurveRecords.Taken.BEFORE
                : CurveRecords.Taken.HEALTHY;
        shown.ifPresentOrElse(this::show, this::aboutIt);
        return true;
    }

    @Override
    public void dispose() {
        stop.set(true);
        turn++;
        watching.unsubscribe();
    }

    private static String number(double value, int digits) {
        return String.format(Locale.ENGLISH, "%." + digits + "f", value);
    }

    private static String small(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }
}
