package org.greenbead.core.book;

import java.util.Locale;
import java.util.function.UnaryOperator;

/** The rule book as a text to read. */
public final class RuleSheet {
    private RuleSheet() {
    }

    /** @param from says of a rule, by its id, where its facts come from */
    public static String of(RuleBook book, UnaryOperator<String> from) {
        var text = new StringBuilder(
                """
                        # Rule book

                        Written by `greenbead rules --markdown docs/rules.md`; do not edit here. %d rules. A rule looks at the facts of a job: what its board, bench, recipe,
                        runs, photos, records and ticks say, each with where it comes from. A comparison with a fact that nobody knows does not fire; where it matters
                        the rule says what not knowing means (*not known*): a stop holds the work until it is found out, a question only asks. *stop* blocks
                        its gate, *care* wants a word, *note* is shown. Thresholds can be changed by a bench. What belongs to a standard is given from memory: verify
                        against the current edition. Where the work can hurt someone, local rules and licensed practice come first.

                        ## Facts

                        A remedy may reckon a number from the job, said with its unit: `{solidus(plan.ball_alloy) - 20} °C`; thresholds stand in it with their standard.

                        Kinds: number, yn (true or false), text, texts (a list), words to choose from (`a|b`, `some a|b` for a list of them), `@entity` for a list.
                        Units stand in the names: `_c` °C, `_mm`, `_s`, `_min`, `_h`, `_pct`, `_ms` m/s, `_cps` K/s.

                        """
                        .formatted(book.rules().size()));
        Shipped.text("vocabulary.txt").lines().filter(l -> !l.startsWith("#") && !l.isBlank())
                .forEach(l -> text.append("- **").append(l.replaceFirst(":", "**:").replace("|", "\\|"))
                        .append('\n'));
        for (Phase phase : Phase.values()) {
            var rules = book.rules().stream().filter(r -> r.phase() == phase).toList();
            if (rules.isEmpty()) {
                continue;
            }
            text.append("\n## ").append(phase.name().charAt(0))
                    .append(phase.name().substring(1).toLowerCase(Locale.ROOT)).append('\n');
            for (BookRule rule : rules) {
                text.append("\n### ").append(rule.id()).append('\n').append("*")
                        .append(rule.severity().name().toLowerCase(Locale.ROOT))
                        .append("* · ")
                        .append("traps " + String.join(", ", rule.covers().stream()
                                .map(t -> Integer.toString(Integer.parseInt(t.substring(1)))).toList()))
                        .append(" · **")
                        .append(rule.what()).append("** ")
                        .append(rule.why()).append(" *").append(Wording.remedy(rule)).append(".*\n\n`");
                rule.each().ifPresent(e -> text.append("each ").append(e.name()).append(" of ")
                        .append(e.path()).append(": "));
                text.append(rule.when()).append("`\n");
                rule.limits().entrySet().stream().sorted(java.util.Map.Entry.comparingByKey())
                        .forEach(l -> text.append("\n- `$").append(l.getKey()).append("` ")
                                .append(l.getValue().standard()).append(' ').append(l.getValue().unit())
                                .append(": ").append(l.getValue().why()));
                text.append(rule.limits().isEmpty() ? "" : "\n").append("\nSource: ").append(rule.source())
                        .append('\n');
                rule.unknown().ifPresent(u -> text.append("\nNot known: ")
                        .append(u.kind().name().toLowerCase(Locale.ROOT))
                        .append(u.asked().isEmpty() ? "" : " where `" + u.asked() + "`")
                        .append("; ").append(u.find()).append(".\n"));
                text.append("\nFacts: ").append(from.apply(rule.id())).append('\n');
            }
        }
        return text.toString();
    }
}
