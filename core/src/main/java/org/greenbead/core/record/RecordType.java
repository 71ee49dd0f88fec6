package org.greenbead.core.record;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.book.Vocabulary;

/**
 * A kind of record.
 *
 * @param id    its words are {@code record.<id>} and {@code record.<id>.<field>} in the trade bundle
 * @param many  a job may hold several; the first field then names the item
 * @param named a record of many that is one thing with a name of its own: noting it again adds to what is known of it
 * @param beads where it is asked for; none where the program writes it by itself
 */
public record RecordType(String id, boolean many, boolean named, List<String> beads, List<Item> fields) {
    /**
     * One field of it.
     *
     * @param fact path of the fact that it says, such as {@code job.goal} or {@code joints.alloy}; empty = none
     */
    public record Item(Vocabulary.Field field, Optional<String> fact) {
        public String name() {
            return field.name();
        }
    }

    public RecordType {
        beads = List.copyOf(beads);
        fields = List.copyOf(fields);
    }

    public Optional<Item> item(String name) {
        // Asked for every field of every record that is read.
        for (Item field : fields) {
            if (field.name().equals(name)) {
                return Optional.of(field);
            }
        }
        return Optional.empty();
    }

    /** Whether a person writes it; runs write what they showed by themselves. */
    public boolean byHand() {
        return !beads.isEmpty();
    }

    /** The field that names an item of a list. */
    public String key() {
        return fields.getFirst().name();
    }
}
