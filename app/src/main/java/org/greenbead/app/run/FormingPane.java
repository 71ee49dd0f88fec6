package org.greenbead.app.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Shape;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.Judged;
import org.greenbead.core.forming.Stand;
import org.greenbead.core.run.FormingView;
import org.greenbead.core.run.RunState;

/** How far the balls are, and which act is right, at a price or wrong just now. A press on an act says that it was done. */
final class FormingPane extends VBox {
    private static final PseudoClass HERE = PseudoClass.getPseudoClass("here");
    private static final PseudoClass PAST = PseudoClass.getPseudoClass("past");
    private static final double ROW_PX = 39.5;
    private static final double LARGE_PX = 16.9;
    private final HBox line = new HBox(4);
    private final VBox acts = Looks.as(new VBox(2), "forming-acts");
    private final Label head = Looks.label("", "caps");
    private final Consumer<Act> done;
    private List<Object> shown = List.of();

    FormingPane(Consumer<Act> done) {
        super(8);
        this.done = done;
        line.setId("forming-line");
        line.setAlignment(Pos.CENTER_LEFT);
        acts.setId("forming-acts");
        var card = Looks.as(new VBox(5, head, acts), "card");
        VBox.setVgrow(card, Priority.ALWAYS);
        VBox.setVgrow(acts, Priority.ALWAYS);
        acts.setMinHeight(0);
        getChildren().add(card);
        setMinWidth(0);
    }

    /** The row of states; stands over the whole width of the page. */
    HBox line() {
        return line;
    }

    void show(RunState state, FormingView view, Texts texts) {
        int fits = Math.max(4, (int) ((acts.getHeight() > 0 ? acts.getHeight() : 400) / rowPx()));
        List<Object> now = List.of(view.forming().stand(), view.acts(), view.next(), fits,
                view.forming().passes(),
                texts.words().unit(), large(), state.coaching().act());
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        states(view, texts);
        head.setText(texts.get("forming.may"));
        acts.getChildren().clear();
        List<Judged> ranked = ranked(view, state.coaching().act());
        boolean folds = ranked.size() > fits;
        for (Judged judged : folds ? ranked.subList(0, fits - 1) : ranked) {
            acts.getChildren().add(row(judged,
                    state.coaching().act().filter(a -> a == judged.act()).isPresent(), view, texts));
        }
        if (folds) {
            acts.getChildren()
                    .add(Looks.label(texts.get("forming.more", ranked.size() - fits + 1), "muted", "small"));
        }
    }

    private double rowPx() {
        return ROW_PX * (getScene() == null ? 1 : fontSize() / 13.0);
    }

    private double fontSize() {
        return head.getFont().getSize() / 0.8;
    }

    private boolean large() {
        return getScene() != null && fontSize() >= LARGE_PX;
    }

    private static List<Judged> ranked(FormingView view, java.util.Optional<Act> pedal) {
        var all = new ArrayList<>(view.acts());
        all.sort(Comparator.comparing((Judged j) -> pedal.filter(a -> a == j.act()).isEmpty())
                .thenComparing(Judged::rating));
        return all;
    }

    private void states(FormingView view, Texts texts) {
        line.getChildren().clear();
        String method = view.forming().method().name().toLowerCase(Locale.ROOT);
        boolean again = view.forming().again();
        for (Stand stand : Stand.values()) {
            boolean here = stand == view.forming().stand();
            boolean past = stand.ordinal() < view.forming().stand().ordinal();
            Shape mark = Looks.as(new Circle(here ? 6.5 : 5), "forming-mark");
            mark.pseudoClassStateChanged(HERE, here);
            mark.pseudoClassStateChanged(PAST, past);
            Label word = Looks.label(texts.say("stand." + method + "." + small(stand)), "forming-stand");
            word.setWrapText(false);
            word.setMinWidth(Region.USE_PREF_SIZE);
            // Large text leaves room for where it stands and what comes next.
            boolean said = !large() || here
                    || stand.ordinal() == view.forming().stand().ordinal() + 1;
            word.setVisible(said);
            word.setManaged(said);
            word.pseudoClassStateChanged(HERE, here);
            word.setId("stand-" + small(stand));
            var cell = new HBox(6, mark, word);
            cell.setAlignment(Pos.CENTER_LEFT);
            if (again && stand.ordinal() < Stand.FORMING.ordinal()) {
                continue;
            }
            if (!line.getChildren().isEmpty()) {
                var wire = Looks.as(new Region(), "forming-wire");
                HBox.setHgrow(wire, Priority.ALWAYS);
                line.getChildren().add(wire);
            }
            line.getChildren().add(cell);
        }
    }

    private Button row(Judged judged, boolean next, FormingView view, Texts texts) {
        String method = view.forming().method().name().toLowerCase(Locale.ROOT);
        Label what = Looks.label(texts.say("act." + method + "." + small(judged.act())), "text-ink",
                "strong");
        Label why = Looks.label(judged.why().isEmpty() ? "" : texts.say(judged.why()), "muted", "small");
        what.setWrapText(false);
        what.setMinWidth(Region.USE_PREF_SIZE);
        why.setWrapText(false);
        why.setMinWidth(0);
        var words = new VBox(0, what, why);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        var holder = new javafx.scene.layout.StackPane(mark(judged.rating()));
        holder.setMinWidth(18);
        var row = new HBox(8, holder, words);
        row.setAlignment(Pos.CENTER_LEFT);
        var button = Looks.as(new Button(), "forming-act");
        button.setGraphic(row);
        button.setId("act-" + small(judged.act()));
        button.setMaxWidth(Double.MAX_VALUE);
        button.pseudoClassStateChanged(HERE, next);
        button.setAccessibleText(
                texts.say("rating." + small(judged.rating())) + ": " + what.getText() + ". "
                        + why.getText());
        button.setOnAction(press -> done.accept(judged.act()));
        return button;
    }

    /** Right is a filled round, a price an open triangle, wrong a cross bar in a hexagon. */
    private static Shape mark(Judged.Rating rating) {
        return switch (rating) {
            case RIGHT -> Looks.as(new Circle(6), "forming-right");
            case CARE -> Looks.as(new Polygon(0, 12, 14, 12, 7, 0), "forming-care");
            case WRONG, IDLE -> Looks.as(Shapes.hexagon(14), "forming-wrong");
        };
    }

    private static String small(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }
}
