package org.greenbead.core.plan;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.plan.BenchReach.Melts;
import org.greenbead.core.plan.BenchReach.Reached;
import org.testng.annotations.Test;

/** What a bench reaches, by what must hold whatever its figures are. */
public class BenchReachTest {
    private static Bench bench(String kind) {
        return BenchKind.require(kind).bench("b", "b");
    }

    private static List<Reached> of(Bench bench) {
        return BenchReach.of(bench, BenchReach.usualBoard(), "U1", () -> false);
    }

    /** The same air on a warm board ends higher than on a cold one, and the heater alone is told apart. */
    @Test
    public void aHeaterLiftsEveryNozzle() {
        List<Reached> cold = of(bench("air_alone"));
        List<Reached> warm = of(bench("open_small"));
        assertEquals(cold.stream().map(Reached::nozzleMm).toList(), List.of(6.0, 8.0, 10.0, 14.0, 20.0));
        assertEquals(warm.getFirst().nozzleMm(), 0.0);
        assertTrue(warm.getFirst().jointC() > 90 && warm.getFirst().jointC() < 260,
                "" + warm.getFirst().jointC());
        for (int i = 0; i < cold.size(); i++) {
            Reached with = warm.get(i + 1);
            assertTrue(with.jointC() > cold.get(i).jointC() + 30, with + " after " + cold.get(i));
            assertTrue(with.lowC() < with.jointC() && with.jointC() < with.highC(), "" + with);
        }
    }

    /** Nine in ten of the benches that nobody has measured lie in what is told: the mean bench does, one of 2.5 deviations does not. */
    @Test
    public void weakerAirReachesLessAndIsTold() {
        Bench usual = bench("air_alone");
        AirStation a = usual.air();
        Bench weak = new Bench("b", "b", usual.ambientC(), usual.heater(),
                new AirStation(a.name(), List.of(14.0), a.maxC(), a.maxLpm(), a.lossWPerK(), a.tauS(), 0.45),
                List.of());
        Reached told = of(usual).stream().filter(r -> r.nozzleMm() == 14).findFirst().orElseThrow();
        Reached weaker = of(weak).getFirst();
        assertTrue(weaker.jointC() < told.lowC(), weaker + " below " + told);
        assertTrue(weaker.highC() - weaker.lowC() > 15, "still not known");
    }

    @Test
    public void anAlloyMeltsSurelyPerhapsOrNot() {
        var joint = new Reached(14, 205, 190, 240);
        assertEquals(joint.melts(Alloys.require("Sn42Bi58")), Melts.SURELY);
        assertEquals(joint.melts(Alloys.require("SAC305")), Melts.PERHAPS);
        assertEquals(new Reached(6, 150, 140, 170).melts(Alloys.require("Sn63Pb37")), Melts.NO);
    }

    @Test
    public void cutOffItSaysWhatItHas() {
        assertTrue(BenchReach.of(bench("open_large"), BenchReach.usualBoard(), "U1", () -> true).isEmpty());
    }
}
