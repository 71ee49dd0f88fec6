package org.greenbead.core.travel;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.quantity.Check;

/** Which chips of a platform are bound together, as the user has it from somewhere. No entry, no start. */
public record TravelTable(List<Row> rows) {
    /** What a chip does when the data moves. */
    public enum Need {
        MUST, SHOULD, NEVER
    }

    /**
     * @param generation empty = every generation
     * @param chip       its name on the board, or what it is
     * @param source     where it comes from; a row without one is refused
     * @param date       when it was written down; empty = nobody says
     */
    public record Row(String platform, Optional<Integer> generation, String chip, Need need, String reason,
            String source,
            String date) {
        public Row {
            Check.text("platform", platform);
            Check.text("chip", chip);
            if (source.isBlank()) {
                throw new IllegalArgumentException(
                        platform + " " + chip + ": nobody says where this comes from");
            }
        }

        private boolean covers(String wanted, Optional<Integer> of) {
            return platform.equalsIgnoreCase(wanted.strip())
                    && (generation.isEmpty() || of.isPresent() && generation.get().equals(of.get()));
        }
    }

    public TravelTable {
        rows = List.copyOf(rows);
    }

    /** @param known false = no row covers it: stop; @param rows the ones that do, one a chip */
    public record Bound(boolean known, List<Row> rows) {
        public Bound {
            rows = List.copyOf(rows);
        }

        public List<Row> of(Need need) {
            return rows.stream().filter(r -> r.need() == need).toList();
        }

        /** What must travel and does not. @param moved names of chips, small and large letters are the same */
        public List<Row> missing(Set<String> moved) {
            return of(Need.MUST).stream().filter(r -> !holds(moved, r.chip())).toList();
        }

        /** What must stay and travels. */
        public List<Row> illegal(Set<String> moved) {
            return of(Need.NEVER).stream().filter(r -> holds(moved, r.chip())).toList();
        }

        private static boolean holds(Set<String> names, String name) {
            return names.stream().anyMatch(n -> n.strip().equalsIgnoreCase(name.strip()));
        }
    }

    /**
     * The set of a platform. A row of its very generation stands over one of every generation.
     *
     * @throws IllegalArgumentException when two rows of one rank contradict each other
     */
    public Bound of(String platform, Optional<Integer> generation) {
        Map<String, Row> byChip = new LinkedHashMap<>();
        var covering = new ArrayList<>(rows.stream().filter(r -> r.covers(platform, generation)).toList());
        for (Row row : covering) {
            String key = row.chip().toLowerCase(Locale.ROOT);
            Row there = byChip.get(key);
            if (there != null && there.generation().isPresent() == row.generation().isPresent()
                    && there.need() != row.need()) {
                throw new IllegalArgumentException(
                        "two rows of " + platform + " contradict each other on " + row.chip()
                                + ": " + small(there) + " (" + there.source() + ") and " + small(row) + " ("
                                + row.source() + ")");
            }
            if (there == null || row.generation().isPresent()) {
                byChip.put(key, row);
            }
        }
        return new Bound(!byChip.isEmpty(), List.copyOf(byChip.values()));
    }

    private static String small(Row row) {
        return row.need().name().toLowerCase(Locale.ROOT);
    }
}
