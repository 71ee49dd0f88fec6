package org.greenbead.core.thermal;

/**
 * Conjugate gradients for the heat balance of a {@link SheetGrid}: symmetric, positive definite. The preconditioner is a
 * tridiagonal sweep in every column (Saad 2003, Iterative Methods for Sparse Linear Systems, 2nd ed., ch. 9), for through a
 * thin board couplings are the strongest by far, and a {@link CoarseLevel} for what goes along it. Nothing is allocated while
 * it solves.
 */
final class SheetSolver {
    private static final int MOST = 400;
    private final int cells;
    private final int[] first;
    private final double[] up;
    /** Four lateral neighbours of each cell and the conductance to them; a missing one is the cell itself with none. */
    private final int[] beside;
    private final double[] besideG;
    private final double[] links;
    private final double[] diagonal;
    private final double[] pivot;
    private final double[] lower;
    private final double[] r;
    private final double[] z;
    private final double[] p;
    private final double[] q;
    private final CoarseLevel coarse;
    private double largest;
    private long iterations;

    SheetSolver(SheetGrid grid) {
        this(matrix(grid), new CoarseLevel(grid));
    }

    /** One of its own for a copy of the model; what never changes is shared. */
    SheetSolver(SheetSolver other) {
        this(new Matrix(other.first, other.up, other.beside, other.besideG, other.links),
                new CoarseLevel(other.coarse));
    }

    private SheetSolver(Matrix matrix, CoarseLevel coarse) {
        this.coarse = coarse;
        first = matrix.first();
        up = matrix.up();
        beside = matrix.beside();
        besideG = matrix.besideG();
        links = matrix.links();
        cells = links.length;
        diagonal = new double[cells];
        pivot = new double[cells];
        lower = new double[cells];
        r = new double[cells];
        z = new double[cells];
        p = new double[cells];
        q = new double[cells];
    }

    /** What a grid says of the couplings between its cells. */
    private record Matrix(int[] first, double[] up, int[] beside, double[] besideG, double[] links) {}

    private static Matrix matrix(SheetGrid grid) {
        int cells = grid.cells;
        // One entry before the first and a zero after the last cell save the loops their edges.
        double[] up = new double[cells + 1];
        System.arraycopy(grid.upWPerK, 0, up, 1, cells);
        double[] links = new double[cells];
        int[] beside = new int[4 * cells];
        double[] besideG = new double[4 * cells];
        int[] used = new int[cells];
        for (int i = 0; i < cells; i++) {
            links[i] = up[i] + up[i + 1];
            for (int k = 0; k < 4; k++) {
                beside[4 * i + k] = i;
            }
        }
        for (int l = 0; l < grid.linkWPerK.length; l++) {
            int a = grid.linkA[l];
            int b = grid.linkB[l];
            double g = grid.linkWPerK[l];
            links[a] += g;
            links[b] += g;
            beside[4 * a + used[a]] = b;
            besideG[4 * a + used[a]++] = g;
            beside[4 * b + used[b]] = a;
            besideG[4 * b + used[b]++] = g;
        }
        return new Matrix(grid.first, up, beside, besideG, links);
    }

    /** Sum of a cell's conductances to other cells, W/K. */
    double[] links() {
        return links;
    }

    /** The matrix's diagonal, to be filled before {@link #solve}. */
    double[] diagonal() {
        return diagonal;
    }

    long iterations() {
        return iterations;
    }

    /**
     * @param x first guess in, solution out
     * @param b right side
     * @param widely whether heat goes far along the board in a step, and the blocks are worth their work
     * @param toleranceK largest entry of the preconditioned residual that is accepted
     */
    void solve(double[] x, double[] b, boolean widely, double toleranceK) {
        factor();
        if (widely) {
            coarse.factor(diagonal, links);
        }
        multiply(x);
        for (int i = 0; i < cells; i++) {
            r[i] = b[i] - q[i];
        }
        double rho = precondition(widely);
        System.arraycopy(z, 0, p, 0, cells);
        for (int round = 0; round < MOST && largest > toleranceK; round++) {
            double alpha = rho / multiply(p);
            move(x, alpha);
            double before = rho;
            rho = precondition(widely);
            double beta = rho / before;
            for (int i = 0; i < cells; i++) {
                p[i] = z[i] + beta * p[i];
            }
            iterations++;
        }
        closeHeat(x);
    }

    /**
     * Shifts all cells alike until the residuals add up to nothing: the coarsest of Galerkin corrections. It makes a step conserve
     * heat to rounding, whatever the tolerance.
     */
    private void closeHeat(double[] x) {
        double left = 0;
        double holds = 0;
        for (int i = 0; i < cells; i++) {
            left += r[i];
            holds += diagonal[i] - links[i];
        }
        double shift = left / holds;
        for (int i = 0; i < cells; i++) {
            x[i] += shift;
        }
    }

    private void move(double[] x, double alpha) {
        for (int i = 0; i < cells; i++) {
            x[i] += alpha * p[i];
        }
        for (int i = 0; i < cells; i++) {
            r[i] -= alpha * q[i];
        }
    }

    private void factor() {
        for (int col = 0; col < first.length - 1; col++) {
            int from = first[col];
            int to = first[col + 1];
            double inverse = 1 / diagonal[from];
            pivot[from] = inverse;
            for (int i = from + 1; i < to; i++) {
                double g = up[i];
                double low = -g * inverse;
                lower[i] = low;
                inverse = 1 / (diagonal[i] + low * g);
                pivot[i] = inverse;
            }
        }
    }

    /** z from r, column by column, so that neighbouring columns overlap in the processor, then by blocks; returns their product. */
    private double precondition(boolean widely) {
        double product = 0;
        for (int col = 0; col < first.length - 1; col++) {
            int from = first[col];
            int to = first[col + 1];
            double carry = r[from];
            z[from] = carry;
            for (int i = from + 1; i < to; i++) {
                carry = Math.fma(-lower[i], carry, r[i]);
                z[i] = carry;
            }
            carry = z[to - 1] * pivot[to - 1];
            z[to - 1] = carry;
            double sum = carry * r[to - 1];
            for (int i = to - 2; i >= from; i--) {
                carry = Math.fma(-lower[i + 1], carry, z[i] * pivot[i]);
                z[i] = carry;
                sum += carry * r[i];
            }
            product += sum;
        }
        if (widely) {
            product += coarse.correct(r, z);
        }
        largest = 0;
        for (int i = 0; i < cells; i++) {
            largest = Math.max(largest, Math.abs(z[i]));
        }
        return product;
    }

    /** q from the vector; returns their product. */
    private double multiply(double[] in) {
        q[0] = diagonal[0] * in[0] - up[1] * in[1];
        for (int i = 1; i < cells - 1; i++) {
            q[i] = diagonal[i] * in[i] - (up[i] * in[i - 1] + up[i + 1] * in[i + 1]);
        }
        q[cells - 1] = diagonal[cells - 1] * in[cells - 1] - up[cells - 1] * in[cells - 2];
        for (int i = 0; i < cells; i++) {
            int k = 4 * i;
            double lateral = besideG[k] * in[beside[k]] + besideG[k + 1] * in[beside[k + 1]];
            double more = besideG[k + 2] * in[beside[k + 2]] + besideG[k + 3] * in[beside[k + 3]];
            q[i] -= lateral + more;
        }
        double product = 0;
        for (int i = 0; i < cells; i++) {
            product += q[i] * in[i];
        }
        return product;
    }
}
