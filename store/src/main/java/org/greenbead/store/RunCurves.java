package org.greenbead.store;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.ProbeView;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;

/** What a kept run showed over its time, as lines to draw. */
record RunCurves(List<PdfSheet.Curve> curves, Optional<PdfSheet.Band> interval) {
    private static final int JOINT_COLOUR = 0x2B66A0;
    private static final int TOP_COLOUR = 0xBF3F2A;
    private static final int[] PROBE_COLOURS = {0x1E8558, 0x5A655F, 0xA9643A, 0x7A5AA0};

    /** The estimate as it stood while the run went, every five seconds, as the log kept it: nothing is reckoned again. */
    static RunCurves kept(RunLog log, Words words) {
        List<RunEvent.Checkpoint> points = log.events().stream()
                .filter(RunEvent.Checkpoint.class::isInstance).map(RunEvent.Checkpoint.class::cast).toList();
        double[] x = of(points, RunEvent.Checkpoint::timeS);
        var curves = new ArrayList<PdfSheet.Curve>();
        if (points.stream().anyMatch(p -> p.topC().isPresent())) {
            curves.add(new PdfSheet.Curve(words.say("closing.chart.top"), TOP_COLOUR, x,
                    of(points, p -> p.topC().orElse(Double.NaN))));
        }
        curves.add(new PdfSheet.Curve(words.say("closing.chart.joint"), JOINT_COLOUR, x,
                of(points, RunEvent.Checkpoint::jointC)));
        return new RunCurves(List.copyOf(curves), Optional.of(new PdfSheet.Band(JOINT_COLOUR, x,
                of(points, RunEvent.Checkpoint::lowC), of(points, RunEvent.Checkpoint::highC))));
    }

    private static double[] of(List<RunEvent.Checkpoint> points,
            java.util.function.ToDoubleFunction<RunEvent.Checkpoint> what) {
        return points.stream().mapToDouble(what).toArray();
    }

    /** What every event of the log showed, its probes besides. @param ended is given the engine at the end of the replay */
    static RunCurves replayed(RunLog log, Words words, Consumer<RunEngine> ended) {
        RunPlan plan = log.header().plan();
        var times = new ArrayList<Double>();
        var joint = new ArrayList<Double>();
        var top = new ArrayList<Double>();
        var probes = new ArrayList<List<Double>>();
        plan.bench().probes().forEach(p -> probes.add(new ArrayList<>()));
        RunEngine engine = log.replay(Optional.empty(), state -> {
            times.add(state.timeS());
            joint.add(state.joint().celsius());
            top.add(state.chipTop().celsius());
            for (int i = 0; i < probes.size(); i++) {
                ProbeView view = state.probes().get(plan.bench().probes().get(i).name());
                probes.get(i).add(view.health() == ProbeView.Health.GOOD ? view.celsius() : Double.NaN);
            }
        });
        double[] x = array(times);
        var curves = new ArrayList<PdfSheet.Curve>();
        for (int i = 0; i < probes.size(); i++) {
            ProbePlace place = plan.bench().probes().get(i);
            curves.add(new PdfSheet.Curve(place.name().replace('_', ' '),
                    PROBE_COLOURS[i % PROBE_COLOURS.length], x,
                    array(probes.get(i))));
        }
        curves.add(new PdfSheet.Curve(words.say("report.chip_top"), TOP_COLOUR, x, array(top)));
        curves.add(new PdfSheet.Curve(words.say("report.joint"), JOINT_COLOUR, x, array(joint)));
        ended.accept(engine);
        return new RunCurves(List.copyOf(curves), Optional.empty());
    }

    private static double[] array(List<Double> values) {
        return values.stream().mapToDouble(Double::doubleValue).toArray();
    }
}
