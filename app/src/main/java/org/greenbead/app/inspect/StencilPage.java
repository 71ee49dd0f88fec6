package org.greenbead.app.inspect;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleConsumer;
import java.util.function.DoubleSupplier;
import javafx.css.PseudoClass;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Shape;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.alloy.Composition;
import org.greenbead.core.alloy.MeltingTable;
import org.greenbead.core.bead.Aperture;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Paste;
import org.greenbead.core.bead.StencilDesign;
import org.greenbead.core.board.Chip;
import org.greenbead.core.record.Kept;
import org.greenbead.store.SafeFiles;
import org.greenbead.store.StencilDrawing;

/** Stencil and paste before anything is cut: sliders that redraw opening, ball and the metal between, with what may go wrong. */
public final class StencilPage extends Page {
    private static final PseudoClass HERE = PseudoClass.getPseudoClass("here");
    private static final double MARGIN_MM = 5;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final StencilSketch sketch = new StencilSketch();
    private final Label title = Looks.label("", "now");
    private final Label next = Looks.label("", "next");
    private final VBox says = new VBox(5);
    private final VBox knobs = new VBox(7);
    private final Label said = Looks.note("said");
    private final VBox page;
    private final List<Knob> all = new ArrayList<>();
    private int at;
    private double openingMm = 0.4;
    private double thicknessMm = 0.12;
    private double metalPct = 88.5;
    private double driedPct;
    private boolean square;
    private int fills = 1;
    private double pitchMm = 0.65;
    private double wantedMm = Double.NaN;
    private Composition alloy = MeltingTable.standard().require("SAC305").made();
    private String alloyName = "SAC305";
    private Optional<BeadMap> map = Optional.empty();
    private Optional<StencilDesign> design = Optional.empty();

    /** A slider with its word and number. */
    private record Knob(Slider slider, Label number, VBox box, double step, DoubleSupplier value, String unit,
            int digits) {}

    /** What the job says of its chip. */
    private record Known(Chip chip, Optional<BeadMap> map) {}

    public StencilPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("stencil-title");
        next.setId("stencil-next");
        said.setId("stencil-said");
        says.setId("stencil-says");
        knob("opening", 0.1, 1.0, 0.005, 3, "mm", v -> openingMm = v, () -> openingMm);
        knob("thickness", 0.05, 0.3, 0.005, 3, "mm", v -> thicknessMm = v, () -> thicknessMm);
        knob("metal", 80, 92, 0.5, 1, "%", v -> metalPct = v, () -> metalPct);
        knob("dried", 0, 80, 5, 0, "%", v -> driedPct = v, () -> driedPct);
        var sketchCard = Looks.as(new VBox(4, Looks.label(texts.get("stencil.scale"), "caps"), sketch),
                "card");
        VBox.setVgrow(sketch, Priority.ALWAYS);
        var knobCard = Looks.as(new VBox(6, knobs), "card");
        var left = new VBox(10, sketchCard, knobCard);
        VBox.setVgrow(sketchCard, Priority.ALWAYS);
        HBox.setHgrow(left, Priority.ALWAYS);
        var right = Looks.as(new VBox(6, Looks.label(texts.get("stencil.judged"), "caps"), says), "card");
        right.setPrefWidth(300);
        right.setMinWidth(240);
        left.setMinWidth(0);
        var middle = new HBox(10, left, right);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("stencil.caps"), "caps"), title, next),
                "instruction");
        page = Looks.as(
                new VBox(head, middle, said, Looks.label(texts.get("stencil.keys"), "muted", "small")),
                "page");
        backWord("");
        noteWord(texts.get("stencil.inverse"));
        desk.io(() -> {
            Chip chip = desk.ledger().board(model.job()).requireChip(model.job().target());
            return new Known(chip, desk.ledger().beadMaps().find(chip.part()));
        }, this::begin, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    private void knob(String name, double low, double high, double step, int digits, String unit,
            DoubleConsumer set, DoubleSupplier get) {
        var slider = new Slider(low, high, get.getAsDouble());
        slider.setId("knob-" + name);
        slider.setBlockIncrement(step);
        slider.setAccessibleText(desk.texts().say("stencil.knob." + name));
        HBox.setHgrow(slider, Priority.ALWAYS);
        Label word = Looks.label(desk.texts().say("stencil.knob." + name), "text-ink");
        word.setMinWidth(110);
        word.setPrefWidth(150);
        slider.setMinWidth(60);
        Label number = Looks.label("", "text-ink", "strong");
        number.setId("knob-" + name + "-number");
        number.setMinWidth(74);
        var box = Looks.as(new VBox(new HBox(10, word, slider, number)), "knob");
        knobs.getChildren().add(box);
        var knob = new Knob(slider, number, box, step, get, unit, digits);
        all.add(knob);
        slider.valueProperty().addListener((o, was, now) -> {
            double rounded = Math.rint(now.doubleValue() / step) * step;
            if (Math.abs(rounded - get.getAsDouble()) > step / 10) {
                set.accept(rounded);
                said.setText("");
                redraw();
            }
        });
        slider.focusedProperty().addListener((o, was, has) -> {
            if (has) {
                at = all.indexOf(knob);
                mark();
            }
        });
    }

    /** What the job knows: pitch and ball of its chip, the stencil that was noted, the alloy of the plan. */
    private void begin(Known known) {
        map = known.map();
        pitchMm = known.map().map(BeadMap::pitchMm).filter(Double::isFinite)
                .orElse(known.chip().joint().pitchMm());
        wantedMm = known.map().flatMap(m -> m.sites().getFirst().diameterMm())
                .orElse(known.chip().joint().ballMm());
        alloyName = org.greenbead.core.run.BallForming
                .of(model.job(), known.chip(), model.job().inHand().orElse(model.job().beads().getFirst()))
                .balls()
                .name();
        MeltingTable.standard().find(alloyName).ifPresent(a -> alloy = a.made());
        // The slider cuts what lies over its end; the numbers are set after that.
        all.getFirst().slider().setMax(Math.min(1.5, pitchMm - 0.02));
        double sheet = noted("thickness_mm");
        thicknessMm = Double.isFinite(sheet) ? sheet : 0.12;
        double hole = noted("aperture_mm");
        openingMm = Double.isFinite(hole) ? hole : Math.rint(0.6 * pitchMm * 200) / 200;
        if (!Double.isFinite(hole)) {
            inverse();
        }
        sync();
        redraw();
    }

    /** A number of the stencil that was noted, as a record or as a fact; NaN where it was not. */
    private double noted(String field) {
        return model.job().records("stencil").reversed().stream().map(r -> r.number(field))
                .filter(Double::isFinite)
                .findFirst()
                .or(() -> model.job().facts().at("stencil." + field).filter(Double.class::isInstance)
                        .map(Double.class::cast))
                .orElse(Double.NaN);
    }

    private void sync() {
        for (Knob k : all) {
            k.slider().setValue(k.value().getAsDouble());
        }
    }

    private void mark() {
        for (Knob k : all) {
            k.box().pseudoClassStateChanged(HERE, all.indexOf(k) == at);
        }
    }

    private StencilDesign designed() {
        Aperture opening = square
                ? new Aperture.Square(openingMm, StencilDesign.CORNER_PART * openingMm)
                : new Aperture.Round(openingMm);
        return new StencilDesign(opening, thicknessMm, pitchMm, Paste.of(alloy, metalPct, driedPct / 100),
                fills);
    }

    private void redraw() {
        Texts texts = desk.texts();
        for (Knob k : all) {
            k.number()
                    .setText(String.format(Locale.ENGLISH, "%." + k.digits() + "f ", k.value().getAsDouble())
                            + k.unit());
        }
        mark();
        try {
            StencilDesign d = designed();
            design = Optional.of(d);
            title.setText(texts.get("stencil.ball", mm(d.ballMm()), mm(wantedMm)));
            next.setText(texts.get("stencil.of", alloyName,
                    texts.get(square ? "stencil.square" : "stencil.round"),
                    texts.get(fills == 1 ? "stencil.once" : "stencil.twice"),
                    Math.round(100 * d.paste().metalVolumePart()), Math.round(100 * d.releasedPart())));
            sketch.show(d, wantedMm);
            says.getChildren().setAll(d.says(wantedMm).stream().map(this::row).toList());
            map.ifPresent(m -> says.getChildren().add(Looks.label(texts.get("stencil.paste", m.sites().size(),
                    String.format(Locale.ENGLISH, "%.0f", m.sites().size() * d.pasteMm3() * density())),
                    "muted", "small")));
            pedal(kept(d)
                    ? new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, go::home)
                    : new Pedal(texts.get("stencil.keep"), texts.get("stencil.keep.so"), true,
                            () -> keep(d)));
        } catch (IllegalArgumentException e) {
            design = Optional.empty();
            title.setText(texts.get("stencil.none"));
            next.setText(sentence(e));
            says.getChildren().clear();
            pedal(Pedal.shut(texts.get("stencil.none"), texts.get("stencil.none.so")));
        }
    }

    private double density() {
        return 100 / (metalPct / alloy.densityGPerCm3() + (100 - metalPct) / Paste.USUAL_FLUX_G_PER_CM3);
    }

    private Region row(StencilDesign.Say say) {
        String key = "stencil.say." + say.point().name().toLowerCase(Locale.ROOT);
        String level = say.level().name().toLowerCase(Locale.ROOT);
        String value = switch (say.point()) {
            case RELEASE, ASPECT -> String.format(Locale.ENGLISH, "%.2f", say.value());
            case WEB, BRIDGE, GRIP -> mm(say.value()) + " mm";
            case WANTED -> String.format(Locale.ENGLISH, "%+.0f %%", say.value());
            case EVEN -> String.format(Locale.ENGLISH, "%.0f %%", say.value());
        };
        Label head = Looks.label(desk.texts().say(key) + "  " + value, "text-ink", "strong");
        head.setId("say-" + say.point().name().toLowerCase(Locale.ROOT));
        var words = new VBox(0, head, Looks.label(desk.texts().say(key + "." + level), "muted", "small"));
        HBox.setHgrow(words, Priority.ALWAYS);
        Shape mark = switch (say.level()) {
            case GOOD -> Looks.as(new Circle(6), "forming-right");
            case CARE -> Looks.as(new Polygon(0, 12, 14, 12, 7, 0), "forming-care");
            case BAD -> Looks.as(Shapes.hexagon(14), "forming-wrong");
        };
        var holder = new StackPane(mark);
        holder.setMinWidth(18);
        return new HBox(8, holder, words);
    }

    private boolean kept(StencilDesign d) {
        return model.job().records("stencil").reversed().stream().findFirst()
                .filter(r -> Math.abs(r.number("aperture_mm") - d.opening().widthMm()) < 1e-9
                        && Math.abs(r.number("thickness_mm") - d.thicknessMm()) < 1e-9)
                .isPresent();
    }

    /** Opening and thickness go to the record of the stencil: the rule book and the heat of the balls read them. */
    private void keep(StencilDesign d) {
        Kept record = model.job().records("stencil").stream().findFirst()
                .orElseGet(() -> model.fresh("stencil"));
        Map<String, Object> fields = new LinkedHashMap<>(record.fields());
        fields.put("aperture_mm", d.opening().widthMm());
        fields.put("thickness_mm", d.thicknessMm());
        model.note(new Kept(record.id(), "stencil", desk.clock().instant(),
                desk.settings().technician().get(), fields));
        said.setText(desk.texts().get("stencil.kept"));
        redraw();
    }

    /** The opening that makes the wanted ball at this thickness. */
    private void inverse() {
        String refused = "";
        try {
            openingMm = designed().forBall(wantedMm).opening().widthMm();
        } catch (IllegalArgumentException e) {
            refused = sentence(e);
        }
        sync();
        redraw();
        said.setText(refused);
    }

    private void export() {
        if (map.isEmpty() || design.isEmpty()) {
            said.setText(desk.texts().get("stencil.no.map"));
            return;
        }
        desk.picker().folder(page.getScene().getWindow(), desk.texts().get("stencil.folder"))
                .ifPresent(this::export);
    }

    /** Writes the drawing of the whole field as SVG and as RS-274X. */
    public void export(Path folder) {
        StencilDesign d = design.orElseThrow();
        BeadMap field = map.orElseThrow();
        String name = model.job().id().toLowerCase(Locale.ROOT) + "-stencil";
        var day = java.time.LocalDate.ofInstant(desk.clock().instant(), ZoneOffset.UTC);
        desk.io(() -> {
            StencilDrawing drawing = StencilDrawing.of(field, s -> d.opening(), d.thicknessMm(), MARGIN_MM);
            write(folder.resolve(name + ".svg"), drawing.svg());
            write(folder.resolve(name + ".gbr"), drawing.gerber(day));
            return name;
        }, done -> said.setText(desk.texts().get("stencil.exported", done, folder)),
                failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    private static void write(Path file, String text) throws IOException {
        SafeFiles.write(file, text.getBytes(StandardCharsets.UTF_8));
    }

    private static String sentence(IllegalArgumentException e) {
        String text = String.valueOf(e.getMessage());
        return text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1) + ".";
    }

    private static String mm(double value) {
        return String.format(Locale.ENGLISH, "%.3f", value);
    }

    private void turn(int steps) {
        Knob knob = all.get(at);
        knob.slider()
                .setValue(Math.clamp(knob.value().getAsDouble() + steps * knob.step(), knob.slider().getMin(),
                        knob.slider().getMax()));
    }

    @Override
    public List<String> about() {
        return List.of("stencil", "paste", "spheres", "jig");
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
        inverse();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        switch (code) {
            case DOWN -> {
                at = (at + 1) % all.size();
                mark();
            }
            case UP -> {
                at = (at + all.size() - 1) % all.size();
                mark();
            }
            case RIGHT -> turn(control ? 5 : 1);
            case LEFT -> turn(control ? -5 : -1);
            case V -> {
                square = !square;
                redraw();
            }
            case DIGIT1, DIGIT2 -> {
                fills = code == KeyCode.DIGIT1 ? 1 : 2;
                redraw();
            }
            case E -> export();
            case ESCAPE -> back();
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
