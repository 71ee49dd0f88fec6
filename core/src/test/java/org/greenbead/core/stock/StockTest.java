package org.greenbead.core.stock;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** Counters of things in stock against the account of what was done with them. */
public class StockTest {
    private static final Instant NOON = Instant.parse("2031-04-02T12:00:00Z");

    private static Job job(String id) {
        Job job = World.job(Attest.UNKNOWN)
                .withBeads(Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")));
        return new Job(id, job.title(), job.complaint(), job.customer(), job.board(), job.target(),
                job.bench(),
                job.beads(), job.facts().with("job.kind=revive"));
    }

    private static StockItem paste() {
        return new StockItem("PA-1", StockItem.Kind.PASTE, "paste, fine", "Sn63Pb37", "L12", "g", 5, 0.8,
                Optional.of(8.0), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.empty(), List.of(), List.of());
    }

    private static StockItem stencil(double usesMax, String... fits) {
        return new StockItem("ST-1", StockItem.Kind.STENCIL, "0.40 mm field", "", "", "", 0, 0,
                Optional.empty(),
                Optional.of(usesMax), Optional.of(3.0), Optional.of(0.24), Optional.of(0.1), Optional.empty(),
                List.of(fits), List.of());
    }

    private static StockItem after(StockItem item, StockItem.Act act, double hours, double amount) {
        return item.with(
                new StockItem.Moment(NOON.plusMillis(Math.round(hours * 3_600_000)), act, amount, "", "A"));
    }

    private static Instant at(double hours) {
        return NOON.plus(Duration.ofMillis(Math.round(hours * 3_600_000)));
    }

    private static List<String> found(Job job) {
        return Judgement.of(job, Optional.empty(), Optional.empty(), Optional.empty(), RuleBook.shipped(),
                RuleBook.Settings.STANDARD).judged().open().stream().map(n -> n.rule().id()).toList();
    }

    /** Out from 0 to 2 h and from 5 h on: at 6 h it was out for 3 h, whoever asks. */
    @Test
    public void hoursOutAreTheSumOfAllTimes() {
        StockItem jar = after(after(after(paste(), StockItem.Act.OPENED, 0, 0), StockItem.Act.BACK, 2, 0),
                StockItem.Act.OUT, 5, 0);
        assertEquals(StockCounters.of(jar, at(6)).hoursOut(), 3.0, 1e-9);
        assertTrue(StockCounters.of(jar, at(6)).out());
        assertEquals(StockCounters.of(jar, at(4)).hoursOut(), 2.0, 1e-9, "a clock set back adds nothing");
        assertEquals(StockCounters.of(jar, at(6)).openedDay(ZoneOffset.UTC), Optional.of("2031-04-02"));
    }

    /** A thousand things done at random: what is left is what came less what went, from the last count on. */
    @Test
    public void amountIsTheSumOfItsAccount() {
        var random = new Random(11);
        StockItem jar = paste();
        double left = 0;
        int uses = 0;
        for (int i = 0; i < 1000; i++) {
            double amount = random.nextInt(5);
            switch (random.nextInt(4)) {
                case 0 -> {
                    jar = after(jar, StockItem.Act.TAKEN_IN, i, amount);
                    left += amount;
                }
                case 1 -> {
                    jar = after(jar, StockItem.Act.COUNTED, i, amount);
                    left = amount;
                }
                case 2 -> {
                    jar = after(jar, StockItem.Act.USED, i, Math.min(left, amount));
                    left -= Math.min(left, amount);
                    uses++;
                }
                default -> jar = after(jar, StockItem.Act.WASHED, i, 0);
            }
            StockCounters now = StockCounters.of(jar, at(i));
            assertEquals(now.left(), left, 1e-9);
            assertEquals(now.uses(), uses);
            assertEquals(now.low(jar), left <= 5);
        }
    }

    @Test
    public void pasteThatIsUsedBringsItsHoursAndItsCostToTheJob() {
        StockItem jar = after(after(paste(), StockItem.Act.TAKEN_IN, 0, 30), StockItem.Act.OPENED, 0, 0);
        StockUse.Taken taken = StockUse.take(job("SB-1"), "QX-510", jar, 2, at(9.5), ZoneOffset.UTC, "A");
        Kept lot = taken.job().records("lot").getFirst();
        assertEquals(lot.number("hours_out"), 9.5);
        assertEquals(lot.number("limit_hours"), 8.0);
        assertEquals(lot.text("alloy"), "Sn63Pb37");
        assertEquals(taken.job().records("cost").getFirst().number("material"), 1.6, 1e-9);
        assertEquals(StockCounters.of(taken.item(), at(10)).left(), 28.0);
        assertTrue(found(taken.job()).contains("beads.jar-left-open"), found(taken.job()).toString());
        StockUse.Taken fresh = StockUse.take(job("SB-1"), "QX-510", jar, 2, at(1), ZoneOffset.UTC, "A");
        assertFalse(found(fresh.job()).contains("beads.jar-left-open"));
    }

    /** Taken a second time on the same job it is the same record, later; another jar is another. */
    @Test
    public void sameJarIsTheSameRecord() {
        StockItem jar = after(paste(), StockItem.Act.OPENED, 0, 0);
        StockUse.Taken once = StockUse.take(job("SB-1"), "", jar, 0, at(1), ZoneOffset.UTC, "A");
        Job noted = once.job()
                .with(once.job().records("lot").getFirst().with("trial_print", "pass", at(1), "A"));
        StockUse.Taken twice = StockUse.take(noted, "", once.item(), 0, at(3), ZoneOffset.UTC, "A");
        assertEquals(twice.job().records("lot").size(), 1);
        assertEquals(twice.job().records("lot").getFirst().number("hours_out"), 3.0);
        assertEquals(twice.job().records("lot").getFirst().text("trial_print"), "pass",
                "what was noted stays");
        StockItem other = new StockItem("PA-2", StockItem.Kind.PASTE, "paste", "SAC305", "", "", 0, 0,
                Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.empty(), List.of(), List.of());
        assertEquals(
                StockUse.take(twice.job(), "", other, 0, at(4), ZoneOffset.UTC, "A").job().records("lot")
                        .size(),
                2);
    }

    /** Four jobs with one stencil that is good for three: the fourth is told, by the counter alone. */
    @Test
    public void usesOfAStencilAreCountedOverJobs() {
        StockItem stencil = after(stencil(3), StockItem.Act.FLAT, 0, 0);
        for (int n = 1; n <= 5; n++) {
            StockUse.Taken taken = StockUse.take(job("SB-" + n), "QX-510", stencil, 0, at(n), ZoneOffset.UTC,
                    "A");
            assertEquals(taken.job().records("stencil").getFirst().number("uses"), n - 1.0);
            assertEquals(found(taken.job()).contains("stencil.worn"), n == 5, "job " + n);
            stencil = after(taken.item(), StockItem.Act.WASHED, n + 0.5, 0);
        }
        List<String> asItLies = StockCounters.of(stencil, at(9))
                .noticed(stencil, RuleBook.shipped(), RuleBook.Settings.STANDARD).stream().map(Noticed::rule)
                .map(r -> r.id()).toList();
        assertTrue(asItLies.contains("stencil.worn"), asItLies.toString());
        assertTrue(asItLies.contains("stencil.bath-eats-coating") || asItLies.size() >= 2,
                "five baths of three: " + asItLies);
    }

    @Test
    public void stencilOfAnotherPartIsNoticedAndSoIsABlockedOne() {
        StockItem stencil = stencil(100, "PW-36");
        Job wrong = StockUse.take(job("SB-1"), "QX-510", stencil, 0, at(1), ZoneOffset.UTC, "A").job();
        assertTrue(found(wrong).contains("stencil.for-another-part"), found(wrong).toString());
        Job right = StockUse.take(job("SB-1"), "pw-36", stencil, 0, at(1), ZoneOffset.UTC, "A").job();
        assertFalse(found(right).contains("stencil.for-another-part"));
        StockItem blocked = after(stencil, StockItem.Act.BLOCKED, 0, 0);
        Job crumb = StockUse.take(job("SB-1"), "PW-36", blocked, 0, at(1), ZoneOffset.UTC, "A").job();
        assertTrue(found(crumb).contains("stencil.opening-blocked"), found(crumb).toString());
        assertFalse(StockCounters.of(after(blocked, StockItem.Act.WASHED, 1, 0), at(2)).blocked());
    }

    @Test
    public void spheresAndTools() {
        StockItem spheres = new StockItem("SP-1", StockItem.Kind.SPHERES, "spheres 0.25", "SAC305", "", "pcs",
                0, 0,
                Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(),
                Optional.of(0.25), List.of(), List.of());
        Job with = StockUse.take(job("SB-1"), "", spheres, 528, at(0), ZoneOffset.UTC, "A").job();
        assertEquals(with.records("spheres").getFirst().number("diameter_mm"), 0.25);
        StockItem tip = StockItem.named("TI-1", StockItem.Kind.TIP, "wide tip");
        StockUse.Taken taken = StockUse.take(with, "", tip, 0, at(0), ZoneOffset.UTC, "A");
        assertEquals(taken.job().records("kit").getFirst().fields(), Map.of("item", "wide tip TI-1"));
        assertEquals(StockCounters.of(taken.item(), at(0)).uses(), 1);
    }

    @Test
    public void refusedInWords() {
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> StockItem.named("../x", StockItem.Kind.TIP, "t")).getMessage()
                .contains("letters, digits"));
        expectThrows(IllegalArgumentException.class, () -> StockItem.named("A", StockItem.Kind.TIP, " "));
        expectThrows(IllegalArgumentException.class, () -> after(paste(), StockItem.Act.USED, 0, -1));
        StockItem gone = after(paste(), StockItem.Act.SCRAPPED, 0, 0);
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> StockUse.take(job("SB-1"), "", gone, 1, at(1), ZoneOffset.UTC, "A")).getMessage()
                .contains("thrown away"));
        assertFalse(StockCounters.of(gone, at(1)).low(gone), "what is gone is not ordered by itself");
        expectThrows(IllegalArgumentException.class, () -> paste().undone());
    }
}
