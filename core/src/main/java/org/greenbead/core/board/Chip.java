package org.greenbead.core.board;

import java.util.List;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.quantity.Check;

/**
 * A package on the board.
 *
 * @param name        designator, "U1"
 * @param part        what it is, "QX-510"
 * @param side        the face it sits on
 * @param centreMm    from the board's lower left corner
 * @param sizeMm      footprint, 1 to 80 each way
 * @param layers      from the board outwards; the first is the joint layer
 * @param bodyLimitC  the highest body temperature its maker rates, °C (J-STD-020 classes 220 to 260), 80 to 300
 * @param melts       times its joints have been liquid until now, 0 to 50
 * @param meltsLimit  times it is qualified for (J-STD-020 qualifies with three), 1 to 20
 * @param floorLifeH  hours out of dry storage that its moisture level allows, 0 = bake before use
 * @param openH       hours it has been out, 0 or more
 */
public record Chip(String name, String part, Side side, Point centreMm, Point sizeMm, List<Layer> layers,
        double bodyLimitC,
        int melts, int meltsLimit, double floorLifeH, double openH) {
    public Chip {
        Check.text("chip name", name);
        Check.text("chip part", part);
        Check.present("chip side", side);
        Check.present("chip centre", centreMm);
        Check.present("chip size", sizeMm);
        Check.within("chip width", sizeMm.xMm(), 1, 80, "mm");
        Check.within("chip depth", sizeMm.yMm(), 1, 80, "mm");
        layers = List.copyOf(Check.present("chip layers", layers));
        if (layers.isEmpty() || !(layers.getFirst() instanceof Layer.Joint)) {
            throw new IllegalArgumentException("the first layer of " + name + " must be its joint layer");
        }
        if (layers.size() < 2) {
            throw new IllegalArgumentException(name + " has only a joint layer; add at least a substrate");
        }
        Check.within("body limit of " + name, bodyLimitC, 80, 300, "°C");
        Check.within("melts of " + name, melts, 0, 50, "");
        Check.within("melts allowed for " + name, meltsLimit, 1, 20, "");
        Check.within("floor life of " + name, floorLifeH, 0, 1e6, "h");
        Check.within("hours out of " + name, openH, 0, 1e6, "h");
    }

    public Layer.Joint joint() {
        return (Layer.Joint) layers.getFirst();
    }

    /** Body height over the joint, mm. */
    public double bodyMm() {
        return layers.stream().skip(1).mapToDouble(Layer::thicknessMm).sum();
    }

    /** Under another name, told what is printed on it. */
    public Chip named(String newName, String newPart) {
        return new Chip(newName, newPart, side, centreMm, sizeMm, layers, bodyLimitC, melts, meltsLimit,
                floorLifeH, openH);
    }

    /** Somewhere else on the board. */
    public Chip at(Side face, Point centre) {
        return new Chip(name, part, face, centre, sizeMm, layers, bodyLimitC, melts, meltsLimit, floorLifeH,
                openH);
    }

    /** With joints of another alloy. */
    public Chip soldered(Alloy alloy) {
        Layer.Joint j = joint();
        return jointed(new Layer.Joint(j.thicknessMm(), j.pitchMm(), j.ballMm(), alloy, j.underfilled(),
                j.coverage()));
    }

    /** The same body on other joints. */
    public Chip jointed(Layer.Joint joint) {
        var sheets = new java.util.ArrayList<>(layers);
        sheets.set(0, joint);
        return new Chip(name, part, side, centreMm, sizeMm, sheets, bodyLimitC, melts, meltsLimit, floorLifeH,
                openH);
    }

    /** On the same joints another body. @param body from the joints outwards */
    public Chip built(List<Layer> body) {
        var sheets = new java.util.ArrayList<Layer>();
        sheets.add(joint());
        sheets.addAll(body);
        return new Chip(name, part, side, centreMm, sizeMm, sheets, bodyLimitC, melts, meltsLimit, floorLifeH,
                openH);
    }

    /** The same chip after {@code more} further melts. */
    public Chip melted(int more) {
        return new Chip(name, part, side, centreMm, sizeMm, layers, bodyLimitC, melts + more, meltsLimit,
                floorLifeH, openH);
    }

    /** The same kind of chip, another specimen: this often liquid until now. */
    public Chip lived(int timesLiquid) {
        return new Chip(name, part, side, centreMm, sizeMm, layers, bodyLimitC, timesLiquid, meltsLimit,
                floorLifeH, openH);
    }

    /** Out of dry storage for so long. */
    public Chip out(double hours) {
        return new Chip(name, part, side, centreMm, sizeMm, layers, bodyLimitC, melts, meltsLimit, floorLifeH,
                hours);
    }
}
