package org.greenbead.app.stock;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.beans.binding.Bindings;
import javafx.geometry.Pos;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.LifeBar;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.Wording;
import org.greenbead.core.stock.StockCounters;
import org.greenbead.core.stock.StockEntry;
import org.greenbead.core.stock.StockItem;
import org.greenbead.core.stock.StockUse;
import org.greenbead.store.SafeFiles;
import org.greenbead.store.StockCsv;

/** What is used up or wears: how much of its life is left, what is to be ordered, and taking it for the job in hand. A number that is scanned finds it. */
public final class StockPage extends Page {
    private static final DateTimeFormatter DAY = DateTimeFormatter
            .ofPattern("d MMM yyyy HH:mm", Locale.ENGLISH)
            .withZone(ZoneId.systemDefault());
    private static final int MOST_MOMENTS = 7;
    private final Desk desk;
    private final Navigator go;
    private final Optional<JobModel> inHand;
    private final Label title = Looks.label("", "now");
    private final Line entry;
    private final Label said = Looks.note("said");
    private final Label keys = Looks.label("", "muted", "small");
    private final Rows<StockItem> rows;
    private final VBox detail = Looks.as(new VBox(4), "card");
    private final FlowPane choices = new FlowPane(8, 6);
    private final FlowPane fields = new FlowPane(8, 6);
    private final Map<StockEntry.Field, Line> typed = new EnumMap<>(StockEntry.Field.class);
    private final VBox page;
    private List<StockItem> all = List.of();
    private String part = "";
    private Ask ask = Ask.FIND;
    private Optional<StockItem.Act> counting = Optional.empty();
    private Optional<String> freshId = Optional.empty();
    private Optional<StockItem.Kind> freshKind = Optional.empty();

    /** What the line is for. */
    private enum Ask {
        FIND, NEW_ID, AMOUNT, USED
    }

    /** @param inHand the job that something is taken for */
    public StockPage(Desk desk, Navigator go, Optional<JobModel> inHand) {
        this.desk = desk;
        this.go = go;
        this.inHand = inHand;
        Texts texts = desk.texts();
        title.setId("stock-title");
        entry = new Line("stock-line", texts.get("stock.find"));
        entry.setOnAction(enter -> typed(entry.getText().strip()));
        said.setId("stock-said");
        detail.setId("stock-detail");
        rows = new Rows<>("stock-list", i -> "stock-" + i.id(), this::row, (i, pressed) -> detail());
        VBox.setVgrow(rows, Priority.ALWAYS);
        HBox.setHgrow(rows, Priority.ALWAYS);
        detail.setPrefWidth(300);
        detail.setMinWidth(190);
        var middle = new HBox(12, rows, detail);
        VBox.setVgrow(middle, Priority.ALWAYS);
        fields.managedProperty().bind(fields.visibleProperty());
        fields.setVisible(false);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("stock.caps"), "caps"), title, entry, said),
                "instruction");
        page = Looks.as(new VBox(head, middle, fields, choices,
                keys), "page");
        // What the digits do is what can be chosen: six acts of a paste, ten kinds of a new thing, nothing.
        keys.textProperty().bind(Bindings.createStringBinding(
                () -> choices.getChildren().isEmpty()
                        ? texts.get("stock.keys.none")
                        : texts.get("stock.keys", choices.getChildren().size() % 10),
                choices.getChildren()));
        backWord(texts.get("key.back"));
        noteWord(texts.get("stock.new"));
        reread(Optional.empty());
    }

    @Override
    public void reread() {
        reread(rows.chosen().map(StockItem::id));
    }

    private record Read(List<StockItem> items, String part) {}

    private void reread(Optional<String> choose) {
        Optional<org.greenbead.core.route.Job> job = inHand.map(JobModel::job);
        desk.io(() -> new Read(desk.ledger().stock(),
                job.isPresent() ? desk.ledger().targetPart(job.get()) : ""), read -> {
                    Instant now = desk.clock().instant();
                    part = read.part();
                    all = read.items().stream().filter(i -> !StockCounters.of(i, now).scrapped())
                            .sorted(java.util.Comparator.comparing(StockItem::kind)
                                    .thenComparing(StockItem::id))
                            .toList();
                    rows.show(all);
                    choose.flatMap(id -> all.stream().filter(i -> i.id().equals(id)).findFirst())
                            .ifPresent(rows::choose);
                    detail();
                });
    }

    // What is shown.

    private Region row(StockItem item) {
        Texts texts = desk.texts();
        StockCounters now = StockCounters.of(item, desk.clock().instant());
        Label id = Looks.label(item.id(), "text-ink", "strong", "mono");
        id.setMinWidth(64);
        id.setPrefWidth(64);
        var words = new VBox(1, Looks.label(item.name(), "text-ink"),
                Looks.label(String.join(" · ", about(item)), "muted", "small"));
        words.setMinWidth(110);
        words.setPrefWidth(205);
        HBox.setHgrow(words, Priority.ALWAYS);
        var life = new VBox(2);
        life.setPrefWidth(130);
        life.setMinWidth(96);
        life(item, now).ifPresent(l -> {
            if (!Double.isNaN(l.part())) {
                var bar = new LifeBar();
                bar.show(l.part(), l.part() >= 1);
                life.getChildren().add(bar);
            }
            life.getChildren().add(Looks.label(l.words(), "muted", "small"));
        });
        if (now.low(item)) {
            life.getChildren().add(Looks.label(texts.get("stock.order"), "ink-amber", "strong", "small"));
        }
        var row = new HBox(12, id, words, life);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private List<String> about(StockItem item) {
        Texts texts = desk.texts();
        return java.util.stream.Stream.of(texts.say("stock.kind." + item.kind().word()), item.alloy(),
                item.apertureMm().map(a -> texts.get("stock.opening", plain(a))).orElse(""),
                item.diameterMm().map(d -> texts.get("stock.diameter", plain(d))).orElse(""),
                item.lot().isEmpty() ? "" : texts.get("stock.lot", item.lot()), String.join(" ", item.fits()))
                .filter(s -> !s.isEmpty()).toList();
    }

    /** How much of its life is over, in words too. */
    private record Life(double part, String words) {}

    private Optional<Life> life(StockItem item, StockCounters now) {
        Texts texts = desk.texts();
        if (item.kind().ages()) {
            return Optional.of(new Life(item.limitHours().map(h -> now.hoursOut() / h).orElse(0.0),
                    item.limitHours().isPresent()
                            ? texts.get(now.out() ? "stock.out.now" : "stock.out", tenth(now.hoursOut()),
                                    plain(item.limitHours().get()))
                            : texts.get("stock.out.unlimited", tenth(now.hoursOut()))));
        }
        if (item.kind().wears()) {
            return Optional.of(new Life(item.usesMax().map(u -> now.uses() / u).orElse(0.0),
                    item.usesMax().isPresent()
                            ? texts.get("stock.uses", now.uses(), plain(item.usesMax().get()))
                            : texts.get("stock.uses.unlimited", now.uses())));
        }
        return item.unit().isEmpty()
                ? Optional.empty()
                : Optional.of(new Life(Double.NaN, texts.get("stock.left", plain(now.left()), item.unit())));
    }

    private static String plain(double value) {
        return String.format(Locale.ROOT, value == Math.rint(value) ? "%.0f" : "%.2f", value);
    }

    private static String tenth(double value) {
        return String.format(Locale.ROOT, "%.1f", value);
    }

    private void detail() {
        Texts texts = desk.texts();
        Instant now = desk.clock().instant();
        long low = all.stream().filter(i -> StockCounters.of(i, now).low(i)).count();
        title.setText(all.isEmpty()
                ? texts.get("stock.none")
                : low == 0 ? texts.get("stock.title") : texts.get("stock.title.low", low));
        detail.getChildren().clear();
        if (freshKind.isPresent() || freshId.isPresent()) {
            return;
        }
        Optional<StockItem> chosen = rows.chosen().filter(all::contains);
        if (chosen.isEmpty()) {
            choices.getChildren().clear();
            detail.getChildren().add(Looks.label(texts.get("stock.empty"), "muted"));
            pedal(new Pedal(texts.get("stock.new"), texts.get("stock.new.so"), true, this::note));
            return;
        }
        StockItem item = chosen.get();
        StockCounters counters = StockCounters.of(item, now);
        detail.getChildren().addAll(Looks.label(item.name(), "text-ink", "strong"),
                Looks.label(String.join(" · ", about(item)), "muted", "small"));
        for (Noticed n : counters.noticed(item, desk.book(), desk.limits())) {
            Label warn = Looks.label(n.rule().what() + ". " + new Wording(texts.words()).remedy(n),
                    "ink-amber", "strong",
                    "small");
            warn.setId("stock-warn-" + n.rule().id());
            detail.getChildren().add(warn);
        }
        if (counters.blocked()) {
            detail.getChildren()
                    .add(Looks.label(texts.say("stock.act.blocked"), "ink-amber", "strong", "small"));
        }
        if (!part.isEmpty() && !item.fits(part)) {
            detail.getChildren()
                    .add(Looks.label(texts.get("stock.not_for", part), "ink-hot", "strong", "small"));
        }
        detail.getChildren().add(Looks.label(texts.get("stock.done"), "caps"));
        for (StockItem.Moment m : item.moments().reversed().stream().limit(MOST_MOMENTS).toList()) {
            detail.getChildren().add(Looks.label(texts.get("stock.moment", DAY.format(m.at()),
                    texts.say("stock.act." + m.act().word()),
                    (m.amount() > 0 ? plain(m.amount()) + " " + item.unit() + " " : "") + m.job()), "muted",
                    "small"));
        }
        actsNow(item);
        inHand.ifPresentOrElse(
                m -> pedal(Pedal.stating(texts.get("stock.use", item.id(), m.job().id()),
                        texts.get("stock.use.so"), () -> use(item))),
                () -> pedal(Pedal.shut(texts.get("stock.use.not"), texts.get("stock.use.not.so"))));
    }

    private void actsNow(StockItem item) {
        choices.getChildren().clear();
        List<StockItem.Act> acts = StockEntry.acts(item.kind());
        for (int i = 0; i < acts.size(); i++) {
            StockItem.Act act = acts.get(i);
            choice(i + 1, "stock-act-" + act.word(), desk.texts().say("stock.act." + act.word()),
                    () -> act(act));
        }
    }

    private void choice(int key, String id, String word, Runnable pressed) {
        Label chip = Looks.label(desk.texts().get("odds.way", key, word), "odds-way");
        chip.setId(id);
        chip.setAccessibleRole(AccessibleRole.BUTTON);
        chip.setOnMouseClicked(press -> pressed.run());
        choices.getChildren().add(chip);
    }

    // What is done.

    private void act(StockItem.Act act) {
        if (StockEntry.counts(act)) {
            counting = Optional.of(act);
            StockItem item = rows.chosen().orElseThrow();
            ask(Ask.AMOUNT, desk.texts().get("stock.amount", desk.texts().say("stock.act." + act.word()),
                    item.unit()));
            return;
        }
        done(act, 0);
    }

    private void done(StockItem.Act act, double amount) {
        rows.chosen().ifPresent(item -> {
            desk.changes().made(item.id(), item.id(), () -> keep(item));
            keep(item.with(new StockItem.Moment(desk.clock().instant(), act, amount, "",
                    desk.settings().technician().get())));
            tell(desk.texts().get("stock.noted", item.id(), desk.texts().say("stock.act." + act.word())),
                    false);
        });
    }

    private void keep(StockItem item) {
        desk.io(() -> {
            desk.ledger().save(item);
            return item;
        }, kept -> reread(Optional.of(kept.id())));
    }

    private void use(StockItem item) {
        if (!item.unit().isEmpty()) {
            ask(Ask.USED, desk.texts().get("stock.amount.used", item.unit()));
            return;
        }
        used(item, 0);
    }

    private void used(StockItem item, double amount) {
        JobModel m = inHand.orElseThrow();
        try {
            StockUse.Taken taken = StockUse.take(m.job(), part, item, amount, desk.clock().instant(),
                    ZoneId.systemDefault(), desk.settings().technician().get());
            desk.changes().together(() -> {
                m.change(taken.job(), "from stock", item.id());
                desk.changes().made(m, item.id(), () -> keep(item));
            });
            keep(taken.item());
            tell(desk.texts().get("stock.used", item.id(), m.job().id()), false);
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
        }
    }

    private void ask(Ask what, String prompt) {
        ask = what;
        entry.clear();
        entry.setPromptText(prompt);
        entry.open();
    }

    private void typed(String text) {
        Ask what = ask;
        ask = Ask.FIND;
        entry.clear();
        entry.setPromptText(desk.texts().get("stock.find"));
        page.requestFocus();
        switch (what) {
            case FIND -> find(text);
            case NEW_ID -> begun(text);
            case AMOUNT -> number(text).ifPresent(a -> done(counting.orElseThrow(), a));
            case USED -> number(text).ifPresent(a -> rows.chosen().ifPresent(i -> used(i, a)));
        }
    }

    private Optional<Double> number(String text) {
        try {
            double value = Double.parseDouble(text.replace(',', '.'));
            if (value >= 0 && value <= 1e6) {
                return Optional.of(value);
            }
        } catch (NumberFormatException e) {
            // Said below.
        }
        tell(desk.texts().get("stock.no_amount", text), true);
        return Optional.empty();
    }

    private void find(String text) {
        String wanted = text.toLowerCase(Locale.ROOT);
        Optional<StockItem> found = all.stream().filter(i -> i.id().equalsIgnoreCase(text)).findFirst()
                .or(() -> all.stream().filter(i -> (i.id() + " " + i.name() + " " + i.alloy() + " " + i.lot())
                        .toLowerCase(Locale.ROOT).contains(wanted)).findFirst());
        found.ifPresentOrElse(i -> {
            rows.choose(i);
            tell("", false);
        }, () -> tell(desk.texts().get("stock.not_found", text), true));
    }

    // A new one.

    @Override
    public void note() {
        leave();
        ask(Ask.NEW_ID, desk.texts().get("stock.new.id"));
    }

    private void begun(String id) {
        if (all.stream().anyMatch(i -> i.id().equalsIgnoreCase(id))) {
            tell(desk.texts().get("stock.there", id), true);
            return;
        }
        try {
            StockItem.named(id, StockItem.Kind.WICK, "-");
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
            return;
        }
        freshId = Optional.of(id);
        tell("", false);
        choices.getChildren().clear();
        for (StockItem.Kind kind : StockItem.Kind.values()) {
            choice((kind.ordinal() + 1) % 10, "stock-kind-" + kind.word(),
                    desk.texts().say("stock.kind." + kind.word()), () -> kind(kind));
        }
        detail.getChildren().setAll(Looks.label(desk.texts().get("stock.empty"), "muted"));
        pedal(Pedal.shut(desk.texts().get("stock.kind", id), desk.texts().get("stock.kind.so")));
    }

    private void kind(StockItem.Kind kind) {
        freshKind = Optional.of(kind);
        choices.getChildren().clear();
        typed.clear();
        fields.getChildren().clear();
        for (StockEntry.Field field : StockEntry.asked(kind)) {
            var line = new Line("stock-field-" + field.word(), "");
            line.setPrefWidth(field == StockEntry.Field.NAME ? 220 : 150);
            line.setMaxWidth(Region.USE_PREF_SIZE);
            line.setOnAction(enter -> keepFresh());
            typed.put(field, line);
            fields.getChildren()
                    .add(new VBox(2,
                            Looks.label(desk.texts().say("stock.field." + field.word()), "muted", "small"),
                            line));
        }
        fields.setVisible(true);
        pedal(new Pedal(desk.texts().get("stock.keep", freshId.orElseThrow()),
                desk.texts().get("stock.keep.so"), true, this::keepFresh));
        typed.get(StockEntry.Field.NAME).open();
    }

    private void keepFresh() {
        var said = new EnumMap<StockEntry.Field, String>(StockEntry.Field.class);
        typed.forEach((field, line) -> said.put(field, line.getText()));
        try {
            StockItem item = StockEntry.read(Optional.empty(), freshId.orElseThrow(), freshKind.orElseThrow(),
                    said);
            leave();
            keep(item);
            tell(desk.texts().get("stock.kept", item.id()), false);
        } catch (IllegalArgumentException e) {
            tell(e.getMessage(), true);
        }
    }

    private void leave() {
        freshId = Optional.empty();
        freshKind = Optional.empty();
        fields.setVisible(false);
        typed.clear();
        page.requestFocus();
        detail();
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
    }

    private void orders() {
        Instant now = desk.clock().instant();
        List<StockItem> low = all.stream().filter(i -> StockCounters.of(i, now).low(i)).toList();
        desk.io(() -> {
            Path out = Files.createDirectories(desk.ledger().folder().resolve("exports"))
                    .resolve("to-order.csv");
            SafeFiles.write(out, StockCsv.toOrder(low, now).getBytes(StandardCharsets.UTF_8));
            return out;
        }, out -> tell(desk.texts().get("stock.orders", low.size(), out), false));
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        if (freshId.isPresent()) {
            leave();
        } else {
            go.home();
        }
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        int digit = code.isDigitKey() ? Integer.parseInt(code.getName().replaceAll("\\D", "")) : -1;
        if (digit >= 0) {
            int at = digit == 0 ? 9 : digit - 1;
            if (freshId.isPresent() && freshKind.isEmpty()) {
                kind(StockItem.Kind.values()[at]);
            } else if (freshId.isEmpty()) {
                rows.chosen().map(i -> StockEntry.acts(i.kind())).filter(a -> at < a.size())
                        .ifPresent(a -> act(a.get(at)));
            }
            return true;
        }
        switch (code) {
            case DOWN, UP -> rows.move(code == KeyCode.DOWN ? 1 : -1);
            case I -> ask(Ask.FIND, desk.texts().get("stock.find"));
            case X -> orders();
            case ESCAPE -> back();
            default -> {
                return false;
            }
        }
        return true;
    }
}
