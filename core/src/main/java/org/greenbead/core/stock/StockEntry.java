package org.greenbead.core.stock;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.greenbead.core.alloy.MeltingTable;

/** A thing of stock from what a person types, field by field. */
public final class StockEntry {
    /** What can be noted of a thing; its words are {@code stock.field.<name>}. */
    public enum Field {
        NAME, ALLOY, LOT, UNIT, LEAST, PRICE, LIMIT_HOURS, USES_MAX, WASHES_MAX, APERTURE_MM, THICKNESS_MM, DIAMETER_MM, FITS;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private StockEntry() {
    }

    /** What is asked of a kind, in this order. */
    public static List<Field> asked(StockItem.Kind kind) {
        Set<Field> asked = EnumSet.of(Field.NAME);
        switch (kind) {
            case STENCIL ->
                asked.addAll(List.of(Field.FITS, Field.APERTURE_MM, Field.THICKNESS_MM, Field.USES_MAX,
                        Field.WASHES_MAX));
            case PASTE, SOLDER -> asked.addAll(List.of(Field.ALLOY, Field.LOT));
            case SPHERES -> asked.addAll(List.of(Field.ALLOY, Field.DIAMETER_MM, Field.LOT));
            case FLUX, SOLVENT, WICK -> asked.add(Field.LOT);
            case TIP, BLADE, NOZZLE -> asked.add(Field.DIAMETER_MM);
        }
        if (kind.ages()) {
            asked.add(Field.LIMIT_HOURS);
        }
        if (kind == StockItem.Kind.TIP || kind == StockItem.Kind.BLADE) {
            asked.add(Field.USES_MAX);
        }
        if (!kind.wears()) {
            asked.addAll(List.of(Field.UNIT, Field.LEAST, Field.PRICE));
        }
        return List.copyOf(asked);
    }

    /**
     * The thing with what was typed; empty fields are not noted. What was done with it before stays.
     *
     * @param before the thing as it is; empty for a new one
     * @throws IllegalArgumentException naming the field that cannot be read
     */
    public static StockItem read(Optional<StockItem> before, String id, StockItem.Kind kind,
            Map<Field, String> typed) {
        StockItem was = before.orElseGet(() -> StockItem.named(id, kind, "-"));
        return new StockItem(id, kind, text(typed, Field.NAME, was.name()), alloy(typed, was.alloy()),
                text(typed, Field.LOT, was.lot()), text(typed, Field.UNIT, was.unit()),
                number(typed, Field.LEAST, Optional.of(was.least())).orElse(0.0),
                number(typed, Field.PRICE, Optional.of(was.price())).orElse(0.0),
                number(typed, Field.LIMIT_HOURS, was.limitHours()),
                number(typed, Field.USES_MAX, was.usesMax()),
                number(typed, Field.WASHES_MAX, was.washesMax()),
                number(typed, Field.APERTURE_MM, was.apertureMm()),
                number(typed, Field.THICKNESS_MM, was.thicknessMm()),
                number(typed, Field.DIAMETER_MM, was.diameterMm()),
                typed.containsKey(Field.FITS) ? parts(typed.get(Field.FITS)) : was.fits(), was.moments());
    }

    private static String text(Map<Field, String> typed, Field field, String was) {
        return typed.containsKey(field) ? typed.get(field).strip() : was;
    }

    /** The table's name of an alloy that it has; what it has not stays as it was typed. */
    private static String alloy(Map<Field, String> typed, String was) {
        String name = text(typed, Field.ALLOY, was);
        return MeltingTable.standard().find(name).map(MeltingTable.Row::name).orElse(name);
    }

    private static Optional<Double> number(Map<Field, String> typed, Field field, Optional<Double> was) {
        if (!typed.containsKey(field)) {
            return was;
        }
        String text = typed.get(field).strip().replace(',', '.');
        if (text.isEmpty()) {
            return Optional.empty();
        }
        try {
            return Optional.of(Double.valueOf(text));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("\"" + text + "\" is no number for "
                    + field.word().replace('_', ' '), e);
        }
    }

    private static List<String> parts(String typed) {
        return new ArrayList<>(
                Arrays.stream(typed.split("[,; ]+")).map(String::strip).filter(p -> !p.isEmpty())
                        .distinct().toList());
    }

    /** What can be done with a thing of this kind, in the order in which keys stand for it; using it is not among them. */
    public static List<StockItem.Act> acts(StockItem.Kind kind) {
        var acts = new ArrayList<StockItem.Act>();
        if (kind.ages()) {
            acts.addAll(List.of(StockItem.Act.OPENED, StockItem.Act.OUT, StockItem.Act.BACK));
        }
        if (kind == StockItem.Kind.STENCIL) {
            acts.addAll(List.of(StockItem.Act.WASHED, StockItem.Act.FLAT, StockItem.Act.BOWED,
                    StockItem.Act.BLOCKED,
                    StockItem.Act.CLEAR));
        }
        if (!kind.wears()) {
            acts.addAll(List.of(StockItem.Act.TAKEN_IN, StockItem.Act.COUNTED));
        }
        acts.add(StockItem.Act.SCRAPPED);
        return List.copyOf(acts);
    }

    /** Whether an act has an amount that must be said. */
    public static boolean counts(StockItem.Act act) {
        return act == StockItem.Act.TAKEN_IN || act == StockItem.Act.COUNTED;
    }
}
