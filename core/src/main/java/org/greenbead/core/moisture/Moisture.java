package org.greenbead.core.moisture;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** Floor life by moisture level, and bakes by body thickness. Immutable. */
public final class Moisture {
    private static final Moisture SHIPPED = new Moisture(resource());
    /** Hours past the floor life beyond which the longer bake holds (J-STD-033, note to the bake table; verify). */
    private static final double LONG_OPEN_H = 72;
    private final Map<String, Double> lives = new LinkedHashMap<>();
    private final List<Row> rows = new ArrayList<>();

    private record Row(double thickestMm, String level, double bakeC, double longH, double shortH) {}

    /**
     * A way to dry a part.
     *
     * @param bakeC  oven, °C
     * @param hours  for how long
     * @param marginK degrees below the lowest solidus that the oven stays; NaN when that is not known
     */
    public record Bake(double bakeC, double hours, double marginK, Verdict verdict) {}

    /** What a bake does to what is soldered already. */
    public enum Verdict {
        PASS, CARE, STOP
    }

    private Moisture(String text) {
        for (String line : text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
            String[] w = line.split("\\s+");
            if (w[0].equals("floor")) {
                lives.put(w[1], Double.valueOf(w[2]));
            } else {
                rows.add(new Row(Double.parseDouble(w[1]), w[2], Double.parseDouble(w[3]),
                        Double.parseDouble(w[4]), Double.parseDouble(w[5])));
            }
        }
    }

    private static String resource() {
        try (InputStream in = Moisture.class.getResourceAsStream("moisture.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static Moisture standard() {
        return SHIPPED;
    }

    /** Hours that a part of this level may lie open at 30 °C and 60 % humidity; empty for an unknown level. */
    public Optional<Double> floorLifeH(String level) {
        return Optional.ofNullable(lives.get(level.toLowerCase(Locale.ROOT).replace("msl", "").strip()));
    }

    /** Hours left; below 0 = past its floor life; empty for an unknown level. */
    public Optional<Double> leftH(String level, double openH) {
        return floorLifeH(level).map(life -> life - openH);
    }

    /** How hot a whole board may become: within 5 K of the lowest solidus it is stopped, within 20 K it wants care (probe error, creep). */
    public static Verdict heat(double heatC, double lowestSolidusC) {
        return heatC >= lowestSolidusC - 5
                ? Verdict.STOP
                : heatC >= lowestSolidusC - 20 ? Verdict.CARE : Verdict.PASS;
    }

    /**
     * Every bake that the table offers, the quickest first.
     *
     * @param thicknessMm    of the body, up to 4.5
     * @param openH          hours out of dry storage
     * @param lowestSolidusC on the board that goes into the oven; NaN for a loose part
     * @return empty for level 1, an unknown level, or a thicker body (the maker's sheet decides)
     */
    public List<Bake> bakes(String level, double thicknessMm, double openH, double lowestSolidusC) {
        String known = level.toLowerCase(Locale.ROOT).replace("msl", "").strip();
        boolean longer = floorLifeH(known).map(life -> openH - life > LONG_OPEN_H).orElse(true);
        double class0 = rows.stream().mapToDouble(Row::thickestMm).filter(t -> thicknessMm <= t).min()
                .orElse(Double.NaN);
        return rows.stream().filter(r -> r.thickestMm == class0 && r.level.equals(known)).map(r -> {
            boolean soldered = Double.isFinite(lowestSolidusC);
            return new Bake(r.bakeC, longer ? r.longH : r.shortH,
                    soldered ? lowestSolidusC - r.bakeC : Double.NaN,
                    soldered ? heat(r.bakeC, lowestSolidusC) : Verdict.PASS);
        }).toList();
    }
}
