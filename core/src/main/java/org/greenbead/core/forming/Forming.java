package org.greenbead.core.forming;

import java.util.List;
import java.util.OptionalDouble;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.quantity.Check;

/**
 * How far the balls of one chip are, and what may be done next. Immutable; an act gives another one. An act that is wrong is taken as done, for
 * that is what happened on the bench: paste that slid is wiped off and begun again. Heat alone is refused.
 *
 * @param passes     fills since the holes were last empty
 * @param fluxed     flux lies on pads or balls
 * @param wiped      what was over is off
 * @param brushed    no crumbs between the balls
 * @param again      the second melt is meant, without a stencil
 * @param firstS     when the first ball shone, s; NaN before
 * @param solidS     when the balls were solid, s; NaN before
 * @param restarts   how often it was begun anew
 */
public record Forming(Method method, Stand stand, int passes, boolean fluxed, boolean wiped, boolean brushed,
        boolean again, double firstS, double solidS, int restarts) {
    /** Along and across: what one pass leaves open the other fills. */
    private static final int PASSES = 2;
    /** Solvent on work that is hotter than this flashes off, and its vapour may burn, °C; judgement of the trade. */
    private static final double WASH_C = 40;

    public Forming {
        Check.present("method", method);
        Check.present("stand", stand);
    }

    /** A clean chip, or one that already lies under its stencil. */
    public static Forming begin(Method method, boolean aligned) {
        return new Forming(method, aligned ? Stand.ALIGNED : Stand.CLEAN, 0, false, false, false, false,
                Double.NaN, Double.NaN, 0);
    }

    /** A chip whose balls are solid and free, to be melted once more under flux. */
    public static Forming shaping(Method method) {
        return new Forming(method, Stand.RELEASED, 0, false, false, false, true, Double.NaN, Double.NaN, 0);
    }

    /** What an act would be now. @param ballsC temperature of the balls, where it is known */
    public Judged ask(Act act, Alloy balls, OptionalDouble ballsC) {
        Judged usual = ActTable.shipped().look(method, act, stand);
        if (usual.rating() == Judged.Rating.RIGHT) {
            String missing = missing(act);
            if (!missing.isEmpty()) {
                return judged(act, Judged.Rating.WRONG, missing);
            }
        }
        return warmth(usual, ReleaseWarm.of(balls), ballsC);
    }

    /** What has to come first though the state would allow it. */
    private String missing(Act act) {
        return switch (act) {
            case ALIGN -> method == Method.PASTE && fluxed ? "slides" : "";
            case HOLD -> stand == Stand.FILLED && !wiped ? "wipe_first" : "";
            case FILL -> method == Method.SPHERES && !fluxed ? "flux_first" : "";
            case SETTLE -> !brushed ? "crumbs" : !fluxed ? "dry_melt" : "";
            default -> "";
        };
    }

    private Judged warmth(Judged usual, ReleaseWarm window, OptionalDouble ballsC) {
        if (ballsC.isEmpty()) {
            return usual;
        }
        double c = ballsC.getAsDouble();
        if (usual.act() == Act.WASH && usual.rating() == Judged.Rating.RIGHT && c > WASH_C) {
            return judged(Act.WASH, Judged.Rating.WRONG, "hot_solvent");
        }
        boolean slides = stand == Stand.SOLID && method == Method.PASTE
                && (usual.act() == Act.SLIDE || usual.act() == Act.PICK_OUT);
        if (slides && c > window.highC()) {
            return judged(usual.act(), Judged.Rating.WRONG, "too_warm");
        }
        return usual.act() == Act.SLIDE && slides && c < window.lowC() && window.possible()
                ? judged(Act.SLIDE, Judged.Rating.CARE, "too_cold")
                : usual;
    }

    private Judged judged(Act act, Judged.Rating rating, String why) {
        return new Judged(act, rating, "why." + method.name().toLowerCase(java.util.Locale.ROOT) + "." + why);
    }

    /** Every act of this way of working that has sense now. */
    public List<Judged> all(Alloy balls, OptionalDouble ballsC) {
        return ActTable.shipped().acts(method).stream().map(a -> ask(a, balls, ballsC))
                .filter(j -> j.rating() != Judged.Rating.IDLE).toList();
    }

    /** The act that leads on. */
    public Act next(Alloy balls, OptionalDouble ballsC) {
        return switch (stand) {
            case CLEAN -> fluxed ? Act.WASH : Act.ALIGN;
            case ALIGNED -> method == Method.SPHERES && !fluxed ? Act.FLUX : Act.FILL;
            case FILLED -> wiped
                    ? Act.HOLD
                    : method == Method.PASTE && passes < PASSES ? Act.FILL : Act.WIPE;
            case HELD -> Act.HEAT;
            case FORMING -> Double.isNaN(firstS) ? Act.FIRST_BALL : Act.HEAT_OFF;
            case SOLID -> ask(Act.SLIDE, balls, ballsC).why().endsWith("too_cold") ? Act.WARM : Act.SLIDE;
            case RELEASED -> !brushed ? Act.BRUSH : !fluxed ? Act.FLUX : Act.SETTLE;
            case SETTLED -> Act.WASH;
        };
    }

    /** After an act at {@code atS}. What has no sense changes nothing. */
    public Forming after(Act act, double atS, Alloy balls) {
        Judged now = ask(act, balls, OptionalDouble.empty());
        // Heat is in nobody's hand before it is asked for: where it is wrong it is not begun.
        boolean refused = now.rating() == Judged.Rating.WRONG && (act == Act.HEAT || act == Act.SETTLE);
        if (now.rating() == Judged.Rating.IDLE || refused) {
            return this;
        }
        return switch (act) {
            case ALIGN -> switch (stand) {
                case CLEAN -> at(Stand.ALIGNED);
                case FILLED, HELD -> spoilt();
                default -> this;
            };
            case FLUX -> withFlux();
            case FILL -> fill();
            case WIPE -> stand == Stand.FILLED || stand == Stand.HELD ? wipe(true) : this;
            case HOLD -> stand == Stand.FILLED && wiped ? at(Stand.HELD) : this;
            case HEAT -> stand.ordinal() <= Stand.HELD.ordinal() ? at(Stand.FORMING) : this;
            case FIRST_BALL -> Double.isNaN(firstS)
                    ? new Forming(method, stand, passes, fluxed, wiped, brushed, again, atS, solidS, restarts)
                    : this;
            case LET_GO -> stand == Stand.FILLED || stand == Stand.HELD ? spoilt() : this;
            case SLIDE, PICK_OUT -> switch (stand) {
                case FILLED, HELD -> spoilt();
                case FORMING, SOLID -> freed();
                default -> this;
            };
            case BRUSH -> stand == Stand.RELEASED
                    ? new Forming(method, stand, passes, fluxed, wiped, true, again, firstS, solidS, restarts)
                    : this;
            case SETTLE -> stand == Stand.RELEASED
                    ? new Forming(method, Stand.FORMING, passes, fluxed, wiped, brushed, true, Double.NaN,
                            Double.NaN, restarts)
                    : this;
            case WASH -> stand == Stand.CLEAN || stand == Stand.SETTLED
                    ? new Forming(method, stand, passes, false, wiped, brushed, again, firstS, solidS,
                            restarts)
                    : this;
            case BLOT, HEAT_OFF, WARM, IRON -> this;
        };
    }

    /** Begun with heat, whatever was said before: the melt is what counts from here. */
    public Forming heated() {
        return at(Stand.FORMING);
    }

    /** The balls are solid, with the margin that lets them bear a touch. */
    public Forming solid(double atS) {
        return stand == Stand.FORMING
                ? new Forming(method, again ? Stand.SETTLED : Stand.SOLID, passes, fluxed, wiped, brushed,
                        again,
                        firstS, atS, restarts)
                : this;
    }

    private Forming at(Stand now) {
        return new Forming(method, now, passes, fluxed, wiped, brushed, again, firstS, solidS, restarts);
    }

    private Forming wipe(boolean done) {
        return new Forming(method, stand, passes, fluxed, done, brushed, again, firstS, solidS, restarts);
    }

    private Forming fill() {
        return switch (stand) {
            case ALIGNED, FILLED, HELD ->
                new Forming(method, Stand.FILLED, passes + 1, fluxed, false, brushed, again, firstS, solidS,
                        restarts);
            default -> this;
        };
    }

    private Forming withFlux() {
        boolean slides = method == Method.PASTE
                ? stand.ordinal() <= Stand.HELD.ordinal()
                : stand == Stand.FILLED || stand == Stand.HELD;
        if (slides) {
            Forming anew = spoilt();
            return new Forming(method, anew.stand, 0, true, false, false, again, Double.NaN, Double.NaN,
                    anew.restarts);
        }
        return new Forming(method, stand, passes, true, wiped, brushed, again, firstS, solidS, restarts);
    }

    /** Everything off and clean; what was filled is lost. */
    private Forming spoilt() {
        return new Forming(method, Stand.CLEAN, 0, false, false, false, again, Double.NaN, Double.NaN,
                stand == Stand.CLEAN ? restarts : restarts + 1);
    }

    private Forming freed() {
        return new Forming(method, Stand.RELEASED, passes, fluxed && method == Method.SPHERES, wiped, false,
                again,
                firstS, solidS, restarts);
    }
}
