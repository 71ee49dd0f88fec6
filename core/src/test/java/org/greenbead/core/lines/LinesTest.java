package org.greenbead.core.lines;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.testng.annotations.Test;

public class LinesTest {
    private static List<LineCompare.State> states(String a, String b, double tolerance) {
        return LineCompare.of(a, b, tolerance, List.of()).stream().map(LineCompare.Line::state).toList();
    }

    @Test
    public void numbersHaveTheirTolerance() {
        assertEquals(states("rail core 18.2 ohm", "rail core 18.4 ohm", 2), List.of(LineCompare.State.CLOSE));
        assertEquals(states("rail core 18.2 ohm", "rail core 18.4 ohm", 1),
                List.of(LineCompare.State.CHANGED));
        assertEquals(states("rail core 18,2 ohm", "rail core 0.4 ohm", 10),
                List.of(LineCompare.State.CHANGED));
        assertEquals(states("a\nb", "a\nb\n", 0), List.of(LineCompare.State.SAME, LineCompare.State.SAME));
    }

    /** The worked example: lines 3, 7 and 9 failed before, 7 still does. */
    @Test
    public void whatWentAndWhatStays() {
        List<LineCompare.Line> lines = LineCompare.of("fail three\nfail seven\nfail nine", "fail seven", 0,
                List.of("SEVEN"));
        assertEquals(lines.stream().map(l -> l.before() + l.state()).collect(Collectors.joining(",")),
                "fail threeGONE,fail sevenSAME,fail nineGONE");
        assertEquals(lines.stream().filter(LineCompare.Line::pinned).count(), 1);
    }

    /** Whatever was taken out and put in: what stayed is found, nothing is made up, order is kept. */
    @Test
    public void everyLineIsAccountedFor() {
        var random = new Random(11);
        for (int n = 0; n < 100; n++) {
            var before = new ArrayList<String>();
            for (int i = 0; i < 30; i++) {
                before.add("line " + (char) ('a' + random.nextInt(26)) + (char) ('a' + i % 26));
            }
            var after = new ArrayList<>(before);
            int gone = random.nextInt(5);
            for (int i = 0; i < gone; i++) {
                after.remove(random.nextInt(after.size()));
            }
            after.add(random.nextInt(after.size()), "something else");
            List<LineCompare.Line> lines = LineCompare.of(String.join("\n", before),
                    String.join("\r\n", after), 0,
                    List.of());
            assertEquals(lines.stream().map(LineCompare.Line::before).filter(l -> !l.isEmpty()).toList(),
                    before);
            assertEquals(lines.stream().map(LineCompare.Line::after).filter(l -> !l.isEmpty()).toList(),
                    after);
            assertEquals(lines.stream().filter(l -> l.state() == LineCompare.State.GONE).count(), gone);
        }
        String huge = "x\n".repeat(4001);
        expectThrows(IllegalArgumentException.class, () -> LineCompare.of(huge, "x", 0, List.of()));
    }

    /** A lamp that blinks a code several times over, tapped by a hand that is off by 60 ms: counted right in 99 of 100. */
    @Test
    public void aCodeIsCountedByItsRhythm() {
        var random = new Random(3);
        int right = 0;
        int all = 400;
        for (int n = 0; n < all; n++) {
            var code = new ArrayList<Integer>();
            int groups = 1 + random.nextInt(3);
            for (int i = 0; i < groups; i++) {
                code.add(1 + random.nextInt(7));
            }
            if (code.stream().mapToInt(c -> c).sum() < 3
                    || groups > 1 && code.stream().allMatch(c -> c == 1)) {
                right++;
                continue;
            }
            double beat = 0.35 + 0.4 * random.nextDouble();
            int repeats = 1 + random.nextInt(2);
            var taps = new ArrayList<Double>();
            double t = 2;
            for (int r = 0; r < repeats; r++) {
                for (int count : code) {
                    for (int i = 0; i < count; i++) {
                        taps.add(t + 0.06 * Math.clamp(random.nextGaussian(), -2, 2) * 0.5);
                        t += beat;
                    }
                    t += 2 * beat;
                }
                t += 5 * beat;
            }
            boolean told = Rhythm.groups(taps).equals(code);
            // One group that is repeated cannot be told from a code of two equal groups.
            right += told || groups == 1 && repeats == 2 ? 1 : 0;
        }
        assertTrue(right >= 0.99 * all, right + " of " + all);
        assertEquals(Rhythm.groups(List.of()), List.of());
        assertEquals(Rhythm.groups(List.of(1.0)), List.of(1));
        assertEquals(Rhythm.groups(List.of(0.0, 0.5, 1.0, 2.5)), List.of(3, 1));
        expectThrows(IllegalArgumentException.class, () -> Rhythm.groups(List.of(1.0, 0.5)));
    }
}
