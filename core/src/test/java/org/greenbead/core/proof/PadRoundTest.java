package org.greenbead.core.proof;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.electric.Pad;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Damaged pads in the order of their gravity, with what their nets lose. */
public class PadRoundTest {
    private static final Instant AT = Instant.parse("2031-04-02T10:00:00Z");
    private static final BeadMap MAP = new BeadMap(List.of(site("A1", 0, "GND", Site.Critical.UNKNOWN),
            site("A2", 1, "GND", Site.Critical.UNKNOWN), site("A3", 2, "GND", Site.Critical.UNKNOWN),
            site("B1", 3, "CLK", Site.Critical.UNKNOWN), site("B2", 4, "", Site.Critical.UNKNOWN),
            site("B3", 5, "NC7", Site.Critical.SPARE), site("C1", 6, "VIO", Site.Critical.MANY)));

    private static Site site(String name, double x, String net, Site.Critical critical) {
        return new Site(name, x, 0, Optional.of(0.4), net, critical);
    }

    private static Job job(Kept... records) {
        Job job = World.job(Attest.NO);
        for (Kept r : records) {
            job = job.with(r);
        }
        return job;
    }

    private static Kept photo(String faults) {
        return new Kept("pads-1", "pads", AT, "me", Map.of("faults", faults, "photo", "p.png"));
    }

    /** A photo names them, the map says what they carry; what is cleaned off is no damage. */
    @Test
    public void aPhotoAndTheMapSayWhatIsToBeMeasured() {
        PadRound round = PadRound.of(
                job(photo("A1 missing_pad [GND]; B1 lifted; B2 missing_pad; B3 missing_pad; C1 bump")),
                Optional.of(MAP));
        assertEquals(round.stops().stream().map(PadRound.Stop::site).toList(),
                List.of("A1", "B1", "B2", "B3"));
        assertEquals(round.at("A1").orElseThrow().pad().carries(), Pad.Carries.SHARED);
        assertEquals(round.at("A1").orElseThrow().others(), 2);
        assertEquals(round.at("B1").orElseThrow().pad().carries(), Pad.Carries.ONLY);
        assertEquals(round.at("B2").orElseThrow().pad().carries(), Pad.Carries.UNKNOWN);
        assertEquals(round.at("B3").orElseThrow().verdict(), Pad.Verdict.FINE, "a spare one costs nothing");
        assertEquals(round.open().size(), 3);
        assertEquals(round.next().orElseThrow().site(), "A1");
    }

    /** Without a map nothing is known of what a pad carries, and it stays to be measured. */
    @Test
    public void withoutAMapNothingIsTakenForGood() {
        PadRound round = PadRound.of(job(photo("B3 missing_pad")), Optional.empty());
        assertEquals(round.stops().getFirst().pad().carries(), Pad.Carries.UNKNOWN);
        assertEquals(round.stops().getFirst().verdict(), Pad.Verdict.UNREAD);
    }

    /** What is found goes into one record of the pad: net and weight from the map, the photo's damage kept, each word after the other. */
    @Test
    public void whatIsFoundStaysInOneRecord() {
        Job job = job(photo("B1 lifted"));
        job = job.with(PadRound.kept(job, Optional.of(MAP), "B1", PadRound.Found.typed("off"), AT, "me"));
        Kept first = job.records("pad").getFirst();
        assertEquals(first.fields(), Map.of("site", "B1", "kind", "lifted", "continuity", false, "net", "CLK",
                "carries", "only"));
        assertEquals(PadRound.of(job, Optional.of(MAP)).at("B1").orElseThrow().verdict(), Pad.Verdict.OPEN);
        job = job.with(PadRound.kept(job, Optional.of(MAP), "B1", PadRound.Found.typed("wire on"), AT, "me"));
        assertEquals(PadRound.of(job, Optional.of(MAP)).at("B1").orElseThrow().verdict(),
                Pad.Verdict.UNCOVERED);
        job = job
                .with(PadRound.kept(job, Optional.of(MAP), "B1", PadRound.Found.typed("mask, leak 22M"), AT,
                        "me"));
        assertEquals(job.records("pad").size(), 1);
        assertEquals(job.records("pad").getFirst().number("leak_ohm"), 22e6);
        assertTrue(PadRound.of(job, Optional.of(MAP)).open().isEmpty());
    }

    /** What somebody noted of a net outweighs the map; a map that comes later fills only what is empty. */
    @Test
    public void aPersonsWordOutweighsTheMap() {
        Job job = job(new Kept("pad-1", "pad", AT, "me",
                Map.of("site", "A1", "kind", "missing", "net", "GND", "carries", "only")));
        PadRound.Stop stop = PadRound.of(job, Optional.of(MAP)).at("A1").orElseThrow();
        assertEquals(stop.pad().carries(), Pad.Carries.ONLY);
        Kept kept = PadRound.kept(job, Optional.of(MAP), "A1", PadRound.Found.continues(false), AT, "me");
        assertEquals(kept.text("carries"), "only");
    }

    @DataProvider
    Object[][] nonsense() {
        return new Object[][]{{"B1", "torn", "torn"}, {"B1", "leak", "leak 4.7M"},
                {"B1", "leak soon", "no resistance"},
                {"Z9", "on", "named like C4"}, {"", "on", "named like C4"}, {"../x", "on", "named like C4"}};
    }

    /** Said what, and how it is written; nothing kept. */
    @Test(dataProvider = "nonsense")
    public void nonsenseIsSaid(String site, String words, String said) {
        String message = expectThrows(IllegalArgumentException.class,
                () -> PadRound.kept(job(), Optional.of(MAP), site, PadRound.Found.typed(words), AT, "me"))
                .getMessage();
        assertTrue(message.contains(said), message);
    }

    /** The gravest come first, whatever order they were written in. */
    @Test
    public void theGravestComesFirst() {
        Job job = job();
        String[][] found = {{"A2", "scratched on"}, {"B2", "leak 40k"}, {"B1", "missing off"},
                {"C1", "leak 1"}, {"A3", "lifted"}};
        for (String[] f : found) {
            job = job.with(PadRound.kept(job, Optional.of(MAP), f[0], PadRound.Found.typed(f[1]), AT, "me"));
        }
        PadRound round = PadRound.of(job, Optional.of(MAP));
        assertEquals(round.stops().stream().map(PadRound.Stop::site).toList(),
                List.of("C1", "B2", "B1", "A3", "A2"));
        assertFalse(round.at("A2").orElseThrow().open());
    }
}
