package org.greenbead.core.plan;

import static org.testng.Assert.assertTrue;

import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Steps that follow the change against small fixed ones, on boards that nobody tuned them on. */
public class StepsTest {
    @DataProvider
    Object[][] boards() {
        return new Object[][]{{3L}, {11L}, {23L}, {31L}, {47L}};
    }

    /** The same cells and settings, a fifth of a second and first order: what is left is what long steps cost. */
    @Test(dataProvider = "boards")
    public void longStepsTellWhatShortOnesTell(long seed) {
        RunPlan plan = RandomPlans.of(seed);
        Outcome like = Drive.of(plan, plan.recipe(),
                new SheetModel(plan.scene(), Multipliers.NOMINAL, Resolution.SEARCH), () -> false);
        for (Resolution cells : new Resolution[]{Resolution.FULL, Resolution.SEARCH, Resolution.OBSERVER}) {
            Outcome usual = Drive.onClock(plan, plan.recipe(),
                    new SheetModel(plan.scene(), Multipliers.NOMINAL, cells), like);
            Outcome fine = Drive.onClock(plan, plan.recipe(),
                    new SheetModel(plan.scene(), Multipliers.NOMINAL, cells.stepping(0.2)), like);
            Outcome.Drift drift = usual.against(fine);
            boolean full = cells.equals(Resolution.FULL);
            assertTrue(drift.rmsK() < (full ? 0.3 : 0.5) && Math.abs(drift.peakK()) < (full ? 0.3 : 0.8),
                    "board " + seed + ", " + cells.targetCells() + " cells: " + drift);
        }
    }
}
