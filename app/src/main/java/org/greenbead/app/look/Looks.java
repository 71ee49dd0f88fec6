package org.greenbead.app.look;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import javafx.css.PseudoClass;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.text.Font;

/** Style classes, pseudo-classes and the themes. */
public final class Looks {
    public static final PseudoClass HERE = PseudoClass.getPseudoClass("here");
    public static final PseudoClass BAD = PseudoClass.getPseudoClass("bad");
    public static final PseudoClass CHANGED = PseudoClass.getPseudoClass("changed");
    public static final PseudoClass SHUT = PseudoClass.getPseudoClass("shut");
    public static final PseudoClass PRESS = PseudoClass.getPseudoClass("press");
    public static final PseudoClass ON = PseudoClass.getPseudoClass("on");
    public static final PseudoClass UNDER = PseudoClass.getPseudoClass("under");
    public static final PseudoClass MELT = PseudoClass.getPseudoClass("melt");
    public static final PseudoClass CLOSE = PseudoClass.getPseudoClass("close");
    public static final PseudoClass OVER = PseudoClass.getPseudoClass("over");
    private static final PseudoClass COMPACT = PseudoClass.getPseudoClass("compact");
    private static final String FOLDER = "/org/greenbead/app/look/";
    private static final String[] FONTS = {"B612-Regular", "B612-Bold", "B612-Italic", "B612-BoldItalic",
            "B612Mono-Regular", "B612Mono-Bold"};

    private Looks() {
    }

    /** Loads the shipped type once a process; harmless to call again. */
    public static void loadFonts() {
        for (String name : FONTS) {
            try (InputStream in = Looks.class
                    .getResourceAsStream("/org/greenbead/store/fonts/" + name + ".ttf")) {
                Font.loadFont(in, 12);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    /** Puts a theme and a text size on a scene. */
    public static void dress(Scene scene, boolean lampOff, int textPercent) {
        scene.getStylesheets().setAll(sheet(lampOff ? "lamp-off" : "daylight"), sheet("app"));
        scene.getRoot().pseudoClassStateChanged(COMPACT, compact(textPercent));
        scene.getRoot().setStyle("-fx-font-size: " + 13.0 * textPercent / 100 + "px;");
    }

    /** From this text size on there is room only for what matters most. */
    public static boolean compact(int textPercent) {
        return textPercent >= 130;
    }

    private static String sheet(String name) {
        return Looks.class.getResource(FOLDER + name + ".css").toExternalForm();
    }

    /** A label with style classes that wraps rather than cutting its words. */
    public static Label label(String text, String... classes) {
        var label = new Label(text);
        label.getStyleClass().addAll(classes);
        label.setWrapText(true);
        label.setMinWidth(0);
        label.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        return label;
    }

    /** A line that takes no room while it is empty. */
    public static Label note(String... classes) {
        Label label = label("", classes);
        label.managedProperty().bind(label.textProperty().isNotEmpty());
        return label;
    }

    /**
     * What a control says when the pointer rests on it. A tip is a window of its own: it is made when the pointer comes, for most are
     * never looked at.
     */
    public static void tip(Control control, String text) {
        if (control.getTooltip() == null) {
            control.setOnMouseEntered(enter -> control.setTooltip(new Tooltip(text)));
        } else {
            control.getTooltip().setText(text);
        }
    }

    public static <T extends Node> T as(T node, String... classes) {
        node.getStyleClass().addAll(classes);
        return node;
    }
}
