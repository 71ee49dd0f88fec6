package org.greenbead.core.board;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.quantity.Check;

/** A place or an extent on the board, mm from its lower left corner. */
public record Point(double xMm, double yMm) {
    private static final double MOST_MM = 500;
    private static final Pattern TWO = Pattern
            .compile(
                    "\\s*(\\d{1,4}(?:[.,]\\d{1,3})?)\\s*(?:mm)?\\s*[xX×*]\\s*(\\d{1,4}(?:[.,]\\d{1,3})?)\\s*(?:mm)?\\s*");
    private static final Pattern ONE = Pattern.compile("\\s*(\\d{1,4}(?:[.,]\\d{1,3})?)\\s*(?:mm)?\\s*");

    public Point {
        Check.within("x", xMm, -500, 1000, "mm");
        Check.within("y", yMm, -500, 1000, "mm");
    }

    /**
     * An extent as it is typed: "70 x 95", "14 x 14 mm", "14" for a square.
     *
     * @throws IllegalArgumentException saying how it is written
     */
    public static Point size(String typed) {
        Matcher two = TWO.matcher(typed);
        if (two.matches()) {
            return new Point(number(two.group(1)), number(two.group(2)));
        }
        Matcher one = ONE.matcher(typed);
        if (one.matches()) {
            return new Point(number(one.group(1)), number(one.group(1)));
        }
        throw new IllegalArgumentException(
                "\"" + typed.strip() + "\" is no size; write width and depth in mm, such as 70 x 95");
    }

    /**
     * A place as it is typed: "36 x 58". One number alone is no place: "75,50" would be a decimal comma.
     *
     * @throws IllegalArgumentException saying how it is written
     */
    public static Point place(String typed) {
        if (!TWO.matcher(typed).matches()) {
            throw new IllegalArgumentException("\"" + typed.strip()
                    + "\" is no place; write mm from the left and from below with an x between, such as 36x58");
        }
        return size(typed);
    }

    private static double number(String text) {
        return Check.within("width or depth", Double.parseDouble(text.replace(',', '.')), 0.1, MOST_MM, "mm");
    }

    public Point plus(Point other) {
        return new Point(xMm + other.xMm, yMm + other.yMm);
    }

    public double distanceMm(Point other) {
        return Math.hypot(xMm - other.xMm, yMm - other.yMm);
    }

    /** Width times height of an extent, mm2. */
    public double areaMm2() {
        return xMm * yMm;
    }
}
