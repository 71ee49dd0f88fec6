package org.greenbead.core.book;

import java.util.List;
import java.util.Set;
import org.greenbead.core.alloy.Dilution;
import org.greenbead.core.alloy.MeltingTable;
import org.greenbead.core.board.BodyRating;
import org.greenbead.core.moisture.Moisture;

/** What conditions may call: the order of the plan's steps, and the trade's own formulas. Empty in, empty out. */
final class TradeFunctions {
    private static final Set<String> KNOWN = Set.of("before", "planned", "past", "reached", "abs", "size",
            "solidus", "liquidus",
            "melts_at", "lowest_solidus", "rated", "tolerance", "holdoff_s", "floor_life_h", "fits_table",
            "min", "max");
    private static final MeltingTable MELTING = MeltingTable.standard();

    private final Facts.Spot root;

    TradeFunctions(Facts.Spot root) {
        this.root = root;
    }

    static boolean knows(String name) {
        return KNOWN.contains(name);
    }

    Object call(String name, List<Object> given) {
        return switch (name) {
            case "before" -> before(word(given, 0), word(given, 1));
            case "planned" -> index(word(given, 0)) >= 0;
            case "past" -> phase(word(given, 0), 1);
            case "reached" -> phase(word(given, 0), 0);
            case "abs" -> number(given, 0) == null ? null : (Object) Math.abs(number(given, 0));
            case "size" -> given.getFirst() instanceof List<?> list ? (Object) (double) list.size() : null;
            case "solidus" -> melting(word(given, 0), 0);
            case "liquidus" -> melting(word(given, 0), 1);
            case "melts_at" -> nearestMelting(number(given, 0));
            case "lowest_solidus" -> LowestSolidus.of(root);
            case "tolerance" ->
                root.field("rails").field("tolerance_pct").value() instanceof Double d ? d : 0.0;
            case "rated" -> rated(given);
            case "holdoff_s" -> holdOff(given);
            case "floor_life_h" -> floorLife(word(given, 0));
            case "fits_table" -> word(given, 0) != null && MELTING.find(word(given, 0)).isPresent();
            case "min" -> both(given, Math::min);
            case "max" -> both(given, Math::max);
            default -> throw new IllegalArgumentException(name + " is no function");
        };
    }

    private static Double number(List<Object> given, int at) {
        return at < given.size() && given.get(at) instanceof Double d ? d : null;
    }

    private static String word(List<Object> given, int at) {
        return at < given.size() && given.get(at) instanceof String s ? s : null;
    }

    private interface Pair {
        double of(double a, double b);
    }

    private static Object both(List<Object> given, Pair how) {
        Double a = number(given, 0);
        Double b = number(given, 1);
        return a == null || b == null ? null : (Object) how.of(a, b);
    }

    private int index(String step) {
        return root.field("plan").field("steps").value() instanceof List<?> steps ? steps.indexOf(step) : -1;
    }

    /** Whether the bead in hand stands in a phase ({@code least} 0) or after it (1); where nobody knows, it does. */
    private Object phase(String name, int least) {
        Phase asked = Phase.valueOf(name.toUpperCase(java.util.Locale.ROOT));
        return !(root.field("job").field("phase").value() instanceof Double now)
                || now >= asked.ordinal() + least;
    }

    /** Both steps are planned and the first stands earlier. */
    private Object before(String first, String second) {
        int a = index(first);
        int b = index(second);
        return a >= 0 && b >= 0 && a < b;
    }

    private static Object melting(String alloy, int which) {
        return alloy == null
                ? null
                : MELTING.find(alloy).map(r -> (Object) (which == 0 ? r.solidusC() : r.liquidusC()))
                        .orElse(null);
    }

    /** Distance of a quoted value to the nearest solidus or liquidus; none inside a melting range. K */
    private static Object nearestMelting(Double celsius) {
        if (celsius == null) {
            return null;
        }
        double nearest = Double.MAX_VALUE;
        for (MeltingTable.Row range : MELTING.rows()) {
            nearest = Math.min(nearest, celsius >= range.solidusC() && celsius <= range.liquidusC()
                    ? 0
                    : Math.min(Math.abs(celsius - range.solidusC()), Math.abs(celsius - range.liquidusC())));
        }
        return nearest;
    }

    private static Object rated(List<Object> given) {
        Double thick = number(given, 0);
        Double volume = number(given, 1);
        return thick == null || volume == null
                ? null
                : (Object) BodyRating.peakC(thick, volume,
                        !(given.size() > 2 && Boolean.TRUE.equals(given.get(2))));
    }

    /** Free cooling: seconds from one temperature to another with the board's time constant. */
    private static Object holdOff(List<Object> given) {
        Double from = number(given, 0);
        Double to = number(given, 1);
        Double room = number(given, 2);
        Double tau = number(given, 3);
        return from == null || to == null || room == null || tau == null || to <= room || from <= to
                ? null
                : (Object) (tau * Math.log((from - room) / (to - room)));
    }

    /** Floor life at 30 °C and 60 % or less, h (J-STD-033, verify against the current edition). */
    private static Object floorLife(String level) {
        if (level == null) {
            return null;
        }
        return Moisture.standard().floorLifeH(level).orElse(null);
    }

}
