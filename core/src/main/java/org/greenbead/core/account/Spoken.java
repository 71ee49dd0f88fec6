package org.greenbead.core.account;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.greenbead.core.record.Kept;

/**
 * Temperatures in the free text of records: pairs in both units, which must agree, and numbers called degrees without saying which.
 */
final class Spoken {
    private static final Pattern PAIR = Pattern.compile(
            "(\\d{2,3})\\s*(?:°|deg(?:rees)?\\.?)?\\s*C\\b\\s*[(/=,]\\s*(\\d{2,3})\\s*(?:°|deg(?:rees)?\\.?)?\\s*F\\b");
    private static final Pattern DEGREES = Pattern
            .compile("(\\d{2,3})\\s*(?:°|deg(?:rees)?\\b\\.?)\\s*([CFK]\\b)?");
    /** Degrees of angle are written to numbers up to this; nothing at this bench is hot there. */
    private static final double ANGLE = 90;

    private Spoken() {
    }

    static void say(FactTree tree, List<Kept> records) {
        for (Kept record : records) {
            var texts = new ArrayList<String>();
            record.fields().values().forEach(v -> texts.add(String.valueOf(v)));
            for (String text : texts) {
                tree.from(Origin.Source.COMPUTED, "words of record " + record.id());
                Matcher pair = PAIR.matcher(text);
                while (pair.find()) {
                    int at = tree.item("values", "", null);
                    tree.put("values", at, "c", Double.valueOf(pair.group(1)));
                    tree.put("values", at, "f", Double.valueOf(pair.group(2)));
                }
                Matcher degrees = DEGREES.matcher(text);
                while (degrees.find()) {
                    if (degrees.group(2) != null || Double.parseDouble(degrees.group(1)) > ANGLE) {
                        int at = tree.item("values", "", null);
                        tree.put("values", at, "raw", degrees.group(1));
                        tree.put("values", at, "unit", degrees.group(2));
                    }
                }
            }
        }
    }
}
