package org.greenbead.core.route;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.book.Facts;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The order that matters more than settings: in every route, and whatever ways are chosen, what must come first comes first. */
public class OrderOfWorkTest {
    /** First, then: the pairs on which the trade agrees. */
    private static final List<String[]> PAIRS = List.of(p("copy_data", "lift"), p("backup", "lift"),
            p("photo", "lift"), p("label", "lift"),
            p("orient", "lift"), p("verify", "wash"), p("open_case", "battery_out"), p("battery_out", "soak"),
            p("battery_out", "peak"),
            p("flex_off", "soak"), p("discharge", "lift"), p("cell_out", "bake"),
            p("soften_glue", "cut_glue"), p("cut_glue", "peak"),
            p("dilute", "wick"), p("wick", "print"), p("health_test", "print"), p("align", "jig_tighten"),
            p("fill_check", "form"),
            p("flux_under", "soak"), p("flux_place", "place"), p("orient", "place"), p("place", "seat"),
            p("cool", "power_test"),
            p("power_test", "underfill"), p("underfill", "cure"), p("form", "shape"),
            p("ball_check", "place"), p("lift", "dilute"),
            p("power_test", "close"), p("load_test", "close"));

    private static String[] p(String first, String then) {
        return new String[]{first, then};
    }

    private static Job job(JobKind kind) {
        return new Job("SB-1", "t", "c", "d", "WB-7", "U1", "quay-1",
                Routes.shipped().beads(kind, Routes.recipes("WB-7", "U1")),
                Facts.none().with("job.kind=" + kind.key()));
    }

    @DataProvider
    Object[][] kinds() {
        return java.util.Arrays.stream(JobKind.values()).map(k -> new Object[]{k}).toArray(Object[][]::new);
    }

    private static void ordered(List<String> steps, String what) {
        for (String[] pair : PAIRS) {
            int first = steps.indexOf(pair[0]);
            int then = steps.indexOf(pair[1]);
            if (first >= 0 && then >= 0) {
                assertTrue(first < then, what + ": " + pair[0] + " comes before " + pair[1] + " in " + steps);
            }
        }
    }

    @Test(dataProvider = "kinds")
    public void routeKeepsTheOrder(JobKind kind) {
        ordered(Routes.shipped().steps(kind), kind.key());
    }

    @Test(dataProvider = "kinds")
    public void chosenWaysKeepTheOrder(JobKind kind) {
        for (School school : Schools.shipped().of(job(kind))) {
            for (School.Choice choice : school.choices()) {
                Job chosen = Schools.shipped().choose(job(kind), school, choice.id(), "because",
                        Instant.EPOCH, "");
                ordered(Routes.shipped().steps(kind, chosen.beads()),
                        kind.key() + " with " + school.id() + "." + choice.id());
                Object steps = JobFacts.of(chosen).at("plan.steps").orElseThrow();
                assertEquals(steps, List.<Object>copyOf(Routes.shipped().steps(kind, chosen.beads())),
                        "the rules see the chosen route");
            }
        }
    }

    /** Two ways at once: spheres, and resin afterwards. */
    @Test
    public void waysAddUp() {
        Schools schools = Schools.shipped();
        Job both = schools.choose(job(JobKind.REVIVE), schools.find("ball_route").orElseThrow(), "spheres",
                "coarse pitch", Instant.EPOCH, "");
        both = schools.choose(both, schools.find("refill").orElseThrow(), "yes", "sealed case", Instant.EPOCH,
                "");
        both = schools.choose(both, schools.find("bake").orElseThrow(), "always", "unknown age",
                Instant.EPOCH, "");
        List<String> steps = Routes.shipped().steps(JobKind.REVIVE, both.beads());
        assertTrue(steps.containsAll(List.of("pour", "underfill", "cure", "bake", "jig_tighten")),
                steps.toString());
        assertFalse(steps.contains("print"));
        ordered(steps, "three ways");
        assertEquals(both.records("school").size(), 3);
    }

    @Test(dataProvider = "kinds")
    public void everyBeadAndCheckHasItsWords(JobKind kind) {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        for (Routes.Template t : Routes.shipped().of(kind)) {
            assertTrue(words.has("bead." + t.id()), t.id());
            t.checks().forEach(c -> assertTrue(words.has("check." + c), c));
        }
        for (String part : List.of("spheres", "bake", "underfill", "glued")) {
            for (Routes.Template t : Routes.shipped().part(part)) {
                assertTrue(words.has("bead." + t.id()), t.id());
                t.checks().forEach(c -> assertTrue(words.has("check." + c), c));
            }
        }
    }
}
