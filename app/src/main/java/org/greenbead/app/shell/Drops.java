package org.greenbead.app.shell;

import java.nio.file.Path;
import java.util.function.Consumer;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.Region;

/** Files that are dropped onto a page. */
public final class Drops {
    private Drops() {
    }

    /** @param taken told each of them */
    public static void onto(Region page, Consumer<Path> taken) {
        page.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        page.setOnDragDropped(e -> {
            e.getDragboard().getFiles().forEach(f -> taken.accept(f.toPath()));
            e.setDropCompleted(true);
            e.consume();
        });
    }
}
