package org.greenbead.core.run;

import java.util.ArrayDeque;
import java.util.Map;
import java.util.Set;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.thermal.HeatInput;

/**
 * What an estimate was made of, so that it can be made again without a probe that turned out false. Holds a quarter of an hour at least; what is
 * older has been put into the state it begins with.
 */
final class Recollection {
    private static final double SPACING_S = 2;
    private static final int MOST = 1200;
    private JointEstimator base;
    private final ArrayDeque<Step> steps = new ArrayDeque<>();

    /** Something that moved the estimate on: time, a sweep of believed readings, or a sight. */
    private sealed interface Step {
        record Went(HeatInput input, double stepS, boolean unseen) implements Step {}

        record Read(double timeS, Map<ProbePlace, Double> celsius) implements Step {}

        record Saw(Sight sight, double solidusC, double liquidusC) implements Step {}
    }

    Recollection(JointEstimator start) {
        base = start.copy();
    }

    void went(HeatInput input, double stepS, boolean unseen) {
        if (steps.peekLast() instanceof Step.Went last && last.unseen() == unseen
                && last.input().equals(input) && last.stepS() + stepS <= SPACING_S + 1e-9) {
            steps.removeLast();
            steps.addLast(new Step.Went(input, last.stepS() + stepS, unseen));
        } else {
            steps.addLast(new Step.Went(input, stepS, unseen));
        }
        if (steps.size() > MOST) {
            for (int i = 0; i < MOST / 4; i++) {
                take(base, steps.removeFirst(), Set.of());
            }
        }
    }

    /** Of several sweeps within two seconds the last stands for all. */
    void read(double timeS, Map<ProbePlace, Double> celsius) {
        if (!celsius.isEmpty() && !(steps.peekLast() instanceof Step.Read)) {
            double since = 0;
            for (var i = steps.descendingIterator(); i.hasNext();) {
                Step step = i.next();
                if (step instanceof Step.Read) {
                    break;
                }
                since += step instanceof Step.Went w ? w.stepS() : 0;
            }
            if (since >= SPACING_S - 1e-9 || steps.stream().noneMatch(Step.Read.class::isInstance)) {
                steps.addLast(new Step.Read(timeS, Map.copyOf(celsius)));
            }
        }
    }

    void saw(Sight sight, double solidusC, double liquidusC) {
        steps.addLast(new Step.Saw(sight, solidusC, liquidusC));
    }

    /** The board was warm at the start. */
    void startAt(JointEstimator again) {
        base = again.copy();
        steps.clear();
    }

    /** The estimate as it would stand had these probes never been believed. */
    JointEstimator without(Set<String> probes) {
        JointEstimator again = base.copy();
        for (Step step : steps) {
            take(again, step, probes);
        }
        return again;
    }

    /** The estimate as it would stand had two probes been taken for one another, which from now on they are. */
    JointEstimator crossed(ProbePlace a, ProbePlace b, boolean forGood) {
        var other = new ArrayDeque<Step>();
        for (Step step : steps) {
            if (step instanceof Step.Read r && r.celsius().containsKey(a) && r.celsius().containsKey(b)) {
                var turned = new java.util.HashMap<>(r.celsius());
                turned.put(a, r.celsius().get(b));
                turned.put(b, r.celsius().get(a));
                other.addLast(new Step.Read(r.timeS(), turned));
            } else {
                other.addLast(step);
            }
        }
        JointEstimator again = base.copy();
        other.forEach(step -> take(again, step, Set.of()));
        if (forGood) {
            steps.clear();
            steps.addAll(other);
        }
        return again;
    }

    /** The same from a time on, s; forgets what they showed for good. @param since for each probe */
    JointEstimator forget(Map<String, Double> since) {
        var kept = new ArrayDeque<Step>();
        for (Step step : steps) {
            if (step instanceof Step.Read r) {
                var rest = new java.util.HashMap<>(r.celsius());
                rest.keySet().removeIf(
                        p -> since.containsKey(p.name()) && r.timeS() >= since.get(p.name()) - 1e-9);
                if (!rest.isEmpty()) {
                    kept.addLast(new Step.Read(r.timeS(), rest));
                }
            } else {
                kept.addLast(step);
            }
        }
        steps.clear();
        steps.addAll(kept);
        return without(Set.of());
    }

    private static void take(JointEstimator on, Step step, Set<String> without) {
        switch (step) {
            case Step.Went w -> {
                if (w.unseen()) {
                    on.advanceUnseen(w.input(), w.stepS());
                } else {
                    on.advance(w.input(), w.stepS());
                }
            }
            case Step.Read r -> {
                r.celsius().entrySet().stream().filter(e -> !without.contains(e.getKey().name()))
                        .sorted(java.util.Comparator.comparing(e -> e.getKey().name()))
                        .forEach(e -> on.correct(e.getKey(), e.getValue()));
                on.swept();
            }
            case Step.Saw s -> on.saw(s.sight(), s.solidusC(), s.liquidusC());
        }
    }
}
