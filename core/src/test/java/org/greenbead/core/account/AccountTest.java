package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.book.Facts;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Entry;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** The account is never shorter than before, and gives the job again. */
public class AccountTest {
    private static final Instant NOON = Instant.parse("2031-04-02T12:00:00Z");

    private static Job job(JobKind kind) {
        return World.job(Attest.UNKNOWN)
                .withBeads(Routes.shipped().beads(kind, Routes.recipes("WB-7", "U1")))
                .with(Facts.none().with("job.kind=" + kind.key()));
    }

    private static Kept rail(double ohm, String by) {
        return new Kept("rail-1", "rail", NOON, by, Map.of("name", "core", "ohm", ohm));
    }

    /** Two hundred changes of every sort, some of them taken back: replayed, the account is the job. */
    @Test
    public void replayedItIsTheJob() {
        var random = new Random(7);
        Job job = Account.noted(Optional.empty(), job(JobKind.REVIVE), NOON, "A");
        var earlier = new ArrayList<>(List.of(job));
        for (int i = 1; i <= 200; i++) {
            Job before = job;
            List<String> checks = before.beads().stream().flatMap(b -> b.checks().stream())
                    .map(c -> c.id()).toList();
            Job changed = switch (random.nextInt(6)) {
                case 0 -> before.attest(checks.get(random.nextInt(checks.size())),
                        Attest.values()[random.nextInt(3)]);
                case 1 -> before.with(new Kept("rail-" + random.nextInt(4), "rail", NOON, "A",
                        Map.of("name", "r", "ohm", (double) random.nextInt(90))));
                case 2 -> before.without("rail-" + random.nextInt(4));
                case 3 -> before.with(before.beads().get(random.nextInt(before.beads().size())).id(),
                        BeadState.values()[random.nextInt(3)]);
                case 4 -> before.with(before.facts().with("chip.pads=" + random.nextInt(300)));
                default -> earlier.get(random.nextInt(earlier.size()));
            };
            job = Account.noted(Optional.of(before), changed, NOON.plusSeconds(i), "A");
            earlier.add(job);
            assertEquals(job.account().subList(0, before.account().size()), before.account(),
                    "what was written stays");
            assertEquals(Account.replay(job.account()), Account.state(job), "after change " + i);
        }
        assertTrue(job.account().size() > 200);
        assertEquals(Account.oddities(job.account()), List.of());
    }

    @Test
    public void nothingChangedWritesNothing() {
        Job job = Account.noted(Optional.empty(), job(JobKind.LOOSE), NOON, "A");
        assertEquals(Account.noted(Optional.of(job), job, NOON.plusSeconds(9), "B").account(), job.account());
    }

    /** The next person at a site puts the own name there: that contradicts nobody. */
    @Test
    public void anotherHandIsNoContradiction() {
        Kept joint = new Kept("joint-1", "joint", NOON, "A",
                Map.of("site", "U1", "by", "A", "date", "1 April"));
        Job job = Account.noted(Optional.empty(), job(JobKind.REVIVE), NOON, "A");
        job = Account.noted(Optional.of(job), job.with(joint), NOON.plusSeconds(60), "A");
        Kept later = joint.with("by", "B", NOON.plusSeconds(90), "B").with("date", "2 April",
                NOON.plusSeconds(90), "B");
        job = Account.noted(Optional.of(job), job.with(later), NOON.plusSeconds(90), "B");
        assertEquals(Account.oddities(job.account()), List.of());
    }

    /** Two people, two values; a clock set back; lines cut out: said, and nothing is dropped. */
    @Test
    public void whatIsOddIsNamedAndKept() {
        Job job = Account.noted(Optional.empty(), job(JobKind.REVIVE), NOON, "A");
        job = Account.noted(Optional.of(job), job.with(rail(18, "A")), NOON.plusSeconds(60), "A");
        job = Account.noted(Optional.of(job), job.with(rail(81, "B")), NOON.plusSeconds(30), "B");
        List<Account.Oddity> odd = Account.oddities(job.account());
        assertEquals(odd.stream().map(Account.Oddity::kind).toList(),
                List.of(Account.Oddity.Kind.CLOCK_SET_BACK, Account.Oddity.Kind.CONTRADICTED));
        assertEquals(odd.getLast().at().is(), 81.0);
        assertEquals(odd.getLast().earlier().orElseThrow().is(), 18.0);
        var cut = new ArrayList<Entry>(job.account());
        cut.remove(2);
        assertEquals(Account.oddities(cut).getFirst().kind(), Account.Oddity.Kind.CUT);
        Job same = Account.noted(Optional.of(job), job.with(rail(80, "B")), NOON.plusSeconds(90), "B");
        assertEquals(Account.oddities(same.account()).size(), 2, "one person may correct himself");
    }

    /** Rules of order read when things were done, not what the route says. */
    @Test
    public void orderIsThatOfTheWork() {
        Job job = Account.noted(Optional.empty(), job(JobKind.REVIVE), NOON, "A");
        Object planned = JobFacts.of(job).at("plan.steps").orElseThrow();
        assertTrue(((List<?>) planned).indexOf("verify") < ((List<?>) planned).indexOf("wash"));
        job = Account.noted(Optional.of(job), job.with("clean_board", BeadState.GREEN), NOON.plusSeconds(60),
                "A");
        job = Account.noted(Optional.of(job), job.with("intake_record", BeadState.GREEN),
                NOON.plusSeconds(120), "A");
        List<?> worked = (List<?>) JobFacts.of(job).at("plan.steps").orElseThrow();
        assertTrue(worked.indexOf("wash") < worked.indexOf("verify"), worked.toString());
        assertEquals(worked.size(), ((List<?>) planned).size());
    }
}
