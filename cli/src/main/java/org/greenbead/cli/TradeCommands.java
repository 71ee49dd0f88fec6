package org.greenbead.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.alloy.Dilution;
import org.greenbead.core.alloy.MeltingTable;
import org.greenbead.core.alloy.MixShares;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.moisture.Moisture;
import org.greenbead.core.overview.Overview;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Squared;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.record.RecordSheet;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.School;
import org.greenbead.core.route.SchoolSheet;
import org.greenbead.core.route.Schools;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.search.BenchWords;
import org.greenbead.core.search.JobSearch;
import org.greenbead.store.Format;
import org.greenbead.store.Ledger;
import org.greenbead.store.PlacementCsv;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** The arithmetic of a plan, and finding things. */
final class TradeCommands {
    private TradeCommands() {
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }

    /** Finds jobs. */
    @Command(name = "jobs", mixinStandardHelpOptions = true, description = "Finds jobs by words as they are said at benches; all jobs without words.")
    static final class Jobs extends Verb {
        @Parameters(paramLabel = "WORDS", arity = "0..*", description = "Such as: bricked, black glue, plotter.")
        private List<String> query = new ArrayList<>();

        @Override
        public Integer call() throws Exception {
            String text = String.join(" ", query);
            for (BenchWords.Wish wish : BenchWords.shipped().read(text)) {
                if (wish.anyOf().size() > 1) {
                    out().println("\"" + wish.said() + "\" is read as "
                            + String.join(", ", wish.anyOf().subList(1, wish.anyOf().size()))
                            + (wish.trap().isEmpty() ? "" : " (" + wish.trap() + ")"));
                }
            }
            try (Ledger ledger = shared().ledger()) {
                List<JobSearch.Hit> hits = JobSearch.find(ledger.jobs(), text);
                for (JobSearch.Hit hit : hits) {
                    Job job = hit.job();
                    out().printf(Locale.ROOT, "%-10s %-20s %-44s %s%s%n", job.id(), job.title(),
                            job.complaint(),
                            job.inHand().map(b -> words().say("bead." + b.id()))
                                    .orElse(words().say("job.at_end")),
                            hit.where().isEmpty() ? "" : " [" + hit.where() + "]");
                }
                return hits.isEmpty() ? 1 : 0;
            }
        }
    }

    /** The plan at a glance. */
    @Command(name = "overview", mixinStandardHelpOptions = true, description = "Says what the plan of a job comes to: lowest solidus, mix, alloys, moisture, lift side, nozzle, kit.")
    static final class PlanOverview extends Verb {
        @Parameters(paramLabel = "PLAN", description = "A plan file (greenbead/plan/1), or the number of a job in the ledger: its next heat of the board.")
        private Path file;
        @Option(names = "--json", paramLabel = "OUT", description = "Write it as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            RunPlan plan = new JobOnDisk(shared()).plan(file);
            Overview o = Overview.of(plan.job(), plan);
            out().printf(Locale.ROOT, "lowest solidus on the board  %s, %s%n",
                    words().show(new Quantity.TempC(o.ceiling().lowestC())), o.ceiling().site());
            o.ceiling().heats()
                    .forEach(h -> out().printf(Locale.ROOT, "  %-26s %s, %s below it: %s%n", h.what(),
                            words().show(new Quantity.TempC(h.celsius())),
                            words().show(new Quantity.RiseK(h.marginK())),
                            small(h.verdict())));
            out().printf(Locale.ROOT,
                    "joints become                %s on what stays of %s%s: %s, first melts at %s%s%n",
                    o.mix().ball(), o.mix().factory(),
                    o.mix().diluent().isEmpty() ? "" : " and " + o.mix().diluent(), made(o.mix().mix()),
                    words().show(new Quantity.TempC(o.mix().mix().lowestSolidusC())),
                    o.mix().mix().bismuthLead() ? ", BISMUTH MEETS LEAD" : "");
            o.alloys().forEach(a -> out().printf(Locale.ROOT, "  %-11s %-24s %s%n", a.alloy(),
                    a.possible()
                            ? words().bare(a.fromC()) + " to " + words().show(new Quantity.TempC(a.toC()))
                            : "not here",
                    String.join("; ",
                            a.words().stream().map(w -> words().say("alloyword." + small(w))).toList())));
            out().printf(Locale.ROOT, "out of dry storage           %.0f h, %s left%n", o.moisture().openH(),
                    Double.isNaN(o.moisture().leftH())
                            ? "level not noted"
                            : String.format(Locale.ROOT, "%.0f h", o.moisture().leftH()));
            o.moisture().bakes().forEach(b -> out().printf(Locale.ROOT, "  bake %s for %.0f h: %s%n",
                    words().show(new Quantity.TempC(b.bakeC())), b.hours(), small(b.verdict())));
            o.lift().forEach(
                    w -> out().printf(Locale.ROOT, "from the %-6s %5.1f mm free%s%s%n", small(w.side()),
                            w.clearMm(), w.by().isEmpty() ? "" : ", then " + w.by(),
                            w.enough() ? "" : " (too little)"));
            out().printf(Locale.ROOT, "nozzle %.0f to %.0f mm; in its air: %s%n", o.nozzle().fromMm(),
                    o.nozzle().toMm(),
                    o.nozzle().inAir().isEmpty() ? "nothing" : String.join(", ", o.nozzle().inAir()));
            o.shields().forEach(s -> out().printf(Locale.ROOT, "keep the air from %s, %.1f mm away: %s, %s%n",
                    s.part(), s.awayMm(), words().say("masked.why." + small(s.why())),
                    words().say(s.foil().isPresent() ? "maskword.foil" : "maskword.close")));
            out().printf(Locale.ROOT, "to put out: %s%n",
                    String.join(", ", o.kit().stream().map(k -> words().say("kit." + k)).toList()));
            json(json, o);
            return 0;
        }
    }

    private static String made(Dilution.Mix mix) {
        var parts = new ArrayList<String>();
        mix.made().weightPct().forEach((e, pct) -> {
            if (pct >= 0.05) {
                parts.add(String.format(Locale.ROOT, "%s %.1f %%", e, pct));
            }
        });
        return String.join(", ", parts);
    }

    /** What a mix of solders becomes. */
    @Command(name = "mix", mixinStandardHelpOptions = true, description = "What a ball becomes on a pad that keeps a film of factory and thinning solder; exit 1 when bismuth meets lead.")
    static final class Mix extends Verb {
        @Option(names = "--factory", required = true, description = "Alloy it was built with.")
        private String factory;
        @Option(names = "--added", description = "Alloy that thinned it.")
        private String added;
        @Option(names = "--ball", required = true, description = "Alloy of the ball.")
        private String ball;
        @Option(names = "--mass", split = ",", defaultValue = "1,1.5,1.2", description = "Masses of factory, added and ball solder (default ${DEFAULT-VALUE}).")
        private List<Double> mass;
        @Option(names = "--left", description = "Part of the film that stays, 0 to 1 (default: by --passes).")
        private Double left;
        @Option(names = "--passes", defaultValue = "1", description = "Wick passes (default ${DEFAULT-VALUE}).")
        private int passes;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            MeltingTable table = MeltingTable.standard();
            if (mass.size() != 3) {
                throw new IllegalArgumentException("--mass wants three numbers, such as 1,1.5,1.2");
            }
            var f = new Dilution.Part(table.require(factory).made(), mass.get(0));
            var a = added == null
                    ? new Dilution.Part(f.made(), 0)
                    : new Dilution.Part(table.require(added).made(), mass.get(1));
            var b = new Dilution.Part(table.require(ball).made(), mass.get(2));
            double stays = left != null ? left : MixShares.leftBy(passes);
            Dilution.Mix mix = Dilution.of(new Dilution.Mixed(f, a, stays, b));
            out().printf(Locale.ROOT,
                    "%s%nfirst melts at %s; density %.2f g/cm3; %.1f %% of the film stays%n", made(mix),
                    words().show(new Quantity.TempC(mix.lowestSolidusC())), mix.made().densityGPerCm3(),
                    stays * 100);
            double allowed = Dilution.leftAllowed(f, a, b);
            if (allowed < 1) {
                out().printf(Locale.ROOT,
                        "bismuth stays under %.0f %% when at most %.1f %% of the film is left%n",
                        Dilution.TRACE_BI_PCT, allowed * 100);
            }
            if (mix.bismuthLead()) {
                out().println("Bismuth meets lead: wick again, or take another alloy.");
            }
            json(json, mix);
            return mix.bismuthLead() ? 1 : 0;
        }
    }

    /** How to dry a part. */
    @Command(name = "bake", mixinStandardHelpOptions = true, description = "Hours left on the floor and the bakes that dry a part, held against the lowest solidus.")
    static final class Bake extends Verb {
        @Option(names = "--level", required = true, description = "Moisture level: 1, 2, 2a, 3, 4, 5, 5a, 6.")
        private String level;
        @Option(names = "--thickness", required = true, description = "Body thickness, mm.")
        private double thicknessMm;
        @Option(names = "--open", required = true, description = "Hours out of dry storage.")
        private double openH;
        @Option(names = "--solidus", description = "Lowest solidus on the board, °C (default: a loose part).")
        private Double solidusC;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the bakes as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            double left = Moisture.standard().leftH(level, openH)
                    .orElseThrow(() -> new IllegalArgumentException(
                            "moisture level \"" + level
                                    + "\" is not known; write 1, 2, 2a, 3, 4, 5, 5a or 6"));
            out().printf(Locale.ROOT, left >= 0 ? "%.0f h left%n" : "%.0f h past its floor life%n",
                    Math.abs(left));
            List<Moisture.Bake> bakes = Moisture.standard().bakes(level, thicknessMm, openH,
                    solidusC == null ? Double.NaN : solidusC);
            bakes.forEach(b -> out().printf(Locale.ROOT, "%s for %.0f h: %s%n",
                    words().show(new Quantity.TempC(b.bakeC())), b.hours(), small(b.verdict())));
            if (bakes.isEmpty()) {
                out().println("The table has no bake for it: read the maker's sheet.");
            }
            json(json, bakes);
            return 0;
        }
    }

    /** Parts from a placement file. */
    @Command(name = "place", mixinStandardHelpOptions = true, description = "Puts the parts of a placement file (ref,x_mm,y_mm,rotation,side,package) on a board.")
    static final class Place extends Verb {
        @Parameters(index = "0", paramLabel = "BOARD", description = "Board file (greenbead/board/1).")
        private Path board;
        @Parameters(index = "1", paramLabel = "CSV", description = "Placement file.")
        private Path csv;
        @Parameters(index = "2", paramLabel = "OUT", description = "Board file to write.")
        private Path out;
        @Option(names = "--unit", defaultValue = "MM", description = "Unit of the numbers: ${COMPLETION-CANDIDATES}.")
        private PlacementCsv.Unit unit;

        @Override
        public Integer call() throws Exception {
            PlacementCsv.Placed placed = PlacementCsv.onto(
                    shared().files().read(board, Format.BOARD, Board.class), PlacementCsv.read(csv, unit),
                    String.valueOf(csv.getFileName()), unit);
            write(out, shared().files().write(Format.BOARD, placed.board()));
            out().println(placed.board().parts().size() + " parts on " + placed.board().id());
            said("limit taken from its class, read the sheet", placed.limitAssumed());
            said("size not known from its package", placed.sizeAssumed());
            said("placed elsewhere than on the board, left where it is", placed.moved());
            return 0;
        }

        private void said(String what, List<String> parts) {
            if (!parts.isEmpty()) {
                out().println(what + ": " + String.join(", ", parts));
            }
        }
    }

    /** Pixels to millimetres. */
    @Command(name = "square", mixinStandardHelpOptions = true, description = "Squares a picture up by four corners and says where pixels lie on the board, mm.")
    static final class Square extends Verb {
        @Option(names = "--corners", required = true, split = ";", description = "Lower left, lower right, upper right, upper left: x,y;x,y;x,y;x,y in pixels.")
        private List<String> corners;
        @Option(names = "--size", required = true, description = "Width,depth of the board, mm.")
        private String size;
        @Parameters(paramLabel = "x,y", arity = "1..*", description = "Pixels.")
        private List<String> pixels;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the places as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            double[] mm = pair(size);
            Squared squared = Squared.of(corners.stream().map(Square::px).toList(), new Point(mm[0], mm[1]));
            var all = new ArrayList<Map<String, Object>>();
            for (String one : pixels) {
                Px px = px(one);
                Point at = squared.toMm(px);
                out().printf(Locale.ROOT, "%.1f, %.1f px: %.2f, %.2f mm%s%n", px.x(), px.y(), at.xMm(),
                        at.yMm(),
                        squared.holds(at) ? "" : " (off the board)");
                var map = new LinkedHashMap<String, Object>();
                map.put("x_px", px.x());
                map.put("y_px", px.y());
                map.put("x_mm", at.xMm());
                map.put("y_mm", at.yMm());
                map.put("on_board", squared.holds(at));
                all.add(map);
            }
            out().printf(Locale.ROOT, "%.1f px to a millimetre in the middle%n", squared.pxPerMm());
            json(json, all);
            return 0;
        }

        private static Px px(String text) {
            double[] p = pair(text);
            return new Px(p[0], p[1]);
        }

        private static double[] pair(String text) {
            String[] part = text.strip().split("\\s*,\\s*");
            try {
                if (part.length == 2) {
                    return new double[]{Double.parseDouble(part[0]), Double.parseDouble(part[1])};
                }
            } catch (NumberFormatException e) {
                // said below
            }
            throw new IllegalArgumentException("\"" + text + "\" is no pair of numbers such as 120,80");
        }
    }

    /** The types of record. */
    @Command(name = "records", mixinStandardHelpOptions = true, description = "Lists the types of record with their fields.")
    static final class Records extends Verb {
        @Option(names = "--markdown", paramLabel = "OUT", description = "Write them as docs/records.md has them.")
        private Path markdown;

        @Override
        public Integer call() throws Exception {
            RecordTypes.shipped().all().forEach(t -> out().printf("%-15s %-36s %s%n", t.id(),
                    words().say("record." + t.id()),
                    String.join(", ", t.fields().stream().map(f -> f.name()).toList())));
            if (markdown != null) {
                write(markdown, RecordSheet.of(words()));
            }
            return 0;
        }
    }

    /** The ways of working. */
    @Command(name = "schools", mixinStandardHelpOptions = true, description = "Lists the points on which practice differs, with what each way costs and the default.")
    static final class Ways extends Verb {
        @Option(names = "--markdown", paramLabel = "OUT", description = "Write them as docs/schools.md has them.")
        private Path markdown;

        @Override
        public Integer call() throws Exception {
            for (School school : Schools.shipped().all()) {
                out().println(words().say("school." + school.id()));
                school.choices().forEach(c -> out().printf("  %s %-28s %s%n",
                        c.id().equals(school.standard()) ? "*" : " ",
                        words().say("school." + school.id() + "." + c.id()),
                        words().say("school." + school.id() + "." + c.id() + ".costs")));
            }
            if (markdown != null) {
                write(markdown, SchoolSheet.of(words()));
            }
            return 0;
        }
    }
}
