package org.greenbead.core.thermal;

import org.greenbead.core.quantity.Check;

/**
 * How finely a {@link SheetModel} cuts space and time.
 *
 * @param targetCells    cells across the target chip, 2 to 24
 * @param neighbourCells cells across every other package, 1 to 12
 * @param sheets         equal sheets through the board, 1 to 200; three for a plan, many for an exact solution
 * @param finestMm       no cell is made smaller than this, 0.1 to 5
 * @param mergeMm        lines nearer than this are made one, 0 to 2
 * @param boardShare     the largest cell is the longest board side over this, 4 to 100
 * @param shortestS      step after a change of setting, and every step where {@code adaptive} is off, s, 0.01 to 10
 * @param longestS       longest step, s
 * @param adaptive       steps follow the change of temperature, second order in time; else fixed steps, first order
 * @param solveK         the linear solver stops when its preconditioned residual is under this, K
 */
public record Resolution(int targetCells, int neighbourCells, int sheets, double finestMm, double mergeMm,
        double boardShare, double shortestS, double longestS, boolean adaptive, double solveK) {
    /** What a plan is verified on. */
    public static final Resolution FULL = new Resolution(8, 3, 3, 0.5, 0.3, 18, 0.25, 4, true, 4e-3);
    /** What planner, ensemble and observer search with. */
    public static final Resolution SEARCH = new Resolution(4, 1, 2, 1.0, 0.8, 6, 0.5, 8, true, 3e-2);
    /** What an ensemble that follows a run is made of, many at a time. */
    public static final Resolution OBSERVER = new Resolution(3, 1, 2, 1.2, 0.6, 7, 0.5, 8, true, 3e-2);
    /** The next finer one, for a board on which {@link #SEARCH} strays too far from {@link #FULL}. */
    public static final Resolution SEARCH_FINER = new Resolution(6, 2, 3, 0.7, 0.4, 12, 0.5, 4, true, 5e-3);

    public Resolution {
        Check.within("cells across the target", targetCells, 2, 24, "");
        Check.within("cells across a neighbour", neighbourCells, 1, 12, "");
        Check.within("sheets", sheets, 1, 200, "");
        Check.within("finest cell", finestMm, 0.01, 5, "mm");
        Check.within("merging distance", mergeMm, 0, 2, "mm");
        Check.within("cells along the board", boardShare, 4, 200, "");
        Check.within("shortest step", shortestS, 0.001, 10, "s");
        Check.within("longest step", longestS, shortestS, 60, "s");
        Check.within("solver tolerance", solveK, 1e-9, 0.1, "K");
    }

    /** The same cells with fixed steps of first order. */
    public Resolution stepping(double seconds) {
        return new Resolution(targetCells, neighbourCells, sheets, finestMm, mergeMm, boardShare, seconds,
                seconds, false, solveK);
    }

    /** The same steps with cells finer by a factor. */
    public Resolution finer(double factor) {
        return new Resolution((int) Math.round(targetCells * factor),
                (int) Math.round(neighbourCells * factor), sheets, finestMm / factor, mergeMm,
                boardShare * factor, shortestS, longestS, adaptive, solveK);
    }
}
