package org.greenbead.app.picture;

import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import javafx.scene.image.Image;
import org.greenbead.core.board.Board;
import org.greenbead.core.picture.Px;
import org.greenbead.core.picture.Squared;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import org.greenbead.store.BadFileException;
import org.greenbead.store.Ledger;

/**
 * The board of a job and its newest photo, if its corners were marked.
 *
 * @param photo   empty where there is none
 * @param squared how the photo lies over the board; empty where nobody marked its corners
 */
public record BoardPhoto(Board board, Optional<Image> photo, Optional<Squared> squared) {
    /** Reads both; to be called on the ledger's thread. A photo that cannot be read is left out. */
    public static BoardPhoto of(Ledger ledger, Job job) throws BadFileException {
        Board board = ledger.board(job);
        Optional<Kept> newest = newest(job);
        if (newest.isEmpty() && job.strandOf().isPresent()) {
            // A strand on the board of its job sees the photo of that job.
            newest = ledger.jobs().stream().filter(j -> job.strandOf().equals(Optional.of(j.id())))
                    .filter(j -> Strands.sameUnit(j, job)).flatMap(j -> newest(j).stream()).findFirst();
        }
        if (newest.isEmpty()) {
            return new BoardPhoto(board, Optional.empty(), Optional.empty());
        }
        try (var in = ledger.photos().open(newest.get().text("file"))) {
            return new BoardPhoto(board, Optional.of(new Image(in)),
                    Optional.of(squared(newest.get().text("corners"), board)));
        } catch (IOException | IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
            return new BoardPhoto(board, Optional.empty(), Optional.empty());
        }
    }

    private static Optional<Kept> newest(Job job) {
        return job.records("picture").reversed().stream()
                .filter(p -> p.text("view").equals("board_top") && !p.text("corners").isEmpty()).findFirst();
    }

    /**
     * Corners as a record keeps them: "x,y; x,y; x,y; x,y" in pixels.
     *
     * @throws IllegalArgumentException when they are no four corners of a board
     */
    static Squared squared(String corners, Board board) {
        List<Px> four = Arrays.stream(corners.split(";")).map(c -> c.strip().split(","))
                .map(c -> new Px(Double.parseDouble(c[0]), Double.parseDouble(c[1]))).toList();
        return Squared.of(four, board.sizeMm());
    }
}
