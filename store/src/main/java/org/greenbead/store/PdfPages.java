package org.greenbead.store;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;

/** The pages of a PDF as pictures, to look at before it is handed out. */
public final class PdfPages {
    private PdfPages() {
    }

    /** @param dpi dots an inch, 72 = one a point */
    public static List<BufferedImage> of(byte[] pdf, float dpi) throws IOException {
        try (var document = Loader.loadPDF(pdf)) {
            var renderer = new PDFRenderer(document);
            var pages = new ArrayList<BufferedImage>();
            for (int i = 0; i < document.getNumberOfPages(); i++) {
                pages.add(renderer.renderImageWithDPI(i, dpi, ImageType.RGB));
            }
            return List.copyOf(pages);
        }
    }
}
