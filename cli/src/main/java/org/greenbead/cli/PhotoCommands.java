package org.greenbead.cli;

import static org.greenbead.cli.CheckCommand.small;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.PhotoRecords;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.inspect.BeadCheck;
import org.greenbead.core.inspect.BeadReport;
import org.greenbead.core.inspect.BeadVerdict;
import org.greenbead.core.inspect.BoardCompare;
import org.greenbead.core.inspect.Change;
import org.greenbead.core.inspect.PadCheck;
import org.greenbead.core.inspect.PadReport;
import org.greenbead.core.inspect.PadState;
import org.greenbead.core.inspect.UnclearPhotoException;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.BeadMapCsv;
import org.greenbead.store.PictureFile;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What photos say: balls, pads, and what changed between two. */
final class PhotoCommands {
    static final List<Class<?>> ALL = List.of(Beads.class, Pads.class, Compare.class);

    private PhotoCommands() {
    }

    /** A photo that may be of a job: what it says is kept with it. */
    abstract static class ForJob extends Verb {
        @Option(names = "--job", paramLabel = "JOB", description = "A job file, or the number of a job in the ledger: what the photo says is kept with it.")
        private Optional<String> job = Optional.empty();
        @Option(names = "--author", defaultValue = "", description = "Who looked.")
        private String author;

        void keepPhoto(String type, Map<String, Object> says) throws Exception {
            if (job.isEmpty()) {
                return;
            }
            var disk = new JobOnDisk(shared());
            Job before = disk.read(job.get());
            Kept record = PhotoRecords.record(before, type, says, Instant.now(), author);
            disk.write(job.get(), before, before.with(record), author, "noted",
                    record.id());
            out().println("kept as " + record.id() + " with job " + before.id());
        }
    }

    /** Balls of a chip. */
    @Command(name = "beads", mixinStandardHelpOptions = true, description = "Counts and measures the balls of a chip on a photo; exit 1 when something is to be done, 2 when the photo cannot be judged.")
    static final class Beads extends ForJob {
        @Parameters(paramLabel = "PHOTO", description = "PNG or JPEG, the whole field in it.")
        private Path photo;
        @Option(names = "--map", required = true, paramLabel = "MAP.csv", description = "Bead map: site,x_mm,y_mm,diameter_mm,net,critical.")
        private Path map;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            BeadMap field = BeadMapCsv.read(map);
            var raster = PictureFile.read(photo);
            long start = System.nanoTime();
            BeadReport report = judged(photo, () -> BeadCheck.of(raster, field));
            double seconds = (System.nanoTime() - start) / 1e9;
            report.counts().forEach((state, n) -> out().printf(Locale.ROOT, "%-10s %d%n", small(state), n));
            report.verdict().todo().forEach(t -> out().printf(Locale.ROOT, "%-7s %-10s %s%s%n", t.site(),
                    small(t.state()),
                    words().say("beadfix." + small(t.fix())),
                    t.pasteMm3() > 0 ? String.format(Locale.ROOT, ", %.3f mm³ of paste", t.pasteMm3()) : ""));
            report.strays()
                    .forEach(s -> out().printf(Locale.ROOT, "stray ball of %.2f mm at pixel %.0f, %.0f%n",
                            s.diameterMm(), s.xPx(), s.yPx()));
            out().printf(Locale.ROOT, "turned by %.0f°, tilted by %.0f°; %s%n", report.turnDeg(),
                    report.tiltDeg(),
                    words().say("beadmark." + small(report.mark())));
            out().printf(Locale.ROOT,
                    "heights differ by %.3f ± %.3f mm by diameters alone; a bent body is not seen%n",
                    report.verdict().coplanarityMm(), report.verdict().coplanaritySdMm());
            report.doubt().ifPresent(d -> out().println(words().say(d)));
            out().printf(Locale.ROOT, "%s (%.2f s)%n",
                    words().say("beadact." + small(report.verdict().act())), seconds);
            Map<String, Object> result = new LinkedHashMap<>();
            var sites = new ArrayList<Map<String, Object>>();
            for (BeadReport.Seen s : report.sites()) {
                Map<String, Object> one = new LinkedHashMap<>();
                one.put("site", s.site());
                one.put("state", small(s.state()));
                one.put("x_px", s.xPx());
                one.put("y_px", s.yPx());
                s.diameterMm().ifPresent(d -> {
                    one.put("diameter_mm", d);
                    one.put("diameter_sd_mm", s.diameterSdMm());
                });
                s.offsetMm().ifPresent(o -> {
                    one.put("offset_mm", o);
                    one.put("offset_sd_mm", s.offsetSdMm());
                });
                one.put("bridged_with", s.bridgedWith());
                sites.add(one);
            }
            result.put("sites", sites);
            result.put("strays", report.strays());
            result.put("verdict", report.verdict());
            result.put("turn_deg", report.turnDeg());
            result.put("tilt_deg", report.tiltDeg());
            result.put("px_per_mm", report.pxPerMm());
            result.put("spread_pct", report.spreadPct());
            result.put("mark", small(report.mark()));
            result.put("common_part", report.commonPart());
            result.put("pale_board", report.paleBoard());
            json(json, result);
            keepPhoto("balls", PhotoRecords.balls(report, field, String.valueOf(photo.getFileName())));
            return report.verdict().act() == BeadVerdict.Act.GOOD ? 0 : 1;
        }
    }

    /** A cleaned field. */
    @Command(name = "pads", mixinStandardHelpOptions = true, description = "Judges a cleaned field of pads on a photo; exit 1 when something is to be done, 2 when the photo cannot be judged.")
    static final class Pads extends ForJob {
        @Parameters(paramLabel = "PHOTO", description = "PNG or JPEG, the whole field in it.")
        private Path photo;
        @Option(names = "--map", required = true, paramLabel = "MAP.csv", description = "Bead map; its diameters are those of the balls, pads three quarters of them.")
        private Path map;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            BeadMap field = BeadMapCsv.read(map);
            var raster = PictureFile.read(photo);
            PadReport report = judged(photo, () -> PadCheck.of(raster, field));
            var sites = new ArrayList<Map<String, Object>>();
            for (PadReport.Seen s : report.sites()) {
                Map<String, Object> one = new LinkedHashMap<>();
                one.put("site", s.site());
                one.put("state", small(s.state()));
                one.put("x_px", s.xPx());
                one.put("y_px", s.yPx());
                one.put("covered", s.covered());
                one.put("smeared_with", s.smearedWith());
                sites.add(one);
                if (s.state() != PadState.OK) {
                    out().printf(Locale.ROOT, "%-6s %s%n", s.site(), small(s.state()));
                }
            }
            long good = report.with(PadState.OK).size();
            out().printf(Locale.ROOT, "%d of %d pads are good%n", good, sites.size());
            Map<String, Object> result = new LinkedHashMap<>();
            result.put("sites", sites);
            result.put("turn_deg", report.turnDeg());
            result.put("mark", small(report.mark()));
            json(json, result);
            keepPhoto("pads", PhotoRecords.pads(report, field, String.valueOf(photo.getFileName())));
            return good == sites.size() ? 0 : 1;
        }
    }

    /** Two photos. */
    @Command(name = "compare", mixinStandardHelpOptions = true, description = "Which small parts vanished or moved between two photos of the same board area; exit 1 when any did, 2 when they do not fit on one another.")
    static final class Compare extends ForJob {
        @Parameters(index = "0", paramLabel = "BEFORE", description = "PNG or JPEG.")
        private Path before;
        @Parameters(index = "1", paramLabel = "AFTER", description = "PNG or JPEG of the same place, any way up.")
        private Path after;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON; places are pixels of the first photo.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            var first = PictureFile.read(before);
            var second = PictureFile.read(after);
            Change change = judged(after, () -> BoardCompare.of(first, second));
            change.vanished()
                    .forEach(v -> out().printf(Locale.ROOT, "vanished at %.0f, %.0f%n", v.xPx(), v.yPx()));
            change.moved()
                    .forEach(m -> out().printf(Locale.ROOT, "moved from %.0f, %.0f to %.0f, %.0f%n", m.xPx(),
                            m.yPx(), m.toXPx(), m.toYPx()));
            out().printf(Locale.ROOT, "%.0f %% of what was compared agrees%n", 100 * change.agreed());
            Map<String, Object> result = new LinkedHashMap<>();
            result.put("vanished", change.vanished());
            result.put("moved", change.moved());
            json(json, result);
            keepPhoto("comparison", PhotoRecords.change(change, String.valueOf(before.getFileName()),
                    String.valueOf(after.getFileName()), 0));
            return change.vanished().isEmpty() && change.moved().isEmpty() ? 0 : 1;
        }
    }

    private interface Judging<T> {
        T now() throws UnclearPhotoException;
    }

    private static <T> T judged(Path photo, Judging<T> judging) {
        try {
            return judging.now();
        } catch (UnclearPhotoException e) {
            throw new IllegalArgumentException(photo.getFileName() + ": " + e.getMessage());
        }
    }
}
