package org.greenbead.core.travel;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.record.Kept;

/**
 * Whether a donor fits a unit: memory type, revision of the board, region and firmware, each noted of both. What differs is named; what nobody noted
 * of one of them is asked for, and then the donor does not fit yet.
 *
 * @param differ fields that differ
 * @param ask    fields that are not noted of both
 */
public record DonorFit(List<String> differ, List<String> ask) {
    private static final List<String> FIELDS = List.of("memory_type", "revision", "region", "firmware");

    public DonorFit {
        differ = List.copyOf(differ);
        ask = List.copyOf(ask);
    }

    public static DonorFit of(Kept unit, Kept donor) {
        var differ = new ArrayList<String>();
        var ask = new ArrayList<String>();
        for (String field : FIELDS) {
            String mine = plain(unit.text(field));
            String theirs = plain(donor.text(field));
            if (mine.isEmpty() || theirs.isEmpty()) {
                ask.add(field);
            } else if (!mine.equals(theirs)) {
                differ.add(field);
            }
        }
        return new DonorFit(differ, ask);
    }

    /** Empty where it is not told yet. */
    public Optional<Boolean> fits() {
        return !differ.isEmpty() ? Optional.of(false) : ask.isEmpty() ? Optional.of(true) : Optional.empty();
    }

    private static String plain(String text) {
        return text.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
    }
}
