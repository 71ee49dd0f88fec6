package org.greenbead.core.thermal;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class LayerMaterialTest {
    @DataProvider
    Object[][] joints() {
        return new Object[][]{
                // pitch, ball, stand-off, alloy, kz W/mK, latent heat kJ/m2
                {0.4, 0.25, 0.2, "SAC305", 7.4, 22.7}, {0.8, 0.45, 0.3, "SAC305", 7.2, 33.1},
                {1.0, 0.6, 0.42, "SAC305", 7.8, 50.2}, {1.27, 0.75, 0.5, "SnPb", 6.9, 48.3}};
    }

    @Test(dataProvider = "joints")
    public void jointSheetAsCalculatedByHand(double pitch, double ball, double standOff, String alloy,
            double kz, double latent) {
        LayerMaterial sheet = LayerMaterial
                .of(new Layer.Joint(standOff, pitch, ball, Alloys.require(alloy), false, 1), 0);
        assertEquals(sheet.kz(), kz, 0.06);
        assertEquals(sheet.latentJPerM3() * standOff * 1e-3 / 1000, latent, 0.1);
    }

    @Test
    public void dieMixesByArea() {
        var die = new Layer.Die(0.2, new Point(9, 9), false);
        assertEquals(LayerMaterial.of(die, 1).kz(), 110.0);
        assertEquals(LayerMaterial.of(die, 0).kz(), 0.9);
        assertEquals(LayerMaterial.of(die, 0.5).kz(), 55.45, 1e-9);
    }

    @Test
    public void underfillLeadsBetterThanAir() {
        var bare = new Layer.Joint(0.2, 0.4, 0.25, Alloys.require("SAC305"), false, 0.5);
        var filled = new Layer.Joint(0.2, 0.4, 0.25, Alloys.require("SAC305"), true, 0.5);
        assertTrue(LayerMaterial.of(filled, 0).kz() > LayerMaterial.of(bare, 0).kz());
    }
}
