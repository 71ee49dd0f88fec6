package org.greenbead.app.setup;

import java.nio.file.Path;
import java.util.function.Consumer;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.core.bench.Bench;

/** The picture of a bench, by a file or a drop. */
final class BenchPhoto extends VBox {
    private static final double WIDE = 200;
    private static final double HIGH = 130;
    private final Desk desk;
    private final Consumer<String> kept;
    private final Consumer<String> failed;
    private final ImageView view = new ImageView();
    private String shown = "";

    /** @param kept told the picture's name; empty where it is taken away */
    BenchPhoto(Desk desk, Consumer<String> kept, Consumer<String> failed) {
        super(6);
        this.desk = desk;
        this.kept = kept;
        this.failed = failed;
        view.setId("bench-photo");
        view.setPreserveRatio(true);
        view.setFitWidth(WIDE);
        view.setFitHeight(HIGH);
    }

    void show(Bench bench) {
        String name = bench.equipment().photo();
        var add = SetupPage.act("bench-photo-add",
                desk.texts().get(name.isEmpty() ? "bench.photo.add" : "bench.photo.other"),
                this::choose);
        getChildren().setAll(add);
        if (name.isEmpty()) {
            shown = "";
            return;
        }
        getChildren().setAll(view, new javafx.scene.layout.FlowPane(6, 6, add,
                SetupPage.act("bench-photo-remove", desk.texts().get("bench.photo.remove"),
                        () -> kept.accept(""))));
        if (name.equals(shown)) {
            return;
        }
        shown = name;
        view.setImage(null);
        desk.io(() -> desk.ledger().photos().find(name)
                .map(p -> new Image(p.toUri().toString(), 2 * WIDE, 2 * HIGH, true, true)),
                found -> {
                    if (name.equals(shown)) {
                        view.setImage(found.orElse(null));
                        if (found.isEmpty()) {
                            failed.accept(desk.texts().get("bench.photo.gone"));
                        }
                    }
                });
    }

    void choose() {
        desk.picker().file(getScene().getWindow(), desk.texts().get("picture.file"),
                desk.texts().get("picture.kinds"), "*.png", "*.jpg", "*.jpeg").ifPresent(this::take);
    }

    void take(Path file) {
        desk.io(() -> desk.ledger().photos().add(file).name(), kept::accept,
                bad -> failed.accept(String.valueOf(bad.getMessage())));
    }
}
