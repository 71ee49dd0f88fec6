package org.greenbead.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.plan.Answer;
import org.greenbead.core.plan.Constraint;
import org.greenbead.core.plan.Planner;
import org.greenbead.core.plan.School;
import org.greenbead.core.plan.WayOut;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.BallForming;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.BadFileException;
import org.greenbead.store.Format;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Searches a recipe. */
@Command(name = "plan", mixinStandardHelpOptions = true, description = "Searches the recipe that keeps every limit of a plan, school by school.")
final class PlanCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(paramLabel = "PLAN", description = "A plan (greenbead/plan/1), or the number of a job in the ledger: its next heat of the board.")
    private Path file;
    @Option(names = "--school", paramLabel = "SCHOOL", description = "air_alone, heater_and_air or plate (default: all that the bench can do).")
    private String school;
    @Option(names = "--for", paramLabel = "TARGET", description = "lift, seat, reflow or form (balls on the loose chip); default: what the plan says.")
    private String target;
    @Option(names = "--balls", paramLabel = "ALLOY", description = "With --for form: what the balls are made of (default: the joints' alloy).")
    private String balls;
    @Option(names = "--base", paramLabel = "BASE", defaultValue = "paper", description = "With --for form: what lies under the balls: paper, block, holder, plate (the hot plate of the bench heats them) or board (they are made on the board half itself) (default ${DEFAULT-VALUE}).")
    private String base;
    @Option(names = "--ways", description = "Also price what would leave more room.")
    private boolean ways;
    @Option(names = "--recipe", paramLabel = "OUT", description = "Write the best recipe (greenbead/recipe/1).")
    private Path recipe;
    @Option(names = "--max-s", paramLabel = "S", description = "Search each way no longer than this, and take the best so far. The answer then depends on the machine; without it never.")
    private Optional<Double> maxS = Optional.empty();
    @Option(names = "--json", paramLabel = "OUT", description = "Write the answers as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        String name = String.valueOf(file.getFileName());
        RunPlan plan = aimed(new JobOnDisk(shared).plan(file));
        var planner = new Planner(plan, plan.knowledge(), Planner.Effort.USUAL);
        PrintWriter out = spec.commandLine().getOut();
        var answers = new ArrayList<Answer>();
        for (School each : schools(plan, name)) {
            long began = System.nanoTime();
            long until = maxS.isPresent() ? began + (long) (maxS.get() * 1e9) : Long.MAX_VALUE;
            Answer answer = planner.answer(each, d -> {
            }, Thread.currentThread()::isInterrupted, () -> System.nanoTime() > until);
            answers.add(answer);
            print(answer, out, "");
            if (answer.cutShort()) {
                out.printf(Locale.ROOT, "  out of time, best so far: %d of %d tried%n", answer.tried(),
                        answer.most());
            }
        }
        Optional<Answer> best = answers.stream()
                .max(java.util.Comparator.comparing(Answer::feasible).thenComparing(a -> a.binding().ease()));
        var priced = new ArrayList<WayOut>();
        if (ways && best.isPresent()) {
            priced.addAll(planner.waysOut(best.get(), d -> {
            }, Thread.currentThread()::isInterrupted));
            for (WayOut way : priced) {
                out.printf(Locale.ROOT, "  %s %s%n", way.way().name().toLowerCase(Locale.ROOT),
                        shared.words().show(way.what()));
                print(way.answer(), out, "    ");
            }
        }
        if (recipe != null && best.isPresent()) {
            SafeFiles.write(recipe, shared.files().write(Format.RECIPE, best.get().recipe())
                    .getBytes(StandardCharsets.UTF_8));
        }
        if (json != null) {
            SafeFiles.write(json, shared
                    .files().print(Map.of("answers", answers.stream().map(PlanCommand::json).toList(),
                            "ways",
                            priced.stream()
                                    .map(w -> Map.of("way", w.way().name().toLowerCase(Locale.ROOT), "what",
                                            shared.words().show(w.what()),
                                            "answer", json(w.answer())))
                                    .toList()))
                    .getBytes(StandardCharsets.UTF_8));
        }
        return answers.stream().anyMatch(Answer::feasible) ? 0 : 1;
    }

    private RunPlan aimed(RunPlan plan) throws BadFileException {
        if (target == null || target.equalsIgnoreCase(plan.task().name())) {
            return plan;
        }
        RunPlan.Task task = one("--for", target, RunPlan.Task.LIFT, RunPlan.Task.SEAT, RunPlan.Task.REFLOW,
                RunPlan.Task.FORM);
        if (task != RunPlan.Task.FORM) {
            return plan.to(task);
        }
        Alloy alloy = balls == null
                ? plan.target().joint().alloy()
                : Alloys.find(balls).orElseThrow(() -> new BadFileException("--balls", 0, "",
                        "\"" + balls + "\" is no alloy of the table",
                        "Choose one of "
                                + String.join(", ", Alloys.all().stream().map(Alloy::name).toList())));
        BallForming usual = BallForming.usual(plan.target(), alloy);
        return plan.forming(new BallForming(usual.stencilMm(), usual.thicknessMm(), alloy,
                one("--base", base, BallForming.Base.values())));
    }

    @SafeVarargs
    private static <E extends Enum<E>> E one(String option, String said, E... known) throws BadFileException {
        return java.util.Arrays.stream(known).filter(e -> e.name().equalsIgnoreCase(said)).findFirst()
                .orElseThrow(() -> new BadFileException(option, 0, "", "\"" + said + "\" is none of them",
                        "Choose one of " + String.join(", ", java.util.Arrays.stream(known)
                                .map(e -> e.name().toLowerCase(Locale.ROOT)).toList())));
    }

    private List<School> schools(RunPlan plan, String name) throws BadFileException {
        if (school == null) {
            return java.util.Arrays.stream(School.values()).filter(s -> s.possible(plan)).toList();
        }
        School wanted = java.util.Arrays.stream(School.values())
                .filter(s -> s.name().equalsIgnoreCase(school)).findFirst()
                .orElseThrow(() -> new BadFileException("--school", 0, "", "\"" + school + "\" is no school",
                        "Choose air_alone, heater_and_air or plate"));
        if (!wanted.possible(plan)) {
            throw new BadFileException(name, 0, "/bench/heater",
                    "bench " + plan.bench().id() + " has no plate that touches the board",
                    "Choose another school");
        }
        return List.of(wanted);
    }

    private void print(Answer answer, PrintWriter out, String indent) {
        Words words = shared.words();
        Constraint binding = answer.binding();
        out.printf(Locale.ROOT,
                "%s%s: %s; %s %.1f to spare; melts on %d of %d benches, keeps every limit at once on %d; %s, "
                        + "%d tried, search %.1f K off%n",
                indent,
                words.say("school." + answer.school().name().toLowerCase(Locale.ROOT)),
                answer.feasible() ? "keeps every limit" : "cannot keep every limit",
                words.say(binding.what()),
                binding.room(), answer.robustness().melts(), answer.robustness().members(),
                answer.robustness().all(),
                Words.clock(answer.outcome().lengthS()), answer.tried(),
                answer.drift().rmsK());
        if (!answer.feasible()) {
            out.printf(Locale.ROOT, "%s  no recipe found keeps them all; this one does the least harm:%n",
                    indent);
            answer.constraints().stream().filter(c -> !c.kept())
                    .sorted(java.util.Comparator.comparing(Constraint::ward))
                    .forEach(c -> out.printf(Locale.ROOT, "%s  %s: %.1f where %.1f is allowed (%s)%n", indent,
                            words.say(c.what()), c.value(), c.limit(),
                            c.ward().name().toLowerCase(Locale.ROOT)));
        }
        if (!answer.recipe().placing().centred()) {
            out.printf(Locale.ROOT, "%s  %s%n", indent,
                    words.say(answer.recipe().placing().says(answer.plan().target().name())));
        }
        answer.recipe().shields().forEach(s -> out.printf(Locale.ROOT,
                "%s  foil from %.0f, %.0f to %.0f, %.0f mm%n", indent, s.fromMm().xMm(), s.fromMm().yMm(),
                s.toMm().xMm(), s.toMm().yMm()));
    }

    private static Map<String, Object> json(Answer answer) {
        var map = new LinkedHashMap<String, Object>();
        map.put("school", answer.school());
        map.put("feasible", answer.feasible());
        map.put("recipe", answer.recipe());
        map.put("peak_joint_min_c", answer.outcome().peakMinC());
        map.put("peak_joint_max_c", answer.outcome().peakMaxC());
        map.put("above_liquidus_s", answer.outcome().aboveLiquidusS());
        map.put("length_s", answer.outcome().lengthS());
        map.put("limits",
                answer.constraints().stream().map(c -> Map.of("kind", c.kind(), "part", c.part(), "value",
                        c.value(), "limit", c.limit(), "room", c.room(), "ward", c.ward())).toList());
        map.put("members", answer.robustness().members());
        map.put("melts", answer.robustness().melts());
        map.put("holds_all", answer.robustness().all());
        map.put("holds", answer.robustness().limits());
        map.put("drift_rms_k", answer.drift().rmsK());
        map.put("drift_peak_k", answer.drift().peakK());
        map.put("tried", answer.tried());
        map.put("most", answer.most());
        map.put("cut_short", answer.cutShort());
        return map;
    }
}
