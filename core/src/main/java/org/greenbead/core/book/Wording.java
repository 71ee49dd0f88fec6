package org.greenbead.core.book;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;

/** Says a finding's reason with its numbers, temperatures in the chosen unit. */
public final class Wording {
    /** What the end of a name says of its unit. */
    private static final Map<String, String> UNITS = Map.ofEntries(Map.entry("_c", "°C"),
            Map.entry("_k", "K"),
            Map.entry("_mm", "mm"), Map.entry("_um", "µm"), Map.entry("_ohm", "Ω"), Map.entry("_v", "V"),
            Map.entry("_a", "A"), Map.entry("_ma", "mA"), Map.entry("_s", "s"), Map.entry("_min", "min"),
            Map.entry("_h", "h"), Map.entry("_hours", "h"), Map.entry("_days", "d"), Map.entry("_pct", "%"),
            Map.entry("_lpm", "L/min"), Map.entry("_gb", "GB"), Map.entry("_g", "g"),
            Map.entry("_mbar", "mbar"));
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

    /** The names of the places of a rule after the first, as far as each has one; empty where one has none. */
    public static List<String> others(Grouped group) {
        List<String> names = group.places().stream().skip(1)
                .flatMap(n -> n.values().stream().map(Noticed.Value::value).filter(String.class::isInstance)
                        .map(String.class::cast).limit(1))
                .toList();
        return names.size() == group.places().size() - 1 ? names : List.of();
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
                : String.format(Locale.ROOT, "%.2f", number).replaceAll("\\.?0+$", "");
    }

    /** A value by itself, with the unit that the name of its fact ends in. */
    public String figure(String path, Object value) {
        String name = path.substring(path.lastIndexOf('.') + 1);
        String unit = UNITS.entrySet().stream().filter(u -> name.endsWith(u.getKey()))
                .max(Map.Entry.comparingByKey(java.util.Comparator.comparingInt(String::length)))
                .map(Map.Entry::getValue).orElse("");
        return value instanceof Double number && !unit.isEmpty()
                ? show(number, unit)
                : show(new Noticed.Value(path, value));
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
