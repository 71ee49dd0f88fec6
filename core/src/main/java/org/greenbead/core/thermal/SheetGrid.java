package org.greenbead.core.thermal;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.Shield;

/**
 * A board and everything on it as sheets: columns over a rectangular grid, each column a stack of cells from the lowest layer
 * of a package on the underside, through the board's sheets, to the highest layer of a package on top. The cell over cell n is
 * n+1. Geometry, conductances and faces never change; a model adds the temperatures.
 */
final class SheetGrid {
    /** What a face looks at. */
    enum Facing {
        UP, DOWN, SIDEWAYS
    }

    /** What stands against a face apart from the room. */
    enum Against {
        ROOM, OPEN_PLATE, CONTACT_PLATE, SUPPORT
    }

    final double[] xMm;
    final double[] yMm;
    final double meanSideM;
    final int cells;
    final int columns;
    /** First cell of a column; one more entry than columns. */
    final int[] first;
    final double[] heatJPerK;
    final double[] betaPerK;
    final double[] latentJ;
    final double[] solidusC;
    final double[] liquidusC;
    /** W/K from a cell to the one over it, 0 at the top of a column. */
    final double[] upWPerK;
    final int[] linkA;
    final int[] linkB;
    final double[] linkWPerK;
    final int[] faceCell;
    final int[] faceColumn;
    final Facing[] facing;
    final Against[] against;
    final double[] areaM2;
    final double[] halfM2KPerW;
    final double[] coverM2KPerW;
    final double[] emissivity;
    /** Part of the face that sees the plate or touches it. */
    final double[] view;
    /** Part of the jet's coefficient that acts on the face. */
    final double[] jetShare;
    private final int sheets;
    private final int[] boardFirst;
    /** Face of the column's upper and lower end, by column; -1 where foil or a package is in the way never happens: every end has one. */
    private final int[] upperFace;
    private final int[] lowerFace;
    private final boolean[] coveredTop;
    private final boolean[] coveredBottom;
    /** Paper is thick and conducts badly: heat takes its time through it. It is the outermost layer wherever it is one. */
    private static final int PAPER_CELLS = 4;
    private final Map<String, Stack> stacks = new HashMap<>();

    /**
     * A package on the grid.
     *
     * @param joints for each joint layer from the board outwards its cells, row by row along x
     * @param tops   outer faces, row by row along x
     * @param shares of the footprint, row by row
     * @param packed all cells of a body that is heated through its balls, its outer face hidden; empty for any other
     */
    record Stack(int[][] joints, int[] tops, double[] shares, int[] packed, Spot.Places places) {}

    SheetGrid(HeatScene scene, Multipliers multipliers, Resolution resolution) {
        Board board = scene.board();
        double wide = board.sizeMm().xMm();
        double deep = board.sizeMm().yMm();
        double largest = Math.max(wide, deep) / resolution.boardShare();
        xMm = GridLines.of(wide, spans(scene, resolution, true), largest, resolution);
        yMm = GridLines.of(deep, spans(scene, resolution, false), largest, resolution);
        meanSideM = (wide + deep) / 2 / 1000;
        sheets = resolution.sheets();
        int nx = xMm.length - 1;
        int ny = yMm.length - 1;
        columns = nx * ny;
        first = new int[columns + 1];
        boardFirst = new int[columns];
        upperFace = new int[columns];
        lowerFace = new int[columns];
        coveredTop = new boolean[columns];
        coveredBottom = new boolean[columns];
        var build = new Builder(scene, multipliers, nx, ny);
        cells = build.cell.size();
        heatJPerK = new double[cells];
        betaPerK = new double[cells];
        latentJ = new double[cells];
        solidusC = new double[cells];
        liquidusC = new double[cells];
        upWPerK = new double[cells];
        for (int n = 0; n < cells; n++) {
            Cell cell = build.cell.get(n);
            double volume = cell.areaM2 * cell.thickM;
            heatJPerK[n] = cell.made.heat() * volume;
            betaPerK[n] = cell.made.beta();
            latentJ[n] = cell.made.latentJPerM3() * volume;
            solidusC[n] = cell.made.solidusC();
            liquidusC[n] = cell.made.liquidusC();
        }
        build.verticalLinks(upWPerK);
        build.lateralLinks();
        linkA = build.linkA.stream().mapToInt(Integer::intValue).toArray();
        linkB = build.linkB.stream().mapToInt(Integer::intValue).toArray();
        linkWPerK = build.linkG.stream().mapToDouble(Double::doubleValue).toArray();
        build.faces();
        int faces = build.face.size();
        faceCell = new int[faces];
        faceColumn = new int[faces];
        facing = new Facing[faces];
        against = new Against[faces];
        areaM2 = new double[faces];
        halfM2KPerW = new double[faces];
        coverM2KPerW = new double[faces];
        emissivity = new double[faces];
        view = new double[faces];
        jetShare = new double[faces];
        for (int f = 0; f < faces; f++) {
            Face face = build.face.get(f);
            faceCell[f] = face.cell;
            faceColumn[f] = face.column;
            facing[f] = face.facing;
            against[f] = face.against;
            areaM2[f] = face.areaM2;
            halfM2KPerW[f] = face.halfM2KPerW;
            coverM2KPerW[f] = face.coverM2KPerW;
            emissivity[f] = face.emissivity;
            view[f] = face.view;
            jetShare[f] = face.jetShare;
        }
        build.stacks();
    }

    private static List<GridLines.Span> spans(HeatScene scene, Resolution resolution, boolean alongX) {
        var spans = new ArrayList<GridLines.Span>();
        for (Chip chip : scene.board().chips()) {
            boolean target = chip.name().equals(scene.target());
            double middle = alongX ? chip.centreMm().xMm() : chip.centreMm().yMm();
            double size = alongX ? chip.sizeMm().xMm() : chip.sizeMm().yMm();
            spans.add(new GridLines.Span(middle - size / 2, middle + size / 2,
                    target ? resolution.targetCells() : resolution.neighbourCells(), target));
        }
        return spans;
    }

    int column(int ix, int iy) {
        return iy * (xMm.length - 1) + ix;
    }

    double middleX(int ix) {
        return (xMm[ix] + xMm[ix + 1]) / 2;
    }

    double middleY(int iy) {
        return (yMm[iy] + yMm[iy + 1]) / 2;
    }

    /** @throws IllegalArgumentException for an unknown name */
    Stack stack(String chip) {
        Stack stack = stacks.get(chip);
        if (stack == null) {
            throw new IllegalArgumentException("no chip \"" + chip + "\" on this board");
        }
        return stack;
    }

    /** The board's outermost sheet at a column. */
    int boardCell(int column, Side side) {
        return boardFirst[column] + (side == Side.TOP ? sheets - 1 : 0);
    }

    /** Outer face of a column, which is a package's where one sits there. */
    int outerFace(int column, Side side) {
        return side == Side.TOP ? upperFace[column] : lowerFace[column];
    }

    boolean covered(int column, Side side) {
        return side == Side.TOP ? coveredTop[column] : coveredBottom[column];
    }

    static int interval(double[] lines, double at) {
        int i = Arrays.binarySearch(lines, at);
        return Math.clamp(i >= 0 ? i : -i - 2, 0, lines.length - 2);
    }

    private static final class Cell {
        LayerMaterial made;
        double thickM;
        double areaM2;
        /** Part of the column's area that it fills; a bare die fills less than its cell. */
        double filled = 1;
        /** Package and layer, or -1 for the board; a lateral link joins equal ones only. */
        int owner;
        int layer;
        double usualEmissivity;
    }

    private record Face(int cell, int column, Facing facing, Against against, double areaM2,
            double halfM2KPerW,
            double coverM2KPerW, double emissivity, double view, double jetShare) {}

    /** Makes cells, links and faces; thrown away when the grid stands. */
    private final class Builder {
        private final HeatScene scene;
        private final int nx;
        private final int ny;
        private final List<Cell> cell = new ArrayList<>();
        private final List<Face> face = new ArrayList<>();
        private final List<Integer> linkA = new ArrayList<>();
        private final List<Integer> linkB = new ArrayList<>();
        private final List<Double> linkG = new ArrayList<>();
        private final int[] topChip;
        private final int[] bottomChip;
        private final double[] areaScale;

        Builder(HeatScene scene, Multipliers multipliers, int nx, int ny) {
            this.scene = scene;
            this.nx = nx;
            this.ny = ny;
            List<Chip> chips = scene.board().chips();
            topChip = new int[columns];
            bottomChip = new int[columns];
            areaScale = new double[chips.size()];
            Arrays.fill(topChip, -1);
            Arrays.fill(bottomChip, -1);
            place(chips);
            HeatScene.Laminate laminate = scene.boardMaterial();
            double kBoard = laminate.kInPlaneWPerMK() * multipliers.boardConductivity();
            var sheet = new LayerMaterial(kBoard, scene.board().kThroughWPerMK(),
                    laminate.heatJPerM3K() * multipliers.boardHeat(), scene.boardBeta(), 0, 0, 0, 0);
            for (int iy = 0; iy < ny; iy++) {
                for (int ix = 0; ix < nx; ix++) {
                    int col = column(ix, iy);
                    first[col] = cell.size();
                    double area = areaM2(ix, iy);
                    if (bottomChip[col] >= 0) {
                        packageCells(chips, bottomChip[col], ix, iy, area, true);
                    }
                    boardFirst[col] = cell.size();
                    for (int s = 0; s < sheets; s++) {
                        Cell made = new Cell();
                        made.made = sheet;
                        made.thickM = scene.board().thicknessMm() / 1000 / sheets;
                        made.areaM2 = area;
                        made.owner = -1;
                        made.layer = s;
                        made.usualEmissivity = scene.emissivity();
                        cell.add(made);
                    }
                    if (topChip[col] >= 0) {
                        packageCells(chips, topChip[col], ix, iy, area, false);
                    }
                }
            }
            first[columns] = cell.size();
        }

        private double areaM2(int ix, int iy) {
            return (xMm[ix + 1] - xMm[ix]) * (yMm[iy + 1] - yMm[iy]) * 1e-6;
        }

        /** Which package covers which column; a package that would lose all its columns to merged lines takes the one in its middle. */
        private void place(List<Chip> chips) {
            for (int c = 0; c < chips.size(); c++) {
                Chip chip = chips.get(c);
                int[] of = chip.side() == Side.TOP ? topChip : bottomChip;
                double covered = 0;
                for (int iy = 0; iy < ny; iy++) {
                    for (int ix = 0; ix < nx; ix++) {
                        boolean inside = Math.abs(middleX(ix) - chip.centreMm().xMm()) < chip.sizeMm().xMm()
                                / 2
                                && Math.abs(middleY(iy) - chip.centreMm().yMm()) < chip.sizeMm().yMm() / 2;
                        if (inside && of[column(ix, iy)] < 0) {
                            of[column(ix, iy)] = c;
                            covered += areaM2(ix, iy);
                        }
                    }
                }
                if (covered == 0) {
                    int ix = interval(xMm, chip.centreMm().xMm());
                    int iy = interval(yMm, chip.centreMm().yMm());
                    of[column(ix, iy)] = c;
                    covered = areaM2(ix, iy);
                }
                areaScale[c] = chip.sizeMm().areaMm2() * 1e-6 / covered;
            }
        }

        private void packageCells(List<Chip> chips, int owner, int ix, int iy, double area, boolean under) {
            Chip chip = chips.get(owner);
            var stack = new ArrayList<Cell>();
            for (int l = 0; l < chip.layers().size(); l++) {
                Layer layer = chip.layers().get(l);
                boolean outermost = l == chip.layers().size() - 1;
                double share = layer instanceof Layer.Die die ? dieShare(chip, die, ix, iy) : 1;
                boolean bare = layer instanceof Layer.Die die && die.inVoid() && outermost;
                if (bare && share < 0.02) {
                    continue;
                }
                int parts = paper(layer) ? PAPER_CELLS : 1;
                for (int part = 0; part < parts; part++) {
                    Cell made = new Cell();
                    made.made = LayerMaterial.of(layer, bare ? 1 : share);
                    made.filled = bare ? share : 1;
                    made.thickM = layer.thicknessMm() / 1000 / parts;
                    made.areaM2 = area * areaScale[owner] * made.filled;
                    made.owner = owner;
                    made.layer = l + part;
                    made.usualEmissivity = scene.emissivity();
                    stack.add(made);
                }
            }
            cell.addAll(under ? stack.reversed() : stack);
        }

        private static boolean paper(Layer layer) {
            return layer instanceof Layer.Plain plain && plain.material() == Layer.Material.PAPER;
        }

        /** All cells of a body that lies on paper or hangs under a stencil or flux in the place of a board; joints and paper left out. */
        private int[] packed(int owner, Chip chip) {
            boolean hangs = scene.laminate().isPresent();
            if (!hangs && !paper(chip.layers().getLast())) {
                return new int[0];
            }
            return java.util.stream.IntStream.range(0, cell.size()).filter(n -> {
                Cell c = cell.get(n);
                if (c.owner != owner || c.layer >= chip.layers().size()) {
                    return false;
                }
                Layer layer = chip.layers().get(c.layer);
                return !(layer instanceof Layer.Joint) && !paper(layer);
            }).toArray();
        }

        private double dieShare(Chip chip, Layer.Die die, int ix, int iy) {
            double x = overlap(xMm[ix], xMm[ix + 1], chip.centreMm().xMm(),
                    Math.min(die.dieMm().xMm(), chip.sizeMm().xMm()));
            double y = overlap(yMm[iy], yMm[iy + 1], chip.centreMm().yMm(),
                    Math.min(die.dieMm().yMm(), chip.sizeMm().yMm()));
            return x * y / ((xMm[ix + 1] - xMm[ix]) * (yMm[iy + 1] - yMm[iy]));
        }

        void verticalLinks(double[] up) {
            for (int col = 0; col < columns; col++) {
                for (int n = first[col]; n < first[col + 1] - 1; n++) {
                    Cell a = cell.get(n);
                    Cell b = cell.get(n + 1);
                    up[n] = Math.min(a.areaM2, b.areaM2)
                            / (a.thickM / (2 * a.made.kz()) + b.thickM / (2 * b.made.kz()));
                }
            }
        }

        void lateralLinks() {
            for (int iy = 0; iy < ny; iy++) {
                for (int ix = 0; ix < nx; ix++) {
                    double dx = xMm[ix + 1] - xMm[ix];
                    double dy = yMm[iy + 1] - yMm[iy];
                    if (ix + 1 < nx) {
                        join(column(ix, iy), column(ix + 1, iy), dx, xMm[ix + 2] - xMm[ix + 1], dy);
                    }
                    if (iy + 1 < ny) {
                        join(column(ix, iy), column(ix, iy + 1), dy, yMm[iy + 2] - yMm[iy + 1], dx);
                    }
                }
            }
        }

        private void join(int colA, int colB, double alongA, double alongB, double across) {
            for (int a = first[colA]; a < first[colA + 1]; a++) {
                int b = match(cell.get(a), colB);
                if (b >= 0) {
                    Cell ca = cell.get(a);
                    Cell cb = cell.get(b);
                    double scale = ca.owner < 0 ? 1 : Math.sqrt(ca.filled * cb.filled);
                    linkA.add(a);
                    linkB.add(b);
                    linkG.add(scale * across / 1000
                            / (alongA / 1000 / (2 * ca.made.kxy() * ca.thickM)
                                    + alongB / 1000 / (2 * cb.made.kxy() * cb.thickM)));
                }
            }
        }

        private int match(Cell wanted, int col) {
            for (int n = first[col]; n < first[col + 1]; n++) {
                if (cell.get(n).owner == wanted.owner && cell.get(n).layer == wanted.layer) {
                    return n;
                }
            }
            return -1;
        }

        void faces() {
            for (int iy = 0; iy < ny; iy++) {
                for (int ix = 0; ix < nx; ix++) {
                    int col = column(ix, iy);
                    coveredTop[col] = topChip[col] >= 0;
                    coveredBottom[col] = bottomChip[col] >= 0;
                    ends(col, ix, iy);
                    side(col, ix, iy, 1, 0);
                    side(col, ix, iy, -1, 0);
                    side(col, ix, iy, 0, 1);
                    side(col, ix, iy, 0, -1);
                }
            }
        }

        private void ends(int col, int ix, int iy) {
            int low = first[col];
            int high = first[col + 1] - 1;
            upperFace[col] = face.size();
            outward(high, col, ix, iy, Facing.UP, cell.get(high).areaM2);
            if (cell.get(high).filled < 1) {
                outward(high - 1, col, ix, iy, Facing.UP, cell.get(high - 1).areaM2 - cell.get(high).areaM2);
            }
            lowerFace[col] = face.size();
            outward(low, col, ix, iy, Facing.DOWN, cell.get(low).areaM2);
            if (cell.get(low).filled < 1) {
                outward(low + 1, col, ix, iy, Facing.DOWN, cell.get(low + 1).areaM2 - cell.get(low).areaM2);
            }
        }

        private void outward(int n, int col, int ix, int iy, Facing to, double area) {
            Cell c = cell.get(n);
            double half = c.thickM / 2 / c.made.kz();
            double x = middleX(ix);
            double y = middleY(iy);
            double eps = c.made.emissivity(c.usualEmissivity);
            if (to == Facing.UP) {
                Shield foil = shield(x, y);
                face.add(new Face(n, col, to, Against.ROOM, area, half,
                        foil == null ? 0 : foil.resistanceM2KPerW(), foil == null ? eps : foil.emissivity(),
                        0,
                        1));
                return;
            }
            int chip = bottomChip[col];
            if (chip >= 0 && scene.support().isPresent()
                    && scene.support().get().chip().equals(scene.board().chips().get(chip).name())) {
                face.add(new Face(n, col, to, Against.SUPPORT, area, half, 0, eps, 1, 0));
                return;
            }
            if (scene.heater().isEmpty()) {
                face.add(new Face(n, col, to, Against.ROOM, area, half, 0, eps, 0, 0));
                return;
            }
            BottomHeater heater = scene.heater().get();
            Point centre = scene.heaterCentre();
            // Where the chip lies on the plate, whatever is over it hangs in the air.
            boolean touches = heater.contact() && chip < 0 && !scene.onHeater();
            double seen;
            if (heater.contact() && !scene.onHeater()) {
                seen = overlap(xMm[ix], xMm[ix + 1], centre.xMm(), heater.sizeMm().xMm())
                        * overlap(yMm[iy], yMm[iy + 1], centre.yMm(), heater.sizeMm().yMm())
                        / ((xMm[ix + 1] - xMm[ix]) * (yMm[iy + 1] - yMm[iy]));
            } else {
                double height = chip < 0 ? 0 : tallMm(scene.board().chips().get(chip));
                double gap = scene.onHeater() ? tallMm(scene.targetChip()) - height : heater.gapMm() - height;
                seen = ViewFactor.ofRectangle(x - centre.xMm(), y - centre.yMm(), heater.sizeMm().xMm(),
                        heater.sizeMm().yMm(), Math.max(0.5, gap));
            }
            face.add(new Face(n, col, to, touches ? Against.CONTACT_PLATE : Against.OPEN_PLATE, area, half, 0,
                    eps, seen, 0));
        }

        private static double tallMm(Chip chip) {
            return chip.layers().stream().mapToDouble(Layer::thicknessMm).sum();
        }

        private Shield shield(double x, double y) {
            return scene.shields().stream().filter(s -> s.covers(x, y)).findFirst().orElse(null);
        }

        private void side(int col, int ix, int iy, int dirX, int dirY) {
            boolean edge = ix + dirX < 0 || ix + dirX >= nx || iy + dirY < 0 || iy + dirY >= ny;
            int beside = edge ? -1 : column(ix + dirX, iy + dirY);
            double across = (dirX != 0 ? yMm[iy + 1] - yMm[iy] : xMm[ix + 1] - xMm[ix]) / 1000;
            double along = (dirX != 0 ? xMm[ix + 1] - xMm[ix] : yMm[iy + 1] - yMm[iy]) / 1000;
            for (int n = first[col]; n < first[col + 1]; n++) {
                Cell c = cell.get(n);
                if (!edge && match(c, beside) >= 0) {
                    continue;
                }
                boolean onTop = n >= boardFirst[col] + sheets;
                Shield foil = onTop ? shield(middleX(ix), middleY(iy)) : null;
                double eps = c.made.emissivity(c.usualEmissivity);
                face.add(new Face(n, col, Facing.SIDEWAYS, Against.ROOM,
                        across * c.thickM * Math.sqrt(c.filled),
                        along / 2 / c.made.kxy(), foil == null ? 0 : foil.resistanceM2KPerW(),
                        foil == null ? eps : foil.emissivity(), 0, onTop ? 0.6 : 0));
            }
        }

        void stacks() {
            List<Chip> chips = scene.board().chips();
            for (int c = 0; c < chips.size(); c++) {
                Chip chip = chips.get(c);
                int[] of = chip.side() == Side.TOP ? topChip : bottomChip;
                int ix0 = nx;
                int ix1 = 0;
                int iy0 = ny;
                int iy1 = 0;
                for (int col = 0; col < columns; col++) {
                    if (of[col] == c) {
                        ix0 = Math.min(ix0, col % nx);
                        ix1 = Math.max(ix1, col % nx + 1);
                        iy0 = Math.min(iy0, col / nx);
                        iy1 = Math.max(iy1, col / nx + 1);
                    }
                }
                int count = (ix1 - ix0) * (iy1 - iy0);
                int[] tops = new int[count];
                double[] shares = new double[count];
                var jointLayers = new ArrayList<Integer>();
                for (int l = 0; l < chip.layers().size(); l++) {
                    if (chip.layers().get(l) instanceof Layer.Joint) {
                        jointLayers.add(l);
                    }
                }
                int[][] joints = new int[jointLayers.size()][count];
                double total = 0;
                for (int i = 0; i < count; i++) {
                    int ix = ix0 + i % (ix1 - ix0);
                    int iy = iy0 + i / (ix1 - ix0);
                    int col = column(ix, iy);
                    tops[i] = outerFace(col, chip.side());
                    shares[i] = areaM2(ix, iy);
                    total += shares[i];
                    var probe = new Cell();
                    probe.owner = c;
                    for (int j = 0; j < joints.length; j++) {
                        probe.layer = jointLayers.get(j);
                        joints[j][i] = match(probe, col);
                    }
                }
                for (int[] joint : joints) {
                    // Merged lines can hand a corner column of this rectangle to another package.
                    int any = Arrays.stream(joint).filter(n -> n >= 0).findFirst().orElseThrow();
                    Arrays.setAll(joint, i -> joint[i] >= 0 ? joint[i] : any);
                }
                for (int i = 0; i < count; i++) {
                    shares[i] /= total;
                }
                stacks.put(chip.name(), new Stack(joints, tops, shares, packed(c, chip),
                        Spot.Places.of(xMm, yMm, ix0, ix1, iy0, iy1, chip)));
            }
        }
    }

    private static double overlap(double from, double to, double centre, double size) {
        return Math.max(0, Math.min(to, centre + size / 2) - Math.max(from, centre - size / 2));
    }
}
