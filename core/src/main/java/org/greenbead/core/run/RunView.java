package org.greenbead.core.run;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.recipe.Stage;

/** What rules and coach may look at: the engine's inside at one moment. */
record RunView(RunPlan plan, RunState.Status status, double timeS, int stageIndex, Stage stage, double stageS,
        double sinceChangeS,
        Map<String, ProbeWatch> probes, Estimate joint, Trace jointTrace, Estimate chipTop, List<Room> room,
        double aboveS,
        OptionalDouble meltsInS, OptionalDouble safeInS, boolean linkUp, MeltProof melt, double reachedSinceS,
        boolean everMolten, double movingC, boolean looked,
        Optional<FormingView> forming) {}
