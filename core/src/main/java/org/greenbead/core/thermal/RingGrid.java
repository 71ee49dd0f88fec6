package org.greenbead.core.thermal;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;

/**
 * The board as rings around the target chip, each {@value #SHEETS} sheets thick, with package stacks on them: cells, the
 * conductances between them and their outer faces. Made once for a scene; immutable afterwards. Lengths in m inside.
 */
final class RingGrid {
    static final int SHEETS = 3;
    static final int CHIP_RINGS = 3;
    private static final int ANGLES = 360;
    private static final double MM = 1e-3;

    /** Conductance between two cells, W/K. */
    record Link(int a, int b, double wPerK) {}

    /** What an outer face looks at. */
    enum Facing {
        UP, DOWN, SIDEWAYS
    }

    /**
     * @param rHalfM2KPerW from the cell's middle to the face
     * @param ring         whose jet and view factor hold here
     * @param jetted       false where no hot air comes
     */
    record Face(int cell, double areaM2, double rHalfM2KPerW, double emissivity, Facing facing, int ring,
            boolean jetted) {}

    /** The cells of one package: its joint cells, its outermost cells and the share of each. */
    record Stack(int[] joints, int[] tops, double[] shares) {}

    final double[] midMm;
    final double[] edgeMm;
    final double[] ringAreaM2;
    final double[] viewFactor;
    final List<Enthalpy> cells = new ArrayList<>();
    final List<Link> links = new ArrayList<>();
    final List<Face> faces = new ArrayList<>();
    final Map<String, Stack> stacks = new HashMap<>();
    final double meanSideM;
    private final HeatScene scene;
    private final Multipliers multipliers;
    private final double[] boundaryMm = new double[ANGLES];
    private final int[][] sheetCell;

    RingGrid(HeatScene scene, Multipliers multipliers) {
        this.scene = scene;
        this.multipliers = multipliers;
        Board board = scene.board();
        Chip target = scene.targetChip();
        meanSideM = (board.sizeMm().xMm() + board.sizeMm().yMm()) / 2 * MM;
        measureBoundary(board, target.centreMm());
        edgeMm = edges(Math.sqrt(target.sizeMm().areaMm2() / Math.PI),
                Arrays.stream(boundaryMm).max().orElseThrow());
        int rings = edgeMm.length - 1;
        midMm = new double[rings];
        ringAreaM2 = new double[rings];
        viewFactor = new double[rings];
        sheetCell = new int[rings][SHEETS];
        for (int ring = 0; ring < rings; ring++) {
            midMm[ring] = (edgeMm[ring] + edgeMm[ring + 1]) / 2;
            ringAreaM2[ring] = (areaWithinMm2(edgeMm[ring + 1]) - areaWithinMm2(edgeMm[ring])) * MM * MM;
            viewFactor[ring] = meanViewFactor(target.centreMm(), midMm[ring]);
        }
        double[][] covered = new double[2][rings];
        for (Chip chip : board.chips()) {
            if (!chip.name().equals(target.name())) {
                double[] share = shares(chip, target.centreMm());
                for (int ring = 0; ring < rings; ring++) {
                    covered[chip.side().ordinal()][ring] += share[ring] * chip.sizeMm().areaMm2() * MM * MM;
                }
            }
        }
        buildBoard(covered);
        buildTarget(target);
        for (Chip chip : board.chips()) {
            if (!chip.name().equals(target.name())) {
                buildNeighbour(chip, shares(chip, target.centreMm()));
            }
        }
    }

    /** For each row of the system the first column it reaches. */
    int[] envelope() {
        int[] first = new int[cells.size()];
        Arrays.setAll(first, i -> i);
        for (Link link : links) {
            int row = Math.max(link.a(), link.b());
            first[row] = Math.min(first[row], Math.min(link.a(), link.b()));
        }
        return first;
    }

    int sheetCell(int ring, Side side) {
        return sheetCell[ring][side == Side.TOP ? SHEETS - 1 : 0];
    }

    /** Ring whose middle is at or inside {@code radiusMm}, for interpolation; never the last. */
    int ringBelow(double radiusMm) {
        int ring = 0;
        while (ring < midMm.length - 2 && midMm[ring + 1] <= radiusMm) {
            ring++;
        }
        return ring;
    }

    private static double[] edges(double chipRadius, double outermost) {
        var edges = new ArrayList<>(List.of(0.0, 0.5 * chipRadius, 0.8 * chipRadius, chipRadius));
        double width = Math.max(1.2, 0.2 * chipRadius);
        double at = chipRadius;
        while (at + 1.4 * width < outermost) {
            at += width;
            edges.add(at);
            width *= 1.45;
        }
        edges.add(outermost + 1e-6);
        return edges.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private void measureBoundary(Board board, Point centre) {
        for (int i = 0; i < ANGLES; i++) {
            double angle = 2 * Math.PI * (i + 0.5) / ANGLES;
            double cos = Math.cos(angle);
            double sin = Math.sin(angle);
            double alongX = cos > 0 ? (board.sizeMm().xMm() - centre.xMm()) / cos : -centre.xMm() / cos;
            double alongY = sin > 0 ? (board.sizeMm().yMm() - centre.yMm()) / sin : -centre.yMm() / sin;
            boundaryMm[i] = Math.min(alongX, alongY);
        }
    }

    private double areaWithinMm2(double radiusMm) {
        double area = 0;
        for (double boundary : boundaryMm) {
            double reach = Math.min(radiusMm, boundary);
            area += reach * reach * Math.PI / ANGLES;
        }
        return area;
    }

    private double arcMm(double radiusMm) {
        return radiusMm * 2 * Math.PI / ANGLES * Arrays.stream(boundaryMm).filter(b -> b > radiusMm).count();
    }

    private double meanViewFactor(Point centre, double radiusMm) {
        if (scene.heater().isEmpty()) {
            return 0;
        }
        var heater = scene.heater().get();
        double sum = 0;
        int count = 0;
        for (int i = 0; i < ANGLES; i += 10) {
            double angle = 2 * Math.PI * (i + 0.5) / ANGLES;
            if (boundaryMm[i] >= radiusMm) {
                double x = centre.xMm() + radiusMm * Math.cos(angle) - scene.heaterCentre().xMm();
                double y = centre.yMm() + radiusMm * Math.sin(angle) - scene.heaterCentre().yMm();
                sum += heater.contact()
                        ? Math.abs(x) <= heater.sizeMm().xMm() / 2 && Math.abs(y) <= heater.sizeMm().yMm() / 2
                                ? 1
                                : 0
                        : ViewFactor.ofRectangle(x, y, heater.sizeMm().xMm(), heater.sizeMm().yMm(),
                                heater.gapMm());
                count++;
            }
        }
        return count == 0 ? 0 : sum / count;
    }

    /** How a chip's footprint is spread over the rings; sums to 1. */
    private double[] shares(Chip chip, Point centre) {
        double[] share = new double[midMm.length];
        int n = 16;
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                double x = chip.centreMm().xMm() + chip.sizeMm().xMm() * ((i + 0.5) / n - 0.5) - centre.xMm();
                double y = chip.centreMm().yMm() + chip.sizeMm().yMm() * ((j + 0.5) / n - 0.5) - centre.yMm();
                double radius = Math.hypot(x, y);
                int ring = 0;
                while (ring < midMm.length - 1 && edgeMm[ring + 1] <= radius) {
                    ring++;
                }
                share[ring] += 1.0 / (n * n);
            }
        }
        return share;
    }

    private void buildBoard(double[][] covered) {
        Board board = scene.board();
        HeatScene.Laminate material = scene.boardMaterial();
        double sheetM = board.thicknessMm() * MM / SHEETS;
        double heat = material.heatJPerM3K() * multipliers.boardHeat();
        double k = material.kInPlaneWPerMK() * multipliers.boardConductivity();
        double rHalf = sheetM / 2 / board.kThroughWPerMK();
        for (int ring = 0; ring < midMm.length; ring++) {
            for (int sheet = 0; sheet < SHEETS; sheet++) {
                sheetCell[ring][sheet] = cell(
                        Enthalpy.solid(heat * sheetM * ringAreaM2[ring], scene.boardBeta()));
                if (sheet > 0) {
                    link(sheetCell[ring][sheet - 1], sheetCell[ring][sheet],
                            ringAreaM2[ring] * board.kThroughWPerMK() / sheetM);
                }
                if (ring > 0) {
                    double apartMm = midMm[ring] - midMm[ring - 1];
                    link(sheetCell[ring - 1][sheet], sheetCell[ring][sheet],
                            k * sheetM * arcMm(edgeMm[ring]) / apartMm);
                }
            }
            double top = ring < CHIP_RINGS ? 0 : ringAreaM2[ring] - covered[Side.TOP.ordinal()][ring];
            face(sheetCell[ring][SHEETS - 1], top, rHalf, scene.emissivity(), Facing.UP, ring, true);
            double bottom = ringAreaM2[ring] - covered[Side.BOTTOM.ordinal()][ring];
            face(sheetCell[ring][0], bottom, rHalf, scene.emissivity(), Facing.DOWN, ring, false);
        }
        double rimM2 = (board.sizeMm().xMm() + board.sizeMm().yMm()) * 2 * MM * sheetM;
        for (int sheet = 0; sheet < SHEETS; sheet++) {
            face(sheetCell[midMm.length - 1][sheet], rimM2, 0, scene.emissivity(), Facing.SIDEWAYS,
                    midMm.length - 1, false);
        }
    }

    private void buildTarget(Chip chip) {
        double dieRadius = chip.layers().stream().filter(Layer.Die.class::isInstance)
                .map(Layer.Die.class::cast)
                .mapToDouble(d -> Math.sqrt(d.dieMm().areaMm2() / Math.PI)).findFirst().orElse(0);
        int[] below = new int[CHIP_RINGS];
        double[] kBelow = new double[CHIP_RINGS];
        double tBelow = scene.board().thicknessMm() * MM / SHEETS;
        for (int ring = 0; ring < CHIP_RINGS; ring++) {
            below[ring] = sheetCell[ring][SHEETS - 1];
            kBelow[ring] = scene.board().kThroughWPerMK();
        }
        int[] joints = new int[CHIP_RINGS];
        double perimeterM = 2 * (chip.sizeMm().xMm() + chip.sizeMm().yMm()) * MM;
        for (Layer layer : chip.layers()) {
            double t = layer.thicknessMm() * MM;
            int[] here = new int[CHIP_RINGS];
            LayerMaterial[] stuff = new LayerMaterial[CHIP_RINGS];
            for (int ring = 0; ring < CHIP_RINGS; ring++) {
                double dieShare = Math.clamp((dieRadius * dieRadius - edgeMm[ring] * edgeMm[ring])
                        / (edgeMm[ring + 1] * edgeMm[ring + 1] - edgeMm[ring] * edgeMm[ring]), 0, 1);
                stuff[ring] = LayerMaterial.of(layer, dieShare);
                here[ring] = cell(stuff[ring].cell(t * ringAreaM2[ring]));
                link(below[ring], here[ring],
                        ringAreaM2[ring] / (tBelow / 2 / kBelow[ring] + t / 2 / stuff[ring].kz()));
                if (ring > 0) {
                    double r = edgeMm[ring];
                    double resistance = (r - midMm[ring - 1]) / stuff[ring - 1].kxy()
                            + (midMm[ring] - r) / stuff[ring].kxy();
                    link(here[ring - 1], here[ring], 2 * Math.PI * r * t / resistance);
                }
                kBelow[ring] = stuff[ring].kz();
            }
            int rim = CHIP_RINGS - 1;
            if (!(layer instanceof Layer.Joint)) {
                double half = (edgeMm[rim + 1] - midMm[rim]) * MM / stuff[rim].kxy();
                face(here[rim], perimeterM * t, half, scene.emissivity(), Facing.SIDEWAYS, rim, true);
            } else {
                joints = here.clone();
            }
            below = here;
            tBelow = t;
        }
        double[] shares = new double[CHIP_RINGS];
        double total = ringAreaM2[0] + ringAreaM2[1] + ringAreaM2[2];
        for (int ring = 0; ring < CHIP_RINGS; ring++) {
            LayerMaterial top = LayerMaterial.of(chip.layers().getLast(), 1);
            face(below[ring], ringAreaM2[ring], tBelow / 2 / kBelow[ring], top.emissivity(scene.emissivity()),
                    Facing.UP, ring, true);
            shares[ring] = ringAreaM2[ring] / total;
        }
        stacks.put(chip.name(), new Stack(joints, below, shares));
    }

    private void buildNeighbour(Chip chip, double[] share) {
        double area = chip.sizeMm().areaMm2() * MM * MM;
        double dieShare = chip.layers().stream().filter(Layer.Die.class::isInstance)
                .map(Layer.Die.class::cast)
                .mapToDouble(d -> Math.min(1, d.dieMm().areaMm2() / chip.sizeMm().areaMm2())).findFirst()
                .orElse(0);
        boolean top = chip.side() == Side.TOP;
        double perimeterM = 2 * (chip.sizeMm().xMm() + chip.sizeMm().yMm()) * MM;
        int mainRing = 0;
        for (int ring = 0; ring < share.length; ring++) {
            mainRing = share[ring] > share[mainRing] ? ring : mainRing;
        }
        int below = -1;
        int joint = -1;
        double tBelow = scene.board().thicknessMm() * MM / SHEETS;
        double kBelow = scene.board().kThroughWPerMK();
        for (Layer layer : chip.layers()) {
            double t = layer.thicknessMm() * MM;
            LayerMaterial stuff = LayerMaterial.of(layer, dieShare);
            int here = cell(stuff.cell(t * area));
            double conductance = area / (tBelow / 2 / kBelow + t / 2 / stuff.kz());
            if (below < 0) {
                joint = here;
                for (int ring = 0; ring < share.length; ring++) {
                    if (share[ring] > 0) {
                        link(sheetCell(ring, chip.side()), here, conductance * share[ring]);
                    }
                }
            } else {
                link(below, here, conductance);
                face(here, perimeterM * t, 0, scene.emissivity(), Facing.SIDEWAYS, mainRing, top);
            }
            below = here;
            tBelow = t;
            kBelow = stuff.kz();
        }
        LayerMaterial outer = LayerMaterial.of(chip.layers().getLast(), 1);
        for (int ring = 0; ring < share.length; ring++) {
            face(below, area * share[ring], tBelow / 2 / kBelow, outer.emissivity(scene.emissivity()),
                    top ? Facing.UP : Facing.DOWN, ring, top);
        }
        stacks.put(chip.name(), new Stack(new int[]{joint}, new int[]{below}, new double[]{1}));
    }

    private int cell(Enthalpy content) {
        cells.add(content);
        return cells.size() - 1;
    }

    private void link(int a, int b, double wPerK) {
        links.add(new Link(a, b, wPerK));
    }

    private void face(int cell, double areaM2, double rHalf, double emissivity, Facing facing, int ring,
            boolean jetted) {
        if (areaM2 > 0) {
            faces.add(new Face(cell, areaM2, rHalf, emissivity, facing, ring, jetted));
        }
    }
}
