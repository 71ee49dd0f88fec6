package org.greenbead.core.board;

import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.quantity.Check;

/** One sheet of a package, counted from the board outwards. Thickness in mm. */
public sealed interface Layer {
    double thicknessMm();

    /**
     * The ball field.
     *
     * @param thicknessMm stand-off after collapse, 0.01 to 2
     * @param pitchMm     0.2 to 3
     * @param ballMm      diameter before collapse, less than the pitch
     * @param alloy       what the joints are made of now
     * @param underfilled resin between the balls instead of air
     * @param coverage    part of the footprint that carries balls, 0.02 to 1
     */
    record Joint(double thicknessMm, double pitchMm, double ballMm, Alloy alloy, boolean underfilled,
            double coverage) implements Layer {
        public Joint {
            Check.within("joint thickness", thicknessMm, 0.01, 2, "mm");
            Check.within("pitch", pitchMm, 0.2, 3, "mm");
            Check.within("ball diameter", ballMm, 0.05, pitchMm, "mm");
            Check.present("joint alloy", alloy);
            Check.within("joint coverage", coverage, 0.02, 1, "");
        }
    }

    /** What a plain layer is made of. */
    enum Material {
        SUBSTRATE, MOLD, DIEATTACH, LID, PAPER, CERAMIC, STEEL, FLUX
    }

    /** A layer over the whole footprint. */
    record Plain(Material material, double thicknessMm) implements Layer {
        public Plain {
            Check.present("layer material", material);
            Check.within("layer thickness", thicknessMm, 0.01, 5, "mm");
        }
    }

    /**
     * Silicon, smaller than the package.
     *
     * @param dieMm  its two sides, mm
     * @param inVoid true when air surrounds it, false when mould does
     */
    record Die(double thicknessMm, Point dieMm, boolean inVoid) implements Layer {
        public Die {
            Check.within("die thickness", thicknessMm, 0.02, 2, "mm");
            Check.present("die size", dieMm);
            Check.within("die side", Math.min(dieMm.xMm(), dieMm.yMm()), 0.2, 60, "mm");
        }
    }
}
