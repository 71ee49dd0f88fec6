package org.greenbead.app.work;

import java.util.List;
import java.util.Locale;
import java.util.Map;
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
import javafx.scene.shape.Rectangle;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.run.BoardPlan;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.CheckItem;
import org.greenbead.core.run.RunPlan;

/** A bead of checks: each is attested with one press, with the caution of that step beside it. */
public final class CheckPage extends Page {
    private static final PseudoClass YES = PseudoClass.getPseudoClass("yes");
    private static final PseudoClass NO = PseudoClass.getPseudoClass("no");
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final String beadId;
    private final VBox rows = Looks.as(new VBox(), "check-rows");
    private final VBox history = new VBox(2);
    private final HBox lower = new HBox(10);
    private final VBox page;
    private final Subscription watching;
    private Optional<String> chosen = Optional.empty();

    public CheckPage(Desk desk, JobModel model, Navigator go, String beadId) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.beadId = beadId;
        Texts texts = desk.texts();
        Bead bead = bead();
        var head = Looks.as(new VBox(Looks.label(texts.get("work.caps"), "caps"),
                Looks.label(texts.get("work.bead",
                        texts.say("phase." + bead.phase().name().toLowerCase(Locale.ROOT)),
                        texts.say("bead." + bead.id())), "huge"),
                Looks.label(model.job().complaint() + " · " + model.job().customer(), "muted")),
                "instruction");
        rows.setSpacing(9);
        Label local = Looks.label(texts.get("work.local"), "muted", "small");
        var past = Looks.as(new VBox(4, Looks.label(texts.get("work.history"), "caps"), history), "card");
        HBox.setHgrow(past, Priority.ALWAYS);
        past.setMinWidth(200);
        lower.getChildren().add(past);
        var inner = new VBox(12, rows, local, lower);
        var scroll = Looks.as(new ScrollPane(inner), "watch-scroll");
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        page = Looks.as(new VBox(head, scroll), "page");
        watching = Subscription.combine(model.jobProperty().subscribe(j -> show()),
                model.findingsProperty().subscribe(this::findings),
                model.planProperty().subscribe(p -> p.ifPresent(this::showBoard)));
        backWord(texts.get("work.unattest"));
        noteWord("");
    }

    /** The board with its parts, and what is known of the chip that is worked. */
    private void showBoard(RunPlan plan) {
        Texts texts = desk.texts();
        var chip = plan.target();
        var board = new BoardPlan();
        board.setPrefHeight(230);
        board.show(plan, Map.of(), texts);
        var card = Looks.as(new VBox(5, Looks.label(texts.get("work.board"), "caps"), board,
                Looks.label(texts.get("work.chip", chip.name(), chip.part(), chip.joint().alloy().name()),
                        "text-ink", "strong"),
                Looks.label(texts.get("work.melts", chip.melts(), chip.meltsLimit(),
                        texts.temp(chip.bodyLimitC())), "muted", "small"),
                Looks.label(
                        texts.get("work.dry", texts.words().show(new Quantity.Hours(chip.openH())),
                                texts.words().show(new Quantity.Hours(chip.floorLifeH()))),
                        "muted", "small")),
                "card");
        card.setPrefWidth(370);
        card.setMinWidth(280);
        if (lower.getChildren().size() > 1) {
            lower.getChildren().removeLast();
        }
        lower.getChildren().add(card);
    }

    private Bead bead() {
        return model.job().bead(beadId).orElseThrow();
    }

    private void show() {
        Texts texts = desk.texts();
        rows.getChildren().clear();
        Optional<org.greenbead.core.route.Bead> gate = model.job().gateBefore(beadId);
        gate.ifPresent(g -> rows.getChildren()
                .add(Looks.label(texts.get("work.gate", texts.say("bead." + g.id())), "ink-hot", "strong")));
        for (CheckItem item : bead().checks()) {
            rows.getChildren().add(row(item, texts));
        }
        Optional<CheckItem> next = next();
        if (next.isPresent() && gate.isEmpty()) {
            String check = next.get().id();
            pedal(new Pedal(texts.get("work.attest", texts.say("check." + check)),
                    texts.get("work.attest.so"), true, () -> attest(check, Attest.YES)));
        } else {
            pedal(onwards(model, go, texts));
        }
        desk.io(() -> desk.ledger().history(model.job().id()), events -> {
            var lines = events.reversed().stream().limit(8)
                    .map(e -> Looks.label(
                            java.time.format.DateTimeFormatter.ofPattern("d MMM HH:mm", Locale.ENGLISH)
                                    .withZone(java.time.ZoneId.systemDefault()).format(e.at())
                                    + "   " + e.kind() + "   " + readable(e.detail(), texts),
                            "small", "muted"))
                    .toList();
            history.getChildren().setAll(lines);
        });
    }

    /** A check's own words instead of its key. */
    private static String readable(String detail, Texts texts) {
        String key = detail.split(" ", 2)[0];
        if (texts.words().has("check." + key)) {
            return detail.replaceFirst(key,
                    java.util.regex.Matcher.quoteReplacement(texts.say("check." + key) + ":"));
        }
        return texts.words().has("bead." + key)
                ? detail.replaceFirst(key,
                        java.util.regex.Matcher.quoteReplacement(texts.say("bead." + key) + ":"))
                        .replace('_', ' ')
                : detail;
    }

    private Optional<CheckItem> next() {
        List<CheckItem> open = bead().checks().stream().filter(c -> c.state() != Attest.YES).toList();
        return open.stream().filter(c -> chosen.equals(Optional.of(c.id()))).findFirst()
                .or(() -> open.stream().findFirst());
    }

    private Region row(CheckItem item, Texts texts) {
        var box = Looks.as(new Rectangle(18, 18), "check-shape");
        box.pseudoClassStateChanged(YES, item.state() == Attest.YES);
        box.pseudoClassStateChanged(NO, item.state() == Attest.NO);
        var words = new VBox(3, Looks.label(texts.say("check." + item.id()), "text"));
        if (texts.words().has("caution.check." + item.id())) {
            words.getChildren().add(Looks.label(texts.say("caution.check." + item.id()), "caution"));
        }
        HBox.setHgrow(words, Priority.ALWAYS);
        var line = new HBox(14, box, words);
        line.setAlignment(Pos.CENTER_LEFT);
        var button = Looks.as(new Button(), "check-row");
        button.setId("check-" + item.id());
        button.setGraphic(line);
        button.setMaxWidth(Double.MAX_VALUE);
        button.setAlignment(Pos.CENTER_LEFT);
        button.setContentDisplay(javafx.scene.control.ContentDisplay.GRAPHIC_ONLY);
        line.prefWidthProperty().bind(button.widthProperty().subtract(34));
        button.setAccessibleText(texts.say("check." + item.id()));
        button.pseudoClassStateChanged(Looks.HERE, next().map(CheckItem::id).equals(Optional.of(item.id())));
        button.setOnAction(press -> attest(item.id(), item.state() == Attest.YES ? Attest.NO : Attest.YES));
        return button;
    }

    private void attest(String check, Attest word) {
        if (model.job().gateBefore(beadId).isEmpty()) {
            chosen = Optional.empty();
            model.attest(check, word);
            desk.cues().play(org.greenbead.app.shell.Cues.Cue.TICK);
        }
    }

    /** The pedal of a page whose bead is worked. */
    public static Pedal onwards(JobModel model, Navigator go, Texts texts) {
        return model.job().inHand()
                .map(b -> new Pedal(texts.get("work.next", texts.say("bead." + b.id())),
                        texts.get("work.next.so"), true, go::home))
                .orElseGet(() -> Pedal.shut(texts.get("work.end"), texts.get("work.end.so")));
    }

    @Override
    public boolean planned() {
        return true;
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        List<CheckItem> said = bead().checks().stream().filter(c -> c.state() == Attest.YES).toList();
        if (!said.isEmpty()) {
            model.attest(said.getLast().id(), Attest.UNKNOWN);
        }
    }

    @Override
    public void remedy(Finding finding) {
        if (!model.remedy(finding)) {
            model.nextRun().ifPresent(b -> go.recipe(b.id()));
        }
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (code == KeyCode.DOWN || code == KeyCode.UP) {
            List<String> open = bead().checks().stream().filter(c -> c.state() != Attest.YES)
                    .map(CheckItem::id).toList();
            if (!open.isEmpty()) {
                int at = next().map(c -> open.indexOf(c.id())).orElse(0) + (code == KeyCode.DOWN ? 1 : -1);
                chosen = Optional.of(open.get(Math.floorMod(at, open.size())));
                show();
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
