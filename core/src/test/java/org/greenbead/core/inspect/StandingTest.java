package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.testng.annotations.Test;

/** How high balls stand, and by how much that differs. */
public class StandingTest {
    /** A sphere cut at the width of its pad: the height over the cut, by Pythagoras; a half sphere on a pad as wide as itself, a whole one on none. */
    @Test
    public void aBallStandsAsItsCutSphereDoes() {
        double pad = 0.75 * 0.4;
        for (double d : List.of(0.36, 0.4, 0.44)) {
            double centre = Math.sqrt(d * d / 4 - pad * pad / 4);
            assertEquals(BeadJudge.Standing.of(d, 0, 0.4).highMm(), d / 2 + centre, 1e-12);
        }
        assertEquals(BeadJudge.Standing.of(0.4, 0, 1e-9).highMm(), 0.4, 1e-9);
    }

    /** The uncertainty is that of the diameter times the slope, which a finite step shows: more than the width grows. */
    @Test
    public void uncertaintyGrowsByTheSlope() {
        double step = 1e-6;
        double slope = (BeadJudge.Standing.of(0.4 + step, 0, 0.4).highMm()
                - BeadJudge.Standing.of(0.4 - step, 0, 0.4).highMm()) / (2 * step);
        assertEquals(BeadJudge.Standing.of(0.4, 0.01, 0.4).sdMm(), 0.01 * slope, 1e-7);
        assertTrue(slope > 1.2 && slope < 1.3, "" + slope);
    }

    /** Of two hundred balls of known heights, measured with noise, the stated difference is the true one within four of its uncertainty. */
    @Test
    public void theDifferenceIsTheTrueOneWithinWhatIsSaid() {
        var random = new Random(6);
        BeadMap map = BeadMap.grid(14, 14, 0.8, Optional.of(0.5));
        for (int round = 0; round < 20; round++) {
            var seen = new ArrayList<BeadReport.Seen>();
            double low = 9;
            double high = 0;
            for (Site s : map.sites()) {
                double d = 0.5 * (1 + 0.02 * random.nextGaussian());
                double truth = d / 2 + Math.sqrt(d * d - 0.375 * 0.375) / 2;
                low = Math.min(low, truth);
                high = Math.max(high, truth);
                seen.add(new BeadReport.Seen(s.name(), BeadState.OK, 0, 0,
                        Optional.of(d + 0.004 * random.nextGaussian()), 0.004, Optional.of(0.0), 0.01,
                        List.of()));
            }
            BeadVerdict verdict = BeadJudge.of(map, seen, List.of(), 0.5, 2, false);
            assertEquals(verdict.coplanarityMm(), high - low, 4 * verdict.coplanaritySdMm());
            assertTrue(verdict.coplanarityMm() > 0.9 * (high - low), "never low as by the width alone");
        }
    }

    /** The same faults strip a chip on a sound photo, and ask for another look on one that is in doubt itself. */
    @Test
    public void aDoubtedPhotoStripsNothing() {
        BeadMap map = BeadMap.grid(5, 5, 0.8, Optional.of(0.5));
        List<BeadReport.Seen> seen = map.sites().stream().map(s -> {
            boolean gone = s.name().startsWith("A") || s.name().startsWith("B");
            return new BeadReport.Seen(s.name(), gone ? BeadState.MISSING : BeadState.OK, 0, 0,
                    gone ? Optional.empty() : Optional.of(0.5), 0.01, Optional.of(0.0), 0.01, List.of());
        }).toList();
        assertEquals(BeadJudge.of(map, seen, List.of(), 0.5, 2, false).act(), BeadVerdict.Act.STRIP);
        BeadVerdict doubted = BeadJudge.of(map, seen, List.of(), 0.5, 2, true);
        assertEquals(doubted.act(), BeadVerdict.Act.LOOK_AGAIN);
        assertEquals(doubted.todo().size(), 10, "what was seen stays told");
    }

    /** Nothing good, nothing said. */
    @Test
    public void withoutAGoodBallNothingIsSaid() {
        BeadMap map = BeadMap.grid(1, 1, 0.8, Optional.of(0.5));
        BeadVerdict verdict = BeadJudge.of(map, List.of(new BeadReport.Seen("A1", BeadState.MISSING, 0, 0,
                Optional.empty(), 0, Optional.empty(), 0, List.of())), List.of(), 0.5, 0, false);
        assertEquals(verdict.coplanarityMm() + verdict.coplanaritySdMm(), 0.0);
    }
}
