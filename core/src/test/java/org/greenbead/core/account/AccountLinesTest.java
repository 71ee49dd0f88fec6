package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Entry;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** An account in words: what one act wrote of one thing is one line, with where it comes from. */
public class AccountLinesTest {
    private static final Instant NOON = Instant.parse("2031-04-02T12:00:00Z");
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);

    private static Job later(Job before, Job after, long seconds, String by) {
        return Account.noted(Optional.of(before), after, NOON.plusSeconds(seconds), by);
    }

    private static AccountLines.Line last(Job job) {
        return AccountLines.of(job.account(), WORDS).getLast();
    }

    @Test
    public void oneActIsOneLine() {
        Job job = Account.noted(Optional.empty(), World.job(Attest.UNKNOWN), NOON, "Ada");
        Kept rail = new Kept("rail-1", "rail", NOON, "Ada", Map.of("name", "core", "ohm", 18.0));
        job = later(job, job.with(rail), 60, "Ada");
        AccountLines.Line noted = last(job);
        assertEquals(noted.about(), "\u201cA rail to ground\u201d 1");
        assertEquals(noted.source(), Origin.Source.RECORDED);
        assertEquals(List.copyOf(new java.util.TreeSet<>(noted.says())),
                List.of("Rail: core", "Resistance read, \u03a9: 18"));
        assertTrue(noted.byHand() && !noted.replaces() && !noted.takenBack());
        job = later(job, job.with(rail.with("ohm", 17.5, NOON, "Ben")), 120, "Ben");
        assertEquals(last(job).says(), List.of("Resistance read, \u03a9: 18 \u2192 17.5"));
        assertTrue(last(job).replaces());
        job = later(job, job.without("rail-1"), 180, "Ben");
        assertTrue(last(job).takenBack());
        assertEquals(job.account().stream().map(Entry::number).toList().getLast().intValue(),
                job.account().size(), "nothing was dropped");
    }

    /** Devices, arithmetic and people are told apart. */
    @Test
    public void whereItComesFrom() {
        Job job = Account.noted(Optional.empty(), World.job(Attest.UNKNOWN), NOON, "Ada");
        Job run = later(job, job.with(new Kept("run-1", "run", NOON, "", Map.of("outcome", "proven"))), 60,
                "");
        assertEquals(last(run).source(), Origin.Source.MEASURED);
        Job photo = later(job, job.with(
                new Kept("balls-1", "balls", NOON, "", Map.of("count", 9.0, "photo", "b.png"))), 60, "");
        assertEquals(last(photo).source(), Origin.Source.MEASURED);
        Job counted = later(job, job.with(new Kept("balls-1", "balls", NOON, "", Map.of("count", 9.0))), 60,
                "");
        assertEquals(last(counted).source(), Origin.Source.RECORDED);
        Job ticked = later(job, job.attest("cell_off", Attest.YES), 60, "Ada");
        assertTrue(AccountLines.of(ticked.account(), WORDS).stream()
                .anyMatch(l -> l.source() == Origin.Source.TICKED && l.says().equals(List.of("yes"))));
        assertFalse(AccountLines.of(ticked.account(), WORDS).stream()
                .anyMatch(l -> l.about().contains("check.") || l.about().contains("bead.")), "in words");
    }

    /** What lay there when the account began keeps its own time and author. */
    @Test
    public void olderRecordsKeepTheirTime() {
        Job old = World.job(Attest.UNKNOWN)
                .with(new Kept("rail-1", "rail", NOON.minusSeconds(900), "Cid", Map.of("name", "core")));
        Job job = Account.noted(Optional.empty(), old, NOON, "Ada");
        AccountLines.Line rail = AccountLines.of(job.account(), WORDS).stream()
                .filter(l -> l.about().contains("rail")).findFirst().orElseThrow();
        assertEquals(rail.at(), NOON.minusSeconds(900));
        assertEquals(rail.by(), "Cid");
        assertEquals(Account.replay(job.account()), Account.state(old));
        assertEquals(Account.oddities(job.account()), List.of());
    }
}
