package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.forming.Method;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.Limits;

/** Turns a finished run into a verdict. */
final class Judge {
    private Judge() {
    }

    /**
     * How a run went beside its heat.
     *
     * @param everMolten whether the joints were liquid by all that is known
     * @param byEye      whether no thermocouple was set up
     */
    record Course(boolean brokenOff, boolean everMolten, boolean byEye, List<Finding> raised) {}

    static Verdict judge(RunPlan plan, RunPlan original, HeatAccount account, MeltProof melt,
            StageMachine stages, double lengthS, Course course, Optional<BallLine> balls) {
        double peakJointC = account.peakJointC();
        boolean everMolten = course.everMolten();
        List<Finding> raised = course.raised();
        List<StageMark> marks = stages.marks();
        Alloy alloy = plan.target().joint().alloy();
        Limits limits = plan.recipe().limits();
        var lines = new ArrayList<Verdict.Line>();
        boolean calibrates = plan.task() == RunPlan.Task.CALIBRATE;
        if (calibrates) {
            lines.add(new Verdict.Line(everMolten ? Verdict.Mark.BROKEN : Verdict.Mark.HELD,
                    Phrase.of("verdict.stayed_solid", new Quantity.TempC(peakJointC),
                            new Quantity.TempC(alloy.solidusC()))));
        } else {
            melting(plan, melt, peakJointC, account.aboveS(), lines);
        }
        if (course.byEye() && Double.isFinite(account.peakPlusMinusK())) {
            // One model by itself, as in a rehearsal, knows of no doubt: that is no certainty.
            lines.add(new Verdict.Line(Verdict.Mark.NOT_PROVED, account.peakPlusMinusK() > 0
                    ? Phrase.of("verdict.no_probe", new Quantity.TempC(peakJointC),
                            new Quantity.RiseK(account.peakPlusMinusK()))
                    : Phrase.of("verdict.no_probe_rehearsed", new Quantity.TempC(peakJointC))));
        }
        boolean broken = calibrates ? everMolten : peakJointC < alloy.liquidusC();
        var melted = new ArrayList<String>();
        for (Map.Entry<Protected, Double> entry : account.peaks().entrySet()) {
            Protected part = entry.getKey();
            double peak = entry.getValue();
            boolean over = peak > part.limitC();
            boolean close = peak > part.limitC() - part.marginK();
            broken |= over;
            if (over && part.kind() == Room.Kind.JOINTS) {
                melted.add(part.name());
            }
            lines.add(new Verdict.Line(
                    over ? Verdict.Mark.BROKEN : close ? Verdict.Mark.CARE : Verdict.Mark.HELD,
                    Phrase.of("verdict." + part.kind().name().toLowerCase(java.util.Locale.ROOT),
                            new Quantity.Name(part.name()), new Quantity.TempC(peak),
                            new Quantity.TempC(part.limitC()),
                            new Quantity.RiseK(Math.abs(part.limitC() - peak)))));
        }
        balls.ifPresent(b -> released(b, raised, lines));
        judge(lines, raised, Rule.RAMP_UP, "verdict.ramp", new Quantity.RateKPerS(limits.rampUpKPerS()));
        judge(lines, raised, Rule.COOLED_TOO_FAST, "verdict.cooling",
                new Quantity.RateKPerS(limits.rampDownKPerS()));
        boolean moved = raised.stream().anyMatch(f -> f.rule() == Rule.MOVED_BEFORE_SOLID);
        boolean safe = marks.stream().anyMatch(m -> m.endedBy() == StageMark.EndedBy.SAFE);
        lines.add(new Verdict.Line(
                moved ? Verdict.Mark.BROKEN : safe ? Verdict.Mark.HELD : Verdict.Mark.NOT_PROVED,
                Phrase.of(moved ? "verdict.moved" : safe ? "verdict.solid" : "verdict.solid.unknown")));
        for (Finding finding : raised) {
            switch (finding.rule()) {
                case PROBE_LOST, PROBE_FROZEN, PROBE_DISAGREES, PROBES_SWAPPED, PROBE_JUMPED,
                        PROBE_IMPOSSIBLE, PROBE_OFF_AT_START, PROBES_ALL_LOW, PROBES_ALL_HIGH ->
                    lines.add(new Verdict.Line(Verdict.Mark.NOT_PROVED,
                            Phrase.of("verdict.probe", new Quantity.Name(finding.subject()))));
                case LINK_LOST ->
                    lines.add(new Verdict.Line(Verdict.Mark.NOT_PROVED, Phrase.of("verdict.link")));
                case RESUMED_AFTER_GAP -> lines.add(new Verdict.Line(Verdict.Mark.NOT_PROVED,
                        Phrase.of("verdict.gap", finding.gaps().getFirst())));
                default -> {
                }
            }
        }
        for (int i = 0; i < plan.recipe().stages().size(); i++) {
            if (!plan.recipe().stages().get(i).equals(original.recipe().stages().get(i))) {
                lines.add(new Verdict.Line(Verdict.Mark.CARE, Phrase.of("verdict.changed",
                        new Quantity.Name(plan.recipe().stages().get(i).name()))));
            }
        }
        broken |= moved;
        Verdict.Outcome outcome = course.brokenOff() || !stages.over()
                ? Verdict.Outcome.BROKEN_OFF
                : broken
                        ? Verdict.Outcome.LIMIT_BROKEN
                        : melt.strength() == MeltProof.Strength.PROVEN && peakJointC >= alloy.liquidusC()
                                && safe
                                        ? Verdict.Outcome.PROVEN
                                        : Verdict.Outcome.WORKED;
        return new Verdict(outcome, lines, peakJointC, account.aboveS(), account.peakTopC(), lengthS, melt,
                everMolten, melted,
                course.byEye()
                        ? Optional.of(account.peakPlusMinusK()).filter(Double::isFinite)
                        : Optional.empty());
    }

    /** Whether the joints melted, how hot and how long. */
    private static void melting(RunPlan plan, MeltProof melt, double peakJointC, double aboveS,
            List<Verdict.Line> lines) {
        Alloy alloy = plan.target().joint().alloy();
        Limits limits = plan.recipe().limits();
        var name = new Quantity.Name(plan.target().name());
        lines.add(new Verdict.Line(switch (melt.strength()) {
            case PROVEN -> Verdict.Mark.HELD;
            case PROBABLE, UNPROVEN -> Verdict.Mark.NOT_PROVED;
        }, Phrase.of("verdict.melt", name,
                new Quantity.Word("melt." + melt.strength().name().toLowerCase(java.util.Locale.ROOT)),
                evidence(melt))));
        double wanted = alloy.liquidusC() + limits.overLiquidusK();
        lines.add(new Verdict.Line(
                peakJointC >= wanted
                        ? Verdict.Mark.HELD
                        : peakJointC >= alloy.liquidusC() ? Verdict.Mark.NOT_PROVED : Verdict.Mark.BROKEN,
                Phrase.of("verdict.peak", new Quantity.TempC(peakJointC), new Quantity.TempC(wanted))));
        lines.add(new Verdict.Line(
                aboveS <= limits.longestMeltS()
                        ? aboveS > 0 ? Verdict.Mark.HELD : Verdict.Mark.NOT_PROVED
                        : Verdict.Mark.CARE,
                Phrase.of("verdict.above", new Quantity.Seconds(aboveS),
                        new Quantity.TempC(alloy.liquidusC()), new Quantity.Seconds(limits.longestMeltS()))));
    }

    /** At which temperature the stencil came off, and what was done out of its order. */
    private static void released(BallLine balls, List<Finding> raised, List<Verdict.Line> lines) {
        double at = balls.releasedC();
        if (Double.isFinite(at) && balls.forming().method() == Method.PASTE) {
            lines.add(new Verdict.Line(
                    balls.window().soft(at)
                            ? Verdict.Mark.HELD
                            : at > balls.window().highC() ? Verdict.Mark.BROKEN : Verdict.Mark.CARE,
                    Phrase.of("verdict.released", new Quantity.TempC(at),
                            new Quantity.TempC(balls.window().lowC()),
                            new Quantity.TempC(balls.window().highC()))));
        }
        for (Finding finding : raised) {
            if (finding.rule() == Rule.ACT_WRONG || finding.rule() == Rule.ACT_AT_A_PRICE) {
                lines.add(new Verdict.Line(
                        finding.rule() == Rule.ACT_WRONG ? Verdict.Mark.BROKEN : Verdict.Mark.CARE,
                        Phrase.of("verdict.act", finding.gaps().get(0), finding.gaps().get(2))));
            }
        }
    }

    private static void judge(List<Verdict.Line> lines, List<Finding> raised, Rule rule, String key,
            Quantity limit) {
        var found = raised.stream().filter(f -> f.rule() == rule).findFirst();
        lines.add(found
                .map(f -> new Verdict.Line(Verdict.Mark.CARE,
                        Phrase.of(key + ".over", f.gaps().get(1), limit)))
                .orElseGet(() -> new Verdict.Line(Verdict.Mark.HELD, Phrase.of(key, limit))));
    }

    /** What proved it, the strongest pair of what stands. */
    private static Quantity evidence(MeltProof melt) {
        if (melt.probeAtJoint()) {
            return new Quantity.Word("melt.by.probe");
        }
        if (melt.nudge()) {
            return new Quantity.Word(melt.plateau()
                    ? "melt.by.nudge.plateau"
                    : melt.estimate()
                            ? "melt.by.nudge.estimate"
                            : melt.eye() ? "melt.by.nudge.eye" : "melt.by.nudge");
        }
        return new Quantity.Word(
                melt.estimate() ? "melt.by.estimate" : melt.eye() ? "melt.by.eye" : "melt.by.none");
    }
}
