package org.greenbead.app;

import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;

/** A window on the demo's ledger for every test method, closed after it. */
abstract class DemoWindow {
    protected BenchWindow window;

    @BeforeMethod
    public void openDemo() throws Exception {
        window = BenchWindow.onDemo();
        window.open();
        window.awaitNode("#remedy-CELL_CONNECTED");
    }

    @AfterMethod(alwaysRun = true)
    public void closeDemo() throws Exception {
        window.close();
        window.remove();
    }

    private static final int MOST_JOBS = 12;

    /** Goes through the jobs until one is in hand; begins when the first of them is. */
    void job(String id) throws Exception {
        window.await("a job in hand", () -> window.scene().lookup("#job-id") instanceof Label l
                && l.getText().startsWith("SB-"));
        for (int i = 0; i < MOST_JOBS && !window.text("#job-id").equals(id); i++) {
            String was = window.text("#job-id");
            window.press(KeyCode.J);
            window.await("another job", () -> !window.text("#job-id").equals(was));
        }
        window.awaitText("#job-id", id);
    }

    /** Whether some label in sight holds the words. */
    boolean says(String part) throws Exception {
        return window.fx(() -> window.scene().getRoot().lookupAll(".label").stream()
                .anyMatch(n -> n instanceof Label l && l.getText().contains(part)));
    }
}
