package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.ResourceBundle;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.CheckItem;
import org.greenbead.core.route.Job;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** Every word a screen asks for is in the bundle, and the bundle carries no dead words. */
public class WordsInUseTest {
    private static final ResourceBundle UI = ResourceBundle.getBundle("org.greenbead.app.ui", Locale.ENGLISH);

    private static String sources() throws IOException {
        var all = new StringBuilder();
        try (var files = Files.walk(Path.of("src/main/java"))) {
            for (Path file : files.filter(f -> f.toString().endsWith(".java")).toList()) {
                all.append(Files.readString(file));
            }
        }
        return all.toString();
    }

    @Test
    public void everyKeyAskedForExists() throws IOException {
        var asked = Pattern.compile("texts(?:\\(\\))?\\s*\\.get\\(\\s*\"([a-z.]+)\"").matcher(sources());
        int count = 0;
        while (asked.find()) {
            assertTrue(UI.containsKey(asked.group(1)), asked.group(1));
            count++;
        }
        assertTrue(count > 60, "keys found: " + count);
    }

    @Test
    public void everyWordIsUsed() throws IOException {
        String source = sources();
        var dead = new TreeSet<String>();
        for (String key : UI.keySet()) {
            if (!source.contains("\"" + key + "\"")) {
                dead.add(key);
            }
        }
        assertEquals(dead, new TreeSet<String>());
    }

    /** A route without words for one of its beads would show a key. */
    @Test
    public void everyBeadAndCheckOfTheDemoHasItsWords() throws Exception {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        for (String id : new String[]{"SB-0417", "SB-0415", "SB-0412", "SB-0409"}) {
            Job job = new DemoWorld(new OpenFiles()).plan(id, "lift_run").job();
            for (Bead bead : job.beads()) {
                assertTrue(words.has("bead." + bead.id()), bead.id());
                assertTrue(words.has("phase." + bead.phase().name().toLowerCase(Locale.ROOT)));
                for (CheckItem check : bead.checks()) {
                    assertTrue(words.has("check." + check.id()), check.id());
                }
            }
        }
    }

    /** Where the work can hurt, the caution stands at that very step. */
    @Test
    public void dangerousStepsCarryTheirCaution() {
        var words = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
        for (String check : new String[]{"supply_off", "cell_off", "discharged", "extraction_on", "gloves_on",
                "board_wicked", "board_washed", "balls_formed", "supply_curve_compared"}) {
            assertTrue(words.has("caution.check." + check), check);
        }
        for (String caution : new String[]{"caution.hot", "caution.fumes", "caution.molten",
                "caution.hands_off", "caution.still_hot"}) {
            assertTrue(words.has(caution), caution);
        }
    }
}
