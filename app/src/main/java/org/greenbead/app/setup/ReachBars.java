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
    private static final double NAMES = 92;
    private static final double VALUES = 58;
    private static final double HEAD = 34;
    private static final double FOOT = 20;
    private static final double MOST_ROW = 34;
    private static final double FROM_C = 100;
    private final Texts texts;
    private List<Reached> all = List.of();

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
        double to = Math.max(280, all.stream().mapToDouble(Reached::highC).max().orElseThrow() + 5);
        double wide = getWidth() - NAMES - VALUES;
        double row = Math.min(MOST_ROW, (getHeight() - HEAD - FOOT) / all.size());
        double bottom = HEAD + row * all.size();
        axis(to, wide, bottom);
        for (int i = 0; i < all.size(); i++) {
            bar(all.get(i), HEAD + row * i, row, to, wide);
        }
        double last = -100;
        boolean low = false;
        for (Alloy alloy : BenchReach.usualAlloys()) {
            double x = x(alloy.liquidusC(), to, wide);
            line(x, HEAD - 4, x, bottom, "reach-melts");
            low = x - last < 70 && !low;
            Text name = text(alloy.name(), 0, low ? HEAD - 22 : HEAD - 10, "chart-strong");
            name.setX(Math.min(getWidth() - name.getLayoutBounds().getWidth(),
                    x - name.getLayoutBounds().getWidth() / 2));
            last = x;
        }
    }

    private double x(double celsius, double to, double wide) {
        return NAMES + wide * Math.clamp((celsius - FROM_C) / (to - FROM_C), 0, 1);
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
        var solid = Looks.as(new Rectangle(NAMES, middle - high / 2, Math.max(0, from - NAMES), high),
                "reach-sure");
        solid.setId(String.format(Locale.ROOT, "reach-%.0f", r.nozzleMm()));
        add(solid);
        add(Looks.as(new Rectangle(from, middle - high / 2, Math.max(1, until - from), high),
                "reach-perhaps"));
        text(texts.temp(r.jointC()), getWidth() - VALUES + 6, middle, "chart-strong")
                .setTextOrigin(VPos.CENTER);
    }
}
