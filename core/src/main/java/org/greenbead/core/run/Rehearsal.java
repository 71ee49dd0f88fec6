package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatModel;

/**
 * A recipe run in the thermal model before anything is hot, through the same engine as the real run, with a technician who
 * waits for the joint goal and does what the coach says.
 *
 * @param rows    one a second
 * @param marks   stages as they came out
 * @param end     findings and state at the end
 * @param done    false when it was given up because the joints never melted, or cancelled
 */
public record Rehearsal(List<Row> rows, List<StageMark> marks, double peakJointMinC, double peakJointMaxC,
        double aboveLiquidusS,
        double fastestKPerS, Verdict verdict, HeatModel.EnergyBalance energy, boolean done) {
    private static final double STEP_S = 1;
    private static final double LONGEST_S = 4 * 3600;

    /**
     * One second of a rehearsal, °C.
     *
     * @param guardedC every protected part, in the order in which {@link RunState#room()} lists them after the joint
     * @param probesC  in the bench's order
     */
    public record Row(double timeS, int stage, double jointCentreC, double jointMinC, double jointMaxC,
            double packageTopC, double boardTopC,
            double boardUnderC, double heaterC, double airExitC, double liquidFraction, double[] guardedC,
            double[] probesC) {}

    public Rehearsal {
        rows = List.copyOf(rows);
        marks = List.copyOf(marks);
    }

    /** @param cancelled asked every simulated second */
    public static Rehearsal of(RunPlan plan, BooleanSupplier cancelled) {
        return of(plan, RunEngine.nominalModel(plan), cancelled);
    }

    /** The same on a given model in its starting state. */
    public static Rehearsal of(RunPlan plan, HeatModel model, BooleanSupplier cancelled) {
        return of(plan, model, cancelled, m -> {
        });
    }

    /** @param watch shown the model at the start and after every second */
    static Rehearsal of(RunPlan plan, HeatModel model, BooleanSupplier cancelled, Consumer<HeatModel> watch) {
        RunEngine engine = RunEngine.rehearsing(plan, model);
        var technician = new SimulatedTechnician(plan.task(), false);
        var rows = new ArrayList<Row>();
        var joint = new Trace();
        ProbePlace top = place(plan, Side.TOP);
        ProbePlace under = place(plan, Side.BOTTOM);
        double peakMin = Double.NEGATIVE_INFINITY;
        double fastest = 0;
        double time = 0;
        engine.apply(new RunEvent.Started(0));
        RunState state = engine.state();
        rows.add(row(0, 0, plan, engine, model, top, under));
        watch.accept(model);
        while (state.status() != RunState.Status.ENDED && time < LONGEST_S && !cancelled.getAsBoolean()) {
            time += STEP_S;
            model.advance(engine.input(), STEP_S);
            watch.accept(model);
            engine.apply(new RunEvent.Sampled(time, plan.bench().probes().stream()
                    .<Reading>map(p -> new Reading.Measured(p.name(), model.probeC(p))).toList()));
            state = engine.state();
            rows.add(row(time, state.stage(), plan, engine, model, top, under));
            joint.add(time, model.jointCentreC());
            double slope = joint.slope(time - ProbeWatch.RAMP_WINDOW_S, time);
            fastest = slope > fastest ? slope : fastest;
            peakMin = Math.max(peakMin, model.jointMinC());
            Optional<RunEvent> word = technician.act(state, engine.plan(),
                    model.jointMinC() >= plan.target().joint().alloy().liquidusC());
            word.ifPresent(engine::apply);
            if (word.isPresent()) {
                state = engine.state();
            }
        }
        Verdict verdict = engine.verdict();
        return new Rehearsal(rows, state.marks(), peakMin, verdict.peakJointC(), verdict.aboveLiquidusS(),
                fastest, verdict, model.energy(),
                state.status() == RunState.Status.ENDED && verdict.outcome() != Verdict.Outcome.BROKEN_OFF);
    }

    private static ProbePlace place(RunPlan plan, Side side) {
        return plan.bench().probes().stream()
                .filter(p -> p.role() == ProbePlace.Role.BOARD && p.side() == side).findFirst()
                .orElse(new ProbePlace("board", ProbePlace.Role.BOARD, 1, side, plan.target().centreMm()));
    }

    private static Row row(double time, int stage, RunPlan plan, RunEngine engine, HeatModel model,
            ProbePlace top, ProbePlace under) {
        double[] guarded = engine.guarded().stream().mapToDouble(g -> g.celsius().applyAsDouble(model))
                .toArray();
        double[] probes = plan.bench().probes().stream().mapToDouble(model::probeC).toArray();
        return new Row(time, stage, model.jointCentreC(), model.jointMinC(), model.jointMaxC(),
                model.packageTopC(), model.probeC(top),
                model.probeC(under), model.heaterC(), model.airExitC(), model.liquidFraction(), guarded,
                probes);
    }

    public double lengthS() {
        return rows.getLast().timeS();
    }

    /** Peak of the protected part at {@code index}, °C. */
    public double peakC(int index) {
        return rows.stream().mapToDouble(r -> r.guardedC()[index]).max().orElse(Double.NaN);
    }

    /** How much a protected part still rises after the moment {@code inStageS} of a stage, K; 0 past its peak. */
    public double stillToRiseK(int stage, double inStageS, int index) {
        double start = marks.stream().filter(m -> m.index() == stage).mapToDouble(StageMark::startS)
                .findFirst().orElse(lengthS());
        double end = marks.stream().filter(m -> m.index() == stage).mapToDouble(StageMark::endS)
                .filter(Double::isFinite).findFirst().orElse(lengthS());
        int from = (int) Math.clamp(Math.min(start + inStageS, end) / STEP_S, 0, rows.size() - 1);
        double now = rows.get(from).guardedC()[index];
        double most = now;
        for (int i = from; i < rows.size(); i++) {
            most = Math.max(most, rows.get(i).guardedC()[index]);
        }
        return most - now;
    }
}
