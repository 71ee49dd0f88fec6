package org.greenbead.core.run;

import java.util.List;
import java.util.OptionalDouble;

/**
 * Where a run goes under some settings, by the estimate.
 *
 * @param seconds   how far was looked
 * @param jointC    coldest joint at the end, °C
 * @param meltsInS  when every joint is liquid; empty when not within the time
 * @param rooms     highest value of every protected part within the time
 */
public record Ahead(double seconds, double jointC, OptionalDouble meltsInS, List<Room> rooms) {
    public Ahead {
        rooms = List.copyOf(rooms);
    }
}
