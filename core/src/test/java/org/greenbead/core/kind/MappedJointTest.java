package org.greenbead.core.kind;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.testng.annotations.Test;

/** What a bead map says of the joint, by numbers that can be reckoned by hand. */
public class MappedJointTest {
    private static Chip chip(double w, double h) {
        return PackageKind.require("moulded").chip("U1", "K-41", Side.TOP, new Point(30, 30), new Point(w, h),
                1.0, Alloys.require("Sn63Pb37"));
    }

    @Test
    public void aFullGridGivesPitchBallAndCoverage() {
        MappedJoint joint = MappedJoint.of(BeadMap.grid(17, 17, 0.8, Optional.of(0.5)));
        assertEquals(joint.balls(), 289);
        assertEquals(joint.pitchMm(), 0.8, 1e-9);
        assertEquals(joint.fieldMm().xMm(), 16 * 0.8 + 0.5, 1e-9);
        Chip before = chip(15, 15);
        Chip chip = joint.on(before);
        assertEquals(chip.joint().pitchMm(), 0.8, 1e-9);
        assertEquals(chip.joint().ballMm(), 0.5, 1e-9);
        assertEquals(chip.joint().coverage(), 289 * 0.64 / 225, 1e-9);
        assertEquals(chip.joint().alloy(), before.joint().alloy());
        assertEquals(chip.layers().subList(1, chip.layers().size()),
                before.layers().subList(1, before.layers().size()), "the body is the same");
        assertTrue(chip.joint().thicknessMm() < 0.5 && chip.joint().thicknessMm() > 0.3,
                "a collapsed ball of 0.5 mm stands " + chip.joint().thicknessMm());
        assertTrue(joint.is(chip));
        assertFalse(joint.is(before));
    }

    @Test
    public void withoutDiametersTheNominalBallOfItsPitchIsTaken() {
        assertEquals(MappedJoint.of(BeadMap.grid(5, 5, 0.65, Optional.empty())).ballMm(), 0.40, 1e-9,
                "IPC-7095");
    }

    /** A few large balls at the corners do not stand for the field. */
    @Test
    public void theMedianBallCounts() {
        var sites = new java.util.ArrayList<>(BeadMap.grid(4, 4, 1.0, Optional.of(0.6)).sites());
        Site first = sites.getFirst();
        sites.set(0, new Site(first.name(), first.xMm(), first.yMm(), Optional.of(0.9), "",
                Site.Critical.UNKNOWN));
        assertEquals(MappedJoint.of(new BeadMap(sites)).ballMm(), 0.6, 1e-9);
    }

    @Test
    public void itMayLieAcrossAndMustFit() {
        MappedJoint joint = MappedJoint.of(BeadMap.grid(6, 12, 0.8, Optional.of(0.45)));
        assertEquals(joint.on(chip(6, 10)).joint().pitchMm(), 0.8, 1e-9, "5 x 9.25 mm of balls, laid across");
        var small = expectThrows(IllegalArgumentException.class, () -> joint.on(chip(7, 7)));
        assertTrue(small.getMessage().contains("9.25 x 4.45") && small.getMessage().contains("7.00 x 7.00"),
                small.getMessage());
    }

    @Test
    public void oneSiteSaysNoPitch() {
        var one = new BeadMap(List.of(new Site("A1", 0, 0, Optional.empty(), "", Site.Critical.UNKNOWN)));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> MappedJoint.of(one)).getMessage()
                .contains("one site"));
    }
}
