package org.greenbead.core.travel;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Side;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

public class TravelTest {
    private static TravelTable.Row row(Integer generation, String chip, TravelTable.Need need) {
        return new TravelTable.Row("KC", Optional.ofNullable(generation), chip, need, "", "bench notes",
                "2031-03");
    }

    @Test
    public void whatIsMissingAndWhatMustStay() {
        var table = new TravelTable(
                List.of(row(null, "A", TravelTable.Need.MUST), row(null, "B", TravelTable.Need.MUST),
                        row(null, "C", TravelTable.Need.MUST), row(null, "D", TravelTable.Need.NEVER)));
        TravelTable.Bound bound = table.of("kc", Optional.of(2));
        assertEquals(bound.missing(Set.of("a", "C")).stream().map(TravelTable.Row::chip).toList(),
                List.of("B"));
        assertEquals(bound.illegal(Set.of("d")).size(), 1);
        assertTrue(bound.illegal(Set.of("A")).isEmpty());
        assertFalse(table.of("RB", Optional.of(2)).known(), "no row, no start");
    }

    @Test
    public void theVeryGenerationStandsOverEveryGeneration() {
        var table = new TravelTable(
                List.of(row(null, "A", TravelTable.Need.MUST), row(3, "A", TravelTable.Need.SHOULD),
                        row(4, "B", TravelTable.Need.MUST)));
        assertEquals(table.of("KC", Optional.of(3)).rows().getFirst().need(), TravelTable.Need.SHOULD);
        assertEquals(table.of("KC", Optional.of(2)).rows().getFirst().need(), TravelTable.Need.MUST);
        assertEquals(table.of("KC", Optional.empty()).rows().size(), 1, "a row of a generation needs one");
        var torn = new TravelTable(
                List.of(row(null, "A", TravelTable.Need.MUST), row(null, "A", TravelTable.Need.NEVER)));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> torn.of("KC", Optional.empty()))
                .getMessage()
                .contains("contradict"));
        expectThrows(IllegalArgumentException.class,
                () -> new TravelTable.Row("KC", Optional.empty(), "A", TravelTable.Need.MUST, "", " ", ""));
    }

    /** One chip with data comes off first and goes on last; of two the order is that of the least heat, by every order. */
    @Test
    public void dataSeesTheLeastOfOtherHeats() {
        Chip data = World.neighbour("U1", Side.TOP, 30, 30, "SAC305");
        Chip near = World.neighbour("U2", Side.TOP, 40, 30, "SAC305");
        Chip far = World.neighbour("U3", Side.TOP, 60, 80, "SAC305");
        LiftOrder.Order lift = LiftOrder.of(List.of(near, far, data), List.of(data), false);
        assertEquals(lift.chips().getFirst(), data);
        assertEquals(lift.heats(), 0.0, 1e-12);
        assertEquals(LiftOrder.of(List.of(data, near, far), List.of(data), true).chips().getLast(), data);
        List<Chip> both = List.of(data, near);
        LiftOrder.Order two = LiftOrder.of(List.of(far, near, data), both, false);
        assertEquals(two.chips().getLast(), far);
        assertEquals(two.heats(), Math.exp(-10 / 20.0), 1e-12, "one of the two sees the other's");
        expectThrows(IllegalArgumentException.class,
                () -> LiftOrder.of(java.util.Collections.nCopies(9, far), List.of(), false));
    }

    private static Job with(String type, Map<String, Object> fields, Job job) {
        return job.with(new Kept(job.freeId(type), type, Instant.EPOCH, "", fields));
    }

    /** What differs outweighs a yes; what is not noted of both is asked for. */
    @Test
    public void theDonorFitsByWhatIsNotedOfBoth() {
        Map<String, Object> unit = Map.of("memory_type", "MR-8G", "revision", "C", "region", "north",
                "firmware", "2.4");
        Job job = with("unit", unit, World.job(Attest.UNKNOWN));
        Job same = with("donor",
                Map.of("memory_type", "mr-8g", "revision", "C", "region", "north", "firmware", "2.4"), job);
        assertEquals(JobFacts.of(same).at("donor.matches").orElseThrow(), true);
        Job other = with("donor",
                Map.of("memory_type", "MR-4G", "revision", "C", "region", "north", "firmware", "2.4",
                        "matches", true),
                job);
        assertEquals(JobFacts.of(other).at("donor.matches").orElseThrow(), false);
        assertEquals(JobFacts.of(other).at("donor.differs").orElseThrow(), "memory type");
        Job open = with("donor", Map.of("memory_type", "MR-8G"), job);
        assertTrue(JobFacts.of(open).at("donor.matches").isEmpty());
        var fit = DonorFit.of(job.records("unit").getFirst(), open.records("donor").getFirst());
        assertEquals(fit.ask(), List.of("revision", "region", "firmware"));
    }
}
