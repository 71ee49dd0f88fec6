package org.greenbead.core.route;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * A point on which able technicians differ.
 *
 * @param id       its words are {@code school.<id>}; of a choice {@code school.<id>.<choice>} and {@code school.<id>.<choice>.costs}
 * @param bead     where it is chosen
 * @param standard our default; argued in docs/schools.md
 * @param follows  steps that a choice takes in come right after that bead; else last in their phase
 */
public record School(String id, String bead, String standard, boolean follows, List<Choice> choices) {
    /**
     * One way.
     *
     * @param facts what choosing it says, as assignments; may be empty
     * @param out   part of the routes that it takes out of what is still to be worked
     * @param in    part of the routes that it takes in
     */
    public record Choice(String id, String facts, Optional<String> out, Optional<String> in) {}

    public School {
        choices = List.copyOf(choices);
        if (choices.stream().noneMatch(c -> c.id().equals(standard))) {
            throw new IllegalArgumentException("school " + id + " has no choice " + standard);
        }
        Check.distinct("choice", choices, Choice::id);
    }

    public Choice require(String choice) {
        return choices.stream().filter(c -> c.id().equals(choice)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("\"" + choice + "\" is no way of " + id
                        + "; it has " + String.join(", ", choices.stream().map(Choice::id).toList())));
    }
}
