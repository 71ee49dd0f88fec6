package org.greenbead.core.board;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

public class BoardTest {
    @Test
    public void refusesChipsThatOverlapOnOneSide() {
        var e = expectThrows(IllegalArgumentException.class, () -> World
                .board(World.processor("SAC305", 0, 0), World.neighbour("U2", Side.TOP, 44, 58, "SAC305")));
        assertTrue(e.getMessage().contains("U1 and U2 overlap on the top side"), e.getMessage());
        World.board(World.processor("SAC305", 0, 0), World.neighbour("U2", Side.BOTTOM, 44, 58, "SAC305"));
    }

    @Test
    public void refusesAChipOffTheBoard() {
        var e = expectThrows(IllegalArgumentException.class, () -> World
                .board(World.processor("SAC305", 0, 0), World.neighbour("U2", Side.TOP, 69, 10, "SAC305")));
        assertTrue(e.getMessage().contains("U2 does not lie wholly on the board"), e.getMessage());
    }

    @Test
    public void refusesTwoOfOneName() {
        expectThrows(IllegalArgumentException.class,
                () -> World.board(World.processor("SAC305", 0, 0),
                        World.neighbour("U1", Side.BOTTOM, 20, 20, "SAC305")));
    }

    @Test
    public void jointLayerComesFirst() {
        expectThrows(IllegalArgumentException.class,
                () -> new Chip("U1", "x", Side.TOP, new Point(5, 5), new Point(2, 2),
                        List.of(new Layer.Plain(Layer.Material.MOLD, 0.3),
                                new Layer.Joint(0.2, 0.4, 0.25, Alloys.require("SAC305"), false, 1)),
                        245, 0, 3, 168, 0));
        expectThrows(IllegalArgumentException.class,
                () -> new Chip("U1", "x", Side.TOP, new Point(5, 5), new Point(2, 2),
                        List.of(new Layer.Joint(0.2, 0.4, 0.25, Alloys.require("SAC305"), false, 1)), 245, 0,
                        3, 168, 0));
    }

    @Test
    public void ballIsSmallerThanThePitch() {
        expectThrows(IllegalArgumentException.class,
                () -> new Layer.Joint(0.2, 0.4, 0.41, Alloys.require("SAC305"), false, 1));
    }

    @Test
    public void meltsAreCountedOnACopy() {
        Chip chip = World.processor("SAC305", 2, 0);
        assertEquals(chip.melted(1).melts(), 3);
        assertEquals(chip.melts(), 2);
        assertEquals(chip.bodyMm(), 0.85, 1e-12);
    }

    @Test
    public void namesWhatThereIsWhenAChipIsMissing() {
        Board board = World.board(World.processor("SAC305", 0, 0));
        var e = expectThrows(IllegalArgumentException.class, () -> board.requireChip("U8"));
        assertTrue(e.getMessage().endsWith("it has U1"), e.getMessage());
    }

    @Test
    public void alloysAreFoundByNameAndNickname() {
        assertEquals(Alloys.require("SnPb").name(), "Sn63Pb37");
        assertTrue(Alloys.require("Sn63Pb37").hasPb());
        var e = expectThrows(IllegalArgumentException.class, () -> Alloys.require("medium"));
        assertTrue(e.getMessage().contains("SAC305"), e.getMessage());
    }

    @Test
    public void aPlaceIsNamedByWhatLiesNearItOnTop() {
        Chip top = World.processor("SAC305", 0, 0);
        Chip under = World.neighbour("U9", Side.BOTTOM, 10, 10, "SAC305");
        Board board = World.board(top, under);
        assertEquals(board.nearest(new Point(top.centreMm().xMm() + 3, top.centreMm().yMm())),
                java.util.Optional.of("U1"));
        assertEquals(board.nearest(new Point(10, 10)).filter("U9"::equals), java.util.Optional.empty(),
                "what lies underneath is not near on a photo of the top");
    }
}
