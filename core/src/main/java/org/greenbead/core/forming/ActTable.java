package org.greenbead.core.forming;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The table of {@code acts.txt}: for each way of working, what each act is in each state. Immutable. */
public final class ActTable {
    private static final ActTable SHIPPED = new ActTable(resource());
    private final Map<Method, Map<Act, Map<Stand, Judged>>> cells = new EnumMap<>(Method.class);

    private ActTable(String text) {
        Map<Act, Map<Stand, Judged>> now = Map.of();
        String method = "";
        for (String line : text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
            if (line.startsWith("[")) {
                method = line.substring(1, line.indexOf(']'));
                now = new EnumMap<>(Act.class);
                cells.put(Method.valueOf(method.toUpperCase(Locale.ROOT)), now);
            } else {
                row(method, line.strip().split("\\s+"), now);
            }
        }
    }

    private static void row(String method, String[] column, Map<Act, Map<Stand, Judged>> into) {
        Act act = Act.valueOf(column[0].toUpperCase(Locale.ROOT));
        Stand[] stands = Stand.values();
        if (column.length != stands.length + 1) {
            throw new IllegalStateException("acts.txt: " + column[0] + " has " + (column.length - 1)
                    + " states, wanted " + stands.length);
        }
        var states = new EnumMap<Stand, Judged>(Stand.class);
        for (int i = 0; i < stands.length; i++) {
            String cell = column[i + 1];
            Judged.Rating rating = switch (cell.charAt(0)) {
                case '+' -> Judged.Rating.RIGHT;
                case '~' -> Judged.Rating.CARE;
                case '!' -> Judged.Rating.WRONG;
                case '.' -> Judged.Rating.IDLE;
                default -> throw new IllegalStateException("acts.txt: " + column[0] + ": " + cell);
            };
            String why = cell.length() > 1 ? "why." + method + "." + cell.substring(1) : "";
            states.put(stands[i], new Judged(act, rating, why));
        }
        into.put(act, states);
    }

    private static String resource() {
        try (InputStream in = ActTable.class.getResourceAsStream("acts.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static ActTable shipped() {
        return SHIPPED;
    }

    /** The acts that the table knows for a way of working, in its order. */
    public List<Act> acts(Method method) {
        return List.copyOf(cells.get(method).keySet());
    }

    /** What an act is in a state; without sense where the way of working does not know it. */
    public Judged look(Method method, Act act, Stand stand) {
        Map<Stand, Judged> row = cells.get(method).get(act);
        return row == null ? new Judged(act, Judged.Rating.IDLE, "") : row.get(stand);
    }
}
