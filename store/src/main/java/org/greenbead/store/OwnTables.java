package org.greenbead.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.greenbead.core.configure.StrapTable;
import org.greenbead.core.lines.CodeTable;
import org.greenbead.core.travel.TravelTable;

/** Tables that a user keeps with the ledger: which chips are paired, and of each board its
 * configuration resistors and its blink and log codes. Files as they were given. */
public final class OwnTables {
    private static final String TRAVEL = "paired-chips.csv";
    private final Path folder;

    OwnTables(Path folder) {
        this.folder = folder;
    }

    /** Empty where none was taken in. @throws BadFileException naming the line */
    public Optional<TravelTable> travel() throws BadFileException {
        Path file = folder.resolve(TRAVEL);
        return Files.exists(file) ? Optional.of(TravelCsv.read(file)) : Optional.empty();
    }

    /** Takes a table in once it has been read without a fault; the one before it is replaced. */
    public TravelTable takeTravel(Path from) throws BadFileException, IOException {
        TravelTable table = TravelCsv.read(from);
        copy(from, TRAVEL);
        return table;
    }

    /** Of a board; empty where none was taken in. @throws BadFileException naming the line */
    public Optional<StrapTable> straps(String board) throws BadFileException {
        Path file = folder.resolve(strapFile(board));
        return Files.exists(file) ? Optional.of(StrapCsv.read(file)) : Optional.empty();
    }

    public StrapTable takeStraps(String board, Path from) throws BadFileException, IOException {
        StrapTable table = StrapCsv.read(from);
        copy(from, strapFile(board));
        return table;
    }

    /** Blink and log codes of a board; empty where none was taken in. @throws BadFileException naming the line */
    public Optional<CodeTable> codes(String board) throws BadFileException {
        Path file = folder.resolve(codeFile(board));
        return Files.exists(file) ? Optional.of(CodeCsv.read(file)) : Optional.empty();
    }

    public CodeTable takeCodes(String board, Path from) throws BadFileException, IOException {
        CodeTable table = CodeCsv.read(from);
        copy(from, codeFile(board));
        return table;
    }

    private static String codeFile(String board) {
        return "codes-" + board + ".csv";
    }

    /** An id holds no slash and no two dots in a row ({@code Check.id}). */
    private static String strapFile(String board) {
        return "straps-" + board + ".csv";
    }

    private void copy(Path from, String name) throws IOException {
        Files.createDirectories(folder);
        SafeFiles.write(folder.resolve(name), Files.readAllBytes(from));
    }
}
