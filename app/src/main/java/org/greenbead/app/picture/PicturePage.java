package org.greenbead.app.picture;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.BoardView;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.account.Screws;
import org.greenbead.core.bead.PadPlaces;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Mark;
import org.greenbead.core.board.Placement;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.chip.Orientation;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Squared;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.PlacementCsv;

/**
 * The technician's own map: drawn over a photo that four corners square up, or read from a placement file. Parts with their limit, height
 * and what they hold; screws; small pieces lost and found. It feeds the twin, the lift side and the rules.
 */
public final class PicturePage extends Page {
    private static final List<String> CORNERS = List.of("lower_left", "lower_right", "upper_right",
            "upper_left");
    private static final double SCREW_NEAR_MM = 4;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final BoardView view;
    private final Label title = Looks.label("", "now");
    private final VBox detail = Looks.as(new VBox(4), "card");
    private final Line entry;
    private final Label said = Looks.note("said");
    private final VBox page;
    private final Subscription watching;
    private Optional<Board> board = Optional.empty();
    private Optional<Image> image = Optional.empty();
    private Optional<Kept> picture = Optional.empty();
    private Optional<Squared> squared = Optional.empty();
    private Point cross = new Point(20, 20);
    private Px crossPx = new Px(100, 100);
    private List<Px> corners = List.of();
    private boolean marking;
    private Side side = Side.TOP;
    private Ask ask = Ask.NOTHING;

    /** What the line is for. */
    private enum Ask {
        NOTHING, PART, LIMIT, HEIGHT, SCREW, LOST
    }

    public PicturePage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("picture-title");
        detail.setId("picture-detail");
        said.setId("picture-said");
        view = new BoardView(this::point, this::corner);
        view.setId("picture-view");
        entry = new Line("picture-line", "");
        entry.setOnAction(enter -> typed(entry.getText().strip()));
        entry.setVisible(false);
        entry.setManaged(false);
        HBox.setHgrow(view, Priority.ALWAYS);
        detail.setPrefWidth(230);
        detail.setMinWidth(190);
        var middle = new HBox(10, view, detail);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("picture.caps"), "caps"), title),
                "instruction");
        page = Looks.as(
                new VBox(head, middle, entry, said, Looks.label(texts.get("picture.keys"), "muted", "small")),
                "page");
        Drops.onto(page, this::take);
        backWord(texts.get("book.back"));
        noteWord(texts.get("picture.file"));
        watching = model.jobProperty().subscribe(j -> reread());
    }

    @Override
    public void reread() {
        Job job = model.job();
        Optional<Kept> newest = model.job().records("picture").reversed().stream()
                .filter(p -> p.text("view").equals("board_top")).findFirst();
        desk.io(() -> desk.ledger().board(job), read -> {
            if (board.isEmpty()) {
                read.chip(model.job().target()).ifPresent(c -> cross = c.centreMm());
            }
            board = Optional.of(read);
            show();
        });
        if (!newest.equals(picture)) {
            picture = newest;
            image = Optional.empty();
            newest.ifPresent(p -> desk.io(() -> {
                try (var in = desk.ledger().photos().open(p.text("file"))) {
                    return new Image(in);
                }
            }, loaded -> {
                image = Optional.of(loaded);
                square();
            }, failed -> tell(String.valueOf(failed.getMessage()), true)));
        }
        show();
    }

    /** The picture's own corners, where they were marked. */
    private void square() {
        squared = Optional.empty();
        String text = picture.map(p -> p.text("corners")).orElse("");
        if (!text.isEmpty() && board.isPresent()) {
            try {
                squared = Optional.of(BoardPhoto.squared(text, board.get()));
            } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
                tell(desk.texts().get("picture.corners.bad", String.valueOf(e.getMessage())), true);
            }
        }
        show();
    }

    private void show() {
        Texts texts = desk.texts();
        if (board.isEmpty()) {
            return;
        }
        if (image.isPresent() && squared.isEmpty() && !marking
                && picture.map(p -> !p.text("corners").isEmpty()).orElse(false)) {
            square();
            return;
        }
        view.photo(image, squared);
        view.show(board.get(), model.job().target(), side, spots());
        view.cross(cross);
        view.corners(marking, corners, crossPx);
        if (marking) {
            title.setText(texts.get("picture.mark", texts.say("corner." + CORNERS.get(corners.size()))));
            pedal(new Pedal(texts.get("picture.mark", texts.say("corner." + CORNERS.get(corners.size()))),
                    texts.get("picture.mark.so"), true, () -> corner(crossPx)));
        } else {
            title.setText(texts.get(side == Side.TOP ? "picture.title" : "picture.title.under",
                    board.get().id(), board.get().title()));
            pedal(new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, go::home));
        }
        detail();
    }

    private List<BoardView.Spot> spots() {
        var spots = new ArrayList<BoardView.Spot>();
        for (Kept screw : model.job().records("screw")) {
            place(screw).ifPresent(p -> spots.add(new BoardView.Spot(
                    screw.text("hole") + (Double.isFinite(screw.number("length_mm"))
                            ? " " + desk.texts().words()
                                    .show(new Quantity.Millimetres(screw.number("length_mm")))
                            : ""),
                    p, screw.yes("in") ? "screw-in" : "screw")));
        }
        for (Kept piece : model.job().records("small_part")) {
            place(piece).ifPresent(p -> spots.add(new BoardView.Spot(piece.text("id"), p,
                    piece.text("state").equals("lost") ? "lost" : "found")));
        }
        Optional<Chip> worked = board.flatMap(b -> b.chip(model.job().target()));
        if (worked.isPresent() && worked.get().side() == side) {
            Orientation.Corner mark = JobFacts.mark(model.job());
            for (Kept pad : model.job().records("pad")) {
                PadPlaces.of(worked.get(), pad.text("site"), mark).ifPresent(p -> spots.add(
                        new BoardView.Spot(pad.text("net").isEmpty()
                                ? pad.text("site")
                                : pad.text("site") + " " + pad.text("net"), p, "pad")));
            }
        }
        return spots;
    }

    private Optional<Point> place(Kept record) {
        double x = record.number("x_mm");
        double y = record.number("y_mm");
        return Double.isFinite(x) && Double.isFinite(y) && side == Side.TOP && Math.abs(x) < 500
                && Math.abs(y) < 500
                        ? Optional.of(new Point(x, y))
                        : Optional.empty();
    }

    /** The part under the cross, the smallest first. */
    private Optional<ProtectedPart> part() {
        return board.stream().flatMap(b -> b.parts().stream()).filter(p -> p.side() == side)
                .filter(p -> Math.abs(p.centreMm().xMm() - cross.xMm()) <= Math.max(0.8, p.sizeMm().xMm() / 2)
                        && Math.abs(p.centreMm().yMm() - cross.yMm()) <= Math.max(0.8, p.sizeMm().yMm() / 2))
                .min(Comparator.comparingDouble(p -> p.sizeMm().areaMm2()));
    }

    private void detail() {
        Texts texts = desk.texts();
        detail.getChildren().clear();
        detail.getChildren().add(Looks
                .label(String.format(Locale.ENGLISH, "%.1f, %.1f mm", cross.xMm(), cross.yMm()), "caps"));
        Optional<ProtectedPart> here = part();
        Optional<Chip> chip = board.stream().flatMap(b -> b.chips().stream()).filter(c -> c.side() == side)
                .filter(c -> Math.abs(c.centreMm().xMm() - cross.xMm()) <= c.sizeMm().xMm() / 2
                        && Math.abs(c.centreMm().yMm() - cross.yMm()) <= c.sizeMm().yMm() / 2)
                .findFirst();
        if (here.isPresent()) {
            ProtectedPart p = here.get();
            detail.getChildren().addAll(Looks.label(p.name(), "figure"), Looks.label(p.kind(), "text-ink"),
                    Looks.label(texts.get("picture.limit", texts.temp(p.limitC())), "text-ink", "small"),
                    Looks.label(p.heightMm().map(
                            h -> texts.get("picture.height", texts.words().show(new Quantity.Millimetres(h))))
                            .orElse(texts.get("picture.height.unknown")), "text-ink", "small"),
                    Looks.label(p.holds().isEmpty()
                            ? texts.get("picture.holds.nothing")
                            : texts.get("picture.holds",
                                    p.holds().stream()
                                            .map(h -> texts.say("holds." + h.name().toLowerCase(Locale.ROOT)))
                                            .sorted().collect(Collectors.joining(", "))),
                            "text-ink", "small"),
                    Looks.label(texts.get("picture.part.keys"), "muted", "small"));
        } else if (chip.isPresent()) {
            Chip c = chip.get();
            detail.getChildren().addAll(Looks.label(c.name(), "figure"), Looks.label(c.part(), "text-ink"),
                    Looks.label(texts.get("picture.limit", texts.temp(c.bodyLimitC())), "text-ink", "small"),
                    Looks.label(texts.get("picture.joints", c.joint().alloy().name(), c.melts()), "text-ink",
                            "small"));
        } else {
            detail.getChildren().add(Looks.label(texts.get("picture.nothing"), "muted", "small"));
        }
        long out = model.job().records("screw").stream().filter(s -> s.yes("out")).count();
        long in = model.job().records("screw").stream().filter(s -> s.yes("in")).count();
        Label screws = Looks.label(texts.get("picture.screws", out, in), "strong", "small",
                out > 0 && out != in ? "ink-amber" : "text-ink");
        screws.setId("picture-screws");
        detail.getChildren().addAll(Looks.label(texts.get("picture.counts"), "caps"), screws);
        for (Screws.Length length : Screws.of(model.job())) {
            detail.getChildren().add(Looks.label(texts.get("picture.length", length.lengthMm() > 0
                    ? texts.words().show(new Quantity.Millimetres(length.lengthMm()))
                    : texts.say("book.not_noted"), length.out(), length.in()), "small",
                    length.missing() == 0 ? "muted" : "ink-amber"));
        }
        detail.getChildren().addAll(
                Looks.label(texts.get("picture.lost", model.job().records("small_part").stream()
                        .filter(s -> s.text("state").equals("lost")).count()), "text-ink", "small"),
                Looks.label(image.isEmpty()
                        ? texts.get("picture.none")
                        : squared.isEmpty()
                                ? texts.get("picture.unsquared")
                                : texts.get("picture.scale",
                                        String.format(Locale.ENGLISH, "%.1f", squared.get().pxPerMm())),
                        "muted", "small"));
    }

    private void point(Point at) {
        if (board.isPresent()) {
            cross = new Point(Math.clamp(at.xMm(), 0, board.get().sizeMm().xMm()),
                    Math.clamp(at.yMm(), 0, board.get().sizeMm().yMm()));
            show();
        }
    }

    private void corner(Px px) {
        var four = new ArrayList<>(corners);
        four.add(px);
        corners = List.copyOf(four);
        if (corners.size() < 4) {
            show();
            return;
        }
        marking = false;
        try {
            Squared.of(corners, board.orElseThrow().sizeMm());
            String text = corners.stream().map(c -> String.format(Locale.ROOT, "%.1f,%.1f", c.x(), c.y()))
                    .collect(Collectors.joining("; "));
            corners = List.of();
            model.note(picture.orElseThrow().with("corners", text, desk.clock().instant(),
                    desk.settings().technician().get()));
            tell(desk.texts().get("picture.squared"), false);
        } catch (IllegalArgumentException e) {
            corners = List.of();
            tell(e.getMessage(), true);
            show();
        }
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    /** A picture, or a placement file. */
    private void take(Path file) {
        String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
        if (name.endsWith(".csv")) {
            desk.io(() -> {
                List<Placement> read = PlacementCsv.read(file, PlacementCsv.Unit.MM);
                return PlacementCsv.onto(board.orElseThrow(), read, String.valueOf(file.getFileName()),
                        PlacementCsv.Unit.MM);
            }, placed -> {
                keep(placed.board());
                tell(desk.texts().get("picture.placed", placed.board().parts().size(),
                        placed.limitAssumed().isEmpty() ? "–" : String.join(", ", placed.limitAssumed())),
                        false);
            }, failed -> tell(String.valueOf(failed.getMessage()), true));
            return;
        }
        desk.io(() -> desk.ledger().photos().add(file), photo -> {
            Kept fresh = model.fresh("picture");
            model.note(new Kept(fresh.id(), fresh.type(), fresh.at(), fresh.author(),
                    Map.of("view", "board_top", "file", photo.name())));
            tell(desk.texts().get("picture.taken"), false);
        }, failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("picture.file"), texts.get("picture.kinds"),
                "*.png", "*.jpg", "*.jpeg", "*.csv").ifPresent(this::take);
    }

    private void keep(Board changed) {
        Board was = board.orElseThrow();
        desk.changes().made(was.id(), was.id(), () -> write(was));
        write(changed);
    }

    private void write(Board changed) {
        board = Optional.of(changed);
        desk.io(() -> {
            desk.ledger().save(changed);
            return changed;
        }, kept -> model.boardChanged());
        show();
    }

    private void ask(Ask what, String prompt) {
        ask = what;
        entry.clear();
        entry.setPromptText(prompt);
        entry.setVisible(true);
        entry.setManaged(true);
        entry.open();
    }

    private void typed(String text) {
        Ask what = ask;
        ask = Ask.NOTHING;
        entry.setVisible(false);
        entry.setManaged(false);
        page.requestFocus();
        if (text.isEmpty()) {
            return;
        }
        try {
            switch (what) {
                case PART -> addPart(text);
                case LIMIT -> limit(text);
                case HEIGHT -> height(text);
                case SCREW -> spot("screw", "hole", text, "out", true);
                case LOST -> spot("small_part", "id", text, "state", "lost");
                case NOTHING -> {
                }
            }
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
        }
    }

    /** "C44 wet capacitor 8x8 105": name, kind, size, limit; what is missing is taken from its class. */
    private void addPart(String text) {
        String[] word = text.split("\\s+");
        Placement.Placed placed = new Placement(word[0], cross, 0, side, text).part();
        ProtectedPart part = placed.part();
        OptionalDouble limit = desk.settings().unit().get().parseC(word[word.length - 1]);
        String kind = Arrays.stream(word).skip(1).filter(w -> w.matches("[A-Za-z,-]+"))
                .collect(Collectors.joining(" "));
        ProtectedPart made = new ProtectedPart(part.name(), kind.isBlank() ? part.kind() : kind, side, cross,
                part.sizeMm(),
                word.length > 2 && limit.isPresent() ? limit.getAsDouble() : part.limitC(), part.heightMm(),
                part.holds());
        Board now = board.orElseThrow();
        if (now.chip(made.name()).isPresent()) {
            throw new IllegalArgumentException(desk.texts().get("picture.ischip", made.name()));
        }
        var parts = new ArrayList<>(now.parts().stream().filter(p -> !p.name().equals(made.name())).toList());
        parts.add(made);
        keep(now.withParts(parts));
        tell(desk.texts().get("picture.added", made.name(), made.kind(), desk.texts().temp(made.limitC())),
                false);
    }

    private void limit(String text) {
        OptionalDouble c = desk.settings().unit().get().parseC(text);
        if (c.isEmpty()) {
            throw new IllegalArgumentException(desk.texts().get("picture.limit.bad", text));
        }
        part().ifPresent(p -> replace(
                new ProtectedPart(p.name(), p.kind(), p.side(), p.centreMm(), p.sizeMm(), c.getAsDouble(),
                        p.heightMm(), p.holds())));
    }

    private void height(String text) {
        try {
            double mm = Double.parseDouble(text.replace(',', '.').replaceAll("\\s*mm$", ""));
            part().ifPresent(p -> replace(
                    new ProtectedPart(p.name(), p.kind(), p.side(), p.centreMm(), p.sizeMm(), p.limitC(),
                            Optional.of(mm), p.holds())));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(desk.texts().get("picture.height.bad", text), e);
        }
    }

    private void replace(ProtectedPart changed) {
        Board now = board.orElseThrow();
        keep(now.withParts(
                now.parts().stream().map(p -> p.name().equals(changed.name()) ? changed : p).toList()));
    }

    private void holds(ProtectedPart.Holds what) {
        part().ifPresent(p -> {
            Set<ProtectedPart.Holds> holds = new HashSet<>(p.holds());
            if (!holds.remove(what)) {
                holds.add(what);
            }
            replace(new ProtectedPart(p.name(), p.kind(), p.side(), p.centreMm(), p.sizeMm(), p.limitC(),
                    p.heightMm(), holds));
        });
    }

    private void spot(String type, String key, String name, String field, Object value) {
        model.note(here(type, key, name, field, value));
    }

    private Kept here(String type, String key, String name, String field, Object value) {
        var now = desk.clock().instant();
        String by = desk.settings().technician().get();
        return model.fresh(type).with(key, name, now, by).with(field, value, now, by)
                .with("x_mm", Math.round(cross.xMm() * 10) / 10.0, now, by)
                .with("y_mm", Math.round(cross.yMm() * 10) / 10.0, now, by);
    }

    /** The screw of the board's type under the cross that nobody has noted yet. */
    private Optional<Mark> drawnScrew() {
        Set<String> noted = model.job().records("screw").stream().map(s -> s.text("hole"))
                .collect(Collectors.toSet());
        return board.orElseThrow().marks(Mark.Kind.SCREW).stream()
                .filter(m -> m.side() == side && !noted.contains(m.name()))
                .filter(m -> m.centreMm().distanceMm(cross) <= SCREW_NEAR_MM)
                .min(Comparator.comparingDouble(m -> m.centreMm().distanceMm(cross)));
    }

    /** A screw that the board's type knows is out: its hole and length need no typing. */
    private void out(Mark screw) {
        cross = screw.centreMm();
        Kept out = here("screw", "hole", screw.name(), "out", true);
        model.note(screw.lengthMm().map(mm -> out.with("length_mm", mm, desk.clock().instant(),
                desk.settings().technician().get())).orElse(out));
        tell(desk.texts().get("picture.screw.out", screw.name()), false);
    }

    /** The screw nearest the cross goes back in (or out again). */
    private void screwIn() {
        model.job().records("screw").stream().filter(s -> place(s).isPresent())
                .min(Comparator.comparingDouble(s -> place(s).orElseThrow().distanceMm(cross)))
                .filter(s -> place(s).orElseThrow().distanceMm(cross) < 8)
                .ifPresentOrElse(
                        s -> model.note(s.with("in", !s.yes("in"), desk.clock().instant(),
                                desk.settings().technician().get())),
                        () -> tell(desk.texts().get("picture.noscrew"), true));
    }

    private void move(double x, double y, boolean far) {
        double step = far ? 5 : 1;
        if (marking) {
            crossPx = new Px(crossPx.x() + x * step * 4, crossPx.y() - y * step * 4);
            show();
        } else {
            point(new Point(cross.xMm() + (side == Side.TOP ? x : -x) * step, cross.yMm() + y * step));
        }
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
        choose();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        Texts texts = desk.texts();
        if (control && code != KeyCode.UP && code != KeyCode.DOWN && code != KeyCode.LEFT
                && code != KeyCode.RIGHT) {
            return false;
        }
        switch (code) {
            case UP -> move(0, 1, control);
            case DOWN -> move(0, -1, control);
            case LEFT -> move(-1, 0, control);
            case RIGHT -> move(1, 0, control);
            case C -> {
                if (image.isEmpty()) {
                    tell(texts.get("picture.none"), true);
                } else {
                    marking = !marking;
                    corners = List.of();
                    crossPx = new Px(image.get().getWidth() * 0.12, image.get().getHeight() * 0.88);
                    show();
                }
            }
            case U -> {
                side = side == Side.TOP ? Side.BOTTOM : Side.TOP;
                show();
            }
            case A -> ask(Ask.PART, texts.get("picture.part.prompt"));
            case E -> part().ifPresentOrElse(p -> ask(Ask.LIMIT, texts.get("picture.limit.prompt", p.name())),
                    () -> tell(texts.get("picture.nothing"), true));
            case H ->
                part().ifPresentOrElse(p -> ask(Ask.HEIGHT, texts.get("picture.height.prompt", p.name())),
                        () -> tell(texts.get("picture.nothing"), true));
            case DIGIT1 -> holds(ProtectedPart.Holds.DATA);
            case DIGIT2 -> holds(ProtectedPart.Holds.CELL);
            case DIGIT3 -> holds(ProtectedPart.Holds.UNDERFILL);
            case DELETE -> part().ifPresent(p -> keep(board.orElseThrow()
                    .withParts(board.orElseThrow().parts().stream().filter(o -> !o.name().equals(p.name()))
                            .toList())));
            case S -> drawnScrew().ifPresentOrElse(this::out,
                    () -> ask(Ask.SCREW, texts.get("picture.screw.prompt")));
            case I -> go.changes();
            case V -> ask(Ask.LOST, texts.get("picture.lost.prompt"));
            case X -> screwIn();
            case ESCAPE -> {
                if (!marking) {
                    return false;
                }
                marking = false;
                corners = List.of();
                show();
            }
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
    }
}
