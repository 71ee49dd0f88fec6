package org.greenbead.core.alloy;

import org.greenbead.core.quantity.Check;

/**
 * A soft solder.
 *
 * @param name          as it is written in files, such as "SAC305"
 * @param solidusC      the first liquid appears, °C, 90 to 300
 * @param liquidusC     the last solid is gone, °C, not below the solidus
 * @param fusionJPerM3  heat of fusion per volume of solid solder, J/m3
 * @param kWPerMK       thermal conductivity, W/(m K)
 * @param hasPb         handled with the cautions for lead
 * @param hasBi         never mixed with lead: the ternary eutectic melts near 96 °C
 * @param undercoolingK so far under its solidus it may still be liquid on the way down, K, 0 to 60
 * @param source        where the numbers were read
 */
public record Alloy(String name, double solidusC, double liquidusC, double fusionJPerM3, double kWPerMK,
        boolean hasPb,
        boolean hasBi, double undercoolingK, String source) {
    public Alloy {
        Check.text("alloy name", name);
        Check.within("solidus", solidusC, 90, 300, "°C");
        Check.within("liquidus", liquidusC, solidusC, 300, "°C");
        Check.within("heat of fusion", fusionJPerM3, 1e8, 1e9, "J/m3");
        Check.within("solder conductivity", kWPerMK, 10, 100, "W/mK");
        Check.within("undercooling", undercoolingK, 0, 60, "K");
        Check.text("alloy source", source);
    }
}
