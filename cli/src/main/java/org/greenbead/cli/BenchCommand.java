package org.greenbead.cli;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.bench.Equipment;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.plan.BenchReach;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Benches of one's own. */
@Command(name = "bench", mixinStandardHelpOptions = true, description = "Benches of the ledger: make, set, show, copy, remove.", subcommands = {
        BenchCommand.ListAll.class, BenchCommand.New.class, BenchCommand.Set.class, BenchCommand.Show.class,
        BenchCommand.Copy.class, BenchCommand.Stations.class, BenchCommand.Probes.class,
        BenchCommand.Fitted.class,
        BenchCommand.Reach.class, BenchCommand.Remove.class})
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
            if (bench.stations().size() > 1) {
                bench.stations().forEach(s -> say(station(s, s.equals(bench.air()))));
            }
            Equipment e = bench.equipment();
            bench.probes().forEach(p -> say("  " + probe(p)));
            line("board held by", e.support());
            line("meter", e.meter());
            line("bench supply", e.supply());
            line("microscope", e.microscope());
            line("picture", e.photo());
        }

        private static String probe(ProbePlace p) {
            return String.format(Locale.ROOT,
                    "thermocouple %s: channel %d, on %s at %.1f x %.1f mm of the %s",
                    p.name(), p.channel(), switch (p.role()) {
                        case BOARD -> "the board";
                        case CHIP_TOP -> "the chip's body";
                        case JOINT -> "a ball";
                    }, p.atMm().xMm(), p.atMm().yMm(), p.side() == Side.TOP ? "top" : "underside");
        }

        private void line(String what, String text) {
            if (!text.isEmpty()) {
                say("  " + what + ": " + text);
            }
        }

        private static String station(AirStation s, boolean inHand) {
            return String.format(Locale.ROOT,
                    "  air station %s%s: up to %.0f °C and %.0f L/min, dial in %s, nozzles %s mm",
                    s.name(), inHand ? ", in hand" : "", s.maxC(), s.maxLpm(),
                    s.dial().scale().name().toLowerCase(Locale.ROOT),
                    String.join(" ", s.nozzlesMm().stream()
                            .map(n -> String.format(Locale.ROOT, "%.0f", n)).toList()));
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
        @Mixin
        private AirOptions air;

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
            Bench changed = b.titled(title.orElse(b.title())).in(room.orElse(b.ambientC()))
                    .with(air.on(b.air()));
            ledger.save(changed);
            told(changed);
        }
    }

    /** How an air station is set up, as its panel and drawer say it. */
    private static final class AirOptions {
        @Option(names = "--nozzles", split = ",", description = "Inner diameters, mm: 6,10,14.")
        private List<Double> nozzles;
        @Option(names = "--air-max", description = "Highest setting, °C.")
        private Optional<Double> airMax;
        @Option(names = "--flow-max", description = "Most air, L/min.")
        private Optional<Double> flowMax;
        @Option(names = "--dial", description = "What its flow dial says: litres, percent or steps.")
        private Optional<AirDial.Scale> scale;
        @Option(names = "--marks", description = "Positions of the dial with their L/min: \"1=20 8=120\".")
        private Optional<String> marks;
        @Option(names = "--offset", description = "How much hotter the air leaves the heater than is set, K; less than nothing where it is cooler.")
        private Optional<Double> offsetK;

        AirStation on(AirStation a) {
            AirStation changed = nozzles == null ? a : a.nozzles(nozzles);
            AirDial dial = a.dial();
            if (scale.isPresent() || marks.isPresent()) {
                dial = new AirDial(scale.orElse(dial.scale()),
                        marks.map(AirDial::read).orElse(dial.marks()), dial.offsetK());
            }
            return changed.with(AirDial.PLAIN).upTo(airMax.orElse(a.maxC()))
                    .blowing(flowMax.orElse(a.maxLpm())).with(dial.offset(offsetK.orElse(dial.offsetK())));
        }
    }

    @Command(name = "station", mixinStandardHelpOptions = true, description = "The air stations of a bench; with a name that one: made where the bench has none of it, set, taken in hand, removed.")
    static final class Stations extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "NAME", arity = "0..1")
        private Optional<String> name;
        @Mixin
        private AirOptions air;
        @Option(names = "--take", description = "This one is in hand from now on.")
        private boolean take;
        @Option(names = "--call", paramLabel = "NEW", description = "Another name for it.")
        private Optional<String> call;
        @Option(names = "--remove", description = "It stands here no more.")
        private boolean remove;

        @Override
        void work(Ledger ledger) throws Exception {
            Bench before = bench(ledger, id);
            Bench now = name.isPresent() ? changed(before, name.get()) : before;
            if (!now.equals(before)) {
                ledger.save(now);
            }
            told(now);
            if (now.stations().size() == 1 && name.isEmpty()) {
                say("  one air station, " + now.air().name()
                        + "; add another: greenbead bench station " + id + " NAME --nozzles 4,6");
            }
        }

        private Bench changed(Bench bench, String station) {
            if (remove) {
                return bench.without(station);
            }
            // A new one begins as the one in hand is, apart from what is said of it.
            Bench with = bench.has(station)
                    ? bench
                    : bench.adding(bench.air().another(station));
            String inHand = bench.air().name();
            Bench there = with.taking(station);
            there = there.with(air.on(there.air()));
            String called = station;
            if (call.isPresent()) {
                called = call.get();
                there = there.callingAir(called);
            }
            return take || station.equals(inHand) ? there : there.taking(inHand);
        }
    }

    @Command(name = "probe", mixinStandardHelpOptions = true, description = "The thermocouples of a bench, as they are usually fixed; with a name that one: put, moved, taken away.")
    static final class Probes extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "NAME", arity = "0..1", description = "Small letters, digits and _.")
        private Optional<String> name;
        @Option(names = "--at", description = "Where its bead is, from the board's lower left corner, mm: 36x58.")
        private Optional<String> at;
        @Option(names = "--side", description = "top or bottom of the board (default top).")
        private Optional<Side> side;
        @Option(names = "--touches", description = "What its bead touches: board, chip_top or joint (default: with --board what is likeliest there, else board).")
        private Optional<ProbePlace.Role> touches;
        @Option(names = "--channel", description = "Of the logger, 1 to 32 (default: the first that is free).")
        private Optional<Integer> channel;
        @Option(names = "--board", description = "A board of the ledger that the place is on.")
        private Optional<String> board;
        @Option(names = "--remove", description = "It is fixed no more.")
        private boolean remove;

        @Override
        void work(Ledger ledger) throws Exception {
            Bench before = bench(ledger, id);
            if (name.isEmpty()) {
                told(before);
                return;
            }
            Optional<ProbePlace> there = before.probe(name.get());
            if (remove && there.isEmpty()) {
                throw new IllegalArgumentException("bench " + id + " has no thermocouple " + name.get());
            }
            Bench now = remove ? before.withoutProbe(name.get()) : before.put(placed(ledger, before, there));
            ledger.save(now);
            told(now);
        }

        private ProbePlace placed(Ledger ledger, Bench bench, Optional<ProbePlace> there) throws Exception {
            Point place = at.map(Point::place).or(() -> there.map(ProbePlace::atMm))
                    .orElseThrow(() -> new IllegalArgumentException(
                            "where is its bead? give --at, mm from the board's lower left corner: 36x58"));
            Side face = side.or(() -> there.map(ProbePlace::side)).orElse(Side.TOP);
            Optional<ProbePlace.Role> said = touches.or(() -> there.map(ProbePlace::role));
            Optional<ProbePlace.Role> likely = Optional.empty();
            if (board.isPresent()) {
                Board on = ledger.document(Format.BOARD, board.get(), Board.class);
                if (!on.reaches(place)) {
                    throw new IllegalArgumentException(String.format(Locale.ROOT,
                            "%.1f x %.1f mm is not on board %s, which is %.1f x %.1f mm", place.xMm(),
                            place.yMm(), on.id(), on.sizeMm().xMm(), on.sizeMm().yMm()));
                }
                List<ProbePlace.Role> can = on.chips().stream()
                        .map(c -> ProbePlace.touches(c, face, place)).filter(c -> c.size() > 1).findFirst()
                        .orElse(List.of(ProbePlace.Role.BOARD));
                if (touches.isPresent() && !can.contains(touches.get())) {
                    throw new IllegalArgumentException("at " + at.orElse("its place") + " of board " + on.id()
                            + " a bead touches " + can.toString().toLowerCase(Locale.ROOT));
                }
                likely = said.filter(can::contains).or(() -> Optional.of(can.getFirst()));
            }
            return new ProbePlace(name.orElseThrow(), likely.or(() -> said).orElse(ProbePlace.Role.BOARD),
                    channel.or(() -> there.map(ProbePlace::channel)).orElseGet(bench::freeChannel), face,
                    place);
        }
    }

    @Command(name = "fit", mixinStandardHelpOptions = true, description = "What else stands at a bench; an empty text takes it away.")
    static final class Fitted extends OnBenches {
        @Parameters(paramLabel = "ID")
        private String id;
        @Option(names = "--support", description = "What holds the board.")
        private Optional<String> support;
        @Option(names = "--meter", description = "What rails are read with, and its polarity: \"bench two, red on ground\". rails notes it with each reading.")
        private Optional<String> meter;
        @Option(names = "--supply", description = "Address of the bench supply, HOST or HOST:PORT. current record asks it where none is named.")
        private Optional<String> supply;
        @Option(names = "--microscope", description = "What is looked through.")
        private Optional<String> microscope;

        @Override
        void work(Ledger ledger) throws Exception {
            Bench bench = bench(ledger, id);
            Equipment e = bench.equipment();
            Equipment with = e.heldBy(support.orElse(e.support())).readWith(meter.orElse(e.meter()))
                    .supplied(supply.orElse(e.supply())).lookedThrough(microscope.orElse(e.microscope()));
            Bench changed = bench.with(with);
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
