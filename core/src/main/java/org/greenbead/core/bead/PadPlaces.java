package org.greenbead.core.bead;

import java.util.Optional;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.chip.Orientation;

/**
 * Where the pad of a site lies on its board, for a chip whose field fills its body: as many rows and columns as its pitch allows. Seen from
 * the top of the chip row A begins at the mark; on the underside of the board the same holds as one looks at that side. A depopulated or
 * shifted field needs its bead map.
 */
public final class PadPlaces {
    private PadPlaces() {
    }

    /** @param mark corner of A1 as one looks at the chip on its board */
    public static Optional<Point> of(Chip chip, String site, Orientation.Corner mark) {
        Optional<RowNames.Place> place = RowNames.place(site);
        double pitch = chip.joint().pitchMm();
        boolean along = mark == Orientation.Corner.NW || mark == Orientation.Corner.SE;
        double wide = along ? chip.sizeMm().xMm() : chip.sizeMm().yMm();
        double high = along ? chip.sizeMm().yMm() : chip.sizeMm().xMm();
        int columns = count(wide, pitch);
        int rows = count(high, pitch);
        if (place.isEmpty() || place.get().row() >= rows || place.get().column() >= columns) {
            return Optional.empty();
        }
        double x = (place.get().column() - (columns - 1) / 2.0) * pitch;
        double y = ((rows - 1) / 2.0 - place.get().row()) * pitch;
        for (int i = 0; i < mark.ordinal(); i++) {
            double turned = -x;
            x = y;
            y = turned;
        }
        return Optional.of(new Point(chip.centreMm().xMm() + x, chip.centreMm().yMm() + y));
    }

    /** Rows that fit with half a pitch left at either edge. */
    private static int count(double side, double pitch) {
        return Math.max(1, (int) Math.floor(side / pitch + 1e-9));
    }
}
