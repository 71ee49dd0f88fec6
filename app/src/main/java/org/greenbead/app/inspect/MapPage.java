package org.greenbead.app.inspect;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.FieldGrid;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.bead.Site;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.inspect.BeadCheck;
import org.greenbead.core.inspect.Projection;
import org.greenbead.core.inspect.UnclearPhotoException;
import org.greenbead.core.picture.Px;
import org.greenbead.core.record.Kept;
import org.greenbead.store.BeadMapCsv;
import org.greenbead.store.PictureFile;

/** The bead map of the chip, over the photo of its balls where one lies there: sites put in and taken out, nets, sizes, what each costs. */
public final class MapPage extends Page {
    private static final int DRAWN_PX = 1000;
    private static final Color BODY = Color.web("#22302A");
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final SitePhoto photo = new SitePhoto(this::pressed);
    private final Label title = Looks.label("", "now");
    private final Label next = Looks.label("", "next");
    private final VBox figures = Looks.as(new VBox(3), "card");
    private final VBox cell = Looks.as(new VBox(3), "card");
    private final Label said = Looks.note("said");
    private final Line entry;
    private final VBox page;
    private Optional<FieldGrid> grid = Optional.empty();
    private Optional<Image> picture = Optional.empty();
    private Optional<Projection> onto = Optional.empty();
    private Set<String> misfits = Set.of();
    private String part = "";
    private Ask asking = Ask.NOTHING;
    private int row;
    private int column;
    private int fromRow;
    private int fromColumn;
    private boolean ranged;
    private boolean close;
    private boolean mirrored;

    /** What is typed. */
    private enum Ask {
        NOTHING, FIELD, NET, BALL
    }

    /** What the job has: the chip, its map, and where the map lies in the newest photo. */
    private record Known(Chip chip, Optional<BeadMap> map, Optional<Image> image,
            Optional<Projection> onto) {}

    public MapPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("map-title");
        next.setId("map-next");
        figures.setId("map-figures");
        cell.setId("map-cell");
        said.setId("map-said");
        entry = new Line("map-line", "");
        entry.setOnAction(enter -> typed(entry.getText().strip()));
        entry.setVisible(false);
        entry.setManaged(false);
        var side = new VBox(8, cell, figures);
        side.setPrefWidth(268);
        side.setMinWidth(230);
        HBox.setHgrow(photo, Priority.ALWAYS);
        var middle = new HBox(10, photo, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("map.caps"), "caps"), title, next),
                "instruction");
        page = Looks.as(
                new VBox(head, middle, entry, said, Looks.label(texts.get("map.keys"), "muted", "small")),
                "page");
        boolean roomy = !Looks.compact(desk.settings().textPercent().get());
        next.setVisible(roomy);
        next.setManaged(roomy);
        backWord("");
        noteWord(texts.get("map.net"));
        title.setText(texts.get("balls.looking"));
        pedal(Pedal.shut(texts.get("balls.looking"), texts.get("balls.looking.so")));
        desk.io(this::known, this::begin, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    private Known known() throws Exception {
        Chip chip = desk.ledger().board(model.job()).requireChip(model.job().target());
        Optional<BeadMap> map = desk.ledger().beadMaps().find(chip.part());
        Optional<Path> file = model.job().records("picture").reversed().stream()
                .filter(p -> p.text("view").equals("balls")).findFirst()
                .flatMap(p -> desk.ledger().photos().find(p.text("file")));
        if (map.isEmpty() || file.isEmpty()) {
            return new Known(chip, map, Optional.empty(), Optional.empty());
        }
        try {
            var raster = PictureFile.read(file.get());
            Optional<Projection> lies = BeadCheck.of(raster, map.get()).onto(map.get(), raster.width(),
                    raster.height());
            return new Known(chip, map, lies.map(l -> new Image(file.get().toUri().toString())), lies);
        } catch (UnclearPhotoException e) {
            // The map is drawn by itself where it cannot be laid over the photo.
            return new Known(chip, map, Optional.empty(), Optional.empty());
        }
    }

    private void begin(Known known) {
        part = known.chip().part();
        picture = known.image();
        onto = known.onto();
        known.map().ifPresent(m -> {
            try {
                grid = Optional.of(FieldGrid.of(m));
            } catch (IllegalArgumentException e) {
                said.setText(String.valueOf(e.getMessage()));
            }
        });
        show();
        if (grid.isEmpty()) {
            ask(Ask.FIELD, desk.texts().get("map.field.prompt"));
        }
    }

    private FieldGrid.Range range() {
        return ranged
                ? new FieldGrid.Range(fromRow, fromColumn, row, column)
                : new FieldGrid.Range(row, column, row, column);
    }

    private void show() {
        Texts texts = desk.texts();
        figures.getChildren().clear();
        cell.getChildren().clear();
        if (grid.isEmpty()) {
            title.setText(texts.get("map.none", part));
            next.setText(texts.get("map.none.next"));
            pedal(new Pedal(texts.get("map.field"), texts.get("map.field.so"), true,
                    () -> ask(Ask.FIELD, texts.get("map.field.prompt"))));
            return;
        }
        FieldGrid g = grid.get();
        BeadMap map = g.map();
        title.setText(texts.get("map.of", part, map.sites().size()));
        next.setText(texts.get(
                picture.isPresent() && !mirrored ? "map.over" : mirrored ? "map.mirrored" : "map.drawn"));
        here(g, texts);
        figures.getChildren().addAll(
                Looks.label(texts.get("map.size", g.rows(), g.columns(), mm(g.pitchMm())), "text-ink",
                        "strong"),
                Looks.label(
                        texts.get("map.only", count(map, Site.Critical.ONLY), count(map, Site.Critical.MANY),
                                count(map, Site.Critical.SPARE), count(map, Site.Critical.UNKNOWN)),
                        "muted", "small"),
                Looks.label(texts.get("map.nets",
                        map.sites().stream().map(Site::net).filter(n -> !n.isEmpty())
                                .distinct().count()),
                        "muted", "small"),
                Looks.label(texts.get("map.shapes"), "muted", "small"));
        draw(g);
    }

    private void here(FieldGrid g, Texts texts) {
        Optional<Site> site = g.site(row, column);
        String name = g.name(row, column);
        cell.getChildren().add(Looks.label(ranged
                ? texts.get("map.range", g.name(fromRow, fromColumn), name)
                : name, "figure", site.isPresent() ? "ink-green" : "ink-amber"));
        Point at = g.at(row, column);
        cell.getChildren()
                .add(Looks.label(texts.get("map.at", mm(at.xMm()), mm(at.yMm())), "muted", "small"));
        cell.getChildren().add(Looks.label(site.map(s -> texts.get("map.ball",
                s.diameterMm().map(MapPage::mm).orElse("–"), texts.say("critical." + small(s.critical()))))
                .orElse(texts.get("map.empty")), "text-ink"));
        site.filter(s -> !s.net().isEmpty())
                .ifPresent(s -> cell.getChildren().add(Looks.label(s.net(), "text-ink", "strong")));
        pedal(site.isPresent()
                ? new Pedal(texts.get("map.out"), texts.get("map.out.so", rangeName()), true, this::takeOut)
                : new Pedal(texts.get("map.in"), texts.get("map.in.so", rangeName()), true, this::putIn));
    }

    private String rangeName() {
        return ranged
                ? desk.texts().get("map.range", name(fromRow, fromColumn), name(row, column))
                : name(row, column);
    }

    private String name(int r, int c) {
        return grid.map(g -> g.name(r, c)).orElseGet(() -> RowNames.site(r, c));
    }

    private static long count(BeadMap map, Site.Critical critical) {
        return map.sites().stream().filter(s -> s.critical() == critical).count();
    }

    private void draw(FieldGrid g) {
        boolean over = picture.isPresent() && onto.isPresent() && !mirrored;
        double scale = DRAWN_PX * 0.86 / Math.max(extent(g), 1e-6);
        var marks = new ArrayList<SitePhoto.Mark>();
        String here = g.name(row, column);
        boolean site = false;
        for (Site s : g.map().sites()) {
            Px at = over ? px(s.xMm(), s.yMm()) : drawn(s.xMm(), s.yMm(), scale);
            double mmPx = over ? onto.get().pxPerMm(s.xMm(), s.yMm()) : scale;
            double radius = s.diameterMm().orElse(0.5 * g.pitchMm()) / 2 * mmPx;
            site |= s.name().equals(here);
            marks.add(new SitePhoto.Mark(s.name(), misfits.contains(s.name())
                    ? SitePhoto.Kind.SQUARE
                    : switch (s.critical()) {
                        case ONLY -> SitePhoto.Kind.HEXAGON;
                        case MANY -> SitePhoto.Kind.RING;
                        case SPARE -> SitePhoto.Kind.DASHED;
                        case UNKNOWN -> SitePhoto.Kind.PLAIN;
                    }, at.x(), at.y(), radius, Optional.empty()));
        }
        if (!site) {
            Point p = g.at(row, column);
            Px at = over ? px(p.xMm(), p.yMm()) : drawn(p.xMm(), p.yMm(), scale);
            marks.add(new SitePhoto.Mark(here, SitePhoto.Kind.DIAMOND, at.x(), at.y(),
                    0.2 * g.pitchMm() * (over ? onto.get().pxPerMm(p.xMm(), p.yMm()) : scale),
                    Optional.empty()));
        }
        Optional<Px> corner = ranged ? Optional.of(fromCorner(g, over, scale)) : Optional.empty();
        corner.ifPresent(c -> marks.add(new SitePhoto.Mark("range", SitePhoto.Kind.SQUARE, c.x(), c.y(), 6,
                Optional.of(markOf(marks, here)))));
        photo.show(over ? picture.get() : body(), marks);
        photo.choose(Optional.of(here), close);
    }

    private Px fromCorner(FieldGrid g, boolean over, double scale) {
        Point p = g.at(fromRow, fromColumn);
        return over ? px(p.xMm(), p.yMm()) : drawn(p.xMm(), p.yMm(), scale);
    }

    private static Px markOf(List<SitePhoto.Mark> marks, String name) {
        return marks.stream().filter(m -> m.name().equals(name)).findFirst()
                .map(m -> new Px(m.xPx(), m.yPx()))
                .orElseThrow();
    }

    private static double extent(FieldGrid g) {
        double most = 1;
        for (Site s : g.map().sites()) {
            most = Math.max(most, 2 * Math.max(Math.abs(s.xMm()), Math.abs(s.yMm())));
        }
        return most + g.map().pitchMm();
    }

    private Px px(double xMm, double yMm) {
        return new Px(onto.orElseThrow().xPx(xMm, yMm), onto.orElseThrow().yPx(xMm, yMm));
    }

    /** Without a photo: the body seen from the balls, or from above where it is mirrored. */
    private Px drawn(double xMm, double yMm, double scale) {
        return new Px(DRAWN_PX / 2.0 + (mirrored ? -xMm : xMm) * scale, DRAWN_PX / 2.0 - yMm * scale);
    }

    private static Image body() {
        var image = new WritableImage(DRAWN_PX, DRAWN_PX);
        for (int y = 0; y < DRAWN_PX; y++) {
            for (int x = 0; x < DRAWN_PX; x++) {
                image.getPixelWriter().setColor(x, y, BODY);
            }
        }
        return image;
    }

    /** Keeps a changed map at once; the one before can be had back. */
    private void change(Supplier<BeadMap> by, String told) {
        try {
            BeadMap now = by.get();
            FieldGrid fresh = gridOf(now);
            String of = part;
            grid.ifPresent(g -> desk.changes().made(of, of, () -> back(of, g.map())));
            grid = Optional.of(fresh);
            misfits = Set.of();
            said.setText(told);
            save(of, now);
            show();
        } catch (IllegalArgumentException e) {
            said.setText(String.valueOf(e.getMessage()));
        }
    }

    /** The field that is being edited, as long as the map has it. */
    private FieldGrid gridOf(BeadMap map) {
        String field = grid.map(FieldGrid::field).orElse("");
        return FieldGrid.fields(map).contains(field) ? FieldGrid.of(map, field) : FieldGrid.of(map);
    }

    private void otherField() {
        grid.ifPresent(g -> {
            said.setText(FieldGrid.fields(g.map()).size() == 1 ? desk.texts().get("map.one.field") : "");
            take(g::next, 0, 0);
        });
    }

    private void take(Supplier<FieldGrid> other, int atRow, int atColumn) {
        try {
            grid = Optional.of(other.get());
            row = atRow;
            column = atColumn;
            ranged = false;
            show();
        } catch (IllegalArgumentException e) {
            // A field of one ball has no rows and columns.
            said.setText(String.valueOf(e.getMessage()));
        }
    }

    private void save(String of, BeadMap map) {
        desk.io(() -> {
            desk.ledger().beadMaps().save(of, map);
            return map;
        }, kept -> {
        }, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    private void putIn() {
        change(() -> grid.orElseThrow().filled(range()), desk.texts().get("map.put", rangeName()));
    }

    private void takeOut() {
        change(() -> grid.orElseThrow().emptied(range()), desk.texts().get("map.took", rangeName()));
    }

    private void critical(Site.Critical critical) {
        if (grid.isPresent()) {
            change(() -> grid.get().critical(range(), critical),
                    desk.texts().get("map.is", rangeName(), desk.texts().say("critical." + small(critical))));
        }
    }

    /** A map as it was; on whatever page, it is kept. */
    private void back(String of, BeadMap was) {
        if (of.equals(part)) {
            grid = Optional.of(gridOf(was));
            show();
        }
        save(of, was);
    }

    @Override
    public void reread() {
        desk.io(() -> desk.ledger().beadMaps().find(part), kept -> {
            kept.ifPresent(m -> grid = Optional.of(gridOf(m)));
            show();
        });
    }

    private void ask(Ask what, String prompt) {
        asking = what;
        entry.clear();
        entry.setPromptText(prompt);
        entry.setVisible(true);
        entry.setManaged(true);
        entry.open();
    }

    private void shut() {
        asking = Ask.NOTHING;
        entry.setVisible(false);
        entry.setManaged(false);
        page.requestFocus();
    }

    private void typed(String text) {
        Ask was = asking;
        shut();
        if (text.isEmpty()) {
            return;
        }
        Texts texts = desk.texts();
        switch (was) {
            case FIELD -> {
                if (text.startsWith("+")) {
                    more(text.substring(1).strip());
                    return;
                }
                picture = Optional.empty();
                row = 0;
                column = 0;
                ranged = false;
                change(() -> FieldGrid.typed(text), texts.get("map.begun"));
            }
            case NET -> change(() -> grid.orElseThrow().net(range(), text.equals("-") ? "" : text),
                    texts.get("map.is", rangeName(), text));
            case BALL -> change(() -> grid.orElseThrow().sized(range(), size(text)),
                    texts.get("map.is", rangeName(), text + " mm"));
            case NOTHING -> {
            }
        }
    }

    /** A second field beside the others. */
    private void more(String text) {
        if (grid.isEmpty()) {
            said.setText(desk.texts().get("map.more.first"));
            return;
        }
        int fields = FieldGrid.fields(grid.get().map()).size();
        change(() -> grid.orElseThrow().with(text), desk.texts().get("map.more"));
        List<String> now = FieldGrid.fields(grid.get().map());
        if (now.size() > fields) {
            take(() -> FieldGrid.of(grid.orElseThrow().map(), now.getLast()), 0, 0);
        }
    }

    private static double size(String text) {
        try {
            return Double.parseDouble(text.replace("mm", "").replace(',', '.').strip());
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("write the diameter in mm, such as 0.45", e);
        }
    }

    private void choose() {
        desk.picker().file(page.getScene().getWindow(), desk.texts().get("map.match"), "CSV", "*.csv")
                .ifPresent(this::match);
    }

    /** How the holes of a stencil, as CSV, fit this field in the best of the four turns. */
    public void match(Path file) {
        Texts texts = desk.texts();
        grid.ifPresent(g -> desk.io(() -> g.map().fit(BeadMapCsv.read(file)), fit -> {
            misfits = fit.unfilled().stream().collect(Collectors.toSet());
            said.setText(fit.whole()
                    ? texts.get("map.fits", fit.degrees())
                    : texts.get("map.fits.not", fit.degrees(), fit.unfilled().size(), fit.extra().size()));
            show();
        }, failed -> said.setText(String.valueOf(failed.getMessage()))));
    }

    private void pressed(String site) {
        RowNames.place(site).ifPresent(p -> grid.ifPresent(g -> {
            page.requestFocus();
            if (RowNames.field(site).equals(g.field())) {
                row = p.row();
                column = p.column();
                show();
            } else {
                take(() -> FieldGrid.of(g.map(), RowNames.field(site)), p.row(), p.column());
            }
        }));
    }

    private void move(int down, int right, boolean far) {
        int step = far ? 5 : 1;
        row = Math.clamp(row + (long) down * step, 0, 199);
        column = Math.clamp(column + (long) right * step * (mirrored ? -1 : 1), 0, 199);
        show();
    }

    private static String mm(double value) {
        return String.format(Locale.ENGLISH, "%.3f", value).replaceAll("0$", "");
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.balls();
    }

    @Override
    public void note() {
        if (grid.isPresent()) {
            ask(Ask.NET, desk.texts().get("map.net.prompt", rangeName()));
        }
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        switch (code) {
            case DOWN -> move(1, 0, control);
            case UP -> move(-1, 0, control);
            case LEFT -> move(0, -1, control);
            case RIGHT -> move(0, 1, control);
            case A -> {
                ranged = !ranged;
                fromRow = row;
                fromColumn = column;
                show();
            }
            case H -> ask(Ask.BALL, desk.texts().get("map.ball.prompt", rangeName()));
            case E -> ask(Ask.FIELD, desk.texts().get("map.field.prompt"));
            case DIGIT1 -> critical(Site.Critical.ONLY);
            case DIGIT2 -> critical(Site.Critical.MANY);
            case DIGIT3 -> critical(Site.Critical.SPARE);
            case DIGIT4 -> critical(Site.Critical.UNKNOWN);
            case M -> choose();
            case T -> otherField();
            case V -> {
                mirrored = !mirrored;
                show();
            }
            case Z -> {
                close = !close;
                show();
            }
            case ESCAPE -> {
                if (asking != Ask.NOTHING) {
                    shut();
                } else {
                    back();
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
        // Nothing is watched.
    }
}
