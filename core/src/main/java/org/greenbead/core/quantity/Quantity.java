package org.greenbead.core.quantity;

/**
 * A number that keeps its unit until it is shown. Findings and coaching carry these, so that the same
 * judgement can be read in °C or °F and in any language.
 */
public sealed interface Quantity {
    /** A temperature, °C. */
    record TempC(double celsius) implements Quantity {}

    /** A difference of temperatures, K. */
    record RiseK(double kelvin) implements Quantity {}

    /** A rate of change, K/s; negative while cooling. */
    record RateKPerS(double kelvinPerSecond) implements Quantity {}

    /** A duration, s; shown as minutes and seconds. */
    record Seconds(double seconds) implements Quantity {}

    /** A long duration, h. */
    record Hours(double hours) implements Quantity {}

    /** A length, mm. */
    record Millimetres(double mm) implements Quantity {}

    /** Air flow as the station shows it, L/min. */
    record LitresPerMinute(double litres) implements Quantity {}

    /** A share, or a dial that is marked in per cent. */
    record Percent(double percent) implements Quantity {}

    /** A position of a dial that is marked in steps. */
    record DialStep(double step) implements Quantity {}

    /** A plain count. */
    record Count(long count) implements Quantity {}

    /** A name out of the data: a part, a stage, a probe. Never translated. */
    record Name(String name) implements Quantity {}

    /** A word of the trade that the bundle translates. */
    record Word(String key) implements Quantity {}
}
