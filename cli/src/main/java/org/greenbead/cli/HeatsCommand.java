package org.greenbead.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.plan.Answer;
import org.greenbead.core.plan.HeatBefore;
import org.greenbead.core.plan.Planner;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.HeatsBefore;
import org.greenbead.store.Ledger;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What was run on the same type of board before. */
@Command(name = "heats", mixinStandardHelpOptions = true, description = "Settings that were run before on the board of a job for the same purpose, what became of them, and what they would do on its bench today; exit 1 when there are none.")
final class HeatsCommand extends Verb {
    private static final int MOST = 30;
    @Parameters(index = "0", paramLabel = "JOB", description = "The number of a job in the ledger.")
    private String name;
    @Parameters(index = "1", arity = "0..1", paramLabel = "BEAD", description = "A bead that heats the board (default: the next one).")
    private Optional<String> bead = Optional.empty();
    @Option(names = "--json", paramLabel = "OUT", description = "Write them as JSON, with their recipes.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        try (Ledger ledger = shared().ledger()) {
            Job job = ledger.job(name);
            RunPlan now = ledger.plan(job, bead.orElseGet(() -> next(job)));
            List<HeatBefore> all = HeatsBefore.of(ledger, now, MOST);
            var planner = new Planner(now, now.knowledge(), Planner.Effort.USUAL);
            var rows = new java.util.ArrayList<Map<String, Object>>();
            for (HeatBefore heat : all) {
                Answer today = planner.judged(heat.on(now), d -> {
                }, Thread.currentThread()::isInterrupted);
                say(heat, today);
                heat.otherAlloy(now).ifPresent(a -> out().println("  its joints were of " + a + " then"));
                rows.add(row(heat, today));
            }
            if (all.isEmpty()) {
                out().println("nothing was run on " + now.board().id() + " " + now.target().name()
                        + " for this before");
            }
            json(json, Map.of("heats", rows));
            return all.isEmpty() ? 1 : 0;
        }
    }

    private static String next(Job job) {
        return job.beads().stream()
                .filter(b -> b.recipe().isPresent() && RunPlan.Task.of(b) != RunPlan.Task.FORM)
                .findFirst().map(Bead::id).orElseThrow(() -> new IllegalArgumentException(
                        "no bead of job " + job.id() + " heats the board"));
    }

    private void say(HeatBefore heat, Answer today) {
        out().printf(Locale.ROOT,
                "%s%s, job %s on %s: %s, joint peaked at %.0f °C, above liquidus %s; run %d×, "
                        + "%d of %d jobs passed their last tests%n",
                heat.practice() ? "practice " : "", heat.run(),
                heat.job(), heat.plan().bench().id(),
                words().say("verdict.outcome." + heat.outcome().name().toLowerCase(Locale.ROOT)),
                heat.peakJointC(),
                Words.clock(heat.aboveS()), heat.times(), heat.timesWell(),
                heat.timesWell() + heat.timesBadly());
        out().printf(Locale.ROOT,
                "  today: coldest joint %.0f °C, %s; keeps every limit on %d of %d benches%n",
                today.outcome().peakMinC(), today.feasible() ? "keeps every limit" : "breaks a limit",
                today.robustness().all(), today.robustness().members());
    }

    private static Map<String, Object> row(HeatBefore heat, Answer today) {
        var row = new LinkedHashMap<String, Object>();
        row.put("run", heat.run());
        row.put("practice", heat.practice());
        row.put("job", heat.job());
        row.put("at", heat.at().toString());
        row.put("bench", heat.plan().bench().id());
        row.put("outcome", heat.outcome());
        row.put("peak_joint_c", heat.peakJointC());
        row.put("above_liquidus_s", heat.aboveS());
        row.put("times", heat.times());
        row.put("well", heat.timesWell());
        row.put("badly", heat.timesBadly());
        row.put("today_peak_joint_min_c", today.outcome().peakMinC());
        row.put("today_feasible", today.feasible());
        row.put("recipe", today.recipe());
        return row;
    }
}
