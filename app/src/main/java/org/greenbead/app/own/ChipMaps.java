package org.greenbead.app.own;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.greenbead.app.shell.Desk;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.board.Chip;
import org.greenbead.core.kind.MappedJoint;
import org.greenbead.store.BadFileException;
import org.greenbead.store.BeadMapCsv;
import org.greenbead.store.Ledger;

/** Bead maps of the chips that are being drawn: those of the ledger by their print, and those that were taken in and are kept with the board. */
final class ChipMaps {
    private final Desk desk;
    private final Runnable found;
    /** What the ledger answered; empty where it has none of this print. */
    private final Map<String, Optional<BeadMap>> known = new HashMap<>();
    private final Map<String, BeadMap> taken = new HashMap<>();

    /** @param found the ledger has answered */
    ChipMaps(Desk desk, Runnable found) {
        this.desk = desk;
        this.found = found;
    }

    /** The map of what is printed on a chip; asked of the ledger at the first look. */
    Optional<BeadMap> of(Chip chip) {
        if (taken.containsKey(chip.part())) {
            return Optional.of(taken.get(chip.part()));
        }
        if (!named(chip)) {
            return Optional.empty();
        }
        if (!known.containsKey(chip.part())) {
            known.put(chip.part(), Optional.empty());
            desk.io(() -> desk.ledger().beadMaps().find(chip.part()), map -> {
                known.put(chip.part(), map);
                if (map.isPresent()) {
                    found.run();
                }
            });
        }
        return known.get(chip.part());
    }

    /** A chip that is called as its place on the board is of no known print; a map kept under that would be found for any other chip there. */
    static boolean named(Chip chip) {
        return !chip.part().isBlank() && !chip.part().equals(chip.name());
    }

    /** Reads a file as the map of a chip. @param then told it, with the chip's print known to have no other */
    void take(Path file, Chip chip, Consumer<BeadMap> then, Consumer<Throwable> failed) {
        desk.io(() -> {
            BeadMap map = BeadMapCsv.read(file);
            Optional<BeadMap> there = desk.ledger().beadMaps().find(chip.part());
            if (there.isPresent() && !there.get().equals(map)) {
                throw new IllegalArgumentException(desk.texts().get("own.map.other", chip.part()));
            }
            // One that does not fit is refused here, so that it is not kept with the board.
            MappedJoint.of(map).on(chip);
            return map;
        }, map -> {
            taken.put(chip.part(), map);
            then.accept(map);
        }, failed);
    }

    /** Keeps what was taken in for the prints that are still on the board; on the ledger's thread. */
    void keep(Ledger ledger, Iterable<Chip> chips) throws BadFileException {
        for (Chip chip : chips) {
            BeadMap map = taken.get(chip.part());
            if (map != null) {
                ledger.beadMaps().save(chip.part(), map);
            }
        }
    }
}
