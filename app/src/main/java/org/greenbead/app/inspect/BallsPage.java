package org.greenbead.app.inspect;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.PhotoRecords;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.board.Chip;
import org.greenbead.core.inspect.BeadCheck;
import org.greenbead.core.inspect.BeadReport;
import org.greenbead.core.inspect.BeadState;
import org.greenbead.core.inspect.BeadVerdict;
import org.greenbead.core.inspect.MapProposal;
import org.greenbead.core.inspect.PadCheck;
import org.greenbead.core.inspect.PadReport;
import org.greenbead.core.inspect.PadState;
import org.greenbead.core.inspect.Raster;
import org.greenbead.core.inspect.UnclearPhotoException;
import org.greenbead.core.picture.Px;
import org.greenbead.core.record.Kept;
import org.greenbead.store.BeadMapCsv;
import org.greenbead.store.PictureFile;

/** The photo of the balls, or of the cleaned pads, with every site judged; what to touch up; and how the sizes spread. */
public final class BallsPage extends Page {
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final SitePhoto photo = new SitePhoto(this::pressed);
    private final Label title = Looks.label("", "now");
    private final VBox figures = Looks.as(new VBox(3), "card");
    private final Rows<Todo> list;
    private final SizeBars bars = new SizeBars();
    private final VBox sizes;
    private final Label said = Looks.note("said");
    private final VBox page;
    private final Subscription watching;
    private Optional<String> file = Optional.empty();
    private Optional<BeadReport> balls = Optional.empty();
    private Optional<BeadMap> map = Optional.empty();
    private boolean pads;
    private boolean close;
    private int turn;

    /** A line of the list. @param strong what is wrong @param soft what to do */
    private record Todo(String site, String strong, String soft, String net) {}

    /** What one look at a photo gives. */
    private record Looked(Image image, BeadMap map, Optional<BeadReport> balls, Optional<PadReport> pads) {}

    public BallsPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("balls-title");
        figures.setId("balls-figures");
        said.setId("balls-said");
        list = new Rows<>("balls-list", t -> "site-" + t.site(), this::row, (t, press) -> chosen());
        VBox.setVgrow(list, Priority.ALWAYS);
        sizes = Looks.as(new VBox(2, Looks.label(texts.get("balls.sizes"), "caps"), bars), "card");
        var side = new VBox(8, figures, list, sizes);
        side.setPrefWidth(268);
        side.setMinWidth(230);
        HBox.setHgrow(photo, Priority.ALWAYS);
        var middle = new HBox(10, photo, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("balls.caps"), "caps"), title), "instruction");
        page = Looks.as(new VBox(head, middle, said, Looks.label(texts.get("balls.keys"), "muted", "small")),
                "page");
        Drops.onto(page, this::take);
        backWord(texts.get("book.back"));
        noteWord(texts.get("balls.file"));
        watching = model.jobProperty().subscribe(j -> newest());
    }

    /** Judges the newest photo of this job, unless it is the one that is shown. */
    private void newest() {
        Optional<String> now = model.job().records("picture").reversed().stream()
                .filter(p -> p.text("view").equals(pads ? "pads" : "balls")).map(p -> p.text("file"))
                .findFirst();
        if (now.isEmpty()) {
            empty();
        } else if (!now.equals(file)) {
            file = now;
            judge(now.get());
        }
    }

    private void empty() {
        Texts texts = desk.texts();
        file = Optional.empty();
        balls = Optional.empty();
        title.setText(texts.get(pads ? "balls.none.pads" : "balls.none"));
        figures.getChildren().setAll(Looks.label(texts.get("balls.how"), "text-ink"),
                Looks.label(texts.get("balls.how.light"), "muted", "small"));
        list.show(List.of());
        sizes.setVisible(false);
        pedal(new Pedal(texts.get("balls.choose"), texts.get("balls.choose.so"), true, this::choose));
    }

    private void judge(String name) {
        Texts texts = desk.texts();
        int mine = ++turn;
        boolean ofPads = pads;
        String job = model.job().id();
        title.setText(texts.get("balls.looking"));
        pedal(Pedal.shut(texts.get("balls.looking"), texts.get("balls.looking.so")));
        desk.io(() -> chip().part(), part -> desk
                .compute(() -> look(name, part, ofPads), looked -> {
                    if (mine == turn && job.equals(model.job().id())) {
                        shown(looked);
                    }
                }, failed -> {
                    if (mine == turn) {
                        failed(failed);
                    }
                }));
    }

    private Looked look(String name, String part, boolean ofPads) throws Exception {
        Path at = desk.ledger().photos().find(name)
                .orElseThrow(() -> new java.io.IOException(desk.texts().get("balls.gone")));
        BeadMap field = desk.ledger().beadMaps().find(part)
                .orElseThrow(() -> new java.io.IOException(desk.texts().get("balls.no.map", part)));
        Raster raster = PictureFile.read(at);
        Image image = new Image(at.toUri().toString());
        return ofPads
                ? new Looked(image, field, Optional.empty(), Optional.of(PadCheck.of(raster, field)))
                : new Looked(image, field, Optional.of(BeadCheck.of(raster, field)), Optional.empty());
    }

    private void failed(Throwable why) {
        Texts texts = desk.texts();
        title.setText(texts.get(why instanceof UnclearPhotoException ? "balls.unclear" : "balls.cannot"));
        figures.getChildren().setAll(Looks.label(String.valueOf(why.getMessage()), "text-ink"));
        balls = Optional.empty();
        list.show(List.of());
        sizes.setVisible(false);
        file.flatMap(f -> desk.ledger().photos().find(f))
                .ifPresent(p -> photo.show(new Image(p.toUri().toString()), List.of()));
        pedal(new Pedal(texts.get("balls.choose"), texts.get("balls.choose.so"), true, this::choose));
    }

    private void shown(Looked looked) {
        map = Optional.of(looked.map());
        balls = looked.balls();
        looked.balls().ifPresent(r -> shown(looked.image(), r));
        looked.pads().ifPresent(r -> shown(looked.image(), r));
        chosen();
    }

    private void shown(Image image, BeadReport r) {
        Texts texts = desk.texts();
        Map<BeadState, Long> counts = r.counts();
        long there = r.sites().size() - counts.getOrDefault(BeadState.MISSING, 0L)
                - counts.getOrDefault(BeadState.UNKNOWN, 0L);
        title.setText(texts.say("beadact." + small(r.verdict().act())));
        double mean = Double.isFinite(r.meanMm()) ? r.meanMm() : 0;
        double nominal = map.flatMap(m -> m.sites().getFirst().diameterMm()).orElse(mean);
        var worst = r.farthest();
        figures.getChildren().setAll(
                Looks.label(texts.get("balls.of", there, r.sites().size()), "figure",
                        there == r.sites().size() ? "ink-green" : "ink-amber"),
                Looks.label(texts.get("balls.mean", mm(mean, 3), mm(mean * r.spreadPct() / 100, 3),
                        String.format(Locale.ENGLISH, "%.1f", r.spreadPct())), "text-ink", "strong"),
                Looks.label(texts.get("balls.wanted", mm(nominal, 3),
                        mm(nominal * (1 - BeadCheck.DIAMETER_LIMIT), 3),
                        mm(nominal * (1 + BeadCheck.DIAMETER_LIMIT), 3)), "muted", "small"),
                Looks.label(
                        worst.map(w -> texts.get("balls.worst", mm(w.offsetMm().orElse(0.0), 3), w.site()))
                                .orElse(""),
                        "muted", "small"),
                Looks.label(texts.get("balls.coplanar", mm(r.verdict().coplanarityMm(), 3),
                        mm(r.verdict().coplanaritySdMm(), 3)), "muted",
                        "small"),
                Looks.label(texts.get("balls.lies", Math.round(r.turnDeg()), Math.round(r.tiltDeg()),
                        texts.say("beadmark." + small(r.mark()))),
                        r.mark() == BeadReport.Mark.NOT_FOUND
                                ? "ink-hot"
                                : "muted",
                        "small"));
        if (Looks.compact(desk.settings().textPercent().get())) {
            figures.getChildren().subList(2, 5).clear();
        }
        r.doubt().ifPresent(d -> {
            Label doubt = Looks.label(texts.say(d), "ink-hot", "small");
            doubt.setId("balls-doubt");
            doubt.setWrapText(true);
            figures.getChildren().add(1, doubt);
        });
        desk.io(this::spreads, past -> {
            if (!past.isEmpty() && balls.equals(Optional.of(r))) {
                Label line = Looks.label(
                        texts.get("balls.past", String.format(Locale.ENGLISH, "%.1f", past.getFirst()),
                                String.format(Locale.ENGLISH, "%.1f", past.getLast()), past.size()),
                        r.spreadPct() > 1.3 * past.getLast() ? "ink-amber" : "muted", "small");
                line.setId("balls-past");
                figures.getChildren().add(line);
            }
        });
        list.show(todo(r));
        photo.show(image, marks(r));
        sizes.setVisible(true);
        bars.show(
                r.sites().stream().filter(s -> s.diameterMm().isPresent())
                        .map(s -> s.diameterMm().get() / nominal)
                        .toList(),
                BeadCheck.DIAMETER_LIMIT, mm(nominal * (1 - BeadCheck.DIAMETER_LIMIT), 2),
                mm(nominal * (1 + BeadCheck.DIAMETER_LIMIT), 2));
        boolean done = model.job().records("balls").stream().anyMatch(b -> b.yes("verified"));
        pedal(done
                && model.job().records("balls").getFirst().text("decision").equals(small(r.verdict().act()))
                        ? new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, go::home)
                        : new Pedal(texts.get(
                                r.verdict().act() == BeadVerdict.Act.GOOD ? "balls.accept" : "balls.keep"),
                                texts.get("balls.keep.so"), true, () -> keep(r)));
    }

    private List<Todo> todo(BeadReport r) {
        Texts texts = desk.texts();
        var rows = new ArrayList<Todo>();
        Map<String, BeadReport.Seen> seen = new HashMap<>();
        r.sites().forEach(s -> seen.put(s.site(), s));
        for (BeadVerdict.Todo t : r.verdict().todo()) {
            BeadReport.Seen s = seen.get(t.site());
            String strong = texts.say("beadstate." + small(t.state()))
                    + (t.state() == BeadState.SMALL || t.state() == BeadState.LARGE
                            ? " " + mm(s.diameterMm().orElse(0.0), 3)
                            : s.bridgedWith().isEmpty() ? "" : " " + String.join(", ", s.bridgedWith()));
            String soft = texts.say("beadfix." + small(t.fix())) + (t.pasteMm3() > 0
                    ? texts.get("balls.paste", String.format(Locale.ENGLISH, "%.3f", t.pasteMm3()))
                    : "");
            String net = t.net().isEmpty()
                    ? ""
                    : t.net() + " · " + texts.say("critical." + small(t.critical()));
            rows.add(new Todo(t.site(), strong, soft, net));
        }
        for (int i = 0; i < r.strays().size(); i++) {
            rows.add(new Todo(stray(i), texts.get("balls.stray", mm(r.strays().get(i).diameterMm(), 2)),
                    texts.get("balls.stray.do"), ""));
        }
        return rows;
    }

    private static String stray(int index) {
        return "+" + (index + 1);
    }

    private List<SitePhoto.Mark> marks(BeadReport r) {
        Map<String, BeadReport.Seen> seen = new HashMap<>();
        r.sites().forEach(s -> seen.put(s.site(), s));
        var marks = new ArrayList<SitePhoto.Mark>();
        double usual = r.pxPerMm() * map.flatMap(m -> m.sites().getFirst().diameterMm()).orElse(0.4) / 2;
        for (BeadReport.Seen s : r.sites()) {
            SitePhoto.Kind kind = switch (s.state()) {
                case OK -> SitePhoto.Kind.GOOD;
                case MISSING -> SitePhoto.Kind.SQUARE;
                case SMALL, LARGE, DISPLACED -> SitePhoto.Kind.RING;
                case BRIDGED -> SitePhoto.Kind.HEXAGON;
                case UNKNOWN -> SitePhoto.Kind.DASHED;
            };
            Optional<Px> to = s.bridgedWith().stream().findFirst().map(seen::get)
                    .map(o -> new Px(o.xPx(), o.yPx()));
            marks.add(new SitePhoto.Mark(s.site(), kind, s.xPx(), s.yPx(),
                    s.diameterMm().map(d -> d * r.pxPerMm() / 2).orElse(usual), to));
        }
        for (int i = 0; i < r.strays().size(); i++) {
            BeadReport.Stray s = r.strays().get(i);
            marks.add(new SitePhoto.Mark(stray(i), SitePhoto.Kind.DIAMOND, s.xPx(), s.yPx(),
                    s.diameterMm() * r.pxPerMm() / 2, Optional.empty()));
        }
        return marks;
    }

    private void shown(Image image, PadReport r) {
        Texts texts = desk.texts();
        long good = r.with(PadState.OK).size();
        title.setText(texts.get(good == r.sites().size() ? "balls.pads.good" : "balls.pads.odd"));
        figures.getChildren().setAll(
                Looks.label(texts.get("balls.pads.of", good, r.sites().size()), "figure",
                        good == r.sites().size() ? "ink-green" : "ink-amber"),
                Looks.label(texts.get("balls.pads.so"), "muted", "small"));
        var rows = new ArrayList<Todo>();
        var marks = new ArrayList<SitePhoto.Mark>();
        Map<String, PadReport.Seen> seen = new HashMap<>();
        r.sites().forEach(s -> seen.put(s.site(), s));
        double pitch = r.sites().size() > 1
                ? Math.hypot(r.sites().get(0).xPx() - r.sites().get(1).xPx(),
                        r.sites().get(0).yPx() - r.sites().get(1).yPx())
                : 40;
        for (PadReport.Seen s : r.sites()) {
            if (s.state() != PadState.OK) {
                rows.add(new Todo(s.site(), texts.say("padstate." + small(s.state())),
                        String.join(", ", s.smearedWith()),
                        map.flatMap(m -> m.site(s.site())).map(org.greenbead.core.bead.Site::net)
                                .orElse("")));
            }
            SitePhoto.Kind kind = switch (s.state()) {
                case OK -> SitePhoto.Kind.GOOD;
                case BUMP -> SitePhoto.Kind.RING;
                case MISSING_PAD -> SitePhoto.Kind.SQUARE;
                case SMEAR -> SitePhoto.Kind.HEXAGON;
                case GLUE -> SitePhoto.Kind.DIAMOND;
                case UNKNOWN -> SitePhoto.Kind.DASHED;
            };
            marks.add(new SitePhoto.Mark(s.site(), kind, s.xPx(), s.yPx(), 0.24 * pitch,
                    s.smearedWith().stream()
                            .findFirst().map(seen::get).map(o -> new Px(o.xPx(), o.yPx()))));
        }
        list.show(rows);
        photo.show(image, marks);
        sizes.setVisible(false);
        boolean kept = model.job().records("pads").stream()
                .anyMatch(p -> PhotoRecords.pads(r, map.orElseThrow(), photoName()).entrySet().stream()
                        .allMatch(e -> e.getValue().equals(p.fields().get(e.getKey()))));
        pedal(kept
                ? new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, go::home)
                : new Pedal(texts.get("balls.pads.keep"), texts.get("balls.pads.keep.so"), true,
                        () -> keep(r)));
    }

    /** What the photo says goes to the record of the balls, site by site, and from there to the rule book. */
    private void keep(BeadReport r) {
        keep("balls", PhotoRecords.balls(r, map.orElseThrow(), photoName()));
        said.setText(desk.texts().get("balls.kept"));
        shown(new Looked(photo.image(), map.orElseThrow(), Optional.of(r), Optional.empty()));
    }

    private void keep(PadReport r) {
        keep("pads", PhotoRecords.pads(r, map.orElseThrow(), photoName()));
        said.setText(desk.texts().get("balls.pads.kept"));
        shown(new Looked(photo.image(), map.orElseThrow(), Optional.empty(), Optional.of(r)));
    }

    private void keep(String type, Map<String, Object> says) {
        model.note(PhotoRecords.record(model.job(), type, says, desk.clock().instant(),
                desk.settings().technician().get()));
    }

    private String photoName() {
        return file.orElse("");
    }

    private Region row(Todo t) {
        Label site = Looks.label(t.site(), "text-ink", "strong");
        site.setMinWidth(Region.USE_PREF_SIZE);
        var head = new HBox(10, site, Looks.label(t.strong(), "ink-hot", "strong", "small"));
        var box = new VBox(1, head);
        if (!t.net().isEmpty()) {
            box.getChildren().add(Looks.label(t.net(), "muted", "small"));
        }
        if (!t.soft().isEmpty()) {
            box.getChildren().add(Looks.label(t.soft(), "cure-line", "small"));
        }
        return box;
    }

    private void chosen() {
        photo.choose(list.chosen().map(Todo::site), close);
    }

    private void pressed(String site) {
        photo.choose(Optional.of(site), close);
        balls.flatMap(r -> r.sites().stream().filter(s -> s.site().equals(site)).findFirst())
                .ifPresent(s -> said.setText(s.diameterMm().isPresent()
                        ? desk.texts().get("balls.site", s.site(),
                                desk.texts().say("beadstate." + small(s.state())),
                                mm(s.diameterMm().get(), 3), mm(s.diameterSdMm(), 3),
                                mm(s.offsetMm().orElse(0.0), 3))
                        : desk.texts().get("balls.site.none", s.site(),
                                desk.texts().say("beadstate." + small(s.state())))));
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("balls.file"), texts.get("balls.kinds"),
                "*.png", "*.jpg", "*.jpeg", "*.csv").ifPresent(this::take);
    }

    /** A photo, or a bead map as CSV. */
    public void take(Path picked) {
        String name = String.valueOf(picked.getFileName());
        Texts texts = desk.texts();
        if (name.toLowerCase(Locale.ROOT).endsWith(".csv")) {
            desk.io(() -> {
                BeadMap read = BeadMapCsv.read(picked);
                String part = chip().part();
                desk.ledger().beadMaps().save(part, read);
                return texts.get("balls.map", read.sites().size(), part);
            }, told -> {
                said.setText(told);
                file.ifPresent(this::judge);
            }, failed -> said.setText(String.valueOf(failed.getMessage())));
            return;
        }
        desk.io(() -> desk.ledger().photos().add(picked), kept -> {
            Kept fresh = model.fresh("picture");
            model.note(new Kept(fresh.id(), fresh.type(), fresh.at(), fresh.author(),
                    Map.of("view", pads ? "pads" : "balls", "file", kept.name())));
        }, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    /** Makes the map of this chip from the photo; the pitch is that of its joints. */
    private void propose() {
        Texts texts = desk.texts();
        if (file.isEmpty() || pads) {
            said.setText(texts.get("balls.map.photo"));
            return;
        }
        String name = file.get();
        int mine = ++turn;
        title.setText(texts.get("balls.looking"));
        desk.io(this::chip, chip -> desk.compute(() -> {
            Raster raster = PictureFile.read(desk.ledger().photos().find(name)
                    .orElseThrow(() -> new java.io.IOException(texts.get("balls.gone"))));
            BeadMap made = MapProposal.of(raster, chip.joint().pitchMm());
            desk.ledger().beadMaps().save(chip.part(), made);
            return texts.get("balls.map", made.sites().size(), chip.part());
        }, told -> {
            if (mine == turn) {
                said.setText(told);
                judge(name);
            }
        }, failed -> {
            if (mine == turn) {
                failed(failed);
            }
        }));
    }

    private Chip chip() throws org.greenbead.store.BadFileException {
        return desk.ledger().document(org.greenbead.store.Format.BOARD, model.job().board(),
                org.greenbead.core.board.Board.class).requireChip(model.job().target());
    }

    /** The spreads that this bench has kept of other chips. */
    private List<Double> spreads() throws org.greenbead.store.BadFileException {
        return desk.ledger().jobs().stream().filter(j -> !j.id().equals(model.job().id()))
                .flatMap(j -> j.records("balls").stream()).map(r -> r.number("spread_pct"))
                .filter(Double::isFinite)
                .sorted().toList();
    }

    private String mm(double value, int digits) {
        return String.format(Locale.ENGLISH, "%." + digits + "f", value);
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }

    @Override
    public List<String> about() {
        return List.of("balls", "pads", "sites", "photo", "chip");
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
        if (control) {
            return false;
        }
        switch (code) {
            case DOWN -> list.move(1);
            case UP -> list.move(-1);
            case Z -> {
                close = !close;
                chosen();
            }
            case M -> propose();
            case S -> go.stencil();
            case E -> go.map();
            case V -> {
                pads = !pads;
                file = Optional.empty();
                newest();
            }
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        turn++;
        watching.unsubscribe();
    }
}
