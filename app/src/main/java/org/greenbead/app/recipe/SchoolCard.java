package org.greenbead.app.recipe;

import java.util.Locale;
import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.plan.Answer;
import org.greenbead.core.plan.Constraint;
import org.greenbead.core.plan.Robustness;
import org.greenbead.core.plan.School;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.Placing;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.RunPlan;

/** The best recipe of one school: whether it keeps every limit, its margins, how sure it is, and how it is set. */
final class SchoolCard extends VBox {
    private static final int MARGINS = 5;
    private final MarginBars bars;

    /**
     * What a card is headed with.
     *
     * @param key  of its controls
     * @param note under the name; empty for none
     */
    record Head(String key, String name, String note) {
        static Head of(School school, Texts texts) {
            String key = school.name().toLowerCase(Locale.ROOT);
            return new Head(key, texts.say("school." + key), "");
        }
    }

    /**
     * @param chosen the one that the pedal takes
     * @param choose told when it is chosen
     * @param ask    told a limit and where it was drawn to; empty while that cannot be asked
     */
    SchoolCard(Head of, Answer answer, RunPlan plan, boolean chosen, Texts texts, Runnable choose,
            Optional<BiConsumer<Constraint, Double>> ask) {
        super(6);
        String key = of.key();
        Label verdict = Looks.label(texts.get(answer.feasible() ? "planner.feasible" : "planner.cannot"),
                "strong", answer.feasible() ? "ink-green" : "ink-hot");
        verdict.setId("school-" + key + "-verdict");
        Label binds = Looks.label(binding(answer.binding(), texts), "text-ink");
        binds.setId("school-" + key + "-binds");
        Button button = Looks.as(new Button(texts.get(chosen ? "planner.chosen" : "planner.choose")), "act",
                "small");
        button.setId("choose-" + key);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setDisable(chosen);
        button.setOnAction(press -> choose.run());
        Label name = Looks.label(of.name(), "big");
        name.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(name, Priority.ALWAYS);
        var head = new HBox(8, name, button);
        head.setAlignment(Pos.CENTER_LEFT);
        var lines = new VBox(4);
        if (!of.note().isEmpty()) {
            Label note = Looks.label(of.note(), "text-ink", "small");
            note.setId("school-" + key + "-note");
            lines.getChildren().add(note);
        }
        lines.getChildren().add(binds);
        if (!answer.feasible()) {
            Label least = Looks.label(texts.get("planner.least"), "muted", "small");
            least.setId("school-" + key + "-least");
            lines.getChildren().add(least);
        }
        bars = new MarginBars(texts, ask);
        bars.show(answer.constraints().subList(0, Math.min(MARGINS, answer.constraints().size())),
                answer.robustness());
        lines.getChildren().addAll(bars, Looks.label(sure(answer.robustness(), texts), "muted", "small"));
        recipe(key, answer, plan, lines, texts);
        if (of.note().isEmpty()) {
            lines.getChildren().add(Looks.label(numbers(answer, texts), "muted", "small"));
        }
        var scroll = Looks.as(new ScrollPane(lines), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.setMinHeight(60);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(head, verdict, scroll);
        getStyleClass().add("card");
        if (chosen) {
            getStyleClass().add("chosen");
        }
        HBox.setHgrow(this, Priority.ALWAYS);
        setPrefWidth(100);
    }

    /** The keys of its margins. */
    boolean key(KeyCode code) {
        return bars.key(code);
    }

    private static void recipe(String key, Answer answer, RunPlan plan, VBox lines, Texts texts) {
        answer.recipe().shields().forEach(s -> lines.getChildren()
                .add(Looks.label(
                        texts.get("planner.foil", plain(s.fromMm().xMm()), plain(s.fromMm().yMm()),
                                plain(s.toMm().xMm()), plain(s.toMm().yMm())),
                        "text-ink", "small")));
        Placing placing = answer.recipe().placing();
        if (!placing.centred()) {
            Label beside = Looks.label(texts.say(placing.says(answer.plan().target().name())), "text-ink",
                    "small");
            beside.setId("school-" + key + "-beside");
            lines.getChildren().add(beside);
        }
        for (Stage stage : answer.recipe().stages()) {
            if (stage.purpose() != Stage.Purpose.COOL) {
                lines.getChildren().add(
                        Looks.label(stage(stage, plan.bench().air().dial(), texts), "text-ink", "small"));
            }
        }
    }

    static String binding(Constraint c, Texts texts) {
        return texts.get(c.kept() ? "planner.binds" : "planner.broken", texts.say(c.what()),
                MarginBars.room(c, texts));
    }

    private static String sure(Robustness r, Texts texts) {
        return texts.get("planner.sure", r.melts(), r.members(), r.all(), texts.temp(r.peakLowC()),
                texts.temp(r.peakHighC()));
    }

    private static String numbers(Answer a, Texts texts) {
        return texts.get("planner.numbers", texts.temp(a.outcome().peakMinC()),
                Words.clock(a.outcome().aboveLiquidusS()), Words.clock(a.outcome().lengthS()), a.tried(),
                texts.get(a.cutShort() ? "planner.cut" : "planner.whole", a.most()),
                String.format(Locale.ROOT, "%.1f K", a.drift().rmsK()));
    }

    private static String stage(Stage s, AirDial dial, Texts texts) {
        String heater = s.heaterC().map(c -> texts.get("planner.stage.heater", texts.temp(c))).orElse("");
        String air = s.air()
                .map(a -> texts.get("planner.stage.air", texts.temp(a.setC()),
                        texts.words().show(dial.says(a.flowLpm())),
                        plain(a.nozzleMm()), plain(a.distanceMm()), plain(a.circleMm())))
                .orElse("");
        String end = switch (s.end()) {
            case StageEnd.AfterTime t -> texts.get("planner.stage.time", Words.clock(t.seconds()));
            case StageEnd.ProbeReaches p ->
                texts.get("planner.stage.probe", p.probe(), texts.temp(p.celsius()));
            case StageEnd.MeltShown m -> texts.get("planner.stage.melt");
            default -> "";
        };
        return s.name() + ": " + heater + (heater.isEmpty() || air.isEmpty() ? "" : "; ") + air + end;
    }

    private static String plain(double value) {
        return String.format(Locale.ROOT, "%.0f", value);
    }
}
