package org.greenbead.core.finding;

import java.util.Locale;

/** Every rule of the book. Its words stand in the trade bundle under {@code rule.<key>.what}, {@code .why}, {@code .remedy}, {@code .source}. */
public enum Rule {
    CELL_CONNECTED, SUPPLY_CONNECTED, BOARD_NOT_FLAT, NO_DRY_OUT, TIME_ENDS_PEAK, AIR_TAKEN_FOR_JOINT, PEAK_TOO_LOW, BODY_LIMIT, NEIGHBOUR_NEAR_MELT, UNDERSIDE_NEAR_MELT, PART_LIMIT, RAMP_UP, HEATER_LAG, PROBE_LOST, PROBE_FROZEN, PROBE_DISAGREES, LINK_LOST, STAGE_OVERRAN, MELT_DOUBTED, MELT_TOO_LONG, MOVED_BEFORE_SOLID, COOLED_TOO_FAST, MELTS_USED_UP, UNIT_SLIP, NO_EXTRACTION, LEAD_NO_GLOVES, ORIENTATION_MISSING, NO_PROBE, NOT_RECORDED, RESUMED_AFTER_GAP, ROOM_RUNS_OUT, ROOM_CANNOT_HOLD, PROBES_SWAPPED, ACT_WRONG, ACT_AT_A_PRICE;

    public String key() {
        return "rule." + name().toLowerCase(Locale.ROOT);
    }
}
