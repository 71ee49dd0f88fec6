package org.greenbead.core.thermal;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Where a board is cut along one direction: on every edge of a package, finely across packages, wider away from them. */
final class GridLines {
    private static final double GROWTH = 0.5;

    private GridLines() {
    }

    /** A package along one direction, mm, and the cells wanted across it. */
    record Span(double fromMm, double toMm, int cells, boolean target) {}

    /**
     * @param largestMm no cell is wider
     * @return rising, from 0 to {@code lengthMm}
     */
    static double[] of(double lengthMm, List<Span> spans, double largestMm, Resolution resolution) {
        var edges = new ArrayList<Double>(List.of(0.0, lengthMm));
        spans.stream().sorted((a, b) -> Boolean.compare(b.target(), a.target())).forEach(span -> {
            add(edges, span.fromMm(), resolution.mergeMm());
            add(edges, span.toMm(), resolution.mergeMm());
        });
        double[] breaks = edges.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        var lines = new ArrayList<Double>(List.of(0.0));
        for (int i = 1; i < breaks.length; i++) {
            fill(lines, breaks[i - 1], breaks[i], spans, largestMm, resolution);
        }
        return lines.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static void add(List<Double> edges, double at, double mergeMm) {
        if (edges.stream().noneMatch(e -> Math.abs(e - at) < Math.max(1e-6, mergeMm))) {
            edges.add(at);
        }
    }

    /** Points at equal shares of the integral of 1/width, so that the widths change gently. */
    private static void fill(List<Double> lines, double from, double to, List<Span> spans, double largestMm,
            Resolution resolution) {
        int samples = 200;
        double[] cumulative = new double[samples + 1];
        double h = (to - from) / samples;
        for (int i = 0; i < samples; i++) {
            cumulative[i + 1] = cumulative[i]
                    + h / width(from + (i + 0.5) * h, spans, largestMm, resolution);
        }
        int cells = Math.max(1, (int) Math.ceil(cumulative[samples] - 0.2));
        for (int c = 1; c < cells; c++) {
            double goal = cumulative[samples] * c / cells;
            int i = Math.abs(Arrays.binarySearch(cumulative, goal) + 1) - 1;
            i = Math.clamp(i, 0, samples - 1);
            double share = (goal - cumulative[i]) / (cumulative[i + 1] - cumulative[i]);
            lines.add(from + (i + share) * h);
        }
        lines.add(to);
    }

    private static double width(double at, List<Span> spans, double largestMm, Resolution resolution) {
        double least = largestMm;
        for (Span span : spans) {
            double cell = Math.max(resolution.finestMm(), (span.toMm() - span.fromMm()) / span.cells());
            double away = Math.max(0, Math.max(span.fromMm() - at, at - span.toMm()));
            least = Math.min(least, cell + GROWTH * away);
        }
        return least;
    }
}
