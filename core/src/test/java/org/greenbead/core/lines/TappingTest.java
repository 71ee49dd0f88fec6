package org.greenbead.core.lines;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

public class TappingTest {
    private static final double DARK = 0.5;
    private static final double PART = 1.6;
    private static final double AGAIN = 4;

    /** A lamp followed by a hand that is off by some 50 ms. @param codes each the counts of one time round */
    private static Tapping followed(Random random, List<List<Integer>> codes) {
        Tapping taps = Tapping.NONE;
        double t = 100;
        for (List<Integer> code : codes) {
            for (int count : code) {
                for (int k = 0; k < count; k++) {
                    taps = taps.tapped(t + 0.05 * random.nextGaussian());
                    t += DARK;
                }
                t += PART - DARK;
            }
            t += AGAIN - PART;
        }
        return taps;
    }

    @Test
    public void threeAndOneIsThreeAndOne() {
        Tapping taps = followed(new Random(1), List.of(List.of(3, 1), List.of(3, 1), List.of(3, 1)));
        assertEquals(taps.code(), "3-1");
        assertEquals(taps.mayBe(), List.of("3-1"));
        assertEquals(taps.agreeing(), 3);
        assertFalse(taps.differs());
    }

    /** Who loses count in the second round is told so; a last round that was broken off is no fault. */
    @Test
    public void aBlinkThatWasMissedShows() {
        var random = new Random(2);
        assertTrue(followed(random, List.of(List.of(3, 1), List.of(2, 1), List.of(3, 1))).differs());
        Tapping broken = followed(random, List.of(List.of(3, 2), List.of(3, 2), List.of(2)));
        assertEquals(broken.code(), "3-2");
        assertFalse(broken.differs());
        assertEquals(broken.agreeing(), 2);
    }

    /** With one kind of pause only, four and four may be one code or one four twice: the table decides, if it knows one of them. */
    @Test
    public void fourTwiceOrFourAndFour() {
        Tapping taps = followed(new Random(3), List.of(List.of(4, 4)));
        assertEquals(taps.mayBe(), List.of("4-4", "4"));
        var single = new CodeTable(
                List.of(new CodeTable.Meaning("4", "memory not found", "service sheet 4")));
        assertEquals(single.read(taps).code(), "4");
        assertEquals(single.read(taps).provenance(), "service sheet 4");
        var both = new CodeTable(List.of(new CodeTable.Meaning("4", "memory", "sheet"),
                new CodeTable.Meaning("4-4", "supply", "sheet")));
        assertEquals(both.read(taps).code(), "4-4");
        assertEquals(new CodeTable(List.of()).read(taps).told(), CodeTable.Told.UNKNOWN);
    }

    @Test
    public void whatTheTableSays() {
        var table = new CodeTable(List.of(new CodeTable.Meaning("3-1", "supply core", "service sheet 4"),
                new CodeTable.Meaning("5", "sensor", " "), new CodeTable.Meaning("E4", "one", "a"),
                new CodeTable.Meaning("e4", "another", "b")));
        assertEquals(table.read("3 1").told(), CodeTable.Told.SOURCED);
        assertEquals(table.read("5").told(), CodeTable.Told.UNSOURCED);
        assertEquals(table.read("5").provenance(), "");
        assertEquals(table.read("E4").told(), CodeTable.Told.CONTRADICTED);
        assertEquals(table.read("E4").provenance(), "");
        assertEquals(table.read("6").told(), CodeTable.Told.UNKNOWN);
    }

    @Test
    public void aKeyThatBouncesTapsOnce() {
        Tapping taps = Tapping.NONE.tapped(1).tapped(1.03).tapped(1.5).tapped(1.49);
        assertEquals(taps.tapsS(), List.of(1.0, 1.5));
    }

    /** Nobody is cut off in the pause before a repeat. */
    @Test
    public void overOnlyAfterALongerSilenceThanAnyBefore() {
        Tapping taps = followed(new Random(4), List.of(List.of(2, 1), List.of(2, 1)));
        double last = taps.tapsS().getLast();
        assertFalse(taps.over(last + AGAIN + 1));
        assertTrue(taps.over(last + 2.6 * (AGAIN + 0.2)));
        assertFalse(Tapping.NONE.over(1e6));
    }

    /** Many hands: of all codes with a part of two or more, followed twice, 98 in 100 are read right. */
    @Test
    public void followedTwiceItIsReadRight() {
        var random = new Random(5);
        int right = 0;
        int all = 300;
        for (int n = 0; n < all; n++) {
            var code = new ArrayList<Integer>(List.of(2 + random.nextInt(5)));
            for (int k = 1 + random.nextInt(2); k > 0; k--) {
                code.add(1 + random.nextInt(6));
            }
            Tapping taps = followed(random, List.of(code, code));
            String wanted = String.join("-", code.stream().map(String::valueOf).toList());
            right += taps.code().equals(wanted) && taps.agreeing() == 2 ? 1 : 0;
        }
        assertTrue(right >= 0.98 * all, right + " of " + all);
    }
}
