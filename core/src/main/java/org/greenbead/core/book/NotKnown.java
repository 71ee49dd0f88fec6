package org.greenbead.core.book;

import java.util.List;

/**
 * A rule that what is known does not decide, and that asks for it.
 *
 * @param missing its facts that nobody knows
 * @param at      JSON pointer into the facts
 */
public record NotKnown(BookRule rule, List<String> missing, String at) {
    /** Whether it holds the work until it is found out. */
    public boolean holds() {
        return rule.unknown().map(BookRule.Unknown::kind).filter(BookRule.Unknown.Kind.STOP::equals)
                .isPresent();
    }

    public String find() {
        return rule.unknown().map(BookRule.Unknown::find).orElse("");
    }
}
