package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.board.Chip;
import org.greenbead.core.book.Phase;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Job;

/** The rules that judge a plan before anything is hot. */
public final class PlanRules {
    /** Below this a bottom heater does nothing for a joint; under it a set-point in °C looks like a slip. */
    /** A dial cannot be set closer than this, in its unit. */
    private static final double SET_AS_READ = 0.5;
    /** Nozzles whose inner diameters differ by less are one nozzle, measured twice. */
    private static final double SAME_NOZZLE_MM = 0.6;
    private static final double SENSIBLE_AIR_LOW_C = 250;
    private static final double SENSIBLE_HEATER_LOW_C = 60;

    private PlanRules() {
    }

    /**
     * @param rehearsal of this very plan; empty when it has not been made
     * @return worst first
     */
    public static List<Finding> look(RunPlan plan, Optional<Rehearsal> rehearsal) {
        var found = new ArrayList<Finding>();
        preparation(plan, found);
        recipe(plan, found);
        rehearsal.ifPresent(r -> prediction(plan, r, found));
        found.sort(Comparator.comparing(Finding::severity).reversed());
        return List.copyOf(found);
    }

    /**
     * What can be judged by now: nothing of the heat before it is planned, nothing of the bench before the board lies on it.
     *
     * @param all   in any order; kept
     * @param phase that is in hand
     */
    public static List<Finding> timely(List<Finding> all, Phase phase) {
        if (phase.compareTo(Phase.PLAN) < 0) {
            return List.of();
        }
        return all.stream()
                .filter(f -> phase != Phase.PLAN || !(f.remedy().orElse(null) instanceof Remedy.Attest))
                .toList();
    }

    private static void preparation(RunPlan plan, List<Finding> found) {
        Job job = plan.job();
        if (!plan.loose()) {
            attested(job, "cell_off", Rule.CELL_CONNECTED, Severity.STOP, found);
            attested(job, "supply_off", Rule.SUPPLY_CONNECTED, Severity.STOP, found);
            attested(job, "board_flat", Rule.BOARD_NOT_FLAT, Severity.CARE, found);
            attested(job, "orientation_recorded", Rule.ORIENTATION_MISSING, Severity.CARE, found);
        }
        attested(job, "extraction_on", Rule.NO_EXTRACTION, Severity.CARE, found);
        Chip chip = plan.target();
        if (chip.joint().alloy().hasPb() && job.attested("gloves_on") != Attest.YES) {
            found.add(Finding
                    .of(Rule.LEAD_NO_GLOVES, chip.name(), Severity.CARE,
                            new Quantity.Name(chip.joint().alloy().name()))
                    .with(new Remedy.Attest("gloves_on")));
        }
        boolean dries = plan.recipe().stages().stream().anyMatch(s -> s.purpose() == Stage.Purpose.DRY_OUT);
        if (chip.openH() > chip.floorLifeH() && !dries && job.attested("baked") != Attest.YES) {
            found.add(Finding.of(Rule.NO_DRY_OUT, chip.name(), Severity.CARE, new Quantity.Name(chip.name()),
                    new Quantity.Hours(chip.openH()),
                    new Quantity.Hours(chip.floorLifeH())).with(new Remedy.Attest("baked")));
        }
        if (chip.melts() >= chip.meltsLimit()) {
            found.add(Finding.of(Rule.MELTS_USED_UP, chip.name(), Severity.CARE,
                    new Quantity.Name(chip.name()), new Quantity.Count(chip.melts()),
                    new Quantity.Count(chip.meltsLimit())));
        }
        if (plan.bench().probes().isEmpty()) {
            found.add(Finding.of(Rule.NO_PROBE, "probes", Severity.CARE));
        }
    }

    /** A check that the route does not ask for is not missing. */
    private static void attested(Job job, String check, Rule rule, Severity severity, List<Finding> found) {
        if (job.asks(check) && job.attested(check) != Attest.YES) {
            found.add(Finding.of(rule, check, severity).with(new Remedy.Attest(check)));
        }
    }

    private static void recipe(RunPlan plan, List<Finding> found) {
        List<Stage> stages = plan.recipe().stages();
        for (int i = 0; i < stages.size(); i++) {
            Stage stage = stages.get(i);
            var name = new Quantity.Name(stage.name());
            if (stage.purpose() == Stage.Purpose.PEAK && !(stage.end() instanceof StageEnd.MeltShown)) {
                found.add(Finding.of(Rule.TIME_ENDS_PEAK, stage.name(), Severity.STOP, name)
                        .with(new Remedy.SetEnd(i, new StageEnd.MeltShown())));
            }
            if (stage.air().isPresent() && stage.jointGoalC().isPresent()
                    && Math.abs(stage.jointGoalC().get() - stage.air().get().setC()) < 5) {
                found.add(Finding.of(Rule.AIR_TAKEN_FOR_JOINT, stage.name(), Severity.STOP, name,
                        new Quantity.TempC(stage.air().get().setC())).with(new Remedy.OpenRecipe()));
            }
            if (stage.heaterC().isPresent() && !plan.loose() && plan.bench().heater().isEmpty()) {
                found.add(Finding.of(Rule.NO_HEATER, stage.name(), Severity.STOP, name,
                        new Quantity.TempC(stage.heaterC().get())).with(new Remedy.OpenRecipe()));
            }
            unitSlips(plan, i, stage, found);
            stage.air().ifPresent(air -> beyondStation(plan, stage, air, found));
        }
        if (plan.onPlate() && !plan.bench().plate()) {
            found.add(Finding.of(Rule.NO_PLATE, "plate", Severity.STOP,
                    new Quantity.Name(plan.target().name())));
        }
        plan.recipe().station().filter(s -> !plan.bench().has(s)).ifPresent(
                s -> found.add(Finding.of(Rule.STATION_NOT_HERE, s, Severity.STOP, new Quantity.Name(s),
                        new Quantity.Name(plan.bench().air().name())).with(new Remedy.OpenRecipe())));
    }

    /** What the station in hand cannot be set to, or has no nozzle for. A set-point that was meant in the other unit is told as that. */
    private static void beyondStation(RunPlan plan, Stage stage, AirSetting air, List<Finding> found) {
        AirStation station = plan.bench().air();
        var name = new Quantity.Name(stage.name());
        boolean slip = readAsF(air.setC(), SENSIBLE_AIR_LOW_C, station.maxC()).isPresent();
        if (!slip && air.setC() > station.maxC() + SET_AS_READ
                || air.flowLpm() > station.maxLpm() + SET_AS_READ) {
            found.add(Finding.of(Rule.AIR_BEYOND_STATION, stage.name(), Severity.STOP, name,
                    new Quantity.Name(station.name()), new Quantity.TempC(air.setC()),
                    new Quantity.LitresPerMinute(air.flowLpm()), new Quantity.TempC(station.maxC()),
                    new Quantity.LitresPerMinute(station.maxLpm())).with(new Remedy.OpenRecipe()));
        }
        double nearest = station.nozzleNearest(air.nozzleMm());
        if (Math.abs(nearest - air.nozzleMm()) > SAME_NOZZLE_MM) {
            found.add(Finding.of(Rule.NOZZLE_NOT_HERE, stage.name(), Severity.CARE, name,
                    new Quantity.Name(station.name()), new Quantity.Millimetres(air.nozzleMm()),
                    new Quantity.Millimetres(nearest)).with(new Remedy.OpenRecipe()));
        }
    }

    /** A setting that the tool does not have, and that makes sense in the other unit. Its remedy only ever lowers the heat. */
    private static void unitSlips(RunPlan plan, int index, Stage stage, List<Finding> found) {
        plan.bench().heater().ifPresent(heater -> stage.heaterC()
                .ifPresent(set -> readAsF(set, SENSIBLE_HEATER_LOW_C, heater.maxC())
                        .ifPresent(c -> found.add(slip(stage, " heater", set, c)
                                .with(new Remedy.SetHeater(index, c))))));
        double airMax = plan.bench().air().maxC();
        stage.air().ifPresent(air -> readAsF(air.setC(), SENSIBLE_AIR_LOW_C, airMax)
                .ifPresent(c -> found.add(slip(stage, " air", air.setC(), c)
                        .with(new Remedy.SetAir(index, new AirSetting(c, air.flowLpm(), air.nozzleMm(),
                                air.distanceMm(), air.circleMm()))))));
    }

    private static Finding slip(Stage stage, String what, double setC, double meantC) {
        return Finding.of(Rule.UNIT_SLIP, stage.name() + what, Severity.STOP, new Quantity.Name(stage.name()),
                new Quantity.Name(plain(setC)), new Quantity.TempC(meantC));
    }

    /**
     * Air of a peak that is far too mild, in a recipe that melts nothing, and that would be sensible had it been meant in the other unit. Mild
     * air is no slip by itself: boards are warmed with it. More heat is set by hand, never by one press.
     */
    private static void tooMild(RunPlan plan, List<Finding> found) {
        List<Stage> stages = plan.recipe().stages();
        double airMax = plan.bench().air().maxC();
        for (Stage stage : stages) {
            if (stage.purpose() == Stage.Purpose.PEAK && stage.air().isPresent()) {
                double set = stage.air().get().setC();
                double meant = Math.rint(TempUnit.FAHRENHEIT.fromC(set));
                if (set < SENSIBLE_AIR_LOW_C && meant >= SENSIBLE_AIR_LOW_C && meant <= airMax) {
                    found.add(slip(stage, " air", set, meant).with(new Remedy.OpenRecipe()));
                }
            }
        }
    }

    private static String plain(double celsius) {
        return String.format(java.util.Locale.ROOT, "%.0f °C (%.0f °F)", celsius,
                TempUnit.FAHRENHEIT.fromC(celsius));
    }

    /** The value that was meant, °C, when {@code celsius} is beyond the tool and sensible read as °F. */
    static OptionalDouble readAsF(double celsius, double low, double high) {
        double asF = Math.rint(TempUnit.FAHRENHEIT.toC(celsius));
        return celsius > high && asF >= low && asF <= high ? OptionalDouble.of(asF) : OptionalDouble.empty();
    }

    private static void prediction(RunPlan plan, Rehearsal rehearsal, List<Finding> found) {
        Alloy alloy = plan.target().joint().alloy();
        double wanted = alloy.liquidusC() + plan.recipe().limits().overLiquidusK();
        if (rehearsal.peakJointMinC() < wanted) {
            found.add(Finding.of(Rule.PEAK_TOO_LOW, plan.target().name(),
                    rehearsal.peakJointMinC() < alloy.liquidusC() ? Severity.STOP : Severity.CARE,
                    new Quantity.TempC(rehearsal.peakJointMinC()), new Quantity.TempC(wanted),
                    new Quantity.Name(alloy.name())).with(new Remedy.OpenRecipe()));
        }
        if (rehearsal.peakJointMinC() < alloy.liquidusC()) {
            tooMild(plan, found);
        }
        List<Protected> parts = Protected.of(plan);
        for (int i = 0; i < parts.size(); i++) {
            Protected part = parts.get(i);
            double peak = rehearsal.peakC(i);
            if (peak > part.limitC() - part.marginK()) {
                found.add(limit(part, peak, peak > part.limitC() ? Severity.STOP : Severity.CARE));
            }
        }
        if (rehearsal.fastestKPerS() > plan.recipe().limits().rampUpKPerS() + RunRules.SHOWN_K_PER_S) {
            found.add(Finding
                    .of(Rule.RAMP_UP, "ramp", Severity.CARE, new Quantity.Name(plan.target().name()),
                            new Quantity.RateKPerS(rehearsal.fastestKPerS()),
                            new Quantity.RateKPerS(plan.recipe().limits().rampUpKPerS()))
                    .with(new Remedy.OpenRecipe()));
        }
        if (rehearsal.aboveLiquidusS() > plan.recipe().limits().longestMeltS()) {
            found.add(Finding.of(Rule.MELT_TOO_LONG, "melt", Severity.CARE,
                    new Quantity.Seconds(rehearsal.aboveLiquidusS()),
                    new Quantity.Seconds(plan.recipe().limits().longestMeltS())));
        }
    }

    static Finding limit(Protected part, double peakC, Severity severity) {
        return Finding.of(part.rule(), part.name(), severity, new Quantity.Name(part.name()),
                new Quantity.TempC(peakC), new Quantity.TempC(part.limitC()),
                new Quantity.RiseK(Math.abs(part.limitC() - peakC)));
    }
}
