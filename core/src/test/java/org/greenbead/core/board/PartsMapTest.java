package org.greenbead.core.board;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.alloy.Alloys;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What the parts map says: lift side, nozzle, and parts made of a placement file. */
public class PartsMapTest {
    private static Chip chip() {
        return new Chip("U1", "QX-510", Side.TOP, new Point(40, 30), new Point(14, 14),
                List.of(new Layer.Joint(0.2, 0.4, 0.25, Alloys.require("SAC305"), false, 0.9),
                        new Layer.Plain(Layer.Material.SUBSTRATE, 0.4)),
                250, 1, 3, 168, 10);
    }

    private static ProtectedPart part(String name, double x, double y, double w, double h, double high) {
        return new ProtectedPart(name, "part", Side.TOP, new Point(x, y), new Point(w, h), 200,
                high > 0 ? Optional.of(high) : Optional.empty(), Set.of());
    }

    private static Board board(ProtectedPart... parts) {
        return new Board("B-1", "board", new Point(80, 60), 1.2, 6, 35, 0.5, 0.3, List.of(chip()),
                List.of(parts));
    }

    /** Gaps of 0.6 north, 2.4 east, 1.1 south, 1.9 west: east it is. */
    @Test
    public void longestFreeWayWins() {
        Board board = board(part("N", 40, 37 + 0.6 + 1, 4, 2, 0), part("E", 47 + 2.4 + 1, 30, 2, 4, 0),
                part("S", 40, 23 - 1.1 - 1, 4, 2, 0), part("W", 33 - 1.9 - 1, 30, 2, 4, 0));
        List<LiftSide.Way> ways = LiftSide.of(board, chip(), 6, 1);
        assertEquals(ways.getFirst().side(), LiftSide.Side4.EAST);
        assertEquals(ways.getFirst().clearMm(), 2.4, 1e-9);
        assertEquals(ways.getFirst().by(), "E");
        assertTrue(ways.getFirst().enough());
        assertEquals(ways.getLast().side(), LiftSide.Side4.NORTH);
        assertFalse(ways.get(1).enough(), "1.9 mm is less than the tool and a millimetre");
    }

    @Test
    public void tallPartsCountDoubleAndOtherSideNotAtAll() {
        Board tall = board(part("E", 47 + 6 + 1, 30, 2, 4, 5));
        assertEquals(LiftSide.of(tall, chip(), 6, 1).stream().filter(w -> w.side() == LiftSide.Side4.EAST)
                .findFirst()
                .orElseThrow().clearMm(), 3.0, 1e-9);
        Board below = board(
                new ProtectedPart("E", "p", Side.BOTTOM, new Point(50, 30), new Point(2, 2), 200));
        assertEquals(LiftSide.of(below, chip(), 6, 1).getLast().clearMm(), LiftSide.FREE_MM);
    }

    @Test
    public void nozzleIsTheChipAndAFewMillimetres() {
        NozzleChoice choice = NozzleChoice
                .of(board(part("near", 50, 30, 3, 3, 0), part("far", 70, 50, 3, 3, 0)), chip());
        assertEquals(choice.fromMm(), 16.0);
        assertEquals(choice.toMm(), 18.0);
        assertEquals(choice.inAir(), List.of("near"));
    }

    @DataProvider
    Object[][] placements() {
        return new Object[][]{
                // reference, footprint, turned, width, depth, kind, limit, limit assumed, size assumed
                {"C17", "C_0402", 0.0, 1.0, 0.5, "capacitor", 260.0, false, false},
                {"C17", "C_0402", 90.0, 0.5, 1.0, "capacitor", 260.0, false, false},
                {"C9", "CP_Elec_6.3x5.8", 0.0, 6.3, 5.8, "wet capacitor", 105.0, false, false},
                {"BT1", "CoinCell", 0.0, 2.0, 2.0, "cell", 60.0, false, true},
                {"J2", "Conn_10x3", 0.0, 10.0, 3.0, "connector", 220.0, true, false},
                {"Y1", "Crystal_3.2x2.5", 0.0, 3.2, 2.5, "crystal", 220.0, true, false},
                {"U5", "QFN-24_4x4", 45.0, 5.657, 5.657, "package", 260.0, true, false}};
    }

    @Test(dataProvider = "placements")
    public void partIsReadFromItsFootprint(String ref, String footprint, double turn, double w, double d,
            String kind, double limit, boolean limitAssumed, boolean sizeAssumed) {
        Placement.Placed placed = new Placement(ref, new Point(1, 1), turn, Side.TOP, footprint).part();
        assertEquals(placed.part().sizeMm().xMm(), w, 0.001);
        assertEquals(placed.part().sizeMm().yMm(), d, 0.001);
        assertEquals(placed.part().kind(), kind);
        assertEquals(placed.part().limitC(), limit);
        assertEquals(placed.limitAssumed(), limitAssumed);
        assertEquals(placed.sizeAssumed(), sizeAssumed);
    }

    @Test
    public void cellIsKnownToHoldOne() {
        assertEquals(new Placement("BT1", new Point(1, 1), 0, Side.TOP, "CoinCell").part().part().holds(),
                Set.of(ProtectedPart.Holds.CELL));
    }
}
