package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.kind.BoardKind;
import org.greenbead.core.kind.PackageKind;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.run.Protected;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunPlan;

/**
 * What it costs that something was assumed and not measured: the same settings for the same times ({@link Drive#onClock}) on the boards that
 * this one may be as well. Not a spread but a question to the technician: which one thing is worth measuring before the heat.
 */
public final class GuessCost {
    /** Laminates as they are sold, mm (IPC-4101 and the usual stock lists; verify). */
    private static final double[] LAMINATES_MM = {0.4, 0.6, 0.8, 1.0, 1.2, 1.6, 2.0, 2.4, 3.2};
    /** A body of the only build there is: so much thinner or thicker. Judgement. */
    private static final double BODY_PART = 0.75;
    /** Less than this is not worth a measurement, K: under what stays open of any bench. Judgement. */
    static final double MATTERS_K = 2;
    private static final double SAME_K = 0.5;
    private static final List<String> COMMON_ALLOYS = List.of("SAC305", "Sn63Pb37");

    private GuessCost() {
    }

    /**
     * One way in which it may be otherwise.
     *
     * @param instead     what it may be
     * @param peakK       how much higher the peak of the coldest joint then is; negative: lower
     * @param overK       how far that peak then lies over the liquidus
     * @param melts       whether every joint still melts by the recipe's own margin
     * @param over        what then goes over its limit and did not before
     */
    public record Case(Phrase instead, double peakK, double marginK, boolean melts, List<Phrase> over) {
        public Case {
            over = List.copyOf(over);
        }

        /** Whether something would go wrong. */
        public boolean harms() {
            return !melts || !over.isEmpty();
        }
    }

    /**
     * @param assumed by the names of {@link Assumed}
     * @param widthK  from the least margin of the melt to the greatest, what was taken included
     * @param cases   each other way it may be
     */
    public record Guess(String assumed, double widthK, List<Case> cases) {
        public Guess {
            cases = List.copyOf(cases);
        }

        public boolean harms() {
            return cases.stream().anyMatch(Case::harms);
        }

        public boolean matters() {
            return harms() || widthK >= MATTERS_K;
        }

        /** How it is found out. */
        public Phrase wayToKnow() {
            return Phrase.of("guess.know." + Assumed.what(assumed), new Quantity.Name(Assumed.chip(assumed)));
        }

        /** Named, with what each other way would do to the melt. */
        public Phrase names() {
            return Phrase.of("assumed." + Assumed.what(assumed), new Quantity.Name(Assumed.chip(assumed)));
        }
    }

    private record Base(Outcome outcome, double overK, List<Protected> parts) {}

    /** What is tried: a board otherwise, and how that is said. */
    private record Other(Phrase instead, Board board) {}

    /**
     * Each assumption of the board and of the chip that is worked, the one that moves most first. Empty where nothing that the heat feels is
     * assumed, or where balls are made on a loose chip.
     *
     * @param cancelled asked between steps; when true what was reckoned so far
     */
    public static List<Guess> of(RunPlan plan, BooleanSupplier cancelled) {
        if (plan.task() == RunPlan.Task.FORM) {
            return List.of();
        }
        var guesses = new ArrayList<Guess>();
        Base base = null;
        for (String assumed : Assumed.ofTarget(plan.board(), plan.job().target())) {
            List<Other> others = others(plan, assumed);
            if (others.isEmpty() || cancelled.getAsBoolean()) {
                continue;
            }
            if (base == null) {
                base = base(plan, cancelled);
            }
            var cases = new ArrayList<Case>();
            for (Other other : others) {
                if (cancelled.getAsBoolean()) {
                    return sorted(guesses);
                }
                cases.add(tried(plan, base, other));
            }
            double most = cases.stream().mapToDouble(Case::marginK).max().orElse(0);
            double least = cases.stream().mapToDouble(Case::marginK).min().orElse(0);
            guesses.add(new Guess(assumed, Math.max(0, most) - Math.min(0, least), cases));
        }
        return sorted(guesses);
    }

    private static List<Guess> sorted(List<Guess> guesses) {
        return guesses.stream()
                .sorted(Comparator.comparing(Guess::harms).thenComparing(Guess::widthK).reversed())
                .toList();
    }

    private static Base base(RunPlan plan, BooleanSupplier cancelled) {
        Outcome outcome = Drive.of(plan, plan.recipe(), RunEngine.nominalModel(plan), cancelled);
        return new Base(outcome, outcome.peakMinC() - liquidusC(plan), Protected.of(plan));
    }

    private static double liquidusC(RunPlan plan) {
        return plan.target().joint().alloy().liquidusC();
    }

    private static Case tried(RunPlan plan, Base base, Other other) {
        RunPlan changed = plan.with(other.board);
        Outcome outcome = Drive.onClock(changed, plan.recipe(), RunEngine.nominalModel(changed),
                base.outcome);
        double overK = outcome.peakMinC() - liquidusC(changed);
        List<Protected> parts = Protected.of(changed);
        List<Phrase> over = IntStream.range(0, Math.min(parts.size(), base.parts.size()))
                .filter(i -> outcome.guardedPeakC()[i] > parts.get(i).limitC()
                        && base.outcome.guardedPeakC()[i] <= base.parts.get(i).limitC())
                .mapToObj(i -> parts.get(i).what()).toList();
        // A recipe that is content with less than its own margin is not blamed for that here.
        double wanted = Math.min(plan.recipe().limits().overLiquidusK(), base.overK);
        return new Case(other.instead, outcome.peakMinC() - base.outcome.peakMinC(), overK - base.overK,
                overK >= wanted - 1e-9, over);
    }

    private static List<Other> others(RunPlan plan, String assumed) {
        return switch (Assumed.what(assumed)) {
            case "thickness" -> thicknesses(plan.board());
            case "copper" -> coppers(plan.board());
            case "package" -> bodies(plan.board(), plan.target());
            case "alloy" -> alloys(plan.board(), plan.target());
            // How often it was melted does not change a degree.
            default -> List.of();
        };
    }

    /** The next thinner and the next thicker laminate. */
    private static List<Other> thicknesses(Board board) {
        var others = new ArrayList<Other>();
        double thinner = IntStream.range(0, LAMINATES_MM.length).mapToDouble(i -> LAMINATES_MM[i])
                .filter(t -> t < board.thicknessMm() - 0.05).max().orElse(Double.NaN);
        double thicker = IntStream.range(0, LAMINATES_MM.length).mapToDouble(i -> LAMINATES_MM[i])
                .filter(t -> t > board.thicknessMm() + 0.05).min().orElse(Double.NaN);
        for (double t : new double[]{thinner, thicker}) {
            if (!Double.isNaN(t)) {
                others.add(
                        new Other(Phrase.of("guess.thickness", new Quantity.Millimetres(t)), board.thick(t)));
            }
        }
        return others;
    }

    /** Usual builds with the next less and the next more copper, on the same laminate. */
    private static List<Other> coppers(Board board) {
        double own = copperUm(board.copperLayers(), board.copperUm(), board.copperCoverage());
        var others = new ArrayList<Other>();
        Comparator<BoardKind> much = Comparator.comparing(GuessCost::copperUm);
        BoardKind.shipped().stream().filter(k -> copperUm(k) < own * 0.99).max(much)
                .ifPresent(k -> others.add(other(board, k)));
        BoardKind.shipped().stream().filter(k -> copperUm(k) > own * 1.01).min(much)
                .ifPresent(k -> others.add(other(board, k)));
        return others;
    }

    private static Other other(Board board, BoardKind k) {
        return new Other(Phrase.of("guess.copper", new Quantity.Count(k.copperLayers()),
                new Quantity.Count(Math.round(k.copperUm()))),
                board.copper(k.copperLayers(), k.copperUm(),
                        k.copperCoverage()));
    }

    private static double copperUm(BoardKind k) {
        return copperUm(k.copperLayers(), k.copperUm(), k.copperCoverage());
    }

    private static double copperUm(int layers, double um, double coverage) {
        return layers * um * coverage;
    }

    /** Usual bodies that look the same from outside; where there is none, the same a quarter thinner and a third thicker. */
    private static List<Other> bodies(Board board, Chip chip) {
        Layer outside = chip.layers().getLast();
        List<Layer> own = chip.layers().stream().skip(1).toList();
        var others = new ArrayList<Other>();
        for (PackageKind k : PackageKind.shipped()) {
            List<Layer> body = k.body(chip.sizeMm());
            if (same(body.getLast(), outside) && !body.equals(own)) {
                others.add(new Other(Phrase.of("guess.package", new Quantity.Word("packagekind." + k.id())),
                        board.with(chip.built(body))));
            }
        }
        if (others.isEmpty()) {
            for (double part : new double[]{BODY_PART, 1 / BODY_PART}) {
                others.add(new Other(
                        Phrase.of("guess.body", new Quantity.Millimetres(part * chip.bodyMm())),
                        board.with(chip.built(own.stream().map(l -> scaled(l, part)).toList()))));
            }
        }
        return others;
    }

    private static boolean same(Layer a, Layer b) {
        return a instanceof Layer.Plain p && b instanceof Layer.Plain q
                ? p.material() == q.material()
                : a.getClass() == b.getClass();
    }

    private static Layer scaled(Layer l, double by) {
        return switch (l) {
            case Layer.Plain p -> new Layer.Plain(p.material(), p.thicknessMm() * by);
            case Layer.Die d -> new Layer.Die(d.thicknessMm() * by, d.dieMm(), d.inVoid());
            case Layer.Joint j -> j;
        };
    }

    private static List<Other> alloys(Board board, Chip chip) {
        return COMMON_ALLOYS.stream().filter(a -> !a.equals(chip.joint().alloy().name())).map(a -> {
            Alloy alloy = Alloys.require(a);
            return new Other(Phrase.of("guess.alloy", new Quantity.Name(alloy.name())),
                    board.with(chip.soldered(alloy)));
        }).toList();
    }

    /** What one other way does to the joint, in words. */
    public static Phrase says(Case c) {
        if (Math.abs(c.peakK() - c.marginK()) > SAME_K) {
            return Phrase.of(c.marginK() > 0 ? "guess.sooner" : "guess.later",
                    new Quantity.RiseK(Math.abs(c.marginK())));
        }
        return Phrase.of(c.peakK() >= 0 ? "guess.hotter" : "guess.cooler",
                new Quantity.RiseK(Math.abs(c.peakK())));
    }

    /** What then goes wrong, in words; empty where nothing does. */
    public static List<Phrase> harms(Case c) {
        var harms = new ArrayList<Phrase>();
        if (!c.melts()) {
            harms.add(Phrase.of("guess.cold"));
        }
        if (!c.over().isEmpty()) {
            harms.add(Phrase.of("guess.over", new Quantity.Count(c.over().size())));
        }
        return harms;
    }
}
