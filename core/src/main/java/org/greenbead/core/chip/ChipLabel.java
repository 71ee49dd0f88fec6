package org.greenbead.core.chip;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * The number on a chip's label: "GB-0042-7". The last digit checks the others (ISO/IEC 7064, MOD 11,10: it finds every single wrong digit
 * and nearly every swap of neighbours), so that a slip of the hand does not become another chip.
 */
public record ChipLabel(int number) {
    private static final Pattern LABEL = Pattern.compile("(?:GB)?\\s*-?\\s*(\\d{4})\\s*-?\\s*(\\d)");

    public ChipLabel {
        if (number < 1 || number > 9999) {
            throw new IllegalArgumentException("chip number is " + number + "; allowed is 1 to 9999");
        }
    }

    /** Reads what was typed or scanned; empty when it is no label or its check digit does not fit. */
    public static Optional<ChipLabel> read(String text) {
        var match = LABEL.matcher(text.strip().toUpperCase(Locale.ROOT));
        if (!match.matches()) {
            return Optional.empty();
        }
        int number = Integer.parseInt(match.group(1));
        return number >= 1 && check(match.group(1)) == Integer.parseInt(match.group(2))
                ? Optional.of(new ChipLabel(number))
                : Optional.empty();
    }

    /** ISO/IEC 7064, hybrid system MOD 11,10. */
    private static int check(String digits) {
        int product = 10;
        for (char digit : digits.toCharArray()) {
            int sum = (digit - '0' + product) % 10;
            product = 2 * (sum == 0 ? 10 : sum) % 11;
        }
        return (11 - product) % 10;
    }

    public String text() {
        String digits = String.format(Locale.ROOT, "%04d", number);
        return "GB-" + digits + "-" + check(digits);
    }
}
