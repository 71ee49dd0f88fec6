package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Side;
import org.greenbead.core.book.Facts;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.HouseRoute;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.Strands;
import org.testng.annotations.Test;

/** Type and specimen. */
public class ThisUnitTest {
    private static final Board TYPE = World.board(World.processor("SAC305", 1, 1),
            World.neighbour("U2", Side.TOP, 60, 58, "SAC305"));

    private static Job job(String id, String kind) {
        return new Job(id, "Logger", "dead", "Ferry", TYPE.id(), "U1", "quay-1", Routes.shipped()
                .beads(JobKind.REVIVE, Routes.recipes(TYPE.id(), "U1")),
                Facts.none().with("job.kind=" + kind));
    }

    private static Job note(Job job, String type, Map<String, Object> fields) {
        return note(job, type, "2026-11-20T10:00:00Z", fields);
    }

    private static Job note(Job job, String type, String at, Map<String, Object> fields) {
        return job.with(new Kept(job.freeId(type), type, Instant.parse(at), "", fields));
    }

    private static Job heated(Job job, String part) {
        return note(job, "exposure", Map.of("part", part, "event", "lift_run"));
    }

    private static Board seen(Job job, Job... others) {
        return seen(RunPlan.Task.LIFT, job, others);
    }

    private static Board seen(RunPlan.Task next, Job job, Job... others) {
        return ThisUnit.of(TYPE, job, List.of(others), List.of(), next);
    }

    private static String alloy(Board board, String chip) {
        return board.requireChip(chip).joint().alloy().name();
    }

    @Test
    public void whereNothingIsOnRecordItIsTheType() {
        assertEquals(seen(job("SB-1", "revive")), TYPE);
    }

    /** Two boards of one type: what one went through says nothing of the other, unless the serial number is the same. */
    @Test
    public void everyUnitHasALifeOfItsOwn() {
        Job first = heated(heated(heated(job("SB-1", "revive"), "U1"), "U1"), "U2");
        Job second = job("SB-2", "revive");
        assertEquals(seen(first).requireChip("U1").melts(), 3, "once when it was made, twice here");
        assertEquals(seen(first).requireChip("U2").melts(), TYPE.requireChip("U2").melts() + 1);
        assertEquals(seen(second, first), TYPE, "another unit of the type");
        Job back = note(job("SB-3", "revive"), "unit", Map.of("serial", "a-17"));
        Job known = note(first, "unit", Map.of("serial", "A-17 "));
        assertEquals(seen(back, known, second).requireChip("U1").melts(), 3, "it came back");
        Job elsewhere = new Job("SB-4", "Logger", "dead", "Ferry", "WB-8", "U1", "quay-1", known.beads(),
                known.facts(), known.records());
        assertEquals(seen(back, elsewhere).requireChip("U1").melts(), 1, "a serial of another type of board");
    }

    /** What the strands of the job did to its board counts, and the other way round. */
    @Test
    public void strandsAreOfTheSameUnit() {
        Job main = heated(job("SB-1", "revive"), "U2");
        Job strand = Strands.begin(main, List.of(), TYPE, "U2", JobKind.REPLACE,
                new HouseRoute(JobKind.REPLACE, List.of()), Optional.empty());
        int made = TYPE.requireChip("U2").melts();
        assertEquals(seen(strand, main).requireChip("U2").melts(), made + 1);
        Job worked = heated(strand, "U1");
        assertEquals(seen(main, worked).requireChip("U1").melts(), 2);
    }

    /** A donor of the same type has a life of its own, also where the patient's serial number is known. */
    @Test
    public void aDonorOfTheSameTypeIsAnotherUnit() {
        Job main = note(heated(job("SB-1", "transplant"), "U2"), "unit", "2026-11-19T10:00:00Z",
                Map.of("serial", "T-14"));
        Job donor = Strands.begin(main, List.of(), TYPE, "U2", JobKind.HARVEST,
                new HouseRoute(JobKind.HARVEST, List.of()), Optional.of("donor"));
        int made = TYPE.requireChip("U2").melts();
        assertEquals(seen(donor, main).requireChip("U2").melts(), made);
        assertEquals(ThisUnit.serial(donor, List.of(main, donor)), Optional.empty());
        assertEquals(seen(main, heated(donor, "U2")).requireChip("U2").melts(), made + 1,
                "its own heat alone");
    }

    /** Joints are heated as what they are made of by the last word on them; a mix that no table knows leaves the type's. */
    @Test
    public void jointsAreOfTheAlloyThatIsInThemNow() {
        Job old = note(job("SB-1", "revive"), "joint", "2026-11-19T10:00:00Z",
                Map.of("site", "U2", "alloy", "Sn63Pb37"));
        assertEquals(alloy(seen(old), "U2"), "Sn63Pb37");
        assertEquals(alloy(seen(old), "U1"), "SAC305");
        Job newer = note(old, "joint", "2026-11-20T10:00:00Z", Map.of("site", "U2", "alloy", "Sn42Bi58"));
        assertEquals(alloy(seen(newer), "U2"), "Sn42Bi58");
        Job mixed = note(job("SB-1", "revive"), "joint", Map.of("site", "U2", "alloy", "some of both"));
        assertEquals(alloy(seen(mixed), "U2"), "SAC305");
    }

    /** The seat melts the new balls, the lift the old joints: SAC balls under a leaded type must not count as molten at 183. */
    @Test
    public void theSeatMeltsTheNewBalls() {
        Job job = note(job("SB-1", "revive"), "plan", Map.of("ball_alloy", "Sn63Pb37"));
        assertEquals(alloy(seen(RunPlan.Task.LIFT, job), "U1"), "SAC305");
        Board seat = seen(RunPlan.Task.SEAT, job);
        assertEquals(alloy(seat, "U1"), "Sn63Pb37");
        assertEquals(alloy(seat, "U2"), "SAC305");
        Board leaded = TYPE.with(TYPE.requireChip("U1").soldered(
                org.greenbead.core.alloy.Alloys.require("Sn63Pb37")));
        Job sac = note(job("SB-2", "replace"), "chip", Map.of("ball_alloy", "SAC305", "origin", "new"));
        Board comes = ThisUnit.of(leaded, heated(sac, "U1"), List.of(), List.of(), RunPlan.Task.SEAT);
        assertEquals(comes.requireChip("U1").joint().alloy().liquidusC(), 220, 4);
        assertEquals(comes.requireChip("U1").melts(), 0, "it was never on a board");
        assertEquals(comes.requireChip("U2").melts(), leaded.requireChip("U2").melts());
    }

    /** What was read is no guess any more; hours out of dry storage are those of this chip. */
    @Test
    public void whatWasReadIsNoGuess() {
        Board guessed = TYPE.put(TYPE.requireChip("U1"), List.of("copper", "U1.alloy", "U2.alloy"));
        Job job = note(note(job("SB-1", "revive"), "joint", Map.of("site", "U1", "alloy", "Sn63Pb37")),
                "chip",
                Map.of("open_days", 3.0));
        Board board = ThisUnit.of(guessed, job, List.of(), List.of(), RunPlan.Task.LIFT);
        assertEquals(board.assumed(), List.of("copper", "U2.alloy"));
        assertEquals(board.requireChip("U1").openH(), 72, 1e-9);
        assertEquals(board.requireChip("U2").openH(), guessed.requireChip("U2").openH(), 1e-9);
    }

    /** However often something was written down, a board can be planned on. */
    @Test
    public void aThousandHeatsAreShownAsMany() {
        Job job = job("SB-1", "revive");
        for (int i = 0; i < 60; i++) {
            job = heated(job, "U1");
        }
        assertEquals(seen(job).requireChip("U1").melts(), 50);
        assertTrue(seen(job).requireChip("U2").melts() < 10);
    }
}
