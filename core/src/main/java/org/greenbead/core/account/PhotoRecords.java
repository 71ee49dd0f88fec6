package org.greenbead.core.account;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.greenbead.core.inspect.BeadReport;
import org.greenbead.core.inspect.BeadState;
import org.greenbead.core.inspect.Change;
import org.greenbead.core.inspect.PadReport;
import org.greenbead.core.inspect.PadState;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Job;

/**
 * What photos say, as fields of records: how many, and each site with a fault by its name. A fault is written as
 * {@code B3 missing [DDR_A4]; C4 bridged C5}: the site, what is there, neighbours, the net in brackets where the bead map has one.
 */
public final class PhotoRecords {
    /** Fields of which a new photo takes the place of the old one's word even where it has nothing to say. */
    private static final List<String> FROM_PHOTO = List.of("faults", "unclear", "strays", "photo");
    /** What may stand at a site of the facts, as the vocabulary has it. */
    private static final Map<String, List<String>> KNOWN = Map.of("ball",
            List.of("missing", "small", "large", "displaced", "bridged"), "pad",
            List.of("bump", "missing_pad", "smear", "glue", "lifted", "missing", "scratched", "bridged"));

    private static final String SPARE = "spare";

    private PhotoRecords() {
    }

    /** Fields of a record of type {@code balls}. @param photo name of the file that was judged */
    public static Map<String, Object> balls(BeadReport report, BeadMap map, String photo) {
        Map<String, Object> fields = new LinkedHashMap<>();
        fields.put("count", (double) report.sites().size());
        fields.put("missing", (double) report.with(BeadState.MISSING).size());
        fields.put("bridged", (double) report.with(BeadState.BRIDGED).size());
        fields.put("spread_pct", rounded(report.spreadPct(), 10));
        fields.put("coplanar_mm", rounded(report.verdict().coplanarityMm(), 1000));
        fields.put("verified", report.doubt().isEmpty());
        fields.put("decision", small(report.verdict().act()));
        fields.put("unclear", (double) report.with(BeadState.UNKNOWN).size());
        fields.put("strays", (double) report.strays().size());
        fields.put("faults",
                String.join("; ",
                        report.sites().stream()
                                .filter(s -> s.state() != BeadState.OK && s.state() != BeadState.UNKNOWN)
                                .map(s -> fault(s.site(), s.state(), s.bridgedWith(), map)).toList()));
        fields.put("photo", photo);
        fields.values().removeIf(v -> v instanceof Double d && !Double.isFinite(d) || "".equals(v));
        return fields;
    }

    /**
     * Fields of a record of type {@code pads}. What is left on them stays unknown while any pad could not be judged and no fault was seen.
     */
    public static Map<String, Object> pads(PadReport report, BeadMap map, String photo) {
        Map<String, Object> fields = new LinkedHashMap<>();
        boolean unclear = !report.with(PadState.UNKNOWN).isEmpty();
        boolean solder = !report.with(PadState.BUMP).isEmpty() || !report.with(PadState.SMEAR).isEmpty();
        if (solder || !report.with(PadState.GLUE).isEmpty() || !unclear) {
            fields.put("residue",
                    solder ? "solder" : report.with(PadState.GLUE).isEmpty() ? "none" : "resin");
        }
        fields.put("sites", (double) report.sites().size());
        fields.put("unclear", (double) report.with(PadState.UNKNOWN).size());
        fields.put("faults",
                String.join("; ",
                        report.sites().stream()
                                .filter(s -> s.state() != PadState.OK && s.state() != PadState.UNKNOWN)
                                .map(s -> fault(s.site(), s.state(), spare(s, map), map)).toList()));
        fields.put("photo", photo);
        fields.values().removeIf(""::equals);
        return fields;
    }

    /** Fields of a record of type {@code comparison}. @param answered gone parts of which a record tells already */
    public static Map<String, Object> change(Change change, String before, String after, long answered) {
        Map<String, Object> fields = new LinkedHashMap<>();
        fields.put("before", before);
        fields.put("after", after);
        fields.put("lost", (double) change.vanished().size());
        fields.put("moved", (double) change.moved().size());
        fields.put("agreed_pct", rounded(100 * change.agreed(), 10));
        fields.put("answered", (double) answered);
        return fields;
    }

    /** The record that takes up what a photo says: over the one there is where a job has one of its type, what a photo does not say stays. */
    public static Kept record(Job job, String type, Map<String, Object> says, Instant at, String by) {
        Optional<Kept> there = RecordTypes.shipped().require(type).many()
                ? Optional.empty()
                : job.records(type).stream().findFirst();
        Map<String, Object> fields = new LinkedHashMap<>(there.map(Kept::fields).orElse(Map.of()));
        FROM_PHOTO.forEach(fields::remove);
        fields.putAll(says);
        return new Kept(there.map(Kept::id).orElseGet(() -> job.freeId(type)), type, at, by, fields);
    }

    /** Neighbours it is smeared with; and that nothing is connected, where the map says so: such a pad is no loss. */
    private static List<String> spare(PadReport.Seen seen, BeadMap map) {
        boolean spare = map.site(seen.site()).filter(s -> s.critical() == Site.Critical.SPARE).isPresent();
        var words = new ArrayList<>(seen.smearedWith());
        if (spare) {
            words.add(SPARE);
        }
        return words;
    }

    private static String fault(String site, Enum<?> state, List<String> with, BeadMap map) {
        var words = new ArrayList<String>();
        words.add(site);
        words.add(small(state));
        words.addAll(with);
        map.site(site).map(Site::net).filter(n -> !n.isBlank()).ifPresent(n -> words.add("[" + n + "]"));
        return String.join(" ", words);
    }

    private static String small(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static double rounded(double value, double steps) {
        return Math.round(value * steps) / steps;
    }

    /** Lays the faults of a field over the facts. @param part {@code ball} or {@code pad} */
    static void sites(FactTree tree, String faults, String part) {
        for (Fault fault : faults(faults)) {
            if (KNOWN.get(part).contains(fault.word())) {
                int at = tree.item("sites", "site", fault.site());
                tree.put("sites", at, "site", fault.site());
                tree.put("sites", at, part, fault.word());
                if (!fault.net().isEmpty()) {
                    tree.put("sites", at, "net", fault.net());
                }
            }
        }
    }

    /**
     * One fault as a record holds it.
     *
     * @param spare the map says that nothing is connected there
     * @param net   empty = not known
     */
    public record Fault(String site, String word, boolean spare, String net) {}

    /** The faults of a record's text; what is none is left out. */
    public static List<Fault> faults(String text) {
        var all = new ArrayList<Fault>();
        for (String fault : text.split(";")) {
            int bracket = fault.indexOf('[');
            String[] words = (bracket < 0 ? fault : fault.substring(0, bracket)).strip().split("\\s+");
            if (words.length > 1) {
                String net = bracket < 0 ? "" : fault.replaceAll(".*\\[(.*)].*", "$1").strip();
                all.add(new Fault(words[0], words[1].toLowerCase(Locale.ROOT),
                        List.of(words).contains(SPARE), net));
            }
        }
        return all;
    }
}
