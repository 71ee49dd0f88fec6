package org.greenbead.core.account;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

/** What the ledger knows of the bench reaches the judgement. */
public class BoardFactsTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());

    private static final Job JOB = World.job(Attest.UNKNOWN)
            .withBeads(Routes.shipped().beads(JobKind.REVIVE, Routes.recipes("WB-7", "U1")))
            .with(Facts.none().with("job.kind=revive"));

    private static Calibration told(double jet, boolean determined, boolean counted) {
        var factor = new Calibration.Factor(jet, 0.1, determined);
        var nominal = new Calibration.Factor(1, 0.1, true);
        return new Calibration("run-" + jet, "WB-7", 6, 28, factor, nominal, nominal, nominal, 3, counted);
    }

    private static Facts facts(Bench bench) {
        RunPlan plan = PLAN.with(bench);
        return JobFacts.known(JOB, Optional.of(plan), Optional.empty()).facts();
    }

    private static Set<String> fired(Bench bench) {
        return RuleBook.shipped().check(facts(bench), RuleBook.Settings.STANDARD).stream()
                .map(n -> n.rule().id()).collect(Collectors.toSet());
    }

    private static Bench blind(List<Calibration> history) {
        Bench b = PLAN.bench();
        return new Bench(b.id(), b.title(), b.ambientC(), b.heater(), b.air(), List.of(), history);
    }

    /** Neither probe nor calibration: nothing but the prior. A calibration ends it; an outlier is none. */
    @Test
    public void aBlindRunOnAStrangeBenchIsNamed() {
        assertTrue(fired(blind(List.of())).contains("heat.blind-on-a-strange-bench"));
        assertTrue(fired(blind(List.of(told(1, true, false)))).contains("heat.blind-on-a-strange-bench"));
        assertFalse(fired(blind(List.of(told(1, true, true)))).contains("heat.blind-on-a-strange-bench"));
        assertFalse(fired(PLAN.bench().with(List.of())).contains("heat.blind-on-a-strange-bench"),
                "it has probes");
    }

    /** The last calibration that told the jet counts; one that did not tell it says nothing. */
    @Test
    public void aStationFarFromNominalIsNamed() {
        Bench weak = PLAN.bench().with(List.of(told(1, true, true), told(0.6, true, true)));
        assertEquals(facts(weak).at("bench.jet_factor").orElseThrow(), 0.6);
        assertTrue(fired(weak).contains("air.station-far-from-nominal"));
        Bench unsure = PLAN.bench().with(List.of(told(1, true, true), told(0.6, false, true)));
        assertFalse(fired(unsure).contains("air.station-far-from-nominal"));
    }
}
