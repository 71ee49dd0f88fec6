package org.greenbead.core.proof;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.text.MessageFormat;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Properties;
import java.util.TreeSet;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every language says all that English says to a customer, with the same gaps. */
public class ReportLanguageTest {
    private static final List<String> SPOKEN = List.of("closing.", "confidence.", "leakverdict.",
            "curveoutcome.", "curvehow.", "language.", "proof.kind.", "proof.told.", "proof.why.",
            "proof.rail.", "proof.curve", "proof.code", "proof.leak", "proof.result.", "proof.minutes",
            "proof.seen", "proof.never_seen");
    private static final List<String> BESIDES = List.of("report.board", "report.complaint", "report.page");

    @DataProvider
    Object[][] languages() {
        return ReportLanguage.shipped().stream().filter(l -> !l.equals(Locale.ENGLISH))
                .map(l -> new Object[]{l}).toArray(Object[][]::new);
    }

    private static Properties words(String suffix) throws IOException {
        try (InputStream in = Words.class
                .getResourceAsStream("/org/greenbead/core/trade" + suffix + ".properties")) {
            var found = new Properties();
            found.load(new InputStreamReader(in, StandardCharsets.UTF_8));
            return found;
        }
    }

    private static int[] gaps(String pattern) {
        return pattern.chars().filter(c -> c == '{').sorted().toArray();
    }

    private static String filled(String pattern, Locale locale) {
        return new MessageFormat(pattern, locale).format(new Object[]{"<0>", "<1>", "<2>"});
    }

    @Test(dataProvider = "languages")
    public void nothingIsMissing(Locale language) throws IOException {
        Properties english = words("");
        Properties other = words("_" + language.getLanguage());
        var wanted = new TreeSet<String>(BESIDES);
        english.stringPropertyNames().stream().filter(k -> SPOKEN.stream().anyMatch(k::startsWith))
                .forEach(wanted::add);
        assertTrue(wanted.size() > 150, wanted.size() + " words");
        assertEquals(new TreeSet<>(other.stringPropertyNames()), wanted);
        for (String key : wanted) {
            String said = filled(other.getProperty(key), language);
            String inEnglish = filled(english.getProperty(key), Locale.ENGLISH);
            for (String gap : List.of("<0>", "<1>", "<2>")) {
                assertEquals(said.contains(gap), inEnglish.contains(gap), key + ": " + said);
            }
            assertEquals(gaps(other.getProperty(key)), gaps(english.getProperty(key)), key);
        }
    }

    @Test
    public void numbersAndNamesFollowTheLanguage() {
        var english = new Words(Locale.ENGLISH, TempUnit.FAHRENHEIT);
        Words german = english.in(Locale.GERMAN);
        assertEquals(german.unit(), TempUnit.FAHRENHEIT);
        assertEquals(german.show(new Quantity.Millimetres(0.5)), "0,5 mm");
        assertEquals(ReportLanguage.itself(Locale.FRENCH, english), "Français");
        assertEquals(ReportLanguage.name(Locale.FRENCH, german), "Französisch");
        assertEquals(ReportLanguage.of(" DE "), Optional.of(Locale.GERMAN));
        assertEquals(ReportLanguage.of("tlh"), Optional.empty());
    }

    /** What people hand over in other languages is masked as well. */
    @Test
    public void secretsAreMaskedInEveryLanguage() {
        assertEquals(Masking.of("Passwort: Hafen7 und mot de passe : quai9"),
                "Passwort: ••• und mot de passe : •••");
    }
}
