package org.greenbead.core.timer;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.LowestSolidus;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.electric.TestLog;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Waits that run while other work goes on, and what their end writes down. */
public class TimersTest {
    private static final Instant NOON = Instant.parse("2031-04-02T12:00:00Z");
    private static final String BY = "technician B";

    private static Job job() {
        return World.job(Attest.UNKNOWN)
                .withBeads(Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")));
    }

    private static Timers.Start heat(JobTimer.Kind kind, double minutes, double c, double labelC,
            double labelMin) {
        return new Timers.Start(kind, "", minutes, OptionalDouble.of(c), OptionalDouble.of(labelC),
                OptionalDouble.of(labelMin));
    }

    private static Job start(Job job, Timers.Start what, long afterMin) {
        return Timers.start(job, what, NOON.plus(Duration.ofMinutes(afterMin)), ZoneOffset.UTC, BY);
    }

    private static Job end(Job job, String timer, long afterMin) {
        return Timers.end(job, timer, Optional.empty(), NOON.plus(Duration.ofMinutes(afterMin)),
                ZoneOffset.UTC, BY);
    }

    private static boolean finds(Job job, String rule) {
        return Judgement.of(job, Optional.empty(), Optional.empty(), Optional.empty(), RuleBook.shipped(),
                RuleBook.Settings.STANDARD).judged().open().stream()
                .anyMatch(n -> n.rule().id().equals(rule));
    }

    @Test
    public void ringsWhenItsTimeIsOverAndNotBefore() {
        JobTimer rest = JobTimer.of(start(job(), Timers.Start.plain(JobTimer.Kind.REST, 30), 0)).getFirst();
        assertEquals(rest.due(), NOON.plusSeconds(1800));
        assertEquals(rest.leftS(NOON.plusSeconds(600)), 1200.0, 1e-9);
        assertEquals(rest.gone(NOON.plusSeconds(600)), 1 / 3.0, 1e-9);
        assertFalse(rest.rings(NOON.plusSeconds(1799)));
        assertTrue(rest.rings(NOON.plusSeconds(1800)));
        // A clock that was set back an hour.
        assertEquals(rest.gone(NOON.minusSeconds(3600)), 0.0);
        assertEquals(rest.lastedMin(NOON.minusSeconds(3600)), 0.0);
    }

    /** A bake of 14 h is in its record while it runs, with its temperature and its planned time, and has its end there afterwards. */
    @Test
    public void bakeIsInTheAccountFromItsStart() {
        Job baking = start(job(), heat(JobTimer.Kind.BAKE, 14 * 60, 90, 90, 13 * 60), 0);
        Kept bake = baking.records("bake").getFirst();
        assertEquals(bake.number("c"), 90.0);
        assertEquals(bake.text("start"), "2031-04-02 12:00");
        assertTrue(bake.text("end").isEmpty());
        assertFalse(finds(baking, "moisture.bake-without-end"), "its planned end is known");
        Job done = end(baking, "timer-1", 14 * 60 + 5);
        assertEquals(done.record("bake-1").orElseThrow().text("end"), "2031-04-03 02:05");
        assertFalse(done.record("timer-1").orElseThrow().yes("stopped"));
        assertFalse(finds(done, "prove.cure-not-as-label"));
    }

    /** Half an hour of the two that the label asks for. */
    @Test
    public void cureCutShortIsNoticedAgainstItsLabel() {
        Job curing = start(job(), heat(JobTimer.Kind.CURE, 120, 80, 80, 120), 0);
        Job early = end(curing, "timer-1", 30);
        assertTrue(early.record("timer-1").orElseThrow().yes("stopped"));
        assertTrue(finds(early, "prove.cure-not-as-label"));
        assertFalse(finds(end(curing, "timer-1", 121), "prove.cure-not-as-label"));
        Job cool = start(job(), heat(JobTimer.Kind.CURE, 120, 60, 80, 120), 0);
        assertTrue(finds(cool, "prove.cure-not-as-label"), "too cold is known at the start");
    }

    /** A board with a joint of the low bismuth alloy: 138 °C. */
    @Test
    public void ovenIsHeldAgainstTheLowestSolidusOfTheBoard() {
        Job repaired = job().with(new Kept("joint-1", "joint", NOON, BY,
                Map.of("site", "U4", "alloy", "Sn42Bi58")));
        assertTrue(finds(start(repaired, heat(JobTimer.Kind.BAKE, 60, 135, 135, 60), 0),
                "alloy.oven-over-old-joint"));
        Job near = start(repaired, heat(JobTimer.Kind.BAKE, 60, 125, 125, 60), 0);
        assertFalse(finds(near, "alloy.oven-over-old-joint"));
        assertTrue(finds(near, "alloy.oven-softens-old-joint"));
        assertFalse(finds(start(repaired, heat(JobTimer.Kind.BAKE, 60, 90, 90, 60), 0),
                "alloy.oven-softens-old-joint"));
    }

    @Test
    public void dryingIsWrittenIntoTheWash() {
        Job washed = job().with(new Kept("wash-1", "wash", NOON, BY, Map.of("kind", "alcohol")));
        Job done = end(start(washed, Timers.Start.plain(JobTimer.Kind.DRY, 10), 1), "timer-1", 13);
        assertEquals(done.record("wash-1").orElseThrow().number("dried_min"), 12.0, 1e-9);
    }

    /** The label's time is offered, and how long the load really lay is written beside it; too short is told. */
    @Test
    public void pressingIsWrittenBesideTheLabel() {
        Job glued = job().with(new Kept("enclosure-1", "enclosure", NOON, BY,
                Map.of("press_min", 30.0, "press_cm2", 105.0, "press_kg", 40.0, "trapped_check", true)));
        UsualWaits.Wait offered = usual(glued, JobFacts.of(glued), 1, JobTimer.Kind.PRESS, NOON);
        assertEquals(offered.minutes().getAsDouble(), 30.0);
        assertEquals(offered.because(), UsualWaits.Because.PRESS_LABEL);
        assertTrue(usual(job(), Facts.none(), 1, JobTimer.Kind.PRESS, NOON).minutes().isEmpty(),
                "no label, no figure");
        Job early = end(start(glued, Timers.Start.plain(JobTimer.Kind.PRESS, 30), 1), "timer-1", 13);
        assertEquals(early.record("enclosure-1").orElseThrow().number("pressed_min"), 12.0, 1e-9);
        assertTrue(finds(early, "close.pressed-too-short"));
        Job whole = end(start(glued, Timers.Start.plain(JobTimer.Kind.PRESS, 30), 1), "timer-1", 31);
        assertFalse(finds(whole, "close.pressed-too-short"));
    }

    @DataProvider
    Object[][] tests() {
        return new Object[][]{{60L, Optional.of(Timers.Result.PASS), "pass"},
                {60L, Optional.of(Timers.Result.FAIL), "fail"}, {60L, Optional.empty(), "not_tested"},
                {20L, Optional.of(Timers.Result.PASS), "not_tested"},
                {20L, Optional.of(Timers.Result.FAIL), "fail"}};
    }

    /** A test that was broken off has not passed; one that failed has failed whenever it was seen. */
    @Test(dataProvider = "tests")
    public void longTestEndsAsAProof(long afterMin, Optional<Timers.Result> result, String kept) {
        Job testing = start(job(), new Timers.Start(JobTimer.Kind.TEST, "memory pass", 60,
                OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty()), 0);
        Kept tested = Timers.end(testing, "timer-1", result, NOON.plus(Duration.ofMinutes(afterMin)),
                ZoneOffset.UTC, BY).records("tested").getFirst();
        assertEquals(tested.text("result"), kept);
        assertEquals(tested.text("what"), "memory pass");
        assertEquals(tested.number("minutes"), afterMin, 1e-9);
    }

    @DataProvider
    Object[][] ownWords() {
        return new Object[][]{{"Pass 1 complete, 0 errors", "pass", Boolean.TRUE},
                {"FAIL at 0x00200000 wrote 00000000 read 00020000", "fail", Boolean.FALSE},
                {"pass 1 of 4: 31 %", "not_tested", null}};
    }

    /** The log of a test says how it came out, however long it ran, and opens the memory's gate or shuts it. */
    @Test(dataProvider = "ownWords")
    public void aLogSaysHowItCameOut(String text, String result, Boolean passes) {
        Job memory = World.job(Attest.UNKNOWN)
                .withBeads(Routes.shipped().beads(JobKind.MEMORY, Routes.recipes("WB-7", "U1")));
        Job testing = start(memory, new Timers.Start(JobTimer.Kind.TEST, "memory", 60, OptionalDouble.empty(),
                OptionalDouble.empty(), OptionalDouble.empty()), 0);
        Job told = Timers.end(testing, "timer-1",
                new LongTest(TestLog.read(text), "00000000000000000000.txt"),
                NOON.plus(Duration.ofMinutes(20)), ZoneOffset.UTC, BY,
                new Words(Locale.ENGLISH, TempUnit.CELSIUS));
        Kept tested = told.records("tested").getFirst();
        assertEquals(told.records("tested").size(), 1);
        assertEquals(tested.text("result"), result);
        assertEquals(tested.noted("memory_pass").orElse(null), passes);
        assertEquals(tested.number("minutes"), 20, 1e-9);
        assertTrue(tested.text("evidence").length() > 20 && !tested.text("evidence").contains("{"),
                tested.text("evidence"));
        boolean open = Gates
                .unshown("prove_memory",
                        Judgement.of(told, Optional.empty(), Optional.empty(), Optional.empty(),
                                RuleBook.shipped(), RuleBook.Settings.STANDARD).look().evidence().facts())
                .isEmpty();
        assertEquals(open, Boolean.TRUE.equals(passes), "the gate of the memory");
        assertTrue(expectThrows(IllegalArgumentException.class, () -> Timers.end(
                start(memory, Timers.Start.plain(JobTimer.Kind.REST, 30), 0), "timer-1",
                new LongTest(TestLog.read(text), ""), NOON, ZoneOffset.UTC, BY,
                new Words(Locale.ENGLISH, TempUnit.CELSIUS))).getMessage().contains("waits for no test"));
    }

    private static JobTimer soak(Job soaking) {
        return JobTimer.of(soaking).getLast();
    }

    @DataProvider
    Object[][] turns() {
        return new Object[][]{{-5.0, 1, true, 20.0}, {0.0, 1, true, 15.0}, {14.99, 1, true, 0.01},
                {15.0, 1, false, 15.0}, {29.5, 1, false, 0.5}, {30.0, 2, true, 15.0}, {119.9, 4, false, 0.1}};
    }

    /** Two hours, four times warm and cool: a quarter of an hour each. */
    @Test(dataProvider = "turns")
    public void soakTurnsFromWarmToCoolAndBack(double afterMin, int cycle, boolean warm, double leftMin) {
        JobTimer soak = soak(start(job(), Timers.Start.soak("boots and logs", 120, 4), 0));
        JobTimer.Turn turn = soak.turn(NOON.plusMillis(Math.round(afterMin * 60_000))).orElseThrow();
        assertEquals(turn.cycle(), cycle);
        assertEquals(turn.warm(), warm);
        assertEquals(turn.leftS(), Math.min(15, leftMin) * 60, 1e-6);
        assertTrue(soak.turn(NOON.plusSeconds(7200)).isEmpty(), "its time is over");
        assertTrue(JobTimer.of(start(job(), Timers.Start.plain(JobTimer.Kind.TEST, 120), 0)).getFirst()
                .turn(NOON).isEmpty());
    }

    @DataProvider
    Object[][] soaked() {
        return new Object[][]{{120L, Optional.of(Timers.Result.PASS), "pass", 4.0},
                {300L, Optional.of(Timers.Result.PASS), "pass", 4.0},
                {89L, Optional.of(Timers.Result.PASS), "not_tested", 2.0},
                {91L, Optional.of(Timers.Result.FAIL), "fail", 3.0},
                {120L, Optional.empty(), "not_tested", 4.0}};
    }

    /** Only cycles gone through whole count; one that was broken off has not passed. */
    @Test(dataProvider = "soaked")
    public void soakEndsAsAProofWithItsCycles(long afterMin, Optional<Timers.Result> result, String kept,
            double cycles) {
        Job soaking = start(job(), Timers.Start.soak("", 120, 4), 0);
        Kept tested = Timers.end(soaking, "timer-1", result, NOON.plus(Duration.ofMinutes(afterMin)),
                ZoneOffset.UTC, BY).records("tested").getFirst();
        assertEquals(tested.text("result"), kept);
        assertEquals(tested.number("cycles"), cycles, 0.0);
        assertEquals(tested.text("what"), "soak through heat cycles");
    }

    /** A complaint that came with warmth is not gone by a cold test, and is by a soak that the timer led. */
    @Test
    public void warmthIsTriedAgainThroughTheTimer() {
        Job warm = job().with(new Kept("symptom-1", "symptom", NOON, BY,
                Map.of("words", "dark", "changes_with", List.of("warm"))))
                .with(new Kept("tested-1", "tested", NOON, BY,
                        Map.of("what", "dark", "result", "pass", "minutes", 45.0)));
        assertTrue(finds(warm, "prove.warmth-not-tried-again"));
        Job soaked = Timers.end(start(warm, Timers.Start.soak("dark", 120, 4), 0), "timer-1",
                Optional.of(Timers.Result.PASS), NOON.plus(Duration.ofMinutes(121)), ZoneOffset.UTC, BY);
        assertFalse(finds(soaked, "prove.warmth-not-tried-again"));
        Job brief = Timers.end(start(warm, Timers.Start.soak("dark", 60, 2), 0), "timer-1",
                Optional.of(Timers.Result.PASS), NOON.plus(Duration.ofMinutes(61)), ZoneOffset.UTC, BY);
        assertTrue(finds(brief, "prove.warmth-not-tried-again"), "two cycles are too few");
    }

    @Test
    public void refusedInWords() {
        assertTrue(
                expectThrows(IllegalArgumentException.class, () -> Timers.Start.soak("", 5, 4)).getMessage()
                        .contains("too quick"));
        expectThrows(IllegalArgumentException.class, () -> Timers.Start.soak("", 120, 0));
        expectThrows(IllegalArgumentException.class, () -> Timers.Start.soak("", 600, 51));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> new Timers.Start(JobTimer.Kind.REST, "", 30, OptionalDouble.empty(),
                        OptionalDouble.empty(), OptionalDouble.empty(), 3))
                .getMessage().contains("soak"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> Timers.Start.plain(JobTimer.Kind.CURE, 30)).getMessage().contains("temperature"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> Timers.Start.plain(JobTimer.Kind.OTHER, 30)).getMessage().contains("words"));
        expectThrows(IllegalArgumentException.class, () -> Timers.Start.plain(JobTimer.Kind.REST, 0));
        expectThrows(IllegalArgumentException.class, () -> Timers.Start.plain(JobTimer.Kind.REST, 1e6));
        Job done = end(start(job(), Timers.Start.plain(JobTimer.Kind.REST, 30), 0), "timer-1", 30);
        assertTrue(expectThrows(IllegalArgumentException.class, () -> end(done, "timer-1", 31)).getMessage()
                .contains("ended already"));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> end(done, "timer-7", 31)).getMessage()
                .contains("timer-7"));
    }

    /** Cycles that cannot be leave no timer that would lead nobody; the record stays to be corrected. */
    @Test
    public void soakWithoutCyclesIsNone() {
        for (Object cycles : new Object[]{0.0, 2.5, 1e9}) {
            Job job = job()
                    .with(new Kept("timer-1", "timer", NOON, BY, Map.of("what", "soak", "minutes", 120.0,
                            "started", NOON.toString(), "cycles", cycles)));
            assertEquals(JobTimer.of(job), List.of(), String.valueOf(cycles));
        }
    }

    /** A record whose start is no time is no timer; it stays to be corrected, and the others run on. */
    @Test
    public void unreadableOneDoesNotStopTheOthers() {
        Job job = start(job(), Timers.Start.plain(JobTimer.Kind.REST, 30), 0)
                .with(new Kept("timer-9", "timer", NOON, BY,
                        Map.of("what", "rest", "minutes", 5.0, "started", "noon or so")));
        assertEquals(JobTimer.of(job).stream().map(JobTimer::record).toList(), List.of("timer-1"));
        assertTrue(job.record("timer-9").isPresent());
    }

    @Test
    public void firstToRingStandsInFront() {
        Job one = start(job(), Timers.Start.plain(JobTimer.Kind.REST, 30), 0);
        Job both = start(one, Timers.Start.plain(JobTimer.Kind.DRY, 10), 5);
        assertEquals(Timers.running(List.of(both)).stream().map(JobTimer::kind).toList(),
                List.of(JobTimer.Kind.DRY, JobTimer.Kind.REST));
        assertEquals(Timers.over(List.of(end(both, "timer-2", 20))).getFirst().kind(), JobTimer.Kind.DRY);
    }

    private static UsualWaits.Wait usual(Job job, Facts facts, double bodyMm, JobTimer.Kind kind,
            Instant now) {
        return UsualWaits.of(job, facts, OptionalDouble.of(bodyMm), RuleBook.shipped(),
                RuleBook.Settings.STANDARD, now).get(kind.ordinal());
    }

    /** J-STD-033: level 3, 1.4 mm, over its floor life by less than 72 h: 125 °C for 7 h, 90 °C for 23 h. */
    @Test
    public void bakeComesFromItsTableAndSparesTheJoints() {
        Facts lead = Facts.none().with("chip.msl='3'; chip.open_days=9; joints.0.solidus_c=183");
        var quick = usual(job(), lead, 1.2, JobTimer.Kind.BAKE, NOON);
        assertEquals(quick.minutes().getAsDouble(), 7 * 60.0);
        assertEquals(quick.c().getAsDouble(), 125.0);
        var low = usual(job(), lead.with("joints.0.solidus_c=138"), 1.2, JobTimer.Kind.BAKE, NOON);
        assertEquals(low.c().getAsDouble(), 90.0);
        assertEquals(low.minutes().getAsDouble(), 23 * 60.0);
        var unknown = usual(job(), Facts.none().with("chip.msl='3'"), 1.2, JobTimer.Kind.BAKE, NOON);
        assertTrue(unknown.minutes().isEmpty());
        assertEquals(unknown.because(), UsualWaits.Because.NOT_KNOWN);
    }

    /** Newton: from 150 to 48 °C in a room of 23 °C with a time constant of 150 s takes 150 ln(127/25) = 244 s. */
    @Test
    public void coolingIsCountedFromTheEndOfTheHeat() {
        var fields = new HashMap<String, Object>(Map.of("bead", "lift_run", "kind", "lift", "end_c", 150.0));
        Job heated = job().with(new Kept("run-1", "run", NOON, BY, fields));
        assertEquals(usual(heated, Facts.none(), 1, JobTimer.Kind.COOL, NOON).minutes().getAsDouble(), 5.0);
        assertEquals(usual(heated, Facts.none(), 1, JobTimer.Kind.COOL, NOON.plusSeconds(150)).minutes()
                .getAsDouble(), 2.0);
        assertEquals(usual(heated, Facts.none(), 1, JobTimer.Kind.COOL, NOON.plusSeconds(9000)).minutes()
                .getAsDouble(), 1.0);
    }

    /** The wait before heat is the rule's own, in the house's setting of it. */
    @Test
    public void dryingIsTheRulesWait() {
        assertEquals(usual(job(), Facts.none(), 1, JobTimer.Kind.DRY, NOON).minutes().getAsDouble(), 10.0);
        var house = RuleBook.Settings.STANDARD.with("safety.solvent-and-heat/wait", Optional.of(25.0));
        assertEquals(
                UsualWaits.of(job(), Facts.none(), OptionalDouble.empty(), RuleBook.shipped(), house, NOON)
                        .get(JobTimer.Kind.DRY.ordinal()).minutes().getAsDouble(),
                25.0);
    }

    @Test
    public void lowestSolidusIsTheCautiousOne() {
        assertTrue(LowestSolidus.of(Facts.none()).isEmpty());
        assertEquals(LowestSolidus.of(Facts.none().with("board.factory_alloy=SAC305; joints.0.solidus_c=183"))
                .getAsDouble(), 183.0);
        assertEquals(
                LowestSolidus.of(Facts.none().with("joints.0.bi_pct=3; joints.0.pb_pct=2")).getAsDouble(),
                96.0);
    }
}
