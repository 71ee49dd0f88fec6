package org.greenbead.core.decision;

import java.util.Optional;
import org.greenbead.core.odds.Odds;

/**
 * What one course is thought to take and to bring, in the money of the bench.
 *
 * @param attendedMin   at the bench
 * @param unattendedMin it runs alone
 * @param minutesSd     standard deviation of the logarithm of the minutes
 * @param material      paste, flux, spheres
 * @param part          price of the part, freight included
 * @param delay         what waiting for it costs
 * @param loss          what is lost beside the value when it fails
 * @param worthPart     part of the value that it brings back, 0 to 1
 * @param odds          of this bench
 * @param assumed       numbers that nobody noted and no ledger knows, by field
 * @param closed        why it is not open, {@code closed.<key>}; empty = it is open
 */
public record Estimate(Course course, double attendedMin, double unattendedMin, double minutesSd,
        double material,
        double part, double delay, double loss, double worthPart, Odds odds, java.util.List<String> assumed,
        Optional<String> closed) {
    public Estimate {
        assumed = java.util.List.copyOf(assumed);
    }

    /** What is paid whatever comes of it. */
    public double outlay(double rate, double attendedMinutes) {
        return attendedMinutes * rate / 60 + material + part + delay;
    }

    public double chance() {
        return course == Course.DECLINE ? 0 : odds.chance();
    }

    /**
     * Expected cost, what is not brought back counted as lost: {@code outlay + (1 - p w) V + (1 - p) L} with the chance p, the value V, the
     * part w of it that the course brings back and the loss L (decision theory: expected value of each act; Raiffa 1968).
     */
    public double expected(double rate, double value, double chance, double attendedMinutes) {
        return outlay(rate, attendedMinutes) + (1 - chance * worthPart) * value + (1 - chance) * loss;
    }

    public double expected(double rate, double value) {
        return expected(rate, value, chance(), attendedMin);
    }
}
