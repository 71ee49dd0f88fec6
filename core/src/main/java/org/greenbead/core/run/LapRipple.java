package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.BooleanSupplier;
import org.greenbead.core.board.Point;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;

/**
 * How slow the circle of a nozzle may be. Recipes and runs reckon with the mean over the circle; a slow hand heats one corner while another cools. The
 * same model with the nozzle led round, against itself with the mean, both warm and not yet molten: what a joint at the corner swings by.
 */
public final class LapRipple {
    /** What the model leaves out may be so large (docs/thermal.md); a swing below it is none. */
    public static final double SMOOTH_K = 2;
    private static final List<Double> TRIED_S = List.of(1.0, 1.5, 2.0, 3.0, 4.0, 6.0, 8.0, 12.0);
    private static final int POINTS = 12;
    private static final double SETTLES_S = 18;
    private static final double UNDER_SOLIDUS_K = 15;
    private static final double STEP_S = 1;
    private static final double LONGEST_S = 600;

    private LapRipple() {
    }

    /** @param jointK how far the corner's joint is off its mean at most @param bodyK and the middle of the body's top */
    public record Swing(double lapS, double jointK, double bodyK) {}

    /**
     * Of the peak's air, from quick to slow.
     *
     * @param cancelled asked between laps; then what was reached so far
     * @return empty where no circle is led
     */
    public static List<Swing> of(RunPlan plan, BooleanSupplier cancelled) {
        Optional<Stage> peak = plan.recipe().stages().stream().filter(s -> s.purpose() == Stage.Purpose.PEAK)
                .filter(s -> s.air().filter(a -> a.circleMm() > 0).isPresent()).findFirst();
        if (peak.isEmpty()) {
            return List.of();
        }
        SheetModel warm = warm(plan, peak.get(), cancelled);
        var swings = new ArrayList<Swing>();
        for (double lapS : TRIED_S) {
            if (cancelled.getAsBoolean()) {
                break;
            }
            swings.add(swing(warm, peak.get(), lapS));
        }
        return swings;
    }

    /** The slowest lap of those that swing no joint by more than {@link #SMOOTH_K}; empty where even the quickest does, or nothing was tried. */
    public static OptionalDouble mostS(List<Swing> swings) {
        double most = Double.NaN;
        for (Swing s : swings) {
            if (s.jointK() > SMOOTH_K) {
                break;
            }
            most = s.lapS();
        }
        return Double.isNaN(most) ? OptionalDouble.empty() : OptionalDouble.of(most);
    }

    /** As far into the peak as no joint melts, for melting hides a swing. */
    private static SheetModel warm(RunPlan plan, Stage peak, BooleanSupplier cancelled) {
        var model = new SheetModel(plan.scene(), plan.knowledge().mean(), Resolution.SEARCH_FINER);
        double under = plan.target().joint().alloy().solidusC() - UNDER_SOLIDUS_K;
        for (Stage stage : plan.recipe().stages()) {
            double seconds = stage == peak
                    ? LONGEST_S
                    : stage.end() instanceof StageEnd.AfterTime t ? t.seconds() : stage.latestS();
            for (double s = 0; s < seconds && model.jointMaxC() < under
                    && !cancelled.getAsBoolean(); s += STEP_S) {
                model.advance(HeatInput.of(stage.heaterC(), stage.air()), STEP_S);
            }
            if (stage == peak) {
                break;
            }
        }
        return model;
    }

    private static Swing swing(SheetModel warm, Stage peak, double lapS) {
        AirSetting mean = peak.air().orElseThrow();
        var still = new AirSetting(mean.setC(), mean.flowLpm(), mean.nozzleMm(), mean.distanceMm(), 0);
        SheetModel led = warm.copy();
        SheetModel even = warm.copy();
        int laps = (int) Math.max(2, Math.ceil(SETTLES_S / lapS));
        double joint = 0;
        double body = 0;
        for (int lap = 0; lap < laps; lap++) {
            for (int p = 0; p < POINTS; p++) {
                double turn = 2 * Math.PI * (p + 0.5) / POINTS;
                led.advance(HeatInput.of(peak.heaterC(), Optional.of(still)).led(new Point(
                        mean.circleMm() * Math.cos(turn), mean.circleMm() * Math.sin(turn))), lapS / POINTS);
                even.advance(HeatInput.of(peak.heaterC(), peak.air()), lapS / POINTS);
                if (lap == laps - 1) {
                    joint = Math.max(joint, Math.abs(led.jointCornerC() - even.jointCornerC()));
                    body = Math.max(body, Math.abs(led.packageTopC() - even.packageTopC()));
                }
            }
        }
        return new Swing(lapS, joint, body);
    }
}
