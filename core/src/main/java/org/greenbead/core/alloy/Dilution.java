package org.greenbead.core.alloy;

import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import org.greenbead.core.quantity.Check;

/**
 * What a ball becomes on a pad that still carries a film of what was there before: the film keeps a part {@code r} of the factory
 * solder and of the alloy that thinned it, fully mixed, and dissolves in the new ball.
 * <p>{@code w = (r (m_f w_f + m_a w_a) + m_b w_b) / (r (m_f + m_a) + m_b)}, a mass balance for each element.
 */
public final class Dilution {
    /** From here on bismuth and lead make the phase near 96 °C; judgement of the trade, editable at the bench. */
    public static final double TRACE_BI_PCT = 2;
    public static final double TRACE_PB_PCT = 1;

    private Dilution() {
    }

    /**
     * @param factory  solder that was on the pad, mass any unit, 0 to 1000
     * @param added    solder that thinned it; mass 0 when none was
     * @param leftPart part of both that wick and iron left behind, 0 to 1
     * @param ball     solder that comes on top, mass above 0
     */
    public record Mixed(Part factory, Part added, double leftPart, Part ball) {
        public Mixed {
            Check.within("part left on the pad", leftPart, 0, 1, "");
            if (!(ball.mass() > 0)) {
                throw new IllegalArgumentException("the ball has no mass; write what its solder weighs");
            }
        }
    }

    /** Some solder of one alloy. */
    public record Part(Composition made, double mass) {
        public Part {
            Check.within("mass of solder", mass, 0, 1000, "");
        }
    }

    /**
     * What came of it.
     *
     * @param lowestSolidusC where the first of it melts, cautiously, °C; NaN when nothing in the table is near
     * @param liquidusC      tin-bismuth only, near {@code 232 - 1.62 Bi%} up to 58 %, within 6 K; NaN for other mixes
     * @param bismuthLead    both above their traces
     */
    public record Mix(Composition made, double lowestSolidusC, double liquidusC, boolean bismuthLead) {}

    public static Mix of(Mixed mixed) {
        double film = mixed.leftPart() * mixed.factory().mass();
        double thinned = mixed.leftPart() * mixed.added().mass();
        double whole = film + thinned + mixed.ball().mass();
        var elements = new TreeSet<String>();
        for (Part p : new Part[]{mixed.factory(), mixed.added(), mixed.ball()}) {
            elements.addAll(p.made().weightPct().keySet());
        }
        Map<String, Double> parts = new TreeMap<>();
        for (String element : elements) {
            parts.put(element,
                    (film * mixed.factory().made().pct(element) + thinned * mixed.added().made().pct(element)
                            + mixed.ball().mass() * mixed.ball().made().pct(element)) / whole);
        }
        var made = new Composition(parts);
        double bi = made.pct("Bi");
        double pb = made.pct("Pb");
        boolean trap = bi >= TRACE_BI_PCT && pb >= TRACE_PB_PCT;
        double liquidus = pb < TRACE_PB_PCT && bi > 0 && bi <= 58 ? 232 - 1.62 * bi : Double.NaN;
        return new Mix(made, lowestSolidusC(made), liquidus, trap);
    }

    /** Where the first of a mix melts, °C, deliberately cautious: the lowest phase that its traces allow. */
    public static double lowestSolidusC(Composition made) {
        return lowestSolidusC(made.pct("Bi"), made.pct("Pb"), made.pct("Ag") > 0.1);
    }

    /**
     * Bismuth with lead 96, bismuth 138, lead with silver 179, lead alone 183, else the tin-silver-copper eutectic 217 or, without silver,
     * the tin-copper one 227 (binary and ternary eutectics, ASM Handbook volume 3; verify).
     */
    static double lowestSolidusC(double biPct, double pbPct, boolean silver) {
        if (biPct >= TRACE_BI_PCT) {
            return pbPct >= TRACE_PB_PCT ? 96 : 138;
        }
        if (pbPct >= TRACE_PB_PCT) {
            return silver ? 179 : 183;
        }
        return silver ? 217 : 227;
    }

    /** Where the traces in a joint of unknown making begin to melt, °C: both 96, bismuth 138, lead 179 (silver is not ruled out); NaN without a trace. */
    public static double tracesSolidusC(double biPct, double pbPct) {
        return biPct < TRACE_BI_PCT && pbPct < TRACE_PB_PCT ? Double.NaN : lowestSolidusC(biPct, pbPct, true);
    }

    /** The largest part that may stay on the pad so that bismuth keeps below its trace; 1 when none of it matters. */
    public static double leftAllowed(Part factory, Part added, Part ball) {
        // Bi(r) = (r F + B) / (r M + m) <= t  gives  r (F - t M) <= t m - B, in percent times mass.
        double inFilm = factory.mass() * factory.made().pct("Bi") + added.mass() * added.made().pct("Bi");
        double film = factory.mass() + added.mass();
        double inBall = ball.mass() * ball.made().pct("Bi");
        double slope = inFilm - TRACE_BI_PCT * film;
        double room = TRACE_BI_PCT * ball.mass() - inBall;
        return slope <= 0 ? room >= 0 ? 1 : 0 : Math.clamp(room / slope, 0, 1);
    }
}
