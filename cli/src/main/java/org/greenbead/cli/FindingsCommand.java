package org.greenbead.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.PlanRules;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Judges a plan. */
@Command(name = "findings", mixinStandardHelpOptions = true, description = "Judges a plan by the rule book: what, why, remedy, source.")
final class FindingsCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(paramLabel = "PLAN", description = "A plan (greenbead/plan/1), or the number of a job in the ledger: its next heat of the board.")
    private Path file;

    @Override
    public Integer call() throws Exception {
        RunPlan plan = new JobOnDisk(shared).plan(file);
        List<Finding> findings = PlanRules.look(plan,
                Optional.of(Rehearsal.of(plan, Thread.currentThread()::isInterrupted)));
        Words words = shared.words();
        for (Finding finding : findings) {
            spec.commandLine().getOut().println(text(finding, words));
            spec.commandLine().getOut().println("        " + words.say(finding.source()));
        }
        return findings.stream().anyMatch(f -> f.severity() == Severity.STOP) ? 1 : 0;
    }

    static String text(Finding finding, Words words) {
        return String.format(Locale.ROOT, "  %-5s %s. %s Remedy: %s.",
                words.say("severity." + finding.severity().name().toLowerCase(Locale.ROOT)),
                words.say(finding.what()),
                words.say(finding.why()), words.say(finding.cure()));
    }
}
