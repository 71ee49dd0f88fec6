package org.greenbead.core.quantity;

import java.text.MessageFormat;
import java.util.Locale;
import java.util.MissingResourceException;
import java.util.Optional;
import java.util.ResourceBundle;
import java.util.stream.Stream;

/** Puts phrases and quantities into words, in one language and one unit of temperature. Immutable. */
public final class Words {
    private static final String TRADE = "org.greenbead.core.trade";
    /** Begins the id of what a bench has named itself: its words are what follows. */
    public static final String OWN = "own:";
    private final ResourceBundle trade;
    private final Locale locale;
    private final TempUnit unit;

    public Words(Locale locale, TempUnit unit) {
        this.trade = ResourceBundle.getBundle(TRADE, locale,
                ResourceBundle.Control.getNoFallbackControl(ResourceBundle.Control.FORMAT_PROPERTIES));
        this.locale = locale;
        this.unit = unit;
    }

    /** The same in another language. What that language has no words for is said in English. */
    public Words in(Locale language) {
        return new Words(language, unit);
    }

    public TempUnit unit() {
        return unit;
    }

    public Locale locale() {
        return locale;
    }

    public boolean has(String key) {
        return trade.containsKey(key) || named(key).isPresent();
    }

    /** @throws MissingResourceException when the bundle lacks the key: a fault of the program, found by a test */
    public String say(Phrase phrase) {
        Optional<String> own = named(phrase.key());
        if (own.isPresent()) {
            return own.get();
        }
        Object[] gaps = phrase.gaps().stream().map(this::show).toArray();
        return new MessageFormat(trade.getString(phrase.key()), locale).format(gaps);
    }

    private static Optional<String> named(String key) {
        return Stream.of("bead." + OWN, "check." + OWN).filter(key::startsWith).findFirst()
                .map(begin -> key.substring(begin.length()));
    }

    public String say(String key, Quantity... gaps) {
        return say(Phrase.of(key, gaps));
    }

    /** The quantity with its unit: "183 °C", "2.4 °C/s", "4:12". */
    public String show(Quantity quantity) {
        return switch (quantity) {
            case Quantity.TempC t -> Double.isFinite(t.celsius())
                    ? number("%.0f", unit.fromC(t.celsius())) + " " + unit.sign()
                    : "–";
            case Quantity.RiseK d -> number("%.0f", unit.fromK(d.kelvin())) + " " + unit.sign();
            case Quantity.RateKPerS r ->
                number("%.1f", unit.fromK(r.kelvinPerSecond())) + " " + unit.sign() + "/s";
            case Quantity.Seconds s -> clock(s.seconds());
            case Quantity.Hours h -> number("%.0f", h.hours()) + " h";
            case Quantity.Millimetres m ->
                number(m.mm() == Math.rint(m.mm()) ? "%.0f" : "%.1f", m.mm()) + " mm";
            case Quantity.LitresPerMinute f -> number("%.0f", f.litres()) + " L/min";
            case Quantity.Percent p -> number("%.0f", p.percent()) + " %";
            case Quantity.DialStep d -> new MessageFormat(trade.getString("dial.step"), locale).format(
                    new Object[]{number(d.step() == Math.rint(d.step()) ? "%.0f" : "%.1f", d.step())});
            case Quantity.Count c -> Long.toString(c.count());
            case Quantity.Name n -> n.name();
            case Quantity.Word w -> trade.getString(w.key());
        };
    }

    /** A temperature without its unit, for a digit display that carries the unit beside it. */
    public String bare(double celsius) {
        return Double.isFinite(celsius) ? number("%.0f", unit.fromC(celsius)) : "–";
    }

    /** Minutes and seconds, "4:12"; never negative. */
    public static String clock(double seconds) {
        if (!Double.isFinite(seconds)) {
            return "–";
        }
        long whole = Math.max(0, Math.round(seconds));
        return String.format(Locale.ROOT, "%d:%02d", whole / 60, whole % 60);
    }

    private String number(String format, double value) {
        String text = String.format(locale, format, value);
        return text.matches("-0([.,]0+)?") ? text.substring(1) : text;
    }
}
