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

    /** What to do, with its numbers reckoned for this job. */
    public String remedy(Noticed noticed) {
        String text = noticed.rule().remedy();
        for (Noticed.Cure cure : noticed.cures()) {
            text = text.replace(cure.gap(), show(cure.value(), cure.unit()));
        }
        return text;
    }

    /** What to do, with the standard of its thresholds; what is reckoned from a job stays a formula. */
    public static String remedy(BookRule rule) {
        String text = rule.remedy();
        for (RemedyGap gap : RemedyGap.of(rule)) {
            String name = gap.number().text().strip();
            BookRule.Limit limit = name.startsWith("$") ? rule.limits().get(name.substring(1)) : null;
            text = text.replace(gap.text(), limit != null
                    ? plain(limit.standard()) + after(gap.unit())
                    : "{" + name + "}" + after(gap.unit()));
        }
        return text;
    }

    private static String after(String unit) {
        return unit.isEmpty() ? "" : " " + unit;
    }

    private String show(Object value, String unit) {
        return switch (value) {
            case null -> words.say("book.not_noted");
            case Double number when unit.equals("°C") -> words.show(new Quantity.TempC(number));
            case Double number when unit.equals("K") -> words.show(new Quantity.RiseK(number));
            case Double number -> plain(number) + after(unit);
            default -> String.valueOf(value).replace('_', ' ');
        };
    }

    private static String plain(double number) {
        return number == Math.rint(number)
                ? String.format(Locale.ROOT, "%.0f", number)
                : String.format(Locale.ROOT, "%.2f", number).replaceAll("0+$", "");
    }

    private String show(Noticed.Value value) {
        return switch (value.value()) {
            case null -> words.say("book.not_noted");
            case Double number when value.path().endsWith("_c") -> words.show(new Quantity.TempC(number));
            case Double number -> plain(number);
            case Boolean yes -> words.say(yes ? "book.yes" : "book.no");
            case List<?> list -> String.join(", ", list.stream().map(String::valueOf).toList());
            default -> String.valueOf(value.value()).replace('_', ' ');
        };
    }
}
