package org.greenbead.app.shell;

import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import java.util.stream.IntStream;
import javafx.geometry.Bounds;
import javafx.scene.AccessibleRole;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;

/**
 * Things under one another, one of them chosen; arrows go through them, a press chooses. Of thousands only those round the place that is looked at are
 * drawn; the rest come when one scrolls or goes there.
 */
public final class Rows<T> extends ScrollPane {
    /** So many are drawn at most, and so many of them are exchanged at an end. */
    static final int DRAWN = 120;
    private static final int EXCHANGED = DRAWN / 2;
    private final VBox list = new VBox(6);
    private final Function<T, Region> draw;
    private final Function<T, String> id;
    private final BiConsumer<T, Boolean> chosen;
    private List<T> items = List.of();
    private int at;
    /** The first that is drawn. */
    private int first;
    private boolean exchanging;

    /**
     * @param id     of the node of an item
     * @param chosen told the item, and whether it was pressed rather than come to
     */
    public Rows(String listId, Function<T, String> id, Function<T, Region> draw,
            BiConsumer<T, Boolean> chosen) {
        this.draw = draw;
        this.id = id;
        this.chosen = chosen;
        list.setId(listId);
        setContent(list);
        Looks.as(this, "watch-scroll");
        setFitToWidth(true);
        setFocusTraversable(false);
        setHbarPolicy(ScrollBarPolicy.NEVER);
        vvalueProperty().subscribe(place -> scrolled(place.doubleValue()));
    }

    /** Keeps the chosen place where it can. */
    public void show(List<T> now) {
        items = List.copyOf(now);
        at = Math.clamp(at, 0, Math.max(0, items.size() - 1));
        drawFrom(at - EXCHANGED);
    }

    private void drawFrom(int wanted) {
        first = Math.clamp(wanted, 0, Math.max(0, items.size() - DRAWN));
        list.getChildren().setAll(IntStream.range(first, Math.min(items.size(), first + DRAWN))
                .mapToObj(this::cell).toList());
    }

    private VBox cell(int i) {
        T item = items.get(i);
        var cell = Looks.as(new VBox(draw.apply(item)), "check-row");
        cell.setId(id.apply(item));
        cell.setAccessibleRole(AccessibleRole.LIST_ITEM);
        cell.setMinHeight(Region.USE_PREF_SIZE);
        cell.pseudoClassStateChanged(Looks.HERE, i == at);
        cell.setOnMouseClicked(press -> {
            move(i - at);
            chosen.accept(item, true);
        });
        return cell;
    }

    /** At an end of what is drawn the next ones come, and what was seen stays where it was. */
    private void scrolled(double place) {
        boolean down = place >= 1 && first + DRAWN < items.size();
        boolean up = place <= 0 && first > 0;
        if (exchanging || !(down || up) || list.getHeight() <= getHeight()) {
            return;
        }
        exchanging = true;
        int seen = down ? first + list.getChildren().size() - 1 : first;
        drawFrom(first + (down ? EXCHANGED : -EXCHANGED));
        laidOut();
        Bounds bounds = list.getChildren().get(seen - first).getBoundsInParent();
        double over = Math.max(1, list.getHeight() - getHeight());
        setVvalue(Math.clamp((down ? bounds.getMaxY() - getHeight() : bounds.getMinY()) / over, 0, 1));
        exchanging = false;
    }

    private void laidOut() {
        list.applyCss();
        list.autosize();
        layout();
    }

    public Optional<T> chosen() {
        return at < items.size() ? Optional.of(items.get(at)) : Optional.empty();
    }

    public void choose(T item) {
        int there = items.indexOf(item);
        if (there >= 0) {
            move(there - at);
        }
    }

    /** Goes down (or up); round the ends. */
    public void move(int by) {
        if (items.isEmpty()) {
            return;
        }
        at = Math.floorMod(at + by, items.size());
        if (at < first || at >= first + list.getChildren().size()) {
            exchanging = true;
            drawFrom(at - EXCHANGED);
            laidOut();
            exchanging = false;
        }
        for (int i = 0; i < list.getChildren().size(); i++) {
            list.getChildren().get(i).pseudoClassStateChanged(Looks.HERE, first + i == at);
        }
        double height = list.getHeight();
        if (height > getHeight()) {
            Bounds bounds = list.getChildren().get(at - first).getBoundsInParent();
            double top = getVvalue() * (height - getHeight());
            if (bounds.getMinY() < top) {
                setVvalue(bounds.getMinY() / (height - getHeight()));
            } else if (bounds.getMaxY() > top + getHeight()) {
                setVvalue((bounds.getMaxY() - getHeight()) / (height - getHeight()));
            }
        }
        chosen.accept(items.get(at), false);
    }
}
