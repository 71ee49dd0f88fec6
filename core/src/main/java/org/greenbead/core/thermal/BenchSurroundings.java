package org.greenbead.core.thermal;

import java.util.Optional;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Point;
import org.greenbead.core.recipe.AirSetting;

/**
 * A room, a heater below, a nozzle above, a fan and a support. Radiation by Stefan and Boltzmann between grey faces, natural
 * convection after McAdams 1954 (simplified for air at one atmosphere), the jet as {@link Jet} says, mixed by the cubic rule
 * of Churchill 1977 with what the still air or the fan does.
 */
final class BenchSurroundings implements Surroundings {
    static final double SIGMA = 5.670374419e-8; // CODATA 2018, W/m2K4
    private static final double KELVIN = 273.15;
    /** Conduction and convection between an open plate and a part that hangs under a board lying on a contact plate. */
    private static final double RECESS_H = 7;
    private final SheetGrid grid;
    private final HeatScene scene;
    /** True where set-points are followed to the step's middle, which first-order steps want; else to its end. */
    private final boolean middleOfStep;
    private final double upScale;
    private final double downScale;
    private final double sideScale;
    private double jet;
    private double preheater;
    private double heaterC;
    private double exitC;
    private double heaterActsC;
    private double exitActsC;
    private HeatInput input = HeatInput.OFF;
    private JetField field;

    BenchSurroundings(SheetGrid grid, HeatScene scene, Multipliers multipliers, boolean middleOfStep) {
        this.grid = grid;
        this.scene = scene;
        this.middleOfStep = middleOfStep;
        double root = Math.sqrt(Math.sqrt(grid.meanSideM));
        upScale = 1.32 / root;
        downScale = 0.59 / root;
        sideScale = 1.42 / Math.sqrt(Math.sqrt(0.005));
        jet = multipliers.jet() * scene.air().multiplier();
        preheater = multipliers.preheater() * scene.heater().map(BottomHeater::multiplier).orElse(1.0);
        heaterC = scene.heaterStartC();
        exitC = scene.ambientC();
        heaterActsC = heaterC;
        exitActsC = exitC;
    }

    private BenchSurroundings(BenchSurroundings other) {
        grid = other.grid;
        scene = other.scene;
        middleOfStep = other.middleOfStep;
        upScale = other.upScale;
        downScale = other.downScale;
        sideScale = other.sideScale;
        jet = other.jet;
        preheater = other.preheater;
        heaterC = other.heaterC;
        exitC = other.exitC;
        heaterActsC = other.heaterActsC;
        exitActsC = other.exitActsC;
        input = other.input;
        field = other.field;
    }

    @Override
    public BenchSurroundings copy() {
        return new BenchSurroundings(this);
    }

    double jetMultiplier() {
        return jet;
    }

    double preheaterMultiplier() {
        return preheater;
    }

    void retune(double newJet, double newPreheater) {
        jet = newJet;
        preheater = newPreheater;
    }

    /** Puts heater and nozzle back, for a step that is taken again. */
    void restore(double heater, double exit) {
        heaterC = heater;
        exitC = exit;
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
    public void advance(HeatInput now, double stepS) {
        input = now;
        double ambient = scene.ambientC();
        double actS = middleOfStep ? stepS / 2 : stepS;
        if (scene.heater().isPresent()) {
            BottomHeater heater = scene.heater().get();
            double goal = now.heaterSetC().orElse(ambient);
            double tau = goal >= heaterC ? heater.tauHeatS() : heater.tauCoolS();
            heaterActsC = goal + (heaterC - goal) * Math.exp(-actS / tau);
            heaterC = goal + (heaterC - goal) * Math.exp(-stepS / tau);
        }
        // On its stand a station keeps its heat; what it blows at then does not concern the board.
        double goal = exitC;
        Optional<AirSetting> air = now.air();
        if (air.isPresent()) {
            goal = Jet.exitC(scene.air().leavesC(air.get().setC()), ambient, air.get().flowLpm(),
                    scene.air().lossWPerK());
            if (field == null || !field.isFor(air.get())) {
                Point centre = scene.airCentre();
                field = JetField.over(grid, centre.xMm(), centre.yMm(), air.get());
            }
        }
        exitActsC = goal + (exitC - goal) * Math.exp(-actS / scene.air().tauS());
        exitC = goal + (exitC - goal) * Math.exp(-stepS / scene.air().tauS());
    }

    @Override
    public void exchange(double[] surfaceC, double[] hWPerM2K, double[] refC, double supportC) {
        double ambient = scene.ambientC();
        double strength = 0;
        double axis = 0;
        if (input.air().isPresent()) {
            AirSetting air = input.air().get();
            strength = jet * Jet.strength(air.flowLpm(), air.nozzleMm(), exitActsC);
            axis = Jet.axisShare(air.distanceMm() / air.nozzleMm(), exitActsC, ambient)
                    * (exitActsC - ambient);
        }
        double fanTop = cube(input.fanTopWPerM2K());
        double fanBottom = cube(input.fanBottomWPerM2K());
        double ambientK = ambient + KELVIN;
        double heaterK = heaterActsC + KELVIN;
        BottomHeater heater = scene.heater().orElse(null);
        for (int f = 0; f < surfaceC.length; f++) {
            double surface = surfaceC[f];
            double rise = Math.sqrt(Math.sqrt(Math.max(0.5, Math.abs(surface - ambient))));
            double still;
            double fan;
            switch (grid.facing[f]) {
                case UP -> {
                    still = upScale * rise;
                    fan = fanTop;
                }
                case DOWN -> {
                    still = downScale * rise;
                    fan = fanBottom;
                }
                default -> {
                    still = sideScale * rise;
                    fan = fanTop;
                }
            }
            double h = still;
            double ref = ambient;
            double share = grid.jetShare[f];
            if (share > 0 && strength > 0) {
                int column = grid.faceColumn[f];
                double hJet = cube(share * strength * field.share[column]);
                double all = hJet + cube(still) + fan;
                h = Math.cbrt(all);
                ref = ambient + axis * field.excess[column] * hJet / all;
            } else if (fan > 0) {
                h = Math.cbrt(cube(still) + fan);
            }
            double surfaceK = surface + KELVIN;
            double eps = grid.emissivity[f] * SIGMA;
            double seesRoom = 1 - grid.view[f];
            double toRoom = eps * (surfaceK * surfaceK + ambientK * ambientK) * (surfaceK + ambientK)
                    * seesRoom;
            double toAir = h * seesRoom;
            double total = toAir + toRoom;
            double weighed = toAir * ref + toRoom * ambient;
            switch (grid.against[f]) {
                case OPEN_PLATE -> {
                    double gap = heater.contact() ? RECESS_H : heater.gapHWPerM2K();
                    double plate = preheater * grid.view[f] * (gap + heater.emissivity() * eps
                            * (surfaceK * surfaceK + heaterK * heaterK) * (surfaceK + heaterK));
                    total += plate;
                    weighed += plate * heaterActsC;
                }
                case CONTACT_PLATE -> {
                    double plate = preheater * grid.view[f] * heater.gapHWPerM2K();
                    total += plate;
                    weighed += plate * heaterActsC;
                }
                case SUPPORT -> {
                    total = scene.support().orElseThrow().contactWPerM2K();
                    weighed = total * supportC;
                }
                default -> {
                }
            }
            hWPerM2K[f] = total;
            refC[f] = weighed / total;
        }
    }

    private static double cube(double x) {
        return x * x * x;
    }
}
