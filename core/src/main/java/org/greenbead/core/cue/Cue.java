package org.greenbead.core.cue;

import java.util.List;
import org.greenbead.core.quantity.Check;

/**
 * What a step counts.
 *
 * @param event    what begins it; its words are {@code event.<event>}
 * @param seconds  how long, 1 to 7200
 * @param spoken   every second is said (a count), else only what is left at full steps
 * @param quiet    do not disturb while it runs: nothing but this count may sound
 */
public record Cue(String check, String event, int seconds, boolean spoken, boolean quiet) {
    public Cue {
        Check.text("check", check);
        Check.text("event", event);
        Check.within("length of a count", seconds, 1, 7200, "s");
    }

    /** Seconds after the event at which something is said: each second of a count; else one minute, half a minute, ten and the last five before the end. */
    public List<Integer> saidAt() {
        if (spoken) {
            return java.util.stream.IntStream.rangeClosed(1, seconds).boxed().toList();
        }
        return List.of(60, 30, 10, 5, 4, 3, 2, 1, 0).stream().filter(left -> left < seconds)
                .map(left -> seconds - left).toList();
    }
}
