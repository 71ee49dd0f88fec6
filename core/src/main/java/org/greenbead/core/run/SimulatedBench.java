package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatInput;
import org.greenbead.core.thermal.HeatScene;
import org.greenbead.core.thermal.Multipliers;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;

/**
 * A bench that exists only here: a plant whose jet, heater, heat capacity, conductivity, emissivity and lags differ from the
 * planner's by what the seed says, probes that slipped a little, thermocouples with lag and noise, and every fault that a real one shows. Same seed and same hands, same
 * readings. May be read from another thread than the one that moves it.
 */
public final class SimulatedBench implements BenchHands, ProbePort {
    private static final double LAG_S = 1.5;
    private static final double NOISE_K = 0.25;
    private static final double RESOLUTION_K = 0.1;
    private static final double STEP_S = 0.5;
    private static final double PLACE_MM = 0.7;
    private static final double DRIES_FROM_C = 60;
    private static final double DRIES_TO_C = 100;
    private final RunPlan plan;
    private final Adversity adversity;
    private final double[] highestC;
    private final List<ProbePlace> fixed;
    private final SheetModel plant;
    private final Multipliers multipliers;
    private final Random noise;
    private final double[] beadC;
    private final double[] shownC;
    private final Set<String> open = new HashSet<>();
    private final Map<String, Double> frozen = new HashMap<>();
    private final Map<String, String> crossed = new HashMap<>();
    private HeatInput input = HeatInput.OFF;
    private double timeS;
    private boolean linkDown;

    public SimulatedBench(RunPlan plan, long seed) {
        this(plan, seed, Adversity.USUAL);
    }

    /** @param adversity what differs beyond the usual scatter */
    public SimulatedBench(RunPlan plan, long seed, Adversity adversity) {
        this.plan = plan;
        this.adversity = adversity;
        // Neighbouring seeds begin alike in this generator; the odd factor spreads them.
        var random = new Random(seed * 0x9E3779B97F4A7C15L);
        multipliers = new Multipliers(off(random, 0.18), off(random, 0.14), off(random, 0.10),
                Math.clamp(off(random, 0.15) * adversity.alongTimes(), 0.2, 4));
        fixed = plan.bench().probes().stream().map(p -> slipped(p, plan, random))
                .map(p -> adversity.place(p, plan.board().sizeMm(), random)).toList();
        plant = new SheetModel(adversity.scene(built(plan.scene(), random)), multipliers, Resolution.FULL);
        highestC = new double[adversity.wetShare() > 0 ? plant.cells() : 0];
        noise = new Random(seed ^ 0x5DEECE66DL);
        beadC = new double[plan.bench().probes().size()];
        shownC = new double[beadC.length];
        java.util.Arrays.fill(beadC, plan.bench().ambientC());
        show();
    }

    /** A probe sits where somebody put it, not where the plan says: up to about a millimetre off. */
    private static ProbePlace slipped(ProbePlace probe, RunPlan plan, Random random) {
        Point size = plan.board().sizeMm();
        double x = probe.atMm().xMm() + PLACE_MM * Math.clamp(random.nextGaussian(), -1.8, 1.8);
        double y = probe.atMm().yMm() + PLACE_MM * Math.clamp(random.nextGaussian(), -1.8, 1.8);
        return new ProbePlace(probe.name(), probe.role(), probe.channel(), probe.side(),
                new Point(Math.clamp(x, 0, size.xMm()), Math.clamp(y, 0, size.yMm())));
    }

    /** What no multiplier can mend: another emissivity, another conductivity through the board, slower tools. */
    private static HeatScene built(HeatScene said, Random random) {
        Board board = said.board();
        var laminate = new Board(board.id(), board.title(), board.sizeMm(), board.thicknessMm(),
                board.copperLayers(),
                board.copperUm(), board.copperCoverage(), board.kThroughWPerMK() * off(random, 0.12),
                board.chips(),
                board.parts());
        Optional<BottomHeater> heater = said.heater().map(h -> new BottomHeater(h.name(), h.contact(),
                h.sizeMm(), h.gapMm(), h.emissivity(), h.gapHWPerM2K(), h.tauHeatS() * off(random, 0.10),
                h.tauCoolS(), h.maxC(), h.multiplier()));
        AirStation a = said.air();
        var air = a.lagging(a.tauS() * off(random, 0.15));
        return new HeatScene(laminate, said.target(), said.ambientC(), heater,
                said.heaterCentre(),
                said.heaterStartC(), air, List.of(), Math.min(1, said.emissivity() * off(random, 0.04)),
                said.boardBeta(),
                said.laminate(), said.airCentre(), said.shields(), said.support());
    }

    private static double off(Random random, double sigma) {
        return Math.exp(sigma * Math.clamp(random.nextGaussian(), -1.8, 1.8));
    }

    /** How far this bench is from the planner's, for tests and for the curious. */
    public Multipliers multipliers() {
        return multipliers;
    }

    @Override
    public synchronized void set(HeatInput now) {
        input = now;
    }

    @Override
    public synchronized void timeIs(double nowS) {
        while (timeS < nowS - 1e-9) {
            double step = Math.min(STEP_S, nowS - timeS);
            plant.advance(adversity.input(input), step);
            dry();
            timeS += step;
            for (int i = 0; i < beadC.length; i++) {
                double truth = touches(fixed.get(i));
                beadC[i] = truth + (beadC[i] - truth) * Math.exp(-step / LAG_S);
            }
            show();
        }
    }

    /** What the bead sits in: the board, and some of the air that blows over it. */
    private double touches(ProbePlace bead) {
        double board = plant.probeC(bead);
        boolean blown = adversity.airShare() > 0 && input.air().isPresent() && bead.side() == Side.TOP;
        return blown ? board + adversity.airShare() * (plant.airExitC() - board) : board;
    }

    /** Water takes its part of whatever a cell rises for the first time while it dries. */
    private void dry() {
        for (int cell = 0; cell < highestC.length; cell++) {
            double now = plant.celsius(cell);
            double rise = now - Math.max(highestC[cell], DRIES_FROM_C);
            if (rise > 0 && now < DRIES_TO_C && !plant.melts(cell)) {
                plant.shiftK(cell, -adversity.wetShare() * rise);
            }
            highestC[cell] = Math.max(highestC[cell], now);
        }
    }

    /** Noise is drawn for a broken probe too: breaking one leaves the others as they were. */
    private void show() {
        for (int i = 0; i < beadC.length; i++) {
            shownC[i] = Math.rint((beadC[i] + NOISE_K * noise.nextGaussian()) / RESOLUTION_K) * RESOLUTION_K;
        }
    }

    @Override
    public synchronized List<Reading> sweep() throws LinkLostException {
        if (linkDown) {
            throw new LinkLostException("the simulated logger is silent", null);
        }
        var readings = new ArrayList<Reading>();
        for (int i = 0; i < shownC.length; i++) {
            String bead = plan.bench().probes().get(i).name();
            String name = crossed.getOrDefault(bead, bead);
            readings.add(open.contains(name)
                    ? new Reading.Open(name)
                    : new Reading.Measured(name,
                            Math.round(frozen.getOrDefault(name, shownC[i]) * 10) / 10.0));
        }
        return readings;
    }

    /** Pulls a thermocouple off, or puts it back. */
    public synchronized void breakProbe(String name, boolean broken) {
        if (broken) {
            open.add(name);
        } else {
            open.remove(name);
        }
    }

    /** Lets a channel repeat its last value, or live again. */
    public synchronized void freezeProbe(String name, boolean stuck) {
        List<ProbePlace> probes = plan.bench().probes();
        for (int i = 0; i < shownC.length; i++) {
            if (probes.get(i).name().equals(name) && stuck) {
                frozen.put(name, shownC[i]);
            }
        }
        if (!stuck) {
            frozen.remove(name);
        }
    }

    /** Plugs two thermocouples into one another's channels, or back. */
    public synchronized void crossProbes(String one, String other, boolean swapped) {
        if (swapped) {
            crossed.put(one, other);
            crossed.put(other, one);
        } else {
            crossed.remove(one);
            crossed.remove(other);
        }
    }

    /** Pulls the logger's cable, or plugs it in again. */
    public synchronized void dropLink(boolean down) {
        linkDown = down;
    }

    public synchronized boolean linkDown() {
        return linkDown;
    }

    /** Whether the chip moves when it is nudged now. */
    public synchronized boolean moves() {
        return plant.jointMinC() >= plan.target().joint().alloy().liquidusC();
    }

    /** Coldest joint of the plant, °C: what nobody at a real bench can know. */
    public synchronized double jointMinC() {
        return plant.jointMinC();
    }

    /** Hottest joint of the plant, °C. */
    public synchronized double jointMaxC() {
        return plant.jointMaxC();
    }

    /** The plant's board at a place, °C. */
    public synchronized double boardC(Side side, Point at) {
        return plant.boardC(side, at);
    }

    /** The target's body, °C. */
    public synchronized double bodyC() {
        return plant.packageTopC();
    }

    /** Molten part of the target's joints, 0 to 1. */
    synchronized double liquidFraction() {
        return plant.liquidFraction();
    }

    /** The joints that a sight looks at, °C: corner and edge, of which one sees the nearest. */
    synchronized double looksAt(Sight sight) {
        return sight == Sight.CORNER_SHINES ? plant.jointCornerC() : plant.jointCentreC();
    }

    /** Where they are when it happens, °C. Flux runs at another temperature in every bottle. */
    double happensAt(Sight sight) {
        double solidus = plan.target().joint().alloy().solidusC();
        return sight == Sight.FLUX_SHIMMERS
                ? Math.min(solidus - 5, 150 + 15 * (multipliers.jet() - 1) / 0.18)
                : plan.target().joint().alloy().liquidusC();
    }

    /** What the eye would see at the microscope, as a key of the trade bundle. */
    public synchronized String sight() {
        double joint = plant.jointMinC();
        double liquid = plant.liquidFraction();
        if (moves()) {
            return "sight.swims";
        }
        if (liquid > 0) {
            return "sight.shiny";
        }
        return joint > plan.target().joint().alloy().solidusC() - 30
                ? "sight.shimmer"
                : joint > 110 ? "sight.flux" : "sight.dull";
    }

    @Override
    public void close() {
        // Nothing is held.
    }
}
