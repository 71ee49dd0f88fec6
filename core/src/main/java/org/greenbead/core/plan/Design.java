package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Placing;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.RunPlan;

/**
 * Turns numbers between 0 and 1 into a recipe of one school, and says within what bounds. Dry-out stages of the plan's own
 * recipe stay in front; cooling stays behind.
 */
final class Design {
    /** Judgement: what a soak is for takes at least this long, and nobody waits longer than the other. */
    private static final String FLOW = "flow";
    private static final String NOZZLE_BESIDE = "nozzle beside";
    private static final String HEATER_BESIDE = "heater beside";
    private static final double SHORTEST_SOAK_S = 90;
    private static final double USUAL_LONGEST_SOAK_S = 600;
    /** Judgement: farther beside the chip the heater warms another corner of the board. */
    private static final double HEATER_BESIDE_MM = 60;
    private static final double PEAK_LATEST_S = 150;
    private final RunPlan plan;
    private final School school;
    private final double nozzleMm;
    private final double shortestSoakS;
    private final double longestSoakS;
    private final double heaterMaxC;
    private final Optional<Point> away;
    private final Freedom freedom;
    private final List<Axis> axes = new ArrayList<>();

    /** One number of the search. */
    private record Axis(String what, double low, double high, double step, double first) {
        double value(double share) {
            return low + share * (high - low);
        }

        double rounded(double share) {
            return Math.clamp(Math.rint(value(share) / step) * step, low, high);
        }

        double share(double value) {
            return Math.clamp((value - low) / (high - low), 0.02, 0.98);
        }
    }

    Design(RunPlan plan, School school, double nozzleMm, Freedom freedom) {
        this.plan = plan;
        this.school = school;
        this.nozzleMm = nozzleMm;
        this.freedom = freedom;
        away = freedom.away();
        boolean loose = plan.loose();
        // A loose chip under a stencil weighs little: paste dries and flux wakes sooner than a board warms.
        shortestSoakS = loose ? 20 : SHORTEST_SOAK_S;
        longestSoakS = (loose ? 0.4 : 1) * USUAL_LONGEST_SOAK_S * freedom.soakFactor();
        heaterMaxC = plan.bench().heater().map(h -> h.maxC() + freedom.heaterExtraC()).orElse(Double.NaN);
        double liquidus = plan.target().joint().alloy().liquidusC();
        double airMax = plan.bench().air().maxC();
        double flowMax = plan.bench().air().maxLpm();
        List<AirDial.Mark> marks = plan.bench().air().dial().marks();
        double flowMin = marks.isEmpty() ? Math.min(8, flowMax / 2) : marks.getFirst().lpm();
        double side = Math.min(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm());
        if (school != School.AIR_ALONE) {
            boolean contact = plan.bench().plate();
            double first = contact ? 150 : Math.min(heaterMaxC * 0.9, liquidus + 10);
            axis("heater", 80, heaterMaxC, 5, first);
            axis("soak", shortestSoakS, longestSoakS, 5, 180);
        }
        switch (school) {
            case PLATE -> {
                axis("plate at the peak", Math.min(liquidus, heaterMaxC - 20), heaterMaxC, 1,
                        Math.min(heaterMaxC - 5, liquidus + 40));
            }
            case HEATER_AND_AIR, AIR_ALONE -> {
                if (school == School.AIR_ALONE) {
                    axis("soak air", 100, Math.min(300, airMax), 5, 200);
                    axis("soak", shortestSoakS, longestSoakS, 5,
                            loose ? 60 : 150);
                }
                axis("approach air", 150, Math.min(380, airMax), 5, Math.min(airMax - 20, liquidus + 60));
                axis("approach", 20, 150, 5, 50);
                axis("peak air", Math.min(liquidus + 20, airMax - 20), airMax, 5,
                        Math.min(airMax - 10, liquidus + 130));
                axis(FLOW, flowMin, flowMax, 1,
                        AirSetting.usualLpm(nozzleMm, 0.8 * flowMax));
                axis("distance", 10, loose ? 90 : 45, 1, loose ? 40 : 20);
                axis("circle", 0, Math.max(2, side / 2), 1, side / 3);
            }
        }
        if (away.isPresent()) {
            axis(NOZZLE_BESIDE, 0, school == School.PLATE ? 1 : Math.max(2, side / 2), 1, 0);
            axis(HEATER_BESIDE, 0, school == School.AIR_ALONE ? 1 : HEATER_BESIDE_MM, 5, 0);
        }
    }

    /** The same numbers to choose from, for another plan of the same board. */
    Design on(RunPlan other) {
        return new Design(other, school, nozzleMm, freedom);
    }

    double nozzleMm() {
        return nozzleMm;
    }

    /** The same numbers for a design that has more of them; what is new begins at its first value. */
    double[] from(double[] shares) {
        double[] all = first();
        System.arraycopy(shares, 0, all, 0, Math.min(shares.length, all.length));
        return all;
    }

    private void axis(String what, double low, double high, double step, double first) {
        axes.add(new Axis(what, low, Math.max(high, low + 1), step, first));
    }

    int size() {
        return axes.size();
    }

    double[] first() {
        return axes.stream().mapToDouble(a -> a.share(a.first())).toArray();
    }

    /** The recipe that the numbers say, its stages ended by the clock. */
    Recipe recipe(double[] shares) {
        return build(
                axes.stream().mapToDouble(a -> a.value(Math.clamp(shares[axes.indexOf(a)], 0, 1))).toArray());
    }

    /** The same in numbers that can be set on a bench. */
    Recipe rounded(double[] shares) {
        return build(axes.stream().mapToDouble(a -> {
            double share = Math.clamp(shares[axes.indexOf(a)], 0, 1);
            return a.what().equals(FLOW)
                    ? plan.bench().air().dial().settable(a.rounded(share))
                    : a.rounded(share);
        }).toArray());
    }

    private Recipe build(double[] v) {
        var stages = new ArrayList<Stage>();
        // With air alone there is nothing that could dry slowly; the rules then ask for a bake beforehand.
        plan.recipe().stages().stream().filter(s -> s.purpose() == Stage.Purpose.DRY_OUT)
                .filter(s -> school != School.AIR_ALONE || s.heaterC().isEmpty()).forEach(stages::add);
        double goal = plan.target().joint().alloy().liquidusC() + plan.recipe().limits().overLiquidusK() + 1;
        switch (school) {
            case PLATE -> {
                stages.add(stage("Soak", Stage.Purpose.SOAK, Optional.of(v[0]), Optional.empty(),
                        new StageEnd.AfterTime(v[1]), v[1]));
                stages.add(peak(Optional.of(v[2]), Optional.empty(), goal));
            }
            case HEATER_AND_AIR -> {
                var heater = Optional.of(v[0]);
                stages.add(stage("Soak", Stage.Purpose.SOAK, heater, Optional.empty(),
                        new StageEnd.AfterTime(v[1]), v[1]));
                stages.add(stage("Ramp up", Stage.Purpose.APPROACH, heater, Optional.of(air(v[2], v, 5)),
                        new StageEnd.AfterTime(v[3]), v[3]));
                stages.add(peak(heater, Optional.of(air(v[4], v, 5)), goal));
            }
            case AIR_ALONE -> {
                stages.add(stage("Soak", Stage.Purpose.SOAK, Optional.empty(), Optional.of(air(v[0], v, 5)),
                        new StageEnd.AfterTime(v[1]), v[1]));
                stages.add(stage("Ramp up", Stage.Purpose.APPROACH, Optional.empty(),
                        Optional.of(air(v[2], v, 5)), new StageEnd.AfterTime(v[3]), v[3]));
                stages.add(peak(Optional.empty(), Optional.of(air(v[4], v, 5)), goal));
            }
        }
        stages.add(new Stage("Cool", Stage.Purpose.COOL, Optional.empty(), Optional.empty(), Optional.empty(),
                new StageEnd.SafeToMove(), 300));
        return new Recipe(plan.recipe().id(), plan.recipe().title(), stages, plan.recipe().limits(),
                plan.recipe().shields(), placing(v), plan.recipe().station());
    }

    /** What a plan already places elsewhere stays there unless the search may move it. */
    private Placing placing(double[] v) {
        if (away.isEmpty()) {
            return plan.recipe().placing();
        }
        Point to = away.get();
        double nozzle = school == School.PLATE ? 0 : v[v.length - 2];
        double heater = school == School.AIR_ALONE ? 0 : v[v.length - 1];
        return new Placing(whole(to, nozzle), whole(to, heater));
    }

    /** To the millimetre, as a hand can place it. */
    private static Point whole(Point to, double far) {
        return new Point(Math.rint(to.xMm() * far) + 0.0, Math.rint(to.yMm() * far) + 0.0);
    }

    /** Flow, distance and circle follow one another from index {@code at}. */
    private AirSetting air(double setC, double[] v, int at) {
        return new AirSetting(setC, v[at], nozzleMm, v[at + 1], v[at + 2]);
    }

    private Stage stage(String name, Stage.Purpose purpose, Optional<Double> heater, Optional<AirSetting> air,
            StageEnd end, double seconds) {
        return new Stage(name, purpose, heater, air, Optional.empty(), end,
                Math.max(10, Math.rint(seconds * 1.4)));
    }

    private Stage peak(Optional<Double> heater, Optional<AirSetting> air, double goal) {
        String name = switch (plan.task()) {
            case SEAT -> "Seat";
            case REFLOW -> "Reflow";
            case FORM -> "Balls";
            case LIFT, CALIBRATE -> "Lift";
        };
        return new Stage(name, Stage.Purpose.PEAK, heater, air, Optional.of(goal), new StageEnd.MeltShown(),
                PEAK_LATEST_S);
    }

    /**
     * Ends the heating stages on what a probe shows instead of on the clock, where a probe on the board can tell: the value
     * that the model shows at the stage's end, rounded down to a degree.
     */
    static Recipe onEvidence(RunPlan plan, Recipe recipe, Outcome outcome) {
        int probe = probeIndex(plan);
        if (probe < 0) {
            return recipe;
        }
        String name = plan.bench().probes().get(probe).name();
        Recipe changed = recipe;
        double before = plan.bench().ambientC();
        for (int i = 0; i < recipe.stages().size() && i < outcome.stages().size(); i++) {
            Stage stage = recipe.stages().get(i);
            double shows = Math.floor(outcome.stages().get(i).probesC()[probe]);
            boolean clocked = stage.end() instanceof StageEnd.AfterTime
                    && stage.purpose() != Stage.Purpose.DRY_OUT
                    && stage.purpose() != Stage.Purpose.PEAK;
            if (clocked && shows > before + 3 && shows >= 30) {
                changed = changed.with(i, stage.withEnd(new StageEnd.ProbeReaches(name, shows, 0)));
            }
            before = outcome.stages().get(i).probesC()[probe];
        }
        return changed;
    }

    private static int probeIndex(RunPlan plan) {
        List<ProbePlace> probes = plan.bench().probes();
        int found = -1;
        for (int i = 0; i < probes.size(); i++) {
            ProbePlace probe = probes.get(i);
            if (probe.role() == ProbePlace.Role.BOARD && (found < 0 || probe.side() == Side.TOP)) {
                found = i;
            }
        }
        return found;
    }
}
