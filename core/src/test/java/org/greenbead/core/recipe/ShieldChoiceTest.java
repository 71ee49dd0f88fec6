package org.greenbead.core.recipe;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.bead.PadPlaces;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.ProtectedPart.Holds;
import org.greenbead.core.board.Side;
import org.greenbead.core.chip.Orientation.Corner;
import org.testng.annotations.Test;

/** Foil from the parts map, and where a damaged pad lies on the board. */
public class ShieldChoiceTest {
    private static Chip chip(double wide, double high) {
        return new Chip("U1", "QX-510", Side.TOP, new Point(40, 30), new Point(wide, high),
                List.of(new Layer.Joint(0.2, 0.5, 0.25, Alloys.require("SAC305"), false, 0.9),
                        new Layer.Plain(Layer.Material.SUBSTRATE, 0.4)),
                250, 1, 3, 168, 10);
    }

    private static ProtectedPart part(String name, double x, double y, double side, double limitC,
            Set<Holds> holds) {
        return new ProtectedPart(name, "part", Side.TOP, new Point(x, y), new Point(side, side), limitC,
                Optional.empty(), holds);
    }

    private static List<ShieldChoice> of(ProtectedPart... parts) {
        Chip chip = chip(14, 14);
        return ShieldChoice.of(new Board("B-1", "board", new Point(80, 60), 1.2, 6, 35, 0.5, 0.3,
                List.of(chip), List.of(parts)), chip);
    }

    /** SAC305 is liquid from 220 °C; what stands 240 °C needs nothing unless it holds something. */
    @Test
    public void onlyWhatIsNearAndGivesWay() {
        List<ShieldChoice> found = of(part("J1", 52, 30, 4, 230, Set.of()),
                part("R1", 51, 40, 1, 260, Set.of()),
                part("M1", 40, 50, 6, 260, Set.of(Holds.DATA)), part("K1", 75, 30, 4, 120, Set.of()));
        assertEquals(found.stream().map(ShieldChoice::part).toList(), List.of("J1", "M1"));
        assertEquals(found.getFirst().awayMm(), 3.0, 1e-9);
        assertEquals(found.getFirst().why(), ShieldChoice.Why.LIMIT);
        assertEquals(found.getLast().why(), ShieldChoice.Why.DATA);
        Shield foil = found.getFirst().foil().orElseThrow();
        assertEquals(foil.fromMm(), new Point(48, 26), "2 mm over the part, cut back 1 mm from the chip");
        assertEquals(foil.toMm(), new Point(56, 34));
    }

    @Test
    public void whatTouchesTheChipCannotBeCovered() {
        ShieldChoice close = of(part("C1", 48.2, 30, 2, 150, Set.of())).getFirst();
        assertEquals(close.awayMm(), 0.2, 1e-9);
        assertFalse(close.foil().isPresent());
    }

    /** Wherever a part lies, its foil covers it and stays off the chip. */
    @Test
    public void foilCoversItsPartAndNeverTheChip() {
        var random = new Random(4);
        int covered = 0;
        for (int i = 0; i < 500; i++) {
            double x = 5 + 70 * random.nextDouble();
            double y = 5 + 50 * random.nextDouble();
            for (ShieldChoice choice : of(part("P", x, y, 3, 100, Set.of()))) {
                if (choice.foil().isPresent()) {
                    covered++;
                    Shield foil = choice.foil().get();
                    for (double[] end : new double[][]{{-1.49, -1.49}, {1.49, -1.49}, {1.49, 1.49},
                            {-1.49, 1.49}}) {
                        assertTrue(foil.covers(x + end[0], y + end[1]), x + ", " + y);
                    }
                    boolean over = foil.fromMm().xMm() < 48 - 1e-9 && foil.toMm().xMm() > 32 + 1e-9
                            && foil.fromMm().yMm() < 38 - 1e-9 && foil.toMm().yMm() > 22 + 1e-9;
                    assertFalse(over, "foil over the chip at " + x + ", " + y);
                }
            }
        }
        assertTrue(covered > 150, "enough of them were near: " + covered);
    }

    /** 10 x 6 mm at 0.5 mm: 20 columns, 12 rows; A1 sits in the marked corner, the last site across from it. */
    @Test
    public void padsLieWhereTheMarkSays() {
        Chip chip = chip(10, 6);
        assertEquals(PadPlaces.of(chip, "A1", Corner.NW).orElseThrow(), new Point(35.25, 32.75));
        assertEquals(PadPlaces.of(chip, "M20", Corner.NW).orElseThrow(), new Point(44.75, 27.25));
        assertEquals(PadPlaces.of(chip, "A1", Corner.SE).orElseThrow(), new Point(44.75, 27.25));
        assertEquals(PadPlaces.of(chip, "A1", Corner.NE).orElseThrow(), new Point(44.75, 32.75));
        assertEquals(PadPlaces.of(chip, "A12", Corner.NE).orElseThrow(), new Point(44.75, 27.25),
                "a quarter clockwise: columns run down");
        assertFalse(PadPlaces.of(chip, "A13", Corner.NE).isPresent(), "turned, there are 12 columns");
        assertFalse(PadPlaces.of(chip, "N1", Corner.NW).isPresent());
        assertFalse(PadPlaces.of(chip, "left of the crystal", Corner.NW).isPresent());
    }
}
