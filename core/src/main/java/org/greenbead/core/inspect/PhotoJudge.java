package org.greenbead.core.inspect;

import java.util.Optional;

/**
 * The learned part of the photo check.
 *
 * @param balls  says what stands on a site
 * @param strays tells stray balls from other specks; empty = outlines alone do
 */
public record PhotoJudge(SiteNet balls, Optional<SiteNet> strays) {
    /** The one that comes with the program. */
    public static PhotoJudge shipped() {
        return new PhotoJudge(SiteNet.shipped(), Optional.of(SiteNet.shippedForStrays()));
    }
}
