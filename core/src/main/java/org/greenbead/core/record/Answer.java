package org.greenbead.core.record;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.quantity.TempUnit;

/** Reads what a person types into a field of a record. */
public final class Answer {
    private static final Pattern NUMBER = Pattern.compile("([-+]?\\d{1,9}(?:[.,]\\d{1,6})?)\\s*(\\S{0,4})");

    private static final List<String> KNOWN = List.of("mm", "ohm", "pct", "deg", "a", "v", "min", "s", "kpa");

    private Answer() {
    }

    /**
     * @param unit in which a bare temperature is read; a unit that is written outranks it
     * @return the value that the field holds, null for an empty answer
     * @throws IllegalArgumentException saying what is wanted instead
     */
    public static Object read(RecordType.Item item, String text, TempUnit unit) {
        String said = text.strip();
        if (said.isEmpty()) {
            return null;
        }
        return switch (item.field().kind()) {
            case NUMBER -> number(item.name(), said, unit);
            case YES_NO -> yesNo(said);
            case TEXT -> said;
            case WORD -> word(item, said);
            case WORDS -> words(item, said);
            case ITEMS -> throw new IllegalArgumentException(item.name() + " is no field to type into");
        };
    }

    private static Object number(String name, String said, TempUnit unit) {
        if (name.equals("c") || name.endsWith("_c")) {
            OptionalDouble celsius = unit.parseC(said);
            if (celsius.isEmpty()) {
                throw new IllegalArgumentException(
                        "\"" + said + "\" is no temperature; write 180, 180 C or 356 F");
            }
            return celsius.getAsDouble();
        }
        Matcher number = NUMBER.matcher(said);
        if (!number.matches()) {
            throw new IllegalArgumentException("\"" + said + "\" is no number; write 0.4 or 0,4");
        }
        double value = Double.parseDouble(number.group(1).replace(',', '.'));
        return converted(name, value, number.group(2).toLowerCase(Locale.ROOT), said);
    }

    /** The same quantity in the unit of the field. Inch and mil are exact: 25.4 mm and 0.0254 mm (international inch, 1959). */
    private static double converted(String name, double value, String unit, String said) {
        String wanted = name.substring(name.lastIndexOf('_') + 1);
        if (unit.isEmpty() || unit.equals(wanted)) {
            return value;
        }
        double factor = switch (wanted + "<" + unit) {
            case "mm<in", "mm<\"", "mm<inch" -> 25.4;
            case "mm<mil" -> 0.0254;
            case "mm<um", "mm<µm" -> 0.001;
            case "mm<cm" -> 10;
            case "ohm<k" -> 1000;
            case "ohm<m" -> 1e6;
            case "ohm<ω", "ohm<r", "pct<%", "deg<°" -> 1;
            case "a<ma" -> 0.001;
            case "v<mv" -> 0.001;
            case "min<h" -> 60;
            case "s<min" -> 60;
            default -> Double.NaN;
        };
        if (Double.isNaN(factor)) {
            throw new IllegalArgumentException("\"" + said + "\": the unit " + unit + " does not fit"
                    + (KNOWN.contains(wanted) ? "; write it in " + wanted : "; write a bare number"));
        }
        return value * factor;
    }

    private static Object yesNo(String said) {
        return switch (said.toLowerCase(Locale.ROOT)) {
            case "y", "yes", "j", "1", "true" -> true;
            case "n", "no", "0", "false" -> false;
            default -> throw new IllegalArgumentException("\"" + said + "\": write yes or no");
        };
    }

    private static String word(RecordType.Item item, String said) {
        List<String> words = item.field().words();
        String small = said.toLowerCase(Locale.ROOT).replace(' ', '_');
        if (words.contains(small)) {
            return small;
        }
        List<String> begin = words.stream().filter(w -> w.startsWith(small)).toList();
        if (begin.size() == 1) {
            return begin.getFirst();
        }
        throw new IllegalArgumentException(
                "\"" + said + "\" is none of " + String.join(", ", words).replace('_', ' '));
    }

    private static Object words(RecordType.Item item, String said) {
        List<String> said1 = Arrays.stream(said.split("[,;]")).map(String::strip).filter(w -> !w.isEmpty())
                .toList();
        if (item.field().words().isEmpty()) {
            return said1;
        }
        var words = new ArrayList<String>();
        for (String one : said1) {
            words.add(word(item, one));
        }
        return List.copyOf(words);
    }
}
