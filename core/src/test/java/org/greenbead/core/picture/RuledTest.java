package org.greenbead.core.picture;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.board.Point;
import org.testng.annotations.Test;

public class RuledTest {
    /** A board of 70 x 95 mm turned by 17 degrees at 8.3 px/mm; its size comes out whatever the turn. */
    @Test
    public void aTurnedBoardHasItsSize() {
        double turn = Math.toRadians(17);
        var corners = new ArrayList<Px>();
        for (double[] c : new double[][]{{0, 0}, {70, 0}, {70, 95}, {0, 95}}) {
            corners.add(new Px(300 + 8.3 * (c[0] * Math.cos(turn) + c[1] * Math.sin(turn)),
                    900 + 8.3 * (c[0] * Math.sin(turn) - c[1] * Math.cos(turn))));
        }
        Ruled scale = Ruled.of(new Px(10, 10), new Px(10 + 8.3 * 40, 10), 40);
        Ruled.Outline found = scale.outline(corners);
        assertEquals(found.sizeMm(), new Point(70, 95));
        assertEquals(found.slant(), 0, 1e-9);
        // The map that follows puts its corners where they were marked.
        Px upper = Squared.of(corners, found.sizeMm()).toPx(new Point(70, 95));
        assertEquals(upper.x(), corners.get(2).x(), 1e-6);
        assertEquals(upper.y(), corners.get(2).y(), 1e-6);
    }

    /** Seen from a side the far edge is shorter: said by how much. */
    @Test
    public void aSlantIsTold() {
        Ruled scale = Ruled.of(new Px(0, 0), new Px(500, 0), 50);
        var far = List.of(new Px(0, 500), new Px(500, 500), new Px(475, 0), new Px(25, 0));
        assertEquals(scale.outline(far).slant(), 50.0 / 475, 1e-9);
        assertTrue(scale.outline(far).sizeMm().xMm() > 45);
    }

    @Test
    public void nonsenseIsRefused() {
        assertThrows(IllegalArgumentException.class, () -> Ruled.of(new Px(5, 5), new Px(6, 6), 40));
        assertThrows(IllegalArgumentException.class, () -> Ruled.of(new Px(5, 5), new Px(600, 6), -273.2));
        assertThrows(IllegalArgumentException.class, () -> Ruled.of(new Px(5, 5), new Px(600, 6), 0));
        var point = List.of(new Px(1, 1), new Px(1, 1), new Px(1, 1), new Px(1, 1));
        assertThrows(IllegalArgumentException.class,
                () -> Ruled.of(new Px(5, 5), new Px(600, 6), 40).outline(point));
    }
}
