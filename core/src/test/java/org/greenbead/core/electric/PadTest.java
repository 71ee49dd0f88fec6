package org.greenbead.core.electric;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertNotEquals;

import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.electric.Pad.Carries;
import org.greenbead.core.electric.Pad.Damage;
import org.greenbead.core.electric.Pad.Verdict;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is said of a pad, by what it carries and what a meter showed. */
public class PadTest {
    private static Pad pad(Damage damage, Carries carries, Boolean continues, double leakOhm, boolean bonded,
            boolean covered) {
        return new Pad("C4", damage, carries, Optional.ofNullable(continues),
                Double.isNaN(leakOhm) ? OptionalDouble.empty() : OptionalDouble.of(leakOhm), bonded, covered);
    }

    @DataProvider
    Object[][] pads() {
        return new Object[][]{
                {pad(Damage.MISSING, Carries.ONLY, null, Double.NaN, false, false), Verdict.UNREAD},
                {pad(Damage.MISSING, Carries.UNKNOWN, null, Double.NaN, false, false), Verdict.UNREAD},
                {pad(Damage.MISSING, Carries.ONLY, false, Double.NaN, false, false), Verdict.OPEN},
                {pad(Damage.NONE, Carries.UNKNOWN, false, Double.NaN, false, false), Verdict.OPEN},
                {pad(Damage.MISSING, Carries.SHARED, false, Double.NaN, false, false), Verdict.CARRIED},
                {pad(Damage.MISSING, Carries.SPARE, null, Double.NaN, false, false), Verdict.FINE},
                {pad(Damage.LIFTED, Carries.ONLY, true, Double.NaN, false, false), Verdict.FINE},
                {pad(Damage.LIFTED, Carries.ONLY, true, Double.NaN, true, false), Verdict.UNCOVERED},
                {pad(Damage.LIFTED, Carries.ONLY, true, Double.NaN, true, true), Verdict.FINE},
                {pad(Damage.BRIDGED, Carries.ONLY, null, Double.NaN, false, false), Verdict.UNREAD},
                {pad(Damage.BRIDGED, Carries.SPARE, null, 2, false, false), Verdict.SHORTED},
                {pad(Damage.BRIDGED, Carries.ONLY, null, 9.99, false, false), Verdict.SHORTED},
                {pad(Damage.BRIDGED, Carries.ONLY, null, 10, false, false), Verdict.LEAKS},
                {pad(Damage.NONE, Carries.SPARE, null, 999_999, false, false), Verdict.LEAKS},
                {pad(Damage.NONE, Carries.ONLY, null, 1e6, false, false), Verdict.FINE}};
    }

    @Test(dataProvider = "pads")
    public void theGravestIsSaid(Pad pad, Verdict verdict) {
        assertEquals(pad.verdict(), verdict);
    }

    /** Over every state: a pad that is the only one of its net is never good or carried while a meter has not found the net after damage. */
    @Test
    public void theOnlyPadOfANetIsNeverGoodUnmeasured() {
        for (Damage damage : new Damage[]{Damage.LIFTED, Damage.MISSING, Damage.SCRATCHED}) {
            for (double leak : new double[]{Double.NaN, 1, 1e5, 1e7}) {
                for (int bits = 0; bits < 4; bits++) {
                    for (Boolean continues : new Boolean[]{null, false}) {
                        for (Carries carries : new Carries[]{Carries.ONLY, Carries.UNKNOWN}) {
                            Verdict said = pad(damage, carries, continues, leak, (bits & 1) > 0,
                                    (bits & 2) > 0)
                                    .verdict();
                            assertNotEquals(said, Verdict.FINE);
                            assertNotEquals(said, Verdict.CARRIED);
                            assertNotEquals(said, Verdict.UNCOVERED);
                        }
                    }
                }
            }
        }
    }
}
