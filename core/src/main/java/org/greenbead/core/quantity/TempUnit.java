package org.greenbead.core.quantity;

import java.util.Locale;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The unit in which temperatures are shown and in which a bare number is read. Exact: F = 1.8 C + 32
 * (the definition of the Fahrenheit scale since 1948).
 */
public enum TempUnit {
    CELSIUS("°C"), FAHRENHEIT("°F");

    private static final Pattern ENTRY = Pattern
            .compile("\\s*([-+]?\\d{1,4}(?:[.,]\\d{1,3})?)\\s*(?:°|deg)?\\s*([CcFf]?)\\s*");
    private final String sign;

    TempUnit(String sign) {
        this.sign = sign;
    }

    public String sign() {
        return sign;
    }

    /** A temperature in °C, in this unit. */
    public double fromC(double celsius) {
        return this == CELSIUS ? celsius : 1.8 * celsius + 32;
    }

    /** A temperature in this unit, in °C. */
    public double toC(double value) {
        return this == CELSIUS ? value : (value - 32) / 1.8;
    }

    /** A difference in K, in degrees of this unit. */
    public double fromK(double kelvin) {
        return this == CELSIUS ? kelvin : 1.8 * kelvin;
    }

    /**
     * Reads what a technician types: "180", "180 C", "356F", "356 °F". A unit that is written outranks this one.
     *
     * @return °C, or empty when the text is no temperature
     */
    public OptionalDouble parseC(String text) {
        Matcher entry = ENTRY.matcher(text);
        if (!entry.matches()) {
            return OptionalDouble.empty();
        }
        double value = Double.parseDouble(entry.group(1).replace(',', '.'));
        return OptionalDouble.of(switch (entry.group(2).toUpperCase(Locale.ROOT)) {
            case "C" -> value;
            case "F" -> FAHRENHEIT.toC(value);
            default -> toC(value);
        });
    }
}
