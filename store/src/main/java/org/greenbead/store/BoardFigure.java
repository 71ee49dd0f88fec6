package org.greenbead.store;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Rectangle2D;
import java.awt.geom.RoundRectangle2D;
import java.awt.image.BufferedImage;
import java.util.Optional;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.board.Side;

/** The board as a drawing to scale, what was worked on dark; for reports where there is no photo. */
final class BoardFigure {
    private static final int WIDE = 900;
    private static final Color PAPER = new Color(0xFBFAF5);
    private static final Color LAMINATE = new Color(0xDDE8E0);
    private static final Color EDGE = new Color(0x1E8558);
    private static final Color PART = new Color(0xB9C2BD);
    private static final Color WORKED = new Color(0x1B2420);

    private BoardFigure() {
    }

    static BufferedImage of(Optional<Board> board, String target) {
        double w = board.map(b -> b.sizeMm().xMm()).orElse(80.0);
        double h = board.map(b -> b.sizeMm().yMm()).orElse(50.0);
        double scale = (WIDE - 60) / Math.max(w, h);
        var image = new BufferedImage((int) (w * scale) + 60, (int) (h * scale) + 60,
                BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(PAPER);
        g.fillRect(0, 0, image.getWidth(), image.getHeight());
        g.setColor(LAMINATE);
        var outline = new RoundRectangle2D.Double(30, 30, w * scale, h * scale, 18, 18);
        g.fill(outline);
        g.setColor(EDGE);
        g.setStroke(new BasicStroke(5));
        g.draw(outline);
        board.ifPresent(b -> parts(g, b, target, scale, h));
        g.dispose();
        return image;
    }

    private static void parts(Graphics2D g, Board board, String target, double scale, double h) {
        Side side = board.chips().stream().filter(c -> c.name().equals(target)).map(Chip::side).findFirst()
                .orElse(Side.TOP);
        for (ProtectedPart part : board.parts()) {
            if (part.side() == side) {
                box(g, part.centreMm().xMm(), part.centreMm().yMm(), part.sizeMm().xMm(), part.sizeMm().yMm(),
                        scale, h,
                        PART);
            }
        }
        for (Chip chip : board.chips()) {
            if (chip.side() == side) {
                box(g, chip.centreMm().xMm(), chip.centreMm().yMm(), chip.sizeMm().xMm(), chip.sizeMm().yMm(),
                        scale, h,
                        chip.name().equals(target) ? WORKED : PART);
            }
        }
    }

    private static void box(Graphics2D g, double x, double y, double w, double high, double scale, double h,
            Color colour) {
        g.setColor(colour);
        g.fill(new Rectangle2D.Double(30 + (x - w / 2) * scale, 30 + (h - y - high / 2) * scale, w * scale,
                high * scale));
    }
}
