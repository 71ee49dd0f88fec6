package org.greenbead.core.odds;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class OddsTest {
    /** Jeffreys intervals of 95 % for ten tries, as tabled (Brown, Cai and DasGupta 2001, Interval estimation for a binomial proportion, table 5). */
    @DataProvider
    public Object[][] tabled() {
        return new Object[][]{{1, 0.011, 0.381}, {2, 0.044, 0.503}, {3, 0.093, 0.606}, {4, 0.153, 0.696},
                {5, 0.224, 0.776}};
    }

    @Test(dataProvider = "tabled")
    public void asTabled(int good, double low, double high) {
        var odds = new Odds(good, 10, 0.5);
        assertEquals(odds.quantile(0.025), low, 0.0006);
        assertEquals(odds.quantile(0.975), high, 0.0006);
        var mirrored = new Odds(10 - good, 10, 0.5);
        assertEquals(mirrored.quantile(0.025), 1 - high, 0.0006);
    }

    /** All good of n under the even prior: the quantile is p to the power of 1/(n+1). */
    @Test
    public void allGoodHasAClosedForm() {
        for (int n = 0; n < 30; n++) {
            assertEquals(Odds.of(n, n).quantile(0.1), Math.pow(0.1, 1.0 / (n + 1)), 1e-9);
            assertEquals(Odds.of(n, n).chance(), (n + 1.0) / (n + 2), 1e-12);
        }
    }

    /** Of chances drawn evenly, nine of ten lie within the interval that is told. */
    @Test
    public void theIntervalIsTrueOverThePrior() {
        var random = new Random(4);
        int inside = 0;
        for (int i = 0; i < 4000; i++) {
            double chance = random.nextDouble();
            int n = 1 + random.nextInt(12);
            int good = 0;
            for (int k = 0; k < n; k++) {
                good += random.nextDouble() < chance ? 1 : 0;
            }
            Odds odds = Odds.of(good, n);
            inside += chance > odds.quantile(0.05) && chance < odds.quantile(0.95) ? 1 : 0;
        }
        assertEquals(inside / 4000.0, 0.9, 0.015);
    }

    @Test
    public void comparing() {
        assertEquals(Odds.of(3, 5).betterThan(Odds.of(3, 5)), 0.5, 0.005);
        // Two evenly spread chances of which one saw a good try: the density is 2x, so it is the higher in two of three.
        assertEquals(Odds.of(1, 1).betterThan(Odds.of(0, 0)), 2 / 3.0, 0.005);
        assertTrue(Odds.of(19, 20).betterThan(Odds.of(9, 20)) > 0.999);
        expectThrows(IllegalArgumentException.class, () -> Odds.of(4, 3));
        expectThrows(IllegalArgumentException.class, () -> Odds.of(-1, 3));
    }

    private static Job job(int n, String bench, String... tested) {
        var records = new ArrayList<Kept>();
        records.add(new Kept("run-1", "run", Instant.parse("2026-01-01T10:00:00Z"), "hand " + n % 2,
                Map.of("bead", "seat_run", "kind", "seat")));
        for (int i = 0; i < tested.length; i++) {
            String[] said = tested[i].split("=");
            records.add(new Kept("tested-" + (i + 1), "tested",
                    Instant.parse("2026-0" + (1 + n % 3) + "-15T10:00:00Z"),
                    "hand " + n % 2, Map.of("what", said[0], "result", said[1])));
        }
        return new Job("J-" + n, "Unit", "dead", "Fenn", "ES-5", "U1", bench,
                org.greenbead.core.route.Routes.shipped().beads(org.greenbead.core.route.JobKind.REPLACE,
                        org.greenbead.core.route.Routes.recipes("ES-5", "U1")),
                org.greenbead.core.book.Facts.none(), records);
    }

    @Test
    public void theLastResultOfEachThingCounts() {
        assertEquals(Outcomes.of(job(1, "a", "starts=fail", "Starts =pass"), Map.of()), Optional.of(true));
        assertEquals(Outcomes.of(job(1, "a", "starts=pass", "starts=fail"), Map.of()), Optional.of(false));
        assertEquals(Outcomes.of(job(1, "a", "starts=pass", "display=fail"), Map.of()), Optional.of(false));
        assertEquals(Outcomes.of(job(1, "a", "starts=pass", "display=not_tested"), Map.of()),
                Optional.empty());
        assertEquals(Outcomes.of(job(1, "a"), Map.of()), Optional.empty());
    }

    /** Practice says nothing of customers' boards, whichever way it went, and is told apart. */
    @Test
    public void practiceIsCountedApart() {
        Job drilled = job(7, "a", "starts=fail").with(new Kept("intake-1", "intake", Instant.EPOCH, "me",
                Map.of("client", "practice")));
        Job well = job(8, "a", "starts=pass").with(new Kept("intake-1", "intake", Instant.EPOCH, "me",
                Map.of("client", "practice")));
        Job untold = job(9, "a").with(new Kept("intake-1", "intake", Instant.EPOCH, "me",
                Map.of("client", "practice")));
        Job owned = job(1, "a", "starts=pass").with(new Kept("intake-1", "intake", Instant.EPOCH, "me",
                Map.of("client", "owner")));
        Outcomes.Table table = Outcomes.by(Outcomes.By.BENCH, List.of(owned, drilled, well, untold),
                ZoneOffset.UTC);
        assertEquals(table.groups(), List.of(new Outcomes.Group("a", Odds.of(1, 1))));
        assertEquals(table.drills(), Odds.of(1, 2));
        assertEquals(table.untold(), 0);
    }

    /** What passes on a board that was never heated says nothing of a way of working; a heat of its further chip is a try. */
    @Test
    public void withoutAHeatThereWasNoTry() {
        Job tried = job(1, "a", "starts=pass");
        Job looked = new Job("J-2", tried.title(), tried.complaint(), tried.customer(), tried.board(),
                tried.target(),
                "a", tried.beads(), tried.facts(), tried.records("tested"));
        assertEquals(Outcomes.of(looked, Map.of()), Optional.of(true), "the board is well, whatever it was");
        assertEquals(Outcomes.ofTry(looked, Map.of()), Optional.empty());
        assertEquals(Outcomes.ofTry(looked, Map.of("J-2", List.of(job(3, "a")))), Optional.of(true));
        Outcomes.Table table = Outcomes.by(Outcomes.By.BENCH, List.of(tried, looked), ZoneOffset.UTC);
        assertEquals(table.groups(), List.of(new Outcomes.Group("a", Odds.of(1, 1))));
        assertEquals(table.untold(), 1);
        Job green = looked.withBeads(looked.beads().stream()
                .map(b -> b.kind() == Bead.Kind.RUN ? b.as(BeadState.GREEN) : b).toList());
        assertEquals(Outcomes.ofTry(green, Map.of()), Optional.of(true),
                "jobs of before runs were written down");
    }

    @Test
    public void jobsArePutTogether() {
        List<Job> jobs = List.of(job(1, "a", "starts=pass"), job(2, "a", "starts=pass"),
                job(3, "a", "starts=fail"),
                job(4, "b", "starts=pass"), job(5, "b"), job(6, "c"));
        Outcomes.Table table = Outcomes.by(Outcomes.By.BENCH, jobs, ZoneOffset.UTC);
        assertEquals(table.untold(), 2);
        assertEquals(table.groups(),
                List.of(new Outcomes.Group("a", Odds.of(2, 3)), new Outcomes.Group("b", Odds.of(1, 1))));
        assertEquals(table.pairs(), 1);
        assertEquals(Outcomes.by(Outcomes.By.MONTH, jobs, ZoneOffset.UTC).groups().stream()
                .map(Outcomes.Group::name)
                .toList(), List.of("2026-01", "2026-02", "2026-03"));
        assertEquals(Outcomes.by(Outcomes.By.PERSON, jobs, ZoneOffset.UTC).groups().getFirst().name(),
                "hand 0");
    }
}
