package org.greenbead.app.own;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
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
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Line;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.kind.BoardKind;
import org.greenbead.core.kind.PackageKind;
import org.greenbead.core.kind.PartKind;
import org.greenbead.core.picture.Px;
import org.greenbead.core.quantity.Check;
import org.greenbead.store.Format;

/** A board of one's own: its name, its size with a ruler, then what lies on it is drawn, over a photo where there is one. */
public final class OwnBoardPage extends Page {
    private static final double STEP_MM = 1;
    private static final double FINE_MM = 0.1;
    /** Packages come in half millimetres; a drawn edge is rounded to it. */
    private static final double SNAP_MM = 0.5;
    private static final double LEAST_MM = 1;
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
    private final VBox page;
    private final Map<String, String> kinds = new HashMap<>();
    private Optional<BoardDraft> draft = Optional.empty();
    private Optional<String> chosen = Optional.empty();
    private Optional<Image> image = Optional.empty();
    private Optional<String> photo = Optional.empty();
    private Side side = Side.TOP;
    private Point cross = new Point(10, 10);
    private Px crossPx = new Px(0, 0);
    private boolean marking;
    private boolean old;
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
        panel = new OwnPanel(texts, new OwnPanel.Acts(this::build, this::thick, this::built, this::partKind,
                this::write));
        var scroll = Looks.as(new ScrollPane(panel), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.setMinWidth(270);
        scroll.setPrefWidth(300);
        HBox.setHgrow(view, Priority.ALWAYS);
        middle = new HBox(12, view, scroll);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(
                new VBox(4, Looks.label(texts.get("own.caps"), "caps"), title, why, entry, said),
                "instruction");
        page = Looks.as(new VBox(head, middle), "page");
        backWord(texts.get("own.back"));
        change.ifPresent(this::open);
        show();
    }

    private void open(Board board) {
        old = true;
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
            draft = Optional.of(new BoardDraft(BoardKind.require(BUILD).board(id, id, Point.size(text))));
            cross = new Point(draft.get().board().sizeMm().xMm() / 2, draft.get().board().sizeMm().yMm() / 2);
            tell("", false);
            page.requestFocus();
            show();
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
        }
    }

    private void show() {
        Texts texts = desk.texts();
        boolean asks = draft.isEmpty();
        entry.setVisible(asks);
        entry.setManaged(asks);
        middle.setVisible(!asks);
        if (asks) {
            title.setText(texts.get(id.isEmpty() ? "own.name" : "own.size", id));
            why.setText(texts.get(id.isEmpty() ? "own.name.so" : "own.size.so"));
            entry.setPromptText(texts.get(id.isEmpty() ? "own.name.prompt" : "own.size.prompt"));
            entry.open();
            pedal(Pedal.shut(texts.get("new.type"), texts.get("new.type.so")));
            noteWord("");
            return;
        }
        Board board = draft.get().board();
        noteWord(texts.get("own.chip"));
        view.corners(marking, draft.get().corners().size() == 4 ? List.of() : draft.get().corners(), crossPx);
        view.photo(image, draft.get().squared());
        view.cross(cross);
        view.show(board, chosen.orElse(""), side, List.of());
        panel.show(board, chosen, chosen.flatMap(c -> Optional.ofNullable(kinds.get(c))));
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

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    // Drawing.

    private void corner(Px at) {
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
        Board board = draft.orElseThrow().board();
        return board.chips().stream().filter(c -> c.side() == side && covers(c.centreMm(), c.sizeMm(), at))
                .map(Chip::name).findFirst()
                .or(() -> board.parts().stream()
                        .filter(p -> p.side() == side && covers(p.centreMm(), p.sizeMm(), at))
                        .map(ProtectedPart::name).findFirst());
    }

    private static boolean covers(Point centre, Point size, Point at) {
        return Math.abs(at.xMm() - centre.xMm()) <= size.xMm() / 2
                && Math.abs(at.yMm() - centre.yMm()) <= size.yMm() / 2;
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

    private Optional<Alloy> alloy(Chip chip) {
        return draft.orElseThrow().board().assumed()
                .contains(Assumed.alloyOf(chip.name()))
                        ? Optional.empty()
                        : Optional.of(chip.joint().alloy());
    }

    /** What is chosen is no chip but a part with a limit. */
    private void partKind(PartKind kind) {
        Board board = draft.orElseThrow().board();
        chosen.ifPresent(c -> {
            Optional<Chip> chip = board.chip(c);
            Optional<ProtectedPart> part = board.parts().stream().filter(p -> p.name().equals(c)).findFirst();
            Point centre = chip.map(Chip::centreMm).orElseGet(() -> part.orElseThrow().centreMm());
            Point size = chip.map(Chip::sizeMm).orElseGet(() -> part.orElseThrow().sizeMm());
            Side face = chip.map(Chip::side).orElseGet(() -> part.orElseThrow().side());
            Board rest = board.without(c);
            String name = rest.freeName(kind.stem());
            change(() -> kind.onto(rest, name, face, centre, size), () -> chosen = Optional.of(name));
        });
    }

    /** One field of the chosen chip. */
    private void write(OwnPanel.Field field, String text) {
        Board board = draft.orElseThrow().board();
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
            desk.ledger().save(board);
            photo.ifPresent(p -> new BoardPhoto(p, corners).keep(desk.ledger(), board.id()));
            return board;
        }, done, failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    private void take() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("picture.file"), texts.get("picture.kinds"),
                "*.png", "*.jpg", "*.jpeg").ifPresent(file -> desk.io(() -> {
                    var taken = desk.ledger().photos().add(file);
                    return new Object[]{taken.name(), new Image(
                            desk.ledger().photos().find(taken.name()).orElseThrow().toUri().toString())};
                }, taken -> {
                    photo = Optional.of((String) taken[0]);
                    image = Optional.of((Image) taken[1]);
                    draft.orElseThrow().corners(List.of());
                    crossPx = new Px(image.get().getWidth() / 2, image.get().getHeight() / 2);
                    marking = true;
                    tell("", false);
                    show();
                }, failed -> tell(String.valueOf(failed.getMessage()), true)));
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        if (draft.isEmpty() && !id.isEmpty() && !old) {
            id = "";
            entry.clear();
            show();
        } else {
            left.run();
        }
    }

    /** A chip where the cross stands, 10 mm wide until it is measured. */
    @Override
    public void note() {
        if (draft.isPresent() && !marking) {
            put(cross, new Point(10, 10));
        }
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (draft.isEmpty()) {
            if (code == KeyCode.ESCAPE) {
                left.run();
                return true;
            }
            return false;
        }
        if (control && code == KeyCode.Z) {
            if (draft.get().undo()) {
                chosen = chosen.filter(c -> draft.get().board().chip(c).isPresent()
                        || draft.get().board().parts().stream().anyMatch(p -> p.name().equals(c)));
                tell(desk.texts().get("undo.done"), false);
                show();
            }
            return true;
        }
        double step = control ? FINE_MM : STEP_MM;
        switch (code) {
            case LEFT -> move(-step, 0);
            case RIGHT -> move(step, 0);
            case UP -> move(0, step);
            case DOWN -> move(0, -step);
            case E -> take();
            case F -> {
                side = side == Side.TOP ? Side.BOTTOM : Side.TOP;
                chosen = Optional.empty();
                show();
            }
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

    private void move(double dx, double dy) {
        if (marking) {
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
