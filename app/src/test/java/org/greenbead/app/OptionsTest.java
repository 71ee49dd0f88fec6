package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.Test;

public class OptionsTest {
    private static final Path HOME = Path.of("home");

    @Test
    public void withADisplayTheDemoWaitsForAPerson() {
        Options options = Options.parse(List.of("--demo", "--data", "d"), false, HOME);
        assertTrue(options.demo());
        assertFalse(options.walk());
        assertEquals(options.data(), Path.of("d"));
        assertTrue(options.shots().isEmpty());
    }

    @Test
    public void withoutADisplayItWalksByItself() {
        Options options = Options.parse(List.of("--demo"), true, HOME);
        assertTrue(options.walk());
        assertEquals(options.shots(), Optional.of(HOME.resolve("target").resolve("shots")));
        assertEquals(options.data(), HOME.resolve("target").resolve("walk-data"),
                "and not in the person's own ledger");
        assertFalse(Options.parse(List.of("--demo", "--still"), true, HOME).walk());
    }

    @Test
    public void ownLedgerIsNeverWalkedThroughUnseen() {
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> Options.parse(List.of("--data", "d"), true, HOME)).getMessage().contains("no display"));
        assertFalse(Options.parse(List.of("--still", "--data", "d"), true, HOME).walk());
    }

    /** From one's own ledger into the demo within it and back; from a demo elsewhere to the usual place. */
    @Test
    public void eachWorldKnowsTheOther() {
        Options own = Options.parse(List.of("--data", "d"), false, HOME);
        Options demo = own.other();
        assertTrue(demo.demo());
        assertEquals(demo.data(), Path.of("d").resolve("skerry-bench"));
        assertFalse(demo.other().demo());
        assertEquals(demo.other().data(), Path.of("d"));
        Path usual = Options.parse(List.of(), false, HOME).data();
        assertEquals(Options.parse(List.of("--demo", "--data", "elsewhere"), false, HOME).other().data(),
                usual);
    }

    @Test
    public void ownLedgerAndTheDemosAreApart() {
        Path own = Options.parse(List.of(), false, HOME).data();
        Path demo = Options.parse(List.of("--demo"), false, HOME).data();
        assertEquals(demo, own.resolve("skerry-bench"));
    }

    @Test
    public void unknownWordIsNamed() {
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> Options.parse(List.of("--frob"), false, HOME)).getMessage().contains("--frob"));
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> Options.parse(List.of("--data"), false, HOME)).getMessage().contains("needs a folder"));
    }

    @Test
    public void sizeOfWindowAndTextAreHeldInTheirBounds() {
        Options large = Options.parse(List.of("--demo", "--size", "1100x700", "--text", "175"), true, HOME);
        assertEquals(large.look().widthPx(), 1100);
        assertEquals(large.look().heightPx(), 700);
        assertEquals(large.look().textPercent().getAsInt(), 175);
        assertEquals(large.empty().look(), large.look(), "the next world in the same window too");
        assertTrue(Options.parse(List.of(), false, HOME).look().textPercent().isEmpty());
        for (List<String> wrong : List.of(List.of("--size", "900x700"), List.of("--size", "wide"),
                List.of("--text", "80"), List.of("--text", "-5"), List.of("--size"))) {
            expectThrows(IllegalArgumentException.class, () -> Options.parse(wrong, false, HOME));
        }
    }
}
