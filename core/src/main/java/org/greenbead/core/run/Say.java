package org.greenbead.core.run;

/** What the technician can say with pedal or key. */
public enum Say {
    /** End this stage on my word. */
    GO_ON,
    /** One stage back. */
    BACK,
    /** Nudged: it moves. */
    MOVES,
    /** The chip is off, or settled: heat away. */
    HEAT_OFF,
    /** All probes show a warm board at the start, and it is warm to the hand. */
    BOARD_IS_WARM,
    /** The board or the chip was moved. */
    MOVED,
    /** A remark. */
    NOTE,
    /** The run is over; only once moving is safe. */
    FINISH,
    /** Break off. */
    STOP
}
