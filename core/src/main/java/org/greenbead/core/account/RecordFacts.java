package org.greenbead.core.account;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.greenbead.core.book.Facts;
import org.greenbead.core.electric.Pad;
import org.greenbead.core.electric.Rails;
import org.greenbead.core.electric.ReadWith;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;

/** The facts that a job's records say, field by field; what several of them say together is counted elsewhere. */
public final class RecordFacts {
    /** Entities of which a job has several; an item is found again by the first field of its record. */
    private static final Set<String> MANY = Set.of("symptoms", "joints", "parts", "connectors", "waivers",
            "alloys", "values", "runs");
    /** Written by the program from what devices showed. */
    private static final Set<String> MEASURED = Set.of("run", "comparison");

    private RecordFacts() {
    }

    /** The facts below with what the records say put over them. */
    public static Facts over(Facts below, List<Kept> records) {
        var tree = new FactTree();
        tree.over(below);
        say(tree, records);
        Counted.say(tree, records);
        return tree.known().facts();
    }

    static void say(FactTree tree, List<Kept> records) {
        for (Kept record : records) {
            RecordType type = RecordTypes.shipped().require(record.type());
            tree.from(MEASURED.contains(type.id()) ? Origin.Source.MEASURED : Origin.Source.RECORDED,
                    "record " + record.id());
            int at = -1;
            for (RecordType.Item item : type.fields()) {
                if (item.fact().isEmpty() || record.noted(item.name()).isEmpty()) {
                    continue;
                }
                String fact = item.fact().get();
                String entity = fact.substring(0, fact.indexOf('.'));
                if (!MANY.contains(entity)) {
                    tree.put(fact, record.fields().get(item.name()));
                    continue;
                }
                if (at < 0) {
                    at = place(tree, entity, type, record);
                }
                tree.put(entity, at, fact.substring(fact.indexOf('.') + 1),
                        record.fields().get(item.name()));
            }
        }
    }

    private static int place(FactTree tree, String entity, RecordType type, Kept record) {
        String key = type.item(type.key()).flatMap(RecordType.Item::fact)
                .map(f -> f.substring(f.indexOf('.') + 1)).orElse("");
        String named = record.text(type.key());
        int at = tree.item(entity, key, named.isEmpty() ? null : named);
        if (entity.equals("runs")) {
            // A heat that was done again replaces the one before it.
            tree.clear(entity, at);
        }
        return at;
    }

    /** Every rail that was read, with its reference. */
    public static List<Rails.Rail> rails(List<Kept> records) {
        return of(records, "rail").stream().map(RecordFacts::rail).toList();
    }

    /** One as it was read before the work. */
    public static Rails.Rail rail(Kept r) {
        return new Rails.Rail(r.text("name"), r.number("ohm"), r.number("lead_ohm"),
                r.number("reference_ohm"));
    }

    /** What a rail was read with before the work. */
    public static ReadWith readBefore(Kept rail) {
        return ReadWith.of(rail.text("meter"));
    }

    /** What it was read with after it: the same, where nobody said. */
    public static ReadWith readAfter(Kept rail) {
        return rail.text("meter_after").isBlank() ? readBefore(rail) : ReadWith.of(rail.text("meter_after"));
    }

    /** Its reading after the work. @param before with its reference */
    public static Rails.After railAfter(Kept rail, Rails.Rail before, double tolerancePct) {
        return Rails.after(before, readBefore(rail), rail.number("after_ohm"), readAfter(rail), tolerancePct);
    }

    /** A pad as a job's record of it says. */
    public static Pad pad(Kept r) {
        double leak = r.number("leak_ohm");
        return new Pad(r.text("site"), word(Pad.Damage.class, r.text("kind"), Pad.Damage.NONE),
                word(Pad.Carries.class, r.text("carries"), Pad.Carries.UNKNOWN),
                r.noted("continuity").map(c -> r.yes("continuity")),
                Double.isFinite(leak) ? OptionalDouble.of(leak) : OptionalDouble.empty(),
                !r.text("bond").isBlank(), !r.text("mask").isBlank() && !r.text("cure").isBlank());
    }

    /** A pad of which only a photo speaks; a bump or a smear is cleaned off and damages none. */
    public static Pad pad(PhotoRecords.Fault fault) {
        Pad.Damage damage = switch (fault.word()) {
            case "missing_pad", "missing" -> Pad.Damage.MISSING;
            case "lifted" -> Pad.Damage.LIFTED;
            case "scratched" -> Pad.Damage.SCRATCHED;
            default -> Pad.Damage.NONE;
        };
        return new Pad(fault.site(), damage, fault.spare() ? Pad.Carries.SPARE : Pad.Carries.UNKNOWN,
                Optional.empty(), OptionalDouble.empty(), false, false);
    }

    private static <E extends Enum<E>> E word(Class<E> type, String word, E otherwise) {
        return Arrays.stream(type.getEnumConstants()).filter(e -> e.name().equalsIgnoreCase(word)).findFirst()
                .orElse(otherwise);
    }

    static List<Kept> of(List<Kept> records, String type) {
        return records.stream().filter(r -> r.type().equals(type)).toList();
    }
}
