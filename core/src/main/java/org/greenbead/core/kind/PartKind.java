package org.greenbead.core.kind;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Placement;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Check;

/** Parts that are not soldered by balls yet have a limit, by the word of a placement file that says their class. */
public enum PartKind {
    CONNECTOR("J", "conn"), CELL("BT", "battery"), WET_CAPACITOR("C", "elko"), CRYSTAL("Y",
            "crystal"), SWITCH("SW", ""), OTHER("X", "");

    private final String stem;
    private final String footprint;

    PartKind(String stem, String footprint) {
        this.stem = stem;
        this.footprint = footprint;
    }

    /** What names of this class begin with. */
    public String stem() {
        return stem;
    }

    /** The board with such a part more; its limit is that of its class ({@link Placement#part()}). */
    public Board onto(Board board, String name, Side side, Point centreMm, Point sizeMm) {
        ProtectedPart part = new Placement(Check.id("part name", name), centreMm, 0, side, footprint).part()
                .part();
        var parts = new ArrayList<>(
                board.parts().stream().filter(p -> !p.name().equals(name)).toList());
        parts.add(new ProtectedPart(name, part.kind(), side, centreMm, sizeMm, part.limitC(), part.heightMm(),
                part.holds()));
        return board.withParts(List.copyOf(parts));
    }
}
