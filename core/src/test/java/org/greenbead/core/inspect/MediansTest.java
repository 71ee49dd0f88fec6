package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;

import java.util.Arrays;
import java.util.Random;
import org.testng.annotations.Test;

public class MediansTest {
    /** Of every number of rows up to forty, longer and shorter than what is worked on at once. */
    @Test
    public void upperMiddleOfTheSorted() {
        var random = new Random(8);
        for (int rows = 1; rows <= 40; rows++) {
            int length = rows % 3 == 0 ? 1000 : 7 * rows;
            float[][] in = new float[rows][length];
            for (float[] row : in) {
                for (int i = 0; i < length; i++) {
                    row[i] = random.nextInt(5) == 0 ? 0.5f : random.nextFloat();
                }
            }
            float[] got = Medians.of(in);
            for (int i = 0; i < length; i++) {
                float[] column = new float[rows];
                for (int r = 0; r < rows; r++) {
                    column[r] = in[r][i];
                }
                Arrays.sort(column);
                assertEquals(got[i], column[rows / 2], 0, rows + " rows, place " + i);
            }
        }
    }
}
