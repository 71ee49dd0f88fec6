package org.greenbead.core.chip;

import java.util.Optional;

/**
 * Where the mark of a chip lies. Seen from its balls a chip is mirrored left to right (it is turned over sideways, about a line from north
 * to south); a turn in the jig adds quarters clockwise, as seen from the side that is looked at.
 */
public final class Orientation {
    private Orientation() {
    }

    /** A corner, clockwise from north-west. */
    public enum Corner {
        NW, NE, SE, SW;

        /** @param degrees clockwise, a multiple of 90 */
        public Corner turned(int degrees) {
            return values()[Math.floorMod(ordinal() + Math.floorDiv(degrees, 90), 4)];
        }

        /** Left and right swapped. */
        public Corner mirrored() {
            return switch (this) {
                case NW -> NE;
                case NE -> NW;
                case SE -> SW;
                case SW -> SE;
            };
        }

        /** "nw"; empty for anything else. */
        public static Optional<Corner> read(String word) {
            for (Corner corner : values()) {
                if (corner.name().equalsIgnoreCase(word.strip())) {
                    return Optional.of(corner);
                }
            }
            return Optional.empty();
        }
    }

    /** The side that is looked at. */
    public enum View {
        TOP, BALL
    }

    /** Where a mark that was noted in one view lies in another. */
    public static Corner seen(Corner noted, View from, View to) {
        return from == to ? noted : noted.mirrored();
    }

    /**
     * Where the mark must lie in the jig, the balls up.
     *
     * @param noted      corner on the board
     * @param from       the view it was noted in
     * @param jigDegrees how far the jig turns it, clockwise as one looks at it; a multiple of 90
     */
    public static Corner inJig(Corner noted, View from, int jigDegrees) {
        return seen(noted, from, View.BALL).turned(jigDegrees);
    }
}
