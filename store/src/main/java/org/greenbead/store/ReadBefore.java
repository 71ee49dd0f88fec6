package org.greenbead.store;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/**
 * Boards, benches, recipes and chips that were read before. A job's plan asks for the same few at every act; a text that has been found sound once, letter for
 * letter, need not be taken apart again. What it became cannot change, so that all may share it. Safe for several threads.
 */
final class ReadBefore {
    private static final int MOST = 64;
    /** Longer ones are read each time, letters: memory is worth more. */
    private static final int LONGEST = 100_000;
    private final Map<Text, Object> known = new LinkedHashMap<>(MOST, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Text, Object> eldest) {
            return size() > MOST;
        }
    };

    private record Text(Format format, String body) {}

    /** What that text became. */
    synchronized Optional<Object> of(Format format, String body) {
        return kept(format, body) ? Optional.ofNullable(known.get(new Text(format, body))) : Optional.empty();
    }

    synchronized void keep(Format format, String body, Object value) {
        if (kept(format, body)) {
            known.put(new Text(format, body), value);
        }
    }

    /** Jobs grow with every act and are kept by the ledger; a plan or a rehearsal is read once. */
    private static boolean kept(Format format, String body) {
        return body.length() <= LONGEST && switch (format) {
            case BOARD, BENCH, RECIPE, CHIP -> true;
            case JOB, PLAN, REHEARSAL, WITNESS, STOCK -> false;
        };
    }
}
