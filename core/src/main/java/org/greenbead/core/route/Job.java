package org.greenbead.core.route;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.greenbead.core.book.Facts;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.record.Kept;

/**
 * One customer's board from intake to close.
 *
 * @param id       "SB-0417"
 * @param title    what it is
 * @param complaint what is wrong, in the customer's words
 * @param customer a vessel or station
 * @param board    id of the board
 * @param target   the chip that is worked on
 * @param bench    id of the bench
 * @param facts    what has been noted of it, for the rule book
 * @param records  what people wrote down of it, in the order of writing
 * @param account  every change of all this, in the order of writing; only ever added to
 * @param strandOf the job whose further chip this one works on; empty for a job that stands alone
 */
public record Job(String id, String title, String complaint, String customer, String board, String target,
        String bench,
        List<Bead> beads, Facts facts, List<Kept> records, List<Entry> account, Optional<String> strandOf) {
    public Job(String id, String title, String complaint, String customer, String board, String target,
            String bench, List<Bead> beads, Facts facts, List<Kept> records, List<Entry> account) {
        this(id, title, complaint, customer, board, target, bench, beads, facts, records, account,
                Optional.empty());
    }

    public Job(String id, String title, String complaint, String customer, String board, String target,
            String bench, List<Bead> beads, Facts facts, List<Kept> records) {
        this(id, title, complaint, customer, board, target, bench, beads, facts, records, List.of(),
                Optional.empty());
    }

    public Job(String id, String title, String complaint, String customer, String board, String target,
            String bench, List<Bead> beads) {
        this(id, title, complaint, customer, board, target, bench, beads, Facts.none(), List.of());
    }

    public Job(String id, String title, String complaint, String customer, String board, String target,
            String bench, List<Bead> beads, Facts facts) {
        this(id, title, complaint, customer, board, target, bench, beads, facts, List.of());
    }

    public Job {
        facts = facts == null ? Facts.none() : facts;
        records = records == null ? List.of() : List.copyOf(records);
        account = account == null ? List.of() : List.copyOf(account);
        strandOf = strandOf == null ? Optional.empty() : strandOf;
        Check.distinct("record", records, Kept::id);
        Check.text("job id", id);
        Check.text("job title", title);
        Check.text("complaint", complaint);
        Check.text("customer", customer);
        Check.text("board of the job", board);
        Check.text("target of the job", target);
        Check.text("bench of the job", bench);
        beads = List.copyOf(Check.present("beads", beads));
        if (beads.isEmpty()) {
            throw new IllegalArgumentException("job " + id + " has no beads");
        }
        Check.distinct("bead", beads, Bead::id);
        for (int i = 1; i < beads.size(); i++) {
            if (beads.get(i).phase().compareTo(beads.get(i - 1).phase()) < 0) {
                throw new IllegalArgumentException(
                        "bead " + beads.get(i).id() + " stands after a later phase; beads are out of order");
            }
        }
    }

    /** The bead in hand: the first that is not worked; empty when the job is at its end. */
    public Optional<Bead> inHand() {
        return beads.stream().filter(b -> !b.worked()).findFirst();
    }

    public Optional<Bead> bead(String beadId) {
        return beads.stream().filter(b -> b.id().equals(beadId)).findFirst();
    }

    /** The gate before {@code beadId} that is not green yet; empty when the way is free. */
    public Optional<Bead> gateBefore(String beadId) {
        return beads.stream().takeWhile(b -> !b.id().equals(beadId))
                .filter(b -> b.gate() && b.state() != BeadState.GREEN).findFirst();
    }

    /** The word on a check anywhere in the route; unknown where the route does not ask. */
    public Attest attested(String check) {
        return beads.stream().flatMap(b -> b.checks().stream()).filter(c -> c.id().equals(check))
                .map(CheckItem::state)
                .findFirst().orElse(Attest.UNKNOWN);
    }

    public boolean asks(String check) {
        return beads.stream().flatMap(b -> b.checks().stream()).anyMatch(c -> c.id().equals(check));
    }

    public Job attest(String check, Attest word) {
        return withBeads(beads.stream()
                .map(b -> b.checks().stream().anyMatch(c -> c.id().equals(check)) ? b.attest(check, word) : b)
                .toList());
    }

    /**
     * The same for a check that the route may not ask for: it is then added to the last bead of checks that stands before
     * the bead in hand (else to the first), so that the word is kept and shown with the job.
     */
    public Job record(String check, Attest word) {
        if (asks(check)) {
            return attest(check, word);
        }
        String hand = inHand().map(Bead::id).orElse("");
        List<Bead> before = beads.stream().takeWhile(b -> !b.id().equals(hand))
                .filter(b -> b.kind() == Bead.Kind.CHECK).toList();
        Optional<Bead> place = before.isEmpty()
                ? beads.stream().filter(b -> b.kind() == Bead.Kind.CHECK).findFirst()
                : Optional.of(before.getLast());
        return place.map(p -> withBeads(beads.stream()
                .map(b -> b.id().equals(p.id()) ? b.asking(new CheckItem(check, word, "")) : b).toList()))
                .orElse(this);
    }

    public Job with(String beadId, BeadState state) {
        return withBeads(beads.stream().map(b -> b.id().equals(beadId) ? b.as(state) : b).toList());
    }

    /** With one check of a bead in another form. */
    public Job with(String beadId, String check, CheckItem changed) {
        return withBeads(
                beads.stream().map(b -> b.id().equals(beadId) ? b.with(check, changed) : b).toList());
    }

    /** The same job of which more is noted. */
    public Job with(Facts noted) {
        return new Job(id, title, complaint, customer, board, target, bench, beads, noted, records, account,
                strandOf);
    }

    /** The records of one type, in the order of writing. */
    public List<Kept> records(String type) {
        var found = new ArrayList<Kept>();
        for (Kept record : records) {
            if (record.type().equals(type)) {
                found.add(record);
            }
        }
        return List.copyOf(found);
    }

    /** Whether somebody said that what is stored on the unit cannot be brought back. */
    public boolean holdsIrreplaceableData() {
        return records("intake").stream().anyMatch(r -> r.text("data_value").equals("irreplaceable"))
                || facts.at("job.data_value").filter("irreplaceable"::equals).isPresent();
    }

    public Optional<Kept> record(String recordId) {
        return records.stream().filter(r -> r.id().equals(recordId)).findFirst();
    }

    /** With one record more, or an existing one in its later form. */
    public Job with(Kept record) {
        boolean there = records.stream().anyMatch(r -> r.id().equals(record.id()));
        List<Kept> changed = there
                ? records.stream().map(r -> r.id().equals(record.id()) ? record : r).toList()
                : Stream.concat(records.stream(), Stream.of(record)).toList();
        return new Job(id, title, complaint, customer, board, target, bench, beads, facts, changed, account,
                strandOf);
    }

    /** With other records in the place of its own. */
    Job with(List<Kept> others) {
        return new Job(id, title, complaint, customer, board, target, bench, beads, facts, others, account,
                strandOf);
    }

    /** Without one record. */
    public Job without(String recordId) {
        return new Job(id, title, complaint, customer, board, target, bench, beads, facts,
                records.stream().filter(r -> !r.id().equals(recordId)).toList(), account, strandOf);
    }

    /** The same job on another board, chip or bench. */
    public Job on(String otherBoard, String otherTarget, String otherBench) {
        return new Job(id, title, complaint, customer, otherBoard, otherTarget, otherBench, beads, facts,
                records, account, strandOf);
    }

    /** What a new record of this type would be called: the type and the next free number. */
    public String freeId(String type) {
        int n = 1;
        while (record(type + "-" + n).isPresent()) {
            n++;
        }
        return type + "-" + n;
    }

    /**
     * The route without one bead; the reason is kept as a record. What guards a person or irreplaceable data stays, and so does what is worked.
     *
     * @throws IllegalArgumentException when the reason is blank, the bead is worked or it heats
     */
    public Job leaveOut(String beadId, Kept why) {
        Bead bead = bead(beadId)
                .orElseThrow(() -> new IllegalArgumentException("job " + id + " has no bead " + beadId));
        if (why.text("reason").isBlank()) {
            throw new IllegalArgumentException("a step is left out with a reason only");
        }
        if (Routes.shipped().keeps(beadId)) {
            throw new IllegalArgumentException(
                    "this step guards a person or data that nobody can bring back; it stays in the route");
        }
        if (bead.worked() || bead.kind() == Bead.Kind.RUN) {
            throw new IllegalArgumentException("a step that is worked, or that heats, stays in the route");
        }
        return withBeads(beads.stream().filter(b -> !b.id().equals(beadId)).toList()).with(why);
    }

    /** With a bead more, as the last of its phase. @throws IllegalArgumentException when it is there already */
    public Job takeIn(Bead bead, Kept why) {
        List<Bead> longer = new java.util.ArrayList<>(beads);
        int at = 0;
        while (at < longer.size() && longer.get(at).phase().compareTo(bead.phase()) <= 0) {
            at++;
        }
        longer.add(at, bead);
        return withBeads(longer).with(why);
    }

    /** The same job with another route. */
    public Job withBeads(List<Bead> changed) {
        return new Job(id, title, complaint, customer, board, target, bench, changed, facts, records,
                account, strandOf);
    }

    /** The same job as a strand of another. */
    public Job asStrandOf(String main) {
        return new Job(id, title, complaint, customer, board, target, bench, beads, facts, records, account,
                Optional.of(main));
    }

    /** The same job with its account written on. */
    public Job withAccount(List<Entry> longer) {
        return new Job(id, title, complaint, customer, board, target, bench, beads, facts, records, longer,
                strandOf);
    }
}
