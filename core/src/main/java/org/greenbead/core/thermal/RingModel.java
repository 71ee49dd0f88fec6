package org.greenbead.core.thermal;

import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.recipe.AirSetting;

/**
 * The first form of the twin: cells of a {@link RingGrid}, backward Euler with the enthalpy as conserved quantity, so that
 * steps of half a second are stable and exact in heat. The same input gives the same bits.
 */
public final class RingModel implements HeatModel {
    /** Longest internal step, s. */
    private static final double STEP_S = 0.5;
    private static final double SIGMA = 5.670374419e-8; // CODATA 2018, W/m2K4
    private static final double KELVIN = 273.15;
    private static final int MOST_ROUNDS = 6;

    private final RingGrid grid;
    private final HeatScene scene;
    private final SkylineSolver solver;
    private final double[] enthalpyJ;
    private final double[] celsius;
    private final double[] middle;
    private final double[] solution;
    private final double[] faceC;
    private final double[] faceWPerK;
    private final double[] faceRefC;
    private JetMap jetMap;
    private double jet;
    private double preheater;
    private double heaterC;
    private double exitC;
    private double timeS;
    private double storedStartJ;
    private double exchangedJ;
    private double throughputJ;

    public RingModel(HeatScene scene, Multipliers multipliers) {
        this.scene = scene;
        this.grid = new RingGrid(scene, multipliers);
        this.solver = new SkylineSolver(grid.envelope());
        int n = grid.cells.size();
        enthalpyJ = new double[n];
        celsius = new double[n];
        middle = new double[n];
        solution = new double[n];
        faceC = new double[grid.faces.size()];
        faceWPerK = new double[faceC.length];
        faceRefC = new double[faceC.length];
        jet = multipliers.jet() * scene.air().multiplier();
        preheater = multipliers.preheater() * scene.heater().map(BottomHeater::multiplier).orElse(1.0);
        heaterC = scene.heaterStartC();
        exitC = scene.ambientC();
        java.util.Arrays.fill(celsius, scene.ambientC());
        java.util.Arrays.fill(faceC, scene.ambientC());
        for (int i = 0; i < n; i++) {
            enthalpyJ[i] = grid.cells.get(i).ofC(celsius[i]);
        }
        storedStartJ = java.util.Arrays.stream(enthalpyJ).sum();
        jetMap = JetMap.NONE;
    }

    private RingModel(RingModel other) {
        scene = other.scene;
        grid = other.grid;
        solver = new SkylineSolver(grid.envelope());
        enthalpyJ = other.enthalpyJ.clone();
        celsius = other.celsius.clone();
        middle = other.middle.clone();
        solution = other.solution.clone();
        faceC = other.faceC.clone();
        faceWPerK = other.faceWPerK.clone();
        faceRefC = other.faceRefC.clone();
        jetMap = other.jetMap;
        jet = other.jet;
        preheater = other.preheater;
        heaterC = other.heaterC;
        exitC = other.exitC;
        timeS = other.timeS;
        storedStartJ = other.storedStartJ;
        exchangedJ = other.exchangedJ;
        throughputJ = other.throughputJ;
    }

    @Override
    public RingModel copy() {
        return new RingModel(this);
    }

    @Override
    public void advance(HeatInput input, double stepS) {
        if (!(stepS > 0 && stepS <= 60)) {
            throw new IllegalArgumentException("step is " + stepS + " s; allowed is above 0 to 60 s");
        }
        int parts = (int) Math.ceil(stepS / STEP_S - 1e-9);
        for (int i = 0; i < parts; i++) {
            step(input, stepS / parts);
        }
    }

    private void step(HeatInput input, double dt) {
        moveTools(input, dt);
        for (int i = 0; i < celsius.length; i++) {
            middle[i] = celsius[i];
        }
        double[] old = enthalpyJ.clone();
        double[] content = enthalpyJ.clone();
        for (int round = 0; round < MOST_ROUNDS; round++) {
            setFaces(input);
            assemble(old, content, dt);
            solver.solve(solution);
            double change = 0;
            double gap = 0;
            for (int i = 0; i < content.length; i++) {
                Enthalpy cell = grid.cells.get(i);
                content[i] += cell.slopeAtC(middle[i]) * (solution[i] - middle[i]);
                double now = cell.celsiusOf(content[i]);
                gap = Math.max(gap, Math.abs(now - solution[i]));
                change = Math.max(change, Math.abs(solution[i] - middle[i]));
                middle[i] = now;
            }
            for (int f = 0; f < faceC.length; f++) {
                RingGrid.Face face = grid.faces.get(f);
                double watt = faceWPerK[f] * (faceRefC[f] - solution[face.cell()]);
                faceC[f] = solution[face.cell()] + watt * face.rHalfM2KPerW() / face.areaM2();
            }
            if (gap < 0.02 && change < 0.15 && round > 0) {
                break;
            }
        }
        for (int f = 0; f < faceC.length; f++) {
            double joule = faceWPerK[f] * (faceRefC[f] - solution[grid.faces.get(f).cell()]) * dt;
            exchangedJ += joule;
            throughputJ += Math.abs(joule);
        }
        System.arraycopy(content, 0, enthalpyJ, 0, content.length);
        System.arraycopy(middle, 0, celsius, 0, middle.length);
        timeS += dt;
    }

    /** Heater and nozzle follow their set-points exactly over the step; what acts is their value in its middle. */
    private void moveTools(HeatInput input, double dt) {
        double ambient = scene.ambientC();
        if (scene.heater().isPresent()) {
            BottomHeater heater = scene.heater().get();
            double goal = input.heaterSetC().orElse(ambient);
            double tau = goal >= heaterC ? heater.tauHeatS() : heater.tauCoolS();
            heaterC = goal + (heaterC - goal) * Math.exp(-dt / tau);
        }
        double goal = ambient;
        if (input.air().isPresent()) {
            AirSetting air = input.air().get();
            goal = Jet.exitC(air.setC(), ambient, air.flowLpm(), scene.air().lossWPerK());
            if (!jetMap.isFor(air)) {
                jetMap = JetMap.over(grid, air);
            }
        } else {
            jetMap = JetMap.NONE;
        }
        exitC = goal + (exitC - goal) * Math.exp(-dt / scene.air().tauS());
    }

    private void setFaces(HeatInput input) {
        double ambient = scene.ambientC();
        double strength = 0;
        double axis = 0;
        if (input.air().isPresent()) {
            AirSetting air = input.air().get();
            strength = jet * Jet.strength(air.flowLpm(), air.nozzleMm(), exitC);
            axis = Jet.axisShare(air.distanceMm() / air.nozzleMm(), exitC, ambient) * (exitC - ambient);
        }
        boolean contact = scene.heater().map(BottomHeater::contact).orElse(false);
        for (int f = 0; f < faceC.length; f++) {
            RingGrid.Face face = grid.faces.get(f);
            double surface = faceC[f];
            double natural = natural(face.facing(), Math.max(0.5, Math.abs(surface - ambient)));
            double fan = face.facing() == RingGrid.Facing.DOWN
                    ? input.fanBottomWPerM2K()
                    : input.fanTopWPerM2K();
            double still = fan > 0 ? Math.cbrt(cube(natural) + cube(fan)) : natural;
            double h = still;
            double ref = ambient;
            if (face.jetted() && strength > 0) {
                double share = face.facing() == RingGrid.Facing.SIDEWAYS ? 0.6 : 1;
                double hJet = share * strength * jetMap.share(face.ring());
                h = Math.cbrt(cube(hJet) + cube(still));
                ref = ambient + axis * jetMap.excess(face.ring()) * cube(hJet) / (cube(hJet) + cube(still));
            }
            double seesRoom = 1;
            double toHeater = 0;
            if (face.facing() == RingGrid.Facing.DOWN && scene.heater().isPresent()) {
                BottomHeater heater = scene.heater().get();
                double view = grid.viewFactor[face.ring()];
                seesRoom = 1 - view;
                toHeater = preheater * view * (contact
                        ? heater.gapHWPerM2K()
                        : heater.gapHWPerM2K()
                                + heater.emissivity() * radiative(face.emissivity(), surface, heaterC));
            }
            double toAir = h * seesRoom;
            double toRoom = radiative(face.emissivity(), surface, ambient) * seesRoom;
            double total = toAir + toRoom + toHeater;
            faceRefC[f] = (toAir * ref + toRoom * ambient + toHeater * heaterC) / total;
            faceWPerK[f] = face.areaM2() / (1 / total + face.rHalfM2KPerW());
        }
    }

    /** Natural convection in air, W/m2K (McAdams 1954, simplified for air at one atmosphere). */
    private double natural(RingGrid.Facing facing, double riseK) {
        return switch (facing) {
            case UP -> 1.32 * Math.pow(riseK / grid.meanSideM, 0.25);
            case DOWN -> 0.59 * Math.pow(riseK / grid.meanSideM, 0.25);
            case SIDEWAYS -> 1.42 * Math.pow(riseK / 0.005, 0.25);
        };
    }

    private static double radiative(double emissivity, double aC, double bC) {
        double a = aC + KELVIN;
        double b = bC + KELVIN;
        return emissivity * SIGMA * (a * a + b * b) * (a + b);
    }

    private static double cube(double x) {
        return x * x * x;
    }

    private void assemble(double[] old, double[] content, double dt) {
        solver.clear();
        for (int i = 0; i < content.length; i++) {
            double slope = grid.cells.get(i).slopeAtC(middle[i]) / dt;
            solver.addDiagonal(i, slope);
            solution[i] = slope * middle[i] + (old[i] - content[i]) / dt;
        }
        for (RingGrid.Link link : grid.links) {
            solver.addDiagonal(link.a(), link.wPerK());
            solver.addDiagonal(link.b(), link.wPerK());
            solver.add(link.a(), link.b(), -link.wPerK());
        }
        for (int f = 0; f < faceC.length; f++) {
            int cell = grid.faces.get(f).cell();
            solver.addDiagonal(cell, faceWPerK[f]);
            solution[cell] += faceWPerK[f] * faceRefC[f];
        }
    }

    // State that an observer may correct.

    /** Number of cells whose heat an observer may shift. */
    public int cells() {
        return enthalpyJ.length;
    }

    /** True for a cell with latent heat. */
    public boolean melts(int cell) {
        return grid.cells.get(cell).latentJ() > 0;
    }

    public double heatJ(int cell) {
        return enthalpyJ[cell];
    }

    /** Shifts the heat of one cell; the balance counts it as exchanged. */
    public void addHeatJ(int cell, double joule) {
        enthalpyJ[cell] += joule;
        exchangedJ += joule;
        celsius[cell] = grid.cells.get(cell).celsiusOf(enthalpyJ[cell]);
    }

    public double jetMultiplier() {
        return jet;
    }

    public double preheaterMultiplier() {
        return preheater;
    }

    public void retune(double newJet, double newPreheater) {
        jet = newJet;
        preheater = newPreheater;
    }

    // Reading.

    @Override
    public double timeS() {
        return timeS;
    }

    private RingGrid.Stack target() {
        return grid.stacks.get(scene.target());
    }

    @Override
    public double jointCentreC() {
        return celsius[target().joints()[0]];
    }

    /** The square's corner lies outside the last ring; the temperature is carried on along r squared. */
    @Override
    public double jointCornerC() {
        Point size = scene.targetChip().sizeMm();
        double inset = Math.min(0.75, 0.1 * Math.min(size.xMm(), size.yMm()));
        double corner = Math.hypot(size.xMm() / 2 - inset, size.yMm() / 2 - inset);
        int last = RingGrid.CHIP_RINGS - 1;
        double rim = celsius[target().joints()[last]];
        double centre = jointCentreC();
        double share = Math.pow(corner / grid.midMm[last], 2);
        Enthalpy cell = grid.cells.get(target().joints()[last]);
        double carried = centre + (rim - centre) * Math.min(1.7, share);
        // Inside the melting range the gradient is the plateau's, not the chip's: do not carry it past the range.
        return cell.liquidAtC(rim) > 0 && cell.liquidAtC(rim) < 1
                ? Math.clamp(carried, cell.solidusC() - 6, cell.liquidusC() + 6)
                : carried;
    }

    @Override
    public double jointMinC() {
        double least = jointCornerC();
        for (int joint : target().joints()) {
            least = Math.min(least, celsius[joint]);
        }
        return least;
    }

    @Override
    public double jointMaxC() {
        double most = jointCornerC();
        for (int joint : target().joints()) {
            most = Math.max(most, celsius[joint]);
        }
        return most;
    }

    @Override
    public double liquidFraction() {
        RingGrid.Stack stack = target();
        double sum = 0;
        for (int i = 0; i < stack.joints().length; i++) {
            sum += stack.shares()[i]
                    * grid.cells.get(stack.joints()[i]).liquidAtC(celsius[stack.joints()[i]]);
        }
        return sum;
    }

    @Override
    public double packageTopC() {
        return bodyC(scene.target());
    }

    @Override
    public double jointC(String chip) {
        return celsius[stack(chip).joints()[0]];
    }

    @Override
    public double bodyC(String chip) {
        return surfaceC(stack(chip).tops()[0]);
    }

    private RingGrid.Stack stack(String chip) {
        RingGrid.Stack stack = grid.stacks.get(chip);
        if (stack == null) {
            throw new IllegalArgumentException("no chip \"" + chip + "\" on this board");
        }
        return stack;
    }

    /** The warmest outward face of a cell, or its own temperature where it has none. */
    private double surfaceC(int cell) {
        double found = Double.NEGATIVE_INFINITY;
        for (int f = 0; f < faceC.length; f++) {
            RingGrid.Face face = grid.faces.get(f);
            if (face.cell() == cell && face.facing() != RingGrid.Facing.SIDEWAYS) {
                found = Math.max(found, faceC[f]);
            }
        }
        return found == Double.NEGATIVE_INFINITY ? celsius[cell] : found;
    }

    @Override
    public double boardC(Side side, Point at) {
        double radius = at.distanceMm(scene.targetChip().centreMm());
        int ring = grid.ringBelow(radius);
        double share = Math.clamp((radius - grid.midMm[ring]) / (grid.midMm[ring + 1] - grid.midMm[ring]), 0,
                1);
        return (1 - share) * surfaceC(grid.sheetCell(ring, side))
                + share * surfaceC(grid.sheetCell(ring + 1, side));
    }

    @Override
    public double probeC(ProbePlace probe) {
        return switch (probe.role()) {
            case BOARD -> boardC(probe.side(), probe.atMm());
            case CHIP_TOP -> packageTopC();
            case JOINT -> jointCentreC();
        };
    }

    @Override
    public double heaterC() {
        return heaterC;
    }

    @Override
    public double airExitC() {
        return exitC;
    }

    @Override
    public EnergyBalance energy() {
        return new EnergyBalance(java.util.Arrays.stream(enthalpyJ).sum() - storedStartJ, exchangedJ,
                throughputJ);
    }
}
