package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class EnthalpyTest {
    @DataProvider
    Object[][] cells() {
        return new Object[][]{{"copper", Enthalpy.solid(3.2, 0)}, {"laminate", Enthalpy.solid(1.7, 1e-3)},
                {"silicon", Enthalpy.solid(0.4, 3e-4)},
                {"SAC305 joint", new Enthalpy(0.05, 0, 4.4, 217, 220)},
                {"eutectic joint", new Enthalpy(0.08, 0, 3.1, 182.5, 183.5)}};
    }

    @Test(dataProvider = "cells")
    public void temperatureIsTheInverseOfHeat(String name, Enthalpy cell) {
        for (double c = -20; c <= 320; c += 0.37) {
            assertEquals(cell.celsiusOf(cell.ofC(c)), c, 1e-9, name + " at " + c);
        }
    }

    @Test(dataProvider = "cells")
    public void heatRisesWithTemperature(String name, Enthalpy cell) {
        double before = cell.ofC(-20);
        for (double c = -19.5; c <= 320; c += 0.5) {
            double now = cell.ofC(c);
            assertTrue(now > before, name + " at " + c);
            before = now;
        }
    }

    @Test(dataProvider = "cells")
    public void slopeIsTheDerivative(String name, Enthalpy cell) {
        double h = 1e-5;
        for (double c = 30; c <= 300; c += 3.3) {
            double numeric = (cell.ofC(c + h) - cell.ofC(c - h)) / (2 * h);
            assertEquals(cell.slopeAtC(c), numeric, 1e-4 * numeric + 1e-6, name + " at " + c);
        }
    }

    @Test
    public void meltingTakesExactlyTheHeatOfFusion() {
        var joint = new Enthalpy(0.05, 0, 4.4, 217, 220);
        assertEquals(joint.ofC(220) - joint.ofC(217), 4.4 + 0.05 * 3, 1e-12);
        assertEquals(joint.liquidAtC(217), 0.0);
        assertEquals(joint.liquidAtC(218.5), 0.5, 1e-12);
        assertEquals(joint.liquidAtC(220), 1.0);
    }

    @Test
    public void refusesAMeltingCellWithoutARange() {
        assertThrows(IllegalArgumentException.class, () -> new Enthalpy(1, 0, 5, 183, 183));
        assertThrows(IllegalArgumentException.class, () -> new Enthalpy(1, 1e-3, 5, 183, 184));
    }
}
