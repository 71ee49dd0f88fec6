package org.greenbead.store;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Blink, beep and log codes as a user keeps them: {@code code,meaning,source}, a code of several counts as {@code 3-1}. */
public final class CodeCsv {
    private CodeCsv() {
    }

    /** @param source where the meaning comes from; empty = nobody says, and then it proves nothing */
    public record Meaning(String code, String meaning, String source) {}

    /** The rows of a code: several where the table contradicts itself. @throws BadFileException when it is no table of codes */
    public static List<Meaning> find(Path file, String code) throws BadFileException {
        return find(RowsCsv.read(file), String.valueOf(file.getFileName()), code);
    }

    static List<Meaning> find(List<RowsCsv.Row> rows, String name, String code) throws BadFileException {
        Optional<RowsCsv.Row> head = rows.stream().findFirst();
        if (head.isEmpty() || !head.get().cell(0).equalsIgnoreCase("code")
                || !head.get().cell(1).equalsIgnoreCase("meaning")) {
            throw new BadFileException(name, 1, "", "it is no table of codes",
                    "Begin it with code,meaning,source");
        }
        return rows.stream().skip(1).filter(r -> plain(r.cell(0)).equals(plain(code)))
                .map(r -> new Meaning(r.cell(0), r.cell(1), r.cell(2))).distinct().toList();
    }

    private static String plain(String code) {
        return code.toLowerCase(Locale.ROOT).replaceAll("[\\s,/.]+", "-").replaceAll("^-|-$", "");
    }
}
