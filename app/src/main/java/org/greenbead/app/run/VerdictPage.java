package org.greenbead.app.run;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.CheckPage;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.calibrate.RefusedException;
import org.greenbead.core.calibrate.SightFit;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Verdict;
import org.greenbead.store.RunEntry;

/** What a run came to: what was reached, what held, what was not proved. */
final class VerdictPage extends Page {
    private final Desk desk;
    private final Label taught = Looks.note("taught");
    private final RunEntry entry;
    private final JobModel model;
    private final Navigator go;
    private final Keeper keeper;
    private final VBox page;
    private final Optional<String> again;

    VerdictPage(Desk desk, JobModel model, Navigator go, RunPlan plan, RunEntry entry, Verdict verdict,
            RunState end,
            RunHistory history) {
        this.desk = desk;
        this.entry = entry;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        String outcome = verdict.outcome().name().toLowerCase(Locale.ROOT);
        Label word = Looks.label(texts.say("verdict.outcome." + outcome), "huge", "verdict-" + outcome);
        word.setId("verdict");
        String bead = texts.get(switch (verdict.outcome()) {
            case PROVEN -> "verdict.green";
            case WORKED, LIMIT_BROKEN -> "verdict.done";
            case BROKEN_OFF -> "verdict.open";
        });
        Label about = Looks.label(plan.recipe().title() + " · " + plan.target().name() + " "
                + plan.target().part() + " · " + bead
                + verdict.noProbe().map(k -> " · " + texts.get("ledger.no_probe", texts.rise(k))).orElse(""),
                "muted");
        about.setId("verdict-about");
        var said = Looks.note("said");
        said.setId("verdict-said");
        taught.setId("verdict-taught");
        keeper = new Keeper(desk, said);
        var acts = new FlowPane(8, 6,
                act("verdict-replay", texts.get("verdict.replay"), () -> go.replay(entry)),
                act("verdict-csv", texts.get("verdict.csv") + "  E", () -> keeper.csv(entry)),
                act("verdict-pdf", texts.get("verdict.pdf") + "  P", () -> keeper.pdf(entry)),
                act("verdict-calibrate", texts.get("verdict.calibrate"), () -> go.calibrate(entry)));
        again = verdict.outcome() == Verdict.Outcome.WORKED
                || verdict.outcome() == Verdict.Outcome.LIMIT_BROKEN
                        ? Optional.of(plan.bead()).filter(b -> plan.task() != RunPlan.Task.CALIBRATE)
                        : Optional.empty();
        again.ifPresent(b -> acts.getChildren()
                .addFirst(act("verdict-more", texts.get("verdict.more") + "  A", this::onceMore)));
        acts.setAlignment(Pos.CENTER_LEFT);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("verdict.caps"), "caps"), word, about),
                "instruction");
        var lines = new VBox(7);
        lines.setPadding(new javafx.geometry.Insets(0, 12, 0, 0));
        for (Verdict.Line line : verdict.lines()) {
            lines.getChildren().add(line(line, texts));
        }
        var scroll = Looks.as(new ScrollPane(lines), "watch-scroll");
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var left = Looks.as(new VBox(scroll), "card");
        left.setMinWidth(300);
        left.setPrefWidth(370);
        left.setMaxWidth(440);
        var chart = new HeatChart();
        VBox.setVgrow(chart, Priority.ALWAYS);
        chart.setMinHeight(60);
        var right = Looks.as(new VBox(6, Looks.label(texts.get("verdict.curve"), "caps"), chart), "card");
        HBox.setHgrow(right, Priority.ALWAYS);
        var middle = new HBox(10, left, right);
        VBox.setVgrow(middle, Priority.ALWAYS);
        middle.setMinHeight(0);
        page = Looks.as(new VBox(head, middle, taught, acts, said), "page");
        findings(end.raised().stream().map(Finding::past).toList());
        clock(org.greenbead.core.quantity.Words.clock(verdict.lengthS()));
        chart.show(history.chart(plan, history.size(), Optional.empty(), false, texts));
        pedal(plan.task() == RunPlan.Task.CALIBRATE
                ? new Pedal(texts.get("verdict.fit"), texts.get("verdict.fit.so"), true,
                        () -> go.calibrate(entry))
                : verdict.outcome() == Verdict.Outcome.BROKEN_OFF
                        ? new Pedal(texts.get("verdict.again"), texts.get("verdict.again.so"), true, go::home)
                        : onwards(texts, bead));
        backWord(texts.get("verdict.replay"));
    }

    /** What was seen in this run has been kept with its bench. */
    void taught(SightFit.Learned learned) {
        Texts texts = desk.texts();
        taught.setText(texts.get("verdict.taught", texts.rise(learned.beforeRmsK()),
                texts.rise(learned.calibration().residualK())));
    }

    /** Nothing could be learned, with the reason. */
    void notTaught(Throwable why) {
        Texts texts = desk.texts();
        taught.setText(texts.get("verdict.taught.not", why instanceof RefusedException refused
                ? texts.say(refused.why())
                : String.valueOf(why.getMessage())));
    }

    private void onceMore() {
        again.ifPresent(b -> {
            model.onceMore(b);
            go.home();
        });
    }

    private Pedal onwards(Texts texts, String bead) {
        Pedal plain = CheckPage.onwards(model, go, texts);
        return new Pedal(plain.word(), texts.get("verdict.next.so", bead), plain.open(), plain.action());
    }

    private static Button act(String id, String word, Runnable action) {
        var button = Looks.as(new Button(word), "act");
        button.setId(id);
        button.setOnAction(press -> action.run());
        button.setMinWidth(Region.USE_PREF_SIZE);
        return button;
    }

    /** Held is a filled disc, broken a six-sided mark, not proved a ring. */
    private static Node line(Verdict.Line line, Texts texts) {
        String mark = line.mark().name().toLowerCase(Locale.ROOT);
        var shape = switch (line.mark()) {
            case HELD -> new Circle(7);
            case BROKEN -> Shapes.hexagon(16);
            case CARE -> Shapes.of(org.greenbead.core.finding.Severity.CARE, 14);
            case NOT_PROVED -> new Circle(6);
        };
        shape.getStyleClass().add("line-mark-" + mark);
        var tick = new StackPane(shape);
        tick.setMinWidth(20);
        tick.setAlignment(Pos.TOP_CENTER);
        Label what = Looks.label(texts.say(line.what()), "text-ink");
        HBox.setHgrow(what, Priority.ALWAYS);
        what.setMaxWidth(Double.MAX_VALUE);
        Label word = Looks.label(texts.say("mark." + mark), "small",
                line.mark() == Verdict.Mark.HELD
                        ? "ink-green"
                        : line.mark() == Verdict.Mark.BROKEN ? "ink-hot" : "ink-amber");
        word.setMinWidth(Region.USE_PREF_SIZE);
        var row = new HBox(7, tick, what, word);
        row.setAlignment(Pos.TOP_LEFT);
        return row;
    }

    @Override
    public List<String> about() {
        return List.of("run", "runs", "plan", "chip");
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.replay(entry);
    }

    @Override
    public void remedy(Finding finding) {
        // What was noticed during the run is over; nothing here can be pressed away.
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.E) {
            keeper.csv(entry);
            return true;
        }
        if (code == KeyCode.P) {
            keeper.pdf(entry);
            return true;
        }
        if (code == KeyCode.A && again.isPresent()) {
            onceMore();
            return true;
        }
        if (code == KeyCode.C) {
            go.calibrate(entry);
            return true;
        }
        return false;
    }
}
