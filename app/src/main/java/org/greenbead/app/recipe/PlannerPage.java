package org.greenbead.app.recipe;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
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
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.plan.Answer;
import org.greenbead.core.plan.Constraint;
import org.greenbead.core.plan.Planner;
import org.greenbead.core.plan.Robustness;
import org.greenbead.core.plan.School;
import org.greenbead.core.plan.WayOut;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.BallForming;
import org.greenbead.core.run.RunPlan;

/** The planner: each school's best recipe side by side, what binds it, how sure it is, and what would leave more room. */
public final class PlannerPage extends Page {
    private static final List<RunPlan.Task> TARGETS = List.of(RunPlan.Task.LIFT, RunPlan.Task.SEAT,
            RunPlan.Task.REFLOW, RunPlan.Task.FORM);
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final RunPlan asked;
    private final HBox targets = new HBox(6);
    private final Label title = Looks.label("", "now");
    private RunPlan plan;
    private Planner planner;
    private final HBox schools = new HBox(10);
    private final ProgressBar bar = new ProgressBar(0);
    private final Label said = Looks.label("", "muted");
    private final VBox ways = new VBox(5);
    private final Button price;
    private final AtomicInteger turn = new AtomicInteger();
    private final AtomicBoolean enough = new AtomicBoolean();
    private boolean searching;
    private final Map<School, Answer> answers = new EnumMap<>(School.class);
    private List<School> order = List.of();
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
        VBox.setVgrow(schools, Priority.ALWAYS);
        var wayHead = new HBox(12, Looks.label(texts.get("planner.ways"), "caps"), price);
        wayHead.setAlignment(Pos.CENTER_LEFT);
        var scroll = Looks.as(new ScrollPane(ways), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.setPrefHeight(150);
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
        page = Looks.as(new VBox(head, schools, wayCard, progress), "page");
        watching = model.findingsProperty().subscribe(f -> findings(f));
        backWord(texts.get("planner.back"));
        aim(plan.task());
    }

    /** Seeks for another purpose: the same chip lifted, seated, reflowed, or off its board under a stencil. */
    private void aim(RunPlan.Task task) {
        turn.incrementAndGet();
        Texts texts = desk.texts();
        plan = task == asked.task()
                ? asked
                : task == RunPlan.Task.FORM
                        ? asked.forming(BallForming.usual(asked.target(), asked.target().joint().alloy()))
                        : asked.to(task);
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
                    stages, own.limits()));
        }
        RunPlan now = plan;
        planner = new Planner(now, now.knowledge(), Planner.Effort.USUAL);
        order = java.util.Arrays.stream(School.values()).filter(s -> s.possible(now))
                .sorted(java.util.Comparator.comparing(s -> s == School.AIR_ALONE)).toList();
        answers.clear();
        chosen = Optional.empty();
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
        next(0);
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
            pedalNow();
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
        pedalNow();
    }

    private Region card(Answer answer, Texts texts) {
        boolean mine = chosen.filter(c -> c == answer).isPresent();
        String key = answer.school().name().toLowerCase(Locale.ROOT);
        Label verdict = Looks.label(texts.get(answer.feasible() ? "planner.feasible" : "planner.cannot"),
                "strong",
                answer.feasible() ? "ink-green" : "ink-hot");
        verdict.setId("school-" + key + "-verdict");
        Label binds = Looks.label(binding(answer.binding(), texts), "text-ink");
        binds.setId("school-" + key + "-binds");
        var lines = new VBox(4, verdict, binds, Looks.label(sure(answer.robustness(), texts), "muted"),
                Looks.label(numbers(answer, texts), "muted"));
        for (Stage stage : answer.recipe().stages()) {
            if (stage.purpose() != Stage.Purpose.COOL) {
                lines.getChildren().add(
                        Looks.label(stage(stage, plan.bench().air().dial(), texts), "text-ink", "small"));
            }
        }
        var limits = new VBox(1);
        for (Constraint c : answer.constraints().subList(0, Math.min(4, answer.constraints().size()))) {
            limits.getChildren().add(Looks.label(limit(c, texts), "muted", "small"));
        }
        lines.getChildren().add(limits);
        var scroll = Looks.as(new ScrollPane(lines), "watch-scroll");
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var choose = Looks.as(new Button(texts.get(mine ? "planner.chosen" : "planner.choose")), "act");
        choose.setId("choose-" + key);
        choose.setDisable(mine);
        choose.setOnAction(press -> {
            chosen = Optional.of(answer);
            ways.getChildren().clear();
            show();
        });
        var card = Looks.as(new VBox(6, Looks.label(name(answer.school(), texts), "big"), scroll, choose),
                "card");
        if (mine) {
            card.getStyleClass().add("chosen");
        }
        HBox.setHgrow(card, Priority.ALWAYS);
        card.setPrefWidth(100);
        return card;
    }

    private static String binding(Constraint c, Texts texts) {
        return texts.get(c.kept() ? "planner.binds" : "planner.broken", texts.say(c.what()), room(c, texts));
    }

    private static String room(Constraint c, Texts texts) {
        double by = Math.abs(c.room());
        return switch (c.kind()) {
            case RAMP -> texts.rate(by).replace("+", "");
            case MELT_TIME -> Words.clock(by);
            default -> texts.rise(by);
        };
    }

    private static String limit(Constraint c, Texts texts) {
        String value = switch (c.kind()) {
            case RAMP -> texts.rate(c.value());
            case MELT_TIME -> Words.clock(c.value());
            case SPREAD -> texts.rise(c.value());
            default -> texts.temp(c.value());
        };
        return texts.get("planner.limit", texts.say(c.what()), value, room(c, texts));
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
                            + binding(to.binding(), texts) + ". "
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
        price.setDisable(working || chosen.isEmpty());
        if (chosen.isPresent() && chosen.get().feasible()) {
            pedal(new Pedal(texts.get("planner.take"),
                    texts.get("planner.take.so", name(chosen.get().school(), texts)), true,
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
        if (code == KeyCode.E && searching) {
            stopHere();
            return true;
        }
        if (code == KeyCode.W && !price.isDisabled()) {
            priceWays();
            return true;
        }
        if (code == KeyCode.T) {
            aim(TARGETS.get((TARGETS.indexOf(plan.task()) + 1) % TARGETS.size()));
            return true;
        }
        if (code == KeyCode.S && !answers.isEmpty()) {
            List<Answer> all = order.stream().filter(answers::containsKey).map(answers::get).toList();
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
