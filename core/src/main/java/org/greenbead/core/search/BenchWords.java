package org.greenbead.core.search;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** What is heard at benches and what it means. Immutable. */
public final class BenchWords {
    private static final BenchWords SHIPPED = new BenchWords(resource());
    private final Map<String, Meaning> heard = new LinkedHashMap<>();
    private final int longest;

    /** @param trap what a slip of this word costs; may be empty */
    public record Meaning(String heard, List<String> means, String trap) {}

    /** One wish of a query: any of these texts. */
    public record Wish(String said, List<String> anyOf, String trap) {}

    private BenchWords(String text) {
        int words = 1;
        for (String line : text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
            String[] c = line.split("\\|", -1);
            List<String> means = List.of(c[1].strip().split("\\s*,\\s*"));
            for (String one : c[0].strip().split("\\s*,\\s*")) {
                heard.put(one, new Meaning(one, means, c[2].strip()));
                words = Math.max(words, one.split(" ").length);
            }
        }
        longest = words;
    }

    private static String resource() {
        try (InputStream in = BenchWords.class.getResourceAsStream("benchwords.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static BenchWords shipped() {
        return SHIPPED;
    }

    /** The wishes of a query: the longest bench word at each place, else the word itself. All of them have to be met. */
    public List<Wish> read(String query) {
        String[] word = query.toLowerCase(Locale.ROOT).strip().split("\\s+");
        var wishes = new ArrayList<Wish>();
        int at = 0;
        while (at < word.length && !word[at].isEmpty()) {
            int taken = 1;
            Wish wish = null;
            for (int length = Math.min(longest, word.length - at); length >= 1 && wish == null; length--) {
                String phrase = String.join(" ", List.of(word).subList(at, at + length));
                Meaning meaning = heard.get(phrase);
                if (meaning != null) {
                    var any = new ArrayList<String>();
                    any.add(phrase);
                    any.addAll(meaning.means());
                    wish = new Wish(phrase, List.copyOf(any), meaning.trap());
                    taken = length;
                }
            }
            wishes.add(wish == null ? new Wish(word[at], List.of(word[at]), "") : wish);
            at += taken;
        }
        return List.copyOf(wishes);
    }
}
