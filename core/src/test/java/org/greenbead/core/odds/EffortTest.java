package org.greenbead.core.odds;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** What jobs took, by what was noted of them. */
public class EffortTest {
    private static Job job(String id, String bench, Object... costs) {
        Job base = World.job(Attest.NO);
        Job job = new Job(id, base.title(), base.complaint(), base.customer(), base.board(), base.target(),
                bench,
                base.beads());
        for (int i = 0; i < costs.length; i++) {
            @SuppressWarnings("unchecked")
            var fields = (Map<String, Object>) costs[i];
            job = job.with(new Kept("cost-" + (i + 1), "cost", Instant.EPOCH, "me", fields));
        }
        return job;
    }

    private static Effort.Group group(Effort effort, String name) {
        return effort.groups().stream().filter(g -> g.name().equals(name)).findFirst().orElseThrow();
    }

    /** Lines of one job add up; a field that a job does not note is not nought; a job without any is counted apart. */
    @Test
    public void whatIsNotNotedIsNotNought() {
        Effort effort = Effort.by(Outcomes.By.BENCH, List.of(
                job("A-1", "quay", Map.of("attended_min", 40.0, "material", 2.0),
                        Map.of("attended_min", 20.0)),
                job("A-2", "quay", Map.of("attended_min", 100.0, "price", 30.0, "kind", "part")),
                job("A-3", "quay", Map.of("price", 9.0, "kind", "freight")), job("A-4", "quay"),
                job("A-5", "loft", Map.of("unattended_min", 90.0))), ZoneOffset.UTC);
        assertEquals(effort.silent(), 1);
        Job drill = job("A-6", "quay", Map.of("attended_min", 900.0))
                .with(new Kept("intake-1", "intake", Instant.EPOCH, "me", Map.of("client", "practice")));
        assertEquals(Effort.by(Outcomes.By.BENCH, List.of(drill), ZoneOffset.UTC).groups(), List.of(),
                "practice takes the time it wants");
        assertEquals(effort.groups().getFirst().name(), "quay", "most jobs first");
        Effort.Group quay = group(effort, "quay");
        assertEquals(quay.jobs(), 3);
        assertEquals(quay.attendedMin(), new Effort.Spread(2, 70, 80, 90));
        assertEquals(quay.material(), new Effort.Spread(1, 2, 2, 2));
        assertEquals(quay.parts(), new Effort.Spread(1, 30, 30, 30), "freight is no part");
        assertEquals(quay.unattendedMin().of(), 0);
        assertEquals(group(effort, "loft").attendedMin().of(), 0);
    }

    /** A strand's cost is noted with its job; what is no number or below nothing does not count. */
    @Test
    public void nonsenseDoesNotCount() {
        Job strand = job("A-1-U2", "quay", Map.of("attended_min", 500.0)).asStrandOf("A-1");
        Effort effort = Effort.by(Outcomes.By.BENCH,
                List.of(strand,
                        job("A-1", "quay", Map.of("attended_min", -5.0), Map.of("attended_min", 30.0))),
                ZoneOffset.UTC);
        assertEquals(group(effort, "quay").attendedMin(), new Effort.Spread(1, 30, 30, 30));
        assertEquals(effort.silent(), 0);
    }

    /** Quarters against the definition: the value below which a part of the way from first to last lies, straight between. */
    @Test
    public void quartersLieWhereTheyAreDefined() {
        assertEquals(Effort.quantile(new double[]{1, 2, 3, 4}, 0.25), 1.75, 1e-12);
        assertEquals(Effort.quantile(new double[]{1, 2, 3, 4, 5}, 0.75), 4, 1e-12);
        assertEquals(Effort.quantile(new double[]{7}, 0.5), 7, 1e-12);
        var random = new Random(3);
        for (int round = 0; round < 50; round++) {
            double[] values = random.doubles(1 + random.nextInt(30), 0, 100).sorted().toArray();
            double low = Effort.quantile(values, 0.25);
            double high = Effort.quantile(values, 0.75);
            assertTrue(low <= high && low >= values[0] && high <= values[values.length - 1]);
            long inside = Arrays.stream(values).filter(v -> v >= low && v <= high).count();
            assertTrue(inside >= values.length / 2.0 - 1, Arrays.toString(values));
        }
    }

    /** Five thousand jobs are put together and none is lost. */
    @Test
    public void noneOfManyIsLost() {
        var kinds = List.of("quay", "loft", "van");
        var jobs = new java.util.ArrayList<Job>();
        Job base = job("B-0", "quay");
        for (int i = 0; i < 5000; i++) {
            Map<String, Object> fields = new LinkedHashMap<>();
            fields.put("attended_min", (double) (i % 90));
            Job one = new Job("B-" + i, base.title(), base.complaint(), base.customer(), base.board(),
                    base.target(), kinds.get(i % 3), base.beads());
            jobs.add(i % 10 == 9 ? one : one.with(new Kept("cost-1", "cost", Instant.EPOCH, "me", fields)));
        }
        Effort effort = Effort.by(Outcomes.By.BENCH, jobs, ZoneOffset.UTC);
        assertEquals(effort.silent(), 500);
        assertEquals(effort.groups().stream().mapToInt(Effort.Group::jobs).sum(), 4500);
    }
}
