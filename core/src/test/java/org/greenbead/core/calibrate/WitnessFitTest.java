package org.greenbead.core.calibrate;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.World;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;
import org.testng.annotations.Test;

/** A bench learned from dots that melt, on benches 20 to 40 % off whose emissivity, heater lag, conduction through the board and aim differ too. */
public class WitnessFitTest {
    private static final RunPlan PLAN = World.plan(World.usualRecipe());
    private static final double[][] PLACES = {{36, 48}, {47, 58}, {36, 41}, {52, 58}, {36, 72}, {24, 58},
            {60, 50}, {36, 30}, {15, 58}, {58, 75}, {36, 58}, {30, 58}};
    private static final String[] ALLOYS = {"Sn42Bi58", "Sn63Pb37", "SAC305"};

    private static List<Witness.Dot> dots(int count) {
        var dots = new ArrayList<Witness.Dot>();
        for (int i = 0; i < count; i++) {
            dots.add(new Witness.Dot("D" + i, ALLOYS[i % 3], i >= 10 ? Side.BOTTOM : Side.TOP,
                    new Point(PLACES[i][0], PLACES[i][1])));
        }
        return dots;
    }

    private static Witness.Step air(double fromS, double setC, double lpm, double upMm) {
        return new Witness.Step(fromS, Optional.of(300.0),
                Optional.of(new AirSetting(setC, lpm, 10, upMm, 6)));
    }

    /** Heater in two steps, then air in four that rise. */
    private static List<Witness.Step> steps() {
        return List.of(new Witness.Step(0, Optional.of(220.0), Optional.empty()),
                new Witness.Step(150, Optional.of(300.0), Optional.empty()), air(300, 280, 24, 25),
                air(345, 330, 26, 22), air(390, 380, 28, 20), air(435, 420, 30, 20));
    }

    private static double off(Random random) {
        double by = 0.2 + 0.2 * random.nextDouble();
        return random.nextBoolean() ? 1 + by : 1 - by;
    }

    private static HeatModel bench(Random random) {
        HeatScene s = PLAN.scene();
        Board b = s.board();
        var laminate = new Board(b.id(), b.title(), b.sizeMm(), b.thicknessMm(), b.copperLayers(),
                b.copperUm(), b.copperCoverage(), b.kThroughWPerMK() * Math.exp(0.2 * random.nextGaussian()),
                b.chips(), b.parts());
        BottomHeater h = s.heater().orElseThrow();
        var slow = new BottomHeater(h.name(), h.contact(), h.sizeMm(), h.gapMm(), h.emissivity(),
                h.gapHWPerM2K(), h.tauHeatS() * Math.exp(0.2 * random.nextGaussian()), h.tauCoolS(), h.maxC(),
                1);
        var scene = new HeatScene(laminate, s.target(), s.ambientC(), Optional.of(slow), s.heaterCentre(),
                s.heaterStartC(), s.air(), s.probes(), 0.85, s.boardBeta(), s.laminate(),
                new Point(s.airCentre().xMm() + 1.5 * random.nextGaussian(),
                        s.airCentre().yMm() + 1.5 * random.nextGaussian()),
                s.shields(), s.support());
        return new SheetModel(scene, new Multipliers(off(random), off(random),
                Math.exp(0.2 * (random.nextDouble() - 0.5)), off(random)), Resolution.FULL);
    }

    /** Somebody watches: places and melting points as good as a hand puts them, presses as late as a hand is. */
    private static Witness watched(HeatModel bench, Random random, int count) {
        List<Witness.Dot> dots = dots(count);
        var places = new ArrayList<Point>();
        var melts = new ArrayList<Double>();
        for (Witness.Dot dot : dots) {
            places.add(new Point(dot.atMm().xMm() + random.nextGaussian(),
                    dot.atMm().yMm() + random.nextGaussian()));
            melts.add(dot.meltsC() + 1.5 * random.nextGaussian());
        }
        var presses = new ArrayList<Witness.Press>();
        var done = new HashSet<Integer>();
        int step = 0;
        for (double t = 0; t < 480; t += 0.5) {
            step += step + 1 < steps().size() && steps().get(step + 1).fromS() <= t ? 1 : 0;
            bench.advance(HeatInput.of(steps().get(step).heaterC(), steps().get(step).air()), 0.5);
            for (int i = 0; i < dots.size(); i++) {
                if (!done.contains(i) && bench.boardC(dots.get(i).side(), places.get(i)) >= melts.get(i)) {
                    done.add(i);
                    presses.add(new Witness.Press(dots.get(i).name(),
                            t + 0.9 + Math.max(0.3, 1.25 + 0.87 * random.nextGaussian())));
                }
            }
        }
        return new Witness("dots-1", dots, steps(), presses, 485, false);
    }

    /** Hottest value of the coldest joint in a recipe that no dot has seen. */
    private static double peak(HeatModel model) {
        var approach = new AirSetting(265, 24, 10, 25, 6);
        var lift = new AirSetting(322, 28, 10, 20, 6);
        double peak = 0;
        for (int t = 0; t < 280; t++) {
            model.advance(HeatInput.of(Optional.of(240.0), t < 170
                    ? Optional.empty()
                    : Optional.of(t < 190 ? approach : lift)), 1);
            peak = Math.max(peak, model.jointMinC());
        }
        return peak;
    }

    private static double peak(WitnessFit.Learned learned) {
        var c = learned.calibration();
        return peak(new SheetModel(PLAN.scene(), new Multipliers(c.jet().value(), c.preheater().value(),
                c.boardHeat().value(), c.boardConductivity().value()), Resolution.SEARCH));
    }

    @Test
    public void unseenRecipeComesOutWithinEightKelvin() throws Exception {
        double nominal = peak(new SheetModel(PLAN.scene(), Multipliers.NOMINAL, Resolution.SEARCH));
        double squares = 0;
        double without = 0;
        int within = 0;
        for (int seed = 0; seed < 4; seed++) {
            var random = new Random(seed * 7919L + 13);
            HeatModel bench = bench(random);
            double truth = peak(bench.copy());
            var learned = WitnessFit.fit(PLAN, watched(bench.copy(), random, 12), () -> false);
            double error = peak(learned) - truth;
            within += Math.abs(error) <= 8 ? 1 : 0;
            squares += error * error;
            without += (nominal - truth) * (nominal - truth);
            assertTrue(learned.afterK() < learned.beforeK());
            assertTrue(learned.calibration().jet().determined()
                    && learned.calibration().preheater().determined());
        }
        assertTrue(within >= 4, within + " of 4 within 8 K");
        assertTrue(squares < 0.5 * without, "rms " + Math.sqrt(squares / 4) + " K, without "
                + Math.sqrt(without / 4) + " K");
    }

    /** A dot that was named wrongly hardly counts, and is told. */
    @Test
    public void wrongNameIsAnOutlier() throws Exception {
        var random = new Random(13);
        HeatModel bench = bench(random);
        double truth = peak(bench.copy());
        Witness sound = watched(bench.copy(), random, 12);
        var presses = new ArrayList<>(sound.presses());
        Witness.Press low = presses.stream().filter(p -> p.dot().equals("D0")).findFirst().orElseThrow();
        presses.remove(low);
        presses.add(new Witness.Press("D0", low.timeS() + 150));
        var mixed = new Witness("mixed", sound.dots(), sound.steps(), presses, sound.endS(), false);
        var learned = WitnessFit.fit(PLAN, mixed, () -> false);
        assertTrue(learned.outliers().contains("D0"), learned.outliers().toString());
        assertEquals(peak(learned), truth, 12);
    }

    /** Dots that stayed silent hold the fit down: without them a weak bench would be taken for a strong one. */
    @Test
    public void silentDotsCount() throws Exception {
        var random = new Random(29);
        Witness sound = watched(bench(random), random, 12);
        List<Witness.Press> early = sound.presses().stream()
                .sorted(java.util.Comparator.comparingDouble(Witness.Press::timeS)).limit(4).toList();
        double end = early.getLast().timeS() + 1;
        var silent = new Witness("silent", sound.dots(), sound.steps(), early, end, false);
        List<Witness.Dot> pressed = sound.dots().stream()
                .filter(d -> early.stream().anyMatch(p -> p.dot().equals(d.name()))).toList();
        var ignored = new Witness("ignored", pressed, sound.steps(), early, end, false);
        double with = WitnessFit.fit(PLAN, silent, () -> false).calibration().jet().sdLn();
        double without = WitnessFit.fit(PLAN, ignored, () -> false).calibration().jet().sdLn();
        assertTrue(with <= without + 1e-9, with + " with the silent ones, " + without + " without");
    }

    /** On a board of another kind its heat and copper are not carried over. */
    @Test
    public void foreignBoardTeachesHeaterAndAirOnly() throws Exception {
        var random = new Random(41);
        Witness w = watched(bench(random), random, 12);
        var foreign = new Witness("f", w.dots(), w.steps(), w.presses(), w.endS(), true);
        var c = WitnessFit.fit(PLAN, foreign, () -> false).calibration();
        assertTrue(c.jet().determined());
        assertFalse(c.boardHeat().determined());
        assertEquals(c.boardConductivity().value(), 1.0, 1e-12);
    }

    @Test
    public void tooLittleOrWrongIsRefusedWithItsReason() {
        var two = new Witness("two", dots(6), steps(),
                List.of(new Witness.Press("D0", 200), new Witness.Press("D1", 300)), 480, false);
        assertEquals(expectThrows(RefusedException.class, () -> WitnessFit.fit(PLAN, two, () -> false)).why()
                .key(), "fit.few_dots");
        assertThrows(IllegalArgumentException.class, () -> new Witness("x", dots(3), steps(),
                List.of(new Witness.Press("Z9", 10)), 480, false));
        assertThrows(IllegalArgumentException.class,
                () -> new Witness.Dot("D", "Unobtainium", Side.TOP, new Point(1, 1)));
        assertThrows(IllegalArgumentException.class, () -> new Witness("x", dots(3),
                List.of(air(100, 300, 20, 20), air(50, 300, 20, 20)), List.of(), 480, false));
    }
}
