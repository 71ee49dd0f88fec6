package org.greenbead.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.greenbead.core.quantity.Words;
import org.greenbead.store.SafeFiles;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** What verbs share: the data folder, the words, a place to print, and JSON to a file. */
abstract class Verb implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;

    Shared shared() {
        return shared;
    }

    Words words() {
        return shared.words();
    }

    PrintWriter out() {
        return spec.commandLine().getOut();
    }

    /** Writes a value as JSON; nothing when no file was named. */
    void json(Path file, Object value) throws IOException {
        if (file != null) {
            write(file, shared.files().print(value));
        }
    }

    static void write(Path file, String text) throws IOException {
        SafeFiles.write(file, text.getBytes(StandardCharsets.UTF_8));
    }
}
