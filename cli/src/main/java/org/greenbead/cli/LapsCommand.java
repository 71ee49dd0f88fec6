package org.greenbead.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import org.greenbead.core.run.LapRipple;
import org.greenbead.core.run.RunPlan;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** How slow the circle of a nozzle may be. */
@Command(name = "laps", mixinStandardHelpOptions = true, description = "How much a joint at the corner swings when the nozzle is led round in so many seconds, and the slowest lap that still heats evenly; exit 1 when none does.")
final class LapsCommand extends Verb {
    @Parameters(paramLabel = "PLAN", description = "A plan (greenbead/plan/1), or the number of a job in the ledger: its next heat of the board.")
    private Path file;

    @Override
    public Integer call() throws Exception {
        RunPlan plan = new JobOnDisk(shared()).plan(file);
        List<LapRipple.Swing> swings = LapRipple.of(plan, Thread.currentThread()::isInterrupted);
        if (swings.isEmpty()) {
            out().println(
                    "no circle is led: the nozzle stands still over the chip, or no air blows at the peak");
            return 0;
        }
        for (LapRipple.Swing s : swings) {
            out().printf(Locale.ROOT,
                    "%4.1f s a lap  corner joint off its mean by %.1f K, top of the body by %.1f K%n",
                    s.lapS(), s.jointK(), s.bodyK());
        }
        OptionalDouble most = LapRipple.mostS(swings);
        if (most.isEmpty()) {
            out().println("even the quickest swings too much: take a nozzle that covers more of the chip");
            return 1;
        }
        out().printf(Locale.ROOT, "at most %.1f s a lap: no joint swings by more than %.0f K%n",
                most.getAsDouble(),
                LapRipple.SMOOTH_K);
        return 0;
    }
}
