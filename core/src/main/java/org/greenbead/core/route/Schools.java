package org.greenbead.core.route;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.book.Phase;
import org.greenbead.core.record.Kept;

/** The points on which practice differs, from {@code schools.txt}, and what choosing does to a job. Immutable. */
public final class Schools {
    private static final Schools SHIPPED = new Schools(resource());
    private final List<School> schools = new ArrayList<>();

    private Schools(String text) {
        String[] head = {};
        var choices = new ArrayList<School.Choice>();
        for (String line : text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
            if (line.startsWith("[")) {
                close(head, choices);
                head = line.replaceAll("[\\[\\]]", "").split("\\s+");
                choices.clear();
            } else {
                String[] c = line.split("\\|", -1);
                choices.add(new School.Choice(c[0].strip(), c[1].strip(), part(c, 2), part(c, 3)));
            }
        }
        close(head, choices);
    }

    private static Optional<String> part(String[] column, int at) {
        return column.length > at && !column[at].isBlank()
                ? Optional.of(column[at].strip())
                : Optional.empty();
    }

    private void close(String[] head, List<School.Choice> choices) {
        if (head.length > 0) {
            schools.add(new School(head[0], head[1], head[2], head.length > 3 && head[3].equals("follows"),
                    choices));
        }
    }

    private static String resource() {
        try (InputStream in = Schools.class.getResourceAsStream("schools.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static Schools shipped() {
        return SHIPPED;
    }

    public List<School> all() {
        return List.copyOf(schools);
    }

    public Optional<School> find(String id) {
        return schools.stream().filter(s -> s.id().equals(id)).findFirst();
    }

    /** Those that mean something for this job: their bead is in its route. */
    public List<School> of(Job job) {
        return schools.stream().filter(s -> job.bead(s.bead()).isPresent()).toList();
    }

    /** What a job has chosen, and the default where it has not. */
    public String chosen(Job job, School school) {
        return job.records("school").reversed().stream().filter(r -> r.text("point").equals(school.id()))
                .map(r -> r.text("choice")).findFirst().orElse(school.standard());
    }

    /**
     * The job with a choice made: its facts, its route, and the reason as a record.
     *
     * @throws IllegalArgumentException when another way than the default has no reason, or what it changes was worked already
     */
    public Job choose(Job job, School school, String choice, String reason, Instant at, String by) {
        School.Choice now = school.require(choice);
        if (!choice.equals(school.standard()) && reason.isBlank()) {
            throw new IllegalArgumentException("another way than the usual one is chosen with a reason");
        }
        School.Choice before = school.require(chosen(job, school));
        Routes routes = Routes.shipped();
        Job changed = job;
        // What the earlier choice had taken in goes first; what it had taken out comes back.
        if (!before.id().equals(now.id())) {
            Optional<String> after = school.follows() ? Optional.of(school.bead()) : Optional.empty();
            changed = swap(changed, before.in(), before.out(), after, routes);
            changed = swap(changed, now.out(), now.in(), after, routes);
        }
        changed = changed.with(changed.facts().with(now.facts()));
        Map<String, Object> fields = new LinkedHashMap<>();
        fields.put("point", school.id());
        fields.put("choice", choice);
        if (!reason.isBlank()) {
            fields.put("reason", reason.strip());
        }
        Optional<Kept> earlier = job.records("school").stream()
                .filter(r -> r.text("point").equals(school.id())).findFirst();
        return changed
                .with(new Kept(earlier.map(Kept::id).orElseGet(() -> job.freeId("school")), "school", at, by,
                        fields));
    }

    private static Job swap(Job job, Optional<String> out, Optional<String> in, Optional<String> after,
            Routes routes) {
        if (out.isEmpty() && in.isEmpty()) {
            return job;
        }
        Set<String> leaving = new LinkedHashSet<>();
        out.ifPresent(p -> routes.part(p).forEach(t -> leaving.add(t.id())));
        List<Bead> coming = in.map(p -> routes.part(p).stream().map(t -> Routes.open(t, job)).toList())
                .orElse(List.of());
        coming.forEach(b -> leaving.remove(b.id()));
        if (job.beads().stream().anyMatch(b -> leaving.contains(b.id()) && b.workedByHand())) {
            throw new IllegalArgumentException(
                    "steps of this way are worked already; it cannot be changed any more");
        }
        var beads = new ArrayList<>(job.beads());
        int at = -1;
        for (int i = 0; i < beads.size(); i++) {
            if (leaving.contains(beads.get(i).id())) {
                at = at < 0 ? i : at;
            }
        }
        beads.removeIf(b -> leaving.contains(b.id()));
        for (int i = 0; i < beads.size() && after.isPresent(); i++) {
            if (beads.get(i).id().equals(after.get())) {
                at = i + 1;
            }
        }
        for (Bead bead : coming) {
            if (beads.stream().noneMatch(b -> b.id().equals(bead.id()))) {
                int place = at >= 0 ? at++ : lastOf(beads, bead.phase());
                beads.add(place, bead);
            }
        }
        return job.withBeads(beads);
    }

    /** After the last bead of a phase or of an earlier one. */
    private static int lastOf(List<Bead> beads, Phase phase) {
        int at = 0;
        while (at < beads.size() && beads.get(at).phase().compareTo(phase) <= 0) {
            at++;
        }
        return at;
    }
}
