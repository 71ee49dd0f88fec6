package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;

/** Room left at the peaks of a rehearsal, in the order in which a run lists it. */
public final class RehearsalRoom {
    private RehearsalRoom() {
    }

    /** A protected part and its place in {@link Rehearsal.Row#guardedC()}. */
    public record Part(String name, int index) {}

    public static List<Room> of(RunPlan plan, Rehearsal rehearsal) {
        var rooms = new ArrayList<Room>();
        double last = rehearsal.rows().getLast().jointMinC();
        rooms.add(new Room(Phrase.of("room.melt", new Quantity.Name(plan.target().name())),
                Room.Kind.MUST_MELT, last, rehearsal.peakJointMinC(),
                plan.target().joint().alloy().liquidusC()));
        List<Protected> parts = Protected.of(plan);
        for (int i = 0; i < parts.size(); i++) {
            Protected part = parts.get(i);
            rooms.add(new Room(part.what(), part.kind(), rehearsal.rows().getLast().guardedC()[i],
                    rehearsal.peakC(i), part.limitC()));
        }
        return rooms;
    }

    /** The neighbour whose joints come closest to melting; empty when the board has none. */
    public static Optional<Part> closestNeighbour(RunPlan plan, Rehearsal rehearsal) {
        List<Protected> parts = Protected.of(plan);
        Optional<Part> closest = Optional.empty();
        double least = Double.POSITIVE_INFINITY;
        for (int i = 0; i < parts.size(); i++) {
            double left = parts.get(i).limitC() - rehearsal.peakC(i);
            if (parts.get(i).kind() == Room.Kind.JOINTS && left < least) {
                least = left;
                closest = Optional.of(new Part(parts.get(i).name(), i));
            }
        }
        return closest;
    }
}
