package org.greenbead.app.timers;

import javafx.scene.layout.Pane;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;

/** How much of a wait is over: a trough that fills from the left, ringed once it is full. */
final class WaitBar extends Pane {
    private static final double HEIGHT = 14;
    private final Rectangle trough = Looks.as(new Rectangle(), "wait-trough");
    private final Rectangle full = Looks.as(new Rectangle(), "wait-full");
    private double gone;

    WaitBar() {
        setMinHeight(HEIGHT);
        setPrefHeight(HEIGHT);
        setMinWidth(60);
        for (Rectangle r : new Rectangle[]{trough, full}) {
            r.setHeight(HEIGHT);
            r.setArcHeight(HEIGHT);
            r.setArcWidth(HEIGHT);
        }
        getChildren().addAll(trough, full);
    }

    /** @param part 0 to 1 */
    void show(double part, boolean rings) {
        gone = part;
        pseudoClassStateChanged(Looks.BAD, rings);
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        trough.setWidth(getWidth());
        full.setWidth(gone > 0 ? Math.max(HEIGHT, gone * getWidth()) : 0);
    }
}
