package org.greenbead.core.proof;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.greenbead.core.account.RailReferences;
import org.greenbead.core.account.Screws;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/**
 * What a customer is told at the end: the answer in one line, what was wrong, what was done, the proofs, what was not shown, what to expect and
 * what to mind. Everything is drawn from what is on record; free text is masked. A job without any heat, a diagnosis, a copy of data or a declined
 * unit, has its summary as well.
 *
 * @param wrong  sentences, as all lists
 * @param letter empty where nothing was heated
 */
public record JobSummary(Answer answer, String line, List<String> wrong, List<String> done,
        List<ProofWall.Proof> proofs,
        List<String> open, List<String> expect, List<String> mind, Optional<Confidence> letter) {

    /** What it came to. */
    public enum Answer {
        REPAIRED, WORKS, NOT_REPAIRED, DATA_SAVED, DECLINED, EXAMINED,
        /** Nothing is shown after the work yet. */
        IN_HAND
    }

    private static final double LOW_MELTING_C = 150;

    public JobSummary {
        wrong = List.copyOf(wrong);
        done = List.copyOf(done);
        proofs = List.copyOf(proofs);
        open = List.copyOf(open);
        expect = List.copyOf(expect);
        mind = List.copyOf(mind);
    }

    /** @param healthy what rails of this type of board read on healthy ones */
    public static JobSummary of(Job job, Map<String, RailReferences.Reference> healthy, Words words) {
        return of(job, List.of(), healthy, words);
    }

    /** @param strands its further chips */
    public static JobSummary of(Job job, List<Job> strands, Map<String, RailReferences.Reference> healthy,
            Words words) {
        return new Maker(job, strands, ProofWall.of(job, strands, healthy, words), words).make();
    }

    private static final class Maker {
        private final Job job;
        private final List<Job> strands;
        private final List<ProofWall.Proof> proofs;
        private final Words words;

        Maker(Job job, List<Job> strands, List<ProofWall.Proof> proofs, Words words) {
            this.job = job;
            this.strands = List.copyOf(strands);
            this.proofs = proofs;
            this.words = words;
        }

        JobSummary make() {
            Answer answer = answer();
            boolean attempted = answer != Answer.DECLINED && answer != Answer.EXAMINED;
            return new JobSummary(answer, line(answer), wrong(), done(), proofs,
                    attempted ? open() : List.of(), expect(),
                    mind(), Confidence.of(job, strands, proofs));
        }

        private Optional<Kept> last(String type) {
            return job.records(type).stream().reduce((a, b) -> b);
        }

        /** What each further chip says by itself, with its name before it. */
        private List<String> ofStrands(java.util.function.Function<Maker, List<String>> says) {
            return strands.stream()
                    .flatMap(s -> says.apply(new Maker(s, List.of(), List.of(), words)).stream()
                            .map(line -> words.say("closing.strand", name(s.target()), name(line))))
                    .toList();
        }

        private boolean heated() {
            return strands.stream().anyMatch(s -> new Maker(s, List.of(), List.of(), words).heated())
                    || job.records("run").stream().anyMatch(r -> !r.text("kind").equals("form"));
        }

        private Optional<Kept> data() {
            return job.records("tested").stream()
                    .filter(t -> !t.text("data_proof").isEmpty() && t.text("result").equals("pass"))
                    .reduce((a, b) -> b);
        }

        private Answer answer() {
            if (last("decision").filter(d -> d.text("course").equals("decline")).isPresent() && !heated()) {
                return Answer.DECLINED;
            }
            boolean forData = job.records("intake").stream().anyMatch(i -> i.text("goal").equals("data"));
            if (forData && data().isPresent()) {
                return Answer.DATA_SAVED;
            }
            boolean after = proofs.stream().anyMatch(p -> !p.after().isEmpty());
            ProofWall.Answer shown = ProofWall.answer(proofs);
            if (!heated()) {
                boolean looked = !job.records("diagnosis").isEmpty() || !job.records("rail").isEmpty()
                        || !job.records("curve").isEmpty();
                if (!after) {
                    return looked ? Answer.EXAMINED : Answer.IN_HAND;
                }
            }
            if (!after) {
                return Answer.IN_HAND;
            }
            boolean complaints = proofs.stream().filter(p -> p.kind() == ProofWall.Kind.COMPLAINT)
                    .allMatch(p -> p.state() == ProofWall.State.HOLDS);
            return switch (shown) {
                case FAILS -> Answer.NOT_REPAIRED;
                case PROVEN -> Answer.REPAIRED;
                case OPEN -> complaints ? Answer.WORKS : Answer.IN_HAND;
                case NOTHING -> Answer.IN_HAND;
            };
        }

        private String line(Answer answer) {
            String said = switch (answer) {
                case WORKS -> words.say("closing.works", new Quantity.Count(
                        proofs.stream().filter(p -> p.state() == ProofWall.State.OPEN).count()));
                case NOT_REPAIRED -> words.say("closing.not_repaired", name(proofs.stream()
                        .filter(p -> p.state() == ProofWall.State.FAILS).map(this::told).findFirst()
                        .orElse("")));
                case DATA_SAVED ->
                    words.say("closing.data_saved", name(data().orElseThrow().text("data_proof")));
                default -> words.say("closing." + answer.name().toLowerCase(Locale.ROOT));
            };
            return temporary() && (answer == Answer.REPAIRED || answer == Answer.WORKS)
                    ? said + " " + words.say("closing.temporary")
                    : said;
        }

        private String told(ProofWall.Proof p) {
            return words.say("proof.told." + p.kind().name().toLowerCase(Locale.ROOT),
                    name(Masking.of(p.name())));
        }

        private boolean temporary() {
            return last("disclosure").filter(d -> d.yes("temporary")).isPresent()
                    || job.facts().at("job.kind").filter("reflow"::equals).isPresent();
        }

        private List<String> wrong() {
            var out = new ArrayList<String>();
            out.add(words.say("closing.complaint", name(Masking.of(job.complaint()))));
            for (Kept symptom : job.records("symptom")) {
                symptom.noted("reproduced").ifPresent(r -> out.add(words.say(
                        Boolean.TRUE.equals(r) ? "closing.seen" : "closing.never_seen",
                        name(Masking.of(symptom.text("words"))))));
            }
            last("intake").map(i -> i.text("found")).filter(f -> !f.isEmpty())
                    .ifPresent(f -> out.add(words.say("closing.found", name(Masking.of(f)))));
            last("diagnosis").ifPresent(d -> {
                if (!d.text("cause_class").isEmpty()) {
                    out.add(words.say("closing.sits_in", name(plain("cause_class", d)),
                            name(d.text("cause").isEmpty()
                                    ? words.say("closing.no_cause")
                                    : plain("cause", d))));
                }
                if (d.fields().get("rests_on") instanceof List<?> on && !on.isEmpty()) {
                    out.add(words.say("closing.rests_on", name(on.stream().map(o -> plain(String.valueOf(o)))
                            .collect(Collectors.joining(", ")))));
                }
            });
            last("condition").map(c -> c.fields().get("defects")).filter(List.class::isInstance)
                    .map(d -> (List<?>) d)
                    .filter(d -> !d.isEmpty())
                    .ifPresent(d -> out.add(words.say("closing.defects", name(Masking.of(
                            d.stream().map(String::valueOf).collect(Collectors.joining(", ")))))));
            last("decision").filter(d -> !d.text("reason").isEmpty())
                    .ifPresent(d -> out.add(Masking.of(d.text("reason"))));
            return out;
        }

        private List<String> done() {
            var out = new ArrayList<String>();
            last("disclosure").map(d -> d.text("done")).filter(d -> !d.isEmpty())
                    .ifPresent(d -> out.add(Masking.of(d)));
            for (Kept run : lastRuns()) {
                String step = words.has("closing.step." + run.text("kind"))
                        ? words.say("closing.step." + run.text("kind"))
                        : run.text("kind");
                out.add(Double.isFinite(run.number("peak_c"))
                        ? words.say(run.yes("proven") ? "closing.heat.proven" : "closing.heat.unproven",
                                name(step),
                                new Quantity.TempC(run.number("peak_c")),
                                new Quantity.Seconds(orZero(run.number("above_s"))))
                        : words.say("closing.heat", name(step)));
            }
            last("balls").filter(b -> Double.isFinite(b.number("count")))
                    .ifPresent(b -> out.add(words.say("closing.balls", count(b.number("count")),
                            count(orZero(b.number("missing")) + orZero(b.number("bridged"))
                                    + orZero(b.number("doubled")) + orZero(b.number("unclear"))))));
            long lost = job.records("pad").stream()
                    .filter(p -> List.of("missing", "lifted").contains(p.text("kind")))
                    .count();
            if (lost > 0) {
                out.add(words.say("closing.pads", count(lost)));
            }
            for (Kept part : job.records("small_part")) {
                if (!part.text("state").isEmpty()) {
                    out.add(words.say("closing.part." + part.text("state"), name(part.text("id"))));
                }
            }
            for (Kept cover : job.records("covering")) {
                if (!cover.text("done").isEmpty() && !cover.text("what").isEmpty()) {
                    out.add(words.say("closing.covering", name(plain("what", cover)),
                            name(cover.text("where").isEmpty() ? "" : " (" + cover.text("where") + ")"),
                            name(plain("done", cover))));
                }
            }
            last("chip").ifPresent(c -> {
                if (List.of("new", "harvested").contains(c.text("origin"))) {
                    out.add(words.say("closing.chip." + c.text("origin"), name(c.text("part"))));
                }
            });
            job.records("bake").forEach(b -> {
                if (!b.text("what").isEmpty() && Double.isFinite(b.number("c"))) {
                    out.add(words.say("closing.bake." + b.text("what"), new Quantity.TempC(b.number("c"))));
                }
            });
            List<Screws.Length> screws = Screws.of(job);
            if (!screws.isEmpty()) {
                int removed = screws.stream().mapToInt(Screws.Length::out).sum();
                int back = screws.stream().mapToInt(Screws.Length::in).sum();
                out.add(words.say("closing.screws", count(removed), count(back)));
            }
            last("copy").filter(c -> !c.text("to").isEmpty()).ifPresent(c -> out.add(words.say(
                    c.yes("verified") ? "closing.copy.verified" : "closing.copy",
                    name(Masking.of(c.text("to"))))));
            history(out);
            out.addAll(ofStrands(Maker::done));
            if (out.isEmpty()) {
                out.add(words.say("closing.nothing_done"));
            }
            return List.copyOf(new LinkedHashSet<>(out));
        }

        /** What the joints are made of, and how often what was worked on was heated: the next one to work on it has to know. */
        private void history(List<String> out) {
            var alloys = new LinkedHashMap<String, LinkedHashSet<String>>();
            job.records("joint").stream().filter(j -> !j.text("site").isBlank() && !j.text("alloy").isBlank())
                    .forEach(j -> alloys.computeIfAbsent(j.text("site"), s -> new LinkedHashSet<>())
                            .add(j.text("alloy")));
            alloys.forEach((site, names) -> out
                    .add(words.say("closing.history.joints", name(site), name(String.join(", ", names)))));
            var heats = new LinkedHashMap<String, List<Double>>();
            job.records("exposure").stream()
                    .filter(e -> !e.text("part").isBlank() && Double.isFinite(e.number("peak_c")))
                    .forEach(e -> heats.computeIfAbsent(e.text("part"), p -> new ArrayList<>())
                            .add(e.number("peak_c")));
            heats.forEach((part, peaks) -> out.add(words.say("closing.history.heats", name(part),
                    count(peaks.size()),
                    new Quantity.TempC(peaks.stream().mapToDouble(p -> p).max().orElseThrow()))));
        }

        /** The last heat of each step, in the order of the route. */
        private List<Kept> lastRuns() {
            return job.beads().stream().flatMap(b -> job.records("run").stream()
                    .filter(r -> r.text("bead").equals(b.id())).reduce((x, y) -> y).stream()).toList();
        }

        private List<String> open() {
            var out = new ArrayList<String>();
            proofs.stream().filter(p -> p.state() == ProofWall.State.OPEN)
                    .forEach(p -> out.add(words.say("closing.open", name(told(p)), name(p.why()))));
            last("disclosure").map(d -> d.text("untested")).filter(u -> !u.isEmpty())
                    .ifPresent(u -> out.add(words.say("closing.untested", name(Masking.of(u)))));
            strands.stream().filter(s -> s.inHand().isPresent()).forEach(
                    s -> out.add(words.say("closing.strand.open", name(s.target()), name(s.id()))));
            return out;
        }

        private List<String> expect() {
            var out = new ArrayList<String>();
            Confidence.of(job, strands, proofs)
                    .ifPresent(c -> out.add(words.say("closing.letter", name(c.said(words)))));
            if (temporary()) {
                out.add(words.say("closing.temporary.so"));
            }
            if (job.records("bake").stream().anyMatch(b -> b.text("what").equals("cure"))) {
                out.add(words.say("closing.filled"));
            }
            job.records("chip").stream().filter(c -> c.text("origin").equals("harvested")).findFirst()
                    .ifPresent(c -> out.add(words.say("closing.harvested")));
            return out;
        }

        private List<String> mind() {
            var out = new ArrayList<String>();
            alloy().ifPresent(a -> {
                if (a.hasPb()) {
                    out.add(words.say("closing.lead", name(a.name())));
                }
                if (a.solidusC() < LOW_MELTING_C) {
                    out.add(words.say("closing.low_melting", name(a.name()),
                            new Quantity.TempC(a.solidusC())));
                }
            });
            if (job.records("covering").stream()
                    .anyMatch(c -> c.text("what").equals("shield") && c.text("done").equals("cut"))) {
                out.add(words.say("closing.cut_shield"));
            }
            last("disclosure").map(d -> d.text("cuts")).filter(c -> !c.isEmpty())
                    .ifPresent(c -> out.add(words.say("closing.cuts", name(Masking.of(c)))));
            last("disclosure").map(d -> d.text("data")).filter(d -> !d.isEmpty())
                    .ifPresent(d -> out.add(words.say("closing.data", name(Masking.of(d)))));
            if (job.records("run").stream().anyMatch(r -> r.yes("simulated"))) {
                out.add(words.say("closing.simulated"));
            }
            job.records("unit").stream().filter(u -> List.of("fitted", "out").contains(u.text("battery")))
                    .findFirst()
                    .ifPresent(u -> out.add(words.say("closing.battery")));
            out.addAll(ofStrands(Maker::mind));
            return out;
        }

        /** The alloy in the joints by what is on record last. */
        private Optional<Alloy> alloy() {
            List<String> names = new ArrayList<>();
            last("disclosure").map(d -> d.text("alloy")).ifPresent(names::add);
            job.records("joint").stream()
                    .filter(j -> heated() && j.text("site").equalsIgnoreCase(job.target()))
                    .reduce((a, b) -> b).map(j -> j.text("alloy")).ifPresent(names::add);
            if (job.records("run").stream().anyMatch(r -> r.text("kind").equals("seat"))) {
                last("plan").map(p -> p.text("ball_alloy")).ifPresent(names::add);
            }
            return names.stream().filter(n -> !n.isEmpty()).flatMap(n -> Alloys.find(n).stream()).findFirst();
        }

        private static double orZero(double v) {
            return Double.isFinite(v) ? v : 0;
        }

        private static Quantity.Count count(double n) {
            return new Quantity.Count(Math.round(n));
        }

        private static Quantity.Name name(String text) {
            return new Quantity.Name(text);
        }

        private String plain(String field, Kept record) {
            return plain(record.text(field));
        }

        /** One of the choices of a record as the customer reads it. */
        private String plain(String choice) {
            String key = "closing.value." + choice;
            return words.has(key) ? words.say(key) : choice.replace('_', ' ');
        }
    }
}
