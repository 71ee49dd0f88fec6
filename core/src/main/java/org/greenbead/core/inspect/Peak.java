package org.greenbead.core.inspect;

/** A round bright spot. @param strength by how much it stands out */
record Peak(double xPx, double yPx, double strength) {}
