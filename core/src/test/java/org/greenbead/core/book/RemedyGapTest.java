package org.greenbead.core.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.Locale;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.testng.annotations.Test;

/** A remedy says its number, reckoned from the job that it is said of. */
public class RemedyGapTest {
    private static final RuleBook BOOK = RuleBook.shipped();
    private final Words celsius = new Words(Locale.ENGLISH, TempUnit.CELSIUS);

    private static Noticed fired(String rule) {
        BookRule r = BOOK.rule(rule).orElseThrow();
        return BOOK.check(Facts.none().with(r.fires()), RuleBook.Settings.STANDARD).stream()
                .filter(n -> n.rule().id().equals(rule)).findFirst().orElseThrow();
    }

    @Test
    public void theWarmOfAReleaseIsSaidInDegrees() {
        Noticed warm = fired("alloy.release-warm-melts-balls");
        assertEquals(new Wording(celsius).remedy(warm), "Warm to 163 °C at most");
        assertEquals(new Wording(new Words(Locale.ENGLISH, TempUnit.FAHRENHEIT)).remedy(warm),
                "Warm to 325 °F at most");
    }

    /** A bench that has set its threshold otherwise is told its own. */
    @Test
    public void theThresholdInForceIsTheOneThatIsSaid() {
        BookRule r = BOOK.rule("beads.let-go-too-soon").orElseThrow();
        var settings = RuleBook.Settings.STANDARD.with("beads.let-go-too-soon/wait",
                java.util.Optional.of(7.0));
        Noticed n = BOOK.check(Facts.none().with(r.fires()), settings).stream()
                .filter(f -> f.rule().id().equals(r.id()))
                .findFirst().orElseThrow();
        assertTrue(new Wording(celsius).remedy(n).contains("7 s"), new Wording(celsius).remedy(n));
        assertTrue(Wording.remedy(r).contains("3 s"), "the sheet of rules says the standard");
    }

    /** In the smallest job that fires it, every remedy is whole: no gap is left, and nothing in it is unknown. */
    @Test
    public void everyRemedyIsWholeWhereItsRuleFires() {
        var broken = new ArrayList<String>();
        int numbers = 0;
        for (BookRule r : BOOK.rules()) {
            String said = new Wording(celsius).remedy(fired(r.id()));
            if (said.contains("{")
                    || !r.remedy().contains("not noted") && said.contains(celsius.say("book.not_noted"))) {
                broken.add(r.id() + ": " + said);
            }
            numbers += said.matches(".*\\d.*") ? 1 : 0;
            assertFalse(Wording.remedy(r).isBlank());
        }
        assertEquals(String.join("; ", broken), "");
        assertTrue(numbers >= 55, numbers + " remedies say a number");
    }

    @Test
    public void aGapThatNamesNoLimitIsRefused() {
        String rule = """
                [test.one]
                covers = 1
                phase = plan
                severity = care
                when = plan.release_c > 10
                what = W
                why = Y
                remedy = Not over {$most}
                fires = plan.release_c=20
                silent = plan.release_c=5
                """;
        var e = expectThrows(IllegalArgumentException.class, () -> RuleBook.read(rule));
        assertTrue(e.getMessage().contains("$most"), e.getMessage());
    }
}
