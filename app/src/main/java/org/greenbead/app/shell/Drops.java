package org.greenbead.app.shell;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.Region;

/** Files that are dropped onto a page. */
public final class Drops {
    private Drops() {
    }

    /** @param taken told each of them */
    public static void onto(Region page, Consumer<Path> taken) {
        all(page, files -> files.forEach(taken));
    }

    /** @param taken told all that was dropped at once */
    public static void all(Region page, Consumer<List<Path>> taken) {
        page.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        page.setOnDragDropped(e -> {
            taken.accept(e.getDragboard().getFiles().stream().map(f -> f.toPath()).toList());
            e.setDropCompleted(true);
            e.consume();
        });
    }
}
