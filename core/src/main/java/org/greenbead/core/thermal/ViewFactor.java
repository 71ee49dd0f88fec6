package org.greenbead.core.thermal;

/** How much of a small face sees a parallel rectangle (Howell, A Catalog of Radiation Configuration Factors, B-3 by superposition). */
final class ViewFactor {
    private ViewFactor() {
    }

    /**
     * @param xMm   face relative to the rectangle's centre
     * @param gapMm distance between face and rectangle, above 0
     * @return 0 to 1
     */
    static double ofRectangle(double xMm, double yMm, double widthMm, double depthMm, double gapMm) {
        double x1 = (-widthMm / 2 - xMm) / gapMm;
        double x2 = (widthMm / 2 - xMm) / gapMm;
        double y1 = (-depthMm / 2 - yMm) / gapMm;
        double y2 = (depthMm / 2 - yMm) / gapMm;
        return corner(x2, y2) - corner(x1, y2) - corner(x2, y1) + corner(x1, y1);
    }

    private static double corner(double x, double y) {
        double rx = Math.sqrt(1 + x * x);
        double ry = Math.sqrt(1 + y * y);
        return (x / rx * Math.atan(y / rx) + y / ry * Math.atan(x / ry)) / (2 * Math.PI);
    }
}
