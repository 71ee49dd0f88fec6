package org.greenbead.app.work;

import java.io.IOException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.util.Duration;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.record.Kept;
import org.greenbead.device.CameraFolder;
import org.greenbead.store.Photos;

/** The pictures of a job: the newest large, the others small; taken in by file, by drop, or from the folder of the camera. */
final class PhotoPane extends VBox {
    private static final double LARGE = 300;
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("d MMM yyyy HH:mm",
            Locale.ENGLISH);
    private static final Duration LOOK = Duration.seconds(2);
    private final Desk desk;
    private final JobModel model;
    private final String view;
    private final StackPane large = new StackPane();
    private final HBox strip = new HBox(6);
    private final Label name = Looks.label("", "text-ink", "small");
    private final Label said = Looks.label("", "muted", "small");
    private final Timeline camera = new Timeline();
    private Optional<CameraFolder> folder = Optional.empty();
    private List<Kept> shown = List.of();

    PhotoPane(Desk desk, JobModel model, String view) {
        this.desk = desk;
        this.model = model;
        this.view = view;
        Texts texts = desk.texts();
        getStyleClass().add("card");
        large.getStyleClass().add("photo-place");
        large.setMinHeight(120);
        large.setPrefHeight(210);
        large.setId("photo-large");
        said.setId("photo-said");
        strip.setAlignment(Pos.CENTER_LEFT);
        name.setId("photo-name");
        getChildren().addAll(Looks.label(texts.get("photo.caps"), "caps"), large, name, strip, said);
        setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        setOnDragDropped(e -> {
            e.getDragboard().getFiles().forEach(f -> take(f.toPath()));
            e.setDropCompleted(true);
            e.consume();
        });
        watch();
        show();
    }

    /** Begins to look at the folder of the camera, if the bench has one. */
    private void watch() {
        Texts texts = desk.texts();
        String set = desk.settings().cameraFolder().get();
        said.setText(texts.get(set.isBlank() ? "photo.how" : "photo.camera"));
        if (set.isBlank()) {
            return;
        }
        desk.io(() -> new CameraFolder(Path.of(set)), found -> {
            folder = Optional.of(found);
            camera.getKeyFrames().setAll(new KeyFrame(LOOK, tick -> look()));
            camera.setCycleCount(Timeline.INDEFINITE);
            camera.play();
        }, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    private void look() {
        folder.ifPresent(f -> desk.io(f::look, fresh -> fresh.forEach(this::take), failed -> {
            camera.stop();
            said.setText(String.valueOf(failed.getMessage()));
        }));
    }

    /** Lets a file be chosen. */
    void choose() {
        Texts texts = desk.texts();
        desk.picker()
                .files(getScene().getWindow(), texts.get("photo.choose"), texts.get("photo.kinds"), "*.png",
                        "*.jpg", "*.jpeg")
                .forEach(this::take);
    }

    /** Takes a picture in and writes it down. */
    void take(Path file) {
        desk.io(() -> desk.ledger().photos().add(file), photo -> {
            model.note(with(model.fresh("picture"), photo, String.valueOf(file.getFileName())));
            said.setText(desk.texts().get("photo.taken", file.getFileName()));
        }, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    private Kept with(Kept fresh, Photos.Photo photo, String called) {
        return new Kept(fresh.id(), fresh.type(), fresh.at(), fresh.author(),
                Map.of("view", view, "file", photo.name(), "caption", called));
    }

    void show() {
        // What was written down without a file has nothing to be shown.
        List<Kept> pictures = model.job().records("picture").reversed().stream()
                .filter(p -> !p.text("file").isEmpty()).toList();
        if (pictures.equals(shown) && !large.getChildren().isEmpty()) {
            return;
        }
        shown = pictures;
        large.getChildren().setAll(Looks.label(desk.texts().get("photo.none"), "muted"));
        name.setText("");
        strip.getChildren().clear();
        for (int i = 0; i < Math.min(5, pictures.size()); i++) {
            picture(pictures.get(i), i == 0);
        }
    }

    private void picture(Kept picture, boolean first) {
        desk.io(() -> image(picture.text("file"), first ? LARGE * 2 : 60), image -> {
            var seen = new ImageView(image);
            seen.setPreserveRatio(true);
            seen.setSmooth(true);
            seen.setFitWidth(first ? LARGE : 46);
            seen.setFitHeight(first ? 206 : 34);
            seen.setAccessibleText(named(picture));
            if (first) {
                large.getChildren().setAll(seen);
                large.setMinHeight(Region.USE_PREF_SIZE);
                name.setText(named(picture));
            } else {
                Tooltip.install(seen, new Tooltip(named(picture)));
                seen.setOnMouseClicked(press -> picture(picture, true));
                strip.getChildren().add(seen);
            }
        }, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    /** What it shows, what its file was called, and when it was taken in. */
    private static String named(Kept picture) {
        return Stream.of(picture.text("view").replace('_', ' '), picture.text("caption"),
                WHEN.format(picture.at().atZone(ZoneId.systemDefault()))).filter(s -> !s.isEmpty())
                .collect(Collectors.joining(" · "));
    }

    private Image image(String name, double width) throws IOException {
        try (var in = desk.ledger().photos().open(name)) {
            return new Image(in, width, 0, true, true);
        }
    }

    void dispose() {
        camera.stop();
    }
}
