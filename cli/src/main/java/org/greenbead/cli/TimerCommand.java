package org.greenbead.cli;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Wording;
import org.greenbead.core.quantity.Minutes;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Job;
import org.greenbead.core.timer.JobTimer;
import org.greenbead.core.timer.LongTest;
import org.greenbead.core.timer.Timers;
import org.greenbead.core.timer.UsualWaits;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Waits of jobs: bake, cure, cool, dry, rest, a long test. */
@Command(name = "timer", mixinStandardHelpOptions = true, description = "Waits that belong to a job and go on while other work is done.", subcommands = {
        TimerCommand.Begin.class, TimerCommand.End.class, TimerCommand.ListAll.class,
        TimerCommand.Usual.class})
final class TimerCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    private static OptionalDouble maybe(Double value) {
        return value == null ? OptionalDouble.empty() : OptionalDouble.of(value);
    }

    /** Begins one. */
    @Command(name = "start", mixinStandardHelpOptions = true, description = "Begins a wait and writes it into the account; exit 1 when a check stops it.")
    static final class Begin extends OnJob {
        @Parameters(index = "1", paramLabel = "KIND", description = "${COMPLETION-CANDIDATES}.")
        private JobTimer.Kind kind;
        @Option(names = "--minutes", paramLabel = "TIME", description = "How long: 90, 9h or 1:30 (default: the usual one for this job, see timer usual).")
        private String minutes;
        @Option(names = "--c", paramLabel = "C", description = "Temperature of oven or plate, °C; for a bake or a cure.")
        private Double celsius;
        @Option(names = "--label-c", paramLabel = "C", description = "What the label asks for, °C.")
        private Double labelC;
        @Option(names = "--label-minutes", paramLabel = "MIN", description = "What the label asks for, min.")
        private Double labelMin;
        @Option(names = "--cycles", paramLabel = "N", description = "How often a soak goes warm and cool (default 4).")
        private Integer cycles;
        @Option(names = "--words", defaultValue = "", description = "What exactly.")
        private String what;
        @Option(names = "--at", paramLabel = "TIME", description = "When it began, such as 2031-04-02T08:00:00Z (default: now).")
        private Instant at;

        private int cycles() {
            return cycles != null ? cycles : kind == JobTimer.Kind.SOAK ? UsualWaits.SOAK_CYCLES : 0;
        }

        @Override
        public Integer call() throws Exception {
            Job job = read();
            Instant now = at == null ? Instant.now() : at;
            UsualWaits.Wait usual = usual(this, job, now).get(kind.ordinal());
            if (minutes == null && usual.minutes().isEmpty()) {
                throw new IllegalArgumentException("how long is not known ("
                        + words().say("timer.because." + usual.because().name().toLowerCase(Locale.ROOT))
                        + "); give it with --minutes");
            }
            var start = new Timers.Start(kind, what,
                    minutes == null ? usual.minutes().getAsDouble() : Minutes.parse(minutes),
                    celsius == null && kind.heats() ? usual.c() : maybe(celsius), maybe(labelC),
                    maybe(labelMin), cycles());
            Job longer = Timers.start(job, start, now, ZoneId.systemDefault(), author());
            keep(job, longer, "timer", kind.word());
            JobTimer timer = JobTimer.of(longer).getLast();
            out().println(line(timer, now, words()));
            List<String> stops = !kind.heats()
                    ? List.of()
                    : Timers.stops(judged(longer).judged().open()).stream()
                            .map(n -> n.rule().what() + ". " + new Wording(words()).remedy(n)).distinct()
                            .toList();
            stops.forEach(s -> out().println("STOP " + s));
            return stops.isEmpty() ? 0 : 1;
        }
    }

    /** Ends one. */
    @Command(name = "end", mixinStandardHelpOptions = true, description = "Ends a wait, and writes what it was for into the account.")
    static final class End extends OnJob {
        @Parameters(index = "1", paramLabel = "TIMER", description = "Such as timer-1; list them with: greenbead timer list.")
        private String timer;
        @Option(names = "--result", description = "Of a long test or a soak: ${COMPLETION-CANDIDATES}.")
        private Timers.Result result;
        @Option(names = "--log", paramLabel = "FILE", description = "The log that a long test wrote: it says how it came out. See greenbead testlog.")
        private java.nio.file.Path log;
        @Option(names = "--at", paramLabel = "TIME", description = "When it ended (default: now).")
        private Instant at;

        @Override
        public Integer call() throws Exception {
            Job job = read();
            Instant now = at == null ? Instant.now() : at;
            if (log != null && result != null) {
                throw new IllegalArgumentException(
                        "a log says itself how the test came out; leave --result or --log away");
            }
            Job longer;
            if (log == null) {
                longer = Timers.end(job, timer, Optional.ofNullable(result), now, ZoneId.systemDefault(),
                        author());
            } else {
                LongTest told = new JobOnDisk(shared()).longTest(log);
                longer = Timers.end(job, timer, told, now, ZoneId.systemDefault(), author(), words());
                out().println(told.says(words()));
            }
            keep(job, longer, "timer ended", timer);
            JobTimer ended = JobTimer.of(longer).stream().filter(t -> t.record().equals(timer)).findFirst()
                    .orElseThrow();
            out().printf(Locale.ROOT, "%s %s ended after %.1f of %.1f min%s%n", ended.job(), timer,
                    ended.lastedMin(now), ended.minutes(), ended.stopped() ? ", before its time" : "");
            return 0;
        }
    }

    /** What runs, over all jobs. */
    @Command(name = "list", mixinStandardHelpOptions = true, description = "Every wait of the ledger that nobody has ended, the one that rings first in front.")
    static final class ListAll extends Verb {
        @Override
        public Integer call() throws Exception {
            Instant now = Instant.now();
            List<JobTimer> running = Timers.running(new JobOnDisk(shared()).jobs());
            running.forEach(t -> out().println(line(t, now, words())));
            if (running.isEmpty()) {
                out().println("nothing runs");
            }
            return 0;
        }
    }

    /** How long each kind is to last. */
    @Command(name = "usual", mixinStandardHelpOptions = true, description = "How long each kind of wait is to last on this job, and why.")
    static final class Usual extends OnJob {
        @Override
        public Integer call() throws Exception {
            for (UsualWaits.Wait w : usual(this, read(), Instant.now())) {
                out().printf(Locale.ROOT, "%-6s %-14s %s%n", w.kind().word(),
                        (w.minutes().isPresent() ? Minutes.say(w.minutes().getAsDouble() * 60) : "?")
                                + (w.c().isPresent()
                                        ? String.format(Locale.ROOT, " %.0f °C", w.c().getAsDouble())
                                        : ""),
                        words().say("timer.because." + w.because().name().toLowerCase(Locale.ROOT)));
            }
            return 0;
        }
    }

    private static List<UsualWaits.Wait> usual(OnJob verb, Job job, Instant now) throws Exception {
        JobOnDisk.Surroundings around = new JobOnDisk(verb.shared()).around(job);
        OptionalDouble bodyMm = around.plan().map(p -> OptionalDouble.of(p.target().bodyMm()))
                .orElse(OptionalDouble.empty());
        return UsualWaits.of(job, JobFacts.known(job, around.plan(), around.around()).facts(), bodyMm,
                RuleBook.shipped(), RuleBook.Settings.STANDARD, now);
    }

    private static String line(JobTimer t, Instant now, Words words) {
        double left = t.leftS(now);
        String turn = t.turn(now)
                .map(n -> String.format(Locale.ROOT, "cycle %d of %d, %s for %s, ", n.cycle(),
                        t.cycles(), n.warm() ? "warm" : "cool", Minutes.say(n.leftS())))
                .orElse("");
        String state = turn + (left > 0
                ? Minutes.say(left) + " left of " + Minutes.say(t.minutes() * 60)
                : "rang " + Minutes.say(-left) + " ago");
        return String.join(" ", t.job(), t.record(), words.say("timer." + t.kind().word())
                + (t.words().isEmpty() ? "," : " (" + t.words() + "),"), state);
    }
}
