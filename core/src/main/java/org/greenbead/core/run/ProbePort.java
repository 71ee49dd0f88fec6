package org.greenbead.core.run;

import java.util.List;

/** Where live temperatures come from. Used by one thread at a time, which the caller supplies. */
public interface ProbePort extends AutoCloseable {
    /** A bench without thermocouples: there is nothing to ask. */
    ProbePort NONE = new ProbePort() {
        @Override
        public List<Reading> sweep() {
            return List.of();
        }

        @Override
        public void close() {
            // Nothing is held.
        }
    };

    /**
     * One look at every configured probe. Blocks for the adapter's patience at most.
     *
     * @throws LinkLostException when the logger did not answer; the port stays usable and tries again at the next call
     */
    List<Reading> sweep() throws LinkLostException;

    @Override
    void close();
}
