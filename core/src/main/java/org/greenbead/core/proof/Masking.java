package org.greenbead.core.proof;

import java.util.regex.Pattern;

/** Takes out of free text what belongs to a person: addresses of mail, numbers of telephones, pass words and codes. */
public final class Masking {
    static final String MASK = "•••";
    private static final Pattern MAIL = Pattern
            .compile("[\\p{L}\\p{N}._%+-]+@[\\p{L}\\p{N}.-]+\\.\\p{L}{2,}");
    /** Seven digits or more, with what people put between them; a decimal number or a time has fewer. */
    private static final Pattern TELEPHONE = Pattern
            .compile("(?<![\\p{L}\\p{N}.,])\\+?\\d(?:[ /()-]{0,2}\\d){6,14}(?![\\p{L}\\p{N}])");
    /** A word that names a secret, and what follows it: anything after a colon, else what holds a digit. */
    private static final Pattern SECRET = Pattern.compile(
            "(?i)\\b(password|passcode|pass word|pin|unlock code|code|contrase\u00f1a|clave|passwort|kennwort|mot de passe|code pin)\\b"
                    + "(\\s*[:=]\\s*\\S+|(?:\\s+is)?\\s+(?=\\S*\\d)\\S+)");
    private static final Pattern VALUE = Pattern.compile("\\S+$");

    private Masking() {
    }

    public static String of(String text) {
        String masked = MAIL.matcher(text).replaceAll(MASK);
        masked = SECRET.matcher(masked).replaceAll(m -> java.util.regex.Matcher
                .quoteReplacement(VALUE.matcher(m.group()).replaceAll(MASK)));
        return TELEPHONE.matcher(masked).replaceAll(MASK);
    }
}
