package org.greenbead.core.kind;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bead.Balls;
import org.greenbead.core.bead.Collapse;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.BodyRating;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Check;

/**
 * A usual build of a package.
 *
 * @param id       its words are {@code packagekind.<id>}
 * @param pitchMm  the one it mostly has
 * @param coverage part of the footprint that carries balls
 * @param layers   material and thickness from the board up, as in {@code packagekinds.txt}
 */
public record PackageKind(String id, double pitchMm, double coverage, List<String> layers) {
    /** Nominal ball by pitch, mm (IPC-7095, ball and pitch table; verify against the current edition). */
    private static final double[][] BALLS = {{1.27, 0.75}, {1.0, 0.60}, {0.8, 0.45}, {0.65, 0.40},
            {0.5, 0.30}, {0.4, 0.25}, {0.35, 0.20}, {0.3, 0.17}};
    /** Land on the board over the ball's diameter (IPC-7351: a fifth smaller for collapsing balls; verify). */
    private static final double LAND = 0.8;
    /** A board that comes in has mostly been through the oven twice, once a side. Judgement. */
    private static final int MELTS = 2;
    /** J-STD-020 qualifies with three. */
    private static final int MELTS_LIMIT = 3;
    /** Moisture level 3 of J-STD-033, and used up: nobody knows how long the board has lain open. */
    private static final double FLOOR_LIFE_H = 168;
    private static final double OPEN_H = FLOOR_LIFE_H + 1;

    /** The shipped list. */
    public static List<PackageKind> shipped() {
        return Table.rows(PackageKind.class, "packagekinds.txt", 4).stream()
                .map(f -> new PackageKind(f[0], Double.parseDouble(f[1]), Double.parseDouble(f[2]),
                        Arrays.asList(f[3].split("\\s+"))))
                .toList();
    }

    /** @throws IllegalArgumentException naming those there are */
    public static PackageKind require(String id) {
        return Table.require("build of a package", shipped(), PackageKind::id, id);
    }

    /** The nominal ball of a pitch, between the rows of the table by a straight line; in proportion beyond its ends. */
    public static double ballMm(double pitchMm) {
        double[] first = BALLS[0];
        double[] last = BALLS[BALLS.length - 1];
        if (pitchMm >= first[0]) {
            return first[1] * pitchMm / first[0];
        }
        if (pitchMm <= last[0]) {
            return last[1] * pitchMm / last[0];
        }
        int row = 1;
        while (BALLS[row][0] > pitchMm) {
            row++;
        }
        double[] over = BALLS[row - 1];
        double[] under = BALLS[row];
        return under[1] + (over[1] - under[1]) * (pitchMm - under[0]) / (over[0] - under[0]);
    }

    /**
     * A chip of this build with all that goes with it. The joint's height is that of the nominal ball collapsed between two lands
     * ({@link Collapse}), the body's limit that of its class ({@link BodyRating}).
     */
    public Chip chip(String name, String part, Side side, Point centreMm, Point sizeMm, double pitch,
            Alloy alloy) {
        var sheets = new ArrayList<Layer>();
        sheets.add(joint(pitch, ballMm(pitch), alloy, false, coverage));
        sheets.addAll(body(sizeMm));
        double body = sheets.stream().skip(1).mapToDouble(Layer::thicknessMm).sum();
        return new Chip(name, part, side, centreMm, sizeMm, sheets,
                BodyRating.peakC(body, body * sizeMm.xMm() * sizeMm.yMm(), !alloy.hasPb()), MELTS,
                MELTS_LIMIT, FLOOR_LIFE_H, OPEN_H);
    }

    /** A joint as high as its ball collapsed between two lands stands ({@link Collapse}). @param part of the footprint that carries balls */
    static Layer.Joint joint(double pitchMm, double ballMm, Alloy alloy, boolean glued, double part) {
        double land = LAND * ballMm / 2;
        return new Layer.Joint(Collapse.of(Balls.sphereMm3(ballMm), land, land).heightMm(), pitchMm, ballMm,
                alloy, glued, part);
    }

    /** What lies over the joints, from them outwards. */
    public List<Layer> body(Point sizeMm) {
        return layers.stream().map(l -> layer(l.split(":"), sizeMm)).toList();
    }

    /** What is taken for the alloy where nobody has said it: lead-free since the directive of 2006, and the hotter guess of the common two. */
    public static final String USUAL_ALLOY = "SAC305";

    /**
     * The board with a chip of this build more, or in the place of the one of its name. How it is built and how it has lived stays assumed;
     * so does its alloy where none is given.
     */
    public Board onto(Board board, String name, String part, Side side, Point centreMm, Point sizeMm,
            double pitch, Optional<Alloy> alloy) {
        Alloy joints = alloy.orElseGet(() -> Alloys.require(USUAL_ALLOY));
        var assumed = new ArrayList<>(List.of(Assumed.packageOf(name), Assumed.lifeOf(name)));
        if (alloy.isEmpty()) {
            assumed.add(Assumed.alloyOf(name));
        }
        return board.put(chip(Check.id("chip name", name), part, side, centreMm, sizeMm, pitch, joints),
                assumed);
    }

    private static Layer layer(String[] words, Point sizeMm) {
        double thickness = Double.parseDouble(words[1]);
        if (words[0].startsWith("die") && words.length == 3) {
            double part = Double.parseDouble(words[2]);
            return new Layer.Die(thickness, new Point(sizeMm.xMm() * part, sizeMm.yMm() * part),
                    words[0].equals("die_void"));
        }
        return new Layer.Plain(Layer.Material.valueOf(words[0].toUpperCase(java.util.Locale.ROOT)),
                thickness);
    }
}
