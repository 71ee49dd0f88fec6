package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.annotations.Test;

public class RehearsalTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());

    @Test
    public void sameRecipeSameBits() {
        Rehearsal a = Rehearsal.of(PLAN, () -> false);
        Rehearsal b = Rehearsal.of(PLAN, () -> false);
        assertEquals(a.rows().size(), b.rows().size());
        assertEquals(Double.doubleToLongBits(a.peakJointMinC()), Double.doubleToLongBits(b.peakJointMinC()));
        assertEquals(a.marks(), b.marks());
    }

    @Test
    public void usualRecipeReachesItsGoal() {
        Rehearsal made = Rehearsal.of(PLAN, () -> false);
        assertTrue(made.done());
        assertTrue(made.peakJointMinC() >= 198.5, "coldest joint " + made.peakJointMinC());
        assertTrue(made.energy().error() < 0.005);
        assertEquals(made.marks().size(), 4);
        assertTrue(made.lengthS() > 100 && made.lengthS() < 900);
    }

    /** One model by itself knows of no doubt; that must not read as a certain peak. */
    @Test
    public void aRehearsalWithoutAProbeClaimsNoCertainty() {
        var said = Rehearsal.of(PLAN.byEye(), () -> false).verdict().lines().stream().map(l -> l.what().key())
                .toList();
        assertTrue(said.contains("verdict.no_probe_rehearsed"), said.toString());
        assertFalse(said.contains("verdict.no_probe"), said.toString());
    }

    @Test
    public void coldRecipeIsGivenUp() {
        Rehearsal cold = Rehearsal.of(PLAN.with(World.recipe(World.soak(240, 108, 0),
                World.peak(240).withHeater(Optional.of(150.0)), World.cool())), () -> false);
        assertFalse(cold.done());
        assertEquals(cold.aboveLiquidusS(), 0.0);
    }

    @Test
    public void cancelStopsAtOnce() {
        var asked = new AtomicInteger();
        Rehearsal part = Rehearsal.of(PLAN, () -> asked.incrementAndGet() > 20);
        assertFalse(part.done());
        assertTrue(part.rows().size() <= 22);
    }

    @Test
    public void roomAtThePeakListsEveryProtectedPart() {
        Rehearsal made = Rehearsal.of(PLAN, () -> false);
        List<Room> rooms = RehearsalRoom.of(PLAN, made);
        assertEquals(rooms.size(), 1 + PLAN.board().chips().size() + PLAN.board().parts().size());
        assertEquals(rooms.getFirst().kind(), Room.Kind.MUST_MELT);
        for (int i = 0; i < rooms.size() - 1; i++) {
            assertEquals(rooms.get(i + 1).peakC(), made.peakC(i), 1e-9);
        }
        assertEquals(RehearsalRoom.closestNeighbour(PLAN, made).map(RehearsalRoom.Part::name),
                Optional.of("U9"));
    }

    @Test
    public void whatIsStillToComeShrinksToNothing() {
        Rehearsal made = Rehearsal.of(PLAN, () -> false);
        double atStart = made.stillToRiseK(0, 0, 0);
        double atPeak = made.stillToRiseK(2, 0, 0);
        double cooling = made.stillToRiseK(3, 5, 0);
        assertTrue(atStart > atPeak && atPeak > cooling, atStart + " " + atPeak + " " + cooling);
        assertEquals(cooling, 0, 1e-9);
    }
}
