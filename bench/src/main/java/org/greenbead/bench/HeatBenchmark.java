package org.greenbead.bench;

import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.greenbead.core.plan.Drive;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.store.BadFileException;
import org.greenbead.store.DemoWorld;
import org.greenbead.store.OpenFiles;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The thermal model at its two resolutions, and one whole rehearsal. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class HeatBenchmark {
    /** Job and bead: 2,848 cells in the full model, and 4,220. */
    @Param({"SB-0409:seat_run", "SB-0417:lift_run"})
    public String job;

    private RunPlan plan;
    private SheetModel full;
    private SheetModel search;
    private HeatInput input;

    @Setup
    public void prepare() throws BadFileException {
        String[] which = job.split(":");
        plan = new DemoWorld(new OpenFiles()).plan(which[0], which[1]);
        full = new SheetModel(plan.scene(), Multipliers.NOMINAL, Resolution.FULL);
        search = new SheetModel(plan.scene(), Multipliers.NOMINAL, Resolution.SEARCH);
        input = HeatInput.of(Optional.of(240.0),
                plan.recipe().stages().stream().flatMap(s -> s.air().stream()).reduce((a, b) -> b));
    }

    /** 60 s of heater and air in steps of half a second: 60,000 ms over the result is the factor over real time. */
    @Benchmark
    public double fullMinuteUnderAir() {
        SheetModel model = full.copy();
        for (int i = 0; i < 120; i++) {
            model.advance(input, 0.5);
        }
        return model.jointCentreC();
    }

    /** The recipe of the job from cold to solid on the search model, as the planner drives it. */
    @Benchmark
    public double searchWholeRecipe() {
        return Drive.of(plan, plan.recipe(), search.copy(), () -> false).lengthS();
    }

    /** The same on the full model, as an offer is proved. */
    @Benchmark
    public double fullWholeRecipe() {
        return Drive.of(plan, plan.recipe(), full.copy(), () -> false).lengthS();
    }

    @Benchmark
    public double rehearsal() {
        return Rehearsal.of(plan, () -> false).peakJointMinC();
    }
}
