package org.greenbead.app.book;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.Figures;
import org.greenbead.core.account.Judgement;

/** Where the figures of a page come from: value, source, who wrote it when, and what stood there before. */
public final class WherePage extends Page {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("d MMM  HH:mm", Locale.ENGLISH);
    private static final double NAME_WIDTH = 250;
    private static final double VALUE_WIDTH = 130;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Runnable again;
    private final List<String> about;
    private final Label title = Looks.label("", "now");
    private final Label none = Looks.note("muted");
    private final Rows<Figures.Figure> list;
    private final VBox page;
    private final Subscription watching;
    private boolean all;

    /**
     * @param about what the figures of the page are of; empty = everything that is known of the job
     * @param again shows that page
     */
    public WherePage(Desk desk, JobModel model, Navigator go, List<String> about, Runnable again) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.about = List.copyOf(about);
        this.again = again;
        all = about.isEmpty();
        Texts texts = desk.texts();
        title.setId("where-title");
        none.setId("where-none");
        list = new Rows<>("where-list", f -> "where-" + f.path().replace('.', '-'), this::row,
                (f, pressed) -> {
                });
        VBox.setVgrow(list, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("where.caps"), "caps"), title), "instruction");
        page = Looks.as(new VBox(head, none, list, Looks.label(texts.get("where.keys"), "muted", "small")),
                "page");
        pedal(new Pedal(texts.get("where.again"), texts.get("where.again.so"), true, again));
        backWord(texts.get("key.back"));
        noteWord(texts.get("where.account"));
        watching = model.judgedProperty().subscribe(judged -> show());
    }

    private void show() {
        Texts texts = desk.texts();
        Judgement judged = model.judgedProperty().get();
        List<Figures.Figure> figures = Figures.of(model.job(), judged.known(), all ? List.of() : about,
                texts.words());
        title.setText(texts.get(all ? "where.title.all" : "where.title", figures.size()));
        none.setText(judged == Judgement.NONE
                ? texts.get("where.reading")
                : figures.isEmpty() ? texts.get("where.none") : "");
        list.show(figures);
    }

    /** A filled disc for what a device, arithmetic or the ledger says, a ring for what a person said of this job. */
    private Region row(Figures.Figure figure) {
        Texts texts = desk.texts();
        Label what = Looks.label(figure.of().isEmpty() ? figure.what() : figure.of() + ": " + figure.what(),
                "text-ink");
        what.setMinWidth(NAME_WIDTH);
        what.setMaxWidth(NAME_WIDTH);
        Label value = Looks.label(figure.value(), "text-ink", "strong");
        value.setMinWidth(VALUE_WIDTH);
        value.setMaxWidth(VALUE_WIDTH);
        var mark = new Circle(6);
        boolean shown = switch (figure.source()) {
            case MEASURED, COMPUTED, LEDGER -> true;
            case RECORDED, CHOSEN, TICKED, TYPED, ASSUMED -> false;
        };
        mark.getStyleClass().add(shown ? "line-mark-held" : "line-mark-not_proved");
        String place = texts.say("source." + figure.source().name().toLowerCase(Locale.ROOT)) + " · "
                + figure.from() + figure.said().map(s -> " · " + said(s)).orElse("");
        var from = new VBox(1, Looks.label(place, "text-ink", "small"));
        for (Figures.Said before : figure.earlier()) {
            from.getChildren().add(Looks.label(texts.get("where.before",
                    before.value().isEmpty() ? texts.get("where.nothing") : before.value(), said(before)),
                    "ink-amber", "small"));
        }
        HBox.setHgrow(from, Priority.ALWAYS);
        var row = new HBox(10, mark, what, value, from);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static String said(Figures.Said said) {
        return WHEN.format(said.at().atZone(ZoneId.systemDefault()))
                + (said.by().isEmpty() ? "" : " · " + said.by());
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        again.run();
    }

    @Override
    public void note() {
        go.account();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        switch (code) {
            case F -> {
                all = !all || about.isEmpty();
                show();
            }
            case I -> again.run();
            case UP -> list.move(-1);
            case DOWN -> list.move(1);
            default -> {
                return false;
            }
        }
        return true;
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
    }
}
