package org.greenbead.app.inspect;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.css.PseudoClass;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.PhotoRecords;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.inspect.BoardCompare;
import org.greenbead.core.inspect.Change;
import org.greenbead.core.inspect.Raster;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Squared;
import org.greenbead.core.record.Kept;
import org.greenbead.store.PictureFile;

/** Two photos of the board, the later laid over the earlier and blinked; what vanished or moved, and one key that writes a lost part down. */
public final class ChangePage extends Page {
    private static final Duration BLINK = Duration.millis(650);
    private static final PseudoClass LATER = PseudoClass.getPseudoClass("later");
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final SitePhoto photo = new SitePhoto(this::pressed);
    private final Label title = Looks.label("", "now");
    private final Label which = Looks.label("", "blink-flag", "strong");
    private final VBox figures = Looks.as(new VBox(3), "card");
    private final Label said = Looks.note("said");
    private final Rows<Spot> list;
    private final VBox page;
    private final Timeline blink = new Timeline(new KeyFrame(BLINK, tick -> turnOver()));
    private final Subscription watching;
    private List<Kept> pictures = List.of();
    private Optional<Looked> looked = Optional.empty();
    private boolean later;
    private boolean close;
    private int first;
    private int second = 1;
    private int turn;

    /** Something that changed. @param at on the board, where the first photo is squared up @param lost it vanished */
    private record Spot(String name, double xPx, double yPx, Optional<Px> to, Optional<Point> at, String near,
            boolean lost) {}

    /** Both photos in the frame of the first, and what differs. */
    private record Looked(Image before, Image after, Change change, List<Spot> spots) {}

    public ChangePage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("change-title");
        which.setId("change-which");
        figures.setId("change-figures");
        said.setId("change-said");
        list = new Rows<>("change-list", s -> "change-" + s.name(), this::row, (s, press) -> chosen());
        VBox.setVgrow(list, Priority.ALWAYS);
        var side = new VBox(8, figures, list);
        side.setPrefWidth(268);
        side.setMinWidth(230);
        HBox.setHgrow(photo, Priority.ALWAYS);
        var middle = new HBox(10, photo, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var caps = new HBox(12, Looks.label(texts.get("change.caps"), "caps"), which);
        var head = Looks.as(new VBox(2, caps, title), "instruction");
        page = Looks.as(new VBox(head, middle, said, Looks.label(texts.get("change.keys"), "muted", "small")),
                "page");
        backWord(texts.get("change.picture"));
        noteWord(texts.get("change.add"));
        blink.setCycleCount(Animation.INDEFINITE);
        watching = model.jobProperty().subscribe(j -> photos());
    }

    /** The board photos of this job, oldest first; the first and the last of them are compared until somebody chooses others. */
    private void photos() {
        List<Kept> now = model.job().records("picture").stream()
                .filter(p -> !p.text("view").equals("balls") && !p.text("view").equals("pads"))
                .filter(p -> !p.text("file").isEmpty()).toList();
        if (now.equals(pictures) && looked.isPresent()) {
            return;
        }
        boolean more = now.size() != pictures.size();
        pictures = now;
        if (more) {
            first = 0;
            second = Math.max(1, now.size() - 1);
        }
        if (now.size() < 2) {
            empty();
        } else {
            compare();
        }
    }

    private void empty() {
        Texts texts = desk.texts();
        blink.stop();
        looked = Optional.empty();
        title.setText(texts.get(pictures.isEmpty() ? "change.none" : "change.one"));
        which.setText("");
        figures.getChildren().setAll(Looks.label(texts.get("change.how"), "text-ink"));
        list.show(List.of());
        if (!pictures.isEmpty()) {
            desk.ledger().photos().find(pictures.getFirst().text("file"))
                    .ifPresent(p -> photo.show(new Image(p.toUri().toString()), List.of()));
        }
        pedal(new Pedal(texts.get("balls.choose"), texts.get("change.choose.so"), true, this::choose));
    }

    private void compare() {
        Texts texts = desk.texts();
        int mine = ++turn;
        Kept one = pictures.get(first);
        Kept two = pictures.get(second);
        blink.stop();
        title.setText(texts.get("change.looking"));
        pedal(Pedal.shut(texts.get("change.looking"), texts.get("change.looking.so")));
        desk.io(() -> desk.ledger().board(model.job()), board -> desk
                .compute(() -> look(one, two, board), found -> {
                    if (mine == turn) {
                        show(found);
                    }
                }, failed -> {
                    if (mine == turn) {
                        failed(failed, one);
                    }
                }));
    }

    private Looked look(Kept one, Kept two, Board board) throws Exception {
        Raster before = PictureFile.read(file(one));
        Raster after = PictureFile.read(file(two));
        Change change = BoardCompare.of(before, after);
        int w = before.width();
        int h = before.height();
        int[] over = change.laidOver(before, after);
        for (int i = 0; i < over.length; i++) {
            over[i] |= 0xFF000000;
        }
        var laid = new WritableImage(w, h);
        laid.getPixelWriter().setPixels(0, 0, w, h, PixelFormat.getIntArgbInstance(), over, 0, w);
        Optional<Squared> squared = Squared.read(one.text("corners"), board.sizeMm());
        var spots = new ArrayList<Spot>();
        for (Change.Vanished v : change.vanished()) {
            spots.add(
                    spot("V" + (spots.size() + 1), v.xPx(), v.yPx(), Optional.empty(), squared, board, true));
        }
        for (Change.Moved m : change.moved()) {
            spots.add(spot("M" + (spots.size() + 1), m.xPx(), m.yPx(),
                    Optional.of(new Px(m.toXPx(), m.toYPx())), squared, board, false));
        }
        return new Looked(new Image(file(one).toUri().toString()), laid, change, spots);
    }

    private static Spot spot(String name, double x, double y, Optional<Px> to, Optional<Squared> squared,
            Board board, boolean lost) {
        Optional<Point> at = squared.map(s -> s.toMm(new Px(x, y)));
        return new Spot(name, x, y, to, at, at.flatMap(board::nearest).orElse(""), lost);
    }

    private Path file(Kept picture) throws java.io.IOException {
        return desk.ledger().photos().find(picture.text("file"))
                .orElseThrow(() -> new java.io.IOException(desk.texts().get("balls.gone")));
    }

    private void failed(Throwable why, Kept one) {
        Texts texts = desk.texts();
        looked = Optional.empty();
        title.setText(texts.get("change.cannot"));
        which.setText("");
        figures.getChildren().setAll(Looks.label(String.valueOf(why.getMessage()), "text-ink"),
                Looks.label(pair(), "muted", "small"));
        list.show(List.of());
        desk.ledger().photos().find(one.text("file"))
                .ifPresent(p -> photo.show(new Image(p.toUri().toString()), List.of()));
        pedal(new Pedal(texts.get("balls.choose"), texts.get("change.choose.so"), true, this::choose));
    }

    private void show(Looked now) {
        Texts texts = desk.texts();
        looked = Optional.of(now);
        long lost = now.spots().stream().filter(Spot::lost).count();
        long moved = now.spots().size() - lost;
        title.setText(
                now.spots().isEmpty() ? texts.get("change.same") : texts.get("change.found", lost, moved));
        figures.getChildren().setAll(
                Looks.label(
                        now.spots().isEmpty()
                                ? texts.get("change.none.gone")
                                : texts.get("change.gone", lost),
                        "figure",
                        now.spots().isEmpty() ? "ink-green" : "ink-amber"),
                Looks.label(pair(), "text-ink", "small"),
                Looks.label(texts.get("change.agreed", Math.floor(1000 * now.change().agreed()) / 10),
                        "muted",
                        "small"),
                Looks.label(texts.get("change.small"), "muted", "small"));
        list.show(now.spots());
        keep(now);
        later = true;
        turnOver();
        blink.playFromStart();
        chosen();
    }

    /** What was seen goes to the account of the job as soon as it is seen, once for two photos. */
    private void keep(Looked seen) {
        Map<String, Object> says = PhotoRecords.change(seen.change(), pictures.get(first).text("file"),
                pictures.get(second).text("file"),
                seen.spots().stream().filter(Spot::lost).filter(this::written).count());
        boolean there = model.job().records("comparison").stream()
                .anyMatch(r -> List.of("before", "after").stream()
                        .allMatch(f -> r.text(f).equals(says.get(f))));
        if (!there) {
            model.note(PhotoRecords.record(model.job(), "comparison", says, desk.clock().instant(),
                    desk.settings().technician().get()));
        }
    }

    private String pair() {
        Texts texts = desk.texts();
        return texts.get("change.pair", name(pictures.get(first)), name(pictures.get(second)));
    }

    private String name(Kept picture) {
        String caption = picture.text("caption");
        return (caption.isEmpty() ? picture.text("view").replace('_', ' ') : caption) + ", "
                + picture.at().toString().substring(0, 16).replace('T', ' ');
    }

    private void turnOver() {
        looked.ifPresent(l -> {
            later = !later;
            draw(l);
        });
    }

    private void draw(Looked l) {
        Texts texts = desk.texts();
        which.setText(texts.get(later ? "change.after" : "change.before"));
        which.pseudoClassStateChanged(LATER, later);
        List<SitePhoto.Mark> marks = l.spots().stream()
                .map(s -> new SitePhoto.Mark(s.name(), s.lost() ? SitePhoto.Kind.SQUARE : SitePhoto.Kind.RING,
                        s.xPx(), s.yPx(), l.before().getWidth() / 70, s.to()))
                .toList();
        photo.show(later ? l.after() : l.before(), marks, true);
    }

    private Region row(Spot s) {
        Texts texts = desk.texts();
        var box = new VBox(1, Looks.label(texts.get(s.lost() ? "change.lost" : "change.moved"),
                s.lost() ? "ink-hot" : "ink-amber", "strong"));
        s.at().ifPresent(p -> box.getChildren()
                .add(Looks.label(texts.get("change.at", mm(p.xMm()), mm(p.yMm()))
                        + (s.near().isEmpty() ? "" : " · " + texts.get("change.near", s.near())), "muted",
                        "small")));
        if (written(s)) {
            box.getChildren().add(Looks.label(texts.get("change.written"), "cure-line", "small"));
        }
        return box;
    }

    private static String mm(double value) {
        return String.format(Locale.ENGLISH, "%.1f", value);
    }

    private void chosen() {
        Texts texts = desk.texts();
        Optional<Spot> at = list.chosen();
        photo.choose(at.map(Spot::name), close);
        if (at.filter(Spot::lost).filter(s -> s.at().isPresent() && !written(s)).isPresent()) {
            Spot lost = at.get();
            pedal(new Pedal(texts.get("change.write"), texts.get("change.write.so", mm(lost.at().get().xMm()),
                    mm(lost.at().get().yMm())), true, () -> write(lost)));
        } else {
            pedal(new Pedal(texts.get("change.picture"), texts.get("change.picture.so"), true, go::picture));
        }
    }

    /** A record of a small part lies within a millimetre of it. */
    private boolean written(Spot s) {
        return s.at().isPresent() && model.job().records("small_part").stream()
                .anyMatch(r -> Math.hypot(r.number("x_mm") - s.at().get().xMm(),
                        r.number("y_mm") - s.at().get().yMm()) < 1);
    }

    private void write(Spot s) {
        Kept fresh = model.fresh("small_part");
        model.note(new Kept(fresh.id(), fresh.type(), fresh.at(), fresh.author(),
                Map.of("id", s.near().isEmpty() ? fresh.id() : s.near(), "state", "lost", "x_mm",
                        s.at().get().xMm(), "y_mm", s.at().get().yMm())));
        said.setText(desk.texts().get("change.wrote"));
        looked.ifPresent(l -> list.show(l.spots()));
        chosen();
    }

    private void pressed(String name) {
        looked.ifPresent(l -> {
            for (int i = 0; i < l.spots().size(); i++) {
                if (l.spots().get(i).name().equals(name)) {
                    list.move(i - l.spots().indexOf(list.chosen().orElseThrow()));
                }
            }
        });
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("balls.file"), texts.get("balls.kinds"),
                "*.png", "*.jpg", "*.jpeg").ifPresent(this::take);
    }

    /** A photo of the board, taken later than those that are there. */
    public void take(Path picked) {
        desk.io(() -> desk.ledger().photos().add(picked), kept -> {
            Kept fresh = model.fresh("picture");
            model.note(new Kept(fresh.id(), fresh.type(), fresh.at(), fresh.author(),
                    Map.of("view", "board_top", "file", kept.name())));
        }, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    /** Another pair: the next photo in the place of one of the two. */
    private void other(boolean earlier) {
        if (pictures.size() < 3) {
            said.setText(desk.texts().get("change.two"));
            return;
        }
        do {
            if (earlier) {
                first = (first + 1) % pictures.size();
            } else {
                second = (second + 1) % pictures.size();
            }
        } while (first == second);
        compare();
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.picture();
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
            case V -> {
                if (blink.getStatus() == Animation.Status.RUNNING) {
                    blink.stop();
                } else {
                    blink.playFromStart();
                }
            }
            case RIGHT -> {
                blink.stop();
                turnOver();
            }
            case DIGIT1 -> other(true);
            case DIGIT2 -> other(false);
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        turn++;
        blink.stop();
        watching.unsubscribe();
    }
}
