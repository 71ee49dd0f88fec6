package org.greenbead.app.look;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Pattern;
import javafx.scene.paint.Color;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Both themes give every role a value, and every text reads on every ground it stands on. */
public class ThemeTest {
    private static String sheet(String name) throws IOException {
        try (InputStream in = ThemeTest.class
                .getResourceAsStream("/org/greenbead/app/look/" + name + ".css")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static Map<String, Color> roles(String name) throws IOException {
        var roles = new TreeMap<String, Color>();
        var found = Pattern.compile("(-gb-[a-z-]+):\\s*(#[0-9A-Fa-f]{6});").matcher(sheet(name));
        while (found.find()) {
            roles.put(found.group(1), Color.web(found.group(2)));
        }
        return roles;
    }

    /** Relative luminance and contrast as WCAG 2.2 defines them. */
    private static double contrast(Color a, Color b) {
        double la = luminance(a);
        double lb = luminance(b);
        return (Math.max(la, lb) + 0.05) / (Math.min(la, lb) + 0.05);
    }

    private static double luminance(Color c) {
        return 0.2126 * linear(c.getRed()) + 0.7152 * linear(c.getGreen()) + 0.0722 * linear(c.getBlue());
    }

    private static double linear(double v) {
        return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
    }

    @Test
    public void themesGiveTheSameRoles() throws IOException {
        assertEquals(roles("lamp-off").keySet(), roles("daylight").keySet());
        assertTrue(roles("daylight").size() > 25);
    }

    @Test
    public void partsUseOnlyRolesThatExist() throws IOException {
        var used = Pattern.compile("-gb-[a-z-]+").matcher(sheet("app"));
        var known = roles("daylight").keySet();
        while (used.find()) {
            assertTrue(known.contains(used.group()), used.group());
        }
    }

    /** Colours of the plan's small labels stand on the heat colours, which are the same in both themes. */
    @Test
    public void partsNameNoColourOfTheirOwn() throws IOException {
        var literal = Pattern.compile("#[0-9A-Fa-f]{6}").matcher(sheet("app"));
        while (literal.find()) {
            assertEquals(literal.group(), "#1B2420");
        }
    }

    @DataProvider
    Object[][] pairs() {
        return new Object[][]{{"-gb-ink", "-gb-paper"}, {"-gb-ink", "-gb-panel"}, {"-gb-ink", "-gb-tray"},
                {"-gb-ink", "-gb-warm"}, {"-gb-ink", "-gb-key"},
                {"-gb-ink", "-gb-select"}, {"-gb-ink", "-gb-field"}, {"-gb-muted", "-gb-paper"},
                {"-gb-muted", "-gb-panel"}, {"-gb-muted", "-gb-tray"}, {"-gb-muted", "-gb-warm"},
                {"-gb-muted", "-gb-key"}, {"-gb-muted", "-gb-field"}, {"-gb-string-ink", "-gb-string"},
                {"-gb-string-muted", "-gb-string"}, {"-gb-on-green", "-gb-press"},
                {"-gb-on-green", "-gb-press-hot"}, {"-gb-on-green-muted", "-gb-press"},
                {"-gb-green-ink", "-gb-panel"}, {"-gb-green-ink", "-gb-paper"},
                {"-gb-green-ink", "-gb-select"},
                {"-gb-green-ink", "-gb-window"}, {"-gb-green-ink", "-gb-warm"}, {"-gb-amber-ink", "-gb-warm"},
                {"-gb-amber-ink", "-gb-panel"}, {"-gb-amber-ink", "-gb-paper"},
                {"-gb-hot-ink", "-gb-panel"}, {"-gb-hot-ink", "-gb-warm"}, {"-gb-hot-ink", "-gb-field"},
                {"-gb-hot-ink", "-gb-paper"}, {"-gb-joint-ink", "-gb-panel"},
                {"-gb-copper-ink", "-gb-panel"}, {"-gb-tin-ink", "-gb-panel"}, {"-gb-tin-ink", "-gb-warm"}};
    }

    @Test(dataProvider = "pairs")
    public void textReadsOnItsGround(String ink, String ground) throws IOException {
        for (String theme : new String[]{"daylight", "lamp-off"}) {
            double found = contrast(roles(theme).get(ink), roles(theme).get(ground));
            assertTrue(found >= 4.5, theme + ": " + ink + " on " + ground + " is " + found);
        }
    }

    /** Told apart by lightness alone, whatever the eye does with hue; and dark text reads on all of them. */
    @Test
    public void heatColoursDarkenAllTheWay() {
        double before = 2;
        for (double c = 20; c <= 240; c += 5) {
            double now = luminance(HeatColour.of(c));
            assertTrue(now <= before + 0.012, "at " + c + ": " + now + " after " + before);
            before = Math.min(before, now);
            assertTrue(contrast(HeatColour.of(c), Color.web("#1B2420")) > 3, "label at " + c);
        }
        assertEquals(HeatColour.of(Double.NaN), HeatColour.of(20));
        assertEquals(HeatColour.of(999), HeatColour.of(240));
    }
}
