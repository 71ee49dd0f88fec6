package org.greenbead.core.inspect;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.testng.annotations.Test;

public class PlacesTest {
    private static final int W = 17;

    private static boolean[] scattered(Random random, double share) {
        boolean[] on = new boolean[W * 13];
        for (int i = 0; i < on.length; i++) {
            on[i] = random.nextDouble() < share;
        }
        return on;
    }

    private static boolean touch(int a, int b) {
        return Math.abs(a % W - b % W) + Math.abs(a / W - b / W) == 1;
    }

    /** Every cell that is on lies in one place and one only; places do not touch, and no place can be split in two. */
    @Test
    public void placesAreWhatHangsTogether() {
        var random = new Random(5);
        for (int turn = 0; turn < 300; turn++) {
            boolean[] on = scattered(random, 0.1 + 0.6 * random.nextDouble());
            List<List<Integer>> places = Places.of(on, W);
            var all = new HashSet<Integer>();
            for (List<Integer> place : places) {
                place.forEach(i -> assertTrue(on[i] && all.add(i)));
                Set<Integer> reached = new HashSet<>(Set.of(place.getFirst()));
                boolean grew = true;
                while (grew) {
                    grew = reached.addAll(place.stream()
                            .filter(i -> reached.stream().anyMatch(r -> touch(r, i))).toList());
                }
                assertEquals(reached.size(), place.size());
            }
            assertEquals(all.size(), (int) IntStream.range(0, on.length).filter(i -> on[i]).count());
            for (int a = 0; a < places.size(); a++) {
                for (int b = a + 1; b < places.size(); b++) {
                    List<Integer> other = places.get(b);
                    assertTrue(
                            places.get(a).stream().noneMatch(i -> other.stream().anyMatch(k -> touch(i, k))));
                }
            }
        }
    }

    /** A hull turns one way all round and holds every cell; the middle between any two cells is in it, what lies beyond the field is not. */
    @Test
    public void hullIsConvexAndHoldsAll() {
        var random = new Random(6);
        for (int turn = 0; turn < 200; turn++) {
            List<List<Integer>> places = Places.of(scattered(random, 0.6), W);
            List<Integer> place = places.get(random.nextInt(places.size()));
            List<double[]> hull = Places.hull(place, W);
            for (int i = 0; i < hull.size(); i++) {
                double[] a = hull.get(i);
                double[] b = hull.get((i + 1) % hull.size());
                double[] c = hull.get((i + 2) % hull.size());
                assertTrue((b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]) > 0,
                        "a bend inwards");
            }
            int p = place.get(random.nextInt(place.size()));
            for (int q : place) {
                assertTrue(Places.inside(hull, q % W + 0.5, q / W + 0.5));
                assertTrue(Places.inside(hull, (p % W + q % W + 1) / 2.0, (p / W + q / W + 1) / 2.0));
            }
            assertFalse(Places.inside(hull, -0.5, 6));
            assertFalse(Places.inside(hull, W + 0.5, 6));
        }
    }
}
