package org.greenbead.core.run;

import org.greenbead.core.thermal.HeatInput;

/** Whoever turns the knobs when a stage asks for it: the technician at a real bench, the simulated bench in the demo. */
public interface BenchHands {
    /** The bench of a technician who turns the knobs by hand. */
    BenchHands TECHNICIAN = new BenchHands() {
        @Override
        public void set(HeatInput input) {
            // The coach says it in words; nothing is switched from here.
        }

        @Override
        public void timeIs(double timeS) {
            // A real bench needs no telling.
        }
    };

    void set(HeatInput input);

    /** Run time has come to {@code timeS}. */
    void timeIs(double timeS);
}
