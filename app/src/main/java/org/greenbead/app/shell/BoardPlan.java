package org.greenbead.app.shell;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.css.PseudoClass;
import javafx.scene.Group;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.HeatColour;
import org.greenbead.app.look.Looks;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.run.RunPlan;

/** The board from above, each part in the colour of its temperature; what sits underneath is dashed. Lies on its side where that fits better. */
public final class BoardPlan extends Region {
    private static final double SPOT_PX = 9;
    private static final PseudoClass DONE = PseudoClass.getPseudoClass("done");
    private final Group drawing = new Group();
    private RunPlan plan;
    private Map<String, Double> celsius = new HashMap<>();
    private Texts texts;
    private List<Spot> spots = List.of();
    private boolean upright;

    /** Something small with a letter. @param done true once it has happened there */
    public record Spot(String letter, Point atMm, boolean done) {}

    /** As it lies, whatever shape its place has: what is put down by hand must not turn round. */
    public void upright() {
        upright = true;
    }

    /** What is marked on the board, above all else. */
    public void spots(List<Spot> marked) {
        spots = List.copyOf(marked);
    }

    public BoardPlan() {
        drawing.setManaged(false);
        getChildren().add(drawing);
        setMinSize(80, 60);
    }

    /** @param partsC temperature by name of chip or part */
    public void show(RunPlan shown, Map<String, Double> partsC, Texts words) {
        plan = shown;
        celsius = partsC;
        texts = words;
        draw();
    }

    @Override
    protected void layoutChildren() {
        draw();
    }

    private void draw() {
        drawing.getChildren().clear();
        if (plan == null || getWidth() < 40 || getHeight() < 40) {
            return;
        }
        Board board = plan.board();
        boolean turned = !upright && board.sizeMm().yMm() > board.sizeMm().xMm() == getWidth() > getHeight();
        double bw = turned ? board.sizeMm().yMm() : board.sizeMm().xMm();
        double bh = turned ? board.sizeMm().xMm() : board.sizeMm().yMm();
        double scale = Math.min((getWidth() - 4) / bw, (getHeight() - 4) / bh);
        double left = (getWidth() - bw * scale) / 2;
        double top = (getHeight() - bh * scale) / 2;
        var ground = Looks.as(new Rectangle(left, top, bw * scale, bh * scale), "plan-board");
        ground.setArcWidth(10);
        ground.setArcHeight(10);
        drawing.getChildren().add(ground);
        for (ProtectedPart part : board.parts()) {
            part(part.name(), part.side(), part.centreMm(), part.sizeMm(), false, turned, scale, left, top);
        }
        for (Chip chip : board.chips()) {
            part(chip.name(), chip.side(), chip.centreMm(), chip.sizeMm(),
                    chip.name().equals(plan.target().name()), turned, scale, left, top);
        }
        for (ProbePlace probe : plan.bench().probes()) {
            double[] at = place(probe.atMm(), turned, scale, left, top);
            drawing.getChildren().add(Looks.as(new Circle(at[0], at[1], 4), "plan-probe"));
            Text name = Looks.as(new Text("T" + probe.channel()), "plan-label");
            drawing.getChildren().add(name);
            name.applyCss();
            name.setX(at[0] - name.getLayoutBounds().getWidth() / 2);
            name.setY(at[1] + 15);
        }
        for (Spot spot : spots) {
            double[] at = place(spot.atMm(), turned, scale, left, top);
            var dot = Looks.as(new Circle(at[0], at[1], SPOT_PX), "plan-spot");
            dot.pseudoClassStateChanged(DONE, spot.done());
            Text letter = Looks.as(new Text(spot.letter()), "plan-spot-letter");
            letter.pseudoClassStateChanged(DONE, spot.done());
            drawing.getChildren().addAll(dot, letter);
            letter.applyCss();
            letter.setX(at[0] - letter.getLayoutBounds().getWidth() / 2);
            letter.setY(at[1] + 4);
        }
        // Drawn within a layout it would be shown once without its colours.
        if (getScene() != null) {
            drawing.applyCss();
        }
    }

    private double[] place(Point at, boolean turned, double scale, double left, double top) {
        double x = turned ? at.yMm() : at.xMm();
        double y = turned ? at.xMm() : plan.board().sizeMm().yMm() - at.yMm();
        return new double[]{left + x * scale, top + y * scale};
    }

    private void part(String name, Side side, Point centre, Point size, boolean target, boolean turned,
            double scale, double left, double top) {
        double[] at = place(centre, turned, scale, left, top);
        double w = Math.max(10, (turned ? size.yMm() : size.xMm()) * scale);
        double h = Math.max(10, (turned ? size.xMm() : size.yMm()) * scale);
        var body = Looks.as(new Rectangle(at[0] - w / 2, at[1] - h / 2, w, h), "plan-part");
        double now = celsius.getOrDefault(name, Double.NaN);
        Color colour = HeatColour.of(now);
        body.setFill(side == Side.BOTTOM ? colour.deriveColor(0, 1, 1, 0.75) : colour);
        body.pseudoClassStateChanged(PseudoClass.getPseudoClass("under"), side == Side.BOTTOM);
        body.setArcWidth(4);
        body.setArcHeight(4);
        if (target) {
            body.getStyleClass().add("plan-target");
        }
        Text label = Looks.as(new Text(name), w > 30 ? "plan-text" : "plan-label");
        drawing.getChildren().addAll(body, label);
        label.applyCss();
        double labelW = label.getLayoutBounds().getWidth();
        boolean probed = plan.bench().probes().stream().anyMatch(p -> p.atMm().distanceMm(centre) < 2);
        boolean inside = !probed && w > labelW && h > 13;
        label.setX(at[0] - labelW / 2);
        label.setY(inside ? at[1] + (h > 30 ? -1 : 4) : at[1] - h / 2 - 3);
        if (h > 30 && w > 30 && Double.isFinite(now)) {
            Text temp = Looks.as(new Text(texts.words().bare(now) + "°"), "plan-temp");
            drawing.getChildren().add(temp);
            temp.applyCss();
            temp.setX(at[0] - temp.getLayoutBounds().getWidth() / 2);
            temp.setY(at[1] + 13);
        }
    }
}
