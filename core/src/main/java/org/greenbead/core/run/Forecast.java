package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;

/** Runs the model ahead from where the estimate stands: when joints melt, when moving is safe, which part runs out of room first. */
final class Forecast {
    private static final double EVERY_S = 4;
    private static final double STEP_S = 4;
    private static final double HORIZON_S = 240;
    /** How far ahead a part is looked after, s, and how long the heat stays on after the melt. */
    private static final double EARLY_S = 48;
    private static final double AFTER_MELT_S = 8;
    private final Alloy alloy;
    private final List<Protected> guarded;
    private double lookedS = Double.NEGATIVE_INFINITY;
    private OptionalDouble meltsAtS = OptionalDouble.empty();
    private OptionalDouble safeAtS = OptionalDouble.empty();
    private List<Finding> early = List.of();

    Forecast(Alloy alloy, List<Protected> guarded) {
        this.alloy = alloy;
        this.guarded = guarded;
    }

    /** Another stage or another setting: what was foreseen holds no longer. */
    void stale() {
        lookedS = Double.NEGATIVE_INFINITY;
        meltsAtS = OptionalDouble.empty();
    }

    double lookedS() {
        return lookedS;
    }

    List<Finding> early() {
        return early;
    }

    RunState.Outlook outlook(double timeS) {
        return new RunState.Outlook(from(meltsAtS, timeS), from(safeAtS, timeS));
    }

    private static OptionalDouble from(OptionalDouble atS, double timeS) {
        return atS.isPresent() ? OptionalDouble.of(Math.max(0, atS.getAsDouble() - timeS)) : atS;
    }

    /**
     * Looks ahead every few seconds.
     *
     * @param movingC under this the joints may be moved, °C
     * @return true when it looked
     */
    boolean look(double timeS, StageMachine stages, JointEstimator estimator, HeatInput input, Estimate cold,
            double movingC) {
        // A rehearsal is itself the look ahead.
        if (estimator instanceof ModelIsTruth || timeS - lookedS < EVERY_S) {
            return false;
        }
        lookedS = timeS;
        boolean peak = stages.current().purpose() == Stage.Purpose.PEAK;
        meltsAtS = peak && cold.celsius() < alloy.liquidusC()
                ? firstTime(timeS, estimator, input, m -> m.jointMinC() - alloy.liquidusC())
                : OptionalDouble.empty();
        early = runningOut(timeS, stages, estimator, input);
        if (stages.status() == RunState.Status.COOLING) {
            double margin = estimator.of(HeatModel::jointMaxC).plusMinusK();
            safeAtS = firstTime(timeS, estimator, input, m -> movingC - margin - m.jointMaxC());
        }
        return true;
    }

    /** First time at which {@code over} rises through nothing, if settings stay as they are. */
    OptionalDouble firstTime(double timeS, JointEstimator estimator, HeatInput input,
            ToDoubleFunction<HeatModel> over) {
        HeatModel ahead = estimator.lookAhead();
        double last = over.applyAsDouble(ahead);
        if (last >= 0) {
            return OptionalDouble.of(timeS);
        }
        for (double s = 0; s < HORIZON_S; s += STEP_S) {
            ahead.advance(input, STEP_S);
            double now = over.applyAsDouble(ahead);
            if (now >= 0) {
                return OptionalDouble.of(timeS + s + STEP_S * last / (last - now));
            }
            last = now;
        }
        return OptionalDouble.empty();
    }

    /** What would come of settings in {@code seconds}, 4 to 240. */
    Ahead ahead(JointEstimator estimator, HeatInput settings, double seconds) {
        HeatModel ahead = estimator.lookAhead();
        double[] peak = new double[guarded.size()];
        double[] now = new double[guarded.size()];
        for (int i = 0; i < peak.length; i++) {
            now[i] = guarded.get(i).celsius().applyAsDouble(ahead);
            peak[i] = now[i];
        }
        double last = ahead.jointMinC() - alloy.liquidusC();
        OptionalDouble melts = last >= 0 ? OptionalDouble.of(0) : OptionalDouble.empty();
        for (double s = 0; s < Math.clamp(seconds, STEP_S, HORIZON_S); s += STEP_S) {
            ahead.advance(settings, STEP_S);
            double over = ahead.jointMinC() - alloy.liquidusC();
            if (melts.isEmpty() && over >= 0) {
                melts = OptionalDouble.of(s + STEP_S * last / (last - over));
            }
            last = over;
            for (int i = 0; i < peak.length; i++) {
                peak[i] = Math.max(peak[i], guarded.get(i).celsius().applyAsDouble(ahead));
            }
        }
        var rooms = new ArrayList<Room>();
        for (int i = 0; i < peak.length; i++) {
            Protected part = guarded.get(i);
            rooms.add(new Room(part.what(), part.kind(), now[i], peak[i], part.limitC()));
        }
        return new Ahead(seconds, ahead.jointMinC(), melts, rooms);
    }

    /** A part that will run out of room before the joints have melted, with the setting that keeps it. */
    private List<Finding> runningOut(double timeS, StageMachine stages, JointEstimator estimator,
            HeatInput input) {
        Stage now = stages.current();
        if (stages.status() != RunState.Status.HEATING && stages.status() != RunState.Status.MOLTEN
                || now.purpose() == Stage.Purpose.COOL) {
            return List.of();
        }
        double horizon = Math.min(EARLY_S,
                meltsAtS.isPresent() ? meltsAtS.getAsDouble() - timeS + AFTER_MELT_S : EARLY_S);
        Ahead as = ahead(estimator, input, Math.max(STEP_S, horizon));
        for (int i = 0; i < guarded.size(); i++) {
            Protected part = guarded.get(i);
            double allowed = part.limitC() - part.marginK();
            double peak = as.rooms().get(i).peakC();
            if (peak > allowed && as.rooms().get(i).nowC() <= allowed) {
                var gaps = new ArrayList<Quantity>(
                        List.of(new Quantity.Name(part.name()), new Quantity.TempC(peak),
                                new Quantity.TempC(allowed), new Quantity.Seconds(horizon)));
                Optional<Remedy> cure = cure(estimator, stages.index(), now, i, allowed, horizon);
                cure.ifPresent(c -> gaps.add(new Quantity.TempC(
                        c instanceof Remedy.SetAir air
                                ? air.air().setC()
                                : ((Remedy.SetHeater) c).celsius())));
                Rule rule = cure.isPresent() ? Rule.ROOM_RUNS_OUT : Rule.ROOM_CANNOT_HOLD;
                return List.of(new Finding(rule, part.name(), Severity.CARE, gaps, cure));
            }
        }
        return List.of();
    }

    /** The mildest cut of the air, or of the heater where none blows, that keeps a part within its limit. */
    private Optional<Remedy> cure(JointEstimator estimator, int stage, Stage now, int part, double allowed,
            double horizon) {
        for (double cut = 10; cut <= 60; cut += 10) {
            double less = cut;
            Optional<Stage> milder = now.air().isPresent()
                    ? now.air().filter(a -> a.setC() - less >= 50)
                            .map(a -> now.withAir(
                                    Optional.of(new AirSetting(a.setC() - less, a.flowLpm(), a.nozzleMm(),
                                            a.distanceMm(), a.circleMm()))))
                    : now.heaterC().filter(c -> c - less >= 30)
                            .map(c -> now.withHeater(Optional.of(c - less)));
            if (milder.isEmpty()) {
                return Optional.empty();
            }
            HeatInput settings = HeatInput.of(milder.get().heaterC(), milder.get().air());
            if (ahead(estimator, settings, horizon).rooms().get(part).peakC() <= allowed) {
                return Optional.of(milder.get().air().isPresent()
                        ? new Remedy.SetAir(stage, milder.get().air().get())
                        : new Remedy.SetHeater(stage, milder.get().heaterC().orElseThrow()));
            }
        }
        return Optional.empty();
    }
}
