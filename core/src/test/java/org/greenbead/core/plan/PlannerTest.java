package org.greenbead.core.plan;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.calibrate.GuidedRun;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.run.BallForming;
import org.greenbead.core.run.HeatFilm;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.greenbead.core.thermal.Uncertainty;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class PlannerTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());
    private static final Planner.Effort BRISK = new Planner.Effort(60, 8, true);

    private static Outcome drive(RunPlan plan, Resolution resolution) {
        return Drive.of(plan, plan.recipe(), new SheetModel(plan.scene(), Multipliers.NOMINAL, resolution),
                () -> false);
    }

    private static Answer answer(RunPlan plan, School school) {
        return new Planner(plan, Uncertainty.UNCALIBRATED, BRISK).answer(school, d -> {
        }, () -> false);
    }

    /** The shortcut and the engine of the real run come to the same. */
    @Test
    public void driveAgreesWithTheRehearsal() {
        Outcome outcome = drive(PLAN, Resolution.SEARCH);
        Rehearsal rehearsal = Rehearsal.of(PLAN, () -> false);
        assertTrue(outcome.melts());
        assertEquals(outcome.peakMinC(), rehearsal.peakJointMinC(), 4);
        assertEquals(outcome.fastestKPerS(), rehearsal.fastestKPerS(), 0.35);
        assertEquals(outcome.aboveLiquidusS(), rehearsal.aboveLiquidusS(), 5);
        assertEquals(outcome.stages().get(2).atS(), rehearsal.marks().get(2).endS(), 8);
        for (int i = 0; i < outcome.guardedPeakC().length; i++) {
            assertEquals(outcome.guardedPeakC()[i], rehearsal.peakC(i), 4, "part " + i);
        }
    }

    /** A loose chip under a stencil: balls melt, the body keeps its rating, and only air can do it. */
    @Test
    public void ballsAreFormedOnTheLooseChip() {
        BallForming setUp = BallForming.usual(PLAN.target(), Alloys.require("Sn63Pb37"));
        RunPlan form = PLAN.forming(setUp);
        assertEquals(form.target().joint().alloy().name(), "Sn63Pb37");
        assertFalse(School.PLATE.possible(form) || School.HEATER_AND_AIR.possible(form));
        Answer answer = answer(form, School.AIR_ALONE);
        assertTrue(answer.outcome().melts(), answer.constraints().toString());
        assertTrue(answer.feasible(), answer.constraints().toString());
        Outcome fine = Drive.of(answer.plan(), answer.recipe(),
                new SheetModel(answer.plan().scene(), Multipliers.NOMINAL, Resolution.FULL.stepping(0.25)),
                () -> false);
        assertTrue(fine.peakMinC() > 183.5 && fine.peakMaxC() < PLAN.target().bodyLimitC(), fine.toString());
        assertEquals(answer.recipe().stages().get(2).name(), "Balls");
    }

    /** A cold block under the chip drinks the heat: the same recipe leaves the joints colder than on paper. */
    @Test
    public void aBlockUnderTheChipCostsHeat() {
        BallForming paper = BallForming.usual(PLAN.target(), Alloys.require("Sn63Pb37"));
        RunPlan on = PLAN.forming(paper);
        RunPlan block = PLAN.forming(new BallForming(paper.stencilMm(), paper.thicknessMm(), paper.balls(),
                BallForming.Base.BLOCK));
        Recipe recipe = new Design(on, School.AIR_ALONE, PLAN.bench().air().nozzlesMm().getFirst(),
                Freedom.USUAL)
                .rounded(new double[]{0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5});
        Outcome warm = drive(on.with(recipe), Resolution.SEARCH);
        Outcome cold = drive(block.with(recipe), Resolution.SEARCH);
        assertTrue(cold.peakMinC() < warm.peakMinC() - 20,
                cold.peakMinC() + " on a block, " + warm.peakMinC());
        assertThrows(IllegalArgumentException.class,
                () -> new RunPlan(RunPlan.Task.FORM, PLAN.job(), PLAN.bead(),
                        PLAN.board(), PLAN.bench(), PLAN.recipe()));
    }

    /** Reflow settles where a lift takes hold: five seconds more of heat, and what they add has to cool away again. */
    @Test
    public void reflowStaysMoltenLongerThanALift() {
        Outcome lift = drive(PLAN, Resolution.SEARCH);
        Outcome reflow = drive(PLAN.to(RunPlan.Task.REFLOW), Resolution.SEARCH);
        assertEquals(reflow.aboveLiquidusS() - lift.aboveLiquidusS(), 7.5, 2.5);
    }

    @Test
    public void searchModelStaysNearTheFullOne() {
        Outcome full = drive(PLAN, Resolution.FULL);
        for (Resolution resolution : List.of(Resolution.SEARCH, Resolution.SEARCH_FINER)) {
            Outcome clock = Drive.onClock(PLAN, PLAN.recipe(),
                    new SheetModel(PLAN.scene(), Multipliers.NOMINAL, resolution), full);
            Outcome.Drift drift = full.against(clock);
            assertTrue(drift.small(), resolution + " strays " + drift);
            assertTrue(drift.rmsK() > 0, "another model indeed");
        }
    }

    @DataProvider
    Object[][] schools() {
        return new Object[][]{{School.HEATER_AND_AIR}, {School.AIR_ALONE}};
    }

    /** What is offered is checked again by a run with finer cells and shorter steps than the planner ever used. */
    @Test(dataProvider = "schools")
    public void offersOnlyWhatAFinerModelConfirms(School school) {
        Answer answer = answer(PLAN, school);
        assertTrue(answer.feasible(), answer.binding().toString());
        assertTrue(answer.drift().small(), answer.drift().toString());
        Outcome finer = Drive.of(answer.plan(), answer.recipe(), new SheetModel(answer.plan().scene(),
                Multipliers.NOMINAL, Resolution.FULL.finer(1.4).stepping(0.25)), () -> false);
        assertTrue(finer.melts());
        for (Constraint c : Constraint.of(answer.plan(), finer)) {
            assertTrue(c.room() > -0.15 * c.scale(), c.toString());
        }
        Stage soak = answer.recipe().stages().getFirst();
        assertEquals(soak.heaterC().isPresent(), school == School.HEATER_AND_AIR);
        assertTrue(answer.recipe().stages().stream().anyMatch(s -> s.end() instanceof StageEnd.ProbeReaches),
                "stages end on evidence");
        assertEquals(answer.robustness().members(), 8);
        assertTrue(answer.robustness().melts() > 0);
        assertTrue(answer.robustness().limits().stream()
                .allMatch(l -> l.held() >= answer.robustness().all()), "all at once is never more than one");
        for (int i = 1; i < answer.constraints().size(); i++) {
            assertTrue(answer.constraints().get(i).ease() >= answer.constraints().get(i - 1).ease(),
                    "tightest first");
        }
    }

    /** A neighbour with bismuth joints an inch away cannot be kept solid under a tin-silver job: the planner says so and says which. */
    @Test
    public void saysHonestlyWhatCannotBe() {
        Chip target = World.processor("SAC305", 0, 10);
        Board board = World.board(target, World.neighbour("U2", Side.TOP, 47, 58, "Sn42Bi58"));
        RunPlan plan = World.plan(World.usualRecipe(), target).with(board);
        Answer answer = answer(plan, School.HEATER_AND_AIR);
        assertFalse(answer.feasible());
        assertEquals(answer.binding().part(), "U2");
        assertEquals(answer.binding().kind(), Constraint.Kind.JOINTS);
        assertTrue(answer.binding().room() < 0);
    }

    /** A cell beside the chip: rather no melt than one that vents. */
    @Test
    public void aCellIsSparedAtTheCostOfTheMelt() {
        var cell = new org.greenbead.core.board.ProtectedPart("BT1", "cell", Side.TOP, new Point(48, 58),
                new Point(8, 8), 60, java.util.Optional.empty(),
                java.util.Set.of(org.greenbead.core.board.ProtectedPart.Holds.CELL));
        RunPlan beside = PLAN.with(PLAN.board().withParts(List.of(cell)));
        Answer answer = answer(beside, School.HEATER_AND_AIR);
        assertFalse(answer.feasible());
        double spared = cellC(beside, answer.outcome());
        double usual = cellC(beside, drive(beside, Resolution.FULL));
        assertTrue(spared < usual - 30, spared + " where the usual recipe reaches " + usual);
        assertFalse(answer.outcome().melts(), "the melt is what is given up");
        assertEquals(Constraint.of(answer.plan(), answer.outcome()).stream()
                .filter(c -> c.part().equals("BT1")).findFirst().orElseThrow().ward(),
                Constraint.Ward.PERSON);
    }

    private static double cellC(RunPlan plan, Outcome outcome) {
        return Constraint.of(plan, outcome).stream().filter(c -> c.part().equals("BT1")).findFirst()
                .orElseThrow().value();
    }

    /** What a limit costs: a stricter ramp makes the run longer, and asking changes nothing of the plan. */
    @Test
    public void aLimitElsewhereIsSearchedForItself() {
        var planner = new Planner(PLAN, Uncertainty.UNCALIBRATED, BRISK);
        Answer answer = planner.answer(School.AIR_ALONE, d -> {
        }, () -> false);
        Constraint ramp = answer.constraints().stream().filter(c -> c.kind() == Constraint.Kind.RAMP)
                .findFirst().orElseThrow();
        Answer gentle = planner.ifLimitWere(answer, ramp, 0.9, d -> {
        }, () -> false);
        Constraint held = gentle.constraints().stream().filter(c -> c.kind() == Constraint.Kind.RAMP)
                .findFirst().orElseThrow();
        assertEquals(held.limit(), 0.9);
        assertEquals(held.room(), 0.9 - held.value(), 1e-9);
        assertTrue(gentle.outcome().fastestKPerS() < answer.outcome().fastestKPerS() - 0.4,
                gentle.outcome().fastestKPerS() + " after " + answer.outcome().fastestKPerS());
        Constraint melt = answer.constraints().stream().filter(c -> c.kind() == Constraint.Kind.MELT)
                .findFirst().orElseThrow();
        Answer hotter = planner.ifLimitWere(answer, melt, melt.limit() + 15, d -> {
        }, () -> false);
        assertTrue(hotter.outcome().peakMinC() > answer.outcome().peakMinC() + 8,
                hotter.outcome().peakMinC() + " after " + answer.outcome().peakMinC());
        assertThrows(IllegalArgumentException.class,
                () -> new Planner(PLAN, Uncertainty.UNCALIBRATED, BRISK).ifLimitWere(answer, ramp, 2, d -> {
                }, () -> false));
    }

    @Test
    public void pricesTheWaysOutAndOffersNoBismuthToLead() {
        Answer answer = answer(PLAN, School.AIR_ALONE);
        var planner = new Planner(PLAN, Uncertainty.UNCALIBRATED, BRISK);
        AtomicInteger told = new AtomicInteger();
        List<WayOut> ways = planner.waysOut(answer, d -> told.incrementAndGet(), () -> false);
        assertTrue(ways.stream().anyMatch(w -> w.way() == WayOut.Way.OTHER_SCHOOL));
        double used = nozzle(answer);
        assertEquals(ways.stream().anyMatch(w -> w.way() == WayOut.Way.WIDER_NOZZLE), used < 14,
                "wider than " + used + " mm, if there is one");
        assertTrue(ways.stream().filter(w -> w.way() == WayOut.Way.WIDER_NOZZLE)
                .allMatch(w -> nozzle(w.answer()) > used));
        assertTrue(ways.stream().noneMatch(w -> w.way() == WayOut.Way.DILUTE_FIRST), "the joints hold lead");
        assertEquals(told.get(), ways.size());
        for (int i = 1; i < ways.size(); i++) {
            assertTrue(ways.get(i).answer().binding().ease() <= ways.get(i - 1).answer().binding().ease());
        }
    }

    private static double nozzle(Answer answer) {
        return answer.recipe().stages().stream().flatMap(s -> s.air().stream()).mapToDouble(a -> a.nozzleMm())
                .max()
                .orElseThrow();
    }

    @Test
    public void canBeCancelledAndRefusesASchoolTheBenchCannotDo() {
        var planner = new Planner(PLAN, Uncertainty.UNCALIBRATED, BRISK);
        assertThrows(CancellationException.class, () -> planner.answer(School.HEATER_AND_AIR, d -> {
        }, () -> true));
        assertThrows(IllegalArgumentException.class, () -> planner.answer(School.PLATE, d -> {
        }, () -> false));
    }

    /** Busy or idle, on one core or on many: to the last bit the same recipe. */
    @Test
    public void sameAnswerOnAMachineThatIsBusy() throws Exception {
        var few = new Planner(PLAN, Uncertainty.UNCALIBRATED, new Planner.Effort(16, 4, true));
        Answer idle = few.answer(School.HEATER_AND_AIR, d -> {
        }, () -> false);
        var busy = new java.util.concurrent.atomic.AtomicBoolean(true);
        List<Thread> load = java.util.stream.IntStream.range(0, 4)
                .mapToObj(i -> Thread.ofPlatform().daemon().start(() -> {
                    double x = 1;
                    while (busy.get()) {
                        x = Math.sqrt(x + i);
                    }
                })).toList();
        try (var one = new java.util.concurrent.ForkJoinPool(1)) {
            Answer loaded = one.submit(() -> few.answer(School.HEATER_AND_AIR, d -> {
            }, () -> false)).get();
            assertEquals(loaded.recipe(), idle.recipe());
            assertEquals(loaded.tried(), idle.tried());
            assertEquals(loaded.outcome().peakMinC(), idle.outcome().peakMinC());
            assertEquals(loaded.robustness(), idle.robustness());
        } finally {
            busy.set(false);
        }
        assertEquals(load.size(), 4);
    }

    /** Who has enough gets the best so far, proved like any other, and is told how far the search came. */
    @Test
    public void whoHasEnoughGetsTheBestSoFar() {
        var told = new java.util.concurrent.atomic.AtomicInteger();
        Answer answer = new Planner(PLAN, Uncertainty.UNCALIBRATED, BRISK).answer(School.HEATER_AND_AIR,
                d -> told.incrementAndGet(), () -> false, () -> told.get() >= 10);
        assertTrue(answer.cutShort());
        assertTrue(answer.tried() >= 8 && answer.tried() <= 14, answer.tried() + " tried");
        assertEquals(answer.most(), 120);
        assertEquals(answer.robustness().members(), 8, "it was proved all the same");
    }

    @Test
    public void guidedRunKeepsEverythingSolid() {
        RunPlan guided = GuidedRun.of(PLAN);
        assertEquals(guided.task(), RunPlan.Task.CALIBRATE);
        Outcome outcome = Drive.of(guided, guided.recipe(),
                new SheetModel(guided.scene(), Multipliers.NOMINAL, Resolution.FULL), () -> false);
        assertTrue(outcome.peakMaxC() < 183 - 25, "peak " + outcome.peakMaxC());
        assertFalse(outcome.melts());
        assertTrue(guided.recipe().stages().stream().noneMatch(s -> s.purpose() == Stage.Purpose.PEAK));
    }

    @Test
    public void filmHasAPictureEveryTwoSeconds() {
        HeatFilm film = HeatFilm.of(PLAN, () -> false);
        assertEquals(film.frames().size(), film.rehearsal().lengthS() / 2, 3);
        HeatFilm.Frame at = film.at(101);
        assertEquals(at.timeS(), 101, 1.01);
        double skin = 0;
        for (float c : film.at(film.rehearsal().lengthS() * 0.8).of(Side.TOP).celsius()) {
            skin = Math.max(skin, c);
        }
        assertTrue(skin > 150, "the chip is hot: " + skin);
        assertEquals(HeatFilm.rooms(PLAN, film.row(50)).size(), 4);
        assertTrue(new Point(36, 58).distanceMm(PLAN.target().centreMm()) < 1e-9);
    }
}
