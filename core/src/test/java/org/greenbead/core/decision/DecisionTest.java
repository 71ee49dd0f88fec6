package org.greenbead.core.decision;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.book.Facts;
import org.greenbead.core.odds.Odds;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

public class DecisionTest {
    private static final Instant AT = Instant.parse("2031-04-02T10:00:00Z");

    private static Estimate estimate(Course course, double minutes, double material, double part, double loss,
            Odds odds) {
        return new Estimate(course, minutes, 0, 0.3, material, part, 0, loss, 1, odds, List.of(),
                Optional.empty());
    }

    /** The worked example of the trade: price 18, freight 6, rate 48. */
    @Test
    public void aPartAtTwentyFourIsWorthHalfAnHour() {
        assertEquals(Decision.breakEvenMin(24, 48).orElseThrow(), 30, 1e-12);
        var reball = estimate(Course.REBALL, 35, 2, 0, 90, new Odds(0, 0, 0.88, 0.12));
        var replace = estimate(Course.REPLACE, 8, 0, 24, 0, new Odds(0, 0, 1));
        assertEquals(reball.expected(48, 0), 40.8, 1e-9);
        assertEquals(replace.expected(48, 0), 30.4, 1e-9);
        assertEquals(new Decision(48, 0, List.of(reball, replace)).best().orElseThrow().course(),
                Course.REPLACE);
        assertTrue(Decision.breakEvenMin(24, 0).isEmpty());
    }

    /** At each place that is named two courses cost the same, and beyond it the other one is the better. */
    @Test
    public void whereItTurnsTwoCoursesCostTheSame() {
        var random = new Random(7);
        int seen = 0;
        for (int n = 0; n < 200; n++) {
            double rate = 20 + random.nextDouble() * 60;
            double value = random.nextDouble() * 500;
            var courses = new ArrayList<Estimate>();
            for (Course c : List.of(Course.REFLOW, Course.REBALL, Course.REPLACE)) {
                int tries = random.nextInt(12);
                courses.add(new Estimate(c, 10 + random.nextDouble() * 200, 0, 0.3, random.nextDouble() * 9,
                        random.nextDouble() * 60, random.nextDouble() * 20, random.nextDouble() * 80,
                        0.4 + random.nextDouble() * 0.6, Odds.of(random.nextInt(tries + 1), tries), List.of(),
                        Optional.empty()));
            }
            courses.add(estimate(Course.DECLINE, 15, 0, 0, 0, Odds.of(0, 0)));
            var decision = new Decision(rate, value, courses);
            Estimate best = decision.best().orElseThrow();
            for (Decision.Turn turn : decision.turns()) {
                Estimate other = courses.stream().filter(c -> c.course() == turn.then()).findFirst()
                        .orElseThrow();
                double mine = at(turn, best, rate, value);
                double theirs = at(turn, other, rate, value);
                assertEquals(mine, theirs, 1e-6 * Math.max(1, mine), turn.toString());
                seen++;
            }
        }
        assertTrue(seen > 400, "turns seen: " + seen);
    }

    private static double at(Decision.Turn t, Estimate e, double rate, double value) {
        double x = t.turnsAt();
        boolean own = t.of().isEmpty() || t.of().get() == e.course();
        if (!own) {
            return e.expected(rate, value);
        }
        return switch (t.number()) {
            case "rate" -> e.expected(x, value);
            case "value" -> e.expected(rate, x);
            case "chance" -> e.expected(rate, value, x, e.attendedMin());
            case "attended_min" -> e.expected(rate, value, e.chance(), x);
            case "part" -> e.expected(rate, value) + x - e.part();
            case "material" -> e.expected(rate, value) + x - e.material();
            case "delay" -> e.expected(rate, value) + x - e.delay();
            case "loss" -> e.expected(rate, value) + (x - e.loss()) * (1 - e.chance());
            default -> throw new AssertionError(t.number());
        };
    }

    /** Three of three are no certainty: the same course after thirty of thirty is the cheapest far more often. */
    @Test
    public void fewTriesSayLittle() {
        var decline = estimate(Course.DECLINE, 15, 0, 0, 0, Odds.of(0, 0));
        double few = cheapest(
                new Decision(40, 130, List.of(estimate(Course.REBALL, 110, 4, 0, 30, Odds.of(3, 3)),
                        decline)));
        double many = cheapest(new Decision(40, 130, List.of(
                estimate(Course.REBALL, 110, 4, 0, 30, Odds.of(30, 30)), decline)));
        assertTrue(few < 0.85, "3 of 3: " + few);
        assertTrue(many > 0.95 && many > few + 0.1, "30 of 30: " + many);
        Decision.Weighed w = new Decision(40, 130,
                List.of(estimate(Course.REBALL, 110, 4, 0, 30, Odds.of(3, 3)), decline)).weighed().getFirst();
        assertTrue(w.low() < w.expected() && w.expected() < w.high());
        assertTrue(w.works() < w.expected() && w.expected() < w.fails());
    }

    private static double cheapest(Decision d) {
        return d.weighed().stream().filter(w -> w.estimate().course() == Course.REBALL).findFirst()
                .orElseThrow()
                .cheapest();
    }

    private static Job job(String id, String kind, Object... records) {
        Job job = World.job(Attest.UNKNOWN);
        Job made = new Job(id, job.title(), job.complaint(), job.customer(), job.board(), job.target(),
                job.bench(),
                job.beads(), Facts.none().with("job.kind=" + kind), List.of(), List.of());
        for (int i = 0; i < records.length; i += 2) {
            @SuppressWarnings("unchecked")
            Map<String, Object> fields = (Map<String, Object>) records[i + 1];
            made = made
                    .with(new Kept(made.freeId((String) records[i]), (String) records[i], AT, "technician A",
                            fields));
        }
        return made;
    }

    /** Minutes and odds come from jobs of the bench that went the same way, the rate from the last one that named it. */
    @Test
    public void theLedgerSaysWhatNobodyNoted() {
        var ledger = new ArrayList<Job>();
        for (int n = 0; n < 5; n++) {
            ledger.add(job("SB-" + n, "revive", "cost", Map.of("attended_min", 90.0 + 10 * n, "rate", 52.0),
                    "run", Map.of("bead", "lift_run", "kind", "lift"), "tested",
                    Map.of("what", "stays dark", "result", n == 0 ? "fail" : "pass")));
        }
        ledger.add(job("SB-7", "revive", "tested", Map.of("what", "stays dark", "result", "pass")));
        Job mine = job("SB-9", "revive", "worth", Map.of("unit", 300.0));
        CourseSheet.Sheet sheet = CourseSheet.of(mine, Facts.none(), ledger);
        Estimate reball = of(sheet, Course.REBALL);
        assertEquals(reball.attendedMin(), 110.0);
        assertEquals(reball.odds().good(), 4);
        assertEquals(reball.odds().tries(), 5, "one that was never heated is no try");
        assertEquals(sheet.rate().orElseThrow(), 52.0);
        assertFalse(reball.assumed().contains("attended_min"));
        Estimate replace = of(sheet, Course.REPLACE);
        assertEquals(replace.odds().tries(), 0);
        assertTrue(replace.assumed().contains("attended_min"));
        assertEquals(replace.closed(), Optional.of("no_price"));
        assertTrue(sheet.decision().isPresent());
        Job silent = job("SB-9", "revive");
        assertTrue(CourseSheet.of(silent, Facts.none(), ledger).decision().isEmpty(),
                "no value, nothing weighed");
        assertEquals(CourseSheet.of(silent, Facts.none(), List.of()).wanted(), List.of("rate", "unit"));
    }

    private static Estimate of(CourseSheet.Sheet sheet, Course course) {
        return sheet.estimates().stream().filter(e -> e.course() == course).findFirst().orElseThrow();
    }

    private static Facts facts(String said) {
        Facts facts = Facts.none();
        for (String one : said.split("; ")) {
            facts = facts.with(one);
        }
        return facts;
    }

    /** New balls mend no chip; and a chip with the only copy of the data is not thrown away. */
    @Test
    public void whatCannotHelpIsClosedWithItsReason() {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        Map<String, Map<Course, String>> cases = new HashMap<>();
        cases.put("diagnosis.verdict=faulty",
                Map.of(Course.REBALL, "chip_faulty", Course.REFLOW, "chip_faulty"));
        cases.put("diagnosis.cause_class=board",
                Map.of(Course.REBALL, "not_the_chip", Course.REPLACE, "not_the_chip"));
        cases.put("job.data_value=irreplaceable; chip.role=storage", Map.of(Course.REPLACE, "data_in_chip"));
        cases.put("job.goal=capacity", Map.of(Course.REBALL, "upgrade_wanted"));
        cases.forEach((said, wanted) -> {
            CourseSheet.Sheet sheet = CourseSheet.of(job("SB-1", "revive"),
                    facts(said), List.of());
            wanted.forEach((course, reason) -> {
                assertEquals(of(sheet, course).closed(), Optional.of(reason), said + " " + course);
                assertTrue(words.has("closed." + reason), reason);
            });
            assertTrue(of(sheet, Course.DECLINE).closed().isEmpty());
        });
        assertTrue(of(
                CourseSheet.of(job("SB-1", "revive", "course", Map.of("course", "replace", "part", 30.0)),
                        facts("job.data_value=irreplaceable; chip.role=storage; job.backup=verified"),
                        List.of()),
                Course.REPLACE).closed().isEmpty());
    }
}
