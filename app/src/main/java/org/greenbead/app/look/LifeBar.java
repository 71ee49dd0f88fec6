package org.greenbead.app.look;

import javafx.scene.layout.Pane;
import javafx.scene.shape.Rectangle;

/** How much of a wait or of a life is over: a trough that fills from the left. */
public final class LifeBar extends Pane {
    private static final double HEIGHT = 14;
    private final Rectangle trough = Looks.as(new Rectangle(), "wait-trough");
    private final Rectangle full = Looks.as(new Rectangle(), "wait-full");
    private double gone;

    public LifeBar() {
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

    /** @param part from 0; more than 1 is shown full, and nothing where it is not a number */
    public void show(double part, boolean rings) {
        gone = Double.isNaN(part) ? 0 : Math.clamp(part, 0, 1);
        pseudoClassStateChanged(Looks.BAD, rings);
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        trough.setWidth(getWidth());
        full.setWidth(gone > 0 ? Math.max(HEIGHT, gone * getWidth()) : 0);
    }
}
