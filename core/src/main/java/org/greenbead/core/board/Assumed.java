package org.greenbead.core.board;

import java.util.ArrayList;
import java.util.List;

/**
 * What a board was given without anybody knowing it. Each name stays on the board until the thing is measured or read, widens what the
 * model says, and is shown wherever the board is.
 */
public final class Assumed {
    public static final String THICKNESS = "thickness";
    public static final String COPPER = "copper";
    private static final String PACKAGE = ".package";
    private static final String ALLOY = ".alloy";
    private static final String LIFE = ".life";

    private Assumed() {
    }

    /** How the package of a chip is built. */
    public static String packageOf(String chip) {
        return chip + PACKAGE;
    }

    /** What its joints are made of. */
    public static String alloyOf(String chip) {
        return chip + ALLOY;
    }

    /** How often it was melted, and how long it has lain open. */
    public static String lifeOf(String chip) {
        return chip + LIFE;
    }

    /** The board's own, and those of the chip that is worked; the rest of the board does not decide. */
    public static List<String> ofTarget(Board board, String chip) {
        return board.assumed().stream().filter(a -> !a.contains(".") || a.startsWith(chip + ".")).toList();
    }

    /** The chip an assumption is of, empty for the board's own. */
    public static String chip(String assumed) {
        return assumed.contains(".") ? assumed.substring(0, assumed.lastIndexOf('.')) : "";
    }

    /** What is assumed, without the chip: {@code thickness}, {@code copper}, {@code package}, {@code alloy}, {@code life}. */
    public static String what(String assumed) {
        return assumed.substring(assumed.lastIndexOf('.') + 1);
    }

    static List<String> without(List<String> all, String... known) {
        var left = new ArrayList<>(all);
        left.removeAll(List.of(known));
        return List.copyOf(left);
    }

    static List<String> with(List<String> all, String... more) {
        var longer = new ArrayList<>(all);
        for (String one : more) {
            if (!longer.contains(one)) {
                longer.add(one);
            }
        }
        return List.copyOf(longer);
    }
}
