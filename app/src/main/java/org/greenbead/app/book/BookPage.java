package org.greenbead.app.book;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
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
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.FactWords;
import org.greenbead.core.account.KnownFacts;
import org.greenbead.core.account.Origin;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Grouped;
import org.greenbead.core.book.Judged;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.Phase;
import org.greenbead.core.book.Wording;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Bead;

/** What the whole rule book says of the job in hand, five findings at a time; and a line to note what is known. */
public final class BookPage extends Page {
    private static final int IN_SIGHT = 5;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label said = Looks.label("", "muted");
    private final VBox list = new VBox(8);
    private final Line line;
    private final HBox reasonRow = new HBox(12);
    private final Runnable limits;
    private final VBox page;
    private final Subscription watching;
    private List<Grouped> groups = List.of();
    private List<Judged.Muted> muted = List.of();
    private Optional<Noticed> muting = Optional.empty();
    private int first;
    private int folded;
    private boolean later;

    /** @param limits opens the thresholds */
    public BookPage(Desk desk, JobModel model, Navigator go, Runnable limits) {
        this.limits = limits;
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("book-title");
        said.setId("book-said");
        list.setId("book-list");
        line = new Line("book-line", texts.get("book.mute"));
        line.setOnAction(enter -> muting.ifPresent(n -> mute(n, line.getText())));
        HBox.setHgrow(line, Priority.ALWAYS);
        var account = Looks.as(new Button(texts.get("account.open") + "  A"), "act", "small");
        account.setId("book-account");
        account.setMinWidth(Region.USE_PREF_SIZE);
        account.setOnAction(press -> go.account());
        title.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(title, Priority.ALWAYS);
        var under = new HBox(12, title, account);
        under.setAlignment(Pos.CENTER_LEFT);
        var head = Looks.as(new VBox(1, Looks.label(texts.get("book.caps"), "caps"), under), "instruction");
        var scroll = Looks.as(new ScrollPane(list), "watch-scroll");
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        var noteHead = Looks.label(texts.get("book.mute"), "caps");
        noteHead.setMinWidth(Region.USE_PREF_SIZE);
        reasonRow.getChildren().setAll(noteHead, line);
        reasonRow.setAlignment(Pos.CENTER_LEFT);
        asking(false);
        var foot = Looks.as(new VBox(5, reasonRow, said), "card");
        foot.visibleProperty().bind(reasonRow.visibleProperty().or(said.textProperty().isNotEmpty()));
        foot.managedProperty().bind(foot.visibleProperty());
        page = Looks.as(new VBox(head, scroll, foot), "page");
        backWord(texts.get("book.back"));
        noteWord(texts.get("book.limits"));
        watching = model.judgedProperty().subscribe(found -> {
            groups = visible(Grouped.of(found.judged().open()));
            muted = found.judged().muted();
            first = first >= groups.size() ? 0 : first;
            show();
        });
        model.askBook();
    }

    /** What concerns the phase in hand and the ones before; the rest is folded until it is asked for. Stops are never folded. */
    private List<Grouped> visible(List<Grouped> all) {
        Phase hand = model.job().inHand().map(Bead::phase).orElse(Phase.CLOSE);
        List<Grouped> now = all.stream().filter(g -> later || g.rule().severity() == Severity.STOP
                || g.rule().phase().compareTo(hand) <= 0).toList();
        folded = all.size() - now.size();
        return now;
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
        for (NotKnown open : model.judgedProperty().get().notKnown()) {
            list.getChildren().add(question(open, texts));
        }
        if (folded > 0 || later) {
            Label fold = Looks.label(later ? texts.get("book.unfolded") : texts.get("book.folded", folded),
                    "muted", "small");
            fold.setId("book-folded");
            list.getChildren().add(fold);
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

    private Region card(Grouped group, int number, Wording wording, Texts texts) {
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
        List<String> others = Wording.others(group);
        String more = group.places().size() == 1
                ? ""
                : " " + (others.isEmpty()
                        ? texts.get("book.places", group.places().size() - 1)
                        : texts.get("book.places.named", String.join(", ", others)));
        Label remedy = Looks.label(wording.remedy(place), "cure");
        remedy.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(remedy, Priority.ALWAYS);
        Label source = Looks.label(texts.get("book.source", group.rule().source(), from(place)),
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

    /** Where the facts of a finding come from. */
    private String from(Noticed noticed) {
        KnownFacts known = model.judgedProperty().get().known();
        return String.join("; ", desk.book().spots(noticed).stream()
                .flatMap(path -> known.origin(path).stream()).map(Origin::from)
                .map(f -> FactWords.from(f, desk.texts().words())).distinct().toList());
    }

    /** What nobody knows yet and the book asks for, with how it is found out. */
    private static Region question(NotKnown open, Texts texts) {
        Label what = Looks.label(texts.get("book.unknown", open.rule().what(), String.join(", ",
                open.missing().stream().map(m -> FactWords.of(m, texts.words())).toList())), "why");
        Label find = Looks.label(texts.get("work.find", open.find()), "cure");
        var card = Looks.as(new VBox(what, find), "card", "unknown");
        card.setId("unknown-" + open.rule().id());
        return card;
    }

    /** To the question whose answer would settle it; else to the bead of its phase. */
    private void writeDown(Grouped group) {
        KnownFacts known = model.judgedProperty().get().known();
        List<String> inputs = desk.book().inputs(group.rule());
        // What nobody knows yet comes first: that is what was forgotten.
        List<String> wanted = java.util.stream.Stream.concat(
                inputs.stream().filter(i -> known.origin(i).isEmpty()),
                inputs.stream().filter(i -> known.origin(i).isPresent())).toList();
        for (String path : wanted) {
            for (RecordType type : RecordTypes.shipped().all()) {
                Optional<RecordType.Item> item = type.fields().stream()
                        .filter(f -> f.fact().filter(path.replace("[]", "")::equals).isPresent()).findFirst();
                Optional<Bead> bead = model.job().beads().stream()
                        .filter(b -> b.kind() == Bead.Kind.CHECK && type.beads().contains(b.id()))
                        .findFirst();
                if (item.isPresent() && bead.isPresent()) {
                    go.ask(bead.get().id(), type.id(), item.get().name());
                    return;
                }
            }
        }
        model.job().beads().stream().filter(b -> b.phase() == group.rule().phase()).findFirst()
                .ifPresent(b -> go.bead(b.id()));
    }

    @Override
    public void note() {
        limits.run();
    }

    /** Asks for the reason; an empty one, or Escape, mutes nothing. */
    private void ask(int number) {
        Texts texts = desk.texts();
        Noticed noticed = groups.get(first + number - 1).places().getFirst();
        if (!Judged.mutable(noticed, model.judgedProperty().get().known().facts())) {
            said.setText(texts.get("book.mute.never", noticed.rule().what()));
            return;
        }
        muting = Optional.of(noticed);
        line.clear();
        line.setPromptText(texts.get("book.mute.prompt", noticed.rule().what()));
        asking(true);
        line.open();
    }

    /** The line for a reason is there only while one is asked for. */
    private void asking(boolean on) {
        reasonRow.setVisible(on);
        reasonRow.setManaged(on);
    }

    private void mute(Noticed noticed, String reason) {
        Texts texts = desk.texts();
        muting = Optional.empty();
        line.clear();
        asking(false);
        page.requestFocus();
        if (reason.isBlank()) {
            said.setText(texts.get("book.mute.reason"));
            return;
        }
        Facts now = model.job().facts();
        model.note(Judged.mute(now, noticed, reason, desk.settings().technician().get(),
                desk.clock().instant().toString()));
        said.setText(texts.get("book.muted.said"));
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
        if (code == KeyCode.T || code == KeyCode.N) {
            limits.run();
            return true;
        }
        if (code == KeyCode.A && !control) {
            go.account();
            return true;
        }
        if (code == KeyCode.F) {
            later = !later;
            groups = visible(Grouped.of(model.judgedProperty().get().judged().open()));
            first = 0;
            show();
            return true;
        }
        int number = code.isDigitKey() ? Integer.parseInt(code.getName().replaceAll("\\D", "")) : 0;
        if (number >= 1 && first + number <= Math.min(groups.size(), first + IN_SIGHT)) {
            if (control) {
                writeDown(groups.get(first + number - 1));
            } else {
                ask(number);
            }
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
    }
}
