package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.Limits;
import org.greenbead.core.run.Protected;
import org.greenbead.core.run.Room;
import org.greenbead.core.run.RunPlan;

/**
 * One thing that a recipe must keep, and how much room it leaves.
 *
 * @param kind   what is limited
 * @param part   designator of the part, or of the target
 * @param what   the same in words
 * @param value  reached: °C, K/s, s or K, as the kind says
 * @param limit  allowed, same unit
 * @param room   allowed minus reached, or reached minus wanted; negative when broken
 * @param scale  room that an uncalibrated bench ought to have, same unit: about one standard deviation of the prediction
 * @param ward   what stands behind the limit
 */
public record Constraint(Kind kind, String part, Phrase what, double value, double limit, double room,
        double scale, Ward ward) {
    /** What stands behind a limit; where not all can be kept, the earlier is spared at the cost of the later. */
    public enum Ward {
        /** A cell that could vent: rather no melt than that. */
        PERSON,
        /** The only copy of data: a melt that costs it is worth nothing. */
        IRREPLACEABLE,
        /** What the heat is for. */
        MELT,
        /** Joints of another chip. */
        JOINTS,
        /** Body of the chip in hand. */
        BODY,
        /** Parts that can be bought, and how gently the heat goes. */
        REST
    }

    /** What is limited. */
    public enum Kind {
        /** Coldest joint, °C, at least liquidus and what the job wants over it. */
        MELT,
        /** Body of the target, °C. */
        BODY,
        /** Joints of another chip, °C. */
        JOINTS,
        /** A part with a limit of its own, °C. */
        PART,
        /** Rise of the joint, K/s. */
        RAMP,
        /** Time above liquidus, s. */
        MELT_TIME,
        /** Hottest minus coldest joint at the end of the heat, K. */
        SPREAD
    }

    /** Judgement: beyond this a large package bends and its corners may not join. */
    public static final double WIDEST_SPREAD_K = 15;

    /**
     * Room in units of its scale; the smallest of a plan is the one that binds. A peak ends when the joints are as hot as wanted, so
     * once they are, melting leaves little room by design and does not bind.
     */
    public double ease() {
        return kind == Kind.MELT && room >= 0 ? 3 + room / scale : room / scale;
    }

    public boolean kept() {
        return room >= 0;
    }

    /** Everything that a recipe must keep, the tightest first. */
    public static List<Constraint> of(RunPlan plan, Outcome outcome) {
        Limits limits = plan.recipe().limits();
        String target = plan.target().name();
        var name = new Quantity.Name(target);
        var all = new ArrayList<Constraint>();
        double wanted = plan.target().joint().alloy().liquidusC() + limits.overLiquidusK();
        all.add(new Constraint(Kind.MELT, target, Phrase.of("limit.melt", name), outcome.peakMinC(), wanted,
                outcome.peakMinC() - wanted, 3, Ward.MELT));
        List<Protected> parts = Protected.of(plan);
        for (int i = 0; i < parts.size(); i++) {
            Protected part = parts.get(i);
            Kind kind = switch (part.kind()) {
                case BODY -> Kind.BODY;
                case JOINTS -> Kind.JOINTS;
                case PART, MUST_MELT -> Kind.PART;
            };
            all.add(atMost(kind, part.name(), part.what(), outcome.guardedPeakC()[i],
                    part.limitC() - part.marginK(), part.kind() == Room.Kind.BODY ? 7 : 5,
                    Wards.of(plan, part)));
        }
        all.add(atMost(Kind.RAMP, target, Phrase.of("limit.ramp", name), outcome.fastestKPerS(),
                limits.rampUpKPerS(), 0.4, Ward.REST));
        all.add(atMost(Kind.MELT_TIME, target, Phrase.of("limit.melt_time", name), outcome.aboveLiquidusS(),
                limits.longestMeltS(), 20, Ward.REST));
        all.add(atMost(Kind.SPREAD, target, Phrase.of("limit.spread", name), outcome.spreadK(),
                WIDEST_SPREAD_K,
                3, Ward.REST));
        all.sort(Comparator.comparingDouble(Constraint::ease));
        return List.copyOf(all);
    }

    /** The same with another limit: what would be if it were that. */
    public Constraint limitedTo(double other) {
        return new Constraint(kind, part, what, value, other,
                kind == Kind.MELT ? value - other : other - value,
                scale, ward);
    }

    boolean sameAs(Constraint other) {
        return kind == other.kind && part.equals(other.part);
    }

    /** The same with one limit elsewhere. */
    static List<Constraint> of(RunPlan plan, Outcome outcome, Constraint moved) {
        return of(plan, outcome).stream().map(c -> c.sameAs(moved) ? c.limitedTo(moved.limit()) : c)
                .sorted(Comparator.comparingDouble(Constraint::ease)).toList();
    }

    private static Constraint atMost(Kind kind, String part, Phrase what, double value, double limit,
            double scale, Ward ward) {
        return new Constraint(kind, part, what, value, limit, limit - value, scale, ward);
    }
}
