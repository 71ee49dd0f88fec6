package org.greenbead.core.route;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.book.Phase;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every kind of job, from intake to close. */
public class RoutesTest {
    private static final Routes ROUTES = Routes.shipped();
    private static final Map<String, String> RECIPES = Map.of("lift", "wb7-lift", "seat", "wb7-seat", "form",
            "wb7-form", "shape", "wb7-shape");

    @DataProvider
    Object[][] kinds() {
        return java.util.Arrays.stream(JobKind.values()).map(k -> new Object[]{k}).toArray(Object[][]::new);
    }

    private static Job job(JobKind kind) {
        return new Job("SB-1", "t", "c", "d", "WB-7", "U1", "quay-1", ROUTES.beads(kind, RECIPES));
    }

    /** Worked bead by bead, each gate holds back what follows until its checks are attested, and the job ends. */
    @Test(dataProvider = "kinds")
    public void isWalkedFromIntakeToClose(JobKind kind) {
        Job job = job(kind);
        assertEquals(job.beads().getFirst().phase(), Phase.INTAKE);
        assertEquals(job.beads().getLast().phase(), Phase.CLOSE);
        int gates = 0;
        int worked = 0;
        while (job.inHand().isPresent()) {
            Bead bead = job.inHand().get();
            assertTrue(job.gateBefore(bead.id()).isEmpty(), "the way to " + bead.id() + " is free");
            String last = job.beads().getLast().id();
            if (bead.gate() && !bead.id().equals(last)) {
                gates++;
                assertEquals(job.gateBefore(last).orElseThrow().id(), bead.id(), "it blocks the rest");
            }
            if (bead.kind() == Bead.Kind.CHECK) {
                for (CheckItem check : bead.checks()) {
                    assertEquals(job.bead(bead.id()).orElseThrow().state(), BeadState.OPEN,
                            "until the last check");
                    job = job.attest(check.id(), Attest.YES);
                }
            } else {
                job = job.with(bead.id(), BeadState.GREEN);
            }
            assertEquals(job.bead(bead.id()).orElseThrow().state(), BeadState.GREEN);
            worked++;
        }
        assertEquals(worked, job.beads().size());
        assertTrue(gates >= 2, kind + " has gates");
    }

    /** A check that stands twice in a route would be attested twice with one key. */
    @Test(dataProvider = "kinds")
    public void everyBeadAndCheckStandsOnceAndHasWords(JobKind kind) {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        assertTrue(words.has("kind." + kind.key()));
        var checks = new HashSet<String>();
        for (Routes.Template bead : ROUTES.of(kind)) {
            assertTrue(words.has("bead." + bead.id()), bead.id());
            for (String check : bead.checks()) {
                assertTrue(checks.add(check), check + " twice in " + kind);
                assertTrue(words.has("check." + check), check);
            }
            assertEquals(bead.kind() == Bead.Kind.CHECK, bead.slot().isEmpty());
            assertFalse(bead.kind() == Bead.Kind.CHECK && bead.checks().isEmpty(),
                    bead.id() + " asks nothing");
        }
    }

    @Test
    public void whatMattersStandsInOrder() {
        for (JobKind kind : JobKind.values()) {
            List<String> steps = ROUTES.steps(kind);
            before(steps, "orient", "lift");
            before(steps, "battery_out", "soak");
            before(steps, "copy_data", "lift");
            before(steps, "dilute", "wick");
            before(steps, "align", "print");
            before(steps, "ball_check", "place");
            before(steps, "flux_place", "place");
            before(steps, "flux_under", "soak");
            before(steps, "power_test", "close");
        }
        assertTrue(ROUTES.steps(JobKind.REVIVE).containsAll(List.of("lift", "print", "seat", "close")));
        assertFalse(ROUTES.steps(JobKind.LOOSE).contains("lift"), "a loose chip is not lifted");
        assertFalse(ROUTES.steps(JobKind.REFLOW).contains("lift"), "a reflow lifts nothing");
    }

    private static void before(List<String> steps, String first, String second) {
        if (steps.contains(first) && steps.contains(second)) {
            assertTrue(steps.indexOf(first) < steps.indexOf(second),
                    first + " before " + second + " in " + steps);
        }
    }

    @Test
    public void heatWithoutARecipeIsNamed() {
        assertEquals(ROUTES.beads(JobKind.LOOSE, Map.of("form", "a", "shape", "b")).size(),
                ROUTES.of(JobKind.LOOSE).size(), "a loose chip is heated for its balls alone");
        IllegalArgumentException refused = org.testng.Assert.expectThrows(IllegalArgumentException.class,
                () -> ROUTES.beads(JobKind.REVIVE, Map.of("lift", "a", "form", "b", "shape", "c")));
        assertTrue(refused.getMessage().contains("seat"));
        assertThrows(IllegalArgumentException.class, () -> ROUTES.beads(JobKind.REFLOW, Map.of()));
    }
}
