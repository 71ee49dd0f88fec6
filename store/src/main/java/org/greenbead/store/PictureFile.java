package org.greenbead.store;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import javax.imageio.ImageIO;
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
            return of(ImageIO.read(new ByteArrayInputStream(bytes)), name);
        } catch (IOException | RuntimeException e) {
            throw new BadFileException(name, 0, "", "the picture is damaged or cut off",
                    "Copy it from the camera again");
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
        return Raster.ofSrgb(width, height, image.getRGB(0, 0, width, height, null, 0, width));
    }
}
