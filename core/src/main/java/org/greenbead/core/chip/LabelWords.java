package org.greenbead.core.chip;

import java.util.List;
import java.util.Locale;
import org.greenbead.core.quantity.Words;

/** What a label says beside its number: health and origin, the mark, the job. */
public final class LabelWords {
    private LabelWords() {
    }

    /** Three short lines. */
    public static List<String> of(StockChip chip, Words words) {
        return List.of(
                words.say("chip.health." + small(chip.health())) + ", "
                        + words.say("chip.origin." + small(chip.origin())),
                chip.orientation().isEmpty() ? words.say("chip.no_mark") : chip.orientation(),
                chip.job().orElse(words.say("chip.stock")));
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }
}
