package org.greenbead.core.bench;

import java.util.List;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Check;

/**
 * One workplace with its measured character.
 *
 * @param ambientC room temperature, °C, 0 to 45
 * @param probes   thermocouples as they are usually fixed for the board in hand
 */
public record Bench(String id, String title, double ambientC, BottomHeater heater, AirStation air,
        List<ProbePlace> probes) {
    public Bench {
        Check.text("bench id", id);
        Check.text("bench title", title);
        Check.within("room temperature", ambientC, 0, 45, "°C");
        Check.present("heater", heater);
        Check.present("air station", air);
        probes = List.copyOf(Check.present("probes", probes));
        Check.distinct("probe", probes, ProbePlace::name);
        Check.distinct("probe channel", probes, p -> Integer.toString(p.channel()));
    }
}
