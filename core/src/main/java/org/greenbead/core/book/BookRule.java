package org.greenbead.core.book;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Check;

/**
 * One rule of the book.
 *
 * @param id       in words, "alloy.bismuth-meets-lead"
 * @param covers   numbers of the traps that it answers
 * @param phase    the earliest phase in which it can fire
 * @param each     name and path of the list whose items it looks at one by one; empty = the whole job
 * @param when     the condition, in words of the vocabulary
 * @param worst    number of an item, in words of the vocabulary: of several places the greatest is named first; empty = in the order of the list
 * @param at       path that a finding points to where the rule looks at the whole job
 * @param unknown  what it says while the condition is not decided; empty = nothing
 * @param limits   its thresholds by name
 * @param what     headline
 * @param why      the reason, with {paths} filled in
 * @param remedy   what to do
 * @param source   where the rule comes from
 * @param fires    a smallest job that raises it, as assignments
 * @param silent   what to change in that job so that it does not
 */
public record BookRule(String id, List<String> covers, Phase phase, Severity severity, Optional<Each> each,
        String when, String worst, String at, Optional<Unknown> unknown,
        Map<String, Limit> limits, String what, String why, String remedy, String source, String fires,
        String silent) {
    /**
     * What it means that the facts do not decide the condition.
     *
     * @param kind  holds the work, or asks
     * @param asked only where this holds; empty = where at least one of the facts is known
     * @param find  how it is found out
     */
    public record Unknown(Kind kind, String asked, String find) {
        /** A stop holds the gates from the rule's phase on; a question does not. */
        public enum Kind {
            STOP, ASK
        }
    }

    /** The list that a rule walks. */
    public record Each(String name, String path) {}

    /**
     * A threshold that a bench may change.
     *
     * @param standard as shipped
     * @param why      why this number
     */
    public record Limit(double standard, String unit, String why) {}

    public BookRule {
        if (!id.matches("[a-z]+\\.[a-z0-9]+(-[a-z0-9]+)*")) {
            throw new IllegalArgumentException("rule \"" + id + "\" must be named like area.what-goes-wrong");
        }
        covers = List.copyOf(covers);
        limits = java.util.Collections.unmodifiableMap(new java.util.LinkedHashMap<>(limits));
        Check.present("phase of " + id, phase);
        Check.present("severity of " + id, severity);
        Check.text("headline of " + id, what);
        Check.text("reason of " + id, why);
        Check.text("remedy of " + id, remedy);
        Check.text("source of " + id, source);
        Check.text("job that fires " + id, fires);
        Check.text("job that silences " + id, silent);
    }

    /** A path of the condition with the list that its item is of: {@code a.has_pb} as {@code alloys[].has_pb}. */
    String full(String path) {
        return each.filter(e -> path.startsWith(e.name() + "."))
                .map(e -> e.path() + "[]" + path.substring(e.name().length())).orElse(path);
    }
}
