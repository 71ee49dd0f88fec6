package org.greenbead.core.bead;

import org.greenbead.core.alloy.Composition;
import org.greenbead.core.quantity.Check;

/**
 * Solder paste as it is printed.
 *
 * @param metalMassPct    metal by mass as its maker says, 70 to 95
 * @param alloyGPerCm3    density of the metal, 7 to 12
 * @param fluxGPerCm3     density of the rest, 0.7 to 1.3
 * @param fluxLostPart    part of the flux volume that was blotted or has dried out before printing, 0 to 0.9
 */
public record Paste(double metalMassPct, double alloyGPerCm3, double fluxGPerCm3, double fluxLostPart) {
    /** Usual flux vehicles are near water; assumed where the maker does not say. */
    public static final double USUAL_FLUX_G_PER_CM3 = 1.0;

    public Paste {
        Check.within("metal in the paste", metalMassPct, 70, 95, "%");
        Check.within("density of the alloy", alloyGPerCm3, 7, 12, "g/cm3");
        Check.within("density of the flux", fluxGPerCm3, 0.7, 1.3, "g/cm3");
        Check.within("part of the flux lost", fluxLostPart, 0, 0.9, "");
    }

    public static Paste of(Composition alloy, double metalMassPct, double fluxLostPart) {
        return new Paste(metalMassPct, alloy.densityGPerCm3(), USUAL_FLUX_G_PER_CM3, fluxLostPart);
    }

    /** Volume of metal in a volume of paste: masses over densities; drying takes flux away and leaves more metal in each hole. */
    public double metalVolumePart() {
        double metal = metalMassPct / alloyGPerCm3;
        double flux = (100 - metalMassPct) / fluxGPerCm3 * (1 - fluxLostPart);
        return metal / (metal + flux);
    }
}
