package org.greenbead.core.thermal;

import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.board.Layer;

/**
 * Effective properties of one layer of a package. Conductivities W/mK, volumetric heat J/m3K. Values: handbook means for
 * mould compound, laminate substrate, silicon at 100 to 200 °C, copper; see docs/thermal.md.
 */
record LayerMaterial(double kxy, double kz, double heat, double beta, double latentJPerM3, double solidusC,
        double liquidusC,
        double ownEmissivity) {
    private static final double UNDERFILL_K = 0.5;
    private static final double GAP_AIR_K = 0.035;

    /** @param dieShare part of the area that is silicon, for a die layer */
    static LayerMaterial of(Layer layer, double dieShare) {
        return switch (layer) {
            case Layer.Joint joint -> joint(joint);
            case Layer.Die die -> {
                double rest = 1 - dieShare;
                double kAround = die.inVoid() ? 0.03 : 0.9;
                double heatAround = die.inVoid() ? 1.2e3 : 1.8e6;
                yield plain(110 * dieShare + kAround * rest, 110 * dieShare + kAround * rest,
                        1.75e6 * dieShare + heatAround * rest, 3e-4 * dieShare + 1e-3 * rest,
                        die.inVoid() ? 0.65 : 0);
            }
            case Layer.Plain plain -> switch (plain.material()) {
                case SUBSTRATE -> plain(20, 0.5, 2.1e6, 1e-3, 0);
                case MOLD -> plain(0.9, 0.9, 1.8e6, 1e-3, 0);
                case DIEATTACH -> plain(1.0, 1.0, 2.0e6, 1e-3, 0);
                case LID -> plain(390, 390, 3.45e6, 0, 0.2);
                // Alumina of 96 % at 100 to 200 °C (handbook means: 17 to 22 W/mK, 3.75 g/cm3, 0.95 J/gK).
                case CERAMIC -> plain(19, 19, 3.5e6, 0, 0);
                // A stencil, and a film of molten rosin, as under BallForming.
                case STEEL -> plain(16, 16, 4.0e6, 0, 0.25);
                case FLUX -> plain(0.2, 0.2, 2.0e6, 0, 0.9);
                case PAPER -> plain(0.06, 0.06, 0.25e6, 0, 0);
            };
        };
    }

    /**
     * Solder balls in air or resin: fraction by volume of balls in the sheet, half of the solder's conductivity across
     * (the barrel is narrower at its ends), Maxwell's mixture along.
     */
    private static LayerMaterial joint(Layer.Joint joint) {
        Alloy alloy = joint.alloy();
        double ball = Math.PI / 6 * Math.pow(joint.ballMm(), 3);
        double phi = Math.min(0.6,
                joint.coverage() * ball / (joint.pitchMm() * joint.pitchMm() * joint.thicknessMm()));
        double gap = joint.underfilled() ? UNDERFILL_K : GAP_AIR_K;
        double heat = 1.65e6 * phi + (joint.underfilled() ? 1.7e6 * (1 - phi) : 0);
        return new LayerMaterial(gap * (1 + phi) / (1 - phi), 0.5 * alloy.kWPerMK() * phi + (1 - phi) * gap,
                heat, 0,
                phi * alloy.fusionJPerM3(), alloy.solidusC(), alloy.liquidusC(), 0);
    }

    private static LayerMaterial plain(double kxy, double kz, double heat, double beta, double emissivity) {
        return new LayerMaterial(kxy, kz, heat, beta, 0, 0, 0, emissivity);
    }

    Enthalpy cell(double volumeM3) {
        return latentJPerM3 > 0
                ? new Enthalpy(heat * volumeM3, 0, latentJPerM3 * volumeM3, solidusC, liquidusC)
                : Enthalpy.solid(heat * volumeM3, beta);
    }

    double emissivity(double usual) {
        return ownEmissivity > 0 ? ownEmissivity : usual;
    }
}
