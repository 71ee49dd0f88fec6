package org.greenbead.core.calibrate;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.run.Adversity;
import org.greenbead.core.run.JointField;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Sight;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.testng.annotations.Test;

/** A bench learned from what was seen at the chip, no thermocouple anywhere. */
public class SightFitTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());
    private static final List<Witness.Step> STEPS = List.of(
            new Witness.Step(0, Optional.of(240.0), Optional.empty()), air(170, 265, 24, 25),
            air(190, 340, 28, 20));

    private static Witness.Step air(double fromS, double setC, double lpm, double upMm) {
        return new Witness.Step(fromS, Optional.of(240.0),
                Optional.of(new AirSetting(setC, lpm, 10, upMm, 6)));
    }

    private static HeatInput at(int second) {
        Witness.Step now = STEPS.getFirst();
        for (Witness.Step s : STEPS) {
            now = s.fromS() <= second ? s : now;
        }
        return HeatInput.of(now.heaterC(), now.air());
    }

    /** Press of the corner that shines on a bench of those factors, {@code lateS} late. */
    private static RunEvent.Saw corner(Multipliers bench, double lateS) {
        var model = new SheetModel(PLAN.scene(), bench, Resolution.FULL);
        double melts = Sight.CORNER_SHINES.celsius(PLAN.target().joint().alloy().solidusC(),
                PLAN.target().joint().alloy().liquidusC());
        for (int t = 0; t < 500; t++) {
            model.advance(at(t), 1);
            if (Sight.CORNER_SHINES.looksAt(JointField.of(model)) >= melts) {
                return new RunEvent.Saw(t + 1 + lateS, Sight.CORNER_SHINES);
            }
        }
        throw new AssertionError("it never melts");
    }

    private static double peak(Multipliers bench) {
        var model = new SheetModel(PLAN.scene(), bench, Resolution.SEARCH);
        double peak = 0;
        for (int t = 0; t < 320; t++) {
            model.advance(at(t), 1);
            peak = Math.max(peak, model.jointMinC());
        }
        return peak;
    }

    private static SightFit.Learned fit(List<RunEvent.Saw> saws) throws RefusedException {
        return SightFit.fit("r", PLAN, STEPS, saws, 420, () -> false);
    }

    /** One sight tells hardly a factor, and most of what they do together: the same heating again is known. */
    @Test
    public void oneSightTellsTheSameHeatingAgain() throws RefusedException {
        for (Multipliers truth : List.of(new Multipliers(0.75, 0.9, 1, 1), new Multipliers(1.2, 1.1, 1, 1),
                new Multipliers(0.9, 0.8, 1.1, 1.2))) {
            var learned = fit(List.of(corner(truth, 1.2)));
            var c = learned.calibration();
            assertTrue(c.jet().sdLn() > 0.15, "alone the air is not known: " + c.jet());
            Bench bench = PLAN.bench().with(List.of(c));
            var known = PLAN.with(bench).knowledge();
            double before = Math.abs(peak(Multipliers.NOMINAL) - peak(truth));
            double after = Math.abs(peak(known.mean()) - peak(truth));
            assertTrue(after < 6 && after < before, "from " + before + " to " + after + " K");
            double spread = spread(known.draw(24, 3));
            double any = spread(PLAN.knowledge().draw(24, 3));
            assertTrue(spread < 0.65 * any,
                    "spread from " + any + " to " + spread + " K, " + truth + " " + learned.sights() + c);
        }
    }

    private static double spread(List<Multipliers> benches) {
        double[] peaks = benches.stream().mapToDouble(SightFitTest::peak).toArray();
        double mean = java.util.Arrays.stream(peaks).average().orElseThrow();
        return Math.sqrt(java.util.Arrays.stream(peaks).map(p -> (p - mean) * (p - mean)).average()
                .orElseThrow());
    }

    /** Flux that was taken for solder, far too early, is an error of the eye: nothing is learned from it, and beside a sound sight it weighs nothing. */
    @Test
    public void errorOfTheEyeTeachesNothing() throws RefusedException {
        var early = new RunEvent.Saw(40, Sight.FIRST_BALL);
        assertEquals(expectThrows(RefusedException.class, () -> fit(List.of(early))).why().key(),
                "fit.nothing_believed");
        assertEquals(expectThrows(RefusedException.class, () -> fit(List.of())).why().key(),
                "fit.nothing_seen");
        RunEvent.Saw sound = corner(new Multipliers(0.85, 0.9, 1, 1), 1.2);
        double alone = fit(List.of(sound)).calibration().jet().value();
        var both = fit(List.of(early, sound));
        assertEquals(both.calibration().jet().value(), alone, 0.02);
        assertTrue(both.sights().getFirst().trust() < 0.05 && both.sights().get(1).trust() > 0.5,
                both.sights().toString());
    }

    /** Runs of one's own bring the estimate nearer before anything is seen, and the stated width follows. */
    @Test
    public void runsOfOnesOwnNarrowTheNext() {
        var all = new ArrayList<>(EyeTrial.of(PLAN, Adversity.USUAL, 61, 4, 2, d -> {
        }, () -> false));
        double before = all.stream().filter(r -> r.earlier() == 0)
                .mapToDouble(EyeTrial.Ran::unseenPlusMinusK).average().orElseThrow();
        double after = all.stream().filter(r -> r.earlier() == 1)
                .mapToDouble(EyeTrial.Ran::unseenPlusMinusK).average().orElseThrow();
        assertTrue(after < 0.9 * before, "from ±" + before + " to ±" + after);
    }
}
