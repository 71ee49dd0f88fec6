package org.greenbead.core.proof;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.greenbead.core.account.BlinkCodes;
import org.greenbead.core.account.LeakRecords;
import org.greenbead.core.account.RailReferences;
import org.greenbead.core.account.RecordFacts;
import org.greenbead.core.account.Tried;
import org.greenbead.core.electric.Rails;
import org.greenbead.core.electric.ReadWith;
import org.greenbead.core.leak.LeakHold;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.Tested;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;

/**
 * Everything that can show whether a unit is well: each thing as it was before the work, as it is now, and what that says with its reason. What was
 * measured before and not again stands as open, and so does what was unplugged and not tried since.
 */
public final class ProofWall {
    /** What kind of thing is shown. */
    public enum Kind {
        COMPLAINT, RAIL, CURVE, CODE, LEAK, FUNCTION, UNPLUGGED
    }

    /** What it says. */
    public enum State {
        HOLDS, FAILS,
        /** Not shown, one way or the other. */
        OPEN
    }

    /** What the whole says. */
    public enum Answer {
        /** Every proof holds, and there is one. */
        PROVEN,
        /** Nothing fails; something is open. */
        OPEN, FAILS,
        /** Nothing was measured. */
        NOTHING
    }

    /** Readings of a rail, ohm, leads taken off; NaN = not read, or not known. */
    public record Ohms(double before, double after, double healthy, double tolerancePct) {}

    /** @param before as shown; empty = not measured, @param why one sentence, @param ohms for a rail */
    public record Proof(Kind kind, String name, String before, String after, State state, String why,
            Optional<Ohms> ohms) {}

    private final Words words;
    private final List<Proof> proofs = new ArrayList<>();

    private ProofWall(Words words) {
        this.words = words;
    }

    /**
     * @param family  the job and its further chips, with or without this one: their heats are heats of the same board
     * @param healthy what rails of this type of board read on healthy ones
     */
    public static List<Proof> of(Job job, List<Job> family, Map<String, RailReferences.Reference> healthy,
            Words words) {
        var wall = new ProofWall(words);
        List<Instant> elsewhere = Strands.heatedElsewhere(job, family);
        Map<String, Kept> tests = Tested.last(Tested.now(job.records(), elsewhere));
        List<Kept> overtaken = Tested.overtaken(job.records(), elsewhere);
        var told = new ArrayList<String>();
        for (Kept symptom : job.records("symptom")) {
            told.add(Tested.plain(symptom.text("words")));
            wall.complaint(symptom, Optional.ofNullable(tests.get(Tested.plain(symptom.text("words")))));
        }
        Set<String> rails = job.records("rail").stream().map(r -> RailReferences.key(r.text("name")))
                .collect(Collectors.toSet());
        job.records("rail").forEach(r -> wall.rail(r, rails, healthy));
        wall.curve(job.records("curve"));
        wall.codes(job.records("baseline"));
        wall.leak(job.records("leak"));
        for (Kept pulled : job.records("connector")) {
            String id = pulled.text("id");
            if (id.isBlank() || !pulled.yes("undone")) {
                continue;
            }
            Optional<Kept> test = Tried.naming(id, tests.values());
            test.or(() -> Tried.naming(id, overtaken)).ifPresent(t -> told.add(Tested.plain(t.text("what"))));
            wall.unplugged(id, test);
        }
        tests.forEach((what, test) -> {
            if (!told.contains(what)) {
                wall.function(test);
            }
        });
        overtaken.forEach(old -> {
            if (!told.contains(Tested.plain(old.text("what")))) {
                wall.overtaken(old);
            }
        });
        return List.copyOf(wall.proofs);
    }

    public static Answer answer(List<Proof> proofs) {
        if (proofs.stream().anyMatch(p -> p.state() == State.FAILS)) {
            return Answer.FAILS;
        }
        boolean shown = proofs.stream().anyMatch(p -> p.state() == State.HOLDS);
        return proofs.stream().anyMatch(p -> p.state() == State.OPEN)
                ? shown ? Answer.OPEN : Answer.NOTHING
                : shown ? Answer.PROVEN : Answer.NOTHING;
    }

    private void add(Kind kind, String name, String before, String after, State state, String why) {
        proofs.add(new Proof(kind, name, before, after, state, why, Optional.empty()));
    }

    private void complaint(Kept symptom, Optional<Kept> test) {
        String before = symptom.text("before").isEmpty()
                ? symptom.noted("reproduced").isEmpty()
                        ? ""
                        : words.say(symptom.yes("reproduced") ? "proof.seen" : "proof.never_seen")
                : symptom.text("before");
        Verdict v = tested(test);
        boolean never = Boolean.FALSE.equals(symptom.noted("reproduced").orElse(null));
        add(Kind.COMPLAINT, symptom.text("words"), before, v.shown(),
                never && v.state() == State.HOLDS ? State.OPEN : v.state(),
                words.say(test.isEmpty()
                        ? "proof.why.not_retested"
                        : never && v.state() == State.HOLDS ? "proof.why.never_seen" : v.why()));
    }

    private void function(Kept test) {
        Verdict v = tested(Optional.of(test));
        add(Kind.FUNCTION, test.text("what"), "", v.shown(), v.state(), words.say(v.why()));
    }

    /** What a later heat made void is shown as it was, and counts as open. */
    private void overtaken(Kept test) {
        add(Kind.FUNCTION, test.text("what"), tested(Optional.of(test)).shown(), "", State.OPEN,
                words.say("proof.why.before_heat"));
    }

    private void unplugged(String id, Optional<Kept> test) {
        Verdict v = tested(test);
        add(Kind.UNPLUGGED, id, "", v.shown(), v.state(),
                words.say(test.isEmpty() ? "proof.why.not_tried" : v.why()));
    }

    private record Verdict(State state, String shown, String why) {}

    private Verdict tested(Optional<Kept> test) {
        if (test.isEmpty() || test.get().noted("result").isEmpty()) {
            return new Verdict(State.OPEN, "", "proof.why.not_tested");
        }
        Kept t = test.get();
        var shown = new StringBuilder(words.say("proof.result." + t.text("result")));
        if (Double.isFinite(t.number("minutes"))) {
            shown.append(", ")
                    .append(words.say("proof.minutes", new Quantity.Count(Math.round(t.number("minutes")))));
        }
        if (!t.text("configuration").isEmpty()) {
            shown.append(", ").append(t.text("configuration"));
        }
        return switch (t.text("result")) {
            case "pass" -> new Verdict(State.HOLDS, shown.toString(), "proof.why.passed");
            case "fail" -> new Verdict(State.FAILS, shown.toString(), "proof.why.failed");
            default -> new Verdict(State.OPEN, shown.toString(), "proof.why.not_tested");
        };
    }

    private void rail(Kept record, Set<String> rails, Map<String, RailReferences.Reference> healthy) {
        ReadWith was = RecordFacts.readBefore(record);
        ReadWith is = RecordFacts.readAfter(record);
        // What other boards taught was read the usual way round.
        Optional<RailReferences.Reference> learned = Optional
                .ofNullable(is.turned() ? null : healthy.get(RailReferences.key(record.text("name"))));
        boolean noted = record.number("reference_ohm") > 0;
        Rails.Rail before = RecordFacts.rail(!noted && learned.isPresent()
                ? record.with("reference_ohm", learned.get().ohm(), record.at(), record.author())
                : record);
        double tolerance = Double.isFinite(record.number("tolerance_pct"))
                ? record.number("tolerance_pct")
                : Rails.USUAL_TOLERANCE_PCT;
        Rails.After told = RecordFacts.railAfter(record, before, tolerance);
        Rails.After after = Rails.apart(record.text("name"), rails, told.rail().bareOhm(), told.verdict())
                ? new Rails.After(told.rail(), told.against(), Rails.Verdict.PASS)
                : told;
        boolean read = Double.isFinite(record.number("after_ohm"));
        State state = switch (after.verdict()) {
            case PASS -> State.HOLDS;
            case SUSPECT, SHORT -> State.FAILS;
            case MISSING, OTHERWISE, ROSE -> State.OPEN;
        };
        String against = switch (after.against()) {
            case HEALTHY -> noted
                    ? words.say("proof.rail.noted", name(ohms(after.rail().referenceOhm())))
                    : words.say("proof.rail.learned", name(ohms(after.rail().referenceOhm())),
                            new Quantity.Count(learned.orElseThrow().boards()));
            case BEFORE -> words.say("proof.rail.before");
            case NOTHING -> words.say("proof.rail.nothing");
        };
        String shown = ohms(after.rail().bareOhm());
        String why = read
                ? why(after, was, is, shown, against)
                : words.say("proof.rail.not_again");
        boolean readBefore = Double.isFinite(record.number("ohm"));
        proofs.add(new Proof(Kind.RAIL, record.text("name"), readBefore ? ohms(before.bareOhm()) : "",
                read ? ohms(after.rail().bareOhm()) : "", state, why,
                Optional.of(new Ohms(readBefore ? before.bareOhm() : Double.NaN,
                        read ? after.rail().bareOhm() : Double.NaN,
                        before.referenceOhm() > 0 ? before.referenceOhm() : Double.NaN, tolerance))));
    }

    /** What a reading after the work says, against what it was held. */
    private String why(Rails.After after, ReadWith was, ReadWith is, String shown, String against) {
        return switch (after.verdict()) {
            case OTHERWISE -> was.turned() == is.turned()
                    ? words.say("proof.rail.other_meter", name(shown), name(Masking.of(was.meter())),
                            name(Masking.of(is.meter())))
                    : words.say("proof.rail.turned", name(shown));
            case ROSE -> words.say("proof.rail.rose", name(ohms(after.rail().referenceOhm())), name(shown));
            case MISSING -> against;
            case PASS, SUSPECT, SHORT -> after.against() == Rails.Against.NOTHING
                    ? words.say(
                            after.verdict() == Rails.Verdict.PASS ? "proof.rail.apart" : "proof.rail.joined",
                            name(shown))
                    : words.say(
                            after.verdict() == Rails.Verdict.SHORT ? "proof.rail.short" : "proof.rail.off",
                            name(String.format(words.locale(), "%+.0f %%", after.rail().deviationPct())
                                    .replace('-', '\u2212')),
                            name(against));
        };
    }

    private void curve(List<Kept> curves) {
        Optional<Kept> before = last(curves, "before");
        Optional<Kept> after = last(curves, "after");
        if (before.isEmpty() && after.isEmpty()) {
            return;
        }
        State state = after.map(c -> switch (c.text("outcome")) {
            case "alike" -> State.HOLDS;
            case "departs" -> State.FAILS;
            default -> State.OPEN;
        }).orElse(State.OPEN);
        add(Kind.CURVE, words.say("proof.curve"), before.map(this::curve).orElse(""),
                after.map(this::curve).orElse(""), state,
                after.isEmpty()
                        ? words.say("proof.curve.not_again")
                        : boards(Math.round(orZero(after.get().number("boards")))));
    }

    private String boards(long n) {
        return n == 0
                ? words.say("proof.curve.none")
                : n == 1
                        ? words.say("proof.curve.one")
                        : words.say("proof.curve.boards", new Quantity.Count(n));
    }

    private String curve(Kept c) {
        String outcome = c.text("outcome");
        if (outcome.equals("departs") && Double.isFinite(c.number("stage"))) {
            return words.say("proof.curve.departs", new Quantity.Count(Math.round(c.number("stage"))),
                    new Quantity.Count(Math.round(orZero(c.number("of_stages")))),
                    new Quantity.Word("curvehow." + c.text("how")));
        }
        return outcome.isEmpty() ? "" : words.say("curveoutcome." + outcome);
    }

    /** A lamp that gives no code shows only that: whether the unit works is said by what was tried. */
    private void codes(List<Kept> baselines) {
        BlinkCodes codes = BlinkCodes.of(baselines);
        if (codes.before().isEmpty() && codes.after().isEmpty()) {
            return;
        }
        State state = switch (codes.change()) {
            case NOT_AGAIN, STILL_NONE -> State.OPEN;
            case GONE -> State.HOLDS;
            case SAME, OTHER, NEW -> State.FAILS;
        };
        add(Kind.CODE, words.say("proof.code"), shown(codes.before()), shown(codes.after()), state,
                words.say("proof.code." + codes.change().name().toLowerCase(Locale.ROOT)));
    }

    private String shown(Optional<String> code) {
        return code.map(c -> c.equals(BlinkCodes.NONE) ? words.say("proof.code.none") : c).orElse("");
    }

    private void leak(List<Kept> holds) {
        Optional<Kept> before = holds.stream().filter(h -> h.text("taken").equals("before"))
                .reduce((a, b) -> b);
        Optional<Kept> after = holds.stream().filter(h -> !h.text("taken").equals("before"))
                .reduce((a, b) -> b);
        if (before.isEmpty() && after.isEmpty()) {
            return;
        }
        Optional<LeakHold> held = after.flatMap(LeakRecords::hold);
        double limit = after.map(a -> a.number("limit_pa_s")).orElse(Double.NaN);
        Optional<LeakHold.Verdict> verdict = limit > 0 ? held.map(h -> h.against(limit)) : Optional.empty();
        State state = verdict.map(v -> switch (v) {
            case TIGHT -> State.HOLDS;
            case LEAKS -> State.FAILS;
            case UNSURE -> State.OPEN;
        }).orElse(State.OPEN);
        add(Kind.LEAK, words.say("proof.leak"), before.flatMap(LeakRecords::hold).map(this::rate).orElse(""),
                held.map(this::rate).orElse(""), state,
                verdict.map(v -> words.say("leakverdict." + v.name().toLowerCase(Locale.ROOT)))
                        .orElseGet(() -> words.say(after.isEmpty()
                                ? "proof.leak.not_again"
                                : held.isEmpty() ? "proof.leak.no_reading" : "proof.leak.no_limit")));
    }

    private String rate(LeakHold h) {
        return String.format(words.locale(), "%.2f ± %.2f Pa/s", h.ratePaS(), h.rateSdPaS());
    }

    private static Optional<Kept> last(List<Kept> curves, String taken) {
        return curves.stream().filter(c -> c.text("taken").equals(taken)).reduce((a, b) -> b);
    }

    private static double orZero(double v) {
        return Double.isFinite(v) ? v : 0;
    }

    /** {@code 0.40 Ω}, {@code 18.4 Ω}, {@code 1.19 kΩ}. */
    private String ohms(double ohm) {
        return said(ohm, words.locale());
    }

    /** A resistance with its prefix; from {@link RailRound#OPEN_OHM} on only that there is no end. */
    public static String said(double ohm, Locale locale) {
        if (ohm >= RailRound.OPEN_OHM) {
            return "OL";
        }
        return ohm >= 1e6
                ? String.format(locale, "%.3g MΩ", ohm / 1e6)
                : ohm >= 1000
                        ? String.format(locale, "%.3g kΩ", ohm / 1000)
                        : ohm >= 100
                                ? String.format(locale, "%.0f Ω", ohm)
                                : String.format(locale, ohm >= 10 ? "%.1f Ω" : "%.2f Ω", ohm);
    }

    private static Quantity.Name name(String text) {
        return new Quantity.Name(text);
    }
}
