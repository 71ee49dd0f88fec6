package org.greenbead.core.lines;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Two outputs of a tester side by side: lines that are the same, that changed in their numbers, that went and that came. Lines are put together by
 * the longest common subsequence of their words without the numbers (Hunt and McIlroy 1976); numbers of a pair are compared with their tolerance.
 */
public final class LineCompare {
    private static final Pattern NUMBER = Pattern.compile("[-+]?\\d+(?:[.,]\\d+)?(?:[eE][-+]?\\d+)?");
    private static final int MOST_LINES = 4000;

    private LineCompare() {
    }

    /** What became of a line. */
    public enum State {
        SAME,
        /** Its numbers moved within their tolerance. */
        CLOSE,
        /** Its numbers moved by more. */
        CHANGED, GONE, NEW
    }

    /** @param before empty for a new line, @param after empty for one that is gone, @param pinned it matters to the complaint */
    public record Line(State state, String before, String after, boolean pinned) {}

    /**
     * @param tolerancePct by how much a number may move, percent of what it was
     * @param pins         words of lines that matter; small and large letters are the same
     * @throws IllegalArgumentException when an output has too many lines
     */
    public static List<Line> of(String before, String after, double tolerancePct, List<String> pins) {
        List<String> a = lines(before);
        List<String> b = lines(after);
        List<String> wordsA = a.stream().map(LineCompare::words).toList();
        List<String> wordsB = b.stream().map(LineCompare::words).toList();
        int[][] longest = new int[a.size() + 1][b.size() + 1];
        for (int i = a.size() - 1; i >= 0; i--) {
            for (int j = b.size() - 1; j >= 0; j--) {
                longest[i][j] = wordsA.get(i).equals(wordsB.get(j))
                        ? longest[i + 1][j + 1] + 1
                        : Math.max(longest[i + 1][j], longest[i][j + 1]);
            }
        }
        var out = new ArrayList<Line>();
        int i = 0;
        int j = 0;
        while (i < a.size() || j < b.size()) {
            if (i < a.size() && j < b.size() && wordsA.get(i).equals(wordsB.get(j))) {
                out.add(line(state(a.get(i), b.get(j), tolerancePct), a.get(i++), b.get(j++), pins));
            } else if (j >= b.size() || i < a.size() && longest[i + 1][j] >= longest[i][j + 1]) {
                out.add(line(State.GONE, a.get(i++), "", pins));
            } else {
                out.add(line(State.NEW, "", b.get(j++), pins));
            }
        }
        return List.copyOf(out);
    }

    private static Line line(State state, String before, String after, List<String> pins) {
        String both = (before + " " + after).toLowerCase(Locale.ROOT);
        return new Line(state, before, after,
                pins.stream()
                        .anyMatch(p -> !p.isBlank() && both.contains(p.strip().toLowerCase(Locale.ROOT))));
    }

    private static List<String> lines(String text) {
        List<String> lines = text.lines().map(String::strip).filter(l -> !l.isEmpty()).toList();
        if (lines.size() > MOST_LINES) {
            throw new IllegalArgumentException(
                    "an output of " + lines.size() + " lines; give at most " + MOST_LINES);
        }
        return lines;
    }

    private static String words(String line) {
        return NUMBER.matcher(line).replaceAll("#").replaceAll("\\s+", " ").toLowerCase(Locale.ROOT);
    }

    private static State state(String before, String after, double tolerancePct) {
        if (before.equals(after)) {
            return State.SAME;
        }
        Matcher a = NUMBER.matcher(before);
        Matcher b = NUMBER.matcher(after);
        while (a.find() && b.find()) {
            double was = number(a.group());
            double is = number(b.group());
            if (Math.abs(is - was) > Math.abs(was) * tolerancePct / 100 + 1e-12) {
                return State.CHANGED;
            }
        }
        return State.CLOSE;
    }

    private static double number(String text) {
        return Double.parseDouble(text.replace(',', '.'));
    }
}
