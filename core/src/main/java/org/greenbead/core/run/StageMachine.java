package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;

/** Which stage a run is in, what may end it, and where the run stands. Knows time and words, no heat but what it is told. */
final class StageMachine {
    private Recipe recipe;
    private final List<StageMark> marks = new ArrayList<>();
    private RunState.Status status = RunState.Status.READY;
    private boolean started;
    private double startedS = Double.NaN;
    private int stage;
    private double stageStartS;
    private double settingsChangedS;
    private double reachedSinceS = Double.NaN;

    /**
     * Times of the stage in hand, s.
     *
     * @param reachedSinceS since when its goal is reached; NaN while it is not
     */
    record Clock(double stageStartS, double settingsChangedS, double reachedSinceS) {}

    StageMachine(Recipe recipe) {
        this.recipe = recipe;
    }

    boolean started() {
        return started;
    }

    /** Run time at which the heat began; NaN before. */
    double startedS() {
        return startedS;
    }

    RunState.Status status() {
        return status;
    }

    boolean over() {
        return status == RunState.Status.ENDED;
    }

    int index() {
        return stage;
    }

    Stage current() {
        return recipe.stages().get(stage);
    }

    boolean atPeak() {
        return status == RunState.Status.HEATING && current().purpose() == Stage.Purpose.PEAK;
    }

    List<StageMark> marks() {
        return marks;
    }

    Clock clock() {
        return new Clock(stageStartS, settingsChangedS, reachedSinceS);
    }

    void start(double atS) {
        started = true;
        startedS = atS;
        status = RunState.Status.HEATING;
        enter(0, atS);
    }

    private void enter(int index, double atS) {
        stage = index;
        stageStartS = atS;
        settingsChangedS = atS;
        reachedSinceS = Double.NaN;
        marks.add(new StageMark(index, current().name(), atS, Double.NaN, StageMark.EndedBy.RUNNING));
        if (current().purpose() == Stage.Purpose.COOL && status != RunState.Status.SAFE) {
            status = RunState.Status.COOLING;
        }
    }

    private void close(double atS, StageMark.EndedBy by) {
        if (!marks.isEmpty() && Double.isNaN(marks.getLast().endS())) {
            StageMark open = marks.removeLast();
            marks.add(new StageMark(open.index(), open.name(), open.startS(), atS, by));
        }
    }

    void leave(double atS, StageMark.EndedBy by) {
        close(atS, by);
        if (stage + 1 < recipe.stages().size()) {
            enter(stage + 1, atS);
        } else {
            status = RunState.Status.SAFE;
        }
    }

    /** Heat away: whatever comes after the peak, hands do not wait for it. */
    void heatOff(double atS, StageMark.EndedBy by) {
        leave(atS, by);
        if (status == RunState.Status.HEATING || status == RunState.Status.MOLTEN) {
            status = RunState.Status.COOLING;
        }
    }

    void goOn(double atS) {
        if (status == RunState.Status.HEATING && current().purpose() != Stage.Purpose.PEAK) {
            leave(atS, StageMark.EndedBy.WORD);
        }
    }

    void back(double atS) {
        if (status == RunState.Status.HEATING && stage > 0) {
            close(atS, StageMark.EndedBy.WORD);
            enter(stage - 1, atS);
        }
    }

    void molten() {
        status = RunState.Status.MOLTEN;
    }

    /** Time went by that nobody saw: what was liquid may be solid again. */
    void molten(boolean still) {
        if (status == RunState.Status.MOLTEN && !still) {
            status = RunState.Status.HEATING;
        }
    }

    void safe(double atS) {
        leave(atS, StageMark.EndedBy.SAFE);
        status = RunState.Status.SAFE;
    }

    void finish() {
        if (status == RunState.Status.SAFE) {
            status = RunState.Status.ENDED;
        }
    }

    void breakOff(double atS) {
        close(atS, StageMark.EndedBy.BROKEN_OFF);
        status = RunState.Status.ENDED;
    }

    void changed(Recipe other, int index, double atS) {
        recipe = other;
        if (index == stage) {
            settingsChangedS = atS;
        }
    }

    void interrupted(double atS) {
        settingsChangedS = atS;
        reachedSinceS = Double.NaN;
    }

    /**
     * Ends the stage when what should end it is there. A clock or a board probe never ends a peak: melt has to be shown.
     *
     * @param shows what a probe shows by all that may be believed, °C; NaN where nothing is known
     * @param by    what is written down when it ends so
     */
    void look(double timeS, ToDoubleFunction<StageEnd.ProbeReaches> shows, StageMark.EndedBy by) {
        boolean peak = current().purpose() == Stage.Purpose.PEAK;
        switch (current().end()) {
            case StageEnd.AfterTime t -> {
                if (!peak && timeS - stageStartS >= t.seconds() - 1e-9) {
                    leave(timeS, StageMark.EndedBy.TIME);
                }
            }
            case StageEnd.ProbeReaches p -> {
                if (shows.applyAsDouble(p) >= p.celsius()) {
                    reachedSinceS = Double.isNaN(reachedSinceS) ? timeS : reachedSinceS;
                    if (timeS - reachedSinceS >= p.holdS() - 1e-9 && !peak) {
                        leave(timeS, by);
                    }
                } else {
                    reachedSinceS = Double.NaN;
                }
            }
            case StageEnd.SafeToMove s -> {
            }
            case StageEnd.TechnicianSays t -> {
            }
            case StageEnd.MeltShown m -> {
            }
        }
    }
}
