package org.greenbead.core.run;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertNotSame;
import static org.testng.Assert.assertSame;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.book.Phase;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.Method;
import org.greenbead.core.forming.Stand;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Schools;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.testng.annotations.Test;

/** What a job says of its balls, the set-ups that follow, and the heat that is reckoned for them. */
public class BallFormingTest {
    private static final Instant NOW = Instant.parse("2026-03-01T09:00:00Z");
    private static final Chip CHIP = World.processor("SAC305", 1, 10);

    private static Bead run(String id) {
        return new Bead(id, Phase.BEAD, Bead.Kind.RUN, false, BeadState.OPEN, List.of(),
                Optional.of("r-" + id));
    }

    private static Job job() {
        Job plain = World.job(Attest.YES);
        var beads = new java.util.ArrayList<>(plain.beads());
        beads.add(run("bead_form"));
        beads.add(run("bead_shape"));
        beads.add(run("bead_count"));
        return plain.withBeads(beads);
    }

    private static Job chosen(Job job, String point, String choice) {
        Schools schools = Schools.shipped();
        return schools.choose(job, schools.find(point).orElseThrow(), choice, "as tried here", NOW,
                "technician A");
    }

    private static RunPlan plan(Job job, String bead) {
        return RunPlan.of(job, job.bead(bead).orElseThrow(), World.plan(World.usualRecipe(), CHIP).board(),
                World.bench(), Optional.empty());
    }

    @Test
    public void whatNobodyNotedIsTheUsual() {
        BallForming usual = BallForming.of(job(), CHIP, run("bead_form"));
        assertEquals(usual.balls().name(), "SAC305", "the alloy that is on the chip");
        assertEquals(usual.thicknessMm(), 0.12, 1e-12);
        assertEquals(usual.method(), Method.PASTE);
        assertEquals(usual.base(), BallForming.Base.PAPER);
        assertFalse(usual.bare());
    }

    @Test
    public void recordsFactsAndWaysSayTheRest() {
        Job job = job().with(job().facts().with("plan.ball_alloy=Sn63Pb37; stencil.thickness_mm=0.10"));
        assertEquals(BallForming.of(job, CHIP, run("bead_form")).balls().name(), "Sn63Pb37");
        assertEquals(BallForming.of(job, CHIP, run("bead_form")).thicknessMm(), 0.10, 1e-12);
        Job noted = job
                .with(new Kept("stencil-1", "stencil", NOW, "technician A", Map.of("thickness_mm", 0.15)));
        assertEquals(BallForming.of(noted, CHIP, run("bead_form")).thicknessMm(), 0.15, 1e-12,
                "a record outranks a fact");
        Job absurd = job()
                .with(new Kept("stencil-1", "stencil", NOW, "technician A", Map.of("thickness_mm", 4.0)));
        assertEquals(BallForming.of(absurd, CHIP, run("bead_form")).thicknessMm(), 0.12, 1e-12);
        assertEquals(BallForming.of(chosen(job, "backing", "metal"), CHIP, run("bead_form")).base(),
                BallForming.Base.BLOCK);
        assertEquals(BallForming.of(job, CHIP, run("spheres_melt")).method(), Method.SPHERES);
    }

    @Test
    public void theSecondMeltHasFluxInPlaceOfTheSheet() {
        RunPlan first = plan(job(), "bead_form");
        RunPlan second = plan(job(), "bead_shape");
        assertEquals(first.word(), "form");
        assertEquals(second.word(), "shape");
        assertEquals(first.board().sizeMm(), new Point(CHIP.sizeMm().xMm() + 30, CHIP.sizeMm().yMm() + 30));
        assertEquals(second.board().sizeMm(), CHIP.sizeMm());
        assertEquals(second.board().thicknessMm(), 0.1, 1e-12);
        // The sheet gathers what the jet spreads beside the chip: without it the same air gives the balls less.
        assertTrue(after(second, first.recipe(), 60) < after(first, first.recipe(), 60));
    }

    private static double after(RunPlan plan, Recipe recipe, double seconds) {
        HeatModel model = RunEngine.nominalModel(plan.with(recipe));
        Stage soak = recipe.stages().getFirst();
        model.advance(HeatInput.of(soak.heaterC(), soak.air()), seconds);
        return model.jointCentreC();
    }

    @Test
    public void aChipSmallerThanAnyBoardIsReckonedAllTheSame() {
        var small = new Chip("U1", "QX-4", CHIP.side(), new Point(40, 40), new Point(4, 5), CHIP.layers(),
                245, 1, 8, 168,
                10);
        RunPlan lift = World.plan(World.usualRecipe(), small);
        BallForming usual = BallForming.usual(small, Alloys.require("Sn63Pb37"));
        RunPlan plan = lift
                .forming(new BallForming(usual.stencilMm(), 0.12, usual.balls(), usual.base(), Method.SPHERES,
                        BallForming.Melt.FIRST));
        assertEquals(plan.board().sizeMm(), new Point(10, 10));
        assertTrue(plan.bench().probes().getFirst().atMm().distanceMm(plan.target().centreMm()) < 2.1,
                "the probe touches the chip");
        Recipe recipe = FormingRecipe.of(plan, "r", "Balls");
        assertTrue(Rehearsal.of(plan.with(recipe), () -> false).peakJointMinC() > 183);
    }

    @Test
    public void whatTheWayOfWorkingAllowsDecidesTheAir() {
        double usual = peak(plan(job(), "bead_form"));
        double gentle = peak(plan(chosen(job(), "form_air", "gentle"), "bead_form"));
        double hot = peak(plan(chosen(job(), "form_air", "hot"), "bead_form"));
        assertTrue(gentle <= usual && usual <= hot && gentle < hot, gentle + " " + usual + " " + hot);
    }

    /** Whatever spits: on every usual bench the heat that is offered melts every ball, as far as the station can. */
    @Test
    public void whatIsOfferedMeltsOnEveryUsualBench() {
        for (var kind : org.greenbead.core.kind.BenchKind.shipped()) {
            for (String alloy : List.of("SAC305", "Sn63Pb37")) {
                RunPlan on = World.plan(World.usualRecipe(), CHIP)
                        .with(new org.greenbead.core.bench.Bench("b",
                                "b", 23, kind.heater(), kind.air(), World.bench().probes()));
                RunPlan plan = on.forming(BallForming.usual(CHIP, Alloys.require(alloy)));
                Recipe recipe = FormingRecipe.of(plan, "r", "Balls");
                double peak = Rehearsal.of(plan.with(recipe), () -> false).peakJointMinC();
                assertTrue(peak > Alloys.require(alloy).liquidusC() + 10,
                        kind.id() + " " + alloy + " reaches " + peak);
            }
        }
    }

    private static double peak(RunPlan plan) {
        return plan.recipe().stages().get(2).air().map(AirSetting::setC).orElseThrow();
    }

    /** A job is read at every act: the heat is reckoned anew when something it rests on has changed, and then only. */
    @Test
    public void theHeatIsReckonedOnceForTheSameChip() {
        var heats = new FormingHeats();
        Job job = job();
        var first = kept(job, heats);
        assertSame(kept(job.with("bead_count", BeadState.GREEN), heats).recipe(), first.recipe());
        RunPlan gentle = kept(chosen(job, "form_air", "gentle"), heats);
        assertNotEquals(gentle.recipe(), first.recipe());
        assertEquals(gentle.recipe(), plan(chosen(job, "form_air", "gentle"), "bead_form").recipe());
        assertNotSame(kept(chosen(job, "backing", "metal"), heats).recipe(), first.recipe());
        assertSame(kept(job, heats).recipe(), first.recipe());
    }

    private static RunPlan kept(Job job, FormingHeats heats) {
        return RunPlan.of(job, job.bead("bead_form").orElseThrow(),
                World.plan(World.usualRecipe(), CHIP).board(), World.bench(), Optional.empty(), heats);
    }

    @Test
    public void aKeptRecipeIsTakenAsItIs() {
        Recipe kept = FormingRecipe.of(plan(job(), "bead_form"), "mine", "Mine");
        RunPlan plan = RunPlan.of(job(), run("bead_form"), World.plan(World.usualRecipe(), CHIP).board(),
                World.bench(),
                Optional.of(kept));
        assertSame(plan.recipe(), kept);
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> RunPlan.of(job(), job().bead("lift_run").orElseThrow(), plan.board(), World.bench(),
                        Optional.empty()))
                .getMessage().contains("has no recipe"));
    }

    /** Cell and supply of the board have nothing to do with a chip that lies on the bench; smoke and lead do. */
    @Test
    public void onlyWhatTouchesTheLooseChipIsAskedBeforeItsHeat() {
        Job careless = World.job(Attest.NO).withBeads(job().beads().stream()
                .map(b -> b.id().equals("prepare_power") ? World.job(Attest.NO).beads().getFirst() : b)
                .toList());
        RunPlan plan = plan(careless, "bead_form");
        List<Rule> rules = PlanRules.look(plan, Optional.empty()).stream().map(f -> f.rule()).toList();
        assertTrue(rules.contains(Rule.NO_EXTRACTION), rules.toString());
        assertFalse(rules.contains(Rule.CELL_CONNECTED), rules.toString());
        assertFalse(rules.contains(Rule.BOARD_NOT_FLAT), rules.toString());
    }

    @Test
    public void ballsAreAnExposureOfTheChipAndNoJointOfTheBoard() {
        RunPlan plan = plan(job(), "bead_form");
        var verdict = new Verdict(Verdict.Outcome.PROVEN, List.of(), 238, 44, 190, 300, MeltProof.NONE, true,
                List.of());
        Job after = AfterRun.written(plan.job(), plan, List.of(), verdict, NOW, "technician A");
        assertEquals(after.records("exposure").getFirst().text("event"), "bead_form");
        assertEquals(after.records("exposure").getFirst().number("above_s"), 44.0);
        assertTrue(after.records("joint").isEmpty());
    }

    /** A way that the job chose with a reason is warned of, not stopped; flux on filled holes stays wrong. */
    @Test
    public void aThinFilmUnderThePasteIsAChoiceAndOverItIsNot() {
        RunPlan plan = plan(chosen(job(), "forming_flux", "thin"), "bead_form");
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        engine.apply(new RunEvent.Acted(1, Act.FLUX));
        assertEquals(engine.state().findings().getFirst().rule(), Rule.ACT_AT_A_PRICE);
        engine.apply(new RunEvent.Acted(2, Act.ALIGN));
        engine.apply(new RunEvent.Acted(3, Act.FILL));
        assertEquals(engine.state().forming().orElseThrow().forming().stand(), Stand.FILLED);
        engine.apply(new RunEvent.Acted(4, Act.FLUX));
        assertEquals(engine.state().findings().getFirst().rule(), Rule.ACT_WRONG);
        assertEquals(engine.state().forming().orElseThrow().forming().stand(), Stand.CLEAN);
        RunEngine usual = RunEngine.live(plan(job(), "bead_form"), Optional.empty());
        usual.apply(new RunEvent.Acted(1, Act.FLUX));
        assertEquals(usual.state().findings().getFirst().rule(), Rule.ACT_WRONG);
    }
}
