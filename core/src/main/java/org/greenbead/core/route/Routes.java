package org.greenbead.core.route;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.greenbead.core.book.Phase;

/** The route of every kind of job, from data. */
public final class Routes {
    private static final List<String> SLOTS = List.of("lift", "seat", "form", "shape");
    private static final Routes SHIPPED = new Routes(resource());
    private final Map<JobKind, List<Template>> routes = new EnumMap<>(JobKind.class);
    private final Map<String, List<Template>> parts = new LinkedHashMap<>();
    private final LinkedHashSet<String> kept = new LinkedHashSet<>();
    private final LinkedHashSet<String> once = new LinkedHashSet<>();
    private final LinkedHashSet<String> told = new LinkedHashSet<>();
    private final LinkedHashSet<String> toldDonor = new LinkedHashSet<>();
    private final LinkedHashSet<JobKind> strands = new LinkedHashSet<>();

    /**
     * A bead before it belongs to a job.
     *
     * @param slot  for a bead that heats, which of the job's recipes
     * @param steps what it stands for in the rule book, in their order
     */
    public record Template(Phase phase, String id, Bead.Kind kind, Optional<String> slot, boolean gate,
            List<String> checks,
            List<String> steps) {}

    private Routes(String text) {
        List<Template> now = new ArrayList<>();
        for (String line : text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
            if (line.startsWith("!keep ")) {
                kept.addAll(words(line.substring("!keep ".length())));
            } else if (line.startsWith("!once ")) {
                once.addAll(words(line.substring("!once ".length())));
            } else if (line.startsWith("!told ")) {
                told.addAll(words(line.substring("!told ".length())));
            } else if (line.startsWith("!told-donor ")) {
                toldDonor.addAll(words(line.substring("!told-donor ".length())));
            } else if (line.startsWith("!strands ")) {
                words(line.substring("!strands ".length()))
                        .forEach(k -> strands.add(JobKind.valueOf(k.toUpperCase(Locale.ROOT))));
            } else if (line.startsWith("(")) {
                now = new ArrayList<>();
                parts.put(line.substring(1, line.indexOf(')')), now);
            } else if (line.startsWith("[")) {
                now = new ArrayList<>();
                routes.put(JobKind.valueOf(line.substring(1, line.indexOf(']')).toUpperCase(Locale.ROOT)),
                        now);
            } else if (line.startsWith("+")) {
                now.addAll(parts.get(line.substring(1).strip()));
            } else {
                now.add(template(line));
            }
        }
        // Phases keep their order whatever order the parts were taken in; within a phase the writing decides.
        routes.replaceAll(
                (kind, route) -> route.stream().sorted(Comparator.comparing(Template::phase)).toList());
    }

    private static Template template(String line) {
        String[] column = line.split("\\|", -1);
        String[] head = column[0].strip().split("\\s+");
        String[] kind = head[2].split(":");
        return new Template(Phase.valueOf(head[0].toUpperCase(Locale.ROOT)), head[1],
                Bead.Kind.valueOf(kind[0].toUpperCase(Locale.ROOT)),
                kind.length > 1 ? Optional.of(kind[1]) : Optional.empty(), head[3].equals("gate"),
                words(column[1]), words(column[2]));
    }

    private static List<String> words(String column) {
        return column.isBlank() ? List.of() : List.of(column.strip().split("\\s+"));
    }

    private static String resource() {
        try (InputStream in = Routes.class.getResourceAsStream("routes.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The routes as shipped. */
    public static Routes shipped() {
        return SHIPPED;
    }

    /** Whether a step is never left out: it guards a person, or data that nobody can bring back. */
    public boolean keeps(String beadId) {
        return kept.contains(beadId);
    }

    /** Types of record that are of the whole unit: what one strand of a job knows by them, all know. */
    public boolean ofTheUnit(String recordType) {
        return told.contains(recordType);
    }

    /** Types of record that a strand on another unit is told too: what was decided of the whole job. */
    boolean ofTheDecision(String recordType) {
        return toldDonor.contains(recordType);
    }

    /** Whether a bead is worked once for the whole unit, however many chips are worked on. */
    boolean once(Bead bead) {
        return bead.phase().compareTo(Phase.PLAN) < 0 || once.contains(bead.id());
    }

    /** What may be done with a further chip of a job. */
    public List<JobKind> strandKinds() {
        return List.copyOf(strands);
    }

    /**
     * The beads of a further chip: from the plan to the seat, without what is done once for the whole unit.
     *
     * @param elsewhere it sits on another unit, which is opened and stripped by itself
     */
    public List<Bead> strand(JobKind kind, Map<String, String> recipes, boolean elsewhere) {
        return beads(kind, recipes).stream()
                .filter(b -> elsewhere ? b.phase().compareTo(Phase.PLAN) >= 0 : !once(b))
                .filter(b -> b.phase().compareTo(Phase.SEAT) <= 0).toList();
    }

    /** A part that routes share. @throws IllegalArgumentException when there is none of this name */
    public List<Template> part(String name) {
        List<Template> part = parts.get(name);
        if (part == null) {
            throw new IllegalArgumentException("routes have no part \"" + name + "\"");
        }
        return List.copyOf(part);
    }

    public List<Template> of(JobKind kind) {
        return routes.get(kind);
    }

    /** The phase that a bead of any route or part belongs to; empty for a bead that none has. */
    public Optional<Phase> phase(String beadId) {
        return Stream.concat(routes.values().stream(), parts.values().stream()).flatMap(List::stream)
                .filter(t -> t.id().equals(beadId)).map(Template::phase).findFirst();
    }

    /** The steps of a route in the order of work, for the rule book. */
    public List<String> steps(JobKind kind) {
        var steps = new LinkedHashSet<String>();
        routes.get(kind).forEach(t -> steps.addAll(t.steps()));
        return List.copyOf(steps);
    }

    /** The steps that a job's own beads stand for: a bead means what it means in the route of its kind, else in any. */
    public List<String> steps(JobKind kind, List<Bead> beads) {
        var steps = new LinkedHashSet<String>();
        for (Bead bead : beads) {
            // A strand reads the beads of its job too, whose kind may be another.
            Stream.of(Stream.of(routes.get(kind)), parts.values().stream(), routes.values().stream())
                    .flatMap(part -> part).flatMap(List::stream)
                    .filter(t -> t.id().equals(bead.id())).findFirst()
                    .ifPresent(t -> steps.addAll(t.steps()));
        }
        return List.copyOf(steps);
    }

    /** A bead that nobody has worked. */
    static Bead open(Template t, Job job) {
        return new Bead(t.id(), t.phase(), t.kind(), t.gate(), BeadState.OPEN,
                t.checks().stream().map(c -> new CheckItem(c, Attest.UNKNOWN, "")).toList(),
                t.slot().map(slot -> recipe(job.board(), job.target(), slot)));
    }

    /** The usual id of the recipe that heats one chip of one board for one slot of a route. */
    public static String recipe(String board, String target, String slot) {
        return (board + "-" + target).toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9-]", "") + "-" + slot;
    }

    /** The slots of all routes with the usual ids of their recipes. */
    public static Map<String, String> recipes(String board, String target) {
        return SLOTS.stream()
                .collect(java.util.stream.Collectors.toMap(s -> s, s -> recipe(board, target, s)));
    }

    /**
     * The beads of a new job.
     *
     * @param recipes id of the recipe for each slot of the route ("lift", "seat", "form", "shape")
     * @throws IllegalArgumentException naming the slot that has none
     */
    public List<Bead> beads(JobKind kind, Map<String, String> recipes) {
        var beads = new ArrayList<Bead>();
        for (Template t : routes.get(kind)) {
            Optional<String> recipe = t.slot().map(slot -> Optional.ofNullable(recipes.get(slot)).orElseThrow(
                    () -> new IllegalArgumentException(
                            "a job of kind " + kind.key() + " needs a recipe for \"" + slot + "\"")));
            beads.add(new Bead(t.id(), t.phase(), t.kind(), t.gate(), BeadState.OPEN,
                    t.checks().stream().map(c -> new CheckItem(c, Attest.UNKNOWN, "")).toList(), recipe));
        }
        return List.copyOf(beads);
    }
}
