package org.greenbead.store;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Comparator;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The heat that the newest run log ended with, read from its last lines alone: what may still be hot is to be on the screen before a ledger
 * is opened. Only a hint; the ledger says whether the run was left open.
 *
 * @param run     name of the log without its ending
 * @param timeS   of the checkpoint in the run
 * @param jointC  coldest joint, °C, and the interval
 * @param written when the log was last written to
 */
public record LastHeat(String run, double timeS, double jointC, double lowC, double highC, Instant written) {
    private static final String ENDING = ".run.jsonl";
    private static final int TAIL_BYTES = 64 * 1024;
    private static final Pattern ENDED = Pattern.compile("\"word\":\"(finish|stop)\"");
    private static final Pattern CHECKPOINT = Pattern
            .compile("\\{\"type\":\"checkpoint\",\"time_s\":([0-9.]+),"
                    + "[^}]*?\"joint_c\":(-?[0-9.]+),\"low_c\":(-?[0-9.]+),\"high_c\":(-?[0-9.]+)");

    /** Empty where there is no log, where the newest one was ended, or where it cannot be read: then nothing is claimed. */
    public static Optional<LastHeat> of(Path dataFolder) {
        Path runs = dataFolder.resolve("runs");
        if (!Files.isDirectory(runs)) {
            return Optional.empty();
        }
        try (var all = Files.list(runs)) {
            return all.filter(p -> p.getFileName().toString().endsWith(ENDING))
                    .max(Comparator.comparing(LastHeat::written)).flatMap(LastHeat::read);
        } catch (IOException | UncheckedIOException e) {
            return Optional.empty();
        }
    }

    private static FileTime written(Path log) {
        try {
            return Files.getLastModifiedTime(log);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Optional<LastHeat> read(Path log) {
        String tail;
        try (var file = new RandomAccessFile(log.toFile(), "r")) {
            byte[] last = new byte[(int) Math.min(TAIL_BYTES, file.length())];
            file.seek(file.length() - last.length);
            file.readFully(last);
            tail = new String(last, StandardCharsets.UTF_8);
        } catch (IOException e) {
            return Optional.empty();
        }
        if (ENDED.matcher(tail).find()) {
            return Optional.empty();
        }
        Matcher found = CHECKPOINT.matcher(tail);
        Optional<LastHeat> heat = Optional.empty();
        String name = log.getFileName().toString();
        while (found.find()) {
            heat = Optional.of(new LastHeat(name.substring(0, name.length() - ENDING.length()),
                    Double.parseDouble(found.group(1)), Double.parseDouble(found.group(2)),
                    Double.parseDouble(found.group(3)), Double.parseDouble(found.group(4)),
                    written(log).toInstant()));
        }
        return heat;
    }
}
