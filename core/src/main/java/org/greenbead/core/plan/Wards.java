package org.greenbead.core.plan;

import org.greenbead.core.board.ProtectedPart;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.Protected;
import org.greenbead.core.run.RunPlan;

/** What stands behind a limit: a person, data that nobody can bring back, joints, a body, or something that can be bought. */
final class Wards {
    private Wards() {
    }

    static Constraint.Ward of(RunPlan plan, Protected part) {
        return switch (part.kind()) {
            case BODY -> holdsTheOnlyCopy(plan, part.name())
                    ? Constraint.Ward.IRREPLACEABLE
                    : Constraint.Ward.BODY;
            case JOINTS -> holdsTheOnlyCopy(plan, part.name())
                    ? Constraint.Ward.IRREPLACEABLE
                    : Constraint.Ward.JOINTS;
            case PART, MUST_MELT -> plan.board().parts().stream().filter(p -> p.name().equals(part.name()))
                    .findFirst().map(Wards::of).orElse(Constraint.Ward.REST);
        };
    }

    /** A cell that gets too hot vents in somebody's face. */
    private static Constraint.Ward of(ProtectedPart part) {
        return part.holds().contains(ProtectedPart.Holds.CELL)
                ? Constraint.Ward.PERSON
                : part.holds().contains(ProtectedPart.Holds.DATA)
                        ? Constraint.Ward.IRREPLACEABLE
                        : Constraint.Ward.REST;
    }

    /**
     * Where the job says that its data cannot be brought back: a chip noted to hold data, and the chip in hand unless it is noted
     * to be something that holds none.
     */
    private static boolean holdsTheOnlyCopy(RunPlan plan, String chip) {
        Job job = plan.job();
        if (!job.holdsIrreplaceableData()) {
            return false;
        }
        if (!chip.equals(job.target())) {
            return job.records("neighbour").stream()
                    .anyMatch(r -> r.text("id").equals(chip) && r.yes("holds_data"));
        }
        return job.records("chip").stream().map(r -> r.text("role")).filter(r -> !r.isBlank())
                .reduce((a, b) -> b).map(r -> r.equals("memory") || r.equals("storage")).orElse(true);
    }
}
