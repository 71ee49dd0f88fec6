package org.greenbead.core.forming;

/** What hands can do at the stencil or the jig. Words are {@code act.<method>.<name>}. */
public enum Act {
    /** Lay chip and stencil together, holes over pads. */
    ALIGN,
    /** Put flux on. */
    FLUX,
    /** Take liquid out of the paste. */
    BLOT,
    /** Fill the holes: a pass of paste, or spheres poured. */
    FILL,
    /** Take off what is over. */
    WIPE,
    /** Hold the stencil with the tool that stays on; lift the frame of spheres. */
    HOLD,
    /** Bring the heat down. */
    HEAT,
    /** The first ball shines. */
    FIRST_BALL,
    /** All are round: heat away. */
    HEAT_OFF,
    /** Take the hold off; move or knock the work. */
    LET_GO,
    /** Warm the stencil so that it comes off. */
    WARM,
    /** Slide the stencil off; take the chip out of the jig. */
    SLIDE,
    /** Pick the chip out of the stencil. */
    PICK_OUT,
    /** Rub an iron over it. */
    IRON,
    /** Brush. */
    BRUSH,
    /** Melt a second time, nothing over the balls but flux. */
    SETTLE,
    /** Wash with solvent. */
    WASH
}
