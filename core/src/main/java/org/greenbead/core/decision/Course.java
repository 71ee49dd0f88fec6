package org.greenbead.core.decision;

import java.util.Locale;
import java.util.Set;
import org.greenbead.core.route.JobKind;

/** What may be done with a unit. Its words are {@code course.<key>} in the trade bundle. */
public enum Course {
    REFLOW(Set.of(JobKind.REFLOW)), REBALL(
            Set.of(JobKind.REVIVE, JobKind.PACKAGE, JobKind.BOARDS, JobKind.LOOSE, JobKind.MILLED)), REPLACE(
                    Set.of(JobKind.REPLACE, JobKind.FLEX)), TRANSPLANT(
                            Set.of(JobKind.TRANSPLANT, JobKind.HARVEST)), UPGRADE(
                                    Set.of(JobKind.MEMORY, JobKind.STORAGE)), DECLINE(Set.of());

    private final Set<JobKind> kinds;

    Course(Set<JobKind> kinds) {
        this.kinds = kinds;
    }

    /** Kinds of job that work this way. */
    public Set<JobKind> kinds() {
        return kinds;
    }

    public String key() {
        return name().toLowerCase(Locale.ROOT);
    }
}
