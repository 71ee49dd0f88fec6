package org.greenbead.core.alloy;

import java.util.List;
import java.util.Optional;

/** The alloys of {@link MeltingTable} as the thermal model takes them. There is no second table. */
public final class Alloys {
    /** A eutectic melts at one temperature; half a degree either side keeps the enthalpy curve single-valued. */
    private static final double NARROWEST_K = 1;
    private static final List<Alloy> TABLE = MeltingTable.standard().rows().stream().map(Alloys::melting)
            .toList();

    private Alloys() {
    }

    private static Alloy melting(MeltingTable.Row row) {
        double widenedK = Math.max(0, NARROWEST_K - (row.liquidusC() - row.solidusC())) / 2;
        return new Alloy(row.name(), row.solidusC() - widenedK, row.liquidusC() + widenedK,
                row.fusionJPerM3(),
                row.kWPerMK(), row.made().pct("Pb") > 0, row.made().pct("Bi") > 0, row.source());
    }

    public static List<Alloy> all() {
        return TABLE;
    }

    /** @param name in any case; "SnPb" and "SnBi" are read as their eutectics */
    public static Optional<Alloy> find(String name) {
        return MeltingTable.standard().find(name)
                .flatMap(row -> TABLE.stream().filter(a -> a.name().equals(row.name())).findFirst());
    }

    /** @throws IllegalArgumentException naming the known alloys */
    public static Alloy require(String name) {
        return find(name).orElseThrow(
                () -> new IllegalArgumentException("alloy \"" + name + "\" is not in the table; known are "
                        + String.join(", ", TABLE.stream().map(Alloy::name).toList())));
    }
}
