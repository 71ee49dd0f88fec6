package org.greenbead.core.record;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.book.Vocabulary;

/** All kinds of record, read once from data. Immutable. */
public final class RecordTypes {
    private static final RecordTypes SHIPPED = new RecordTypes(resource());
    private final Map<String, RecordType> types = new LinkedHashMap<>();

    private RecordTypes(String text) {
        String[] head = {};
        var fields = new ArrayList<RecordType.Item>();
        for (String line : text.lines().filter(l -> !l.isBlank() && !l.startsWith("#")).toList()) {
            if (line.startsWith("[")) {
                close(head, fields);
                head = line.replaceAll("[\\[\\]]", "").split("\\s+");
                fields.clear();
            } else {
                String[] part = line.split(" -> ", 2);
                String[] field = part[0].split("\\s+", 2);
                fields.add(new RecordType.Item(Vocabulary.field(field[0], field[1]),
                        part.length > 1 ? Optional.of(part[1].strip()) : Optional.empty()));
            }
        }
        close(head, fields);
    }

    private void close(String[] head, List<RecordType.Item> fields) {
        if (head.length > 0) {
            types.put(head[0],
                    new RecordType(head[0], !head[1].equals("one"), head[1].equals("named"),
                            head.length > 2 ? List.of(head[2].split(",")) : List.of(), fields));
        }
    }

    private static String resource() {
        try (InputStream in = RecordTypes.class.getResourceAsStream("records.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The types as shipped. */
    public static RecordTypes shipped() {
        return SHIPPED;
    }

    public List<RecordType> all() {
        return List.copyOf(types.values());
    }

    public Optional<RecordType> find(String id) {
        return Optional.ofNullable(types.get(id));
    }

    /** @throws IllegalArgumentException naming the types that there are */
    public RecordType require(String id) {
        return find(id).orElseThrow(() -> new IllegalArgumentException(
                "\"" + id + "\" is no type of record; use one of " + String.join(", ", types.keySet())));
    }

    /** What is asked for at a bead, in the order of asking. */
    public List<RecordType> at(String bead) {
        return types.values().stream().filter(t -> t.beads().contains(bead)).toList();
    }
}
