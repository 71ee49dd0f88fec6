package org.greenbead.core.lines;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** A lamp that is followed by a hand: one tap a blink. @param tapsS s, in order */
public record Tapping(List<Double> tapsS) {
    public static final Tapping NONE = new Tapping(List.of());
    /** Two taps of one blink, as a key that bounces makes them, are one. The fastest hand taps some seven times a second. */
    private static final double BOUNCE_S = 0.08;
    /** The lamp has ended after so long a silence, or after the longest so far by this ratio. */
    private static final double SILENCE_S = 6;
    private static final double SILENCE_RATIO = 2.5;

    public Tapping {
        tapsS = List.copyOf(tapsS);
    }

    /** One more. A tap that is not later than the last, or bounces, is none. */
    public Tapping tapped(double atS) {
        if (!tapsS.isEmpty() && atS - tapsS.getLast() < BOUNCE_S) {
            return this;
        }
        var more = new ArrayList<>(tapsS);
        more.add(atS);
        return new Tapping(more);
    }

    /** {@code 3-1}; empty without a tap. */
    public String code() {
        return said(Rhythm.groups(tapsS));
    }

    /** What it may be: with pauses of one length only, {@code 4-4} is as well a {@code 4} that was followed twice. */
    public List<String> mayBe() {
        List<List<Integer>> all = Rhythm.repeats(tapsS);
        if (all.size() == 1 && all.getFirst().size() > 1 && all.getFirst().stream().distinct().count() == 1) {
            return List.of(code(), String.valueOf(all.getFirst().getFirst()));
        }
        return tapsS.isEmpty() ? List.of() : List.of(code());
    }

    /** The code and its repeats, as far as they were followed. */
    public List<String> repeats() {
        return Rhythm.repeats(tapsS).stream().map(Tapping::said).toList();
    }

    /** How often the lamp was followed through the whole code; the last time may have been broken off. */
    public int agreeing() {
        List<String> all = repeats();
        return all.isEmpty() ? 0 : (int) all.stream().filter(all.getFirst()::equals).count();
    }

    /** A repeat before the last that is not like the first: a tap was missed somewhere. */
    public boolean differs() {
        List<String> all = repeats();
        return all.stream().limit(Math.max(1, all.size() - 1)).distinct().count() > 1;
    }

    /** Whether nothing more is to be waited for. @param nowS on the clock of the taps */
    public boolean over(double nowS) {
        if (tapsS.isEmpty()) {
            return false;
        }
        double longest = 0;
        for (int i = 1; i < tapsS.size(); i++) {
            longest = Math.max(longest, tapsS.get(i) - tapsS.get(i - 1));
        }
        return nowS - tapsS.getLast() > Math.max(SILENCE_S, SILENCE_RATIO * longest);
    }

    private static String said(List<Integer> counts) {
        return counts.stream().map(String::valueOf).collect(Collectors.joining("-"));
    }
}
