package org.greenbead.core.plan;

import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;
import org.testng.annotations.Test;

/**
 * The planner against two plain searches that may try as many recipes on the same model, on boards as they come by chance; who
 * is better is told by the full model. {@code -Dgreenbead.trial=40} tries forty boards, {@code -Dgreenbead.trial.from=5000} others.
 */
public class PlannerTrialTest {
    /** Less than this between two recipes, in units of a limit's scale, is a draw. */
    private static final double DRAW = 0.1;
    private static final School SCHOOL = School.HEATER_AND_AIR;

    /** The designs that a search may choose from: one for each nozzle that suits. */
    private static final class Recipes {
        private final RunPlan plan;
        private final List<Design> designs;
        private final SheetModel start;

        Recipes(RunPlan plan) {
            this.plan = plan;
            designs = Planner.suiting(plan).stream().map(n -> new Design(plan, SCHOOL, n, Freedom.USUAL))
                    .toList();
            start = new SheetModel(plan.scene(), Multipliers.NOMINAL, Resolution.SEARCH);
        }

        int size() {
            return designs.getFirst().size() + 1;
        }

        Design design(double[] shares) {
            return designs.get(
                    Math.min(designs.size() - 1, (int) (shares[size() - 1] * designs.size())));
        }

        Worth worth(double[] shares) {
            return Worth.of(plan,
                    Drive.of(plan, design(shares).recipe(shares), start.copy(), () -> false));
        }

        Worth full(double[] shares) {
            return Worth.of(plan, Drive.of(plan, design(shares).rounded(shares),
                    new SheetModel(plan.scene(), Multipliers.NOMINAL, Resolution.FULL), () -> false));
        }
    }

    private static double[] drawn(int size, SplittableRandom by) {
        double[] shares = new double[size];
        for (int i = 0; i < size; i++) {
            shares[i] = by.nextDouble();
        }
        return shares;
    }

    private static double[] random(Recipes space, int most, long seed) {
        var by = new SplittableRandom(seed);
        double[] best = drawn(space.size(), by);
        Worth worth = space.worth(best);
        for (int i = 1; i < most; i++) {
            double[] next = drawn(space.size(), by);
            Worth now = space.worth(next);
            if (now.compareTo(worth) < 0) {
                best = next;
                worth = now;
            }
        }
        return best;
    }

    /** One number after another, each way by a step that is halved when nothing helps any more. */
    private static double[] coordinates(Recipes space, int most) {
        double[] best = java.util.Arrays.copyOf(space.designs.getFirst().first(), space.size());
        Worth worth = space.worth(best);
        double step = 0.25;
        int tried = 1;
        while (tried < most) {
            boolean better = false;
            for (int i = 0; i < best.length && tried < most; i++) {
                for (int way = -1; way <= 1 && tried < most; way += 2) {
                    double[] next = best.clone();
                    next[i] = Math.clamp(next[i] + way * step, 0, 1);
                    if (next[i] == best[i]) {
                        continue;
                    }
                    Worth now = space.worth(next);
                    tried++;
                    if (now.compareTo(worth) < 0) {
                        best = next;
                        worth = now;
                        better = true;
                        break;
                    }
                }
            }
            if (!better) {
                step /= 2;
                if (step < 1e-3) {
                    break;
                }
            }
        }
        return best;
    }

    /** Two boards in the suite; forty for the figures that docs/planner.md quotes. */
    @Test
    public void isSeldomBeatenByAPlainSearch() {
        int many = Integer.getInteger("greenbead.trial", 0);
        int[] boards = many > 0 ? java.util.stream.IntStream.range(0, many).toArray() : new int[]{4, 7};
        Planner.Effort effort = many > 0
                ? new Planner.Effort(Planner.Effort.USUAL.evaluations(), 2, true)
                : new Planner.Effort(40, 2, true);
        int[] random = new int[3];
        int[] coordinate = new int[3];
        var lines = new ArrayList<String>();
        for (int board : boards) {
            RunPlan plan = RandomPlans.of(Integer.getInteger("greenbead.trial.from", 1000) + board);
            Answer answer = new Planner(plan, Uncertainty.UNCALIBRATED, effort).answer(SCHOOL, d -> {
            }, () -> false);
            Worth ours = Worth.of(answer.plan(), answer.outcome());
            var space = new Recipes(plan);
            Worth blind = space.full(random(space, answer.tried(), board));
            Worth along = space.full(coordinates(space, answer.tried()));
            random[1 + ours.against(blind, DRAW)]++;
            coordinate[1 + ours.against(along, DRAW)]++;
            lines.add(String.format(Locale.ROOT, "%d %s | ours %s | random %s | coordinate %s", board,
                    plan.bench().id(), ours, blind, along));
        }
        String all = String.join("\n", lines) + "\nagainst random: wins " + random[0] + " draws " + random[1]
                + " losses " + random[2] + "; against one number at a time: wins " + coordinate[0] + " draws "
                + coordinate[1] + " losses " + coordinate[2];
        if (many > 0) {
            org.testng.Reporter.log(all, true);
        }
        assertTrue(random[2] * 4 <= boards.length && coordinate[2] * 4 <= boards.length, all);
    }
}
