package org.greenbead.core.proof;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.quantity.Words;

/** The languages a customer's report can be written in. What people wrote down themselves stays in their own words. */
public final class ReportLanguage {
    private static final List<Locale> SHIPPED = List.of(Locale.ENGLISH, Locale.GERMAN, Locale.FRENCH,
            Locale.of("es"));

    private ReportLanguage() {
    }

    /** English first, then as they came. */
    public static List<Locale> shipped() {
        return SHIPPED;
    }

    /** @param tag {@code en}, {@code de}, {@code fr} or {@code es}, in any case */
    public static Optional<Locale> of(String tag) {
        return SHIPPED.stream().filter(l -> l.getLanguage().equalsIgnoreCase(tag.strip())).findFirst();
    }

    /** Its name, in the language of the words. */
    public static String name(Locale language, Words words) {
        return words.say("language." + language.getLanguage());
    }

    /** How its speakers call it. */
    public static String itself(Locale language, Words words) {
        return name(language, words.in(language));
    }
}
