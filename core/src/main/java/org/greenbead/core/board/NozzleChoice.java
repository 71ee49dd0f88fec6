package org.greenbead.core.board;

import java.util.ArrayList;
import java.util.List;

/** Which nozzle: the chip and 2 to 4 mm; and what then stands in the air. Rule of thumb of the trade. */
public record NozzleChoice(double fromMm, double toMm, List<String> inAir) {
    private static final double LEAST_MM = 2;
    private static final double MOST_MM = 4;

    public NozzleChoice {
        inAir = List.copyOf(inAir);
    }

    /** @return opening for the longer side, mm, and the parts under an opening of the larger size */
    public static NozzleChoice of(Board board, Chip target) {
        double side = Math.max(target.sizeMm().xMm(), target.sizeMm().yMm());
        double halfX = (target.sizeMm().xMm() + MOST_MM) / 2;
        double halfY = (target.sizeMm().yMm() + MOST_MM) / 2;
        var under = new ArrayList<String>();
        for (Chip chip : board.chips()) {
            if (chip.side() == target.side() && !chip.name().equals(target.name())
                    && meets(chip.centreMm(), chip.sizeMm(), target, halfX, halfY)) {
                under.add(chip.name());
            }
        }
        for (ProtectedPart part : board.parts()) {
            if (part.side() == target.side()
                    && meets(part.centreMm(), part.sizeMm(), target, halfX, halfY)) {
                under.add(part.name());
            }
        }
        return new NozzleChoice(side + LEAST_MM, side + MOST_MM, under);
    }

    private static boolean meets(Point centre, Point size, Chip target, double halfX, double halfY) {
        return Math.abs(centre.xMm() - target.centreMm().xMm()) < halfX + size.xMm() / 2
                && Math.abs(centre.yMm() - target.centreMm().yMm()) < halfY + size.yMm() / 2;
    }
}
