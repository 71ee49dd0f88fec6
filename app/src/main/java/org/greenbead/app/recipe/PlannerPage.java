package org.greenbead.app.recipe;

import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.run.HeatChart;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.plan.Answer;
import org.greenbead.core.plan.Constraint;
import org.greenbead.core.plan.HeatBefore;
import org.greenbead.core.plan.Outcome;
import org.greenbead.core.plan.Planner;
import org.greenbead.core.plan.School;
import org.greenbead.core.plan.WayOut;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.BallForming;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.HeatsBefore;

/** The planner: each school's best recipe side by side, what binds it, how sure it is, and what would leave more room. */
public final class PlannerPage extends Page {
    private static final List<String> OTHERS = List.of("under", "board", "neighbour");
    private static final List<RunPlan.Task> TARGETS = List.of(RunPlan.Task.LIFT, RunPlan.Task.SEAT,
            RunPlan.Task.REFLOW, RunPlan.Task.FORM);
    private static final double CURVES_HIGH = 210;
    private static final double CURVES_LOW = 180;
    private static final int MOST_BEFORE = 12;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final RunPlan asked;
    private final HBox targets = new HBox(6);
    private final Label title = Looks.label("", "now");
    private RunPlan plan;
    /** What is sought, while its board may still be read. */
    private RunPlan.Task target = RunPlan.Task.LIFT;
    private Planner planner;
    private final HBox schools = new HBox(10);
    private final HeatChart curves = new HeatChart();
    private final ProgressBar bar = new ProgressBar(0);
    private final Label said = Looks.label("", "muted");
    private final VBox ways = new VBox(5);
    private final Button price;
    private final AtomicInteger turn = new AtomicInteger();
    private final AtomicBoolean enough = new AtomicBoolean();
    private boolean searching;
    private final Map<School, Answer> answers = new EnumMap<>(School.class);
    private List<School> order = List.of();
    private List<HeatBefore> before = List.of();
    private int beforeAt;
    private Optional<Answer> asBefore = Optional.empty();
    private final VBox page;
    private final Subscription watching;
    private Optional<Answer> chosen = Optional.empty();
    private boolean working;

    public PlannerPage(Desk desk, JobModel model, Navigator go, RunPlan plan) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.asked = plan;
        Texts texts = desk.texts();
        bar.setId("planner-bar");
        bar.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(bar, Priority.ALWAYS);
        said.setId("planner-said");
        said.setMinWidth(260);
        price = Looks.as(new Button(texts.get("planner.price")), "act");
        price.setId("planner-price");
        price.setMinWidth(Region.USE_PREF_SIZE);
        price.setOnAction(press -> priceWays());
        price.setDisable(true);
        ways.setId("planner-ways");
        var progress = new HBox(12, said, bar);
        progress.setAlignment(Pos.CENTER_LEFT);
        progress.managedProperty().bind(said.textProperty().isNotEmpty());
        progress.visibleProperty().bind(progress.managedProperty());
        VBox.setVgrow(schools, Priority.ALWAYS);
        schools.setMinHeight(160);
        curves.setId("planner-curves");
        curves.setPrefHeight(CURVES_HIGH);
        curves.setMinHeight(CURVES_LOW);
        var picture = Looks.as(new VBox(curves), "card", "tight");
        var wayHead = new HBox(12, Looks.label(texts.get("planner.ways"), "caps"), price);
        wayHead.setAlignment(Pos.CENTER_LEFT);
        var scroll = Looks.as(new ScrollPane(ways), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.prefHeightProperty().bind(javafx.beans.binding.Bindings.size(ways.getChildren())
                .map(n -> Math.min(150, 52.0 * n.intValue())));
        scroll.managedProperty().bind(javafx.beans.binding.Bindings.isNotEmpty(ways.getChildren()));
        scroll.visibleProperty().bind(scroll.managedProperty());
        var wayCard = Looks.as(new VBox(6, wayHead, scroll), "card");
        for (RunPlan.Task task : TARGETS) {
            var button = Looks.as(new Button(texts.say("target." + task.name().toLowerCase(Locale.ROOT))),
                    "act", "small");
            button.setId("target-" + task.name().toLowerCase(Locale.ROOT));
            button.setOnAction(press -> aim(task));
            targets.getChildren().add(button);
        }
        targets.getChildren().add(Looks.label("T", "muted"));
        title.setId("planner-title");
        targets.setAlignment(Pos.CENTER_RIGHT);
        var caps = Looks.label(texts.get("planner.caps"), "caps");
        caps.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(caps, Priority.ALWAYS);
        var head = Looks.as(new VBox(1, new HBox(12, caps, targets), title), "instruction");
        page = Looks.as(new VBox(head, picture, schools, wayCard, progress), "page");
        watching = model.findingsProperty().subscribe(f -> findings(f));
        backWord(texts.get("planner.back"));
        aim(plan.task());
    }

    /** Seeks for another purpose: the same chip lifted, seated, reflowed, or off its board under a stencil. */
    private void aim(RunPlan.Task task) {
        int mine = turn.incrementAndGet();
        target = task;
        if (task == asked.task()) {
            aimed(asked);
        } else if (task == RunPlan.Task.FORM) {
            aimed(asked.forming(BallForming.usual(asked.target(), asked.target().joint().alloy())));
        } else {
            // A lift melts the joints that are there, a seat those of the balls.
            desk.io(() -> desk.ledger().unit(asked.job(), task), board -> {
                if (mine == turn.get()) {
                    aimed(asked.to(task).with(board));
                }
            });
        }
    }

    private void aimed(RunPlan found) {
        RunPlan.Task task = found.task();
        Texts texts = desk.texts();
        plan = found;
        if (task != asked.task()) {
            String id = asked.board().id().toLowerCase(Locale.ROOT).replace("-", "") + "-"
                    + task.name().toLowerCase(Locale.ROOT);
            Recipe own = plan.recipe();
            // What dries the board in front of a lift has no place on a loose chip.
            List<Stage> stages = task == RunPlan.Task.FORM
                    ? own.stages().stream().filter(s -> s.purpose() != Stage.Purpose.DRY_OUT).toList()
                    : own.stages();
            plan = plan.with(new Recipe(id,
                    texts.get("planner.recipe.title", texts.say(key(task)), plan.target().name()),
                    stages, own.limits(), own.shields(), own.placing(), own.station()));
        }
        RunPlan now = plan;
        planner = new Planner(now, now.knowledge(), Planner.Effort.USUAL);
        order = java.util.Arrays.stream(School.values()).filter(s -> s.possible(now))
                .sorted(java.util.Comparator.comparing(s -> s == School.AIR_ALONE)).toList();
        answers.clear();
        chosen = Optional.empty();
        before = List.of();
        asBefore = Optional.empty();
        ways.getChildren().clear();
        String word = texts.say(key(task));
        String chip = now.target().name();
        String alloy = now.target().joint().alloy().name();
        title.setText(task == RunPlan.Task.FORM
                ? texts.get("planner.title.form", word, chip, alloy)
                : texts.get("planner.title.board", word, chip, alloy));
        for (var button : targets.getChildren()) {
            button.setDisable(button.getId() != null
                    && button.getId().equals("target-" + task.name().toLowerCase(Locale.ROOT)));
        }
        schools.getChildren().clear();
        for (School school : order) {
            schools.getChildren().add(waiting(school, texts));
        }
        draw(texts);
        next(0);
        lookBack();
    }

    /** What was run here before for the same purpose, if anything was. */
    private void lookBack() {
        int mine = turn.get();
        RunPlan now = plan;
        desk.io(() -> HeatsBefore.of(desk.ledger(), now, MOST_BEFORE), found -> {
            if (mine == turn.get() && !found.isEmpty()) {
                before = found;
                beforeAt = 0;
                judgeBefore();
            }
        });
    }

    /** The settings of then on the bench of now. */
    private void judgeBefore() {
        int mine = turn.get();
        int which = beforeAt;
        HeatBefore heat = before.get(which);
        RunPlan now = plan;
        Planner by = planner;
        desk.background(() -> by.judged(heat.on(now), d -> {
        }, () -> mine != turn.get() || which != beforeAt), answer -> {
            if (mine == turn.get() && which == beforeAt) {
                boolean was = chosen.isPresent() && chosen.equals(asBefore);
                asBefore = Optional.of(answer);
                if (was) {
                    chosen = asBefore;
                }
                show();
            }
        }, error -> {
            if (!(error instanceof CancellationException)) {
                failed(error);
            }
        });
    }

    /** Every answer that can be chosen, in the order of the cards. */
    private List<Answer> all() {
        return Stream.concat(order.stream().map(answers::get), Stream.of(asBefore.orElse(null)))
                .filter(java.util.Objects::nonNull).toList();
    }

    private SchoolCard.Head head(Answer answer, Texts texts) {
        if (asBefore.filter(a -> a == answer).isEmpty()) {
            return SchoolCard.Head.of(answer.school(), texts);
        }
        HeatBefore heat = before.get(beforeAt);
        String became = heat.timesWell() + heat.timesBadly() == 0
                ? texts.get("planner.before.untold")
                : texts.get("planner.before.became", heat.timesWell(), heat.timesWell() + heat.timesBadly());
        became += heat.otherAlloy(plan).map(a -> " " + texts.get("planner.before.alloy", a)).orElse("");
        String note = texts.get(heat.practice() ? "planner.before.practice" : "planner.before.note",
                heat.job(),
                LocalDate.ofInstant(heat.at(), ZoneId.systemDefault()),
                texts.say("verdict.outcome." + heat.outcome().name().toLowerCase(Locale.ROOT)),
                texts.temp(heat.peakJointC()), Words.clock(heat.aboveS()), heat.plan().bench().id(), became);
        return new SchoolCard.Head("before", before.size() == 1
                ? texts.get("planner.before")
                : texts.get("planner.before.of", beforeAt + 1, before.size()), note);
    }

    private static String key(RunPlan.Task task) {
        return "target." + task.name().toLowerCase(Locale.ROOT);
    }

    private VBox waiting(School school, Texts texts) {
        var card = Looks.as(new VBox(6, Looks.label(name(school, texts), "big"),
                Looks.label(texts.get("planner.wait"), "muted")), "card");
        HBox.setHgrow(card, Priority.ALWAYS);
        card.setPrefWidth(100);
        return card;
    }

    private static String name(School school, Texts texts) {
        return texts.say("school." + school.name().toLowerCase(Locale.ROOT));
    }

    /** One school after another; the first answer can be taken while the next is sought. */
    private void next(int index) {
        int mine = turn.get();
        searching = index < order.size();
        enough.set(false);
        if (index >= order.size()) {
            working = false;
            bar.setProgress(0);
            said.setText("");
            show();
            return;
        }
        working = true;
        School school = order.get(index);
        Texts texts = desk.texts();
        said.setText(texts.get("planner.search", name(school, texts)));
        pedalNow();
        desk.background(() -> planner.answer(school, d -> Platform.runLater(() -> progress(mine, d)),
                () -> mine != turn.get(), enough::get), answer -> {
                    if (mine == turn.get()) {
                        answers.put(school, answer);
                        if (chosen.isEmpty() || !chosen.get().feasible() && answer.feasible()) {
                            chosen = Optional.of(answer);
                        }
                        show();
                        next(index + 1);
                    }
                }, this::failed);
    }

    private void progress(int mine, double done) {
        if (mine == turn.get()) {
            bar.setProgress(Math.max(bar.getProgress() > 0.99 ? 0 : bar.getProgress(), done));
        }
    }

    private void failed(Throwable error) {
        working = false;
        searching = false;
        bar.setProgress(0);
        if (!(error instanceof CancellationException)) {
            said.setText(desk.texts().get("planner.failed", String.valueOf(error.getMessage())));
        }
        pedalNow();
    }

    private void show() {
        bar.setProgress(0);
        schools.getChildren().clear();
        Texts texts = desk.texts();
        for (School school : order) {
            schools.getChildren().add(
                    answers.containsKey(school) ? card(answers.get(school), texts) : waiting(school, texts));
        }
        asBefore.ifPresent(answer -> schools.getChildren().add(card(answer, texts)));
        draw(texts);
        pedalNow();
    }

    /** The joint of every school over one another, the chosen one with its stages and with where nine benches in ten peak. */
    private void draw(Texts texts) {
        var drawn = new ArrayList<HeatChart.Curve>();
        var stages = new ArrayList<HeatChart.StageSpan>();
        chosen.ifPresent(answer -> {
            drawn.add(curve(answer, "joint", texts));
            double from = 0;
            for (int i = 0; i < answer.outcome().stages().size(); i++) {
                double to = answer.outcome().stages().get(i).atS();
                stages.add(new HeatChart.StageSpan(answer.recipe().stages().get(i).name(), Words.clock(from),
                        from, to));
                from = to;
            }
        });
        for (Answer answer : all()) {
            if (chosen.filter(c -> c == answer).isEmpty()) {
                drawn.add(curve(answer, OTHERS.get(all().indexOf(answer) % OTHERS.size()), texts));
            }
        }
        double liquidus = plan.target().joint().alloy().liquidusC();
        double body = plan.target().bodyLimitC();
        double end = all().stream().mapToDouble(a -> a.outcome().lengthS()).max().orElse(60);
        curves.show(new HeatChart.Data(drawn, new double[0], liquidus, body,
                texts.get("run.window", texts.words().bare(liquidus), texts.temp(body)), stages,
                OptionalDouble.empty(), end * 1.02, texts.words()::bare));
    }

    private HeatChart.Curve curve(Answer answer, String style, Texts texts) {
        List<Outcome.Sample> trace = answer.outcome().trace();
        return new HeatChart.Curve(style,
                texts.get("planner.curve", head(answer, texts).name(),
                        Words.clock(answer.outcome().lengthS())),
                trace.stream().mapToDouble(Outcome.Sample::timeS).toArray(),
                trace.stream().mapToDouble(Outcome.Sample::jointC).toArray());
    }

    /** What the chosen school would do if a limit stood elsewhere; nothing is changed by asking. */
    private void ask(Answer answer, Constraint limit, double to) {
        int mine = turn.get();
        Texts texts = desk.texts();
        working = true;
        String what = texts.say(limit.what());
        ways.getChildren().setAll(Looks.label(texts.get("planner.asking", what), "muted"));
        said.setText(texts.get("planner.asking", what));
        pedalNow();
        desk.background(() -> planner.ifLimitWere(answer, limit, to,
                d -> Platform.runLater(() -> progress(mine, d)), () -> mine != turn.get()), would -> {
                    if (mine == turn.get()) {
                        working = false;
                        bar.setProgress(0);
                        said.setText("");
                        double longer = would.outcome().lengthS() - answer.outcome().lengthS();
                        Label told = Looks.label(texts.get("planner.moved", what,
                                MarginBars.value(limit, to, texts),
                                MarginBars.value(limit, limit.limit(), texts),
                                SchoolCard.binding(would.binding(), texts),
                                (longer < 0 ? "−" : "+") + Words.clock(Math.abs(longer)),
                                would.robustness().all(), would.robustness().members()), "text-ink");
                        told.setId("planner-moved");
                        ways.getChildren().setAll(told);
                        pedalNow();
                    }
                }, this::failed);
    }

    private Region card(Answer answer, Texts texts) {
        boolean mine = chosen.filter(c -> c == answer).isPresent();
        boolean sought = asBefore.filter(a -> a == answer).isEmpty();
        return new SchoolCard(head(answer, texts), answer, plan, mine, texts, () -> {
            chosen = Optional.of(answer);
            ways.getChildren().clear();
            show();
        }, mine && sought && !searching
                ? Optional.of((limit, to) -> ask(answer, limit, to))
                : Optional.empty());
    }

    private void priceWays() {
        chosen.ifPresent(answer -> {
            int mine = turn.get();
            Texts texts = desk.texts();
            working = true;
            price.setDisable(true);
            ways.getChildren().setAll(Looks.label(texts.get("planner.pricing"), "muted"));
            said.setText(texts.get("planner.pricing"));
            desk.background(() -> planner.waysOut(answer, d -> Platform.runLater(() -> progress(mine, d)),
                    () -> mine != turn.get()), found -> {
                        if (mine == turn.get()) {
                            working = false;
                            bar.setProgress(0);
                            said.setText("");
                            showWays(answer, found);
                            pedalNow();
                        }
                    }, this::failed);
            pedalNow();
        });
    }

    private void showWays(Answer from, List<WayOut> found) {
        Texts texts = desk.texts();
        var rows = new ArrayList<Region>();
        for (WayOut way : found) {
            Answer to = way.answer();
            double gained = to.binding().ease() - from.binding().ease();
            double longer = to.outcome().lengthS() - from.outcome().lengthS();
            Quantity what = way.way() == WayOut.Way.OTHER_SCHOOL
                    ? new Quantity.Name(name(to.school(), texts).toLowerCase(Locale.ROOT))
                    : way.what();
            Label words = Looks.label(
                    texts.say(Phrase.of("way." + way.way().name().toLowerCase(Locale.ROOT),
                            what)) + ": "
                            + SchoolCard.binding(to.binding(), texts) + ". "
                            + texts.get("planner.longer",
                                    (longer < 0 ? "−" : "+") + Words.clock(Math.abs(longer))),
                    "text-ink");
            words.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(words, Priority.ALWAYS);
            Label better = Looks.as(new Label(texts.get(
                    !to.feasible()
                            ? "planner.way.cannot"
                            : gained > 0.2 ? "planner.way.better" : "planner.way.same")),
                    "small", to.feasible() && gained > 0.2 ? "ink-green" : "muted");
            better.setMinWidth(Region.USE_PREF_SIZE);
            var row = new HBox(10, words, better);
            row.setAlignment(Pos.CENTER_LEFT);
            if (to.feasible() && adoptable(way)) {
                var take = Looks.as(new Button(texts.get("planner.take.way")), "act", "small");
                take.setMinWidth(Region.USE_PREF_SIZE);
                take.setOnAction(press -> keep(to.recipe()));
                row.getChildren().add(take);
            }
            rows.add(row);
        }
        ways.getChildren().setAll(rows);
    }

    /** What needs another heater or other joints has to be fetched or made first. */
    private static boolean adoptable(WayOut way) {
        return way.way() != WayOut.Way.HOTTER_HEATER && way.way() != WayOut.Way.DILUTE_FIRST;
    }

    private void pedalNow() {
        Texts texts = desk.texts();
        price.setDisable(working || chosen.isEmpty() || chosen.equals(asBefore));
        if (chosen.isPresent() && chosen.get().feasible()) {
            pedal(new Pedal(texts.get("planner.take"),
                    texts.get("planner.take.so", head(chosen.get(), texts).name()), true,
                    () -> keep(chosen.get().recipe())));
        } else if (working) {
            boolean may = searching && !enough.get();
            pedal(new Pedal(texts.get(may ? "planner.may" : "planner.working"),
                    texts.get(may ? "planner.may.so" : "planner.working.so"), may, this::stopHere));
        } else {
            pedal(Pedal.shut(texts.get("planner.none"), texts.get("planner.none.so")));
        }
    }

    /** The school in hand is searched no further; its best so far is proved. */
    private void stopHere() {
        if (searching) {
            enough.set(true);
            pedalNow();
        }
    }

    /** A recipe for another purpose is kept beside the job's own, under its own name. */
    private void keep(Recipe recipe) {
        if (plan != asked) {
            Texts texts = desk.texts();
            desk.io(() -> {
                desk.ledger().save(recipe);
                return recipe;
            }, kept -> said.setText(texts.get("planner.kept", kept.title(), kept.id())));
            return;
        }
        turn.incrementAndGet();
        model.recipeKept(recipe);
        go.recipe(plan.bead());
    }

    @Override
    public boolean planned() {
        return true;
    }

    @Override
    public void remedy(Finding finding) {
        if (!model.remedy(finding)) {
            back();
        }
    }

    @Override
    public List<String> about() {
        return List.of("plan", "stages", "heater", "station", "nozzle", "probes", "board", "bench");
    }

    @Override
    public Region node() {
        return page;
    }

    /** Stops what is being sought, then goes back to the recipe. */
    @Override
    public void back() {
        turn.incrementAndGet();
        go.recipe(plan.bead());
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.ESCAPE) {
            back();
            return true;
        }
        for (var card : schools.getChildren()) {
            if (card instanceof SchoolCard school && school.key(code)) {
                return true;
            }
        }
        if (code == KeyCode.E && searching) {
            stopHere();
            return true;
        }
        if (code == KeyCode.W && !price.isDisabled()) {
            priceWays();
            return true;
        }
        if (code == KeyCode.T) {
            aim(TARGETS.get((TARGETS.indexOf(target) + 1) % TARGETS.size()));
            return true;
        }
        if (code == KeyCode.N && before.size() > 1) {
            beforeAt = (beforeAt + 1) % before.size();
            judgeBefore();
            return true;
        }
        if (code == KeyCode.S && !all().isEmpty()) {
            List<Answer> all = all();
            chosen = Optional.of(all.get((all.indexOf(chosen.orElse(all.getLast())) + 1) % all.size()));
            ways.getChildren().clear();
            show();
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
        turn.incrementAndGet();
    }
}
