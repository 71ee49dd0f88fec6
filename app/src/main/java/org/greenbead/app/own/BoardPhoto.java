package org.greenbead.app.own;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.greenbead.core.picture.Px;
import org.greenbead.store.Ledger;

/**
 * The photo a board was drawn from, as the ledger's settings keep it: the photo's name, then its four corners.
 *
 * @param corners lower left, lower right, upper right, upper left; empty while they are not marked
 */
record BoardPhoto(String file, List<Px> corners) {

    static Optional<BoardPhoto> of(Ledger ledger, String board) {
        return ledger.setting(Ledger.BOARD_PHOTO + board).filter(v -> !v.isBlank()).map(v -> {
            String[] parts = v.split("\\|");
            return new BoardPhoto(parts[0], parts.length < 2
                    ? List.of()
                    : Arrays.stream(parts[1].split(";")).map(c -> c.split(","))
                            .map(c -> new Px(Double.parseDouble(c[0]), Double.parseDouble(c[1]))).toList());
        });
    }

    void keep(Ledger ledger, String board) {
        ledger.setting(Ledger.BOARD_PHOTO + board, file + "|" + corners.stream()
                .map(c -> String.format(Locale.ROOT, "%.1f,%.1f", c.x(), c.y()))
                .collect(Collectors.joining(";")));
    }
}
