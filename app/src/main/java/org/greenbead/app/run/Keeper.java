package org.greenbead.app.run;

import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.Label;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.core.quantity.Words;
import org.greenbead.store.JobReport;
import org.greenbead.store.RunCsv;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunLog;
import org.greenbead.store.SafeFiles;

/** Hands a kept run out as CSV or PDF, into the exports folder of the data folder, and says where. */
final class Keeper {
    private static final String PDF = ".pdf";
    private final Desk desk;
    private final Label said;

    Keeper(Desk desk, Label said) {
        this.desk = desk;
        this.said = said;
    }

    void csv(RunEntry entry) {
        write(entry, ".csv", log -> {
            var text = new StringWriter();
            RunCsv.write(log, text);
            return text.toString().getBytes(StandardCharsets.UTF_8);
        });
    }

    void pdf(RunEntry entry) {
        Words words = desk.texts().words();
        write(entry, PDF, log -> JobReport.pdf(desk.ledger().job(entry.jobId()), log, words));
    }

    /** Makes a file's bytes from a log. */
    private interface Maker {
        byte[] make(RunLog log) throws Exception;
    }

    private void write(RunEntry entry, String ending, Maker maker) {
        desk.io(() -> {
            RunLog log = RunLog.read(desk.ledger().logFile(entry), desk.files());
            Path folder = exports();
            Path file = folder.resolve(entry.id() + ending);
            SafeFiles.write(file, maker.make(log));
            if (ending.equals(PDF)) {
                desk.ledger().reported(entry.jobId(), String.valueOf(file.getFileName()));
            }
            return file;
        }, file -> tell(desk.texts().get("verdict.wrote", file.toString()), false),
                error -> tell(String.valueOf(error.getMessage()), true));
    }

    private Path exports() throws IOException {
        return Files.createDirectories(desk.ledger().folder().resolve("exports"));
    }

    private void tell(String text, boolean bad) {
        said.setText(text);
        said.pseudoClassStateChanged(Looks.BAD, bad);
    }
}
