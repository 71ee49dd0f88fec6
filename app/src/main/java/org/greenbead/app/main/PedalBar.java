package org.greenbead.app.main;

import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;

/** What pedal or Space does now, in words with its consequence; back; note; the clock. */
final class PedalBar extends HBox {
    private final Label word = Looks.label("", "word");
    private final Label so = Looks.label("", "so");
    private final Label key = new Label();
    /** Narrower than this nothing is laid out yet. */
    private static final double LEAST_PX = 60;
    private static final double LEEWAY_PX = 12;
    private final VBox words = new VBox(1);
    private final HBox row = new HBox(12);
    private final Button pedal = Looks.as(new Button(), "pedal");
    private final Label backWord = Looks.label("", "word");
    private final Button back = side("back", backWord, "←");
    private final Label noteWord = Looks.label("", "word");
    private final Button note = side("note", noteWord, "N");
    private final Label clock = Looks.as(new Label(), "clock");
    private final Label speed = Looks.as(new Label(), "speed-flag");

    PedalBar(Runnable pressed, Runnable backPressed, Runnable notePressed) {
        getStyleClass().add("pedal-bar");
        word.setId("pedal-word");
        so.setId("pedal-so");
        clock.setId("clock");
        speed.setId("speed-flag");
        key.getStyleClass().add("key");
        words.getChildren().addAll(word, so);
        words.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(words, Priority.ALWAYS);
        row.getChildren().addAll(words, key);
        row.setAlignment(Pos.CENTER_LEFT);
        row.prefWidthProperty().bind(pedal.widthProperty().subtract(38));
        row.prefWidthProperty().subscribe(w -> fit());
        pedal.setId("pedal");
        pedal.setGraphic(row);
        pedal.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
        pedal.setAlignment(Pos.CENTER_LEFT);
        pedal.setMaxSize(Double.MAX_VALUE, Double.MAX_VALUE);
        pedal.setMinHeight(Region.USE_PREF_SIZE);
        pedal.setFocusTraversable(false);
        HBox.setHgrow(pedal, Priority.ALWAYS);
        pedal.setOnAction(p -> pressed.run());
        back.setOnAction(p -> backPressed.run());
        note.setOnAction(p -> notePressed.run());
        var right = new VBox(2, clock, speed);
        right.setAlignment(Pos.CENTER_RIGHT);
        right.setMinWidth(150);
        getChildren().addAll(back, pedal, note, right);
    }

    private static Button side(String id, Label word, String key) {
        var lines = new VBox(2, word, Looks.label(key, "key"));
        lines.setAlignment(Pos.CENTER);
        var button = Looks.as(new Button(), "side-key");
        button.setId(id);
        button.setGraphic(lines);
        button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
        button.setMaxHeight(Double.MAX_VALUE);
        return button;
    }

    void show(Pedal now, Texts texts) {
        word.setText(now.word());
        so.setText(now.so());
        key.setText(texts.get("pedal.key"));
        key.setMinWidth(Region.USE_PREF_SIZE);
        fit();
        pedal.pseudoClassStateChanged(Looks.SHUT, !now.open());
        pedal.setAccessibleText(now.word() + ". " + now.so());
    }

    /** As high as its words need at the width that they have: none is cut off where the type is large. */
    private void fit() {
        double wide = row.getPrefWidth() - key.prefWidth(-1) - row.getSpacing() - LEEWAY_PX;
        row.setPrefHeight(wide > LEAST_PX ? words.prefHeight(wide) : Region.USE_COMPUTED_SIZE);
    }

    void words(String backText, String noteText) {
        side(back, backWord, backText);
        side(note, noteWord, noteText);
    }

    private static void side(Button button, Label label, String text) {
        label.setText(text);
        button.setAccessibleText(text);
        button.setVisible(!text.isEmpty());
        button.setManaged(!text.isEmpty());
    }

    void clock(String text) {
        clock.setText(text);
    }

    /** Shown whenever demo time is not real time. */
    void speed(String text) {
        speed.setText(text);
        speed.setVisible(!text.isEmpty());
        speed.setManaged(!text.isEmpty());
    }
}
