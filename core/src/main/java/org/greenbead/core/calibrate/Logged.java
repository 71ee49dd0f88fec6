package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.run.Reading;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.HeatInput;

/**
 * A run as a calibration sees it: what was set and what the probes showed, about once a second.
 *
 * @param run     name of the run
 * @param moments in order of time
 */
public record Logged(String run, RunPlan plan, List<Moment> moments) {
    /**
     * @param input   what acted until this moment
     * @param probesC in the bench's order; NaN where a probe gave nothing
     */
    public record Moment(double timeS, HeatInput input, double[] probesC) {}

    public Logged {
        Check.text("run", run);
        moments = List.copyOf(moments);
    }

    /** Plays a log through the engine to learn which settings acted when, and averages its samples to one a second. */
    public static Logged of(String run, RunPlan plan, List<RunEvent> events) {
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        List<ProbePlace> probes = plan.bench().probes();
        var moments = new ArrayList<Moment>();
        double[] sum = new double[probes.size()];
        int[] count = new int[probes.size()];
        double nextS = 1;
        for (RunEvent event : events) {
            HeatInput acted = engine.input();
            if (event instanceof RunEvent.Sampled sampled) {
                for (Reading reading : sampled.readings()) {
                    if (reading instanceof Reading.Measured measured) {
                        for (int p = 0; p < probes.size(); p++) {
                            if (probes.get(p).name().equals(measured.probe())) {
                                sum[p] += measured.celsius();
                                count[p]++;
                            }
                        }
                    }
                }
                if (sampled.timeS() >= nextS - 1e-9) {
                    double[] mean = new double[sum.length];
                    for (int p = 0; p < sum.length; p++) {
                        mean[p] = count[p] == 0 ? Double.NaN : sum[p] / count[p];
                        sum[p] = 0;
                        count[p] = 0;
                    }
                    moments.add(new Moment(sampled.timeS(), acted, mean));
                    nextS = sampled.timeS() + 1;
                }
            }
            engine.apply(event);
        }
        return new Logged(run, plan, moments);
    }

    double lengthS() {
        return moments.isEmpty() ? 0 : moments.getLast().timeS();
    }

    /** Seconds for which something held. */
    double secondsOf(java.util.function.Predicate<HeatInput> holds) {
        double seconds = 0;
        double last = 0;
        for (Moment moment : moments) {
            seconds += holds.test(moment.input()) ? moment.timeS() - last : 0;
            last = moment.timeS();
        }
        return seconds;
    }

    /** The air that blew longest. */
    Optional<AirSetting> usualAir() {
        AirSetting longest = null;
        double most = 0;
        for (AirSetting air : moments.stream().flatMap(m -> m.input().air().stream()).distinct().toList()) {
            double seconds = secondsOf(i -> i.air().filter(air::equals).isPresent());
            if (seconds > most) {
                most = seconds;
                longest = air;
            }
        }
        return Optional.ofNullable(longest);
    }
}
