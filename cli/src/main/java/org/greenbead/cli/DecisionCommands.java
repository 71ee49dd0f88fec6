package org.greenbead.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.decision.CourseSheet;
import org.greenbead.core.decision.Decision;
import org.greenbead.core.decision.Estimate;
import org.greenbead.core.decision.Suspicions;
import org.greenbead.core.proof.Confidence;
import org.greenbead.core.proof.ProofWall;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** What is judged before the heat and shown after it. */
final class DecisionCommands {
    private DecisionCommands() {
    }

    /** Courses side by side. */
    @Command(name = "courses", mixinStandardHelpOptions = true, description = "Courses open to a job side by side: expected cost with its spread, chance, and which number would change the answer; exit 1 when rate or value are not known.")
    static final class Courses extends OnJob {
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            Job job = read();
            var disk = new JobOnDisk(shared());
            JobOnDisk.Surroundings around = disk.around(job);
            CourseSheet.Sheet sheet = CourseSheet.of(job,
                    JobFacts.known(job, around.plan(), around.around()).facts(), disk.jobs());
            Map<String, Object> result = new LinkedHashMap<>();
            result.put("wanted", sheet.wanted());
            if (sheet.decision().isEmpty()) {
                out().println("not weighed: note with \"worth\" " + String.join(" and ", sheet.wanted()));
                sheet.estimates().forEach(e -> out().println(line(e)));
                json(json, result);
                return 1;
            }
            Decision decision = sheet.decision().get();
            var courses = new ArrayList<Map<String, Object>>();
            for (Decision.Weighed w : decision.weighed()) {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("course", w.estimate().course().key());
                w.estimate().closed().ifPresent(c -> map.put("closed", c));
                map.put("expected", w.expected());
                map.put("low", w.low());
                map.put("high", w.high());
                map.put("if_it_works", w.works());
                map.put("if_it_fails", w.fails());
                map.put("cheapest", w.cheapest());
                map.put("chance", w.estimate().chance());
                map.put("chance_low", w.estimate().odds().quantile(0.05));
                map.put("chance_high", w.estimate().odds().quantile(0.95));
                map.put("tries", w.estimate().odds().tries());
                map.put("attended_min", w.estimate().attendedMin());
                map.put("unattended_min", w.estimate().unattendedMin());
                map.put("assumed", w.estimate().assumed());
                map.values().removeIf(v -> v instanceof Double d && !Double.isFinite(d));
                courses.add(map);
                out().println(line(w));
            }
            result.put("courses", courses);
            List<Decision.Turn> turns = decision.turns();
            turns.stream().findFirst().ifPresent(t -> out().printf(Locale.ROOT,
                    "nearest turn: %s, %.3g now; from %.3g on it is %s%n", turn(t), t.now(), t.turnsAt(),
                    words().say("course." + t.then().key()).toLowerCase(Locale.ROOT)));
            result.put("turns", turns.stream().map(t -> {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("number", t.number());
                t.of().ifPresent(c -> map.put("of", c.key()));
                map.put("now", t.now());
                map.put("turns_at", t.turnsAt());
                map.put("then", t.then().key());
                return map;
            }).toList());
            sheet.estimates().stream().filter(e -> e.part() > 0).findFirst()
                    .flatMap(e -> Decision.breakEvenMin(e.part(), sheet.rate().orElseThrow()))
                    .ifPresent(m -> {
                        out().printf(Locale.ROOT, "the part is worth %.0f min at the bench%n", m);
                        result.put("break_even_min", m);
                    });
            json(json, result);
            return 0;
        }

        private String turn(Decision.Turn t) {
            return t.of().map(c -> words().say("turn." + t.number(), new Quantity.Word("course." + c.key())))
                    .orElseGet(() -> words().say("turn." + t.number()));
        }

        private String line(Estimate e) {
            return String.format(Locale.ROOT, "%-11s %s", words().say("course." + e.course().key()),
                    e.closed().map(c -> "closed: " + words().say("closed." + c))
                            .orElseGet(() -> String.format(Locale.ROOT,
                                    "%.0f min at the bench, chance %.0f %% (%d of %d)",
                                    e.attendedMin(), e.chance() * 100, e.odds().good(), e.odds().tries())));
        }

        private String line(Decision.Weighed w) {
            Estimate e = w.estimate();
            if (e.closed().isPresent()) {
                return line(e);
            }
            return String.format(Locale.ROOT,
                    "%-11s expected %.0f (%.0f to %.0f), %.0f if it works, %.0f if not; chance %.0f %% (%.0f to %.0f, %d of %d here); %.0f min; cheapest in %.0f of 100%s",
                    words().say("course." + e.course().key()), w.expected(), w.low(), w.high(), w.works(),
                    w.fails(),
                    e.chance() * 100, e.odds().quantile(0.05) * 100, e.odds().quantile(0.95) * 100,
                    e.odds().good(), e.odds().tries(), e.attendedMin(), w.cheapest() * 100,
                    e.assumed().isEmpty() ? "" : "; assumed: " + String.join(", ", e.assumed()));
        }
    }

    /** Where the fault may sit. */
    @Command(name = "evidence", mixinStandardHelpOptions = true, description = "Where the fault may sit by what is on record, what speaks for it, and which test would tell the most a minute; exit 1 while no place is likelier than all others together.")
    static final class Evidence extends OnJob {
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            Job job = read();
            var disk = new JobOnDisk(shared());
            JobOnDisk.Surroundings around = disk.around(job);
            Suspicions.Weighed w = Suspicions.of(job,
                    JobFacts.known(job, around.plan(), around.around()).facts(),
                    disk.jobs());
            w.chance().forEach((place, p) -> out().printf(Locale.ROOT, "%3.0f %%  %s%n", p * 100,
                    words().say("suspicion." + key(place))));
            for (Suspicions.Speaks sign : w.signs()) {
                out().printf(Locale.ROOT, "seen: %s (%s)%n", words().say("sign." + sign.id()),
                        sign.decibans().entrySet().stream().filter(d -> Math.abs(d.getValue()) >= 1)
                                .map(d -> String.format(Locale.ROOT, "%+.0f dB %s", d.getValue(),
                                        words().say("suspicion." + key(d.getKey()))))
                                .collect(java.util.stream.Collectors.joining(", ")));
            }
            if (w.signs().isEmpty()) {
                out().println("nothing on record speaks for or against anything");
            }
            w.next().stream().limit(3)
                    .forEach(n -> out().printf(Locale.ROOT, "next: %s (%.0f min, %.2f bit)%n",
                            words().say("nexttest." + n.id()), n.minutes(), n.bits()));
            Map<String, Object> result = new LinkedHashMap<>();
            Map<String, Object> chance = new LinkedHashMap<>();
            w.chance().forEach((place, p) -> chance.put(key(place), p));
            result.put("chance", chance);
            result.put("seen", w.signs().stream().map(Suspicions.Speaks::id).toList());
            result.put("next",
                    w.next().stream()
                            .map(n -> Map.of("test", n.id(), "minutes", n.minutes(), "bits", n.bits()))
                            .toList());
            json(json, result);
            return w.chance().get(w.likeliest()) > 0.5 ? 0 : 1;
        }

        private static String key(Suspicions.Place place) {
            return place.name().toLowerCase(Locale.ROOT);
        }
    }

    /** Everything that was measured before the work beside the same after it. */
    @Command(name = "proofs", mixinStandardHelpOptions = true, description = "Every proof of a job before and after the work, with its verdict and why; exit 1 unless all of them hold.")
    static final class Proofs extends OnJob {
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            Job job = read();
            var disk = new JobOnDisk(shared());
            List<Job> jobs = disk.jobs();
            List<ProofWall.Proof> proofs = ProofWall.of(job, Strands.family(job, jobs), disk.rails(job),
                    words());
            var list = new ArrayList<Map<String, Object>>();
            for (ProofWall.Proof p : proofs) {
                out().printf(Locale.ROOT, "%-5s %-10s %s: %s -> %s. %s%n", small(p.state()),
                        words().say("proof.kind." + small(p.kind())).toLowerCase(Locale.ROOT), p.name(),
                        shown(p.before()), shown(p.after()),
                        p.why());
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("kind", small(p.kind()));
                map.put("name", p.name());
                map.put("before", p.before());
                map.put("after", p.after());
                map.put("state", small(p.state()));
                map.put("why", p.why());
                list.add(map);
            }
            ProofWall.Answer answer = ProofWall.answer(proofs);
            out().println(words().say("proof.answer." + small(answer)));
            Optional<Confidence> letter = Confidence.of(job,
                    Strands.of(job, jobs), proofs);
            letter.ifPresent(c -> out().println(c.said(words())));
            Map<String, Object> result = new LinkedHashMap<>();
            result.put("answer", small(answer));
            letter.ifPresent(c -> result.put("confidence", String.valueOf(c.letter())));
            result.put("proofs", list);
            json(json, result);
            return answer == ProofWall.Answer.PROVEN ? 0 : 1;
        }

        private static String shown(String text) {
            return text.isEmpty() ? "-" : text;
        }

        private static String small(Enum<?> word) {
            return word.name().toLowerCase(Locale.ROOT);
        }
    }
}
