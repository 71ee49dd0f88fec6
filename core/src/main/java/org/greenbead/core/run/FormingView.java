package org.greenbead.core.run;

import java.util.List;
import java.util.OptionalDouble;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.Forming;
import org.greenbead.core.forming.Judged;
import org.greenbead.core.forming.ReleaseWarm;

/**
 * How far the balls of a run are.
 *
 * @param acts    every act that has sense now, with what it would be
 * @param next    the one that leads on
 * @param countS  what is left of the count that the first ball began, s; empty before it, negative when it is over
 * @param lateS   how much later than the thermal model held the first ball shone, s; empty before it
 * @param window  between which temperatures the stencil comes off
 * @param softS   how long the flux stays soft, s; empty unless solid balls cool in the window
 * @param warming air blows to free the stencil
 */
public record FormingView(Forming forming, List<Judged> acts, Act next, OptionalDouble countS,
        OptionalDouble lateS, ReleaseWarm window,
        OptionalDouble softS, boolean warming) {
    public FormingView {
        acts = List.copyOf(acts);
    }
}
