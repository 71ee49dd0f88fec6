package org.greenbead.store;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunState;
import tools.jackson.core.JacksonException;

/**
 * A run log as it was read: one JSON object a line, the first the header.
 *
 * @param torn       true when the last line was cut off, as a kill in the middle of a write leaves it; all before it is whole
 * @param wholeBytes length of what is whole
 */
public record RunLog(RunHeader header, List<RunEvent> events, boolean torn, long wholeBytes) {
    /** Two days at two samples a second. */
    private static final int MOST_BYTES = 64 << 20;
    static final String TAG = "greenbead/runlog/1";

    public RunLog {
        events = List.copyOf(events);
    }

    /** @throws BadFileException when it is no run log or a line before the last is damaged */
    public static RunLog read(Path file, OpenFiles files) throws BadFileException {
        String text = OpenFiles.text(file, MOST_BYTES);
        String name = String.valueOf(file.getFileName());
        var events = new ArrayList<RunEvent>();
        RunHeader header = null;
        int at = 0;
        int line = 0;
        double last = Double.NEGATIVE_INFINITY;
        boolean torn = false;
        while (at < text.length()) {
            int end = text.indexOf('\n', at);
            line++;
            if (end < 0) {
                torn = true;
                break;
            }
            String content = text.substring(at, end);
            try {
                if (header == null) {
                    header = files.unline(content, Headed.class).known(name);
                } else {
                    RunEvent event = files.unline(content, RunEvent.class);
                    if (!(event.timeS() >= last)) {
                        throw new BadFileException(name, line, "/time_s",
                                "time goes back from " + last + " s to " + event.timeS() + " s",
                                "The log was edited; restore it from a copy");
                    }
                    last = event.timeS();
                    events.add(event);
                }
            } catch (JacksonException e) {
                if (text.indexOf('\n', end + 1) < 0 && end + 1 >= text.length() && header != null) {
                    torn = true;
                    break;
                }
                throw new BadFileException(name, line, "",
                        header == null ? "this is no run log" : "this line is damaged",
                        header == null
                                ? "Choose a file ending in .run.jsonl"
                                : "Everything before it is whole; restore the file from a copy");
            }
            at = end + 1;
        }
        if (header == null) {
            throw new BadFileException(name, 1, "", "the header is missing or cut off",
                    "Choose a file ending in .run.jsonl");
        }
        return new RunLog(header, events, torn,
                text.substring(0, at).getBytes(StandardCharsets.UTF_8).length);
    }

    /** The header with its tag. */
    record Headed(String format, RunHeader header) {
        RunHeader known(String name) throws BadFileException {
            if (!TAG.equals(format)) {
                throw new BadFileException(name, 1, "/format",
                        "\"" + format + "\" is no run log of this version",
                        "Read it with the version that wrote it");
            }
            return header;
        }
    }

    /** Plays the log through a fresh engine. @param each told the state after every event */
    public RunEngine replay(Optional<Rehearsal> rehearsal, Consumer<RunState> each) {
        RunEngine engine = RunEngine.live(header.plan(), rehearsal);
        for (RunEvent event : events) {
            engine.apply(event);
            each.accept(engine.state());
        }
        return engine;
    }

    public double lengthS() {
        return events.isEmpty() ? 0 : events.getLast().timeS();
    }
}
