package org.greenbead.core.account;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.greenbead.core.bead.EdgeGap;
import org.greenbead.core.electric.Pad;
import org.greenbead.core.electric.Rails;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.Tested;
import org.greenbead.core.refit.RefitSheet;
import org.greenbead.core.travel.DonorFit;

/** What several records of a job say together: counts, sums, the worst, the last. */
final class Counted {
    /** Pictures of a board that is taken in: both its sides. */
    private static final List<String> INTAKE_VIEWS = List.of("board_top", "board_underside");
    /** Faces of a stack of two: bottom and top of the lower, bottom of the upper, the board's own. */
    private static final int FACES_OF_A_STACK = 4;

    /** A pad that is off the board, or will be. */
    private static final Set<String> LOOSE = Set.of("lifted", "missing_pad", "missing");

    private final FactTree tree;
    private final List<Kept> records;

    private Counted(FactTree tree, List<Kept> records) {
        this.tree = tree;
        this.records = records;
    }

    static void say(FactTree tree, List<Kept> records) {
        var counted = new Counted(tree, records);
        counted.screws();
        counted.pads();
        counted.compared();
        counted.pictures();
        counted.rails();
        counted.tests();
        counted.curves();
        counted.diagnosis();
        counted.data();
        counted.faces();
        counted.coverings();
        counted.costs();
        counted.bench();
        counted.inspection();
        counted.heats();
        counted.smallParts();
    }

    private List<Kept> of(String type) {
        List<Kept> found = RecordFacts.of(records, type);
        if (!found.isEmpty()) {
            tree.from(Origin.Source.COMPUTED, found.size() == 1
                    ? "record " + found.getFirst().id()
                    : "records " + found.getFirst().id() + " to " + found.getLast().id());
        }
        return found;
    }

    private static double count(List<Kept> some, Predicate<Kept> which) {
        return some.stream().filter(which).count();
    }

    private void screws() {
        List<Kept> screws = of("screw");
        if (screws.isEmpty()) {
            return;
        }
        tree.putIfAbsent("screws.out", count(screws, s -> s.yes("out")));
        if (screws.stream().anyMatch(s -> s.noted("in").isPresent())) {
            tree.putIfAbsent("screws.in", count(screws, s -> s.yes("in")));
        }
        tree.putIfAbsent("screws.length_by_hole",
                screws.stream().allMatch(s -> s.noted("length_mm").isPresent()));
        screws.stream().map(s -> s.text("torque")).filter(t -> !t.isEmpty()).findFirst()
                .ifPresent(t -> tree.putIfAbsent("screws.torque", t));
    }

    private void pads() {
        List<Kept> pads = of("pad");
        if (!pads.isEmpty()) {
            tree.putIfAbsent("pads.seen", true);
        }
        for (Kept field : of("pads")) {
            tree.putIfAbsent("pads.seen", true);
            PhotoRecords.sites(tree, field.text("faults"), "pad");
        }
        for (Kept field : of("balls")) {
            PhotoRecords.sites(tree, field.text("faults"), "ball");
            tree.putIfAbsent("balls.debris", field.number("strays"));
        }
        for (Kept pad : of("pad")) {
            int at = tree.item("sites", "site", pad.text("site"));
            tree.put("sites", at, "site", pad.text("site"));
            tree.put("sites", at, "pad", pad.noted("kind").orElse(null));
            tree.put("sites", at, "net", pad.text("net").isEmpty() ? null : pad.text("net"));
        }
        List<Map<String, Object>> loose = tree.items("sites").stream()
                .filter(s -> LOOSE.contains(String.valueOf(s.get("pad")))).toList();
        if (!pads.isEmpty() || !loose.isEmpty()) {
            tree.putIfAbsent("pads.loose_count", (double) loose.size());
            tree.putIfAbsent("pads.loose_mapped", loose.stream().allMatch(s -> s.get("net") != null));
        }
        Map<String, Pad> damaged = new LinkedHashMap<>();
        of("pads").stream().reduce((a, b) -> b).map(p -> PhotoRecords.faults(p.text("faults")))
                .orElse(List.of()).stream().map(RecordFacts::pad)
                .filter(p -> p.damage() != Pad.Damage.NONE).forEach(p -> damaged.put(p.site(), p));
        pads.stream().map(RecordFacts::pad).forEach(p -> damaged.put(p.site(), p));
        if (!damaged.isEmpty()) {
            measured(List.copyOf(damaged.values()));
        }
    }

    /** What a meter said of damaged pads, and of which it was not asked. */
    private void measured(List<Pad> pads) {
        tree.from(Origin.Source.COMPUTED, "the photo and the records of pads");
        Map<String, Pad.Verdict> of = Map.of("open", Pad.Verdict.OPEN, "unread", Pad.Verdict.UNREAD, "short",
                Pad.Verdict.SHORTED, "leak", Pad.Verdict.LEAKS, "uncovered", Pad.Verdict.UNCOVERED);
        of.forEach((word, verdict) -> {
            List<String> sites = pads.stream().filter(p -> p.verdict() == verdict).map(Pad::site).toList();
            tree.put("pads." + word + "_count", (double) sites.size());
            tree.put("pads." + word + "_sites", sites.isEmpty() ? null : String.join(", ", sites));
        });
    }

    /** The last two photos that were laid over one another; what they show as gone is answered by records of small parts. */
    private void compared() {
        List<Kept> compared = of("comparison");
        if (compared.isEmpty()) {
            return;
        }
        Kept last = compared.getLast();
        tree.putIfAbsent("photo.lost", last.number("lost"));
        tree.putIfAbsent("photo.moved", last.number("moved"));
        double before = Double.isFinite(last.number("answered")) ? last.number("answered") : 0;
        long since = RecordFacts.of(records, "small_part").stream().filter(r -> !r.at().isBefore(last.at()))
                .count();
        tree.putIfAbsent("photo.lost_open", Math.max(0, last.number("lost") - before - since));
        tree.putIfAbsent("photo.missing", 0.0);
    }

    private void pictures() {
        List<Kept> pictures = of("picture");
        if (pictures.isEmpty()) {
            return;
        }
        Set<String> views = pictures.stream().map(p -> p.text("view")).collect(Collectors.toSet());
        tree.putIfAbsent("intake.photos", (double) pictures.size());
        tree.putIfAbsent("intake.board_photo", views.stream().anyMatch(v -> v.startsWith("board")));
        tree.putIfAbsent("intake.photos_missing",
                (double) INTAKE_VIEWS.stream().filter(v -> !views.contains(v)).count());
        seen(views, "orientation", "orientation.photo");
        seen(views, "stencil", "stencil.photo");
        seen(views, "pads", "pads.seen");
        seen(views, "pads_clean", "pads.flat_photo");
        seen(views, "chip_pads", "pads.chip_photo");
        if (views.contains("neighbours")) {
            tree.putIfAbsent("photo.missing", views.contains("neighbours_after") ? 0.0 : 1.0);
        }
    }

    private void seen(Set<String> views, String view, String path) {
        if (views.contains(view)) {
            tree.putIfAbsent(path, true);
        }
    }

    /** Rails before the work against their reference, and after it against the reference or else what they were. */
    private void rails() {
        List<Kept> noted = of("rail");
        if (noted.isEmpty()) {
            return;
        }
        List<Rails.Rail> before = RecordFacts.rails(records);
        Rails.Compared compared = Rails.compare(before);
        if (compared.read() > 0) {
            tree.putIfAbsent("rails.worst_deviation_pct", compared.worstDeviationPct());
        }
        tree.putIfAbsent("rails.count", count(noted, r -> Double.isFinite(r.number("ohm"))));
        tree.putIfAbsent("rails.missing",
                count(noted, r -> Double.isNaN(r.number("ohm")) && Double.isNaN(r.number("after_ohm"))));
        tree.putIfAbsent("rails.tolerance_pct", noted.stream().map(r -> r.number("tolerance_pct"))
                .filter(Double::isFinite).max(Double::compare).orElse(null));
        if (noted.stream().anyMatch(r -> Double.isFinite(r.number("second_ohm")))) {
            tree.putIfAbsent("rails.second", "read again");
        }
        tree.putIfAbsent("rails.after_count", count(noted, r -> Double.isFinite(r.number("after_ohm"))));
        List<Rails.After> again = noted.stream().filter(r -> Double.isFinite(r.number("after_ohm")))
                .map(r -> RecordFacts.railAfter(r, RecordFacts.rail(r), Double.NaN))
                .toList();
        List<Rails.Rail> after = again.stream().filter(a -> !a.verdict().unsure()).map(Rails.After::rail)
                .toList();
        if (!again.isEmpty()) {
            tree.putIfAbsent("rails.after_unsure",
                    (double) again.stream().filter(a -> a.verdict().unsure()).count());
            tree.putIfAbsent("rails.after_worst_pct", Rails.compare(after).worstDeviationPct());
            tree.putIfAbsent("rails.after_shorts",
                    (double) after.stream().filter(r -> r.verdict() == Rails.Verdict.SHORT).count());
        }
    }

    /** Of several tests of one thing the last counts, however its words are written; one that failed fails the whole. */
    private void tests() {
        List<Kept> tests = of("tested");
        if (tests.isEmpty()) {
            return;
        }
        Map<String, Kept> last = Tested.last(tests);
        tree.putIfAbsent("test.symptoms_open", count(RecordFacts.of(records, "symptom"),
                s -> !Optional.ofNullable(last.get(Tested.plain(s.text("words")))).map(t -> t.text("result"))
                        .orElse("").equals("pass")));
        boolean failed = last.values().stream().anyMatch(t -> t.text("result").equals("fail"));
        boolean passed = last.values().stream().anyMatch(t -> t.text("result").equals("pass"));
        if (failed || passed) {
            tree.putIfAbsent("test.result", failed ? "fail" : "pass");
            tree.putIfAbsent("test.powered", !RecordFacts.of(records, "baseline").isEmpty());
            tree.putIfAbsent("test.first_power_card",
                    RecordFacts.of(records, "baseline").stream()
                            .anyMatch(b -> Double.isFinite(b.number("limit_a"))));
        }
        tree.putIfAbsent("test.functions_open",
                count(List.copyOf(last.values()), t -> t.text("result").equals("not_tested")));
        tree.putIfAbsent("test.halves_passed", (double) last.values().stream()
                .filter(t -> t.text("result").equals("pass")).map(t -> t.text("half"))
                .filter(h -> h.equals("upper") || h.equals("lower")).distinct().count());
        last.values().stream().map(t -> t.text("configuration")).filter(c -> !c.isEmpty())
                .reduce((a, b) -> b).ifPresent(c -> tree.putIfAbsent("test.configuration", c));
        last.values().stream().map(t -> t.number("minutes")).filter(Double::isFinite)
                .max(Double::compare).ifPresent(m -> tree.putIfAbsent("test.minutes", m));
        tree.putIfAbsent("report.claims_unshown", RecordFacts.of(records, "symptom").stream()
                .anyMatch(s -> Boolean.FALSE.equals(s.noted("reproduced").orElse(null))
                        && Optional.ofNullable(last.get(Tested.plain(s.text("words"))))
                                .filter(t -> t.text("result").equals("pass")).isPresent()
                        && RecordFacts.of(records, "disclosure").stream()
                                .noneMatch(d -> !d.text("untested").isEmpty())));
    }

    /** Pressure that was held: the last time after the work, and before it. */
    private void leaks() {
        List<Kept> holds = of("leak");
        if (holds.isEmpty()) {
            return;
        }
        tree.putIfAbsent("enclosure.leak_tested", true);
        holds.stream().filter(h -> h.text("taken").equals("before")).reduce((a, b) -> b)
                .flatMap(LeakRecords::hold).ifPresent(h -> {
                    tree.from(Origin.Source.COMPUTED, "pressures on record");
                    tree.put("enclosure.leak_before_pa_s", LeakRecords.rounded(h.ratePaS()));
                });
        holds.stream().filter(h -> !h.text("taken").equals("before")).reduce((a, b) -> b)
                .ifPresent(last -> LeakRecords.hold(last).ifPresent(h -> {
                    tree.from(Origin.Source.COMPUTED, "record " + last.id());
                    tree.put("enclosure.leak_pa_s", LeakRecords.rounded(h.ratePaS()));
                    tree.put("enclosure.leak_sd_pa_s", LeakRecords.rounded(h.rateSdPaS()));
                    if (last.number("limit_pa_s") > 0) {
                        tree.put("enclosure.leak_verdict",
                                h.against(last.number("limit_pa_s")).name().toLowerCase(Locale.ROOT));
                    }
                }));
    }

    /** How hard a panel is pressed, and what a screw bears. */
    private void refit() {
        RefitSheet sheet = RefitSheet.of(records);
        of("enclosure").stream().reduce((a, b) -> b).ifPresent(last -> {
            tree.from(Origin.Source.COMPUTED, "record " + last.id());
            sheet.laidKpa().ifPresent(kpa -> tree.put("enclosure.press_kpa", LeakRecords.rounded(kpa)));
            sheet.wantedKg().ifPresent(kg -> tree.put("enclosure.press_wanted_kg", LeakRecords.rounded(kg)));
        });
        of("fastening").stream().reduce((a, b) -> b).ifPresent(last -> {
            tree.from(Origin.Source.COMPUTED, "record " + last.id());
            sheet.drivenNm().ifPresent(nm -> tree.put("screws.torque_nm", LeakRecords.rounded(nm)));
            sheet.mostNm().ifPresent(nm -> tree.put("screws.torque_most_nm", LeakRecords.rounded(nm)));
        });
    }

    /** What is missing, or is no figure, reckons nothing. */
    private void reckoned(Kept from, Runnable put) {
        try {
            tree.from(Origin.Source.COMPUTED, "record " + from.id());
            put.run();
        } catch (IllegalArgumentException e) {
            // The record stands as it was written; nothing is computed from it.
        }
    }

    /** How the unit started, the last time that it was recorded after the work. */
    private void curves() {
        List<Kept> curves = of("curve");
        if (curves.isEmpty()) {
            return;
        }
        tree.putIfAbsent("curve.samples", count(curves, c -> !c.text("taken").equals("healthy")));
        tree.putIfAbsent("curve.single_value", false);
        curves.stream().filter(c -> c.text("taken").equals("before")).reduce((x, y) -> y)
                .ifPresent(last -> tree.put("curve.before",
                        List.of("alike", "departs").contains(last.text("outcome"))
                                ? last.text("outcome")
                                : "open"));
        curves.stream().filter(c -> c.text("taken").equals("after")).reduce((a, b) -> b).ifPresent(last -> {
            tree.from(Origin.Source.COMPUTED, "record " + last.id());
            String outcome = last.text("outcome");
            tree.put("curve.after",
                    outcome.equals("alike") || outcome.equals("departs") ? outcome : "open");
            last.noted("stage").ifPresent(s -> tree.put("curve.stage", s));
            last.noted("how").ifPresent(h -> tree.put("curve.how", String.valueOf(h).replace('_', ' ')));
        });
    }

    /** What speaks for a fault: each kind of reading that was taken before the work. */
    private void diagnosis() {
        var evidence = new java.util.ArrayList<String>();
        List<Kept> baselines = of("baseline");
        for (Kept baseline : baselines) {
            boolean peak = Double.isFinite(baseline.number("peak_a"));
            boolean settled = Double.isFinite(baseline.number("settle_a"));
            if (peak || settled) {
                evidence.add("current");
                tree.putIfAbsent("curve.single_value", peak != settled);
            }
            if (!baseline.text("codes").isEmpty() && !baseline.text("codes").equals(BlinkCodes.NONE)) {
                evidence.add("code");
            }
        }
        BlinkCodes codes = BlinkCodes.of(baselines);
        codes.stands().ifPresent(stands -> {
            tree.put("diagnosis.code_stands", stands);
            tree.put("diagnosis.code_after", codes.after().orElseThrow());
        });
        List<Kept> curves = of("curve").stream().filter(c -> c.text("taken").equals("before")).toList();
        if (!curves.isEmpty()) {
            evidence.add("curve");
        }
        List<Kept> rails = of("rail");
        double read = count(rails, r -> Double.isFinite(r.number("ohm")));
        if (read > 0) {
            evidence.add("rail");
        }
        List<Kept> symptoms = of("symptom");
        List<String> changes = symptoms.stream().map(c -> c.fields().get("changes_with"))
                .filter(List.class::isInstance).flatMap(l -> ((List<?>) l).stream()).map(String::valueOf)
                .distinct()
                .toList();
        tree.putIfAbsent("diagnosis.changes_with", changes.isEmpty() ? null : changes);
        double tried = count(symptoms, s -> !s.text("test").isEmpty() || s.yes("reproduced"));
        if (tried > 0 || of("chip").stream().anyMatch(c -> !c.text("health_test").isEmpty())) {
            evidence.add("measurement");
        }
        if (symptoms.isEmpty() && baselines.isEmpty() && rails.isEmpty() && curves.isEmpty()) {
            return;
        }
        tree.from(Origin.Source.COMPUTED, "symptoms, rails and currents on record");
        tree.putIfAbsent("diagnosis.evidence", List.copyOf(evidence));
        tree.putIfAbsent("diagnosis.evidence_count", (double) evidence.size());
        tree.putIfAbsent("diagnosis.own_tests", tried + read);
        tree.putIfAbsent("report.before_measured",
                !evidence.isEmpty() || symptoms.stream().anyMatch(s -> !s.text("before").isEmpty()));
    }

    /** Copies of the data, and the set that travels with it. */
    private void data() {
        List<Kept> copies = of("copy");
        if (!copies.isEmpty()) {
            tree.put("job.backup", copies.stream().anyMatch(c -> Boolean.FALSE.equals(
                    c.noted("verified").orElse(null)))
                            ? "attested"
                            : copies.stream().anyMatch(c -> c.yes("verified")) ? "verified" : "attested");
        }
        List<Kept> set = of("transplant");
        if (copies.isEmpty() && set.stream().anyMatch(t -> t.yes("copied"))) {
            tree.put("job.backup",
                    set.stream().filter(t -> t.yes("copied")).allMatch(t -> t.yes("verified"))
                            ? "verified"
                            : "attested");
        }
        if (!set.isEmpty()) {
            tree.putIfAbsent("plan.travel_missing", count(set, t -> t.yes("must") && !t.yes("moves")));
            tree.putIfAbsent("plan.travel_illegal", count(set, t -> t.yes("never") && t.yes("moves")));
        }
        donor();
    }

    /** Whether the donor fits, by what is noted of both; what differs outweighs anybody's yes. */
    private void donor() {
        List<Kept> units = of("unit");
        List<Kept> donors = of("donor");
        if (units.isEmpty() || donors.isEmpty()) {
            return;
        }
        DonorFit fit = DonorFit.of(units.getLast(), donors.getLast());
        tree.from(Origin.Source.COMPUTED,
                "records " + units.getLast().id() + " and " + donors.getLast().id());
        fit.fits().ifPresent(fits -> {
            if (!fits) {
                tree.put("donor.matches", false);
                tree.put("donor.differs", String.join(", ", fit.differ()).replace('_', ' '));
            } else {
                tree.putIfAbsent("donor.matches", true);
            }
        });
    }

    private void faces() {
        List<Kept> faces = of("face");
        if (!faces.isEmpty()) {
            double done = count(faces, f -> f.yes("done"));
            tree.putIfAbsent("chip.faces_open", Math.max(0, Math.max(FACES_OF_A_STACK, faces.size()) - done));
        }
    }

    private void coverings() {
        List<Kept> covers = of("covering");
        for (Kept cover : covers) {
            String done = cover.text("done");
            switch (cover.text("what")) {
                case "shield" -> {
                    tree.putIfAbsent("shield.opened", !done.isEmpty());
                    if (done.equals("cut") || done.equals("removed")) {
                        tree.putIfAbsent("shield.off", true);
                    } else if (!done.isEmpty()) {
                        tree.put("shield.back", true);
                    }
                    if (done.equals("cut")) {
                        tree.put("shield.method", "cut");
                    }
                    tree.put("shield.disclosed", cover.noted("disclosed").orElse(null));
                }
                case "glue" -> {
                    tree.putIfAbsent("board.corner_bond", true);
                    if (done.equals("removed") || done.equals("cut")) {
                        tree.putIfAbsent("board.glue_off", true);
                    }
                }
                case "heat_compound" -> {
                    tree.putIfAbsent("thermal.sink_removed", true);
                    tree.putIfAbsent("thermal.refreshed", done.equals("replaced"));
                }
                default -> {
                    // A sticker or a liner says nothing to the heat.
                }
            }
        }
    }

    private void costs() {
        List<Kept> costs = of("cost");
        if (costs.isEmpty()) {
            return;
        }
        Map<String, Double> price = costs.stream().filter(c -> Double.isFinite(c.number("price")))
                .collect(Collectors.groupingBy(c -> c.text("kind"),
                        Collectors.summingDouble(c -> c.number("price"))));
        tree.putIfAbsent("job.labour_min", costs.stream().map(c -> c.number("attended_min"))
                .filter(Double::isFinite).mapToDouble(m -> m).sum());
        costs.stream().map(c -> c.number("rate")).filter(Double::isFinite).findFirst()
                .ifPresent(r -> tree.putIfAbsent("job.rate_per_hour", r));
        tree.putIfAbsent("job.part_price", price.get("part"));
        tree.putIfAbsent("job.freight", price.getOrDefault("freight", 0.0));
        tree.putIfAbsent("job.risk_cost", price.getOrDefault("risk", 0.0));
    }

    /** Leads, stations, ovens, donors. */
    private void bench() {
        for (Kept station : of("station")) {
            double offset = station.number("offset_c");
            tree.putIfAbsent("station.set_drift_c", station.number("read_c") - station.number("set_c")
                    - (Double.isFinite(offset) ? offset : 0));
        }
        of("bake").stream().map(r -> r.number("c")).filter(Double::isFinite).max(Double::compare)
                .ifPresent(c -> tree.putIfAbsent("heater.on_c", c));
        List<Kept> connectors = of("connector");
        if (!connectors.isEmpty()) {
            List<String> open = Tried.unplugged(records);
            tree.putIfAbsent("test.unplugged_open", (double) open.size());
            tree.putIfAbsent("test.unplugged", open.isEmpty() ? null : String.join(", ", open));
            tree.putIfAbsent("board.flex_attached",
                    count(connectors, c -> Boolean.FALSE.equals(c.noted("undone").orElse(null))));
        }
        leaks();
        refit();
        for (Kept power : of("power")) {
            if (List.of("out", "none").contains(power.text("battery"))) {
                tree.putIfAbsent("board.cell_off", true);
            }
        }
        for (Kept mill : of("mill")) {
            tree.putIfAbsent("mill.stop_depth", Double.isFinite(mill.number("stop_depth_mm")));
            tree.putIfAbsent("ppe.dust_control", mill.noted("dust_control").orElse(null));
        }
        of("donor");
        if (tree.yes("donor.tested")) {
            tree.putIfAbsent("chip.donor_test", "tested in its donor");
        }
        List<Kept> notes = of("run_note");
        if (!notes.isEmpty()) {
            Kept latest = notes.getLast();
            double blanks = List.of("nozzle", "distance_mm", "motion").stream()
                    .filter(f -> latest.noted(f).isEmpty()).count();
            // A note of something else is no note of the air.
            tree.putIfAbsent("run.blanks", blanks == 3 ? 0.0 : blanks);
        }
    }

    /** What the edges of the seated chip show. */
    private void inspection() {
        for (Kept look : of("inspection")) {
            double[] gaps = List.of("gap_n_mm", "gap_e_mm", "gap_s_mm", "gap_w_mm").stream()
                    .mapToDouble(look::number).filter(Double::isFinite).toArray();
            String verdict = look.text("disposition").isEmpty() ? "open" : "fixed";
            if (gaps.length == 4 && !EdgeGap.even(gaps)) {
                int at = tree.item("findings", "kind", "gap");
                tree.put("findings", at, "kind", "gap");
                tree.put("findings", at, "severity", "fail");
                tree.put("findings", at, "disposition", verdict);
                tree.put("findings", at, "obstruction_check", look.noted("obstruction_check").orElse(null));
            }
            if (look.number("strays") > 0) {
                int at = tree.item("findings", "kind", "ball");
                tree.put("findings", at, "kind", "ball");
                tree.put("findings", at, "severity", "fail");
                tree.put("findings", at, "disposition", verdict);
            }
        }
    }

    /** Small parts that came off: what is off the board, how often a value was read. */
    private void smallParts() {
        for (Kept part : of("small_part")) {
            tree.from(Origin.Source.COMPUTED, "record " + part.id());
            int at = tree.item("parts", "id", part.text("id"));
            String state = part.text("state");
            if (!state.isEmpty()) {
                tree.put("parts", at, "off_board", state.equals("found"));
                tree.put("parts", at, "claimed_same", state.equals("replaced"));
            }
            tree.put("parts", at, "readings", (double) List.of("reading_1", "reading_2").stream()
                    .filter(r -> Double.isFinite(part.number(r))).count());
        }
    }

    /** Heats that a chip went through, and where the board stands. */
    private void heats() {
        List<Kept> runs = of("run");
        runs.stream().map(r -> r.number("top_c")).filter(Double::isFinite).max(Double::compare)
                .ifPresent(c -> tree.putIfAbsent("chip.body_estimate_c", c));
        if (runs.stream().anyMatch(r -> !r.text("kind").equals("form")
                && !r.text("outcome").equals("broken_off"))) {
            tree.putIfAbsent("run.state", "cool");
        }
    }
}
