package org.greenbead.core.board;

import org.greenbead.core.quantity.Check;

/**
 * Something that is not soldered by balls yet has a limit: a connector, a cell, a crystal, a wet capacitor.
 *
 * @param limitC its own limit, °C, 40 to 300
 * @param kind   what gives way, in words of the data ("connector, softens")
 */
public record ProtectedPart(String name, String kind, Side side, Point centreMm, Point sizeMm,
        double limitC) {
    public ProtectedPart {
        Check.text("part name", name);
        Check.text("part kind", kind);
        Check.present("part side", side);
        Check.present("part centre", centreMm);
        Check.present("part size", sizeMm);
        Check.within("limit of " + name, limitC, 40, 300, "°C");
    }
}
