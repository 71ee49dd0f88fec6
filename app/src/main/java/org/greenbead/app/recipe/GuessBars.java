package org.greenbead.app.recipe;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.plan.GuessCost;

/**
 * How far the melt may lie from where the rehearsal has it, assumption by assumption: a band about what was taken, red where something would go
 * wrong. Beneath them what the one that is pointed at stands for and how it is found out.
 */
final class GuessBars extends VBox {
    /** Both ends of a bar, K. */
    private static final double MOST_K = 40;
    private static final double HIGH = 11;
    private final Texts texts;
    private final VBox bars = new VBox(3);
    private final Label detail = Looks.as(new Label(), "muted", "small");

    GuessBars(Texts texts) {
        this.texts = texts;
        setSpacing(4);
        detail.setWrapText(true);
        detail.setId("guess-detail");
        Label caps = Looks.label(texts.get("recipe.guess.caps"), "caps");
        getChildren().addAll(caps, bars, detail);
        setVisible(false);
        setManaged(false);
    }

    void show(List<GuessCost.Guess> guesses) {
        setVisible(!guesses.isEmpty());
        setManaged(!guesses.isEmpty());
        bars.getChildren().setAll(guesses.stream().map(Bar::new).toList());
        detail.setText(guesses.isEmpty() ? "" : says(guesses.getFirst()));
    }

    private String says(GuessCost.Guess guess) {
        if (!guess.matters()) {
            return texts.get("recipe.guess.quiet", texts.say(guess.names()));
        }
        List<String> ways = guess.cases().stream().map(c -> {
            var said = new ArrayList<>(List.of(texts.say(c.instead()) + ": " + texts.say(GuessCost.says(c))));
            GuessCost.harms(c).forEach(h -> said.add(texts.say(h)));
            return String.join(" ", said);
        }).toList();
        return texts.get("recipe.guess", String.join("; ", ways), texts.say(guess.wayToKnow()));
    }

    private String range(double least, double most) {
        String low = "−" + texts.rise(-least);
        String high = "+" + texts.rise(most);
        if (least > -0.5) {
            return most < 0.5 ? texts.rise(0) : high;
        }
        return most < 0.5 ? low : texts.get("recipe.guess.range", low, high);
    }

    /** One assumption. */
    private final class Bar extends VBox {
        private final Pane track = new Pane();
        private final Rectangle ground = Looks.as(new Rectangle(), "room-track");
        private final Rectangle band = Looks.as(new Rectangle(), "room-bar");
        private final Rectangle taken = Looks.as(new Rectangle(2.4, HIGH), "room-limit");
        private final double least;
        private final double most;

        Bar(GuessCost.Guess guess) {
            least = Math.min(0, guess.cases().stream().mapToDouble(GuessCost.Case::marginK).min().orElse(0));
            most = Math.max(0, guess.cases().stream().mapToDouble(GuessCost.Case::marginK).max().orElse(0));
            var gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            Label range = Looks.as(new Label(range(least, most)), "muted", "small");
            range.setMinWidth(Region.USE_PREF_SIZE);
            Label name = Looks.as(new Label(texts.say(guess.names())), "text-ink", "small");
            track.getChildren().addAll(ground, band, taken);
            track.setMinHeight(HIGH);
            track.setPrefHeight(HIGH);
            for (Rectangle r : List.of(ground, band)) {
                r.setHeight(6);
                r.setY(2.5);
                r.setArcHeight(6);
                r.setArcWidth(6);
            }
            band.pseudoClassStateChanged(Looks.OVER, guess.harms());
            band.pseudoClassStateChanged(Looks.CLOSE, !guess.harms() && guess.matters());
            track.widthProperty().subscribe(w -> place());
            getChildren().addAll(new HBox(4, name, gap, range), track);
            setFocusTraversable(true);
            setAccessibleText(name.getText() + " " + range.getText() + ". " + says(guess));
            hoverProperty().subscribe(on -> told(on, guess));
            focusedProperty().subscribe(on -> told(on, guess));
            setOnMouseClicked(press -> told(true, guess));
            setId("guess-" + guess.assumed().replace('.', '-'));
        }

        private void told(boolean on, GuessCost.Guess guess) {
            if (on) {
                detail.setText(says(guess));
            }
        }

        private double at(double kelvin) {
            return track.getWidth() * (0.5 + 0.5 * Math.clamp(kelvin / MOST_K, -1, 1));
        }

        private void place() {
            ground.setWidth(track.getWidth());
            band.setX(Math.min(at(least), at(0) - 2));
            band.setWidth(Math.max(at(most), at(0) + 2) - band.getX());
            taken.setX(at(0) - 1.2);
        }
    }
}
