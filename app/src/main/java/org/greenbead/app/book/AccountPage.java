package org.greenbead.app.book;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.Account;
import org.greenbead.core.account.AccountLines;
import org.greenbead.core.account.Thrown;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.Ledger;

/**
 * Everything that was done, seen and said in a job, newest first: when, by whom, and where it comes from. Its lines are never changed; a record or a photo is taken back
 * or brought back here, which is a line of its own.
 */
public final class AccountPage extends Page {
    private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("d MMM  HH:mm:ss",
            Locale.ENGLISH);
    private static final double TIME_WIDTH = 118;
    /** What is said in so many letters stands beside what it is about; more stands under it. */
    private static final int BRIEF = 34;

    /** Which lines are shown. */
    private enum Shown {
        ALL("account.all", line -> true), HAND("account.hand", AccountLines.Line::byHand), DEVICE(
                "account.device", line -> !line.byHand()), CHANGED("account.changed",
                        line -> line.takenBack() || line.replaces());

        private final String key;
        private final Predicate<AccountLines.Line> lines;

        Shown(String key, Predicate<AccountLines.Line> lines) {
            this.key = key;
            this.lines = lines;
        }
    }

    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label which = Looks.label("", "text-ink", "strong");
    private final Label none = Looks.note("muted");
    private final Label said = Looks.note("said");
    /** A record of which it was said that a report was made with it. */
    private String warned = "";
    private final VBox odd = new VBox(6);
    private final Rows<AccountLines.Line> list;
    private final VBox page;
    private final Subscription watching;
    private Shown shown = Shown.ALL;

    public AccountPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("account-title");
        which.setId("account-which");
        list = new Rows<>("account-list", l -> "account-" + l.first(), this::row, (line, pressed) -> {
            warned = "";
            tell("", false);
        });
        said.setId("account-said");
        VBox.setVgrow(list, Priority.ALWAYS);
        var caps = new HBox(10, Looks.label(texts.get("account.caps"), "caps"), which);
        caps.setAlignment(Pos.BASELINE_LEFT);
        var head = Looks.as(new VBox(1, caps, title, said), "instruction");
        page = Looks.as(
                new VBox(head, odd, none, list, Looks.label(texts.get("account.keys"), "muted", "small")),
                "page");
        pedal(new Pedal(texts.get("account.home"), texts.get("account.home.so"), true, go::home));
        backWord(texts.get("account.back.word"));
        watching = model.jobProperty().subscribe(job -> show());
    }

    private void show() {
        Texts texts = desk.texts();
        List<AccountLines.Line> all = AccountLines.of(model.job().account(), texts.words());
        List<AccountLines.Line> now = all.stream().filter(shown.lines).toList().reversed();
        title.setText(shown == Shown.ALL
                ? texts.get("account.title", model.job().id(), model.job().account().size(), all.size())
                : texts.get("account.title.of", model.job().id(), now.size(), all.size()));
        which.setText(texts.get(shown.key));
        odd.getChildren().setAll(Account.oddities(model.job().account()).stream()
                .map(o -> (Node) strange(o, texts)).toList());
        odd.setVisible(!odd.getChildren().isEmpty());
        odd.setManaged(odd.isVisible());
        list.show(now);
        none.setText(model.job().account().isEmpty()
                ? texts.get("account.none")
                : now.isEmpty() ? texts.get("account.empty") : "");
    }

    private static Region strange(Account.Oddity one, Texts texts) {
        var what = Looks.label(texts.say(Phrase.of("account." + one.kind().name().toLowerCase(Locale.ROOT),
                new Quantity.Name(Integer.toString(one.at().number())), new Quantity.Name(one.at().what()),
                new Quantity.Name(one.at().by()), new Quantity.Name(String.valueOf(one.at().is())),
                new Quantity.Name(one.earlier().map(e -> e.by() + " " + e.is()).orElse("")))), "why");
        var box = Looks.as(new HBox(8, Shapes.of(Severity.CARE, 14), what), "card");
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    /** A filled disc for what a device or arithmetic showed, a ring for what a person said. */
    private Region row(AccountLines.Line line) {
        Texts texts = desk.texts();
        Label when = Looks.label(WHEN.format(line.at().atZone(ZoneId.systemDefault())), "muted", "small");
        when.setMinWidth(TIME_WIDTH);
        var mark = new Circle(6);
        mark.getStyleClass().add(line.byHand() ? "line-mark-not_proved" : "line-mark-held");
        Label about = Looks.label(line.about(), "text-ink", "strong");
        String says = String.join(" \u00b7 ", line.says());
        Label said = Looks.label(says, "text-ink", "small");
        about.setMinWidth(Region.USE_PREF_SIZE);
        boolean brief = says.length() <= BRIEF;
        Region middle = brief ? new HBox(12, about, said) : new VBox(1, about, said);
        if (middle instanceof HBox beside) {
            beside.setAlignment(Pos.BASELINE_LEFT);
        }
        HBox.setHgrow(middle, Priority.ALWAYS);
        Label from = Looks.label(
                texts.say("source." + line.source().name().toLowerCase(Locale.ROOT))
                        + (line.by().isEmpty() ? "" : " \u00b7 " + line.by())
                        + (line.takenBack() ? " \u00b7 " + texts.get("account.back") : ""),
                line.takenBack() ? "ink-amber" : "muted", "small");
        from.setMinWidth(Region.USE_PREF_SIZE);
        var row = new HBox(10, when, mark, middle, from);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.book();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        switch (code) {
            case F -> {
                shown = Shown.values()[(shown.ordinal() + 1) % Shown.values().length];
                show();
            }
            case DELETE, BACK_SPACE -> chosen().ifPresent(this::throwAway);
            case ENTER -> chosen().ifPresent(this::bringBack);
            case UP -> list.move(-1);
            case DOWN -> list.move(1);
            default -> {
                return false;
            }
        }
        return true;
    }

    /** The record of the chosen line; a check or a step is undone where it is. */
    private Optional<String> chosen() {
        Optional<String> record = list.chosen().map(AccountLines.Line::record).filter(r -> !r.isEmpty());
        if (record.isEmpty()) {
            tell(desk.texts().get("account.no_record"), true);
        }
        return record;
    }

    /** Never silently what a report was made with: that is said, and a second press has it done. */
    private void throwAway(String record) {
        Texts texts = desk.texts();
        Optional<Kept> there = model.job().record(record);
        if (there.isEmpty()) {
            tell(texts.get("account.gone.already"), true);
            return;
        }
        Job without;
        try {
            without = Thrown.thrown(model.job(), record);
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
            return;
        }
        if (warned.equals(record)) {
            take(without, record);
            return;
        }
        String job = model.job().id();
        desk.io(() -> desk.ledger().reports(job).stream().filter(r -> !r.at().isBefore(there.get().at()))
                .toList(), reports -> {
                    if (reports.isEmpty()) {
                        take(without, record);
                    } else {
                        warned = record;
                        tell(texts.get("account.reported", Ledger.named(reports)), true);
                    }
                });
    }

    private void take(Job without, String record) {
        model.change(without, "taken back", record);
        warned = "";
        tell(desk.texts().get("account.thrown"), false);
    }

    private void bringBack(String record) {
        Texts texts = desk.texts();
        if (model.job().record(record).isPresent()) {
            tell(texts.get("account.there"), true);
            return;
        }
        Thrown.of(model.job()).stream().filter(g -> g.record().id().equals(record)).findFirst()
                .ifPresentOrElse(gone -> {
                    model.change(Thrown.broughtBack(model.job(), gone), "brought back", record);
                    tell(texts.get("account.brought"), false);
                }, () -> tell(texts.get("account.gone.lost"), true));
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
    }
}
