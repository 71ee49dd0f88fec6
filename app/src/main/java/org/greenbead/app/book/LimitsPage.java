package org.greenbead.app.book;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Line;
import org.greenbead.core.book.BookRule;
import org.greenbead.core.book.RuleBook;

/** Thresholds of the rule book: the default with its reason, and what this bench has made of it. */
public final class LimitsPage extends Page {
    private static final double LARGEST = 1e6;
    private final Desk desk;
    private final Runnable back;
    private final Runnable changed;
    private final Line search;
    private final Line value;
    private final Label said = Looks.note("said");
    private final Rows<Threshold> rows;
    private final VBox page;
    private final List<Threshold> all = new ArrayList<>();

    /** One threshold of one rule. */
    private record Threshold(BookRule rule, String name, BookRule.Limit limit) {
        String key() {
            return rule.id() + "/" + name;
        }
    }

    /** @param changed told when a threshold has another value */
    public LimitsPage(Desk desk, Runnable back, Runnable changed) {
        this.desk = desk;
        this.back = back;
        this.changed = changed;
        Texts texts = desk.texts();
        for (BookRule rule : desk.book().rules()) {
            rule.limits().forEach((name, limit) -> all.add(new Threshold(rule, name, limit)));
        }
        search = new Line("limits-search", texts.get("limits.search"));
        search.textProperty().subscribe((was, now) -> show());
        value = new Line("limits-value", texts.get("limits.value"));
        value.setOnAction(enter -> set(value.getText()));
        said.setId("limits-said");
        rows = new Rows<>("limits-list", t -> "limit-" + t.key().replace('.', '-').replace('/', '-'),
                this::row,
                (t, pressed) -> {
                    if (pressed) {
                        write();
                    }
                });
        VBox.setVgrow(rows, Priority.ALWAYS);
        HBox.setHgrow(search, Priority.ALWAYS);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("limits.caps"), "caps"),
                Looks.label(texts.get("limits.title", all.size()), "now"), search), "instruction");
        page = Looks.as(
                new VBox(head, rows, value, said, Looks.label(texts.get("limits.keys"), "muted", "small")),
                "page");
        backWord(texts.get("limits.back"));
        pedal(new Pedal(texts.get("limits.back"), texts.get("limits.back.so"), true, back));
        show();
    }

    private void show() {
        String wanted = search.getText().toLowerCase(Locale.ROOT).strip();
        rows.show(all.stream().filter(t -> wanted.isEmpty()
                || (t.rule().what() + " " + t.rule().id() + " " + t.limit().why()).toLowerCase(Locale.ROOT)
                        .contains(wanted))
                .toList());
    }

    private Region row(Threshold t) {
        Texts texts = desk.texts();
        Double own = desk.limits().limits().get(t.key());
        Label number = Looks.label(plain(own == null ? t.limit().standard() : own) + " " + t.limit().unit(),
                "text-ink",
                "strong", "mono");
        number.setMinWidth(110);
        number.setAlignment(Pos.CENTER_RIGHT);
        var words = new VBox(1, Looks.label(t.rule().what(), "text-ink"),
                Looks.label(texts.get("limits.why", t.name(),
                        plain(t.limit().standard()) + " " + t.limit().unit(),
                        t.limit().why()), "muted", "small"));
        HBox.setHgrow(words, Priority.ALWAYS);
        var row = new HBox(10, words, number);
        row.setAlignment(Pos.CENTER_LEFT);
        if (own != null) {
            number.getStyleClass().add("ink-amber");
        }
        return row;
    }

    private static String plain(double d) {
        return d == Math.rint(d)
                ? Long.toString((long) d)
                : String.format(Locale.ROOT, "%.4g", d).replaceAll("0+$", "");
    }

    private void write() {
        rows.chosen().ifPresent(t -> {
            value.setPromptText(desk.texts().get("limits.new", t.rule().what(), t.limit().unit()));
            value.clear();
            value.open();
        });
    }

    private void set(String text) {
        Texts texts = desk.texts();
        Optional<Threshold> chosen = rows.chosen();
        if (chosen.isEmpty()) {
            return;
        }
        Double number;
        try {
            number = Double.valueOf(text.strip().replace(',', '.'));
        } catch (NumberFormatException e) {
            number = null;
        }
        if (number == null || !Double.isFinite(number) || Math.abs(number) > LARGEST) {
            said.pseudoClassStateChanged(Looks.BAD, true);
            said.setText(texts.get("limits.bad", text.strip()));
            return;
        }
        keep(chosen.get(), Optional.of(number), texts.get("limits.kept", chosen.get().rule().what()));
    }

    private void keep(Threshold t, Optional<Double> number, String words) {
        RuleBook.Settings now = desk.limits().with(t.key(), number);
        desk.settings().ruleLimits().set(now.text());
        said.pseudoClassStateChanged(Looks.BAD, false);
        said.setText(words);
        value.clear();
        page.requestFocus();
        show();
        changed.run();
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        back.run();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        switch (code) {
            case DOWN -> rows.move(1);
            case UP -> rows.move(-1);
            case ENTER -> write();
            case I -> search.open();
            case DELETE -> rows.chosen()
                    .ifPresent(t -> keep(t, Optional.empty(),
                            desk.texts().get("limits.reset", t.rule().what())));
            default -> {
                return false;
            }
        }
        return true;
    }
}
