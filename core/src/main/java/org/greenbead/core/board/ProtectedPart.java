package org.greenbead.core.board;

import java.util.Optional;
import java.util.Set;
import org.greenbead.core.quantity.Check;

/**
 * Something that is not soldered by balls yet has a limit: a connector, a cell, a crystal, a wet capacitor.
 *
 * @param limitC   its own limit, °C, 40 to 300
 * @param kind     what gives way, in words of the data ("connector, softens")
 * @param heightMm over the board, 0.05 to 60; empty = not noted
 * @param holds    what makes it precious or awkward; empty = nothing noted
 */
public record ProtectedPart(String name, String kind, Side side, Point centreMm, Point sizeMm,
        double limitC, Optional<Double> heightMm, Set<Holds> holds) {
    /** What a part holds. */
    public enum Holds {
        DATA, CELL, UNDERFILL
    }

    public ProtectedPart(String name, String kind, Side side, Point centreMm, Point sizeMm, double limitC) {
        this(name, kind, side, centreMm, sizeMm, limitC, Optional.empty(), Set.of());
    }

    public ProtectedPart {
        Check.text("part name", name);
        Check.text("part kind", kind);
        Check.present("part side", side);
        Check.present("part centre", centreMm);
        Check.present("part size", sizeMm);
        Check.within("limit of " + name, limitC, 40, 300, "°C");
        heightMm = heightMm == null ? Optional.empty() : heightMm;
        heightMm.ifPresent(h -> Check.within("height of " + name, h, 0.05, 60, "mm"));
        holds = holds == null ? Set.of() : Set.copyOf(holds);
    }

    public ProtectedPart at(Point centre) {
        return new ProtectedPart(name, kind, side, centre, sizeMm, limitC, heightMm, holds);
    }
}
