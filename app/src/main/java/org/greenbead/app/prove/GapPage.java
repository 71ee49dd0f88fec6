package org.greenbead.app.prove;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.BoardView;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bead.GapMap;
import org.greenbead.core.board.Chip;
import org.greenbead.core.picture.Px;
import org.greenbead.core.record.Kept;

/** The gap round a seated chip, read in a photo of each edge: its two ends give the scale, two marks across the gap a reading. */
public final class GapPage extends Leaf {
    private static final List<GapMap.Edge> ROUND = List.of(GapMap.Edge.SOUTH, GapMap.Edge.EAST,
            GapMap.Edge.NORTH, GapMap.Edge.WEST);
    private static final double STEP_PX = 4;
    private static final double FINE_PX = 0.5;
    private final Desk desk;
    private final JobModel model;
    private final Label title = Looks.label("", "now");
    private final Label says = Looks.label("", "next");
    private final Label figures = Looks.label("", "text-ink");
    private final Label said = Looks.note("said");
    private final BoardView view;
    private final GapPicture drawn = new GapPicture();
    private final VBox page;
    private final List<GapMap.Reading> readings = new ArrayList<>();
    private final List<Px> ends = new ArrayList<>();
    private final Map<GapMap.Edge, String> photos = new LinkedHashMap<>();
    private Optional<Px> upper = Optional.empty();
    private Optional<Chip> chip = Optional.empty();
    private Optional<Image> image = Optional.empty();
    private Px cross = new Px(0, 0);
    private int at;
    private boolean fine;
    private boolean kept;

    public GapPage(Desk desk, JobModel model, Navigator go) {
        super(go::proofs, desk.texts().get("rail.back"));
        this.desk = desk;
        this.model = model;
        Texts texts = desk.texts();
        title.setId("gap-title");
        says.setId("gap-says");
        figures.setId("gap-figures");
        said.setId("gap-said");
        view = new BoardView(place -> {
        }, this::mark);
        view.setId("gap-view");
        HBox.setHgrow(view, Priority.ALWAYS);
        var column = Looks.as(new VBox(8, Looks.label(texts.get("gap.round"), "caps"), drawn, figures),
                "card");
        column.setPrefWidth(330);
        column.setMinWidth(290);
        HBox.setHgrow(column, Priority.SOMETIMES);
        VBox.setVgrow(drawn, Priority.ALWAYS);
        var middle = new HBox(10, view, column);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("gap.caps"), "caps"), title, says),
                "instruction");
        page = Looks.as(new VBox(head, middle, said, Looks.label(texts.get("gap.keys"), "muted", "small")),
                "page");
        lay(page);
        Drops.onto(page, this::take);
        watch(model.findingsProperty().subscribe(this::findings));
        String target = model.job().target();
        title.setText(texts.get("gap.reading"));
        desk.io(() -> desk.ledger().board(model.job()).requireChip(target), read -> {
            chip = Optional.of(read);
            show();
        }, failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    private GapMap.Edge edge() {
        return ROUND.get(Math.min(at, ROUND.size() - 1));
    }

    private double lengthMm() {
        Chip c = chip.orElseThrow();
        return edge() == GapMap.Edge.SOUTH || edge() == GapMap.Edge.NORTH
                ? c.sizeMm().xMm()
                : c.sizeMm().yMm();
    }

    private long here() {
        return readings.stream().filter(r -> r.edge() == edge()).count();
    }

    private void show() {
        Texts texts = desk.texts();
        Chip c = chip.orElseThrow();
        String name = name(edge());
        boolean over = at >= ROUND.size();
        Optional<GapMap> map = over
                ? Optional.of(GapMap.of(readings, c.sizeMm().xMm(), c.sizeMm().yMm()))
                : Optional.empty();
        drawn.show(readings, map, over ? Optional.empty() : Optional.of(edge()), c.sizeMm().xMm(),
                c.sizeMm().yMm());
        var marked = new ArrayList<>(ends);
        upper.ifPresent(u -> {
            marked.clear();
            marked.add(u);
        });
        view.photo(image, Optional.empty());
        view.corners(image.isPresent() && !over, marked, cross);
        view.setVisible(!over);
        view.setManaged(!over);
        figures.setText(map.map(this::told).orElseGet(() -> texts.get("gap.count", readings.size())));
        noteWord("");
        if (map.isPresent()) {
            title.setText(texts.say("gap.verdict." + map.get().verdict().name().toLowerCase(Locale.ROOT)));
            says.setText(texts.get("gap.over.so"));
            pedal(new Pedal(texts.get("gap.keep"), texts.get("gap.keep.so"), true, () -> keep(map.get())));
        } else if (image.isEmpty()) {
            title.setText(texts.get("gap.photo", name));
            says.setText(texts.get("gap.photo.so"));
            pedal(new Pedal(texts.get("gap.photo.act"), name, true, this::choose));
        } else {
            String what = ends.isEmpty()
                    ? texts.get("gap.left", name)
                    : ends.size() == 1
                            ? texts.get("gap.right", name)
                            : texts.get(upper.isEmpty() ? "gap.upper" : "gap.lower", name, here() + 1);
            title.setText(what);
            says.setText(texts.get(ends.size() < 2 ? "gap.ends.so" : "gap.pair.so"));
            pedal(new Pedal(what, texts.get("gap.mark.so"), true, () -> mark(cross)));
            noteWord(here() >= GapMap.ENOUGH ? texts.get("gap.next") : "");
        }
    }

    private String told(GapMap map) {
        Texts texts = desk.texts();
        Chip c = chip.orElseThrow();
        String leans = map.leans(Math.max(c.sizeMm().xMm(), c.sizeMm().yMm()))
                ? texts.get("gap.leans", two(map.tiltDeg()), name(map.lowest()))
                : texts.get("gap.flat");
        String bow = map.bowed().map(e -> texts.get("gap.bow", name(e), two(map.bowMm().get(e)))).orElse("");
        return texts.get("gap.told", two(map.gap().meanMm()), two(map.gap().rangeMm()),
                two(2 * map.rangeSdMm())) + " "
                + leans + " " + bow;
    }

    private String name(GapMap.Edge edge) {
        return desk.texts().say("gap.edge." + edge.name().toLowerCase(Locale.ROOT));
    }

    private static String two(double figure) {
        return String.format(Locale.ENGLISH, "%.2f", figure);
    }

    private void mark(Px where) {
        if (chip.isEmpty() || image.isEmpty() || at >= ROUND.size()) {
            return;
        }
        page.requestFocus();
        cross = where;
        tell("", false);
        if (ends.size() < 2) {
            ends.add(where);
        } else if (upper.isEmpty()) {
            upper = Optional.of(where);
        } else {
            try {
                readings.add(GapMap.Reading.of(edge(), ends.get(0), ends.get(1), lengthMm(),
                        upper.get(), where, Math.max(1, view.photoPxPerPoint())));
            } catch (IllegalArgumentException e) {
                tell(e.getMessage(), true);
                if (here() == 0) {
                    ends.clear();
                }
            }
            upper = Optional.empty();
        }
        show();
    }

    /** The last mark is taken back. */
    @Override
    public boolean unstep() {
        if (kept) {
            // What is kept is taken back like any other change.
            return false;
        }
        if (upper.isPresent()) {
            upper = Optional.empty();
        } else if (here() > 0 && at < ROUND.size()) {
            readings.removeLast();
        } else if (!ends.isEmpty()) {
            ends.removeLast();
        } else if (at > 0) {
            at--;
            readings.removeIf(r -> r.edge() == edge());
            image = Optional.empty();
        } else {
            return false;
        }
        show();
        return true;
    }

    @Override
    public void note() {
        if (chip.isPresent() && at < ROUND.size() && here() >= GapMap.ENOUGH) {
            at++;
            ends.clear();
            upper = Optional.empty();
            image = Optional.empty();
            show();
        }
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("picture.file"), texts.get("picture.kinds"),
                "*.png", "*.jpg", "*.jpeg").ifPresent(this::take);
    }

    private void take(Path file) {
        if (chip.isEmpty() || at >= ROUND.size()) {
            tell(desk.texts().get(kept ? "gap.kept" : "gap.over.so"), false);
            return;
        }
        record Taken(String name, Image image) {}
        desk.io(() -> {
            var kept = desk.ledger().photos().add(file);
            return new Taken(kept.name(),
                    new Image(desk.ledger().photos().find(kept.name()).orElseThrow().toUri().toString()));
        }, taken -> {
            photos.put(edge(), taken.name());
            image = Optional.of(taken.image());
            readings.removeIf(r -> r.edge() == edge());
            ends.clear();
            upper = Optional.empty();
            cross = new Px(taken.image().getWidth() / 2, taken.image().getHeight() / 2);
            tell("", false);
            show();
        }, failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    /** Into the record of what the edges show, with the photos it was read in. */
    private void keep(GapMap map) {
        var now = desk.clock().instant();
        String by = desk.settings().technician().get();
        Kept look = model.job().records("inspection").stream().findFirst()
                .orElseGet(() -> model.fresh("inspection"));
        for (var mean : map.meanMm().entrySet()) {
            look = look.with("gap_" + mean.getKey().name().substring(0, 1).toLowerCase(Locale.ROOT) + "_mm",
                    Math.round(mean.getValue() * 1000) / 1000.0, now, by);
        }
        Kept changed = look;
        desk.changes().together(() -> {
            photos.forEach((edge, file) -> {
                Kept fresh = model.fresh("picture");
                model.note(new Kept(fresh.id(), fresh.type(), fresh.at(), fresh.author(),
                        Map.of("view", "edges", "file", file, "caption",
                                name(edge))));
            });
            model.note(changed);
        });
        kept = true;
        tell(desk.texts().get("gap.kept"), false);
        pedal(new Pedal(desk.texts().get("rail.back"), "", true, this::back));
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    @Override
    boolean key(KeyCode code) {
        double step = fine ? FINE_PX : STEP_PX;
        switch (code) {
            case RIGHT -> move(step, 0);
            case UP -> move(0, -step);
            case DOWN -> move(0, step);
            case LEFT -> {
                if (image.isEmpty()) {
                    return false;
                }
                move(-step, 0);
            }
            case F -> {
                fine = !fine;
                tell(desk.texts().get(fine ? "gap.fine" : "gap.coarse"), false);
            }
            case E -> choose();
            default -> {
                return false;
            }
        }
        return true;
    }

    private void move(double dx, double dy) {
        if (image.isPresent() && chip.isPresent()) {
            cross = new Px(Math.clamp(cross.x() + dx, 0, image.get().getWidth()),
                    Math.clamp(cross.y() + dy, 0, image.get().getHeight()));
            show();
        }
    }
}
