package org.greenbead.app.shell;

/**
 * What pedal or Space does now.
 *
 * @param word   the action
 * @param so     its consequence
 * @param open   false while pressing would do nothing
 * @param fact   true when it states something about the world: seen to, it moves, solid
 * @param action on the FX thread
 */
public record Pedal(String word, String so, boolean open, boolean fact, Runnable action) {
    public Pedal(String word, String so, boolean open, Runnable action) {
        this(word, so, open, false, action);
    }

    /** One that states a fact: it is not reached by the press that ended the act before it. */
    public static Pedal stating(String word, String so, Runnable action) {
        return new Pedal(word, so, true, true, action);
    }

    public static Pedal shut(String word, String so) {
        return new Pedal(word, so, false, () -> {
        });
    }
}
