package org.greenbead.core.recipe;

import org.greenbead.core.quantity.Check;

/** What ends a stage. Evidence ends a stage; time alone may only where nothing has to be proved. */
public sealed interface StageEnd {
    /** A time in the stage, s, 1 to 172800. */
    record AfterTime(double seconds) implements StageEnd {
        public AfterTime {
            Check.within("stage time", seconds, 1, 172_800, "s");
        }
    }

    /** A probe reaches a temperature, then holds for a while. */
    record ProbeReaches(String probe, double celsius, double holdS) implements StageEnd {
        public ProbeReaches {
            Check.text("probe of the stage", probe);
            Check.within("stage target", celsius, 30, 300, "°C");
            Check.within("hold", holdS, 0, 172_800, "s");
        }
    }

    /** The technician says so. */
    record TechnicianSays() implements StageEnd {}

    /** The joints are shown to be liquid: the technician's nudge, weighed against estimate and probes. */
    record MeltShown() implements StageEnd {}

    /** Everything is solid with the margin that makes moving safe. */
    record SafeToMove() implements StageEnd {}
}
