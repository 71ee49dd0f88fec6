package org.greenbead.app.prove;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
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
import org.greenbead.core.decision.Course;
import org.greenbead.core.decision.CourseRecords;
import org.greenbead.core.decision.CourseSheet;
import org.greenbead.core.decision.Decision;
import org.greenbead.core.decision.Estimate;
import org.greenbead.core.decision.Suspicions;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/** Whether the unit is worth the attempt and by which course: courses side by side, and what the answer hangs on. */
public final class CoursePage extends Page {
    private static final int MOST_TURNS = 3;
    private static final int MOST_PLACES = 3;
    private static final double SIDE_WIDTH = 300;
    private static final double UNWEIGHED_WIDTH = 235;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label hangs = Looks.note("muted");
    private final CourseBars bars;
    private final VBox side = new VBox(8);
    private final FlowPane unweighed = new FlowPane(10, 10);
    private final VBox chart;
    private final ScrollPane scroll;
    private final VBox page;
    private final Subscription watching;
    private List<Job> ledger = List.of();
    private Optional<CourseSheet.Sheet> sheet = Optional.empty();
    private List<Decision.Weighed> weighed = List.of();
    private Optional<Course> chosen = Optional.empty();
    private boolean read;
    private int turn;

    public CoursePage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("course-title");
        hangs.setId("course-hangs");
        bars = new CourseBars(c -> texts.say("course." + c.key()), r -> texts.say("closed." + r),
                this::choose);
        chart = Looks.as(new VBox(bars), "card");
        VBox.setVgrow(bars, Priority.ALWAYS);
        HBox.setHgrow(chart, Priority.ALWAYS);
        scroll = Looks.as(new ScrollPane(side), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.setMinWidth(220);
        var middle = new HBox(10, chart, scroll);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(3, Looks.label(texts.get("courses.caps"), "caps"), title, hangs),
                "instruction");
        var beside = new HBox(8, opens("courses-paired", texts.get("courses.paired"), go::paired),
                opens("courses-straps", texts.get("courses.straps"), go::straps));
        page = Looks.as(new VBox(head, middle, Looks.label(texts.get("courses.legend"), "muted", "small"),
                beside, Looks.label(texts.get("courses.keys"), "muted", "small")), "page");
        backWord(texts.get("book.back"));
        noteWord(texts.get("courses.note"));
        watching = Subscription.combine(model.judgedProperty().subscribe(j -> weigh()),
                model.findingsProperty().subscribe(this::findings));
        desk.io(() -> desk.ledger().jobs(), jobs -> {
            ledger = jobs;
            read = true;
            weigh();
        });
        weigh();
    }

    private static Button opens(String id, String word, Runnable to) {
        var button = Looks.as(new Button(word), "act", "small");
        button.setId(id);
        button.setOnAction(press -> to.run());
        return button;
    }

    /** What is known by now is weighed, off the window's thread. */
    private void weigh() {
        Texts texts = desk.texts();
        if (!read || !model.looked()) {
            title.setText(texts.get("courses.weighing"));
            pedal(Pedal.shut(texts.get("courses.weighing"), texts.get("courses.weighing.so")));
            return;
        }
        int mine = ++turn;
        Job job = model.job();
        var facts = model.judgedProperty().get().known().facts();
        desk.compute(() -> {
            CourseSheet.Sheet made = CourseSheet.of(job, facts, ledger);
            return new Weighing(made, made.decision().map(Decision::weighed).orElse(List.of()),
                    made.decision().map(Decision::turns).orElse(List.of()),
                    Suspicions.of(job, facts, ledger));
        }, w -> {
            if (mine == turn) {
                show(w);
            }
        });
    }

    private record Weighing(CourseSheet.Sheet sheet, List<Decision.Weighed> weighed,
            List<Decision.Turn> turns,
            Suspicions.Weighed suspicions) {}

    private List<Decision.Turn> turns = List.of();
    private Optional<Suspicions.Weighed> suspicions = Optional.empty();

    private void show(Weighing w) {
        Texts texts = desk.texts();
        sheet = Optional.of(w.sheet());
        weighed = w.weighed();
        turns = w.turns();
        suspicions = Optional.of(w.suspicions());
        if (weighed.isEmpty()) {
            title.setText(texts.get("courses.wanted"));
            hangs.setText(texts.get("courses.wanted.so"));
            bars.show(List.of(), Optional.empty(), "");
            unweighed.getChildren().setAll(w.sheet().estimates().stream().map(e -> {
                VBox card = card(e);
                card.setPrefWidth(UNWEIGHED_WIDTH);
                return card;
            }).toList());
            VBox where = evidence(w.suspicions());
            where.setPrefWidth(UNWEIGHED_WIDTH);
            unweighed.getChildren().add(where);
            side.getChildren().setAll(unweighed);
            arrange(false);
            pedal(new Pedal(texts.get("courses.worth"), texts.get("courses.worth.so"), true,
                    () -> ask("worth")));
            return;
        }
        arrange(true);
        if (chosen.isEmpty() || weighed.stream().noneMatch(x -> x.estimate().course() == chosen.get())) {
            chosen = Optional.of(weighed.getFirst().estimate().course());
        }
        Decision.Weighed best = weighed.getFirst();
        title.setText(texts.get("courses.best", texts.say("course." + best.estimate().course().key()),
                money(best.expected()), Math.round(best.cheapest() * 100)));
        hangs.setText(turns.isEmpty() ? texts.get("courses.sure") : said(turns.getFirst()));
        draw();
    }

    /** The chart beside what there is to say of one course, or the courses alone. */
    private void arrange(boolean drawn) {
        chart.setVisible(drawn);
        chart.setManaged(drawn);
        scroll.setPrefWidth(drawn ? SIDE_WIDTH : Region.USE_COMPUTED_SIZE);
        HBox.setHgrow(scroll, drawn ? Priority.NEVER : Priority.ALWAYS);
    }

    private void draw() {
        Texts texts = desk.texts();
        bars.show(weighed, chosen, texts.get("courses.often"));
        side.getChildren().clear();
        weighed.stream().filter(w -> chosen.equals(Optional.of(w.estimate().course()))).findFirst()
                .ifPresent(w -> detail(w, texts));
        if (!turns.isEmpty()) {
            var card = Looks.as(new VBox(5, Looks.label(texts.get("courses.turns"), "caps")), "card");
            turns.stream().limit(MOST_TURNS)
                    .forEach(t -> card.getChildren().add(Looks.label(said(t), "text-ink", "small")));
            side.getChildren().add(card);
        }
        suspicions.ifPresent(w -> side.getChildren().add(evidence(w)));
        sheet.flatMap(s -> s.rate()
                .flatMap(rate -> s.estimates().stream().filter(e -> e.part() > 0).findFirst()
                        .flatMap(e -> Decision.breakEvenMin(e.part(), rate))))
                .ifPresent(m -> side.getChildren()
                        .add(Looks.label(texts.get("courses.breakeven", Math.round(m)), "muted", "small")));
        pedalFor();
    }

    /** Where the fault may sit, and what would tell most. */
    private VBox evidence(Suspicions.Weighed w) {
        Texts texts = desk.texts();
        var card = Looks.as(new VBox(4, Looks.label(texts.get("courses.evidence"), "caps")), "card");
        card.setId("course-evidence");
        w.chance().entrySet().stream()
                .sorted(Map.Entry.<Suspicions.Place, Double>comparingByValue().reversed())
                .limit(MOST_PLACES).forEach(e -> card.getChildren().add(Looks.label(texts.get("courses.place",
                        percent(e.getValue()),
                        texts.say("suspicion." + e.getKey().name().toLowerCase(Locale.ROOT))),
                        "text-ink", "small")));
        String seen = w.signs().stream().map(s -> texts.say("sign." + s.id()))
                .collect(Collectors.joining("; "));
        card.getChildren().add(Looks.label(
                seen.isEmpty() ? texts.get("courses.seen.none") : texts.get("courses.seen", seen), "muted",
                "small"));
        w.next().stream().findFirst()
                .ifPresent(n -> card.getChildren().add(Looks.label(texts.get("courses.nexttest",
                        texts.say("nexttest." + n.id()), Math.round(n.minutes())), "cure-line", "small")));
        return card;
    }

    private void pedalFor() {
        Texts texts = desk.texts();
        Optional<Decision.Weighed> here = weighed.stream()
                .filter(w -> chosen.equals(Optional.of(w.estimate().course()))).findFirst();
        if (here.isEmpty()) {
            return;
        }
        String name = texts.say("course." + here.get().estimate().course().key());
        if (here.get().estimate().closed().isPresent()) {
            pedal(Pedal.shut(texts.get("courses.take", name),
                    texts.say("closed." + here.get().estimate().closed().get())));
        } else if (model.job().records("decision").stream()
                .anyMatch(d -> d.text("course").equals(here.get().estimate().course().key()))) {
            pedal(new Pedal(texts.get("book.home"), texts.get("courses.taken", name), true, go::home));
        } else {
            pedal(new Pedal(texts.get("courses.take", name), texts.get("courses.take.so"), true,
                    () -> take(here.get())));
        }
    }

    /** The decision goes to the job, with what it rested on. */
    private void take(Decision.Weighed w) {
        String id = model.job().records("decision").stream().map(Kept::id).findFirst()
                .orElseGet(() -> model.job().freeId("decision"));
        model.note(new Kept(id, "decision", desk.clock().instant(), desk.settings().technician().get(),
                CourseRecords.fields(w, turns)));
        pedalFor();
    }

    private void detail(Decision.Weighed w, Texts texts) {
        Estimate e = w.estimate();
        VBox card = card(e);
        if (e.closed().isEmpty()) {
            card.getChildren().add(1,
                    Looks.label(texts.get("courses.detail.cost", money(w.works()), money(w.fails())),
                            "text-ink", "small"));
            card.getChildren().add(2,
                    Looks.label(texts.get("courses.detail.spread", money(w.low()), money(w.high())),
                            "text-ink", "small"));
        }
        side.getChildren().add(card);
    }

    private VBox card(Estimate e) {
        Texts texts = desk.texts();
        var card = Looks.as(
                new VBox(3, Looks.label(texts.say("course." + e.course().key()), "text-ink", "strong")),
                "card");
        if (e.closed().isPresent()) {
            card.getChildren()
                    .add(Looks.label(texts.say("closed." + e.closed().get()), "ink-amber", "small"));
            return card;
        }
        card.getChildren().add(Looks.label(texts.get("courses.detail.time", Math.round(e.attendedMin()),
                Math.round(e.unattendedMin())), "text-ink", "small"));
        if (e.course() != Course.DECLINE) {
            card.getChildren().add(odds(e));
            card.getChildren().add(Looks.label(texts.get("courses.detail.tries", percent(e.chance()),
                    percent(e.odds().quantile(0.05)), percent(e.odds().quantile(0.95)), e.odds().good(),
                    e.odds().tries()), "text-ink", "small"));
        }
        if (!e.assumed().isEmpty()) {
            card.getChildren()
                    .add(Looks.label(texts.get("courses.detail.assumed", String.join(", ", e.assumed()
                            .stream().map(f -> texts.say("record.course." + f).toLowerCase(Locale.ROOT))
                            .toList())),
                            "ink-amber", "small"));
        }
        return card;
    }

    /** The chance of the next one as a strip from none to all, its interval lit. */
    private static Region odds(Estimate e) {
        return new OddsStrip(e.odds());
    }

    private String said(Decision.Turn t) {
        Texts texts = desk.texts();
        String name = t.of()
                .map(c -> texts.words().say("turn." + t.number(), new Quantity.Word("course." + c.key())))
                .orElseGet(() -> texts.say("turn." + t.number()));
        boolean chance = t.number().equals("chance");
        return texts.get("courses.turn", name, chance ? percent(t.now()) : money(t.now()),
                chance ? percent(t.turnsAt()) : money(t.turnsAt()),
                texts.say("course." + t.then().key()).toLowerCase(Locale.ROOT));
    }

    private static String percent(double part) {
        return String.format(Locale.ROOT, "%.0f %%", part * 100);
    }

    private static String money(double value) {
        return String.format(Locale.ROOT, Math.abs(value) < 10 ? "%,.1f" : "%,.0f", value);
    }

    private void choose(Course course) {
        chosen = Optional.of(course);
        draw();
    }

    private void ask(String type) {
        model.beadFor(type).ifPresentOrElse(b -> go.ask(b, type, ""),
                () -> desk.trouble(desk.texts().get("courses.nowhere")));
    }

    @Override
    public List<String> about() {
        return List.of("diagnosis", "job", "intake", "symptoms", "tech");
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
        ask(sheet.filter(s -> s.wanted().isEmpty()).isPresent() ? "course" : "worth");
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        if ((code == KeyCode.DOWN || code == KeyCode.UP) && !weighed.isEmpty()) {
            List<Course> order = weighed.stream().map(w -> w.estimate().course()).toList();
            int at = chosen.map(order::indexOf).orElse(0) + (code == KeyCode.DOWN ? 1 : -1);
            choose(order.get(Math.floorMod(at, order.size())));
            return true;
        }
        if (code == KeyCode.W) {
            ask("worth");
            return true;
        }
        if (code == KeyCode.C) {
            go.straps();
            return true;
        }
        if (code == KeyCode.T) {
            go.paired();
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        turn++;
        watching.unsubscribe();
    }
}
