package org.greenbead.core.account;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.electric.CurrentTrace;
import org.greenbead.core.electric.CurveCompare;
import org.greenbead.core.electric.CurveReference;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/** Start-up curves as records of a job, which boards a new one is compared with, and how it is said. */
public final class CurveRecords {
    /** When a curve was taken. */
    public enum Taken {
        BEFORE, AFTER,
        /** Of a board that is known to be good. */
        HEALTHY
    }

    private CurveRecords() {
    }

    /** Fields of a record of type {@code curve}. @param compared empty where there was nothing to compare with, @param boards healthy curves it was compared with */
    public static Map<String, Object> fields(CurrentTrace trace, Taken taken,
            Optional<CurveCompare.Compared> compared, int boards, String file) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("taken", small(taken));
        out.put("outcome", compared.map(c -> small(c.outcome())).orElse("no_reference"));
        compared.flatMap(CurveCompare.Compared::first).ifPresent(d -> {
            out.put("stage", (double) d.stage().number());
            out.put("how", small(d.kind()));
            out.put("at_s", rounded(d.atS(), 10));
            out.put("found", rounded(d.found(), 1000));
            out.put("usual", rounded(d.usual(), 1000));
        });
        compared.filter(c -> !c.stages().isEmpty())
                .ifPresent(c -> out.put("of_stages", (double) c.stages().size()));
        out.put("peak_a", rounded(trace.peakA(), 1000));
        out.put("seconds", rounded(trace.durationS(), 10));
        trace.under().supplyV().ifPresent(v -> out.put("supply_v", v));
        trace.under().limitA().ifPresent(a -> out.put("limit_a", a));
        if (!trace.under().unitState().isEmpty()) {
            out.put("unit_state", trace.under().unitState());
        }
        out.put("boards", (double) boards);
        out.put("file", file);
        out.values().removeIf(v -> v instanceof Double d && !Double.isFinite(d));
        return out;
    }

    /**
     * Files of the curves of healthy boards of one type: those noted as healthy, and those after work that started as healthy ones do.
     *
     * @param except the curve in hand, which is no proof of itself
     */
    public static List<String> healthy(List<Job> jobs, String board, String except) {
        var out = new ArrayList<String>();
        for (Job job : jobs) {
            for (Kept curve : job.board().equals(board) ? job.records("curve") : List.<Kept>of()) {
                boolean good = curve.text("taken").equals("healthy")
                        || curve.text("taken").equals("after") && curve.text("outcome").equals("alike");
                String file = curve.text("file");
                if (good && !file.isEmpty() && !file.equals(except) && !out.contains(file)) {
                    out.add(file);
                }
            }
        }
        return List.copyOf(out);
    }

    /** One line: what it comes to. */
    public static String said(CurveCompare.Compared compared, Words words) {
        return compared.first().map(d -> said(d, compared.stages().size(), words))
                .orElseGet(() -> words.say("curveoutcome." + small(compared.outcome())));
    }

    /** {@code Stage 3 of 5, peak: it stays there and does not go on, 12.0 s after switching on (0.58 A, usual 1.35 A)}. */
    public static String said(CurveCompare.Departure d, int stages, Words words) {
        boolean length = switch (d.kind()) {
            case STAYS, LONGER, SHORTER, MISSING -> true;
            default -> false;
        };
        String unit = length ? "s" : "A";
        return String.format(Locale.ROOT,
                length
                        ? "Stage %d of %d, %s: %s%s (%.1f %s, usual %.1f %s)"
                        : "Stage %d of %d, %s: %s%s (%.2f %s, usual %.2f %s)",
                d.stage().number(), Math.max(stages, d.stage().number()), stage(d.stage(), words),
                words.say("curvehow." + small(d.kind())),
                d.atS() > 0 ? String.format(Locale.ROOT, ", %.1f s after switching on", d.atS()) : "",
                d.found(), unit, d.usual(), unit);
    }

    public static String stage(CurveReference.Stage stage, Words words) {
        return words.say("curvestage." + small(stage.kind()));
    }

    private static String small(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static double rounded(double value, double steps) {
        return Math.round(value * steps) / steps;
    }
}
