package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/** A session on a simulated bench that a test drives second by second, and that keeps every event. */
final class Bench4Tests {
    final SimulatedBench bench;
    final RunSession session;
    final List<RunEvent> events = new ArrayList<>();
    final List<RunState> states = new ArrayList<>();
    private double timeS;

    Bench4Tests(RunPlan plan, long seed) {
        this(plan, seed, Optional.empty());
    }

    Bench4Tests(RunPlan plan, long seed, Optional<Rehearsal> rehearsal) {
        bench = new SimulatedBench(plan, seed);
        fault = new java.util.concurrent.atomic.AtomicReference<>((readings, afterS) -> readings);
        var port = new ProbePort() {
            @Override
            public List<Reading> sweep() throws LinkLostException {
                return fault.get().on(bench.sweep(), timeS - faultS);
            }

            @Override
            public void close() {
            }
        };
        session = new RunSession(RunEngine.live(plan, rehearsal), port, new RunJournal() {
            @Override
            public void append(RunEvent event) {
                events.add(event);
            }

            @Override
            public boolean recording() {
                return true;
            }

            @Override
            public void close() {
            }
        }, bench);
        session.pump(0);
        session.start(0);
    }

    /** Lets something else arrive than the bench shows. */
    interface Fault {
        /** @param afterS since it began, s */
        List<Reading> on(List<Reading> readings, double afterS);
    }

    private final java.util.concurrent.atomic.AtomicReference<Fault> fault;
    private double faultS;

    /** From now on. */
    void fault(Fault cause) {
        faultS = timeS;
        fault.set(cause);
    }

    /** A fault of every value, or of one probe's. */
    static Fault each(java.util.function.BiFunction<String, Double, Double> value) {
        return (readings, afterS) -> readings.stream()
                .<Reading>map(r -> r instanceof Reading.Measured m
                        ? new Reading.Measured(m.probe(),
                                Math.round(10 * value.apply(m.probe(), m.celsius())) / 10.0)
                        : r)
                .toList();
    }

    RunState step() {
        timeS += 0.5;
        states.add(session.pump(timeS));
        return states.getLast();
    }

    RunState run(double seconds) {
        RunState state = session.state();
        for (double t = 0; t < seconds; t += 0.5) {
            state = step();
        }
        return state;
    }

    RunState until(Predicate<RunState> holds, double longestS) {
        RunState state = session.state();
        for (double t = 0; t < longestS && !holds.test(state); t += 0.5) {
            state = step();
        }
        if (!holds.test(state)) {
            throw new AssertionError("did not come within " + longestS + " s; " + state.status()
                    + " in stage " + state.stage() + " at " + state.timeS());
        }
        return state;
    }

    RunState say(Say word) {
        return session.say(timeS, word, "");
    }

    /** Follows the coach to the end. */
    RunState finish(RunPlan plan) {
        var technician = new SimulatedTechnician(plan.task(), true);
        RunState state = session.state();
        while (state.status() != RunState.Status.ENDED) {
            state = step();
            Optional<RunEvent> word = technician.act(state, session.plan(), bench.moves());
            if (word.isPresent()) {
                state = session.take(word.get());
            }
        }
        return state;
    }

    double timeS() {
        return timeS;
    }
}
