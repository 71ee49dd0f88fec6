package org.greenbead.core.travel;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.board.Chip;

/**
 * In which order chips come off a board, or go onto one, so that those with data see the least of the others' heats. How much of another chip's heat
 * one sees falls with the distance between them as {@code exp(-d / 20 mm)}; judgement, the reach of a small nozzle over a heated board. Every order is
 * tried.
 */
public final class LiftOrder {
    private static final double REACH_MM = 20;
    private static final int MOST = 8;

    private LiftOrder() {
    }

    /** @param heats what the chips with data see of the others' heats, in heats */
    public record Order(List<Chip> chips, double heats) {}

    /**
     * @param data    chips that hold what must live, among {@code chips}
     * @param seating true when they go on: a chip then sees the heats after its own, else those before it
     * @throws IllegalArgumentException when there are too many to try every order
     */
    public static Order of(List<Chip> chips, List<Chip> data, boolean seating) {
        if (chips.size() > MOST) {
            throw new IllegalArgumentException(
                    "at most " + MOST + " chips are ordered; name the ones that move");
        }
        var best = new ArrayList<Order>();
        best.add(new Order(List.of(), Double.POSITIVE_INFINITY));
        permute(new ArrayList<>(chips), 0, data, seating, best);
        return best.getFirst();
    }

    private static void permute(List<Chip> order, int from, List<Chip> data, boolean seating,
            List<Order> best) {
        if (from == order.size()) {
            double heats = heats(order, data, seating);
            if (heats < best.getFirst().heats() - 1e-12) {
                best.set(0, new Order(List.copyOf(order), heats));
            }
            return;
        }
        for (int i = from; i < order.size(); i++) {
            java.util.Collections.swap(order, from, i);
            permute(order, from + 1, data, seating, best);
            java.util.Collections.swap(order, from, i);
        }
    }

    static double heats(List<Chip> order, List<Chip> data, boolean seating) {
        double sum = 0;
        for (int i = 0; i < order.size(); i++) {
            if (data.contains(order.get(i))) {
                int from = seating ? i + 1 : 0;
                int to = seating ? order.size() : i;
                for (int k = from; k < to; k++) {
                    sum += Math.exp(-distance(order.get(i), order.get(k)) / REACH_MM);
                }
            }
        }
        return sum;
    }

    private static double distance(Chip a, Chip b) {
        return Math.hypot(a.centreMm().xMm() - b.centreMm().xMm(), a.centreMm().yMm() - b.centreMm().yMm());
    }
}
