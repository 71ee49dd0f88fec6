package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.awt.geom.AffineTransform;
import java.awt.image.AffineTransformOp;
import java.awt.image.BufferedImage;
import java.awt.image.ConvolveOp;
import java.awt.image.Kernel;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The photos with known truth once more: turned, taken from nearer or farther, lit otherwise, softer, and pressed harder by the camera. */
public class TurnedPhotosTest {
    private Path folder;

    @BeforeClass
    public void prepare() throws IOException {
        folder = Files.createTempDirectory("greenbead-turned");
    }

    @AfterClass(alwaysRun = true)
    public void remove() throws IOException {
        try (var all = Files.walk(folder)) {
            all.sorted(java.util.Comparator.reverseOrder()).forEach(p -> p.toFile().delete());
        }
    }

    /** Name, turn in degrees, size, light, veil of stray light in 255ths, soft, and quality of the JPEG. */
    @DataProvider
    Object[][] ways() {
        return new Object[][]{{"d01", 41.0, 0.8, 0.85, 0, false, 0.8f},
                {"d02", 163.0, 1.2, 1.1, 0, true, 0.8f},
                {"d03", -118.0, 0.75, 1.05, 0, false, 0.85f}, {"d04", 77.0, 1.1, 0.9, 0, false, 0.85f},
                {"d05", 222.0, 0.9, 1.1, 0, true, 0.75f}, {"d03", 305.0, 1.32, 0.7, 16, true, 0.78f}};
    }

    @Test(dataProvider = "ways")
    public void theSameIsSeen(String name, double turn, double size, double light, int veil, boolean soft,
            float quality) throws Exception {
        Path source = Path.of(TurnedPhotosTest.class.getResource("photos/" + name + ".jpg").toURI());
        BufferedImage picture = ImageIO.read(source.toFile());
        double angle = Math.toRadians(turn);
        int width = (int) (size * (Math.abs(Math.cos(angle)) * picture.getWidth()
                + Math.abs(Math.sin(angle)) * picture.getHeight()));
        int height = (int) (size * (Math.abs(Math.sin(angle)) * picture.getWidth()
                + Math.abs(Math.cos(angle)) * picture.getHeight()));
        var way = new AffineTransform();
        way.translate(width / 2.0, height / 2.0);
        way.rotate(angle);
        way.scale(size, size);
        way.translate(-picture.getWidth() / 2.0, -picture.getHeight() / 2.0);
        Path photo = folder.resolve(name + ".jpg");
        write(photo, relit(turned(picture, way, width, height, soft || size < 0.9), light, veil), quality);
        Path json = folder.resolve(name + ".json");
        var err = new StringWriter();
        Path map = source.resolveSibling(name + ".map.csv");
        int status = Main.execute(new PrintWriter(new StringWriter()), new PrintWriter(err, true), "beads",
                photo.toString(), "--map", map.toString(), "--json", json.toString());
        assertTrue(status < 2, err.toString());
        judged(source.resolveSibling(name + ".truth.csv"),
                JsonMapper.shared().readTree(Files.readString(json)),
                way);
    }

    private static void judged(Path truth, JsonNode seen, AffineTransform way)
            throws IOException {
        Map<String, JsonNode> sites = new HashMap<>();
        seen.get("sites").forEach(s -> sites.put(s.get("site").asString(), s));
        var missed = new TreeMap<String, String>();
        var invented = new TreeMap<String, String>();
        var errors = new java.util.ArrayList<Double>();
        for (String line : Files.readAllLines(truth).stream().skip(1).toList()) {
            String[] row = line.split(",", -1);
            if (row[0].equals("stray")) {
                continue;
            }
            JsonNode site = sites.get(row[0]);
            String state = site.get("state").asString();
            if (!row[1].equals("ok")) {
                if (state.equals("ok")) {
                    missed.put(row[0], row[1]);
                }
            } else if (!state.equals("ok")) {
                invented.put(row[0], state);
            } else {
                double[] at = {Double.parseDouble(row[3]), Double.parseDouble(row[4])};
                way.transform(at, 0, at, 0, 1);
                assertTrue(Math.hypot(site.get("x_px").asDouble() - at[0],
                        site.get("y_px").asDouble() - at[1]) < 3, row[0]);
                errors.add(Math.abs(site.get("diameter_mm").asDouble() / Double.parseDouble(row[2]) - 1));
            }
        }
        assertEquals(missed.toString(), "{}");
        assertEquals(invented.toString(), "{}");
        double[] sorted = errors.stream().mapToDouble(e -> e).sorted().toArray();
        double mean = Arrays.stream(sorted).average().orElseThrow();
        assertTrue(mean < 0.02, "mean " + mean);
        assertTrue(sorted[(int) (0.95 * sorted.length)] < 0.04, "95th percentile");
    }

    private static BufferedImage turned(BufferedImage picture, AffineTransform way, int width, int height,
            boolean soft) {
        BufferedImage from = picture;
        if (soft) {
            float side = 0.12f;
            float corner = 0.03f;
            from = new ConvolveOp(
                    new Kernel(3, 3,
                            new float[]{corner, side, corner, side, 0.4f, side, corner, side, corner}),
                    ConvolveOp.EDGE_NO_OP, null).filter(picture, null);
        }
        var out = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        new AffineTransformOp(way, AffineTransformOp.TYPE_BICUBIC).filter(
                from.getType() == BufferedImage.TYPE_INT_RGB ? from : plain(from), out);
        return out;
    }

    private static BufferedImage plain(BufferedImage picture) {
        var out = new BufferedImage(picture.getWidth(), picture.getHeight(), BufferedImage.TYPE_INT_RGB);
        out.createGraphics().drawImage(picture, 0, 0, null);
        return out;
    }

    /** Brighter or darker as a whole and across the picture, under a veil. */
    private static BufferedImage relit(BufferedImage picture, double light, int veil) {
        for (int y = 0; y < picture.getHeight(); y++) {
            for (int x = 0; x < picture.getWidth(); x++) {
                double by = light * (0.93 + 0.14 * x / picture.getWidth());
                int rgb = picture.getRGB(x, y);
                int out = veil * 0x10101;
                for (int shift = 0; shift < 24; shift += 8) {
                    out += (int) Math.min(255 - veil, by * (rgb >> shift & 255)) << shift;
                }
                picture.setRGB(x, y, out);
            }
        }
        return picture;
    }

    private static void write(Path file, BufferedImage picture, float quality) throws IOException {
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        ImageWriteParam how = writer.getDefaultWriteParam();
        how.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
        how.setCompressionQuality(quality);
        try (ImageOutputStream out = ImageIO.createImageOutputStream(file.toFile())) {
            writer.setOutput(out);
            writer.write(null, new IIOImage(picture, null, null), how);
        } finally {
            writer.dispose();
        }
    }
}
