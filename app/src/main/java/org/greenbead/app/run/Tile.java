package org.greenbead.app.run;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;

/** One temperature that can be read from two metres. */
final class Tile extends VBox {
    private final Label head;
    private final Label digits;
    private final Label unit = Looks.as(new Label(), "unit");
    private final Label foot = Looks.label("", "foot");

    Tile(String id, String ink) {
        getStyleClass().add("tile");
        head = Looks.as(new Label(), "caps");
        digits = Looks.as(new Label("–"), "digits", ink);
        digits.setId(id);
        digits.setMinWidth(USE_PREF_SIZE);
        unit.setId(id + "-unit");
        foot.setId(id + "-foot");
        foot.setMinHeight(USE_PREF_SIZE);
        unit.setMinWidth(USE_PREF_SIZE);
        var row = new HBox(2, digits, unit);
        row.setAlignment(Pos.BASELINE_LEFT);
        getChildren().addAll(head, row, foot);
        setMaxWidth(Double.MAX_VALUE);
        setMinWidth(0);
    }

    void show(String title, String value, String unitText, String footText, boolean bad) {
        head.setText(title);
        digits.setText(value);
        unit.setText(unitText);
        foot.setText(footText);
        foot.pseudoClassStateChanged(Looks.BAD, bad);
    }
}
