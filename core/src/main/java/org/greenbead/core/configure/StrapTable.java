package org.greenbead.core.configure;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.quantity.Check;

/**
 * The straps of one board and what their codes mean, as the user has it from somewhere.
 *
 * @param source where it comes from: schematic, a board that was read, somebody's word
 * @param revision of the board it is for; empty = nobody says
 * @param straps the first is the first digit of a code
 * @param codes  meaning by code, {@code "0110"}
 */
public record StrapTable(String source, String revision, Strap.Supply supply, List<Strap> straps,
        Map<String, String> codes) {
    public StrapTable {
        Check.text("source of the strap table", source);
        straps = List.copyOf(straps);
        codes = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(codes));
        if (straps.isEmpty()) {
            throw new IllegalArgumentException("a strap table needs at least one strap");
        }
        var places = new HashSet<String>();
        for (Strap strap : straps) {
            for (String place : List.of(strap.up(), strap.down())) {
                if (!places.add(place)) {
                    throw new IllegalArgumentException(place + " stands in two straps");
                }
            }
        }
        for (String code : codes.keySet()) {
            if (!code.matches("[01]{" + straps.size() + "}")) {
                throw new IllegalArgumentException("code \"" + code + "\" is not of " + straps.size()
                        + " digits 0 and 1, one for each strap");
            }
        }
    }

    /** What is fitted, as a code; {@code ?} where a strap reads neither. @param fitted designators */
    public String code(Set<String> fitted) {
        var code = new StringBuilder();
        for (Strap strap : straps) {
            code.append(switch (reading(strap, fitted).level()) {
                case LOW -> '0';
                case HIGH -> '1';
                case UNDEFINED, FLOATING -> '?';
            });
        }
        return code.toString();
    }

    public Strap.Reading reading(Strap strap, Set<String> fitted) {
        return strap.reading(fitted.contains(strap.up()), fitted.contains(strap.down()), supply);
    }

    /** Straps of which both places hold a resistor, or none: never meant, whatever the pin reads by chance. */
    public List<Strap> oddPairs(Set<String> fitted) {
        return straps.stream().filter(s -> fitted.contains(s.up()) == fitted.contains(s.down())).toList();
    }

    /** The code of a meaning; empty where no row has it. @throws IllegalArgumentException where several have */
    public Optional<String> codeOf(String meaning) {
        List<String> found = codes.entrySet().stream()
                .filter(e -> e.getValue().equalsIgnoreCase(meaning.strip()))
                .map(Map.Entry::getKey).toList();
        if (found.size() > 1) {
            throw new IllegalArgumentException("\"" + meaning + "\" stands beside several codes: "
                    + String.join(", ", found) + "; name the code");
        }
        return found.stream().findFirst();
    }

    /**
     * What has to be done at the board.
     *
     * @param strap the pair it belongs to
     * @param take  designators to take off
     * @param fit   designators to fit
     */
    public record Change(Strap strap, List<String> take, List<String> fit) {}

    /**
     * From what is fitted to a code: exactly one of each pair in the end, as few resistors as that needs.
     *
     * @throws IllegalArgumentException when the code is not of this table's straps, or something fitted is not in the table
     */
    public List<Change> changes(Set<String> fitted, String target) {
        if (!target.matches("[01]{" + straps.size() + "}")) {
            throw new IllegalArgumentException(
                    "\"" + target + "\" is no code of " + straps.size() + " digits 0 and 1");
        }
        unknown(fitted).ifPresent(p -> {
            throw new IllegalArgumentException(p + " is fitted and stands in no strap of the table");
        });
        var changes = new ArrayList<Change>();
        for (int i = 0; i < straps.size(); i++) {
            Strap s = straps.get(i);
            boolean high = target.charAt(i) == '1';
            String wanted = high ? s.up() : s.down();
            String other = high ? s.down() : s.up();
            List<String> take = fitted.contains(other) ? List.of(other) : List.of();
            List<String> fit = fitted.contains(wanted) ? List.of() : List.of(wanted);
            if (!take.isEmpty() || !fit.isEmpty()) {
                changes.add(new Change(s, take, fit));
            }
        }
        return List.copyOf(changes);
    }

    private Optional<String> unknown(Set<String> fitted) {
        return fitted.stream()
                .filter(p -> straps.stream().noneMatch(s -> s.up().equals(p) || s.down().equals(p)))
                .findFirst();
    }

    /** What a record of this board's configuration says: before the work the plan; once nothing is left to change, what is fitted. */
    public Map<String, Object> recorded(Set<String> fitted, List<Change> changes) {
        Map<String, Object> fields = new LinkedHashMap<>();
        fields.put("table", source);
        if (!revision.isEmpty()) {
            fields.put("table_revision", revision);
        }
        boolean pairs = oddPairs(fitted).isEmpty();
        fields.put(changes.isEmpty() ? "straps_after" : "straps_before", code(fitted));
        if (changes.isEmpty()) {
            boolean up = straps.stream().anyMatch(s -> fitted.contains(s.up()));
            fields.put("up", up);
            fields.put("down", pairs ? !up : up);
            fields.put("complete", pairs && !code(fitted).contains("?"));
        }
        return fields;
    }

    /** What is fitted where a code was read: one resistor of each pair, none where the digit says neither. */
    public Set<String> fittedFor(String code) {
        var fitted = new HashSet<String>();
        for (int i = 0; i < Math.min(code.length(), straps.size()); i++) {
            Strap s = straps.get(i);
            if (code.charAt(i) == '1') {
                fitted.add(s.up());
            } else if (code.charAt(i) == '0') {
                fitted.add(s.down());
            }
        }
        return Set.copyOf(fitted);
    }

    /** What is fitted once the changes are made. */
    public static Set<String> after(Set<String> fitted, List<Change> changes) {
        var after = new HashSet<>(fitted);
        changes.forEach(c -> {
            after.removeAll(c.take());
            after.addAll(c.fit());
        });
        return Set.copyOf(after);
    }
}
