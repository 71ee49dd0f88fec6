package org.greenbead.core.bench;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.quantity.Quantity;

/**
 * What the dials of an air station say, and what that means. Recipes and the model count in litres a minute; the technician
 * reads and sets the dial. Between two marks the flow goes in a straight line. The marks are nominal, out of a manual or a guess:
 * what is wrong with them a calibration takes up in the factor of the jet, and until there is one the factor is less sure.
 *
 * @param scale   what is written round the flow dial
 * @param marks   positions with their flow, both rising, two or more; empty for litres that are taken as they stand
 * @param offsetK what leaves the heater less what is set, K, -100 to 100
 */
public record AirDial(Scale scale, List<Mark> marks, double offsetK) {
    private static final double PERCENT_APART = 5;
    private static final double MOST_DIAL = 1000;
    /** One standard deviation of the logarithm of a flow by a nominal mark: 30 %. Judgement; nobody writes it down. */
    private static final double NOMINAL_FLOW_LN = 0.30;
    /** h follows the flow by its root and a little more: Martin's Re^0.5 (1 + 0.005 Re^0.55)^0.5 at Re 2000 to 10,000. */
    private static final double STRENGTH_BY_FLOW = 0.6;

    /** What is written round a dial. */
    public enum Scale {
        LITRES, PERCENT, STEPS
    }

    /** One position. @param dial as written @param lpm flow there, L/min */
    public record Mark(double dial, double lpm) {
        public Mark {
            Check.within("position on the dial", dial, 0, MOST_DIAL, "");
            Check.within("flow of a mark", lpm, 1, 300, "L/min");
        }
    }

    /** Litres a minute as they stand, and what is set comes out. */
    public static final AirDial PLAIN = new AirDial(Scale.LITRES, List.of(), 0);

    public AirDial {
        Check.present("scale of the air dial", scale);
        marks = marks == null ? List.of() : List.copyOf(marks);
        Check.within("offset of the air's temperature", offsetK, -100, 100, "K");
        if (marks.size() == 1 || marks.isEmpty() && scale != Scale.LITRES) {
            throw new IllegalArgumentException("the air dial has " + marks.size()
                    + " marks; give two or more, the lowest and the highest at least, each with its L/min");
        }
        for (int i = 1; i < marks.size(); i++) {
            if (marks.get(i).dial() <= marks.get(i - 1).dial()
                    || marks.get(i).lpm() <= marks.get(i - 1).lpm()) {
                throw new IllegalArgumentException("mark " + (i + 1) + " of the air dial ("
                        + marks.get(i).dial() + ", " + marks.get(i).lpm()
                        + " L/min) does not rise over the one before it; put them in order, lowest first");
            }
        }
    }

    /** A dial of steps, evenly spread over the station's flow. */
    public static AirDial steps(int highest, double lowestLpm, double highestLpm) {
        return new AirDial(Scale.STEPS, List.of(new Mark(1, lowestLpm), new Mark(highest, highestLpm)), 0);
    }

    /** A dial of per cent of the station's most. */
    public static AirDial percent(double lowest, double highestLpm) {
        return new AirDial(Scale.PERCENT,
                List.of(new Mark(lowest, highestLpm * lowest / 100), new Mark(100, highestLpm)), 0);
    }

    /**
     * Marks as a hand writes them, "1=20, 4=55, 8=120": position and L/min, with commas, semicolons or spaces between.
     *
     * @throws IllegalArgumentException for what cannot be read, with what could be written
     */
    public static List<Mark> read(String written) {
        var found = new ArrayList<Mark>();
        for (String part : written.strip().split("[,;\\s]+")) {
            if (part.isEmpty()) {
                continue;
            }
            String[] pair = part.split("=", -1);
            try {
                found.add(new Mark(Double.parseDouble(pair[0]), Double.parseDouble(pair[1])));
            } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
                throw new IllegalArgumentException("\"" + part
                        + "\" is no mark of a dial; write the position, = and the L/min, like 1=20 8=120", e);
            }
        }
        return found;
    }

    /** The marks as {@link #read} takes them. */
    public String written() {
        return String.join(" ",
                marks.stream().map(m -> plain(m.dial()) + "=" + plain(m.lpm())).toList());
    }

    public AirDial offset(double kelvin) {
        return new AirDial(scale, marks, kelvin);
    }

    /** True when a position is what it says: a flow that the station itself measures. */
    public boolean measures() {
        return scale == Scale.LITRES && marks.isEmpty();
    }

    /** Standard deviation of the logarithm of the jet that the dial adds on a bench nobody has calibrated. */
    public double jetLn() {
        return measures() ? 0 : STRENGTH_BY_FLOW * NOMINAL_FLOW_LN;
    }

    /** Flow at a position, L/min. @throws IllegalArgumentException for a position the dial does not have */
    public double lpm(double dial) {
        if (marks.isEmpty()) {
            return dial;
        }
        if (!(dial >= marks.getFirst().dial() && dial <= marks.getLast().dial())) {
            throw new IllegalArgumentException("the air dial goes from " + plain(marks.getFirst().dial())
                    + " to " + plain(marks.getLast().dial()) + ", not to " + plain(dial));
        }
        return between(dial, true);
    }

    /** Position for a flow; the dial's end beyond it. */
    public double dial(double lpm) {
        return marks.isEmpty()
                ? lpm
                : between(Math.clamp(lpm, marks.getFirst().lpm(), marks.getLast().lpm()), false);
    }

    private double between(double value, boolean toFlow) {
        for (int i = 1; i < marks.size(); i++) {
            Mark low = marks.get(i - 1);
            Mark high = marks.get(i);
            double from = toFlow ? low.dial() : low.lpm();
            double to = toFlow ? high.dial() : high.lpm();
            if (value <= to || i == marks.size() - 1) {
                double share = (value - from) / (to - from);
                return toFlow
                        ? low.lpm() + share * (high.lpm() - low.lpm())
                        : low.dial() + share * (high.dial() - low.dial());
            }
        }
        throw new IllegalStateException("a dial without marks");
    }

    /** The nearest flow that a hand can set: whole litres, whole steps, five per cent. */
    public double settable(double lpm) {
        return switch (scale) {
            case LITRES -> marks.isEmpty() ? lpm : lpm(Math.rint(dial(lpm)));
            case STEPS -> lpm(Math.rint(dial(lpm)));
            case PERCENT -> lpm(Math.clamp(PERCENT_APART * Math.rint(dial(lpm) / PERCENT_APART),
                    marks.getFirst().dial(), marks.getLast().dial()));
        };
    }

    /** What to set for a flow, as the dial says it. */
    public Quantity says(double lpm) {
        return switch (scale) {
            case LITRES -> new Quantity.LitresPerMinute(dial(lpm));
            case PERCENT -> new Quantity.Percent(dial(lpm));
            case STEPS -> new Quantity.DialStep(dial(lpm));
        };
    }

    private static String plain(double value) {
        return value == Math.rint(value) ? Long.toString((long) value) : Double.toString(value);
    }
}
