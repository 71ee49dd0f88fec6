package org.greenbead.app.work;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Rectangle;
import javafx.util.Duration;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.BoardPlan;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.account.FactWords;
import org.greenbead.core.account.Figures;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.Phase;
import org.greenbead.core.book.Wording;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.cue.Cue;
import org.greenbead.core.cue.CueClock;
import org.greenbead.core.cue.Cues;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.overview.Overview;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.refit.RefitSheet;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.CheckItem;
import org.greenbead.core.run.PlanRules;
import org.greenbead.core.run.RunPlan;

/**
 * The step coach: a bead worked one instruction at a time, each attested with one press, with its caution, its count and what is written
 * down beside it. The far view shows the instruction and the count alone.
 */
public final class CheckPage extends Page {
    private static final PseudoClass YES = PseudoClass.getPseudoClass("yes");
    private static final PseudoClass NO = PseudoClass.getPseudoClass("no");
    private static final double PULSE_MS = 100;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final String beadId;
    private final Label where = Looks.label("", "caps");
    private final Label now = Looks.label("", "huge");
    private final Label caution = Looks.note("caution");
    private final Label count = Looks.note("count");
    private final Label countWord = Looks.note("muted");
    private final VBox rows = Looks.as(new VBox(6), "check-rows");
    private final VBox side = new VBox(8);
    /** Records that a thing from stock fills by itself. */
    private static final List<String> FROM_STOCK = List.of("lot", "stencil", "spheres");
    private final VBox doors = new VBox(8);
    private final StackPane refit = new StackPane();
    private final AskPane ask;
    private final LabelGate labels;
    private final Optional<PhotoPane> photos;
    private final StackPane whole = new StackPane();
    private final VBox page;
    private final VBox far = Looks.as(new VBox(), "far");
    private final Label farNow = Looks.label("", "far-now");
    private final Label farCount = Looks.note("far-digits");
    private final Label farStage = Looks.label("", "far-stage");
    private final Timeline pulse = new Timeline();
    private final Subscription watching;
    private Optional<String> chosen = Optional.empty();
    private Optional<CueClock> clock = Optional.empty();
    private boolean farView;

    public CheckPage(Desk desk, JobModel model, Navigator go, String beadId) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.beadId = beadId;
        Texts texts = desk.texts();
        Phase phase = bead().phase();
        now.setId("step-now");
        where.setId("step-where");
        count.setId("step-count");
        caution.setId("step-caution");
        farNow.setId("far-now");
        ask = new AskPane(desk, model, beadId);
        ask.onLeft(this::leaveQuestions);
        labels = new LabelGate(desk, model, this::show);
        photos = ask.asks() && RecordTypes.shipped().at(beadId).stream()
                .anyMatch(t -> t.id().equals("picture"))
                        ? Optional.of(new PhotoPane(desk, model, view(beadId)))
                        : Optional.empty();
        var counting = new HBox(12, count, countWord);
        counting.setAlignment(Pos.CENTER_LEFT);
        var head = Looks.as(new VBox(where, now, caution, counting, labels), "instruction");
        var scroll = Looks.as(new ScrollPane(rows), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.setMinHeight(60);
        VBox.setVgrow(scroll, ask.asks() ? Priority.SOMETIMES : Priority.ALWAYS);
        if (ask.asks()) {
            scroll.prefHeightProperty().bind(rows.heightProperty().add(4));
        }
        VBox.setVgrow(ask, Priority.ALWAYS);
        var leftSide = ask.asks()
                ? new VBox(8, scroll, Looks.label(texts.get("work.local"), "muted", "small"), ask)
                : new VBox(8, scroll, Looks.label(texts.get("work.local"), "muted", "small"));
        HBox.setHgrow(leftSide, Priority.ALWAYS);
        leftSide.setMinWidth(220);
        side.setPrefWidth(330);
        side.setMinWidth(250);
        photos.ifPresent(side.getChildren()::add);
        doors();
        doors.setMinHeight(Region.USE_PREF_SIZE);
        VBox.setVgrow(side, Priority.ALWAYS);
        var rightSide = doors.getChildren().isEmpty() ? side : new VBox(8, doors, side);
        rightSide.setPrefWidth(330);
        rightSide.setMinWidth(250);
        var middle = new HBox(12, leftSide, rightSide);
        // Large type scrolls; at the usual size the lists give way.
        middle.setMinHeight(
                Looks.compact(desk.settings().textPercent().get()) ? Region.USE_COMPUTED_SIZE : 120);
        VBox.setVgrow(middle, Priority.ALWAYS);
        page = Looks.as(new VBox(head, middle), "page");
        Label farCaution = Looks.note("caution", "far-caution");
        farCaution.textProperty().bind(caution.textProperty());
        far.getChildren().setAll(farNow, farCaution, farCount, farStage);
        far.setVisible(false);
        whole.getChildren().setAll(page, far);
        pulse.getKeyFrames().setAll(new KeyFrame(Duration.millis(PULSE_MS), tick -> tick()));
        pulse.setCycleCount(Timeline.INDEFINITE);
        labels.begin(LookAlikes.takenInHand(beadId));
        watching = Subscription.combine(model.jobProperty().subscribe(j -> show()),
                model.judgedProperty().subscribe(j -> show()),
                model.findingsProperty().subscribe(f -> findings(PlanRules.timely(f, bead().phase()))),
                model.onBoardProperty().subscribe(p -> p.ifPresent(this::context)));
        backWord(texts.get("work.unattest"));
        noteWord(ask.asks() ? texts.get("work.write") : "");
        if (phase == Phase.INTAKE || phase == Phase.DECIDE || phase == Phase.PLAN) {
            ask.show();
        }
    }

    private static String view(String bead) {
        return switch (bead) {
            case "prepare_orientation" -> "orientation";
            case "lift_neighbours" -> "neighbours_after";
            case "lift_pads" -> "pads";
            case "clean_flat", "clean_flex" -> "pads_clean";
            case "clean_chip_flat" -> "chip_pads";
            case "bead_align" -> "stencil";
            case "bead_count" -> "balls";
            case "seat_edges" -> "edges";
            default -> "whole";
        };
    }

    private Bead bead() {
        return model.job().bead(beadId).orElseThrow();
    }

    /** What is known of the chip that is worked; the board with its parts where there is no picture to show. */
    private void context(RunPlan plan) {
        Texts texts = desk.texts();
        side.getChildren().clear();
        photos.ifPresent(side.getChildren()::add);
        if (bead().phase() == Phase.PLAN) {
            org.greenbead.core.route.Job job = model.job();
            desk.compute(() -> Overview.of(job, plan), o -> {
                side.getChildren().setAll(PlanNumbers.of(o, desk.texts()));
                board(plan);
            });
            return;
        }
        board(plan);
    }

    private boolean refits() {
        return RecordTypes.shipped().at(beadId).stream().anyMatch(t -> t.id().equals("enclosure"));
    }

    /** Pages that belong to this step, whatever is known of the board. */
    private void doors() {
        Texts texts = desk.texts();
        if (takesCurve()) {
            door("curve-door", texts.get("curve.open"), texts.get("curve.open.so"), this::curve);
        }
        if (RecordTypes.shipped().at(beadId).stream().anyMatch(t -> FROM_STOCK.contains(t.id()))) {
            door("stock-door", texts.get("stock.door"), texts.get("stock.door.so"), go::stock);
        }
        if (RecordTypes.shipped().at(beadId).stream().anyMatch(t -> t.id().equals("iron"))) {
            door("iron-door", texts.get("iron.door"), texts.get("iron.door.so"), () -> go.iron(beadId));
        }
        if (laps()) {
            door("laps-door", texts.get("laps.door"), texts.get("laps.door.so"), () -> go.laps(beadId));
        }
        if (bead().phase() == Phase.DECIDE) {
            door("courses-door", texts.get("courses.door"), texts.get("courses.door.so"), go::courses);
        }
        if (bead().phase() == Phase.PROVE || bead().phase() == Phase.CLOSE) {
            door("proofs-door", texts.get("proof.door"), texts.get("proof.door.so"), go::proofs);
        }
        if (bead().phase() == Phase.CLOSE) {
            door("report-door", texts.get("custom.door"), texts.get("custom.door.so"), go::report);
        }
    }

    /** A way to a page that belongs to this step. */
    private void door(String id, String word, String so, Runnable open) {
        var door = Looks.as(
                new VBox(1, Looks.label(word, "text-ink", "strong"), Looks.label(so, "muted", "small")),
                "card", "check-row");
        door.setId(id);
        door.setAccessibleRole(AccessibleRole.BUTTON);
        door.setOnMouseClicked(press -> open.run());
        doors.getChildren().add(door);
    }

    private void board(RunPlan plan) {
        Texts texts = desk.texts();
        if (refits()) {
            refit.getChildren().setAll(RefitCard.of(RefitSheet.of(model.job().records()), texts));
            side.getChildren().add(refit);
        }
        var chip = plan.target();
        var board = new BoardPlan();
        board.setPrefHeight(190);
        VBox.setVgrow(board, Priority.ALWAYS);
        board.show(plan, Map.of(), texts);
        var card = Looks.as(new VBox(4), "card");
        card.getChildren().add(Looks.label(texts.get("work.board"), "caps"));
        if (photos.isEmpty()) {
            card.getChildren().add(board);
        }
        card.getChildren().addAll(
                Looks.label(texts.get("work.chip", chip.name(), chip.part(), chip.joint().alloy().name()),
                        "text-ink", "strong"),
                Looks.label(texts.get("work.melts", chip.melts(), chip.meltsLimit(),
                        texts.temp(chip.bodyLimitC())), "muted", "small"),
                Looks.label(
                        texts.get("work.dry", texts.words().show(new Quantity.Hours(chip.openH())),
                                texts.words().show(new Quantity.Hours(chip.floorLifeH()))),
                        "muted", "small"));
        VBox.setVgrow(card, Priority.ALWAYS);
        if (LookAlikes.takenInHand(beadId)) {
            OrientationCard.of(JobFacts.of(model.job()), texts).ifPresent(side.getChildren()::add);
        }
        side.getChildren().add(card);
    }

    private void show() {
        if (model.job().bead(beadId).isEmpty()) {
            return;
        }
        Texts texts = desk.texts();
        Bead bead = bead();
        long seen = bead.checks().stream().filter(c -> c.state() == Attest.YES).count();
        where.setText(texts.get("work.where",
                texts.say("phase." + bead.phase().name().toLowerCase(Locale.ROOT))
                        .toUpperCase(Locale.ENGLISH),
                texts.say("bead." + bead.id()).toUpperCase(Locale.ENGLISH), seen, bead.checks().size()));
        rows.getChildren().clear();
        for (CheckItem item : bead.checks()) {
            rows.getChildren().add(row(item, texts));
        }
        demands(texts);
        photos.ifPresent(PhotoPane::show);
        if (refits()) {
            refit.getChildren().setAll(RefitCard.of(RefitSheet.of(model.job().records()), texts));
        }
        ask.show();
        instruct(bead, texts);
        farNow.setText(now.getText());
        farStage.setText(where.getText());
    }

    /** One instruction, and what the pedal does with it. */
    private void instruct(Bead bead, Texts texts) {
        Optional<Bead> gate = model.job().gateBefore(beadId);
        Optional<CheckItem> next = next();
        caution.setText("");
        countWord.setText("");
        if (gate.isPresent()) {
            now.setText(texts.get("work.gate", texts.say("bead." + gate.get().id())));
            pedal(new Pedal(texts.get("work.next", texts.say("bead." + gate.get().id())),
                    texts.get("work.next.so"), true, () -> go.bead(gate.get().id())));
            return;
        }
        List<Noticed> held = model.holding(beadId);
        if (next.isEmpty()) {
            now.setText(texts.get("work.seen"));
            List<NotKnown> unknown = model.unknown(beadId);
            List<Gates.Demand> missing = model.missing(beadId);
            if (!held.isEmpty()) {
                held(held.getFirst(), texts);
            } else if (!unknown.isEmpty()) {
                pedal(Pedal.shut(texts.get("work.unknown.held", unknown.getFirst().rule().what()),
                        texts.get("work.find", unknown.getFirst().find())));
            } else if (!missing.isEmpty()) {
                wants(missing.getFirst(), texts);
            } else {
                pedal(onwards(model, go, texts));
            }
            return;
        }
        String check = next.get().id();
        now.setText(texts.say("check." + check));
        if (texts.words().has("caution.check." + check)) {
            caution.setText(texts.say("caution.check." + check));
        }
        if (Cues.shipped().handOver(check)) {
            countWord.setText(texts.get("work.handover"));
        }
        if (labels.waits()) {
            if (labels.asks()) {
                now.setText(labels.question());
            }
            pedal(labels.pedal());
            return;
        }
        Optional<Cue> cue = Cues.shipped().of(check);
        boolean running = clock.filter(c -> c.cue().check().equals(check)).isPresent();
        boolean fixed = Cues.fixed(model.job());
        if (cue.isPresent() && !running) {
            countWord.setText(fixed
                    ? texts.get("work.count.fixed", cue.get().seconds())
                    : texts.get("work.count", texts.say("event." + cue.get().event()), cue.get().seconds()));
        } else if (running && clock.get().cue().quiet()) {
            countWord.setText(texts.get("work.quiet"));
        }
        if (cue.isPresent() && !running) {
            pedal(Pedal.stating(fixed
                    ? texts.get("work.begin")
                    : texts.get("work.event", texts.say("event." + cue.get().event())),
                    texts.get("work.event.so", cue.get().seconds(), texts.say("check." + check)),
                    () -> begin(cue.get())));
            return;
        }
        pedal(Pedal.stating(texts.get("work.attest", texts.say("check." + check)),
                texts.get("work.attest.so"), () -> attest(check, Attest.YES)));
    }

    /** The ticks are all there, what they say is not shown yet: the pedal leads to where it is written down. */
    private void wants(Gates.Demand demand, Texts texts) {
        now.setText(texts.get("work.wants.now", texts.say("evidence." + demand.id())));
        pedal(new Pedal(texts.get("work.wants.pedal", texts.say("record." + demand.record())),
                texts.get("work.wants.so"), true, () -> {
                    if (!ask.activate(Navigator.Question.of(demand.record(), ""))) {
                        asked(demand.record()).ifPresent(bead -> go.ask(bead, demand.record(), ""));
                    }
                }));
    }

    /** The first bead of the route that asks for a type of record. */
    private Optional<String> asked(String type) {
        List<String> beads = RecordTypes.shipped().require(type).beads();
        return model.job().beads().stream().map(Bead::id).filter(beads::contains).findFirst();
    }

    /** What the gate asks to be shown, with a mark for what is. */
    private void demands(Texts texts) {
        List<String> open = model.unshown(beadId).stream().map(Gates.Demand::id).toList();
        for (Gates.Demand demand : Gates.demands(beadId)) {
            boolean shown = !open.contains(demand.id());
            var mark = Looks.as(new Circle(6), "evidence-shape");
            mark.pseudoClassStateChanged(YES, shown);
            Label words = Looks.label(texts.get(shown ? "work.shown" : "work.wants",
                    texts.say("evidence." + demand.id())), "evidence-text");
            HBox.setHgrow(words, Priority.ALWAYS);
            var line = Looks.as(new HBox(12, mark, words), "evidence-row");
            line.setAlignment(Pos.CENTER_LEFT);
            line.setId("evidence-" + demand.id());
            rows.getChildren().add(line);
        }
    }

    /** A stop of the rule book keeps this gate shut though all of it is seen to. */
    private void held(Noticed stop, Texts texts) {
        pedal(Pedal.shut(texts.get("work.held", stop.rule().what()),
                texts.get("work.held.so", new Wording(texts.words()).remedy(stop))));
        caution.setText(new Wording(texts.words()).why(stop));
    }

    // Counts.

    private double nowS() {
        return desk.clock().millis() / 1000.0;
    }

    private void begin(Cue cue) {
        clock = Optional.of(new CueClock(cue, nowS()));
        desk.cues().play(org.greenbead.app.shell.Cues.Cue.TICK);
        pulse.play();
        tick();
        show();
    }

    private void tick() {
        if (clock.isEmpty()) {
            return;
        }
        CueClock counting = clock.get();
        for (int said : counting.due(nowS())) {
            desk.say(Integer.toString(said));
            desk.cues().play(org.greenbead.app.shell.Cues.Cue.TICK);
        }
        String shown = counting.cue().spoken()
                ? Integer.toString(
                        (int) Math.min(counting.cue().seconds(), Math.floor(counting.goneS(nowS()))))
                : Words.clock(Math.ceil(counting.leftS(nowS())));
        count.setText(shown);
        farCount.setText(shown);
        clock(shown);
        if (counting.over(nowS())) {
            pulse.stop();
            desk.cues().play(org.greenbead.app.shell.Cues.Cue.TWO_TONE);
        }
    }

    private void forgetCount() {
        pulse.stop();
        clock = Optional.empty();
        count.setText("");
        farCount.setText("");
        clock("");
    }

    private Optional<CheckItem> next() {
        List<CheckItem> open = bead().checks().stream().filter(c -> c.state() != Attest.YES).toList();
        return open.stream().filter(c -> chosen.equals(Optional.of(c.id()))).findFirst()
                .or(() -> open.stream().findFirst());
    }

    private Region row(CheckItem item, Texts texts) {
        var box = Looks.as(new Rectangle(15, 15), "check-shape");
        box.pseudoClassStateChanged(YES, item.state() == Attest.YES);
        box.pseudoClassStateChanged(NO, item.state() == Attest.NO);
        Label words = Looks.label(item.tickedItself()
                ? texts.get("work.itself", texts.say("check." + item.id()),
                        FactWords.from(item.shownBy(), texts.words()))
                : texts.say("check." + item.id()), "step-text");
        HBox.setHgrow(words, Priority.ALWAYS);
        // A box and not a button: only a box grows with words that wrap.
        var line = Looks.as(new HBox(12, box, words), "check-row");
        line.setAlignment(Pos.CENTER_LEFT);
        line.setId("check-" + item.id());
        line.setAccessibleRole(AccessibleRole.CHECK_BOX);
        line.setAccessibleText(texts.say("check." + item.id()));
        line.pseudoClassStateChanged(Looks.HERE, next().map(CheckItem::id).equals(Optional.of(item.id())));
        line.setOnMouseClicked(
                press -> attest(item.id(), item.state() == Attest.YES ? Attest.NO : Attest.YES));
        return line;
    }

    private void attest(String check, Attest word) {
        if (model.job().gateBefore(beadId).isEmpty() && !labels.waits()) {
            chosen = Optional.empty();
            forgetCount();
            model.attest(check, word);
            desk.cues().play(org.greenbead.app.shell.Cues.Cue.TICK);
        }
    }

    /** The pedal of a page whose bead is worked. */
    public static Pedal onwards(JobModel model, Navigator go, Texts texts) {
        return model.job().inHand()
                .map(b -> new Pedal(texts.get("work.next", texts.say("bead." + b.id())),
                        texts.get("work.next.so"), true, go::home))
                .orElseGet(() -> Pedal.shut(texts.get("work.end"), texts.get("work.end.so")));
    }

    /** To a question of this bead. */
    public void ask(Navigator.Question question) {
        ask.activate(question);
    }

    private void leaveQuestions() {
        page.requestFocus();
        show();
    }

    private void far() {
        farView = !farView;
        far.setVisible(farView);
        page.setVisible(!farView);
    }

    @Override
    public boolean planned() {
        return true;
    }

    @Override
    public List<String> about() {
        return Figures.askedAt(beadId);
    }

    @Override
    public Region node() {
        return whole;
    }

    @Override
    public void back() {
        List<CheckItem> said = bead().checks().stream().filter(c -> c.state() == Attest.YES).toList();
        if (clock.isPresent()) {
            forgetCount();
            show();
        } else if (!said.isEmpty()) {
            model.attest(said.getLast().id(), Attest.UNKNOWN);
        }
    }

    @Override
    public void note() {
        if (ask.asks()) {
            ask.activate();
        }
    }

    @Override
    public void remedy(Finding finding) {
        if (!model.remedy(finding)) {
            model.nextRun().ifPresent(b -> go.recipe(b.id()));
        }
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        if (ask.key(code)) {
            return true;
        }
        switch (code) {
            case F -> far();
            case W -> note();
            case P -> photos.ifPresent(PhotoPane::choose);
            case C -> {
                return curve();
            }
            case I -> {
                boolean irons = RecordTypes.shipped().at(beadId).stream()
                        .anyMatch(t -> t.id().equals("iron"));
                if (irons) {
                    go.iron(beadId);
                }
                return irons;
            }
            case A -> {
                if (laps()) {
                    go.laps(beadId);
                }
                return laps();
            }
            case DOWN, UP -> choose(code == KeyCode.DOWN ? 1 : -1);
            default -> {
                return false;
            }
        }
        return true;
    }

    /** The circle of the nozzle is practised where the bench is got ready for the heat. */
    private boolean laps() {
        return RecordTypes.shipped().at(beadId).stream().anyMatch(t -> t.id().equals("laps"));
    }

    /** @return false where no start-up curve belongs */
    private boolean curve() {
        if (takesCurve()) {
            go.curve(beadId);
        }
        return takesCurve();
    }

    private boolean takesCurve() {
        return RecordTypes.shipped().at(beadId).stream().anyMatch(t -> t.id().equals("curve"));
    }

    private void choose(int by) {
        List<String> open = bead().checks().stream().filter(c -> c.state() != Attest.YES).map(CheckItem::id)
                .toList();
        if (!open.isEmpty()) {
            int at = next().map(c -> open.indexOf(c.id())).orElse(0) + by;
            chosen = Optional.of(open.get(Math.floorMod(at, open.size())));
            show();
        }
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
        pulse.stop();
        photos.ifPresent(PhotoPane::dispose);
    }
}
