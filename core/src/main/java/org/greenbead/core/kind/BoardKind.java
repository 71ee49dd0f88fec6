package org.greenbead.core.kind;

import java.util.List;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.quantity.Check;

/**
 * A usual build of a board, for one whose sheet nobody has.
 *
 * @param id its words are {@code boardkind.<id>}
 */
public record BoardKind(String id, double thicknessMm, int copperLayers, double copperUm,
        double copperCoverage, double kThroughWPerMK) {
    /** The shipped list, {@code boardkinds.txt}. */
    public static List<BoardKind> shipped() {
        return Table.rows(BoardKind.class, "boardkinds.txt", 6).stream()
                .map(f -> new BoardKind(f[0], Double.parseDouble(f[1]), Integer.parseInt(f[2]),
                        Double.parseDouble(f[3]), Double.parseDouble(f[4]), Double.parseDouble(f[5])))
                .toList();
    }

    /** @throws IllegalArgumentException naming those there are */
    public static BoardKind require(String id) {
        return Table.require("build of a board", shipped(), BoardKind::id, id);
    }

    /** The same board of this build; what was measured of it stays. */
    public Board built(Board board) {
        boolean thin = board.assumed().contains(Assumed.THICKNESS);
        boolean metal = board.assumed().contains(Assumed.COPPER);
        return new Board(board.id(), board.title(), board.sizeMm(), thin ? thicknessMm : board.thicknessMm(),
                metal ? copperLayers : board.copperLayers(), metal ? copperUm : board.copperUm(),
                metal ? copperCoverage : board.copperCoverage(),
                metal ? kThroughWPerMK : board.kThroughWPerMK(), board.chips(), board.parts(),
                board.assumed(), board.marks());
    }

    /** A bare board of this build; everything but its size is assumed until it is measured. */
    public Board board(String boardId, String title, Point sizeMm) {
        return new Board(Check.id("board id", boardId), title, sizeMm, thicknessMm, copperLayers, copperUm,
                copperCoverage, kThroughWPerMK, List.of(), List.of(),
                List.of(Assumed.THICKNESS, Assumed.COPPER));
    }
}
