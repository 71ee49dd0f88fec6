package org.greenbead.core.picture;

import java.util.List;
import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * The plane projective map between a picture and the board in it, from four corners: eight equations for eight numbers, solved exactly
 * (Hartley and Zisserman, Multiple View Geometry, chapter 4, direct linear transformation with four points). A board that is bowed, or a
 * lens that bends straight edges, departs from it towards the middle.
 */
public final class Squared {
    private final double[] toMm;
    private final double[] toPx;
    private final Point sizeMm;

    private Squared(double[] toMm, double[] toPx, Point sizeMm) {
        this.toMm = toMm;
        this.toPx = toPx;
        this.sizeMm = sizeMm;
    }

    /**
     * Corners as a record keeps them, "x,y; x,y; x,y; x,y"; empty where none are noted or they are no board.
     *
     * @param sizeMm of the board
     */
    public static java.util.Optional<Squared> read(String corners, Point sizeMm) {
        try {
            return corners.isBlank()
                    ? java.util.Optional.empty()
                    : java.util.Optional.of(of(java.util.Arrays.stream(corners.split(";"))
                            .map(c -> c.strip().split(","))
                            .map(c -> new Px(Double.parseDouble(c[0]), Double.parseDouble(c[1]))).toList(),
                            sizeMm));
        } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
            return java.util.Optional.empty();
        }
    }

    /**
     * @param corners lower left, lower right, upper right, upper left of the board as they lie in the picture
     * @param sizeMm  of the board
     * @throws IllegalArgumentException when the four are no convex quadrangle, are taken the other way round, or lie too close together
     */
    public static Squared of(List<Px> corners, Point sizeMm) {
        if (corners.size() != 4) {
            throw new IllegalArgumentException(
                    corners.size() + " corners are marked; mark the four corners of the board");
        }
        double area = 0;
        for (int i = 0; i < 4; i++) {
            Px a = corners.get(i);
            Px b = corners.get((i + 1) % 4);
            Px c = corners.get((i + 2) % 4);
            Check.within("corner, x", a.x(), -1e5, 1e5, "px");
            Check.within("corner, y", a.y(), -1e5, 1e5, "px");
            double turn = (b.x() - a.x()) * (c.y() - b.y()) - (b.y() - a.y()) * (c.x() - b.x());
            // Going round against the clock as seen means a negative turn, because y counts downwards.
            if (!(turn < 0)) {
                throw new IllegalArgumentException("the four corners cross over or go round the wrong way; "
                        + "mark lower left, lower right, upper right, upper left as the top side is seen");
            }
            area += a.x() * b.y() - b.x() * a.y();
        }
        if (Math.abs(area) / 2 < 400) {
            throw new IllegalArgumentException(
                    "the four corners enclose fewer than 400 pixels; mark the corners of the whole board");
        }
        List<Point> board = List.of(new Point(0, 0), new Point(sizeMm.xMm(), 0), sizeMm,
                new Point(0, sizeMm.yMm()));
        var matrix = new Array2DRowRealMatrix(8, 8);
        var right = new ArrayRealVector(8);
        for (int i = 0; i < 4; i++) {
            double x = board.get(i).xMm();
            double y = board.get(i).yMm();
            double u = corners.get(i).x();
            double v = corners.get(i).y();
            matrix.setRow(2 * i, new double[]{x, y, 1, 0, 0, 0, -u * x, -u * y});
            matrix.setRow(2 * i + 1, new double[]{0, 0, 0, x, y, 1, -v * x, -v * y});
            right.setEntry(2 * i, u);
            right.setEntry(2 * i + 1, v);
        }
        double[] h = new LUDecomposition(matrix).getSolver().solve(right).toArray();
        double[] forward = {h[0], h[1], h[2], h[3], h[4], h[5], h[6], h[7], 1};
        RealMatrix whole = new Array2DRowRealMatrix(
                new double[][]{{h[0], h[1], h[2]}, {h[3], h[4], h[5]}, {h[6], h[7], 1}});
        RealMatrix back = new LUDecomposition(whole).getSolver().getInverse();
        double[] inverse = new double[9];
        for (int i = 0; i < 9; i++) {
            inverse[i] = back.getEntry(i / 3, i % 3);
        }
        return new Squared(inverse, forward, sizeMm);
    }

    private static double[] map(double[] h, double x, double y) {
        double w = h[6] * x + h[7] * y + h[8];
        return new double[]{(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w};
    }

    /** Where on the board a pixel lies; may be off the board, far off it is cut to -500 to 1000 mm. */
    public Point toMm(Px px) {
        double[] p = map(toMm, px.x(), px.y());
        return new Point(cut(p[0]), cut(p[1]));
    }

    private static double cut(double mm) {
        return Double.isFinite(mm) ? Math.clamp(mm, -500, 1000) : 1000;
    }

    public Px toPx(Point mm) {
        double[] p = map(toPx, mm.xMm(), mm.yMm());
        return new Px(p[0], p[1]);
    }

    /** Pixels to a millimetre in the middle of the board. */
    public double pxPerMm() {
        Px a = toPx(new Point(sizeMm.xMm() / 2 - 0.5, sizeMm.yMm() / 2));
        Px b = toPx(new Point(sizeMm.xMm() / 2 + 0.5, sizeMm.yMm() / 2));
        return Math.hypot(b.x() - a.x(), b.y() - a.y());
    }

    public Point sizeMm() {
        return sizeMm;
    }

    /** Whether a place lies on the board. */
    public boolean holds(Point mm) {
        return mm.xMm() >= 0 && mm.yMm() >= 0 && mm.xMm() <= sizeMm.xMm() && mm.yMm() <= sizeMm.yMm();
    }
}
