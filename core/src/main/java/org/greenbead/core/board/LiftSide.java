package org.greenbead.core.board;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * From which side a tool can come under a chip: the free way on each side is the smallest distance to anything that stands in the tool's
 * width; what is taller than 2 mm counts double; the longest free way wins, and it must be longer than the tool by 1 mm. North is
 * towards larger y. Judgement of the trade.
 */
public final class LiftSide {
    /** Nothing stands there as far as anybody can see. */
    public static final double FREE_MM = 50;
    /** Flat tweezers and blades: how wide, and how thick. */
    public static final double TOOL_WIDTH_MM = 6;
    public static final double TOOL_THICK_MM = 1;
    private static final double TALL_MM = 2;
    private static final double MORE_MM = 1;

    private LiftSide() {
    }

    /** A side. */
    public enum Side4 {
        NORTH, EAST, SOUTH, WEST
    }

    /**
     * One side of the chip.
     *
     * @param clearMm free way, at most {@value #FREE_MM}
     * @param by      what ends it; empty = nothing
     */
    public record Way(Side4 side, double clearMm, String by, boolean enough) {}

    /**
     * @param toolWidthMm     width of the blade or tweezers
     * @param toolThicknessMm how much room it needs in height and reach
     * @return the longest free way first
     */
    public static List<Way> of(Board board, Chip target, double toolWidthMm, double toolThicknessMm) {
        var ways = new ArrayList<Way>();
        for (Side4 side : Side4.values()) {
            double clear = FREE_MM;
            String by = "";
            for (Obstacle o : obstacles(board, target)) {
                double way = way(side, o, target, toolWidthMm) * (o.tall ? 0.5 : 1);
                if (way < clear) {
                    clear = way;
                    by = o.name;
                }
            }
            ways.add(new Way(side, clear, by, clear > toolThicknessMm + MORE_MM));
        }
        ways.sort(Comparator.comparingDouble(Way::clearMm).reversed());
        return List.copyOf(ways);
    }

    private record Obstacle(String name, Point centre, Point size, boolean tall) {}

    private static List<Obstacle> obstacles(Board board, Chip target) {
        var found = new ArrayList<Obstacle>();
        for (Chip chip : board.chips()) {
            if (chip.side() == target.side() && !chip.name().equals(target.name())) {
                found.add(new Obstacle(chip.name(), chip.centreMm(), chip.sizeMm(), chip.bodyMm() > TALL_MM));
            }
        }
        for (ProtectedPart part : board.parts()) {
            if (part.side() == target.side()) {
                found.add(new Obstacle(part.name(), part.centreMm(), part.sizeMm(),
                        part.heightMm().orElse(0.0) > TALL_MM));
            }
        }
        return found;
    }

    private static double way(Side4 side, Obstacle o, Chip target, double toolWidth) {
        boolean upright = side == Side4.NORTH || side == Side4.SOUTH;
        double across = upright
                ? Math.abs(o.centre.xMm() - target.centreMm().xMm())
                : Math.abs(o.centre.yMm() - target.centreMm().yMm());
        double half = upright ? o.size.xMm() / 2 : o.size.yMm() / 2;
        if (across - half >= toolWidth / 2) {
            return FREE_MM;
        }
        double along = upright
                ? o.centre.yMm() - target.centreMm().yMm()
                : o.centre.xMm() - target.centreMm().xMm();
        boolean ahead = side == Side4.NORTH || side == Side4.EAST ? along > 0 : along < 0;
        double reach = upright
                ? (o.size.yMm() + target.sizeMm().yMm()) / 2
                : (o.size.xMm() + target.sizeMm().xMm()) / 2;
        return ahead ? Math.max(0, Math.abs(along) - reach) : FREE_MM;
    }
}
