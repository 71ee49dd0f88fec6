package org.greenbead.core.thermal;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;

/**
 * The twin: cells of a {@link SheetGrid} with their heat content as the conserved quantity, stepped implicitly, so that
 * half a second is stable and the latent heat exact. First order with fixed steps, or second order (variable-step backward
 * differentiation, Hairer and Wanner 1996, Solving Ordinary Differential Equations II, III.5) with steps that follow the change.
 * The same input gives the same bits. Stepping allocates nothing.
 */
public final class SheetModel implements HeatModel {
    private static final int MOST_ROUNDS = 6;
    /** Steps of second order aim at this much between what was expected of a cell and what came, K. */
    private static final double AIM_K = 2.0;
    private static final double MOST_GROWTH = 2;
    /** A step this long for each mm of the smallest cells carries heat over many of them; in shorter ones a sweep through the thickness is enough. */
    private static final double WIDELY_S_PER_MM = 3;
    /** Faces are taken onwards as their cells are; where these came this near to it the exchange is not worked out again, K. */
    private static final double FACES_K = 2.5;
    private static final double ZERO_C = Enthalpy.ZERO_C;

    private final HeatScene scene;
    private final SheetGrid grid;
    private final SheetGrid.Stack target;
    private final Resolution resolution;
    private final SheetSolver solver;
    private final Surroundings surroundings;
    /** Cells with latent heat. */
    private final int[] melting;
    /** 1 for a cell without latent heat, 0 for one that can melt. */
    private final double[] steady;
    private final double[] heatJ;
    private final double[] lastHeatJ;
    private final double[] newHeatJ;
    private final double[] celsius;
    private final double[] lastC;
    private final double[] guessC;
    private final double[] solution;
    private final double[] rightSide;
    private final double[] slopeJPerK;
    private final double[] nowC;
    private final double[] faceC;
    /** The faces after the last step, and after the one before it. */
    private final double[] keptFaceC;
    private final double[] lastFaceC;
    private final double[] hWPerM2K;
    private final double[] faceWPerK;
    private final double[] faceRefC;
    private double supportC;
    private double newSupportC;
    private double timeS;
    private double lastStepS;
    private double nextStepS;
    private double lastExchangeJ;
    private double lastChangeK;
    private boolean fresh = true;
    private HeatInput lastInput = HeatInput.OFF;
    private double storedStartJ;
    private double exchangedJ;
    private double throughputJ;
    private long steps;
    private long rounds;

    public SheetModel(HeatScene scene, Multipliers multipliers, Resolution resolution) {
        this(scene, new SheetGrid(scene, multipliers, resolution), resolution, multipliers);
    }

    private SheetModel(HeatScene scene, SheetGrid grid, Resolution resolution, Multipliers multipliers) {
        this(scene, grid, resolution,
                new BenchSurroundings(grid, scene, multipliers, !resolution.adaptive()));
    }

    /** For a grid whose faces see something else than a bench. */
    SheetModel(HeatScene scene, SheetGrid grid, Resolution resolution, Surroundings surroundings) {
        this.scene = scene;
        this.grid = grid;
        target = grid.stack(scene.target());
        this.resolution = resolution;
        this.surroundings = surroundings;
        solver = new SheetSolver(grid);
        melting = IntStream.range(0, grid.cells).filter(i -> grid.latentJ[i] > 0).toArray();
        steady = Arrays.stream(grid.latentJ).map(l -> l > 0 ? 0 : 1).toArray();
        int n = grid.cells;
        heatJ = new double[n];
        lastHeatJ = new double[n];
        newHeatJ = new double[n];
        celsius = new double[n];
        lastC = new double[n];
        guessC = new double[n];
        solution = new double[n];
        rightSide = new double[n];
        slopeJPerK = new double[n];
        nowC = new double[n];
        int faces = grid.faceCell.length;
        faceC = new double[faces];
        hWPerM2K = new double[faces];
        faceWPerK = new double[faces];
        faceRefC = new double[faces];
        Arrays.fill(faceC, scene.ambientC());
        keptFaceC = faceC.clone();
        lastFaceC = faceC.clone();
        supportC = scene.support().map(Support::startC).orElse(scene.ambientC());
        for (int i = 0; i < n; i++) {
            startAt(i, scene.ambientC());
        }
        nextStepS = resolution.shortestS();
    }

    private SheetModel(SheetModel other) {
        scene = other.scene;
        grid = other.grid;
        target = other.target;
        resolution = other.resolution;
        surroundings = other.surroundings.copy();
        solver = new SheetSolver(other.solver);
        melting = other.melting;
        steady = other.steady;
        heatJ = other.heatJ.clone();
        lastHeatJ = other.lastHeatJ.clone();
        newHeatJ = other.newHeatJ.clone();
        celsius = other.celsius.clone();
        lastC = other.lastC.clone();
        guessC = other.guessC.clone();
        solution = other.solution.clone();
        rightSide = other.rightSide.clone();
        slopeJPerK = other.slopeJPerK.clone();
        nowC = other.nowC.clone();
        faceC = other.faceC.clone();
        keptFaceC = other.keptFaceC.clone();
        lastFaceC = other.lastFaceC.clone();
        hWPerM2K = other.hWPerM2K.clone();
        faceWPerK = other.faceWPerK.clone();
        faceRefC = other.faceRefC.clone();
        supportC = other.supportC;
        newSupportC = other.newSupportC;
        timeS = other.timeS;
        lastStepS = other.lastStepS;
        nextStepS = other.nextStepS;
        lastExchangeJ = other.lastExchangeJ;
        lastChangeK = other.lastChangeK;
        fresh = other.fresh;
        lastInput = other.lastInput;
        storedStartJ = other.storedStartJ;
        exchangedJ = other.exchangedJ;
        throughputJ = other.throughputJ;
    }

    @Override
    public SheetModel copy() {
        return new SheetModel(this);
    }

    public HeatScene scene() {
        return scene;
    }

    /** Puts one cell at a temperature before anything has been stepped. */
    void startAt(int cell, double startC) {
        storedStartJ -= heatJ[cell];
        celsius[cell] = startC;
        lastC[cell] = startC;
        heatJ[cell] = heatOf(cell, startC);
        storedStartJ += heatJ[cell];
    }

    // Stepping.

    @Override
    public void advance(HeatInput input, double stepS) {
        if (!(stepS > 0 && stepS <= 60)) {
            throw new IllegalArgumentException("step is " + stepS + " s; allowed is above 0 to 60 s");
        }
        if (!input.equals(lastInput)) {
            lastInput = input;
            restart();
        }
        double left = stepS;
        while (left > 1e-9) {
            double wanted = resolution.adaptive() ? nextStepS : resolution.shortestS();
            double step = left / Math.ceil(left / wanted - 1e-9);
            left -= step(input, step);
        }
    }

    /** The past no longer tells where things go. */
    private void restart() {
        fresh = true;
        nextStepS = resolution.shortestS();
    }

    /** Returns the step that was taken, which may be shorter than the one asked for. */
    private double step(HeatInput input, double asked) {
        double dt = asked;
        double heaterBefore = surroundings.heaterC();
        double exitBefore = surroundings.airExitC();
        while (true) {
            attempt(input, dt);
            boolean wild = resolution.adaptive() && lastChangeK > 4 * AIM_K
                    && dt > 1.01 * resolution.shortestS();
            if (!wild) {
                break;
            }
            if (surroundings instanceof BenchSurroundings bench) {
                bench.restore(heaterBefore, exitBefore);
            }
            dt = Math.max(resolution.shortestS(), dt / 3);
        }
        accept(dt);
        return dt;
    }

    private void attempt(HeatInput input, double dt) {
        surroundings.advance(input, dt);
        boolean second = resolution.adaptive() && !fresh;
        double ratio = second || !fresh ? dt / lastStepS : 0;
        double alpha = second ? (1 + 2 * ratio) / (1 + ratio) : 1;
        double older = second ? ratio * ratio / (1 + ratio) : 0;
        double trust = second ? 1 : 0.9;
        expect(trust * ratio);
        newSupportC = supportC;
        double gapAllowed = resolution.adaptive() ? 0.1 : 0.02;
        double changeAllowed = resolution.adaptive() ? FACES_K : 0.15;
        lastChangeK = 0;
        for (int round = 0; round < MOST_ROUNDS; round++) {
            rounds++;
            setFaces();
            assemble(dt, alpha, older);
            solver.solve(solution, rightSide, dt >= WIDELY_S_PER_MM * resolution.finestMm(),
                    resolution.solveK());
            if (round == 0) {
                lastChangeK = steadyChangeK();
            }
            double change = round == 0 ? lastChangeK : changeK();
            double gap = takeUp();
            double supportBefore = newSupportC;
            setSupport(dt);
            for (int f = 0; f < faceC.length; f++) {
                double watt = faceWPerK[f] * (faceRefC[f] - solution[grid.faceCell[f]]);
                faceC[f] = solution[grid.faceCell[f]]
                        + watt * (grid.halfM2KPerW[f] + grid.coverM2KPerW[f]) / grid.areaM2[f];
            }
            if (gap < gapAllowed && change < changeAllowed && Math.abs(newSupportC - supportBefore) < 0.02) {
                break;
            }
        }
    }

    /** Where every cell will be if it goes on as before; one that can melt stays. */
    private void expect(double onward) {
        int n = celsius.length;
        for (int i = 0; i < n; i++) {
            guessC[i] = celsius[i] + onward * (celsius[i] - lastC[i]);
        }
        for (int i : melting) {
            guessC[i] = celsius[i];
        }
        double[] c = grid.heatJPerK;
        double[] beta = grid.betaPerK;
        for (int i = 0; i < n; i++) {
            double over = guessC[i] - ZERO_C;
            newHeatJ[i] = c[i] * (over + beta[i] / 2 * over * over);
        }
        for (int i : melting) {
            newHeatJ[i] = heatOf(i, guessC[i]);
        }
        System.arraycopy(guessC, 0, solution, 0, n);
        for (int f = 0; f < faceC.length; f++) {
            faceC[f] = keptFaceC[f] + onward * (keptFaceC[f] - lastFaceC[f]);
        }
    }

    /** Largest step from the guess of the cells that cannot melt, K. */
    private double steadyChangeK() {
        double most = 0;
        for (int i = 0; i < solution.length; i++) {
            most = Math.max(most, steady[i] * Math.abs(solution[i] - guessC[i]));
        }
        return most;
    }

    private double changeK() {
        double most = 0;
        for (int i = 0; i < solution.length; i++) {
            most = Math.max(most, Math.abs(solution[i] - guessC[i]));
        }
        return most;
    }

    /** The solution as heat, and the temperatures that go with it as the next guess; returns the largest difference between the two, K. */
    private double takeUp() {
        double[] c = grid.heatJPerK;
        double[] beta = grid.betaPerK;
        int n = solution.length;
        for (int i = 0; i < n; i++) {
            newHeatJ[i] += slopeJPerK[i] * (solution[i] - guessC[i]);
        }
        for (int i = 0; i < n; i++) {
            double q = newHeatJ[i] / c[i];
            nowC[i] = ZERO_C + 2 * q / (1 + Math.sqrt(Math.max(0.01, 1 + 2 * beta[i] * q)));
        }
        for (int i : melting) {
            nowC[i] = celsiusOf(i, newHeatJ[i]);
        }
        double gap = 0;
        for (int i = 0; i < n; i++) {
            gap = Math.max(gap, Math.abs(nowC[i] - solution[i]));
        }
        System.arraycopy(nowC, 0, guessC, 0, n);
        return gap;
    }

    private void setFaces() {
        surroundings.exchange(faceC, hWPerM2K, faceRefC, newSupportC);
        for (int f = 0; f < faceC.length; f++) {
            faceWPerK[f] = grid.areaM2[f] / (1 / hWPerM2K[f] + grid.halfM2KPerW[f] + grid.coverM2KPerW[f]);
        }
    }

    private void assemble(double dt, double alpha, double older) {
        double[] diagonal = solver.diagonal();
        double[] links = solver.links();
        double newer = alpha + older; // 1 + ratio, and 1 in a step of first order
        double[] c = grid.heatJPerK;
        double[] beta = grid.betaPerK;
        int n = diagonal.length;
        for (int i = 0; i < n; i++) {
            slopeJPerK[i] = c[i] * (1 + beta[i] * (guessC[i] - ZERO_C));
        }
        for (int i : melting) {
            slopeJPerK[i] = slopeAt(i, guessC[i]);
        }
        for (int i = 0; i < n; i++) {
            double slope = alpha * slopeJPerK[i];
            double kept = newer * heatJ[i] - older * lastHeatJ[i];
            diagonal[i] = slope / dt + links[i];
            rightSide[i] = (slope * guessC[i] - alpha * newHeatJ[i] + kept) / dt;
        }
        for (int f = 0; f < faceC.length; f++) {
            int cell = grid.faceCell[f];
            diagonal[cell] += faceWPerK[f];
            rightSide[cell] += faceWPerK[f] * faceRefC[f];
        }
    }

    /** The support as one lump, implicitly with the faces that stand on it. */
    private void setSupport(double dt) {
        if (scene.support().isEmpty()) {
            return;
        }
        Support support = scene.support().get();
        double around = support.onHeater() ? surroundings.heaterC() : support.surroundingsC();
        double top = support.capacityJPerK() / dt * supportC + support.lossWPerK() * around;
        double bottom = support.capacityJPerK() / dt + support.lossWPerK();
        boolean lifted = support.onHeater() && lastInput.heaterSetC().isEmpty();
        for (int f = 0; f < faceC.length && !lifted; f++) {
            if (grid.against[f] == SheetGrid.Against.SUPPORT) {
                top += faceWPerK[f] * solution[grid.faceCell[f]];
                bottom += faceWPerK[f];
            }
        }
        newSupportC = top / bottom;
    }

    private void accept(double dt) {
        double netJ = 0;
        double grossJ = 0;
        for (int f = 0; f < faceC.length; f++) {
            double joule = faceWPerK[f] * (faceRefC[f] - solution[grid.faceCell[f]]) * dt;
            netJ += joule;
            grossJ += Math.abs(joule);
        }
        if (resolution.adaptive() && !fresh) {
            // What a second-order step conserves: its own flow and the memory of the step before.
            double ratio = dt / lastStepS;
            double alpha = (1 + 2 * ratio) / (1 + ratio);
            netJ = (netJ + ratio * ratio / (1 + ratio) * lastExchangeJ) / alpha;
        }
        exchangedJ += netJ;
        throughputJ += grossJ;
        lastExchangeJ = netJ;
        System.arraycopy(heatJ, 0, lastHeatJ, 0, heatJ.length);
        System.arraycopy(newHeatJ, 0, heatJ, 0, heatJ.length);
        System.arraycopy(celsius, 0, lastC, 0, celsius.length);
        System.arraycopy(guessC, 0, celsius, 0, celsius.length);
        System.arraycopy(keptFaceC, 0, lastFaceC, 0, faceC.length);
        System.arraycopy(faceC, 0, keptFaceC, 0, faceC.length);
        supportC = newSupportC;
        timeS += dt;
        steps++;
        lastStepS = dt;
        if (resolution.adaptive()) {
            double growth = Math.clamp(Math.sqrt(AIM_K / Math.max(1e-3, lastChangeK)), 0.4, MOST_GROWTH);
            double most = melting() ? Math.min(2, resolution.longestS()) : resolution.longestS();
            nextStepS = Math.clamp(dt * growth, resolution.shortestS(), most);
        }
        fresh = false;
    }

    private boolean melting() {
        for (int joint : target.joints()[0]) {
            if (celsius[joint] > grid.solidusC[joint] - 6 && celsius[joint] < grid.liquidusC[joint] + 6) {
                return true;
            }
        }
        return false;
    }

    // Heat content of a cell: the same law as Enthalpy, on arrays.

    private double heatOf(int i, double at) {
        double over = at - ZERO_C;
        return grid.heatJPerK[i] * (over + grid.betaPerK[i] / 2 * over * over)
                + (grid.latentJ[i] > 0 ? grid.latentJ[i] * liquid(i, at) : 0);
    }

    private double liquid(int i, double at) {
        return Math.clamp((at - grid.solidusC[i]) / (grid.liquidusC[i] - grid.solidusC[i]), 0, 1);
    }

    private double slopeAt(int i, double at) {
        double slope = grid.heatJPerK[i] * (1 + grid.betaPerK[i] * (at - ZERO_C));
        return grid.latentJ[i] > 0 && at >= grid.solidusC[i] && at < grid.liquidusC[i]
                ? slope + grid.latentJ[i] / (grid.liquidusC[i] - grid.solidusC[i])
                : slope;
    }

    private double celsiusOf(int i, double joule) {
        double c = grid.heatJPerK[i];
        double latent = grid.latentJ[i];
        if (latent == 0) {
            double q = joule / c;
            double beta = grid.betaPerK[i];
            return beta == 0
                    ? ZERO_C + q
                    : ZERO_C + 2 * q / (1 + Math.sqrt(Math.max(0.01, 1 + 2 * beta * q)));
        }
        double atSolidus = c * (grid.solidusC[i] - ZERO_C);
        if (joule <= atSolidus) {
            return ZERO_C + joule / c;
        }
        double range = grid.liquidusC[i] - grid.solidusC[i];
        if (joule >= atSolidus + c * range + latent) {
            return ZERO_C + (joule - latent) / c;
        }
        return grid.solidusC[i] + (joule - atSolidus) / (c + latent / range);
    }

    // State that an observer may correct.

    /** Number of cells whose heat an observer may shift. */
    public int cells() {
        return heatJ.length;
    }

    /** True for a cell with latent heat. */
    public boolean melts(int cell) {
        return grid.latentJ[cell] > 0;
    }

    public double heatJ(int cell) {
        return heatJ[cell];
    }

    public double celsius(int cell) {
        return celsius[cell];
    }

    /** Shifts the temperature of one cell; the balance counts the heat as exchanged. */
    public void shiftK(int cell, double kelvin) {
        addHeatJ(cell, heatOf(cell, celsius[cell] + kelvin) - heatJ[cell]);
    }

    /**
     * Shifts every cell that cannot melt; the balance counts the heat as exchanged. One that can holds little heat and follows its neighbours within a
     * step; shifting its latent heat would make it jump.
     *
     * @param kelvin by cell
     */
    public void shiftK(double[] kelvin) {
        double[] c = grid.heatJPerK;
        double[] beta = grid.betaPerK;
        double[] joule = solution;
        int n = joule.length;
        for (int i = 0; i < n; i++) {
            double over = celsius[i] + kelvin[i] - ZERO_C;
            joule[i] = steady[i] * (c[i] * (over + beta[i] / 2 * over * over) - heatJ[i]);
        }
        for (int i = 0; i < n; i++) {
            heatJ[i] += joule[i];
            lastHeatJ[i] += joule[i];
            double q = heatJ[i] / c[i];
            nowC[i] = ZERO_C + 2 * q / (1 + Math.sqrt(Math.max(0.01, 1 + 2 * beta[i] * q)));
        }
        for (int i : melting) {
            nowC[i] = celsius[i];
        }
        for (int i = 0; i < n; i++) {
            lastC[i] += nowC[i] - celsius[i];
            celsius[i] = nowC[i];
        }
        for (int i = 0; i < n; i++) {
            exchangedJ += joule[i];
        }
    }

    /** Temperatures of all cells as they are now, °C. */
    public void copyCelsius(double[] into) {
        System.arraycopy(celsius, 0, into, 0, celsius.length);
    }

    /** Shifts the heat of one cell; the balance counts it as exchanged. */
    public void addHeatJ(int cell, double joule) {
        heatJ[cell] += joule;
        exchangedJ += joule;
        double now = celsiusOf(cell, heatJ[cell]);
        lastC[cell] += now - celsius[cell];
        lastHeatJ[cell] += joule;
        celsius[cell] = now;
    }

    /**
     * By how much what surrounds a joint of the target is ahead of it when it has just melted, K. While it melts it stands still and the lead grows as
     * R·t; the heat that flows in, G·R·t²/2, is the heat of fusion L at the end, so the lead is the root of 2·L·R/G.
     *
     * @param rampKPerS R, how fast the surroundings rise
     */
    public double meltingLeadK(double rampKPerS) {
        double latent = 0;
        double flows = 0;
        for (int joint : target().joints()[0]) {
            latent += grid.latentJ[joint];
            flows += solver.links()[joint];
        }
        return Math.sqrt(2 * latent * Math.max(0, rampKPerS) / flows);
    }

    /** The target's joints that have at least {@code fromC} are liquid from now on: what they were still to take up is theirs. The balance counts it as exchanged. */
    public void liquefy(double fromC) {
        for (int[] layer : target().joints()) {
            for (int joint : layer) {
                if (celsius[joint] >= fromC && celsius[joint] < grid.liquidusC[joint]) {
                    shiftK(joint, grid.liquidusC[joint] - celsius[joint]);
                }
            }
        }
    }

    /** @throws IllegalStateException when the model does not stand on a bench */
    private BenchSurroundings bench() {
        if (surroundings instanceof BenchSurroundings bench) {
            return bench;
        }
        throw new IllegalStateException("this model has no jet and no heater");
    }

    public double jetMultiplier() {
        return bench().jetMultiplier();
    }

    public double preheaterMultiplier() {
        return bench().preheaterMultiplier();
    }

    public void retune(double jet, double preheater) {
        bench().retune(jet, preheater);
    }

    /** Rounds of the linear solver so far, for those who measure. */
    public long solverRounds() {
        return solver.iterations();
    }

    /** Steps taken so far. */
    public long steps() {
        return steps;
    }

    /** Linear systems solved so far; more than one a step where something melts or changes fast. */
    public long rounds() {
        return rounds;
    }

    // Reading.

    @Override
    public double timeS() {
        return timeS;
    }

    private SheetGrid.Stack target() {
        return target;
    }

    @Override
    public List<JointView> targetJoints() {
        SheetGrid.Stack stack = target();
        var views = new ArrayList<JointView>();
        for (int layer = 0; layer < stack.joints().length; layer++) {
            views.add(jointView(stack, layer));
        }
        return views;
    }

    private JointView jointView(SheetGrid.Stack stack, int layer) {
        return new JointView(centre(stack, layer), corner(stack, layer), liquid(stack, layer),
                extreme(stack, layer, -1), extreme(stack, layer, 1));
    }

    private double corner(SheetGrid.Stack stack, int layer) {
        return stack.places().corner().of(stack.joints()[layer], celsius);
    }

    private double liquid(SheetGrid.Stack stack, int layer) {
        double liquid = 0;
        int[] joint = stack.joints()[layer];
        for (int i = 0; i < joint.length; i++) {
            liquid += stack.shares()[i] * liquid(joint[i], celsius[joint[i]]);
        }
        return liquid;
    }

    /** Highest ({@code sign} 1) or lowest (-1) joint of a layer: every cell, and the rim, which lies outside the cells' middles. */
    private double extreme(SheetGrid.Stack stack, int layer, int sign) {
        int[] joints = stack.joints()[layer];
        double most = Double.NEGATIVE_INFINITY;
        for (int joint : joints) {
            most = Math.max(most, sign * celsius[joint]);
        }
        for (Spot spot : stack.places().rim()) {
            most = Math.max(most, sign * spot.of(joints, celsius));
        }
        return sign * most;
    }

    private double centre(SheetGrid.Stack stack, int layer) {
        return stack.places().middle().of(stack.joints()[layer], celsius);
    }

    @Override
    public double jointCentreC() {
        return centre(target(), 0);
    }

    @Override
    public double jointCornerC() {
        return corner(target(), 0);
    }

    @Override
    public double jointMinC() {
        return extreme(target(), 0, -1);
    }

    @Override
    public double jointMaxC() {
        return extreme(target(), 0, 1);
    }

    /**
     * Coldest joint of the target within a band across it.
     *
     * @param alongX true where the band is passed in the direction of x
     * @param fromMm from the target's middle, lower edge of the band
     * @param toMm   and its upper edge
     * @return infinite where the band holds no joint
     */
    public double jointMinC(boolean alongX, double fromMm, double toMm) {
        Point middle = scene.targetChip().centreMm();
        int nx = grid.xMm.length - 1;
        double least = Double.POSITIVE_INFINITY;
        for (int joint : target.joints()[0]) {
            int col = Arrays.binarySearch(grid.first, joint);
            col = col < 0 ? -col - 2 : col;
            double at = alongX
                    ? grid.middleX(col % nx) - middle.xMm()
                    : grid.middleY(col / nx) - middle.yMm();
            if (at >= fromMm && at <= toMm) {
                least = Math.min(least, celsius[joint]);
            }
        }
        return least;
    }

    @Override
    public double liquidFraction() {
        return liquid(target(), 0);
    }

    @Override
    public double packageTopC() {
        return bodyC(scene.target());
    }

    @Override
    public double jointC(String chip) {
        return centre(grid.stack(chip), 0);
    }

    @Override
    public double jointMaxC(String chip) {
        SheetGrid.Stack stack = grid.stack(chip);
        double most = Double.NEGATIVE_INFINITY;
        for (int layer = 0; layer < stack.joints().length; layer++) {
            most = Math.max(most, extreme(stack, layer, 1));
        }
        return most;
    }

    @Override
    public double bodyC(String chip) {
        SheetGrid.Stack stack = grid.stack(chip);
        if (stack.packed().length > 0) {
            // Heat comes through the balls and nobody sees the outer face; what counts is the hottest of it.
            return java.util.Arrays.stream(stack.packed()).mapToDouble(c -> celsius[c]).max().orElseThrow();
        }
        int[] tops = stack.tops();
        Spot middle = stack.places().middle();
        return middle.between(bodySkin(tops[middle.near()]), bodySkin(tops[middle.right()]),
                bodySkin(tops[middle.above()]), bodySkin(tops[middle.aslant()]));
    }

    /** Skin of the body itself, under any foil. */
    private double bodySkin(int face) {
        int cell = grid.faceCell[face];
        double outside = grid.halfM2KPerW[face] + grid.coverM2KPerW[face];
        return celsius[cell] + (faceC[face] - celsius[cell]) * grid.halfM2KPerW[face] / outside;
    }

    @Override
    public double boardC(Side side, Point at) {
        int nx = grid.xMm.length - 1;
        int ny = grid.yMm.length - 1;
        double fx = Math.clamp(Spot.among(grid.xMm, 0, nx, at.xMm()), 0, nx - 1);
        double fy = Math.clamp(Spot.among(grid.yMm, 0, ny, at.yMm()), 0, ny - 1);
        int ix = Math.min((int) fx, nx - 2);
        int iy = Math.min((int) fy, ny - 2);
        double sx = fx - ix;
        double sy = fy - iy;
        double inside = (1 - sy) * ((1 - sx) * sheetC(ix, iy, side) + sx * sheetC(ix + 1, iy, side))
                + sy * ((1 - sx) * sheetC(ix, iy + 1, side) + sx * sheetC(ix + 1, iy + 1, side));
        int column = grid.column(SheetGrid.interval(grid.xMm, at.xMm()),
                SheetGrid.interval(grid.yMm, at.yMm()));
        if (grid.covered(column, side)) {
            return inside;
        }
        int face = grid.outerFace(column, side);
        return inside + bodySkin(face) - celsius[grid.faceCell[face]];
    }

    private double sheetC(int ix, int iy, Side side) {
        return celsius[grid.boardCell(grid.column(ix, iy), side)];
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
    public HeatField field(Side side) {
        int nx = grid.xMm.length - 1;
        float[] skin = new float[grid.columns];
        for (int col = 0; col < grid.columns; col++) {
            skin[col] = (float) bodySkin(grid.outerFace(col, side));
        }
        return new HeatField(side, grid.xMm, grid.yMm, nx, skin);
    }

    @Override
    public double heaterC() {
        return surroundings.heaterC();
    }

    @Override
    public double airExitC() {
        return surroundings.airExitC();
    }

    @Override
    public double supportC() {
        return scene.support().isPresent() ? supportC : Double.NaN;
    }

    @Override
    public EnergyBalance energy() {
        double stored = 0;
        for (double joule : heatJ) {
            stored += joule;
        }
        return new EnergyBalance(stored - storedStartJ, exchangedJ, throughputJ);
    }

    /** The board's sheets and layers as they are cut, for those who measure. */
    SheetGrid grid() {
        return grid;
    }

}
