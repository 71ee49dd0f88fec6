package org.greenbead.cli;

import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
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

    @Override
    public Integer call() throws Exception {
        RunPlan plan = shared.files().parse(OpenFiles.text(file), String.valueOf(file.getFileName()),
                Format.PLAN,
                RunPlan.class);
        ObserverTrial.Summary summary = ObserverTrial.of(plan, seed, Math.clamp(runs, 1, 1000), d -> {
        }, Thread.currentThread()::isInterrupted);
        spec.commandLine().getOut().printf(Locale.ROOT,
                "%d runs: the shown interval held the coldest joint %.1f %% of the time; error %.2f K rms, %.2f K rms at the peak%n",
                summary.runs().size(), 100 * summary.share(), summary.rmsK(), summary.hotRmsK());
        return 0;
    }
}
