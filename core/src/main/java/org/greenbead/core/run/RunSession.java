package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.board.Side;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatInput;

/**
 * A live run: asks the logger, keeps every event in the journal before it acts on it, moves the engine on. Used by one thread
 * at a time, which the caller supplies; closing ends journal and port, not the heat.
 */
public final class RunSession implements AutoCloseable {
    /** So often the log is told where the estimate stands, s. */
    private static final double CHECKPOINT_S = 5;
    private final RunEngine engine;
    private final ProbePort port;
    private final RunJournal journal;
    private final BenchHands hands;
    /** Everything but the sweeps, a few thousand lines in eight hours: what a run is summed up from. */
    private final List<RunEvent> told = new ArrayList<>();
    private double checkpointS = Double.NEGATIVE_INFINITY;

    public RunSession(RunEngine engine, ProbePort port, RunJournal journal, BenchHands hands) {
        this(engine, port, journal, hands, List.of());
    }

    /** @param past events of the same run from before the program was started again */
    public RunSession(RunEngine engine, ProbePort port, RunJournal journal, BenchHands hands,
            List<RunEvent> past) {
        past.forEach(this::keep);
        this.engine = engine;
        this.port = port;
        this.journal = journal;
        this.hands = hands;
    }

    /** One sweep at run time {@code timeS}. A logger that does not answer is a gap, kept as such. */
    public RunState pump(double timeS) {
        hands.set(engine.input());
        hands.timeIs(timeS);
        List<Reading> readings;
        try {
            readings = port.sweep();
        } catch (LinkLostException lost) {
            readings = List.of();
        }
        take(new RunEvent.Sampled(timeS, readings));
        if (timeS - checkpointS >= CHECKPOINT_S && engine.state().hot()) {
            checkpointS = timeS;
            RunEvent.Checkpoint stands = engine.checkpoint();
            journal.append(stands);
            keep(stands);
        }
        return state();
    }

    public RunState start(double timeS) {
        take(new RunEvent.Started(timeS));
        return state();
    }

    /** Something was done at the stencil or the jig. */
    public RunState act(double timeS, org.greenbead.core.forming.Act act) {
        take(new RunEvent.Acted(timeS, act));
        return state();
    }

    public RunState say(double timeS, Say word, String text) {
        take(new RunEvent.Said(timeS, word, text));
        return state();
    }

    /** Sets one stage anew, now. */
    public RunState change(double timeS, int index, Stage stage) {
        take(new RunEvent.Changed(timeS, index, stage));
        return state();
    }

    /** Takes whatever somebody says or turns. */
    public RunState take(RunEvent event) {
        journal.append(event);
        keep(event);
        engine.apply(event);
        hands.set(engine.input());
        return state();
    }

    public RunState state() {
        RunState state = engine.state();
        if (journal.recording()) {
            return state;
        }
        return state.with(Finding.of(Rule.NOT_RECORDED, "journal", Severity.STOP));
    }

    private void keep(RunEvent event) {
        if (!(event instanceof RunEvent.Sampled)) {
            told.add(event);
        }
    }

    /** What happened in it, without the sweeps. */
    public List<RunEvent> told() {
        return List.copyOf(told);
    }

    public RunPlan plan() {
        return engine.plan();
    }

    /** What one side of the board looks like by the estimate. */
    public HeatField field(Side side) {
        return engine.field(side);
    }

    /** What would come of other settings of the stage in hand. */
    public Ahead ahead(HeatInput settings, double seconds) {
        return engine.ahead(settings, seconds);
    }

    public Verdict verdict() {
        return engine.verdict();
    }

    /** Replays kept events, as when a run is taken up again after the program stopped. */
    public static RunEngine replay(RunPlan plan, Optional<Rehearsal> rehearsal, List<RunEvent> events) {
        RunEngine engine = RunEngine.live(plan, rehearsal);
        events.forEach(engine::apply);
        return engine;
    }

    @Override
    public void close() {
        journal.close();
        port.close();
    }
}
