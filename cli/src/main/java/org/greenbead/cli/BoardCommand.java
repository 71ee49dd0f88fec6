package org.greenbead.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Mark;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.kind.BoardKind;
import org.greenbead.core.kind.MappedJoint;
import org.greenbead.core.kind.PackageKind;
import org.greenbead.core.kind.PartKind;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.store.BeadMapCsv;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Boards of one's own: made from sizes, with what nobody knows assumed and named. */
@Command(name = "board", mixinStandardHelpOptions = true, description = "Boards of the ledger: make, measure, show, copy, remove.", subcommands = {
        BoardCommand.ListAll.class, BoardCommand.New.class, BoardCommand.Set.class, BoardCommand.Put.class,
        BoardCommand.Marked.class, BoardCommand.Mapped.class,
        BoardCommand.Take.class, BoardCommand.Show.class, BoardCommand.Copy.class,
        BoardCommand.Remove.class})
final class BoardCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    /** What they share: the ledger, and saying what a board is. */
    private abstract static class OnBoards extends LedgerVerb {
        Board board(Ledger ledger, String id) throws Exception {
            return ledger.document(Format.BOARD, id, Board.class);
        }

        /** Open jobs take up what was measured; one that is at its end keeps the board as it was. */
        void change(Ledger ledger, Board changed) throws Exception {
            List<String> on = ledger.endedOn(Format.BOARD, changed.id());
            ledger.save(changed);
            told(changed);
            if (!on.isEmpty()) {
                say("  at their end and worked with it as it was then: " + String.join(", ", on));
            }
        }

        void told(Board board) {
            say(String.format(Locale.ROOT,
                    "%s  %s  %.1f x %.1f mm, %.2f mm thick, %d layers, %d chips, %d parts, %d marks",
                    board.id(), board.title(), board.sizeMm().xMm(), board.sizeMm().yMm(),
                    board.thicknessMm(), board.copperLayers(), board.chips().size(), board.parts().size(),
                    board.marks().size()));
            if (!board.assumed().isEmpty()) {
                say("  assumed: " + String.join(", ", board.assumed().stream().map(a -> shared().words()
                        .say("assumed." + Assumed.what(a), new Quantity.Name(Assumed.chip(a)))).toList()));
            }
        }
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Every board, and what of it is assumed.")
    static final class ListAll extends OnBoards {
        @Override
        void work(Ledger ledger) {
            ledger.boards().forEach(this::told);
            if (ledger.boards().isEmpty()) {
                say("no board yet; make one: greenbead board new ID --size 70x95");
            }
        }
    }

    @Command(name = "new", mixinStandardHelpOptions = true, description = "A bare board of a usual build.")
    static final class New extends OnBoards {
        @Parameters(paramLabel = "ID", description = "What is printed on it.")
        private String id;
        @Option(names = "--size", required = true, description = "Width and depth in mm: 70x95.")
        private String size;
        @Option(names = "--title", description = "What it is of.")
        private Optional<String> title;
        @Option(names = "--kind", defaultValue = "general", description = "Usual build: thin_dense, small_dense, module, general, planes, backplane, two_sided (default ${DEFAULT-VALUE}).")
        private String kind;

        @Override
        void work(Ledger ledger) throws Exception {
            fresh(ledger, Format.BOARD, id);
            Board made = BoardKind.require(kind).board(id, title.orElse(id), Point.size(size));
            ledger.save(made);
            told(made);
        }
    }

    @Command(name = "set", mixinStandardHelpOptions = true, description = "What was measured or read; it is then no longer assumed.")
    static final class Set extends OnBoards {
        @Parameters(paramLabel = "ID")
        private String id;
        @Option(names = "--thickness", description = "Measured with a caliper, mm.")
        private Optional<Double> thickness;
        @Option(names = "--layers", description = "Copper layers.")
        private Optional<Integer> layers;
        @Option(names = "--copper-um", description = "Thickness of a layer, um.")
        private Optional<Double> copperUm;
        @Option(names = "--coverage", description = "Part of a layer that is copper, 0.05 to 1.")
        private Optional<Double> coverage;
        @Option(names = "--kind", description = "Another usual build; what was measured stays.")
        private Optional<String> kind;
        @Option(names = "--size", description = "Width and depth in mm.")
        private Optional<String> size;

        @Override
        void work(Ledger ledger) throws Exception {
            Board now = board(ledger, id);
            now = kind.isPresent() ? BoardKind.require(kind.get()).built(now) : now;
            now = size.isPresent() ? now.sized(Point.size(size.get())) : now;
            now = thickness.isPresent() ? now.thick(thickness.get()) : now;
            if (layers.isPresent() || copperUm.isPresent() || coverage.isPresent()) {
                now = now.copper(layers.orElse(now.copperLayers()), copperUm.orElse(now.copperUm()),
                        coverage.orElse(now.copperCoverage()));
            }
            change(ledger, now);
        }
    }

    @Command(name = "put", mixinStandardHelpOptions = true, description = "Puts a chip on a board, or with --part-kind a part with a limit; the one of that name is replaced.")
    static final class Put extends OnBoards {
        @Parameters(paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "NAME", description = "Designator, such as U1.")
        private String name;
        @Option(names = "--at", required = true, description = "Its middle from the lower left corner, mm: 36x58.")
        private String at;
        @Option(names = "--size", required = true, description = "Its footprint, mm: 14x14.")
        private String size;
        @Option(names = "--part", description = "What is printed on it.")
        private Optional<String> part;
        @Option(names = "--kind", defaultValue = "moulded", description = "How it is built: moulded, thin, memory, bare_die, lidded, ceramic, wafer (default ${DEFAULT-VALUE}).")
        private String kind;
        @Option(names = "--pitch", description = "From ball to ball, mm; that of its kind where none is given.")
        private Optional<Double> pitch;
        @Option(names = "--alloy", description = "What its joints are made of, where it is known.")
        private Optional<String> alloy;
        @Option(names = "--side", defaultValue = "TOP", description = "top or bottom (default top).")
        private Side side;
        @Option(names = "--part-kind", description = "connector, cell, wet_capacitor, crystal, switch or other: no chip.")
        private Optional<PartKind> partKind;

        @Override
        void work(Ledger ledger) throws Exception {
            Board now = board(ledger, id);
            if (partKind.isPresent()) {
                change(ledger, partKind.get().onto(now, name, side, Point.place(at), Point.size(size)));
                return;
            }
            PackageKind built = PackageKind.require(kind);
            change(ledger, built.onto(now, name, part.orElse(name), side, Point.place(at), Point.size(size),
                    pitch.orElse(built.pitchMm()), alloy.map(Alloys::require)));
        }
    }

    @Command(name = "balls", mixinStandardHelpOptions = true, description = "A chip gets pitch, ball and field of its bead map, kept under what is printed on it.")
    static final class Mapped extends OnBoards {
        @Parameters(paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "NAME", description = "Designator, such as U1.")
        private String name;
        @Parameters(index = "2", arity = "0..1", paramLabel = "MAP", description = "Bead map CSV; the one that the ledger keeps where none is named.")
        private Path file;

        @Override
        void work(Ledger ledger) throws Exception {
            Board now = board(ledger, id);
            Chip chip = now.requireChip(name);
            if (chip.part().equals(chip.name())) {
                throw new IllegalArgumentException(name
                        + " has no print, and its bead map is kept under that: put it again with --part");
            }
            Optional<BeadMap> there = ledger.beadMaps().find(chip.part());
            BeadMap map = file != null
                    ? BeadMapCsv.read(file)
                    : there.orElseThrow(() -> new IllegalArgumentException(
                            "the ledger has no bead map of " + chip.part() + "; name its file"));
            if (there.isPresent() && !there.get().equals(map)) {
                throw new IllegalArgumentException("the ledger has another bead map of " + chip.part()
                        + "; give the chip another print, or leave the file out");
            }
            MappedJoint joint = MappedJoint.of(map);
            Board changed = now.with(joint.on(chip));
            ledger.beadMaps().save(chip.part(), map);
            change(ledger, changed);
            say(String.format(Locale.ROOT, "  %s: %d balls, pitch %.3f mm, ball %.3f mm", name, joint.balls(),
                    joint.pitchMm(), joint.ballMm()));
        }
    }

    @Command(name = "mark", mixinStandardHelpOptions = true, description = "Puts a shield, a screw, a hole or a region on a board; the one of that name is replaced.")
    static final class Marked extends OnBoards {
        @Parameters(paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "NAME", description = "What it is called, such as S1.")
        private String name;
        @Option(names = "--kind", required = true, description = "shield, screw, hole; a region: iron_safe, air_only, hands_off, milled.")
        private Mark.Kind kind;
        @Option(names = "--at", required = true, description = "Its middle from the lower left corner, mm: 36x58.")
        private String at;
        @Option(names = "--size", defaultValue = "4x4", description = "Its size, mm; of a screw or hole its diameter twice (default ${DEFAULT-VALUE}).")
        private String size;
        @Option(names = "--length", description = "Of a screw, mm.")
        private Optional<Double> length;
        @Option(names = "--side", defaultValue = "TOP", description = "top or bottom (default top).")
        private Side side;

        @Override
        void work(Ledger ledger) throws Exception {
            Board now = board(ledger, id);
            change(ledger, now.put(new Mark(name, kind, side, Point.place(at), Point.size(size), length)));
        }
    }

    @Command(name = "take", mixinStandardHelpOptions = true, description = "Takes a chip, a part or a mark off a board.")
    static final class Take extends OnBoards {
        @Parameters(paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "NAME")
        private String name;

        @Override
        void work(Ledger ledger) throws Exception {
            Board now = board(ledger, id);
            Board without = now.without(name);
            if (without.equals(now)) {
                throw new IllegalArgumentException("board " + id + " has nothing called " + name);
            }
            change(ledger, without);
        }
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "A board with its chips and parts; with --json as a file of the open format.")
    static final class Show extends OnBoards {
        @Parameters(paramLabel = "ID")
        private String id;
        @Option(names = "--json", description = "As greenbead/board/1.")
        private boolean json;

        @Override
        void work(Ledger ledger) throws Exception {
            Board board = board(ledger, id);
            if (json) {
                say(shared().files().write(Format.BOARD, board));
                return;
            }
            told(board);
            for (Chip chip : board.chips()) {
                say(String.format(Locale.ROOT,
                        "  %-5s %-14s %s, middle %.1f %.1f, %.1f x %.1f mm, pitch %.2f, ball %.2f mm, %s, body up to %s",
                        chip.name(), chip.part(), chip.side().name().toLowerCase(Locale.ROOT),
                        chip.centreMm().xMm(), chip.centreMm().yMm(), chip.sizeMm().xMm(),
                        chip.sizeMm().yMm(), chip.joint().pitchMm(), chip.joint().ballMm(),
                        chip.joint().alloy().name(),
                        shared().words()
                                .show(new Quantity.TempC(chip.bodyLimitC()))));
            }
            for (ProtectedPart part : board.parts()) {
                say(String.format(Locale.ROOT, "  %-5s %-14s %s, middle %.1f %.1f, up to %s", part.name(),
                        part.kind(), part.side().name().toLowerCase(Locale.ROOT), part.centreMm().xMm(),
                        part.centreMm().yMm(),
                        shared().words().show(new Quantity.TempC(part.limitC()))));
            }
            for (Mark mark : board.marks()) {
                say(String.format(Locale.ROOT, "  %-5s %-14s %s, middle %.1f %.1f, %.1f x %.1f mm%s",
                        mark.name(),
                        shared().words().say("markkind." + mark.kind().key()),
                        mark.side().name().toLowerCase(Locale.ROOT), mark.centreMm().xMm(),
                        mark.centreMm().yMm(), mark.sizeMm().xMm(), mark.sizeMm().yMm(),
                        mark.lengthMm().map(l -> String.format(Locale.ROOT, ", %.1f mm long", l))
                                .orElse("")));
            }
            List<String> on = ledger.usedBy(Format.BOARD, id);
            say(on.isEmpty() ? "  no job stands on it" : "  jobs on it: " + String.join(", ", on));
        }
    }

    @Command(name = "copy", mixinStandardHelpOptions = true, description = "The same board under another name; jobs stay with the old one.")
    static final class Copy extends OnBoards {
        @Parameters(paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "NEW")
        private String copy;

        @Override
        void work(Ledger ledger) throws Exception {
            fresh(ledger, Format.BOARD, copy);
            Board made = board(ledger, id).copy(copy, board(ledger, id).title());
            ledger.save(made);
            told(made);
        }
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Takes a board out of the ledger; one that jobs stand on stays.")
    static final class Remove extends OnBoards {
        @Parameters(paramLabel = "ID")
        private String id;

        @Override
        void work(Ledger ledger) throws Exception {
            remove(ledger, Format.BOARD, id);
        }
    }
}
