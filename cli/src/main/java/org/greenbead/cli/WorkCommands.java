package org.greenbead.cli;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.account.Account;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.book.Phase;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Entry;
import org.greenbead.core.route.HouseRoute;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.OwnSteps;
import org.greenbead.core.route.School;
import org.greenbead.core.route.Schools;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Working a job without a window: ticks, ways, where it stands. */
final class WorkCommands {
    private WorkCommands() {
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }

    /** Says a word on a check. */
    @Command(name = "tick", mixinStandardHelpOptions = true, description = "Says yes or no to checks of a job: greenbead tick JOB supply_off cell_off. A gate turns green only when what it asks for is on record too.")
    static final class Tick extends OnJob {
        @Parameters(index = "1..*", arity = "1..*", paramLabel = "CHECK", description = "Checks; see: greenbead steps JOB.")
        private List<String> checks;
        @Option(names = "--as", defaultValue = "YES", paramLabel = "WORD", description = "yes, no or unknown (default ${DEFAULT-VALUE}).")
        private Attest word;

        @Override
        public Integer call() throws Exception {
            Job before = read();
            Job job = before;
            for (String check : checks) {
                if (!job.asks(check)) {
                    throw new IllegalArgumentException("job " + job.id() + " has no check \"" + check
                            + "\"; see: greenbead steps " + name());
                }
            }
            for (String check : checks) {
                job = Gates.attest(job, check, word, judged(job).look());
            }
            job = Gates.settle(job, judged(job).look());
            keep(before, job, "attested", String.join(", ", checks) + " " + small(word));
            return steps(this, job);
        }
    }

    /** Chooses a way of working. */
    @Command(name = "way", mixinStandardHelpOptions = true, description = "Chooses a way of working for a job: greenbead way JOB ball_route spheres --reason \"no paste in the house\". With the job alone, or with a point alone, it says which ways there are and which one the job goes.")
    static final class Way extends OnJob {
        @Parameters(index = "1", arity = "0..1", paramLabel = "POINT", description = "Point on which practice differs; see: greenbead schools.")
        private String point;
        @Parameters(index = "2", arity = "0..1", paramLabel = "CHOICE", description = "The way.")
        private String choice;
        @Option(names = "--reason", defaultValue = "", description = "Why not the usual way.")
        private String reason;

        @Override
        public Integer call() throws Exception {
            Job job = read();
            if (choice == null) {
                return open(job);
            }
            School school = Schools.shipped().find(point).orElseThrow(() -> new IllegalArgumentException(
                    "\"" + point + "\" is no point on which ways differ; see: greenbead schools"));
            Job changed = Schools.shipped().choose(job, school, choice, reason, Instant.now(), author());
            keep(job, changed, "way", point + " " + choice);
            return steps(this, changed);
        }

        /** The ways of one point, or of all; a star before the one that the job goes. */
        private int open(Job job) {
            List<School> asked = Schools.shipped().of(job).stream()
                    .filter(s -> point == null || s.id().equals(point)).toList();
            if (asked.isEmpty()) {
                throw new IllegalArgumentException(
                        "\"" + point + "\" is no point on which ways differ; see: greenbead way " + job.id());
            }
            for (School school : asked) {
                String now = Schools.shipped().chosen(job, school);
                out().println(school.id() + ": " + String.join(", ",
                        school.choices().stream().map(c -> (c.id().equals(now) ? "*" : "") + c.id())
                                .toList()));
            }
            return 0;
        }
    }

    /** Where a job stands. */
    @Command(name = "steps", mixinStandardHelpOptions = true, description = "Shows the steps of a job with their checks, what ticked itself, and what each gate still asks for; adds steps of one's own, moves them or leaves them out.")
    static final class Steps extends OnJob {
        @Option(names = "--add", paramLabel = "WORDS", description = "Put in a step of one's own, called by these words.")
        private String add;
        @Option(names = "--phase", description = "Of the step to add: ${COMPLETION-CANDIDATES} (default: that of the current step).")
        private Phase phase;
        @Option(names = "--after", paramLabel = "STEP", description = "The step that it follows (default: the last of its phase).")
        private String after;
        @Option(names = "--check", paramLabel = "WORDS", description = "What to see to at it; may be given more than once.")
        private List<String> checks = List.of();
        @Option(names = "--leave-out", paramLabel = "STEP", description = "Leave a step out, with --reason.")
        private String leaveOut;
        @Option(names = "--earlier", paramLabel = "STEP", description = "Move a step one place forward within its phase.")
        private String earlier;
        @Option(names = "--later", paramLabel = "STEP", description = "Move a step one place back within its phase.")
        private String later;
        @Option(names = "--reason", defaultValue = "", description = "Why.")
        private String reason;
        @Option(names = "--keep-for-house", description = "Jobs of this kind begin in the way of this one from now on.")
        private boolean house;
        @Option(names = "--as-shipped", description = "Jobs of this kind begin as shipped again.")
        private boolean shipped;

        /** The step that is called so in the list, or has this name in the file. */
        private String step(Job job, String called) {
            if (job.bead(called).isPresent()) {
                return called;
            }
            List<String> meant = job.beads().stream().map(Bead::id)
                    .filter(b -> words().say("bead." + b).equalsIgnoreCase(called.strip())).toList();
            if (meant.size() == 1) {
                return meant.getFirst();
            }
            throw new IllegalArgumentException(meant.isEmpty()
                    ? "job " + job.id() + " has no step \"" + called + "\"; it has "
                            + String.join(", ", job.beads().stream()
                                    .map(b -> words().say("bead." + b.id())).toList())
                    : "job " + job.id() + " has several steps \"" + called + "\"; say which: "
                            + String.join(", ", meant));
        }

        private Kept change(Job job, String step, String what) {
            var fields = new java.util.LinkedHashMap<String, Object>();
            fields.put("bead", step);
            fields.put("change", what);
            fields.put("reason", reason.isBlank() ? null : reason.strip());
            return new Kept(job.freeId("route_change"), "route_change", Instant.now(), author(), fields);
        }

        @Override
        public Integer call() throws Exception {
            Job was = read();
            Job job = was;
            if (add != null) {
                Phase in = phase != null
                        ? phase
                        : job.inHand().map(Bead::phase).orElseThrow(() -> new IllegalArgumentException(
                                "the job is at its end; say with --phase where the step belongs"));
                Bead fresh = OwnSteps.bead(in, add, checks);
                job = OwnSteps.add(job, fresh,
                        after == null ? Optional.empty() : Optional.of(step(job, after)),
                        change(job, fresh.id(), "added"));
            }
            if (leaveOut != null) {
                String step = step(job, leaveOut);
                job = job.leaveOut(step, change(job, step, "left_out"));
            }
            if (earlier != null) {
                String step = step(job, earlier);
                job = OwnSteps.move(job, step, -1, change(job, step, "earlier"));
            }
            if (later != null) {
                String step = step(job, later);
                job = OwnSteps.move(job, step, 1, change(job, step, "later"));
            }
            if (job != was) {
                keep(was, job, "steps", "");
            }
            if (house || shipped) {
                JobKind kind = JobFacts.kind(job).orElseThrow(
                        () -> new IllegalArgumentException("the kind of this job is not known"));
                try (Ledger ledger = shared().ledger()) {
                    ledger.save(house ? HouseRoute.of(kind, job) : new HouseRoute(kind, List.of()));
                }
            }
            return steps(this, job);
        }
    }

    /** The account of a job. */
    @Command(name = "account", mixinStandardHelpOptions = true, description = "Shows every change of a job with time and author, and what is odd about it: two people who differ, a clock set back, lines that are missing.")
    static final class AccountOf extends OnJob {
        @Option(names = "--of", paramLabel = "PATH", defaultValue = "", description = "Only what concerns this, such as record/rail-1 or check/supply_off.")
        private String path;

        @Override
        public Integer call() throws Exception {
            Job job = read();
            for (Entry entry : job.account()) {
                if (entry.what().startsWith(path)) {
                    out().printf(Locale.ROOT, "%4d  %s  %-14s %s: %s%n", entry.number(), entry.at(),
                            entry.by().isEmpty() ? "-" : entry.by(), entry.what(),
                            entry.was() == null
                                    ? String.valueOf(entry.is())
                                    : entry.was() + " -> "
                                            + (entry.is() == null ? "taken back" : entry.is()));
                }
            }
            List<Account.Oddity> odd = Account.oddities(job.account());
            for (Account.Oddity one : odd) {
                out().println(words().say(Phrase.of("account." + small(one.kind()),
                        new Quantity.Name(Integer.toString(one.at().number())),
                        new Quantity.Name(one.at().what()), new Quantity.Name(one.at().by()),
                        new Quantity.Name(String.valueOf(one.at().is())), new Quantity.Name(
                                one.earlier().map(e -> e.by() + " " + e.is()).orElse("")))));
            }
            return odd.isEmpty() ? 0 : 1;
        }
    }

    /** @return 1 while a gate that was worked stays shut */
    private static int steps(OnJob verb, Job job) throws Exception {
        Judgement judgement = verb.judged(job);
        boolean shut = false;
        for (Bead bead : job.beads()) {
            verb.out().printf(Locale.ROOT, "%-8s %-6s %s%s%n", small(bead.phase()), small(bead.state()),
                    verb.words().say("bead." + bead.id()), bead.gate() ? " (gate)" : "");
            bead.checks().forEach(c -> verb.out().printf(Locale.ROOT, "           %-8s %s%s%n",
                    small(c.state()), c.id(), c.tickedItself() ? " (shown by " + c.shownBy() + ")" : ""));
            for (Gates.Demand demand : Gates.missing(job, bead.id(), judgement.look().evidence().facts())) {
                verb.out().printf(Locale.ROOT, "           wants    %s (record: %s)%n",
                        verb.words().say("evidence." + demand.id()), demand.record());
                shut |= bead.worked();
            }
        }
        return shut ? 1 : 0;
    }
}
