package org.greenbead.core.thermal;

import java.util.Arrays;

/**
 * The lateral balance of a grid on a few blocks of columns, solved exactly: what is slow for a sweep through the thickness,
 * heat that wanders across a whole board, is quick here. Added to that sweep it makes a preconditioner of two levels (Smith,
 * Bjorstad and Gropp 1996, Domain Decomposition, ch. 2; blocks of constants as in Vanek, Mandel and Brezina 1996). The
 * matrix is that of the blocks (Galerkin), factored by Cholesky within its band.
 */
final class CoarseLevel {
    /** Blocks along each side of the board at most. */
    private static final int MOST_BLOCKS = 6;
    /** Cell lines in a block at least: with fewer the sweeps do as well. */
    private static final int LEAST_LINES = 2;
    private final int blocks;
    private final int band;
    private final int[] blockOf;
    /** Conductances between blocks, and their sums on the diagonal; row after row, the diagonal last in each. */
    private final double[] laplace;
    private final double[] factor;
    private final double[] sum;

    CoarseLevel(SheetGrid grid) {
        int nx = grid.xMm.length - 1;
        int ny = grid.yMm.length - 1;
        int alongX = Math.clamp(nx / (long) LEAST_LINES, 1, MOST_BLOCKS);
        int alongY = Math.clamp(ny / (long) LEAST_LINES, 1, MOST_BLOCKS);
        blocks = alongX * alongY;
        band = alongX;
        blockOf = new int[grid.cells];
        for (int col = 0; col < grid.columns; col++) {
            int block = block(col / nx, ny, alongY) * alongX + block(col % nx, nx, alongX);
            for (int i = grid.first[col]; i < grid.first[col + 1]; i++) {
                blockOf[i] = block;
            }
        }
        laplace = new double[blocks * (band + 1)];
        for (int l = 0; l < grid.linkWPerK.length; l++) {
            int a = Math.max(blockOf[grid.linkA[l]], blockOf[grid.linkB[l]]);
            int b = Math.min(blockOf[grid.linkA[l]], blockOf[grid.linkB[l]]);
            if (a != b) {
                laplace[at(a, b)] -= grid.linkWPerK[l];
                laplace[at(a, a)] += grid.linkWPerK[l];
                laplace[at(b, b)] += grid.linkWPerK[l];
            }
        }
        factor = new double[laplace.length];
        sum = new double[blocks];
    }

    /** One of its own to work with; what never changes is shared. */
    CoarseLevel(CoarseLevel other) {
        blocks = other.blocks;
        band = other.band;
        blockOf = other.blockOf;
        laplace = other.laplace;
        factor = new double[laplace.length];
        sum = new double[blocks];
    }

    /** Which of some blocks a line falls to; mirror images fall to mirror images. */
    private static int block(int line, int lines, int blocks) {
        return 2 * line < lines
                ? line * blocks / lines
                : blocks - 1 - (lines - 1 - line) * blocks / lines;
    }

    private int at(int row, int column) {
        return row * (band + 1) + column - row + band;
    }

    /**
     * @param diagonal of the matrix
     * @param links sum of each cell's conductances to other cells
     */
    void factor(double[] diagonal, double[] links) {
        System.arraycopy(laplace, 0, factor, 0, laplace.length);
        for (int i = 0; i < diagonal.length; i++) {
            factor[blockOf[i] * (band + 1) + band] += diagonal[i] - links[i];
        }
        int wide = band + 1;
        for (int row = 0; row < blocks; row++) {
            int from = Math.max(0, row - band);
            // Where an entry of column nought of this row, and of the other one, would be.
            int mine = row * wide + band - row;
            for (int column = from; column <= row; column++) {
                int other = column * wide + band - column;
                double left = factor[mine + column];
                for (int k = Math.max(from, column - band); k < column; k++) {
                    left -= factor[mine + k] * factor[other + k];
                }
                factor[mine + column] = row == column ? 1 / Math.sqrt(left) : left * factor[other + column];
            }
        }
    }

    /** Adds to z what the blocks make of the residual; returns the product of the two. */
    double correct(double[] residual, double[] z) {
        Arrays.fill(sum, 0);
        for (int i = 0; i < residual.length; i++) {
            sum[blockOf[i]] += residual[i];
        }
        double product = 0;
        for (int row = 0; row < blocks; row++) {
            double left = sum[row];
            int mine = row * (band + 1) + band - row;
            for (int k = Math.max(0, row - band); k < row; k++) {
                left -= factor[mine + k] * sum[k];
            }
            sum[row] = left * factor[mine + row];
            product += sum[row] * sum[row];
        }
        for (int row = blocks - 1; row >= 0; row--) {
            int mine = row * (band + 1) + band - row;
            double value = sum[row] * factor[mine + row];
            sum[row] = value;
            for (int k = Math.max(0, row - band); k < row; k++) {
                sum[k] -= factor[mine + k] * value;
            }
        }
        for (int i = 0; i < residual.length; i++) {
            z[i] += sum[blockOf[i]];
        }
        return product;
    }
}
