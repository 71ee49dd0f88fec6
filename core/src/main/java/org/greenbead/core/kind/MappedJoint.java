package org.greenbead.core.kind;

import java.util.Locale;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;

/**
 * What a bead map says of a chip's joint, in place of what its build usually has: pitch, ball, and which part of the footprint carries balls.
 *
 * @param balls   how many sites it has
 * @param pitchMm smallest distance of two sites
 * @param ballMm  median of the diameters it gives, or the nominal ball of its pitch where it gives none
 * @param fieldMm from the outer edge of the balls on one side to that on the other, along both sides of the map
 */
public record MappedJoint(int balls, double pitchMm, double ballMm, Point fieldMm) {
    /** A drawing and a caliper differ by so much, mm. Judgement. */
    private static final double SLACK_MM = 0.2;
    private static final double LEAST_PART = 0.02;

    public MappedJoint {
        Check.present("field", fieldMm);
    }

    /** @throws IllegalArgumentException where the map has one site alone, which says no pitch */
    public static MappedJoint of(BeadMap map) {
        double pitch = map.pitchMm();
        if (Double.isNaN(pitch)) {
            throw new IllegalArgumentException(
                    "a map of one site says nothing of the pitch; take in the whole map");
        }
        double[] said = map.sites().stream().flatMap(s -> s.diameterMm().stream())
                .mapToDouble(Double::doubleValue).sorted().toArray();
        double ball = said.length == 0 ? PackageKind.ballMm(pitch) : said[said.length / 2];
        return new MappedJoint(map.sites().size(), pitch, ball,
                new Point(wide(map, true, ball), wide(map, false, ball)));
    }

    private static double wide(BeadMap map, boolean x, double ball) {
        var places = map.sites().stream().mapToDouble(x ? Site::xMm : Site::yMm).summaryStatistics();
        return places.getMax() - places.getMin() + ball;
    }

    /**
     * The chip with this joint; its alloy, its glue and its body stay. The map may lie across on the board.
     *
     * @throws IllegalArgumentException naming both sizes where the field is larger than the chip
     */
    public Chip on(Chip chip) {
        if (!fits(chip.sizeMm(), fieldMm) && !fits(chip.sizeMm(), new Point(fieldMm.yMm(), fieldMm.xMm()))) {
            throw new IllegalArgumentException(String.format(Locale.ROOT,
                    "the balls of this map take %.2f x %.2f mm and %s measures %.2f x %.2f mm; measure the chip first, or take the map of this one",
                    fieldMm.xMm(), fieldMm.yMm(), chip.name(), chip.sizeMm().xMm(), chip.sizeMm().yMm()));
        }
        double coverage = Math.clamp(balls * pitchMm * pitchMm / (chip.sizeMm().xMm() * chip.sizeMm().yMm()),
                LEAST_PART, 1);
        return chip.jointed(PackageKind.joint(pitchMm, ballMm, chip.joint().alloy(),
                chip.joint().underfilled(), coverage));
    }

    private static boolean fits(Point chip, Point field) {
        return field.xMm() <= chip.xMm() + SLACK_MM && field.yMm() <= chip.yMm() + SLACK_MM;
    }

    /** Whether the chip has this joint already. */
    public boolean is(Chip chip) {
        Layer.Joint j = chip.joint();
        return Math.abs(j.pitchMm() - pitchMm) < 1e-6 && Math.abs(j.ballMm() - ballMm) < 1e-6;
    }
}
