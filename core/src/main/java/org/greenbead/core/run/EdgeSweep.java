package org.greenbead.core.run;

import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.board.Point;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Schools;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;

/**
 * How far the last ball is behind the first where a nozzle narrower than the chip is led over it from one edge to the other, going on when what lies
 * under it is liquid. The same model as for a run; the stages before the peak warm the whole, as their circle does.
 */
final class EdgeSweep {
    private static final double STEP_S = 0.5;
    private static final double MOVE_MM = 1;
    /** A nozzle that is less than this narrower than the chip covers it. */
    private static final double COVERS_MM = 2;
    private static final double LONGEST_S = 400;
    private final RunPlan plan;
    private final Stage peak;
    private final AirSetting air;
    private final boolean alongX;
    private final double half;

    private EdgeSweep(RunPlan plan, Stage peak, AirSetting air) {
        this.plan = plan;
        this.peak = peak;
        this.air = new AirSetting(air.setC(), air.flowLpm(), air.nozzleMm(), air.distanceMm(), 0);
        Point side = plan.target().sizeMm();
        alongX = side.xMm() >= side.yMm();
        half = Math.max(side.xMm(), side.yMm()) / 2;
    }

    /** Empty where the nozzle covers the chip, is led otherwise, or does not get to the end. */
    static OptionalDouble behindS(RunPlan plan) {
        if (!plan.loose() || plan.onPlate() || !led(plan)) {
            return OptionalDouble.empty();
        }
        Optional<Stage> peak = plan.recipe().stages().stream()
                .filter(s -> s.purpose() == Stage.Purpose.PEAK && s.air().isPresent()).findFirst();
        double side = Math.max(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm());
        return peak.filter(p -> p.air().orElseThrow().nozzleMm() < side - COVERS_MM)
                .map(p -> new EdgeSweep(plan, p, p.air().orElseThrow()).walk())
                .orElse(OptionalDouble.empty());
    }

    private static boolean led(RunPlan plan) {
        Schools schools = Schools.shipped();
        return schools.find("form_heat").map(s -> schools.chosen(plan.job(), s)).orElse("").equals("edge");
    }

    private OptionalDouble walk() {
        var model = new SheetModel(plan.scene(), plan.knowledge().mean(), Resolution.SEARCH);
        for (Stage stage : plan.recipe().stages()) {
            if (stage == peak) {
                break;
            }
            double seconds = stage.end() instanceof StageEnd.AfterTime t ? t.seconds() : stage.latestS();
            for (double s = 0; s < seconds; s += STEP_S) {
                model.advance(HeatInput.of(stage.heaterC(), stage.air()), STEP_S);
            }
        }
        double liquidus = plan.target().joint().alloy().liquidusC();
        double reach = air.nozzleMm() / 2;
        double at = -half + reach;
        double first = Double.NaN;
        double begun = model.timeS();
        while (model.timeS() < begun + LONGEST_S) {
            model.advance(HeatInput.of(peak.heaterC(), Optional.of(air))
                    .led(alongX ? new Point(at, 0) : new Point(0, at)), STEP_S);
            if (Double.isNaN(first) && model.jointMaxC() >= liquidus) {
                first = model.timeS();
            }
            if (model.jointMinC() >= liquidus) {
                return OptionalDouble.of(model.timeS() - first);
            }
            // Whatever lies behind the front is looked at by who leads the nozzle.
            if (at < half - reach && model.jointMinC(alongX, -half, at + reach / 2) >= liquidus) {
                at = Math.min(half - reach, at + MOVE_MM);
            }
        }
        return OptionalDouble.empty();
    }
}
