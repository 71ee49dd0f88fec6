package org.greenbead.core.forming;

/** How the solder comes to the pads. */
public enum Method {
    /** Paste pressed through a stencil that stays on until the balls are solid. */
    PASTE,
    /** Spheres poured through a frame that is lifted off before the heat. */
    SPHERES
}
