package org.greenbead.app;

import javafx.application.Application;

/** Starts the window; apart from the Application class, so that JavaFX may lie on the module path. */
public final class Launcher {
    private Launcher() {
    }

    public static void main(String[] args) {
        Application.launch(GreenBead.class, args);
    }
}
