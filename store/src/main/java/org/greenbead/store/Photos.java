package org.greenbead.store;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Iterator;
import java.util.Optional;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;

/** The pictures of all jobs: files named by what is in them, so that none is kept twice and none can be overwritten by another. */
public final class Photos {
    static final long MOST_BYTES = 40L << 20;
    static final long MOST_PIXELS = 60_000_000L;
    private static final Pattern NAME = Pattern.compile("[0-9a-f]{20}\\.(png|jpg)");
    private final Path folder;

    Photos(Path folder) {
        this.folder = folder;
    }

    /** A picture that was taken in. */
    public record Photo(String name, int widthPx, int heightPx) {}

    /**
     * Takes a picture in. The original stays where it is.
     *
     * @throws BadFileException when it is no PNG or JPEG, is cut off, or is too large
     */
    public Photo add(Path file) throws BadFileException {
        String name = String.valueOf(file.getFileName());
        byte[] bytes = bytes(file, name);
        return add(bytes, name);
    }

    Photo add(byte[] bytes, String name) throws BadFileException {
        Photo photo = look(bytes, name);
        try {
            Files.createDirectories(folder);
            Path kept = folder.resolve(photo.name());
            if (!Files.exists(kept)) {
                SafeFiles.write(kept, bytes);
            }
        } catch (IOException e) {
            throw new BadFileException(name, 0, "", "it cannot be kept (" + e.getMessage() + ")",
                    "Free space on the disk and add it again");
        }
        return photo;
    }

    static byte[] bytes(Path file, String name) throws BadFileException {
        try {
            if (Files.isDirectory(file)) {
                throw new BadFileException(name, 0, "", "it is a folder", "Choose a picture in it");
            }
            if (Files.size(file) > MOST_BYTES) {
                throw new BadFileException(name, 0, "",
                        "it has " + (Files.size(file) >> 20) + " MB, allowed are " + (MOST_BYTES >> 20),
                        "Save it smaller");
            }
            return Files.readAllBytes(file);
        } catch (NoSuchFileException e) {
            throw new BadFileException(name, 0, "", "there is no such file", "Check the path");
        } catch (IOException e) {
            throw new BadFileException(name, 0, "", "it cannot be read (" + e.getMessage() + ")",
                    "Check the disk and the rights of the file");
        }
    }

    /** What a picture is, without keeping it. */
    static Photo look(byte[] bytes, String name) throws BadFileException {
        return look(bytes, name, true);
    }

    /** @param whole read it to its end, and not its head alone */
    static Photo look(byte[] bytes, String name, boolean whole) throws BadFileException {
        boolean png = bytes.length > 8 && bytes[0] == (byte) 0x89 && bytes[1] == 'P' && bytes[2] == 'N'
                && bytes[3] == 'G';
        boolean jpeg = bytes.length > 3 && bytes[0] == (byte) 0xFF && bytes[1] == (byte) 0xD8
                && bytes[2] == (byte) 0xFF;
        if (!png && !jpeg) {
            throw new BadFileException(name, 0, "", "it is no PNG or JPEG picture",
                    "Save it as PNG or JPEG; the ending of the name does not make it one");
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new java.io.ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReadersByFormatName(png ? "png" : "jpeg");
            ImageReader reader = readers.next();
            try {
                reader.setInput(in);
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                if ((long) width * height > MOST_PIXELS) {
                    throw new BadFileException(name, 0, "",
                            "it has " + (long) width * height / 1_000_000 + " megapixels, allowed are "
                                    + MOST_PIXELS / 1_000_000,
                            "Save it smaller");
                }
                if (whole) {
                    BufferedImage all = reader.read(0);
                    width = all.getWidth();
                    height = all.getHeight();
                }
                return new Photo(sha256(bytes).substring(0, 20) + (png ? ".png" : ".jpg"), width, height);
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            throw new BadFileException(name, 0, "", "the picture is damaged or cut off",
                    "Copy it from the camera again");
        }
    }

    static String sha256(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Where a picture lies; empty when the name is not one that this folder gives, or the file is gone. */
    public Optional<Path> find(String name) {
        return Optional.of(name).filter(n -> NAME.matcher(n).matches()).map(folder::resolve)
                .filter(Files::isRegularFile);
    }

    /** @throws IOException when the picture is gone */
    public InputStream open(String name) throws IOException {
        return Files.newInputStream(
                find(name).orElseThrow(
                        () -> new IOException("the picture " + name + " is not there any more")));
    }
}
