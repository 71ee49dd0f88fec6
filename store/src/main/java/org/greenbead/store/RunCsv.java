package org.greenbead.store;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.Reading;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;

/**
 * A run log as a table: a header block of lines beginning with #, then {@code time_s,<probe>_c,…}. SI and °C. A gap is a row
 * with empty cells; an open probe is an empty cell.
 */
public final class RunCsv {
    private RunCsv() {
    }

    /** The log is played through the engine, so that estimates stand beside readings. @return the state at its end */
    public static RunState write(RunLog log, Writer out) throws IOException {
        RunPlan plan = log.header().plan();
        List<ProbePlace> probes = plan.bench().probes();
        CsvWriter csv = CsvWriter.builder().build(out);
        csv.writeComment(" greenbead/runlog-csv/1");
        csv.writeComment(" run: " + log.header().run());
        csv.writeComment(" started: " + log.header().started());
        csv.writeComment(" simulated: " + log.header().simulated());
        csv.writeComment(" job: " + plan.job().id() + ", bead " + plan.bead());
        csv.writeComment(" board: " + plan.board().id() + ", chip " + plan.target().name() + " "
                + plan.target().part() + ", alloy " + plan.target().joint().alloy().name());
        csv.writeComment(" recipe: " + plan.recipe().id());
        for (ProbePlace probe : probes) {
            csv.writeComment(String.format(Locale.ROOT, " probe %s: channel %d, %s, %s side, at %.1f %.1f mm",
                    probe.name(), probe.channel(),
                    probe.role().name().toLowerCase(Locale.ROOT),
                    probe.side().name().toLowerCase(Locale.ROOT), probe.atMm().xMm(), probe.atMm().yMm()));
        }
        csv.writeComment(
                "joint_est_c and chip_top_est_c are estimates, plus or minus the column beside them");
        var head = new ArrayList<String>();
        head.add("time_s");
        probes.forEach(p -> head.add(p.name() + "_c"));
        head.addAll(List.of("joint_est_c", "joint_est_pm_k", "chip_top_est_c", "chip_top_est_pm_k",
                "heater_set_c", "air_set_c", "air_lpm", "stage", "status", "event"));
        csv.writeRecord(SafeCell.all(head));
        RunEngine engine = RunEngine.live(plan, Optional.empty());
        RunState state = engine.state();
        for (RunEvent event : log.events()) {
            if (event instanceof RunEvent.Checkpoint) {
                continue;
            }
            engine.apply(event);
            state = engine.state();
            csv.writeRecord(SafeCell.all(row(event, state, engine.plan(), probes)));
        }
        csv.flush();
        return state;
    }

    private static List<String> row(RunEvent event, RunState state, RunPlan plan, List<ProbePlace> probes) {
        var row = new ArrayList<String>();
        row.add(number(event.timeS(), 2));
        for (ProbePlace probe : probes) {
            row.add(event instanceof RunEvent.Sampled s ? reading(s, probe.name()) : "");
        }
        row.add(number(state.joint().celsius(), 1));
        row.add(number(state.joint().plusMinusK(), 1));
        row.add(number(state.chipTop().celsius(), 1));
        row.add(number(state.chipTop().plusMinusK(), 1));
        Stage stage = plan.recipe().stages().get(state.stage());
        boolean on = state.hot();
        row.add(on ? stage.heaterC().map(c -> number(c, 0)).orElse("") : "");
        row.add(on ? stage.air().map(a -> number(a.setC(), 0)).orElse("") : "");
        row.add(on ? stage.air().map(a -> number(a.flowLpm(), 1)).orElse("") : "");
        row.add(stage.name());
        row.add(state.status().name().toLowerCase(Locale.ROOT));
        row.add(switch (event) {
            case RunEvent.Sampled s -> s.readings().isEmpty() ? "gap" : "";
            case RunEvent.Started s -> "started";
            case RunEvent.Said s ->
                s.word().name().toLowerCase(Locale.ROOT) + (s.text().isEmpty() ? "" : ": " + s.text());
            case RunEvent.Acted a -> a.act().name().toLowerCase(Locale.ROOT);
            case RunEvent.Changed c -> "stage " + c.stage().name() + " set anew";
            case RunEvent.Saw s -> "saw " + s.sight().name().toLowerCase(Locale.ROOT);
            case RunEvent.Checkpoint c -> "";
            case RunEvent.Resumed r -> "taken up again after " + number(r.awayS(), 0) + " s";
        });
        return row;
    }

    private static String reading(RunEvent.Sampled sample, String probe) {
        return sample.readings().stream().filter(r -> r.probe().equals(probe)).findFirst()
                .map(r -> r instanceof Reading.Measured m ? number(m.celsius(), 2) : "").orElse("");
    }

    private static String number(double value, int digits) {
        return Double.isFinite(value) ? String.format(Locale.ROOT, "%." + digits + "f", value) : "";
    }
}
