package org.greenbead.core.travel;

import java.time.Instant;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/**
 * What moves with the data of a job, by a table and by what was chosen, whether the donor fits, and in which order chips come off and
 * go on.
 *
 * @param platform of the unit, as it was noted; empty = nobody noted it
 * @param bound    what the table says of it
 * @param moving   names of chips that are to move; small and large letters are the same
 * @param donor    empty where none is noted
 * @param lift     order of coming off, empty with fewer than two chips on the board
 * @param seat     order of going on
 */
public record TravelSet(Optional<String> platform, Optional<Integer> generation, TravelTable.Bound bound,
        Set<String> moving, Optional<DonorFit> donor, Optional<LiftOrder.Order> lift,
        Optional<LiftOrder.Order> seat) {

    /**
     * @param moved those that are to move; empty = the ones that must and should
     * @param data  those that hold what must live; empty = the ones that must move
     * @throws IllegalArgumentException when two rows of the table contradict each other
     */
    public static TravelSet of(Job job, TravelTable table, Optional<Board> board, Collection<String> moved,
            Collection<String> data) {
        Optional<Kept> unit = job.records("unit").stream().reduce((a, b) -> b);
        Optional<String> platform = unit.map(u -> u.text("platform")).filter(p -> !p.isBlank());
        Optional<Integer> generation = unit.filter(u -> Double.isFinite(u.number("generation")))
                .map(u -> (int) u.number("generation"));
        TravelTable.Bound bound = platform.map(p -> table.of(p, generation))
                .orElse(new TravelTable.Bound(false, List.of()));
        Set<String> moving = names(moved.isEmpty()
                ? bound.rows().stream().filter(r -> r.need() != TravelTable.Need.NEVER)
                        .map(TravelTable.Row::chip).toList()
                : moved);
        Optional<DonorFit> donor = unit.flatMap(
                u -> job.records("donor").stream().reduce((a, b) -> b).map(d -> DonorFit.of(u, d)));
        List<Chip> chips = board.map(b -> b.chips().stream().filter(c -> moving.contains(c.name())).toList())
                .orElse(List.of());
        Set<String> lives = names(data.isEmpty()
                ? bound.of(TravelTable.Need.MUST).stream().map(TravelTable.Row::chip).toList()
                : data);
        List<Chip> precious = chips.stream().filter(c -> lives.contains(c.name())).toList();
        boolean ordered = chips.size() > 1;
        return new TravelSet(platform, generation, bound, moving, donor,
                ordered ? Optional.of(LiftOrder.of(chips, precious, false)) : Optional.empty(),
                ordered ? Optional.of(LiftOrder.of(chips, precious, true)) : Optional.empty());
    }

    private static Set<String> names(Collection<String> of) {
        var names = new TreeSet<String>(String.CASE_INSENSITIVE_ORDER);
        names.addAll(of);
        return names;
    }

    public boolean moves(TravelTable.Row row) {
        return moving.contains(row.chip());
    }

    public List<TravelTable.Row> missing() {
        return bound.missing(moving);
    }

    public List<TravelTable.Row> illegal() {
        return bound.illegal(moving);
    }

    /** A row covers the platform, nothing is missing, nothing moves that must stay, and the donor fits. */
    public boolean ready() {
        return bound.known() && missing().isEmpty() && illegal().isEmpty()
                && donor.flatMap(DonorFit::fits).orElse(false);
    }

    /** One record a chip, the way a person would write it down. */
    public Job written(Job job, Instant at, String by) {
        Job out = job;
        for (TravelTable.Row row : bound.rows()) {
            Job before = out;
            Kept record = out.records("transplant").stream()
                    .filter(t -> t.text("chip").equalsIgnoreCase(row.chip())).findFirst()
                    .orElseGet(() -> new Kept(before.freeId("transplant"), "transplant", at, by, Map.of()));
            Map<String, Object> fields = new LinkedHashMap<>();
            fields.put("chip", row.chip());
            fields.put("reason", row.reason().isEmpty() ? null : row.reason());
            fields.put("table", row.source());
            fields.put("date", row.date().isEmpty() ? null : row.date());
            fields.put("must", row.need() == TravelTable.Need.MUST);
            fields.put("never", row.need() == TravelTable.Need.NEVER ? true : null);
            fields.put("moves", moves(row));
            for (Map.Entry<String, Object> field : fields.entrySet()) {
                record = record.with(field.getKey(), field.getValue(), at, by);
            }
            out = out.with(record);
        }
        return out;
    }
}
