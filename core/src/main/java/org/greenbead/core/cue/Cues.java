package org.greenbead.core.cue;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Schools;

/** Which checks count, which hand over, from {@code cues.txt}. Immutable. */
public final class Cues {
    private static final Cues SHIPPED = new Cues(resource());
    private final Map<String, Cue> counts = new LinkedHashMap<>();
    private final Set<String> handOvers = new LinkedHashSet<>();

    private Cues(String text) {
        for (String line : text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
            String[] w = line.split("\\s+");
            if (w[1].equals("handover")) {
                handOvers.add(w[0]);
            } else {
                counts.put(w[0], new Cue(w[0], w[2], Integer.parseInt(w[3]), w[1].equals("count"),
                        List.of(w).contains("quiet")));
            }
        }
    }

    private static String resource() {
        try (InputStream in = Cues.class.getResourceAsStream("cues.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static Cues shipped() {
        return SHIPPED;
    }

    public Optional<Cue> of(String check) {
        return Optional.ofNullable(counts.get(check));
    }

    /** Whether this job counts fixed minutes from the start of a step instead of from what is seen. */
    public static boolean fixed(Job job) {
        return Schools.shipped().find("cue").map(s -> Schools.shipped().chosen(job, s).equals("minutes"))
                .orElse(false);
    }

    public List<Cue> all() {
        return List.copyOf(counts.values());
    }

    /** At this check a hand lets go of something that another must hold by then: there may be no gap. */
    public boolean handOver(String check) {
        return handOvers.contains(check);
    }
}
