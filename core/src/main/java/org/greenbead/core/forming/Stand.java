package org.greenbead.core.forming;

/** How far the balls of a chip are. Words are {@code stand.<method>.<name>}. */
public enum Stand {
    CLEAN, ALIGNED, FILLED, HELD, FORMING, SOLID, RELEASED, SETTLED
}
