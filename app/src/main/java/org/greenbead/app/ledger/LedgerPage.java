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
import javafx.scene.input.KeyEvent;
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
import org.greenbead.store.ReportedException;
import org.greenbead.store.RunBin;
import org.greenbead.store.RunEntry;

/** All runs, newest first, found by typing. */
public final class LedgerPage extends Page {
    private final Desk desk;
    private final Navigator go;
    private final ListView<RunEntry> list = new ListView<>();
    private final TextField filter = Looks.as(new TextField(), "text-line");
    private final Label count = Looks.label("", "muted");
    private final VBox page;
    private final Label said = Looks.note("said");
    private List<RunEntry> all = List.of();
    private List<RunBin.Binned> binned = List.of();
    private boolean inBin;
    /** A run of which it was said that a report was made from it. */
    private String warned = "";

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
        list.getSelectionModel().selectedItemProperty().subscribe(s -> {
            warned = "";
            pedalNow();
        });
        said.setId("ledger-said");
        count.setId("ledger-title");
        list.setOnMouseClicked(click -> {
            if (click.getClickCount() == 2) {
                open();
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("ledger.caps"), "caps"), count), "instruction");
        page = Looks.as(
                new VBox(head, filter, list, said, Looks.label(texts.get("ledger.keys"), "muted", "small")),
                "page");
        backWord(texts.get("key.back"));
        noteWord(texts.get("ledger.odds"));
        pedalNow();
        list.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            // The list has the keyboard and would keep these for itself.
            if (e.getCode() == KeyCode.DELETE || e.getCode() == KeyCode.BACK_SPACE) {
                throwAway();
                e.consume();
            }
        });
        reread();
    }

    @Override
    public void reread() {
        desk.io(() -> new Known(desk.ledger().runs(), desk.ledger().runBin().all()), known -> {
            all = known.runs();
            binned = known.binned();
            filter();
            list.requestFocus();
        });
    }

    private record Known(List<RunEntry> runs, List<RunBin.Binned> binned) {}

    private void filter() {
        String wanted = filter.getText().strip().toLowerCase(Locale.ROOT);
        list.getItems()
                .setAll((inBin ? binned.stream().map(RunBin.Binned::run).toList() : all).stream()
                        .filter(r -> (r.jobId() + " " + r.chip() + " " + r.recipe())
                                .toLowerCase(Locale.ROOT).contains(wanted))
                        .toList());
        count.setText(inBin
                ? desk.texts().get("ledger.bin.title", binned.size())
                : desk.texts().get("ledger.count", list.getItems().size()));
        list.getSelectionModel().selectFirst();
    }

    private void pedalNow() {
        Texts texts = desk.texts();
        RunEntry chosen = list.getSelectionModel().getSelectedItem();
        if (inBin) {
            pedal(binned.stream().filter(b -> b.run().equals(chosen)).findFirst()
                    .map(b -> new Pedal(texts.get("ledger.bin.back"), texts.get("ledger.bin.since",
                            Row.WHEN.format(b.at()), Row.WHEN.format(b.until())), true, this::takeBack))
                    .orElseGet(() -> Pedal.shut(texts.get("ledger.bin.back"), texts.get("ledger.bin.none"))));
            return;
        }
        pedal(chosen == null
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

    /** Into the bin, or, there, what has lain long enough out of it for good. What a report was made from goes at the second press. */
    private void throwAway() {
        Texts texts = desk.texts();
        if (inBin) {
            desk.io(() -> desk.ledger().runBin().empty(), gone -> {
                tell(gone.isEmpty()
                        ? texts.get("ledger.bin.young")
                        : texts.get("ledger.bin.emptied", gone.size()), false);
                reread();
            }, this::failed);
            return;
        }
        RunEntry chosen = list.getSelectionModel().getSelectedItem();
        if (chosen == null) {
            return;
        }
        boolean evenSo = warned.equals(chosen.id());
        desk.io(() -> {
            desk.ledger().runBin().put(chosen.id(), evenSo);
            return chosen;
        }, gone -> {
            desk.changes().made(gone.id(), gone.id(), () -> back(gone.id()));
            tell(texts.get("ledger.bin.put", gone.recipe(), gone.jobId()), false);
            reread();
        }, failed -> {
            failed(failed);
            if (failed instanceof ReportedException) {
                warned = chosen.id();
                tell(texts.get("ledger.bin.reported", failed.getMessage()), true);
            }
        });
    }

    private void takeBack() {
        RunEntry chosen = list.getSelectionModel().getSelectedItem();
        if (inBin && chosen != null) {
            back(chosen.id());
        }
    }

    private void back(String id) {
        desk.io(() -> {
            desk.ledger().runBin().takeBack(id);
            return id;
        }, back -> {
            tell(desk.texts().get("ledger.bin.taken"), false);
            reread();
        }, this::failed);
    }

    private void failed(Throwable error) {
        tell(String.valueOf(error.getMessage()), true);
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.ENTER) {
            if (inBin) {
                takeBack();
            } else {
                open();
            }
            return true;
        }
        if (!control && code == KeyCode.X) {
            inBin = !inBin;
            tell("", false);
            filter();
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
        static final DateTimeFormatter WHEN = DateTimeFormatter
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
