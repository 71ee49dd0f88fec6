package org.greenbead.core.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.book.Facts;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.testng.annotations.Test;

/** What is the same every time is written down with one press; what has to be looked at never is. */
public class AsBeforeTest {
    private static final Instant NOW = Instant.parse("2031-05-01T10:00:00Z");

    private static Job job(String id, String board, String chip, String bench, Kept... records) {
        return new Job(id, "Logger", "dark", "Pier", board, chip, bench,
                Routes.shipped().beads(JobKind.REVIVE, Routes.recipes(board, chip)), Facts.none(),
                List.of(records));
    }

    private static Kept kept(String id, String type, int day, Map<String, Object> fields) {
        return new Kept(id, type, Instant.parse("2031-04-%02dT10:00:00Z".formatted(day)), "A", fields);
    }

    @Test
    public void everyFieldThatIsOfferedIsOneOfItsType() {
        AsBefore.fields().forEach((name, fields) -> {
            var type = RecordTypes.shipped().require(name);
            fields.forEach(f -> assertTrue(type.item(f).isPresent(), name + "." + f));
            assertTrue(!type.named() || fields.getFirst().equals(type.key()), name);
        });
    }

    /** States, readings and what guards a person are looked at anew in every job. */
    @Test
    public void whatHasToBeLookedAtIsNeverOffered() {
        for (String type : List.of("intake", "symptom", "condition", "power", "orientation", "pads", "pad",
                "balls",
                "tested", "inspection", "bench_check", "mill", "copy", "picture", "diagnosis", "waiver")) {
            assertTrue(RecordTypes.shipped().find(type).isPresent(), type);
            assertFalse(AsBefore.fields().containsKey(type), type);
        }
        Map<String, List<String>> never = Map.of("rail", List.of("ohm", "after_ohm"), "screw",
                List.of("out", "in"),
                "connector", List.of("undone", "remade", "clean"), "enclosure",
                List.of("trapped_check", "liners_done", "pressed_min"), "chip",
                List.of("label", "health", "open_days", "leakage", "part", "msl"), "unit",
                List.of("battery", "mains", "serial"),
                "neighbour", List.of("before", "after", "moved"), "stencil",
                List.of("item", "uses", "flat", "clean"),
                "iron",
                List.of("dwell_s", "wick_stuck"));
        never.forEach((type, fields) -> fields.forEach(f -> {
            assertTrue(RecordTypes.shipped().require(type).item(f).isPresent(), f);
            assertFalse(AsBefore.fields().get(type).contains(f), type + "." + f);
        }));
    }

    @Test
    public void theLastJobOfThisBenchTells() {
        Job old = job("J-1", "WB-7", "U1", "quay",
                kept("iron-1", "iron", 2, Map.of("set_c", 330.0, "face", "flat")));
        Job last = job("J-2", "ES-5", "U9", "quay",
                kept("iron-1", "iron", 9, Map.of("set_c", 350.0, "face", "edge", "dwell_s", 2.0)));
        Job elsewhere = job("J-3", "WB-7", "U1", "loft", kept("iron-1", "iron", 20, Map.of("set_c", 400.0)));
        Job mine = job("J-4", "WB-7", "U1", "quay", kept("iron-1", "iron", 21, Map.of("face", "flat")));
        AsBefore.Source source = AsBefore.of(mine, "iron", List.of(old, last, elsewhere, mine)).orElseThrow();
        assertEquals(source.job(), "J-2");
        List<Kept> missing = AsBefore.missing(mine, source, NOW, "B");
        assertEquals(missing.size(), 1);
        assertEquals(missing.getFirst().id(), "iron-1", "the record that is there is added to");
        assertEquals(missing.getFirst().fields(), Map.of("face", "flat", "set_c", 350.0),
                "what was noted stays, and how long the iron lay is no setting");
        assertEquals(missing.getFirst().author(), "B");
        Job written = AsBefore.written(mine, missing);
        assertEquals(AsBefore.missing(written, source, NOW, "B"), List.of(), "once");
        assertEquals(AsBefore.of(mine, "iron", List.of(mine, elsewhere)), Optional.empty());
        assertEquals(AsBefore.of(mine, "power", List.of(old, last)), Optional.empty());
    }

    /** The plugs and screws of a type of board are known by name; whether they are out is not. */
    @Test
    public void thingsOfABoardComeByName() {
        Job last = job("J-1", "WB-7", "U2", "loft",
                kept("connector-1", "connector", 2,
                        Map.of("id", "J1", "pull", "up", "supply", true, "undone", true)),
                kept("connector-2", "connector", 2, Map.of("id", "J2", "pull", "latch")),
                kept("screw-1", "screw", 2, Map.of("hole", "A", "length_mm", 6.0, "out", true)));
        Job mine = job("J-2", "WB-7", "U1", "quay",
                kept("connector-7", "connector", 3, Map.of("id", "j2", "pull", "up")));
        AsBefore.Source plugs = AsBefore.of(mine, "connector", List.of(last)).orElseThrow();
        List<Kept> missing = AsBefore.missing(mine, plugs, NOW, "B");
        assertEquals(missing.size(), 1, "J2 is noted, by whatever hand it is written");
        assertEquals(missing.getFirst().fields(), Map.of("id", "J1", "pull", "up", "supply", true));
        List<Kept> screws = AsBefore.missing(mine, AsBefore.of(mine, "screw", List.of(last)).orElseThrow(),
                NOW, "B");
        assertEquals(screws.getFirst().fields(), Map.of("hole", "A", "length_mm", 6.0));
        Job other = job("J-3", "ES-5", "U1", "quay");
        assertEquals(AsBefore.of(other, "screw", List.of(last)), Optional.empty(), "of another board");
    }

    /** The paste of the last job says nothing of the flux of this one, and a way that is chosen here stays chosen. */
    @Test
    public void anotherThingAndAChosenWayStay() {
        Job last = job("J-1", "WB-7", "U1", "quay",
                kept("lot-1", "lot", 2, Map.of("material", "paste", "alloy", "Sn63Pb37", "limit_hours", 8.0)),
                kept("plan-1", "plan", 2, Map.of("lift_method", "vacuum", "nozzle_mm", 18.0)));
        Job flux = job("J-2", "WB-7", "U1", "quay", kept("lot-1", "lot", 3, Map.of("material", "flux")));
        AsBefore.Source lot = AsBefore.of(flux, "lot", List.of(last)).orElseThrow();
        assertEquals(AsBefore.missing(flux, lot, NOW, "B"), List.of());
        Job paste = job("J-3", "WB-7", "U1", "quay", kept("lot-1", "lot", 3, Map.of("material", "paste")));
        assertEquals(AsBefore.missing(paste, lot, NOW, "B").getFirst().fields(),
                Map.of("material", "paste", "alloy", "Sn63Pb37", "limit_hours", 8.0));
        AsBefore.Source plan = AsBefore.of(flux, "plan", List.of(last)).orElseThrow();
        Job blade = flux.with(Facts.none().with("plan.lift_method=blade"));
        assertEquals(AsBefore.missing(blade, plan, NOW, "B").getFirst().fields(), Map.of("nozzle_mm", 18.0));
    }

    /** Whatever was noted here and there: nothing is overwritten, nothing comes that is not offered, and a second press changes nothing. */
    @Test
    public void neverOverwrites() {
        var random = new Random(5);
        List<String> fields = List.of("set_c", "max_c", "dwell_s", "dwell_max_s", "no_melt_s");
        for (int round = 0; round < 200; round++) {
            Map<String, Object> there = new HashMap<>();
            Map<String, Object> here = new HashMap<>();
            for (String f : fields) {
                if (random.nextBoolean()) {
                    there.put(f, (double) random.nextInt(400));
                }
                if (random.nextBoolean()) {
                    here.put(f, (double) random.nextInt(400));
                }
            }
            Job last = job("J-1", "WB-7", "U1", "quay", kept("iron-1", "iron", 2, there));
            var mineRecords = new ArrayList<Kept>();
            if (!here.isEmpty()) {
                mineRecords.add(kept("iron-1", "iron", 3, here));
            }
            Job mine = job("J-2", "WB-7", "U1", "quay", mineRecords.toArray(Kept[]::new));
            Optional<AsBefore.Source> source = AsBefore.of(mine, "iron", List.of(last));
            if (source.isEmpty()) {
                continue;
            }
            Job written = AsBefore.written(mine, AsBefore.missing(mine, source.get(), NOW, "B"));
            List<Kept> irons = written.records("iron");
            Map<String, Object> got = irons.isEmpty() ? Map.of() : irons.getFirst().fields();
            here.forEach((f, v) -> assertEquals(got.get(f), v, f));
            got.keySet().forEach(f -> assertTrue(here.containsKey(f)
                    || there.get(f).equals(got.get(f)) && AsBefore.fields().get("iron").contains(f), f));
            assertEquals(AsBefore.missing(written, source.get(), NOW, "B"), List.of());
        }
    }
}
