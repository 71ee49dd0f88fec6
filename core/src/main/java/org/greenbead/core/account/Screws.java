package org.greenbead.core.account;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/** Screws out and in, by length: what went out has to come back, each length in as many holes. */
public final class Screws {
    private Screws() {
    }

    /** @param lengthMm 0 = not noted */
    public record Length(double lengthMm, int out, int in) {
        public int missing() {
            return out - in;
        }
    }

    /** The shortest first. */
    public static List<Length> of(Job job) {
        var out = new TreeMap<Double, int[]>();
        for (Kept screw : job.records("screw")) {
            double length = Double.isFinite(screw.number("length_mm")) ? screw.number("length_mm") : 0;
            int[] count = out.computeIfAbsent(length, l -> new int[2]);
            count[0] += screw.yes("out") ? 1 : 0;
            count[1] += screw.yes("in") ? 1 : 0;
        }
        var lengths = new ArrayList<Length>();
        out.forEach((length, count) -> lengths.add(new Length(length, count[0], count[1])));
        return List.copyOf(lengths);
    }
}
