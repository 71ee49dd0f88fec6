package org.greenbead.core.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.run.World;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** A change of a bench changes one thing, and what cannot stand there is refused with its limits. */
public class BenchTest {
    private static final Bench USUAL = BenchKind.require("open_small").bench("b", "By the window");

    private static BottomHeater heater(Bench bench) {
        return bench.heater().orElseThrow();
    }

    /** Parts of a bench, each by its own name. */
    private static List<Object> parts(Bench b) {
        var all = new ArrayList<Object>(List.of(b.title(), b.ambientC(), b.probes(), b.calibrations(),
                b.air().nozzlesMm(), b.air().maxC(), b.air().maxLpm(), b.air().dial(), b.air().tauS()));
        all.add(b.heater().map(BottomHeater::sizeMm));
        all.add(b.heater().map(BottomHeater::gapMm));
        all.add(b.heater().map(BottomHeater::maxC));
        all.add(b.heater().map(BottomHeater::tauHeatS));
        return all;
    }

    @DataProvider
    public Object[][] changes() {
        return new Object[][]{{"title", USUAL.titled("By the door")}, {"room", USUAL.in(17)},
                {"nozzles", USUAL.with(USUAL.air().nozzles(List.of(5.0, 9.0)))},
                {"air", USUAL.with(USUAL.air().upTo(500))}, {"flow", USUAL.with(USUAL.air().blowing(60))},
                {"dial", USUAL.with(AirDial.steps(8, 20, 110))},
                {"face", USUAL.heated(heater(USUAL).sized(new Point(200, 180)))},
                {"gap", USUAL.heated(heater(USUAL).below(22))},
                {"heater", USUAL.heated(heater(USUAL).upTo(350))}};
    }

    @Test(dataProvider = "changes")
    public void aChangeChangesOneThing(String what, Bench changed) {
        List<Object> before = parts(USUAL);
        List<Object> after = parts(changed);
        int differ = 0;
        for (int i = 0; i < before.size(); i++) {
            differ += before.get(i).equals(after.get(i)) ? 0 : 1;
        }
        assertEquals(differ, 1, what);
        assertEquals(changed.id(), USUAL.id());
    }

    /** Over the target a bead lies on its body or among its balls, under it on the board or at a ball, elsewhere on the board. */
    @Test
    public void whatAProbeTouchesFollowsItsPlace() {
        Chip chip = World.processor("SAC305", 0, 0);
        Point middle = chip.centreMm();
        var edge = new Point(middle.xMm() + chip.sizeMm().xMm() / 2 - 0.1, middle.yMm());
        var beside = new Point(middle.xMm() + chip.sizeMm().xMm() / 2 + 0.1, middle.yMm());
        assertEquals(ProbePlace.touches(chip, Side.TOP, edge),
                List.of(ProbePlace.Role.CHIP_TOP, ProbePlace.Role.JOINT));
        assertEquals(ProbePlace.touches(chip, Side.BOTTOM, edge),
                List.of(ProbePlace.Role.BOARD, ProbePlace.Role.JOINT));
        assertEquals(ProbePlace.touches(chip, Side.TOP, beside), List.of(ProbePlace.Role.BOARD));
        var probe = new ProbePlace("t", ProbePlace.Role.JOINT, 4, Side.TOP, middle);
        assertEquals(probe.moved(chip, Side.BOTTOM, edge).role(), ProbePlace.Role.JOINT);
        ProbePlace away = probe.moved(chip, Side.TOP, beside);
        assertEquals(away, new ProbePlace("t", ProbePlace.Role.BOARD, 4, Side.TOP, beside));
        assertEquals(away.moved(chip, Side.TOP, middle).role(), ProbePlace.Role.CHIP_TOP);
    }

    @Test
    public void aSmallerBoardHasOnlyTheProbesThatItReaches() {
        Board board = World.board(World.processor("SAC305", 0, 0));
        Point size = board.sizeMm();
        var corner = new ProbePlace("a", ProbePlace.Role.BOARD, 1, Side.TOP, size);
        var off = new ProbePlace("b", ProbePlace.Role.BOARD, 2, Side.TOP,
                new Point(size.xMm() + 0.5, size.yMm()));
        assertEquals(USUAL.put(corner).put(off).on(board).probes(), List.of(corner));
    }

    @Test
    public void probesArePutMovedAndTakenAway() {
        var one = new ProbePlace("a", ProbePlace.Role.BOARD, USUAL.freeChannel(), Side.TOP, new Point(3, 4));
        Bench with = USUAL.put(one);
        var two = new ProbePlace("b", ProbePlace.Role.BOARD, with.freeChannel(), Side.TOP, new Point(9, 9));
        Bench both = with.put(two).put(one.touching(ProbePlace.Role.JOINT));
        assertEquals(both.probes(), List.of(one.touching(ProbePlace.Role.JOINT), two));
        assertEquals(both.withoutProbe("a").freeChannel(), one.channel());
        assertEquals(both.withoutProbe("a").withoutProbe("b"), USUAL);
        Bench full = USUAL;
        for (int i = 1; i <= 32; i++) {
            full = full.put(new ProbePlace("p" + i, ProbePlace.Role.BOARD, full.freeChannel(), Side.TOP,
                    new Point(i, i)));
        }
        IllegalArgumentException e = expectThrows(IllegalArgumentException.class, full::freeChannel);
        assertTrue(e.getMessage().contains("32 channels"), e.getMessage());
    }

    /** What runs have told of one heater is not known of another, nor of a copy; with the same heater set up otherwise it stays. */
    @Test
    public void whatWasToldGoesWithTheHeater() {
        var told = new Calibration("run-1", "ES-5", 14, 28,
                new Calibration.Factor(1.1, 0.1, true), new Calibration.Factor(0.9, 0.1, true),
                new Calibration.Factor(1, 0.1, true), new Calibration.Factor(1, 0.1, true), 1.5, true,
                List.of());
        Bench known = USUAL.with(List.of(told));
        assertEquals(known.heated(heater(known).below(15)).calibrations().size(), 1);
        assertEquals(known.in(18).calibrations().size(), 1);
        assertTrue(known.heatedBy(Optional.empty()).calibrations().isEmpty());
        assertTrue(known.heatedBy(BenchKind.require("infrared").heater()).calibrations().isEmpty());
        assertTrue(known.copy("c").calibrations().isEmpty());
    }

    @Test
    public void aBenchMayHaveNoHeater() {
        Bench bare = USUAL.heatedBy(Optional.empty());
        assertFalse(bare.plate());
        assertTrue(BenchKind.require("hot_plate").bench("p", "p").plate());
        assertEquals(new Bench("b", "b", 20, null, USUAL.air(), List.of()).heater(), Optional.empty(),
                "left out of a file");
    }

    @Test
    public void whatCannotStandThereIsRefused() {
        for (Runnable bad : List.<Runnable>of(() -> USUAL.in(-273.2), () -> USUAL.in(60),
                () -> heater(USUAL).below(0), () -> heater(USUAL).upTo(5000),
                () -> heater(USUAL).sized(new Point(2000, 100)), () -> USUAL.air().nozzles(List.of()),
                () -> USUAL.air().nozzles(List.of(2.0)), () -> USUAL.air().blowing(1),
                () -> USUAL.with(AirDial.steps(8, 20, 110)).air().blowing(60))) {
            IllegalArgumentException e = expectThrows(IllegalArgumentException.class, bad::run);
            assertTrue(e.getMessage().matches("(?s).*\\d.*") || e.getMessage().contains("no nozzle"),
                    e.getMessage());
        }
    }
}
