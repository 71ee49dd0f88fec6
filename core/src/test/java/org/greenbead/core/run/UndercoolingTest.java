package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.recipe.Limits;
import org.testng.annotations.Test;

/** Solder that has cooled under its solidus is not solid for that. */
public class UndercoolingTest {
    @Test
    public void tinRichBallsAreHeldLiquidForLonger() {
        Limits usual = Limits.usual();
        Alloy sac = Alloys.require("SAC305");
        Alloy lead = Alloys.require("Sn63Pb37");
        assertTrue(usual.movingC(sac) <= 217 - 35,
                "published freezing of such balls reaches down to 35 K under 217 °C");
        assertEquals(usual.movingC(lead), lead.solidusC() - 20, 1e-9,
                "here the limit of the job is the further one");
        for (Alloy a : Alloys.all()) {
            assertTrue(usual.movingC(a) <= a.solidusC() - a.undercoolingK(), a.name());
            assertTrue(usual.movingC(a) <= a.solidusC() - usual.moveUnderK(), a.name());
        }
    }

    /** A run with lead-free joints is called safe only once the model itself is under what they may undercool to. */
    @Test
    public void safeWaitsForIt() {
        RunPlan plan = World.plan(World.recipe(World.soak(280, 130, 10), World.peak(400), World.cool()),
                World.processor("SAC305", 1, 10));
        Rehearsal rehearsal = Rehearsal.of(plan, () -> false);
        assertTrue(rehearsal.peakJointMinC() > 220, "it melts: " + rehearsal.peakJointMinC());
        List<Rehearsal.Row> rows = rehearsal.rows();
        StageMark cool = rehearsal.marks().getLast();
        Rehearsal.Row end = rows.get((int) Math.min(rows.size() - 1, Math.ceil(cool.endS())));
        assertTrue(end.jointMaxC() <= 182.5, "safe at " + end.jointMaxC() + " °C");
    }
}
