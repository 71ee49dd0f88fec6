package org.greenbead.core.account;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.book.Condition;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Judged;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.CheckItem;
import org.greenbead.core.route.Job;

/**
 * What opens a gate. Ticks make it worked; green it turns when no stop of the book stands in its phase or before, nothing that guards a person
 * or data is unknown, and the records, runs, photos and readings that it asks for are there and say what they must. A run of heat is held by
 * stops and by what is unknown like a gate.
 */
public final class Gates {
    private static final Map<String, List<Demand>> DEMANDS = read();

    private Gates() {
    }

    /**
     * What a gate asks to be shown.
     *
     * @param id     its words are {@code evidence.<id>}
     * @param holds  asked of records, runs, photos and computed facts, never of ticks
     * @param record  type of record that shows it
     * @param against what shuts the gate again though it was passed; empty = nothing. That a record is missing says nothing of a gate passed long ago
     */
    public record Demand(String id, Condition holds, String record, Optional<Condition> against) {}

    /** @param evidence facts without ticks, {@link JobFacts#evidence} */
    public record Look(Judged judged, List<NotKnown> notKnown, KnownFacts evidence) {
        public Look {
            notKnown = List.copyOf(notKnown);
        }
    }

    private static Map<String, List<Demand>> read() {
        try (InputStream in = Gates.class.getResourceAsStream("gates.txt")) {
            var read = new LinkedHashMap<String, List<Demand>>();
            new String(in.readAllBytes(), StandardCharsets.UTF_8).lines()
                    .filter(l -> !l.isBlank() && !l.startsWith("#")).forEach(line -> {
                        String[] c = line.split("\\|", 5);
                        var demand = new Demand(c[1].strip(), new Condition(c[2].strip()), c[3].strip(),
                                c[4].isBlank()
                                        ? Optional.empty()
                                        : Optional.of(new Condition(c[4].strip())));
                        for (String bead : c[0].strip().split("\\s+")) {
                            read.computeIfAbsent(bead, b -> new ArrayList<>()).add(demand);
                        }
                    });
            return Map.copyOf(read);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Beads that the table knows. */
    static Set<String> beads() {
        return DEMANDS.keySet();
    }

    /** What a bead asks to be shown, whether it is or not. */
    public static List<Demand> demands(String beadId) {
        return DEMANDS.getOrDefault(beadId, List.of());
    }

    /**
     * The stops that hold this bead; empty for a bead that is neither gate nor run, or is worked already. What a heat left unproven does not
     * hold the same heat: doing it again is the way out.
     */
    public static List<Noticed> holding(Job job, String beadId, Judged judged) {
        Set<String> itself = itself(job, beadId);
        return job.bead(beadId).filter(Gates::held)
                .map(b -> judged.open().stream()
                        .filter(n -> n.rule().severity() == Severity.STOP
                                && n.rule().phase().compareTo(b.phase()) <= 0 && !itself.contains(n.at()))
                        .toList())
                .orElse(List.of());
    }

    /** Where the facts hold the last heat of this very bead, as JSON pointer: one item a bead, in the order of the records. */
    private static Set<String> itself(Job job, String beadId) {
        List<String> heated = job.records("run").stream().map(r -> r.text("bead")).distinct().toList();
        int at = heated.indexOf(beadId);
        return at < 0 ? Set.of() : Set.of("/runs/" + at);
    }

    private static boolean held(Bead bead) {
        return (bead.gate() || bead.kind() == Bead.Kind.RUN) && bead.state() != BeadState.GREEN;
    }

    /**
     * What is not known and holds this bead until somebody finds it out: a run, and the gates of later phases; where it is asked for stands
     * in the rule's own phase, which must not shut itself.
     */
    public static List<NotKnown> unknown(Job job, String beadId, List<NotKnown> notKnown) {
        return job.bead(beadId).filter(Gates::held)
                .map(b -> notKnown.stream()
                        .filter(n -> n.holds() && n.rule().phase()
                                .compareTo(b.phase()) <= (b.kind() == Bead.Kind.RUN ? 0 : -1))
                        .toList())
                .orElse(List.of());
    }

    /** What is still to be shown before this gate opens. */
    public static List<Demand> missing(Job job, String beadId, Facts evidence) {
        return job.bead(beadId).filter(b -> b.gate() && b.state() != BeadState.GREEN)
                .map(b -> unshown(b.id(), evidence)).orElse(List.of());
    }

    /** What a bead asks for and is not on record, whether it was passed or not. */
    public static List<Demand> unshown(String beadId, Facts evidence) {
        return demands(beadId).stream().filter(d -> !d.holds().holds(evidence)).toList();
    }

    private static boolean free(Job job, String beadId, Look look) {
        return holding(job, beadId, look.judged()).isEmpty()
                && unknown(job, beadId, look.notKnown()).isEmpty()
                && missing(job, beadId, look.evidence().facts()).isEmpty();
    }

    /**
     * A word on a check. It is always taken; a gate whose checks are all seen to while something holds it is worked, but not green, and so goes
     * on blocking what follows.
     */
    public static Job attest(Job job, String check, Attest word, Look look) {
        Job changed = job.record(check, word);
        for (Bead bead : changed.beads()) {
            boolean passes = bead.gate() && bead.state() == BeadState.GREEN
                    && job.bead(bead.id()).filter(b -> b.state() == BeadState.GREEN).isEmpty();
            if (passes && !free(job, bead.id(), look)) {
                changed = changed.with(bead.id(), BeadState.DONE);
            }
        }
        return changed;
    }

    /**
     * What follows from what is on record by now: checks that it shows tick themselves (and take that back when it is taken back), gates
     * whose checks are all seen to turn green once nothing holds them any more, and a gate that a later record speaks against is shut again.
     */
    public static Job settle(Job job, Look look) {
        Job settled = ticked(job, look.evidence());
        for (Bead bead : settled.beads()) {
            if (!bead.gate() || bead.kind() != Bead.Kind.CHECK) {
                continue;
            }
            boolean seen = bead.checks().stream().allMatch(c -> c.state() == Attest.YES);
            if (seen && bead.state() != BeadState.GREEN) {
                settled = settled.with(bead.id(),
                        free(settled, bead.id(), look) ? BeadState.GREEN : BeadState.DONE);
            } else if (bead.state() == BeadState.GREEN && spokenAgainst(bead, look.evidence().facts())) {
                settled = settled.with(bead.id(), BeadState.DONE);
            }
        }
        return settled;
    }

    /** Something on record says the opposite of what a gate asks for. */
    private static boolean spokenAgainst(Bead bead, Facts evidence) {
        return demands(bead.id()).stream().flatMap(d -> d.against().stream())
                .anyMatch(a -> a.holds(evidence));
    }

    private static Job ticked(Job job, KnownFacts evidence) {
        return ticked(job, evidence, true);
    }

    /** @param takesBack whether what is known is all there is: then a check that ticked itself and is not shown any more is open again */
    static Job ticked(Job job, KnownFacts evidence, boolean takesBack) {
        CheckFacts table = CheckFacts.shipped();
        Job changed = job;
        for (Bead bead : job.beads()) {
            for (CheckItem check : bead.checks()) {
                boolean shown = table.shown(check.id(), evidence.facts());
                if (check.state() == Attest.UNKNOWN && shown
                        || takesBack && check.tickedItself() && !shown) {
                    changed = changed.with(bead.id(), check.id(),
                            shown ? check.shown(table.from(check.id(), evidence)) : check.unshown());
                }
            }
        }
        return changed;
    }
}
