package org.greenbead.app.book;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Grouped;
import org.greenbead.core.book.JobFacts;
import org.greenbead.core.book.Judged;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.book.Wording;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.run.RunPlan;

/** What the whole rule book says of the job in hand, five findings at a time; and a line to note what is known. */
public final class BookPage extends Page {
    private static final int IN_SIGHT = 5;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label said = Looks.label("", "muted");
    private final VBox list = new VBox(8);
    private final TextField line = new TextField();
    private final VBox page;
    private final Deque<Facts> before = new ArrayDeque<>();
    private final Subscription watching;
    private List<Grouped> groups = List.of();
    private List<Judged.Muted> muted = List.of();
    private Optional<Noticed> muting = Optional.empty();
    private int first;
    private boolean swallows;
    private int turn;

    public BookPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("book-title");
        said.setId("book-said");
        list.setId("book-list");
        line.setId("book-line");
        line.setPromptText(texts.get("book.prompt"));
        line.setOnAction(
                enter -> muting.ifPresentOrElse(n -> mute(n, line.getText()), () -> note(line.getText())));
        line.addEventFilter(KeyEvent.KEY_PRESSED, e -> swallows = false);
        line.addEventFilter(KeyEvent.KEY_TYPED, e -> {
            if (swallows) {
                swallows = false;
                e.consume();
            }
        });
        HBox.setHgrow(line, Priority.ALWAYS);
        var head = Looks.as(new VBox(1, Looks.label(texts.get("book.caps"), "caps"), title), "instruction");
        var scroll = Looks.as(new ScrollPane(list), "watch-scroll");
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var noteHead = Looks.label(texts.get("book.note"), "caps");
        noteHead.setMinWidth(Region.USE_PREF_SIZE);
        var noteRow = new HBox(12, noteHead, line);
        noteRow.setAlignment(Pos.CENTER_LEFT);
        page = Looks.as(new VBox(head, scroll, Looks.as(new VBox(5, noteRow, said), "card")), "page");
        backWord(texts.get("book.back"));
        watching = model.jobProperty().subscribe(job -> look())
                .and(model.planProperty().subscribe(plan -> look()));
    }

    private void look() {
        int mine = ++turn;
        Optional<RunPlan> plan = model.planProperty().get();
        var job = model.job();
        desk.compute(() -> {
            Facts facts = plan.map(p -> JobFacts.of(job, p.board(), p.bench(), p.recipe()))
                    .orElseGet(() -> JobFacts.of(job));
            return Judged.of(RuleBook.shipped(), facts, RuleBook.Settings.STANDARD);
        }, found -> {
            if (mine == turn) {
                groups = Grouped.of(found.open());
                muted = found.muted();
                first = first >= groups.size() ? 0 : first;
                show();
            }
        });
    }

    private void show() {
        Texts texts = desk.texts();
        title.setText(groups.isEmpty()
                ? texts.get("book.clear", model.job().id())
                : texts.get("book.title", model.job().id(), count(Severity.STOP), count(Severity.CARE),
                        count(Severity.NOTE)));
        list.getChildren().clear();
        if (groups.isEmpty()) {
            list.getChildren().add(Looks.label(texts.get("book.none"), "muted"));
        }
        var wording = new Wording(texts.words());
        int last = Math.min(groups.size(), first + IN_SIGHT);
        for (int i = first; i < last; i++) {
            list.getChildren().add(card(groups.get(i), i - first + 1, wording, texts));
        }
        for (Judged.Muted one : muted) {
            list.getChildren().add(Looks.label(
                    texts.get("book.muted", one.noticed().rule().what(), one.reason()), "muted", "small"));
        }
        if (groups.size() > IN_SIGHT) {
            pedal(new Pedal(texts.get(last < groups.size() ? "book.more" : "book.first"),
                    texts.get("book.more.so", first + 1, last, groups.size()), true, () -> {
                        first = last < groups.size() ? last : 0;
                        show();
                    }));
        } else {
            pedal(new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, go::home));
        }
    }

    private long count(Severity severity) {
        return groups.stream().filter(g -> g.rule().severity() == severity).count();
    }

    private static Region card(Grouped group, int number, Wording wording, Texts texts) {
        Noticed place = group.places().getFirst();
        String severity = group.rule().severity().name().toLowerCase(Locale.ROOT);
        Label what = Looks.label(group.rule().what(), "what");
        HBox.setHgrow(what, Priority.ALWAYS);
        what.setMaxWidth(Double.MAX_VALUE);
        Label phase = Looks.label(texts.say("phase." + group.rule().phase().name().toLowerCase(Locale.ROOT)),
                "muted", "small");
        phase.setText(texts.get("book.mute.key", phase.getText(), number));
        phase.setMinWidth(Region.USE_PREF_SIZE);
        var top = new HBox(8, Shapes.of(group.rule().severity(), 16), what, phase);
        top.setAlignment(Pos.CENTER_LEFT);
        String more = group.places().size() > 1
                ? " " + texts.get("book.places", group.places().size() - 1)
                : "";
        Label remedy = Looks.label(group.rule().remedy(), "cure");
        remedy.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(remedy, Priority.ALWAYS);
        Label source = Looks.label(texts.get("book.source", group.rule().source(), group.rule().id()),
                "muted", "small");
        source.setMaxWidth(330);
        source.setTextAlignment(javafx.scene.text.TextAlignment.RIGHT);
        source.setAlignment(Pos.CENTER_RIGHT);
        var foot = new HBox(12, remedy, source);
        foot.setAlignment(Pos.CENTER_LEFT);
        var card = Looks.as(new VBox(top, Looks.label(wording.why(place) + more, "why"), foot), "finding");
        card.setId("book-" + group.rule().id());
        card.pseudoClassStateChanged(PseudoClass.getPseudoClass(severity), true);
        return card;
    }

    /** Takes assignments such as chip.health=good; what no job holds is said and nothing is kept. */
    private void note(String text) {
        Texts texts = desk.texts();
        Facts now = model.job().facts();
        Facts noted;
        try {
            noted = now.with(text);
        } catch (IllegalArgumentException e) {
            said.setText(texts.get("book.refused", e.getMessage()));
            return;
        }
        List<Vocabulary.Misfit> misfits = Vocabulary.ofTheTrade().misfits(noted);
        if (!misfits.isEmpty()) {
            said.setText(texts.get("book.refused",
                    misfits.getFirst().what() + ". " + misfits.getFirst().remedy()));
            return;
        }
        if (!noted.equals(now)) {
            before.push(now);
            model.note(noted);
            said.setText(texts.get("book.noted"));
        }
        line.clear();
        page.requestFocus();
    }

    /** To the line; the character of the key that led there is not its first. */
    private void write() {
        line.requestFocus();
        swallows = true;
    }

    /** Asks for the reason; an empty one, or Escape, mutes nothing. */
    private void ask(int number) {
        Texts texts = desk.texts();
        Noticed noticed = groups.get(first + number - 1).places().getFirst();
        if (!Judged.mutable(noticed, model.job().facts())) {
            said.setText(texts.get("book.mute.never", noticed.rule().what()));
            return;
        }
        muting = Optional.of(noticed);
        line.clear();
        line.setPromptText(texts.get("book.mute.prompt", noticed.rule().what()));
        write();
    }

    private void mute(Noticed noticed, String reason) {
        Texts texts = desk.texts();
        muting = Optional.empty();
        line.clear();
        line.setPromptText(texts.get("book.prompt"));
        page.requestFocus();
        if (reason.isBlank()) {
            said.setText(texts.get("book.mute.reason"));
            return;
        }
        Facts now = model.job().facts();
        before.push(now);
        model.note(Judged.mute(now, noticed, reason, "", desk.clock().instant().toString()));
        said.setText(texts.get("book.muted.said"));
    }

    private void undo() {
        if (!before.isEmpty()) {
            model.note(before.pop());
            said.setText(desk.texts().get("book.undone"));
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
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.Z && control) {
            undo();
            return true;
        }
        int number = code.isDigitKey() ? Integer.parseInt(code.getName().replaceAll("\\D", "")) : 0;
        if (number >= 1 && first + number <= Math.min(groups.size(), first + IN_SIGHT)) {
            ask(number);
            return true;
        }
        if (code == KeyCode.I) {
            muting = Optional.empty();
            line.setPromptText(desk.texts().get("book.prompt"));
            write();
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
        turn++;
    }
}
