package org.greenbead.app.setup;

import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.bench.Calibration;

/** The four factors of a calibration with the interval of each. */
final class Factors extends GridPane {
    /** Of nine in ten, in standard deviations. */
    private static final double NINETY = 1.645;

    Factors() {
        setHgap(16);
        setVgap(7);
        setId("fit-factors");
    }

    void show(Calibration c, Texts texts) {
        getChildren().clear();
        row(0, texts.get("fit.jet"), c.jet(), texts);
        row(1, texts.get("fit.preheater"), c.preheater(), texts);
        row(2, texts.get("fit.heat"), c.boardHeat(), texts);
        row(3, texts.get("fit.along"), c.boardConductivity(), texts);
    }

    private void row(int at, String name, Calibration.Factor factor, Texts texts) {
        double low = factor.value() * Math.exp(-NINETY * factor.sdLn());
        double high = factor.value() * Math.exp(NINETY * factor.sdLn());
        add(Looks.label(name, "text-ink"), 0, at);
        Label value = Looks.as(new Label(String.format(Locale.ROOT, "%.2f", factor.value())), "strong",
                "text-ink");
        value.setMinWidth(USE_PREF_SIZE);
        add(value, 1, at);
        add(Looks.label(
                factor.determined()
                        ? texts.get("fit.interval", String.format(Locale.ROOT, "%.2f", low),
                                String.format(Locale.ROOT, "%.2f", high))
                        : texts.get("fit.undetermined"),
                "muted"), 2, at);
    }
}
