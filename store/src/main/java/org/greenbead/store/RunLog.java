package org.greenbead.store;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
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
 * @param torn true when a line was cut off, as a kill in the middle of a write leaves it: the last one, or one before the run was taken up
 *             again; all others are whole
 */
public record RunLog(RunHeader header, List<RunEvent> events, boolean torn) {
    /** Two days at two samples a second. */
    private static final int MOST_BYTES = 64 << 20;
    static final String TAG = "greenbead/runlog/1";

    public RunLog {
        events = List.copyOf(events);
    }

    /** @throws BadFileException when it is no run log or a line before the last is damaged */
    public static RunLog read(Path file, OpenFiles files) throws BadFileException {
        String name = String.valueOf(file.getFileName());
        byte[] bytes = OpenFiles.bytes(file, MOST_BYTES);
        if (bytes.length == 0) {
            throw new BadFileException(name, 0, "",
                    "the log is empty: the program was stopped before it had written a line",
                    "Nothing was heated by it; close the run and begin it anew");
        }
        var events = new ArrayList<RunEvent>();
        RunHeader header = null;
        double last = Double.NEGATIVE_INFINITY;
        boolean torn = bytes[bytes.length - 1] != '\n';
        Optional<BadFileException> tear = Optional.empty();
        int line = 0;
        for (int at = 0; at < bytes.length;) {
            int end = at;
            while (end < bytes.length && bytes[end] != '\n') {
                end++;
            }
            line++;
            if (end == bytes.length) {
                // Cut in the middle of a write, if need be in the middle of a letter.
                break;
            }
            String content = new String(bytes, at, end - at, StandardCharsets.UTF_8);
            at = end + 1;
            try {
                if (header == null) {
                    header = files.unline(content, Headed.class).known(name);
                    continue;
                }
                RunEvent event = files.unline(content, RunEvent.class);
                if (tear.isPresent()) {
                    if (!(event instanceof RunEvent.Resumed)) {
                        throw tear.get();
                    }
                    torn = true;
                    tear = Optional.empty();
                }
                if (!(event.timeS() >= last)) {
                    throw new BadFileException(name, line, "/time_s",
                            "time goes back from " + last + " s to " + event.timeS() + " s",
                            "The log was edited; restore it from a copy");
                }
                last = event.timeS();
                events.add(event);
            } catch (JacksonException e) {
                var bad = new BadFileException(name, line, "",
                        header == null ? "this is no run log" : "this line is damaged",
                        header == null
                                ? "Choose a file ending in .run.jsonl"
                                : "Everything before it is whole; restore the file from a copy");
                if (header == null || tear.isPresent()) {
                    throw bad;
                }
                // A tear from before the run was taken up again, or the very last line; else it is damage.
                tear = Optional.of(bad);
            }
        }
        if (header == null) {
            throw new BadFileException(name, 1, "",
                    "the header is cut off: the program was stopped in its first line",
                    "Nothing was recorded after it; close the run and begin it anew");
        }
        return new RunLog(header, events, torn || tear.isPresent());
    }

    /** The header alone. @throws BadFileException when the file cannot be read or does not begin with a whole one */
    public static RunHeader header(Path file, OpenFiles files) throws BadFileException {
        String name = String.valueOf(file.getFileName());
        try (var reader = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
            String first = reader.readLine();
            if (first == null) {
                throw new BadFileException(name, 0, "", "the log is empty",
                        "Nothing was heated by it; close the run and begin it anew");
            }
            return files.unline(first, Headed.class).known(name);
        } catch (IOException | JacksonException e) {
            throw new BadFileException(name, 1, "", "its first line is no whole header of a run",
                    "Restore the file from a copy");
        }
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
            if (!(event instanceof RunEvent.Checkpoint)) {
                each.accept(engine.state());
            }
        }
        return engine;
    }

    /** Where the estimate last stood; empty in a log of before the heat, or of an older version. */
    public Optional<RunEvent.Checkpoint> lastKnown() {
        return events.reversed().stream().filter(RunEvent.Checkpoint.class::isInstance)
                .map(RunEvent.Checkpoint.class::cast).findFirst();
    }

    public double lengthS() {
        return events.isEmpty() ? 0 : events.getLast().timeS();
    }
}
