package org.greenbead.core.account;

import java.util.Locale;
import org.greenbead.core.book.Facts;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Attest;

/** A fact as a person reads it: the words of the question that asks for it, or of the check that states it; what is reckoned has words of its own. */
public final class FactWords {
    private FactWords() {
    }

    /** @param path such as {@code board.battery} or {@code alloys[].has_pb} */
    public static String of(String path, Words words) {
        String plain = path.replace("[]", "");
        for (RecordType type : RecordTypes.shipped().all()) {
            for (RecordType.Item item : type.fields()) {
                if (type.byHand() && item.fact().filter(plain::equals).isPresent()) {
                    return quoted(words.say("record." + type.id() + "." + item.name()));
                }
            }
        }
        for (String check : CheckFacts.shipped().checks()) {
            Facts states = CheckFacts.shipped().states(check, Attest.YES);
            if (states.at(plain).isPresent()) {
                return quoted(words.say("check." + check));
            }
        }
        if (words.has("fact." + plain)) {
            return words.say("fact." + plain);
        }
        return plain.substring(plain.indexOf('.') + 1).replaceAll("_(c|k|mm|um|ohm|v|a|s|min|h|pct|lpm)$", "")
                .replace('_', ' ').toLowerCase(Locale.ROOT);
    }

    /** A place a fact comes from, in words: the title of a record and its number, the words of a check. */
    public static String from(String from, Words words) {
        if (from.startsWith("record ")) {
            return record(from.substring("record ".length()), words);
        }
        if (from.startsWith("records ") && from.contains(" to ")) {
            String to = from.substring(from.lastIndexOf('-') + 1);
            return record(from.substring("records ".length(), from.indexOf(" to ")), words) + " to " + to;
        }
        if (from.startsWith("tick ")) {
            return quoted(words.say("check." + from.substring("tick ".length())));
        }
        if (from.startsWith("words of record ")) {
            return record(from.substring("words of record ".length()), words);
        }
        return from;
    }

    private static String record(String id, Words words) {
        int dash = id.lastIndexOf('-');
        String key = "record." + (dash < 0 ? id : id.substring(0, dash));
        return words.has(key) ? quoted(words.say(key)) + id.substring(dash).replace('-', ' ') : id;
    }

    private static String quoted(String text) {
        return "\u201c" + text + "\u201d";
    }
}
