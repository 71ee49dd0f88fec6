package org.greenbead.core.run;

/** Where events are kept as they come. Used by one thread at a time. */
public interface RunJournal extends AutoCloseable {
    /** Keeps everything in memory only: for rehearsals. */
    RunJournal NONE = new RunJournal() {
        @Override
        public void append(RunEvent event) {
            // Nothing is kept.
        }

        @Override
        public boolean recording() {
            return true;
        }

        @Override
        public void close() {
            // Nothing to close.
        }
    };

    /** Writes the event; when the disk refuses, keeps it and tries again with the next one. Never throws for a full disk. */
    void append(RunEvent event);

    /** False while events wait in memory because they cannot be written. */
    boolean recording();

    @Override
    void close();
}
