package org.greenbead.core.plan;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.run.BallForming;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

public class GuessCostTest {
    private static final RunPlan KNOWN = World.plan(World.usualRecipe());

    private static RunPlan guessed(String... what) {
        Board b = KNOWN.board();
        return KNOWN.with(
                new Board(b.id(), b.title(), b.sizeMm(), b.thicknessMm(), b.copperLayers(), b.copperUm(),
                        b.copperCoverage(), b.kThroughWPerMK(), b.chips(), b.parts(), List.of(what)));
    }

    private static GuessCost.Guess only(String what) {
        List<GuessCost.Guess> guesses = GuessCost.of(guessed(what), () -> false);
        assertEquals(guesses.size(), 1, guesses.toString());
        return guesses.getFirst();
    }

    @Test
    public void nothingAssumedCostsNothing() {
        assertEquals(GuessCost.of(KNOWN, () -> false), List.of());
        assertEquals(GuessCost.of(guessed(Assumed.lifeOf("U1")), () -> false), List.of());
    }

    /** More laminate is more to heat by the same settings, and what is said is what the model says of that board. */
    @Test
    public void thinnerIsHotter() {
        GuessCost.Guess guess = only(Assumed.THICKNESS);
        assertEquals(guess.cases().size(), 2);
        GuessCost.Case thin = guess.cases().get(0);
        GuessCost.Case thick = guess.cases().get(1);
        assertTrue(thin.peakK() > 1 && thick.peakK() < -1, guess.toString());
        assertEquals(guess.widthK(), thin.peakK() - thick.peakK(), 1e-9);
        assertEquals(GuessCost.says(thin).key(), "guess.hotter");
        assertEquals(GuessCost.says(thick).key(), "guess.cooler");
        RunPlan plan = guessed(Assumed.THICKNESS);
        double mm = ((org.greenbead.core.quantity.Quantity.Millimetres) thin.instead().gaps().getFirst())
                .mm();
        assertTrue(mm < plan.board().thicknessMm());
        Outcome own = Drive.of(plan, plan.recipe(), RunEngine.nominalModel(plan), () -> false);
        RunPlan other = plan.with(plan.board().thick(mm));
        Outcome then = Drive.onClock(other, plan.recipe(), RunEngine.nominalModel(other), own);
        assertEquals(thin.peakK(), then.peakMinC() - own.peakMinC(), 1e-9);
    }

    /** The heat is the same, the melting point another: the peak stays, its margin moves by the difference. */
    @Test
    public void anotherAlloyMeltsSooner() {
        double apart = Alloys.require("SAC305").liquidusC() - Alloys.require("Sn63Pb37").liquidusC();
        RunPlan leadFree = guessed(Assumed.alloyOf("U1"));
        leadFree = leadFree.with(leadFree.board().with(leadFree.target().soldered(Alloys.require("SAC305"))));
        GuessCost.Case c = GuessCost.of(leadFree, () -> false).getFirst().cases().getFirst();
        // Latent heat is drawn at another moment, which is worth half a degree at the peak.
        assertEquals(c.marginK(), apart, 1);
        assertEquals(c.peakK(), 0, 1);
        assertEquals(GuessCost.says(c).key(), "guess.sooner");
        assertTrue(c.melts());
    }

    @Test
    public void whatDoesHarmComesFirst() {
        List<GuessCost.Guess> all = GuessCost.of(
                guessed(Assumed.packageOf("U1"), Assumed.COPPER, Assumed.THICKNESS),
                () -> false);
        assertEquals(all.size(), 3);
        for (int i = 1; i < all.size(); i++) {
            GuessCost.Guess before = all.get(i - 1);
            GuessCost.Guess now = all.get(i);
            assertTrue(before.harms() || !now.harms(), all.toString());
            assertTrue(before.harms() != now.harms() || before.widthK() >= now.widthK(), all.toString());
        }
        for (GuessCost.Guess g : all) {
            assertFalse(g.cases().isEmpty(), g.assumed());
            g.cases().forEach(c -> assertEquals(c.harms(), !GuessCost.harms(c).isEmpty()));
        }
    }

    @Test
    public void stoppedItGivesWhatItHas() {
        var asked = new ArrayList<Integer>();
        List<GuessCost.Guess> some = GuessCost.of(guessed(Assumed.THICKNESS, Assumed.COPPER), () -> {
            asked.add(1);
            return true;
        });
        assertEquals(some, List.of());
        assertFalse(asked.isEmpty());
    }

    @Test
    public void ballsOnALooseChipAskNothing() {
        RunPlan plan = guessed(Assumed.THICKNESS);
        assertEquals(GuessCost.of(plan.forming(BallForming.usual(plan.target(), Alloys.require("Sn63Pb37"))),
                () -> false), List.of());
    }
}
