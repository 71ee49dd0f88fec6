package org.greenbead.core.board;

/** The face of the board, seen as it lies on the bench. */
public enum Side {
    TOP, BOTTOM
}
