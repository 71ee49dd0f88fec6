package org.greenbead.store;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import org.greenbead.core.bead.Aperture;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/**
 * A stencil as a drawing: SVG to look at and to cut, RS-274X (paste layer) for a maker. Seen from the side on which paste is spread, which is
 * the view from the balls: row A at the top, column 1 at the left. Millimetres throughout; the origin of RS-274X is the middle of the field.
 *
 * @param margin metal round the outermost openings, mm
 */
public record StencilDrawing(BeadMap map, Map<String, Aperture> openings, double thicknessMm, double margin) {
    /** An opening for every site. @throws IllegalArgumentException when two would touch */
    public static StencilDrawing of(BeadMap map, Opening opening, double thicknessMm, double marginMm) {
        Map<String, Aperture> openings = new LinkedHashMap<>();
        map.sites().forEach(s -> openings.put(s.name(), opening.of(s)));
        double widest = openings.values().stream().mapToDouble(Aperture::widthMm).max().orElse(0);
        if (map.sites().size() > 1 && widest > map.pitchMm() - LEAST_WEB_MM) {
            throw new IllegalArgumentException(String.format(Locale.ROOT,
                    "openings of %.3f mm leave %.3f mm of metal between them at a pitch of %.3f mm; %.2f mm and more are needed. Choose a smaller opening or a thicker sheet",
                    widest, map.pitchMm() - widest, map.pitchMm(), LEAST_WEB_MM));
        }
        return new StencilDrawing(map, Map.copyOf(openings), thicknessMm, marginMm);
    }

    /** Below this a sheet tears; rule of thumb. */
    public static final double LEAST_WEB_MM = 0.08;

    /** The opening of a site. */
    public interface Opening {
        Aperture of(Site site);
    }

    private double left() {
        return map.sites().stream().mapToDouble(Site::xMm).min().orElse(0) - margin;
    }

    private double right() {
        return map.sites().stream().mapToDouble(Site::xMm).max().orElse(0) + margin;
    }

    private double low() {
        return map.sites().stream().mapToDouble(Site::yMm).min().orElse(0) - margin;
    }

    private double high() {
        return map.sites().stream().mapToDouble(Site::yMm).max().orElse(0) + margin;
    }

    /** Volume of paste that fills every opening once, mm³. */
    public double pasteMm3() {
        return openings.values().stream().mapToDouble(o -> o.volumeMm3(thicknessMm)).sum();
    }

    public String svg() {
        double w = right() - left();
        double h = high() - low();
        var out = new StringBuilder(String.format(Locale.ROOT,
                "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%.3fmm\" height=\"%.3fmm\" viewBox=\"0 0 %.3f %.3f\">%n",
                w, h,
                w, h));
        out.append(String.format(Locale.ROOT, "<title>stencil, %d openings, sheet %.3f mm</title>%n",
                map.sites().size(),
                thicknessMm));
        out.append(String.format(Locale.ROOT,
                "<rect id=\"sheet\" x=\"0\" y=\"0\" width=\"%.3f\" height=\"%.3f\" fill=\"none\" stroke=\"black\" stroke-width=\"0.05\"/>%n",
                w, h));
        double mark = Math.min(margin * 0.5, 1.2);
        out.append(String.format(Locale.ROOT,
                "<path id=\"pin1\" d=\"M %.3f %.3f l %.3f 0 l %.3f %.3f z\" fill=\"none\" stroke=\"black\" stroke-width=\"0.05\"/>%n",
                0.2 * mark, 0.2 * mark, mark, -mark, mark));
        out.append("<g id=\"openings\" fill=\"black\">\n");
        for (Site s : map.sites()) {
            double x = s.xMm() - left();
            double y = high() - s.yMm();
            switch (openings.get(s.name())) {
                case Aperture.Round r -> out.append(String.format(Locale.ROOT,
                        "<circle id=\"%s\" cx=\"%.4f\" cy=\"%.4f\" r=\"%.4f\"/>%n", s.name(), x, y,
                        r.diameterMm() / 2));
                case Aperture.Square q -> out.append(String.format(Locale.ROOT,
                        "<rect id=\"%s\" x=\"%.4f\" y=\"%.4f\" width=\"%.4f\" height=\"%.4f\" rx=\"%.4f\"/>%n",
                        s.name(),
                        x - q.sideMm() / 2, y - q.sideMm() / 2, q.sideMm(), q.sideMm(), q.radiusMm()));
            }
        }
        return out.append("</g>\n</svg>\n").toString();
    }

    /** RS-274X as the Gerber layer format specification has it: millimetres, 4.6 digits, flashes of round and of rounded square apertures. */
    public String gerber(LocalDate made) {
        var out = new StringBuilder("G04 stencil, paste layer, seen from the side of the paste*\n");
        out.append("%TF.CreationDate,").append(made)
                .append("T00:00:00Z*%\n%TF.FileFunction,Paste,Top*%\n%FSLAX46Y46*%\n%MOMM*%\n");
        Map<Aperture, Integer> codes = new LinkedHashMap<>();
        for (Site s : map.sites()) {
            codes.computeIfAbsent(openings.get(s.name()), o -> 10 + codes.size());
        }
        codes.forEach((opening, code) -> {
            switch (opening) {
                case Aperture.Round r ->
                    out.append(String.format(Locale.ROOT, "%%ADD%dC,%.6f*%%%n", code, r.diameterMm()));
                case Aperture.Square q when q.radiusMm() < 1e-9 -> out.append(
                        String.format(Locale.ROOT, "%%ADD%dR,%.6fX%.6f*%%%n", code, q.sideMm(), q.sideMm()));
                case Aperture.Square q -> {
                    double a = q.sideMm();
                    double r = q.radiusMm();
                    double c = a / 2 - r;
                    out.append(String.format(Locale.ROOT,
                            "%%AMRSQ%d*21,1,%.6f,%.6f,0,0,0*21,1,%.6f,%.6f,0,0,0*1,1,%.6f,%.6f,%.6f*1,1,%.6f,%.6f,%.6f*1,1,%.6f,%.6f,%.6f*1,1,%.6f,%.6f,%.6f*%%%n%%ADD%dRSQ%d*%%%n",
                            code, a, a - 2 * r, a - 2 * r, a, 2 * r, c, c, 2 * r, -c, c, 2 * r, c, -c, 2 * r,
                            -c, -c, code,
                            code));
                }
            }
        });
        codes.forEach((opening, code) -> {
            out.append("D").append(code).append("*\n");
            for (Site s : map.sites()) {
                if (openings.get(s.name()).equals(opening)) {
                    out.append(String.format(Locale.ROOT, "X%dY%dD03*%n", Math.round(s.xMm() * 1e6),
                            Math.round(s.yMm() * 1e6)));
                }
            }
        });
        return out.append("M02*\n").toString();
    }
}
