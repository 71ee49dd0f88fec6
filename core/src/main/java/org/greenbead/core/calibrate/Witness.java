package org.greenbead.core.calibrate;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.recipe.AirSetting;

/**
 * One heating of a scrap board with dots of solder on it, watched: each dot that melts is pressed and named. No thermocouple is needed.
 *
 * @param id      of the heating
 * @param dots    flat films of solder, under 0.1 mm thick: a ball of 1 mm melts 6 to 16 s late
 * @param steps   what heater and air were set to, in order of time
 * @param presses which dot melted when; a dot without one stayed silent, which tells something too
 * @param endS    when nobody looked any more, s
 * @param foreign true on a board of another kind: then only heater and jet carry over
 * @param readings of thermocouples of the bench that were on the same board, if there were any; the same fit takes both
 */
public record Witness(String id, List<Dot> dots, List<Step> steps, List<Press> presses, double endS,
        boolean foreign, List<Read> readings) {
    private static final double LONGEST_S = 3600;

    public Witness(String id, List<Dot> dots, List<Step> steps, List<Press> presses, double endS,
            boolean foreign) {
        this(id, dots, steps, presses, endS, foreign, List.of());
    }

    /** What a thermocouple showed. @param probe of the bench */
    public record Read(String probe, double timeS, double celsius) {
        public Read {
            Check.text("probe of a reading", probe);
            Check.within("time of a reading", timeS, 0, LONGEST_S, "s");
            Check.within("reading of " + probe, celsius, -60, 600, "°C");
        }
    }

    /** A dot of solder; one at the target's own place lies on its body. @param name "A1" @param alloy of the table */
    public record Dot(String name, String alloy, Side side, Point atMm) {
        public Dot {
            Check.text("dot", name);
            Check.present("side of dot " + name, side);
            Check.present("place of dot " + name, atMm);
            Alloys.require(alloy);
        }

        /** Where it visibly melts, °C: the middle of its range. */
        public double meltsC() {
            return (Alloys.require(alloy).solidusC() + Alloys.require(alloy).liquidusC()) / 2;
        }
    }

    /** From {@code fromS} on heater and air are set so. */
    public record Step(double fromS, Optional<Double> heaterC, Optional<AirSetting> air) {
        public Step {
            Check.within("time of a step", fromS, 0, LONGEST_S, "s");
            heaterC = heaterC == null ? Optional.empty() : heaterC;
            air = air == null ? Optional.empty() : air;
        }
    }

    /** A dot was seen to melt and its key pressed. */
    public record Press(String dot, double timeS) {
        public Press {
            Check.text("dot of a press", dot);
            Check.within("time of a press", timeS, 0, LONGEST_S, "s");
        }
    }

    public Witness {
        Check.text("witness id", id);
        dots = List.copyOf(Check.present("dots", dots));
        steps = List.copyOf(Check.present("steps", steps));
        presses = List.copyOf(Check.present("presses", presses));
        readings = readings == null ? List.of() : List.copyOf(readings);
        Check.distinct("dot", dots, Dot::name);
        Check.distinct("press of dot", presses, Press::dot);
        Check.within("end", endS, 1, LONGEST_S, "s");
        if (steps.isEmpty()) {
            throw new IllegalArgumentException("steps is empty; say what heater and air were set to");
        }
        for (int i = 1; i < steps.size(); i++) {
            if (steps.get(i).fromS() <= steps.get(i - 1).fromS()) {
                throw new IllegalArgumentException("step " + (i + 1) + " begins at " + steps.get(i).fromS()
                        + " s, not after the one before it; put the steps in order of time");
            }
        }
        for (Press press : presses) {
            if (dots.stream().noneMatch(d -> d.name().equals(press.dot()))) {
                throw new IllegalArgumentException(
                        "\"" + press.dot() + "\" was pressed, and there is no such dot; the dots are "
                                + String.join(", ", dots.stream().map(Dot::name).toList()));
            }
        }
    }
}
