package org.greenbead.core.alloy;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What the alloys that benches use are made of and where they melt, from {@code alloys.txt}. Immutable. */
public final class MeltingTable {
    private static final MeltingTable SHIPPED = new MeltingTable(resource());
    private final Map<String, Row> rows = new LinkedHashMap<>();

    /**
     * @param fusionJPerM3 heat of fusion per volume
     * @param kWPerMK      thermal conductivity
     * @param source       where its melting range was read
     */
    public record Row(String name, Composition made, double solidusC, double liquidusC, double fusionJPerM3,
            double kWPerMK, String source) {}

    private MeltingTable(String text) {
        for (String line : text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
            String[] c = line.split("\\s*\\|\\s*");
            rows.put(c[0], new Row(c[0], Composition.read(c[1]), Double.parseDouble(c[2]),
                    Double.parseDouble(c[3]), 1e9 * Double.parseDouble(c[4]), Double.parseDouble(c[5]),
                    c[6]));
        }
    }

    private static String resource() {
        try (InputStream in = MeltingTable.class.getResourceAsStream("alloys.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static MeltingTable standard() {
        return SHIPPED;
    }

    public List<Row> rows() {
        return List.copyOf(rows.values());
    }

    /** By its name, in whatever case it is typed. */
    public Optional<Row> find(String alloy) {
        String name = switch (alloy) {
            case "SnPb" -> "Sn63Pb37";
            case "SnBi" -> "Sn42Bi58";
            default -> alloy;
        };
        return Optional.ofNullable(rows.get(name)).or(
                () -> rows.values().stream().filter(r -> r.name().equalsIgnoreCase(name)).findFirst());
    }

    /** @throws IllegalArgumentException naming the alloys that there are */
    public Row require(String alloy) {
        return find(alloy).orElseThrow(() -> new IllegalArgumentException("alloy \"" + alloy
                + "\" is not in the table; known are " + String.join(", ", rows.keySet())));
    }
}
