package org.greenbead.core.quantity;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.testng.annotations.Test;

public class CheckTest {
    @Test
    public void messageHasNameValueUnitAndRange() {
        var e = expectThrows(IllegalArgumentException.class,
                () -> Check.within("solidus", 461, 0, 450, "°C"));
        assertEquals(e.getMessage(), "solidus is 461 °C; allowed is 0 to 450 °C");
    }

    @Test
    public void refusesWhatIsNoNumber() {
        expectThrows(IllegalArgumentException.class, () -> Check.within("x", Double.NaN, 0, 1, "mm"));
        expectThrows(IllegalArgumentException.class,
                () -> Check.within("x", Double.POSITIVE_INFINITY, 0, 1, "mm"));
        assertEquals(Check.within("x", 1, 0, 1, "mm"), 1.0);
    }

    @Test
    public void namesTheItemThatStandsTwice() {
        var e = expectThrows(IllegalArgumentException.class,
                () -> Check.distinct("chip", List.of("U1", "U2", "U1"), s -> s));
        assertEquals(e.getMessage(), "chip \"U1\" stands twice; give each its own name");
    }

    @Test
    public void refusesEmptyAndEndlessText() {
        expectThrows(IllegalArgumentException.class, () -> Check.text("title", " "));
        expectThrows(IllegalArgumentException.class, () -> Check.text("title", null));
        expectThrows(IllegalArgumentException.class, () -> Check.text("title", "x".repeat(401)));
    }
}
