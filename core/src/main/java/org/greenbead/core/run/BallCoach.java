package org.greenbead.core.run;

import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.Method;
import org.greenbead.core.forming.Stand;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;

/** What the coach says while balls are made, where that differs from a run on a board. */
final class BallCoach {
    /** Nearer than this it is due. */
    private static final double DUE_S = 3;

    private BallCoach() {
    }

    /** @return empty where the words of any run do */
    static Optional<Coaching> say(RunView run, FormingView view, boolean started) {
        if (!started) {
            return Optional.of(ready(run, view));
        }
        return switch (run.status()) {
            case READY, HEATING -> view.next() == Act.FIRST_BALL || view.next() == Act.HEAT_OFF
                    ? peak(run, view)
                    : Optional.empty();
            case COOLING -> Optional.of(cooling(run, view));
            case SAFE -> safe(run, view);
            case MOLTEN, ENDED -> Optional.empty();
        };
    }

    /** Where the words of a loose chip under air do not fit. */
    static String place(RunPlan plan) {
        return plan.onPlate() ? "plate." : plan.loose() ? "" : "board.";
    }

    private static Phrase offPlate(RunView run, String key, Phrase usual) {
        return run.plan().onPlate() ? Phrase.of(key) : usual;
    }

    private static String key(FormingView view, Act act) {
        return view.forming().method().name().toLowerCase(Locale.ROOT) + "."
                + act.name().toLowerCase(Locale.ROOT);
    }

    /** One act of the hands: what to do, why, and the pedal that says it is done. */
    private static Coaching act(FormingView view, Act act, String caution, Quantity... gaps) {
        String key = key(view, act);
        return new Coaching(Phrase.of("coach.act." + key, gaps),
                Phrase.of("coach.act." + key + ".next", gaps),
                Optional.empty(), Optional.of(act), Phrase.of("pedal.act." + key),
                Phrase.of("pedal.act.so"), Optional.of(Phrase.of(caution)));
    }

    private static Coaching ready(RunView run, FormingView view) {
        Act next = view.next();
        int pass = view.forming().passes() + 1;
        Coaching said = act(view, next, switch (next) {
            case HEAT, SETTLE -> "caution.hot";
            case FLUX, FILL -> "caution.paste";
            case BRUSH, WASH -> "caution.solvent";
            default -> "caution.form.hands";
        }, new Quantity.Count(pass));
        if (next == Act.HOLD && view.forming().method() == Method.PASTE) {
            String by = "coach.act.paste.hold." + BallForming.holding(run.plan().job());
            return new Coaching(Phrase.of(by), said.next(), Optional.empty(), said.act(),
                    Phrase.of("pedal.act.paste.hold." + BallForming.holding(run.plan().job())),
                    said.consequence(), said.caution());
        }
        String words = "coach.act." + key(view, next) + ".plate";
        boolean laid = run.plan().onPlate() && next == Act.HEAT;
        return next == Act.HEAT || next == Act.SETTLE
                ? new Coaching(laid ? Phrase.of(words) : said.now(),
                        laid ? Phrase.of(words + ".next") : said.next(), Optional.empty(), said.act(),
                        said.pedalWord(), Phrase.of("pedal.act.heat.so"), said.caution())
                : said;
    }

    /** At the peak the eye sees what no probe does: the first ball. From it the count runs. */
    private static Optional<Coaching> peak(RunView run, FormingView view) {
        if (run.stage().purpose() != org.greenbead.core.recipe.Stage.Purpose.PEAK) {
            return Optional.empty();
        }
        if (view.next() == Act.FIRST_BALL) {
            Phrase next = run.meltsInS().isPresent() && run.meltsInS().getAsDouble() > DUE_S
                    ? Phrase.of("coach.form.first.in", new Quantity.Seconds(run.meltsInS().getAsDouble()))
                    : !run.looked()
                            || run.joint().celsius() >= run.plan().target().joint().alloy().liquidusC()
                                    ? Phrase.of("coach.form.first")
                                    : offPlate(run, "coach.form.plate.never",
                                            Phrase.of("coach.form.never"));
            Coaching said = act(view, Act.FIRST_BALL, "caution.fumes");
            return Optional.of(new Coaching(said.now(), next, Optional.empty(), said.act(), said.pedalWord(),
                    Phrase.of("pedal.act.count"), said.caution()));
        }
        Coaching said = act(view, Act.HEAT_OFF, "caution.molten");
        boolean counts = view.countS().isPresent();
        double left = view.countS().orElse(0);
        Phrase now = !counts
                ? Phrase.of("coach.form.watch")
                : left > 0
                        ? Phrase.of("coach.form.count", new Quantity.Seconds(left))
                        : offPlate(run, "coach.act." + key(view, Act.HEAT_OFF) + ".plate", said.now());
        return Optional.of(new Coaching(now, Phrase.of("coach.form.bridges"), Optional.empty(), said.act(),
                said.pedalWord(), Phrase.of("pedal.heat_off.so"), said.caution()));
    }

    private static Coaching cooling(RunView run, FormingView view) {
        boolean holds = view.forming().method() == Method.PASTE && !view.forming().again();
        Phrase next = run.safeInS().isPresent()
                ? Phrase.of("coach.form.cool.in", new Quantity.Seconds(run.safeInS().getAsDouble()),
                        new Quantity.TempC(run.movingC()))
                : Phrase.of("coach.form.cool", new Quantity.TempC(run.movingC()));
        String off = holds ? "hold_on" : "still";
        return new Coaching(
                offPlate(run, "coach.form.plate." + off, Phrase.of("coach.form." + off)), next,
                Optional.empty(), Phrase.of("pedal.hands_off"),
                run.safeInS().isPresent()
                        ? Phrase.of("pedal.hands_off.so", new Quantity.Seconds(run.safeInS().getAsDouble()))
                        : Phrase.of("pedal.hands_off.wait"),
                Optional.of(Phrase.of("caution.form.still")));
    }

    /** Solid: slide the stencil while the flux is soft, or warm it first. */
    private static Optional<Coaching> safe(RunView run, FormingView view) {
        if (view.forming().stand() != Stand.SOLID) {
            return Optional.empty();
        }
        double now = run.joint().celsius();
        if (view.next() == Act.WARM) {
            Coaching said = act(view, Act.WARM, "caution.still_hot",
                    new Quantity.TempC(view.window().airC()), new Quantity.TempC(view.window().slideC()),
                    new Quantity.TempC(now));
            return Optional.of(!view.warming()
                    ? said
                    : new Coaching(Phrase.of("coach.form.warming", new Quantity.TempC(now),
                            new Quantity.TempC(view.window().lowC())), said.next(), Optional.empty(),
                            Phrase.of("pedal.hands_off"), Phrase.of("pedal.hands_off.wait"),
                            said.caution()));
        }
        Coaching said = act(view, Act.SLIDE, "caution.still_hot", new Quantity.TempC(now),
                new Quantity.TempC(view.window().lowC()), new Quantity.TempC(view.window().highC()));
        return Optional.of(said);
    }
}
