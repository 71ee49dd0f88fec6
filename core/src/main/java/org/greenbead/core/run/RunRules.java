package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.Limits;
import org.greenbead.core.recipe.StageEnd;

/** The rules that judge a run while it goes. Each looks at one moment and returns what it sees. */
final class RunRules {
    private static final double LAG_SPACING_S = 25;
    /** Half of the last digit that is shown: a rate that reads as the limit is not over it. */
    static final double SHOWN_K_PER_S = 0.05;

    /** Findings that stay on the screen after their moment. */
    static boolean stays(Rule rule) {
        return switch (rule) {
            case MOVED_BEFORE_SOLID, COOLED_TOO_FAST, MELT_DOUBTED, RESUMED_AFTER_GAP, EVIDENCE_FELL,
                    SIGHT_DOUBTED ->
                true;
            default -> false;
        };
    }

    List<Finding> look(RunView run) {
        var found = new ArrayList<Finding>();
        link(run, found);
        boolean heating = run.status() == RunState.Status.HEATING || run.status() == RunState.Status.MOLTEN;
        ramps(run, heating, found);
        if (heating) {
            lag(run, found);
            overrun(run, found);
            limits(run, found);
        }
        return found;
    }

    private static void link(RunView run, List<Finding> found) {
        if (!run.linkUp()) {
            found.add(Finding.of(Rule.LINK_LOST, "logger", Severity.STOP,
                    new Quantity.TempC(run.joint().celsius()), new Quantity.RiseK(run.joint().plusMinusK())));
        }
    }

    private static void ramps(RunView run, boolean heating, List<Finding> found) {
        Limits limits = run.plan().recipe().limits();
        double joint = run.jointTrace().isEmpty()
                ? Double.NaN
                : run.jointTrace().slope(run.timeS() - ProbeWatch.RAMP_WINDOW_S, run.timeS());
        double fastest = joint;
        String where = run.plan().target().name();
        for (ProbeWatch probe : run.probes().values()) {
            double slope = probe.good() ? probe.rampKPerS() : Double.NaN;
            if (Double.isNaN(fastest) || heating && slope > fastest || !heating && slope < fastest) {
                fastest = slope;
                where = probe.place().name();
            }
        }
        if (heating && fastest > limits.rampUpKPerS() + SHOWN_K_PER_S) {
            found.add(Finding.of(Rule.RAMP_UP, "ramp", Severity.CARE, new Quantity.Name(where),
                    new Quantity.RateKPerS(fastest),
                    new Quantity.RateKPerS(limits.rampUpKPerS())));
        }
        if (run.status() == RunState.Status.COOLING && fastest < -limits.rampDownKPerS() - SHOWN_K_PER_S) {
            found.add(Finding.of(Rule.COOLED_TOO_FAST, "ramp", Severity.CARE, new Quantity.Name(where),
                    new Quantity.RateKPerS(-fastest),
                    new Quantity.RateKPerS(limits.rampDownKPerS())));
        }
    }

    /** Three readings tell where the board will settle; when that is under what the stage wants, say which set-point cures it. */
    private static void lag(RunView run, List<Finding> found) {
        Optional<BottomHeater> heater = run.plan().bench().heater();
        if (heater.isEmpty() || !(run.stage().end() instanceof StageEnd.ProbeReaches goal)
                || run.stage().heaterC().isEmpty()
                || run.stage().air().isPresent()
                || !Double.isNaN(run.reachedSinceS()) || run.sinceChangeS() < 2 * LAG_SPACING_S + 15) {
            return;
        }
        ProbeWatch probe = run.probes().get(goal.probe());
        if (probe == null || !probe.good()) {
            return;
        }
        double t1 = probe.trace().median(run.timeS() - 2 * LAG_SPACING_S - 4, 4);
        double t2 = probe.trace().median(run.timeS() - LAG_SPACING_S - 4, 4);
        double t3 = probe.trace().median(run.timeS() - 4, 4);
        double set = run.stage().heaterC().get();
        double room = run.plan().bench().ambientC();
        double leftS = run.stage().latestS() - run.stageS();
        HeatLag.from(t1, t2, t3, LAG_SPACING_S).ifPresent(lag -> {
            boolean late = lag.arrivesInS(goal.celsius()).orElse(Double.POSITIVE_INFINITY) > Math.max(10,
                    leftS);
            if (late && lag.plateauC() > room + 5 && set > room + 5) {
                double wanted = Math.max(goal.celsius() + 8,
                        lag.plateauToReach(goal.celsius(),
                                Math.max(30, leftS - heater.get().tauHeatS())));
                double cure = Math.rint(
                        Math.min(heater.get().maxC(), lag.curingSetC(wanted, set, room)) / 5)
                        * 5;
                if (cure <= set + 2) {
                    return;
                }
                Finding finding = Finding.of(Rule.HEATER_LAG, run.stage().name(), Severity.CARE,
                        new Quantity.TempC(set),
                        new Quantity.TempC(probe.trace().last()), new Quantity.Seconds(run.stageS()),
                        new Quantity.TempC(lag.plateauC()),
                        new Quantity.TempC(goal.celsius()), new Quantity.TempC(cure),
                        new Quantity.Seconds(run.stage().latestS()));
                found.add(finding.with(new Remedy.SetHeater(run.stageIndex(), cure)));
            }
        });
    }

    private static void overrun(RunView run, List<Finding> found) {
        if (run.stageS() > run.stage().latestS()) {
            found.add(Finding.of(Rule.STAGE_OVERRAN, run.stage().name(), Severity.CARE,
                    new Quantity.Name(run.stage().name()),
                    new Quantity.Seconds(run.stageS()), new Quantity.Seconds(run.stage().latestS())));
        }
        if (run.aboveS() > run.plan().recipe().limits().longestMeltS()) {
            found.add(
                    Finding.of(Rule.MELT_TOO_LONG, "melt", Severity.CARE, new Quantity.Seconds(run.aboveS()),
                            new Quantity.Seconds(run.plan().recipe().limits().longestMeltS())));
        }
    }

    private static void limits(RunView run, List<Finding> found) {
        List<Protected> parts = Protected.of(run.plan());
        for (int i = 0; i < parts.size(); i++) {
            Protected part = parts.get(i);
            Room room = run.room().get(i + 1);
            double allowed = part.limitC() - part.marginK();
            boolean nowOver = room.nowC() > allowed;
            if (nowOver || room.peakC() > allowed) {
                found.add(PlanRules.limit(part, nowOver ? room.nowC() : room.peakC(),
                        nowOver && room.nowC() > part.limitC() ? Severity.STOP : Severity.CARE));
            }
        }
    }

    List<Finding> movedEarly(RunView run, double movingC) {
        return List.of(Finding.of(Rule.MOVED_BEFORE_SOLID, "board", Severity.STOP,
                new Quantity.TempC(run.joint().celsius()), new Quantity.TempC(movingC),
                new Quantity.Seconds(run.timeS())));
    }

    List<Finding> meltDoubted(Estimate cold, Alloy alloy) {
        return List.of(Finding.of(Rule.MELT_DOUBTED, "melt", Severity.CARE,
                new Quantity.TempC(cold.celsius()), new Quantity.RiseK(cold.plusMinusK()),
                new Quantity.TempC(alloy.solidusC())));
    }

    List<Finding> sightDoubted(Estimate hot, Alloy alloy) {
        return List.of(Finding.of(Rule.SIGHT_DOUBTED, "melt", Severity.CARE,
                new Quantity.TempC(hot.celsius()), new Quantity.RiseK(hot.plusMinusK()),
                new Quantity.TempC(alloy.solidusC())));
    }

    List<Finding> evidenceFell(List<Evidence> fallen) {
        return fallen.stream()
                .map(e -> Finding.of(Rule.EVIDENCE_FELL, e.kind().name().toLowerCase(java.util.Locale.ROOT),
                        Severity.STOP,
                        new Quantity.Word("evidence." + e.kind().name().toLowerCase(java.util.Locale.ROOT)),
                        new Quantity.Seconds(e.timeS()), new Quantity.TempC(e.jointC())))
                .toList();
    }

    List<Finding> resumed(double awayS) {
        return List.of(Finding.of(Rule.RESUMED_AFTER_GAP, "run", Severity.CARE, new Quantity.Seconds(awayS)));
    }

    /** Which of two findings of the same rule and subject is kept: the graver, of equals the steeper rate where they tell one, else the later. */
    static Finding kept(Finding before, Finding now) {
        int graver = now.severity().compareTo(before.severity());
        if (graver != 0) {
            return graver > 0 ? now : before;
        }
        return rate(now) >= rate(before) ? now : before;
    }

    private static double rate(Finding finding) {
        return finding.rule() == Rule.RAMP_UP || finding.rule() == Rule.COOLED_TOO_FAST
                ? finding.gaps().stream().mapToDouble(
                        gap -> gap instanceof Quantity.RateKPerS r ? r.kelvinPerSecond() : Double.NaN)
                        .filter(r -> !Double.isNaN(r)).findFirst().orElse(0)
                : 0;
    }
}
