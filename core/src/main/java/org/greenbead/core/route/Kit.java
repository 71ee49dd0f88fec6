package org.greenbead.core.route;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.greenbead.core.record.Kept;

/** What has to lie ready for the beads of a job, from {@code kit.txt}: the union over its beads, less what was put out. */
public final class Kit {
    private static final Kit SHIPPED = new Kit();
    private final Map<String, List<String>> tools = new LinkedHashMap<>();

    private Kit() {
        try (InputStream in = Kit.class.getResourceAsStream("kit.txt")) {
            new String(in.readAllBytes(), StandardCharsets.UTF_8).lines()
                    .filter(l -> !l.isBlank() && !l.startsWith("#")).forEach(line -> {
                        String[] c = line.split("\\|");
                        for (String bead : c[0].strip().split("\\s+")) {
                            tools.put(bead, List.of(c[1].strip().split("\\s*,\\s*")));
                        }
                    });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static Kit shipped() {
        return SHIPPED;
    }

    /** Beads that the list knows, for tests of the data. */
    Set<String> beads() {
        return tools.keySet();
    }

    /** Tools and consumables of a bead; their words are {@code kit.<tool>}. */
    public List<String> of(String bead) {
        return tools.getOrDefault(bead, List.of());
    }

    /** What the beads that are not worked yet need, in the order of work, each once. */
    public List<String> needed(Job job) {
        var needed = new LinkedHashSet<String>();
        job.beads().stream().filter(b -> !b.worked()).forEach(b -> needed.addAll(of(b.id())));
        return List.copyOf(needed);
    }

    /** What is needed and was not put out. */
    public List<String> missing(Job job) {
        List<String> out = job.records("kit").stream().map((Kept r) -> r.text("item")).toList();
        return needed(job).stream().filter(t -> !out.contains(t)).toList();
    }
}
