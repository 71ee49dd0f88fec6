package org.greenbead.core.moisture;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.List;
import org.testng.annotations.Test;

/** Floor life, bakes, and what they may do to the board. */
public class MoistureTest {
    private static final Moisture TABLE = Moisture.standard();

    @Test
    public void floorLifeIsCountedDown() {
        assertEquals(TABLE.leftH("3", 130).orElseThrow(), 38.0, "168 h less 130 h");
        assertEquals(TABLE.leftH("MSL5a", 30).orElseThrow(), -6.0);
        assertEquals(TABLE.floorLifeH("6").orElseThrow(), 0.0);
        assertTrue(TABLE.floorLifeH("9").isEmpty());
    }

    @Test
    public void bakesGrowWithThicknessAndLevel() {
        double before = 0;
        for (double mm : new double[]{1.0, 1.8, 3.0}) {
            double hours = TABLE.bakes("3", mm, 1000, Double.NaN).getFirst().hours();
            assertTrue(hours > before, mm + " mm takes longer");
            before = hours;
        }
        for (double mm : new double[]{1.0, 1.8}) {
            double last = 0;
            for (String level : List.of("2", "2a", "3", "4", "5", "5a")) {
                double hours = TABLE.bakes(level, mm, 5e4, Double.NaN).getFirst().hours();
                assertTrue(hours >= last, level);
                last = hours;
            }
        }
        for (Moisture.Bake bake : TABLE.bakes("4", 1.2, 1000, Double.NaN)) {
            double shorter = TABLE.bakes("4", 1.2, 100, Double.NaN).stream()
                    .filter(b -> b.bakeC() == bake.bakeC()).findFirst().orElseThrow().hours();
            assertTrue(shorter < bake.hours(), "28 h past its life asks for less than 928 h past");
        }
    }

    @Test
    public void bakeIsHeldAgainstTheLowestSolidus() {
        assertEquals(Moisture.heat(90, 96), Moisture.Verdict.CARE);
        assertEquals(Moisture.heat(115, 138), Moisture.Verdict.PASS);
        assertEquals(Moisture.heat(120, 138), Moisture.Verdict.CARE);
        assertEquals(Moisture.heat(150, 144), Moisture.Verdict.STOP);
        assertEquals(Moisture.heat(139, 144), Moisture.Verdict.STOP, "5 K is the margin of a probe");
        List<Moisture.Bake> bakes = TABLE.bakes("3", 1.2, 500, 96);
        assertEquals(bakes.stream().map(Moisture.Bake::verdict).toList(),
                List.of(Moisture.Verdict.STOP, Moisture.Verdict.CARE, Moisture.Verdict.PASS));
        assertEquals(bakes.get(2).marginK(), 56.0);
    }

    @Test
    public void whatTheTableDoesNotKnowIsNotGuessed() {
        assertTrue(TABLE.bakes("1", 1, 1e6, Double.NaN).isEmpty());
        assertTrue(TABLE.bakes("3", 6, 500, Double.NaN).isEmpty());
        assertTrue(TABLE.bakes("", 1, 500, Double.NaN).isEmpty());
    }
}
