package org.greenbead.core.run;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.forming.Method;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Limits;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Schools;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;

/**
 * Heat for making balls where nobody has a recipe: the lowest air at which every ball is liquid, with its margin, two minutes after the
 * peak began, found on the thermal model of this chip, stencil and bench. A start to be rehearsed and given to the planner, no proved
 * setting.
 */
public final class FormingRecipe {
    /** Time that the peak may take, s: as reckoned, with patience, in a hurry. Judgement of the trade. */
    private static final double USUAL_S = 90;
    private static final double GENTLE_S = 150;
    private static final double HOT_S = 45;
    private static final double SOAK_S = 60;
    private static final double APPROACH_S = 35;
    private static final double STEP_S = 2;
    /** The nozzle reaches this far over the chip: the sheet round it carries heat away. */
    private static final double ROUND_MM = 3;
    private static final double LEAST_MM = 10;
    /** Flow by the width of the nozzle; a jet rolls spheres off their pads. Judgement of the trade. */
    private static final double STENCIL_LPM_PER_MM = 1.2;
    private static final double SPHERES_LPM_PER_MM = 0.8;
    private static final double FAR_MM = 45;
    private static final double NEAR_MM = 30;
    private static final double TO_C = 1;
    /** The sheet and a small chip follow the air at once: less of the rise in the soak, then less air, until nothing spits. */
    private static final double[] SOAK_PARTS = {0.45, 0.36, 0.27, 0.2};
    private static final double[] FLOW_PARTS = {1, 0.75, 0.55, 0.4};
    /** So far over what the peak waits for: at the end the balls hardly rise any more, and half a degree is worth a minute. */
    private static final double SURELY_K = 0.5;
    /** Part of the ramp limit that is used: the real bench is not the model. */
    private static final double SURE = 0.95;

    /** Stands for the heat of a plan until it is reckoned. */
    static final Recipe BLANK = new Recipe("blank", "not reckoned yet",
            List.of(new Stage("Balls", Stage.Purpose.PEAK, Optional.empty(), Optional.empty(),
                    Optional.empty(), new StageEnd.MeltShown(), HOT_S)),
            Limits.usual());

    private FormingRecipe() {
    }

    /** @param plan with any recipe; its stages are not looked at */
    public static Recipe of(RunPlan plan, String id, String title) {
        boolean spheres = plan.forming().filter(f -> f.method() == Method.SPHERES).isPresent();
        double side = Math.max(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm());
        double nozzle = plan.bench().air().nozzlesMm().stream()
                .min(Comparator.comparingDouble(n -> Math.abs(n - Math.max(LEAST_MM, side + ROUND_MM))))
                .orElseThrow();
        double most = Math.min(plan.bench().air().maxLpm(),
                nozzle * (spheres ? SPHERES_LPM_PER_MM : STENCIL_LPM_PER_MM));
        Recipe best = null;
        double slowest = Double.POSITIVE_INFINITY;
        for (double part : FLOW_PARTS) {
            for (double soak : SOAK_PARTS) {
                var blows = new Blows(nozzle, Math.rint(part * most), soak);
                Recipe tried = lowest(plan, id, title, blows);
                Heated heated = heat(plan, tried, wantedS(plan.job()));
                boolean melts = heated.melts(plan, tried);
                if (best == null || melts && heated.fastestKPerS < slowest) {
                    best = tried;
                    slowest = melts ? heated.fastestKPerS : Double.POSITIVE_INFINITY;
                }
                if (melts && heated.fastestKPerS <= SURE * tried.limits().rampUpKPerS()) {
                    return tried;
                }
            }
        }
        return best;
    }

    /** @param soakPart of the rise from room to peak air that the soak blows */
    private record Blows(double nozzleMm, double flowLpm, double soakPart) {}

    /** The lowest air that melts; the hottest that the station has where none does. */
    private static Recipe lowest(RunPlan plan, String id, String title, Blows blows) {
        double longest = wantedS(plan.job());
        double low = plan.target().joint().alloy().liquidusC();
        double high = plan.bench().air().maxC();
        while (high - low > TO_C) {
            double middle = (low + high) / 2;
            Recipe tried = recipe(plan, id, title, middle, blows);
            if (heat(plan, tried, longest).melts(plan, tried)) {
                high = middle;
            } else {
                low = middle;
            }
        }
        return recipe(plan, id, title, Math.ceil(high), blows);
    }

    /** How long the peak may take, as the job has chosen. */
    static double wantedS(Job job) {
        Schools schools = Schools.shipped();
        return switch (schools.find("form_air").map(s -> schools.chosen(job, s)).orElse("")) {
            case "gentle" -> GENTLE_S;
            case "hot" -> HOT_S;
            default -> USUAL_S;
        };
    }

    private static Recipe recipe(RunPlan plan, String id, String title, double airC, Blows blows) {
        double room = plan.bench().ambientC();
        double side = Math.max(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm());
        double nozzle = blows.nozzleMm();
        double flow = plan.bench().air().dial().settable(blows.flowLpm());
        double circle = side > nozzle ? (side - nozzle) / 2 + 2 : 0;
        Limits limits = Limits.usual();
        double goal = goalC(plan, limits);
        return new Recipe(id, title, List.of(
                new Stage("Soak", Stage.Purpose.SOAK, Optional.empty(),
                        Optional.of(
                                new AirSetting(part(room, airC, blows.soakPart()), flow, nozzle, FAR_MM,
                                        circle)),
                        Optional.empty(), new StageEnd.AfterTime(SOAK_S), 1.5 * SOAK_S),
                new Stage("Ramp up", Stage.Purpose.APPROACH, Optional.empty(),
                        Optional.of(new AirSetting(part(room, airC, (1 + blows.soakPart()) / 2), flow, nozzle,
                                NEAR_MM,
                                circle)),
                        Optional.empty(), new StageEnd.AfterTime(APPROACH_S), 2 * APPROACH_S),
                new Stage("Balls", Stage.Purpose.PEAK, Optional.empty(),
                        Optional.of(new AirSetting(airC, flow, nozzle, NEAR_MM, circle)),
                        Optional.of(goal), new StageEnd.MeltShown(), 1.6 * wantedS(plan.job())),
                new Stage("Cool", Stage.Purpose.COOL, Optional.empty(), Optional.empty(), Optional.empty(),
                        new StageEnd.SafeToMove(), 300)),
                limits);
    }

    private static double part(double roomC, double airC, double share) {
        return Math.rint(roomC + share * (airC - roomC));
    }

    /** What the peak waits for, in whole degrees as it is shown. */
    private static double goalC(RunPlan plan, Limits limits) {
        return Math.rint(plan.target().joint().alloy().liquidusC() + limits.overLiquidusK());
    }

    /** How hot the coldest ball became, and how fast joint or sheet rose at most. */
    private record Heated(double jointC, double fastestKPerS) {
        boolean melts(RunPlan plan, Recipe recipe) {
            double wanted = plan.target().joint().alloy().liquidusC() + recipe.limits().overLiquidusK();
            return jointC >= Math.max(wanted, goalC(plan, recipe.limits())) + SURELY_K;
        }
    }

    private static Heated heat(RunPlan plan, Recipe recipe, double peakS) {
        RunPlan tried = plan.with(recipe);
        HeatModel model = RunEngine.nominalModel(tried);
        var joint = new Trace();
        var sheet = new Trace();
        double fastest = 0;
        double now = 0;
        for (Stage stage : recipe.stages().subList(0, 3)) {
            double seconds = stage.end() instanceof StageEnd.AfterTime t ? t.seconds() : peakS;
            for (double s = 0; s < seconds; s += STEP_S) {
                model.advance(HeatInput.of(stage.heaterC(), stage.air()), STEP_S);
                now += STEP_S;
                joint.add(now, model.jointCentreC());
                sheet.add(now, model.probeC(tried.bench().probes().getFirst()));
                // Once balls are liquid nothing boils out of the paste any more; catching up after the melt does no harm.
                boolean paste = model.jointMaxC() < tried.target().joint().alloy().solidusC();
                for (Trace trace : paste ? List.of(joint, sheet) : List.<Trace>of()) {
                    double slope = trace.slope(now - ProbeWatch.RAMP_WINDOW_S, now);
                    fastest = slope > fastest ? slope : fastest;
                }
            }
        }
        return new Heated(model.jointMinC(), fastest);
    }
}
