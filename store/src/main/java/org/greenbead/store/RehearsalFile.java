package org.greenbead.store;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Shield;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Heating;
import org.greenbead.core.thermal.Support;

/**
 * A complete heating in engineering units, {@code greenbead/rehearsal/1}, as docs/formats/rehearsal.schema.json describes it.
 */
public record RehearsalFile(String name, String title, @JsonProperty("ambient_C") double ambientC,
        double durationS, Double outputStepS, BoardPart board,
        List<PackagePart> packages, Preheater preheater, Air air, List<Fan> fan, List<ShieldPart> shields,
        SupportPart support, List<Probe> probes) {
    /** The bare board. */
    public record BoardPart(double[] sizeMm, double thicknessMm, Copper copper, Double kInplane,
            @JsonProperty("rho_c_MJ") Double rhoCMj, double kThrough,
            Double emissivity, Double beta) {}

    /** Copper of the board. */
    public record Copper(int layers, double um, double coverage) {}

    /** A package. */
    public record PackagePart(String name, String side, String role, double[] centerMm, double[] sizeMm,
            List<LayerPart> layers) {}

    /** A layer of a package. */
    public record LayerPart(String type, double tMm, Double pitchMm, Double ballMm, String alloy,
            Boolean underfill, Double coverage, double[] dieMm,
            String around) {}

    /** The heater below. */
    public record Preheater(String type, double[] centerMm, double[] sizeMm, Double gapMm, Double emissivity,
            Double hGap, Double hContact,
            Double tauHeatS, Double tauCoolS, @JsonProperty("T0_C") Double t0C, double[][] setpoints) {}

    /** The hot air. */
    public record Air(double nozzleMm, double[] centerMm, List<Segment> segments,
            @JsonProperty("UA") Double ua, Double tauS, Double hMult) {}

    /** A time with hot air. */
    public record Segment(double t0, double t1, @JsonProperty("set_C") double setC,
            @JsonProperty("flow_Lmin") double flowLmin, double distMm, String path,
            Double radiusMm, Double periodS) {}

    /** A fan. */
    public record Fan(double t0, double t1, double hTop, double hBottom) {}

    /** Foil on the top side. */
    public record ShieldPart(double[] rectMm, double gapMm, double emissivity) {}

    /** What a bare chip stands on. */
    public record SupportPart(String under, double hContact, @JsonProperty("C_JK") double capacityJk,
            @JsonProperty("UA") double ua, @JsonProperty("T_env_C") Double envC,
            @JsonProperty("T0_C") Double t0C) {}

    /** A thermocouple. */
    public record Probe(String name, String side, double[] atMm) {}

    /** @throws IllegalArgumentException for a set-up that contradicts itself */
    public Heating heating() {
        List<PackagePart> targets = packages.stream().filter(p -> "target".equals(p.role())).toList();
        if (targets.size() != 1) {
            throw new IllegalArgumentException(
                    "there are " + targets.size() + " packages with role target; exactly one is needed");
        }
        PackagePart target = targets.getFirst();
        var chips = packages.stream().map(RehearsalFile::chip).toList();
        Copper copper = board.copper() != null ? board.copper() : new Copper(1, 35, 0.5);
        var plain = new Board(name, title == null ? name : title, point(board.sizeMm()), board.thicknessMm(),
                copper.layers(), copper.um(), copper.coverage(),
                board.kThrough(), chips, List.of());
        Optional<HeatScene.Laminate> laminate = board.kInplane() == null || board.rhoCMj() == null
                ? Optional.empty()
                : Optional.of(new HeatScene.Laminate(board.kInplane(), board.rhoCMj() * 1e6));
        if (laminate.isEmpty() && board.copper() == null) {
            throw new IllegalArgumentException(
                    "the board needs either copper or both k_inplane and rho_c_MJ");
        }
        var scene = new HeatScene(plain, target.name(), ambientC,
                Optional.ofNullable(preheater).map(RehearsalFile::heater),
                preheater == null ? point(target.centerMm()) : point(preheater.centerMm()),
                preheater == null || preheater.t0C() == null ? ambientC : preheater.t0C(), station(),
                probePlaces(target),
                or(board.emissivity(), 0.9), or(board.beta(), 1e-3), laminate,
                point(air == null ? target.centerMm() : air.centerMm()), foil(), block());
        return new Heating(name, title == null ? name : title, scene, durationS, or(outputStepS, 1),
                heaterSteps(), airSegments(), fans());
    }

    /**
     * The file of a heating.
     *
     * @throws IllegalArgumentException when its air changes nozzles, which the format cannot say
     */
    public static RehearsalFile of(Heating heating) {
        HeatScene scene = heating.scene();
        Board b = scene.board();
        HeatScene.Laminate made = scene.laminate().orElse(null);
        var boardPart = new BoardPart(pair(b.sizeMm()), b.thicknessMm(),
                made == null ? new Copper(b.copperLayers(), b.copperUm(), b.copperCoverage()) : null,
                made == null ? null : made.kInPlaneWPerMK(), made == null ? null : made.heatJPerM3K() / 1e6,
                b.kThroughWPerMK(), scene.emissivity(), scene.boardBeta());
        List<PackagePart> parts = b.chips().stream()
                .map(c -> new PackagePart(c.name(), word(c.side()),
                        c.name().equals(scene.target()) ? "target" : "neighbour", pair(c.centreMm()),
                        pair(c.sizeMm()),
                        c.layers().stream().map(RehearsalFile::part).toList()))
                .toList();
        return new RehearsalFile(heating.name(), heating.title(), scene.ambientC(), heating.durationS(),
                heating.outputStepS(), boardPart, parts,
                scene.heater().map(h -> plate(h, scene, heating)).orElse(null), blown(heating),
                heating.fanSegments().isEmpty()
                        ? null
                        : heating.fanSegments().stream()
                                .map(f -> new Fan(f.t0S(), f.t1S(), f.topWPerM2K(), f.bottomWPerM2K()))
                                .toList(),
                scene.shields().isEmpty()
                        ? null
                        : scene.shields().stream()
                                .map(s -> new ShieldPart(
                                        new double[]{s.fromMm().xMm(), s.fromMm().yMm(), s.toMm().xMm(),
                                                s.toMm().yMm()},
                                        s.gapMm(), s.emissivity()))
                                .toList(),
                scene.support()
                        .map(s -> new SupportPart(s.chip(), s.contactWPerM2K(), s.capacityJPerK(),
                                s.lossWPerK(),
                                s.surroundingsC(), s.startC()))
                        .orElse(null),
                scene.probes().stream().map(p -> new Probe(p.name(), word(p.side()), pair(p.atMm())))
                        .toList());
    }

    private static Preheater plate(BottomHeater h, HeatScene scene, Heating heating) {
        return new Preheater(h.contact() ? "contact" : "ir", pair(scene.heaterCentre()), pair(h.sizeMm()),
                h.contact() ? null : h.gapMm(), h.emissivity(), h.contact() ? null : h.gapHWPerM2K(),
                h.contact() ? h.gapHWPerM2K() : null, h.tauHeatS(), h.tauCoolS(), scene.heaterStartC(),
                heating.heaterSteps().stream().map(s -> new double[]{s.fromS(), s.setC()})
                        .toArray(double[][]::new));
    }

    private static Air blown(Heating heating) {
        if (heating.airSegments().isEmpty()) {
            return null;
        }
        List<Double> nozzles = heating.airSegments().stream().map(s -> s.air().nozzleMm()).distinct()
                .toList();
        if (nozzles.size() > 1) {
            throw new IllegalArgumentException("the air changes nozzles (" + nozzles
                    + " mm), which a rehearsal file cannot say; write one file for each");
        }
        AirStation station = heating.scene().air();
        return new Air(nozzles.getFirst(), pair(heating.scene().airCentre()),
                heating.airSegments().stream()
                        .map(s -> new Segment(s.t0S(), s.t1S(), s.air().setC(), s.air().flowLpm(),
                                s.air().distanceMm(),
                                s.air().circleMm() > 0 ? "swirl" : "fixed",
                                s.air().circleMm() > 0 ? s.air().circleMm() : null, null))
                        .toList(),
                station.lossWPerK(), station.tauS(), station.multiplier());
    }

    private static LayerPart part(Layer layer) {
        return switch (layer) {
            case Layer.Joint j ->
                new LayerPart("joint", j.thicknessMm(), j.pitchMm(), j.ballMm(), j.alloy().name(),
                        j.underfilled(), j.coverage(), null, null);
            case Layer.Die d ->
                new LayerPart("die", d.thicknessMm(), null, null, null, null, null, pair(d.dieMm()),
                        d.inVoid() ? "void" : "mold");
            case Layer.Plain p ->
                new LayerPart(p.material().name().toLowerCase(java.util.Locale.ROOT), p.thicknessMm(),
                        null, null, null, null, null, null, null);
        };
    }

    private static double[] pair(Point p) {
        return new double[]{p.xMm(), p.yMm()};
    }

    private static String word(Side side) {
        return side == Side.BOTTOM ? "bottom" : "top";
    }

    private List<Heating.HeaterStep> heaterSteps() {
        var steps = new ArrayList<Heating.HeaterStep>();
        if (preheater != null && preheater.setpoints() != null) {
            for (double[] step : preheater.setpoints()) {
                steps.add(new Heating.HeaterStep(step[0], step[1]));
            }
        }
        return steps;
    }

    private List<Heating.AirSegment> airSegments() {
        if (air == null) {
            return List.of();
        }
        return air.segments().stream().map(s -> new Heating.AirSegment(s.t0(), s.t1(),
                new AirSetting(s.setC(), s.flowLmin(), air.nozzleMm(), s.distMm(),
                        "swirl".equals(s.path()) ? or(s.radiusMm(), 0) : 0)))
                .toList();
    }

    private List<Shield> foil() {
        return shields == null
                ? List.of()
                : shields.stream().map(s -> new Shield(new Point(s.rectMm()[0], s.rectMm()[1]),
                        new Point(s.rectMm()[2], s.rectMm()[3]), s.gapMm(), s.emissivity())).toList();
    }

    private Optional<Support> block() {
        return Optional.ofNullable(support).map(s -> {
            double around = or(s.envC(), ambientC);
            return new Support(s.under(), s.hContact(), s.capacityJk(), s.ua(), around,
                    or(s.t0C(), around));
        });
    }

    private List<Heating.FanSegment> fans() {
        return fan == null
                ? List.of()
                : fan.stream().map(f -> new Heating.FanSegment(f.t0(), f.t1(), f.hTop(), f.hBottom()))
                        .toList();
    }

    private AirStation station() {
        return air == null
                ? new AirStation("none", List.of(10.0), 500, 100, 0.05, 6, 1)
                : new AirStation("air", List.of(air.nozzleMm()), 600, 300, or(air.ua(), 0.05),
                        or(air.tauS(), 6), or(air.hMult(), 1));
    }

    private static BottomHeater heater(Preheater p) {
        boolean contact = "contact".equals(p.type());
        return new BottomHeater("preheater", contact, point(p.sizeMm()), contact ? 10 : or(p.gapMm(), 10),
                or(p.emissivity(), 0.9),
                contact ? or(p.hContact(), 300) : or(p.hGap(), 6), or(p.tauHeatS(), 60),
                or(p.tauCoolS(), 250), 600, 1);
    }

    /** Two places where the file names none: on top 10 mm beside the chip, and under its middle. */
    private List<ProbePlace> probePlaces(PackagePart target) {
        if (probes == null) {
            var beside = new Point(target.centerMm()[0] + target.sizeMm()[0] / 2 + 10, target.centerMm()[1]);
            return List.of(new ProbePlace("board_top_10mm", ProbePlace.Role.BOARD, 1, Side.TOP, beside),
                    new ProbePlace("board_bottom", ProbePlace.Role.BOARD, 2, Side.BOTTOM,
                            point(target.centerMm())));
        }
        var places = new ArrayList<ProbePlace>();
        for (Probe probe : probes) {
            places.add(new ProbePlace(probe.name(), ProbePlace.Role.BOARD, places.size() + 1,
                    side(probe.side()), point(probe.atMm())));
        }
        return places;
    }

    private static Chip chip(PackagePart p) {
        return new Chip(p.name(), p.name(), side(p.side()), point(p.centerMm()), point(p.sizeMm()),
                p.layers().stream().map(l -> layer(l, p.sizeMm())).toList(), 300,
                0, 3, 1e6, 0);
    }

    private static Layer layer(LayerPart l, double[] packageMm) {
        return switch (l.type()) {
            case "joint" -> new Layer.Joint(l.tMm(), l.pitchMm(), l.ballMm(), Alloys.require(l.alloy()),
                    Boolean.TRUE.equals(l.underfill()), or(l.coverage(), 1));
            case "die" -> new Layer.Die(l.tMm(), point(l.dieMm() == null ? packageMm : l.dieMm()),
                    "void".equals(l.around()));
            default ->
                new Layer.Plain(Layer.Material.valueOf(l.type().toUpperCase(java.util.Locale.ROOT)), l.tMm());
        };
    }

    private static Side side(String word) {
        return "bottom".equals(word) ? Side.BOTTOM : Side.TOP;
    }

    private static Point point(double[] xy) {
        return new Point(xy[0], xy[1]);
    }

    private static double or(Double value, double usual) {
        return value == null ? usual : value;
    }
}
