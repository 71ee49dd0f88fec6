package org.greenbead.store;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.lines.CodeTable;

/** Codes as a user keeps them: {@code code,meaning,source}. */
public final class CodeCsv {
    private CodeCsv() {
    }

    /** @throws BadFileException when it is no table of codes */
    public static CodeTable read(Path file) throws BadFileException {
        List<RowsCsv.Row> rows = RowsCsv.read(file);
        Optional<RowsCsv.Row> head = rows.stream().findFirst();
        if (head.isEmpty() || !head.get().cell(0).equalsIgnoreCase("code")
                || !head.get().cell(1).equalsIgnoreCase("meaning")) {
            throw new BadFileException(String.valueOf(file.getFileName()), 1, "", "it is no table of codes",
                    "Begin it with code,meaning,source");
        }
        return new CodeTable(rows.stream().skip(1).filter(r -> !r.cell(0).isBlank())
                .map(r -> new CodeTable.Meaning(r.cell(0), r.cell(1), r.cell(2))).toList());
    }
}
