package org.greenbead.core.alloy;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** The alloys of {@link MeltingTable} as the thermal model takes them. There is no second table. */
public final class Alloys {
    /** A eutectic melts at one temperature; half a degree either side keeps the enthalpy curve single-valued. */
    private static final double NARROWEST_K = 1;
    /**
     * Tin needs a nucleus to freeze: balls of tin-rich solder on copper or nickel stay liquid to 15 to 35 K under their solidus (Kinyanjui, Lehman, Zavalij
     * and Cotts 2005, J. Mater. Res. 20; the smaller the ball the further), with lead, bismuth or indium in plenty less.
     */
    private static final double TIN_RICH_K = 35;
    private static final double OTHER_K = 15;
    private static final double PLENTY_PCT = 5;
    private static final List<Alloy> TABLE = MeltingTable.standard().rows().stream().map(Alloys::melting)
            .toList();

    private Alloys() {
    }

    private static Alloy melting(MeltingTable.Row row) {
        double widenedK = Math.max(0, NARROWEST_K - (row.liquidusC() - row.solidusC())) / 2;
        return new Alloy(row.name(), row.solidusC() - widenedK, row.liquidusC() + widenedK,
                row.fusionJPerM3(),
                row.kWPerMK(), row.made().pct("Pb") > 0, row.made().pct("Bi") > 0, undercoolingK(row),
                row.source());
    }

    private static double undercoolingK(MeltingTable.Row row) {
        boolean other = Stream.of("Pb", "Bi", "In").anyMatch(e -> row.made().pct(e) >= PLENTY_PCT);
        return other ? OTHER_K : TIN_RICH_K;
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
