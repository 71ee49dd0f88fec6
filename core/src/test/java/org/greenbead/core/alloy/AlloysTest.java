package org.greenbead.core.alloy;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.Map;
import org.greenbead.core.book.Phase;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;
import org.greenbead.core.run.BallForming;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** One table of alloys: what is planned, mixed and judged is what is heated. */
public class AlloysTest {
    private static final Bead FORM = new Bead("bead_form", Phase.BEAD, Bead.Kind.RUN, false, BeadState.OPEN,
            java.util.List.of(), java.util.Optional.of("wb7-form"));

    private static Job balls(String alloy) {
        return World.job(Attest.YES).with(new Kept("plan-1", "plan", Instant.EPOCH, "",
                Map.of("ball_alloy", alloy)));
    }

    /** Every alloy of the table can be heated, within half a degree of its own range; ISO 9453 for three of them. */
    @Test
    public void everyAlloyOfTheTableIsHeatedAsItself() {
        assertEquals(Alloys.all().size(), MeltingTable.standard().rows().size());
        for (MeltingTable.Row row : MeltingTable.standard().rows()) {
            Alloy alloy = BallForming.of(balls(row.name()), World.processor("SAC305", 1, 1), FORM).balls();
            assertEquals(alloy.name(), row.name());
            assertEquals(alloy.solidusC(), row.solidusC(), 0.51, row.name());
            assertEquals(alloy.liquidusC(), row.liquidusC(), 0.51, row.name());
            assertEquals(alloy.hasPb(), row.name().contains("Pb"), row.name());
            assertEquals(alloy.hasBi(), row.name().contains("Bi"), row.name());
            assertTrue(alloy.liquidusC() - alloy.solidusC() >= 1);
        }
        assertEquals(Alloys.require("SAC305").liquidusC(), 220.0);
        assertEquals(Alloys.require("SAC105").liquidusC(), 227.0);
        assertEquals(Alloys.require("Sn63Pb37").solidusC(), 182.5);
    }

    /** An alloy that nobody knows is never heated as another. */
    @Test
    public void unknownAlloyIsRefused() {
        assertThrows(IllegalArgumentException.class,
                () -> BallForming.of(balls("Sn42Bi58Ag9"), World.processor("Sn63Pb37", 1, 1), FORM));
    }

    /** "As built" is what this board was built with, not what most are. */
    @Test
    public void asBuiltIsThisBoardsOwn() {
        School way = Schools.shipped().find("ball_alloy").orElseThrow();
        Job leaded = Schools.shipped().choose(World.job(Attest.YES), way, "tin_lead", "asked for",
                Instant.EPOCH, "");
        Job built = Schools.shipped().choose(leaded, way, "as_built", "", Instant.EPOCH, "");
        assertEquals(BallForming.of(leaded, World.processor("SAC305", 1, 1), FORM).balls().name(),
                "Sn63Pb37");
        assertEquals(BallForming.of(built, World.processor("Sn63Pb37", 1, 1), FORM).balls().name(),
                "Sn63Pb37");
        assertEquals(BallForming.of(built, World.processor("SAC305", 1, 1), FORM).balls().name(), "SAC305");
        assertFalse(built.facts().at("plan.ball_alloy").isPresent());
    }
}
