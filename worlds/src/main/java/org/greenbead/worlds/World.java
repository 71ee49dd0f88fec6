package org.greenbead.worlds;

import java.util.Random;

/** A way of making photos. The same seed gives the same photo on every machine. */
public interface World {
    String name();

    /** @param ballPx width of a usual ball in the picture */
    MadePhoto photo(ChipScene scene, double ballPx, Random random);
}
