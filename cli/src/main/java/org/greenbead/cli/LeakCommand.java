package org.greenbead.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.leak.LeakHold;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** A held pressure. */
@Command(name = "leak", mixinStandardHelpOptions = true, description = "What went through the wall of an enclosure that was held under pressure or vacuum, its temperature taken off; exit 1 when it leaks, or when the hold was too short to tell.")
final class LeakCommand extends Verb {
    @Option(names = "--p0", required = true, paramLabel = "KPA", description = "Gauge pressure at the start, kPa; below zero for a vacuum.")
    private double p0;
    @Option(names = "--p1", required = true, paramLabel = "KPA", description = "Gauge pressure at the end, kPa.")
    private double p1;
    @Option(names = "--t0", required = true, paramLabel = "C", description = "Temperature of the enclosure at the start, degrees Celsius.")
    private double t0;
    @Option(names = "--t1", required = true, paramLabel = "C", description = "Temperature at the end.")
    private double t1;
    @Option(names = "--hold", required = true, paramLabel = "S", description = "Time between, s.")
    private double hold;
    @Option(names = "--ambient", paramLabel = "KPA", description = "Absolute pressure of the room, kPa (default 101.325).")
    private Optional<Double> ambient = Optional.empty();
    @Option(names = "--volume", paramLabel = "CM3", description = "Volume of the enclosure, cm³.")
    private Optional<Double> volume = Optional.empty();
    @Option(names = "--limit", paramLabel = "PA_S", description = "What its maker allows, Pa/s.")
    private Optional<Double> limit = Optional.empty();
    @Option(names = "--json", paramLabel = "OUT", description = "Write the result as JSON.")
    private Path json;

    @Override
    public Integer call() throws Exception {
        var held = new LeakHold(p0, p1, t0, t1, hold, ambient, volume);
        out().printf(Locale.ROOT, "the gauge moved by %+.3f kPa, the temperature makes %+.3f kPa of that%n",
                p1 - p0, held.thermalKPa());
        out().printf(Locale.ROOT, "through the wall: %+.3f ± %.3f kPa, %.2f ± %.2f Pa/s%n", held.leakKPa(),
                held.leakSdKPa(), held.ratePaS(), held.rateSdPaS());
        held.throughputPaM3S().ifPresent(q -> out().printf(Locale.ROOT, "throughput %.1e Pa m³/s%n", q));
        Optional<LeakHold.Verdict> verdict = limit.map(held::against);
        verdict.ifPresent(v -> out()
                .println(words().say("leakverdict." + v.name().toLowerCase(Locale.ROOT))));
        if (verdict.filter(LeakHold.Verdict.UNSURE::equals).isPresent()) {
            out().printf(Locale.ROOT, "hold at least %.0f s%n", held.holdForS(limit.orElseThrow()));
        }
        Map<String, Object> result = new LinkedHashMap<>();
        result.put("thermal_kpa", held.thermalKPa());
        result.put("leak_kpa", held.leakKPa());
        result.put("leak_sd_kpa", held.leakSdKPa());
        result.put("rate_pa_s", held.ratePaS());
        result.put("rate_sd_pa_s", held.rateSdPaS());
        held.throughputPaM3S().ifPresent(q -> result.put("throughput_pa_m3_s", q));
        verdict.ifPresent(v -> result.put("verdict", v.name().toLowerCase(Locale.ROOT)));
        json(json, result);
        return verdict.isEmpty() || verdict.get() == LeakHold.Verdict.TIGHT ? 0 : 1;
    }
}
