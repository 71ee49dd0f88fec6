package org.greenbead.core.finding;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;

/**
 * Something a rule noticed, with the numbers that made it notice. Returned, never thrown.
 *
 * @param subject what it is about (a stage, a probe, a part), so that one rule can notice several things
 * @param gaps    the numbers, shared by what, why and remedy
 * @param remedy  what one key can do; empty where hands have to
 */
public record Finding(Rule rule, String subject, Severity severity, List<Quantity> gaps,
        Optional<Remedy> remedy) {
    public Finding {
        gaps = List.copyOf(gaps);
    }

    public static Finding of(Rule rule, String subject, Severity severity, Quantity... gaps) {
        return new Finding(rule, subject, severity, List.of(gaps), Optional.empty());
    }

    public Finding with(Remedy action) {
        return new Finding(rule, subject, severity, gaps, Optional.of(action));
    }

    /** The same when its moment is over: nothing left to press. */
    public Finding past() {
        return new Finding(rule, subject, severity, gaps, Optional.empty());
    }

    /** Same rule, same subject: the same finding, though its numbers move. */
    public String id() {
        return rule.name() + "/" + subject;
    }

    public Phrase what() {
        return new Phrase(rule.key() + ".what", gaps);
    }

    public Phrase why() {
        return new Phrase(rule.key() + ".why", gaps);
    }

    /** What to do about it. */
    public Phrase cure() {
        return new Phrase(rule.key() + ".remedy", gaps);
    }

    public Phrase source() {
        return new Phrase(rule.key() + ".source", List.of());
    }
}
