package org.greenbead.core.record;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.account.RecordFacts;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Records and what they say. */
public class RecordTypesTest {
    private static final Instant NOW = Instant.parse("2026-03-01T09:00:00Z");
    private static final RecordTypes TYPES = RecordTypes.shipped();

    @DataProvider
    Object[][] types() {
        return TYPES.all().stream().map(t -> new Object[]{t.id(), t}).toArray(Object[][]::new);
    }

    /** A field that says a fact may hold nothing that the vocabulary refuses. */
    @Test(dataProvider = "types")
    public void saysOnlyFactsThatAJobMayHold(String name, RecordType type) {
        for (RecordType.Item item : type.fields()) {
            item.fact().ifPresent(path -> {
                Vocabulary.Field fact = Vocabulary.ofTheTrade().find(path)
                        .orElseThrow(() -> new AssertionError(name + "." + item.name() + " says " + path));
                assertEquals(item.field().kind(), fact.kind(), name + "." + item.name() + " -> " + path);
                assertTrue(fact.words().containsAll(item.field().words()), name + "." + item.name()
                        + " allows words that " + path + " does not: " + item.field().words());
            });
        }
    }

    @Test(dataProvider = "types")
    public void hasWordsForEveryField(String name, RecordType type) {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        assertTrue(words.has("record." + name), name);
        type.fields().forEach(
                f -> assertTrue(words.has("record." + name + "." + f.name()), name + "." + f.name()));
        assertEquals(new HashSet<>(type.fields().stream().map(RecordType.Item::name).toList()).size(),
                type.fields().size(), "no field twice in " + name);
    }

    @Test(dataProvider = "types")
    public void isAskedForAtABeadOfSomeRoute(String name, RecordType type) {
        Set<String> beads = new HashSet<>();
        for (JobKind kind : JobKind.values()) {
            Routes.shipped().of(kind).forEach(t -> beads.add(t.id()));
        }
        List.of("spheres", "bake", "underfill", "glued")
                .forEach(part -> Routes.shipped().part(part).forEach(t -> beads.add(t.id())));
        assertEquals(type.byHand(), !List.of("run", "comparison", "timer").contains(name), name);
        type.beads().forEach(b -> assertTrue(beads.contains(b), name + " is asked for at " + b));
    }

    private static Job job() {
        return new Job("SB-1", "t", "c", "d", "WB-7", "U1", "quay-1",
                Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")),
                Facts.none().with("job.kind=revive"));
    }

    private static Kept kept(String id, String type, Object... pairs) {
        var fields = new java.util.LinkedHashMap<String, Object>();
        for (int i = 0; i < pairs.length; i += 2) {
            fields.put(String.valueOf(pairs[i]), pairs[i + 1]);
        }
        return new Kept(id, type, NOW, "technician A", fields);
    }

    @Test
    public void whatIsWrittenOnceIsSeenByTheRules() {
        Job job = job().with(kept("intake-1", "intake", "data_value", "irreplaceable", "goal", "data"))
                .with(kept("joint-1", "joint", "site", "U7", "alloy", "Sn42Bi58", "bi_pct", 7));
        Facts facts = JobFacts.of(job);
        assertEquals(facts.at("job.data_value").orElseThrow(), "irreplaceable");
        assertEquals(facts.at("joints.0.bi_pct").orElseThrow(), 7.0);
        assertTrue(facts.at("joints.0.pb_pct").isEmpty(), "blank is not zero");
        assertTrue(Vocabulary.ofTheTrade().misfits(facts).isEmpty());
        Job said = job.with(job.facts().with("job.data_value=some"));
        assertEquals(JobFacts.of(said).at("job.data_value").orElseThrow(), "some",
                "what a person noted by hand outranks a record");
    }

    @Test
    public void itemOfAListIsFoundAgainByItsName() {
        Facts below = Facts.none().with("joints.0.site=U1; joints.0.alloy=SAC305; joints.1.site=U2");
        Facts over = RecordFacts.over(below,
                List.of(kept("joint-1", "joint", "site", "U1", "wick_passes", 2.0),
                        kept("joint-2", "joint", "site", "U9", "alloy", "Sn63Pb37")));
        assertEquals(over.at("joints.0.alloy").orElseThrow(), "SAC305", "the board's own word stays");
        assertEquals(over.at("joints.0.wick_passes").orElseThrow(), 2.0);
        assertEquals(over.at("joints.2.site").orElseThrow(), "U9");
        assertTrue(below.at("joints.0.wick_passes").isEmpty(), "the facts below are left as they were");
    }

    @Test
    public void screwsAreCountedOutAndIn() {
        List<Kept> screws = List.of(kept("s1", "screw", "hole", "A", "length_mm", 6.0, "out", true),
                kept("s2", "screw", "hole", "B", "length_mm", 6.0, "out", true, "in", true),
                kept("s3", "screw", "hole", "C", "length_mm", 4.5, "out", true));
        Facts facts = RecordFacts.over(Facts.none(), screws);
        assertEquals(facts.at("screws.out").orElseThrow(), 3.0);
        assertEquals(facts.at("screws.in").orElseThrow(), 1.0);
        assertEquals(facts.at("screws.length_by_hole").orElseThrow(), true);
        assertTrue(RecordFacts.over(Facts.none(), screws.subList(0, 1)).at("screws.in").isEmpty(),
                "nobody has said yet that one is back");
    }

    @Test
    public void refusesWhatDoesNotFit() {
        assertTrue(expectThrows(IllegalArgumentException.class, () -> kept("x", "intake", "goal", "party"))
                .getMessage().contains("function, data, capacity, parts"));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> kept("x", "intake", "colour", "red"))
                .getMessage().contains("no field"));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> kept("x", "gossip")).getMessage()
                .contains("intake"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> kept("x", "screw", "length_mm", Double.NaN)).getMessage().contains("number"));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> job().with(kept("a", "intake"))
                .withBeads(List.of())).getMessage().contains("no beads"));
    }

    @DataProvider
    Object[][] typed() {
        return new Object[][]{
                // type, field, typed, value
                {"bake", "c", "250 F", 121.111}, {"bake", "c", "125", 125.0},
                {"screw", "length_mm", "0.25 in", 6.35},
                {"screw", "length_mm", "4,5", 4.5}, {"rail", "ohm", "4.7 k", 4700.0},
                {"baseline", "peak_a", "1350 mA", 1.35}, {"pad", "continuity", "y", true},
                {"pad", "kind", "lif", "lifted"}, {"intake", "goal", "Data", "data"},
                {"symptom", "excluded", "lock, lead", List.of("lock", "lead")},
                {"condition", "prior_work", "cell swapped; display", List.of("cell swapped", "display")},
                {"leak", "hold_s", "2 min", 120.0}, {"intake", "label", "  ", null}};
    }

    @Test(dataProvider = "typed")
    public void readsWhatIsTyped(String type, String field, String typed, Object value) {
        Object read = Answer.read(TYPES.require(type).item(field).orElseThrow(), typed, TempUnit.CELSIUS);
        if (value instanceof Double d) {
            assertEquals((Double) read, d, 0.001);
        } else {
            assertEquals(read, value);
        }
    }

    @Test
    public void bareTemperatureIsReadInTheChosenUnit() {
        RecordType.Item c = TYPES.require("bake").item("c").orElseThrow();
        assertEquals((Double) Answer.read(c, "257", TempUnit.FAHRENHEIT), 125, 1e-9);
        assertEquals((Double) Answer.read(c, "125 C", TempUnit.FAHRENHEIT), 125, 1e-9);
    }

    @DataProvider
    Object[][] slips() {
        return new Object[][]{{"screw", "length_mm", "6 kg", "write it in mm"},
                {"screw", "length_mm", "six", "no number"},
                {"pad", "kind", "ugly", "lifted, missing"}, {"bake", "c", "hot", "no temperature"},
                {"pad", "continuity", "maybe", "yes or no"}, {"rail", "name", "", null}};
    }

    @Test(dataProvider = "slips")
    public void saysWhatIsWantedInstead(String type, String field, String typed, String says) {
        RecordType.Item item = TYPES.require(type).item(field).orElseThrow();
        if (says == null) {
            assertEquals(Answer.read(item, typed, TempUnit.CELSIUS), null);
        } else {
            assertTrue(expectThrows(IllegalArgumentException.class,
                    () -> Answer.read(item, typed, TempUnit.CELSIUS)).getMessage().contains(says));
        }
    }

    @Test
    public void leavingAStepOutKeepsTheReason() {
        Job job = job();
        Kept why = kept("route_change-1", "route_change", "bead", "plan_kit", "change", "left_out", "reason",
                "everything lies on the bench");
        Job shorter = job.leaveOut("plan_kit", why);
        assertTrue(shorter.bead("plan_kit").isEmpty());
        assertEquals(shorter.records("route_change").getFirst().text("reason"),
                "everything lies on the bench");
        Job back = shorter.takeIn(job.bead("plan_kit").orElseThrow(),
                kept("route_change-2", "route_change", "bead", "plan_kit", "change", "put_back"));
        assertTrue(back.bead("plan_kit").isPresent());
        expectThrows(IllegalArgumentException.class,
                () -> job.leaveOut("plan_kit", kept("r", "route_change", "bead", "plan_kit")));
        expectThrows(IllegalArgumentException.class, () -> job.leaveOut("lift_run", why));
        assertFalse(Arrays.asList(JobKind.values()).isEmpty());
    }
}
