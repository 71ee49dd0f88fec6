package org.greenbead.core.bench;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Check;

/**
 * One workplace with its measured character.
 *
 * @param ambientC room temperature, °C, 0 to 45
 * @param heater   under the board; empty where all heat comes from the air
 * @param probes   thermocouples as they are usually fixed for the board in hand
 * @param calibrations what its own runs have told, oldest first
 */
public record Bench(String id, String title, double ambientC, Optional<BottomHeater> heater, AirStation air,
        List<ProbePlace> probes, List<Calibration> calibrations) {
    public Bench(String id, String title, double ambientC, Optional<BottomHeater> heater, AirStation air,
            List<ProbePlace> probes) {
        this(id, title, ambientC, heater, air, probes, List.of());
    }

    public Bench {
        Check.id("bench id", id);
        Check.text("bench title", title);
        Check.within("room temperature", ambientC, 0, 45, "°C");
        heater = heater == null ? Optional.empty() : heater;
        Check.present("air station", air);
        probes = List.copyOf(Check.present("probes", probes));
        Check.distinct("probe", probes, ProbePlace::name);
        Check.distinct("probe channel", probes, p -> Integer.toString(p.channel()));
        calibrations = calibrations == null ? List.of() : List.copyOf(calibrations);
        Check.distinct("calibration", calibrations, Calibration::run);
    }

    /** The same bench with other dials on its air. */
    public Bench with(AirDial dial) {
        return with(air.with(dial));
    }

    /** The same bench with another air station. */
    public Bench with(AirStation other) {
        return new Bench(id, title, ambientC, heater, other, probes, calibrations);
    }

    /** The same bench, called otherwise. */
    public Bench titled(String other) {
        return new Bench(id, other, ambientC, heater, air, probes, calibrations);
    }

    /** The same bench in a room of another temperature, °C. */
    public Bench in(double roomC) {
        return new Bench(id, title, roomC, heater, air, probes, calibrations);
    }

    /** The same bench under another name; what runs have told of this one is not known of that. */
    public Bench copy(String otherId) {
        return new Bench(otherId, title, ambientC, heater, air, probes, List.of());
    }

    /** Whether a heater under the board touches it. */
    public boolean plate() {
        return heater.filter(BottomHeater::contact).isPresent();
    }

    /** The same bench with the same heater otherwise set up: size, gap, highest setting. */
    public Bench heated(BottomHeater changed) {
        return new Bench(id, title, ambientC, Optional.of(changed), air, probes, calibrations);
    }

    /** Another heater stands under the board, or none: what runs have told was of the one before. */
    public Bench heatedBy(Optional<BottomHeater> other) {
        return new Bench(id, title, ambientC, other, air, probes, List.of());
    }

    /** The same bench as it is without any thermocouple. */
    public Bench blind() {
        return new Bench(id, title, ambientC, heater, air, List.of(), calibrations);
    }

    /** The same bench with another history. */
    public Bench with(List<Calibration> history) {
        return new Bench(id, title, ambientC, heater, air, probes, history);
    }
}
