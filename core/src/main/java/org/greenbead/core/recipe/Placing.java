package org.greenbead.core.recipe;

import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;

/**
 * Where heater and nozzle stand when they are kept off a part that must stay cool. Both are measured from the middle of the chip in
 * hand to the middle of the heater or of the nozzle's circle, in the board's own directions.
 *
 * @param airMm    to the nozzle, right and up, -40 to 40 mm
 * @param heaterMm to the heater, right and up, -200 to 200 mm
 */
public record Placing(Point airMm, Point heaterMm) {
    /** Both in the middle of the chip, as usual. */
    public static final Placing CENTRED = new Placing(new Point(0, 0), new Point(0, 0));

    public Placing {
        Check.present("place of the nozzle", airMm);
        Check.present("place of the heater", heaterMm);
        Check.within("nozzle right of the chip", airMm.xMm(), -40, 40, "mm");
        Check.within("nozzle above the chip", airMm.yMm(), -40, 40, "mm");
        Check.within("heater right of the chip", heaterMm.xMm(), -200, 200, "mm");
        Check.within("heater above the chip", heaterMm.yMm(), -200, 200, "mm");
    }

    /** In words: how far heater and nozzle stand beside the chip, and to which sides. */
    public Phrase says(String chip) {
        boolean air = !airMm.equals(CENTRED.airMm);
        boolean heater = !heaterMm.equals(CENTRED.heaterMm);
        return Phrase.of(air && heater ? "placing.both" : air ? "placing.air" : "placing.heater",
                new Quantity.Name(chip), new Quantity.Millimetres(Math.abs(airMm.xMm())),
                side(airMm.xMm(), true),
                new Quantity.Millimetres(Math.abs(airMm.yMm())), side(airMm.yMm(), false),
                new Quantity.Millimetres(Math.abs(heaterMm.xMm())), side(heaterMm.xMm(), true),
                new Quantity.Millimetres(Math.abs(heaterMm.yMm())), side(heaterMm.yMm(), false));
    }

    private static Quantity side(double mm, boolean across) {
        return new Quantity.Word(
                across ? mm < 0 ? "place.left" : "place.right" : mm < 0 ? "place.down" : "place.up");
    }

    public boolean centred() {
        return equals(CENTRED);
    }
}
