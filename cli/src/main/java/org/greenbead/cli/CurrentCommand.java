package org.greenbead.cli;

import static org.greenbead.cli.CheckCommand.small;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.CurveRecords;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.electric.CurveCompare;
import org.greenbead.core.electric.CurveReference;
import org.greenbead.core.electric.SimulatedStart;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.LinkLostException;
import org.greenbead.device.ScpiSupply;
import org.greenbead.device.SimulatedSupply;
import org.greenbead.store.CurrentCsv;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** The current that a unit draws while it starts. */
@Command(name = "current", mixinStandardHelpOptions = true, description = "Start-up current: recorded from a bench supply, compared with healthy boards.", subcommands = {
        CurrentCommand.Compare.class, CurrentCommand.Record.class})
final class CurrentCommand implements Runnable {
    @picocli.CommandLine.Spec
    private picocli.CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    /** A curve that may be of a job: kept with it, compared with what healthy boards of its type do. */
    abstract static class OfJob extends Verb {
        @Option(names = "--healthy", paramLabel = "CSV", arity = "1..*", description = "Curves of healthy boards of this type.")
        private List<Path> healthy = new ArrayList<>();
        @Option(names = "--job", paramLabel = "JOB", description = "The number of a job in the ledger, or a job file: the curve is kept with it, and compared with healthy ones of its board in the ledger where --healthy names none.")
        private Optional<String> job = Optional.empty();
        @Option(names = "--taken", defaultValue = "after", description = "before the work, after it, or of a healthy board (default ${DEFAULT-VALUE}).")
        private CurveRecords.Taken taken;
        @Option(names = "--author", defaultValue = "", description = "Who took it.")
        private String author;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        boolean ofJob() {
            return job.isPresent();
        }

        /** Address of the supply that stands at the job's bench. */
        Optional<String> ofBench() throws Exception {
            if (job.isEmpty()) {
                return Optional.empty();
            }
            var disk = new JobOnDisk(shared());
            return disk.bench(disk.read(job.get()).bench()).map(b -> b.equipment().supply())
                    .filter(s -> !s.isEmpty());
        }

        /** What it is compared with, and the name by which the curve is found again. */
        private record Held(Optional<CurveReference> reference, String file) {}

        private Held held(CurrentTrace trace, String file) throws Exception {
            var all = new ArrayList<CurrentTrace>();
            for (Path named : healthy) {
                all.add(CurrentCsv.read(named));
            }
            Optional<CurveReference> named = all.isEmpty()
                    ? Optional.empty()
                    : Optional.of(CurveReference.of(all));
            if (job.isEmpty() || !Files.exists(shared().data().resolve("ledger.db"))) {
                return new Held(named, file);
            }
            String board = new JobOnDisk(shared()).read(job.get()).board();
            try (Ledger ledger = shared().ledger()) {
                String kept = ledger.curves().add(trace);
                return new Held(named.isPresent()
                        ? named
                        : ledger.curves().reference(CurveRecords.healthy(ledger.jobs(), board, kept), trace),
                        kept);
            }
        }

        /** @return exit status */
        int judged(CurrentTrace trace, String file) throws Exception {
            Held held = held(trace, file);
            Optional<CurveReference> reference = held.reference();
            Optional<CurveCompare.Compared> compared = reference.map(r -> CurveCompare.of(trace, r));
            reference.ifPresent(r -> stages(r, compared.orElseThrow()));
            for (double[] gap : trace.gaps()) {
                out().printf(Locale.ROOT, "no reading from %.1f to %.1f s%n", gap[0], gap[1]);
            }
            compared.ifPresent(c -> c.departures().stream().skip(1).forEach(
                    d -> out().println("then: " + CurveRecords.said(d, c.stages().size(), words()))));
            out().println(compared.map(c -> CurveRecords.said(c, words()))
                    .orElseGet(() -> words().say("curveoutcome.no_reference")));
            json(json, result(compared));
            if (job.isPresent()) {
                keep(trace, compared, reference.map(CurveReference::boards).orElse(0), held.file());
            }
            return compared.filter(c -> c.outcome() != CurveCompare.Outcome.ALIKE).isPresent() ? 1 : 0;
        }

        private void stages(CurveReference r, CurveCompare.Compared compared) {
            out().printf(Locale.ROOT, "compared with %d healthy %s%n", r.boards(),
                    r.boards() == 1 ? "curve" : "curves");
            for (CurveReference.Stage s : r.stages()) {
                String found = compared.stages().stream().filter(f -> f.stage().number() == s.number())
                        .findFirst()
                        .map(f -> f.lengthS() > 0
                                ? String.format(Locale.ROOT, "%.3f A for %.1f s", f.levelA(), f.lengthS())
                                : "not reached")
                        .orElse("not reached");
                out().printf(Locale.ROOT, "%d %-12s usual %.3f A for %.1f s, here %s%n", s.number(),
                        CurveRecords.stage(s, words()), s.levelA(), s.lengthS(), found);
            }
        }

        private void keep(CurrentTrace trace, Optional<CurveCompare.Compared> compared, int boards,
                String file) throws Exception {
            var disk = new JobOnDisk(shared());
            Job before = disk.read(job.orElseThrow());
            var record = new Kept(before.freeId("curve"), "curve", Instant.now(), author,
                    CurveRecords.fields(trace, taken, compared, boards, file));
            disk.write(job.orElseThrow(), before, before.with(record), author, "noted",
                    record.id());
            out().println("kept as " + record.id() + " with job " + before.id());
        }

        private static Map<String, Object> result(Optional<CurveCompare.Compared> compared) {
            Map<String, Object> out = new LinkedHashMap<>();
            out.put("outcome", compared.map(c -> small(c.outcome())).orElse("no_reference"));
            var departures = new ArrayList<Map<String, Object>>();
            var stages = new ArrayList<Map<String, Object>>();
            compared.ifPresent(c -> {
                c.departures().forEach(d -> departures.add(Map.of("stage", d.stage().number(), "how",
                        small(d.kind()), "at_s", d.atS(), "found", d.found(), "usual", d.usual())));
                c.stages().forEach(s -> {
                    Map<String, Object> one = new LinkedHashMap<>();
                    one.put("stage", s.stage().number());
                    one.put("kind", small(s.stage().kind()));
                    one.put("usual_a", s.stage().levelA());
                    one.put("usual_s", s.stage().lengthS());
                    one.put("found_s", s.lengthS());
                    if (s.lengthS() > 0) {
                        one.put("found_a", s.levelA());
                    }
                    stages.add(one);
                });
            });
            out.put("departures", departures);
            out.put("stages", stages);
            return out;
        }
    }

    /** A curve from a file. */
    @Command(name = "compare", mixinStandardHelpOptions = true, description = "Compares a start-up curve with healthy ones and names the stage where it departs; exit 1 when it does, or when nothing can be said yet.")
    static final class Compare extends OfJob {
        @Parameters(paramLabel = "CSV", description = "time_s,current_a; semicolons, decimal commas and ms, ma are understood.")
        private Path file;

        @Override
        public Integer call() throws Exception {
            return judged(CurrentCsv.read(file), String.valueOf(file.getFileName()));
        }
    }

    /** A curve from the supply. */
    @Command(name = "record", mixinStandardHelpOptions = true, description = "Records a start-up curve from a bench supply that speaks SCPI over TCP, then compares it. The supply is only read, never set.")
    static final class Record extends OfJob {
        @Parameters(paramLabel = "HOST[:PORT]", arity = "0..1", description = "Where the supply answers (port 5025 unless named), or simulated. Without it that of the job's bench.")
        private Optional<String> named;
        @Option(names = "--seconds", defaultValue = "30", description = "Length, from before the button is pressed (default ${DEFAULT-VALUE}).")
        private double seconds;
        @Option(names = "--state", defaultValue = "", description = "What is connected: \"battery out, display on\".")
        private String state;
        @Option(names = "--out", required = true, paramLabel = "CSV", description = "Where the curve is written.")
        private Path to;
        @Option(names = "--fault", defaultValue = "none", description = "What is wrong with the simulated unit: ${COMPLETION-CANDIDATES}.")
        private SimulatedStart.Fault fault;
        @Option(names = "--seed", defaultValue = "1", description = "Which of the simulated units.")
        private long seed;

        @Override
        public Integer call() throws Exception {
            if (!(seconds >= 1 && seconds <= 3600)) {
                throw new IllegalArgumentException(
                        "--seconds is " + seconds + "; allowed is 1 to 3600");
            }
            String where = (named.isPresent() ? named : ofBench())
                    .orElseThrow(() -> new IllegalArgumentException(
                            "no supply is named; give its address, or note it at the job's bench with bench fit ID --supply HOST"));
            if (where.equals("simulated") && ofJob()) {
                throw new IllegalArgumentException(
                        "a simulated start proves nothing of a job; leave --job out, or name a real supply");
            }
            CurrentTrace trace = where.equals("simulated") ? simulated() : recorded(where);
            write(to, CurrentCsv.print(trace));
            return judged(trace, String.valueOf(to.getFileName()));
        }

        private CurrentTrace simulated() throws IOException, LinkLostException {
            CurrentTrace unit = new SimulatedStart(12, 3, fault).trace(seed, seconds);
            try (var there = new SimulatedSupply(unit, System::nanoTime, Double.MAX_VALUE)) {
                return recorded(there.host() + ":" + there.port());
            }
        }

        private CurrentTrace recorded(String address) throws LinkLostException {
            try (var supply = ScpiSupply.at(address, System::nanoTime)) {
                CurrentTrace.Conditions under = supply.conditions(state);
                out().printf(Locale.ROOT,
                        "supply at %.2f V, limit %.2f A; recording %.0f s: press the button of the unit in two seconds%n",
                        under.supplyV().orElseThrow(), under.limitA().orElseThrow(), seconds);
                out().flush();
                int[] said = {0};
                ScpiSupply.Recorded recorded = supply.record(seconds, under, (t, a) -> {
                    if (t >= said[0]) {
                        out().printf(Locale.ROOT, "%4.0f s %.3f A%n", t, a);
                        out().flush();
                        said[0] += 5;
                    }
                }, Thread.currentThread()::isInterrupted);
                recorded.broke().ifPresent(
                        b -> out().println(b + "; what was recorded until then is kept"));
                return recorded.trace();
            }
        }
    }
}
