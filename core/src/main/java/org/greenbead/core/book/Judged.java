package org.greenbead.core.book;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.finding.Severity;

/**
 * What the book notices, with what a person has muted set apart. Muting is a waiver among the facts: rule, place, reason, person, time. It
 * stays with the job and in the report. What can hurt a person, and what can lose irreplaceable data, cannot be muted.
 *
 * @param open  what still stands, the worst first
 * @param muted what was waived, with its reason
 */
public record Judged(List<Noticed> open, List<Muted> muted) {
    /** A waived finding. */
    public record Muted(Noticed noticed, String reason, String person) {}

    public Judged {
        open = List.copyOf(open);
        muted = List.copyOf(muted);
    }

    public static Judged of(RuleBook book, Facts facts, RuleBook.Settings settings) {
        var open = new ArrayList<Noticed>();
        var muted = new ArrayList<Muted>();
        for (Noticed noticed : book.check(facts, settings)) {
            Optional<Facts.Spot> waiver = mutable(noticed, facts) ? waiver(noticed, facts) : Optional.empty();
            waiver.ifPresentOrElse(w -> muted.add(new Muted(noticed, text(w, "reason"), text(w, "person"))),
                    () -> open.add(noticed));
        }
        return new Judged(open, muted);
    }

    /** Without what belongs to earlier phases, stops excepted. */
    public Judged from(Phase phase) {
        return new Judged(open.stream().filter(
                n -> n.rule().severity() == Severity.STOP || n.rule().phase().compareTo(phase) >= 0).toList(),
                muted);
    }

    /** Whether a person may waive it. */
    public static boolean mutable(Noticed noticed, Facts facts) {
        boolean stop = noticed.rule().severity() == Severity.STOP;
        boolean person = noticed.rule().id().startsWith("safety.");
        boolean irreplaceable = facts.at("job.data_value").filter("irreplaceable"::equals).isPresent()
                && (noticed.rule().id().startsWith("data.") || noticed.rule().id().startsWith("transplant."));
        return !stop || !person && !irreplaceable;
    }

    private static Optional<Facts.Spot> waiver(Noticed noticed, Facts facts) {
        return facts.spot().field("waivers").items().stream()
                .filter(w -> noticed.rule().id().equals(w.field("rule").value())
                        && !text(w, "reason").isBlank())
                .filter(w -> text(w, "at").isEmpty() || text(w, "at").equals(noticed.at())).findFirst();
    }

    private static String text(Facts.Spot waiver, String field) {
        return waiver.field(field).value() instanceof String s ? s : "";
    }

    /** The facts with one finding waived. @throws IllegalArgumentException when the reason is blank or it may not be waived */
    public static Facts mute(Facts facts, Noticed noticed, String reason, String person, String time) {
        if (reason.isBlank()) {
            throw new IllegalArgumentException("a finding is muted with a reason only");
        }
        if (!mutable(noticed, facts)) {
            throw new IllegalArgumentException("\"" + noticed.rule().what()
                    + "\" guards a person or irreplaceable data and cannot be muted");
        }
        var waiver = new LinkedHashMap<String, Object>();
        waiver.put("rule", noticed.rule().id());
        waiver.put("at", noticed.at());
        waiver.put("reason", reason.strip());
        waiver.put("person", person);
        waiver.put("time", time);
        var all = new LinkedHashMap<String, Object>(facts.root());
        var waivers = new ArrayList<Object>(
                facts.root().get("waivers") instanceof List<?> list ? list : List.of());
        waivers.add(Map.copyOf(waiver));
        all.put("waivers", List.copyOf(waivers));
        return new Facts(all);
    }
}
