package org.greenbead.core.picture;

/** A place in a picture, pixels from its upper left corner, x to the right, y down. */
public record Px(double x, double y) {}
