package org.greenbead.app.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.ProbeView;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.StageMark;

/** The states of a run so far, as a chart wants them. Of a long run fewer a minute are kept, so that it takes no more room than a short one. */
final class RunHistory {
    private static final int MOST = 4000;
    /** Farther apart than this nobody looked: the curve is broken, s. */
    private static final double GAP_S = 12;
    private final List<RunState> states = new ArrayList<>();
    private double everyS;

    void add(RunState state) {
        if (states.size() >= MOST) {
            thin();
        }
        if (states.size() > 1 && close(states.get(states.size() - 2), states.getLast())) {
            states.removeLast();
        }
        states.add(state);
    }

    /** The newest stands for now; the one before it may go where it adds nothing to the one before that. */
    private boolean close(RunState before, RunState state) {
        return state.timeS() - before.timeS() < everyS && before.stage() == state.stage()
                && before.status() == state.status();
    }

    private void thin() {
        everyS = Math.max(2 * everyS, 2 * (states.getLast().timeS() - states.getFirst().timeS()) / MOST);
        var kept = new ArrayList<RunState>();
        for (RunState state : states) {
            if (kept.isEmpty() || !close(kept.getLast(), state)) {
                kept.add(state);
            }
        }
        states.clear();
        states.addAll(kept);
    }

    void setAll(List<RunState> all) {
        states.clear();
        states.addAll(all);
    }

    int size() {
        return states.size();
    }

    RunState get(int index) {
        return states.get(index);
    }

    /** Index of the last state at or before a time; 0 when there is none. */
    int at(double timeS) {
        int low = 0;
        for (int i = 0; i < states.size(); i++) {
            low = states.get(i).timeS() <= timeS + 1e-9 ? i : low;
        }
        return low;
    }

    /**
     * @param upTo      number of states to draw
     * @param rehearsal drawn dashed from the stage in hand on; empty for none
     */
    HeatChart.Data chart(RunPlan plan, int upTo, Optional<Rehearsal> rehearsal, boolean moment, Texts texts) {
        List<RunState> shown = states.subList(0, Math.min(upTo, states.size()));
        boolean[] broken = gaps(shown);
        // Before the heat of a stencil run hands work at room temperature: the chart begins with the heat.
        double origin = shown.isEmpty() || shown.getLast().marks().isEmpty()
                ? 0
                : shown.getLast().marks().getFirst().startS();
        double[] time = shown.stream().mapToDouble(s -> s.timeS() - origin).toArray();
        var curves = new ArrayList<HeatChart.Curve>();
        curves.add(new HeatChart.Curve("joint", texts.get("run.legend.joint"), time,
                values(shown, broken, s -> s.joint().celsius())));
        curves.add(new HeatChart.Curve("top", texts.get("run.legend.top"), time,
                values(shown, broken, s -> s.chipTop().celsius())));
        probe(plan, Side.TOP).ifPresent(p -> curves
                .add(new HeatChart.Curve("board", texts.get("run.legend.board"), time, probeC(shown, p))));
        probe(plan, Side.BOTTOM).ifPresent(p -> curves
                .add(new HeatChart.Curve("under", texts.get("run.legend.under"), time, probeC(shown, p))));
        double[] band = shown.stream().mapToDouble(s -> s.joint().plusMinusK()).toArray();
        double end = time.length == 0 ? 0 : time[time.length - 1];
        var stages = new ArrayList<HeatChart.StageSpan>();
        if (!shown.isEmpty()) {
            for (StageMark mark : shown.getLast().marks()) {
                stages.add(span(plan, mark.index(), mark.startS() - origin, mark.endS() - origin));
            }
        }
        if (rehearsal.isPresent() && !rehearsal.get().rows().isEmpty()) {
            Rehearsal r = rehearsal.get();
            RunState last = shown.isEmpty() ? null : shown.getLast();
            int stage = last == null ? 0 : last.stage();
            double stageStart = last == null || last.marks().isEmpty()
                    ? 0
                    : last.marks().getLast().startS() - origin;
            double inStage = last == null ? 0 : last.stageS();
            double planStart = r.marks().stream().filter(m -> m.index() == stage)
                    .mapToDouble(StageMark::startS).findFirst().orElse(0);
            double planEnd = r.marks().stream().filter(m -> m.index() == stage).mapToDouble(StageMark::endS)
                    .filter(Double::isFinite).findFirst().orElse(r.lengthS());
            double planNow = Math.min(planStart + inStage, planEnd);
            double shift = stageStart + inStage - planNow;
            var ahead = r.rows().stream().filter(row -> row.timeS() >= planNow).toList();
            curves.add(new HeatChart.Curve("plan", texts.get("run.plan"),
                    ahead.stream().mapToDouble(row -> row.timeS() + shift).toArray(),
                    ahead.stream().mapToDouble(Rehearsal.Row::jointMinC).toArray()));
            for (StageMark mark : r.marks()) {
                if (last == null || last.marks().isEmpty() || mark.index() > stage) {
                    stages.add(span(plan, mark.index(), mark.startS() + shift, mark.endS() + shift));
                }
            }
            end = Math.max(end, r.lengthS() + shift);
        }
        OptionalDouble now = moment && time.length > 0
                ? OptionalDouble.of(time[time.length - 1])
                : OptionalDouble.empty();
        if (!states.isEmpty() && upTo < states.size()) {
            end = Math.max(end, states.getLast().timeS() - origin);
        }
        return new HeatChart.Data(curves, band, plan.target().joint().alloy().liquidusC(),
                plan.target().bodyLimitC(),
                texts.get("run.window", texts.words().bare(plan.target().joint().alloy().liquidusC()),
                        texts.temp(plan.target().bodyLimitC())),
                stages, now, end * 1.02,
                texts.words()::bare);
    }

    /** Where a state is the first after a gap. */
    private static boolean[] gaps(List<RunState> states) {
        boolean[] broken = new boolean[states.size()];
        for (int i = 1; i < broken.length; i++) {
            broken[i] = states.get(i).timeS() - states.get(i - 1).timeS() > GAP_S
                    && states.get(i).findings().stream().anyMatch(
                            f -> f.rule() == org.greenbead.core.finding.Rule.RESUMED_AFTER_GAP);
        }
        return broken;
    }

    private static double[] values(List<RunState> states, boolean[] broken,
            java.util.function.ToDoubleFunction<RunState> of) {
        double[] values = new double[states.size()];
        for (int i = 0; i < values.length; i++) {
            values[i] = broken[i] ? Double.NaN : of.applyAsDouble(states.get(i));
        }
        return values;
    }

    static HeatChart.StageSpan span(RunPlan plan, int index, double startS, double endS) {
        Stage stage = plan.recipe().stages().get(index);
        return new HeatChart.StageSpan(stage.name(), "", startS, endS);
    }

    static Optional<ProbePlace> probe(RunPlan plan, Side side) {
        return plan.bench().probes().stream()
                .filter(p -> p.role() == ProbePlace.Role.BOARD && p.side() == side).findFirst();
    }

    private static double[] probeC(List<RunState> states, ProbePlace place) {
        return states.stream().mapToDouble(s -> {
            ProbeView view = s.probes().get(place.name());
            return view == null || view.health() != ProbeView.Health.GOOD ? Double.NaN : view.celsius();
        }).toArray();
    }
}
