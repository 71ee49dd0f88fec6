package org.greenbead.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.greenbead.core.chip.ChipLabel;
import org.greenbead.core.chip.LabelWords;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.quantity.Words;
import org.greenbead.store.LabelSheet;
import org.greenbead.store.Ledger;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Chips and their labels. */
final class ChipCommands {
    private ChipCommands() {
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }

    /** Lists chips. */
    @Command(name = "chips", mixinStandardHelpOptions = true, description = "Lists the chips of the ledger with place, health, melts and look-alikes.")
    static final class Chips extends Verb {
        @Option(names = "--json", paramLabel = "OUT", description = "Write them as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            try (Ledger ledger = shared().ledger()) {
                List<StockChip> all = ledger.chips();
                for (StockChip chip : all) {
                    List<String> alike = LookAlikes.of(chip, all).stream().map(StockChip::label).toList();
                    out().printf(Locale.ROOT, "%s %-8s %-7s %-6s %-10s melts %d, %.0f min hot%s%n",
                            chip.label(),
                            chip.part(), small(chip.health()), small(chip.place()), chip.where(),
                            chip.melts(),
                            chip.hotMin(), alike.isEmpty() ? "" : ", looks like " + String.join(", ", alike));
                }
                json(json, all);
            }
            return 0;
        }
    }

    /** Prints labels. */
    @Command(name = "labels", mixinStandardHelpOptions = true, description = "Writes labels with a scannable code as PDF, 24 a page; all chips, or the ones named.")
    static final class Labels extends Verb {
        @Parameters(index = "0", paramLabel = "OUT", description = "PDF file to write.")
        private Path out;
        @Parameters(index = "1..*", paramLabel = "LABEL", arity = "0..*", description = "Labels to print (default: all).")
        private List<String> wanted = new ArrayList<>();

        @Override
        public Integer call() throws Exception {
            try (Ledger ledger = shared().ledger()) {
                var chosen = new ArrayList<StockChip>();
                List<StockChip> all = ledger.chips();
                for (String one : wanted) {
                    String label = ChipLabel.read(one).map(ChipLabel::text)
                            .orElseThrow(() -> new IllegalArgumentException("\"" + one
                                    + "\" is no chip label, or a digit of it is wrong; it looks like GB-0042-7"));
                    chosen.add(all.stream().filter(c -> c.label().equals(label)).findFirst()
                            .orElseThrow(() -> new IllegalArgumentException(
                                    "no chip bears " + label + "; list them with: greenbead chips")));
                }
                Words words = words();
                List<StockChip> printed = wanted.isEmpty() ? all : chosen;
                SafeFiles.write(out, LabelSheet.pdf(printed, c -> LabelWords.of(c, words)));
                out().println("wrote " + printed.size() + " labels to " + out);
            }
            return 0;
        }
    }
}
