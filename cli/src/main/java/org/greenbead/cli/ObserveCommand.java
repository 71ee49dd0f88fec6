package org.greenbead.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.greenbead.core.run.Adversity;
import org.greenbead.core.run.ObserverTrial;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.Format;
import org.greenbead.store.OpenFiles;
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
    @Parameters(paramLabel = "PLAN", description = "A plan (greenbead/plan/1).")
    private Path file;
    @Option(names = "--runs", defaultValue = "20", description = "Number of benches (default ${DEFAULT-VALUE}).")
    private int runs;
    @Option(names = "--seed", defaultValue = "1", description = "Seed of the first bench (default ${DEFAULT-VALUE}).")
    private long seed;
    @Option(names = "--bench", paramLabel = "KIND", description = "How the benches differ beyond the usual scatter, as a kind of Adversity, or ALL (default USUAL).", defaultValue = "USUAL")
    private String kind;

    @Override
    public Integer call() throws Exception {
        RunPlan plan = shared.files().parse(OpenFiles.text(file), String.valueOf(file.getFileName()),
                Format.PLAN,
                RunPlan.class);
        List<Adversity> kinds = kind.equalsIgnoreCase("all")
                ? List.of(Adversity.values())
                : List.of(kind(kind));
        for (Adversity each : kinds) {
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

    private static Adversity kind(String word) {
        try {
            return Adversity.valueOf(word.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException("--bench is \"" + word + "\"; it is ALL or one of "
                    + java.util.Arrays.toString(Adversity.values()).toLowerCase(Locale.ROOT), e);
        }
    }
}
