package org.greenbead.core.run;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.recipe.Stage;

/** What rules and coach may look at: the engine's inside at one moment. */
record RunView(RunPlan plan, RunState.Standing standing, Stage stage, StageMachine.Clock clock,
        Map<String, ProbeWatch> probes, RunState.Heat heat, Trace jointTrace, RunState.Outlook outlook,
        MeltProof melt, Bounds bounds, Optional<FormingView> forming) {
    /**
     * What is known of melting beside the estimate.
     *
     * @param everMolten whether the joints have been liquid by all that is known
     * @param movingC    under this everything that melted may be moved, °C
     * @param looked     whether the outlook is of this stage
     * @param boardC     what the stage's end is measured by, where no probe is; NaN where one is, °C
     */
    record Bounds(boolean everMolten, double movingC, boolean looked, double boardC) {}

    RunState.Status status() {
        return standing.status();
    }

    double timeS() {
        return standing.timeS();
    }

    int stageIndex() {
        return standing.stage();
    }

    double stageS() {
        return standing.stageS();
    }

    boolean linkUp() {
        return standing.linkUp();
    }

    boolean byEye() {
        return standing.byEye();
    }

    double sinceChangeS() {
        return standing.timeS() - clock.settingsChangedS();
    }

    double reachedSinceS() {
        return clock.reachedSinceS();
    }

    Estimate joint() {
        return heat.joint();
    }

    Estimate jointHot() {
        return heat.jointHot();
    }

    List<Room> room() {
        return heat.room();
    }

    double aboveS() {
        return heat.aboveS();
    }

    OptionalDouble meltsInS() {
        return outlook.meltsInS();
    }

    OptionalDouble safeInS() {
        return outlook.safeInS();
    }

    boolean looked() {
        return bounds.looked();
    }

    double movingC() {
        return bounds.movingC();
    }

    double boardC() {
        return bounds.boardC();
    }
}
