package org.greenbead.core.bead;

import java.util.ArrayList;
import java.util.List;
import org.greenbead.core.quantity.Check;

/**
 * One opening of a stencil, its neighbour, and the paste in it: what ball comes of it, and what may go wrong.
 *
 * @param opening     round or square
 * @param thicknessMm of the sheet, 0.03 to 0.5
 * @param pitchMm     to the next opening, 0.2 to 3
 * @param paste       as it is printed
 * @param fills       1, or 2 when paste is laid on balls that stand in the stencil
 */
public record StencilDesign(Aperture opening, double thicknessMm, double pitchMm, Paste paste, int fills) {
    /** Paste lets go well from here on, and does not below the second (IPC-7525, verify against the current edition; the lower one by judgement). */
    public static final double GOOD_AREA_RATIO = 0.66;
    public static final double LEAST_AREA_RATIO = 0.5;
    /** Width over thickness (IPC-7525, verify). */
    public static final double GOOD_ASPECT_RATIO = 1.5;
    /** Metal between openings: under the first it tears and prints join, under the second it bends (rules of thumb). */
    public static final double LEAST_WEB_MM = 0.10;
    public static final double GOOD_WEB_MM = 0.15;
    /** Usual balls, part of the pitch, and what bridges whatever is done (rules of thumb). */
    public static final double USUAL_LOW = 0.45;
    public static final double USUAL_HIGH = 0.63;
    public static final double BRIDGES = 0.75;
    /** A ball nearer to its hole's wall than this grips the sheet. */
    public static final double CLEAR_MM = 0.03;
    /** Radius of the corners of a square opening, part of its side, where nobody says another: cutters leave about so much (rule of thumb). */
    public static final double CORNER_PART = 0.2;
    /** From the wanted diameter, part. */
    public static final double WANTED_WITHIN = 0.06;
    /** Standard deviation of the released part, part of it: where paste lets go well, and what is added by the time it does not. By judgement; learn it on the own bench. */
    private static final double SCATTER = 0.05;
    private static final double MORE_SCATTER = 0.10;
    /** Largest minus smallest of some hundred balls, in standard deviations of a normal distribution (n = 100: 5.0, n = 1000: 6.5). */
    private static final double RANGE_SD = 6;

    public StencilDesign {
        Check.present("opening", opening);
        Check.within("stencil thickness", thicknessMm, 0.03, 0.5, "mm");
        Check.within("pitch", pitchMm, 0.2, 3, "mm");
        Check.present("paste", paste);
        Check.within("fills", fills, 1, 2, "");
        if (opening.widthMm() >= pitchMm) {
            throw new IllegalArgumentException(
                    "an opening of " + opening.widthMm() + " mm leaves no metal at a pitch of "
                            + pitchMm + " mm; make it smaller");
        }
    }

    /** How good a finding is. */
    public enum Level {
        GOOD, CARE, BAD
    }

    /** Something that can be judged. Words are {@code stencil.say.<name>.<level>}. */
    public enum Point {
        RELEASE, ASPECT, WEB, BRIDGE, GRIP, WANTED, EVEN
    }

    /** @param value the number that was judged, in the unit that its words name */
    public record Say(Point point, Level level, double value) {}

    public double areaRatio() {
        return opening.areaRatio(thicknessMm);
    }

    public double aspectRatio() {
        return opening.aspectRatio(thicknessMm);
    }

    public double releasedPart() {
        return Balls.released(areaRatio());
    }

    /** Paste that one opening takes in all its fills. */
    public double pasteMm3() {
        double hole = opening.volumeMm3(thicknessMm);
        return fills == 1 ? hole : hole + Balls.freeMm3(opening, thicknessMm, firstMm());
    }

    private double firstMm() {
        return Balls.diameterMm(opening, thicknessMm, paste.metalVolumePart(), releasedPart());
    }

    public double ballMm() {
        double first = firstMm();
        return fills == 1
                ? first
                : Balls.filledAgainMm(first,
                        Balls.diameterMm(Balls.freeMm3(opening, thicknessMm, first) * paste.metalVolumePart()
                                * releasedPart()));
    }

    public double webMm() {
        return pitchMm - opening.widthMm();
    }

    /** Between two balls. */
    public double gapMm() {
        return pitchMm - ballMm();
    }

    /** Between a ball and the wall of its hole, each side. */
    public double clearMm() {
        return (opening.widthMm() - ballMm()) / 2;
    }

    /** Largest less smallest ball over the mean that a field may show, percent: a third of the scatter of the volumes. */
    public double spreadPct() {
        double poor = Math.clamp((GOOD_AREA_RATIO - areaRatio()) / (GOOD_AREA_RATIO - LEAST_AREA_RATIO), 0,
                1);
        double sd = SCATTER + MORE_SCATTER * poor;
        // Balls that are filled again scatter once more, the second time with what was left open.
        double again = fills == 1 ? 1 : 1.2;
        return RANGE_SD * sd * again / 3 * 100;
    }

    /** @param wantedMm ball that is wanted; NaN where none is known */
    public List<Say> says(double wantedMm) {
        var says = new ArrayList<Say>();
        says.add(new Say(Point.RELEASE, above(areaRatio(), GOOD_AREA_RATIO, LEAST_AREA_RATIO), areaRatio()));
        says.add(new Say(Point.ASPECT, above(aspectRatio(), GOOD_ASPECT_RATIO, 1), aspectRatio()));
        says.add(new Say(Point.WEB, above(webMm(), GOOD_WEB_MM, LEAST_WEB_MM), webMm()));
        double share = ballMm() / pitchMm;
        says.add(new Say(Point.BRIDGE,
                share > BRIDGES ? Level.BAD : share > USUAL_HIGH ? Level.CARE : Level.GOOD,
                gapMm()));
        says.add(new Say(Point.GRIP, above(clearMm(), CLEAR_MM, 0), clearMm()));
        if (Double.isFinite(wantedMm)) {
            double off = ballMm() / wantedMm - 1;
            says.add(new Say(Point.WANTED, Math.abs(off) <= WANTED_WITHIN
                    ? Level.GOOD
                    : Math.abs(off) <= 2 * WANTED_WITHIN ? Level.CARE : Level.BAD, off * 100));
        }
        says.add(new Say(Point.EVEN,
                spreadPct() <= 10 + 1e-9 ? Level.GOOD : spreadPct() <= 20 ? Level.CARE : Level.BAD,
                spreadPct()));
        return List.copyOf(says);
    }

    private static Level above(double value, double good, double least) {
        return value >= good - 1e-9 ? Level.GOOD : value >= least - 1e-9 ? Level.CARE : Level.BAD;
    }

    /** Of the same kind and shape of corners, another width. */
    public StencilDesign wide(double widthMm) {
        Aperture other = opening instanceof Aperture.Square s
                ? new Aperture.Square(widthMm, s.radiusMm() * widthMm / s.sideMm())
                : new Aperture.Round(widthMm);
        return new StencilDesign(other, thicknessMm, pitchMm, paste, fills);
    }

    /**
     * With the opening that makes a wanted ball.
     *
     * @throws IllegalArgumentException when no opening that leaves metal to its neighbour makes it
     */
    public StencilDesign forBall(double wantedMm) {
        double low = 0.05;
        double high = pitchMm - 1e-3;
        if (wide(high).ballMm() < wantedMm) {
            throw new IllegalArgumentException(String.format(java.util.Locale.ROOT,
                    "no opening at a pitch of %.2f mm fills a ball of %.3f mm through a sheet of %.3f mm; "
                            + "take a thicker sheet, a second fill, or spheres",
                    pitchMm, wantedMm, thicknessMm));
        }
        return wide(Balls.widthMm(low, high, w -> wide(w).ballMm(), wantedMm));
    }
}
