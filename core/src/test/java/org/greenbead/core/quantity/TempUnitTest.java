package org.greenbead.core.quantity;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class TempUnitTest {
    @DataProvider
    Object[][] pairs() {
        return new Object[][]{{0.0, 32.0}, {100.0, 212.0}, {155.0, 311.0}, {183.0, 361.4}, {-40.0, -40.0}};
    }

    @Test(dataProvider = "pairs")
    public void convertsBothWays(double c, double f) {
        assertEquals(TempUnit.FAHRENHEIT.fromC(c), f, 1e-9);
        assertEquals(TempUnit.FAHRENHEIT.toC(f), c, 1e-9);
        assertEquals(TempUnit.CELSIUS.fromC(c), c);
    }

    @DataProvider
    Object[][] entries() {
        return new Object[][]{{"180", TempUnit.CELSIUS, 180.0}, {"180 F", TempUnit.CELSIUS, 82.2222},
                {"356f", TempUnit.CELSIUS, 180.0},
                {"356 °F", TempUnit.CELSIUS, 180.0}, {"180 C", TempUnit.FAHRENHEIT, 180.0},
                {"356", TempUnit.FAHRENHEIT, 180.0}, {" 20,5 ", TempUnit.CELSIUS, 20.5},
                {"-10", TempUnit.CELSIUS, -10.0}, {"180 deg C", TempUnit.FAHRENHEIT, 180.0}};
    }

    @Test(dataProvider = "entries")
    public void readsWhatIsTyped(String text, TempUnit unit, double celsius) {
        assertEquals(unit.parseC(text).orElseThrow(), celsius, 1e-3);
    }

    @Test
    public void refusesWhatIsNoTemperature() {
        for (String text : new String[]{"", "hot", "180 K", "1 80", "18O", "12345", "--3", "NaN", "1e3",
                "180 FF"}) {
            assertTrue(TempUnit.CELSIUS.parseC(text).isEmpty(), text);
        }
    }
}
