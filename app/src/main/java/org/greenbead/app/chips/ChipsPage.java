package org.greenbead.app.chips;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.css.PseudoClass;
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
import org.greenbead.app.work.Navigator;
import org.greenbead.core.chip.ChipLabel;
import org.greenbead.core.chip.LabelWords;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.route.Job;
import org.greenbead.store.LabelSheet;
import org.greenbead.store.SafeFiles;

/** The chips of the house: which is which, where it is, whether it is good, what it has been through. A label that is typed or scanned finds its chip. */
public final class ChipsPage extends Page {
    private static final DateTimeFormatter DAY = DateTimeFormatter
            .ofPattern("d MMM yyyy HH:mm", Locale.ENGLISH)
            .withZone(ZoneId.systemDefault());
    private final Desk desk;
    private final Navigator go;
    private final Optional<Job> job;
    private final Line entry;
    private final Label said = Looks.note("said");
    private final Rows<StockChip> rows;
    private final VBox detail = Looks.as(new VBox(4), "card");
    private final VBox page;
    private List<StockChip> chips = List.of();
    private Ask ask = Ask.FIND;

    /** What the line is for. */
    private enum Ask {
        FIND, NAME, PLACE, GOOD, BAD, ALLOY, MARK
    }

    /**
     * @param job the one in hand, to which a new chip belongs
     */
    public ChipsPage(Desk desk, Navigator go, Optional<Job> job) {
        this.desk = desk;
        this.go = go;
        this.job = job;
        Texts texts = desk.texts();
        entry = new Line("chips-line", texts.get("chips.find"));
        entry.setOnAction(enter -> typed(entry.getText().strip()));
        said.setId("chips-said");
        detail.setId("chips-detail");
        rows = new Rows<>("chips-list", c -> "chip-" + c.label(), c -> row(c, desk.texts()),
                (c, pressed) -> detail());
        VBox.setVgrow(rows, Priority.ALWAYS);
        HBox.setHgrow(rows, Priority.ALWAYS);
        detail.setPrefWidth(310);
        detail.setMinWidth(240);
        var middle = new HBox(12, rows, detail);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("chips.caps"), "caps"),
                Looks.label(texts.get("chips.title"), "now"), entry, said), "instruction");
        page = Looks.as(new VBox(head, middle, Looks.label(texts.get("chips.keys"), "muted", "small")),
                "page");
        backWord(texts.get("key.back"));
        noteWord(texts.get("chips.new"));
        reread(Optional.empty());
    }

    private void reread(Optional<String> choose) {
        desk.io(() -> desk.ledger().chips(), all -> {
            chips = all;
            rows.show(all);
            choose.flatMap(l -> all.stream().filter(c -> c.label().equals(l)).findFirst())
                    .ifPresent(rows::choose);
            detail();
        });
    }

    private Region row(StockChip chip, Texts texts) {
        Label label = Looks.label(chip.label(), "text-ink", "strong", "mono");
        label.setMinWidth(Region.USE_PREF_SIZE);
        Label health = Looks.label(texts.say("chip.health." + small(chip.health())), "small", "strong",
                switch (chip.health()) {
                    case GOOD -> "ink-green";
                    case BAD -> "ink-hot";
                    case UNKNOWN -> "ink-tin";
                });
        health.setMinWidth(118);
        var words = new VBox(1,
                Looks.label(
                        chip.part() + (chip.pads() > 0 ? ", " + texts.get("chips.balls", chip.pads()) : ""),
                        "text-ink"),
                Looks.label(
                        texts.say("chip.place." + small(chip.place())) + " " + chip.where()
                                + chip.job().map(j -> " · " + j).orElse(""),
                        "muted", "small"));
        HBox.setHgrow(words, Priority.ALWAYS);
        var row = new HBox(10, label, words, health);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }

    private void detail() {
        Texts texts = desk.texts();
        detail.getChildren().clear();
        Optional<StockChip> chosen = rows.chosen();
        if (chosen.isEmpty()) {
            detail.getChildren().add(Looks.label(texts.get("chips.empty"), "muted"));
            pedal(new Pedal(texts.get("chips.new"), texts.get("chips.new.so"), true, this::note));
            return;
        }
        StockChip chip = chosen.get();
        detail.getChildren().addAll(Looks.label(chip.part(), "caps"),
                Looks.label(chip.label(), "figure", "mono"),
                Looks.label(texts.get("chips.from", texts.say("chip.origin." + small(chip.origin())),
                        chip.from().isEmpty() ? texts.say("book.not_noted") : chip.from()), "text-ink",
                        "small"),
                Looks.label(chip.orientation().isEmpty() ? texts.say("chip.no_mark") : chip.orientation(),
                        "text-ink",
                        "small"),
                Looks.label(texts.get("chips.lived", chip.melts(), Math.round(chip.hotMin()),
                        chip.alloy().isEmpty() ? texts.say("book.not_noted") : chip.alloy()), "text-ink",
                        "small"));
        if (!chip.proof().isEmpty()) {
            detail.getChildren()
                    .add(Looks.label(texts.get("chips.proof", chip.proof()), "text-ink", "small"));
        }
        List<StockChip> alike = LookAlikes.of(chip, chips);
        if (!alike.isEmpty()) {
            Label warn = Looks.label(texts.get("chips.alike",
                    String.join(", ", alike.stream().map(StockChip::label).toList())), "ink-amber", "strong",
                    "small");
            warn.setId("chips-alike");
            detail.getChildren().add(warn);
        }
        detail.getChildren().add(Looks.label(texts.get("chips.life"), "caps"));
        for (StockChip.Moment moment : chip.life().reversed().stream().limit(8).toList()) {
            detail.getChildren()
                    .add(Looks.label(DAY.format(moment.at()) + "  " + moment.what(), "muted", "small"));
        }
        detail.pseudoClassStateChanged(PseudoClass.getPseudoClass("bad"),
                chip.health() == StockChip.Health.BAD);
        pedal(new Pedal(texts.get("chips.print", chip.label()), texts.get("chips.print.so"), true,
                () -> print(List.of(chip))));
    }

    private void print(List<StockChip> which) {
        Texts texts = desk.texts();
        desk.io(() -> {
            Path folder = Files.createDirectories(desk.ledger().folder().resolve("exports"));
            Path out = folder
                    .resolve(which.size() == 1 ? "label-" + which.getFirst().label() + ".pdf" : "labels.pdf");
            SafeFiles.write(out, LabelSheet.pdf(which, c -> LabelWords.of(c, texts.words())));
            return out;
        }, out -> tell(texts.get("chips.printed", which.size(), out), false));
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    private void ask(Ask what, String prompt) {
        ask = what;
        entry.clear();
        entry.setPromptText(prompt);
        entry.open();
    }

    private void typed(String text) {
        Texts texts = desk.texts();
        Ask what = ask;
        ask = Ask.FIND;
        entry.clear();
        entry.setPromptText(texts.get("chips.find"));
        page.requestFocus();
        if (what == Ask.FIND) {
            find(text);
            return;
        }
        if (text.isEmpty()) {
            return;
        }
        rows.chosen().ifPresent(chip -> {
            try {
                StockChip changed = changed(chip, what, text);
                desk.changes().made(chip.label(), chip.label(), () -> keep(chip));
                keep(changed);
            } catch (IllegalArgumentException e) {
                tell(e.getMessage(), true);
            }
        });
    }

    private StockChip changed(StockChip chip, Ask what, String text) {
        var now = desk.clock().instant();
        return switch (what) {
            case FIND -> chip;
            case PLACE -> {
                StockChip.Put put = StockChip.Put.read(text);
                yield chip.moved(put.place(), put.where(), chip.job(), now,
                        desk.texts().get("chips.moved", text));
            }
            case NAME -> chip.named(text, now, desk.texts().get("chips.named", text));
            case GOOD ->
                chip.known(StockChip.Health.GOOD, text, now, desk.texts().get("chips.known.good", text));
            case BAD ->
                chip.known(StockChip.Health.BAD, text, now, desk.texts().get("chips.known.bad", text));
            case ALLOY -> chip.with(text, chip.orientation(), now, desk.texts().get("chips.balls.of", text));
            case MARK -> chip.with(chip.alloy(), text, now, desk.texts().get("chips.marked", text));
        };
    }

    private void keep(StockChip chip) {
        desk.io(() -> {
            desk.ledger().save(chip);
            return chip;
        }, this::kept);
    }

    private void kept(StockChip chip) {
        tell(desk.texts().get("chips.kept", chip.label()), false);
        reread(Optional.of(chip.label()));
    }

    private void find(String text) {
        Texts texts = desk.texts();
        Optional<String> label = ChipLabel.read(text).map(ChipLabel::text);
        Optional<StockChip> found = label
                .flatMap(l -> chips.stream().filter(c -> c.label().equals(l)).findFirst())
                .or(() -> text.isBlank()
                        ? Optional.empty()
                        : chips.stream().filter(c -> (c.part() + " " + c.where() + " " + c.job().orElse(""))
                                .toLowerCase(Locale.ROOT).contains(text.toLowerCase(Locale.ROOT)))
                                .findFirst());
        if (found.isPresent()) {
            rows.choose(found.get());
            detail();
            tell("", false);
        } else {
            tell(texts.get(label.isPresent() ? "chips.nobody" : "chips.nolabel", text), true);
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

    /** A new chip of the job in hand, with the next free label; what the ledger holds decides both, not what this page has read so far. */
    @Override
    public void note() {
        var now = desk.clock().instant();
        Texts texts = desk.texts();
        desk.io(() -> {
            String printed = job.isPresent() ? desk.ledger().targetPart(job.get()) : "";
            var fresh = new StockChip(LookAlikes.free(desk.ledger().chips()).text(),
                    printed.isBlank() ? texts.get("chips.unnamed") : printed, 0, 0, StockChip.Origin.OWN,
                    job.map(Job::id).orElse(""), StockChip.Place.BOARD, "", StockChip.Health.UNKNOWN, "", "",
                    "", 0, 0, job.map(Job::id),
                    List.of(new StockChip.Moment(now, texts.get("chips.begun"))));
            desk.ledger().save(fresh);
            return fresh;
        }, fresh -> {
            // Its label is not given twice.
            StockChip gone = fresh.moved(StockChip.Place.GONE, "", Optional.empty(), now,
                    texts.get("chips.unbegun"));
            desk.changes().made(fresh.label(), fresh.label(), () -> keep(gone));
            kept(fresh);
        });
    }

    private Texts texts() {
        return desk.texts();
    }

    @Override
    public void reread() {
        reread(rows.chosen().map(StockChip::label));
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        Texts texts = desk.texts();
        switch (code) {
            case DOWN -> rows.move(1);
            case UP -> rows.move(-1);
            case I -> ask(Ask.FIND, texts.get("chips.find"));
            case T -> ask(Ask.NAME, texts.get("chips.name.prompt"));
            case P -> ask(Ask.PLACE, texts.get("chips.place.prompt"));
            case H -> ask(Ask.GOOD, texts.get("chips.good.prompt"));
            case X -> ask(Ask.BAD, texts.get("chips.bad.prompt"));
            case A -> ask(Ask.ALLOY, texts.get("chips.alloy.prompt"));
            case V -> ask(Ask.MARK, texts.get("chips.mark.prompt"));
            case E -> print(chips);
            default -> {
                return false;
            }
        }
        return true;
    }
}
