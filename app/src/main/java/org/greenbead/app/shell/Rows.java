package org.greenbead.app.shell;

import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import javafx.scene.AccessibleRole;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;

/** Things under one another, one of them chosen; arrows go through them, a press chooses. */
public final class Rows<T> extends ScrollPane {
    private final VBox list = new VBox(6);
    private final Function<T, Region> draw;
    private final Function<T, String> id;
    private final BiConsumer<T, Boolean> chosen;
    private List<T> items = List.of();
    private int at;

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
    }

    /** Keeps the chosen place where it can. */
    public void show(List<T> now) {
        items = List.copyOf(now);
        at = Math.clamp(at, 0, Math.max(0, items.size() - 1));
        list.getChildren().clear();
        for (int i = 0; i < items.size(); i++) {
            int mine = i;
            T item = items.get(i);
            var cell = Looks.as(new VBox(draw.apply(item)), "check-row");
            cell.setId(id.apply(item));
            cell.setAccessibleRole(AccessibleRole.LIST_ITEM);
            cell.setMinHeight(Region.USE_PREF_SIZE);
            cell.pseudoClassStateChanged(Looks.HERE, i == at);
            cell.setOnMouseClicked(press -> {
                move(mine - at);
                chosen.accept(item, true);
            });
            list.getChildren().add(cell);
        }
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
        for (int i = 0; i < list.getChildren().size(); i++) {
            list.getChildren().get(i).pseudoClassStateChanged(Looks.HERE, i == at);
        }
        double height = list.getHeight();
        if (height > getHeight()) {
            var bounds = list.getChildren().get(at).getBoundsInParent();
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
