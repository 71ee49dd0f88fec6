package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.inspect.BeadReport;
import org.greenbead.core.inspect.BeadState;
import org.greenbead.core.inspect.BeadVerdict;
import org.greenbead.core.inspect.Change;
import org.greenbead.core.inspect.PadReport;
import org.greenbead.core.inspect.PadState;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** What photos say reaches the judgement, site by site. */
public class PhotoRecordsTest {
    private static final List<String> SITES = List.of("A1", "A2", "B1", "B2");
    private static final BeadMap MAP = new BeadMap(SITES.stream()
            .map(s -> new Site(s, s.charAt(1) - '1', 'B' - s.charAt(0), Optional.of(0.5),
                    s.equals("A1") ? "ground" : "", Site.Critical.UNKNOWN))
            .toList());

    private static BeadReport balls(BeadState a1, BeadState b2) {
        return new BeadReport(SITES.stream().map(s -> {
            BeadState state = s.equals("A1") ? a1 : s.equals("B2") ? b2 : BeadState.OK;
            return new BeadReport.Seen(s, state, 10, 10, Optional.of(0.5), 0.01, Optional.of(0.0), 0.01,
                    state == BeadState.BRIDGED ? List.of("A2") : List.of());
        }).toList(), List.of(new BeadReport.Stray(3, 3, 0.2)), 0, BeadReport.Mark.NOT_NEEDED, 0, 40, 2,
                new BeadVerdict(BeadVerdict.Act.TOUCH_UP, List.of(), 0.02, 0.01), 1, false);
    }

    /** What a photo names and nobody measured is known to the judgement without a record of the pad; what the map calls spare, or is only dirty, is not asked for. */
    @Test
    public void aPadThatAPhotoMissesIsToBeMeasured() {
        assertEquals(unread("A1 missing_pad [ground]; B1 lifted"), "A1, B1");
        assertEquals(unread("A1 missing_pad spare [NC]; B1 smear B2"), "null");
        assertEquals(PhotoRecords.faults("A1 missing_pad spare [NC 7]; ; B1").getFirst(),
                new PhotoRecords.Fault("A1", "missing_pad", true, "NC 7"));
        var map = new BeadMap(List.of(new Site("A1", 0, 0, Optional.of(0.5), "NC", Site.Critical.SPARE)));
        assertEquals(PhotoRecords.pads(new PadReport(List.of(
                new PadReport.Seen("A1", PadState.MISSING_PAD, 10, 10, 0, List.of())), 0,
                BeadReport.Mark.NOT_NEEDED), map, "p.png").get("faults"), "A1 missing_pad spare [NC]");
    }

    private static String unread(String faults) {
        Job job = World.job(Attest.NO)
                .with(new Kept("pads-1", "pads", Instant.EPOCH, "me",
                        Map.of("faults", faults, "photo", "p")));
        return String.valueOf(
                JobFacts.known(job, Optional.empty(), Optional.empty()).facts().at("pads.unread_sites")
                        .orElse(null));
    }

    private static PadReport pads(PadState a1, PadState b2) {
        return new PadReport(SITES.stream()
                .map(s -> new PadReport.Seen(s, s.equals("A1") ? a1 : s.equals("B2") ? b2 : PadState.OK, 10,
                        10, 0, List.of()))
                .toList(), 0, BeadReport.Mark.NOT_NEEDED);
    }

    private static Job with(Job job, String type, Map<String, Object> says) {
        return job.with(PhotoRecords.record(job, type, says, Instant.EPOCH, "Ada"));
    }

    private static Set<String> fired(Job job) {
        return RuleBook.shipped().check(JobFacts.of(job), RuleBook.Settings.STANDARD).stream()
                .map(n -> n.rule().id()).collect(Collectors.toSet());
    }

    /** A ball that is missing over resin is one fault on two sides; a bridge alone is not. */
    @Test
    public void aSiteIsKnownByItsName() {
        Job job = World.job(Attest.UNKNOWN);
        Job seen = with(job, "balls",
                PhotoRecords.balls(balls(BeadState.MISSING, BeadState.BRIDGED), MAP, "b.png"));
        assertEquals(seen.records("balls").getFirst().text("faults"),
                "A1 missing [ground]; B2 bridged A2");
        assertEquals(JobFacts.of(seen).at("sites.0.net").orElseThrow(), "ground");
        assertEquals(JobFacts.of(seen).at("balls.debris").orElseThrow(), 1.0, "the stray ball");
        assertTrue(fired(seen).contains("beads.bridged"));
        assertFalse(fired(seen).contains("beads.fault-on-both-sides"));
        Job both = with(seen, "pads", PhotoRecords.pads(pads(PadState.GLUE, PadState.OK), MAP, "p.png"));
        assertEquals(JobFacts.of(both).at("pads.residue").orElseThrow(), "resin");
        assertEquals(RuleBook.shipped().check(JobFacts.of(both), RuleBook.Settings.STANDARD).stream()
                .filter(n -> n.rule().id().equals("beads.fault-on-both-sides")).map(n -> n.at()).toList(),
                List.of("/sites/0"), "A1 and no other");
    }

    /** A pad that is gone is loose; it is mapped where the bead map or a record names its net. */
    @Test
    public void aPadThatIsGoneIsLoose() {
        Job job = World.job(Attest.UNKNOWN);
        Job mapped = with(job, "pads",
                PhotoRecords.pads(pads(PadState.MISSING_PAD, PadState.OK), MAP, "p"));
        assertFalse(fired(mapped).contains("clean.pads-loose"));
        Job unnamed = with(job, "pads",
                PhotoRecords.pads(pads(PadState.OK, PadState.MISSING_PAD), MAP, "p"));
        assertTrue(fired(unnamed).contains("clean.pads-loose"));
        Job named = unnamed.with(new org.greenbead.core.record.Kept("pad-1", "pad", Instant.EPOCH, "",
                Map.of("site", "B2", "net", "spare", "kind", "missing")));
        assertFalse(fired(named).contains("clean.pads-loose"));
    }

    /** What the photo does not show is not known: neither a clean field nor a whole one. A better photo takes it back. */
    @Test
    public void whatCannotBeJudgedIsNotFine() {
        Job job = World.job(Attest.UNKNOWN);
        Map<String, Object> unclear = PhotoRecords.pads(pads(PadState.UNKNOWN, PadState.OK), MAP, "p");
        assertFalse(unclear.containsKey("residue"));
        assertEquals(PhotoRecords.pads(pads(PadState.OK, PadState.OK), MAP, "p").get("residue"), "none");
        Job blurred = with(job, "balls",
                PhotoRecords.balls(balls(BeadState.UNKNOWN, BeadState.SMALL), MAP, "b"));
        assertTrue(fired(blurred).contains("beads.sites-not-judged"));
        Job sharp = with(blurred, "balls",
                PhotoRecords.balls(balls(BeadState.OK, BeadState.OK), MAP, "c"));
        assertFalse(fired(sharp).contains("beads.sites-not-judged"));
        assertEquals(sharp.records("balls").size(), 1);
        assertEquals(sharp.records("balls").getFirst().text("faults"), "", "the old faults are gone");
    }

    /** Parts that are gone on the later photo ask for a record each. */
    @Test
    public void partsThatAreGoneAskForRecords() {
        var change = new Change(List.of(new Change.Vanished(5, 5, 3), new Change.Vanished(9, 5, 3)),
                List.of(), null, 0.93);
        Job job = with(World.job(Attest.UNKNOWN), "comparison", PhotoRecords.change(change, "a", "b", 0));
        assertEquals(JobFacts.of(job).at("photo.lost_open").orElseThrow(), 2.0);
        assertTrue(fired(job).contains("parts.gone-on-the-photo"));
        for (int i = 1; i <= 2; i++) {
            job = job.with(new org.greenbead.core.record.Kept("small_part-" + i, "small_part",
                    Instant.EPOCH, "", Map.of("id", "C" + i, "state", "lost")));
        }
        assertFalse(fired(job).contains("parts.gone-on-the-photo"));
        Job earlier = World.job(Attest.UNKNOWN).with(new org.greenbead.core.record.Kept("small_part-1",
                "small_part", Instant.EPOCH.minusSeconds(60), "", Map.of("id", "C1", "state", "found")));
        assertEquals(JobFacts.of(with(earlier, "comparison", PhotoRecords.change(change, "a", "b", 0)))
                .at("photo.lost_open").orElseThrow(), 2.0, "that part was another");
        assertEquals(JobFacts.of(with(earlier, "comparison", PhotoRecords.change(change, "a", "b", 1)))
                .at("photo.lost_open").orElseThrow(), 1.0, "one of them lay there");
    }
}
