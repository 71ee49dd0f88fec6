package org.greenbead.app.own;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.image.Image;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.BoardView;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Line;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Mark;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.kind.BoardKind;
import org.greenbead.core.kind.MappedJoint;
import org.greenbead.core.kind.PackageKind;
import org.greenbead.core.kind.PartKind;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Ruled;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.store.BeadMapCsv;
import org.greenbead.store.Format;
import org.greenbead.store.PlacementCsv;

/** A board of one's own: its name, its size with a ruler, then what lies on it is drawn, over a photo where there is one. */
public final class OwnBoardPage extends Page {
    private static final double STEP_MM = 1;
    private static final double FINE_MM = 0.1;
    /** Packages come in half millimetres; a drawn edge is rounded to it. */
    private static final double SNAP_MM = 0.5;
    private static final double LEAST_MM = 1;
    /** Heads of the screws and holes that boards of this size mostly have; measured ones are written over it. */
    private static final double SCREW_MM = 4;
    private static final double HOLE_MM = 3;
    private static final String KIND = "moulded";
    private static final String BUILD = "general";
    private static final List<String> CORNERS = List.of("lower_left", "lower_right", "upper_right",
            "upper_left");
    private final Desk desk;
    private final Consumer<Board> done;
    private final Runnable left;
    private final Label title = Looks.label("", "now");
    private final Label why = Looks.label("", "muted");
    private final Label said = Looks.note("said");
    private final Line entry;
    private final BoardView view;
    private final OwnPanel panel;
    private final HBox middle;
    private final Button byPhoto;
    private final ScrollPane beside;
    private final VBox page;
    private final Map<String, String> kinds = new HashMap<>();
    private final ChipMaps maps;
    private Optional<BoardDraft> draft = Optional.empty();
    private Optional<String> chosen = Optional.empty();
    private Optional<Image> image = Optional.empty();
    private Optional<String> photo = Optional.empty();
    private Side side = Side.TOP;
    private Point cross = new Point(10, 10);
    private Px crossPx = new Px(0, 0);
    private Optional<RulerSteps> ruler = Optional.empty();
    private boolean marking;
    private boolean old;
    /** As the ledger had it; empty for a new one. */
    private Optional<Board> before = Optional.empty();
    private String id = "";

    /**
     * @param change one that is there already; empty for a new one
     * @param done   told the board once it is kept
     * @param left   where to go when it is left without
     */
    public OwnBoardPage(Desk desk, Optional<Board> change, Consumer<Board> done, Runnable left) {
        this.desk = desk;
        this.done = done;
        this.left = left;
        Texts texts = desk.texts();
        title.setId("own-question");
        said.setId("own-said");
        entry = new Line("own-line", "");
        entry.setOnAction(enter -> answered(entry.getText().strip()));
        view = new BoardView(this::pointed, this::corner);
        view.drawn(this::drawn);
        view.setId("own-view");
        maps = new ChipMaps(desk, this::show);
        panel = new OwnPanel(texts, new OwnPanel.Acts(this::build, this::thick, this::built, this::partKind,
                this::markKind, this::write, this::mapped));
        beside = Looks.as(new ScrollPane(panel), "watch-scroll");
        beside.setFitToWidth(true);
        beside.setMinWidth(270);
        beside.setPrefWidth(300);
        HBox.setHgrow(view, Priority.ALWAYS);
        middle = new HBox(12, view, beside);
        byPhoto = Looks.as(new Button(texts.get("own.by_photo")), "act");
        byPhoto.setId("own-by-photo");
        byPhoto.setOnAction(press -> note());
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(
                new VBox(4, Looks.label(texts.get("own.caps"), "caps"), title, why, entry, byPhoto, said),
                "instruction");
        page = Looks.as(new VBox(head, middle), "page");
        Drops.onto(page, this::take);
        backWord(texts.get("own.back"));
        change.ifPresent(this::open);
        show();
    }

    private void open(Board board) {
        old = true;
        before = Optional.of(board);
        id = board.id();
        draft = Optional.of(new BoardDraft(board));
        record Found(Optional<BoardPhoto> photo, Optional<Image> image) {}
        desk.io(() -> {
            Optional<BoardPhoto> kept = BoardPhoto.of(desk.ledger(), board.id());
            return new Found(kept, kept.flatMap(p -> desk.ledger().photos().find(p.file()))
                    .map(p -> new Image(p.toUri().toString())));
        }, found -> {
            image = found.image();
            photo = found.photo().map(BoardPhoto::file);
            found.photo().ifPresent(p -> draft.get().corners(p.corners()));
            show();
        });
    }

    // What is asked first.

    private void answered(String text) {
        try {
            if (id.isEmpty()) {
                String wanted = Check.id(desk.texts().get("own.name.word"), text);
                desk.io(() -> desk.ledger().holds(Format.BOARD, wanted), there -> {
                    if (there) {
                        tell(desk.texts().get("own.there", wanted), true);
                    } else {
                        id = wanted;
                        entry.clear();
                        tell("", false);
                        show();
                    }
                });
                return;
            }
            if (ruler.isPresent()) {
                ruler.get().distance(Point.size(text).xMm());
                tell("", false);
                page.requestFocus();
                show();
                return;
            }
            draft = Optional.of(new BoardDraft(BoardKind.require(BUILD).board(id, id, Point.size(text))));
            cross = new Point(draft.get().board().sizeMm().xMm() / 2, draft.get().board().sizeMm().yMm() / 2);
            tell("", false);
            page.requestFocus();
            show();
        } catch (IllegalArgumentException e) {
            show();
            tell(e.getMessage(), true);
        }
    }

    private static void seen(Node node, boolean so) {
        node.setVisible(so);
        node.setManaged(so);
    }

    private void show() {
        Texts texts = desk.texts();
        boolean asks = draft.isEmpty();
        Optional<RulerSteps.Step> step = ruler.map(RulerSteps::step);
        seen(entry, asks && (step.isEmpty() || step.get() == RulerSteps.Step.DISTANCE));
        seen(byPhoto, asks && !id.isEmpty() && step.isEmpty());
        middle.setVisible(!asks || step.isPresent());
        seen(beside, !asks);
        if (step.isPresent()) {
            ruled(step.get());
            return;
        }
        if (asks) {
            title.setText(texts.get(id.isEmpty() ? "own.name" : "own.size", id));
            why.setText(texts.get(id.isEmpty() ? "own.name.so" : "own.size.so"));
            entry.setPromptText(texts.get(id.isEmpty() ? "own.name.prompt" : "own.size.prompt"));
            entry.open();
            pedal(Pedal.shut(texts.get("new.type"), texts.get("new.type.so")));
            noteWord(id.isEmpty() ? "" : texts.get("own.by_photo"));
            return;
        }
        Board board = draft.get().board();
        noteWord(texts.get("own.chip"));
        view.corners(marking, draft.get().corners().size() == 4 ? List.of() : draft.get().corners(), crossPx);
        view.photo(image, draft.get().squared());
        view.cross(cross);
        view.show(board, chosen.orElse(""), side, List.of());
        panel.show(board, chosen, chosen.flatMap(c -> Optional.ofNullable(kinds.get(c))),
                chosen.flatMap(board::chip).flatMap(maps::of));
        if (marking) {
            String corner = texts.say("corner." + CORNERS.get(draft.get().corners().size() % 4));
            title.setText(texts.get("picture.mark", corner));
            why.setText(texts.get("own.mark.so"));
            pedal(new Pedal(texts.get("picture.mark", corner), texts.get("picture.mark.so"), true,
                    () -> corner(crossPx)));
            return;
        }
        title.setText(texts.get(board.chips().isEmpty() ? "own.draw" : "own.more", board.id()));
        why.setText(
                texts.get("own.keys", texts.say("side." + side.name().toLowerCase(Locale.ROOT))));
        pedal(board.chips().isEmpty()
                ? new Pedal(texts.get("own.put"), texts.get("own.put.so"), true, this::note)
                : new Pedal(texts.get("own.keep", board.id()),
                        board.assumed().isEmpty()
                                ? texts.get("own.keep.so")
                                : texts.get("own.keep.assumed", board.assumed().size()),
                        true, this::keep));
    }

    /** A photo is measured: two points, what lies between them, four corners. */
    private void ruled(RulerSteps.Step step) {
        Texts texts = desk.texts();
        noteWord("");
        view.photo(image, Optional.empty());
        view.corners(true, ruler.orElseThrow().marked(), crossPx);
        String corner = texts.say("corner." + CORNERS.get(ruler.get().corner() % CORNERS.size()));
        if (step == RulerSteps.Step.DISTANCE) {
            title.setText(texts.get("own.ruler.far"));
            why.setText(texts.get("own.ruler.far.so"));
            entry.setPromptText(texts.get("own.ruler.far.prompt"));
            entry.clear();
            entry.open();
            pedal(Pedal.shut(texts.get("new.type"), texts.get("new.type.so")));
            return;
        }
        String what = switch (step) {
            case FIRST -> texts.get("own.ruler.first");
            case SECOND -> texts.get("own.ruler.second");
            default -> texts.get("picture.mark", corner);
        };
        title.setText(what);
        why.setText(step == RulerSteps.Step.CORNER
                ? texts.get("own.ruler.corner.so")
                : texts.get("own.ruler.so"));
        pedal(new Pedal(what, texts.get("picture.mark.so"), true, () -> corner(crossPx)));
    }

    /** One more point of a photo that is measured; with the last corner the board is there. */
    private void ruled(Px at) {
        RulerSteps steps = ruler.orElseThrow();
        steps.point(at);
        if (steps.step() != RulerSteps.Step.DONE) {
            show();
            return;
        }
        try {
            Ruled.Outline outline = steps.outline();
            var made = new BoardDraft(BoardKind.require(BUILD).board(id, id, outline.sizeMm()));
            made.corners(outline.corners());
            made.squared();
            draft = Optional.of(made);
            ruler = Optional.empty();
            cross = new Point(outline.sizeMm().xMm() / 2, outline.sizeMm().yMm() / 2);
            tell(desk.texts().get(outline.slanted() ? "own.ruler.slanted" : "own.ruler.done",
                    desk.texts().words().show(new Quantity.Millimetres(outline.sizeMm().xMm())),
                    desk.texts().words().show(new Quantity.Millimetres(outline.sizeMm().yMm())),
                    desk.texts().words().show(new Quantity.Percent(100 * outline.slant()))),
                    outline.slanted());
            page.requestFocus();
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
        }
        show();
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    // Drawing.

    private void corner(Px at) {
        if (ruler.isPresent()) {
            ruled(at);
            return;
        }
        if (!marking) {
            return;
        }
        try {
            if (draft.orElseThrow().corner(at)) {
                draft.get().squared();
                marking = false;
                tell(desk.texts().get("own.squared"), false);
            }
        } catch (IllegalArgumentException e) {
            draft.get().corners(List.of());
            tell(e.getMessage(), true);
        }
        show();
    }

    private void pointed(Point at) {
        cross = at;
        chosen = under(at);
        page.requestFocus();
        show();
    }

    private Optional<String> under(Point at) {
        return draft.orElseThrow().board().at(side, at);
    }

    private static double snap(double mm) {
        return Math.max(LEAST_MM, Math.round(mm / SNAP_MM) * SNAP_MM);
    }

    private void drawn(Point a, Point b) {
        put(new Point((a.xMm() + b.xMm()) / 2, (a.yMm() + b.yMm()) / 2),
                new Point(snap(Math.abs(a.xMm() - b.xMm())), snap(Math.abs(a.yMm() - b.yMm()))));
    }

    private void put(Point centre, Point size) {
        Board board = draft.orElseThrow().board();
        String name = board.freeName("U");
        change(() -> PackageKind.require(KIND).onto(board, name, name, side, centre, size,
                PackageKind.require(KIND).pitchMm(), Optional.empty()), () -> {
                    kinds.put(name, KIND);
                    chosen = Optional.of(name);
                    cross = centre;
                });
    }

    private void change(Supplier<Board> made, Runnable then) {
        try {
            draft.orElseThrow().change(made.get());
            then.run();
            tell("", false);
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
        }
        show();
    }

    private void build(BoardKind kind) {
        change(() -> kind.built(draft.orElseThrow().board()), () -> {
        });
    }

    private void thick(double mm) {
        change(() -> draft.orElseThrow().board().thick(mm), () -> {
        });
    }

    private Optional<Chip> chip() {
        return chosen.flatMap(draft.orElseThrow().board()::chip);
    }

    /** The chosen chip is of this build; size, pitch and alloy stay. */
    private void built(PackageKind kind) {
        Board board = draft.orElseThrow().board();
        chip().ifPresent(c -> change(() -> kind.onto(board, c.name(), c.part(), c.side(), c.centreMm(),
                c.sizeMm(), kinds.containsKey(c.name()) ? c.joint().pitchMm() : kind.pitchMm(), alloy(c)),
                () -> kinds.put(c.name(), kind.id())));
    }

    /** The chosen chip has the balls of its bead map. */
    private void mapped() {
        chip().ifPresent(c -> maps.of(c).ifPresent(map -> change(
                () -> draft.orElseThrow().board().with(MappedJoint.of(map).on(c)), () -> {
                })));
    }

    /** A bead map belongs to what is printed on the chosen chip. */
    private void takeMap(Path file) {
        Optional<Chip> chip = chip();
        if (chip.filter(ChipMaps::named).isEmpty()) {
            tell(desk.texts().get(chip.isEmpty() ? "own.map.which" : "own.map.print"), true);
            return;
        }
        maps.take(file, chip.get(), map -> mapped(),
                failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    private Optional<Alloy> alloy(Chip chip) {
        return draft.orElseThrow().board().assumed()
                .contains(Assumed.alloyOf(chip.name()))
                        ? Optional.empty()
                        : Optional.of(chip.joint().alloy());
    }

    /** What is chosen is no chip but a part with a limit. */
    private void partKind(PartKind kind) {
        instead(kind.stem(), (rest, name, place) -> kind.onto(rest, name, place.side(), place.centreMm(),
                place.sizeMm()));
    }

    /** What is chosen is neither, but a shield, a screw, a hole or a region. */
    private void markKind(Mark.Kind kind) {
        instead(kind.stem(), (rest, name, place) -> {
            double round = Math.min(place.sizeMm().xMm(), place.sizeMm().yMm());
            boolean thin = kind == Mark.Kind.SCREW || kind == Mark.Kind.HOLE;
            return rest.put(new Mark(name, kind, place.side(), place.centreMm(),
                    thin ? new Point(round, round) : place.sizeMm(), Optional.empty()));
        });
    }

    private interface Made {
        Board onto(Board rest, String name, Board.Place place);
    }

    /** Something else in the place of what is chosen. */
    private void instead(String stem, Made made) {
        Board board = draft.orElseThrow().board();
        chosen.flatMap(board::place).ifPresent(place -> {
            Board rest = board.without(chosen.orElseThrow());
            String name = rest.freeName(stem);
            change(() -> made.onto(rest, name, place), () -> chosen = Optional.of(name));
        });
    }

    /** What is chosen becomes the next of all that it could be. */
    private void next() {
        Board board = draft.orElseThrow().board();
        Optional<Board.Place> place = chosen.flatMap(board::place);
        if (place.isEmpty()) {
            return;
        }
        String now = chosen.orElseThrow();
        PartKind[] parts = PartKind.values();
        Mark.Kind[] marks = Mark.Kind.values();
        Optional<Mark> mark = board.mark(now);
        if (chip().isPresent()) {
            partKind(parts[0]);
        } else if (mark.isPresent() && mark.get().kind().ordinal() + 1 < marks.length) {
            markKind(marks[mark.get().kind().ordinal() + 1]);
        } else if (mark.isPresent()) {
            Board rest = board.without(now);
            draft.get().change(rest);
            put(place.get().centreMm(), place.get().sizeMm());
        } else {
            int at = parts.length - 1;
            while (at > 0 && !now.replaceAll("[0-9]+$", "").equals(parts[at].stem())) {
                at--;
            }
            if (at + 1 < parts.length) {
                partKind(parts[at + 1]);
            } else {
                markKind(marks[0]);
            }
        }
    }

    /** A screw or a hole where the cross stands. */
    private void round(Mark.Kind kind, double mm) {
        Board board = draft.orElseThrow().board();
        String name = board.freeName(kind.stem());
        change(() -> board.put(new Mark(name, kind, side, cross, new Point(mm, mm), Optional.empty())),
                () -> chosen = Optional.of(name));
    }

    /** One field of the chosen chip. */
    private void write(OwnPanel.Field field, String text) {
        Board board = draft.orElseThrow().board();
        chosen.flatMap(board::mark).ifPresent(m -> change(() -> switch (field) {
            case NAME -> board.without(m.name()).put(m.named(text));
            case AT -> board.put(m.at(Point.place(text)));
            case SIZE -> board.put(m.sized(Point.size(text)));
            case LENGTH -> board.put(m.length(Point.size(text).xMm()));
            default -> board;
        }, () -> chosen = Optional.of(field == OwnPanel.Field.NAME ? text : m.name())));
        chip().ifPresent(c -> {
            Optional<String> kind = Optional.ofNullable(kinds.get(c.name()));
            if (kind.isEmpty() && (field == OwnPanel.Field.SIZE || field == OwnPanel.Field.PITCH)) {
                tell(desk.texts().get("own.kind.first", c.name()), true);
                return;
            }
            try {
                write(board, c, kind, field, text);
            } catch (IllegalArgumentException e) {
                tell(e.getMessage(), true);
            }
        });
    }

    private void write(Board board, Chip c, Optional<String> kind, OwnPanel.Field field, String text) {
        switch (field) {
            case NAME -> rename(board, c, text);
            case PART -> change(() -> board.with(c.named(c.name(), text)), () -> {
            });
            case AT -> change(() -> board.with(c.at(c.side(), Point.place(text))), () -> {
            });
            case SIZE -> again(board, c, kind.orElseThrow(), Point.size(text), c.joint().pitchMm());
            case PITCH -> again(board, c, kind.orElseThrow(), c.sizeMm(), Point.size(text).xMm());
            case LENGTH -> throw new IllegalArgumentException(desk.texts().get("own.length.screw"));
            case ALLOY -> change(() -> {
                Alloy alloy = Alloys.require(text);
                return board.put(c.soldered(alloy), board.assumed().stream()
                        .filter(a -> Assumed.chip(a).equals(c.name()))
                        .filter(a -> !Assumed.what(a).equals("alloy")).toList());
            }, () -> {
            });
        }
    }

    private void again(Board board, Chip c, String kind, Point size, double pitch) {
        change(() -> PackageKind.require(kind).onto(board, c.name(), c.part(), c.side(), c.centreMm(), size,
                pitch, alloy(c)), () -> {
                });
    }

    private void rename(Board board, Chip c, String name) {
        change(() -> {
            if (board.chip(name).isPresent() && !name.equals(c.name())) {
                throw new IllegalArgumentException(desk.texts().get("own.name.twice", name));
            }
            List<String> its = board.assumed().stream()
                    .filter(a -> Assumed.chip(a).equals(c.name()))
                    .map(a -> name + a.substring(c.name().length())).toList();
            return board.without(c.name()).put(
                    c.named(Check.id("chip name", name),
                            c.part().equals(c.name()) ? name : c.part()),
                    its);
        }, () -> {
            Optional.ofNullable(kinds.remove(c.name())).ifPresent(k -> kinds.put(name, k));
            chosen = Optional.of(name);
        });
    }

    // Keeping.

    private void keep() {
        Board board = draft.orElseThrow().board();
        List<Px> corners = draft.get().corners();
        desk.io(() -> {
            if (!old && desk.ledger().holds(Format.BOARD, board.id())) {
                throw new IllegalArgumentException(desk.texts().get("own.there", board.id()));
            }
            maps.keep(desk.ledger(), board.chips());
            desk.ledger().save(board);
            photo.ifPresent(p -> new BoardPhoto(p, corners).keep(desk.ledger(), board.id()));
            return board;
        }, kept -> {
            before.filter(b -> !b.equals(kept)).ifPresent(b -> desk.changes().made(b.id(), b.id(),
                    () -> desk.io(() -> {
                        desk.ledger().save(b);
                        return b;
                    }, back -> {
                    })));
            done.accept(kept);
        }, failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("picture.file"), texts.get("picture.kinds"),
                "*.png", "*.jpg", "*.jpeg", "*.csv").ifPresent(this::take);
    }

    private void place(Path file, String name) {
        Board now = draft.orElseThrow().board();
        desk.io(() -> PlacementCsv.onto(now, PlacementCsv.read(file, PlacementCsv.Unit.MM), name,
                PlacementCsv.Unit.MM), placed -> change(placed::board, () -> {
                }), failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    /** A photo to draw over or to measure, a placement file, or the bead map of the chosen chip. */
    private void take(Path file) {
        if (id.isEmpty()) {
            return;
        }
        String name = String.valueOf(file.getFileName());
        if (name.toLowerCase(Locale.ROOT).endsWith(".csv")) {
            if (draft.isEmpty()) {
                tell(desk.texts().get("own.placed.first"), true);
                return;
            }
            desk.io(() -> BeadMapCsv.isOne(file), map -> {
                if (map) {
                    takeMap(file);
                } else {
                    place(file, name);
                }
            }, failed -> tell(String.valueOf(failed.getMessage()), true));
            return;
        }
        desk.io(() -> {
            var taken = desk.ledger().photos().add(file);
            return new Object[]{taken.name(), new Image(
                    desk.ledger().photos().find(taken.name()).orElseThrow().toUri().toString())};
        }, taken -> {
            photo = Optional.of((String) taken[0]);
            image = Optional.of((Image) taken[1]);
            crossPx = new Px(image.get().getWidth() / 2, image.get().getHeight() / 2);
            if (draft.isPresent()) {
                draft.get().corners(List.of());
                marking = true;
            } else {
                ruler = Optional.of(new RulerSteps());
            }
            tell("", false);
            page.requestFocus();
            show();
        }, failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        if (ruler.isPresent()) {
            unruled();
        } else if (draft.isEmpty() && !id.isEmpty() && !old) {
            id = "";
            entry.clear();
            show();
        } else {
            left.run();
        }
    }

    /** The last point is taken back; the photo is laid away where there is none. */
    private void unruled() {
        if (!ruler.orElseThrow().undo()) {
            ruler = Optional.empty();
            image = Optional.empty();
            photo = Optional.empty();
        }
        tell("", false);
        show();
    }

    /** A chip where the cross stands, 10 mm wide until it is measured; before there is a board, a photo to measure. */
    @Override
    public void note() {
        if (draft.isEmpty()) {
            if (!id.isEmpty() && ruler.isEmpty()) {
                choose();
            }
        } else if (!marking) {
            put(cross, new Point(10, 10));
        }
    }

    @Override
    public boolean unstep() {
        if (ruler.isPresent()) {
            unruled();
            return true;
        }
        if (draft.filter(BoardDraft::undo).isEmpty()) {
            return draft.isPresent();
        }
        chosen = chosen.filter(c -> draft.get().board().place(c).isPresent());
        tell(desk.texts().get("own.undone"), false);
        show();
        return true;
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (draft.isEmpty()) {
            return key(code);
        }
        double step = control ? FINE_MM : STEP_MM;
        switch (code) {
            case LEFT -> move(-step, 0);
            case RIGHT -> move(step, 0);
            case UP -> move(0, step);
            case DOWN -> move(0, -step);
            case E -> choose();
            case S -> round(Mark.Kind.SCREW, SCREW_MM);
            case H -> round(Mark.Kind.HOLE, HOLE_MM);
            case T -> next();
            case F -> {
                side = side == Side.TOP ? Side.BOTTOM : Side.TOP;
                chosen = Optional.empty();
                show();
            }
            case B -> mapped();
            case W -> panel.first();
            case DELETE, BACK_SPACE -> chosen.ifPresent(c -> change(
                    () -> draft.get().board().without(c), () -> chosen = Optional.empty()));
            case ESCAPE -> {
                if (marking) {
                    marking = false;
                    draft.get().corners(List.of());
                    image = Optional.empty();
                    photo = Optional.empty();
                    show();
                } else {
                    left.run();
                }
            }
            default -> {
                return false;
            }
        }
        return true;
    }

    /** While name, size or a photo's scale are asked for. */
    private boolean key(KeyCode code) {
        if (code == KeyCode.ESCAPE) {
            if (ruler.isPresent()) {
                unruled();
            } else {
                left.run();
            }
            return true;
        }
        if (ruler.isEmpty()) {
            return false;
        }
        switch (code) {
            case LEFT -> move(-STEP_MM, 0);
            case RIGHT -> move(STEP_MM, 0);
            case UP -> move(0, STEP_MM);
            case DOWN -> move(0, -STEP_MM);
            default -> {
                return false;
            }
        }
        return true;
    }

    private void move(double dx, double dy) {
        if (marking || ruler.isPresent()) {
            crossPx = new Px(crossPx.x() + dx * 8, crossPx.y() - dy * 8);
        } else {
            Point size = draft.orElseThrow().board().sizeMm();
            cross = new Point(Math.clamp(cross.xMm() + (side == Side.TOP ? dx : -dx), 0, size.xMm()),
                    Math.clamp(cross.yMm() + dy, 0, size.yMm()));
            chosen = under(cross);
        }
        show();
    }
}
