package org.greenbead.core.thermal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import org.greenbead.core.quantity.Check;
import org.greenbead.core.recipe.AirSetting;

/** A heating whose settings are fixed in time beforehand: what a rehearsal file says. */
public record Heating(String name, String title, HeatScene scene, double durationS, double outputStepS,
        List<HeaterStep> heaterSteps,
        List<AirSegment> airSegments, List<FanSegment> fanSegments) {
    /** From {@code fromS} on the heater is asked for {@code setC}. */
    public record HeaterStep(double fromS, double setC) {
        public HeaterStep {
            Check.within("heater step time", fromS, 0, 172_800, "s");
            Check.within("heater step", setC, 0, 600, "°C");
        }
    }

    /** Hot air from {@code t0S} to {@code t1S}. */
    public record AirSegment(double t0S, double t1S, AirSetting air) {
        public AirSegment {
            Check.within("air segment start", t0S, 0, 172_800, "s");
            Check.within("air segment end", t1S, t0S, 172_800, "s");
        }
    }

    /** Fan from {@code t0S} to {@code t1S}, W/m2K on both faces. */
    public record FanSegment(double t0S, double t1S, double topWPerM2K, double bottomWPerM2K) {
        public FanSegment {
            Check.within("fan start", t0S, 0, 172_800, "s");
            Check.within("fan end", t1S, t0S, 172_800, "s");
        }
    }

    /**
     * One row of the traces, °C.
     *
     * @param upperJoints of a stacked package, from the second joint layer on
     * @param supportC    NaN without a support
     */
    public record Row(double timeS, double jointCentreC, double jointCornerC, double liquidFraction,
            double jointMinC,
            double jointMaxC, double packageTopC, double[] probesC, double[] neighboursC, double heaterC,
            double airExitC, List<HeatModel.JointView> upperJoints, double supportC) {}

    /** All rows, the names of their columns, and how well the heat adds up. */
    public record Traces(List<String> probes, List<String> neighbours, List<Row> rows,
            HeatModel.EnergyBalance energy) {}

    public Heating {
        Check.text("name", name);
        Check.present("scene", scene);
        Check.within("duration", durationS, 1, 172_800, "s");
        Check.within("output step", outputStepS, 0.1, 60, "s");
        heaterSteps = List.copyOf(heaterSteps);
        airSegments = List.copyOf(airSegments);
        fanSegments = List.copyOf(fanSegments);
        for (int i = 1; i < heaterSteps.size(); i++) {
            if (heaterSteps.get(i).fromS() <= heaterSteps.get(i - 1).fromS()) {
                throw new IllegalArgumentException(
                        "heater steps are out of order at " + heaterSteps.get(i).fromS() + " s");
            }
        }
        for (int i = 1; i < airSegments.size(); i++) {
            if (airSegments.get(i).t0S() < airSegments.get(i - 1).t1S()) {
                throw new IllegalArgumentException(
                        "air segments overlap at " + airSegments.get(i).t0S() + " s");
            }
        }
    }

    /** What is set at a time. */
    public HeatInput at(double timeS) {
        Optional<Double> heater = Optional.empty();
        for (HeaterStep step : heaterSteps) {
            heater = step.fromS() <= timeS ? Optional.of(step.setC()) : heater;
        }
        Optional<AirSetting> air = airSegments.stream().filter(s -> s.t0S() <= timeS && timeS < s.t1S())
                .map(AirSegment::air).findFirst();
        Optional<FanSegment> fan = fanSegments.stream().filter(s -> s.t0S() <= timeS && timeS < s.t1S())
                .findFirst();
        return new HeatInput(heater, air, fan.map(FanSegment::topWPerM2K).orElse(0.0),
                fan.map(FanSegment::bottomWPerM2K).orElse(0.0));
    }

    /**
     * Runs the heating on the model.
     *
     * @param progress told the part done, 0 to 1
     * @param cancelled asked between rows; when true the rows so far are returned
     */
    public Traces run(HeatModel model, DoubleConsumer progress, BooleanSupplier cancelled) {
        List<String> neighbours = scene.board().chips().stream().map(c -> c.name())
                .filter(n -> !n.equals(scene.target())).toList();
        var rows = new ArrayList<Row>();
        rows.add(row(model, neighbours));
        int count = (int) Math.round(durationS / outputStepS);
        for (int i = 0; i < count && !cancelled.getAsBoolean(); i++) {
            double from = i * outputStepS;
            double to = from + outputStepS;
            while (to - from > 1e-9) {
                double part = Math.min(60, nextChange(from, to) - from);
                model.advance(at(from + part / 2), part);
                from += part;
            }
            rows.add(row(model, neighbours));
            progress.accept((i + 1.0) / count);
        }
        return new Traces(scene.probes().stream().map(p -> p.name()).toList(), neighbours, List.copyOf(rows),
                model.energy());
    }

    /** First time after {@code fromS} at which a setting changes, or {@code toS} when none does before it. */
    private double nextChange(double fromS, double toS) {
        double next = toS;
        for (HeaterStep step : heaterSteps) {
            next = between(step.fromS(), fromS, next);
        }
        for (AirSegment air : airSegments) {
            next = between(air.t1S(), fromS, between(air.t0S(), fromS, next));
        }
        for (FanSegment fan : fanSegments) {
            next = between(fan.t1S(), fromS, between(fan.t0S(), fromS, next));
        }
        return next;
    }

    private static double between(double change, double from, double to) {
        return change > from + 1e-9 && change < to ? change : to;
    }

    private Row row(HeatModel model, List<String> neighbours) {
        return new Row(Math.round(model.timeS() * 1000) / 1000.0, model.jointCentreC(), model.jointCornerC(),
                model.liquidFraction(),
                model.jointMinC(), model.jointMaxC(), model.packageTopC(),
                scene.probes().stream().mapToDouble(model::probeC).toArray(),
                neighbours.stream().mapToDouble(model::jointC).toArray(),
                model.heaterC(), model.airExitC(),
                model.targetJoints().size() > 1
                        ? model.targetJoints().subList(1, model.targetJoints().size())
                        : List.of(),
                model.supportC());
    }
}
