package org.greenbead.store;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.apache.pdfbox.pdmodel.graphics.image.JPEGFactory;
import org.apache.pdfbox.pdmodel.graphics.image.PDImageXObject;

/** A4 pages filled from the top: headings, wrapped text, tables, and a place to draw in. Points (1/72 inch). */
final class PdfSheet implements AutoCloseable {
    static final float LEFT = 54;
    static final float RIGHT = PDRectangle.A4.getWidth() - 54;
    private static final float TOP = PDRectangle.A4.getHeight() - 54;
    private static final float BOTTOM = 60;
    private final PDDocument document = new PDDocument();
    private final PDFont plain;
    private final PDFont bold;
    private PDPageContentStream stream;
    private float y;

    PdfSheet() throws IOException {
        plain = font("B612-Regular.ttf");
        bold = font("B612-Bold.ttf");
        page();
    }

    private PDFont font(String name) throws IOException {
        try (InputStream in = PdfSheet.class.getResourceAsStream("/org/greenbead/store/fonts/" + name)) {
            if (in == null) {
                throw new IOException("the font " + name + " is not in this build");
            }
            return PDType0Font.load(document, in);
        }
    }

    private void page() throws IOException {
        if (stream != null) {
            stream.close();
        }
        var page = new PDPage(PDRectangle.A4);
        document.addPage(page);
        stream = new PDPageContentStream(document, page);
        y = TOP;
    }

    /** What follows stands on one page where it fits on one. */
    void together(float height) throws IOException {
        room(height);
    }

    private void room(float height) throws IOException {
        if (y - height < BOTTOM) {
            page();
        }
    }

    void title(String text) throws IOException {
        room(40);
        y -= 22;
        write(LEFT, y, 20, bold, text, 0x1B2420);
        y -= 14;
    }

    void heading(String text) throws IOException {
        room(48);
        y -= 22;
        write(LEFT, y, 11, bold, text, 0x1E8558);
        y -= 5;
        stream.setStrokingColor(0.85f, 0.84f, 0.8f);
        stream.setLineWidth(0.7f);
        stream.moveTo(LEFT, y);
        stream.lineTo(RIGHT, y);
        stream.stroke();
        y -= 3;
    }

    void paragraph(String text) throws IOException {
        for (String line : wrap(text, 9, RIGHT - LEFT)) {
            room(13);
            y -= 12;
            write(LEFT, y, 9, plain, line, 0x1B2420);
        }
    }

    /** The first page's head: title, the answer in a band of its colour, what it is about, and a picture at the right. */
    void cover(String title, String answer, int rgb, List<String[]> about,
            java.awt.image.BufferedImage picture,
            String caption) throws IOException {
        float span = RIGHT - LEFT;
        float left = span * 0.56f;
        y -= 22;
        write(LEFT, y, 20, bold, title, 0x1B2420);
        y -= 12;
        List<String> lines = wrap(answer, 12.5f, span - 22);
        float high = lines.size() * 16 + 14;
        stream.setNonStrokingColor(0.957f, 0.949f, 0.918f);
        stream.addRect(LEFT, y - high, span, high);
        stream.fill();
        colour(rgb);
        stream.addRect(LEFT, y - high, 5, high);
        stream.fill();
        float line = y - 7;
        for (String one : lines) {
            line -= 13;
            write(LEFT + 16, line, 12.5f, bold, one, 0x1B2420);
            line -= 3;
        }
        y -= high + 12;
        float top = y;
        for (String[] pair : about) {
            List<String> wrapped = wrap(pair[1], 9.5f, left - 84);
            float first = y - 12;
            write(LEFT, first, 9.5f, plain, pair[0], 0x5A655F);
            for (String one : wrapped) {
                y -= 12.5f;
                write(LEFT + 80, y + 0.5f, 9.5f, plain, one, 0x1B2420);
            }
            y -= 3;
        }
        float wide = span - left - 12;
        float scale = Math.min(wide / picture.getWidth(), 170f / picture.getHeight());
        float w = picture.getWidth() * scale;
        float h = picture.getHeight() * scale;
        PDImageXObject image = JPEGFactory.createFromImage(document, picture, 0.85f);
        stream.drawImage(image, RIGHT - w, top - h - 2, w, h);
        for (String one : wrap(caption, 8, w)) {
            write(RIGHT - w, top - h - 12, 8, plain, one, 0x5A655F);
            h += 10;
        }
        y = Math.min(y, top - h - 8);
    }

    private void colour(int rgb) throws IOException {
        stream.setNonStrokingColor((rgb >> 16 & 255) / 255f, (rgb >> 8 & 255) / 255f, (rgb & 255) / 255f);
    }

    /** A sentence with a bullet before it. */
    void bullet(String text) throws IOException {
        List<String> lines = wrap(text, 9.5f, RIGHT - LEFT - 12);
        room(lines.size() * 12.5f + 2);
        boolean first = true;
        for (String line : lines) {
            y -= 12.5f;
            if (first) {
                colour(0x1E8558);
                stream.addRect(LEFT + 1, y + 2.2f, 3.2f, 3.2f);
                stream.fill();
                first = false;
            }
            write(LEFT + 12, y, 9.5f, plain, line, 0x1B2420);
        }
        y -= 2;
    }

    /** What a mark before a row says, by its shape as well as by its colour. */
    enum Mark {
        GOOD, BAD, OPEN
    }

    /** The names of columns over their rows. */
    void columns(float[] widths, String... names) throws IOException {
        room(34);
        y -= 13;
        float x = LEFT + 14;
        float span = RIGHT - LEFT - 14;
        for (int i = 0; i < names.length; i++) {
            write(x, y, 8, bold, names[i], 0x5A655F);
            x += widths[i] * span;
        }
        y -= 3;
    }

    /** A row with a mark at its left. */
    void marked(Mark mark, float[] widths, String... cells) throws IOException {
        var columns = new ArrayList<List<String>>();
        int lines = 1;
        float span = RIGHT - LEFT - 14;
        for (int i = 0; i < cells.length; i++) {
            List<String> wrapped = wrap(cells[i], 9, widths[i] * span - 8);
            columns.add(wrapped);
            lines = Math.max(lines, wrapped.size());
        }
        room(lines * 12f + 6);
        mark(mark, LEFT + 4, y - 9);
        for (int line = 0; line < lines; line++) {
            y -= 12;
            float x = LEFT + 14;
            for (int i = 0; i < cells.length; i++) {
                if (line < columns.get(i).size()) {
                    write(x, y, 9, i == 0 ? bold : plain, columns.get(i).get(line), 0x1B2420);
                }
                x += widths[i] * span;
            }
        }
        y -= 4;
        stream.setStrokingColor(0.89f, 0.88f, 0.84f);
        stream.setLineWidth(0.4f);
        stream.moveTo(LEFT, y);
        stream.lineTo(RIGHT, y);
        stream.stroke();
    }

    private void mark(Mark mark, float x, float at) throws IOException {
        switch (mark) {
            case GOOD -> {
                colour(0x1E8558);
                round(x, at, 3.4f);
                stream.fill();
            }
            case BAD -> {
                colour(0xBF3F2A);
                double[] px = new double[6];
                double[] py = new double[6];
                for (int i = 0; i < 6; i++) {
                    double angle = Math.PI / 6 + i * Math.PI / 3;
                    px[i] = x + 4.2 * Math.cos(angle);
                    py[i] = at + 4.2 * Math.sin(angle);
                }
                area(px, py);
            }
            case OPEN -> {
                stream.setStrokingColor(0.77f, 0.48f, 0.12f);
                stream.setLineWidth(1.2f);
                round(x, at, 3);
                stream.stroke();
            }
        }
    }

    /** A circle of four Bezier arcs. */
    private void round(float x, float at, float r) throws IOException {
        float k = 0.5523f * r;
        stream.moveTo(x + r, at);
        stream.curveTo(x + r, at + k, x + k, at + r, x, at + r);
        stream.curveTo(x - k, at + r, x - r, at + k, x - r, at);
        stream.curveTo(x - r, at - k, x - k, at - r, x, at - r);
        stream.curveTo(x + k, at - r, x + r, at - k, x + r, at);
        stream.closePath();
    }

    /** One row; {@code widths} are parts of the page's width. The first cell may be bold. */
    void row(float[] widths, boolean firstBold, String... cells) throws IOException {
        var columns = new ArrayList<List<String>>();
        int lines = 1;
        float span = RIGHT - LEFT;
        for (int i = 0; i < cells.length; i++) {
            List<String> wrapped = wrap(cells[i], 9, widths[i] * span - 6);
            columns.add(wrapped);
            lines = Math.max(lines, wrapped.size());
        }
        room(lines * 12f + 2);
        for (int line = 0; line < lines; line++) {
            y -= 12;
            float x = LEFT;
            for (int i = 0; i < cells.length; i++) {
                if (line < columns.get(i).size()) {
                    write(x, y, 9, i == 0 && firstBold ? bold : plain, columns.get(i).get(line), 0x1B2420);
                }
                x += widths[i] * span;
            }
        }
        y -= 2;
    }

    /** A curve to draw, °C over s. */
    record Curve(String name, int rgb, double[] x, double[] y) {}

    /** Between what bounds a curve lies, °C over s. */
    record Band(int rgb, double[] x, double[] low, double[] high) {}

    /** Temperature over time with a grid, a band, the interval of one curve, and a legend. */
    void chart(List<Curve> curves, Optional<Band> interval, double bandLow, double bandHigh,
            java.util.function.DoubleFunction<String> label, String xUnit) throws IOException {
        float height = 190;
        room(height + 30);
        float x0 = LEFT + 34;
        float y0 = y - height;
        float w = RIGHT - x0;
        float h = height - 22;
        double most = curves.stream().flatMapToDouble(c -> java.util.Arrays.stream(c.x())).max().orElse(1);
        double top = Math.max(250, curves.stream().flatMapToDouble(c -> java.util.Arrays.stream(c.y()))
                .filter(Double::isFinite).max().orElse(250) + 10);
        stream.setNonStrokingColor(0.88f, 0.94f, 0.9f);
        stream.addRect(x0, (float) (y0 + h * bandLow / top), w, (float) (h * (bandHigh - bandLow) / top));
        stream.fill();
        if (interval.isPresent() && interval.get().x().length > 1) {
            shade(interval.get(), x0, y0, w / most, h / top);
        }
        stream.setStrokingColor(0.85f, 0.84f, 0.8f);
        stream.setLineWidth(0.4f);
        for (int t = 0; t <= top; t += 50) {
            float at = (float) (y0 + h * t / top);
            stream.moveTo(x0, at);
            stream.lineTo(x0 + w, at);
            stream.stroke();
            write(LEFT, at - 3, 7, plain, label.apply(t), 0x5A655F);
        }
        int step = most > 1200 ? 300 : most > 400 ? 60 : 30;
        for (int t = 0; t <= most; t += step) {
            write((float) (x0 + w * t / most) - 6, y0 - 10, 7, plain,
                    org.greenbead.core.quantity.Words.clock(t), 0x5A655F);
        }
        write(x0 + w - 22, y0 - 20, 7, plain, xUnit, 0x5A655F);
        float legend = x0;
        for (Curve curve : curves) {
            stream.setStrokingColor((curve.rgb() >> 16 & 255) / 255f, (curve.rgb() >> 8 & 255) / 255f,
                    (curve.rgb() & 255) / 255f);
            stream.setLineWidth(1.1f);
            boolean down = false;
            for (int i = 0; i < curve.x().length; i++) {
                if (Double.isFinite(curve.y()[i])) {
                    float px = (float) (x0 + w * curve.x()[i] / most);
                    float py = (float) (y0 + h * Math.max(0, curve.y()[i]) / top);
                    if (down) {
                        stream.lineTo(px, py);
                    } else {
                        stream.moveTo(px, py);
                    }
                    down = true;
                } else if (down) {
                    stream.stroke();
                    down = false;
                }
            }
            if (down) {
                stream.stroke();
            }
            write(legend, y0 + h + 6, 8, bold, curve.name(), curve.rgb());
            legend += bold.getStringWidth(curve.name()) / 1000 * 8 + 14;
        }
        y = y0 - 22;
    }

    /** A pale area from the lower bounds there to the upper ones back. */
    private void shade(Band band, float x0, float y0, double perS, double perK) throws IOException {
        stream.setNonStrokingColor(pale(band.rgb() >> 16), pale(band.rgb() >> 8), pale(band.rgb()));
        int n = band.x().length;
        double[] px = new double[2 * n];
        double[] py = new double[2 * n];
        for (int i = 0; i < 2 * n; i++) {
            int at = i < n ? i : 2 * n - 1 - i;
            px[i] = x0 + perS * band.x()[at];
            py[i] = y0 + perK * Math.max(0, i < n ? band.low()[at] : band.high()[at]);
        }
        area(px, py);
    }

    private void area(double[] px, double[] py) throws IOException {
        stream.moveTo((float) px[0], (float) py[0]);
        for (int i = 1; i < px.length; i++) {
            stream.lineTo((float) px[i], (float) py[i]);
        }
        stream.closePath();
        stream.fill();
    }

    private static float pale(int channel) {
        return 1 - 0.25f * (255 - (channel & 255)) / 255f;
    }

    private List<String> wrap(String text, float size, float width) throws IOException {
        var lines = new ArrayList<String>();
        var line = new StringBuilder();
        for (String word : clean(text).split(" ", -1)) {
            String longer = line.isEmpty() ? word : line + " " + word;
            if (!line.isEmpty() && plain.getStringWidth(longer) / 1000 * size > width) {
                lines.add(line.toString());
                line.setLength(0);
                line.append(word);
            } else {
                line.setLength(0);
                line.append(longer);
            }
        }
        lines.add(line.toString());
        return lines;
    }

    /** Signs that the font lacks become a question mark instead of an exception. */
    private String clean(String text) {
        var sb = new StringBuilder();
        text.codePoints().forEach(cp -> {
            String sign = new String(Character.toChars(Character.isISOControl(cp) ? ' ' : cp));
            try {
                plain.encode(sign);
                sb.append(sign);
            } catch (IOException | IllegalArgumentException e) {
                sb.append('?');
            }
        });
        return sb.toString();
    }

    private void write(float x, float at, float size, PDFont font, String text, int rgb) throws IOException {
        stream.beginText();
        stream.setNonStrokingColor((rgb >> 16 & 255) / 255f, (rgb >> 8 & 255) / 255f, (rgb & 255) / 255f);
        stream.setFont(font, size);
        stream.newLineAtOffset(x, at);
        stream.showText(clean(text));
        stream.endText();
    }

    /** Numbers the pages and hands out the file's bytes. */
    byte[] finish(java.util.function.BiFunction<Integer, Integer, String> footer) throws IOException {
        stream.close();
        stream = null;
        int pages = document.getNumberOfPages();
        for (int i = 0; i < pages; i++) {
            try (var foot = new PDPageContentStream(document, document.getPage(i),
                    PDPageContentStream.AppendMode.APPEND, true, true)) {
                foot.beginText();
                foot.setFont(plain, 8);
                foot.newLineAtOffset(LEFT, 36);
                foot.showText(clean(footer.apply(i + 1, pages)));
                foot.endText();
            }
        }
        var bytes = new java.io.ByteArrayOutputStream();
        document.save(bytes);
        return bytes.toByteArray();
    }

    @Override
    public void close() throws IOException {
        if (stream != null) {
            stream.close();
        }
        document.close();
    }
}
