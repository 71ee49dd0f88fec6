package org.greenbead.core.inspect;

import java.util.Optional;

/**
 * The learned part of the photo check.
 *
 * @param balls  says what stands on a site
 * @param strays tells stray balls from other specks; empty = outlines alone do
 * @param sizes  tells how large all balls are where the map states them wrongly; empty = the map is believed
 */
public record PhotoJudge(SiteNet balls, Optional<SiteNet> strays, Optional<SiteNet> sizes) {
    /** The one that comes with the program. */
    public static PhotoJudge shipped() {
        return new PhotoJudge(SiteNet.shipped(), Optional.of(SiteNet.shippedForStrays()),
                Optional.of(SiteNet.shippedForSizes()));
    }
}
