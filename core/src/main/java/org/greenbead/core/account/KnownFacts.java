package org.greenbead.core.account;

import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.greenbead.core.book.Facts;

/**
 * What is known of a job, each fact with its origin.
 *
 * @param origins by path, {@code rails.count} or {@code parts.2.zone}; a typed list has one origin, under its name
 */
public record KnownFacts(Facts facts, Map<String, Origin> origins) {
    public static final KnownFacts NONE = new KnownFacts(Facts.none(), Map.of());

    public KnownFacts {
        origins = Map.copyOf(new TreeMap<>(origins));
    }

    /** Where a fact comes from; a path with / or . between its steps. Empty where nothing is known. */
    public Optional<Origin> origin(String path) {
        String dotted = path.replace('/', '.').replaceAll("^\\.", "");
        while (!dotted.isEmpty()) {
            Origin here = origins.get(dotted);
            if (here != null) {
                return Optional.of(here);
            }
            int dot = dotted.lastIndexOf('.');
            dotted = dot < 0 ? "" : dotted.substring(0, dot);
        }
        return Optional.empty();
    }
}
