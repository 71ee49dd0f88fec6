package org.greenbead.app.shell;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.stage.Window;

/** The dialogs of the system; each opens where the last one ended. */
final class SystemFiles implements FilePicker {
    private Optional<File> last = Optional.empty();

    @Override
    public Optional<Path> file(Window owner, String title, String kinds, String... patterns) {
        return Optional.ofNullable(chooser(title, kinds, patterns).showOpenDialog(owner)).map(this::seen);
    }

    @Override
    public List<Path> files(Window owner, String title, String kinds, String... patterns) {
        List<File> all = chooser(title, kinds, patterns).showOpenMultipleDialog(owner);
        return all == null ? List.of() : all.stream().map(this::seen).toList();
    }

    @Override
    public Optional<Path> folder(Window owner, String title) {
        var chooser = new DirectoryChooser();
        chooser.setTitle(title);
        there().ifPresent(chooser::setInitialDirectory);
        File folder = chooser.showDialog(owner);
        last = folder == null ? last : Optional.of(folder);
        return Optional.ofNullable(folder).map(File::toPath);
    }

    private FileChooser chooser(String title, String kinds, String... patterns) {
        var chooser = new FileChooser();
        chooser.setTitle(title);
        chooser.getExtensionFilters().add(new FileChooser.ExtensionFilter(kinds, patterns));
        there().ifPresent(chooser::setInitialDirectory);
        return chooser;
    }

    /** A folder that was taken away since makes the dialog fail. */
    private Optional<File> there() {
        return last.filter(File::isDirectory);
    }

    private Path seen(File file) {
        last = Optional.ofNullable(file.getParentFile());
        return file.toPath();
    }
}
