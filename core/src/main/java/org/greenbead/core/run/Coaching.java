package org.greenbead.core.run;

import java.util.Optional;
import org.greenbead.core.forming.Act;
import org.greenbead.core.quantity.Phrase;

/**
 * What the coach says.
 *
 * @param now         do this
 * @param next        what comes after, or what to wait for
 * @param pedal       what pedal or Space says now; empty when it does nothing yet
 * @param pedalWord   the same in words
 * @param act         what pressing it says was done at the stencil, where it says that instead; never together with {@code pedal}
 * @param sight       what pressing it says was seen, where it says that instead
 * @param consequence what pressing it will do
 * @param caution     the caution of this step; empty where there is none
 */
public record Coaching(Phrase now, Phrase next, Optional<Say> pedal, Optional<Act> act, Optional<Sight> sight,
        Phrase pedalWord, Phrase consequence, Optional<Phrase> caution) {
    public Coaching(Phrase now, Phrase next, Optional<Say> pedal, Optional<Act> act, Phrase pedalWord,
            Phrase consequence, Optional<Phrase> caution) {
        this(now, next, pedal, act, Optional.empty(), pedalWord, consequence, caution);
    }

    public Coaching(Phrase now, Phrase next, Optional<Say> pedal, Phrase pedalWord, Phrase consequence,
            Optional<Phrase> caution) {
        this(now, next, pedal, Optional.empty(), pedalWord, consequence, caution);
    }

    /** Its stable name, for tables: "peak.nudge". */
    public String name() {
        return now.key().replaceFirst("^coach\\.", "");
    }
}
