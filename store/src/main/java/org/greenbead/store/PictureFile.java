package org.greenbead.store;

import java.awt.image.BufferedImage;
import java.awt.image.DataBufferByte;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.atomic.AtomicBoolean;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.greenbead.core.inspect.Raster;

/** A PNG or JPEG photo as numbers for the inspection. */
public final class PictureFile {
    private static final int FEWEST_PIXELS = 200_000;

    private PictureFile() {
    }

    /** @throws BadFileException when it is no picture, is damaged, or has too few or too many pixels */
    public static Raster read(Path file) throws BadFileException {
        String name = String.valueOf(file.getFileName());
        byte[] bytes = Photos.bytes(file, name);
        if (Arrays.equals(bytes, new byte[0])) {
            throw new BadFileException(name, 0, "", "it is empty", "Copy it from the camera again");
        }
        Photos.look(bytes, name, false);
        try {
            return of(decoded(bytes), name);
        } catch (IOException | RuntimeException e) {
            throw new BadFileException(name, 0, "", "the picture is damaged or cut off",
                    "Copy it from the camera again");
        }
    }

    /** The decoder fills what is missing at the end of a JPEG with grey and only warns of it. */
    private static BufferedImage decoded(byte[] bytes) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            ImageReader reader = ImageIO.getImageReaders(in).next();
            try {
                var cutOff = new AtomicBoolean();
                reader.addIIOReadWarningListener((source, warning) -> cutOff
                        .compareAndSet(false,
                                warning.contains("EOI") || warning.startsWith("Premature end")));
                reader.setInput(in);
                BufferedImage image = reader.read(0);
                if (cutOff.get()) {
                    throw new IOException("cut off");
                }
                return image;
            } finally {
                reader.dispose();
            }
        }
    }

    private static Raster of(BufferedImage image, String name) throws BadFileException {
        int width = image.getWidth();
        int height = image.getHeight();
        if ((long) width * height < FEWEST_PIXELS) {
            throw new BadFileException(name, 0, "",
                    "it has " + width + " x " + height + " pixels, too few to measure balls in",
                    "Take it with a megapixel or more");
        }
        return Raster.ofSrgb(width, height, pixels(image));
    }

    /** Packed sRGB. What JPEG and most PNG files become is read as it lies, without a colour model asked for every pixel. */
    private static int[] pixels(BufferedImage image) {
        int width = image.getWidth();
        int height = image.getHeight();
        if (image.getType() != BufferedImage.TYPE_3BYTE_BGR
                || !(image.getRaster().getDataBuffer() instanceof DataBufferByte bytes)
                || bytes.getSize() != 3 * width * height) {
            return image.getRGB(0, 0, width, height, null, 0, width);
        }
        byte[] bgr = bytes.getData();
        int[] rgb = new int[width * height];
        for (int i = 0; i < rgb.length; i++) {
            rgb[i] = (bgr[3 * i + 2] & 255) << 16 | (bgr[3 * i + 1] & 255) << 8 | bgr[3 * i] & 255;
        }
        return rgb;
    }
}
