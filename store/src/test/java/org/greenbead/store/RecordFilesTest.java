package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.chip.ChipLabel;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Job;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every type of record through the open format, with whatever its fields may hold; and chips through the ledger. */
public class RecordFilesTest {
    private static final Instant NOW = Instant.parse("2026-03-01T09:00:00Z");
    private static final String[] TEXTS = {"U7", "corners of U4", "0.4 Nm, by hand",
            "naïve «quotes» \"here\"", "日本 und Öl", "a\nb"};
    private final OpenFiles files = new OpenFiles();
    private Job base;

    @BeforeClass
    public void read() throws Exception {
        Job demo = new DemoWorld(files).plan("SB-0409", "lift_run").job();
        base = new Job(demo.id(), demo.title(), demo.complaint(), demo.customer(), demo.board(),
                demo.target(), demo.bench(), demo.beads());
    }

    @DataProvider
    Object[][] types() {
        return RecordTypes.shipped().all().stream().map(t -> new Object[]{t.id(), t})
                .toArray(Object[][]::new);
    }

    private static Object any(RecordType.Item item, Random random) {
        List<String> words = item.field().words();
        return switch (item.field().kind()) {
            case NUMBER -> Math.round(random.nextGaussian() * 1000) / 10.0;
            case YES_NO -> random.nextBoolean();
            case TEXT -> TEXTS[random.nextInt(TEXTS.length)];
            case WORD -> words.get(random.nextInt(words.size()));
            case WORDS -> words.isEmpty()
                    ? List.of(TEXTS[random.nextInt(TEXTS.length)])
                    : words.subList(0, 1 + random.nextInt(words.size()));
            case ITEMS -> throw new IllegalStateException();
        };
    }

    /** Fifty of each, some fields left blank: the same comes back, and what they say fits the vocabulary. */
    @Test(dataProvider = "types")
    public void goesThroughTheFileUnchanged(String name, RecordType type) throws Exception {
        var random = new Random(name.hashCode());
        for (int i = 0; i < 50; i++) {
            var fields = new LinkedHashMap<String, Object>();
            for (RecordType.Item item : type.fields()) {
                if (random.nextInt(4) > 0) {
                    fields.put(item.name(), any(item, random));
                }
            }
            Job job = base.with(new Kept(name + "-1", name, NOW, "technician A", fields));
            Job back = files.parse(files.write(Format.JOB, job), name, Format.JOB, Job.class);
            assertEquals(back, job);
            assertTrue(Vocabulary.ofTheTrade().misfits(JobFacts.of(back)).isEmpty(), name + " " + fields);
        }
    }

    /** One wrong value in each field of each type: refused with the field named, nothing read. */
    @Test(dataProvider = "types")
    public void refusesAWrongValueInAnyField(String name, RecordType type) {
        String sound = files.write(Format.JOB, base.with(new Kept(name + "-1", name, NOW, "", Map.of())));
        for (RecordType.Item item : type.fields()) {
            String wrong = switch (item.field().kind()) {
                case NUMBER -> "\"many\"";
                case YES_NO -> "\"perhaps\"";
                case TEXT -> "[1]";
                case WORD -> "\"no such word\"";
                case WORDS -> "true";
                case ITEMS -> "1";
            };
            String broken = sound.replace("\"fields\" : { }",
                    "\"fields\" : { \"" + item.name() + "\" : " + wrong + " }");
            assertTrue(!broken.equals(sound), "the fields stand where they are expected");
            BadFileException e = expectThrows(BadFileException.class,
                    () -> files.parse(broken, "job", Format.JOB, Job.class));
            assertTrue(e.getMessage().contains(item.name()),
                    name + "." + item.name() + ": " + e.getMessage());
            assertTrue(e.line() > 0 || !e.field().isEmpty(), "it says where");
        }
    }

    @Test
    public void blankIsNotNullAndNullIsNotZero() throws Exception {
        String sound = files.write(Format.JOB,
                base.with(new Kept("screw-1", "screw", NOW, "", Map.of("hole", "A"))));
        Job read = files.parse(sound.replace("\"hole\" : \"A\"", "\"hole\" : \"A\", \"length_mm\" : null"),
                "job", Format.JOB, Job.class);
        assertTrue(read.records("screw").getFirst().noted("length_mm").isEmpty());
        assertTrue(Double.isNaN(read.records("screw").getFirst().number("length_mm")));
    }

    @Test
    public void recordsNeedTheirOwnNames() {
        String sound = files.write(Format.JOB,
                base.with(new Kept("screw-1", "screw", NOW, "", Map.of("hole", "A"))));
        String twice = sound.replace("\"records\" : [ {",
                "\"records\" : [ { \"id\" : \"screw-1\", \"type\" : \"pad\", \"at\" : \"2026-03-01T09:00:00Z\", \"fields\" : {} }, {");
        assertTrue(
                expectThrows(BadFileException.class, () -> files.parse(twice, "job", Format.JOB, Job.class))
                        .getMessage().contains("stands twice"));
    }

    @Test
    public void chipsAreKeptWithTheirLives() throws Exception {
        Path folder = Folders.fresh();
        try {
            var chips = new ArrayList<StockChip>();
            var random = new Random(4);
            for (int i = 1; i <= 40; i++) {
                StockChip chip = new StockChip(new ChipLabel(i * 7).text(), TEXTS[random.nextInt(4)],
                        random.nextInt(2000), random.nextInt(40),
                        StockChip.Origin.values()[random.nextInt(3)], "somewhere",
                        StockChip.Place.values()[random.nextInt(4)], "A" + i,
                        StockChip.Health.UNKNOWN, "", "", "SAC305", random.nextInt(6), random.nextInt(50),
                        random.nextBoolean() ? Optional.of("SB-0409") : Optional.empty(), List.of());
                for (int n = 0; n < random.nextInt(4); n++) {
                    chip = chip.heated(1, 2.5, NOW.plusSeconds(n), "run " + n);
                }
                chips.add(random.nextBoolean()
                        ? chip.known(StockChip.Health.GOOD, "rails", NOW, "measured")
                        : chip);
            }
            try (Ledger ledger = Ledger.open(folder, files, InstantSource.fixed(NOW))) {
                chips.reversed().forEach(ledger::save);
                ledger.save(chips.getFirst());
            }
            try (Ledger ledger = Ledger.open(folder, files, InstantSource.fixed(NOW))) {
                assertEquals(ledger.chips(), chips, "by label, each once");
            }
        } finally {
            Folders.remove(folder);
        }
    }

    @Test
    public void chipWhoseLabelWasMistypedIsRefused() {
        StockChip chip = new StockChip(new ChipLabel(42).text(), "QX-510", 0, 0, StockChip.Origin.OWN, "",
                StockChip.Place.TRAY, "",
                StockChip.Health.UNKNOWN, "", "", "", 0, 0, Optional.empty(), List.of());
        String text = files.write(Format.CHIP, chip);
        String slip = text.replace(chip.label(), "GB-0042-" + (chip.label().endsWith("0") ? "1" : "0"));
        assertTrue(expectThrows(BadFileException.class,
                () -> files.parse(slip, "chip", Format.CHIP, StockChip.class)).getMessage()
                .contains("no chip label"));
        String proofless = text.replace("\"health\" : \"unknown\"", "\"health\" : \"good\"");
        assertTrue(expectThrows(BadFileException.class,
                () -> files.parse(proofless, "chip", Format.CHIP, StockChip.class)).getMessage()
                .contains("without a proof"));
    }
}
