package org.greenbead.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.function.ToDoubleFunction;
import org.greenbead.core.calibrate.EyeTrial;
import org.greenbead.core.run.Adversity;
import org.greenbead.core.run.ObserverTrial;
import org.greenbead.core.run.RunPlan;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Measures how honest the joint estimate is. */
@Command(name = "observe", mixinStandardHelpOptions = true, description = "Runs a plan on many simulated benches and says how often the shown interval held the truth.")
final class ObserveCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(paramLabel = "PLAN", description = "A plan (greenbead/plan/1), or the number of a job in the ledger: its next heat of the board.")
    private Path file;
    @Option(names = "--runs", defaultValue = "20", description = "Number of benches (default ${DEFAULT-VALUE}).")
    private int runs;
    @Option(names = "--seed", defaultValue = "1", description = "Seed of the first bench (default ${DEFAULT-VALUE}).")
    private long seed;
    @Option(names = "--bench", paramLabel = "KIND", description = "How the benches differ beyond the usual scatter, as a kind of Adversity, or ALL (default USUAL).", defaultValue = "USUAL")
    private String kind;
    @Option(names = "--by-eye", paramLabel = "RUNS", description = "Without any thermocouple: so many runs of each bench one after the other, each learning from those before.")
    private int byEye;

    @Override
    public Integer call() throws Exception {
        RunPlan plan = new JobOnDisk(shared).plan(file);
        List<Adversity> kinds = kind.equalsIgnoreCase("all")
                ? List.of(Adversity.values())
                : List.of(kind(kind));
        for (Adversity each : kinds) {
            if (byEye > 0) {
                byEye(plan, each);
                continue;
            }
            ObserverTrial.Summary summary = ObserverTrial.of(plan, each, seed, Math.clamp(runs, 1, 1000),
                    d -> {
                    }, Thread.currentThread()::isInterrupted);
            spec.commandLine().getOut().printf(Locale.ROOT,
                    "%s, %d runs: the shown interval held the coldest joint %.1f %% of the time, %.0f %% in the worst run; error %.2f K rms, %.2f K rms at the peak; nudge asked for %d s, %d s of it too early; called safe too early for %d s%n",
                    each.name().toLowerCase(Locale.ROOT), summary.runs().size(), 100 * summary.share(),
                    100 * summary.worstShare(), summary.rmsK(), summary.hotRmsK(), summary.cues(),
                    summary.falseCues(), summary.falseSafe());
        }
        return 0;
    }

    private void byEye(RunPlan plan, Adversity each) {
        List<EyeTrial.Ran> all = EyeTrial.of(plan, each, seed, Math.clamp(runs, 1, 1000),
                Math.clamp(byEye, 1, 20), d -> {
                }, Thread.currentThread()::isInterrupted);
        for (int earlier = 0; earlier < byEye; earlier++) {
            int before = earlier;
            List<EyeTrial.Ran> these = all.stream()
                    .filter(r -> r.earlier() == before && !Double.isNaN(r.unseenK())).toList();
            spec.commandLine().getOut().printf(Locale.ROOT,
                    "%s, %d benches after %d runs of their own: before anything is seen to melt off by %.1f K rms, said ±%.1f K, held %d; at the peak off by %.1f K rms, said ±%.1f K, held %d, within 5 K %d; learned from %d%n",
                    each.name().toLowerCase(Locale.ROOT), these.size(), before,
                    rms(these, EyeTrial.Ran::unseenK), mean(these, EyeTrial.Ran::unseenPlusMinusK),
                    these.stream().filter(r -> Math.abs(r.unseenK()) <= r.unseenPlusMinusK()).count(),
                    rms(these, EyeTrial.Ran::peakK), mean(these, EyeTrial.Ran::peakPlusMinusK),
                    these.stream().filter(r -> Math.abs(r.peakK()) <= r.peakPlusMinusK()).count(),
                    these.stream().filter(r -> Math.abs(r.peakK()) <= 5).count(),
                    these.stream().filter(EyeTrial.Ran::learned).count());
        }
    }

    private static double rms(List<EyeTrial.Ran> of, ToDoubleFunction<EyeTrial.Ran> what) {
        return Math.sqrt(of.stream().mapToDouble(what).map(v -> v * v).average().orElse(Double.NaN));
    }

    private static double mean(List<EyeTrial.Ran> of, ToDoubleFunction<EyeTrial.Ran> what) {
        return of.stream().mapToDouble(what).average().orElse(Double.NaN);
    }

    private static Adversity kind(String word) {
        try {
            return Adversity.valueOf(word.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("--bench is \"" + word + "\"; it is ALL or one of "
                    + java.util.Arrays.toString(Adversity.values()).toLowerCase(Locale.ROOT), e);
        }
    }
}
