package org.greenbead.core.book;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;

/** One rule with every place where it fired. */
public record Grouped(BookRule rule, List<Noticed> places) {
    public Grouped {
        places = List.copyOf(places);
    }

    /** In the order in which the rules were noticed first. */
    public static List<Grouped> of(List<Noticed> noticed) {
        var by = new LinkedHashMap<BookRule, List<Noticed>>();
        noticed.forEach(n -> by.computeIfAbsent(n.rule(), r -> new ArrayList<>()).add(n));
        return by.entrySet().stream().map(e -> new Grouped(e.getKey(), e.getValue())).toList();
    }
}
