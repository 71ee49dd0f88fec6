package org.greenbead.app.shell;

import java.text.MessageFormat;
import java.util.Locale;
import java.util.ResourceBundle;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;

/** All words that a screen shows: its own from the window's bundle, the trade's from the core. Immutable. */
public record Texts(ResourceBundle ui, Words words) {
    public static Texts of(Locale locale, org.greenbead.core.quantity.TempUnit unit) {
        return new Texts(ResourceBundle.getBundle("org.greenbead.app.ui", locale), new Words(locale, unit));
    }

    public String get(String key, Object... gaps) {
        String text = ui.getString(key);
        return gaps.length == 0
                ? text.replace("''", "'")
                : new MessageFormat(text, words.locale()).format(gaps);
    }

    public String say(Phrase phrase) {
        return words.say(phrase);
    }

    public String say(String key) {
        return words.say(key);
    }

    public String temp(double celsius) {
        return words.show(new Quantity.TempC(celsius));
    }

    public String rise(double kelvin) {
        return words.show(new Quantity.RiseK(kelvin));
    }

    public String rate(double kPerS) {
        return Double.isFinite(kPerS)
                ? (kPerS > 0 ? "+" : "") + words.show(new Quantity.RateKPerS(kPerS))
                : "";
    }
}
