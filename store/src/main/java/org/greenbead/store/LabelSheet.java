package org.greenbead.store;

import com.google.zxing.BarcodeFormat;
import com.google.zxing.EncodeHintType;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import com.google.zxing.qrcode.decoder.ErrorCorrectionLevel;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDFont;
import org.apache.pdfbox.pdmodel.font.PDType0Font;
import org.greenbead.core.chip.StockChip;

/**
 * Labels for chips, bags and tray slots: the number large, the part, health and origin, and a QR code (ISO/IEC 18004, level Q) that holds
 * the number. A page of A4 holds 3 by 8 labels of 63.5 x 33.9 mm.
 */
public final class LabelSheet {
    private static final float MM = 72 / 25.4f;
    private static final float WIDTH = 63.5f * MM;
    private static final float HEIGHT = 33.9f * MM;
    private static final float LEFT = 7.2f * MM;
    private static final float TOP = 12.9f * MM;
    private static final float GAP = 2.5f * MM;
    private static final int ACROSS = 3;
    private static final int DOWN = 8;

    private LabelSheet() {
    }

    /** What stands on a label besides its number, in the language of the bench. */
    public interface Says {
        /** Two short lines. */
        List<String> of(StockChip chip);
    }

    /** @return a PDF with one label a chip, in their order */
    public static byte[] pdf(List<StockChip> chips, Says says) throws IOException {
        try (var document = new PDDocument(); var out = new ByteArrayOutputStream()) {
            PDFont bold = font(document, "B612Mono-Bold.ttf");
            PDFont plain = font(document, "B612-Regular.ttf");
            for (int first = 0; first < chips.size(); first += ACROSS * DOWN) {
                var page = new PDPage(PDRectangle.A4);
                document.addPage(page);
                try (var stream = new PDPageContentStream(document, page)) {
                    for (int i = first; i < Math.min(chips.size(), first + ACROSS * DOWN); i++) {
                        int at = i - first;
                        float x = LEFT + at % ACROSS * (WIDTH + GAP);
                        float y = PDRectangle.A4.getHeight() - TOP - (at / ACROSS + 1) * HEIGHT;
                        label(stream, chips.get(i), says.of(chips.get(i)), x, y, bold, plain);
                    }
                }
            }
            if (chips.isEmpty()) {
                document.addPage(new PDPage(PDRectangle.A4));
            }
            document.save(out);
            return out.toByteArray();
        }
    }

    private static PDFont font(PDDocument document, String name) throws IOException {
        try (InputStream in = LabelSheet.class.getResourceAsStream("/org/greenbead/store/fonts/" + name)) {
            if (in == null) {
                throw new IOException("the font " + name + " is not in this build");
            }
            return PDType0Font.load(document, in);
        }
    }

    private static void label(PDPageContentStream stream, StockChip chip, List<String> lines, float x,
            float y,
            PDFont bold, PDFont plain) throws IOException {
        BitMatrix code = code(chip.label());
        float side = HEIGHT - 6 * MM;
        float dot = side / code.getWidth();
        stream.setNonStrokingColor(0f, 0f, 0f);
        for (int row = 0; row < code.getHeight(); row++) {
            for (int column = 0; column < code.getWidth(); column++) {
                if (code.get(column, row)) {
                    stream.addRect(x + 2 * MM + column * dot, y + 3 * MM + side - (row + 1) * dot, dot, dot);
                }
            }
        }
        stream.fill();
        float text = x + side + 4 * MM;
        float room = WIDTH - side - 6 * MM;
        write(stream, bold, 11, text, y + HEIGHT - 11 * MM, chip.label(), room);
        write(stream, plain, 9, text, y + HEIGHT - 16.5f * MM, chip.part(), room);
        float down = y + HEIGHT - 21.5f * MM;
        for (String line : lines) {
            write(stream, plain, 7, text, down, line, room);
            down -= 3.6f * MM;
        }
    }

    /** Shortened at the end where it does not fit; a character that the font lacks becomes a question mark. */
    private static void write(PDPageContentStream stream, PDFont font, float size, float x, float y,
            String text,
            float room) throws IOException {
        String said = drawable(font, text);
        while (said.length() > 1 && font.getStringWidth(said) / 1000 * size > room) {
            said = said.substring(0, said.length() - 1);
        }
        stream.beginText();
        stream.setFont(font, size);
        stream.newLineAtOffset(x, y);
        stream.showText(said);
        stream.endText();
    }

    private static String drawable(PDFont font, String text) throws IOException {
        var out = new StringBuilder();
        for (int code : text.codePoints().toArray()) {
            String one = Character.toString(code);
            try {
                font.encode(one);
                out.append(one);
            } catch (IllegalArgumentException e) {
                out.append('?');
            }
        }
        return out.toString();
    }

    private static BitMatrix code(String text) throws IOException {
        try {
            return new QRCodeWriter().encode(text, BarcodeFormat.QR_CODE, 0, 0, Map
                    .of(EncodeHintType.ERROR_CORRECTION, ErrorCorrectionLevel.Q, EncodeHintType.MARGIN, 2));
        } catch (WriterException e) {
            throw new IOException("the code of " + text + " cannot be drawn: " + e.getMessage(), e);
        }
    }
}
