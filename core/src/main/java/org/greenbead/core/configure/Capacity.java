package org.greenbead.core.configure;

import org.greenbead.core.quantity.Check;

/**
 * Memory that is made of several chips: {@code GB = chips x Gbit / 8}, as many chips side by side as the bus is wide, and as many ranks as that
 * leaves.
 *
 * @param chips        fitted
 * @param gbitEach     of one
 * @param busWidthBit  of the controller
 * @param chipWidthBit of one chip
 */
public record Capacity(int chips, int gbitEach, int busWidthBit, int chipWidthBit) {
    public Capacity {
        Check.within("chips", chips, 1, 256, "");
        Check.within("size of a chip", gbitEach, 1, 4096, "Gbit");
        Check.within("width of the bus", busWidthBit, 4, 1024, "bit");
        Check.within("width of a chip", chipWidthBit, 4, 128, "bit");
        if (busWidthBit % chipWidthBit != 0) {
            throw new IllegalArgumentException(
                    "a bus of " + busWidthBit + " bit is not made of chips of " + chipWidthBit);
        }
        if (chips % (busWidthBit / chipWidthBit) != 0) {
            throw new IllegalArgumentException(
                    chips + " chips do not fill ranks of " + busWidthBit / chipWidthBit);
        }
    }

    public double gigabytes() {
        return chips * gbitEach / 8.0;
    }

    public int chipsPerRank() {
        return busWidthBit / chipWidthBit;
    }

    public int ranks() {
        return chips / chipsPerRank();
    }
}
