package org.greenbead.core.book;

import java.util.List;
import java.util.Locale;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;

/** Says a finding's reason with its numbers, temperatures in the chosen unit. */
public final class Wording {
    private final Words words;

    public Wording(Words words) {
        this.words = words;
    }

    public String why(Noticed noticed) {
        String text = noticed.rule().why();
        for (Noticed.Value value : noticed.values()) {
            text = text.replace("{" + value.path() + "}", show(value));
        }
        return text;
    }

    private String show(Noticed.Value value) {
        return switch (value.value()) {
            case null -> words.say("book.not_noted");
            case Double number when value.path().endsWith("_c") -> words.show(new Quantity.TempC(number));
            case Double number -> number == Math.rint(number)
                    ? String.format(Locale.ROOT, "%.0f", number)
                    : String.format(Locale.ROOT, "%.2f", number).replaceAll("0+$", "");
            case Boolean yes -> words.say(yes ? "book.yes" : "book.no");
            case List<?> list -> String.join(", ", list.stream().map(String::valueOf).toList());
            default -> String.valueOf(value.value()).replace('_', ' ');
        };
    }
}
