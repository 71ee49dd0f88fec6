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
import org.greenbead.core.recipe.Limits;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Shield;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.LatinHypercube;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;

/**
 * Finds a recipe for a plan: searches each school with the search model on all cores, proves the best on the full model, mends the
 * search where the full model disagrees, puts nozzle and heater beside the chip and foil over what is hurt where not every limit can
 * be kept, and tries the result on the benches that this one may be.
 */
public final class Planner {
    /** Benches that a plan is tried on. */
    public static final int MEMBERS = 32;
    private static final long SEED = 417;
    /** A prediction of the full model may still cost this much room before the search is mended, in units of the limit's scale. */
    private static final double NEAR = 0.3;
    /** Parts of the evaluations that are spent on looking round and on polishing; the rest goes downhill. */
    private static final double LOOK_ROUND = 0.4;
    private static final double POLISHED = 0.2;

    private final RunPlan plan;
    private final Uncertainty uncertainty;
    private final Effort effort;
    private final Optional<Constraint> moved;
    private final Map<School, Found> answered = new java.util.concurrent.ConcurrentHashMap<>();

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
        /** For asking what another limit would bring. */
        static final Effort TRIAL = new Effort(90, MEMBERS, false);
    }

    public Planner(RunPlan plan, Uncertainty uncertainty, Effort effort) {
        this(plan, uncertainty, effort, Optional.empty());
    }

    private Planner(RunPlan plan, Uncertainty uncertainty, Effort effort, Optional<Constraint> moved) {
        this.plan = plan;
        this.uncertainty = uncertainty;
        this.effort = effort;
        this.moved = moved;
    }

    /**
     * What a limit costs: the best recipe if it stood elsewhere, sought from an answer of this planner on, so that what differs comes
     * from the limit and not from the luck of a search.
     *
     * @param limit one of the answer's
     * @param to    where it would stand, in its own unit
     * @throws IllegalArgumentException when this planner has not answered for the school
     */
    public Answer ifLimitWere(Answer answer, Constraint limit, double to, DoubleConsumer progress,
            BooleanSupplier cancelled) {
        Found from = Optional.ofNullable(answered.get(answer.school())).orElseThrow(
                () -> new IllegalArgumentException("nothing was planned for " + answer.school() + " yet"));
        boolean melt = limit.kind() == Constraint.Kind.MELT;
        Limits limits = plan.recipe().limits();
        RunPlan other = melt
                ? plan.with(plan.recipe()
                        .within(limits.overLiquidus(limits.overLiquidusK() + to - limit.limit())))
                : plan;
        return new Planner(other, uncertainty, Effort.TRIAL,
                melt ? Optional.empty() : Optional.of(limit.limitedTo(to)))
                .further(answer, from, new Budget(progress, cancelled, () -> false));
    }

    private Answer further(Answer before, Found from, Budget budget) {
        RunPlan free = plan.with(plan.recipe().shielded(before.recipe().shields()));
        Design design = from.design.on(free);
        int most = effort.evaluations();
        var done = new java.util.concurrent.atomic.AtomicInteger();
        Search search = search(free, design, Resolution.SEARCH, c -> 0, budget,
                () -> budget.progress.accept(0.8 * Math.min(1, done.incrementAndGet() / (double) most)));
        Found end = polish(search, new Found(design, from.shares, null, 0), 0.1, most / 3);
        Search downhill = search(free, design, Resolution.SEARCH, c -> 0, budget,
                () -> budget.progress.accept(0.8 * Math.min(1, done.incrementAndGet() / (double) most)));
        downhill.bobyqa(end.shares, 0.15, most / 3);
        Found best = best(List.of(end, found(design, downhill, end.shares)));
        Found last = polish(search(free, design, Resolution.SEARCH, c -> 0, budget, () -> {
        }), best, 0.05, most / 3);
        check(budget.cancelled);
        Proved proved = prove(free, last, Resolution.SEARCH, budget.cancelled);
        return answer(before.school(), proved, best.tried + last.tried, false, budget);
    }

    private List<Constraint> limits(RunPlan of, Outcome outcome) {
        return moved.map(m -> Constraint.of(of, outcome, m)).orElseGet(() -> Constraint.of(of, outcome));
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
        var budget = new Budget(progress, cancelled, enough);
        RunPlan free = freed(freedom);
        List<Design> designs = designs(free, school, freedom);
        Resolution resolution = Resolution.SEARCH;
        Found found = search(free, designs, resolution, budget);
        int tried = found.tried;
        boolean cut = enough.getAsBoolean();
        Proved proved = prove(free, found, resolution, cancelled);
        if (!proved.drift.small()) {
            // The board asks for more cells than the search used.
            resolution = Resolution.SEARCH_FINER;
            proved = prove(free, found, resolution, cancelled);
        }
        progress.accept(0.7);
        if (effort.mends() && proved.strays() && !cut) {
            // The full model sees less room than the search did: search again with what it said taken into account.
            Found again = mend(free, found, resolution, proved, budget);
            tried += again.tried;
            proved = prove(free, again, resolution, cancelled).better(proved);
        }
        progress.accept(0.78);
        if (effort.mends() && !proved.worth.keepsAll() && !cut) {
            for (Freedom wider : besides(freedom, proved)) {
                Found moved = widen(school, wider, proved, resolution, budget);
                tried += moved.tried;
                proved = prove(freed(wider), moved, resolution, cancelled).better(proved);
            }
        }
        progress.accept(0.85);
        answered.put(school, proved.found);
        return answer(school, proved, tried, cut, budget);
    }

    /**
     * What a recipe that somebody already has would do: nothing is sought, everything is judged as for an answer that was.
     *
     * @throws CancellationException when cancelled
     */
    public Answer judged(Recipe recipe, DoubleConsumer progress, BooleanSupplier cancelled) {
        var budget = new Budget(progress, cancelled, () -> false);
        RunPlan with = plan.with(recipe);
        HeatScene scene = with.scene();
        Outcome full = Drive.of(with, recipe, new SheetModel(scene, uncertainty.mean(), Resolution.FULL),
                cancelled);
        check(cancelled);
        Outcome clock = Drive.onClock(with, recipe,
                new SheetModel(scene, uncertainty.mean(), Resolution.SEARCH), full);
        Robustness robustness = Robustness.of(with, recipe, uncertainty, effort.members(), SEED,
                Resolution.OBSERVER, o -> limits(with, o), cancelled);
        check(cancelled);
        budget.progress.accept(1);
        return new Answer(School.of(with, recipe), with, recipe, full, limits(with, full),
                full.against(clock),
                robustness, 1, 1, false);
    }

    private Answer answer(School school, Proved proved, int tried, boolean cut, Budget budget) {
        RunPlan best = proved.plan.with(proved.recipe);
        Robustness robustness = Robustness.of(best, proved.recipe, uncertainty, effort.members(), SEED,
                Resolution.OBSERVER, o -> limits(best, o), budget.cancelled);
        check(budget.cancelled);
        budget.progress.accept(1);
        return new Answer(school, best, proved.recipe, proved.full, proved.fullLimits, proved.drift,
                robustness, tried, 2 * effort.evaluations(), cut);
    }

    /** Who is told and who may stop it. */
    private record Budget(DoubleConsumer progress, BooleanSupplier cancelled, BooleanSupplier enough) {
        boolean stopped() {
            return cancelled.getAsBoolean() || enough.getAsBoolean();
        }
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

    private record Found(Design design, double[] shares, Worth worth, int tried) {}

    private record Proved(Found found, RunPlan plan, Recipe recipe, Outcome full,
            List<Constraint> searchLimits, List<Constraint> fullLimits, Worth said, Worth worth,
            Outcome.Drift drift) {
        Proved better(Proved before) {
            return worth.compareTo(before.worth) < 0 ? this : before;
        }

        boolean strays() {
            return said.ease() > worth.ease() + NEAR || worth.breaksMoreThan(said);
        }

        /** What to add to the search model's room for a limit, same unit. */
        double correction(Constraint constraint) {
            return room(fullLimits, constraint) - room(searchLimits, constraint);
        }

        private static double room(List<Constraint> limits, Constraint wanted) {
            return limits.stream().filter(wanted::sameAs).findFirst().map(Constraint::room).orElse(0.0);
        }
    }

    private Proved prove(RunPlan free, Found found, Resolution resolution, BooleanSupplier cancelled) {
        Recipe clocked = found.design.rounded(found.shares);
        HeatScene scene = free.with(clocked).scene();
        Outcome first = Drive.of(free, clocked, new SheetModel(scene, uncertainty.mean(), resolution),
                cancelled);
        Recipe recipe = Design.onEvidence(free, clocked, first);
        Outcome search = Drive.of(free, recipe, new SheetModel(scene, uncertainty.mean(), resolution),
                cancelled);
        Outcome full = Drive.of(free, recipe, new SheetModel(scene, uncertainty.mean(), Resolution.FULL),
                cancelled);
        check(cancelled);
        Outcome clock = Drive.onClock(free, recipe, new SheetModel(scene, uncertainty.mean(), resolution),
                full);
        List<Constraint> searched = limits(free, search);
        List<Constraint> proved = limits(free, full);
        return new Proved(found, free, recipe, full, searched, proved,
                Worth.of(searched, search.lengthS(), c -> 0), Worth.of(proved, full.lengthS(), c -> 0),
                full.against(clock));
    }

    private Search search(RunPlan free, Design design, Resolution resolution, Search.Corrections corrections,
            Budget budget, Runnable each) {
        return new Search(free, design, new SheetModel(free.scene(), uncertainty.mean(), resolution),
                changed -> new SheetModel(changed.scene(), uncertainty.mean(), resolution),
                o -> Worth.of(limits(free, o), o.lengthS(), corrections), budget::stopped, each);
    }

    private static Found found(Design design, Search search, double[] otherwise) {
        return new Found(design, search.best() == null ? otherwise : search.best(), search.bestWorth(),
                search.tried());
    }

    /** The best of several, with what all of them tried; the first of equals. */
    private static Found best(List<Found> all) {
        Found best = all.getFirst();
        for (Found one : all) {
            if (one.worth != null && (best.worth == null || one.worth.compareTo(best.worth) < 0)) {
                best = one;
            }
        }
        return new Found(best.design, best.shares, best.worth, all.stream().mapToInt(Found::tried).sum());
    }

    /**
     * Looks round over all that the bench can do, follows the two best places downhill with two optimisers, and polishes the better
     * end one number at a time. What runs side by side never depends on what runs beside it.
     */
    private Found search(RunPlan free, List<Design> designs, Resolution resolution, Budget budget) {
        int all = 2 * effort.evaluations();
        var done = new java.util.concurrent.atomic.AtomicInteger();
        Runnable each = () -> budget.progress.accept(0.65 * Math.min(all, done.incrementAndGet()) / all);
        int round = (int) (all * LOOK_ROUND);
        int polished = (int) (all * POLISHED);
        List<Found> places = designs.parallelStream()
                .map(d -> lookRound(search(free, d, resolution, c -> 0, budget, each), d,
                        round / designs.size()))
                .toList();
        check(budget.cancelled);
        List<Found> sorted = places.stream()
                .sorted(Comparator.comparing(Found::worth, Comparator.nullsLast(Comparator.naturalOrder())))
                .toList();
        int each2 = (all - round - polished) / 2;
        List<Found> downhill = java.util.stream.IntStream.range(0, 2).parallel().mapToObj(i -> {
            Found from = sorted.get(Math.min(i, sorted.size() - 1));
            Search search = search(free, from.design, resolution, c -> 0, budget, each);
            if (i == 0) {
                search.bobyqa(from.shares, 0.15, each2);
            } else {
                search.cmaes(from.shares, 0.2, each2, (int) SEED);
            }
            return found(from.design, search, from.shares);
        }).toList();
        check(budget.cancelled);
        var ends = new java.util.ArrayList<>(places);
        ends.addAll(downhill);
        Found best = best(ends);
        Search last = search(free, best.design, resolution, c -> 0, budget, each);
        Found end = polish(last, best, 0.08, polished);
        return new Found(end.design, end.shares, end.worth, best.tried + end.tried);
    }

    private static Found polish(Search search, Found from, double step, int evaluations) {
        try {
            search.worth(from.shares);
        } catch (CancellationException e) {
            return new Found(from.design, from.shares, from.worth, 0);
        }
        search.polish(step, evaluations - 1);
        return found(from.design, search, from.shares);
    }

    /** Points spread evenly over every number, and the one that a technician would begin with. */
    private static Found lookRound(Search search, Design design, int count) {
        try {
            search.worth(design.first());
            for (double[] shares : LatinHypercube.uniform(count - 1, design.size(), SEED)) {
                search.worth(shares);
            }
        } catch (CancellationException e) {
            return found(design, search, design.first());
        }
        return found(design, search, design.first());
    }

    private Found mend(RunPlan free, Found found, Resolution resolution, Proved said, Budget budget) {
        Search search = search(free, found.design, resolution, said::correction, budget, () -> {
        });
        return polish(search, found, 0.08, effort.evaluations() / 2);
    }

    /** The same recipe with more to choose from. */
    private Found widen(School school, Freedom wider, Proved so, Resolution resolution, Budget budget) {
        RunPlan free = freed(wider);
        var design = new Design(free, school, so.found.design.nozzleMm(), wider);
        Search search = search(free, design, resolution, so::correction, budget, () -> {
        });
        double[] from = design.from(so.found.shares);
        search.bobyqa(from, 0.15, effort.evaluations() / 2);
        Found first = found(design, search, from);
        return polish(search, first, 0.08, effort.evaluations() / 4);
    }

    /** Nozzle and heater off the part that is hurt most, and foil over it where it lies on top. */
    private List<Freedom> besides(Freedom freedom, Proved proved) {
        return proved.fullLimits.stream().filter(c -> !c.kept())
                .filter(c -> c.kind() == Constraint.Kind.JOINTS || c.kind() == Constraint.Kind.PART)
                .min(Comparator.comparing(Constraint::ward)).map(hurt -> {
                    var wider = new ArrayList<Freedom>();
                    Freedom beside = away(hurt.part()).map(freedom::beside).orElse(freedom);
                    if (beside != freedom) {
                        wider.add(beside);
                    }
                    if (freedom.shields().isEmpty() && plan.recipe().shields().isEmpty()) {
                        foilOver(hurt.part()).map(beside::shield).ifPresent(wider::add);
                    }
                    return List.copyOf(wider);
                }).orElse(List.of());
    }

    /** From a part to the chip, of length 1; empty where it lies right under it. */
    private Optional<Point> away(String part) {
        Optional<Point> at = plan.board().chip(part).map(Chip::centreMm)
                .or(() -> plan.board().parts().stream()
                        .filter(p -> p.name().equals(part)).findFirst().map(p -> p.centreMm()));
        Point chip = plan.target().centreMm();
        return at.filter(p -> p.distanceMm(chip) > 1)
                .map(p -> new Point((chip.xMm() - p.xMm()) / p.distanceMm(chip),
                        (chip.yMm() - p.yMm()) / p.distanceMm(chip)));
    }

    /** A design for each nozzle that suits. */
    private List<Design> designs(RunPlan free, School school, Freedom freedom) {
        List<Double> nozzles = school == School.PLATE
                ? suiting(free).subList(0, 1)
                : freedom.nozzleMm().map(List::of).orElseGet(() -> suiting(free));
        return nozzles.stream().map(n -> new Design(free, school, n, freedom)).toList();
    }

    /** Nozzles of the drawer, the one nearest to the chip's side first. */
    static List<Double> suiting(RunPlan plan) {
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
                    new Quantity.TempC(plan.bench().heater().orElseThrow().maxC() + 60),
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
        return foilOver(answer.binding().part());
    }

    private Optional<Shield> foilOver(String part) {
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
