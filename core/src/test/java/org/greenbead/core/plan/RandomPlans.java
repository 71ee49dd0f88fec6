package org.greenbead.core.plan;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.kind.PackageKind;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;

/** Boards as they come by chance: thin to heavy copper, small to 42 mm chips, neighbours near and far on both sides, any usual bench. */
final class RandomPlans {
    private static final double EDGE_MM = 3;
    private static final List<String> TARGETS = List.of("moulded", "thin", "memory", "bare_die", "lidded",
            "ceramic");
    private static final List<String> NEIGHBOURS = List.of("moulded", "thin", "memory", "wafer");
    private static final List<String> BENCHES = List.of("open_small", "open_large", "infrared", "hot_plate");
    private static final double[] THICK_MM = {0.8, 1.0, 1.2, 1.6, 2.4, 3.2};

    private final SplittableRandom by;

    private RandomPlans(long seed) {
        by = new SplittableRandom(seed);
    }

    static RunPlan of(long seed) {
        return new RandomPlans(seed).plan();
    }

    private RunPlan plan() {
        BenchKind kind = BenchKind.require(one(BENCHES));
        Board board = board();
        Bench usual = kind.bench("bench-" + kind.id(), kind.id());
        Point target = board.requireChip("U1").centreMm();
        double half = board.requireChip("U1").sizeMm().xMm() / 2;
        double beside = target.xMm() + half + 4 < board.sizeMm().xMm() - 1
                ? target.xMm() + half + 4
                : target.xMm() - half - 4;
        var probe = new ProbePlace("board_top", ProbePlace.Role.BOARD, 1, Side.TOP,
                new Point(beside, target.yMm()));
        Bench bench = new Bench(usual.id(), usual.title(), 23, usual.heater(), usual.air(), List.of(probe));
        var recipe = World.usualRecipe();
        return World.plan(recipe).with(board).with(bench);
    }

    private Board board() {
        double side = Math.pow(by.nextDouble(), 1.5) * 36 + 6;
        String kind = side > 30 ? by.nextBoolean() ? "ceramic" : "lidded" : one(TARGETS);
        double wide = Math.max(40, side + 20) + by.nextDouble() * 100;
        double deep = Math.max(40, side + 20) + by.nextDouble() * 100;
        double thick = THICK_MM[by.nextInt(THICK_MM.length)];
        int layers = thick < 1.1 ? 6 + by.nextInt(5) : 2 + by.nextInt(11);
        Board bare = new Board("RB-1", "by chance", new Point(wide, deep), thick, layers,
                by.nextBoolean() ? 18 : 35, 0.3 + 0.5 * by.nextDouble(), 0.3 + 0.1 * by.nextDouble(),
                List.of(), List.of());
        double x = EDGE_MM + side / 2 + by.nextDouble() * (wide - side - 2 * EDGE_MM);
        double y = EDGE_MM + side / 2 + by.nextDouble() * (deep - side - 2 * EDGE_MM);
        Board board = chip(bare, kind, "U1", Side.TOP, new Point(x, y), side, alloy());
        int more = 1 + by.nextInt(5);
        for (int i = 0; i < more; i++) {
            board = neighbour(board, "U" + (i + 2));
        }
        return part(board);
    }

    private Board neighbour(Board board, String name) {
        var target = board.requireChip("U1");
        double size = 3 + 9 * by.nextDouble();
        Side on = by.nextInt(3) == 0 ? Side.BOTTOM : Side.TOP;
        double nearest = on == Side.BOTTOM ? 0 : (target.sizeMm().xMm() + size) / 2 + 1;
        for (int tries = 0; tries < 30; tries++) {
            double away = nearest + 25 * by.nextDouble();
            double turn = 2 * Math.PI * by.nextDouble();
            var at = new Point(target.centreMm().xMm() + away * Math.cos(turn),
                    target.centreMm().yMm() + away * Math.sin(turn));
            try {
                return chip(board, one(NEIGHBOURS), name, on, at, size, alloy());
            } catch (IllegalArgumentException e) {
                // Off the board or over another: somewhere else.
                continue;
            }
        }
        return board;
    }

    private Board part(Board board) {
        if (by.nextInt(3) == 0) {
            return board;
        }
        var parts = new ArrayList<ProtectedPart>();
        parts.add(new ProtectedPart("J1", "connector, softens", Side.TOP,
                new Point(4 + by.nextDouble() * (board.sizeMm().xMm() - 8),
                        4 + by.nextDouble() * (board.sizeMm().yMm() - 8)),
                new Point(4, 4), 150 + 70 * by.nextDouble()));
        return board.withParts(parts);
    }

    private static Board chip(Board board, String kind, String name, Side side, Point at, double size,
            String alloy) {
        PackageKind package_ = PackageKind.require(kind);
        return package_.onto(board, name, "QR-" + name, side, at, new Point(size, size), package_.pitchMm(),
                Optional.of(Alloys.require(alloy)));
    }

    private String alloy() {
        return by.nextInt(3) == 0 ? "Sn63Pb37" : "SAC305";
    }

    private <T> T one(List<T> all) {
        return all.get(by.nextInt(all.size()));
    }
}
