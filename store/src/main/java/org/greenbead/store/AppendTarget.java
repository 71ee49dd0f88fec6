package org.greenbead.store;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** A file that only grows, by whole records. */
interface AppendTarget extends AutoCloseable {
    /** Writes all of it or, when that fails, none of it. */
    void append(byte[] record) throws IOException;

    /** Returns once the disk has it. */
    void sync() throws IOException;

    @Override
    void close() throws IOException;

    /** A file; an existing one is continued at {@code fromByte}, what lies behind is cut off. */
    static AppendTarget file(Path path, long fromByte) throws IOException {
        FileChannel channel = FileChannel.open(path, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        channel.truncate(fromByte);
        channel.position(fromByte);
        return new AppendTarget() {
            @Override
            public void append(byte[] record) throws IOException {
                long whole = channel.position();
                try {
                    ByteBuffer rest = ByteBuffer.wrap(record);
                    while (rest.hasRemaining()) {
                        channel.write(rest);
                    }
                } catch (IOException e) {
                    channel.truncate(whole);
                    channel.position(whole);
                    throw e;
                }
            }

            @Override
            public void sync() throws IOException {
                channel.force(false);
            }

            @Override
            public void close() throws IOException {
                channel.close();
            }
        };
    }
}
