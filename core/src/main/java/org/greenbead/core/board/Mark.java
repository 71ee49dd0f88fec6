package org.greenbead.core.board;

import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * What a board has that is neither chip nor part: a shield, a screw, a hole, or a region with a rule of its own.
 *
 * @param sizeMm   0.3 to 500 each way; of a screw or hole its diameter twice
 * @param lengthMm of a screw, 0.5 to 100; empty = not noted
 */
public record Mark(String name, Kind kind, Side side, Point centreMm, Point sizeMm,
        Optional<Double> lengthMm) {
    /** What it is; the last four are regions. */
    public enum Kind {
        SHIELD("SH"), SCREW("S"), HOLE("H"), IRON_SAFE("ZI"), AIR_ONLY("ZA"), HANDS_OFF("ZX"), MILLED("ZM");

        private final String stem;

        Kind(String stem) {
            this.stem = stem;
        }

        /** What names of this kind begin with. */
        public String stem() {
            return stem;
        }

        public boolean region() {
            return ordinal() >= IRON_SAFE.ordinal();
        }

        /** As files and rules call it. */
        public String key() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    public Mark {
        Check.id("name of a mark", name);
        Check.present("kind of " + name, kind);
        Check.present("side of " + name, side);
        Check.present("middle of " + name, centreMm);
        Check.present("size of " + name, sizeMm);
        Check.within("width of " + name, sizeMm.xMm(), 0.3, 500, "mm");
        Check.within("depth of " + name, sizeMm.yMm(), 0.3, 500, "mm");
        lengthMm = lengthMm == null ? Optional.empty() : lengthMm;
        if (lengthMm.isPresent()) {
            if (kind != Kind.SCREW) {
                throw new IllegalArgumentException(name + " is no screw; only screws have a length");
            }
            Check.within("length of " + name, lengthMm.get(), 0.5, 100, "mm");
        }
    }

    /** The place lies on or under it. */
    public boolean covers(Side face, Point at) {
        return new Board.Place(side, centreMm, sizeMm).covers(face, at);
    }

    public Mark named(String other) {
        return new Mark(other, kind, side, centreMm, sizeMm, lengthMm);
    }

    public Mark at(Point centre) {
        return new Mark(name, kind, side, centre, sizeMm, lengthMm);
    }

    public Mark sized(Point size) {
        return new Mark(name, kind, side, centreMm, size, lengthMm);
    }

    public Mark length(double mm) {
        return new Mark(name, kind, side, centreMm, sizeMm, Optional.of(mm));
    }
}
