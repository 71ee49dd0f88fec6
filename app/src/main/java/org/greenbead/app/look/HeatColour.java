package org.greenbead.app.look;

import javafx.scene.paint.Color;

/**
 * Colour of a temperature: steps of even lightness from a cool grey green over straw to red-brown, which stay in order for
 * every kind of colour vision because lightness falls all the way.
 */
public final class HeatColour {
    private static final double[] AT = {20, 80, 130, 170, 200, 240};
    private static final Color[] STEP = {Color.web("#E3ECE7"), Color.web("#D5DFBF"), Color.web("#E3D08C"),
            Color.web("#E2AD62"), Color.web("#D58350"),
            Color.web("#B9563C")};

    private HeatColour() {
    }

    public static Color of(double celsius) {
        if (!(celsius > AT[0])) {
            return STEP[0];
        }
        for (int i = 1; i < AT.length; i++) {
            if (celsius <= AT[i]) {
                return STEP[i - 1].interpolate(STEP[i], (celsius - AT[i - 1]) / (AT[i] - AT[i - 1]));
            }
        }
        return STEP[STEP.length - 1];
    }
}
