package org.greenbead.app.ledger;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Shape;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.quantity.Words;
import org.greenbead.store.RunEntry;

/** All runs, newest first, found by typing. */
public final class LedgerPage extends Page {
    private final Desk desk;
    private final Navigator go;
    private final ListView<RunEntry> list = new ListView<>();
    private final TextField filter = Looks.as(new TextField(), "text-line");
    private final Label count = Looks.label("", "muted");
    private final VBox page;
    private List<RunEntry> all = List.of();

    public LedgerPage(Desk desk, Navigator go) {
        this.desk = desk;
        this.go = go;
        Texts texts = desk.texts();
        list.setId("ledger-list");
        filter.setId("ledger-filter");
        filter.setPromptText(texts.get("ledger.filter"));
        filter.textProperty().subscribe(t -> filter());
        list.setCellFactory(view -> new Row(texts));
        list.setPlaceholder(Looks.label(texts.get("ledger.none"), "muted"));
        list.getSelectionModel().selectedItemProperty().subscribe(s -> pedalNow());
        list.setOnMouseClicked(click -> {
            if (click.getClickCount() == 2) {
                open();
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("ledger.caps"), "caps"), count), "instruction");
        page = Looks.as(new VBox(head, filter, list), "page");
        backWord(texts.get("key.back"));
        noteWord(texts.get("ledger.odds"));
        pedalNow();
        desk.io(() -> desk.ledger().runs(), runs -> {
            all = runs;
            filter();
            list.requestFocus();
        });
    }

    private void filter() {
        String wanted = filter.getText().strip().toLowerCase(Locale.ROOT);
        list.getItems().setAll(all.stream().filter(r -> (r.jobId() + " " + r.chip() + " " + r.recipe())
                .toLowerCase(Locale.ROOT).contains(wanted)).toList());
        count.setText(desk.texts().get("ledger.count", list.getItems().size()));
        list.getSelectionModel().selectFirst();
    }

    private void pedalNow() {
        Texts texts = desk.texts();
        pedal(list.getSelectionModel().getSelectedItem() == null
                ? Pedal.shut(texts.get("ledger.open"), texts.get("ledger.none"))
                : new Pedal(texts.get("ledger.open"), texts.get("ledger.open.so"), true, this::open));
    }

    private void open() {
        RunEntry chosen = list.getSelectionModel().getSelectedItem();
        if (chosen != null) {
            go.replay(chosen);
        }
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.home();
    }

    @Override
    public void note() {
        go.odds();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.ENTER) {
            open();
            return true;
        }
        if (code == KeyCode.ESCAPE) {
            go.home();
            return true;
        }
        return false;
    }

    /** One run: when, what, how it came out. */
    private static final class Row extends ListCell<RunEntry> {
        private static final DateTimeFormatter WHEN = DateTimeFormatter
                .ofPattern("d MMM yyyy  HH:mm", Locale.ENGLISH).withZone(ZoneId.systemDefault());
        private final Texts texts;

        Row(Texts texts) {
            this.texts = texts;
        }

        @Override
        protected void updateItem(RunEntry run, boolean empty) {
            super.updateItem(run, empty);
            setText(null);
            if (empty || run == null) {
                setGraphic(null);
                return;
            }
            Shape mark = run.outcome().map(o -> switch (o) {
                case PROVEN -> Looks.as(new Circle(7), "line-mark-held");
                case WORKED -> Looks.as(new Circle(6), "line-mark-not_proved");
                case LIMIT_BROKEN -> Looks.as(Shapes.hexagon(15), "line-mark-broken");
                case BROKEN_OFF -> Looks.as(new Circle(6), "check-shape");
            }).orElseGet(() -> Looks.as(new Circle(6), "check-shape"));
            String outcome = run.outcome()
                    .map(o -> texts.say("verdict.outcome." + o.name().toLowerCase(Locale.ROOT)))
                    .orElse(texts.get("ledger.leftopen"));
            Label when = Looks.as(new Label(WHEN.format(run.startedAt())), "muted", "small");
            when.setMinWidth(Region.USE_PREF_SIZE);
            Label title = Looks.label(run.jobId() + "  ·  " + run.recipe(), "text-ink", "strong");
            Label about = Looks.label(
                    texts.get("ledger.row", run.chip(), texts.temp(run.peakJointC()),
                            Words.clock(run.aboveS()),
                            texts.get(run.simulated() ? "ledger.simulated" : "ledger.real"))
                            + run.noProbe().map(k -> " · " + texts.get("ledger.no_probe", texts.rise(k)))
                                    .orElse(""),
                    "muted", "small");
            var words = new VBox(2, title, about);
            HBox.setHgrow(words, Priority.ALWAYS);
            Label out = Looks.label(outcome, "small", "strong",
                    run.outcome().map(o -> "verdict-" + o.name().toLowerCase(Locale.ROOT)).orElse("muted"));
            out.setMinWidth(Region.USE_PREF_SIZE);
            var box = new HBox(12, mark, words, out, when);
            box.setAlignment(Pos.CENTER_LEFT);
            box.prefWidthProperty().bind(getListView().widthProperty().subtract(48));
            setGraphic(box);
        }
    }
}
