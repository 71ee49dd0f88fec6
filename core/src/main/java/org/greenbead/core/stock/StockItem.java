package org.greenbead.core.stock;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * One jar, stencil, bottle or tool of the house.
 *
 * @param id          as on its label, such as "ST-03"; letters, digits and hyphens
 * @param name        what it is
 * @param alloy       of paste, spheres or solder; empty = none or not noted
 * @param lot         the maker's; empty = not noted
 * @param unit        in which its amount is counted, "g", "pcs"; empty = not counted
 * @param least       amount from which on it is on the reorder list; 0 = never
 * @param price       of one unit, in the house's currency; 0 = not noted
 * @param limitHours  that it may be out of its store, all together; the maker's
 * @param usesMax     of a stencil, tip or blade
 * @param washesMax   baths that a coated stencil stands
 * @param apertureMm  of a stencil
 * @param thicknessMm of a stencil
 * @param diameterMm  of spheres, nozzle or tip
 * @param fits        parts that it is for; empty = any
 * @param moments     what was done with it, in order; only ever added to
 */
public record StockItem(String id, Kind kind, String name, String alloy, String lot, String unit,
        double least,
        double price, Optional<Double> limitHours, Optional<Double> usesMax, Optional<Double> washesMax,
        Optional<Double> apertureMm, Optional<Double> thicknessMm, Optional<Double> diameterMm,
        List<String> fits, List<Moment> moments) {
    /** What it is. */
    public enum Kind {
        STENCIL, PASTE, FLUX, SPHERES, WICK, SOLDER, TIP, BLADE, NOZZLE, SOLVENT;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }

        /** Kept cold and counted in hours once it is out. */
        public boolean ages() {
            return this == PASTE || this == FLUX;
        }

        /** Wears with every use. */
        public boolean wears() {
            return this == STENCIL || this == TIP || this == BLADE;
        }
    }

    /** What is done with it. */
    public enum Act {
        /** Delivered, by an amount. */
        TAKEN_IN,
        /** Opened, and out of its store from then on. */
        OPENED,
        /** Out of its store. */
        OUT,
        /** Back in it. */
        BACK,
        /** Used for a job, by an amount. */
        USED,
        /** Washed or bathed. */
        WASHED,
        /** Counted: so much is there. */
        COUNTED,
        /** Seen not to lie flat. */
        BOWED,
        /** Seen to lie flat. */
        FLAT,
        /** An opening, or more, is blocked. */
        BLOCKED,
        /** All openings are free. */
        CLEAR,
        /** Thrown away. */
        SCRAPPED;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * One thing that was done.
     *
     * @param amount where the act has one; else 0
     * @param job    for which it was used; empty = none
     */
    public record Moment(Instant at, Act act, double amount, String job, String by) {
        public Moment {
            Check.present("time of a moment", at);
            Check.present("act of a moment", act);
            Check.within("amount", amount, 0, 1e6, "");
            job = job == null ? "" : job;
            by = by == null ? "" : by;
        }
    }

    public StockItem {
        if (id == null || !id.matches("[A-Za-z0-9][A-Za-z0-9-]{0,39}")) {
            throw new IllegalArgumentException("\"" + id
                    + "\" is no number for a thing in stock; use letters, digits and hyphens, at most 40");
        }
        Check.present("kind of " + id, kind);
        Check.text("name of " + id, name);
        alloy = alloy == null ? "" : alloy;
        lot = lot == null ? "" : lot;
        unit = unit == null ? "" : unit;
        Check.within("least amount of " + id, least, 0, 1e6, unit);
        Check.within("price of " + id, price, 0, 1e6, "");
        limitHours.ifPresent(v -> Check.within("hours out of " + id, v, 0, 1e5, "h"));
        usesMax.ifPresent(v -> Check.within("uses of " + id, v, 1, 1e6, ""));
        washesMax.ifPresent(v -> Check.within("baths of " + id, v, 1, 1e6, ""));
        apertureMm.ifPresent(v -> Check.within("opening of " + id, v, 0.05, 3, "mm"));
        thicknessMm.ifPresent(v -> Check.within("thickness of " + id, v, 0.02, 1, "mm"));
        diameterMm.ifPresent(v -> Check.within("diameter of " + id, v, 0.05, 60, "mm"));
        fits = fits == null ? List.of() : List.copyOf(fits);
        moments = moments == null ? List.of() : List.copyOf(moments);
    }

    /** A new one of which nothing more is noted. */
    public static StockItem named(String id, Kind kind, String name) {
        return new StockItem(id, kind, name, "", "", "", 0, 0, Optional.empty(), Optional.empty(),
                Optional.empty(),
                Optional.empty(), Optional.empty(), Optional.empty(), List.of(), List.of());
    }

    /** With one thing more done. */
    public StockItem with(Moment done) {
        var longer = new ArrayList<>(moments);
        longer.add(done);
        return new StockItem(id, kind, name, alloy, lot, unit, least, price, limitHours, usesMax, washesMax,
                apertureMm,
                thicknessMm, diameterMm, fits, longer);
    }

    /** Without the last thing that was done. @throws IllegalArgumentException when nothing was */
    public StockItem undone() {
        if (moments.isEmpty()) {
            throw new IllegalArgumentException("nothing was done with " + id + " that could be undone");
        }
        return new StockItem(id, kind, name, alloy, lot, unit, least, price, limitHours, usesMax, washesMax,
                apertureMm,
                thicknessMm, diameterMm, fits, moments.subList(0, moments.size() - 1));
    }

    /** Whether it is for a part; anything is where nothing is noted. */
    public boolean fits(String part) {
        return fits.isEmpty() || fits.stream().anyMatch(f -> f.equalsIgnoreCase(part));
    }
}
