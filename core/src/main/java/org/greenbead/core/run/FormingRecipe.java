package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntFunction;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.forming.Method;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Limits;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.recipe.StartingRecipe;
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
    /** Paste dries this far under its solidus. Judgement of the trade. */
    private static final double DRIES_UNDER_K = 50;
    private static final double PLATE_SOAK_S = 100;
    /** A first-order plate is within 22 % of a step after so many of its time constants. */
    private static final double PLATE_LAGS = 1.5;
    /** Stand for the plate of a bench that has none; the rules stop such a run. */
    private static final double NO_PLATE_TAU_S = 60;
    private static final double NO_PLATE_C = 300;
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
    /** The sheet and a small chip follow the air at once: less of the rise in the soak, then less air, until nothing spits. */
    private static final double[] SOAK_PARTS = {0.45, 0.36, 0.27, 0.2};
    private static final double[] FLOW_PARTS = {1, 0.75, 0.55, 0.4};
    /** So far over what the peak waits for: at the end the balls hardly rise any more, and half a degree is worth a minute. */
    private static final double SURELY_K = 0.5;
    /** Part of the ramp limit that is used: the real bench is not the model. */
    private static final double SURE = 0.95;
    /** A way that rises so much faster than it may is not looked at any closer. */
    private static final double HOPELESS = 1.15;

    /** Stands for the heat of a plan until it is reckoned. */
    static final Recipe BLANK = new Recipe("blank", "not reckoned yet",
            List.of(new Stage("Balls", Stage.Purpose.PEAK, Optional.empty(), Optional.empty(),
                    Optional.empty(), new StageEnd.MeltShown(), HOT_S)),
            Limits.usual());

    /** Rise of the coldest ball for a degree more of air, K/K: where a search begins. */
    private static final double USUAL_SLOPE = 0.8;
    private static final Limits LIMITS = Limits.usual();

    private final RunPlan plan;
    private final String id;
    private final String title;
    private final double peakS;
    private final HeatModel cold;
    private final Map<Try, Heated> tried = new HashMap<>();

    private FormingRecipe(RunPlan plan, String id, String title) {
        this.plan = plan;
        this.id = id;
        this.title = title;
        peakS = wantedS(plan.job());
        cold = RunEngine.nominalModel(plan);
    }

    /** @param plan with any recipe; its stages are not looked at */
    public static Recipe of(RunPlan plan, String id, String title) {
        var made = new FormingRecipe(plan, id, title);
        if (plan.onPlate()) {
            return made.onPlate();
        }
        if (!plan.loose()) {
            return made.onBoard();
        }
        boolean spheres = plan.forming().filter(f -> f.method() == Method.SPHERES).isPresent();
        double side = Math.max(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm());
        double nozzle = plan.bench().air().nozzlesMm().stream()
                .min(Comparator.comparingDouble(n -> Math.abs(n - Math.max(LEAST_MM, side + ROUND_MM))))
                .orElseThrow();
        double most = Math.min(plan.bench().air().maxLpm(),
                nozzle * (spheres ? SPHERES_LPM_PER_MM : STENCIL_LPM_PER_MM));
        return made.found(nozzle, most);
    }

    /**
     * Plate below: a soak at which paste dries, its rise kept by the plate's own lag, then the lowest whole degree at which every ball melts. A plate takes
     * its time, which the peak is given on top of what the way allows.
     */
    private Recipe onPlate() {
        double solidus = plan.target().joint().alloy().solidusC();
        double room = plan.bench().ambientC();
        double tau = plan.bench().heater().map(BottomHeater::tauHeatS).orElse(NO_PLATE_TAU_S);
        int most = (int) Math.floor(plan.bench().heater().map(BottomHeater::maxC).orElse(NO_PLATE_C));
        double soakC = Math.rint(Math.min(solidus - DRIES_UNDER_K, room + allowedKPerS() * tau));
        double peak = peakS + PLATE_LAGS * tau;
        return lowest(set -> new Recipe(id, title, List.of(
                new Stage("Soak", Stage.Purpose.SOAK, Optional.of(soakC), Optional.empty(), Optional.empty(),
                        new StageEnd.AfterTime(PLATE_SOAK_S), 1.5 * PLATE_SOAK_S),
                new Stage("Balls", Stage.Purpose.PEAK, Optional.of((double) set), Optional.empty(),
                        Optional.of(goalC()), new StageEnd.MeltShown(), 1.6 * peak),
                new Stage("Cool", Stage.Purpose.COOL, Optional.empty(), Optional.empty(), Optional.empty(),
                        new StageEnd.SafeToMove(), 300)),
                LIMITS), (int) Math.ceil(solidus), most, peak);
    }

    /** On a board half: what a seat there begins with, its air as low as every ball still melts. */
    private Recipe onBoard() {
        Recipe usual = StartingRecipe.of(id, title, plan.target(), plan.bench(), false);
        int last = usual.stages().size() - 2;
        Stage peak = usual.stages().get(last);
        AirSetting air = peak.air().orElseThrow();
        var named = new Stage("Balls", peak.purpose(), peak.heaterC(), peak.air(), peak.jointGoalC(),
                peak.end(),
                peak.latestS());
        return lowest(set -> usual.with(last, named.withAir(Optional.of(new AirSetting(set, air.flowLpm(),
                air.nozzleMm(), air.distanceMm(), air.circleMm())))),
                (int) Math.ceil(plan.target().joint().alloy().liquidusC()),
                (int) Math.floor(plan.bench().air().maxC()), peak.latestS());
    }

    /** The lowest whole degree of one setting with which every ball melts, by bisection; the highest there is where none does. */
    private Recipe lowest(IntFunction<Recipe> recipe, int lowC, int highC, double seconds) {
        int low = lowC;
        int high = Math.max(lowC + 1, highC);
        while (high - low > 1) {
            int now = (low + high) / 2;
            if (walked(recipe.apply(now), seconds).jointC - wantedC() - SURELY_K >= 0) {
                high = now;
            } else {
                low = now;
            }
        }
        return recipe.apply(high);
    }

    /** The first way of blowing whose paste does not spit; where there is none the gentlest that melts. */
    private Recipe found(double nozzle, double most) {
        var spits = new ArrayList<Spitting>();
        int airC = firstGuessC();
        for (double part : FLOW_PARTS) {
            for (double soak : SOAK_PARTS) {
                var blows = new Blows(nozzle, Math.rint(part * most), soak);
                // The air that the last way needed tells mostly enough: where that spits by far, its own lowest would, too.
                double rises = expectedKPerS(airC, blows);
                if (rises <= HOPELESS * allowedKPerS() || spits.isEmpty()) {
                    airC = lowestC(blows, airC);
                    rises = melts(airC, blows) ? heat(airC, blows).fastestKPerS : Double.POSITIVE_INFINITY;
                    if (rises <= allowedKPerS()) {
                        return recipe(airC, blows);
                    }
                }
                spits.add(new Spitting(blows, rises));
            }
        }
        spits.sort(Comparator.comparingDouble(Spitting::kPerS));
        for (Spitting gentlest : spits) {
            int lowest = lowestC(gentlest.blows, airC);
            if (melts(lowest, gentlest.blows)) {
                return recipe(lowest, gentlest.blows);
            }
        }
        return recipe(plan.bench().air().maxC(), new Blows(nozzle, Math.rint(most), SOAK_PARTS[0]));
    }

    /** A way that is too fast, and how fast. */
    private record Spitting(Blows blows, double kPerS) {}

    /** @param soakPart of the rise from room to peak air that the soak blows */
    private record Blows(double nozzleMm, double flowLpm, double soakPart) {}

    /**
     * The lowest whole degree of air that melts, the hottest that the station has where none does. Joint over air is nearly a straight
     * line, so each try goes where the line through the last two says, kept between what is known to be too cold and hot enough.
     */
    private int lowestC(Blows blows, int guessC) {
        int low = (int) Math.floor(plan.target().joint().alloy().liquidusC());
        int high = (int) Math.floor(plan.bench().air().maxC());
        int now = Math.clamp(guessC, low + 1, high);
        double slope = USUAL_SLOPE;
        while (true) {
            double over = over(now, blows);
            if (over >= 0) {
                high = now;
            } else {
                low = now;
            }
            if (high - low <= 1) {
                return high;
            }
            // Just over the line that is expected, so that two tries end it.
            int next = (int) Math.ceil(now - over / slope + (over >= 0 ? -0.4 : 0.2));
            next = Math.clamp(next, low + 1, high - 1);
            double there = over(next, blows);
            slope = Math.clamp((there - over) / (next - now), 0.2, 1.5);
            now = next;
        }
    }

    /** How fast it would rise with the lowest air that melts, told from one try with air near it; endless where no air would do. */
    private double expectedKPerS(int airC, Blows blows) {
        double needsC = airC - over(airC, blows) / USUAL_SLOPE;
        double roomC = plan.bench().ambientC();
        return needsC > plan.bench().air().maxC()
                ? Double.POSITIVE_INFINITY
                : heat(airC, blows).fastestKPerS * (needsC - roomC) / (airC - roomC);
    }

    /** Well over the liquidus: where a first try has its best chance. Judgement. */
    private int firstGuessC() {
        return (int) Math.min(plan.bench().air().maxC(),
                Math.rint(plan.target().joint().alloy().liquidusC() + 130));
    }

    private double allowedKPerS() {
        return SURE * LIMITS.rampUpKPerS();
    }

    /** How far the coldest ball comes over what is wanted, K. */
    private double over(int airC, Blows blows) {
        return heat(airC, blows).jointC - wantedC() - SURELY_K;
    }

    private boolean melts(int airC, Blows blows) {
        return over(airC, blows) >= 0;
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

    private Recipe recipe(double airC, Blows blows) {
        double room = plan.bench().ambientC();
        double side = Math.max(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm());
        double nozzle = blows.nozzleMm();
        double flow = plan.bench().air().dial().settable(blows.flowLpm());
        double circle = side > nozzle ? (side - nozzle) / 2 + 2 : 0;
        double goal = goalC();
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
                        Optional.of(goal), new StageEnd.MeltShown(), 1.6 * peakS),
                new Stage("Cool", Stage.Purpose.COOL, Optional.empty(), Optional.empty(), Optional.empty(),
                        new StageEnd.SafeToMove(), 300)),
                LIMITS);
    }

    private static double part(double roomC, double airC, double share) {
        return Math.rint(roomC + share * (airC - roomC));
    }

    /** What the peak waits for, in whole degrees as it is shown, and no less than the limits ask. */
    private double wantedC() {
        double least = plan.target().joint().alloy().liquidusC() + LIMITS.overLiquidusK();
        return Math.max(least, Math.rint(least));
    }

    private double goalC() {
        return Math.rint(plan.target().joint().alloy().liquidusC() + LIMITS.overLiquidusK());
    }

    /** How hot the coldest ball became, and how fast joint or sheet rose at most. */
    private record Heated(double jointC, double fastestKPerS) {}

    private record Try(int airC, Blows blows) {}

    private Heated heat(int airC, Blows blows) {
        return tried.computeIfAbsent(new Try(airC, blows), t -> heated(recipe(airC, blows)));
    }

    private Heated heated(Recipe recipe) {
        return walked(recipe, peakS);
    }

    /** @param seconds that the last stage of heat is given */
    private Heated walked(Recipe recipe, double seconds) {
        HeatModel model = cold.copy();
        double solidusC = plan.target().joint().alloy().solidusC();
        var joint = new Trace();
        var sheet = new Trace();
        double fastest = 0;
        double now = 0;
        for (Stage stage : recipe.stages()) {
            if (stage.purpose() == Stage.Purpose.COOL) {
                break;
            }
            double most = stage.end() instanceof StageEnd.AfterTime t
                    ? t.seconds()
                    : stage.purpose() == Stage.Purpose.PEAK ? seconds : stage.latestS();
            for (double s = 0; s < most && !reached(stage, model); s += STEP_S) {
                model.advance(HeatInput.of(stage.heaterC(), stage.air()), STEP_S);
                now += STEP_S;
                // Once balls are liquid nothing boils out of the paste any more; catching up after the melt does no harm.
                if (model.jointMaxC() < solidusC) {
                    joint.add(now, model.jointCentreC());
                    fastest = steeper(fastest, joint, now);
                    if (plan.loose()) {
                        sheet.add(now, model.probeC(plan.bench().probes().getFirst()));
                        fastest = steeper(fastest, sheet, now);
                    }
                }
            }
        }
        return new Heated(model.jointMinC(), fastest);
    }

    /** A stage that waits for a probe ends when that is warm; how long it then holds is left out. */
    private boolean reached(Stage stage, HeatModel model) {
        return stage.end() instanceof StageEnd.ProbeReaches goal && plan.bench().probes().stream()
                .filter(p -> p.name().equals(goal.probe()))
                .anyMatch(p -> model.probeC(p) >= goal.celsius());
    }

    private static double steeper(double fastest, Trace trace, double now) {
        double slope = trace.slope(now - ProbeWatch.RAMP_WINDOW_S, now);
        return slope > fastest ? slope : fastest;
    }
}
