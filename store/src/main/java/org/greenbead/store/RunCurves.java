package org.greenbead.store;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.ProbeView;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunPlan;

/** What a kept run showed over its time, as lines to draw. @param engine at the end of the replay */
record RunCurves(List<PdfSheet.Curve> curves, RunEngine engine) {
    private static final int[] PROBE_COLOURS = {0x1E8558, 0x5A655F, 0xA9643A, 0x7A5AA0};

    static RunCurves of(RunLog log, Words words) throws IOException {
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
        curves.add(new PdfSheet.Curve(words.say("report.chip_top"), 0xBF3F2A, x, array(top)));
        curves.add(new PdfSheet.Curve(words.say("report.joint"), 0x2B66A0, x, array(joint)));
        return new RunCurves(List.copyOf(curves), engine);
    }

    private static double[] array(List<Double> values) {
        return values.stream().mapToDouble(Double::doubleValue).toArray();
    }
}
