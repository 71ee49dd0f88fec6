package org.greenbead.core.inspect;

/**
 * An outline that was measured.
 *
 * @param cover    part of the rays that find the outline, weighted by how clear it is there; 0 to 1
 * @param sigmaPx  standard error of the radius, px
 */
record Circle(double xPx, double yPx, double rPx, double cover, double sigmaPx) {}
