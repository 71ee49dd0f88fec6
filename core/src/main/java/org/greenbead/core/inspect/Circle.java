package org.greenbead.core.inspect;

/**
 * An outline that was measured.
 *
 * @param cover    part of the rays that find the outline, weighted by how clear it is there; 0 to 1
 * @param sigmaPx  standard error of the radius, px
 */
record Circle(double xPx, double yPx, double rPx, double cover, double sigmaPx) {
    /** Its radius times a factor. */
    Circle sized(double part) {
        return new Circle(xPx, yPx, rPx * part, cover, sigmaPx);
    }

    /** The same where this part of the contrast is as clear as all of it is elsewhere. */
    Circle eased(double part) {
        return new Circle(xPx, yPx, rPx, Math.min(1, cover / part), sigmaPx);
    }
}
