package org.greenbead.core.route;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.book.Phase;

/** How this house works one kind of job: its own steps, the order of all, and what it leaves out. What heats and what must not be left out is always there. */
public record HouseRoute(JobKind kind, List<Step> steps) {
    /** @param checks of a step of one's own, in words; empty for a shipped one */
    public record Step(Phase phase, String id, List<String> checks) {}

    public HouseRoute {
        steps = List.copyOf(steps);
    }

    /** The way in which one job stands now. */
    public static HouseRoute of(JobKind kind, Job job) {
        return new HouseRoute(kind, job.beads().stream().map(b -> new Step(b.phase(), b.id(),
                OwnSteps.own(b.id()) ? b.checks().stream().map(c -> words(c.id())).toList() : List.of()))
                .toList());
    }

    private static String words(String id) {
        return id.substring(org.greenbead.core.quantity.Words.OWN.length());
    }

    /** A line a step: phase, id, checks, with | between them. */
    public String text() {
        return String.join("\n", steps.stream()
                .map(s -> s.phase().name().toLowerCase(Locale.ROOT) + "|" + s.id() + "|"
                        + String.join("|", s.checks()))
                .toList());
    }

    /** As {@link #text} writes it; a line that cannot be read is left out. */
    public static HouseRoute read(JobKind kind, String text) {
        var steps = new ArrayList<Step>();
        for (String line : text.lines().toList()) {
            String[] part = line.split("\\|");
            if (part.length >= 2) {
                try {
                    steps.add(new Step(Phase.valueOf(part[0].toUpperCase(Locale.ROOT)), part[1],
                            List.of(part).subList(2, part.length)));
                } catch (IllegalArgumentException e) {
                    // A phase that there is no more: the shipped step of that name stays where it is.
                }
            }
        }
        return new HouseRoute(kind, steps);
    }

    /**
     * The steps of a new job in the house's way.
     *
     * @param shipped of the kind, as they come
     */
    public List<Bead> over(List<Bead> shipped) {
        if (steps.isEmpty()) {
            return shipped;
        }
        var beads = new ArrayList<Bead>();
        for (Step step : steps) {
            if (OwnSteps.own(step.id())) {
                beads.add(OwnSteps.bead(step.phase(), words(step.id()), step.checks()));
            } else {
                shipped.stream().filter(b -> b.id().equals(step.id())).findFirst().ifPresent(beads::add);
            }
        }
        for (int i = 0; i < shipped.size(); i++) {
            Bead bead = shipped.get(i);
            boolean there = beads.stream().anyMatch(b -> b.id().equals(bead.id()));
            if (!there && (bead.kind() != Bead.Kind.CHECK || Routes.shipped().keeps(bead.id()))) {
                Optional<Bead> before = i == 0 ? Optional.empty() : Optional.of(shipped.get(i - 1));
                int at = before.map(b -> index(beads, b.id())).orElse(-1) + 1;
                beads.add(at, bead);
            }
        }
        beads.sort(Comparator.comparing(Bead::phase));
        return List.copyOf(beads);
    }

    private static int index(List<Bead> beads, String id) {
        for (int i = 0; i < beads.size(); i++) {
            if (beads.get(i).id().equals(id)) {
                return i;
            }
        }
        return -1;
    }
}
