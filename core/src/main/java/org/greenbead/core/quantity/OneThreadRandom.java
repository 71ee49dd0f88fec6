package org.greenbead.core.quantity;

import java.util.Random;

/**
 * The very numbers of {@link Random} (its linear congruential generator is specified), for one thread: without the atomic update, which is most
 * of the time where every pixel of a picture gets its noise.
 */
public final class OneThreadRandom extends Random {
    private static final long serialVersionUID = 1;
    private static final long MULTIPLIER = 0x5DEECE66DL;
    private static final long MASK = (1L << 48) - 1;
    // Without a value here: the constructor of Random has set it already.
    private long state;

    public OneThreadRandom(long seed) {
        super(seed);
    }

    @Override
    public void setSeed(long seed) {
        super.setSeed(seed);
        state = (seed ^ MULTIPLIER) & MASK;
    }

    @Override
    protected int next(int bits) {
        state = state * MULTIPLIER + 0xBL & MASK;
        return (int) (state >>> 48 - bits);
    }
}
