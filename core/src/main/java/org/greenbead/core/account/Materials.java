package org.greenbead.core.account;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.alloy.Dilution;
import org.greenbead.core.alloy.MeltingTable;
import org.greenbead.core.alloy.MixShares;
import org.greenbead.core.record.Kept;

/** Alloys by name become melting points and contents; paste and flux are those of the last lot that was opened. */
final class Materials {
    private static final MeltingTable TABLE = MeltingTable.standard();

    private Materials() {
    }

    static void say(FactTree tree, List<Kept> records, Optional<String> factory, String target) {
        lots(tree, records);
        alloys(tree, records, factory);
        joints(tree, records, factory, target);
    }

    private static void lots(FactTree tree, List<Kept> records) {
        for (Kept lot : RecordFacts.of(records, "lot")) {
            tree.from(Origin.Source.RECORDED, "record " + lot.id());
            if (lot.text("material").equals("paste")) {
                tree.put("paste.alloy", lot.noted("alloy").orElse(null));
                tree.put("paste.lot", lot.noted("lot").orElse(null));
                tree.put("paste.open_hours", lot.noted("hours_out").orElse(null));
                tree.put("paste.limit_hours", lot.noted("limit_hours").orElse(null));
                tree.put("paste.dryness", lot.noted("dryness").orElse(null));
                tree.put("paste.colour", lot.noted("colour").orElse(null));
                tree.put("paste.trial_print", lot.noted("trial_print").orElse(null));
            }
        }
    }

    /** Every alloy that the work meets, with what it holds and where it melts. */
    private static void alloys(FactTree tree, List<Kept> records, Optional<String> factory) {
        var names = new LinkedHashSet<String>();
        factory.ifPresent(names::add);
        tree.at("plan.ball_alloy").map(String::valueOf).filter(n -> !n.isEmpty()).ifPresent(names::add);
        for (Kept record : records) {
            for (String field : List.of("ball_alloy", "diluent", "alloy")) {
                if (List.of("plan", "lot", "joint", "chip", "spheres", "face").contains(record.type())
                        && record.noted(field).isPresent()) {
                    names.add(record.text(field));
                }
            }
        }
        for (String name : names) {
            tree.from(Origin.Source.COMPUTED, "table of alloys, " + name);
            Optional<MeltingTable.Row> row = TABLE.find(name);
            int at = tree.item("alloys", "id", row.map(MeltingTable.Row::name).orElse(name));
            tree.put("alloys", at, "id", row.map(MeltingTable.Row::name).orElse(name));
            tree.put("alloys", at, "is_class_word", row.isEmpty() && !List.of("none", "as_built")
                    .contains(name));
            row.ifPresent(r -> {
                tree.put("alloys", at, "solidus_c", r.solidusC());
                tree.put("alloys", at, "liquidus_c", r.liquidusC());
                tree.put("alloys", at, "has_pb", r.made().pct("Pb") > 0);
                tree.put("alloys", at, "has_bi", r.made().pct("Bi") > 0);
            });
        }
        for (Kept lot : RecordFacts.of(records, "lot")) {
            if (Double.isFinite(lot.number("label_c")) && !lot.text("alloy").isEmpty()) {
                tree.from(Origin.Source.RECORDED, "record " + lot.id());
                String name = TABLE.find(lot.text("alloy")).map(MeltingTable.Row::name)
                        .orElse(lot.text("alloy"));
                tree.put("alloys", tree.item("alloys", "id", name), "label_c", lot.number("label_c"));
            }
        }
    }

    private static void joints(FactTree tree, List<Kept> records, Optional<String> factory, String target) {
        String diluent = RecordFacts.of(records, "plan").stream().map(p -> p.text("diluent"))
                .filter(d -> !d.isEmpty()).findFirst().orElse("");
        Optional<MeltingTable.Row> thin = TABLE.find(diluent);
        List<Map<String, Object>> joints = tree.items("joints");
        for (int i = 0; i < joints.size(); i++) {
            Map<String, Object> joint = joints.get(i);
            int at = i;
            String site = String.valueOf(joint.get("site"));
            TABLE.find(String.valueOf(joint.get("alloy"))).ifPresent(row -> {
                tree.from(Origin.Source.COMPUTED, "table of alloys, " + row.name());
                tree.put("joints", at, "solidus_c", row.solidusC());
                tree.put("joints", at, "liquidus_c", row.liquidusC());
                tree.put("joints", at, "last_has_bi", row.made().pct("Bi") > 0);
            });
            if (site.equals(target) && thin.isPresent()) {
                tree.from(Origin.Source.COMPUTED, "the diluent of the plan");
                tree.put("joints", at, "last_has_bi",
                        Boolean.TRUE.equals(joint.get("last_has_bi")) || thin.get().made().pct("Bi") > 0);
                mixed(tree, at, joint, factory, thin.get());
            }
        }
        for (Kept record : RecordFacts.of(records, "neighbour")) {
            if (record.yes("wetted") && thin.isPresent()) {
                tree.from(Origin.Source.COMPUTED, "the diluent of the plan");
                int at = tree.item("parts", "id", record.text("id"));
                tree.put("parts", at, "solidus_c", thin.get().solidusC());
            }
        }
        if (thin.isPresent()) {
            tree.from(Origin.Source.COMPUTED, "the diluent of the plan");
            tree.putIfAbsent("run.alloy_added", true);
        }
    }

    /** Bismuth and lead of ball, film and diluent together, where the wick passes are on record. */
    private static void mixed(FactTree tree, int at, Map<String, Object> joint, Optional<String> factory,
            MeltingTable.Row thin) {
        Optional<MeltingTable.Row> built = factory.flatMap(TABLE::find);
        Optional<MeltingTable.Row> ball = TABLE
                .find(tree.at("plan.ball_alloy").map(String::valueOf).orElse("")).or(() -> built);
        if (built.isEmpty() || ball.isEmpty() || !(joint.get("wick_passes") instanceof Double passes)) {
            return;
        }
        Dilution.Mix mix = Dilution.of(new Dilution.Mixed(new Dilution.Part(built.get().made(), 1),
                new Dilution.Part(thin.made(), MixShares.ADDED), MixShares.leftBy(passes.intValue()),
                new Dilution.Part(ball.get().made(), MixShares.BALL)));
        tree.from(Origin.Source.COMPUTED,
                "mix of " + built.get().name() + ", " + thin.name() + " and " + ball.get().name());
        if (joint.get("bi_pct") == null) {
            tree.put("joints", at, "bi_pct", mix.made().pct("Bi"));
        }
        if (joint.get("pb_pct") == null) {
            tree.put("joints", at, "pb_pct", mix.made().pct("Pb"));
        }
    }
}
