package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.parsers.DocumentBuilderFactory;
import org.greenbead.core.bead.Aperture;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import org.w3c.dom.Element;

/** The drawing of a stencil, read back by parsers that know nothing of what wrote it. */
public class StencilDrawingTest {
    private static final BeadMap MAP = BeadMap.grid(7, 9, 0.8, java.util.Optional.of(0.45))
            .without("C4", "E6")
            .without("A1", "A1");

    /** What a Gerber reader would flash: place and area, from the text alone. */
    private static Map<String, Double> flashed(String gerber) {
        assertTrue(gerber.contains("%MOMM*%"), "millimetres");
        Matcher format = Pattern.compile("%FSLAX(\\d)(\\d)Y(\\d)(\\d)\\*%").matcher(gerber);
        assertTrue(format.find());
        double unit = Math.pow(10, -Integer.parseInt(format.group(2)));
        Map<String, double[][]> macros = new HashMap<>();
        Matcher macro = Pattern.compile("%AM(\\w+)\\*([^%]*)%").matcher(gerber);
        while (macro.find()) {
            macros.put(macro.group(1), java.util.Arrays.stream(macro.group(2).split("\\*"))
                    .map(p -> java.util.Arrays.stream(p.split(",")).mapToDouble(Double::parseDouble)
                            .toArray())
                    .toArray(double[][]::new));
        }
        Map<Integer, Double> area = new HashMap<>();
        Matcher aperture = Pattern.compile("%ADD(\\d+)(\\w+?)(?:,([\\d.X]+))?\\*%").matcher(gerber);
        while (aperture.find()) {
            double size = aperture.group(3) == null ? 0 : Double.parseDouble(aperture.group(3).split("X")[0]);
            area.put(Integer.parseInt(aperture.group(1)), switch (aperture.group(2)) {
                case "C" -> Math.PI / 4 * size * size;
                case "R" -> size * size;
                default -> rounded(macros.get(aperture.group(2)));
            });
        }
        Map<String, Double> seen = new HashMap<>();
        int now = -1;
        for (String word : gerber.lines().toList()) {
            Matcher select = Pattern.compile("D(\\d\\d+)\\*").matcher(word);
            Matcher flash = Pattern.compile("X(-?\\d+)Y(-?\\d+)D03\\*").matcher(word);
            if (select.matches()) {
                now = Integer.parseInt(select.group(1));
            } else if (flash.matches()) {
                seen.put(key(Long.parseLong(flash.group(1)) * unit, Long.parseLong(flash.group(2)) * unit),
                        area.get(now));
            }
        }
        assertTrue(gerber.endsWith("M02*\n"));
        return seen;
    }

    /** Area of two crossed rectangles with a disc in each corner, counted on a grid. */
    private static double rounded(double[][] primitives) {
        int hits = 0;
        int n = 600;
        double span = 2;
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                double x = (i + 0.5) / n * span - span / 2;
                double y = (j + 0.5) / n * span - span / 2;
                for (double[] p : primitives) {
                    boolean in = p[0] == 21
                            ? Math.abs(x - p[4]) < p[2] / 2 && Math.abs(y - p[5]) < p[3] / 2
                            : Math.hypot(x - p[3], y - p[4]) < p[2] / 2;
                    if (in) {
                        hits++;
                        break;
                    }
                }
            }
        }
        return hits * span * span / n / n;
    }

    private static String key(double x, double y) {
        return String.format(Locale.ROOT, "%.3f %.3f", x + 0.0, y + 0.0);
    }

    @DataProvider
    Object[][] openings() {
        return new Object[][]{{new Aperture.Round(0.55)}, {new Aperture.Square(0.5, 0)},
                {new Aperture.Square(0.5, 0.08)}};
    }

    @Test(dataProvider = "openings")
    public void gerberReadsBackAsTheMap(Aperture opening) {
        StencilDrawing drawing = StencilDrawing.of(MAP, s -> opening, 0.12, 4);
        Map<String, Double> seen = flashed(drawing.gerber(LocalDate.of(2026, 3, 1)));
        var expected = new TreeSet<String>();
        MAP.sites().forEach(s -> expected.add(key(s.xMm(), s.yMm())));
        assertEquals(new TreeSet<>(seen.keySet()), expected);
        seen.values().forEach(a -> assertEquals(a, opening.areaMm2(), 0.003));
        assertEquals(drawing.pasteMm3(), MAP.sites().size() * opening.areaMm2() * 0.12, 1e-9);
    }

    /** In the SVG row A is at the top; its openings lie as the map has them, and no other shape is filled. */
    @Test(dataProvider = "openings")
    public void svgShowsTheSame(Aperture opening) throws Exception {
        String svg = StencilDrawing.of(MAP, s -> opening, 0.12, 4).svg();
        var document = DocumentBuilderFactory.newInstance().newDocumentBuilder()
                .parse(new ByteArrayInputStream(svg.getBytes(StandardCharsets.UTF_8)));
        Element sheet = document.getElementById("sheet") == null
                ? (Element) document.getElementsByTagName("rect").item(0)
                : document.getElementById("sheet");
        double height = Double.parseDouble(sheet.getAttribute("height"));
        double width = Double.parseDouble(sheet.getAttribute("width"));
        assertEquals(width, 8 * 0.8 + 8, 1e-3);
        var group = (Element) document.getElementsByTagName("g").item(0);
        int found = 0;
        for (Site s : MAP.sites()) {
            for (int i = 0; i < group.getChildNodes().getLength(); i++) {
                if (group.getChildNodes().item(i) instanceof Element e
                        && e.getAttribute("id").equals(s.name())) {
                    boolean round = e.getTagName().equals("circle");
                    double x = round
                            ? Double.parseDouble(e.getAttribute("cx"))
                            : Double.parseDouble(e.getAttribute("x"))
                                    + Double.parseDouble(e.getAttribute("width")) / 2;
                    double y = round
                            ? Double.parseDouble(e.getAttribute("cy"))
                            : Double.parseDouble(e.getAttribute("y"))
                                    + Double.parseDouble(e.getAttribute("height")) / 2;
                    assertEquals(x - width / 2, s.xMm(), 1e-3);
                    assertEquals(height / 2 - y, s.yMm(), 1e-3);
                    found++;
                }
            }
        }
        assertEquals(found, MAP.sites().size());
    }

    @Test
    public void openingsThatTouchAreRefused() {
        String said = expectThrows(IllegalArgumentException.class,
                () -> StencilDrawing.of(MAP, s -> new Aperture.Round(0.78), 0.12, 4)).getMessage();
        assertTrue(said.contains("0.020 mm of metal") && said.contains("smaller opening"), said);
    }
}
