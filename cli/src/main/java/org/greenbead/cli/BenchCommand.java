package org.greenbead.cli;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.plan.BenchReach;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Benches of one's own. */
@Command(name = "bench", mixinStandardHelpOptions = true, description = "Benches of the ledger: make, set, show, copy, remove.", subcommands = {
        BenchCommand.ListAll.class, BenchCommand.New.class, BenchCommand.Set.class, BenchCommand.Show.class,
        BenchCommand.Copy.class, BenchCommand.Reach.class, BenchCommand.Remove.class})
final class BenchCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    /** What they share. */
    private abstract static class OnBenches extends LedgerVerb {
        Bench bench(Ledger ledger, String id) throws Exception {
            return ledger.document(Format.BENCH, id, Bench.class);
        }

        void told(Bench bench) {
            long counted = bench.calibrations().stream().filter(c -> c.counted()).count();
            say(String.format(Locale.ROOT,
                    "%s  %s: %s, air up to %.0f °C and %.0f L/min, nozzles %s mm, %d thermocouples, %s",
                    bench.id(), bench.title(),
                    bench.heater()
                            .map(h -> String.format(Locale.ROOT, "%s %.0f x %.0f mm up to %.0f °C", h.name(),
                                    h.sizeMm().xMm(), h.sizeMm().yMm(), h.maxC()))
                            .orElse("no heater"),
                    bench.air().maxC(), bench.air().maxLpm(),
                    String.join(" ",
                            bench.air().nozzlesMm().stream()
                                    .map(n -> String.format(Locale.ROOT, "%.0f", n)).toList()),
                    bench.probes().size(),
                    counted == 0 ? "nothing of it measured yet" : counted + " calibrations count"));
        }
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Every bench.")
    static final class ListAll extends OnBenches {
        @Override
        void work(Ledger ledger) {
            ledger.benches().forEach(this::told);
            if (ledger.benches().isEmpty()) {
                say("no bench yet; make one: greenbead bench new ID --kind open_small");
            }
        }
    }

    @Command(name = "new", mixinStandardHelpOptions = true, description = "A usual bench that nobody has measured.")
    static final class New extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;
        @Option(names = "--kind", defaultValue = "open_small", description = "open_small, open_large, infrared, hot_plate or air_alone (default ${DEFAULT-VALUE}).")
        private String kind;
        @Option(names = "--title", description = "How it is called.")
        private Optional<String> title;

        @Override
        void work(Ledger ledger) throws Exception {
            fresh(ledger, Format.BENCH, id);
            Bench made = BenchKind.require(kind).bench(id, title.orElse(id));
            ledger.save(made);
            told(made);
        }
    }

    @Command(name = "set", mixinStandardHelpOptions = true, description = "What the bench is, as read from it.")
    static final class Set extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;
        @Option(names = "--title", description = "How it is called.")
        private Optional<String> title;
        @Option(names = "--room", description = "Room, °C.")
        private Optional<Double> room;
        @Option(names = "--heater", description = "Another kind of heater: none, open_small, open_large, infrared or hot_plate. What runs have told of the bench is then gone.")
        private Optional<String> heater;
        @Option(names = "--heater-size", description = "Hot face, mm: 120x100.")
        private Optional<String> heaterSize;
        @Option(names = "--heater-gap", description = "From hot face to board, mm.")
        private Optional<Double> gap;
        @Option(names = "--heater-max", description = "Highest setting, °C.")
        private Optional<Double> heaterMax;
        @Option(names = "--nozzles", split = ",", description = "Inner diameters, mm: 6,10,14.")
        private List<Double> nozzles;
        @Option(names = "--air-max", description = "Highest setting, °C.")
        private Optional<Double> airMax;
        @Option(names = "--flow-max", description = "Most air, L/min.")
        private Optional<Double> flowMax;

        @Override
        void work(Ledger ledger) throws Exception {
            Bench b = bench(ledger, id);
            if (heater.isPresent()) {
                b = b.heatedBy(heater.get().equals("none")
                        ? Optional.empty()
                        : BenchKind.require(heater.get()).heater());
            }
            if (b.heater().isEmpty()
                    && (heaterSize.isPresent() || gap.isPresent() || heaterMax.isPresent())) {
                throw new IllegalArgumentException("bench " + id
                        + " has no heater whose size, gap or highest setting could be set; give it one with --heater open_small, open_large, infrared or hot_plate");
            }
            if (b.heater().isPresent()) {
                BottomHeater h = b.heater().get();
                h = heaterSize.isPresent() ? h.sized(Point.size(heaterSize.get())) : h;
                b = b.heated(h.below(gap.orElse(h.gapMm())).upTo(heaterMax.orElse(h.maxC())));
            }
            AirStation a = nozzles == null ? b.air() : b.air().nozzles(nozzles);
            Bench changed = b.titled(title.orElse(b.title())).in(room.orElse(b.ambientC()))
                    .with(a.upTo(airMax.orElse(a.maxC())).blowing(flowMax.orElse(a.maxLpm())));
            ledger.save(changed);
            told(changed);
        }
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "A bench; with --json as a file of the open format.")
    static final class Show extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;
        @Option(names = "--json", description = "As greenbead/bench/1.")
        private boolean json;

        @Override
        void work(Ledger ledger) throws Exception {
            Bench bench = bench(ledger, id);
            if (json) {
                say(shared().files().write(Format.BENCH, bench));
                return;
            }
            told(bench);
            List<String> on = ledger.usedBy(Format.BENCH, id);
            say(on.isEmpty() ? "  no job lies on it" : "  jobs on it: " + String.join(", ", on));
        }
    }

    @Command(name = "copy", mixinStandardHelpOptions = true, description = "The same bench under another name, without what its runs have told.")
    static final class Copy extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "NEW")
        private String copy;

        @Override
        void work(Ledger ledger) throws Exception {
            fresh(ledger, Format.BENCH, copy);
            Bench made = bench(ledger, id).copy(copy);
            ledger.save(made);
            told(made);
        }
    }

    @Command(name = "reach", mixinStandardHelpOptions = true, description = "What the bench can bring to a chip's joints at most: heater alone, then every nozzle.")
    static final class Reach extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;
        @Option(names = "--board", description = "A board of the ledger; without one a usual board with a chip of 15 mm.")
        private Optional<String> board;
        @Option(names = "--target", description = "Its chip; the first where none is named.")
        private Optional<String> target;

        @Override
        void work(Ledger ledger) throws Exception {
            Bench bench = bench(ledger, id);
            Board on = board.isPresent()
                    ? ledger.document(Format.BOARD, board.get(), Board.class)
                    : BenchReach.usualBoard();
            if (on.chips().isEmpty()) {
                throw new IllegalArgumentException("board " + on.id()
                        + " has no chip whose joints could be reached; put one on it with greenbead board put");
            }
            String chip = target.orElse(on.chips().getFirst().name());
            for (BenchReach.Reached r : BenchReach.of(bench, on, chip,
                    Thread.currentThread()::isInterrupted)) {
                say(String.format(Locale.ROOT, "%-14s %s (%s to %s)  %s",
                        r.nozzleMm() == 0
                                ? "heater alone"
                                : String.format(Locale.ROOT, "%.0f mm", r.nozzleMm()),
                        temp(r.jointC()), temp(r.lowC()), temp(r.highC()), String.join(", ",
                                BenchReach.usualAlloys().stream()
                                        .filter(a -> r.melts(a) != BenchReach.Melts.NO)
                                        .map(a -> a.name() + (r.melts(a) == BenchReach.Melts.PERHAPS
                                                ? " perhaps"
                                                : ""))
                                        .toList())));
            }
        }

        private String temp(double c) {
            return shared().words().show(new Quantity.TempC(c));
        }
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Takes a bench out of the ledger; one that jobs lie on stays.")
    static final class Remove extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;

        @Override
        void work(Ledger ledger) throws Exception {
            remove(ledger, Format.BENCH, id);
        }
    }
}
