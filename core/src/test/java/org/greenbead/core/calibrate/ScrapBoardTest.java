package org.greenbead.core.calibrate;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.kind.BoardKind;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.testng.annotations.Test;

/** A bench is taught by dots on a scrap board of another kind, drawn as it is. */
public class ScrapBoardTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());
    private static final double JET = 0.78;
    private static final double HEATER = 1.22;
    private static final Board SCRAP = scrap();

    /** A thick board with large planes, and a larger chip than the job's off its middle. */
    private static Board scrap() {
        Chip like = World.processor("SAC305", 1, 10);
        var large = new Chip("U9", "VG-90", Side.TOP, new Point(60, 45), new Point(25, 25), like.layers(),
                245,
                1, 3, 168, 10);
        return BoardKind.require("planes").board("SCRAP", "Old radio", new Point(110, 90)).put(large,
                List.of());
    }

    /** Dots of one run on the scrap, pressed as they melt, by the fine model at factors of its own. */
    private static Witness seen(RunPlan on, WitnessDesign made) {
        var bench = new SheetModel(on.scene(), new Multipliers(JET, HEATER, 1.1, 0.8), Resolution.FULL);
        var presses = new ArrayList<Witness.Press>();
        var done = new HashSet<String>();
        int step = 0;
        double end = made.steps().getLast().fromS() + 240;
        for (double t = 0; t < end; t += 0.5) {
            step += step + 1 < made.steps().size() && made.steps().get(step + 1).fromS() <= t ? 1 : 0;
            bench.advance(HeatInput.of(made.steps().get(step).heaterC(), made.steps().get(step).air()), 0.5);
            for (Witness.Dot dot : made.dots()) {
                if (!done.contains(dot.name()) && bench.boardC(dot.side(), dot.atMm()) >= dot.meltsC()) {
                    done.add(dot.name());
                    presses.add(new Witness.Press(dot.name(), t + 2.1));
                }
            }
        }
        return new Witness("scrap", made.dots(), made.steps(), presses, end + 1, true);
    }

    /** Air and heater come out near what they are where the board is the one that lies there; taken for the job's own they are far off. */
    @Test
    public void theBoardThatLiesThereIsTheOneThatIsFitted() throws Exception {
        RunPlan on = PLAN.onScrap(SCRAP);
        assertEquals(on.target().name(), "U9", "its largest chip");
        WitnessDesign made = WitnessDesign.of(on, List.of("Sn42Bi58", "Sn63Pb37", "SAC305"), 12, d -> {
        }, () -> false);
        assertTrue(made.dots().stream()
                .allMatch(d -> d.atMm().xMm() <= 110 && d.atMm().yMm() <= 90
                        && d.atMm().distanceMm(on.target().centreMm()) <= 40),
                "laid round the chip that is there");
        Witness seen = seen(on, made);
        assertTrue(seen.presses().size() >= 8, seen.presses().size() + " melted");
        var right = WitnessFit.fit(on, seen, () -> false).calibration();
        double off = Math.abs(Math.log(right.jet().value() / JET))
                + Math.abs(Math.log(right.preheater().value() / HEATER));
        assertTrue(Math.abs(Math.log(right.preheater().value() / HEATER)) < 0.15,
                "heater " + right.preheater());
        assertTrue(Math.abs(Math.log(right.jet().value() / JET)) < 0.30, "air " + right.jet());
        assertFalse(right.boardHeat().determined(), "of that board, not of the job's");
        assertEquals(right.board(), "SCRAP");
        double wrong;
        try {
            var c = WitnessFit.fit(PLAN, seen, () -> false).calibration();
            wrong = Math.abs(Math.log(c.jet().value() / JET))
                    + Math.abs(Math.log(c.preheater().value() / HEATER));
        } catch (RefusedException | IllegalArgumentException e) {
            wrong = Double.POSITIVE_INFINITY;
        }
        assertTrue(wrong > off, wrong + " against " + off);
    }

    @Test
    public void aBoardWithoutAChipIsNoScrapToLearnFrom() {
        Board bare = BoardKind.require("general").board("BARE", "Bare", new Point(60, 40));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> PLAN.onScrap(bare)).getMessage()
                .contains("draw the one that is on it"));
        Board small = BoardKind.require("general").board("TINY", "Tiny", new Point(30, 30))
                .put(new Chip("U1", "K", Side.TOP, new Point(15, 15), new Point(14, 14),
                        World.processor("SAC305", 1, 10).layers(), 245, 1, 3, 168, 10), List.of());
        assertTrue(PLAN.onScrap(small).bench().probes().isEmpty(), "its probes would lie off the board");
    }
}
