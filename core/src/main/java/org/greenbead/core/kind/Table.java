package org.greenbead.core.kind;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;

/** Shipped tables of fields between bars; lines with # say where they are from. */
public final class Table {
    private Table() {
    }

    /** @throws IllegalStateException when a line has another number of fields */
    public static List<String[]> rows(Class<?> beside, String file, int fields) {
        try (var in = new BufferedReader(
                new InputStreamReader(beside.getResourceAsStream(file), StandardCharsets.UTF_8))) {
            return in.lines().map(String::strip).filter(l -> !l.isEmpty() && !l.startsWith("#")).map(l -> {
                String[] row = Arrays.stream(l.split("\\|")).map(String::strip).toArray(String[]::new);
                if (row.length != fields) {
                    throw new IllegalStateException(file + ": \"" + l + "\" has " + row.length
                            + " fields, wanted are " + fields);
                }
                return row;
            }).toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @throws IllegalArgumentException naming those there are */
    static <T> T require(String what, List<T> all, Function<T, String> name, String wanted) {
        return all.stream().filter(t -> name.apply(t).equals(wanted)).findFirst()
                .orElseThrow(() -> new IllegalArgumentException("\"" + wanted + "\" is no " + what
                        + "; known are " + String.join(", ", all.stream().map(name).toList())));
    }
}
