package org.greenbead.app.overview;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.alloy.AlloyChoice;
import org.greenbead.core.moisture.Moisture;
import org.greenbead.core.overview.Overview;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Shield;
import org.greenbead.core.recipe.ShieldChoice;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;

/** What the plan comes to: six numbers that decide it, each with its reason and the next thing to do about it. */
public final class OverviewPage extends Page {
    private static final int IN_SIGHT = 13;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final HBox grid = new HBox();
    private final VBox left = new VBox();
    private final VBox right = new VBox();
    private final VBox page;
    private final Subscription watching;
    private Optional<Overview> shown = Optional.empty();
    private int turn;

    public OverviewPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("over-title");
        grid.setId("over-grid");
        grid.setSpacing(10);
        left.setSpacing(10);
        right.setSpacing(10);
        for (VBox half : List.of(left, right)) {
            half.setPrefWidth(300);
            HBox.setHgrow(half, Priority.ALWAYS);
        }
        grid.getChildren().addAll(left, right);
        var scroll = Looks.as(new ScrollPane(grid), "watch-scroll");
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("over.caps"), "caps"), title), "instruction");
        page = Looks.as(new VBox(head, scroll, Looks.label(texts.get("over.keys"), "muted", "small")),
                "page");
        backWord(texts.get("book.back"));
        noteWord(texts.get("over.ways"));
        watching = model.jobProperty().subscribe(j -> look())
                .and(model.onBoardProperty().subscribe(p -> look()));
    }

    private void look() {
        int mine = ++turn;
        Job job = model.job();
        Optional<RunPlan> plan = model.onBoardProperty().get();
        if (plan.isEmpty()) {
            title.setText(desk.texts().get("over.none"));
            pedal(new Pedal(desk.texts().get("book.home"), desk.texts().get("book.home.so"), true, go::home));
            return;
        }
        desk.compute(() -> Overview.of(job, plan.get()), o -> {
            if (mine == turn) {
                shown = Optional.of(o);
                show(o);
            }
        });
    }

    private void show(Overview o) {
        Texts texts = desk.texts();
        title.setText(texts.get("over.title", model.job().id(), model.job().target()));
        left.getChildren().setAll(ceiling(o, texts), alloys(o, texts), lift(o, texts));
        right.getChildren().setAll(mix(o, texts), dry(o, texts), kit(o, texts));
        if (o.kit().isEmpty()) {
            pedal(new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, go::home));
        } else {
            String tool = o.kit().getFirst();
            pedal(new Pedal(texts.get("over.kit.put", texts.say("kit." + tool)),
                    texts.get("over.kit.so", o.kit().size()), true, () -> putOut(tool)));
        }
    }

    private void putOut(String tool) {
        Kept fresh = model.fresh("kit");
        model.note(new Kept(fresh.id(), fresh.type(), fresh.at(), fresh.author(), Map.of("item", tool)));
    }

    private VBox card(String id, int number, String caps, Label figure) {
        var card = Looks.as(new VBox(3, Looks.label(number + "  " + caps, "caps"), figure), "card");
        card.setId(id);
        figure.setId(id + "-figure");
        return card;
    }

    private static String verdictInk(Moisture.Verdict verdict) {
        return switch (verdict) {
            case PASS -> "ink-green";
            case CARE -> "ink-amber";
            case STOP -> "ink-hot";
        };
    }

    private Region ceiling(Overview o, Texts texts) {
        VBox card = card("over-ceiling", 1, texts.get("over.ceiling"),
                Looks.label(texts.temp(o.ceiling().lowestC()), "figure", "ink-joint"));
        card.getChildren()
                .add(Looks.label(texts.get("over.ceiling.why", o.ceiling().site()), "muted", "small"));
        for (Overview.Heat heat : o.ceiling().heats()) {
            card.getChildren()
                    .add(Looks.label(texts.get("over.heat", heat.what(), texts.temp(heat.celsius()),
                            texts.rise(heat.marginK()),
                            texts.say("gate." + heat.verdict().name().toLowerCase(Locale.ROOT))),
                            "small", "strong", verdictInk(heat.verdict())));
        }
        card.getChildren().add(Looks.label(texts.get("over.ceiling.act"), "cure-line", "small"));
        return card;
    }

    private Region mix(Overview o, Texts texts) {
        var mix = o.mix().mix();
        VBox card = card("over-mix", 2, texts.get("over.mix"),
                Looks.label(texts.temp(mix.lowestSolidusC()), "figure",
                        mix.bismuthLead() ? "ink-hot" : "ink-green"));
        var parts = new StringBuilder();
        mix.made().weightPct().forEach((element, pct) -> {
            if (pct >= 0.1) {
                parts.append(parts.isEmpty() ? "" : ", ")
                        .append(String.format(Locale.ENGLISH, "%s %.1f %%", element, pct));
            }
        });
        card.getChildren()
                .addAll(Looks.label(texts.get("over.mix.of", o.mix().ball(), o.mix().factory(),
                        o.mix().diluent().isEmpty() ? texts.get("over.nothing") : o.mix().diluent()), "muted",
                        "small"),
                        Looks.label(parts.toString(), "text-ink", "small"),
                        Looks.label(o.mix().wickPasses() == 0
                                ? texts.get("over.wick.assumed", Math.round(o.mix().leftPart() * 100))
                                : texts.get("over.wick", o.mix().wickPasses(),
                                        Math.round(o.mix().leftPart() * 100)),
                                "muted", "small"));
        if (mix.bismuthLead()) {
            card.getChildren()
                    .add(Looks.label(texts.get("over.trap", texts.temp(96)), "ink-hot", "strong", "small"));
        }
        card.getChildren().add(Looks.label(texts.get("over.mix.act"), "cure-line", "small"));
        return card;
    }

    private Region alloys(Overview o, Texts texts) {
        AlloyChoice.Option best = o.alloys().getFirst();
        VBox card = card("over-alloy", 3, texts.get("over.alloy"),
                Looks.label(best.alloy(), "figure", "ink-green"));
        card.getChildren().add(Looks.label(
                texts.get("over.window", texts.words().bare(best.fromC()), texts.temp(best.toC())),
                "text-ink", "small"));
        for (AlloyChoice.Option option : o.alloys().stream().limit(3).toList()) {
            String words = String.join(", ", option.words().stream()
                    .map(w -> texts.say("alloyword." + w.name().toLowerCase(Locale.ROOT))).toList());
            Label line = Looks.label(
                    option.alloy() + ": " + (words.isEmpty() ? texts.get("over.plain") : words), "small",
                    option.possible() ? "text-ink" : "muted");
            card.getChildren().add(line);
        }
        card.getChildren().add(Looks.label(texts.get("over.alloy.act"), "cure-line", "small"));
        return card;
    }

    private Region dry(Overview o, Texts texts) {
        double left = o.moisture().leftH();
        Label figure = Looks.label(Double.isNaN(left)
                ? texts.get("over.dry.unknown")
                : texts.words().show(new Quantity.Hours(Math.abs(left))), "figure",
                left > 0 ? "ink-green" : "ink-amber");
        VBox card = card("over-dry", 4, texts.get("over.dry"), figure);
        card.getChildren().add(Looks.label(texts.get(left > 0 ? "over.dry.left" : "over.dry.past",
                texts.words().show(new Quantity.Hours(o.moisture().openH())),
                o.moisture().level().isEmpty() ? texts.say("book.not_noted") : o.moisture().level()), "muted",
                "small"));
        for (Moisture.Bake bake : o.moisture().bakes()) {
            card.getChildren().add(Looks.label(texts.get("over.bake", texts.temp(bake.bakeC()),
                    texts.words().show(new Quantity.Hours(bake.hours())),
                    texts.say("gate." + bake.verdict().name().toLowerCase(Locale.ROOT))), "small",
                    verdictInk(bake.verdict())));
        }
        card.getChildren().add(Looks.label(texts.get("over.dry.act"), "cure-line", "small"));
        return card;
    }

    private Region lift(Overview o, Texts texts) {
        var best = o.lift().getFirst();
        VBox card = card("over-lift", 5, texts.get("over.lift"),
                Looks.label(texts.say("side4." + best.side().name().toLowerCase(Locale.ROOT)), "figure",
                        best.enough() ? "ink-green" : "ink-hot"));
        var words = new VBox(3,
                Looks.label(
                        best.by().isEmpty()
                                ? texts.get("over.lift.open")
                                : texts.get("over.lift.by", best.by()),
                        "muted",
                        "small"),
                Looks.label(
                        texts.get("over.nozzle", Math.round(o.nozzle().fromMm()),
                                Math.round(o.nozzle().toMm())),
                        "text-ink", "small"),
                Looks.label(o.nozzle().inAir().isEmpty()
                        ? texts.get("over.air.none")
                        : texts.get("over.air", String.join(", ", o.nozzle().inAir())), "muted", "small"));
        for (ShieldChoice shield : o.shields().stream().limit(3).toList()) {
            Label line = Looks.label(texts.get("over.foil",
                    texts.say(shield.foil().isPresent() ? "maskword.foil" : "maskword.close"), shield.part(),
                    texts.say("masked.why." + shield.why().name().toLowerCase(Locale.ROOT)),
                    texts.words().show(new Quantity.Millimetres(shield.awayMm()))), "ink-amber", "small");
            line.setId("over-foil");
            words.getChildren().add(line);
        }
        int lies = model.onBoardProperty().get().map(p -> p.recipe().shields().size()).orElse(0);
        Label foilAct = Looks.label(lies > 0
                ? texts.get("over.foil.lie", lies)
                : o.shields().isEmpty() ? texts.get("over.foil.none") : texts.get("over.foil.act"),
                lies > 0 || !o.shields().isEmpty() ? "cure-line" : "muted", "small");
        foilAct.setId("over-foil-act");
        words.getChildren().add(foilAct);
        HBox.setHgrow(words, Priority.ALWAYS);
        var row = new HBox(8, words, new LiftCompass(o.lift(), texts));
        row.setAlignment(Pos.CENTER_LEFT);
        card.getChildren().addAll(row, Looks.label(texts.get("over.lift.act"), "cure-line", "small"));
        return card;
    }

    private Region kit(Overview o, Texts texts) {
        VBox card = card("over-kit", 6, texts.get("over.kit"),
                Looks.label(
                        o.kit().isEmpty()
                                ? texts.get("over.kit.all")
                                : texts.get("over.kit.missing", o.kit().size()),
                        "figure", o.kit().isEmpty() ? "ink-green" : "ink-amber"));
        var tools = new FlowPane(5, 5);
        for (String tool : o.kit().stream().limit(IN_SIGHT).toList()) {
            var button = Looks.as(new Button(texts.say("kit." + tool)), "act", "small", "kit");
            button.setId("kit-" + tool);
            button.setOnAction(press -> putOut(tool));
            tools.getChildren().add(button);
        }
        if (o.kit().size() > IN_SIGHT) {
            tools.getChildren().add(
                    Looks.label(texts.get("over.kit.more", o.kit().size() - IN_SIGHT), "muted", "small"));
        }
        card.getChildren().addAll(tools, Looks.label(texts.get("over.kit.act"), "cure-line", "small"));
        return card;
    }

    @Override
    public List<String> about() {
        return List.of("plan", "chip", "board", "joints", "nozzle", "bake", "parts");
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.home();
    }

    @Override
    public void note() {
        go.ways();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        switch (code) {
            case DIGIT1 -> to(List.of("plan_history", "close_parts"), "joint", "alloy");
            case DIGIT2 -> to(List.of("plan_history", "clean_board"), "joint", "wick_passes");
            case DIGIT3 -> to(List.of("plan_alloy"), "plan", "ball_alloy");
            case DIGIT4 -> to(List.of("plan_alloy", "clean_chip", "intake_loose"), "chip", "msl");
            case DIGIT5 -> to(List.of("plan_recipe", "plan_alloy"), "plan", "lift_side");
            case DIGIT6 -> shown.filter(o -> !o.kit().isEmpty()).ifPresent(o -> putOut(o.kit().getFirst()));
            case M -> foil();
            case W -> go.ways();
            case D -> go.picture();
            default -> {
                return false;
            }
        }
        return true;
    }

    /** Lays the foil that is proposed on the recipe, or takes off what lies there; the rehearsal shows what it does. */
    private void foil() {
        if (shown.isPresent() && model.onBoardProperty().get().isPresent()) {
            Recipe recipe = model.onBoardProperty().get().get().recipe();
            List<Shield> proposed = shown.get().shields().stream().flatMap(s -> s.foil().stream()).toList();
            if (!recipe.shields().isEmpty() || !proposed.isEmpty()) {
                model.reshape(recipe.shielded(recipe.shields().isEmpty() ? proposed : List.of()));
            }
        }
    }

    private void to(List<String> beads, String type, String field) {
        beads.stream()
                .filter(b -> model.job().bead(b)
                        .filter(x -> x.kind() == org.greenbead.core.route.Bead.Kind.CHECK)
                        .isPresent())
                .findFirst().ifPresent(b -> go.ask(b, type, field));
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
        turn++;
    }
}
