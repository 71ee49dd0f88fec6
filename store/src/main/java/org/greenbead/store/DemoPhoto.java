package org.greenbead.store;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import javax.imageio.ImageIO;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Squared;
import org.greenbead.core.quantity.OneThreadRandom;

/**
 * A photo of a board that exists only here: its top side drawn at a slant under uneven light, with small parts, tracks and holes where a
 * seed put them. For the demo and for tests; the four corners are known exactly.
 */
final class DemoPhoto {
    private static final int WIDTH = 1400;
    private static final int HEIGHT = 1200;
    private final BufferedImage image;
    private final List<Px> corners;

    private DemoPhoto(BufferedImage image, List<Px> corners) {
        this.image = image;
        this.corners = corners;
    }

    static DemoPhoto of(Board board, long seed) {
        return of(board, seed, Set.of(), "", 0);
    }

    /**
     * The same board some time later, the camera held otherwise.
     *
     * @param gone  small parts that are not there any more, by the order in which they were drawn
     * @param lifted chip that is off; its pads show
     * @param shift of the camera, pixels
     */
    static DemoPhoto of(Board board, long seed, Set<Integer> gone, String lifted, double shift) {
        double scale = Math.min(WIDTH * 0.8 / board.sizeMm().xMm(), HEIGHT * 0.84 / board.sizeMm().yMm());
        double w = board.sizeMm().xMm() * scale / 2;
        double h = board.sizeMm().yMm() * scale / 2;
        double cx = WIDTH / 2.0;
        double cy = HEIGHT / 2.0;
        List<Px> corners = List.of(new Px(cx - w * 1.02 + shift, cy + h * 0.99 - 0.4 * shift),
                new Px(cx + w * 0.99 + shift, cy + h * 1.02 + 0.3 * shift),
                new Px(cx + w * 0.95 + 1.4 * shift, cy - h * 0.97 + 0.3 * shift),
                new Px(cx - w * 0.98 + 1.3 * shift, cy - h * 0.99 - 0.4 * shift));
        var image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(new Color(0xB9B3A4));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        var draw = new Drawing(g, Squared.of(corners, board.sizeMm()));
        draw.board(board, new Random(seed), gone, lifted);
        g.dispose();
        light(image, new OneThreadRandom(seed + 1));
        return new DemoPhoto(image, corners);
    }

    /** Brighter at one side, with the noise of a sensor. */
    private static void light(BufferedImage image, Random random) {
        int width = image.getWidth();
        int[] row = new int[width];
        for (int y = 0; y < image.getHeight(); y++) {
            image.getRGB(0, y, width, 1, row, 0, width);
            for (int x = 0; x < width; x++) {
                int rgb = row[x];
                double dx = x - WIDTH * 0.3;
                double dy = y - HEIGHT * 0.25;
                double gain = 0.82 + 0.3 * (1 - Math.sqrt(dx * dx + dy * dy) / WIDTH);
                int noise = (int) Math.round(random.nextGaussian() * 3);
                row[x] = level(rgb >> 16 & 255, gain, noise) << 16 | level(rgb >> 8 & 255, gain, noise) << 8
                        | level(rgb & 255, gain, noise);
            }
            image.setRGB(0, y, width, 1, row, 0, width);
        }
    }

    private static int level(int value, double gain, int noise) {
        return (int) Math.clamp(Math.round(value * gain) + noise, 0, 255);
    }

    byte[] png() throws IOException {
        var out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    /** Lower left, lower right, upper right, upper left, "x,y; x,y; …" in pixels. */
    String corners() {
        return corners.stream().map(p -> String.format(Locale.ROOT, "%.1f,%.1f", p.x(), p.y()))
                .collect(Collectors.joining("; "));
    }

    /** Draws in millimetres of the board. */
    private record Drawing(Graphics2D g, Squared squared) {
        void board(Board board, Random random, Set<Integer> gone, String lifted) {
            fill(new Point(board.sizeMm().xMm() / 2, board.sizeMm().yMm() / 2), board.sizeMm(),
                    new Color(0x2E4A52));
            g.setStroke(new BasicStroke(2f));
            for (int i = 0; i < 90; i++) {
                track(board, random);
            }
            for (int i = 0; i < 130; i++) {
                small(board, random, gone.contains(i));
            }
            for (ProtectedPart part : board.parts()) {
                if (part.side() == Side.TOP) {
                    fill(part.centreMm(), part.sizeMm(), new Color(0xD8D2BF));
                    fill(part.centreMm(), new Point(part.sizeMm().xMm() * 0.8, part.sizeMm().yMm() * 0.5),
                            new Color(0xA9A391));
                }
            }
            for (Chip chip : board.chips()) {
                if (chip.name().equals(lifted)) {
                    pads(chip);
                } else if (chip.side() == Side.TOP) {
                    fill(chip.centreMm(), chip.sizeMm(), new Color(0x26282A));
                    fill(chip.centreMm(), new Point(chip.sizeMm().xMm() * 0.9, chip.sizeMm().yMm() * 0.9),
                            new Color(0x303336));
                    fill(new Point(chip.centreMm().xMm() - chip.sizeMm().xMm() * 0.38,
                            chip.centreMm().yMm() + chip.sizeMm().yMm() * 0.38),
                            new Point(Math.max(0.5, chip.sizeMm().xMm() * 0.06),
                                    Math.max(0.5, chip.sizeMm().xMm() * 0.06)),
                            new Color(0xCFCBBE));
                }
            }
            double x = board.sizeMm().xMm();
            double y = board.sizeMm().yMm();
            for (Point hole : List.of(new Point(4, 4), new Point(x - 4, 4), new Point(x - 4, y - 4),
                    new Point(4, y - 4))) {
                round(hole, 2.6, new Color(0xB08B4F));
                round(hole, 1.6, new Color(0x5B564B));
            }
        }

        /** Where a chip was: mask, and tinned pads at its pitch. */
        private void pads(Chip chip) {
            fill(chip.centreMm(), chip.sizeMm(), new Color(0x355862));
            double pitch = Math.max(0.4, chip.joint().pitchMm());
            for (double x = -chip.sizeMm().xMm() / 2 + pitch * 0.75; x < chip.sizeMm().xMm() / 2 - pitch
                    * 0.3; x += pitch) {
                for (double y = -chip.sizeMm().yMm() / 2 + pitch * 0.75; y < chip.sizeMm().yMm() / 2 - pitch
                        * 0.3; y += pitch) {
                    round(new Point(chip.centreMm().xMm() + x, chip.centreMm().yMm() + y), pitch * 0.26,
                            new Color(0xC8C2B0));
                }
            }
        }

        private void track(Board board, Random random) {
            double x = random.nextDouble() * board.sizeMm().xMm();
            double y = random.nextDouble() * board.sizeMm().yMm();
            double dx = (random.nextDouble() - 0.5) * 24;
            double dy = (random.nextDouble() - 0.5) * 24;
            Px a = squared.toPx(new Point(x, y));
            Px b = squared.toPx(new Point(Math.clamp(x + dx, 0.5, board.sizeMm().xMm() - 0.5), y));
            Px c = squared.toPx(new Point(Math.clamp(x + dx, 0.5, board.sizeMm().xMm() - 0.5),
                    Math.clamp(y + dy, 0.5, board.sizeMm().yMm() - 0.5)));
            g.setColor(new Color(0x3B5F66));
            var path = new Path2D.Double();
            path.moveTo(a.x(), a.y());
            path.lineTo(b.x(), b.y());
            path.lineTo(c.x(), c.y());
            g.draw(path);
        }

        private void small(Board board, Random random, boolean gone) {
            var at = new Point(2 + random.nextDouble() * (board.sizeMm().xMm() - 4),
                    2 + random.nextDouble() * (board.sizeMm().yMm() - 4));
            boolean covered = board.chips().stream().anyMatch(
                    c -> Math.abs(c.centreMm().xMm() - at.xMm()) < c.sizeMm().xMm() / 2 + 1.2
                            && Math.abs(c.centreMm().yMm() - at.yMm()) < c.sizeMm().yMm() / 2 + 1.2);
            if (!covered) {
                boolean upright = random.nextBoolean();
                if (gone) {
                    return;
                }
                fill(at, upright ? new Point(0.9, 1.8) : new Point(1.8, 0.9), new Color(0xC9C4B4));
                fill(at, upright ? new Point(0.9, 1.0) : new Point(1.0, 0.9), new Color(0x8B7355));
            }
        }

        private void fill(Point centre, Point size, Color colour) {
            var path = new Path2D.Double();
            double[][] ends = {{-1, -1}, {1, -1}, {1, 1}, {-1, 1}};
            for (int i = 0; i < 4; i++) {
                Px p = squared.toPx(new Point(centre.xMm() + ends[i][0] * size.xMm() / 2,
                        centre.yMm() + ends[i][1] * size.yMm() / 2));
                if (i == 0) {
                    path.moveTo(p.x(), p.y());
                } else {
                    path.lineTo(p.x(), p.y());
                }
            }
            path.closePath();
            g.setColor(colour);
            g.fill(path);
        }

        private void round(Point centre, double radius, Color colour) {
            var path = new Path2D.Double();
            for (int i = 0; i < 24; i++) {
                Px p = squared.toPx(new Point(centre.xMm() + radius * Math.cos(i * Math.PI / 12),
                        centre.yMm() + radius * Math.sin(i * Math.PI / 12)));
                if (i == 0) {
                    path.moveTo(p.x(), p.y());
                } else {
                    path.lineTo(p.x(), p.y());
                }
            }
            path.closePath();
            g.setColor(colour);
            g.fill(path);
        }
    }
}
