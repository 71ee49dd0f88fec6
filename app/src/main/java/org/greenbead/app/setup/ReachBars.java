package org.greenbead.app.setup;

import java.util.List;
import java.util.Locale;
import javafx.geometry.VPos;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.AxisSteps;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Sketch;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.plan.BenchReach;
import org.greenbead.core.plan.BenchReach.Reached;
import org.greenbead.core.quantity.TempUnit;

/** How hot a bench brings a joint at most, through each nozzle, with what is not known of it; across all of them what must melt. */
final class ReachBars extends Sketch {
    private static final double NAMES_PX = 92;
    private static final double VALUES_PX = 58;
    /** Height of a line of type at its usual size. */
    private static final double LINE_PX = 13.5;
    private static final double HEAD = 46;
    /** Names of alloys that would touch stand one over the other. */
    private static final int NAME_ROWS = 3;
    private static final double NAME_ROW = 13;
    private static final double APART = 6;
    private static final double FOOT = 20;
    private static final double MOST_ROW = 34;
    private static final double FROM_C = 100;
    private final Texts texts;
    private List<Reached> all = List.of();
    private double names = NAMES_PX;
    private double values = VALUES_PX;

    ReachBars(Texts texts) {
        super(260, 210);
        this.texts = texts;
        setId("bench-reach");
    }

    void show(List<Reached> reached) {
        all = List.copyOf(reached);
        requestLayout();
    }

    @Override
    protected void draw() {
        if (all.isEmpty()) {
            return;
        }
        Text sample = text("0", 0, 0, "chart-text");
        double em = Math.max(1, sample.getLayoutBounds().getHeight() / LINE_PX);
        getChildren().remove(sample);
        names = NAMES_PX * em;
        values = VALUES_PX * em;
        double to = Math.max(280, all.stream().mapToDouble(Reached::highC).max().orElseThrow() + 5);
        double wide = getWidth() - names - values;
        double row = Math.min(MOST_ROW, (getHeight() - HEAD - FOOT) / all.size());
        double bottom = HEAD + row * all.size();
        axis(to, wide, bottom);
        for (int i = 0; i < all.size(); i++) {
            bar(all.get(i), HEAD + row * i, row, to, wide);
        }
        double[] rows = new double[NAME_ROWS];
        for (Alloy alloy : BenchReach.usualAlloys()) {
            double x = x(alloy.liquidusC(), to, wide);
            line(x, HEAD - 4, x, bottom, "reach-melts");
            Text name = text(alloy.name(), 0, 0, "chart-strong");
            double width = name.getLayoutBounds().getWidth();
            double at = Math.min(getWidth() - width, x - width / 2);
            int level = 0;
            while (level < NAME_ROWS - 1 && at < rows[level]) {
                level++;
            }
            rows[level] = at + width + APART;
            name.setX(at);
            name.setY(HEAD - 9 - NAME_ROW * level);
        }
    }

    private double x(double celsius, double to, double wide) {
        return names + wide * Math.clamp((celsius - FROM_C) / (to - FROM_C), 0, 1);
    }

    private void axis(double to, double wide, double bottom) {
        TempUnit unit = texts.words().unit();
        double step = AxisSteps.step(unit.fromC(to) - unit.fromC(FROM_C), 3);
        for (double at = Math.ceil(unit.fromC(FROM_C) / step) * step; at <= unit.fromC(to); at += step) {
            double x = x(unit.toC(at), to, wide);
            line(x, HEAD, x, bottom, "chart-grid");
            Text words = text(texts.temp(unit.toC(at)), 0, bottom + 14, "chart-text");
            words.setX(x - words.getLayoutBounds().getWidth() / 2);
        }
    }

    private void bar(Reached r, double y, double row, double to, double wide) {
        double middle = y + row / 2;
        double high = Math.min(12, row * 0.5);
        String nozzle = r.nozzleMm() == 0
                ? texts.get("bench.reach.heater")
                : texts.get("bench.reach.nozzle", BenchSide.number(r.nozzleMm()));
        text(nozzle, 0, middle, "chart-text").setTextOrigin(VPos.CENTER);
        double from = x(r.lowC(), to, wide);
        double until = x(r.highC(), to, wide);
        var solid = Looks.as(new Rectangle(names, middle - high / 2, Math.max(0, from - names), high),
                "reach-sure");
        solid.setId(String.format(Locale.ROOT, "reach-%.0f", r.nozzleMm()));
        add(solid);
        add(Looks.as(new Rectangle(from, middle - high / 2, Math.max(1, until - from), high),
                "reach-perhaps"));
        text(texts.temp(r.jointC()), getWidth() - values + 6, middle, "chart-strong")
                .setTextOrigin(VPos.CENTER);
    }
}
