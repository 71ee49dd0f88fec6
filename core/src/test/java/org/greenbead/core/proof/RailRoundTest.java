package org.greenbead.core.proof;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.electric.Rails;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Rails in the order of measuring, with what other jobs on the same type of board know. */
public class RailRoundTest {
    private static Job job(String id, Object... rails) {
        Job base = World.job(Attest.NO);
        Job job = new Job(id, base.title(), base.complaint(), base.customer(), base.board(), base.target(),
                base.bench(), base.beads());
        for (int i = 0; i < rails.length; i++) {
            @SuppressWarnings("unchecked")
            var fields = (Map<String, Object>) rails[i];
            job = job.with(new Kept("rail-" + (i + 1), "rail", Instant.EPOCH, "me", fields));
        }
        return job;
    }

    @Test
    public void whatOtherBoardsOfTheTypeReadIsWhatIsMeasuredNext() {
        Job other = job("SB-0900", Map.of("name", "Core", "reference_ohm", 18.2, "point", "36.0, 41.5 top"),
                Map.of("name", "io", "reference_ohm", 640.0, "point", "C118, left pad"));
        Job mine = job("SB-0901", Map.of("name", "radio", "ohm", 312.0));
        RailRound round = RailRound.of(mine, List.of(mine, other), false);
        assertEquals(round.stops().stream().map(RailRound.Stop::name).toList(),
                List.of("radio", "Core", "io"));
        assertEquals(round.next().orElseThrow().name(), "Core");
        RailRound.Stop core = round.next().orElseThrow();
        assertEquals(core.healthyOhm(), 18.2);
        assertEquals(core.boards(), 1);
        assertEquals(core.place().orElseThrow(), new RailRound.Place(new Point(36, 41.5), Side.TOP));
        assertTrue(round.stops().getLast().place().isEmpty(), "in words alone");
        assertEquals(round.stops().getFirst().verdict(), Rails.Verdict.MISSING, "nothing to hold it against");
        assertTrue(RailRound.of(mine, List.of(mine), false).next().isEmpty());
    }

    @Test
    public void aReadingIsHeldAgainstTheHealthyBoardAndAfterTheWorkAgainstItself() {
        Job other = job("SB-0900", Map.of("name", "core", "reference_ohm", 18.2));
        Job mine = job("SB-0901", Map.of("name", "core", "ohm", 1.5, "lead_ohm", 0.3),
                Map.of("name", "aux", "ohm", 50.0, "after_ohm", 80.0));
        RailRound before = RailRound.of(mine, List.of(mine, other), false);
        assertEquals(before.stops().getFirst().verdict(), Rails.Verdict.SHORT);
        assertEquals(before.stops().getFirst().ohm(), 1.2, 1e-9);
        assertEquals(before.odd().size(), 1);
        RailRound after = RailRound.of(mine, List.of(mine, other), true);
        assertEquals(after.next().orElseThrow().name(), "core", "not read again yet");
        assertEquals(after.odd().getFirst().name(), "aux", "60 % over itself before the work");
        Job healed = mine.with(mine.records("rail").getFirst().with("after_ohm", 18.9, Instant.EPOCH, "me"));
        assertEquals(RailRound.of(healed, List.of(other), true).stops().getFirst().verdict(),
                Rails.Verdict.PASS);
    }

    /** Rails whose points lie side by side are read against one another once; far ones and those on the other side are not. */
    @Test
    public void neighboursAreReadAgainstOneAnother() {
        Job mine = job("SB-0901", Map.of("name", "core", "ohm", 18.0, "point", "30.0, 40.0 top"),
                Map.of("name", "io", "ohm", 600.0, "point", "38.0, 41.0 top"),
                Map.of("name", "radio", "ohm", 90.0, "point", "33.0, 40.0 bottom"),
                Map.of("name", "aux", "ohm", 70.0, "point", "80.0, 40.0 top"));
        RailRound round = RailRound.of(mine, List.of(mine), false);
        assertEquals(round.stops().stream().map(RailRound.Stop::name).toList(),
                List.of("core", "io", "radio", "aux", "core to io"));
        assertTrue(round.next().isEmpty(), "a suggestion holds nothing up");
        assertEquals(round.further().orElseThrow().name(), "core to io");
        Job read = mine.with(round.kept(mine, "core to io", 0.3, "bench two", Instant.EPOCH, "me"));
        RailRound now = RailRound.of(read, List.of(read), false);
        assertTrue(now.further().isEmpty());
        assertEquals(now.odd().stream().map(RailRound.Stop::name).toList(), List.of("core to io"));
        assertEquals(read.records("rail").getLast().text("meter"), "bench two");
        Job other = job("SB-0902", Map.of("name", "io to core", "ohm", 500.0), Map.of("name", "core", "point",
                "30.0, 40.0 top"), Map.of("name", "io", "point", "38.0, 41.0 top"));
        assertTrue(RailRound.of(other, List.of(other), false).further().isEmpty(), "either way round");
    }

    /** The round and the wall say the same of a reading that was taken otherwise. */
    @Test
    public void aReadingTakenOtherwiseIsNoPass() {
        Job mine = job("SB-0901", Map.of("name", "core", "ohm", 18.0, "meter", "bench two", "after_ohm", 18.2,
                "meter_after", "bench two, red on ground"));
        RailRound round = RailRound.of(mine, List.of(mine), true);
        assertEquals(round.stops().getFirst().verdict(), Rails.Verdict.OTHERWISE);
        Job other = job("SB-0900", Map.of("name", "core", "reference_ohm", 18.2));
        Job turned = job("SB-0902", Map.of("name", "core", "ohm", 9.0, "meter", "red on ground"));
        assertEquals(RailRound.of(turned, List.of(turned, other), false).stops().getFirst().verdict(),
                Rails.Verdict.MISSING, "a healthy board was read the usual way round");
    }

    @DataProvider
    Object[][] readings() {
        return new Object[][]{{"18.4", 18.4}, {"18,4", 18.4}, {" 1.2k ", 1200}, {"4.7 M", 4.7e6},
                {"0.31 ohm", 0.31}, {"OL", RailRound.OPEN_OHM}, {"open", RailRound.OPEN_OHM},
                {"640 \u03a9", 640}};
    }

    @Test(dataProvider = "readings")
    public void readingsAreTypedAsTheMeterShowsThem(String typed, double ohm) {
        assertEquals(RailRound.reading(typed), ohm, 1e-9);
    }

    @DataProvider
    Object[][] nonsense() {
        return new Object[][]{{""}, {"-3"}, {"12 V"}, {"1.2.3"}, {"k"}, {"NaN"}, {"1e400"}};
    }

    @Test(dataProvider = "nonsense")
    public void nonsenseIsNoReading(String typed) {
        assertThrows(IllegalArgumentException.class, () -> RailRound.reading(typed));
    }

    @Test
    public void aNameMayStandBeforeAReading() {
        assertEquals(RailRound.Typed.of("18.4"), new RailRound.Typed(java.util.Optional.empty(), 18.4));
        assertEquals(RailRound.Typed.of("4.7 M").ohm(), 4.7e6);
        assertEquals(RailRound.Typed.of("radio supply 1.2k"),
                new RailRound.Typed(java.util.Optional.of("radio supply"), 1200));
        assertThrows(IllegalArgumentException.class, () -> RailRound.Typed.of("twelve volts"));
        assertFalse(RailRound.afterTheWork(job("SB-0901")), "nothing was lifted yet");
        Job lifted = job("SB-0901").with("lift_run", org.greenbead.core.route.BeadState.GREEN);
        assertTrue(RailRound.afterTheWork(lifted));
    }

    @Test
    public void aCommaAloneIsNoPlace() {
        assertEquals(Point.place("36x58"), new Point(36, 58));
        assertEquals(Point.place("36,5 x 58,5 mm"), new Point(36.5, 58.5));
        assertThrows(IllegalArgumentException.class, () -> Point.place("75,50"));
        assertThrows(IllegalArgumentException.class, () -> Point.place("75"));
    }

    @Test
    public void aPlaceComesBackAsItWasWritten() {
        var place = new RailRound.Place(new Point(12.5, 80.1), Side.BOTTOM);
        assertEquals(RailRound.placed(place.said()).orElseThrow(), place);
        assertTrue(RailRound.placed("C118").isEmpty());
        assertFalse(RailRound.placed("12.5, 80.1 top").isEmpty());
    }
}
