package org.greenbead.core.inspect;

import java.util.List;
import java.util.Optional;

/**
 * How a place looks: the shares of red, green and blue and the natural logarithm of their sum. Shares do not change with the strength of
 * the light. The limits are judgement from photos of green, blue, black and white boards.
 */
final class Look {
    /** Sum of the differences from which something is not board. */
    static final double PART = 0.2;
    private static final int MOST_COUNTED = 70;
    /** Sum of the channels below which colour is noise. */
    private static final double SHADOW = 0.06;
    /** From which part of a power of e on, and by how much, a difference in light counts where one of two places is in shadow. */
    private static final double LIT_FROM = 0.5;
    private static final double LIT_SHARE = 0.35;
    /** Difference of the largest and the smallest colour share below which there is no colour, and over which that fades in. */
    private static final double GREY = 0.17;
    private static final double GREY_BAND = 0.08;

    private Look() {
    }

    static double light(double[] rgb) {
        return rgb[0] + rgb[1] + rgb[2];
    }

    /** Of linear light in red, green and blue. */
    static double[] of(double[] rgb) {
        double sum = light(rgb) + 0.01;
        return new double[]{rgb[0] / sum, rgb[1] / sum, rgb[2] / sum, Math.log(sum)};
    }

    static boolean lit(double[] rgb) {
        return light(rgb) > 2 * SHADOW;
    }

    /**
     * How different two places look in colour. In deep shadow there is none to speak of, and grey metal has none on a black or white
     * board: there light counts, elsewhere it does not, since shadows come and go.
     */
    static double far(double[] one, double[] two) {
        double known = known(Math.min(one[3], two[3]));
        double hue = Math.abs(one[0] - two[0]) + Math.abs(one[1] - two[1]) + Math.abs(one[2] - two[2]);
        double lit = known(Math.max(one[3], two[3])) * Math.max(0, Math.abs(one[3] - two[3]) - LIT_FROM);
        double grey = Math.clamp((GREY - Math.max(colour(one), colour(two))) / GREY_BAND, 0, 1);
        return known * hue + Math.max(1 - known, grey) * LIT_SHARE * lit;
    }

    private static double colour(double[] look) {
        return Math.max(look[0], Math.max(look[1], look[2]))
                - Math.min(look[0], Math.min(look[1], look[2]));
    }

    private static double known(double logLight) {
        return Math.clamp((Math.exp(logLight) - SHADOW) / SHADOW, 0, 1);
    }

    /** The look that most of some places have. */
    static Optional<double[]> most(List<double[]> looks) {
        int step = Math.max(1, looks.size() / MOST_COUNTED);
        double[] middle = null;
        int most = 0;
        for (int i = 0; i < looks.size(); i += step) {
            int like = 0;
            for (int k = 0; k < looks.size(); k += step) {
                like += far(looks.get(i), looks.get(k)) < 0.5 * PART ? 1 : 0;
            }
            if (like > most) {
                most = like;
                middle = looks.get(i);
            }
        }
        return Optional.ofNullable(middle);
    }
}
