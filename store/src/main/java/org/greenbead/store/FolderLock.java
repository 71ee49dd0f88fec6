package org.greenbead.store;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * One writer for a data folder. The system holds the lock and lets it go when its owner dies, however it dies; who the owner is and when it last
 * gave a sign of life stands in a file beside it.
 */
final class FolderLock implements AutoCloseable {
    private static final String LOCK = "writer.lock";
    private static final String OWNER = "writer.owner";
    private static final long HEARTBEAT_S = 10;
    private final FileChannel channel;
    private final FileLock lock;
    private final Path owner;
    private final ScheduledExecutorService heart = Executors.newSingleThreadScheduledExecutor(
            Thread.ofPlatform().daemon().name("folder-heartbeat").factory());

    private FolderLock(FileChannel channel, FileLock lock, Path owner) {
        this.channel = channel;
        this.lock = lock;
        this.owner = owner;
    }

    /** @return empty when another process, or another part of this one, writes there */
    static Optional<FolderLock> take(Path folder, InstantSource clock) throws IOException {
        FileChannel channel = FileChannel.open(folder.resolve(LOCK), StandardOpenOption.CREATE,
                StandardOpenOption.WRITE);
        FileLock lock;
        try {
            lock = channel.tryLock();
        } catch (OverlappingFileLockException e) {
            lock = null;
        } catch (IOException e) {
            channel.close();
            throw e;
        }
        if (lock == null) {
            channel.close();
            return Optional.empty();
        }
        Path owner = folder.resolve(OWNER);
        Path fresh = folder.resolve(OWNER + ".new");
        Files.writeString(fresh,
                "process " + ProcessHandle.current().pid() + ", since " + clock.instant() + "\n",
                StandardCharsets.UTF_8);
        Files.move(fresh, owner, StandardCopyOption.REPLACE_EXISTING);
        var held = new FolderLock(channel, lock, owner);
        held.heart.scheduleWithFixedDelay(() -> held.beat(clock.instant()), HEARTBEAT_S, HEARTBEAT_S,
                TimeUnit.SECONDS);
        return Optional.of(held);
    }

    private void beat(Instant now) {
        try {
            Files.setLastModifiedTime(owner, FileTime.from(now));
        } catch (IOException e) {
            // The folder may be gone; the run log's writer tells of that.
            heart.shutdown();
        }
    }

    /** Who writes there: "process 4711, since 2026-11-24T09:02:00Z, last sign of life 6 s ago". */
    static String owner(Path folder, InstantSource clock) {
        try {
            Path owner = folder.resolve(OWNER);
            long ago = Math.max(0,
                    Duration.between(Files.getLastModifiedTime(owner).toInstant(), clock.instant())
                            .toSeconds());
            return Files.readString(owner).strip() + ", last sign of life " + ago + " s ago";
        } catch (IOException e) {
            return "another Green Bead";
        }
    }

    @Override
    public void close() {
        heart.shutdownNow();
        try {
            Files.deleteIfExists(owner);
            lock.release();
            channel.close();
        } catch (IOException e) {
            // The system lets it go with the process.
        }
    }
}
