package org.greenbead.core.book;

import java.util.List;

/**
 * A rule that fired.
 *
 * @param values what stands at the paths of its reason, in the order of writing; null where nothing does
 * @param cures  the numbers of its remedy, in the order of writing; null where one cannot be reckoned
 * @param at     JSON pointer into the facts
 */
public record Noticed(BookRule rule, List<Value> values, List<Cure> cures, String at) {
    /** A path of the reason and what stands there. */
    public record Value(String path, Object value) {}

    /** @param gap as it stands in the remedy */
    public record Cure(String gap, Object value, String unit) {}

    /** One finding an item and rule. */
    public String key() {
        return rule.id() + at;
    }
}
