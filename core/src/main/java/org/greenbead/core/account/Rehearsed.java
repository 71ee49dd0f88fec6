package org.greenbead.core.account;

import java.util.List;
import org.greenbead.core.run.Protected;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.Room;
import org.greenbead.core.run.RunPlan;

/** What the thermal model says of the next heat: the joint, and every part that can be hurt. */
final class Rehearsed {
    private Rehearsed() {
    }

    static void say(FactTree tree, RunPlan plan, Rehearsal rehearsal) {
        if (!rehearsal.done()) {
            return;
        }
        tree.from(Origin.Source.COMPUTED, "rehearsal of recipe " + plan.recipe().id());
        tree.put("plan.predicted_joint_c", rehearsal.peakJointMinC());
        List<Protected> guarded = Protected.of(plan);
        for (int i = 0; i < guarded.size(); i++) {
            if (guarded.get(i).kind() == Room.Kind.PART) {
                tree.put("parts", tree.item("parts", "id", guarded.get(i).name()), "peak_c",
                        rehearsal.peakC(i));
            } else if (guarded.get(i).kind() == Room.Kind.JOINTS) {
                tree.put("joints", tree.item("joints", "site", guarded.get(i).name()), "peak_c",
                        rehearsal.peakC(i));
            }
        }
    }
}
