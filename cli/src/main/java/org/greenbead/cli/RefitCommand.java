package org.greenbead.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.refit.PressLoad;
import org.greenbead.core.refit.SmallThread;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** How hard a glued panel is pressed, how hard a screw is driven. */
@Command(name = "refit", mixinStandardHelpOptions = true, description = "The load that brings the pressure on a glue's label, and the most that a small screw is driven with; exit 1 when the driver is set over what the thread bears. The maker's sheet goes before this.")
final class RefitCommand extends Verb {
    @Option(names = "--label", paramLabel = "KPA", description = "Pressure that the label of the glue asks for, kPa.")
    private Optional<Double> label = Optional.empty();
    @Option(names = "--area", paramLabel = "CM2", description = "Area of the glue, not of the panel, cm².")
    private Optional<Double> area = Optional.empty();
    @Option(names = "--load", paramLabel = "KG", description = "What is laid on it, kg.")
    private Optional<Double> load = Optional.empty();
    @Option(names = "--thread", paramLabel = "MM", description = "Nominal diameter of the screw, mm: 2 for M2.")
    private Optional<Double> thread = Optional.empty();
    @Option(names = "--into", defaultValue = "metal", description = "What it goes into: ${COMPLETION-CANDIDATES} (default ${DEFAULT-VALUE}).")
    private SmallThread.Into into;
    @Option(names = "--torque", paramLabel = "TORQUE", description = "What the driver is set to: \"0.2 Nm\", \"20 Ncm\", \"2 kgcm\".")
    private Optional<String> torque = Optional.empty();
    @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        if (area.isEmpty() && thread.isEmpty()) {
            throw new IllegalArgumentException(
                    "give --area with --label or --load for a panel, --thread for a screw");
        }
        Map<String, Object> result = new LinkedHashMap<>();
        area.ifPresent(cm2 -> press(cm2, result));
        boolean sound = thread.map(mm -> screw(mm, result)).orElse(true);
        json(json, result);
        return sound ? 0 : 1;
    }

    private void press(double cm2, Map<String, Object> result) {
        label.ifPresent(kpa -> {
            double kg = PressLoad.massKg(kpa, cm2);
            out().printf(Locale.ROOT,
                    "lay %.1f kg on it: %.3g kPa on %.3g cm²; fingers clear, never over a display or a cell%n",
                    kg, kpa, cm2);
            result.put("wanted_kg", kg);
        });
        if (load.isEmpty()) {
            return;
        }
        double kpa = new PressLoad(load.get(), cm2).kpa();
        result.put("laid_kpa", kpa);
        out().printf(Locale.ROOT, "%.3g kg are %.3g kPa%s%n", load.get(), kpa,
                label.map(l -> String.format(Locale.ROOT, ", %.0f %% of what the label asks for",
                        kpa / l * 100)).orElse(""));
    }

    private boolean screw(double mm, Map<String, Object> result) {
        double most = new SmallThread(mm, into).mostNm();
        result.put("most_nm", most);
        out().printf(Locale.ROOT, "M%s into %s: at most %.2g N·m%n",
                mm == Math.rint(mm) ? Long.toString((long) mm) : Double.toString(mm),
                into.name().toLowerCase(Locale.ROOT), most);
        if (torque.isEmpty()) {
            return true;
        }
        OptionalDouble nm = SmallThread.newtonMetres(torque.get());
        double driven = nm.orElseThrow(() -> new IllegalArgumentException(
                "\"" + torque.get() + "\" is no torque; write 0.2 Nm, 20 Ncm or 2 kgcm"));
        result.put("driven_nm", driven);
        out().printf(Locale.ROOT, "driven with %.3g N·m%s%n", driven,
                driven > most ? ": too hard for this thread" : "");
        return driven <= most;
    }
}
