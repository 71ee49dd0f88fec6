package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.forming.Act;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;

/**
 * What a run came to, as the fields of a record of type {@code run}: read from its events and the checkpoints of the estimate, one every five
 * seconds, so that any log gives it. What its events do not tell is left out.
 */
final class RunDigest {
    /** Rates are taken over at least this, s: two checkpoints and their noise. */
    private static final double RATE_WINDOW_S = 9.5;
    /** Under this a wash or flux meets no hot work, °C. */
    private static final double HAND_WARM_C = 40;
    /** A stage that ends this far from its goal was ended before it, K: the half-width of the estimate. */
    private static final double NEAR_GOAL_K = 10;

    /** Checkpoints lie so far apart, s. */
    private static final double CHECKPOINT_S = 5;
    /** Over its solidus by this a joint is liquid beyond what an estimate can err, K. */
    private static final double LIQUID_K = 10;

    private final RunPlan plan;
    private final List<RunEvent> events;
    private final List<RunEvent.Checkpoint> points;
    private final Map<String, Object> fields = new LinkedHashMap<>();

    private RunDigest(RunPlan plan, List<RunEvent> events) {
        this.plan = plan;
        this.events = events;
        points = of(RunEvent.Checkpoint.class);
    }

    static Map<String, Object> of(RunPlan plan, List<RunEvent> events, Verdict verdict) {
        var digest = new RunDigest(plan, events);
        digest.outcome(verdict);
        digest.settings();
        digest.stages(verdict);
        digest.rates();
        if (plan.task() == RunPlan.Task.FORM) {
            digest.hands();
        }
        return digest.fields;
    }

    private <T extends RunEvent> List<T> of(Class<T> kind) {
        return events.stream().filter(kind::isInstance).map(kind::cast).toList();
    }

    private void put(String field, double value) {
        if (Double.isFinite(value)) {
            fields.put(field, Math.round(value * 10) / 10.0);
        }
    }

    private void outcome(Verdict verdict) {
        fields.put("bead", plan.bead());
        fields.put("kind", plan.task().name().toLowerCase(Locale.ROOT));
        fields.put("recipe", plan.recipe().id());
        fields.put("outcome", verdict.outcome().name().toLowerCase(Locale.ROOT));
        fields.put("proven", verdict.outcome() == Verdict.Outcome.PROVEN);
        fields.put("evidence", Arrays.stream(Evidence.Kind.values()).filter(verdict.melt()::has)
                .map(k -> k.name().toLowerCase(Locale.ROOT)).toList());
        fields.put("points", (double) verdict.melt().points());
        put("peak_c", verdict.peakJointC());
        put("top_c", verdict.peakTopC());
        put("above_s", verdict.aboveLiquidusS());
        if (!verdict.neighboursMelted().isEmpty()) {
            fields.put("melted", verdict.neighboursMelted());
        }
        if (!points.isEmpty()) {
            put("end_c", points.getLast().hottestC());
        }
    }

    private void settings() {
        Recipe recipe = plan.recipe();
        int reached = points.stream().mapToInt(RunEvent.Checkpoint::stage).max()
                .orElse(recipe.stages().size() - 1);
        put("air_planned_c", hottestAir(recipe, reached));
        double air = hottestAir(recipe, reached);
        for (RunEvent.Changed change : of(RunEvent.Changed.class)) {
            air = Math.max(air, change.stage().air().map(a -> a.setC()).orElse(Double.NEGATIVE_INFINITY));
            recipe = recipe.with(change.index(), change.stage());
        }
        put("air_c", air);
        recipe.stages().stream().filter(s -> s.purpose() == Stage.Purpose.PEAK).findFirst()
                .ifPresent(this::peak);
        fields.put("differs", !of(RunEvent.Changed.class).isEmpty());
        recipe.stages().stream().filter(s -> s.purpose() == Stage.Purpose.PEAK)
                .flatMap(s -> s.jointGoalC().stream()).max(Double::compare)
                .ifPresent(c -> put("target_c", c));
    }

    /** What a like chip is compared with. */
    private void peak(Stage peak) {
        peak.heaterC().ifPresent(c -> put("heater_c", c));
        peak.air().ifPresent(a -> {
            put("peak_air_c", a.setC());
            put("flow_lpm", a.flowLpm());
            put("nozzle_mm", a.nozzleMm());
            put("distance_mm", a.distanceMm());
        });
    }

    private static double hottestAir(Recipe recipe, int reached) {
        return recipe.stages().stream().limit(reached + 1L).flatMap(s -> s.air().stream())
                .mapToDouble(a -> a.setC()).max().orElse(Double.NaN);
    }

    /** Stages that were ended early, the soak that fell short, and whether the peak was ended. */
    private void stages(Verdict verdict) {
        List<Stage> stages = plan.recipe().stages();
        int reached = points.isEmpty() ? 0 : points.getLast().stage();
        boolean off = said(Say.HEAT_OFF).isPresent();
        int peak = -1;
        for (int i = 0; i < stages.size(); i++) {
            peak = stages.get(i).purpose() == Stage.Purpose.PEAK ? i : peak;
        }
        fields.put("peak_ended", verdict.outcome() != Verdict.Outcome.BROKEN_OFF && peak >= 0
                && (reached > peak || off));
        int skipped = 0;
        double shortest = 0;
        double soakShort = Double.NaN;
        for (int i = 0; i < Math.min(reached, stages.size()); i++) {
            Stage stage = stages.get(i);
            int index = i;
            List<RunEvent.Checkpoint> in = points.stream().filter(p -> p.stage() == index).toList();
            if (in.isEmpty()) {
                continue;
            }
            double from = in.getFirst().timeS();
            double to = points.stream().filter(p -> p.stage() > index).mapToDouble(p -> p.timeS()).min()
                    .orElse(in.getLast().timeS());
            double reachedC = in.stream().mapToDouble(RunEvent.Checkpoint::jointC).max().orElse(Double.NaN);
            double shortK = stage.jointGoalC().map(c -> c - reachedC).orElse(Double.NaN);
            boolean word = of(RunEvent.Said.class).stream()
                    .anyMatch(s -> s.word() == Say.GO_ON && s.timeS() >= from - 5 && s.timeS() <= to + 5);
            if (word && shortK > NEAR_GOAL_K) {
                skipped++;
            }
            if (stage.purpose() == Stage.Purpose.SOAK && Double.isFinite(shortK)) {
                soakShort = Double.isNaN(soakShort) ? shortK : Math.max(soakShort, shortK);
            }
            // Checkpoints lie five seconds apart on either side.
            if (word && stage.end() instanceof StageEnd.AfterTime after) {
                shortest = Math.max(shortest, after.seconds() - (to - from) - 10);
            }
        }
        fields.put("skipped", (double) skipped);
        put("short_s", shortest);
        put("soak_short_k", soakShort);
    }

    private OptionalDouble said(Say word) {
        return of(RunEvent.Said.class).stream().filter(s -> s.word() == word).mapToDouble(RunEvent::timeS)
                .findFirst();
    }

    private OptionalDouble acted(Act act) {
        return of(RunEvent.Acted.class).stream().filter(a -> a.act() == act).mapToDouble(RunEvent::timeS)
                .findFirst();
    }

    /** The estimate between two checkpoints; the nearest one outside of them. */
    private double at(double timeS, ToDoubleFunction<RunEvent.Checkpoint> what) {
        RunEvent.Checkpoint before = null;
        for (RunEvent.Checkpoint p : points) {
            if (p.timeS() > timeS) {
                if (before == null) {
                    return what.applyAsDouble(p);
                }
                double part = (timeS - before.timeS()) / (p.timeS() - before.timeS());
                return what.applyAsDouble(before)
                        + part * (what.applyAsDouble(p) - what.applyAsDouble(before));
            }
            before = p;
        }
        return before == null ? Double.NaN : what.applyAsDouble(before);
    }

    private void rates() {
        double off = said(Say.HEAT_OFF).orElse(acted(Act.HEAT_OFF).orElse(Double.POSITIVE_INFINITY));
        double rise = Double.NaN;
        double fall = Double.NaN;
        double drop = 0;
        var window = new ArrayList<RunEvent.Checkpoint>();
        double highest = Double.NEGATIVE_INFINITY;
        int stage = -1;
        for (RunEvent.Checkpoint p : points) {
            window.add(p);
            while (window.size() > 2 && p.timeS() - window.get(1).timeS() >= RATE_WINDOW_S) {
                window.removeFirst();
            }
            double span = p.timeS() - window.getFirst().timeS();
            if (span >= RATE_WINDOW_S) {
                double rate = (p.jointC() - window.getFirst().jointC()) / span;
                rise = Double.isNaN(rise) ? rate : Math.max(rise, rate);
                fall = window.getFirst().timeS() >= off && !(-rate < fall) ? -rate : fall;
            }
            boolean cools = p.timeS() >= off || p.stage() < plan.recipe().stages().size()
                    && plan.recipe().stages().get(p.stage()).purpose() == Stage.Purpose.COOL;
            highest = p.stage() == stage && !cools ? Math.max(highest, p.jointC()) : p.jointC();
            stage = p.stage();
            drop = cools ? drop : Math.max(drop, highest - p.jointC());
        }
        put("ramp_cps", rise);
        put("cool_cps", fall);
        put("drop_c", drop);
        of(RunEvent.Said.class).stream().filter(s -> s.word() == Say.MOVED)
                .mapToDouble(s -> at(s.timeS(), RunEvent.Checkpoint::hottestC)).max()
                .ifPresent(c -> put("moved_c", c));
    }

    /** What hands did at stencil and jig. */
    private void hands() {
        double solidus = plan.target().joint().alloy().solidusC();
        double off = acted(Act.HEAT_OFF).orElse(Double.POSITIVE_INFINITY);
        double heat = acted(Act.HEAT).orElse(Double.POSITIVE_INFINITY);
        double solid = points.stream().filter(p -> p.timeS() > off && p.hottestC() < solidus)
                .mapToDouble(RunEvent.Checkpoint::timeS).min().orElse(Double.NaN);
        for (Act act : List.of(Act.SLIDE, Act.PICK_OUT)) {
            acted(act).ifPresent(t -> {
                fields.put("release", act == Act.SLIDE ? "slide" : "pick");
                // The joint froze up to five seconds before the checkpoint that shows it; without one nobody knows.
                boolean liquid = points.stream().filter(p -> Math.abs(p.timeS() - t) <= CHECKPOINT_S)
                        .anyMatch(p -> p.jointC() > solidus + LIQUID_K);
                if (Double.isFinite(solid) && solid <= t + CHECKPOINT_S) {
                    put("released_s", Math.max(0, t - (solid - CHECKPOINT_S)));
                } else if (liquid) {
                    put("released_s", 0);
                }
            });
        }
        fields.put("ironed", acted(Act.IRON).isPresent());
        fields.put("let_go", acted(Act.LET_GO).stream().anyMatch(t -> t > heat && t < off));
        fields.put("fluxed_hot", of(RunEvent.Acted.class).stream()
                .anyMatch(a -> a.act() == Act.FLUX && a.timeS() > heat && a.timeS() < off));
        of(RunEvent.Acted.class).stream().filter(a -> a.act() == Act.WASH)
                .mapToDouble(a -> at(a.timeS(), RunEvent.Checkpoint::hottestC)).max()
                .ifPresent(c -> put("washed_c", c > HAND_WARM_C ? c : Double.NaN));
        of(RunEvent.Resumed.class).stream().mapToDouble(RunEvent.Resumed::awayS).max()
                .ifPresent(s -> put("pause_s", s));
    }
}
