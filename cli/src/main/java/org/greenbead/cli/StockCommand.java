package org.greenbead.cli;

import java.time.Instant;
import java.time.ZoneId;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.Account;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Wording;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Job;
import org.greenbead.core.stock.StockCounters;
import org.greenbead.core.stock.StockEntry;
import org.greenbead.core.stock.StockItem;
import org.greenbead.core.stock.StockUse;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** What is used up or wears. */
@Command(name = "stock", mixinStandardHelpOptions = true, description = "Stencils, pastes, fluxes, spheres, wick, tips and blades: what there is, what was done with it, what is to be ordered.", subcommands = {
        StockCommand.ListAll.class, StockCommand.New.class, StockCommand.Set.class, StockCommand.Show.class,
        StockCommand.Do.class, StockCommand.Use.class, StockCommand.Reorder.class,
        StockCommand.Remove.class})
final class StockCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    /** What they share. */
    private abstract static class OnStock extends LedgerVerb {
        StockItem item(Ledger ledger, String id) throws Exception {
            return ledger.document(Format.STOCK, id, StockItem.class);
        }

        void told(StockItem item, Words words) {
            StockCounters now = StockCounters.of(item, Instant.now());
            var text = new StringBuilder(String.format(Locale.ROOT, "%-10s %s: %s", item.id(),
                    words.say("stock.kind." + item.kind().word()), item.name()));
            add(text, item.alloy());
            add(text, item.lot().isEmpty() ? "" : "lot " + item.lot());
            add(text, item.fits().isEmpty() ? "" : "for " + String.join(" ", item.fits()));
            if (!item.unit().isEmpty()) {
                add(text, String.format(Locale.ROOT, "%.4g %s left", now.left(), item.unit()));
            }
            if (item.kind().ages()) {
                add(text, String.format(Locale.ROOT, "out %.1f h%s%s", now.hoursOut(),
                        item.limitHours().map(h -> String.format(Locale.ROOT, " of %.0f", h)).orElse(""),
                        now.out() ? ", out now" : ""));
            }
            if (item.kind().wears()) {
                add(text, String.format(Locale.ROOT, "used %d%s, washed %d", now.uses(),
                        item.usesMax().map(h -> String.format(Locale.ROOT, " of %.0f", h)).orElse(""),
                        now.washes()));
            }
            add(text, now.scrapped() ? "thrown away" : now.low(item) ? "TO ORDER" : "");
            say(text.toString());
            now.noticed(item, RuleBook.shipped(), RuleBook.Settings.STANDARD)
                    .forEach(n -> say("           " + n.rule().what() + ". "
                            + new Wording(shared().words()).remedy(n)));
        }

        private static void add(StringBuilder text, String part) {
            if (!part.isEmpty()) {
                text.append(", ").append(part);
            }
        }

        static Map<StockEntry.Field, String> typed(Map<String, String> fields) {
            var typed = new EnumMap<StockEntry.Field, String>(StockEntry.Field.class);
            fields.forEach((name, value) -> {
                try {
                    typed.put(StockEntry.Field.valueOf(name.toUpperCase(Locale.ROOT)), value);
                } catch (IllegalArgumentException e) {
                    throw new IllegalArgumentException(
                            "\"" + name + "\" is no field of a thing in stock; use "
                                    + String.join(", ", java.util.Arrays.stream(StockEntry.Field.values())
                                            .map(StockEntry.Field::word).toList()),
                            e);
                }
            });
            return typed;
        }
    }

    @Command(name = "list", mixinStandardHelpOptions = true, description = "Everything that is not thrown away.")
    static final class ListAll extends OnStock {
        @Override
        void work(Ledger ledger) {
            List<StockItem> all = ledger.stock().stream()
                    .filter(i -> !StockCounters.of(i, Instant.now()).scrapped()).toList();
            all.forEach(i -> told(i, shared().words()));
            if (all.isEmpty()) {
                say("nothing yet; begin with: greenbead stock new PA-1 paste name=\"fine paste\" alloy=Sn63Pb37 unit=g");
            }
        }
    }

    @Command(name = "new", mixinStandardHelpOptions = true, description = "Takes a thing into stock.")
    static final class New extends OnStock {
        @Parameters(index = "0", paramLabel = "ID", description = "As on its label.")
        private String id;
        @Parameters(index = "1", paramLabel = "KIND", description = "${COMPLETION-CANDIDATES}.")
        private StockItem.Kind kind;
        @Parameters(index = "2..*", paramLabel = "FIELD=VALUE", description = "name, alloy, lot, unit, least, price, limit_hours, uses_max, washes_max, aperture_mm, thickness_mm, diameter_mm, fits.")
        private Map<String, String> fields = new LinkedHashMap<>();

        @Override
        void work(Ledger ledger) throws Exception {
            fresh(ledger, Format.STOCK, id);
            Map<StockEntry.Field, String> typed = typed(fields);
            typed.putIfAbsent(StockEntry.Field.NAME, shared().words().say("stock.kind." + kind.word()));
            StockItem item = StockEntry.read(Optional.empty(), id, kind, typed);
            ledger.save(item);
            told(item, shared().words());
        }
    }

    @Command(name = "set", mixinStandardHelpOptions = true, description = "Corrects what is noted of a thing; an empty value takes it away.")
    static final class Set extends OnStock {
        @Parameters(index = "0", paramLabel = "ID")
        private String id;
        @Parameters(index = "1..*", paramLabel = "FIELD=VALUE", arity = "1..*")
        private Map<String, String> fields = new LinkedHashMap<>();

        @Override
        void work(Ledger ledger) throws Exception {
            StockItem was = item(ledger, id);
            StockItem item = StockEntry.read(Optional.of(was), id, was.kind(), typed(fields));
            ledger.save(item);
            told(item, shared().words());
        }
    }

    @Command(name = "show", mixinStandardHelpOptions = true, description = "One thing and all that was done with it.")
    static final class Show extends OnStock {
        @Parameters(index = "0", paramLabel = "ID")
        private String id;
        @Option(names = "--json", description = "Print it as a file (greenbead/stock/1), which import takes in elsewhere.")
        private boolean json;

        @Override
        void work(Ledger ledger) throws Exception {
            StockItem item = item(ledger, id);
            if (json) {
                say(shared().files().write(Format.STOCK, item));
                return;
            }
            told(item, shared().words());
            for (StockItem.Moment m : item.moments()) {
                say(String.format(Locale.ROOT, "  %s %s%s%s%s", m.at(),
                        shared().words().say("stock.act." + m.act().word()),
                        m.amount() > 0 ? String.format(Locale.ROOT, " %.4g %s", m.amount(), item.unit()) : "",
                        m.job().isEmpty() ? "" : " for " + m.job(), m.by().isEmpty() ? "" : ", " + m.by()));
            }
        }
    }

    @Command(name = "do", mixinStandardHelpOptions = true, description = "Writes down what was done with a thing.")
    static final class Do extends OnStock {
        @Parameters(index = "0", paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "ACT", description = "${COMPLETION-CANDIDATES}.")
        private StockItem.Act act;
        @Option(names = "--amount", defaultValue = "0", description = "How much, where it is counted.")
        private double amount;
        @Option(names = "--at", paramLabel = "TIME", description = "When (default: now).")
        private Instant at;
        @Option(names = "--author", defaultValue = "", description = "Who did it.")
        private String author;
        @Option(names = "--undo", description = "Takes the last thing that was done back instead, whatever it was.")
        private boolean undo;

        @Override
        void work(Ledger ledger) throws Exception {
            StockItem was = item(ledger, id);
            if (!undo && act == StockItem.Act.USED) {
                throw new IllegalArgumentException(
                        "using it belongs to a job: greenbead stock use " + id + " JOB");
            }
            StockItem item = undo
                    ? was.undone()
                    : was.with(
                            new StockItem.Moment(at == null ? Instant.now() : at, act, amount, "", author));
            ledger.save(item);
            told(item, shared().words());
        }
    }

    @Command(name = "use", mixinStandardHelpOptions = true, description = "Takes a thing for a job: its counters go into the job's records, where the rules read them.")
    static final class Use extends OnStock {
        @Parameters(index = "0", paramLabel = "ID")
        private String id;
        @Parameters(index = "1", paramLabel = "JOB")
        private String jobId;
        @Option(names = "--amount", defaultValue = "0", description = "How much of it, in its unit; its price goes to the job's cost.")
        private double amount;
        @Option(names = "--at", paramLabel = "TIME", description = "When (default: now).")
        private Instant at;
        @Option(names = "--author", defaultValue = "", description = "Who did it.")
        private String author;

        @Override
        void work(Ledger ledger) throws Exception {
            Job job = ledger.job(jobId);
            StockUse.Taken taken = StockUse.take(job, ledger.targetPart(job), item(ledger, id), amount,
                    at == null ? Instant.now() : at, ZoneId.systemDefault(), author);
            ledger.save(Account.noted(Optional.of(job), taken.job(), Instant.now(), author), "from stock",
                    id);
            ledger.save(taken.item());
            told(taken.item(), shared().words());
        }
    }

    @Command(name = "reorder", mixinStandardHelpOptions = true, description = "What is to be ordered.")
    static final class Reorder extends OnStock {
        @Override
        void work(Ledger ledger) {
            List<StockItem> low = ledger.stock().stream()
                    .filter(i -> StockCounters.of(i, Instant.now()).low(i)).toList();
            low.forEach(i -> told(i, shared().words()));
            if (low.isEmpty()) {
                say("nothing to order");
            }
        }
    }

    @Command(name = "remove", mixinStandardHelpOptions = true, description = "Takes a thing out that no job has used; what was used is thrown away instead: stock do ID scrapped.")
    static final class Remove extends OnStock {
        @Parameters(index = "0", paramLabel = "ID")
        private String id;

        @Override
        void work(Ledger ledger) throws Exception {
            ledger.remove(item(ledger, id));
            say("removed " + id);
        }
    }
}
