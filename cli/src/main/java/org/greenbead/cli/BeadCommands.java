package org.greenbead.cli;

import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.alloy.Composition;
import org.greenbead.core.alloy.MeltingTable;
import org.greenbead.core.bead.Aperture;
import org.greenbead.core.bead.Balls;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Collapse;
import org.greenbead.core.bead.EdgeGap;
import org.greenbead.core.bead.FieldGrid;
import org.greenbead.core.bead.GapMap;
import org.greenbead.core.bead.Paste;
import org.greenbead.core.bead.PullIn;
import org.greenbead.core.bead.Site;
import org.greenbead.core.bead.Spread;
import org.greenbead.core.bead.StencilDesign;
import org.greenbead.core.bead.UnderLoad;
import org.greenbead.core.board.Point;
import org.greenbead.core.inspect.MapProposal;
import org.greenbead.core.inspect.UnclearPhotoException;
import org.greenbead.core.quantity.Check;
import org.greenbead.store.BeadMapCsv;
import org.greenbead.store.PictureFile;
import org.greenbead.store.StencilDrawing;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** From paste to ball to joint. */
final class BeadCommands {

    private BeadCommands() {
    }

    /** Balls out of an opening, or the opening for a ball. */
    @Command(name = "ball", mixinStandardHelpOptions = true, description = "The ball that an opening makes (--opening), or the opening that a ball wants (--wanted); exit 1 when it will not print well.")
    static final class Ball extends Verb {
        @Option(names = "--opening", description = "Diameter of a round opening or side of a square one, mm.")
        private Double openingMm;
        @Option(names = "--square", description = "The opening is square; with the radius of its corners, mm.", arity = "0..1", fallbackValue = "0")
        private Double radiusMm;
        @Option(names = "--wanted", description = "Diameter of the ball that is wanted, mm.")
        private Double wantedMm;
        @Option(names = "--thickness", required = true, description = "Of the stencil, mm.")
        private double thicknessMm;
        @Option(names = "--pitch", description = "Pitch, mm.")
        private Double pitchMm;
        @Option(names = "--alloy", defaultValue = "SAC305", description = "Alloy of the paste (default ${DEFAULT-VALUE}).")
        private String alloy;
        @Option(names = "--on", paramLabel = "MM", description = "The hole is filled again over a ball of this diameter that stands in it.")
        private Double onMm;
        @Option(names = "--metal", defaultValue = "88.5", description = "Metal by mass, %% (default ${DEFAULT-VALUE}).")
        private double metalPct;
        @Option(names = "--dried", defaultValue = "0", description = "Part of the flux that was blotted or has dried, 0 to 0.9.")
        private double dried;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            double metal = Paste.of(MeltingTable.standard().require(alloy).made(), metalPct, dried)
                    .metalVolumePart();
            if (openingMm == null == (wantedMm == null)) {
                throw new IllegalArgumentException("name either --opening or --wanted");
            }
            if (onMm != null && openingMm == null) {
                throw new IllegalArgumentException("--on says what a second fill makes; name the --opening");
            }
            Map<String, Object> result = new LinkedHashMap<>();
            result.put("metal_volume_part", metal);
            double ratio;
            double web;
            if (openingMm != null) {
                Aperture opening = radiusMm == null
                        ? new Aperture.Round(openingMm)
                        : new Aperture.Square(openingMm, radiusMm);
                ratio = opening.areaRatio(thicknessMm);
                double released = Balls.released(ratio);
                double ball = Balls.diameterMm(opening, thicknessMm, metal, released);
                if (onMm != null) {
                    ball = again(opening, metal * released);
                    result.put("on_mm", onMm);
                }
                web = pitchMm == null ? Double.NaN : pitchMm - openingMm;
                out().printf(Locale.ROOT,
                        "ball %.3f mm; %.0f %% of the paste is released, %.0f %% of it is metal%n", ball,
                        released * 100, metal * 100);
                result.put("ball_mm", ball);
                result.put("released_part", released);
            } else {
                // The release depends on the opening, the opening on the release: a few rounds settle it.
                double released = 0.9;
                Balls.Wanted wanted = null;
                for (int i = 0; i < 30; i++) {
                    wanted = Balls.openingFor(wantedMm, thicknessMm, metal, released,
                            pitchMm == null ? 0 : pitchMm);
                    released = Math.max(0.05, Balls.released(wanted.areaRatio()));
                }
                ratio = wanted.areaRatio();
                web = pitchMm == null ? Double.NaN : wanted.webMm();
                out().printf(Locale.ROOT, "round opening %.3f mm; %.0f %% of the paste is released%n",
                        wanted.diameterMm(),
                        released * 100);
                result.put("opening_mm", wanted.diameterMm());
                result.put("released_part", released);
            }
            out().printf(Locale.ROOT, "area ratio %.2f%s%n", ratio,
                    ratio < StencilDesign.GOOD_AREA_RATIO
                            ? ": too little, a thinner sheet or a larger hole"
                            : "");
            result.put("area_ratio", ratio);
            boolean thin = web < StencilDesign.LEAST_WEB_MM;
            if (!Double.isNaN(web)) {
                out().printf(Locale.ROOT, "web %.3f mm%s%n", web, thin ? ": too thin, prints join" : "");
                result.put("web_mm", web);
            }
            json(json, result);
            return ratio < StencilDesign.GOOD_AREA_RATIO || thin ? 1 : 0;
        }

        /** The hole filled once more over a ball that stands in it. */
        private double again(Aperture opening, double part) {
            Check.within("ball that stands", onMm, 0.05, opening.widthMm(), "mm");
            double free = Balls.freeMm3(opening, thicknessMm, onMm);
            out().printf(Locale.ROOT,
                    "over a ball of %.3f mm the hole takes %.4f mm³ of paste (%.0f %% of the empty one)%n",
                    onMm, free, 100 * free / opening.volumeMm3(thicknessMm));
            return Balls.filledAgainMm(onMm, Balls.diameterMm(free * part));
        }
    }

    /** The joint that a ball collapses to. */
    @Command(name = "joint", mixinStandardHelpOptions = true, description = "Height and bulge of a joint after collapse, and the gap to the next.")
    static final class Joint extends Verb {
        @Option(names = "--ball", required = true, description = "Diameter of the ball, mm.")
        private double ballMm;
        @Option(names = "--pads", required = true, split = ",", description = "Diameters of the two pads, mm: 0.38,0.40.")
        private double[] padsMm;
        @Option(names = "--pitch", description = "Pitch, mm.")
        private Double pitchMm;
        @Option(names = "--load", description = "What one joint carries, mg: the chip's mass over its balls.")
        private Double loadMg;
        @Option(names = "--tension", defaultValue = "0.55", description = "Surface tension, N/m: 0.55 lead-free, 0.48 tin-lead, 0.42 tin-bismuth (default ${DEFAULT-VALUE}).")
        private double tensionNPerM;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            if (padsMm.length != 2) {
                throw new IllegalArgumentException("--pads wants two diameters, such as 0.38,0.40");
            }
            Collapse joint = Collapse.of(Balls.sphereMm3(ballMm), padsMm[0] / 2, padsMm[1] / 2);
            out().printf(Locale.ROOT, "height %.3f mm, bulge %.3f mm%n", joint.heightMm(), joint.bulgeMm());
            if (pitchMm != null) {
                out().printf(Locale.ROOT, "gap to the next %.3f mm%n", joint.gapMm(pitchMm));
            }
            out().printf(Locale.ROOT, "bow over the field that it bridges %.3f mm%n",
                    UnderLoad.bridgesMm(ballMm, padsMm[0] / 2, joint));
            if (loadMg != null) {
                UnderLoad loaded = UnderLoad.of(Balls.sphereMm3(ballMm), padsMm[0] / 2, padsMm[1] / 2, loadMg,
                        tensionNPerM);
                out().println(loaded.loadedMm() > 0
                        ? String.format(Locale.ROOT, "under %.2f mg: height %.3f mm, bulge %.3f mm", loadMg,
                                loaded.loadedMm(),
                                loaded.bulgeMm())
                        : String.format(Locale.ROOT, "%.2f mg are too much: surface tension cannot carry it",
                                loadMg));
            }
            json(json, joint);
            return 0;
        }
    }

    /** Spheres for a field. */
    @Command(name = "spheres", mixinStandardHelpOptions = true, description = "Spheres to order for a field, and what they weigh.")
    static final class Spheres extends Verb {
        @Option(names = "--count", required = true, description = "Balls of the field.")
        private int count;
        @Option(names = "--diameter", required = true, description = "Of a sphere, mm.")
        private double diameterMm;
        @Option(names = "--alloy", defaultValue = "SAC305", description = "Alloy (default ${DEFAULT-VALUE}).")
        private String alloy;
        @Option(names = "--over", defaultValue = "8", description = "Overage, %% (default ${DEFAULT-VALUE}).")
        private double overPct;

        @Override
        public Integer call() {
            double one = Balls.massMg(diameterMm,
                    MeltingTable.standard().require(alloy).made().densityGPerCm3());
            int order = Balls.order(count, overPct);
            out().printf(Locale.ROOT,
                    "%d spheres, %.3f mg each: the field weighs %.1f mg, the order %.1f mg%n", order, one,
                    count * one, order * one);
            return 0;
        }
    }

    /** Bead maps. */
    @Command(name = "map", mixinStandardHelpOptions = true, description = "Says what a bead map holds; makes one (--new), mirrors it, or finds how a stencil fits it (--stencil; exit 1 when holes and sites do not match).")
    static final class MapCommand extends Verb {
        @Parameters(paramLabel = "MAP", description = "Bead map (site,x_mm,y_mm,diameter_mm,net,critical).")
        private Path file;
        @Option(names = "--new", paramLabel = "ROWSxCOLUMNS", description = "Make a full grid first, such as 17x17.")
        private String grid;
        @Option(names = "--photo", paramLabel = "PHOTO", description = "Make it from a photo of the balled field first; wants --pitch.")
        private Path photo;
        @Option(names = "--pitch", description = "Pitch of a new map, mm.")
        private Double pitchMm;
        @Option(names = "--diameter", description = "Ball of a new map, mm.")
        private Double ballMm;
        @Option(names = "--gap", paramLabel = "FROM:TO", description = "Leave out the sites of a rectangle, such as G7:L11; may be given several times.")
        private List<String> gaps = new ArrayList<>();
        @Option(names = "--second", paramLabel = "FIELD", description = "A second field of a new map: rows x columns, pitch, ball and the place of its middle, such as \"5x4 1.0 0.5 at 0 -6.5\"; its sites are B:A1 and so on.")
        private List<String> seconds = new ArrayList<>();
        @Option(names = "--mirror", paramLabel = "OUT", description = "Write it as seen from the other side.")
        private Path mirror;
        @Option(names = "--stencil", paramLabel = "OTHER", description = "A stencil, as a map.")
        private Path stencil;
        @Option(names = "--json", paramLabel = "OUT", description = "Write the fit as JSON.")
        private Path json;

        @Override
        public Integer call() throws Exception {
            if (grid != null) {
                write(file, BeadMapCsv.write(made()));
            }
            if (photo != null) {
                if (pitchMm == null) {
                    throw new IllegalArgumentException(
                            "--photo wants --pitch: a photo does not say how large it is");
                }
                write(file, BeadMapCsv.write(proposed()));
            }
            BeadMap map = BeadMapCsv.read(file);
            out().printf(Locale.ROOT, "%d sites, pitch %.3f mm, from %s to %s%n", map.sites().size(),
                    map.pitchMm(),
                    map.sites().getFirst().name(), map.sites().getLast().name());
            if (mirror != null) {
                write(mirror, BeadMapCsv.write(map.mirrored()));
            }
            if (stencil == null) {
                return 0;
            }
            BeadMap.Fit fit = map.fit(BeadMapCsv.read(stencil));
            out().printf(Locale.ROOT,
                    "turned by %d degrees clockwise: %d sites without a hole, %d holes without a site%n",
                    fit.degrees(), fit.unfilled().size(), fit.extra().size());
            if (!fit.whole()) {
                out().println("without a hole: "
                        + String.join(" ", fit.unfilled().stream().limit(20).toList()) + "; without a site: "
                        + String.join(" ", fit.extra().stream().limit(20).toList()));
            }
            json(json, fit);
            return fit.whole() ? 0 : 1;
        }

        private BeadMap proposed() throws Exception {
            var picture = PictureFile.read(photo);
            try {
                return MapProposal.of(picture, pitchMm);
            } catch (UnclearPhotoException e) {
                throw new IllegalArgumentException(photo.getFileName() + ": " + e.getMessage());
            }
        }

        private BeadMap made() {
            String[] size = grid.toLowerCase(Locale.ROOT).split("x");
            if (size.length != 2 || !size[0].matches("\\d{1,3}") || !size[1].matches("\\d{1,3}")
                    || pitchMm == null) {
                throw new IllegalArgumentException("a new map wants --new 17x17 and --pitch 0.65");
            }
            BeadMap map = BeadMap.grid(Integer.parseInt(size[0]), Integer.parseInt(size[1]), pitchMm,
                    Optional.ofNullable(ballMm));
            for (String gap : gaps) {
                String[] ends = gap.split(":");
                map = map.without(ends[0], ends[ends.length - 1]);
            }
            for (String second : seconds) {
                map = FieldGrid.of(map).with(second);
            }
            return map;
        }
    }

    /** A stencil for a map. */
    @Command(name = "stencil", mixinStandardHelpOptions = true, description = "Draws the stencil for a bead map as SVG and RS-274X; openings as given, or such that each makes the ball of its site.")
    static final class Stencil extends Verb {
        private static final double LEAST_OPENING_MM = 0.05;
        private static final double MOST_OPENING_MM = 5;
        @Parameters(paramLabel = "MAP", description = "Bead map.")
        private Path file;
        @Option(names = "--thickness", required = true, description = "Of the sheet, mm.")
        private double thicknessMm;
        @Option(names = "--opening", description = "Diameter of a round opening or side of a square one, mm; without it each is made for its ball.")
        private Double openingMm;
        @Option(names = "--square", description = "Openings are square; with the radius of their corners, mm.", arity = "0..1", fallbackValue = "0")
        private Double radiusMm;
        @Option(names = "--margin", defaultValue = "5", description = "Metal round the field, mm (default ${DEFAULT-VALUE}).")
        private double marginMm;
        @Option(names = "--alloy", defaultValue = "SAC305", description = "Alloy of the paste (default ${DEFAULT-VALUE}).")
        private String alloy;
        @Option(names = "--metal", defaultValue = "88.5", description = "Metal by mass, %% (default ${DEFAULT-VALUE}).")
        private double metalPct;
        @Option(names = "--svg", paramLabel = "OUT", description = "Write the drawing as SVG.")
        private Path svg;
        @Option(names = "--gerber", paramLabel = "OUT", description = "Write the paste layer as RS-274X.")
        private Path gerber;

        @Override
        public Integer call() throws Exception {
            BeadMap map = BeadMapCsv.read(file);
            Composition made = MeltingTable.standard().require(alloy).made();
            double metal = Paste.of(made, metalPct, 0).metalVolumePart();
            StencilDrawing drawing = StencilDrawing.of(map,
                    s -> shape(openingMm != null ? openingMm : wanted(s, metal, map)),
                    thicknessMm, marginMm);
            Aperture first = drawing.openings().get(map.sites().getFirst().name());
            double least = drawing.openings().values().stream().mapToDouble(o -> o.areaRatio(thicknessMm))
                    .min().orElse(0);
            double density = 100
                    / (metalPct / made.densityGPerCm3() + (100 - metalPct) / Paste.USUAL_FLUX_G_PER_CM3);
            out().printf(Locale.ROOT,
                    "%d openings, the first %.3f mm; smallest area ratio %.2f%s; one fill takes %.1f mm³, %.0f mg of paste%n",
                    map.sites().size(), first.widthMm(), least,
                    least < StencilDesign.GOOD_AREA_RATIO ? ", under 0.66: it will not release well" : "",
                    drawing.pasteMm3(), drawing.pasteMm3() * density);
            if (svg != null) {
                write(svg, drawing.svg());
            }
            if (gerber != null) {
                write(gerber, drawing.gerber(LocalDate.now(ZoneOffset.UTC)));
            }
            return least < StencilDesign.GOOD_AREA_RATIO ? 1 : 0;
        }

        private Aperture shape(double width) {
            return radiusMm == null ? new Aperture.Round(width) : new Aperture.Square(width, radiusMm);
        }

        private double wanted(Site site, double metal, BeadMap map) {
            double ball = site.diameterMm().orElseThrow(() -> new IllegalArgumentException(
                    "site " + site.name()
                            + " has no diameter; add diameter_mm to the map, or give --opening"));
            return Balls.widthMm(LEAST_OPENING_MM, MOST_OPENING_MM, width -> {
                Aperture tried = shape(width);
                return Balls.diameterMm(tried, thicknessMm, metal,
                        Balls.released(tried.areaRatio(thicknessMm)));
            }, ball);
        }
    }

    /** Whether a chip will centre itself. */
    @Command(name = "pullin", mixinStandardHelpOptions = true, description = "Whether surface tension centres a chip that lies beside its place; exit 1 when it has to be moved.")
    static final class Pull extends Verb {
        @Option(names = "--offset", required = true, split = ",", description = "Offset x,y, mm.")
        private double[] offsetMm;
        @Option(names = "--turn", defaultValue = "0", description = "Turn, degrees.")
        private double turnDeg;
        @Option(names = "--corner", required = true, description = "Distance of the farthest ball from the middle, mm.")
        private double cornerMm;
        @Option(names = "--pad", required = true, description = "Diameter of a pad, mm.")
        private double padMm;

        @Override
        public Integer call() {
            if (offsetMm.length != 2) {
                throw new IllegalArgumentException("--offset wants two numbers, such as 0.08,0.05");
            }
            PullIn pull = PullIn.of(offsetMm[0], offsetMm[1], turnDeg, cornerMm, padMm);
            out().printf(Locale.ROOT, "%.3f mm off at the corner, half a pad is %.3f mm: %s%n",
                    pull.cornerMm(), pull.allowedMm(),
                    pull.verdict().name().toLowerCase(Locale.ROOT).replace('_', ' '));
            return pull.verdict() == PullIn.Verdict.MOVE_IT ? 1 : 0;
        }
    }

    /** How evenly it sits. */
    @Command(name = "edges", mixinStandardHelpOptions = true, description = "Mean, range and tilt from the gaps at four edges; spread of ball diameters with --diameters.")
    static final class Edges extends Verb {
        @Option(names = "--gaps", split = ",", description = "North,east,south,west, mm.")
        private double[] gapsMm;
        @Option(names = "--length", defaultValue = "10", description = "Length of an edge, mm.")
        private double lengthMm;
        @Option(names = "--readings", split = ",", paramLabel = "EDGE:ALONG:MM:SD", description = "Readings all round, such as south:0.5:0.42:0.02; along from 0 at the left end seen from outside.")
        private List<String> readings;
        @Option(names = "--size", defaultValue = "10x10", description = "Width and depth of the chip for --readings, mm.")
        private String size;
        @Option(names = "--diameters", split = ",", description = "Diameters of balls, mm.")
        private double[] diametersMm;

        @Override
        public Integer call() {
            if (readings != null) {
                return round();
            }
            if (gapsMm == null && diametersMm == null || gapsMm != null && gapsMm.length != 4) {
                throw new IllegalArgumentException(
                        "name four --gaps, such as 0.42,0.45,0.47,0.43, --readings, or --diameters");
            }
            if (gapsMm != null) {
                EdgeGap gap = EdgeGap.of(gapsMm[0], gapsMm[1], gapsMm[2], gapsMm[3], lengthMm);
                out().printf(Locale.ROOT, "mean %.3f mm, range %.3f mm, tilt %.3f degrees%n", gap.meanMm(),
                        gap.rangeMm(), gap.tiltDeg());
            }
            if (diametersMm != null) {
                Spread spread = Spread.of(diametersMm);
                out().printf(Locale.ROOT, "%d balls, mean %.3f mm, spread %.1f %%, volumes %.0f %%%n",
                        spread.count(), spread.meanMm(),
                        spread.spreadPct(), spread.volumePct());
            }
            return 0;
        }

        /** Exit code 1 when the gap is not even. */
        private int round() {
            Point chip = Point.size(size);
            GapMap map = GapMap.of(readings.stream().map(Edges::reading).toList(), chip.xMm(), chip.yMm());
            out().printf(Locale.ROOT,
                    "mean %.3f mm, range %.3f +- %.3f mm, tilt %.3f degrees, lowest %s, off a plane %.3f mm%n",
                    map.gap().meanMm(), map.gap().rangeMm(), 2 * map.rangeSdMm(), map.tiltDeg(),
                    map.lowest().name().toLowerCase(Locale.ROOT), map.restMm());
            map.bowMm().entrySet().stream().sorted(java.util.Map.Entry.comparingByKey())
                    .forEach(b -> out().printf(Locale.ROOT, "bow of the %s edge %.3f mm%n",
                            b.getKey().name().toLowerCase(Locale.ROOT), b.getValue()));
            out().println(
                    shared().words().say("gap.verdict." + map.verdict().name().toLowerCase(Locale.ROOT)));
            return map.verdict() == GapMap.Verdict.UNEVEN ? 1 : 0;
        }

        private static GapMap.Reading reading(String text) {
            String[] part = text.strip().split(":");
            try {
                return new GapMap.Reading(GapMap.Edge.valueOf(part[0].toUpperCase(Locale.ROOT)),
                        Double.parseDouble(part[1]), Double.parseDouble(part[2]),
                        Double.parseDouble(part[3]));
            } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
                throw new IllegalArgumentException(
                        "\"" + text
                                + "\" is no reading; write edge, place, gap and its standard deviation, such as south:0.5:0.42:0.02",
                        e);
            }
        }
    }
}
