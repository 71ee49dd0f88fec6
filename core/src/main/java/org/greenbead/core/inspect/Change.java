package org.greenbead.core.inspect;

import java.util.List;

/**
 * What differs between two photos of the same place; all in pixels of the first.
 *
 * @param vanished parts of the first photo that the second does not show
 * @param moved    parts that lie elsewhere now
 * @param onto     where a pixel of the first photo lies in the second; takes hundredths of pixels of the first as its unit
 * @param agreed   part of the compared places on which both photos agree
 */
public record Change(List<Vanished> vanished, List<Moved> moved, Projection onto, double agreed) {
    private static final int OUTSIDE = 0x808080;

    /** Gone. @param sizePx of the place that changed */
    public record Vanished(double xPx, double yPx, double sizePx) {}

    /** Shifted by {@code (toXPx - xPx, toYPx - yPx)}. */
    public record Moved(double xPx, double yPx, double toXPx, double toYPx) {}

    /**
     * The second photo as the first camera would have seen it, for laying one over the other.
     *
     * @return row by row, 0xRRGGBB; grey where the second photo does not reach
     */
    public int[] laidOver(Raster before, Raster after) {
        int w = before.width();
        int h = before.height();
        int[] rgb = new int[w * h];
        java.util.stream.IntStream.range(0, h).parallel().forEach(y -> {
            for (int x = 0; x < w; x++) {
                double ax = onto.xPx(x / Registered.UNIT, y / Registered.UNIT);
                double ay = onto.yPx(x / Registered.UNIT, y / Registered.UNIT);
                rgb[y * w + x] = after.red.holds(ax, ay, 1) ? after.srgb(ax, ay) : OUTSIDE;
            }
        });
        return rgb;
    }

    public Change {
        vanished = List.copyOf(vanished);
        moved = List.copyOf(moved);
    }
}
