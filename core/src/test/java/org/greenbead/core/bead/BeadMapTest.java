package org.greenbead.core.bead;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.testng.annotations.Test;

/** Names, fields, turns and fits. */
public class BeadMapTest {
    private static final Optional<Double> BALL = Optional.of(0.3);

    @Test
    public void rowsSkipTheLettersThatAreMistaken() {
        assertEquals(RowNames.letters(0), "A");
        assertEquals(RowNames.letters(8), "J", "no I");
        assertEquals(RowNames.letters(19), "Y");
        assertEquals(RowNames.letters(20), "AA");
        assertEquals(RowNames.letters(40), "BA");
        var seen = new HashSet<String>();
        for (int row = 0; row < 420; row++) {
            String letters = RowNames.letters(row);
            assertFalse(letters.matches(".*[IOQSXZ].*"), letters);
            assertTrue(seen.add(letters));
            assertEquals(RowNames.row(letters), OptionalInt.of(row));
        }
        expectThrows(IllegalArgumentException.class, () -> RowNames.letters(420));
        for (String bad : new String[]{"I1", "A0", "AAA1", "1A", "", "Q7", "B:O2"}) {
            assertFalse(RowNames.isSite(bad), bad);
        }
        assertTrue(RowNames.isSite("F18") && RowNames.isSite("B:A1") && RowNames.isSite("A:A:A2"));
    }

    @Test
    public void gridIsCountedAndPitched() {
        BeadMap map = BeadMap.grid(17, 17, 0.65, Optional.of(0.4)).without("G7", "L11");
        assertEquals(map.sites().size(), 17 * 17 - 25);
        assertEquals(map.pitchMm(), 0.65, 1e-9);
        assertEquals(map.site("A1").orElseThrow().yMm(), 5.2, 1e-9, "row A is at the top");
        assertTrue(map.site("H8").isEmpty());
        assertTrue(expectThrows(IllegalArgumentException.class, () -> map.without("A1", "ZZ9")).getMessage()
                .contains("A1"));
    }

    /** A gap at row 2, column 3 of twelve lies, a quarter clockwise on, at row 3, column 11. */
    @Test
    public void quarterTurnMovesTheGap() {
        BeadMap gap = BeadMap.grid(12, 12, 0.5, BALL).without("B3", "B3");
        BeadMap turned = gap.turned(1);
        BeadMap expected = BeadMap.grid(12, 12, 0.5, BALL).without("C11", "C11");
        assertTrue(expected.fit(turned).whole());
        assertEquals(expected.fit(turned).degrees(), 0);
        assertEquals(gap.turned(4), gap.turned(0));
    }

    @Test
    public void stencilIsFoundInAnyTurnAndNeverMirrored() {
        BeadMap chip = BeadMap.grid(10, 8, 0.5, BALL).without("C3", "E4").without("A1", "A1");
        for (int quarter = 0; quarter < 4; quarter++) {
            BeadMap.Fit fit = chip.fit(chip.turned(quarter));
            assertTrue(fit.whole(), "turned by " + quarter);
            assertEquals(fit.degrees(), (4 - quarter) % 4 * 90);
        }
        BeadMap.Fit mirrored = chip.fit(chip.mirrored());
        assertFalse(mirrored.whole(), "the other side is another stencil");
        assertEquals(chip.mirrored().mirrored(), chip);
        BeadMap one = BeadMap.grid(10, 8, 0.5, BALL).without("C3", "E4");
        assertEquals(chip.fit(one).extra(), List.of("A1"), "one hole too many");
        assertEquals(one.fit(chip).unfilled(), List.of("A1"));
    }

    @Test
    public void overlapAndRepetitionAreRefused() {
        Site a1 = new Site("A1", 0, 0, Optional.of(0.4), "", Site.Critical.UNKNOWN);
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> new BeadMap(
                        List.of(a1, new Site("A2", 0.3, 0, Optional.of(0.4), "", Site.Critical.UNKNOWN))))
                .getMessage()
                .contains("A1 and A2 overlap"));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> new BeadMap(List.of(a1, a1)))
                .getMessage().contains("stands twice"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> new Site("I1", 0, 0, Optional.empty(), "", null)).getMessage().contains("without I"));
        expectThrows(IllegalArgumentException.class, () -> BeadMap.grid(3, 3, 0.1, BALL));
        assertEquals(BeadMap.grid(60, 60, 0.4, BALL).sites().size(), 3600);
    }
}
