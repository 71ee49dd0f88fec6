package org.greenbead.core.recipe;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;

/**
 * A part that the air is to be kept from, and the foil over it. Parts within {@value #REACH_MM} mm of the chip are looked at: those that
 * hold data or a cell, that are underfilled, or whose own limit lies below what the joint needs. Foil reaches {@value #OVER_MM} mm beyond a
 * part and leaves {@value #FREE_MM} mm round the chip. Judgement of the trade; what foil does to the heat is seen in the rehearsal, since
 * it also traps it.
 *
 * @param why  words {@code masked.why.<why>}
 * @param foil empty where the part stands too close for any
 */
public record ShieldChoice(String part, double awayMm, Why why, Optional<Shield> foil) {
    public static final double REACH_MM = 20;
    public static final double OVER_MM = 2;
    public static final double FREE_MM = 1;
    /** A joint is made this much over its liquidus; air near it is hotter still. */
    private static final double JOINT_OVER_K = 20;
    private static final double GAP_MM = 0.5;
    /** Kitchen-bright aluminium tape (tables of total emissivity give 0.04 to 0.1). */
    private static final double EMISSIVITY = 0.07;

    /** Why it is spared. */
    public enum Why {
        DATA, CELL, UNDERFILL, LIMIT
    }

    /** @return the closest first */
    public static List<ShieldChoice> of(Board board, Chip target) {
        double needs = target.joint().alloy().liquidusC() + JOINT_OVER_K;
        var found = new ArrayList<ShieldChoice>();
        for (ProtectedPart part : board.parts()) {
            double away = away(part, target);
            Optional<Why> why = why(part, needs);
            if (part.side() == target.side() && away <= REACH_MM && why.isPresent()) {
                found.add(new ShieldChoice(part.name(), away, why.get(), foil(part, target)));
            }
        }
        found.sort(Comparator.comparingDouble(ShieldChoice::awayMm));
        return List.copyOf(found);
    }

    private static Optional<Why> why(ProtectedPart part, double needsC) {
        if (part.holds().contains(ProtectedPart.Holds.DATA)) {
            return Optional.of(Why.DATA);
        }
        if (part.holds().contains(ProtectedPart.Holds.CELL)) {
            return Optional.of(Why.CELL);
        }
        if (part.holds().contains(ProtectedPart.Holds.UNDERFILL)) {
            return Optional.of(Why.UNDERFILL);
        }
        return part.limitC() < needsC ? Optional.of(Why.LIMIT) : Optional.empty();
    }

    private static double away(ProtectedPart part, Chip target) {
        double dx = gap(part.centreMm().xMm(), part.sizeMm().xMm(), target.centreMm().xMm(),
                target.sizeMm().xMm());
        double dy = gap(part.centreMm().yMm(), part.sizeMm().yMm(), target.centreMm().yMm(),
                target.sizeMm().yMm());
        return Math.hypot(Math.max(0, dx), Math.max(0, dy));
    }

    private static double gap(double a, double widthA, double b, double widthB) {
        return Math.abs(a - b) - (widthA + widthB) / 2;
    }

    /** The rectangle over the part, cut back on the side where the chip lies; empty where that leaves part of the part bare. */
    private static Optional<Shield> foil(ProtectedPart part, Chip target) {
        double[] x = span(part.centreMm().xMm(), part.sizeMm().xMm(), OVER_MM);
        double[] y = span(part.centreMm().yMm(), part.sizeMm().yMm(), OVER_MM);
        double[] keepX = span(target.centreMm().xMm(), target.sizeMm().xMm(), FREE_MM);
        double[] keepY = span(target.centreMm().yMm(), target.sizeMm().yMm(), FREE_MM);
        boolean meets = x[0] < keepX[1] && x[1] > keepX[0] && y[0] < keepY[1] && y[1] > keepY[0];
        if (meets) {
            double[] bareX = span(part.centreMm().xMm(), part.sizeMm().xMm(), 0);
            double[] bareY = span(part.centreMm().yMm(), part.sizeMm().yMm(), 0);
            if (bareX[0] >= keepX[1]) {
                x[0] = keepX[1];
            } else if (bareX[1] <= keepX[0]) {
                x[1] = keepX[0];
            } else if (bareY[0] >= keepY[1]) {
                y[0] = keepY[1];
            } else if (bareY[1] <= keepY[0]) {
                y[1] = keepY[0];
            } else {
                return Optional.empty();
            }
        }
        return Optional.of(new Shield(new Point(x[0], y[0]), new Point(x[1], y[1]), GAP_MM, EMISSIVITY));
    }

    private static double[] span(double centre, double width, double more) {
        return new double[]{centre - width / 2 - more, centre + width / 2 + more};
    }
}
