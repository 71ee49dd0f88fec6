package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.Protected;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.Heating;

/**
 * Takes a recipe through a model as fast as the model goes: stages end on the same evidence as in a run, with a technician
 * who waits for the joint goal, takes the heat off after the usual moment, and lets go when nothing melts in twice the stage's time.
 */
public final class Drive {
    private static final double STILL_S = 8;
    private static final double BLOWN_S = 2;
    private static final double LIFT_S = 3;
    private static final double SETTLE_S = 8;
    private static final double RAMP_S = 10;
    private static final double LONGEST_S = 4 * 3600.0;
    private static final double GIVEN_UP = 2;
    private static final double WORD_AFTER = 2.5;

    private final RunPlan plan;
    private final HeatModel model;
    private final List<Protected> guarded;
    private final BooleanSupplier cancelled;
    private final double liquidusC;
    private final List<Outcome.Sample> trace = new ArrayList<>();
    private final List<Outcome.StageEnd> stages = new ArrayList<>();
    private final double[] guardedPeakC;
    private double meltsAtS = Double.NaN;
    private double peakMinC = Double.NEGATIVE_INFINITY;
    private double peakMaxC = Double.NEGATIVE_INFINITY;
    private double spreadK;
    private double aboveS;
    private double fastest;
    private double minC;
    private double maxC;
    private int rampFrom;

    private Drive(RunPlan plan, HeatModel model, BooleanSupplier cancelled) {
        this.plan = plan;
        this.model = model;
        this.cancelled = cancelled;
        guarded = Protected.of(plan);
        guardedPeakC = new double[guarded.size()];
        java.util.Arrays.fill(guardedPeakC, Double.NEGATIVE_INFINITY);
        liquidusC = plan.target().joint().alloy().liquidusC();
    }

    /**
     * @param model in its starting state; it is moved on
     * @param cancelled asked between steps; when true the outcome is what was reached so far
     */
    public static Outcome of(RunPlan plan, Recipe recipe, HeatModel model, BooleanSupplier cancelled) {
        var drive = new Drive(plan, model, cancelled);
        drive.look(0);
        for (Stage stage : recipe.stages()) {
            if (stage.purpose() == Stage.Purpose.COOL) {
                drive.cool(recipe);
                break;
            }
            if (!drive.heat(stage, recipe)) {
                break;
            }
        }
        return drive.outcome();
    }

    /**
     * The same settings for the same times as in another outcome, whatever the model shows: what compares two models.
     *
     * @param like where each stage ended
     */
    public static Outcome onClock(RunPlan plan, Recipe recipe, HeatModel model, Outcome like) {
        var drive = new Drive(plan, model, () -> false);
        drive.look(0);
        double from = 0;
        for (int i = 0; i < like.stages().size(); i++) {
            Stage stage = recipe.stages().get(i);
            double to = like.stages().get(i).atS();
            boolean off = stage.purpose() == Stage.Purpose.COOL;
            if (to > from) {
                drive.advance(off ? HeatInput.OFF : HeatInput.of(stage.heaterC(), stage.air()), to - from);
            }
            drive.spreadK = drive.maxC - drive.minC;
            drive.ended();
            from = to;
        }
        return drive.outcome();
    }

    /**
     * A recipe as a heating with fixed times, as long as its stages took in an outcome.
     *
     * @param like where each stage ended
     */
    public static Heating heating(RunPlan plan, Recipe recipe, Outcome like) {
        var heater = new ArrayList<Heating.HeaterStep>();
        var air = new ArrayList<Heating.AirSegment>();
        double from = 0;
        double asked = Double.NaN;
        for (int i = 0; i < like.stages().size(); i++) {
            Stage stage = recipe.stages().get(i);
            double start = from;
            double to = like.stages().get(i).atS();
            double set = stage.purpose() == Stage.Purpose.COOL
                    ? plan.bench().ambientC()
                    : stage.heaterC().orElse(plan.bench().ambientC());
            if (set != asked && to > start) {
                heater.add(new Heating.HeaterStep(start, set));
                asked = set;
            }
            stage.air().filter(a -> to > start).ifPresent(a -> air.add(new Heating.AirSegment(start, to, a)));
            from = to;
        }
        return new Heating(recipe.id(), recipe.title() + ", " + plan.job().id(), plan.with(recipe).scene(),
                Math.max(1, Math.ceil(from)), 1, heater, air, List.of());
    }

    private Outcome outcome() {
        return new Outcome(!Double.isNaN(meltsAtS), meltsAtS, peakMinC, peakMaxC, spreadK, aboveS, fastest,
                model.timeS(), guardedPeakC, stages, trace);
    }

    private boolean stop() {
        return cancelled.getAsBoolean() || model.timeS() > LONGEST_S;
    }

    /** False when there is no use in going on. */
    private boolean heat(Stage stage, Recipe recipe) {
        HeatInput input = HeatInput.of(stage.heaterC(), stage.air());
        double usual = stage.air().isPresent() ? BLOWN_S : STILL_S;
        double start = model.timeS();
        boolean peak = stage.purpose() == Stage.Purpose.PEAK;
        double goal = stage.jointGoalC().orElse(liquidusC + recipe.limits().overLiquidusK());
        double reachedS = Double.NaN;
        while (!stop()) {
            double inStage = model.timeS() - start;
            double left = Double.POSITIVE_INFINITY;
            if (peak) {
                if (minC >= goal || inStage > stage.latestS() && minC >= liquidusC) {
                    advance(input, plan.task() == RunPlan.Task.LIFT ? LIFT_S : SETTLE_S);
                    spreadK = maxC - minC;
                    ended();
                    return true;
                }
                if (inStage > GIVEN_UP * stage.latestS()) {
                    spreadK = maxC - minC;
                    ended();
                    return false;
                }
            } else if (stage.end() instanceof StageEnd.AfterTime after) {
                left = after.seconds() - inStage;
            } else if (stage.end() instanceof StageEnd.ProbeReaches reaches) {
                boolean there = probe(reaches.probe()) >= reaches.celsius();
                reachedS = there ? Double.isNaN(reachedS) ? model.timeS() : reachedS : Double.NaN;
                left = there ? reaches.holdS() - (model.timeS() - reachedS) : left;
                // Near its end a stage is looked at more often.
                usual = probe(reaches.probe()) > reaches.celsius() - 10 ? BLOWN_S : usual;
            } else {
                left = 1 - inStage;
            }
            if (left <= 1e-9 || inStage > WORD_AFTER * stage.latestS()) {
                ended();
                return true;
            }
            advance(input, Math.min(usual, left));
        }
        return false;
    }

    /** Until the joints are solid and nothing that is protected still rises. */
    private void cool(Recipe recipe) {
        double solid = recipe.limits().movingC(plan.target().joint().alloy());
        double[] before = new double[guarded.size()];
        boolean rising = true;
        while (!stop() && (maxC > solid && model.timeS() < LONGEST_S || rising)) {
            for (int i = 0; i < before.length; i++) {
                before[i] = guarded.get(i).celsius().applyAsDouble(model);
            }
            double was = maxC;
            advance(HeatInput.OFF, 4);
            rising = false;
            for (int i = 0; i < before.length; i++) {
                rising |= guarded.get(i).celsius().applyAsDouble(model) > before[i] + 0.05;
            }
            if (maxC >= was) {
                break;
            }
        }
        ended();
    }

    private void ended() {
        stages.add(new Outcome.StageEnd(model.timeS(), minC,
                plan.bench().probes().stream().mapToDouble(model::probeC).toArray()));
    }

    private double probe(String name) {
        return plan.bench().probes().stream().filter(p -> p.name().equals(name)).findFirst()
                .map((ProbePlace p) -> model.probeC(p)).orElse(Double.NaN);
    }

    private void advance(HeatInput input, double seconds) {
        double done = 0;
        while (seconds - done > 1e-9) {
            double part = Math.min(input.air().isPresent() ? BLOWN_S : STILL_S, seconds - done);
            model.advance(input, part);
            done += part;
            look(part);
        }
    }

    private void look(double stepS) {
        double wasMin = trace.isEmpty() ? Double.NEGATIVE_INFINITY : minC;
        double centre = model.jointCentreC();
        minC = model.jointMinC();
        maxC = Math.max(centre, model.jointMaxC());
        peakMinC = Math.max(peakMinC, minC);
        peakMaxC = Math.max(peakMaxC, maxC);
        trace.add(new Outcome.Sample(model.timeS(), centre));
        if (minC >= liquidusC || wasMin >= liquidusC) {
            double share = wasMin == minC
                    ? 1
                    : (Math.max(wasMin, minC) - liquidusC) / Math.abs(minC - wasMin);
            aboveS += stepS * Math.clamp(share, 0, 1);
            if (Double.isNaN(meltsAtS) && minC >= liquidusC) {
                meltsAtS = model.timeS() - stepS * Math.clamp(share, 0, 1);
            }
        }
        for (int i = 0; i < guardedPeakC.length; i++) {
            guardedPeakC[i] = Math.max(guardedPeakC[i], guarded.get(i).celsius().applyAsDouble(model));
        }
        ramp(centre);
    }

    /** Steepest rise over ten seconds, between recorded moments. */
    private void ramp(double centre) {
        double from = model.timeS() - RAMP_S;
        while (rampFrom < trace.size() - 2 && trace.get(rampFrom + 1).timeS() <= from) {
            rampFrom++;
        }
        Outcome.Sample a = trace.get(rampFrom);
        if (a.timeS() > from || rampFrom + 1 >= trace.size()) {
            return;
        }
        Outcome.Sample b = trace.get(rampFrom + 1);
        double share = (from - a.timeS()) / (b.timeS() - a.timeS());
        fastest = Math.max(fastest, (centre - a.jointC() - share * (b.jointC() - a.jointC())) / RAMP_S);
    }
}
