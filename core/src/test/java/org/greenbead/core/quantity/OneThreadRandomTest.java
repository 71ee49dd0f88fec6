package org.greenbead.core.quantity;

import static org.testng.Assert.assertEquals;

import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class OneThreadRandomTest {
    @DataProvider
    Object[][] seeds() {
        return new Object[][]{{0L}, {1L}, {-1L}, {417L}, {Long.MIN_VALUE}, {0x9E3779B97F4A7C15L}};
    }

    @Test(dataProvider = "seeds")
    public void drawsWhatRandomDraws(long seed) {
        var random = new Random(seed);
        var same = new OneThreadRandom(seed);
        for (int i = 0; i < 3_000; i++) {
            assertEquals(same.nextGaussian(), random.nextGaussian(), 0.0);
            assertEquals(same.nextDouble(), random.nextDouble(), 0.0);
            assertEquals(same.nextInt(17 + i), random.nextInt(17 + i));
            assertEquals(same.nextLong(), random.nextLong());
            assertEquals(same.nextBoolean(), random.nextBoolean());
        }
        random.setSeed(seed + 5);
        same.setSeed(seed + 5);
        assertEquals(same.nextGaussian(), random.nextGaussian(), 0.0);
    }
}
