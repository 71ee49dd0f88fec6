package org.greenbead.core.quantity;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.Locale;
import java.util.ResourceBundle;
import java.util.regex.Pattern;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.run.RunPlan;
import org.testng.annotations.Test;

public class WordsTest {
    private static final Words C = new Words(Locale.ENGLISH, TempUnit.CELSIUS);
    private static final Words F = new Words(Locale.ENGLISH, TempUnit.FAHRENHEIT);

    @Test
    public void everyNumberHasItsUnit() {
        assertEquals(C.show(new Quantity.TempC(183.4)), "183 °C");
        assertEquals(F.show(new Quantity.TempC(183)), "361 °F");
        assertEquals(C.show(new Quantity.RiseK(10)), "10 °C");
        assertEquals(F.show(new Quantity.RiseK(10)), "18 °F");
        assertEquals(C.show(new Quantity.RateKPerS(2.44)), "2.4 °C/s");
        assertEquals(F.show(new Quantity.RateKPerS(1)), "1.8 °F/s");
        assertEquals(C.show(new Quantity.Seconds(252)), "4:12");
        assertEquals(C.show(new Quantity.Hours(168)), "168 h");
        assertEquals(C.show(new Quantity.Millimetres(20)), "20 mm");
        assertEquals(C.show(new Quantity.Millimetres(0.5)), "0.5 mm");
        assertEquals(C.show(new Quantity.LitresPerMinute(28)), "28 L/min");
        assertEquals(C.show(new Quantity.Count(3)), "3");
        assertEquals(C.show(new Quantity.TempC(Double.NaN)), "–");
    }

    @Test
    public void zeroHasNoSign() {
        assertEquals(C.show(new Quantity.RateKPerS(-0.01)), "0.0 °C/s");
        assertEquals(C.show(new Quantity.TempC(-0.2)), "0 °C");
    }

    @Test
    public void phraseIsFilledInItsOrder() {
        assertEquals(C.say("rule.peak_too_low.what", new Quantity.TempC(190)), "Joints reach only 190 °C");
        assertEquals(F.say("rule.ramp_up.what", new Quantity.Name("U1"), new Quantity.RateKPerS(4)),
                "Ramp 7.2 °F/s");
    }

    @Test
    public void everyRuleHasItsFourSentences() {
        for (Rule rule : Rule.values()) {
            for (String part : new String[]{".what", ".why", ".remedy", ".source"}) {
                assertTrue(C.has(rule.key() + part), rule.key() + part);
            }
        }
    }

    /** The coach names the task in these; a missing one would leave the pedal with the words of the stage before. */
    @Test
    public void everyTaskHasItsWords() {
        for (RunPlan.Task task : RunPlan.Task.values()) {
            String name = task.name().toLowerCase(Locale.ROOT);
            for (String key : new String[]{"coach.molten.", "coach.molten.next.", "pedal.moves.",
                    "pedal.heat_off."}) {
                assertTrue(C.has(key + name), key + name);
            }
        }
    }

    /** A lone apostrophe in a pattern with gaps swallows the rest of the sentence. */
    @Test
    public void noSentenceWithGapsHasALoneApostrophe() {
        ResourceBundle bundle = ResourceBundle.getBundle("org.greenbead.core.trade", Locale.ENGLISH);
        for (String key : bundle.keySet()) {
            String text = bundle.getString(key);
            assertFalse(Pattern.compile("(?<!')'(?!')").matcher(text).find(), key + ": " + text);
            assertFalse(text.isBlank(), key);
        }
    }

    @Test
    public void clockNeverGoesBelowZero() {
        assertEquals(Words.clock(-3), "0:00");
        assertEquals(Words.clock(59.6), "1:00");
        assertEquals(Words.clock(3725), "62:05");
        assertEquals(Words.clock(Double.NaN), "–");
    }
}
