package org.greenbead.app.own;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.board.Board;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Squared;

/** A board while it is drawn: each change can be taken back, nothing is kept before it is said. */
final class BoardDraft {
    private static final int MOST_UNDO = 200;
    private final Deque<Board> before = new ArrayDeque<>();
    private final List<Px> corners = new ArrayList<>();
    private Board board;

    BoardDraft(Board board) {
        this.board = board;
    }

    Board board() {
        return board;
    }

    List<Px> corners() {
        return List.copyOf(corners);
    }

    /** @return true when the fourth corner is there */
    boolean corner(Px at) {
        if (corners.size() == 4) {
            corners.clear();
        }
        corners.add(at);
        return corners.size() == 4;
    }

    void corners(List<Px> all) {
        corners.clear();
        corners.addAll(all);
    }

    /** The map between photo and board; empty while corners are missing. */
    Optional<Squared> squared() {
        return corners.size() == 4 ? Optional.of(Squared.of(corners, board.sizeMm())) : Optional.empty();
    }

    void change(Board changed) {
        if (!changed.equals(board)) {
            before.push(board);
            if (before.size() > MOST_UNDO) {
                before.removeLast();
            }
            board = changed;
        }
    }

    boolean undo() {
        if (before.isEmpty()) {
            return false;
        }
        board = before.pop();
        return true;
    }
}
