package org.greenbead.core.chip;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.greenbead.core.account.Screws;
import org.greenbead.core.chip.Orientation.Corner;
import org.greenbead.core.chip.Orientation.View;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.testng.annotations.Test;

/** Marks seen from either side, and screws that have to come back. */
public class OrientationTest {
    @Test
    public void turnAndFlipAreUndone() {
        assertEquals(Corner.NW.turned(90), Corner.NE);
        assertEquals(Orientation.seen(Corner.NE, View.TOP, View.BALL), Corner.NW, "read from the balls");
        for (Corner corner : Corner.values()) {
            assertEquals(corner.mirrored().mirrored(), corner);
            assertEquals(corner.turned(360), corner);
            assertEquals(corner.turned(90).turned(-90), corner);
            assertEquals(corner.turned(90).mirrored(), corner.mirrored().turned(-90),
                    "a mirror turns the turn round");
            assertEquals(Orientation.seen(corner, View.BALL, View.BALL), corner);
        }
        assertEquals(Orientation.inJig(Corner.NW, View.TOP, 90), Corner.SE);
        assertEquals(Corner.read(" Se ").orElseThrow(), Corner.SE);
        assertTrue(Corner.read("middle").isEmpty());
    }

    @Test
    public void screwsAreMatchedByLength() {
        Job job = new Job("SB-1", "t", "c", "d", "WB-7", "U1", "quay-1",
                Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")));
        for (int i = 0; i < 8; i++) {
            boolean longer = i < 6;
            job = job.with(new Kept("s" + i, "screw", Instant.EPOCH, "",
                    Map.of("hole", "H" + i, "length_mm", longer ? 3.0 : 4.5, "out", true, "in", i != 7)));
        }
        assertEquals(Screws.of(job), List.of(new Screws.Length(3.0, 6, 6), new Screws.Length(4.5, 2, 1)));
        assertEquals(Screws.of(job).getLast().missing(), 1, "one of 4.5 mm is missing");
    }
}
