package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.OptionalDouble;
import org.greenbead.core.cue.NozzleLaps;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.testng.annotations.Test;

/** How slow a circle may be, and how laps are counted. */
public class LapRippleTest {
    private static RunPlan circling(double nozzleMm, double circleMm) {
        Recipe recipe = World.usualRecipe();
        for (int i = 1; i < 3; i++) {
            Stage stage = recipe.stages().get(i);
            recipe = recipe.with(i, stage.withAir(stage.air().map(a -> new AirSetting(a.setC(), a.flowLpm(),
                    nozzleMm, a.distanceMm(), circleMm))));
        }
        return World.plan(recipe);
    }

    /** A slab under a periodic flux swings by the root of the period and more (Carslaw and Jaeger 1959, 2.6): slower laps, larger swings, and the skin before the joint. */
    @Test
    public void slowerLapsSwingMore() {
        List<LapRipple.Swing> swings = LapRipple.of(circling(6, 7), () -> false);
        assertEquals(swings.size(), 8);
        for (int i = 2; i < swings.size(); i++) {
            assertTrue(swings.get(i).jointK() > swings.get(i - 2).jointK(), swings.toString());
        }
        LapRipple.Swing quick = swings.get(2);
        LapRipple.Swing slow = swings.getLast();
        double growth = slow.jointK() / quick.jointK();
        assertTrue(growth > Math.sqrt(slow.lapS() / quick.lapS()) && growth < 12, "" + growth);
        OptionalDouble most = LapRipple.mostS(swings);
        assertTrue(most.isPresent() && most.getAsDouble() < 12, swings.toString());
    }

    @Test
    public void aCircleOfNoWidthSwingsNothing() {
        assertTrue(LapRipple.of(circling(6, 0), () -> false).isEmpty(), "none is led");
        List<LapRipple.Swing> narrow = LapRipple.of(circling(14, 1), () -> false);
        List<LapRipple.Swing> wide = LapRipple.of(circling(6, 7), () -> false);
        assertTrue(narrow.getLast().jointK() < 0.3 * wide.getLast().jointK(),
                narrow.getLast() + " and " + wide.getLast());
        assertTrue(LapRipple.mostS(List.of()).isEmpty());
        assertTrue(LapRipple.of(circling(6, 7), () -> true).isEmpty(), "cancelled");
    }

    @Test
    public void lapsAreCountedFromPressToPress() {
        var laps = new NozzleLaps();
        assertTrue(Double.isNaN(laps.meanS()) && laps.sinceS(9) == 0 && !laps.begun());
        laps.press(10);
        assertEquals(laps.laps(), 0, "the first press begins");
        laps.press(12);
        laps.press(12.1);
        laps.press(16);
        assertEquals(laps.laps(), 2, "a bounce is no lap");
        assertEquals(laps.meanS(), 3, 1e-9);
        assertEquals(laps.slowestS(), 4, 1e-9);
        assertEquals(laps.lapS(), 4, 1e-9);
        assertEquals(laps.sinceS(17.5), 1.5, 1e-9);
    }
}
