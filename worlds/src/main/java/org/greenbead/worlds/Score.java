package org.greenbead.worlds;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.inspect.BeadCheck;
import org.greenbead.core.inspect.BeadReport;
import org.greenbead.core.inspect.BeadState;
import org.greenbead.core.inspect.PhotoJudge;
import org.greenbead.core.inspect.SiteNet;
import org.greenbead.core.inspect.UnclearPhotoException;

/**
 * How the photo check does on photos with known truth: {@code Score shipped|limits|NET[,NET[,NET]] [stated=PART] FOLDER...}; with a part, maps that
 * state all diameters as so much of what they are. Sites are matched by place, since a field without a mark may be
 * read turned.
 */
public final class Score {
    private final Optional<PhotoJudge> judge;
    private final double stated;
    private int photos;
    private int refused;
    private int clean;
    private int good;
    private int goodClean;
    private int sites;
    private int falseSites;
    private int unknown;
    private int rightKind;
    private int strays;
    private int straysFound;
    private int straysFalse;
    private int inside;
    private final Map<BeadState, int[]> found = new EnumMap<>(BeadState.class);
    private final List<Double> miss = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();

    public Score(Optional<PhotoJudge> judge) {
        this(judge, 1);
    }

    /** @param stated diameters of the map over those that the balls were made for */
    Score(Optional<PhotoJudge> judge, double stated) {
        this.judge = judge;
        this.stated = stated;
    }

    private BeadMap map(Album.Page page) {
        return stated == 1
                ? page.map()
                : new BeadMap(page.map().sites().stream().map(s -> new Site(s.name(), s.xMm(), s.yMm(),
                        s.diameterMm().map(d -> d * stated), s.net(), s.critical())).toList());
    }

    /** @param files weights for sites, then, after commas, for strays and for sizes */
    private static PhotoJudge read(String files) throws IOException {
        String[] both = files.split(",");
        return new PhotoJudge(net(both[0]), both.length > 1 ? Optional.of(net(both[1])) : Optional.empty(),
                both.length > 2 ? Optional.of(net(both[2])) : Optional.empty());
    }

    private static SiteNet net(String file) throws IOException {
        try (var in = Files.newInputStream(Path.of(file))) {
            return SiteNet.read(in);
        }
    }

    public static void main(String[] args) throws IOException {
        Optional<PhotoJudge> judge = args[0].equals("limits")
                ? Optional.empty()
                : Optional.of(args[0].equals("shipped") ? PhotoJudge.shipped() : read(args[0]));
        boolean other = args[1].startsWith("stated=");
        double stated = other ? Double.parseDouble(args[1].substring(7)) : 1;
        for (String folder : List.of(args).subList(other ? 2 : 1, args.length)) {
            var score = new Score(judge, stated);
            for (Album.Page page : Album.read(Path.of(folder))) {
                score.add(page);
            }
            System.out.println(folder + "\n" + score.table());
            score.remarks.forEach(System.out::println);
        }
    }

    public int falseSites() {
        return falseSites;
    }

    public int refused() {
        return refused;
    }

    /** @return faults found and faults there are, on photos that were answered */
    public int[] faults() {
        int[] sum = new int[2];
        found.values().forEach(f -> {
            sum[0] += f[0];
            sum[1] += f[1];
        });
        return sum;
    }

    /** Mean error of the diameters of good balls, part. */
    public double meanMiss() {
        return miss.stream().mapToDouble(d -> d).average().orElse(0);
    }

    public void add(Album.Page page) {
        photos++;
        try {
            compare(page, BeadCheck.of(page.picture(), map(page), judge));
        } catch (UnclearPhotoException e) {
            refused++;
            remarks.add(page.name() + " refused: " + e.why() + ", " + page.map().sites().size() + " sites");
        }
    }

    private void compare(Album.Page page, BeadReport report) {
        int falseBefore = falseSites + straysFalse;
        int missedBefore = faults()[1] - faults()[0];
        boolean bad = false;
        for (Album.Line line : page.lines()) {
            if (line.stray()) {
                strays++;
                bad = true;
                straysFound += report.strays().stream().anyMatch(
                        s -> Math.hypot(s.xPx() - line.xPx(), s.yPx() - line.yPx()) < line.rPx() + 4) ? 1 : 0;
                continue;
            }
            BeadReport.Seen seen = report.sites().stream().min(Comparator.comparingDouble(
                    s -> Math.hypot(s.xPx() - place(line)[0], s.yPx() - place(line)[1]))).orElseThrow();
            sites++;
            if (line.between()) {
                continue;
            }
            unknown += seen.state() == BeadState.UNKNOWN ? 1 : 0;
            boolean told = seen.state() != BeadState.OK && seen.state() != BeadState.UNKNOWN;
            if (line.state() == BeadState.OK) {
                falseSites += told ? 1 : 0;
                if (told) {
                    remarks.add(page.name() + " " + line.site() + " is good, told " + seen.state());
                }
                size(line, seen);
            } else {
                bad = true;
                int[] count = found.computeIfAbsent(line.state(), k -> new int[2]);
                count[0] += told ? 1 : 0;
                count[1]++;
                rightKind += seen.state() == line.state() ? 1 : 0;
                if (!told) {
                    remarks.add(page.name() + " " + line.site() + " is " + line.state() + ", told "
                            + seen.state());
                }
            }
        }
        for (BeadReport.Stray s : report.strays()) {
            boolean there = page.lines().stream().anyMatch(l -> l.stray()
                    && Math.hypot(s.xPx() - l.xPx(), s.yPx() - l.yPx()) < l.rPx() + 4);
            straysFalse += there ? 0 : 1;
        }
        boolean nothingFalse = falseSites + straysFalse == falseBefore;
        clean += nothingFalse && faults()[1] - faults()[0] == missedBefore ? 1 : 0;
        good += bad ? 0 : 1;
        goodClean += !bad && nothingFalse ? 1 : 0;
    }

    private static double[] place(Album.Line line) {
        return line.rPx() > 0
                ? new double[]{line.xPx(), line.yPx()}
                : new double[]{line.siteXPx(), line.siteYPx()};
    }

    private void size(Album.Line line, BeadReport.Seen seen) {
        if (seen.state() == BeadState.OK && seen.diameterMm().isPresent()) {
            double truth = line.ballMm();
            double off = seen.diameterMm().get() / truth - 1;
            miss.add(Math.abs(off));
            inside += Math.abs(off * truth) < seen.diameterSdMm() ? 1 : 0;
        }
    }

    public String table() {
        double[] sorted = miss.stream().mapToDouble(d -> d).sorted().toArray();
        var kinds = new StringBuilder();
        found.forEach((state, c) -> kinds.append(String.format(Locale.ROOT, " %s %d/%d", state, c[0], c[1])));
        int[] all = faults();
        return String.format(Locale.ROOT,
                "%d photos, %d refused; faults found %d of %d, %d named right;%s%nfalse sites %d of %d, unknown %d; strays %d of %d, false %d%nphotos without a wrong word %d of %d, good chips %d of %d; diameter off mean %.2f %%, p95 %.2f %%, inside one sigma %.0f %%",
                photos, refused, all[0], all[1], rightKind, kinds, falseSites, sites, unknown, straysFound,
                strays, straysFalse, clean, photos - refused, goodClean, good, 100 * meanMiss(),
                sorted.length == 0 ? 0 : 100 * sorted[(int) (0.95 * sorted.length)],
                100.0 * inside / Math.max(1, sorted.length));
    }
}
