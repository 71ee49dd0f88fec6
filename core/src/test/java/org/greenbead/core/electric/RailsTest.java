package org.greenbead.core.electric;

import static org.testng.Assert.assertEquals;

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
