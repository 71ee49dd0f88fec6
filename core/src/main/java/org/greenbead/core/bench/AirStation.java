package org.greenbead.core.bench;

import java.util.Comparator;
import java.util.List;
import org.greenbead.core.quantity.Check;

/**
 * A hot-air tool.
 *
 * @param nozzlesMm  round nozzles in the drawer, inner diameter, 3 to 60
 * @param maxC       highest set-point, 100 to 600
 * @param maxLpm     highest displayed flow, L/min, 5 to 300
 * @param lossWPerK  heat lost between heater and nozzle exit (UA), 0 to 0.5
 * @param tauS       lag of the exit temperature, 0.5 to 60
 * @param multiplier measured heat transfer over the nominal one, 0.3 to 3; 1 until calibrated
 * @param dial       what its dials say; litres as they stand where nothing else is noted
 */
public record AirStation(String name, List<Double> nozzlesMm, double maxC, double maxLpm, double lossWPerK,
        double tauS, double multiplier, AirDial dial) {
    public AirStation(String name, List<Double> nozzlesMm, double maxC, double maxLpm, double lossWPerK,
            double tauS, double multiplier) {
        this(name, nozzlesMm, maxC, maxLpm, lossWPerK, tauS, multiplier, AirDial.PLAIN);
    }

    public AirStation {
        Check.text("air station name", name);
        nozzlesMm = List.copyOf(Check.present("nozzles", nozzlesMm));
        if (nozzlesMm.isEmpty()) {
            throw new IllegalArgumentException(
                    "air station " + name + " has no nozzle; list at least one diameter in mm");
        }
        for (double nozzle : nozzlesMm) {
            Check.within("nozzle", nozzle, 3, 60, "mm");
        }
        Check.within("air maximum", maxC, 100, 600, "°C");
        Check.within("flow maximum", maxLpm, 5, 300, "L/min");
        Check.within("air loss", lossWPerK, 0, 0.5, "W/K");
        Check.within("air lag", tauS, 0.5, 60, "s");
        Check.within("air multiplier", multiplier, 0.3, 3, "");
        dial = dial == null ? AirDial.PLAIN : dial;
        if (!dial.marks().isEmpty() && dial.marks().getLast().lpm() > maxLpm + 1e-9) {
            throw new IllegalArgumentException("the air dial of " + name + " ends at "
                    + dial.marks().getLast().lpm() + " L/min, the station at " + maxLpm
                    + "; one of them is wrong");
        }
    }

    public AirStation with(AirDial other) {
        return new AirStation(name, nozzlesMm, maxC, maxLpm, lossWPerK, tauS, multiplier, other);
    }

    /** The nozzle in the drawer whose diameter is nearest to this, mm. */
    public double nozzleNearest(double mm) {
        return nozzlesMm.stream().min(Comparator.comparingDouble(n -> Math.abs(n - mm))).orElseThrow();
    }

    /** One more that begins as this one is: its dials and what was measured of this one are not known of it. */
    public AirStation another(String itsName) {
        return called(itsName).with(AirDial.PLAIN).measured(1);
    }

    /** The same with another measured heat transfer over the nominal one. */
    public AirStation measured(double times) {
        return new AirStation(name, nozzlesMm, maxC, maxLpm, lossWPerK, tauS, times, dial);
    }

    /** The same, called otherwise. */
    public AirStation called(String other) {
        return new AirStation(other, nozzlesMm, maxC, maxLpm, lossWPerK, tauS, multiplier, dial);
    }

    /** The same with another lag of the exit. */
    public AirStation lagging(double seconds) {
        return new AirStation(name, nozzlesMm, maxC, maxLpm, lossWPerK, seconds, multiplier, dial);
    }

    /** What leaves the heater when this is set, °C. */
    public double leavesC(double setC) {
        return setC + dial.offsetK();
    }

    /** The same with other nozzles in the drawer, mm. */
    public AirStation nozzles(List<Double> innerMm) {
        return new AirStation(name, innerMm, maxC, maxLpm, lossWPerK, tauS, multiplier, dial);
    }

    /** The same that can be set up to here, °C. */
    public AirStation upTo(double highestC) {
        return new AirStation(name, nozzlesMm, highestC, maxLpm, lossWPerK, tauS, multiplier, dial);
    }

    /** The same that blows so much at most, L/min. */
    public AirStation blowing(double most) {
        return new AirStation(name, nozzlesMm, maxC, most, lossWPerK, tauS, multiplier, dial);
    }
}
