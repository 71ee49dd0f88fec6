package org.greenbead.core.cue;

import java.util.Optional;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.quantity.Check;

/** Passes of an iron or a wick over pads, each timed from down to up by the pedal. Clock readings are handed in, s. Not for several threads. */
public final class IronPasses {
    private static final String RULE = "clean.iron-lingers";
    private static final String LIMIT = "dwell";
    private final double mostS;
    private double downS = Double.NaN;
    private double longestS;
    private double allS;
    private int passes;
    private int tooLong;

    /** @param mostS that one pass may last, s */
    public IronPasses(double mostS) {
        this.mostS = Check.within("longest pass", mostS, 0.2, 60, "s");
    }

    /** The longest pass that a chip stands: what is noted of it, else the number of the rule as this bench has set it, s. */
    public static double mostS(Facts facts, RuleBook book, RuleBook.Settings settings) {
        Optional<Double> own = facts.at("chip.iron_dwell_max_s").filter(Double.class::isInstance)
                .map(Double.class::cast).filter(s -> s > 0);
        return own.orElseGet(() -> settings.limits().getOrDefault(RULE + "/" + LIMIT,
                book.rule(RULE).orElseThrow().limits().get(LIMIT).standard()));
    }

    public boolean down() {
        return !Double.isNaN(downS);
    }

    /** The iron touches, or leaves. */
    public void press(double nowS) {
        if (!down()) {
            downS = nowS;
            return;
        }
        double lastedS = thisS(nowS);
        downS = Double.NaN;
        passes++;
        allS += lastedS;
        longestS = Math.max(longestS, lastedS);
        tooLong += lastedS > mostS ? 1 : 0;
    }

    /** How long the iron has been down, s; 0 while it is up. */
    public double thisS(double nowS) {
        return down() ? Math.max(0, nowS - downS) : 0;
    }

    /** Part of the longest allowed that is over in this pass; above 1 it lingers. */
    public double part(double nowS) {
        return thisS(nowS) / mostS;
    }

    public double mostS() {
        return mostS;
    }

    public int passes() {
        return passes;
    }

    /** Passes that were longer than allowed. */
    public int tooLong() {
        return tooLong;
    }

    /** The longest so far, s; 0 before the first. */
    public double longestS() {
        return longestS;
    }

    /** Iron on the part, all passes together, s. */
    public double allS() {
        return allS;
    }
}
