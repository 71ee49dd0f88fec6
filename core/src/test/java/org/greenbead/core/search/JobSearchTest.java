package org.greenbead.core.search;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.greenbead.core.book.Facts;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Search by what is said at benches. */
public class JobSearchTest {
    private static Job job(String id, String title, String complaint, String facts) {
        return new Job(id, title, complaint, "Buoy station Hethra", "WB-7", "U1", "quay-1",
                Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")),
                Facts.none().with(facts));
    }

    private static final List<Job> JOBS = List.of(
            job("SB-1", "Wave buoy logger", "no boot after a fall", "job.kind=revive"),
            job("SB-2", "Chart plotter", "wants to keep more tracks", "job.kind=memory"),
            job("SB-3", "Casting counter", "counts wrong", "job.kind=replace")
                    .with(new Kept("covering-1", "covering", Instant.EPOCH, "",
                            Map.of("what", "resin", "where", "corners of U4"))));

    @DataProvider
    Object[][] queries() {
        return new Object[][]{{"bricked", "SB-1"}, {"no start", "SB-1"}, {"black glue", "SB-3"},
                {"upgrade", "SB-2"},
                {"plotter", "SB-2"}, {"sb-3", "SB-3"}, {"hethra wave", "SB-1"}, {"Glue U4", "SB-3"}};
    }

    @Test(dataProvider = "queries")
    public void findsByBenchWords(String query, String first) {
        List<JobSearch.Hit> hits = JobSearch.find(JOBS, query);
        assertEquals(hits.getFirst().job().id(), first, hits.toString());
    }

    @Test
    public void everyWishHasToBeMet() {
        assertTrue(JobSearch.find(JOBS, "plotter resin").isEmpty());
        assertTrue(JobSearch.find(JOBS, "tin").isEmpty(), "\"tin\" is no part of \"casting\"");
        assertEquals(JobSearch.find(JOBS, "  ").size(), 3);
        assertEquals(JobSearch.find(JOBS, "hethra").size(), 3);
    }

    /** What changed is found by its new words and no longer by its old ones; what left is not found. */
    @Test
    public void aSearchFollowsTheLedger() {
        JobSearch search = JobSearch.among(JOBS);
        assertEquals(search.find("plotter").size(), 1);
        List<Job> later = List.of(JOBS.get(0), job("SB-2", "Tide gauge", "reads late", "job.kind=memory"));
        JobSearch now = search.now(later);
        assertTrue(now.find("plotter").isEmpty());
        assertEquals(now.find("tide").getFirst().job(), later.get(1));
        assertTrue(now.find("glue").isEmpty(), "SB-3 lies in the bin");
        assertEquals(now.find("bricked").getFirst().job(), JOBS.get(0));
        assertEquals(search.find("plotter").size(), 1, "the former one stays what it was");
        assertTrue(JobSearch.among(List.of()).isEmpty());
    }

    /** Among thousands every query answers as for each job alone. */
    @Test
    public void thousandsAreFoundLikeOne() {
        List<Job> many = IntStream.range(0, 3000).mapToObj(i -> job("T-" + i,
                i % 7 == 0 ? "Wave buoy logger" : "Chart plotter", i % 5 == 0 ? "no boot" : "no sound",
                "job.kind=revive"))
                .toList();
        JobSearch search = JobSearch.among(many);
        assertEquals(search.find("logger").size(), 429);
        assertEquals(search.find("logger bricked").size(), 86);
        assertEquals(search.find("").size(), 3000);
        assertEquals(search.find("T-2999").getFirst().job().id(), "T-2999");
    }

    @Test
    public void trapOfAWordIsTold() {
        assertEquals(BenchWords.shipped().read("mop").getFirst().trap(), "may be called solder");
        assertEquals(BenchWords.shipped().read("low temperature tin balls").getFirst().said(),
                "low temperature tin");
        assertEquals(BenchWords.shipped().read("low temperature tin balls").size(), 2);
    }
}
