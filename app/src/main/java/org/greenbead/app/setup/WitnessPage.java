package org.greenbead.app.setup;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.run.WitnessRunner;
import org.greenbead.app.shell.BoardPlan;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Lessons;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.board.Board;
import org.greenbead.core.calibrate.History;
import org.greenbead.core.calibrate.RefusedException;
import org.greenbead.core.calibrate.Witness;
import org.greenbead.core.calibrate.WitnessDesign;
import org.greenbead.core.calibrate.WitnessFit;
import org.greenbead.core.calibrate.WitnessWatch;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.RunPlan;

/** A bench learned from dots of solder that melt on a scrap board: where they go, when to set what, which melts when, what it told. */
public final class WitnessPage extends Page {
    private static final int MOST_BOARDS = 12;
    private static final List<String> USUAL = List.of("Sn42Bi58", "Sn63Pb37", "SAC305");
    private static final List<String> AT_HAND = List.of("Sn42Bi58", "Sn62Pb36Ag2", "Sn63Pb37", "SAC305");
    private static final List<Integer> COUNTS = List.of(6, 9, 12);
    private static final DateTimeFormatter NAMED = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss", Locale.ROOT)
            .withZone(ZoneOffset.UTC);
    private final Desk desk;
    private final Navigator go;
    /** Of the job whose board a twin would be. */
    private final RunPlan own;
    /** What the dots are on. */
    private RunPlan plan;
    private List<Board> boards = List.of();
    private final Label now = Looks.label("", "now");
    private final Label next = Looks.label("", "next");
    private final Label caution = Looks.label("", "caution");
    private final Label said = Looks.label("", "muted", "small");
    private final ProgressBar bar = new ProgressBar(0);
    private final FlowPane choices = new FlowPane(8, 6);
    private final Label eye = Looks.label("", "sight", "small");
    private final BoardPlan board = new BoardPlan();
    private final GridPane list = new GridPane();
    private final Factors factors = new Factors();
    private final VBox right;
    private final VBox page;
    private final List<String> alloys = new ArrayList<>(USUAL);
    private final AtomicBoolean gone = new AtomicBoolean();
    private AtomicBoolean designing = new AtomicBoolean();
    private int count = COUNTS.getLast();
    private boolean foreign;
    private Optional<WitnessDesign> design = Optional.empty();
    private Optional<WitnessRunner> runner = Optional.empty();
    private Optional<WitnessRunner.Seen> shown = Optional.empty();
    private Optional<Calibration> told = Optional.empty();
    private Optional<Subscription> speed = Optional.empty();
    private boolean fitting;

    /** @param plan of the job whose board the scrap is a twin of */
    public WitnessPage(Desk desk, Navigator go, RunPlan plan) {
        this.desk = desk;
        this.go = go;
        this.own = plan;
        this.plan = plan;
        Texts texts = desk.texts();
        now.setId("dots-now");
        next.setId("dots-next");
        said.setId("dots-said");
        eye.setId("dots-eye");
        list.setId("dots-list");
        list.setHgap(14);
        list.setVgap(4);
        bar.setMaxWidth(Double.MAX_VALUE);
        board.setId("dots-board");
        board.setMinHeight(160);
        board.upright();
        caution.setText(texts.say("caution.hot") + " " + texts.say("caution.fumes"));
        var head = Looks.as(new VBox(2, Looks.label(texts.get("witness.caps"), "caps"), now, next, caution),
                "instruction");
        var left = Looks.as(new VBox(6, Looks.label(texts.get("witness.where"), "caps"), board), "card");
        VBox.setVgrow(board, Priority.ALWAYS);
        HBox.setHgrow(left, Priority.ALWAYS);
        left.setMinWidth(0);
        right = Looks.as(new VBox(8, Looks.label(texts.get("witness.dots"), "caps"), list), "card");
        right.setMinWidth(330);
        right.setPrefWidth(350);
        var middle = new HBox(10, left, right);
        VBox.setVgrow(middle, Priority.ALWAYS);
        page = Looks.as(new VBox(head, choices, said, middle, eye, bar), "page");
        hide(eye, true);
        choices();
        backWord(texts.get("key.back"));
        lay();
    }

    private static void hide(Region node, boolean hidden) {
        node.setVisible(!hidden);
        node.setManaged(!hidden);
    }

    /** What is at hand: alloys, how many dots, and whether the scrap is a twin. */
    private void choices() {
        Texts texts = desk.texts();
        choices.getChildren().setAll(Looks.label(texts.get("witness.have"), "muted"));
        for (Alloy alloy : AT_HAND.stream().map(Alloys::require).toList()) {
            var button = toggle("dots-alloy-" + alloy.name(),
                    alloy.name() + " " + texts.temp(alloy.solidusC()), alloys.contains(alloy.name()));
            button.setOnAction(press -> {
                if (!alloys.remove(alloy.name())) {
                    alloys.add(alloy.name());
                }
                lay();
            });
            choices.getChildren().add(button);
        }
        for (int dots : COUNTS) {
            var button = toggle("dots-count-" + dots, texts.get("witness.count", dots), dots == count);
            button.setOnAction(press -> {
                count = dots;
                choices();
                lay();
            });
            choices.getChildren().add(button);
        }
        for (boolean other : new boolean[]{false, true}) {
            var button = toggle("dots-" + (other ? "foreign" : "twin"),
                    texts.get(other ? "witness.foreign" : "witness.twin"), other == foreign);
            button.setOnAction(press -> {
                foreign = other;
                plan = own;
                choices();
                if (other) {
                    which();
                }
                lay();
            });
            choices.getChildren().add(button);
        }
        if (foreign && !boards.isEmpty()) {
            choices.getChildren().add(Looks.label(texts.get("witness.which.board"), "muted"));
        }
        for (Board scrap : foreign ? boards : List.<Board>of()) {
            var button = toggle("dots-board-" + scrap.id(), scrap.title(),
                    plan != own && plan.board().id().equals(scrap.id()));
            button.setOnAction(press -> {
                plan = own.onScrap(scrap);
                choices();
                lay();
            });
            choices.getChildren().add(button);
        }
    }

    /** Which of the drawn boards the scrap is; its size and its chip decide where dots tell most. */
    private void which() {
        desk.io(() -> desk.ledger().boards().stream().filter(b -> !b.chips().isEmpty())
                .filter(b -> !b.id().equals(own.board().id())).limit(MOST_BOARDS).toList(), found -> {
                    boards = found;
                    if (foreign) {
                        choices();
                    }
                });
    }

    private static ToggleButton toggle(String id, String word, boolean on) {
        var button = Looks.as(new ToggleButton(word), "act", "small");
        button.setId(id);
        button.setSelected(on);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setFocusTraversable(false);
        return button;
    }

    /** Lays the dots out anew; what was being laid out before is dropped. */
    private void lay() {
        Texts texts = desk.texts();
        designing.set(true);
        var mine = new AtomicBoolean();
        designing = mine;
        design = Optional.empty();
        stop();
        show(List.of());
        said.setText("");
        if (alloys.isEmpty()) {
            now.setText(texts.get("witness.no_alloy"));
            next.setText("");
            pedal(Pedal.shut(texts.get("witness.no_alloy"), ""));
            return;
        }
        if (foreign && plan == own) {
            // Laid for the job's own board they would be fitted to a board that is not there.
            hide(bar, true);
            now.setText(texts.get("witness.which.first"));
            next.setText(texts.get("witness.which.first.so"));
            pedal(Pedal.shut(texts.get("witness.which.first"), texts.get("witness.which.first.so")));
            return;
        }
        hide(bar, false);
        now.setText(texts.get("witness.laying"));
        next.setText(texts.get("witness.laying.next"));
        pedal(Pedal.shut(texts.get("witness.laying"), texts.get("witness.laying.next")));
        List<String> have = List.copyOf(alloys);
        int dots = count;
        desk.background(() -> WitnessDesign.of(plan, have, dots, done -> Platform.runLater(() -> {
            if (designing == mine) {
                bar.setProgress(done);
            }
        }), () -> mine.get() || gone.get()), made -> {
            if (designing == mine && !gone.get()) {
                laid(made);
            }
        }, error -> {
            if (designing == mine && !gone.get() && !(error instanceof CancellationException)) {
                failed(error);
            }
        });
    }

    private void laid(WitnessDesign made) {
        Texts texts = desk.texts();
        design = Optional.of(made);
        hide(bar, true);
        said.setText(texts.get(foreign ? "witness.promise.foreign" : "witness.promise",
                texts.rise(made.beforeK()),
                texts.rise(made.afterK())));
        String id = "dots-" + plan.bench().id() + "-" + NAMED.format(desk.clock().instant());
        desk.io(() -> {
            Path folder = desk.ledger().folder().resolve("witness");
            Files.createDirectories(folder);
            return folder.resolve(id + ".json");
        }, file -> {
            if (!gone.get() && design.filter(d -> d == made).isPresent()) {
                stop();
                var fresh = new WitnessRunner(desk, plan,
                        new WitnessWatch(id, made, plan.bench(), foreign), file, this::seen);
                runner = Optional.of(fresh);
                speed = Optional.of(desk.settings().speed().subscribe(v -> fresh.speed(v.intValue())));
            }
        });
    }

    private void stop() {
        speed.ifPresent(Subscription::unsubscribe);
        runner.ifPresent(WitnessRunner::close);
        speed = Optional.empty();
        runner = Optional.empty();
        shown = Optional.empty();
    }

    private void failed(Throwable error) {
        Texts texts = desk.texts();
        hide(bar, true);
        now.setText(texts.get("witness.failed"));
        next.setText(error instanceof RefusedException refused
                ? texts.say(refused.why())
                : texts.get("error.unexpected", String.valueOf(error.getMessage())));
        pedal(new Pedal(texts.get("fit.back"), texts.get("fit.back.so"), true, this::back));
    }

    private boolean going() {
        return shown.filter(s -> s.timeS() > 0).isPresent() && !fitting && told.isEmpty();
    }

    /** The runner has something new; it comes here on the FX thread. */
    private void seen(WitnessRunner.Seen seen) {
        if (gone.get() || runner.isEmpty() || fitting || told.isPresent()) {
            return;
        }
        boolean marks = shown.isEmpty() || !shown.get().melted().equals(seen.melted());
        boolean pedals = shown.isEmpty() || !shown.get().asked().equals(seen.asked());
        shown = Optional.of(seen);
        Texts texts = desk.texts();
        clock(Words.clock(seen.timeS()));
        if (pedals) {
            now.setText(texts.say(seen.asked().now()));
            next.setText(texts.say(seen.asked().next()));
            hide(choices, seen.timeS() > 0);
            hide(said, seen.timeS() > 0);
            backWord(texts.get(seen.timeS() > 0 ? "witness.back" : "key.back"));
            pedalNow(seen, texts);
        }
        if (marks) {
            show(seen.melted());
        }
        hide(eye, !seen.simulated() || seen.timeS() <= 0);
        eye.setText(texts.get("witness.eye",
                seen.shining().isEmpty() ? texts.get("witness.eye.none") : String.join(" ", seen.shining())));
    }

    private void pedalNow(WitnessRunner.Seen seen, Texts texts) {
        if (isOver(seen)) {
            pedal(new Pedal(texts.say(seen.asked().pedal()), texts.get("witness.fit.so"), true, this::fit));
        } else if (seen.asked().unnamed()) {
            pedal(Pedal.shut(texts.say(seen.asked().pedal()), texts.get("witness.which.so")));
        } else {
            pedal(Pedal.stating(texts.say(seen.asked().pedal()), texts.get("witness.press.so"),
                    () -> runner.ifPresent(WitnessRunner::press)));
        }
    }

    private static boolean isOver(WitnessRunner.Seen seen) {
        return seen.asked().now().key().equals("witness.over");
    }

    /** The dots, on the board and in words. */
    private void show(List<Witness.Press> melted) {
        Texts texts = desk.texts();
        Map<String, Double> at = melted.stream()
                .collect(Collectors.toMap(Witness.Press::dot, Witness.Press::timeS));
        List<Witness.Dot> dots = design.map(WitnessDesign::dots).orElse(List.of());
        board.spots(dots.stream()
                .map(d -> new BoardPlan.Spot(d.name(), d.atMm(), at.containsKey(d.name()))).toList());
        board.show(plan, Map.of(), texts);
        list.getChildren().clear();
        if (dots.isEmpty()) {
            return;
        }
        list.addRow(0, Looks.label("", "muted"), Looks.label(texts.get("witness.of"), "muted", "small"),
                Looks.label(texts.get("witness.place"), "muted", "small"),
                Looks.label(texts.get("witness.about"), "muted", "small"),
                Looks.label(texts.get("witness.seen"), "muted", "small"));
        for (int i = 0; i < dots.size(); i++) {
            Witness.Dot dot = dots.get(i);
            var letter = Looks.as(new Button(dot.name()), "act", "small", "dot-key");
            letter.setId("dot-" + dot.name());
            letter.setMinWidth(Region.USE_PREF_SIZE);
            letter.setFocusTraversable(false);
            letter.setOnAction(press -> runner.ifPresent(r -> r.name(dot.name())));
            boolean done = at.containsKey(dot.name());
            list.addRow(i + 1, letter, plainly(dot.alloy()),
                    plainly(texts.words().show(new Quantity.Millimetres(dot.atMm().xMm())).replace(" mm", "")
                            + ", "
                            + texts.words().show(new Quantity.Millimetres(dot.atMm().yMm()))),
                    plainly(Words.clock(design.orElseThrow().meltsAtS().get(i))),
                    Looks.label(done ? Words.clock(at.get(dot.name())) : "–", "text-ink", "strong", "small"));
        }
    }

    private static Label plainly(String text) {
        Label label = Looks.label(text, "text-ink", "small");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    private void fit() {
        if (runner.isEmpty() || fitting) {
            return;
        }
        fitting = true;
        Texts texts = desk.texts();
        hide(eye, true);
        hide(bar, false);
        bar.setProgress(ProgressBar.INDETERMINATE_PROGRESS);
        pedal(Pedal.shut(texts.get("fit.working"), texts.get("fit.working.so")));
        runner.get().seen(seen -> {
            stop();
            if (seen.isEmpty()) {
                back();
                return;
            }
            desk.background(() -> WitnessFit.fit(plan, seen.get(), gone::get), this::told, error -> {
                if (!(error instanceof CancellationException)) {
                    failed(error);
                }
            });
        });
    }

    private void told(WitnessFit.Learned learned) {
        if (gone.get()) {
            return;
        }
        Texts texts = desk.texts();
        told = Optional.of(learned.calibration());
        hide(bar, true);
        now.setText(texts.get("witness.told"));
        next.setText(
                texts.get("witness.residual", texts.rise(learned.beforeK()), texts.rise(learned.afterK())));
        factors.show(learned.calibration(), texts);
        right.getChildren().setAll(Looks.label(texts.get("fit.factors"), "caps"), factors,
                Looks.label(texts.get("witness.dots"), "caps"), list);
        hide(said, false);
        hide(caution, true);
        var remarks = new ArrayList<String>();
        if (!learned.outliers().isEmpty()) {
            remarks.add(texts.get("witness.outliers", String.join(", ", learned.outliers())));
        }
        if (foreign) {
            remarks.add(texts.get("witness.promise.foreign", "", ""));
        }
        boolean outlier = History.outlier(plan.bench(), learned.calibration());
        if (outlier) {
            remarks.add(texts.get("fit.outlier"));
        }
        remarks.add(texts.get("fit.effective"));
        said.setText(String.join("\n", remarks));
        backWord(texts.get("key.back"));
        pedal(new Pedal(texts.get("fit.keep"), texts.get(outlier ? "fit.keep.outlier" : "fit.keep.so"), true,
                this::keep));
    }

    private void keep() {
        Lessons.keep(desk, plan.bench().id(), told.orElseThrow(), () -> {
            go.benchChanged(plan.bench().id());
            go.setup();
        });
    }

    @Override
    public Region node() {
        return page;
    }

    /** While dots melt it takes the last press back; else it leaves. */
    @Override
    public void back() {
        if (going() && shown.filter(s -> !isOver(s)).isPresent()) {
            runner.ifPresent(WitnessRunner::takeBack);
            return;
        }
        go.setup();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (going() && !control && code.isLetterKey()) {
            runner.ifPresent(r -> r.name(code.getName()));
            return true;
        }
        if (control && code == KeyCode.B && going()) {
            runner.ifPresent(WitnessRunner::end);
            return true;
        }
        if (code == KeyCode.ESCAPE) {
            // A heating is broken off by Ctrl+B, as a run is, not by a key that leaves pages.
            if (!going()) {
                go.setup();
            }
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        gone.set(true);
        designing.set(true);
        runner.ifPresent(WitnessRunner::end);
        stop();
    }
}
