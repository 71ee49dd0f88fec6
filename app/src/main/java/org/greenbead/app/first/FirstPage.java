package org.greenbead.app.first;

import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Navigator;

/** Three doors: begin a job, set up what is one's own, look at the demo. */
public final class FirstPage extends Page {
    private static final double TALLEST = 420;
    private final Navigator go;
    private final Runnable demo;
    private final VBox page;
    private final HBox doors = new HBox(16);

    /** @param demo opens the demo in its own data folder */
    public FirstPage(Desk desk, Navigator go, Runnable demo) {
        this.go = go;
        this.demo = demo;
        Texts texts = desk.texts();
        var head = Looks.as(new VBox(6, Looks.label(texts.get("first.caps"), "caps"),
                Looks.label(texts.get("first.title"), "now"), Looks.label(texts.get("first.so"), "muted")),
                "instruction");
        VBox.setVgrow(doors, Priority.ALWAYS);
        var where = Looks.label(texts.get("first.folder", desk.ledger().folder().toAbsolutePath()), "muted",
                "small");
        where.setId("first-folder");
        doors.setFillHeight(true);
        var steps = Looks.as(new VBox(6, Looks.label(texts.get("first.steps"), "caps"),
                Looks.label(texts.get("first.steps.so"), "text-ink")), "card");
        page = Looks.as(new VBox(14, head, doors, steps, where), "page");
        doors(texts, "", "");
        pedal(new Pedal(texts.get("first.job"), texts.get("first.job.pedal"), true, go::newJob));
        desk.io(() -> new int[]{desk.ledger().boards().size(), desk.ledger().benches().size()},
                n -> doors(texts, n[0] == 0 ? texts.get("first.no_boards") : texts.get("first.boards", n[0]),
                        n[1] == 0 ? texts.get("first.no_benches") : texts.get("first.benches", n[1])));
    }

    private void doors(Texts texts, String boards, String benches) {
        doors.getChildren().setAll(
                door("job", "1", DoorPictures.board(), texts.get("first.job"), texts.get("first.job.so"),
                        boards, go::newJob),
                door("bench", "2", DoorPictures.bench(), texts.get("first.bench"),
                        texts.get("first.bench.so"), benches, go::setup),
                door("demo", "3", DoorPictures.harbour(), texts.get("first.demo"),
                        texts.get("first.demo.so"), texts.get("first.demo.safe"), demo));
    }

    private static Button door(String id, String key, javafx.scene.Node picture, String name, String so,
            String now, Runnable open) {
        var words = new VBox(8, picture, Looks.label(name, "door-name"), Looks.label(so, "text-ink"),
                Looks.label(now, "muted", "small"));
        var gap = new Region();
        VBox.setVgrow(gap, Priority.ALWAYS);
        words.getChildren().addAll(gap, Looks.label(key, "door-key"));
        words.setAlignment(Pos.TOP_LEFT);
        var door = Looks.as(new Button(), "door");
        door.setId("door-" + id);
        door.setGraphic(words);
        door.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
        door.setAccessibleText(name + ". " + so + " " + now);
        door.setMaxSize(Double.MAX_VALUE, TALLEST);
        words.prefWidthProperty().bind(door.widthProperty().subtract(44));
        words.prefHeightProperty().bind(door.heightProperty().subtract(40));
        door.setPrefWidth(240);
        door.setOnAction(press -> open.run());
        HBox.setHgrow(door, Priority.ALWAYS);
        return door;
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        switch (code) {
            case DIGIT1, NUMPAD1 -> go.newJob();
            case DIGIT2, NUMPAD2 -> go.setup();
            case DIGIT3, NUMPAD3 -> demo.run();
            default -> {
                return false;
            }
        }
        return true;
    }
}
