package org.greenbead.core.plan;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.recipe.Placing;
import org.greenbead.core.record.Kept;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.LatinHypercube;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.testng.annotations.Test;

/** Which of two recipes is better, and what stands behind a limit. */
public class WorthTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());

    private static Constraint broken(Constraint.Ward ward, double byScales) {
        return new Constraint(Constraint.Kind.PART, "X" + ward, Phrase.of("limit.spread"), 0, 0, -byScales, 1,
                ward);
    }

    private static Worth worth(Constraint... constraints) {
        return Worth.of(List.of(constraints), 600, c -> 0);
    }

    /** However much of a later ward is given up, the earlier one counts first. */
    @Test
    public void theEarlierWardIsSparedAtTheCostOfTheLater() {
        Constraint.Ward[] wards = Constraint.Ward.values();
        for (int early = 0; early < wards.length; early++) {
            for (int late = early + 1; late < wards.length; late++) {
                Worth hurtsEarly = worth(broken(wards[early], 0.5));
                Worth hurtsLate = worth(broken(wards[late], 20));
                assertTrue(hurtsLate.compareTo(hurtsEarly) < 0, wards[early] + " before " + wards[late]);
                assertEquals(hurtsLate.against(hurtsEarly, 0.1), -1);
                assertEquals(hurtsEarly.against(hurtsLate, 0.1), 1);
            }
        }
    }

    @Test
    public void whatKeepsAllIsBetterThanWhatBreaksAnything() {
        Worth keeps = worth(broken(Constraint.Ward.BODY, -0.1));
        assertTrue(keeps.keepsAll());
        assertFalse(worth(broken(Constraint.Ward.REST, 0.05)).keepsAll());
        assertTrue(keeps.compareTo(worth(broken(Constraint.Ward.REST, 0.3))) < 0);
        assertTrue(worth(broken(Constraint.Ward.BODY, -1.5)).compareTo(keeps) < 0, "more room is better");
        Worth roomy = worth(broken(Constraint.Ward.BODY, -2));
        Worth roomier = worth(broken(Constraint.Ward.BODY, -9));
        assertEquals(roomy.compareTo(roomier), 0, "beyond comfortable more room is worth nothing");
        assertTrue(Worth.of(List.of(), 300, c -> 0).compareTo(Worth.of(List.of(), 900, c -> 0)) < 0,
                "then the shorter one");
    }

    /** The order is one: no circle of three, whatever the numbers. */
    @Test
    public void theOrderHasNoCircles() {
        var random = new java.util.Random(5);
        var all = new ArrayList<Worth>();
        for (int i = 0; i < 200; i++) {
            all.add(worth(broken(Constraint.Ward.JOINTS, random.nextDouble() - 0.5),
                    broken(Constraint.Ward.BODY, random.nextDouble() - 0.5)));
        }
        var sorted = new ArrayList<>(all);
        sorted.sort(null);
        for (int i = 1; i < sorted.size(); i++) {
            assertTrue(sorted.get(i - 1).compareTo(sorted.get(i)) <= 0);
            assertTrue(sorted.getFirst().compareTo(sorted.get(i)) <= 0);
        }
        assertEquals(Set.copyOf(sorted).size(), Set.copyOf(all).size());
    }

    private static Constraint.Ward ward(RunPlan plan, String part, Constraint.Kind kind) {
        Outcome outcome = Drive.of(plan, plan.recipe(),
                new SheetModel(plan.scene(), Multipliers.NOMINAL, Resolution.OBSERVER), () -> false);
        return Constraint.of(plan, outcome).stream()
                .filter(c -> c.part().equals(part) && c.kind() == kind).findFirst().orElseThrow().ward();
    }

    private static RunPlan holding(ProtectedPart.Holds what) {
        Board board = PLAN.board();
        return PLAN.with(board.withParts(List.of(new ProtectedPart("BT1", "cell", Side.TOP, new Point(12, 10),
                new Point(8, 5), 60, java.util.Optional.empty(), Set.of(what)))));
    }

    /** A cell is a person's face; the only copy of data comes next, and only where the job says that there is one. */
    @Test
    public void whatStandsBehindALimitFollowsFromBoardAndJob() {
        assertEquals(ward(holding(ProtectedPart.Holds.CELL), "BT1", Constraint.Kind.PART),
                Constraint.Ward.PERSON);
        assertEquals(ward(holding(ProtectedPart.Holds.DATA), "BT1", Constraint.Kind.PART),
                Constraint.Ward.IRREPLACEABLE);
        assertEquals(ward(holding(ProtectedPart.Holds.UNDERFILL), "BT1", Constraint.Kind.PART),
                Constraint.Ward.REST);
        assertEquals(ward(PLAN, "U2", Constraint.Kind.JOINTS), Constraint.Ward.JOINTS);
        assertEquals(ward(PLAN, "U1", Constraint.Kind.BODY), Constraint.Ward.BODY);
        RunPlan only = PLAN.with(PLAN.job().with(kept("intake", "data_value", "irreplaceable")));
        assertEquals(ward(only, "U1", Constraint.Kind.BODY), Constraint.Ward.IRREPLACEABLE,
                "what the chip in hand is was not noted");
        assertEquals(ward(only, "U2", Constraint.Kind.JOINTS), Constraint.Ward.JOINTS);
        RunPlan power = only.with(only.job().with(kept("chip", "role", "power")));
        assertEquals(ward(power, "U1", Constraint.Kind.BODY), Constraint.Ward.BODY);
        RunPlan beside = power.with(power.job().with(new Kept("neighbour-1", "neighbour", Instant.EPOCH, "me",
                Map.of("id", "U2", "holds_data", true))));
        assertEquals(ward(beside, "U2", Constraint.Kind.JOINTS), Constraint.Ward.IRREPLACEABLE);
    }

    private static Kept kept(String type, String field, String value) {
        return new Kept(type + "-1", type, Instant.EPOCH, "me", Map.of(field, value));
    }

    /** Heater and nozzle beside the chip, away from a neighbour, leave its hottest joint colder. */
    @Test
    public void besideTheChipANeighbourStaysColder() {
        Outcome over = drive(PLAN);
        RunPlan beside = PLAN.with(PLAN.recipe().placed(new Placing(new Point(-4, 0), new Point(-30, 0))));
        Outcome away = drive(beside);
        assertTrue(peak(beside, away, "U2") < peak(PLAN, over, "U2") - 3,
                peak(beside, away, "U2") + " beside, " + peak(PLAN, over, "U2") + " over it");
        assertEquals(drive(PLAN.with(PLAN.recipe().placed(Placing.CENTRED))).peakMinC(), over.peakMinC());
    }

    private static Outcome drive(RunPlan plan) {
        return Drive.of(plan, plan.recipe(),
                new SheetModel(plan.scene(), Multipliers.NOMINAL, Resolution.SEARCH), () -> false);
    }

    private static double peak(RunPlan plan, Outcome outcome, String part) {
        return Constraint.of(plan, outcome).stream().filter(c -> c.part().equals(part)).findFirst()
                .orElseThrow().value();
    }

    /** Another chip is as hot as its hottest joint, beside the jet well over its middle. */
    @Test
    public void aNeighbourIsAsHotAsItsHottestJoint() {
        RunPlan close = PLAN
                .with(World.board(PLAN.target(), World.neighbour("U2", Side.TOP, 47, 58, "SAC305")));
        var model = new SheetModel(close.scene(), Multipliers.NOMINAL, Resolution.FULL);
        var air = PLAN.recipe().stages().get(2);
        for (int s = 0; s < 120; s += 2) {
            model.advance(org.greenbead.core.thermal.HeatInput.of(air.heaterC(), air.air()), 2);
        }
        double middle = model.jointC("U2");
        double hottest = model.jointMaxC("U2");
        assertTrue(hottest > middle + 1, hottest + " against " + middle);
        var guarded = org.greenbead.core.run.Protected.of(close).stream().filter(p -> p.name().equals("U2"))
                .findFirst().orElseThrow();
        assertEquals(guarded.celsius().applyAsDouble(model), hottest);
    }

    /** McKay's draws: every share of every side once. */
    @Test
    public void drawsAreSpreadEvenly() {
        List<double[]> drawn = LatinHypercube.uniform(40, 7, 3);
        for (int side = 0; side < 7; side++) {
            int of = side;
            int[] shares = drawn.stream().mapToInt(p -> (int) (p[of] * 40)).sorted().toArray();
            assertEquals(shares, java.util.stream.IntStream.range(0, 40).toArray());
        }
        assertEquals(drawn.size(), 40);
        assertTrue(LatinHypercube.uniform(0, 3, 1).isEmpty());
        assertFalse(Arrays.equals(LatinHypercube.uniform(4, 2, 1).get(0),
                LatinHypercube.uniform(4, 2, 2).get(0)), "another seed draws otherwise");
    }
}
