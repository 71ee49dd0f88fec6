package org.greenbead.core.kind;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;

/**
 * A usual bench, for one that nobody has measured. It has no thermocouple: those are added when they are there.
 *
 * @param id its words are {@code benchkind.<id>}
 */
public record BenchKind(String id, Optional<BottomHeater> heater, AirStation air) {
    private static final double ROOM_C = 22;

    /** The shipped list. */
    public static List<BenchKind> shipped() {
        return Table.rows(BenchKind.class, "benchkinds.txt", 3).stream().map(f -> {
            String[] h = f[1].split("\\s+");
            String[] a = f[2].split("\\s+");
            return new BenchKind(f[0], heater(f[0], h),
                    new AirStation("air station",
                            Arrays.stream(a[0].split(",")).map(Double::parseDouble).toList(), number(a[1]),
                            number(a[2]), number(a[3]), number(a[4]), 1));
        }).toList();
    }

    private static Optional<BottomHeater> heater(String id, String[] h) {
        return h[0].equals("none")
                ? Optional.empty()
                : Optional.of(new BottomHeater(id.replace('_', ' '), h[0].equals("contact"),
                        new Point(number(h[1]), number(h[2])), number(h[3]), number(h[4]), number(h[5]),
                        number(h[6]), number(h[7]), number(h[8]), 1));
    }

    private static double number(String text) {
        return Double.parseDouble(text);
    }

    /** @throws IllegalArgumentException naming those there are */
    public static BenchKind require(String id) {
        return Table.require("usual bench", shipped(), BenchKind::id, id);
    }

    /** A bench of this kind, unmeasured. */
    public Bench bench(String benchId, String title) {
        return new Bench(Check.id("bench id", benchId), title, ROOM_C, heater, air, List.of(), List.of());
    }
}
