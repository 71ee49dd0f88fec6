package org.greenbead.core.inspect;

import java.util.List;

/**
 * What a photo says of a cleaned field of pads.
 *
 * @param turnDeg by which the field is turned in the picture, clockwise
 */
public record PadReport(List<Seen> sites, double turnDeg, BeadReport.Mark mark) {
    /**
     * One pad.
     *
     * @param covered   part of its area that looks other than the pads of this field
     * @param smearedWith neighbours that solder joins it to
     */
    public record Seen(String site, PadState state, double xPx, double yPx, double covered,
            List<String> smearedWith) {
        public Seen {
            smearedWith = List.copyOf(smearedWith);
        }
    }

    public PadReport {
        sites = List.copyOf(sites);
    }

    public List<Seen> with(PadState state) {
        return sites.stream().filter(s -> s.state() == state).toList();
    }
}
