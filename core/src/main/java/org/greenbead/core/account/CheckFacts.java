package org.greenbead.core.account;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.book.Condition;
import org.greenbead.core.book.Facts;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;

/** What each check of a route states, and what on record shows it without anybody's tick; from {@code checks.txt}. */
public final class CheckFacts {
    private static final CheckFacts SHIPPED = new CheckFacts();

    /** @param shown empty where only a person can say it */
    private record Line(Facts yes, Facts no, Optional<Condition> shown) {}

    private final Map<String, Line> lines = new LinkedHashMap<>();

    private CheckFacts() {
        try (InputStream in = CheckFacts.class.getResourceAsStream("checks.txt")) {
            new String(in.readAllBytes(), StandardCharsets.UTF_8).lines()
                    .filter(l -> !l.isBlank() && !l.startsWith("#")).forEach(line -> {
                        String[] c = line.split("\\|", 4);
                        lines.put(c[0].strip(),
                                new Line(Facts.none().with(c[1]), Facts.none().with(c[2]),
                                        c[3].isBlank()
                                                ? Optional.empty()
                                                : Optional.of(new Condition(c[3].strip()))));
                    });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static CheckFacts shipped() {
        return SHIPPED;
    }

    public Set<String> checks() {
        return lines.keySet();
    }

    /** What a word on a check states. */
    public Facts states(String check, Attest word) {
        Line line = lines.get(check);
        return line == null || word == Attest.UNKNOWN
                ? Facts.none()
                : word == Attest.YES ? line.yes() : line.no();
    }

    /** Whether records, runs and photos show it. */
    public boolean shown(String check, Facts evidence) {
        return Optional.ofNullable(lines.get(check)).flatMap(Line::shown)
                .filter(c -> c.holds(evidence)).isPresent();
    }

    /** From what it is shown: the first of its facts that has an origin. */
    public String from(String check, KnownFacts evidence) {
        return Optional.ofNullable(lines.get(check)).flatMap(Line::shown).stream()
                .flatMap(c -> c.paths().stream()).map(p -> p.replace("[]", ".0"))
                .flatMap(p -> evidence.origin(p).stream()).map(Origin::from).findFirst()
                .orElse("what is on record");
    }

    /** Says what the ticks of a job state; those that ticked themselves say nothing twice. */
    void say(FactTree tree, Job job) {
        job.beads().stream().flatMap(b -> b.checks().stream())
                .filter(c -> c.state() != Attest.UNKNOWN && !c.tickedItself())
                .forEach(c -> {
                    tree.from(Origin.Source.TICKED, "tick " + c.id());
                    states(c.id(), c.state()).root().forEach((entity, fields) -> {
                        if (fields instanceof Map<?, ?> map) {
                            map.forEach((field, value) -> tree.put(entity + "." + field, value));
                        }
                    });
                });
    }
}
