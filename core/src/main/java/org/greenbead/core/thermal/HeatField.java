package org.greenbead.core.thermal;

import org.greenbead.core.board.Side;

/**
 * What one side of the board would look like to an eye for heat: the skin of board and packages, °C.
 *
 * @param xMm     rising lines across the board, one more than columns
 * @param yMm     the same the other way
 * @param columns cells along x
 * @param celsius row by row along x, from the lower left corner of the board as seen from the top
 */
public record HeatField(Side side, double[] xMm, double[] yMm, int columns, float[] celsius) {
    public double at(int ix, int iy) {
        return celsius[iy * columns + ix];
    }

    public int rows() {
        return celsius.length / columns;
    }
}
