package org.greenbead.app.shell;

/**
 * What pedal or Space does now.
 *
 * @param word   the action
 * @param so     its consequence
 * @param open   false while pressing would do nothing
 * @param action on the FX thread
 */
public record Pedal(String word, String so, boolean open, Runnable action) {
    public static Pedal shut(String word, String so) {
        return new Pedal(word, so, false, () -> {
        });
    }
}
