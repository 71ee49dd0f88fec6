package org.greenbead.app.shell;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.stage.Window;

/** Asks for files and folders. */
public interface FilePicker {

    /** @param kinds what they are called, @param patterns such as "*.png"; empty when none was chosen */
    Optional<Path> file(Window owner, String title, String kinds, String... patterns);

    List<Path> files(Window owner, String title, String kinds, String... patterns);

    Optional<Path> folder(Window owner, String title);
}
