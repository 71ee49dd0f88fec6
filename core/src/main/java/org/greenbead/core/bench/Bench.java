package org.greenbead.core.bench;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Check;

/**
 * One workplace with its measured character.
 *
 * @param ambientC room temperature, °C, 0 to 45
 * @param heater   under the board; empty where all heat comes from the air
 * @param air      the station in hand; others are among the equipment
 * @param probes   thermocouples as they are usually fixed for the board in hand
 * @param calibrations what its own runs have told, oldest first
 * @param equipment what else stands here
 */
public record Bench(String id, String title, double ambientC, Optional<BottomHeater> heater, AirStation air,
        List<ProbePlace> probes, List<Calibration> calibrations, Equipment equipment) {
    public Bench(String id, String title, double ambientC, Optional<BottomHeater> heater, AirStation air,
            List<ProbePlace> probes, List<Calibration> calibrations) {
        this(id, title, ambientC, heater, air, probes, calibrations, Equipment.NONE);
    }

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
        equipment = equipment == null ? Equipment.NONE : equipment;
        if (equipment.station(air.name()).isPresent()) {
            throw new IllegalArgumentException("two air stations of bench " + id + " are called "
                    + air.name() + "; give one another name");
        }
    }

    /** The same bench with other dials on its air. */
    public Bench with(AirDial dial) {
        return with(air.with(dial));
    }

    /** The same bench with its air station otherwise set up. */
    public Bench with(AirStation other) {
        return new Bench(id, title, ambientC, heater, other, probes, calibrations, equipment);
    }

    /** The same bench with other equipment. */
    public Bench with(Equipment other) {
        return new Bench(id, title, ambientC, heater, air, probes, calibrations, other);
    }

    // Air stations.

    /** All air stations, the one in hand first. */
    public List<AirStation> stations() {
        var all = new ArrayList<AirStation>();
        all.add(air);
        all.addAll(equipment.stations());
        return all;
    }

    /** Whether an air station of this name stands here. */
    public boolean has(String station) {
        return stations().stream().anyMatch(s -> s.name().equals(station));
    }

    /**
     * The same bench with another of its stations in hand.
     *
     * @throws IllegalArgumentException when no station here has that name
     */
    public Bench taking(String station) {
        if (air.name().equals(station)) {
            return this;
        }
        AirStation taken = equipment.station(station).orElseThrow(() -> new IllegalArgumentException(
                "bench " + id + " has no air station " + station + "; it has "
                        + String.join(", ", stations().stream().map(AirStation::name).toList())));
        return new Bench(id, title, ambientC, heater, taken, probes, calibrations,
                equipment.instead(station, air));
    }

    /** All air stations by their names, so that none changes its place when another is taken. */
    public List<AirStation> stationsByName() {
        return stations().stream().sorted(Comparator.comparing(AirStation::name)).toList();
    }

    /** Name of the station after the one in hand; its own where it is alone. */
    public String nextStation() {
        List<String> all = stationsByName().stream().map(AirStation::name).toList();
        return all.get((all.indexOf(air.name()) + 1) % all.size());
    }

    /** One more station, not in hand yet. What runs have told before is then of the one that was alone. */
    public Bench adding(AirStation more) {
        if (has(more.name())) {
            throw new IllegalArgumentException("bench " + id + " already has an air station "
                    + more.name() + "; give the new one another name");
        }
        var others = new ArrayList<>(equipment.stations());
        others.add(more);
        List<Calibration> named = calibrations.stream()
                .map(c -> c.station().isEmpty() ? c.by(air.name()) : c).toList();
        return new Bench(id, title, ambientC, heater, air, probes, named, equipment.stations(others));
    }

    /** Without a station that is not in hand; what runs have told with it stays, for the heater and the boards. */
    public Bench without(String station) {
        if (air.name().equals(station)) {
            throw new IllegalArgumentException("air station " + station
                    + " is in hand; take another one first, then remove it");
        }
        if (equipment.station(station).isEmpty()) {
            throw new IllegalArgumentException("bench " + id + " has no air station " + station);
        }
        return with(equipment.stations(
                equipment.stations().stream().filter(s -> !s.name().equals(station)).toList()));
    }

    /** The station in hand called otherwise; what runs have told goes with it. */
    public Bench callingAir(String name) {
        List<Calibration> told = calibrations.stream()
                .map(c -> c.station().equals(air.name()) ? c.by(name) : c).toList();
        return new Bench(id, title, ambientC, heater, air.called(name), probes, told, equipment);
    }

    /**
     * The air station that this bench calls otherwise than it did before: as many stand here, one name is gone and one is new.
     *
     * @return the name before, and the name now; empty where none was called otherwise
     */
    public Optional<Renamed> renamed(Bench before) {
        var gone = new ArrayList<>(before.stations().stream().map(AirStation::name).toList());
        var fresh = new ArrayList<>(stations().stream().map(AirStation::name).toList());
        boolean asMany = gone.size() == fresh.size();
        List<String> old = List.copyOf(gone);
        gone.removeAll(fresh);
        fresh.removeAll(old);
        return asMany && gone.size() == 1 && fresh.size() == 1
                ? Optional.of(new Renamed(gone.getFirst(), fresh.getFirst()))
                : Optional.empty();
    }

    /** An air station's name before and now. */
    public record Renamed(String before, String now) {}

    /** Whether a run's air was blown by the station in hand, as far as is known. */
    public boolean blewHere(Calibration told) {
        return told.station().isEmpty() || told.station().equals(air.name());
    }

    /** The same bench, called otherwise. */
    public Bench titled(String other) {
        return new Bench(id, other, ambientC, heater, air, probes, calibrations, equipment);
    }

    /** The same bench in a room of another temperature, °C. */
    public Bench in(double roomC) {
        return new Bench(id, title, roomC, heater, air, probes, calibrations, equipment);
    }

    /** The same bench under another name; what runs have told of this one is not known of that. */
    public Bench copy(String otherId) {
        return new Bench(otherId, title, ambientC, heater, air, probes, List.of(), equipment);
    }

    /** Whether a heater under the board touches it. */
    public boolean plate() {
        return heater.filter(BottomHeater::contact).isPresent();
    }

    /** The same bench with the same heater otherwise set up: size, gap, highest setting. */
    public Bench heated(BottomHeater changed) {
        return new Bench(id, title, ambientC, Optional.of(changed), air, probes, calibrations, equipment);
    }

    /** Another heater stands under the board, or none: what runs have told was of the one before. */
    public Bench heatedBy(Optional<BottomHeater> other) {
        return new Bench(id, title, ambientC, other, air, probes, List.of(), equipment);
    }

    /** The same bench as it is without any thermocouple. */
    public Bench blind() {
        return probing(List.of());
    }

    /** The same bench with thermocouples fixed otherwise. */
    public Bench probing(List<ProbePlace> places) {
        return new Bench(id, title, ambientC, heater, air, places, calibrations, equipment);
    }

    /** With a probe added, or in the place of its namesake. */
    public Bench put(ProbePlace probe) {
        var places = new ArrayList<>(probes);
        int at = IntStream.range(0, places.size()).filter(i -> places.get(i).name().equals(probe.name()))
                .findFirst().orElse(-1);
        if (at < 0) {
            places.add(probe);
        } else {
            places.set(at, probe);
        }
        return probing(places);
    }

    public Bench withoutProbe(String name) {
        return probing(probes.stream().filter(p -> !p.name().equals(name)).toList());
    }

    public Optional<ProbePlace> probe(String name) {
        return probes.stream().filter(p -> p.name().equals(name)).findFirst();
    }

    /** As it is for a board: thermocouples that are usually fixed where this board does not reach are not on it until somebody puts them. */
    public Bench on(Board board) {
        return probing(probes.stream().filter(p -> board.reaches(p.atMm())).toList());
    }

    /** The first channel of the logger that no probe is on. */
    public int freeChannel() {
        return IntStream.rangeClosed(1, 32).filter(c -> probes.stream().noneMatch(p -> p.channel() == c))
                .findFirst().orElseThrow(() -> new IllegalArgumentException(
                        "all 32 channels of the logger are taken; take a probe away first"));
    }

    /** The same bench with another history. */
    public Bench with(List<Calibration> history) {
        return new Bench(id, title, ambientC, heater, air, probes, history, equipment);
    }
}
