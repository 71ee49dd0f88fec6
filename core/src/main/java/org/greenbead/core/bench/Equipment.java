package org.greenbead.core.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * What else stands at a bench. Texts are empty where nobody has said it.
 *
 * @param stations   further air stations, not the one in hand
 * @param support    what holds the board
 * @param meter      what rails are read with, and its polarity
 * @param supply     address of the bench supply
 * @param microscope what is looked through
 * @param photo      name of a picture of the bench, among the pictures of the data folder
 */
public record Equipment(List<AirStation> stations, String support, String meter, String supply,
        String microscope, String photo) {
    /** A bench with one air station of which nothing else was said. */
    public static final Equipment NONE = new Equipment(List.of(), "", "", "", "", "");
    private static final int MOST_STATIONS = 12;
    private static final int LONGEST = 120;

    public Equipment {
        stations = stations == null ? List.of() : List.copyOf(stations);
        if (stations.size() > MOST_STATIONS) {
            throw new IllegalArgumentException(
                    "a bench has at most " + (MOST_STATIONS + 1) + " air stations; remove one first");
        }
        Check.distinct("air station", stations, AirStation::name);
        support = said("support", support);
        meter = said("meter", meter);
        supply = said("supply", supply);
        microscope = said("microscope", microscope);
        photo = said("photo", photo);
    }

    private static String said(String what, String text) {
        if (text == null || text.isBlank()) {
            return "";
        }
        String line = Check.text(what, text.strip());
        if (line.length() > LONGEST) {
            throw new IllegalArgumentException(
                    what + " has " + line.length() + " signs; allowed are " + LONGEST);
        }
        return line;
    }

    /** A station of this name that is not in hand. */
    public Optional<AirStation> station(String name) {
        return stations.stream().filter(s -> s.name().equals(name)).findFirst();
    }

    Equipment stations(List<AirStation> others) {
        return new Equipment(others, support, meter, supply, microscope, photo);
    }

    /** One station put away where another was. */
    Equipment instead(String taken, AirStation putAway) {
        var others = new ArrayList<>(stations);
        others.replaceAll(s -> s.name().equals(taken) ? putAway : s);
        return stations(others);
    }

    /** The same board held by something else. */
    public Equipment heldBy(String what) {
        return new Equipment(stations, what, meter, supply, microscope, photo);
    }

    public Equipment readWith(String what) {
        return new Equipment(stations, support, what, supply, microscope, photo);
    }

    public Equipment supplied(String address) {
        return new Equipment(stations, support, meter, address, microscope, photo);
    }

    public Equipment lookedThrough(String what) {
        return new Equipment(stations, support, meter, supply, what, photo);
    }

    public Equipment pictured(String name) {
        return new Equipment(stations, support, meter, supply, microscope, name);
    }
}
