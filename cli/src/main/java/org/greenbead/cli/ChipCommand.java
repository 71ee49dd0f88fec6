package org.greenbead.cli;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.chip.ChipLabel;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Chips of one's own: each a specimen with its label and its life. */
@Command(name = "chip", mixinStandardHelpOptions = true, description = "Chips of the ledger, each with its own label: make, set, show, list, remove.", subcommands = {
        ChipCommand.ListAll.class, ChipCommand.New.class, ChipCommand.Set.class, ChipCommand.Show.class,
        ChipCommand.Remove.class})
final class ChipCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    /** What they share. */
    private abstract static class OnChips extends LedgerVerb {
        StockChip chip(Ledger ledger, String typed) {
            String label = ChipLabel.read(typed).map(ChipLabel::text)
                    .orElseThrow(() -> new IllegalArgumentException("\"" + typed
                            + "\" is no chip label, or a digit of it is wrong; it looks like GB-0042-7"));
            return ledger.chips().stream().filter(c -> c.label().equals(label)).findFirst()
                    .orElseThrow(() -> new IllegalArgumentException(
                            "no chip bears " + label + "; list them with: greenbead chip list"));
        }

        void told(StockChip chip, List<StockChip> all) {
            List<String> alike = LookAlikes.of(chip, all).stream().map(StockChip::label).toList();
            say(String.format(Locale.ROOT, "%s %-10s %-7s %-6s %-12s %s, melts %d, %.0f min hot%s",
                    chip.label(), chip.part(), small(chip.health()), small(chip.place()), chip.where(),
                    chip.alloy().isBlank() ? "balls not noted" : chip.alloy(), chip.melts(), chip.hotMin(),
                    alike.isEmpty() ? "" : ", looks like " + String.join(", ", alike)));
        }

        static String small(Enum<?> word) {
            return word.name().toLowerCase(Locale.ROOT);
        }
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Every chip, those that are gone last.")
    static final class ListAll extends OnChips {
        @Override
        void work(Ledger ledger) {
            List<StockChip> all = ledger.chips();
            all.stream().filter(c -> c.place() != StockChip.Place.GONE).forEach(c -> told(c, all));
            all.stream().filter(c -> c.place() == StockChip.Place.GONE).forEach(c -> told(c, all));
            if (all.isEmpty()) {
                say("no chip yet; make one: greenbead chip new QX-1");
            }
        }
    }

    @Command(name = "new", mixinStandardHelpOptions = true, description = "A chip with the next free label.")
    static final class New extends OnChips {
        @Parameters(paramLabel = "PART", description = "What is printed on it.")
        private String part;
        @Option(names = "--origin", defaultValue = "NEW", description = "own, new or harvested (default new).")
        private StockChip.Origin origin;
        @Option(names = "--from", defaultValue = "", description = "Which unit, donor or seller.")
        private String from;
        @Option(names = "--pads", defaultValue = "0", description = "Number of balls.")
        private int pads;
        @Option(names = "--side", defaultValue = "0", description = "Longer side, mm.")
        private double sideMm;
        @Option(names = "--at", defaultValue = "drawer", description = "Where it lies: drawer 3, tray, board AB-1 U1 (default drawer).")
        private String at;
        @Option(names = "--alloy", description = "On its balls.")
        private Optional<String> alloy;

        @Override
        void work(Ledger ledger) throws Exception {
            StockChip.Put put = StockChip.Put.read(at);
            Instant now = Instant.now();
            var made = new StockChip(LookAlikes.free(ledger.chips()).text(), part, pads, sideMm, origin, from,
                    put.place(), put.where(), StockChip.Health.UNKNOWN, "", "",
                    alloy.map(a -> Alloys.require(a).name()).orElse(""), 0, 0, Optional.empty(),
                    List.of(new StockChip.Moment(now, "written down")));
            ledger.save(made);
            told(made, ledger.chips());
        }
    }

    @Command(name = "set", mixinStandardHelpOptions = true, description = "What is known of a chip; each change goes into its life.")
    static final class Set extends OnChips {
        @Parameters(paramLabel = "LABEL")
        private String label;
        @Option(names = "--part", description = "What is printed on it.")
        private Optional<String> part;
        @Option(names = "--at", description = "Where it lies: drawer 3, tray, board AB-1 U1, gone.")
        private Optional<String> at;
        @Option(names = "--good", paramLabel = "PROOF", description = "It is good, and what shows it.")
        private Optional<String> good;
        @Option(names = "--bad", paramLabel = "PROOF", description = "It is bad, and what shows it.")
        private Optional<String> bad;
        @Option(names = "--alloy", description = "On its balls.")
        private Optional<String> alloy;
        @Option(names = "--mark", description = "Its mark: dot north-west, seen from the top.")
        private Optional<String> mark;

        @Override
        void work(Ledger ledger) throws Exception {
            if (good.isPresent() && bad.isPresent()) {
                throw new IllegalArgumentException("a chip is good or bad; give one of --good and --bad");
            }
            Instant now = Instant.now();
            StockChip was = chip(ledger, label);
            StockChip chip = was;
            if (part.isPresent()) {
                chip = chip.named(part.get(), now, "read as " + part.get());
            }
            if (at.isPresent()) {
                StockChip.Put put = StockChip.Put.read(at.get());
                chip = chip.moved(put.place(), put.where(), chip.job(), now, "moved to " + at.get());
            }
            if (good.isPresent()) {
                chip = chip.known(StockChip.Health.GOOD, good.get(), now, "good: " + good.get());
            }
            if (bad.isPresent()) {
                chip = chip.known(StockChip.Health.BAD, bad.get(), now, "bad: " + bad.get());
            }
            if (alloy.isPresent() || mark.isPresent()) {
                String balls = alloy.isPresent() ? Alloys.require(alloy.get()).name() : chip.alloy();
                chip = chip.with(balls, mark.orElse(chip.orientation()), now,
                        alloy.map(a -> "balls of " + balls).orElse("its mark noted"));
            }
            if (chip == was) {
                throw new IllegalArgumentException("say what is known of it; see greenbead chip set --help");
            }
            ledger.save(chip);
            told(chip, ledger.chips());
        }
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "A chip with its life; with --json as a file of the open format.")
    static final class Show extends OnChips {
        @Parameters(paramLabel = "LABEL")
        private String label;
        @Option(names = "--json", description = "As greenbead/chip/1.")
        private boolean json;

        @Override
        void work(Ledger ledger) throws Exception {
            StockChip chip = chip(ledger, label);
            if (json) {
                say(shared().files().write(Format.CHIP, chip));
                return;
            }
            told(chip, ledger.chips());
            if (!chip.proof().isBlank()) {
                say("  " + small(chip.health()) + " by: " + chip.proof());
            }
            chip.job().ifPresent(j -> say("  belongs to " + j));
            chip.life().forEach(m -> say("  " + m.at() + " " + m.what()));
        }
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "A chip is gone: its label and its life stay, and the label is not given twice.")
    static final class Remove extends OnChips {
        @Parameters(paramLabel = "LABEL")
        private String label;
        @Option(names = "--why", defaultValue = "gone", description = "Sold, thrown away, lost (default ${DEFAULT-VALUE}).")
        private String why;

        @Override
        void work(Ledger ledger) throws Exception {
            StockChip chip = chip(ledger, label);
            if (chip.place() == StockChip.Place.GONE) {
                throw new IllegalArgumentException("chip " + chip.label() + " is gone already");
            }
            Optional<String> open = chip.job()
                    .filter(j -> ledger.jobs().stream()
                            .anyMatch(o -> o.id().equals(j) && o.inHand().isPresent()));
            if (open.isPresent()) {
                throw new IllegalArgumentException("chip " + chip.label() + " stays: job " + open.get()
                        + " is at work on it");
            }
            ledger.save(chip.moved(StockChip.Place.GONE, "", Optional.empty(), Instant.now(), why));
            say("chip " + chip.label() + " is gone; its life stays");
        }
    }
}
