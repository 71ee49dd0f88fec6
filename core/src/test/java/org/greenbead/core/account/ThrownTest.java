package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.World;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** What was taken back is as it was when it comes back. */
public class ThrownTest {
    private static final Instant NOON = Instant.parse("2031-04-02T12:00:00Z");
    private Job job;
    private int minutes;

    @BeforeMethod
    public void begin() {
        job = Account.noted(Optional.empty(), World.job(Attest.UNKNOWN), NOON, "A");
        minutes = 0;
    }

    private void act(String by, UnaryOperator<Job> change) {
        job = Account.noted(Optional.of(job), change.apply(job), NOON.plusSeconds(60L * ++minutes), by);
    }

    private static Kept rail(String name, double ohm) {
        return new Kept("rail-1", "rail", NOON, "A", Map.of("name", name, "ohm", ohm));
    }

    @Test
    public void aRecordComesBackWithItsLastWords() {
        act("A", j -> j.with(rail("core", 18)));
        act("B", j -> j.with(j.record("rail-1").orElseThrow().with("ohm", 17.5, NOON.plusSeconds(120), "B")));
        act("B", j -> j.with(j.record("rail-1").orElseThrow().with("after_ohm", 17.0, NOON, "B")));
        act("B", j -> j.with(j.record("rail-1").orElseThrow().with("after_ohm", null, NOON, "B")));
        assertTrue(Thrown.of(job).isEmpty(), "a field that was cleared is no record that is gone");
        act("A", j -> Thrown.thrown(j, "rail-1"));
        Thrown.Gone gone = Thrown.of(job).getFirst();
        assertEquals(gone.record().fields(), Map.of("name", "core", "ohm", 17.5));
        assertEquals(List.of(gone.by(), gone.record().author()), List.of("A", "B"));
        act("A", j -> Thrown.broughtBack(j, gone));
        assertEquals(job.record("rail-1").orElseThrow().fields(), gone.record().fields());
        assertEquals(Account.replay(job.account()), Account.state(job), "and the account tells all of it");
    }

    /** Numbers are given again; what comes back takes no other's place. */
    @Test
    public void theNumberOfAnotherIsLeftToIt() {
        act("A", j -> j.with(rail("core", 18)));
        act("A", j -> Thrown.thrown(j, "rail-1"));
        act("A", j -> j.with(rail("radio", 300)));
        act("A", j -> Thrown.broughtBack(j, Thrown.of(j).getFirst()));
        assertEquals(job.record("rail-1").orElseThrow().text("name"), "radio");
        assertEquals(job.record("rail-2").orElseThrow().text("name"), "core");
        act("A", j -> Thrown.thrown(j, "rail-1"));
        assertEquals(Thrown.of(job).stream().map(g -> g.record().text("name")).toList(),
                List.of("radio", "core"), "the last one first");
    }

    @Test
    public void aHeatIsNotUndone() {
        act("A", j -> j.with(new Kept("run-1", "run", NOON, "A", Map.of("bead", "lift_run"))));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> Thrown.thrown(job, "run-1"))
                .getMessage().contains("the board was hot"));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> Thrown.thrown(job, "rail-7"))
                .getMessage().contains("no record rail-7"));
    }
}
