package org.greenbead.app.own;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Ruled;

/** A photo measured by two points and what lies between them, then by the corners of the board. */
final class RulerSteps {
    private static final int CORNERS = 4;
    private final List<Px> ends = new ArrayList<>();
    private final List<Px> corners = new ArrayList<>();
    private Optional<Ruled> scale = Optional.empty();

    enum Step {
        FIRST, SECOND, DISTANCE, CORNER, DONE
    }

    Step step() {
        return ends.isEmpty()
                ? Step.FIRST
                : ends.size() == 1
                        ? Step.SECOND
                        : scale.isEmpty()
                                ? Step.DISTANCE
                                : corners.size() < CORNERS ? Step.CORNER : Step.DONE;
    }

    /** How many corners are marked. */
    int corner() {
        return corners.size();
    }

    /** What is marked so far, for the picture. */
    List<Px> marked() {
        return List.copyOf(scale.isEmpty() ? ends : corners);
    }

    void point(Px at) {
        switch (step()) {
            case FIRST, SECOND -> ends.add(at);
            case CORNER -> corners.add(at);
            default -> {
                // A length is asked for, or all is marked.
            }
        }
    }

    /** @throws IllegalArgumentException for points too near or a length that is none; the points are then marked anew */
    void distance(double mm) {
        try {
            scale = Optional.of(Ruled.of(ends.get(0), ends.get(1), mm));
        } catch (IllegalArgumentException e) {
            ends.clear();
            throw e;
        }
    }

    /** The last mark is taken back; false where there is none. */
    boolean undo() {
        if (!corners.isEmpty()) {
            corners.removeLast();
        } else if (scale.isPresent()) {
            scale = Optional.empty();
            ends.removeLast();
        } else if (!ends.isEmpty()) {
            ends.removeLast();
        } else {
            return false;
        }
        return true;
    }

    /** Once all corners are there. @throws IllegalArgumentException for corners that are none; they are then marked anew */
    Ruled.Outline outline() {
        try {
            return scale.orElseThrow().outline(corners);
        } finally {
            if (step() == Step.DONE) {
                corners.clear();
            }
        }
    }
}
