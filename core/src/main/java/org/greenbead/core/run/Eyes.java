package org.greenbead.core.run;

import java.util.EnumSet;
import java.util.Optional;
import java.util.Random;
import java.util.Set;

/**
 * What somebody at a simulated bench sees and feels: late, and sometimes wrongly. Knows the bench's truth so that the hands that use it need
 * not. Repeatable from its seed.
 */
public final class Eyes {
    private static final double DELAY_LOW_S = 0.6;
    private static final double DELAY_HIGH_S = 2.2;
    /** A press too early, taking wet flux for solder: share of runs, and how far below it happens, K. */
    private static final double TOO_EARLY = 0.06;
    private static final double TOO_EARLY_K = 25;
    /** A chip that is nearly free is taken for free; a free one is not felt to move. */
    private static final double MOVES_TOO_EARLY = 0.08;
    private static final double NEARLY_FREE = 0.7;
    private static final double NOT_FELT = 0.10;
    private final SimulatedBench bench;
    private final Random random;
    private final Set<Sight> reported = EnumSet.noneOf(Sight.class);
    private final boolean early;
    private Optional<Sight> seen = Optional.empty();
    private double pressS;

    public Eyes(SimulatedBench bench, long seed) {
        this.bench = bench;
        random = new Random(seed * 0x9E3779B97F4A7C15L ^ 0xE7E5);
        early = random.nextDouble() < TOO_EARLY;
    }

    /** What is reported at this moment, each sight once. Asked again and again while it is hot. */
    public Optional<Sight> report(double timeS) {
        if (seen.isEmpty()) {
            for (Sight sight : new Sight[]{Sight.FLUX_SHIMMERS, Sight.CORNER_SHINES}) {
                if (!reported.contains(sight) && happens(sight)) {
                    seen = Optional.of(sight);
                    pressS = timeS + DELAY_LOW_S + (DELAY_HIGH_S - DELAY_LOW_S) * random.nextDouble();
                    break;
                }
            }
        }
        if (seen.isPresent() && timeS >= pressS) {
            Sight told = seen.get();
            reported.add(told);
            seen = Optional.empty();
            return Optional.of(told);
        }
        return Optional.empty();
    }

    private boolean happens(Sight sight) {
        double off = early && sight == Sight.CORNER_SHINES ? TOO_EARLY_K : 0;
        return bench.looksAt(sight) >= bench.happensAt(sight) - off;
    }

    /** A nudge, and what is felt. */
    public boolean nudge() {
        if (bench.moves()) {
            return random.nextDouble() >= NOT_FELT;
        }
        return bench.liquidFraction() > NEARLY_FREE && random.nextDouble() < MOVES_TOO_EARLY;
    }
}
