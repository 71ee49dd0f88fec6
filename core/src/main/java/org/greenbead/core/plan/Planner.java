package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import java.util.stream.Collectors;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Shield;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;

/**
 * Finds a recipe for a plan: searches each school with the search model from several starts on all cores, proves the best on the
 * full model, mends the search where the full model disagrees, and tries the result on the benches that this one may be.
 */
public final class Planner {
    /** Benches that a plan is tried on. */
    public static final int MEMBERS = 32;
    private static final long SEED = 417;
    /** A prediction of the full model may still cost this much room before the search is mended, in units of the limit's scale. */
    private static final double NEAR = 0.3;

    private final RunPlan plan;
    private final Uncertainty uncertainty;
    private final Effort effort;

    /**
     * How much it may try. Nothing here is a time: the same plan has the same answer on every machine, however busy it is.
     *
     * @param evaluations recipes tried per start, at most
     * @param members     benches that the answer is tried on
     * @param mends       whether the search is repeated where the full model disagrees
     */
    public record Effort(int evaluations, int members, boolean mends) {
        public static final Effort USUAL = new Effort(110, MEMBERS, true);
        /** For pricing a way out. */
        static final Effort SHORT = new Effort(45, 8, false);
    }

    public Planner(RunPlan plan, Uncertainty uncertainty, Effort effort) {
        this.plan = plan;
        this.uncertainty = uncertainty;
        this.effort = effort;
    }

    /**
     * The best recipe of a school.
     *
     * @param progress  told the part done, 0 to 1, from any thread
     * @param cancelled asked between recipes
     * @throws CancellationException when cancelled
     * @throws IllegalArgumentException when the bench has not got what the school needs
     */
    public Answer answer(School school, DoubleConsumer progress, BooleanSupplier cancelled) {
        return answer(school, progress, cancelled, () -> false);
    }

    /**
     * The same, and a person may have enough of the search: what was best so far is then proved like any other.
     *
     * @param enough asked between recipes; the answer says that it was cut short
     */
    public Answer answer(School school, DoubleConsumer progress, BooleanSupplier cancelled,
            BooleanSupplier enough) {
        return answer(school, Freedom.USUAL, progress, cancelled, enough);
    }

    private Answer answer(School school, Freedom freedom, DoubleConsumer progress,
            BooleanSupplier cancelled, BooleanSupplier enough) {
        if (!school.possible(plan)) {
            throw new IllegalArgumentException("bench " + plan.bench().id()
                    + " has no plate that touches the board; choose another school");
        }
        RunPlan free = freed(freedom);
        Resolution resolution = Resolution.SEARCH;
        Found found = search(free, school, freedom, resolution, c -> 0, progress, cancelled, enough,
                effort);
        int tried = found.tried;
        boolean cut = enough.getAsBoolean();
        Proved proved = prove(free, found, resolution, cancelled);
        if (!proved.drift.small()) {
            // The board asks for more cells than the search used.
            resolution = Resolution.SEARCH_FINER;
            proved = prove(free, found, resolution, cancelled);
        }
        progress.accept(0.75);
        if (effort.mends() && proved.worse() && !cut) {
            // The full model sees less room than the search did: search again with what it said taken into account.
            Proved said = proved;
            Found again = search(free, school, freedom, resolution, said::correction, d -> {
            }, cancelled, enough, new Effort(effort.evaluations() / 4, 0, false), found);
            tried += again.tried;
            Proved mended = prove(free, again, resolution, cancelled);
            proved = mended.worstEase() > proved.worstEase() ? mended : proved;
        }
        progress.accept(0.85);
        Robustness robustness = Robustness.of(free, proved.recipe, uncertainty, effort.members(), SEED,
                Resolution.OBSERVER,
                cancelled);
        check(cancelled);
        progress.accept(1);
        return new Answer(school, free.with(proved.recipe), proved.recipe, proved.full,
                Constraint.of(free, proved.full), proved.drift, robustness, tried,
                2 * effort.evaluations(), cut);
    }

    private static void check(BooleanSupplier cancelled) {
        if (cancelled.getAsBoolean()) {
            throw new CancellationException("planning was cancelled");
        }
    }

    private RunPlan freed(Freedom freedom) {
        RunPlan free = freedom.shields().isEmpty()
                ? plan
                : plan.with(plan.recipe().shielded(freedom.shields()));
        if (freedom.joints().isEmpty()) {
            return free;
        }
        Chip chip = plan.target();
        var layers = new ArrayList<Layer>(chip.layers());
        Layer.Joint joint = chip.joint();
        layers.set(0,
                new Layer.Joint(joint.thicknessMm(), joint.pitchMm(), joint.ballMm(), freedom.joints().get(),
                        joint.underfilled(), joint.coverage()));
        return free.with(free.board().with(new Chip(chip.name(), chip.part(), chip.side(), chip.centreMm(),
                chip.sizeMm(), layers, chip.bodyLimitC(), chip.melts(), chip.meltsLimit(), chip.floorLifeH(),
                chip.openH())));
    }

    private record Found(Design design, double[] shares, double cost, int tried) {}

    private record Proved(RunPlan plan, Recipe recipe, Outcome search, Outcome full, Outcome.Drift drift) {
        double worstEase() {
            return Constraint.of(plan, full).getFirst().ease();
        }

        boolean worse() {
            double said = Constraint.of(plan, search).getFirst().ease();
            return worstEase() < Math.min(said, 2) - NEAR || worstEase() < 0 && said >= 0;
        }

        /** What to add to the search model's room for a limit, same unit. */
        double correction(Constraint constraint) {
            return room(full, constraint) - room(search, constraint);
        }

        private double room(Outcome outcome, Constraint wanted) {
            return Constraint.of(plan, outcome).stream()
                    .filter(c -> c.kind() == wanted.kind() && c.part().equals(wanted.part())).findFirst()
                    .map(Constraint::room).orElse(0.0);
        }
    }

    private Proved prove(RunPlan free, Found found, Resolution resolution, BooleanSupplier cancelled) {
        Recipe clocked = found.design.rounded(found.shares).shielded(free.recipe().shields());
        Outcome first = Drive.of(free, clocked, new SheetModel(free.scene(), uncertainty.mean(), resolution),
                cancelled);
        Recipe recipe = Design.onEvidence(free, clocked, first);
        Outcome search = Drive.of(free, recipe, new SheetModel(free.scene(), uncertainty.mean(), resolution),
                cancelled);
        Outcome full = Drive.of(free, recipe,
                new SheetModel(free.scene(), uncertainty.mean(), Resolution.FULL),
                cancelled);
        check(cancelled);
        Outcome clock = Drive.onClock(free, recipe,
                new SheetModel(free.scene(), uncertainty.mean(), resolution), full);
        return new Proved(free, recipe, search, full, full.against(clock));
    }

    private Found search(RunPlan free, School school, Freedom freedom, Resolution resolution,
            Search.Corrections corrections, DoubleConsumer progress, BooleanSupplier cancelled,
            BooleanSupplier enough, Effort allowed, Found... from) {
        BooleanSupplier stopped = () -> cancelled.getAsBoolean() || enough.getAsBoolean();
        List<Start> starts = from.length > 0
                ? List.of(new Start(from[0].design, from[0].shares, true),
                        new Start(from[0].design, from[0].shares, false))
                : starts(free, school, freedom);
        var done = new java.util.concurrent.atomic.AtomicInteger();
        int all = starts.size() * allowed.evaluations();
        List<Found> results = starts.parallelStream().map(start -> {
            Search search = new Search(free, start.design, uncertainty.mean(), resolution, corrections,
                    stopped, () -> progress.accept(0.7 * done.incrementAndGet() / all), cost -> {
                    });
            if (start.trustRegion) {
                search.bobyqa(start.shares, from.length > 0 ? 0.08 : 0.2, allowed.evaluations());
            } else {
                search.cmaes(start.shares, from.length > 0 ? 0.1 : 0.25, allowed.evaluations(),
                        (int) SEED);
            }
            return new Found(start.design, search.best() == null ? start.shares : search.best(),
                    search.bestCost(),
                    search.tried());
        }).toList();
        check(cancelled);
        Found best = results.stream().min(Comparator.comparingDouble(Found::cost)).orElseThrow();
        return new Found(best.design, best.shares, best.cost, results.stream().mapToInt(Found::tried).sum());
    }

    private record Start(Design design, double[] shares, boolean trustRegion) {}

    /** The nozzle that suits the chip with the one optimiser, the next in the drawer with the other. */
    private List<Start> starts(RunPlan free, School school, Freedom freedom) {
        List<Double> nozzles = freedom.nozzleMm().map(List::of).orElseGet(() -> suiting(free));
        var starts = new ArrayList<Start>();
        for (int i = 0; i < 2; i++) {
            double nozzle = nozzles.get(Math.min(i, nozzles.size() - 1));
            var design = new Design(free, school, nozzle, freedom);
            starts.add(new Start(design, design.first(), i == 0));
        }
        return starts;
    }

    /** Nozzles of the drawer, the one nearest to the chip's side first. */
    private static List<Double> suiting(RunPlan plan) {
        double side = Math.min(plan.target().sizeMm().xMm(), plan.target().sizeMm().yMm());
        return plan.bench().air().nozzlesMm().stream()
                .sorted(Comparator.comparingDouble(n -> Math.abs(Math.log(n / (0.9 * side))))).limit(2)
                .toList();
    }

    /**
     * What would help, each way with the answer that it leads to, the most helpful first.
     *
     * @param progress told the part done
     */
    public List<WayOut> waysOut(Answer answer, DoubleConsumer progress, BooleanSupplier cancelled) {
        var ways = new ArrayList<WayOut>();
        List<Priced> asked = asked(answer);
        var quick = new Planner(plan, uncertainty, Effort.SHORT);
        for (int i = 0; i < asked.size(); i++) {
            check(cancelled);
            Priced priced = asked.get(i);
            ways.add(new WayOut(priced.way, priced.what,
                    quick.answer(priced.school, priced.freedom, d -> {
                    }, cancelled, () -> false)));
            progress.accept((i + 1.0) / asked.size());
        }
        ways.sort(Comparator.comparingDouble(w -> -w.answer().binding().ease()));
        return List.copyOf(ways);
    }

    private record Priced(WayOut.Way way, Quantity what, School school, Freedom freedom) {}

    private List<Priced> asked(Answer answer) {
        var asked = new ArrayList<Priced>();
        School school = answer.school();
        boolean air = school != School.PLATE;
        double used = answer.recipe().stages().stream().flatMap(s -> s.air().stream())
                .mapToDouble(a -> a.nozzleMm())
                .max().orElse(0);
        if (air) {
            plan.bench().air().nozzlesMm().stream().filter(n -> n > used + 0.5).sorted().findFirst()
                    .ifPresent(
                            n -> asked.add(new Priced(WayOut.Way.WIDER_NOZZLE, name(plain(n) + " mm"), school,
                                    Freedom.USUAL.nozzle(n))));
        }
        asked.add(new Priced(WayOut.Way.LONGER_SOAK, name("2.5"), school, nozzleOf(used, air).soak(2.5)));
        if (school != School.AIR_ALONE) {
            asked.add(new Priced(WayOut.Way.HOTTER_HEATER,
                    new Quantity.TempC(plan.bench().heater().maxC() + 60),
                    school,
                    nozzleOf(used, air).heater(60)));
        }
        foilFor(answer)
                .ifPresent(
                        foil -> asked.add(new Priced(WayOut.Way.SHIELD, name(answer.binding().part()), school,
                                nozzleOf(used, air).shield(foil))));
        // Bismuth is not offered where lead is: together they melt under 100 °C.
        if (!plan.target().joint().alloy().hasPb() && !plan.target().joint().alloy().hasBi()
                && plan.task() == RunPlan.Task.LIFT) {
            asked.add(new Priced(WayOut.Way.DILUTE_FIRST, name("Sn63Pb37"), school,
                    nozzleOf(used, air).diluted(Alloys.require("Sn63Pb37"))));
        }
        for (School other : School.values()) {
            if (other != school && other.possible(plan)) {
                asked.add(new Priced(WayOut.Way.OTHER_SCHOOL, name(other.name()), other, Freedom.USUAL));
            }
        }
        return asked;
    }

    private static Freedom nozzleOf(double used, boolean air) {
        return air ? Freedom.USUAL.nozzle(used) : Freedom.USUAL;
    }

    private static Quantity name(String text) {
        return new Quantity.Name(text);
    }

    private static String plain(double value) {
        return String.format(java.util.Locale.ROOT, "%.0f", value);
    }

    /** Foil over the part that binds, where it lies on top, not under the nozzle's chip. */
    private Optional<Shield> foilFor(Answer answer) {
        String part = answer.binding().part();
        Map<String, Point[]> top = plan.board().chips().stream()
                .filter(c -> c.side() == Side.TOP && !c.name().equals(plan.target().name()))
                .collect(Collectors.toMap(Chip::name, c -> new Point[]{c.centreMm(), c.sizeMm()}));
        plan.board().parts().stream().filter(p -> p.side() == Side.TOP)
                .forEach(p -> top.put(p.name(), new Point[]{p.centreMm(), p.sizeMm()}));
        Point[] at = top.get(part);
        if (at == null) {
            return Optional.empty();
        }
        double x = at[1].xMm() / 2 + 2;
        double y = at[1].yMm() / 2 + 2;
        return Optional.of(new Shield(new Point(at[0].xMm() - x, at[0].yMm() - y),
                new Point(at[0].xMm() + x, at[0].yMm() + y), 0.3, 0.08));
    }
}
