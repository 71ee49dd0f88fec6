package org.greenbead.core.run;

import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.Stand;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;

/**
 * Somebody who does what the coach says: turns the heater up when told to, says what is seen, nudges when the coach says so, says "it moves"
 * when it is felt to, takes the chip off, keeps the hands away until it is safe. Drives rehearsals and runs without a person.
 */
public final class SimulatedTechnician {
    private static final double NUDGE_EVERY_S = 4;
    private static final double LIFT_S = 3;
    private static final double SETTLE_S = 8;
    private final boolean followsRemedies;
    private final double liftS;
    private double nudgedS = Double.NEGATIVE_INFINITY;
    private double moltenS = Double.NaN;
    private double raisedS = Double.NEGATIVE_INFINITY;

    /** @param followsRemedies false in a rehearsal, where the recipe is tried as it is written */
    public SimulatedTechnician(RunPlan.Task task, boolean followsRemedies) {
        this.followsRemedies = followsRemedies;
        liftS = task == RunPlan.Task.LIFT ? LIFT_S : SETTLE_S;
    }

    /** With eyes and fingers that err. @return what is said or turned, at the state's time */
    public Optional<RunEvent> act(RunState state, RunPlan plan, Eyes eyes) {
        if (state.status() == RunState.Status.HEATING && state.forming().isEmpty()
                && state.standing().byEye()) {
            Optional<Sight> seen = eyes.report(state.timeS());
            if (seen.isPresent()) {
                return seen.map(s -> new RunEvent.Saw(state.timeS(), s));
            }
        }
        return act(state, plan, eyes::nudge);
    }

    /**
     * With fingers that never err: for rehearsals, where the model is the truth.
     *
     * @param reallyMoves whether a nudge would move the chip now
     * @return what is said or turned, at the state's time
     */
    public Optional<RunEvent> act(RunState state, RunPlan plan, boolean reallyMoves) {
        return act(state, plan, () -> reallyMoves);
    }

    private Optional<RunEvent> act(RunState state, RunPlan plan, BooleanSupplier nudge) {
        double now = state.timeS();
        return switch (state.status()) {
            case READY, ENDED, COOLING -> Optional.empty();
            case SAFE -> Optional.of(state.forming().filter(f -> f.forming().stand() == Stand.SOLID)
                    .<RunEvent>map(f -> new RunEvent.Acted(now, f.next()))
                    .orElseGet(() -> new RunEvent.Said(now, Say.FINISH, "")));
            case MOLTEN -> {
                moltenS = Double.isNaN(moltenS) ? now : moltenS;
                yield now - moltenS >= liftS
                        ? Optional.of(new RunEvent.Said(now, Say.HEAT_OFF, ""))
                        : Optional.empty();
            }
            case HEATING -> heating(state, plan, nudge);
        };
    }

    private Optional<RunEvent> heating(RunState state, RunPlan plan, BooleanSupplier nudge) {
        double now = state.timeS();
        Stage stage = plan.recipe().stages().get(state.stage());
        if (stage.purpose() == Stage.Purpose.PEAK) {
            boolean shines = state.forming().filter(f -> f.forming().stand() == Stand.FORMING)
                    .filter(f -> f.next() == Act.FIRST_BALL).isPresent()
                    && state.jointHot().celsius() >= plan.target().joint().alloy().liquidusC();
            if (shines) {
                return Optional.of(new RunEvent.Acted(now, Act.FIRST_BALL));
            }
            double goal = stage.jointGoalC().orElse(
                    plan.target().joint().alloy().liquidusC() + plan.recipe().limits().overLiquidusK());
            boolean told = state.coaching().name().equals("peak.nudge")
                    || state.joint().celsius() >= goal && state.forming().isPresent();
            boolean tries = told || state.stageS() > stage.latestS();
            if (tries && now - nudgedS >= NUDGE_EVERY_S) {
                nudgedS = now;
                if (nudge.getAsBoolean()) {
                    return Optional.of(new RunEvent.Said(now, Say.MOVES, ""));
                }
            }
            return state.stageS() > 2 * stage.latestS()
                    ? Optional.of(new RunEvent.Said(now, Say.STOP, ""))
                    : Optional.empty();
        }
        Optional<Remedy> raise = state.findings().stream().filter(f -> f.rule() == Rule.HEATER_LAG)
                .findFirst().flatMap(f -> f.remedy());
        if (followsRemedies && raise.isPresent() && raise.get() instanceof Remedy.SetHeater set
                && now - raisedS > 90) {
            raisedS = now;
            return Optional
                    .of(new RunEvent.Changed(now, set.stage(), stage.withHeater(Optional.of(set.celsius()))));
        }
        boolean blind = stage.end() instanceof StageEnd.ProbeReaches p
                && state.probes().containsKey(p.probe())
                && state.probes().get(p.probe()).health() != ProbeView.Health.GOOD
                && state.stageS() > stage.latestS();
        boolean word = blind || stage.end() instanceof StageEnd.TechnicianSays;
        return word || state.stageS() > 2.5 * stage.latestS()
                ? Optional.of(new RunEvent.Said(now, Say.GO_ON, ""))
                : Optional.empty();
    }
}
