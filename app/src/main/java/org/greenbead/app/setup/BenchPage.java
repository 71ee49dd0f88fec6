package org.greenbead.app.setup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiFunction;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.bench.Equipment;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.calibrate.History;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.plan.BenchReach;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.route.Job;
import org.greenbead.store.Format;

/** One bench: what stands under and over the board, how far it can be set, what it can reach, and what its runs have told. Every change is kept at once. */
public final class BenchPage extends Page {
    private static final double WRAP = 600;
    private static final double THING_WORD = 90;
    private static final int THING_SIGNS = 18;
    private final Desk desk;
    private final Navigator go;
    private final Optional<Job> on;
    private final Label title = Looks.as(new Label(), "now");
    private final Label said = Looks.note("said");
    private final Label of = Looks.as(new Label(), "muted", "small");
    private final VBox figures = Looks.as(new VBox(8), "card");
    private final VBox told = Looks.as(new VBox(8), "card");
    private final VBox things = Looks.as(new VBox(8), "card");
    private final BenchPhoto photo;
    private final ReachBars reach;
    private final VBox page;
    private BenchSide side;
    private Bench bench;
    private Board board;
    private String target;
    /** The newest question to the model; older answers are not shown. */
    private final AtomicReference<Object> asked = new AtomicReference<>();

    /** @param on a job that lies on the bench, whose board is then what is reached */
    public BenchPage(Desk desk, Navigator go, Bench bench, Optional<Job> on) {
        this.desk = desk;
        this.go = go;
        this.bench = bench;
        this.on = on;
        Texts texts = desk.texts();
        said.setId("bench-said");
        title.setId("bench-title");
        of.setId("bench-of");
        of.setWrapText(true);
        board = BenchReach.usualBoard();
        target = board.chips().getFirst().name();
        side = new BenchSide(texts, bench, board, board.chips().getFirst());
        reach = new ReachBars(texts);
        var pictures = new HBox(12, card(texts.get("bench.side"), side, new Label()),
                card(texts.get("bench.reach"), reach, of));
        pictures.setMinHeight(300);
        figures.setId("bench-figures");
        told.setId("bench-told");
        things.setId("bench-things");
        photo = new BenchPhoto(desk, name -> keep(b -> b.with(b.equipment().pictured(name)), true),
                words -> tell(words, true));
        HBox.setHgrow(told, Priority.ALWAYS);
        var under = new HBox(12, things, told);
        var scroll = Looks.as(new ScrollPane(new VBox(12, pictures, figures, under)), "watch-scroll");
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        page = Looks.as(new VBox(Looks.as(new VBox(2, Looks.label(texts.get("setup.caps"), "caps"), title,
                said), "instruction"), scroll, Looks.label(texts.get("bench.keys"), "muted", "small")),
                "page");
        Drops.onto(page, photo::take);
        pedal(new Pedal(texts.get("bench.back"), texts.get("setup.back.so"), true, this::back));
        backWord(texts.get("key.back"));
        show();
        on.ifPresentOrElse(
                job -> desk.io(() -> desk.ledger().document(Format.BOARD, job.board(), Board.class),
                        found -> {
                            board = found;
                            target = job.target();
                            ask();
                        }, failed -> ask()),
                this::ask);
    }

    private static VBox card(String caps, Region inside, Label under) {
        VBox.setVgrow(inside, Priority.ALWAYS);
        var card = Looks.as(new VBox(4, Looks.label(caps, "caps"), inside), "card");
        if (under.getId() != null) {
            card.getChildren().add(under);
        }
        HBox.setHgrow(card, Priority.ALWAYS);
        card.setPrefWidth(350);
        return card;
    }

    /** What can be reached is asked of the model whenever the bench is another. */
    private void ask() {
        Object mine = new Object();
        asked.set(mine);
        Bench now = bench;
        Board here = board;
        String chip = target;
        side.show(now, here, here.requireChip(chip));
        of.setText(desk.texts().get("bench.reach.asking"));
        desk.background(() -> BenchReach.of(now, here, chip, () -> asked.get() != mine), all -> {
            if (asked.get() == mine) {
                reach.show(all);
                of.setText(on.isPresent()
                        ? desk.texts().get("bench.reach.of", here.requireChip(chip).part(), here.title())
                        : desk.texts().get("bench.reach.usual"));
            }
        });
    }

    /** Draws what is known of the bench; what somebody is typing stays. */
    private void show() {
        Texts texts = desk.texts();
        Optional<String> inHand = Optional.ofNullable(page.getScene()).map(s -> s.getFocusOwner())
                .filter(n -> n instanceof TextInputControl).map(n -> n.getId());
        title.setText(bench.title());
        figures.getChildren().setAll(heaters(), row(texts.get("bench.stations"),
                new StationKeys(bench, texts, change -> keep(change, true))));
        var line = new FlowPane(14, 8);
        line.setPrefWrapLength(WRAP);
        TempUnit unit = texts.words().unit();
        bench.heater().ifPresent(h -> {
            line.getChildren().add(figure("heater-size", texts.get("bench.face"),
                    BenchSide.number(h.sizeMm().xMm()) + " x " + BenchSide.number(h.sizeMm().yMm()), "mm",
                    (b, t) -> b.heated(heater(b).sized(Point.size(t)))));
            if (!h.contact()) {
                line.getChildren()
                        .add(figure("heater-gap", texts.get("bench.gap"), BenchSide.number(h.gapMm()), "mm",
                                (b, t) -> b.heated(heater(b).below(number(t)))));
            }
            line.getChildren()
                    .add(figure("heater-max", texts.get("bench.heater.max"), shown(unit.fromC(h.maxC())),
                            unit.sign(), (b, t) -> b.heated(heater(b).upTo(unit.toC(number(t))))));
        });
        line.getChildren().addAll(
                figure("station", texts.get("bench.station"), bench.air().name(), "",
                        (b, t) -> b.callingAir(t)),
                figure("nozzles", texts.get("bench.nozzles"), BenchSide.numbers(bench), "mm",
                        (b, t) -> b.with(b.air().nozzles(numbers(t)))),
                figure("air-max", texts.get("bench.air.max"), shown(unit.fromC(bench.air().maxC())),
                        unit.sign(),
                        (b, t) -> b.with(b.air().upTo(unit.toC(number(t))))),
                figure("flow-max", texts.get("bench.flow.max"), shown(bench.air().maxLpm()), "L/min",
                        (b, t) -> b.with(b.air().blowing(number(t)))),
                figure("room", texts.get("bench.room"), shown(unit.fromC(bench.ambientC())), unit.sign(),
                        (b, t) -> b.in(unit.toC(number(t)))),
                figure("name", texts.get("bench.name"), bench.title(), "", (b, t) -> b.titled(t)));
        figures.getChildren().addAll(line, row(texts.get("setup.dial"),
                new AirDialRow(bench.id(), bench.air(), texts, dial -> keep(b -> b.with(dial), false))));
        told();
        things();
        // Drawn anew, the line that was written in still has the keyboard.
        inHand.map(id -> figures.lookup("#" + id)).ifPresent(javafx.scene.Node::requestFocus);
    }

    /** What else stands here; what rails and start-up are read with is taken from it. */
    private void things() {
        Texts texts = desk.texts();
        Equipment e = bench.equipment();
        photo.show(bench);
        things.getChildren().setAll(Looks.label(texts.get("bench.things"), "caps"), photo,
                thing("support", texts.get("bench.support"), e.support(), Equipment::heldBy),
                thing("meter", texts.get("bench.meter"), e.meter(), Equipment::readWith),
                thing("supply", texts.get("bench.supply"), e.supply(), Equipment::supplied),
                thing("microscope", texts.get("bench.microscope"), e.microscope(), Equipment::lookedThrough));
    }

    private Region thing(String id, String name, String value,
            BiFunction<Equipment, String, Equipment> with) {
        var row = (HBox) figure(id, name, value, "", (b, t) -> b.with(with.apply(b.equipment(), t)));
        ((Label) row.getChildren().getFirst()).setMinWidth(THING_WORD);
        ((Line) row.getChildren().get(1)).setPrefColumnCount(THING_SIGNS);
        return row;
    }

    private Region heaters() {
        Texts texts = desk.texts();
        var keys = new FlowPane(6, 6);
        keys.setPrefWrapLength(WRAP);
        int number = 1;
        for (BenchKind kind : kinds()) {
            var key = Looks.as(new ToggleButton(number++ + "  " + texts.say("heaterkind." + kind.id())),
                    "act",
                    "small");
            key.setId("heater-" + kind.id());
            key.setSelected(is(kind));
            key.setOnAction(press -> heater(kind));
            keys.getChildren().add(key);
        }
        return row(texts.get("bench.heater"), keys);
    }

    /** None first, as the least that a bench can have. */
    private static List<BenchKind> kinds() {
        var all = new ArrayList<>(BenchKind.shipped());
        all.sort(java.util.Comparator.comparing(k -> k.heater().isPresent()));
        return all;
    }

    /** A heater of this kind stands here, whatever was changed of it since. */
    private boolean is(BenchKind kind) {
        return kind.heater().map(BottomHeater::name).equals(bench.heater().map(BottomHeater::name));
    }

    private void heater(BenchKind kind) {
        if (is(kind)) {
            show();
            return;
        }
        boolean known = bench.calibrations().stream().anyMatch(Calibration::counted);
        Texts texts = desk.texts();
        // A name that nobody chose goes with what it names.
        boolean unnamed = kinds().stream()
                .anyMatch(k -> texts.say("benchkind." + k.id()).equals(bench.title()));
        keep(b -> {
            Bench other = b.heatedBy(kind.heater());
            return unnamed ? other.titled(texts.say("benchkind." + kind.id())) : other;
        }, true);
        if (known) {
            tell(texts.get("bench.heater.other"), false);
        }
    }

    private static BottomHeater heater(Bench b) {
        return b.heater().orElseThrow(() -> new IllegalArgumentException("no heater stands here any more"));
    }

    private Region figure(String id, String name, String value, String unit,
            BiFunction<Bench, String, Bench> with) {
        Label word = Looks.label(name, "muted", "small");
        var entry = new Line("bench-" + id, "");
        entry.setText(value);
        entry.setPrefColumnCount(Math.max(4, Math.min(16, value.length())));
        Runnable done = () -> {
            if (!entry.getText().strip().equals(value)) {
                keep(b -> with.apply(b, entry.getText().strip()), true);
            }
        };
        entry.setOnAction(enter -> done.run());
        entry.focusedProperty().subscribe((was, has) -> {
            if (was && !has) {
                done.run();
            }
        });
        var row = new HBox(6, word, entry);
        if (!unit.isEmpty()) {
            row.getChildren().add(Looks.label(unit, "muted", "small"));
        }
        word.setMinWidth(Region.USE_PREF_SIZE);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static double number(String text) {
        try {
            return Double.parseDouble(text.replace(',', '.').replaceAll("[^0-9.+-]+$", "").strip());
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("\"" + text + "\" is no number");
        }
    }

    private static List<Double> numbers(String text) {
        return Arrays.stream(text.split("[,;\\s]+")).filter(t -> !t.isBlank()).map(BenchPage::number).sorted()
                .toList();
    }

    private static String shown(double value) {
        return BenchSide.number(Math.rint(value * 10) / 10);
    }

    /** One change, kept and taken back with the others. @param anew false where what is typed goes on */
    private void keep(java.util.function.UnaryOperator<Bench> change, boolean anew) {
        Bench changed;
        try {
            changed = change.apply(bench);
        } catch (IllegalArgumentException e) {
            tell(desk.texts().get("bench.bad", e.getMessage()), true);
            return;
        }
        Bench before = bench;
        if (changed.equals(before)) {
            return;
        }
        bench = changed;
        tell("", false);
        desk.io(() -> {
            // What a run has told since this page was opened is not written over.
            Bench was = there(before.id());
            var step = new Step(was, change.apply(was));
            desk.ledger().save(step.is());
            return step;
        }, step -> {
            desk.changes().made(step.is().id(), step.is().title(), () -> write(step));
            go.benchChanged(step.is().id());
        }, failed -> {
            bench = before;
            show();
            tell(String.valueOf(failed.getMessage()), true);
        });
        if (anew) {
            show();
        }
        ask();
    }

    /** The bench as the ledger had it, and as it has it now. */
    private record Step(Bench was, Bench is) {}

    private Bench there(String id) throws org.greenbead.store.BadFileException {
        return desk.ledger().document(Format.BENCH, id, Bench.class);
    }

    /** Takes a change back, unless a run has told more of the bench since: that would be lost, or be taken for the heater from before. */
    private void write(Step step) {
        Bench before = step.was();
        desk.io(() -> {
            if (!there(before.id()).calibrations().equals(step.is().calibrations())) {
                throw new IllegalArgumentException(desk.texts().get("bench.told.since", before.title()));
            }
            desk.ledger().save(before);
            return before;
        }, kept -> {
            go.benchChanged(kept.id());
            bench = kept;
            show();
            ask();
        }, failed -> desk.trouble(String.valueOf(failed.getMessage())));
    }

    /** What runs have told; each is counted or left out. */
    private void told() {
        Texts texts = desk.texts();
        told.getChildren().setAll(Looks.label(texts.get("bench.told"), "caps"),
                Looks.label(SetupPage.state(bench, texts), "muted"));
        for (Calibration c : bench.calibrations()) {
            var count = Looks.as(
                    new ToggleButton(texts.get(c.counted() ? "setup.bench.counted" : "setup.bench.left")),
                    "act", "small");
            count.setId("count-" + c.run());
            count.setSelected(c.counted());
            count.setMinWidth(Region.USE_PREF_SIZE);
            count.setOnAction(press -> keep(b -> History.counting(b, c.run(), !c.counted()), true));
            String run = texts.get("setup.bench.run", c.run(), SetupPage.factor(c.jet()),
                    SetupPage.factor(c.preheater()), Math.round(c.nozzleMm()), texts.rise(c.residualK()));
            Label words = Looks.label(bench.stations().size() > 1 && !c.station().isEmpty()
                    ? texts.get("setup.bench.run.by", run, c.station())
                    : run, "muted");
            words.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(words, Priority.ALWAYS);
            var line = new HBox(10, words, count);
            line.setAlignment(Pos.CENTER_LEFT);
            told.getChildren().add(line);
        }
        told.getChildren().add(new FlowPane(6, 6,
                SetupPage.act("bench-guided", texts.get("setup.guided"), () -> go.guided(bench.id())),
                SetupPage.act("bench-witness", texts.get("setup.witness"), () -> go.witness(bench.id())),
                SetupPage.act("bench-copy", texts.get("bench.copy"), this::copy),
                SetupPage.act("bench-remove", texts.get("bench.remove"), this::remove)));
    }

    private static Region row(String name, Region value) {
        return SetupPage.row(name, 110, value);
    }

    private void copy() {
        Bench from = bench;
        desk.io(() -> {
            int n = 2;
            while (desk.ledger().holds(Format.BENCH, from.id() + "-" + n)) {
                n++;
            }
            Bench made = from.copy(from.id() + "-" + n).titled(from.title() + " " + n);
            desk.ledger().save(made);
            return made;
        }, made -> {
            desk.changes().made(made.id(), made.title(), () -> gone(made));
            go.bench(made);
        });
    }

    private void gone(Bench made) {
        desk.io(() -> {
            desk.ledger().remove(Format.BENCH, made.id());
            return made;
        }, removed -> go.setup());
    }

    /** One on which jobs lie stays; what goes can be brought back. */
    private void remove() {
        Bench going = bench;
        desk.io(() -> {
            desk.ledger().remove(Format.BENCH, going.id());
            return going;
        }, removed -> {
            desk.changes().made(removed.id(), removed.title(), () -> desk.io(() -> {
                desk.ledger().save(removed);
                return removed;
            }, back -> go.bench(back)));
            go.setup();
        }, failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    @Override
    public void reread() {
        show();
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void dispose() {
        asked.set(new Object());
    }

    @Override
    public void back() {
        // What is being typed counts as said.
        if (page.getScene() != null && page.getScene().getFocusOwner() instanceof TextInputControl) {
            page.requestFocus();
        }
        go.setup();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        List<BenchKind> kinds = kinds();
        int digit = code.isDigitKey() ? Integer.parseInt(code.getName().replaceAll("\\D", "")) : 0;
        if (digit > 0 && digit <= kinds.size()) {
            heater(kinds.get(digit - 1));
            return true;
        }
        switch (code) {
            case C -> copy();
            case A -> {
                if (bench.stations().size() > 1) {
                    keep(b -> b.taking(b.nextStation()), true);
                }
            }
            case N -> keep(b -> StationKeys.more(b, desk.texts()), true);
            case E -> photo.choose();
            case DELETE, BACK_SPACE -> remove();
            case ESCAPE -> back();
            default -> {
                return false;
            }
        }
        return true;
    }
}
