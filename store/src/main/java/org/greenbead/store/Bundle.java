package org.greenbead.store;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import tools.jackson.core.JacksonException;

/**
 * A job with everything that belongs to it in one ZIP file: board, bench, recipes, chips, run logs, pictures and history, with a manifest
 * that names each file with its length and SHA-256. What is not in the manifest, or is not what it says, is refused, and nothing of it
 * reaches the disk before all of it has been found sound.
 */
final class Bundle {
    static final String TAG = "greenbead/bundle/1";
    static final String MANIFEST = "manifest.json";
    private static final int MOST_FILES = 4000;
    private static final long MOST_EACH = 64L << 20;
    private static final long MOST_TOGETHER = 512L << 20;
    private static final Pattern NAME = Pattern
            .compile("(?:[a-z]{1,12}/)?[A-Za-z0-9][A-Za-z0-9_-]{0,90}(?:\\.[A-Za-z0-9]{1,12}){1,3}");

    /** @param bytes length of the file */
    record Item(String name, long bytes, String sha256) {}

    /** @param job id of the job */
    record Manifest(String format, String job, String made, List<Item> files) {}

    private final Map<String, byte[]> files;
    private final Manifest manifest;

    private Bundle(Manifest manifest, Map<String, byte[]> files) {
        this.manifest = manifest;
        this.files = files;
    }

    Manifest manifest() {
        return manifest;
    }

    /** Names in a folder of the bundle, in order. */
    List<String> in(String folder) {
        return new TreeSet<>(files.keySet()).stream().filter(n -> n.startsWith(folder + "/")).toList();
    }

    boolean holds(String name) {
        return files.containsKey(name);
    }

    byte[] bytes(String name) throws BadFileException {
        byte[] found = files.get(name);
        if (found == null) {
            throw new BadFileException(manifest.job() + ".zip", 0, name, "it is not in the bundle",
                    "Make the bundle again");
        }
        return found;
    }

    String text(String name) throws BadFileException {
        try {
            return StandardCharsets.UTF_8.newDecoder().decode(java.nio.ByteBuffer.wrap(bytes(name)))
                    .toString();
        } catch (CharacterCodingException e) {
            throw new BadFileException(name, 0, "", "it is not UTF-8 text", "Make the bundle again");
        }
    }

    static void write(OutputStream out, String job, String made, Map<String, byte[]> files, OpenFiles open)
            throws IOException {
        var items = new ArrayList<Item>();
        for (String name : new TreeSet<>(files.keySet())) {
            byte[] bytes = files.get(name);
            items.add(new Item(name, bytes.length, Photos.sha256(bytes)));
        }
        try (var zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            entry(zip, MANIFEST,
                    open.print(new Manifest(TAG, job, made, items)).getBytes(StandardCharsets.UTF_8));
            for (Item item : items) {
                entry(zip, item.name(), files.get(item.name()));
            }
        }
    }

    private static void entry(ZipOutputStream zip, String name, byte[] bytes) throws IOException {
        var entry = new ZipEntry(name);
        entry.setTime(0);
        zip.putNextEntry(entry);
        zip.write(bytes);
        zip.closeEntry();
    }

    /** Reads all of a bundle into memory and proves it. @throws BadFileException saying what is wrong with it */
    static Bundle read(Path file, OpenFiles open) throws BadFileException {
        String name = String.valueOf(file.getFileName());
        if (!Files.isRegularFile(file)) {
            throw new BadFileException(name, 0, "", "there is no such file", "Check the path");
        }
        try (var zip = new ZipFile(file.toFile(), StandardCharsets.UTF_8)) {
            if (zip.size() > MOST_FILES) {
                throw refused(name, "", "it holds " + zip.size() + " files, allowed are " + MOST_FILES);
            }
            var names = new HashSet<String>();
            for (ZipEntry entry : Collections.list(zip.entries())) {
                if (entry.isDirectory() || !NAME.matcher(entry.getName()).matches()) {
                    throw refused(name, entry.getName(),
                            "a file in it has a name that does not stay inside the bundle");
                }
                if (!names.add(entry.getName())) {
                    throw refused(name, entry.getName(), "a file stands in it twice");
                }
            }
            long[] left = {MOST_TOGETHER};
            Manifest manifest = manifest(zip, name, open, left);
            var files = new LinkedHashMap<String, byte[]>();
            for (Item item : manifest.files()) {
                ZipEntry entry = zip.getEntry(item.name());
                if (entry == null || item.name().equals(MANIFEST)) {
                    throw new BadFileException(name, 0, item.name(),
                            "the manifest names it and it is not there",
                            "Make the bundle again");
                }
                byte[] bytes = bytes(zip, entry, name, left);
                if (bytes.length != item.bytes() || !Photos.sha256(bytes).equals(item.sha256())) {
                    throw new BadFileException(name, 0, item.name(),
                            "it was changed or damaged after it was packed",
                            "Fetch the bundle again");
                }
                if (files.put(item.name(), bytes) != null) {
                    throw refused(name, item.name(), "the manifest names it twice");
                }
                names.remove(item.name());
            }
            names.remove(MANIFEST);
            if (!names.isEmpty()) {
                throw refused(name, new TreeSet<>(names).first(), "it is not in the manifest");
            }
            return new Bundle(manifest, files);
        } catch (ZipException e) {
            throw new BadFileException(name, 0, "", "this is no whole ZIP file (" + e.getMessage() + ")",
                    "Fetch the bundle again; it may have been cut off");
        } catch (IOException | IllegalArgumentException e) {
            throw new BadFileException(name, 0, "", "it cannot be read (" + e.getMessage() + ")",
                    "Fetch the bundle again");
        }
    }

    private static BadFileException refused(String name, String at, String what) {
        return new BadFileException(name, 0, at, what, "Do not open it; ask for a bundle made by Green Bead");
    }

    private static Manifest manifest(ZipFile zip, String name, OpenFiles open, long[] left)
            throws BadFileException, IOException {
        ZipEntry entry = zip.getEntry(MANIFEST);
        if (entry == null) {
            throw new BadFileException(name, 0, "", "this is no job bundle: it has no " + MANIFEST,
                    "Make one with: greenbead pack JOB OUT.zip");
        }
        String text = new String(bytes(zip, entry, name, left), StandardCharsets.UTF_8);
        try {
            Map<?, ?> tag = open.unline(text, Map.class);
            if (!TAG.equals(tag.get("format"))) {
                throw new BadFileException(name, 0, "/format", "\"" + tag.get("format") + "\" is not " + TAG,
                        String.valueOf(tag.get("format")).startsWith("greenbead/bundle/")
                                ? "It was made by a newer Green Bead: update this one"
                                : "Make one with: greenbead pack JOB OUT.zip");
            }
            Manifest manifest = open.unline(text, Manifest.class);
            if (manifest.files() == null || manifest.job() == null || manifest.files().stream()
                    .anyMatch(i -> i == null || i.name() == null || i.sha256() == null)) {
                throw new BadFileException(name, 0, MANIFEST, "the manifest is not whole",
                        "Make the bundle again");
            }
            return manifest;
        } catch (JacksonException e) {
            throw new BadFileException(name, 0, MANIFEST, "the manifest cannot be read",
                    "Make the bundle again");
        }
    }

    /** Counts what really comes out, whatever the entry says of itself. */
    private static byte[] bytes(ZipFile zip, ZipEntry entry, String name, long[] left)
            throws IOException, BadFileException {
        try (InputStream in = zip.getInputStream(entry)) {
            byte[] bytes = in.readNBytes((int) Math.min(MOST_EACH, left[0]) + 1);
            if (bytes.length > MOST_EACH || bytes.length > left[0]) {
                throw refused(name, entry.getName(), "it unpacks to more than is allowed");
            }
            left[0] -= bytes.length;
            return bytes;
        }
    }
}
