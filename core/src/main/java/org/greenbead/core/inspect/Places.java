package org.greenbead.core.inspect;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Connected places of a grid, and their hull. */
final class Places {
    private Places() {
    }

    static List<List<Integer>> of(boolean[] on, int w) {
        var places = new ArrayList<List<Integer>>();
        boolean[] done = new boolean[on.length];
        for (int i = 0; i < on.length; i++) {
            if (on[i] && !done[i]) {
                var place = new ArrayList<Integer>();
                var open = new ArrayDeque<Integer>(List.of(i));
                done[i] = true;
                while (!open.isEmpty()) {
                    int at = open.pop();
                    place.add(at);
                    int x = at % w;
                    for (int next : new int[]{x > 0 ? at - 1 : -1, x < w - 1 ? at + 1 : -1, at - w,
                            at + w}) {
                        if (next >= 0 && next < on.length && on[next] && !done[next]) {
                            done[next] = true;
                            open.push(next);
                        }
                    }
                }
                places.add(place);
            }
        }
        return places;
    }

    /** Convex hull (Andrew 1979), cells as points of their lower corner and its opposite. */
    static List<double[]> hull(List<Integer> place, int w) {
        List<double[]> points = place.stream()
                .flatMap(i -> java.util.stream.Stream.of(new double[]{i % w, i / w},
                        new double[]{i % w + 1, i / w + 1},
                        new double[]{i % w + 1, i / w}, new double[]{i % w, i / w + 1}))
                .sorted(Comparator.<double[]>comparingDouble(p -> p[0]).thenComparingDouble(p -> p[1]))
                .toList();
        var hull = new ArrayList<double[]>();
        for (int pass = 0; pass < 2; pass++) {
            int base = hull.size();
            for (double[] p : pass == 0 ? points : points.reversed()) {
                while (hull.size() >= base + 2
                        && turn(hull.get(hull.size() - 2), hull.getLast(), p) <= 0) {
                    hull.removeLast();
                }
                hull.add(p);
            }
            hull.removeLast();
        }
        return hull;
    }

    private static double turn(double[] o, double[] a, double[] b) {
        return (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
    }

    static boolean inside(List<double[]> hull, double x, double y) {
        double[] p = {x, y};
        for (int i = 0; i < hull.size(); i++) {
            if (turn(hull.get(i), hull.get((i + 1) % hull.size()), p) < 0) {
                return false;
            }
        }
        return true;
    }
}
