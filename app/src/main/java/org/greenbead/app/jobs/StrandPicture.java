package org.greenbead.app.jobs;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.shape.CubicCurve;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.look.Sketch;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.book.Phase;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;

/** A job as one string with a branch for each further chip: it leaves after the decision and comes back before the proof. */
final class StrandPicture extends Sketch {
    private static final double NAMES = 122;
    private static final double HEAD = 26;
    private static final double LEAST_ROW = 58;
    private static final double MOST_ROW = 150;
    private static final double EDGE = 14;
    /** Beads beside those of the string above. */
    private static final double SMALL = 0.84;
    private final Texts texts;
    private final IntConsumer pressed;
    private List<Job> family = List.of();
    private int chosen;

    StrandPicture(Texts texts, IntConsumer pressed) {
        super(420, 170);
        this.texts = texts;
        this.pressed = pressed;
        setId("strand-picture");
    }

    /** @param all the job itself first */
    void show(List<Job> all, int at) {
        family = List.copyOf(all);
        chosen = at;
        requestLayout();
    }

    @Override
    protected void draw() {
        if (family.isEmpty()) {
            return;
        }
        Map<Phase, double[]> columns = columns();
        double row = Math.clamp((getHeight() - HEAD) / family.size(), LEAST_ROW, MOST_ROW);
        columns.forEach((phase, span) -> {
            Text name = words(texts.say("phase." + phase.name().toLowerCase(Locale.ROOT)), "strand-phase");
            name.setX(span[0] + (span[1] - span[0] - name.getLayoutBounds().getWidth()) / 2);
            name.setY(HEAD / 2);
        });
        for (int i = 0; i < family.size(); i++) {
            strand(family.get(i), i, HEAD + row * i, row, columns);
        }
    }

    /** Each phase is as wide as its longest row of beads asks. */
    private Map<Phase, double[]> columns() {
        var weight = new EnumMap<Phase, Double>(Phase.class);
        for (Job job : family) {
            for (Phase phase : Phase.values()) {
                int beads = (int) job.beads().stream().filter(b -> b.phase() == phase).count();
                if (beads > 0) {
                    weight.merge(phase, beads + 0.7, Math::max);
                }
            }
        }
        double each = (getWidth() - NAMES - EDGE)
                / weight.values().stream().mapToDouble(Double::doubleValue).sum();
        var columns = new EnumMap<Phase, double[]>(Phase.class);
        double x = NAMES;
        for (Phase phase : Phase.values()) {
            if (weight.containsKey(phase)) {
                double to = x + each * weight.get(phase);
                columns.put(phase, new double[]{x, to});
                x = to;
            }
        }
        return columns;
    }

    private void strand(Job job, int at, double top, double row, Map<Phase, double[]> columns) {
        double y = top + row / 2;
        var field = Looks.as(new Rectangle(4, top + 3, getWidth() - 8, row - 6), "strand-row");
        field.setArcWidth(12);
        field.setArcHeight(12);
        field.pseudoClassStateChanged(Looks.HERE, at == chosen);
        field.setId("strand-" + job.id());
        field.setCursor(Cursor.HAND);
        field.setAccessibleRole(AccessibleRole.BUTTON);
        field.setAccessibleText(job.id() + ", " + job.target());
        field.setOnMouseClicked(press -> pressed.accept(at));
        add(field);
        Text name = words(job.target(), "strand-name");
        name.setX(16);
        name.setY(y - 10);
        String does = job.facts().at("job.kind").map(k -> texts.say("kind." + k)).orElse(job.id());
        Text kind = words(Strands.donor(job)
                .map(d -> texts.get("strand.of_donor", does, d.replace('-', ' '), job.board())).orElse(does),
                "strand-kind");
        kind.setX(16);
        kind.setTextOrigin(VPos.TOP);
        kind.setY(y + 6);
        kind.setWrappingWidth(NAMES - 24);
        List<double[]> places = places(job, columns);
        wire(places, y, at == 0 ? Optional.empty() : Optional.of(HEAD + row / 2), columns);
        Optional<String> hand = job.inHand().map(Bead::id);
        for (int i = 0; i < job.beads().size(); i++) {
            Bead bead = job.beads().get(i);
            Node shape = Shapes.bead(bead, hand.equals(Optional.of(bead.id())));
            shape.setMouseTransparent(true);
            shape.setScaleX(SMALL);
            shape.setScaleY(SMALL);
            add(shape);
            shape.autosize();
            var size = shape.getLayoutBounds();
            shape.relocate(places.get(i)[0] - size.getWidth() / 2, y - size.getHeight() / 2);
        }
    }

    /** Where the beads of a job lie along its wire. */
    private static List<double[]> places(Job job, Map<Phase, double[]> columns) {
        var places = new ArrayList<double[]>();
        for (Phase phase : Phase.values()) {
            int beads = (int) job.beads().stream().filter(b -> b.phase() == phase).count();
            double[] span = columns.getOrDefault(phase, new double[]{0, 0});
            for (int i = 0; i < beads; i++) {
                places.add(new double[]{span[0] + (span[1] - span[0]) * (i + 1) / (beads + 1)});
            }
        }
        return places;
    }

    private void wire(List<double[]> places, double y, Optional<Double> mainY, Map<Phase, double[]> columns) {
        double from = places.getFirst()[0];
        double to = places.getLast()[0];
        line(from, y, to, y, "strand-wire");
        mainY.ifPresent(main -> {
            double leaves = columns.get(Phase.PLAN)[0];
            curve(leaves - 8, main, from, y);
            Phase back = columns.containsKey(Phase.PROVE) ? Phase.PROVE : Phase.CLOSE;
            Optional.ofNullable(columns.get(back)).ifPresent(span -> curve(span[0] + 8, main, to, y));
        });
    }

    private void curve(double x, double y, double toX, double toY) {
        var curve = Looks.as(new CubicCurve(x, y, x, (y + toY) / 2, x, toY, toX, toY), "strand-wire");
        curve.setFill(null);
        curve.setMouseTransparent(true);
        add(curve);
    }

    private Text words(String text, String style) {
        Text words = text(text, 0, 0, style);
        words.setTextOrigin(VPos.CENTER);
        return words;
    }
}
