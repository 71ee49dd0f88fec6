package org.greenbead.core.account;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Entry;

/** An account as a person reads it, in words: what one act wrote of one thing is one line. */
public final class AccountLines {
    private AccountLines() {
    }

    /**
     * One act.
     *
     * @param first     number of its first entry
     * @param source    where what it says comes from
     * @param about     what it is about, in words
     * @param says      what was said, field by field
     * @param takenBack nothing is left of it from here on
     * @param replaces  something else stood there before
     * @param record    id of the record that it is of; empty for a check, a step or a typed fact
     */
    public record Line(int first, Instant at, String by, Origin.Source source, String about,
            List<String> says, boolean takenBack, boolean replaces, String record) {
        public Line {
            says = List.copyOf(says);
        }

        /** Whether a person said it, and no device, arithmetic or list. */
        public boolean byHand() {
            return switch (source) {
                case RECORDED, TICKED, TYPED, CHOSEN -> true;
                case MEASURED, COMPUTED, LEDGER, ASSUMED -> false;
            };
        }
    }

    public static List<Line> of(List<Entry> account, Words words) {
        var lines = new ArrayList<Line>();
        for (int i = 0; i < account.size();) {
            Entry head = account.get(i);
            int end = i + 1;
            while (end < account.size() && same(head, account.get(end))) {
                end++;
            }
            lines.add(line(account.subList(i, end), words));
            i = end;
        }
        return List.copyOf(lines);
    }

    /** Fields of one record, written in one act. */
    private static boolean same(Entry head, Entry next) {
        return head.what().startsWith("record/") && next.what().startsWith("record/")
                && record(head).equals(record(next)) && head.at().equals(next.at())
                && head.by().equals(next.by());
    }

    private static String record(Entry entry) {
        return entry.what().split("/")[1];
    }

    private static Line line(List<Entry> act, Words words) {
        Entry head = act.getFirst();
        String[] path = head.what().split("/", 2);
        String rest = path.length > 1 ? path[1] : "";
        boolean back = act.stream().allMatch(e -> e.is() == null);
        boolean replaces = act.stream().anyMatch(e -> e.was() != null && e.is() != null);
        return switch (path[0]) {
            case "record" -> new Line(head.number(), head.at(), head.by(), source(act),
                    FactWords.from("record " + record(head), words),
                    act.stream().filter(e -> e.what().split("/").length == 3)
                            .map(e -> field(e, words)).toList(),
                    back, replaces, record(head));
            case "check" -> {
                boolean itself = String.valueOf(head.is()).endsWith(", shown");
                yield new Line(head.number(), head.at(), head.by(),
                        itself ? Origin.Source.COMPUTED : Origin.Source.TICKED, words.say("check." + rest),
                        List.of(change(head)), back, replaces, "");
            }
            case "bead" -> new Line(head.number(), head.at(), head.by(), Origin.Source.COMPUTED,
                    words.say("bead." + rest), List.of(change(head)), back, replaces, "");
            case "fact" -> new Line(head.number(), head.at(), head.by(), Origin.Source.TYPED,
                    FactWords.of(rest, words), List.of(change(head)), back, replaces, "");
            case "route" -> new Line(head.number(), head.at(), head.by(), Origin.Source.CHOSEN,
                    words.say("account.route"), List.of(), back, replaces, "");
            default -> new Line(head.number(), head.at(), head.by(), Origin.Source.CHOSEN,
                    words.say("account.opened"), List.of(String.valueOf(head.is())), back, replaces, "");
        };
    }

    /** A record that the program writes, or that was judged from a photo, is measured; the way of working is chosen. */
    private static Origin.Source source(List<Entry> act) {
        String id = record(act.getFirst());
        String type = id.substring(0, Math.max(0, id.lastIndexOf('-')));
        Optional<RecordType> known = RecordTypes.shipped().all().stream().filter(t -> t.id().equals(type))
                .findFirst();
        boolean measured = known.filter(t -> !t.byHand()).isPresent()
                || act.stream().anyMatch(e -> e.what().endsWith("/photo") && e.is() instanceof String);
        return type.equals("school") || type.equals("route_change")
                ? Origin.Source.CHOSEN
                : measured && !List.of("waiver").contains(type)
                        ? Origin.Source.MEASURED
                        : Origin.Source.RECORDED;
    }

    private static String field(Entry entry, Words words) {
        String[] path = entry.what().split("/");
        String type = path[1].substring(0, Math.max(0, path[1].lastIndexOf('-')));
        String key = "record." + type + "." + path[2];
        return (words.has(key) ? words.say(key) : path[2].replace('_', ' ')) + ": " + change(entry);
    }

    private static String change(Entry entry) {
        if (entry.is() == null) {
            return value(entry.was()) + " \u2192 \u2013";
        }
        return entry.was() == null ? value(entry.is()) : value(entry.was()) + " \u2192 " + value(entry.is());
    }

    private static String value(Object value) {
        return switch (value) {
            case null -> "\u2013";
            case Boolean yes -> yes ? "yes" : "no";
            case Double d -> d == Math.rint(d) && Math.abs(d) < 1e9
                    ? Long.toString(Math.round(d))
                    : Double.toString(d);
            case List<?> several ->
                String.join(", ", several.stream().map(AccountLines::value).toList());
            default -> String.valueOf(value).replace('_', ' ').replace(", shown", "");
        };
    }
}
