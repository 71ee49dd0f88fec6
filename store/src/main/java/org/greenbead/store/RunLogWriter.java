package org.greenbead.store;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayDeque;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunJournal;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Writes a run as it happens: every event at once, on the disk at least each second, the technician's word at once. When the
 * disk refuses, events wait in memory and go out, in order, as soon as it takes them again.
 */
public final class RunLogWriter implements RunJournal {
    private static final Logger LOG = LoggerFactory.getLogger(RunLogWriter.class);
    private static final Duration SYNC_EVERY = Duration.ofSeconds(1);
    private final AppendTarget target;
    private final OpenFiles files;
    private final InstantSource clock;
    private final ArrayDeque<byte[]> waiting = new ArrayDeque<>();
    private Instant synced;
    private boolean recording = true;

    RunLogWriter(AppendTarget target, OpenFiles files, InstantSource clock) {
        this.target = target;
        this.files = files;
        this.clock = clock;
        this.synced = clock.instant();
    }

    /** @throws IOException when not even the header can be written: the run should not begin unrecorded */
    public static RunLogWriter begin(Path file, RunHeader header, OpenFiles files, InstantSource clock)
            throws IOException {
        AppendTarget target = AppendTarget.create(file);
        try {
            target.append((files.line(new RunLog.Headed(RunLog.TAG, header)) + "\n")
                    .getBytes(StandardCharsets.UTF_8));
            target.sync();
        } catch (IOException e) {
            target.close();
            throw e;
        }
        return new RunLogWriter(target, files, clock);
    }

    /** Goes on writing a log after the program was away. Nothing that is in it is touched: a torn last line is ended and stays. */
    public static RunLogWriter resume(Path file, OpenFiles files, InstantSource clock) throws IOException {
        return new RunLogWriter(AppendTarget.goOn(file), files, clock);
    }

    @Override
    public void append(RunEvent event) {
        waiting.addLast((files.line(event) + "\n").getBytes(StandardCharsets.UTF_8));
        drain(!(event instanceof RunEvent.Sampled));
    }

    private void drain(boolean syncNow) {
        try {
            while (!waiting.isEmpty()) {
                target.append(waiting.getFirst());
                waiting.removeFirst();
            }
            Instant now = clock.instant();
            if (syncNow || Duration.between(synced, now).compareTo(SYNC_EVERY) >= 0) {
                target.sync();
                synced = now;
            }
            recording = true;
        } catch (IOException e) {
            if (recording) {
                LOG.warn("run log cannot be written, events wait in memory: {}", e.getMessage());
            }
            recording = false;
        }
    }

    @Override
    public boolean recording() {
        return recording;
    }

    @Override
    public void close() {
        drain(true);
        try {
            target.close();
        } catch (IOException e) {
            LOG.warn("run log did not close: {}", e.getMessage());
        }
    }
}
