package org.greenbead.core.thermal;

import java.util.Arrays;
import java.util.Optional;
import java.util.stream.IntStream;
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
    /** Two thirds of the bias of a double's exponent, shifted for the least error of the guess. */
    private static final long THIRD_OF_EXPONENT = 0x2A9F_7800_0000_0000L;
    /** Conduction and convection between an open plate and a part that hangs under a board lying on a contact plate. */
    private static final double RECESS_H = 7;
    /** Still air and radiation under a small part that is held up, W/m2K: McAdams' plate of 15 mm facing down and a grey face, both at 150 °C. */
    private static final double LIFTED_H = 15;
    private final SheetGrid grid;
    private final HeatScene scene;
    /** True where set-points are followed to the step's middle, which first-order steps want; else to its end. */
    private final boolean middleOfStep;
    private final Faces faces;
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
        faces = new Faces(grid);
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
        faces = other.faces;
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
            Point centre = scene.airCentre().plus(now.aside());
            if (field == null || !field.isFor(air.get(), centre.xMm(), centre.yMm())) {
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
        still(surfaceC, hWPerM2K, refC);
        moved(strength, axis, hWPerM2K, refC);
        weigh(surfaceC, hWPerM2K, refC);
        if (!lifted()) {
            plate(surfaceC, hWPerM2K, refC);
        }
        for (int f : faces.onSupport) {
            Support support = scene.support().orElseThrow();
            hWPerM2K[f] = lifted()
                    ? LIFTED_H
                    : support.contactWPerM2K() * (support.onHeater() ? preheater : 1);
            refC[f] = hWPerM2K[f] * (lifted() ? ambient : supportC);
        }
        for (int f = 0; f < refC.length; f++) {
            refC[f] = refC[f] / hWPerM2K[f];
        }
    }

    /** The chip lies on the heater only while that is on: with the heat it is taken off. */
    private boolean lifted() {
        return scene.onHeater() && input.heaterSetC().isEmpty();
    }

    /** The coefficient of still air, and the room as what it leads to. */
    private void still(double[] surfaceC, double[] h, double[] towardsC) {
        double ambient = scene.ambientC();
        double[] scale = faces.stillScale;
        for (int f = 0; f < surfaceC.length; f++) {
            h[f] = scale[f] * Math.sqrt(Math.sqrt(Math.max(0.5, Math.abs(surfaceC[f] - ambient))));
        }
        Arrays.fill(towardsC, ambient);
    }

    /** Jet and fan mixed into what still air does. */
    private void moved(double strength, double axisK, double[] h, double[] towardsC) {
        double fanTop = cube(input.fanTopWPerM2K());
        double fanBottom = cube(input.fanBottomWPerM2K());
        if (fanTop > 0 || fanBottom > 0) {
            for (int f = 0; f < h.length; f++) {
                double fan = grid.facing[f] == SheetGrid.Facing.DOWN ? fanBottom : fanTop;
                if (fan > 0 && !(strength > 0 && grid.jetShare[f] > 0)) {
                    h[f] = cubeRoot(cube(h[f]) + fan);
                }
            }
        }
        if (strength > 0) {
            double ambient = scene.ambientC();
            for (int f : faces.underJet) {
                int column = grid.faceColumn[f];
                double hJet = cube(grid.jetShare[f] * strength * field.share[column]);
                double fan = grid.facing[f] == SheetGrid.Facing.DOWN ? fanBottom : fanTop;
                double all = hJet + cube(h[f]) + fan;
                h[f] = cubeRoot(all);
                towardsC[f] = ambient + axisK * field.excess[column] * hJet / all;
            }
        }
    }

    /** Air and room together: the coefficient, and the product of it and the temperature it leads to. */
    private void weigh(double[] surfaceC, double[] h, double[] towardsC) {
        double ambient = scene.ambientC();
        double ambientK = ambient + KELVIN;
        double[] sigma = faces.sigmaWPerM2K4;
        double[] room = faces.seesRoom;
        for (int f = 0; f < surfaceC.length; f++) {
            double surfaceK = surfaceC[f] + KELVIN;
            double toRoom = sigma[f] * (surfaceK * surfaceK + ambientK * ambientK) * (surfaceK + ambientK)
                    * room[f];
            double toAir = h[f] * room[f];
            h[f] = toAir + toRoom;
            towardsC[f] = toAir * towardsC[f] + toRoom * ambient;
        }
    }

    private void plate(double[] surfaceC, double[] h, double[] weighed) {
        if (scene.heater().isEmpty()) {
            return;
        }
        BottomHeater heater = scene.heater().get();
        double heaterK = heaterActsC + KELVIN;
        double gap = heater.contact() ? RECESS_H : heater.gapHWPerM2K();
        double emissivity = heater.emissivity();
        for (int f : faces.overPlate) {
            double surfaceK = surfaceC[f] + KELVIN;
            double plate = preheater * grid.view[f] * (gap + emissivity * faces.sigmaWPerM2K4[f]
                    * (surfaceK * surfaceK + heaterK * heaterK) * (surfaceK + heaterK));
            h[f] += plate;
            weighed[f] += plate * heaterActsC;
        }
        for (int f : faces.onPlate) {
            double plate = preheater * grid.view[f] * heater.gapHWPerM2K();
            h[f] += plate;
            weighed[f] += plate * heaterActsC;
        }
    }

    /** What never changes of a grid's faces, in the shape that the loops want. */
    private static final class Faces {
        final double[] stillScale;
        final double[] sigmaWPerM2K4;
        final double[] seesRoom;
        final int[] underJet;
        final int[] overPlate;
        final int[] onPlate;
        final int[] onSupport;

        Faces(SheetGrid grid) {
            int n = grid.faceCell.length;
            double root = Math.sqrt(Math.sqrt(grid.meanSideM));
            double up = 1.32 / root;
            double down = 0.59 / root;
            double side = 1.42 / Math.sqrt(Math.sqrt(0.005));
            stillScale = new double[n];
            sigmaWPerM2K4 = new double[n];
            seesRoom = new double[n];
            for (int f = 0; f < n; f++) {
                stillScale[f] = switch (grid.facing[f]) {
                    case UP -> up;
                    case DOWN -> down;
                    case SIDEWAYS -> side;
                };
                sigmaWPerM2K4[f] = grid.emissivity[f] * SIGMA;
                seesRoom[f] = 1 - grid.view[f];
            }
            underJet = IntStream.range(0, n).filter(f -> grid.jetShare[f] > 0).toArray();
            overPlate = against(grid, SheetGrid.Against.OPEN_PLATE);
            onPlate = against(grid, SheetGrid.Against.CONTACT_PLATE);
            onSupport = against(grid, SheetGrid.Against.SUPPORT);
        }

        private static int[] against(SheetGrid grid, SheetGrid.Against what) {
            return IntStream.range(0, grid.faceCell.length).filter(f -> grid.against[f] == what).toArray();
        }
    }

    /**
     * Cube root of a number above 1e-200 and below 1e200, to 1e-13 of its value: a first guess from the exponent (Kahan 1991,
     * Computing a real cube root), then two steps of Halley's. A tenth of the time of all rehearsals went into the library's.
     */
    static double cubeRoot(double x) {
        double y = Double.longBitsToDouble(Double.doubleToRawLongBits(x) / 3 + THIRD_OF_EXPONENT);
        double c = y * y * y;
        y *= (c + 2 * x) / (2 * c + x);
        c = y * y * y;
        return y * (c + 2 * x) / (2 * c + x);
    }

    private static double cube(double x) {
        return x * x * x;
    }
}
