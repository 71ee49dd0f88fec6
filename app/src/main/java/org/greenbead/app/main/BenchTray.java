package org.greenbead.app.main;

import java.util.List;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;

/** Boards in hand with what each waits for, and the places below. */
final class BenchTray extends ScrollPane {
    /** @param kind pseudo-class of the dot: hot, waiting, stopped, proving */
    record Card(String jobId, String title, String waits, String kind, boolean here) {}

    /** @param key shown at the right */
    record Place(String id, String name, String key, boolean here, Runnable open) {}

    /** @param left what is left of it, or since when it rings */
    record Wait(String id, String left, String words, boolean rings) {}

    private static final int MOST_WAITS = 2;
    private final VBox jobs = new VBox(8);
    private final VBox waits = new VBox(4);
    private Runnable onWait = () -> {
    };
    private final VBox places = new VBox(1);
    private final Label jobsHead = Looks.label("", "caps");
    private final Label placesHead = Looks.label("", "caps");
    private final Consumer<String> choose;
    private final Button flag = Looks.as(new Button(), "demo-flag");
    private boolean compact;

    BenchTray(Consumer<String> choose) {
        this.choose = choose;
        getStyleClass().add("tray-scroll");
        setFitToWidth(true);
        setFitToHeight(true);
        setHbarPolicy(ScrollBarPolicy.NEVER);
        setMinHeight(0);
        setFocusTraversable(false);
        flag.setId("demo-flag");
        flag.setWrapText(true);
        flag.setMinHeight(Region.USE_PREF_SIZE);
        flag.setMaxWidth(Double.MAX_VALUE);
        flag.setFocusTraversable(false);
        flag.setVisible(false);
        flag.managedProperty().bind(flag.visibleProperty());
        waits.setId("tray-waits");
        waits.setVisible(false);
        waits.managedProperty().bind(waits.visibleProperty());
        setContent(Looks.as(new VBox(flag, jobsHead, jobs, waits, placesHead, places), "tray"));
    }

    /** With large type a card is its number and its mark; the rest is read out by assistive tools and on the bead string. */
    void compact(boolean now) {
        if (now != compact) {
            compact = now;
            jobs.getChildren().clear();
        }
    }

    /** What stands over everything: this is made up, and one press leads out of it. */
    void flag(String words, String leave, Runnable pressed) {
        flag.setText(words + "\n" + leave);
        flag.setAccessibleText(words + ". " + leave);
        flag.setOnAction(press -> pressed.run());
        flag.setVisible(true);
    }

    /** A press on a wait leads to where it is ended. */
    void onWait(Runnable pressed) {
        onWait = pressed;
    }

    /** Waits that run, the next to ring in front; more than there is room for are one more line. */
    void waits(List<Wait> now) {
        List<Wait> shown = now.size() > MOST_WAITS ? now.subList(0, MOST_WAITS) : now;
        int rows = shown.size() + (now.size() > shown.size() ? 1 : 0);
        waits.setVisible(rows > 0);
        if (waits.getChildren().size() != rows) {
            waits.getChildren().clear();
            for (int i = 0; i < rows; i++) {
                Button button = Looks.as(new Button(), "tray-wait");
                button.setMaxWidth(Double.MAX_VALUE);
                button.setFocusTraversable(false);
                button.setOnAction(press -> onWait.run());
                waits.getChildren().add(button);
            }
        }
        for (int i = 0; i < rows; i++) {
            Button button = (Button) waits.getChildren().get(i);
            boolean more = i >= shown.size();
            String text = more
                    ? "+ " + (now.size() - shown.size())
                    : shown.get(i).left() + "  " + shown.get(i).words();
            if (!text.equals(button.getText())) {
                button.setText(text);
                button.setAccessibleText(text);
                button.pseudoClassStateChanged(Looks.BAD, !more && shown.get(i).rings());
            }
        }
    }

    void show(List<Card> cards, List<Place> where, Texts texts) {
        jobsHead.setText(texts.get("tray.title"));
        jobsHead.setVisible(!cards.isEmpty());
        jobsHead.setManaged(!cards.isEmpty());
        placesHead.setText(texts.get("tray.places"));
        if (jobs.getChildren().size() != cards.size()) {
            jobs.getChildren().setAll(cards.stream().map(c -> new Button()).toList());
        }
        for (int i = 0; i < cards.size(); i++) {
            fill((Button) jobs.getChildren().get(i), cards.get(i));
        }
        if (places.getChildren().size() != where.size()) {
            places.getChildren().setAll(where.stream().map(p -> new Button()).toList());
        }
        for (int i = 0; i < where.size(); i++) {
            Place place = where.get(i);
            Button button = (Button) places.getChildren().get(i);
            button.setOnAction(press -> place.open().run());
            List<Object> drawn = List.of(place.id(), place.name(), place.key(), place.here(), compact);
            if (drawn.equals(button.getUserData())) {
                continue;
            }
            button.setUserData(drawn);
            button.getStyleClass().setAll("button", "place");
            button.setId("place-" + place.id());
            button.setMaxWidth(Double.MAX_VALUE);
            // One line: a name that is broken would run into the next place.
            var name = Looks.as(new Label(place.name()), "text-ink");
            if (compact) {
                name.getStyleClass().add("small");
            }
            var key = new Label(place.key());
            key.getStyleClass().addAll("muted", "small");
            key.setVisible(!compact);
            key.setManaged(!compact);
            var gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            var row = new HBox(name, gap, key);
            row.setAlignment(Pos.CENTER_LEFT);
            row.prefWidthProperty().bind(button.widthProperty().subtract(compact ? 16 : 28));
            button.setGraphic(row);
            button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
            button.setAccessibleText(place.name());
            button.pseudoClassStateChanged(Looks.HERE, place.here());
        }
    }

    private void fill(Button button, Card card) {
        if (card.equals(button.getUserData())) {
            return;
        }
        button.setUserData(card);
        button.getStyleClass().setAll("button", "tray-job");
        button.setId("tray-" + card.jobId());
        button.setMaxWidth(Double.MAX_VALUE);
        var dot = Looks.as(new Circle(4.5), "tray-dot");
        for (String kind : List.of("hot", "waiting", "stopped", "proving")) {
            dot.pseudoClassStateChanged(PseudoClass.getPseudoClass(kind), kind.equals(card.kind()));
        }
        var waits = new HBox(7, dot, Looks.label(card.waits(), "text-ink", "small"));
        waits.setAlignment(Pos.TOP_LEFT);
        waits.getChildren().forEach(n -> HBox.setHgrow(n, Priority.SOMETIMES));
        HBox.setMargin(dot, new javafx.geometry.Insets(4, 0, 0, 0));
        var lines = new VBox(3);
        if (compact) {
            HBox.setMargin(dot, new javafx.geometry.Insets(0));
            var only = new HBox(7, dot, Looks.label(card.jobId(), "text-ink", "strong", "small"));
            only.setAlignment(Pos.CENTER_LEFT);
            lines.getChildren().add(only);
        } else {
            lines.getChildren().addAll(Looks.label(card.jobId(), "text-ink", "strong"),
                    Looks.label(card.title(), "muted", "small"), waits);
        }
        lines.prefWidthProperty().bind(button.widthProperty().subtract(26));
        button.setGraphic(lines);
        button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
        button.setAlignment(Pos.TOP_LEFT);
        button.setAccessibleText(card.jobId() + " " + card.title() + ", " + card.waits());
        button.pseudoClassStateChanged(Looks.HERE, card.here());
        button.setOnAction(press -> choose.accept(card.jobId()));
    }

}
