package org.greenbead.core.quantity;

import java.util.List;

/**
 * A sentence not yet put into words: a key of the trade's bundle and what fills its gaps.
 *
 * @param key  key in {@code trade.properties}
 * @param gaps in the order of the gaps {0}, {1}, …
 */
public record Phrase(String key, List<Quantity> gaps) {
    public Phrase {
        gaps = List.copyOf(gaps);
    }

    public static Phrase of(String key, Quantity... gaps) {
        return new Phrase(key, List.of(gaps));
    }
}
