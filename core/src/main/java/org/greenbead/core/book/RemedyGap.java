package org.greenbead.core.book;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A number that a remedy reckons from the job: {@code {$wait}} is a threshold with its unit, {@code {solidus(plan.ball_alloy) - $under; °C}} an
 * expression of the language of conditions with the unit of what comes out.
 *
 * @param text as it stands in the remedy, braces included
 * @param unit °C, K, or one that is written after the number
 */
record RemedyGap(String text, Condition number, String unit) {
    private static final Pattern GAP = Pattern.compile("\\{([^};]+)(?:; *([^}]+))?}");

    /** @throws IllegalArgumentException when one cannot be read, or names a threshold that the rule has not got */
    static List<RemedyGap> of(BookRule rule) {
        var gaps = new ArrayList<RemedyGap>();
        Matcher gap = GAP.matcher(rule.remedy());
        while (gap.find()) {
            String expression = gap.group(1).strip();
            String unit = gap.group(2) == null ? "" : gap.group(2).strip();
            if (expression.startsWith("$") && unit.isEmpty()) {
                BookRule.Limit limit = rule.limits().get(expression.substring(1));
                if (limit == null) {
                    throw new IllegalArgumentException(
                            "the remedy of " + rule.id() + " names " + expression
                                    + ", which is no limit of it");
                }
                unit = limit.unit();
            }
            gaps.add(new RemedyGap(gap.group(), new Condition(expression), unit));
        }
        return gaps;
    }
}
