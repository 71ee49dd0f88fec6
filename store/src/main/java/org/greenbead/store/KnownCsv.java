package org.greenbead.store;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.Writer;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunState;

/**
 * What was known and said during a run, a line a second, at every event that is no sample, and whenever status or act change: {@code time_s, stage, status, act, joint_c,
 * joint_low_c, joint_high_c, safe, evidence, findings}. SI and °C. {@code act} is the coach's stable name for what it asks; {@code evidence} and
 * {@code findings} are lists with | between.
 */
public final class KnownCsv {
    private KnownCsv() {
    }

    public static void write(RunLog log, Writer out) throws IOException {
        CsvWriter csv = CsvWriter.builder().build(out);
        csv.writeRecord("time_s", "stage", "status", "act", "joint_c", "joint_low_c", "joint_high_c", "safe",
                "evidence", "findings");
        RunEngine engine = RunEngine.live(log.header().plan(), Optional.empty());
        double dueS = Double.NEGATIVE_INFINITY;
        String said = "";
        for (RunEvent event : log.events()) {
            if (event instanceof RunEvent.Checkpoint) {
                continue;
            }
            engine.apply(event);
            boolean sample = event instanceof RunEvent.Sampled;
            String says = engine.state().status() + " " + engine.state().coaching().name();
            boolean turned = !says.equals(said);
            said = says;
            if (!sample || turned || event.timeS() >= dueS - 1e-6) {
                csv.writeRecord(SafeCell.all(row(engine)));
                dueS = sample ? Math.floor(event.timeS() + 1e-6) + 1 : dueS;
            }
        }
        csv.flush();
    }

    private static List<String> row(RunEngine engine) {
        RunState s = engine.state();
        boolean safe = s.status() == RunState.Status.SAFE || s.status() == RunState.Status.ENDED
                && s.marks().stream()
                        .anyMatch(m -> m.endedBy() == org.greenbead.core.run.StageMark.EndedBy.SAFE);
        return List.of(number(s.timeS()), engine.plan().recipe().stages().get(s.stage()).name(),
                word(s.status()), s.coaching().name(), number(s.joint().celsius()),
                number(s.joint().lowC()), number(s.joint().highC()), safe ? "1" : "0",
                s.melt().evidence().stream()
                        .map(e -> word(e.kind()) + ":" + (e.counts() ? e.kind().points() : 0))
                        .collect(Collectors.joining("|")),
                s.findings().stream()
                        .map(f -> word(f.rule()) + (f.subject().isEmpty() ? "" : "/" + f.subject()))
                        .distinct().collect(Collectors.joining("|")));
    }

    private static String word(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static String number(double value) {
        return Double.isFinite(value) ? String.format(Locale.ROOT, "%.2f", value) : "";
    }
}
