package org.greenbead.core.cue;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Optional;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.RuleBook;
import org.testng.annotations.Test;

public class IronPassesTest {
    @Test
    public void passesAreTimedFromDownToUp() {
        var iron = new IronPasses(3);
        assertFalse(iron.down());
        assertEquals(iron.part(5), 0.0);
        iron.press(10);
        assertTrue(iron.down());
        assertEquals(iron.part(11.5), 0.5, 1e-12);
        assertEquals(iron.thisS(9), 0.0, "a clock that was set back");
        iron.press(12);
        iron.press(14);
        assertEquals(iron.passes(), 1, "the second is not over");
        iron.press(18.5);
        assertEquals(iron.passes(), 2);
        assertEquals(iron.longestS(), 4.5, 1e-12);
        assertEquals(iron.allS(), 6.5, 1e-12);
        assertEquals(iron.tooLong(), 1);
        assertEquals(iron.thisS(99), 0.0);
    }

    /** What is noted of the chip outranks the rule, and the bench's own number outranks the shipped one. */
    @Test
    public void longestIsTheChipsElseTheRules() {
        var usual = RuleBook.Settings.STANDARD;
        assertEquals(IronPasses.mostS(Facts.none(), RuleBook.shipped(), usual), 3.0);
        assertEquals(IronPasses.mostS(Facts.none(), RuleBook.shipped(),
                usual.with("clean.iron-lingers/dwell", Optional.of(2.0))), 2.0);
        assertEquals(
                IronPasses.mostS(Facts.none().with("chip.iron_dwell_max_s=5"), RuleBook.shipped(), usual),
                5.0);
    }

    @Test
    public void nonsenseIsRefused() {
        for (double bad : new double[]{0, -1, Double.NaN, 1e4}) {
            expectThrows(IllegalArgumentException.class, () -> new IronPasses(bad));
        }
    }
}
