package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Wording;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Where figures come from. */
public class FiguresTest {
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
    private static final Instant FIRST = Instant.parse("2026-11-20T10:00:00Z");
    private static final Job JOB = new Job("SB-1", "Logger", "dead", "Ferry", "WB-7", "U1", "quay-1",
            Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")),
            Facts.none().with("job.kind=revive"));

    private static Job noted(Job before, Job after, int minutes, String by) {
        return Account.noted(Optional.of(before), after, FIRST.plusSeconds(60L * minutes), by);
    }

    private static Job rail(Job job, int minutes, String by, double ohm) {
        Instant at = FIRST.plusSeconds(60L * minutes);
        return noted(job, job.with(new Kept("rail-1", "rail", at, by, Map.of("name", "core", "ohm", ohm))),
                minutes, by);
    }

    private static List<Figures.Figure> of(Job job, String... about) {
        return Figures.of(job, JobFacts.known(job, Optional.empty(), Optional.empty()), List.of(about),
                WORDS);
    }

    private static Figures.Figure require(Job job, String path) {
        return of(job).stream().filter(f -> f.path().equals(path)).findFirst()
                .orElseThrow(() -> new AssertionError(path + " is not among "
                        + of(job).stream().map(Figures.Figure::path).toList()));
    }

    /** A later entry takes the place of the earlier one, and both stay visible with who and when. */
    @Test
    public void whatWasSaidBeforeStaysVisible() {
        Job opened = Account.noted(Optional.empty(), JOB, FIRST, "technician A");
        Job first = noted(opened, opened.with(new Kept("unit-1", "unit", FIRST, "technician A",
                Map.of("revision", "B"))), 1, "technician A");
        Job second = noted(first, first.with(new Kept("unit-1", "unit", FIRST, "technician B",
                Map.of("revision", "C"))), 9, "technician B");
        Figures.Figure revision = require(second, "board.revision");
        assertEquals(revision.value(), "C");
        assertEquals(revision.source(), Origin.Source.RECORDED);
        assertEquals(revision.said().orElseThrow(),
                new Figures.Said("C", FIRST.plusSeconds(540), "technician B"));
        assertEquals(revision.earlier(),
                List.of(new Figures.Said("B", FIRST.plusSeconds(60), "technician A")));
        assertTrue(revision.what().contains("evision"), revision.what());
        assertTrue(revision.from().contains("1"), revision.from());
    }

    /** A tick, a word typed by name and the kind of the job each say what they are. */
    @Test
    public void eachSourceIsNamed() {
        Job opened = Account.noted(Optional.empty(), JOB, FIRST, "");
        Job ticked = noted(opened, opened.attest("gloves_on", Attest.YES), 2, "technician A");
        Figures.Figure gloves = of(ticked).stream().filter(f -> f.source() == Origin.Source.TICKED)
                .findFirst()
                .orElseThrow();
        assertEquals(gloves.value(), "yes");
        assertEquals(gloves.said().orElseThrow().by(), "technician A");
        Job typed = noted(opened, opened.with(opened.facts().with("chip.pads=528")), 3, "technician A");
        Figures.Figure pads = require(typed, "chip.pads");
        assertEquals(pads.source(), Origin.Source.TYPED);
        assertEquals(pads.value(), "528");
        assertEquals(pads.said().orElseThrow().at(), FIRST.plusSeconds(180));
        assertEquals(require(typed, "job.kind").source(), Origin.Source.COMPUTED);
        assertEquals(require(typed, "job.kind").said(), Optional.empty(), "nobody wrote it");
    }

    @Test
    public void onlyWhatIsAskedForIsTold() {
        Job job = rail(Account.noted(Optional.empty(), JOB, FIRST, ""), 1, "technician A", 18);
        assertTrue(of(job).size() > of(job, "rails").size());
        assertFalse(of(job, "rails").isEmpty());
        assertTrue(of(job, "rails").stream().allMatch(f -> f.path().startsWith("rails.")));
        assertTrue(of(job, "stencil").isEmpty());
        assertEquals(Figures.askedAt("bead_align").contains("stencil"), true);
        assertTrue(Figures.askedAt("no_such_bead").isEmpty());
    }

    /** Paths that facts can have lead to a value and words, whatever the job holds. */
    @Test
    public void noFigureIsARawIdentifier() {
        Job job = rail(Account.noted(Optional.empty(), JOB, FIRST, ""), 1, "technician A", 18);
        for (Figures.Figure figure : of(job)) {
            assertFalse(figure.what().contains("_") || figure.from().contains("_"), figure.toString());
            assertFalse(figure.value().isBlank(), figure.path());
        }
    }

    @DataProvider
    Object[][] values() {
        return new Object[][]{{"plan.predicted_joint_c", 238.0, "238 °C"}, {"curve.rise_k", 4.0, "4 °C"},
                {"nozzle.distance_mm", 2.5, "2.5 mm"}, {"balls.spread_pct", 14.0, "14 %"},
                {"chip.exposure_tal_s", 70.0, "70 s"}, {"chip.pads", 528.0, "528"},
                {"board.diagonal_mm", 117.9996, "118 mm"},
                {"board.mass_g", 0.05, "0.05 g"}, {"chip.lid", true, "yes"},
                {"chip.health", "not_known", "not known"},
                {"plan.steps", List.of("lift", "seat"), "lift, seat"}};
    }

    @Test(dataProvider = "values")
    public void aNumberHasItsUnit(String path, Object value, String shown) {
        assertEquals(new Wording(WORDS).figure(path, value), shown);
    }
}
