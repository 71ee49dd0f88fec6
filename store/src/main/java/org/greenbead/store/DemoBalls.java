package org.greenbead.store;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.bead.Site;
import org.greenbead.core.board.Chip;
import org.greenbead.core.inspect.Painted;

/** The bead map of the chip in the demo, and a photo of its balls with a few faults; painted, so that the truth is known. */
final class DemoBalls {

    private DemoBalls() {
    }

    /** A square field with an empty middle and no A1, as the body of the chip holds. */
    static BeadMap map(Chip chip) {
        double pitch = chip.joint().pitchMm();
        int count = (int) Math.floor(chip.sizeMm().xMm() / pitch) - 2;
        int rim = count * 3 / 10;
        BeadMap grid = BeadMap.grid(count, count, pitch, Optional.of(chip.joint().ballMm()))
                .without("A1", "A1")
                .without(RowNames.site(rim, rim), RowNames.site(count - 1 - rim, count - 1 - rim));
        return new BeadMap(grid.sites().stream().map(DemoBalls::named).toList());
    }

    private static Site named(Site s) {
        return switch (s.name()) {
            case "F18" -> net(s, "1V8", Site.Critical.MANY);
            case "H9" -> net(s, "RESET", Site.Critical.ONLY);
            case "T4" -> net(s, "DQ3", Site.Critical.ONLY);
            case "T5" -> net(s, "DQ4", Site.Critical.ONLY);
            case "L3" -> net(s, "spare", Site.Critical.SPARE);
            default -> s;
        };
    }

    private static Site net(Site s, String net, Site.Critical critical) {
        return new Site(s.name(), s.xMm(), s.yMm(), s.diameterMm(), net, critical);
    }

    /** JPEG as a camera would write it. */
    static byte[] photo(BeadMap map) throws IOException {
        Painted.Truth truth = Painted.balls(map,
                Map.of("F18", new Painted.Wrong(0, 0, 0), "H9", new Painted.Wrong(0.74, 0, 0), "Y30",
                        new Painted.Wrong(1, 0.14, -0.05)),
                List.<String[]>of(new String[]{"T4", "T5"}),
                new Painted.Pose(31, 1.8, 3, 0.15, 0.85, 0.004, 15));
        var image = new BufferedImage(truth.width(), truth.height(), BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, truth.width(), truth.height(), truth.rgb(), 0, truth.width());
        var out = new ByteArrayOutputStream();
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ImageWriteParam how = writer.getDefaultWriteParam();
        how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
        how.setCompressionQuality(0.92f);
        try (var stream = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(stream);
            writer.write(null, new IIOImage(image, null, null), how);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }
}
