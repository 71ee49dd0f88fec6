package org.greenbead.store;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
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

    /** A new file. @throws IOException when there is one of this name: nobody's log is written over */
    static AppendTarget create(Path path) throws IOException {
        try {
            return new Growing(path, FileChannel.open(path, StandardOpenOption.CREATE_NEW,
                    StandardOpenOption.READ, StandardOpenOption.WRITE));
        } catch (FileAlreadyExistsException e) {
            throw new IOException(path
                    + ": there is a file of this name already, and no log is ever written over. Choose another name.",
                    e);
        }
    }

    /** An existing file goes on behind its end; a torn last line is ended, and stays as it is. */
    static AppendTarget goOn(Path path) throws IOException {
        FileChannel channel = FileChannel.open(path, StandardOpenOption.READ, StandardOpenOption.WRITE);
        long end = channel.size();
        ByteBuffer last = ByteBuffer.allocate(1);
        boolean torn = end > 0 && channel.read(last, end - 1) == 1 && last.get(0) != '\n';
        channel.position(end);
        var target = new Growing(path, channel);
        if (torn) {
            target.append(new byte[]{'\n'});
        }
        return target;
    }

    /** Writes at the end; a file that was taken away under it is put back from what it still holds. */
    final class Growing implements AppendTarget {
        private final Path path;
        private FileChannel channel;

        Growing(Path path, FileChannel channel) {
            this.path = path;
            this.channel = channel;
        }

        @Override
        public void append(byte[] record) throws IOException {
            long whole = channel.position();
            try {
                ByteBuffer rest = ByteBuffer.wrap(record);
                while (rest.hasRemaining()) {
                    channel.write(rest);
                }
            } catch (IOException e) {
                // Only what this very call has written is taken back.
                channel.truncate(whole);
                channel.position(whole);
                throw e;
            }
        }

        @Override
        public void sync() throws IOException {
            channel.force(false);
            if (Files.notExists(path)) {
                putBack();
            }
        }

        /** The name is gone, the file is still held: all of it is written under its name again. */
        private void putBack() throws IOException {
            Files.createDirectories(path.toAbsolutePath().getParent());
            FileChannel again = FileChannel.open(path, StandardOpenOption.CREATE_NEW,
                    StandardOpenOption.READ, StandardOpenOption.WRITE);
            try {
                long size = channel.size();
                for (long at = 0; at < size;) {
                    at += channel.transferTo(at, size - at, again);
                }
                again.position(size);
                again.force(true);
            } catch (IOException e) {
                again.close();
                throw e;
            }
            channel.close();
            channel = again;
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }
}
