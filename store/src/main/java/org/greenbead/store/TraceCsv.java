package org.greenbead.store;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.thermal.Heating;

/** Traces of a rehearsal as a table, columns as docs/formats/README.md says. */
public final class TraceCsv {
    private TraceCsv() {
    }

    /** A heating with fixed times. A stacked package's upper joints have columns of the same names with a 2. */
    public static void write(Heating.Traces traces, Writer out) throws IOException {
        int joints = 1 + traces.rows().getFirst().upperJoints().size();
        boolean support = !Double.isNaN(traces.rows().getFirst().supportC());
        CsvWriter csv = CsvWriter.builder().build(out);
        var head = new ArrayList<>(List.of("time_s", "joint_centre_c", "joint_corner_c", "liquid_fraction",
                "joint_min_c", "joint_max_c"));
        for (int j = 2; j <= joints; j++) {
            head.addAll(List.of("joint_centre" + j + "_c", "joint_corner" + j + "_c", "liquid_fraction" + j,
                    "joint_min" + j + "_c", "joint_max" + j + "_c"));
        }
        head.add("package_top_c");
        traces.probes().forEach(p -> head.add(p + "_c"));
        traces.neighbours().forEach(n -> head.add(n + ".joint_c"));
        head.addAll(List.of("heater_c", "air_exit_c"));
        if (support) {
            head.add("support_c");
        }
        csv.writeRecord(SafeCell.all(head));
        for (Heating.Row r : traces.rows()) {
            var row = new ArrayList<String>();
            add(row, r.timeS(), r.jointCentreC(), r.jointCornerC(), r.liquidFraction(), r.jointMinC(),
                    r.jointMaxC());
            r.upperJoints().forEach(
                    j -> add(row, j.centreC(), j.cornerC(), j.liquidFraction(), j.minC(), j.maxC()));
            add(row, r.packageTopC());
            add(row, r.probesC());
            add(row, r.neighboursC());
            add(row, r.heaterC(), r.airExitC());
            if (support) {
                add(row, r.supportC());
            }
            csv.writeRecord(SafeCell.all(row));
        }
        csv.flush();
    }

    /** A recipe, with the stage each row fell in. */
    public static void write(RunPlan plan, Rehearsal rehearsal, Writer out) throws IOException {
        CsvWriter csv = CsvWriter.builder().build(out);
        var head = new ArrayList<>(List.of("time_s", "joint_centre_c", "liquid_fraction", "joint_min_c",
                "joint_max_c", "package_top_c"));
        plan.bench().probes().forEach(p -> head.add(p.name() + "_c"));
        head.addAll(List.of("heater_c", "air_exit_c", "stage"));
        csv.writeRecord(SafeCell.all(head));
        for (Rehearsal.Row r : rehearsal.rows()) {
            var row = new ArrayList<String>();
            add(row, r.timeS(), r.jointCentreC(), r.liquidFraction(), r.jointMinC(), r.jointMaxC(),
                    r.packageTopC());
            add(row, r.probesC());
            add(row, r.heaterC(), r.airExitC());
            row.add(plan.recipe().stages().get(r.stage()).name());
            csv.writeRecord(SafeCell.all(row));
        }
        csv.flush();
    }

    private static void add(List<String> row, double... values) {
        for (double value : values) {
            row.add(String.format(Locale.ROOT, "%.3f", value));
        }
    }
}
