package org.greenbead.app.main;

import java.util.List;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.finding.Finding;

/** Findings, worst first, each with why and a remedy that one key can press. */
final class WatchPane extends VBox {
    private static final int IN_SIGHT = 5;
    private final VBox list = new VBox(9);
    private final Label head = Looks.label("", "caps");
    private final Button book = Looks.as(new Button(), "act", "small");
    private final Consumer<Finding> remedy;
    private List<Finding> shown = List.of();
    private List<Finding> pressable = List.of();
    private Texts shownIn;
    private boolean thinkingShown;

    WatchPane(Consumer<Finding> remedy) {
        this.remedy = remedy;
        getStyleClass().add("watch");
        var scroll = Looks.as(new ScrollPane(list), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setFocusTraversable(false);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        getChildren().addAll(head, scroll, book);
        book.setId("watch-book");
        book.setMaxWidth(Double.MAX_VALUE);
        book.setWrapText(true);
        book.setFocusTraversable(false);
    }

    void show(List<Finding> findings, boolean thinking, Texts texts) {
        if (findings.equals(shown) && texts.equals(shownIn) && thinking == thinkingShown) {
            return;
        }
        shown = findings;
        shownIn = texts;
        thinkingShown = thinking;
        head.setText(texts.get("watch.title"));
        pressable = findings.stream().limit(IN_SIGHT).filter(f -> f.remedy().isPresent()).toList();
        list.getChildren().clear();
        if (thinking) {
            list.getChildren().add(Looks.label(texts.get("watch.thinking"), "muted"));
        }
        if (findings.isEmpty() && !thinking) {
            list.getChildren().add(Looks.label(texts.get("watch.none"), "muted"));
        }
        findings.stream().limit(IN_SIGHT).forEach(f -> list.getChildren().add(card(f, texts)));
        if (findings.size() > IN_SIGHT) {
            Label more = Looks.label(texts.get("watch.more", findings.size() - IN_SIGHT), "muted", "small");
            more.setId("watch-more");
            list.getChildren().add(more);
        }
    }

    /** There is no job to watch over: what the first one needs at hand. */
    void newcomer(Texts texts) {
        shown = List.of();
        shownIn = null;
        pressable = List.of();
        book.setVisible(false);
        head.setText(texts.get("watch.first"));
        list.getChildren().setAll(java.util.Arrays.stream(texts.get("watch.first.things").split("\\|"))
                .map(thing -> {
                    String[] words = thing.split(": ", 2);
                    return new VBox(1, Looks.label(words[0].strip(), "what"), Looks.label(words[1], "muted"));
                }).toList());
    }

    /** What the rule book says of the whole job, in one line that opens it. */
    void book(long stops, long cares, Texts texts, Runnable open) {
        book.setVisible(true);
        book.setText(texts.get("watch.book", stops, cares));
        book.pseudoClassStateChanged(Looks.ON, stops > 0);
        book.setOnAction(press -> open.run());
    }

    /** Presses the n-th remedy, from 1. @return false when there is none */
    boolean press(int number) {
        if (number < 1 || number > pressable.size()) {
            return false;
        }
        remedy.accept(pressable.get(number - 1));
        return true;
    }

    private Node card(Finding finding, Texts texts) {
        var shape = Shapes.of(finding.severity(), 16);
        Label what = Looks.label(texts.say(finding.what()), "what");
        HBox.setHgrow(what, Priority.ALWAYS);
        var top = new HBox(8, shape, what);
        top.setAlignment(Pos.TOP_LEFT);
        Label why = Looks.label(texts.say(finding.why()), "why");
        var card = Looks.as(new VBox(top, why), "finding");
        card.pseudoClassStateChanged(
                PseudoClass.getPseudoClass(finding.severity().name().toLowerCase(java.util.Locale.ROOT)),
                true);
        int number = pressable.indexOf(finding) + 1;
        if (number > 0) {
            var button = Looks.as(new Button(number + "  " + texts.say(finding.cure())), "cure");
            button.setId("remedy-" + finding.rule().name());
            button.setWrapText(true);
            button.setMinWidth(0);
            button.setMaxWidth(Double.MAX_VALUE);
            button.pseudoClassStateChanged(Looks.PRESS, true);
            Looks.tip(button, texts.say(finding.source()));
            button.setOnAction(press -> remedy.accept(finding));
            card.getChildren().add(button);
        } else {
            Label cure = Looks.label(texts.say(finding.cure()), "cure");
            Looks.tip(cure, texts.say(finding.source()));
            card.getChildren().add(cure);
        }
        return card;
    }
}
