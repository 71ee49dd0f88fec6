package org.greenbead.core.inspect;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a photo says of the balls of a chip.
 *
 * @param turnDeg   by which the chip is turned in the picture, clockwise; of the map's upright position
 * @param mark      whether the mark of pin 1 decided the turn
 * @param tiltDeg   of the camera over the chip
 * @param pxPerMm   in the middle of the field
 * @param spreadPct standard deviation of the diameters of good balls, percent
 * @param commonPart how large outlines see all balls over the map, where they deviate alike: then the map, the spheres or the light is doubted, sizes are worth little, and single balls were judged against the others. Else 1
 * @param paleBoard  whether the board is as bright as the balls, which were found by their rims: a bridge between two of them may not stand out
 */
public record BeadReport(List<Seen> sites, List<Stray> strays, double turnDeg, Mark mark, double tiltDeg,
        double pxPerMm, double spreadPct, BeadVerdict verdict, double commonPart,
        boolean paleBoard) {
    /** From here on it is not single balls that are off, but the size in the map, the spheres that were used, or the outline. */
    static final double COMMON_LIMIT = 0.09;

    /** Where a place of the map lies in the photo, through the sites that were judged; empty with too few of them. */
    public java.util.Optional<Projection> onto(org.greenbead.core.bead.BeadMap map, int widthPx,
            int heightPx) {
        var mm = new java.util.ArrayList<double[]>();
        var px = new java.util.ArrayList<double[]>();
        for (Seen seen : sites) {
            map.site(seen.site()).ifPresent(s -> {
                mm.add(new double[]{s.xMm(), s.yMm()});
                px.add(new double[]{seen.xPx(), seen.yPx()});
            });
        }
        double turn = Math.toRadians(turnDeg);
        return Projection
                .affine(pxPerMm * Math.cos(turn), pxPerMm * Math.sin(turn), widthPx / 2.0,
                        pxPerMm * Math.sin(turn), -pxPerMm * Math.cos(turn), heightPx / 2.0, widthPx,
                        heightPx)
                .fitted(mm.toArray(double[][]::new), px.toArray(double[][]::new), Projection.Form.PLANE);
    }

    /** What is doubted of the photo as a whole: that bridges would be seen, or, where all balls deviate alike, their size. */
    public java.util.Optional<org.greenbead.core.quantity.Phrase> doubt() {
        if (paleBoard) {
            return java.util.Optional.of(org.greenbead.core.quantity.Phrase.of("beadall.pale"));
        }
        if (commonPart == 1) {
            return java.util.Optional.empty();
        }
        var by = new org.greenbead.core.quantity.Quantity.Count(Math.round(100 * Math.abs(commonPart - 1)));
        return java.util.Optional.of(org.greenbead.core.quantity.Phrase
                .of(commonPart > 1 ? "beadall.larger" : "beadall.smaller", by));
    }

    /** Mean diameter of the good balls, mm; NaN where there is none. */
    public double meanMm() {
        return with(BeadState.OK).stream().mapToDouble(s -> s.diameterMm().orElseThrow()).average()
                .orElse(Double.NaN);
    }

    /** The good ball that lies farthest from its place. */
    public java.util.Optional<Seen> farthest() {
        return with(BeadState.OK).stream()
                .max(java.util.Comparator.comparingDouble(s -> s.offsetMm().orElse(0.0)));
    }

    /** What pin 1 says. */
    public enum Mark {
        /** Only one turn fits the field. */
        NOT_NEEDED,
        /** Several turns fit, and a mark was seen at the corner of A1 of this one. */
        SEEN,
        /** Several turns fit and no mark was found: names of sites may be those of another turn. */
        NOT_FOUND
    }

    /**
     * One site.
     *
     * @param xPx           middle of the ball, or of the site where none was found
     * @param diameterMm    empty where no ball was measured
     * @param diameterSdMm  standard uncertainty of it
     * @param offsetMm      from its place in the field; empty as above
     * @param bridgedWith   names of neighbours
     */
    public record Seen(String site, BeadState state, double xPx, double yPx, Optional<Double> diameterMm,
            double diameterSdMm, Optional<Double> offsetMm, double offsetSdMm, List<String> bridgedWith) {
        public Seen {
            bridgedWith = List.copyOf(bridgedWith);
        }
    }

    /** A ball where none belongs. */
    public record Stray(double xPx, double yPx, double diameterMm) {}

    public BeadReport {
        sites = List.copyOf(sites);
        strays = List.copyOf(strays);
    }

    /** The same in a picture of which this was a part. */
    BeadReport moved(double left, double top) {
        return new BeadReport(
                sites.stream()
                        .map(s -> new Seen(s.site, s.state, s.xPx + left, s.yPx + top, s.diameterMm,
                                s.diameterSdMm,
                                s.offsetMm, s.offsetSdMm, s.bridgedWith))
                        .toList(),
                strays.stream().map(s -> new Stray(s.xPx + left, s.yPx + top, s.diameterMm)).toList(),
                turnDeg, mark,
                tiltDeg, pxPerMm, spreadPct, verdict, commonPart, paleBoard);
    }

    public List<Seen> with(BeadState state) {
        return sites.stream().filter(s -> s.state() == state).toList();
    }

    public Map<BeadState, Long> counts() {
        return sites.stream().collect(java.util.stream.Collectors.groupingBy(Seen::state,
                () -> new java.util.EnumMap<>(BeadState.class), java.util.stream.Collectors.counting()));
    }
}
