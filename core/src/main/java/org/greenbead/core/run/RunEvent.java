package org.greenbead.core.run;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.forming.Act;
import org.greenbead.core.recipe.Stage;

/** What happened, with run time in s. The log of a run is the list of these. */
public sealed interface RunEvent {
    double timeS();

    /** The technician pressed start. */
    record Started(double timeS) implements RunEvent {}

    /** One sweep; empty while the link is down: the gap is kept, never filled. */
    record Sampled(double timeS, List<Reading> readings) implements RunEvent {
        public Sampled {
            readings = List.copyOf(readings);
        }
    }

    /** The technician's word. */
    record Said(double timeS, Say word, String text) implements RunEvent {
        public Said {
            text = text == null ? "" : text;
        }
    }

    /** Hands did something at the stencil or the jig. */
    record Acted(double timeS, Act act) implements RunEvent {}

    /** A stage was set anew in the middle of the run. */
    record Changed(double timeS, int index, Stage stage) implements RunEvent {}

    /** The program stopped and was started again; {@code awayS} of bench time went by unseen. */
    record Resumed(double timeS, double awayS) implements RunEvent {}

    /** The technician saw something at the chip and said so. */
    record Saw(double timeS, Sight sight) implements RunEvent {}

    /**
     * Where the estimate stood, kept so that a run that is taken up again shows its last heat at once. Tells the engine nothing.
     *
     * @param stage  index of the stage in hand
     * @param jointC coldest joint, °C, with its interval
     * @param topC   top of the chip, °C; logs of older versions have none
     */
    record Checkpoint(double timeS, RunState.Status status, int stage, double jointC, double lowC,
            double highC, double hottestC, Optional<Double> topC) implements RunEvent {}
}
