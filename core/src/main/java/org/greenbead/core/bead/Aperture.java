package org.greenbead.core.bead;

import org.greenbead.core.quantity.Check;

/** An opening in a stencil. */
public sealed interface Aperture {
    /** @param diameterMm 0.05 to 5 */
    record Round(double diameterMm) implements Aperture {
        public Round {
            Check.within("opening", diameterMm, 0.05, 5, "mm");
        }

        @Override
        public double areaMm2() {
            return Math.PI / 4 * diameterMm * diameterMm;
        }

        @Override
        public double girthMm() {
            return Math.PI * diameterMm;
        }

        @Override
        public double widthMm() {
            return diameterMm;
        }
    }

    /**
     * @param sideMm   0.05 to 5
     * @param radiusMm of its corners, 0 to half the side
     */
    record Square(double sideMm, double radiusMm) implements Aperture {
        public Square {
            Check.within("opening", sideMm, 0.05, 5, "mm");
            Check.within("corner radius of the opening", radiusMm, 0, sideMm / 2, "mm");
        }

        @Override
        public double areaMm2() {
            return sideMm * sideMm - (4 - Math.PI) * radiusMm * radiusMm;
        }

        @Override
        public double girthMm() {
            return 4 * sideMm - (8 - 2 * Math.PI) * radiusMm;
        }

        @Override
        public double widthMm() {
            return sideMm;
        }
    }

    double areaMm2();

    /** Length of its edge. */
    double girthMm();

    /** Across its flats. */
    double widthMm();

    /** Opening over wall: {@code A / (girth t)}; at 0.66 and more paste lets go well (IPC-7525, verify against the current edition). */
    default double areaRatio(double thicknessMm) {
        return areaMm2() / (girthMm() * thicknessMm);
    }

    /** Width over thickness; at 1.5 and more (IPC-7525, verify). */
    default double aspectRatio(double thicknessMm) {
        return widthMm() / thicknessMm;
    }

    /** Volume of the filled opening. */
    default double volumeMm3(double thicknessMm) {
        return areaMm2() * thicknessMm;
    }
}
