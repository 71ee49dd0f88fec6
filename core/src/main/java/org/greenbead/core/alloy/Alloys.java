package org.greenbead.core.alloy;

import java.util.List;
import java.util.Optional;

/**
 * The alloys that the first form of the product knows. Melting ranges: ISO 9453 (soft solder alloys) and, for
 * Sn42Bi58, the tin-bismuth eutectic; heats of fusion and conductivities are handbook means, see docs/thermal.md.
 * The maker's sheet of the paste in hand outranks this table.
 */
public final class Alloys {
    private static final String ISO = "ISO 9453; verify against the maker's sheet";
    private static final List<Alloy> TABLE = List.of(
            new Alloy("SAC305", 217, 220, 0.444e9, 58, false, false, ISO),
            // A eutectic melts at one temperature; half a degree either side keeps the enthalpy curve single-valued.
            new Alloy("Sn63Pb37", 182.5, 183.5, 0.353e9, 50, true, false, ISO),
            new Alloy("Sn62Pb36Ag2", 178.5, 179.5, 0.353e9, 50, true, false, ISO),
            new Alloy("Sn42Bi58", 138, 139, 0.392e9, 21, false, true, ISO));

    private Alloys() {
    }

    public static List<Alloy> all() {
        return TABLE;
    }

    /** @param name exact; "SnPb" and "SnBi" are read as their eutectics */
    public static Optional<Alloy> find(String name) {
        String wanted = switch (name) {
            case "SnPb" -> "Sn63Pb37";
            case "SnBi" -> "Sn42Bi58";
            default -> name;
        };
        return TABLE.stream().filter(a -> a.name().equals(wanted)).findFirst();
    }

    /** @throws IllegalArgumentException naming the known alloys */
    public static Alloy require(String name) {
        return find(name).orElseThrow(
                () -> new IllegalArgumentException("alloy \"" + name + "\" is not in the table; known are "
                        + String.join(", ", TABLE.stream().map(Alloy::name).toList())));
    }
}
