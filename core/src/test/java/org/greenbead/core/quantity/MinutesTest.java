package org.greenbead.core.quantity;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class MinutesTest {
    @DataProvider
    Object[][] typed() {
        return new Object[][]{{"90", 90}, {" 90 min ", 90}, {"9h", 540}, {"1.5 h", 90}, {"1,5h", 90},
                {"1:30", 90},
                {"0.5", 0.5}};
    }

    @Test(dataProvider = "typed")
    public void readAsWritten(String text, double minutes) {
        assertEquals(Minutes.parse(text), minutes, 1e-9);
    }

    @Test
    public void anythingElseIsRefusedInWords() {
        for (String bad : new String[]{"", "soon", "-5", "1:75", "1e9", "5 days", "NaN", "9hh"}) {
            assertTrue(expectThrows(IllegalArgumentException.class, () -> Minutes.parse(bad)).getMessage()
                    .contains("is no time"), bad);
        }
    }

    @Test
    public void saidInHoursOnceTheyAreLong() {
        assertEquals(Minutes.say(250), "4:10");
        assertEquals(Minutes.say(5999), "99:59");
        assertEquals(Minutes.say(6000), "1 h 40 min");
        assertEquals(Minutes.say(14 * 3600), "14 h");
        assertEquals(Minutes.say(-3), "0:00");
    }
}
