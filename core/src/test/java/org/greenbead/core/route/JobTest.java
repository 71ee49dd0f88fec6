package org.greenbead.core.route;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.book.Phase;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

public class JobTest {
    @Test
    public void beadTurnsGreenWithItsLastCheckAndFallsBackWithIt() {
        Job job = World.job(Attest.NO);
        for (CheckItem check : job.beads().getFirst().checks()) {
            assertFalse(job.beads().getFirst().worked());
            job = job.attest(check.id(), Attest.YES);
        }
        assertEquals(job.beads().getFirst().state(), BeadState.GREEN);
        assertEquals(job.inHand().map(Bead::id), Optional.of("lift_run"));
        Job back = job.attest("cell_off", Attest.NO);
        assertEquals(back.beads().getFirst().state(), BeadState.OPEN);
        assertEquals(back.attested("cell_off"), Attest.NO);
    }

    @Test
    public void gateHoldsWhatFollows() {
        Job job = World.job(Attest.NO);
        assertEquals(job.gateBefore("lift_run").map(Bead::id), Optional.of("prepare_power"));
        assertTrue(World.job(Attest.YES).gateBefore("lift_run").isEmpty());
        assertTrue(job.gateBefore("prepare_power").isEmpty());
    }

    @Test
    public void whatTheRouteDoesNotAskIsUnknown() {
        Job job = World.job(Attest.YES);
        assertFalse(job.asks("baked"));
        assertEquals(job.attested("baked"), Attest.UNKNOWN);
        assertEquals(job.attest("baked", Attest.YES), job);
    }

    /** A remedy's word is kept even where the route did not ask for it, and takes nothing back. */
    @Test
    public void wordThatNobodyAskedForIsKept() {
        Job job = World.job(Attest.YES).record("baked", Attest.YES);
        assertEquals(job.attested("baked"), Attest.YES);
        assertEquals(job.beads().getFirst().state(), BeadState.GREEN);
        assertEquals(job.record("cell_off", Attest.NO).attested("cell_off"), Attest.NO);
    }

    @Test
    public void phasesKeepTheirOrder() {
        Job job = World.job(Attest.YES);
        var turned = List.of(job.beads().get(1), job.beads().get(0));
        var e = expectThrows(IllegalArgumentException.class,
                () -> new Job("SB-1", "t", "c", "d", "WB-7", "U1", "quay-1", turned));
        assertTrue(e.getMessage().contains("out of order"), e.getMessage());
    }

    @Test
    public void runNeedsARecipe() {
        expectThrows(IllegalArgumentException.class, () -> new Bead("lift_run", Phase.LIFT, Bead.Kind.RUN,
                false, BeadState.OPEN, List.of(), Optional.empty()));
        expectThrows(IllegalArgumentException.class, () -> new CheckItem("Cell Off", Attest.YES, ""));
    }

    @Test
    public void jobAtItsEndHasNothingInHand() {
        Job job = World.job(Attest.YES).with("lift_run", BeadState.DONE);
        assertTrue(job.inHand().isEmpty());
    }
}
