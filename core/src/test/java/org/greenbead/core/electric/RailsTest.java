package org.greenbead.core.electric;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.testng.annotations.Test;

/** Rails against their reference. */
public class RailsTest {
    @Test
    public void leadsAreTakenOff() {
        var rail = new Rails.Rail("core", 2.9, 0.2, 4.4);
        assertEquals(rail.bareOhm(), 2.7, 1e-12);
        assertEquals(rail.deviationPct(), -38.6, 0.05);
        assertEquals(rail.verdict(), Rails.Verdict.SUSPECT);
    }

    @Test
    public void theLimitsAreWhereTheyAreSaid() {
        assertEquals(new Rails.Rail("a", 130, Double.NaN, 100).verdict(), Rails.Verdict.PASS);
        assertEquals(new Rails.Rail("a", 131, Double.NaN, 100).verdict(), Rails.Verdict.SUSPECT);
        assertEquals(new Rails.Rail("a", 10, Double.NaN, 100).verdict(), Rails.Verdict.SUSPECT);
        assertEquals(new Rails.Rail("a", 9.9, Double.NaN, 100).verdict(), Rails.Verdict.SHORT);
        assertEquals(new Rails.Rail("a", 0.1, 0.3, 5).bareOhm(), 0.0, "never below zero");
    }

    /** Between two rails: under an ohm they are joined, unless a healthy board is so too; a rail to ground is none of these. */
    @Test
    public void twoRailsAreApartOrJoined() {
        assertEquals(Rails.between("core to io"), java.util.Optional.of(List.of("core", "io")));
        assertEquals(Rails.between("3V3 main  TO  radio"),
                java.util.Optional.of(List.of("3V3 main", "radio")));
        assertTrue(Rails.between("core to ground").isEmpty() && Rails.between("core to GND").isEmpty()
                && Rails.between("tower").isEmpty());
        assertEquals(new Rails.Rail("core to io", 0.9, Double.NaN, Double.NaN).verdict(),
                Rails.Verdict.SHORT);
        assertEquals(new Rails.Rail("core to io", 1.2, 0.3, Double.NaN).verdict(), Rails.Verdict.SHORT,
                "leads");
        assertEquals(new Rails.Rail("core to io", 55, Double.NaN, Double.NaN).verdict(),
                Rails.Verdict.MISSING, "a name alone does not make them two rails");
        var known = java.util.Set.of("core", "io");
        assertTrue(Rails.apart("Core to io", known, 55, Rails.Verdict.MISSING));
        assertTrue(!Rails.apart("supply to U3", known, 55, Rails.Verdict.MISSING),
                "one rail with a long name");
        assertTrue(!Rails.apart("core to io", known, 0.9, Rails.Verdict.MISSING)
                && !Rails.apart("core to io", known, Double.NaN, Rails.Verdict.MISSING)
                && !Rails.apart("core to io", known, 55, Rails.Verdict.OTHERWISE));
        assertEquals(new Rails.Rail("core to ground", 0.4, Double.NaN, Double.NaN).verdict(),
                Rails.Verdict.MISSING, "nothing to hold it against");
        assertEquals(new Rails.Rail("core to io", 0.3, Double.NaN, 0.3).verdict(), Rails.Verdict.PASS,
                "joined by design");
        var before = new Rails.Rail("core to io", Double.NaN, Double.NaN, Double.NaN);
        assertEquals(Rails.after(before, ReadWith.UNSAID, 0.2, ReadWith.UNSAID, Double.NaN).verdict(),
                Rails.Verdict.SHORT);
        var joined = new Rails.Rail("core to io", 0.3, Double.NaN, Double.NaN);
        assertEquals(Rails.after(joined, ReadWith.UNSAID, 600, ReadWith.UNSAID, Double.NaN).verdict(),
                Rails.Verdict.MISSING, "joined before, it is no pattern for now");
        assertEquals(Rails.after(joined, ReadWith.UNSAID, 0.3, ReadWith.UNSAID, Double.NaN).verdict(),
                Rails.Verdict.SHORT, "still joined");
    }

    /** A short that is gone is no failure, and no pass either: a large chip's rail that reads high has lost its chip. */
    @Test
    public void oneThatRoseFromAShortIsLeftOpen() {
        var shorted = new Rails.Rail("core", 0.4, Double.NaN, Double.NaN);
        Rails.After rose = Rails.after(shorted, ReadWith.UNSAID, 40, ReadWith.UNSAID, Double.NaN);
        assertEquals(rose.verdict(), Rails.Verdict.ROSE);
        assertEquals(rose.against(), Rails.Against.BEFORE);
        assertTrue(rose.verdict().unsure() && !Rails.Verdict.MISSING.unsure());
        assertEquals(Rails.after(shorted, ReadWith.UNSAID, 0.7, ReadWith.UNSAID, Double.NaN).verdict(),
                Rails.Verdict.SUSPECT, "it is still as good as a short");
        assertEquals(Rails.after(new Rails.Rail("core", 4, Double.NaN, Double.NaN), ReadWith.UNSAID, 90,
                ReadWith.UNSAID, Double.NaN).verdict(), Rails.Verdict.SUSPECT, "it was none");
        var known = new Rails.Rail("core", 0.4, Double.NaN, 38);
        assertEquals(Rails.after(known, ReadWith.UNSAID, 40, ReadWith.UNSAID, Double.NaN).verdict(),
                Rails.Verdict.PASS, "a healthy board tells");
        assertEquals(Rails.after(known, ReadWith.UNSAID, 90, ReadWith.UNSAID, Double.NaN).verdict(),
                Rails.Verdict.SUSPECT);
    }

    @Test
    public void whatItWasReadWithIsToldFromTheMetersName() {
        assertEquals(ReadWith.of("Bench two, red on ground"), new ReadWith("Bench two", true));
        assertEquals(ReadWith.of("bench two (leads turned)"), new ReadWith("bench two", true));
        assertEquals(ReadWith.of("RED ON GROUND"), new ReadWith("", true));
        assertEquals(ReadWith.of("red meter"), new ReadWith("red meter", false));
        assertTrue(ReadWith.of("pen").otherMeter(ReadWith.of("bench two")));
        assertTrue(!ReadWith.of("").otherMeter(ReadWith.of("bench two")), "nobody said");
        assertTrue(!ReadWith.of("Bench Two").otherMeter(ReadWith.of("bench two, red on ground")));
    }

    @Test
    public void aMissingRailForbidsAPass() {
        var good = new Rails.Rail("a", 100, 0, 100);
        assertEquals(Rails.compare(List.of(good)).verdict(), Rails.Verdict.PASS);
        var unread = new Rails.Rail("b", Double.NaN, 0, 100);
        var compared = Rails.compare(List.of(good, unread));
        assertEquals(compared.verdict(), Rails.Verdict.MISSING);
        assertEquals(compared.missing(), 1);
        assertEquals(compared.read(), 1);
        assertEquals(Rails.compare(List.of(unread, new Rails.Rail("c", 1, 0, 100))).verdict(),
                Rails.Verdict.SHORT, "a short outranks a gap");
        assertEquals(Rails.compare(List.of()).verdict(), Rails.Verdict.MISSING);
    }
}
