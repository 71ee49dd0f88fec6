package org.greenbead.app.shell;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.HashMap;
import java.util.Map;
import org.greenbead.core.quantity.TempUnit;
import org.testng.annotations.Test;

public class SettingsTest {
    @Test
    public void whatIsChosenIsFoundAgain() {
        var kept = new HashMap<String, String>();
        var settings = new Settings();
        settings.keep(kept::put);
        settings.unit().set(TempUnit.FAHRENHEIT);
        settings.lampOff().set(true);
        settings.textPercent().set(150);
        settings.speed().set(60);
        settings.mute().set(true);
        settings.loggerFile().set("logger.json");
        settings.technician().set("technician B");
        settings.cameraFolder().set("shots");
        settings.supply().set("10.0.0.7:5025");
        settings.ruleLimits().set("a/b=1");
        settings.reportLanguage().set("de");
        settings.meter().set("bench two");
        assertEquals(kept.keySet(), java.util.Set.copyOf(Settings.NAMES),
                "all that is kept is asked for again");
        var again = new Settings();
        again.load(kept);
        assertEquals(again.unit().get(), TempUnit.FAHRENHEIT);
        assertTrue(again.lampOff().get() && again.mute().get());
        assertEquals(again.textPercent().get(), 150);
        assertEquals(again.speed().get(), 60);
        assertEquals(again.loggerFile().get(), "logger.json");
        assertEquals(again.supply().get(), "10.0.0.7:5025");
        assertEquals(again.reportLanguage().get(), "de");
    }

    @Test
    public void nonsenseKeepsTheDefault() {
        var settings = new Settings();
        settings.load(Map.of("unit", "kelvin", "text_percent", "huge", "speed", "-4"));
        assertEquals(settings.unit().get(), TempUnit.CELSIUS);
        assertEquals(settings.textPercent().get(), 100);
        assertEquals(settings.speed().get(), 1, "held in its range");
    }

    /** A tone begins and ends in silence, so that it does not click, and is never as loud as it could be. */
    @Test
    public void toneSwellsAndFades() {
        byte[] wave = Cues.wave(880, 0.1);
        assertEquals(wave.length, 2 * (int) (22_050 * 0.1));
        int most = 0;
        for (int i = 0; i < wave.length; i += 2) {
            most = Math.max(most, Math.abs((short) (wave[i] & 0xFF | wave[i + 1] << 8)));
        }
        assertTrue(most > 5000 && most < 16_000, "loudest " + most);
        assertEquals(wave[0], 0);
        assertTrue(Math.abs((short) (wave[wave.length - 2] & 0xFF | wave[wave.length - 1] << 8)) < 400);
    }
}
