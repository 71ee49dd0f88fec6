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
    /** Gone. @param sizePx of the place that changed */
    public record Vanished(double xPx, double yPx, double sizePx) {}

    /** Shifted by {@code (toXPx - xPx, toYPx - yPx)}. */
    public record Moved(double xPx, double yPx, double toXPx, double toYPx) {}

    public Change {
        vanished = List.copyOf(vanished);
        moved = List.copyOf(moved);
    }
}
