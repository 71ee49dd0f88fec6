package org.greenbead.app.recipe;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BiFunction;
import java.util.function.Function;
import javafx.animation.PauseTransition;
import javafx.geometry.HPos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import javafx.util.Subscription;
import org.greenbead.app.heat.HeatPage;
import org.greenbead.app.look.Looks;
import org.greenbead.app.run.HeatChart;
import org.greenbead.app.run.RoomBars;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.plan.GuessCost;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Attest;
import org.greenbead.core.run.PlanRules;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RehearsalRoom;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.StageMark;

/** Edits a recipe; the rehearsal is redrawn as numbers are typed, in °C or °F. */
public final class RecipePage extends Page {
    private static final Duration TYPING = Duration.millis(120);
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final RunPlan original;
    private final GridPane grid = new GridPane();
    private final HeatChart chart = new HeatChart();
    private final RoomBars rooms = new RoomBars();
    private final Label peak = Looks.as(new Label("–"), "figure");
    private final Label above = Looks.as(new Label("–"), "figure");
    private final Label ramp = Looks.as(new Label("–"), "figure");
    private final Label length = Looks.as(new Label("–"), "figure");
    private final Label entry = Looks.note("said");
    private final VBox page;
    private final Map<String, String> bad = new HashMap<>();
    private final PauseTransition typing = new PauseTransition(TYPING);
    private final AtomicInteger turn = new AtomicInteger();
    private final Subscription watching;
    private final GuessBars guesses;
    private final AtomicInteger weighing = new AtomicInteger();
    private RunPlan draft;
    /** Names the air station, where the bench has several; a press takes the next. */
    private Optional<Button> station = Optional.empty();

    public RecipePage(Desk desk, JobModel model, Navigator go, RunPlan plan) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.original = plan;
        this.draft = plan;
        Texts texts = desk.texts();
        guesses = new GuessBars(texts);
        guesses.setId("recipe-guesses");
        var title = new VBox(1, Looks.label(texts.get("recipe.caps"), "caps"),
                Looks.label(plan.recipe().title(), "now"));
        List<String> guessed = Assumed.ofTarget(plan.board(), plan.job().target());
        if (!guessed.isEmpty()) {
            Label note = Looks.label(texts.get("recipe.assumed", String.join(", ", guessed.stream()
                    .map(a -> texts.words().say("assumed." + Assumed.what(a),
                            new Quantity.Name(Assumed.chip(a))))
                    .toList())), "ink-amber", "small");
            note.setId("recipe-assumed");
            title.getChildren().add(note);
        }
        if (!plan.recipe().placing().centred()) {
            Label beside = Looks.label(texts.say(plan.recipe().placing().says(plan.target().name())),
                    "text-ink", "small");
            beside.setId("recipe-beside");
            title.getChildren().add(beside);
        }
        HBox.setHgrow(title, Priority.ALWAYS);
        title.setMinWidth(0);
        var head = Looks.as(new HBox(8, title, tool("open-heat", "recipe.heat", this::heat, texts),
                tool("open-planner", "recipe.plan", this::planner, texts)), "instruction");
        // Also where the recipe names a station that is not on this bench: then one that is can be taken.
        if (plan.bench().stations().size() > 1 || !atHand(plan)) {
            station = Optional.of(tool("recipe-station", "recipe.station.take", this::otherStation, texts));
            head.getChildren().add(1, station.get());
        }
        head.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        entry.setId("recipe-entry");
        entry.pseudoClassStateChanged(Looks.BAD, true);
        var figures = new FlowPane(22, 2, figure(peak, "recipe.figure.peak", texts),
                figure(above, "recipe.figure.above", texts), figure(ramp, "recipe.figure.ramp", texts),
                figure(length, "recipe.figure.length", texts));
        peak.setId("figure-peak");
        ramp.setId("figure-ramp");
        above.setId("figure-above");
        chart.setId("rehearsal-chart");
        VBox.setVgrow(chart, Priority.ALWAYS);
        chart.setMinHeight(140);
        var chartCard = Looks.as(new VBox(6, figures, chart), "card");
        chartCard.setMinWidth(0);
        HBox.setHgrow(chartCard, Priority.ALWAYS);
        var roomCard = Looks.as(new VBox(8, Looks.label(texts.get("recipe.room"), "caps"), rooms, guesses),
                "card");
        roomCard.setMinWidth(225);
        roomCard.setPrefWidth(250);
        roomCard.setMaxWidth(300);
        var top = new HBox(10, chartCard, roomCard);
        VBox.setVgrow(top, Priority.ALWAYS);
        grid.setMinWidth(0);
        grid.setHgap(8);
        grid.setVgap(3);
        var gridCard = Looks.as(new VBox(4, grid, entry), "card");
        page = Looks.as(new VBox(head, top, gridCard), "page");
        typing.setOnFinished(done -> rehearse());
        watching = Subscription.combine(desk.settings().unit().subscribe(u -> build()),
                model.jobProperty().subscribe(j -> draft = draft.with(j)));
        backWord(texts.get("recipe.revert"));
        rehearse();
    }

    private static Button tool(String id, String word, Runnable action, Texts texts) {
        var button = Looks.as(new Button(texts.get(word)), "act");
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(press -> action.run());
        return button;
    }

    /** Of the numbers as they stand here. */
    private void heat() {
        go.page(new HeatPage(desk, model, go, draft), draft.job().id(), draft.bead());
    }

    private void planner() {
        go.page(new PlannerPage(desk, model, go, draft), draft.job().id(), draft.bead());
    }

    private static VBox figure(Label value, String key, Texts texts) {
        Label name = Looks.as(new Label(texts.get(key)), "muted", "small");
        return new VBox(0, value, name);
    }

    private static boolean atHand(RunPlan plan) {
        return plan.recipe().station().map(plan.bench()::has).orElse(true);
    }

    /** The same heat from the next station of the bench, to be rehearsed and set right. */
    private void otherStation() {
        if (station.isEmpty()) {
            return;
        }
        draft = draft.by(atHand(draft) ? draft.bench().nextStation() : draft.bench().air().name());
        bad.clear();
        entry.setText("");
        build();
        rehearse();
    }

    private void build() {
        Texts texts = desk.texts();
        station.ifPresent(b -> b.setText(atHand(draft)
                ? texts.get("recipe.station", draft.bench().air().name())
                : texts.get("recipe.station.take")));
        grid.getChildren().clear();
        grid.getColumnConstraints().clear();
        var names = new ColumnConstraints();
        names.setMinWidth(Region.USE_PREF_SIZE);
        grid.getColumnConstraints().add(names);
        String sign = texts.words().unit().sign();
        List<String> rows = List.of(texts.get("recipe.heater", sign), texts.get("recipe.air", sign),
                flowWord(texts), texts.get("recipe.nozzle"),
                texts.get("recipe.distance"), texts.get("recipe.circle"), texts.get("recipe.end"));
        for (int i = 0; i < rows.size(); i++) {
            grid.add(Looks.as(new Label(rows.get(i)), "stage-row"), 0, i + 1);
        }
        List<Stage> stages = draft.recipe().stages();
        for (int i = 0; i < stages.size(); i++) {
            var column = new ColumnConstraints();
            column.setHgrow(Priority.ALWAYS);
            column.setMinWidth(0);
            column.setPrefWidth(100);
            column.setHalignment(HPos.LEFT);
            grid.getColumnConstraints().add(column);
            column(i, stages.get(i), texts);
        }
    }

    private void column(int index, Stage stage, Texts texts) {
        int col = index + 1;
        grid.add(Looks.as(new Label(stage.name()), "stage-head"), col, 0);
        grid.add(field(index, "heater", s -> s.heaterC().map(texts.words()::bare).orElse(""), true,
                (s, c) -> s.withHeater(c)), col, 1);
        boolean cools = stage.purpose() == Stage.Purpose.COOL;
        if (!cools) {
            grid.add(field(index, "air", s -> s.air().map(a -> texts.words().bare(a.setC())).orElse(""), true,
                    this::air), col, 2);
            grid.add(field(index, "flow", s -> s.air().map(a -> tenth(dial().dial(a.flowLpm()))).orElse(""),
                    false,
                    (s, v) -> s.withAir(s.air().map(a -> new AirSetting(a.setC(), dial().lpm(v.orElseThrow()),
                            a.nozzleMm(), a.distanceMm(), a.circleMm())))),
                    col, 3);
            grid.add(field(index, "nozzle", s -> s.air().map(a -> plain(a.nozzleMm())).orElse(""), false,
                    (s, v) -> s.withAir(s.air().map(a -> new AirSetting(a.setC(), a.flowLpm(),
                            v.orElseThrow(), a.distanceMm(), a.circleMm())))),
                    col, 4);
            grid.add(field(index, "distance", s -> s.air().map(a -> plain(a.distanceMm())).orElse(""), false,
                    (s, v) -> s.withAir(s.air().map(a -> new AirSetting(a.setC(), a.flowLpm(), a.nozzleMm(),
                            v.orElseThrow(), a.circleMm())))),
                    col, 5);
            grid.add(field(index, "circle", s -> s.air().map(a -> plain(a.circleMm())).orElse(""), false,
                    (s, v) -> s.withAir(s.air().map(a -> new AirSetting(a.setC(), a.flowLpm(), a.nozzleMm(),
                            a.distanceMm(), v.orElseThrow())))),
                    col, 6);
        }
        grid.add(end(index, stage, texts), col, 7);
    }

    private Region end(int index, Stage stage, Texts texts) {
        return switch (stage.end()) {
            case StageEnd.AfterTime t -> pair(
                    field(index, "end", s -> plain(((StageEnd.AfterTime) s.end()).seconds()), false,
                            (s, v) -> s.withEnd(new StageEnd.AfterTime(v.orElseThrow()))),
                    texts.get("recipe.end.seconds"));
            case StageEnd.ProbeReaches p -> {
                TextField goal = field(index, "end",
                        s -> texts.words().bare(((StageEnd.ProbeReaches) s.end()).celsius()), true,
                        (s, c) -> {
                            var was = (StageEnd.ProbeReaches) s.end();
                            return s.withEnd(new StageEnd.ProbeReaches(was.probe(), c.orElseThrow(
                                    () -> new IllegalArgumentException("the probe's temperature is empty")),
                                    was.holdS()));
                        });
                TextField hold = field(index, "hold", st -> plain(((StageEnd.ProbeReaches) st.end()).holdS()),
                        false, (st, v) -> {
                            var was = (StageEnd.ProbeReaches) st.end();
                            return st.withEnd(
                                    new StageEnd.ProbeReaches(was.probe(), was.celsius(), v.orElseThrow()));
                        });
                goal.setPrefWidth(58);
                hold.setPrefWidth(48);
                Label name = Looks.label(texts.get("recipe.end.probe", p.probe()), "stage-note");
                yield new VBox(1, name, new HBox(4, goal, hold));
            }
            case StageEnd.TechnicianSays w -> Looks.label(texts.get("recipe.end.word"), "stage-note");
            case StageEnd.MeltShown m -> Looks.label(texts.get("recipe.end.melt"), "stage-note");
            case StageEnd.SafeToMove m -> Looks.label(texts.get("recipe.end.safe"), "stage-note");
        };
    }

    private static Region pair(TextField field, String unit) {
        var box = new VBox(1);
        var row = new HBox(5, field);
        if (!unit.isEmpty()) {
            row.getChildren().add(Looks.as(new Label(unit), "stage-note"));
        }
        HBox.setHgrow(field, Priority.ALWAYS);
        box.getChildren().add(row);
        return box;
    }

    /** Switching air on takes settings that are sensible until others are typed. */
    private Stage air(Stage stage, Optional<Double> celsius) {
        return stage.withAir(celsius.map(c -> stage.air()
                .map(a -> new AirSetting(c, a.flowLpm(), a.nozzleMm(), a.distanceMm(), a.circleMm()))
                .orElseGet(() -> draft.gentleAir(c))));
    }

    private AirDial dial() {
        return draft.bench().air().dial();
    }

    private String flowWord(Texts texts) {
        return switch (dial().scale()) {
            case LITRES -> texts.get("recipe.flow.litres");
            case PERCENT -> texts.get("recipe.flow.percent");
            case STEPS -> texts.get("recipe.flow.steps");
        };
    }

    private static String tenth(double value) {
        return plain(Math.rint(value * 10) / 10);
    }

    private static String plain(double value) {
        return value == Math.rint(value) ? Long.toString((long) value) : Double.toString(value);
    }

    private TextField field(int index, String what, Function<Stage, String> show, boolean temperature,
            BiFunction<Stage, Optional<Double>, Stage> set) {
        var field = Looks.as(new TextField(show.apply(draft.recipe().stages().get(index))), "number-field");
        String id = "stage-" + index + "-" + what;
        field.setId(id);
        field.setPrefColumnCount(5);
        field.setMaxWidth(110);
        field.setMinWidth(40);
        field.setPrefWidth(90);
        field.setPromptText(desk.texts().get("recipe.off"));
        field.setAccessibleText(draft.recipe().stages().get(index).name() + " " + what);
        field.textProperty().subscribe((was, now) -> typed(field, id, index, what, now, temperature, set));
        return field;
    }

    private void typed(TextField field, String id, int index, String what, String text, boolean temperature,
            BiFunction<Stage, Optional<Double>, Stage> set) {
        Texts texts = desk.texts();
        Stage before = draft.recipe().stages().get(index);
        String place = before.name() + " " + what;
        try {
            Stage after = set.apply(before, read(text, temperature, place, texts));
            draft = draft.with(draft.recipe().with(index, after));
            bad.remove(id);
        } catch (IllegalArgumentException | java.util.NoSuchElementException e) {
            bad.put(id,
                    e instanceof IllegalArgumentException
                            ? e.getMessage()
                            : texts.get("recipe.entry.number", place));
        }
        boolean airWasOff = before.air().isEmpty();
        field.pseudoClassStateChanged(Looks.BAD, bad.containsKey(id));
        field.pseudoClassStateChanged(Looks.CHANGED, !bad.containsKey(id)
                && !draft.recipe().stages().get(index).equals(original.recipe().stages().get(index)));
        entry.setText(bad.isEmpty() ? "" : bad.values().iterator().next());
        if ("air".equals(what) && airWasOff != draft.recipe().stages().get(index).air().isEmpty()) {
            build();
            if (grid.lookup("#" + id) instanceof TextField again) {
                again.requestFocus();
                again.end();
            }
        }
        typing.playFromStart();
        pedalNow();
    }

    /** Empty is off; words are refused with what could be written. */
    private static Optional<Double> read(String text, boolean temperature, String place, Texts texts) {
        if (text.isBlank()) {
            return Optional.empty();
        }
        if (temperature) {
            OptionalDouble celsius = texts.words().unit().parseC(text);
            return Optional.of(celsius
                    .orElseThrow(() -> new IllegalArgumentException(texts.get("recipe.entry.temp", place))));
        }
        try {
            return Optional.of(Double.parseDouble(text.strip().replace(',', '.')));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(texts.get("recipe.entry.number", place), e);
        }
    }

    private void rehearse() {
        int mine = turn.incrementAndGet();
        RunPlan plan = draft;
        desk.compute(() -> Rehearsal.of(plan, () -> mine != turn.get()), made -> {
            if (mine == turn.get()) {
                show(plan, made);
            }
        });
        pedalNow();
    }

    private void show(RunPlan plan, Rehearsal made) {
        Texts texts = desk.texts();
        double liquidus = plan.target().joint().alloy().liquidusC();
        double wanted = liquidus + plan.recipe().limits().overLiquidusK();
        peak.setText(texts.temp(made.peakJointMinC()));
        peak.pseudoClassStateChanged(Looks.BAD, made.peakJointMinC() < wanted);
        above.setText(
                made.aboveLiquidusS() > 0 ? Words.clock(made.aboveLiquidusS()) : texts.get("recipe.never"));
        above.pseudoClassStateChanged(Looks.BAD,
                made.aboveLiquidusS() <= 0 || made.aboveLiquidusS() > plan.recipe().limits().longestMeltS());
        ramp.setText(texts.rate(made.fastestKPerS()));
        ramp.pseudoClassStateChanged(Looks.BAD, made.fastestKPerS() > plan.recipe().limits().rampUpKPerS());
        length.setText(Words.clock(made.lengthS()));
        rooms.compact(Looks.compact(desk.settings().textPercent().get()));
        rooms.show(RehearsalRoom.of(plan, made), true, texts);
        chart.show(data(plan, made, texts));
        findings(PlanRules.look(plan, Optional.of(made)));
        pedalNow();
        weigh(plan);
    }

    /** What each assumption may cost with these settings, reckoned beside the page. */
    private void weigh(RunPlan plan) {
        if (Assumed.ofTarget(plan.board(), plan.job().target()).isEmpty()) {
            return;
        }
        int mine = weighing.incrementAndGet();
        desk.compute(() -> GuessCost.of(plan, () -> mine != weighing.get()), found -> {
            if (mine == weighing.get()) {
                guesses.show(found);
            }
        });
    }

    private static HeatChart.Data data(RunPlan plan, Rehearsal made, Texts texts) {
        double[] time = made.rows().stream().mapToDouble(Rehearsal.Row::timeS).toArray();
        var curves = new ArrayList<HeatChart.Curve>();
        curves.add(new HeatChart.Curve("joint", texts.get("run.legend.joint"), time,
                made.rows().stream().mapToDouble(Rehearsal.Row::jointMinC).toArray()));
        curves.add(new HeatChart.Curve("top", texts.get("run.legend.top"), time,
                made.rows().stream().mapToDouble(Rehearsal.Row::packageTopC).toArray()));
        curves.add(new HeatChart.Curve("board", texts.get("run.legend.board"), time,
                made.rows().stream().mapToDouble(Rehearsal.Row::boardTopC).toArray()));
        curves.add(new HeatChart.Curve("under", texts.get("run.legend.under"), time,
                made.rows().stream().mapToDouble(Rehearsal.Row::boardUnderC).toArray()));
        RehearsalRoom.closestNeighbour(plan, made)
                .ifPresent(n -> curves.add(
                        new HeatChart.Curve("neighbour", texts.get("run.legend.neighbour", n.name()), time,
                                made.rows().stream().mapToDouble(r -> r.guardedC()[n.index()]).toArray())));
        var stages = new ArrayList<HeatChart.StageSpan>();
        for (StageMark mark : made.marks()) {
            stages.add(new HeatChart.StageSpan(mark.name(), Words.clock(mark.startS()), mark.startS(),
                    mark.endS()));
        }
        double liquidus = plan.target().joint().alloy().liquidusC();
        return new HeatChart.Data(curves, new double[0], liquidus, plan.target().bodyLimitC(),
                texts.get("run.window", texts.words().bare(liquidus), texts.temp(plan.target().bodyLimitC())),
                stages, OptionalDouble.empty(), made.lengthS() * 1.02,
                texts.words()::bare);
    }

    private boolean changed() {
        return !draft.recipe().equals(original.recipe());
    }

    private void pedalNow() {
        Texts texts = desk.texts();
        backWord(texts.get(changed() || !bad.isEmpty() ? "recipe.revert" : "key.back"));
        if (!bad.isEmpty()) {
            String field = bad.keySet().iterator().next().replaceFirst("stage-\\d+-", "");
            pedal(Pedal.shut(texts.get("recipe.bad", field), texts.get("recipe.bad.so")));
        } else if (changed()) {
            pedal(new Pedal(texts.get("recipe.keep"), texts.get("recipe.keep.so"), true, this::keep));
        } else if (model.nextRun().map(
                b -> b.id().equals(original.bead()) || b.recipe().equals(Optional.of(original.recipe().id())))
                .orElse(false)) {
            pedal(new Pedal(texts.get("recipe.go"), texts.get("recipe.go.so"), true, () -> {
                if (model.job().inHand().map(b -> b.kind() == org.greenbead.core.route.Bead.Kind.RECIPE)
                        .orElse(false)) {
                    model.recipeKept(draft.recipe());
                }
                go.home();
            }));
        } else {
            pedal(new Pedal(texts.get("recipe.go.none"), texts.get("recipe.go.none.so"), true, go::home));
        }
    }

    private void keep() {
        Recipe kept = draft.recipe();
        model.recipeKept(kept);
        go.recipe(original.bead());
    }

    @Override
    public boolean planned() {
        return true;
    }

    @Override
    public List<String> about() {
        return List.of("plan", "stages", "heater", "station", "nozzle", "probes", "board", "bench");
    }

    @Override
    public Region node() {
        return page;
    }

    /** Undoes what was typed, or goes back to the job. */
    @Override
    public void back() {
        if (changed() || !bad.isEmpty()) {
            go.recipe(original.bead());
        } else {
            go.home();
        }
    }

    @Override
    public void remedy(Finding finding) {
        finding.remedy().ifPresent(r -> {
            switch (r) {
                case Remedy.Attest a -> {
                    model.attest(a.check(), Attest.YES);
                    rehearse();
                }
                case Remedy.SetHeater h -> put(h.stage(),
                        draft.recipe().stages().get(h.stage()).withHeater(Optional.of(h.celsius())));
                case Remedy.SetAir a ->
                    put(a.stage(), draft.recipe().stages().get(a.stage()).withAir(Optional.of(a.air())));
                case Remedy.SetEnd e ->
                    put(e.stage(), draft.recipe().stages().get(e.stage()).withEnd(e.end()));
                case Remedy.Tell t -> {
                    // Only while a run is on.
                }
                case Remedy.OpenRecipe o -> grid.getChildren().stream().filter(TextField.class::isInstance)
                        .findFirst().ifPresent(javafx.scene.Node::requestFocus);
            }
        });
    }

    private void put(int index, Stage stage) {
        draft = draft.with(draft.recipe().with(index, stage));
        bad.clear();
        entry.setText("");
        build();
        rehearse();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.ESCAPE) {
            back();
            return true;
        }
        if (code == KeyCode.A && !control) {
            otherStation();
            return true;
        }
        if (code == KeyCode.H && !control) {
            heat();
            return true;
        }
        if (code == KeyCode.P && !control) {
            planner();
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        turn.incrementAndGet();
        weighing.incrementAndGet();
        typing.stop();
        watching.unsubscribe();
    }

}
