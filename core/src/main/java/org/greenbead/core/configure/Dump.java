package org.greenbead.core.configure;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A read-out of a memory: where a part number stands in it, in any of the ways it may be written, and what two read-outs differ in. */
public final class Dump {
    private static final int MOST_HITS = 1000;
    private static final int SHORTEST = 2;
    /** Changed bytes with no more than so many equal ones between them are one change. */
    private static final int TOGETHER = 8;

    private Dump() {
    }

    /** How it is written. */
    public enum Mode {
        /** As the letters stand. */
        TEXT,
        /** Two bytes a letter, the low one first. */
        WIDE,
        /** The bytes that were given as hexadecimal digits. */
        HEX,
        /** Letters with every two bytes changed round. */
        SWAPPED,
        /** Letters with every four bytes turned round. */
        TURNED
    }

    /** @param offset of the first byte */
    public record Hit(long offset, Mode mode) {}

    /** A stretch that differs. @param length bytes, in the longer of the two */
    public record Change(long offset, long length) {}

    /**
     * Every place where the words stand. Letters are told apart by case.
     *
     * @throws IllegalArgumentException when there is too little to look for
     */
    public static List<Hit> find(byte[] dump, String words) {
        if (words.strip().length() < SHORTEST) {
            throw new IllegalArgumentException("\"" + words + "\" is too short to look for; give at least "
                    + SHORTEST + " letters");
        }
        Map<Mode, byte[]> patterns = new LinkedHashMap<>();
        byte[] text = words.getBytes(StandardCharsets.ISO_8859_1);
        patterns.put(Mode.TEXT, text);
        patterns.put(Mode.WIDE, words.getBytes(StandardCharsets.UTF_16LE));
        patterns.put(Mode.SWAPPED, turned(text, 2));
        patterns.put(Mode.TURNED, turned(text, 4));
        String digits = words.replaceAll("[\\s:-]|0x", "");
        if (digits.matches("(?i)[0-9a-f]+") && digits.length() % 2 == 0 && digits.length() >= 2 * SHORTEST) {
            patterns.put(Mode.HEX, HexFormat.of().parseHex(digits));
        }
        var hits = new ArrayList<Hit>();
        patterns.forEach((mode, pattern) -> {
            for (int at = 0; at + pattern.length <= dump.length && hits.size() < MOST_HITS; at++) {
                if (stands(dump, at, pattern)) {
                    hits.add(new Hit(at, mode));
                }
            }
        });
        hits.sort(java.util.Comparator.comparingLong(Hit::offset));
        return List.copyOf(hits);
    }

    private static boolean stands(byte[] dump, int at, byte[] pattern) {
        for (int i = 0; i < pattern.length; i++) {
            if (dump[at + i] != pattern[i]) {
                return false;
            }
        }
        return true;
    }

    /** Groups of bytes turned round; what is left over at the end is left out, as its neighbours are not known. */
    private static byte[] turned(byte[] text, int group) {
        byte[] out = new byte[text.length / group * group];
        for (int i = 0; i < out.length; i++) {
            out[i] = text[i / group * group + group - 1 - i % group];
        }
        return out.length == 0 ? new byte[]{0, 0, 0, 0, 0, 0, 0, 1} : out;
    }

    /** What differs, in order; one that is longer differs from its end on. */
    public static List<Change> differences(byte[] before, byte[] after) {
        var changes = new ArrayList<Change>();
        int length = Math.max(before.length, after.length);
        int from = -1;
        int last = -1;
        for (int i = 0; i < length; i++) {
            boolean odd = i >= before.length || i >= after.length || before[i] != after[i];
            if (odd) {
                if (from >= 0 && i - last > TOGETHER) {
                    changes.add(new Change(from, last - from + 1));
                    from = -1;
                }
                from = from < 0 ? i : from;
                last = i;
            }
        }
        if (from >= 0) {
            changes.add(new Change(from, last - from + 1));
        }
        return List.copyOf(changes);
    }
}
