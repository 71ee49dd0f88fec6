package org.greenbead.app.prove;

import javafx.scene.layout.Region;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.core.proof.ProofWall;

/** A rail on a scale of ratios from 0.1 ohm to 10 megohm: what a healthy board allows as a band, before as a ring, after as a dot. */
final class RailStrip extends Region {
    private static final double LEAST_OHM = 0.1;
    private static final double MOST_OHM = 1e7;
    private static final double HIGH = 22;
    private static final double NARROWEST = 5;
    private final ProofWall.Ohms ohms;
    private final boolean odd;

    RailStrip(ProofWall.Ohms ohms, boolean odd) {
        this.ohms = ohms;
        this.odd = odd;
        setMinSize(90, HIGH);
        setPrefHeight(HIGH);
        setMaxHeight(HIGH);
    }

    @Override
    protected void layoutChildren() {
        getChildren().clear();
        if (getWidth() < 40) {
            return;
        }
        double y = HIGH / 2;
        for (double at = LEAST_OHM; at <= MOST_OHM * 1.01; at *= 10) {
            add(Looks.as(new Line(x(at), y + 4, x(at), y + 9), "rail-tick"));
        }
        add(Looks.as(new Line(x(LEAST_OHM), y, x(MOST_OHM), y), "rail-axis"));
        if (ohms.healthy() > 0) {
            double low = x(ohms.healthy() * (1 - ohms.tolerancePct() / 100));
            double high = Math.max(low + NARROWEST, x(ohms.healthy() * (1 + ohms.tolerancePct() / 100)));
            add(Looks.as(new Rectangle(low, y - 8, high - low, 16), "rail-band"));
        }
        if (Double.isFinite(ohms.before()) && Double.isFinite(ohms.after())) {
            add(Looks.as(new Line(x(ohms.before()), y, x(ohms.after()), y),
                    odd ? "rail-way-odd" : "rail-way"));
        }
        if (Double.isFinite(ohms.before())) {
            add(Looks.as(new Circle(x(ohms.before()), y, 5), "rail-before"));
        }
        if (Double.isFinite(ohms.after())) {
            add(Looks.as(new Circle(x(ohms.after()), y, 4.5), odd ? "rail-after-odd" : "rail-after"));
        }
    }

    private void add(javafx.scene.Node node) {
        node.setManaged(false);
        getChildren().add(node);
    }

    private double x(double ohm) {
        double part = Math.log10(Math.clamp(ohm, LEAST_OHM, MOST_OHM) / LEAST_OHM)
                / Math.log10(MOST_OHM / LEAST_OHM);
        return 6 + part * (getWidth() - 12);
    }
}
