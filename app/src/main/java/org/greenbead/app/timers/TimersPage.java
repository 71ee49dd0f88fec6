package org.greenbead.app.timers;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.greenbead.app.look.LifeBar;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Cues;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.book.Wording;
import org.greenbead.core.electric.TestLog;
import org.greenbead.core.quantity.Minutes;
import org.greenbead.core.route.Job;
import org.greenbead.core.timer.JobTimer;
import org.greenbead.core.timer.Timers;
import org.greenbead.core.timer.UsualWaits;

/** Waits of all jobs, the next to ring in front; a new one for the job in hand; ending one writes down what it was for. */
public final class TimersPage extends Page {
    private static final DateTimeFormatter OF_DAY = DateTimeFormatter.ofPattern("HH:mm");
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.ENGLISH);
    private static final double BEAT_MS = 250;
    private static final int MOST_ENDED = 5;
    private final Desk desk;
    private final Navigator go;
    private final Optional<JobModel> inHand;
    private final Supplier<List<JobTimer>> running;
    private final Supplier<List<JobTimer>> over;
    private final Function<String, Optional<JobModel>> model;
    private final Label title = Looks.label("", "now");
    private final Label keys = Looks.label("", "muted", "small");
    private final Rows<JobTimer> list;
    private final Map<String, Face> faces = new HashMap<>();
    private final FlowPane kinds = new FlowPane(8, 6);
    private final Label because = Looks.note("muted", "small");
    private final Label said = Looks.note("said");
    private final Label caution = Looks.note("caution");
    private final Label log = Looks.note("said");
    private final Label stop = Looks.note("said");
    private final Line minutes;
    private final Line celsius;
    private final Line labelMinutes;
    private final Line labelCelsius;
    private final Line words;
    private final Line cycles;
    private final HBox fields = new HBox(8);
    private final VBox lately = new VBox(3);
    private final VBox fresh;
    private final VBox page;
    private final Timeline beat = new Timeline();
    private List<JobTimer> shown = List.of();
    private Optional<UsualWaits.Wait> chosen = Optional.empty();

    /** What changes in a row while time goes on. */
    private record Face(Label left, Label state, LifeBar bar) {}

    /**
     * @param inHand  the job that a new wait belongs to
     * @param running every wait that nobody has ended
     * @param over    those that have ended, the latest in front
     * @param model   of a job on the bench
     */
    public TimersPage(Desk desk, Navigator go, Optional<JobModel> inHand, Supplier<List<JobTimer>> running,
            Supplier<List<JobTimer>> over, Function<String, Optional<JobModel>> model) {
        this.desk = desk;
        this.go = go;
        this.inHand = inHand;
        this.running = running;
        this.over = over;
        this.model = model;
        Texts texts = desk.texts();
        title.setId("timers-title");
        keys.setText(texts.get("timers.keys"));
        list = new Rows<>("timers-list", t -> "timer-" + t.job() + "-" + t.record(), this::row,
                (t, pressed) -> pedalNow());
        VBox.setVgrow(list, Priority.ALWAYS);
        minutes = field("timer-minutes", texts.get("timers.minutes"));
        celsius = field("timer-c", texts.get("timers.c"));
        labelMinutes = field("timer-label-minutes", texts.get("timers.label_minutes"));
        labelCelsius = field("timer-label-c", texts.get("timers.label_c"));
        words = field("timer-words", texts.get("timers.words"));
        cycles = field("timer-cycles", texts.get("timers.cycles"));
        because.setId("timer-because");
        said.setId("timer-said");
        stop.setId("timer-stop");
        stop.pseudoClassStateChanged(Looks.BAD, true);
        said.pseudoClassStateChanged(Looks.BAD, true);
        fields.setAlignment(Pos.CENTER_LEFT);
        fresh = Looks.as(new VBox(6, Looks.label(inHand
                .map(m -> texts.get("timers.new", m.job().id())).orElse(""), "caps"), kinds, fields, because,
                caution, said), "card");
        fresh.setVisible(inHand.isPresent());
        fresh.managedProperty().bind(fresh.visibleProperty());
        var head = Looks.as(new VBox(4, Looks.label(texts.get("timers.caps"), "caps"), title, stop, log),
                "instruction");
        page = Looks.as(new VBox(head, list, lately, fresh, keys), "page");
        log.setId("timer-log");
        Drops.onto(page, this::takeLog);
        backWord(texts.get("key.back"));
        beat.getKeyFrames().setAll(new KeyFrame(Duration.millis(BEAT_MS), tick -> beat()));
        beat.setCycleCount(Timeline.INDEFINITE);
        beat.play();
        kindsNow();
        again();
    }

    private Line field(String id, String prompt) {
        var line = new Line(id, prompt);
        line.setPrefWidth(150);
        line.setMinWidth(80);
        HBox.setHgrow(line, Priority.SOMETIMES);
        line.textProperty().subscribe(t -> pedalNow());
        line.setOnAction(enter -> begin());
        return line;
    }

    // Waits that run.

    private void again() {
        shown = running.get();
        faces.clear();
        list.show(shown);
        latelyNow();
        beat();
        pedalNow();
    }

    private void latelyNow() {
        Texts texts = desk.texts();
        lately.getChildren().clear();
        List<JobTimer> ended = over.get().stream().limit(MOST_ENDED).toList();
        if (ended.isEmpty()) {
            return;
        }
        lately.getChildren().add(Looks.label(texts.get("timers.lately"), "caps"));
        for (JobTimer t : ended) {
            Instant at = t.ended().orElseThrow();
            String lasted = Minutes.say(t.lastedMin(at) * 60);
            lately.getChildren()
                    .add(Looks.label(texts.get(t.stopped() ? "timers.ended.early" : "timers.ended",
                            DAY.format(at.atZone(ZoneId.systemDefault())), named(t), lasted,
                            Minutes.say(t.minutes() * 60)), "text-ink", "small"));
        }
    }

    private Region row(JobTimer t) {
        Texts texts = desk.texts();
        Label left = Looks.as(new Label(), "wait-left");
        left.setMinWidth(Region.USE_PREF_SIZE);
        left.setPrefWidth(150);
        Label name = Looks.label(named(t), "text-ink", "strong");
        // What a soak asks for is read from the bench, the end of a wait from the chair.
        Label state = t.cycles() > 0
                ? Looks.label("", "text-ink", "strong")
                : Looks.label("", "muted", "small");
        var bar = new LifeBar();
        faces.put(t.job() + "/" + t.record(), new Face(left, state, bar));
        var right = new VBox(4, name, bar, state);
        HBox.setHgrow(right, Priority.ALWAYS);
        var row = new HBox(14, left, right);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setAccessibleText(texts.get("timers.row", named(t), t.job()));
        return row;
    }

    private String named(JobTimer t) {
        Texts texts = desk.texts();
        String kind = texts.say("timer." + t.kind().word());
        String oven = model.apply(t.job()).flatMap(m -> m.job().record(t.serves()))
                .map(r -> r.number("c")).filter(Double::isFinite).map(c -> " " + texts.temp(c)).orElse("");
        return t.job() + " · " + (t.words().isEmpty() ? kind + oven : kind + oven + ": " + t.words());
    }

    private void beat() {
        if (!running.get().equals(shown)) {
            again();
            return;
        }
        Texts texts = desk.texts();
        Instant now = desk.clock().instant();
        stopsNow();
        for (JobTimer t : shown) {
            Face face = faces.get(t.job() + "/" + t.record());
            double left = t.leftS(now);
            face.left().setText((left > 0 ? "" : "+ ") + Minutes.say(Math.abs(left)));
            face.left().pseudoClassStateChanged(Looks.BAD, left <= 0);
            String at = OF_DAY.format(t.due().atZone(ZoneId.systemDefault()));
            face.state().setText(left > 0
                    ? t.turn(now).map(turn -> turn(t, turn)).orElse("")
                            + texts.get("timers.rings", at, Minutes.say(t.minutes() * 60))
                    : texts.get("timers.rang", at));
            face.bar().show(t.gone(now), left <= 0);
        }
        long due = shown.stream().filter(t -> t.rings(now)).count();
        title.setText(shown.isEmpty()
                ? texts.get("timers.none")
                : due > 0
                        ? texts.get(due == 1 ? "timers.due.one" : "timers.due", due)
                        : texts.get(shown.size() == 1 ? "timers.next.one" : "timers.next", shown.size(),
                                Minutes.say(shown.getFirst().leftS(now))));
        if (chosen.isEmpty()) {
            pedalNow();
        }
    }

    private String turn(JobTimer t, JobTimer.Turn turn) {
        Texts texts = desk.texts();
        String left = Minutes.say(turn.leftS());
        return (turn.warm()
                ? texts.get("timers.turn.warm", turn.cycle(), t.cycles(), left)
                : texts.get("timers.turn.cool", turn.cycle(), t.cycles(), left)) + " \u00b7 ";
    }

    /** What the rule book stops of a heat that runs for the job in hand. */
    private void stopsNow() {
        boolean heats = shown.stream().anyMatch(t -> t.kind().heats()
                && inHand.filter(m -> m.job().id().equals(t.job())).isPresent());
        stop.setText(!heats
                ? ""
                : Timers.stops(inHand.orElseThrow().judgedProperty().get().judged().open()).stream()
                        .findFirst()
                        .map(n -> n.rule().what() + ". " + new Wording(desk.texts().words()).remedy(n) + ".")
                        .orElse(""));
    }

    private void end(JobTimer timer, Optional<Timers.Result> result) {
        model.apply(timer.job()).ifPresent(m -> {
            m.change(Timers.end(m.job(), timer.record(), result, desk.clock().instant(),
                    ZoneId.systemDefault(), desk.settings().technician().get()), "timer ended",
                    timer.record());
            desk.cues().play(Cues.Cue.TICK);
        });
        again();
    }

    /** The log of the chosen test says how it came out, at its end or before it. */
    private void takeLog(java.nio.file.Path file) {
        Optional<JobTimer> here = list.chosen().filter(shown::contains).filter(JobTimer::tests);
        if (here.isEmpty()) {
            tell(desk.texts().get("timers.log.choose"), true);
            return;
        }
        JobTimer timer = here.get();
        desk.io(() -> desk.ledger().testLogs().take(file),
                told -> model.apply(timer.job()).ifPresent(m -> {
                    m.change(Timers.end(m.job(), timer.record(), told, desk.clock().instant(),
                            ZoneId.systemDefault(), desk.settings().technician().get(), desk.texts().words()),
                            "timer ended", timer.record());
                    desk.cues().play(Cues.Cue.TICK);
                    again();
                    tell(desk.texts().get("timers.log.told", timer.job(),
                            told.says(desk.texts().words())),
                            told.log().result() == TestLog.Result.FAIL);
                }), failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    private void pickLog() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("timers.log.file"),
                texts.get("timers.log.kinds"), "*.txt", "*.log", "*.csv").ifPresent(this::takeLog);
    }

    private void tell(String text, boolean bad) {
        log.pseudoClassStateChanged(Looks.BAD, bad);
        log.setText(text);
    }

    // A new one.

    private List<UsualWaits.Wait> usual(JobModel m) {
        return UsualWaits.of(m.job(), m.judgedProperty().get().look().evidence().facts(),
                m.onBoardProperty().get().map(p -> OptionalDouble.of(p.target().bodyMm()))
                        .orElse(OptionalDouble.empty()),
                desk.book(), desk.limits(), desk.clock().instant());
    }

    private void kindsNow() {
        Texts texts = desk.texts();
        kinds.getChildren().clear();
        for (JobTimer.Kind kind : JobTimer.Kind.values()) {
            Label chip = Looks.label(
                    texts.get("odds.way", kind.ordinal() + 1, texts.say("timer." + kind.word())), "odds-way");
            chip.setId("timer-kind-" + kind.word());
            chip.setAccessibleRole(AccessibleRole.RADIO_BUTTON);
            chip.pseudoClassStateChanged(Looks.ON,
                    chosen.map(UsualWaits.Wait::kind).equals(Optional.of(kind)));
            chip.setOnMouseClicked(press -> choose(kind));
            kinds.getChildren().add(chip);
        }
    }

    private void choose(JobTimer.Kind kind) {
        if (inHand.isEmpty()) {
            return;
        }
        UsualWaits.Wait wait = usual(inHand.get()).get(kind.ordinal());
        chosen = Optional.of(wait);
        List<Line> wanted = new ArrayList<>(List.of(minutes));
        if (kind.heats()) {
            wanted.addAll(List.of(celsius, labelMinutes, labelCelsius));
        }
        if (kind == JobTimer.Kind.SOAK) {
            wanted.add(cycles);
        }
        wanted.add(words);
        wanted.forEach(TextField::clear);
        fields.getChildren().setAll(wanted);
        wait.minutes().ifPresent(m -> minutes.setText(plain(m)));
        cycles.setText(kind == JobTimer.Kind.SOAK ? Integer.toString(UsualWaits.SOAK_CYCLES) : "");
        wait.c().ifPresent(c -> celsius.setText(desk.texts().temp(c)));
        because.setText(desk.texts().get("timers.because",
                desk.texts().say("timer.because." + wait.because().name().toLowerCase(Locale.ROOT))));
        said.setText("");
        caution.setText(kind.heats()
                ? desk.texts().say("caution.check.bake_ended")
                : kind == JobTimer.Kind.SOAK
                        ? desk.texts().say("caution.soak")
                        : kind == JobTimer.Kind.PRESS ? desk.texts().say("caution.check.panel_pressed") : "");
        kindsNow();
        pedalNow();
        if (wait.minutes().isEmpty() || kind == JobTimer.Kind.OTHER) {
            minutes.open();
        } else {
            page.requestFocus();
        }
    }

    private static String plain(double minutes) {
        return minutes == Math.rint(minutes)
                ? String.format(Locale.ROOT, "%.0f", minutes)
                : String.format(Locale.ROOT, "%.1f", minutes);
    }

    private Timers.Start typed(UsualWaits.Wait wait) {
        boolean heats = wait.kind().heats();
        return new Timers.Start(wait.kind(), words.getText(), Minutes.parse(minutes.getText()),
                heats ? degrees(celsius) : OptionalDouble.empty(),
                heats ? degrees(labelCelsius) : OptionalDouble.empty(),
                heats && !labelMinutes.getText().isBlank()
                        ? OptionalDouble.of(Minutes.parse(labelMinutes.getText()))
                        : OptionalDouble.empty(),
                wait.kind() == JobTimer.Kind.SOAK ? cyclesTyped() : 0);
    }

    private int cyclesTyped() {
        String text = cycles.getText().strip();
        try {
            return Integer.parseInt(text);
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(desk.texts().get("timers.no_cycles", text));
        }
    }

    private OptionalDouble degrees(Line line) {
        String text = line.getText().strip();
        OptionalDouble c = desk.settings().unit().get().parseC(text);
        if (!text.isEmpty() && c.isEmpty()) {
            throw new IllegalArgumentException(desk.texts().get("timers.no_temperature", text));
        }
        return c;
    }

    private void begin() {
        if (chosen.isEmpty() || inHand.isEmpty()) {
            return;
        }
        JobModel m = inHand.get();
        try {
            Job longer = Timers.start(m.job(), typed(chosen.get()), desk.clock().instant(),
                    ZoneId.systemDefault(), desk.settings().technician().get());
            m.change(longer, "timer", chosen.get().kind().word());
            desk.cues().play(Cues.Cue.TICK);
            leave();
            again();
        } catch (IllegalArgumentException e) {
            said.setText(e.getMessage());
        }
    }

    private void leave() {
        chosen = Optional.empty();
        fields.getChildren().clear();
        because.setText("");
        said.setText("");
        caution.setText("");
        kindsNow();
        page.requestFocus();
        pedalNow();
    }

    private void pedalNow() {
        Texts texts = desk.texts();
        noteWord("");
        if (chosen.isPresent()) {
            String kind = texts.say("timer." + chosen.get().kind().word());
            try {
                Timers.Start start = typed(chosen.get());
                pedal(new Pedal(texts.get("timers.start", kind, Minutes.say(start.minutes() * 60)),
                        texts.get("timers.start.so", inHand.orElseThrow().job().id()), true, this::begin));
            } catch (IllegalArgumentException e) {
                pedal(Pedal.shut(texts.get("timers.start.not", kind), e.getMessage()));
            }
            return;
        }
        Optional<JobTimer> here = list.chosen().filter(shown::contains);
        if (here.isEmpty()) {
            pedal(Pedal.shut(texts.get("timers.choose"), texts.get("timers.choose.so")));
            return;
        }
        JobTimer t = here.get();
        boolean rings = t.rings(desk.clock().instant());
        String name = named(t);
        if (t.tests() && rings) {
            pedal(Pedal.stating(texts.get("timers.passed", name), texts.get("timers.passed.so"),
                    () -> end(t, Optional.of(Timers.Result.PASS))));
            noteWord(texts.get("timers.failed"));
            return;
        }
        pedal(Pedal.stating(texts.get(rings ? "timers.end" : "timers.stop", name),
                texts.get(rings ? "timers.end.so" : "timers.stop.so"), () -> end(t, Optional.empty())));
        if (t.tests()) {
            noteWord(texts.get("timers.failed"));
        }
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        if (chosen.isPresent()) {
            leave();
        } else {
            go.home();
        }
    }

    @Override
    public void note() {
        list.chosen().filter(t -> chosen.isEmpty() && t.tests())
                .ifPresent(t -> end(t, Optional.of(Timers.Result.FAIL)));
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        int digit = code.ordinal() - KeyCode.DIGIT1.ordinal();
        if (digit >= 0 && digit < JobTimer.Kind.values().length) {
            choose(JobTimer.Kind.values()[digit]);
            return true;
        }
        switch (code) {
            case DOWN, UP -> list.move(code == KeyCode.DOWN ? 1 : -1);
            case ESCAPE -> back();
            case F -> pickLog();
            case W -> {
                if (chosen.isPresent()) {
                    minutes.open();
                }
            }
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        beat.stop();
    }
}
