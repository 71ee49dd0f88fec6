package org.greenbead.app.work;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.record.Answer;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordType;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.work.AsBefore;

/**
 * What is written down at a bead, one question at a time. Choices are digits, words and numbers are typed; Enter goes on. Everything that
 * was answered stands as a sentence above the question.
 */
public final class AskPane extends VBox {
    private final Desk desk;
    private final JobModel model;
    private final List<RecordType> types;
    private final FlowPane tabs = new FlowPane(6, 4);
    private final Label hint = Looks.label("", "muted", "small");
    private final FlowPane noted = new FlowPane(14, 2);
    private final Label question = Looks.label("", "text-ink", "ask-question");
    private final Label said = Looks.note("said");
    private final FlowPane choices = new FlowPane(8, 6);
    private final Button asBefore = Looks.as(new Button(), "act", "small");
    private final Line entry;
    private int type;
    private int field;
    private Optional<String> record = Optional.empty();
    private boolean active;
    private Map<String, AsBefore.Source> before = Map.of();
    /** The question whose line is open, and what it was opened with. */
    private String opened = "";
    private String openedWith = "";
    private Runnable left = () -> {
    };

    public AskPane(Desk desk, JobModel model, String beadId) {
        this.desk = desk;
        this.model = model;
        types = RecordTypes.shipped().at(beadId);
        entry = new Line("ask-line", "");
        entry.setOnAction(enter -> typed());
        entry.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.F2) {
                // The same on every keyboard, and never a part of what is typed.
                asBefore();
                e.consume();
            } else if (e.getCode() == KeyCode.INSERT) {
                another();
                e.consume();
            } else if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
                step(e.getCode() == KeyCode.DOWN ? 1 : -1);
                e.consume();
            }
        });
        entry.focusedProperty().subscribe(on -> {
            if (on) {
                active = true;
                getStyleClass().remove("asking");
                getStyleClass().add("asking");
            }
        });
        question.setId("ask-question");
        said.setId("ask-said");
        noted.setId("ask-noted");
        choices.setId("ask-choices");
        asBefore.setId("ask-as-before");
        asBefore.setWrapText(true);
        asBefore.setMaxWidth(Double.MAX_VALUE);
        asBefore.setAlignment(Pos.CENTER_LEFT);
        asBefore.setMinHeight(Region.USE_PREF_SIZE);
        asBefore.setOnAction(press -> asBefore());
        offer(List.of());
        tabs.setAlignment(Pos.CENTER_LEFT);
        getStyleClass().addAll("card", "ask");
        var gap = new Region();
        VBox.setVgrow(gap, Priority.ALWAYS);
        getChildren().addAll(tabs, noted, asBefore, question, choices, entry, said, gap, hint);
        setMinHeight(Region.USE_PREF_SIZE);
        setVisible(!types.isEmpty());
        setManaged(!types.isEmpty());
        if (!types.isEmpty()) {
            home(0);
            model.before(types.stream().map(RecordType::id).toList(), told -> {
                before = told;
                show();
            });
        }
    }

    private List<Kept> missing() {
        return Optional.ofNullable(before.get(now().id()))
                .map(s -> AsBefore.missing(model.job(), s, desk.clock().instant(),
                        desk.settings().technician().get()))
                .orElse(List.of());
    }

    private void asBefore() {
        List<Kept> records = missing();
        if (!records.isEmpty()) {
            active = true;
            model.asIn(before.get(now().id()).job(), records);
            home(type);
            activate();
        }
    }

    /** What the job before had and this one has not yet, said whole before it is written. */
    private void offer(List<Kept> missing) {
        asBefore.setVisible(!missing.isEmpty());
        asBefore.setManaged(!missing.isEmpty());
        if (missing.isEmpty()) {
            return;
        }
        Texts texts = desk.texts();
        List<String> said = missing.stream().map(r -> String.join(", ", now().fields().stream()
                .filter(f -> r.noted(f.name()).isPresent()
                        && model.job().record(r.id()).flatMap(there -> there.noted(f.name())).isEmpty())
                .map(f -> named(f, r.noted(f.name()).get(), texts)).toList()))
                .toList();
        asBefore.setText(texts.get("ask.before", before.get(now().id()).job(), String.join("; ", said)));
    }

    /** Called when the person has left the questions. */
    void onLeft(Runnable then) {
        left = then;
    }

    boolean asks() {
        return !types.isEmpty();
    }

    boolean active() {
        return active;
    }

    /** Takes the keyboard. */
    public void activate() {
        active = true;
        getStyleClass().remove("asking");
        getStyleClass().add("asking");
        show();
        if (entry.isVisible()) {
            entry.open();
        }
    }

    /** To the question that says a fact. @return false when none here does */
    public boolean activate(Navigator.Question asked) {
        for (int i = 0; i < types.size(); i++) {
            if (types.get(i).id().equals(asked.type())) {
                home(i);
                if (asked.record().flatMap(model.job()::record).isPresent()) {
                    record = asked.record();
                }
                // A picture that is asked for is another one than those that are there.
                boolean picture = asked.type().equals("picture") && asked.field().isEmpty();
                if (!asked.begun().isEmpty() || picture && asked.record().isEmpty()) {
                    record = Optional.empty();
                    field = 0;
                }
                for (int f = 0; f < types.get(i).fields().size(); f++) {
                    field = types.get(i).fields().get(f).name().equals(asked.field()) ? f : field;
                }
                activate();
                if (!asked.begun().isEmpty() && entry.isVisible()) {
                    entry.setText(asked.begun());
                    entry.end();
                }
                return true;
            }
        }
        return false;
    }

    private void leave() {
        active = false;
        opened = "";
        getStyleClass().remove("asking");
        show();
        left.run();
    }

    /** The first unanswered question of a type; of a list the last item, or a new one. */
    private void home(int at) {
        type = Math.floorMod(at, types.size());
        List<Kept> there = model.job().records(now().id());
        record = there.isEmpty() ? Optional.empty() : Optional.of(there.getLast().id());
        field = 0;
        Optional<Kept> kept = kept();
        while (field < now().fields().size() - 1 && kept.isPresent()
                && kept.get().noted(now().fields().get(field).name()).isPresent()) {
            field++;
        }
    }

    private RecordType now() {
        return types.get(type);
    }

    private RecordType.Item item() {
        return now().fields().get(field);
    }

    private Optional<Kept> kept() {
        return record.flatMap(id -> model.job().record(id));
    }

    /** Draws what stands in the job. */
    public void show() {
        if (types.isEmpty()) {
            return;
        }
        Texts texts = desk.texts();
        tabs.getChildren().clear();
        for (int i = 0; i < types.size(); i++) {
            tabs.getChildren().add(tab(i, texts));
        }
        hint.setText(texts.get(active ? "ask.keys" : "ask.open"));
        noted.getChildren().clear();
        kept().ifPresent(k -> {
            for (RecordType.Item one : now().fields()) {
                k.noted(one.name()).ifPresent(v -> noted.getChildren()
                        .add(Looks.label(named(one, v, texts), "small", "muted")));
            }
        });
        noted.setVisible(!noted.getChildren().isEmpty());
        noted.setManaged(!noted.getChildren().isEmpty());
        offer(missing());
        question.setText(texts.get("ask.question", name(item(), texts), field + 1, now().fields().size()));
        choices(texts);
        Vocabulary.Kind kind = item().field().kind();
        boolean words = kind == Vocabulary.Kind.TEXT || kind == Vocabulary.Kind.NUMBER
                || kind == Vocabulary.Kind.WORDS && item().field().words().isEmpty();
        entry.setVisible(words && active);
        entry.setManaged(words && active);
        if (words && active) {
            entry.setPromptText(texts.get(kind == Vocabulary.Kind.NUMBER
                    ? "ask.number"
                    : kind == Vocabulary.Kind.WORDS ? "ask.list" : "ask.text"));
            line(kept().flatMap(k -> k.noted(item().name())).map(v -> typable(item(), v, texts)).orElse(""));
        }
    }

    /** The page is drawn anew whenever the ledger or the model has an answer: what somebody is typing meanwhile stays. */
    private void line(String stands) {
        String here = now().id() + "/" + item().name() + "/" + record.orElse("");
        if (!here.equals(opened) || entry.getText().equals(openedWith)) {
            entry.setText(stands);
            entry.end();
        }
        opened = here;
        openedWith = stands;
    }

    private Node tab(int at, Texts texts) {
        RecordType one = types.get(at);
        List<Kept> there = model.job().records(one.id());
        String count = one.many()
                ? there.isEmpty() ? "" : " " + there.size()
                : there.isEmpty() ? "" : " " + there.getFirst().fields().size() + "/" + one.fields().size();
        var tab = Looks.as(new Button(texts.say("record." + one.id()) + count), "act", "small");
        tab.setId("ask-tab-" + one.id());
        tab.pseudoClassStateChanged(Looks.ON, at == type);
        tab.setOnAction(press -> {
            home(at);
            activate();
        });
        return tab;
    }

    private void choices(Texts texts) {
        choices.getChildren().clear();
        List<String> words = words();
        for (int i = 0; i < words.size(); i++) {
            String word = words.get(i);
            int number = i + 1;
            String label = item().field().kind() == Vocabulary.Kind.YES_NO
                    ? texts.say(word.equals("yes") ? "book.yes" : "book.no")
                    : word.replace('_', ' ');
            var button = Looks.as(new Button(number < 10 ? number + "  " + label : label), "act");
            button.setId("ask-" + word);
            button.pseudoClassStateChanged(Looks.ON, chosen(word));
            button.setOnAction(press -> choose(word));
            choices.getChildren().add(button);
        }
        choices.setVisible(!words.isEmpty());
        choices.setManaged(!words.isEmpty());
    }

    private List<String> words() {
        return item().field().kind() == Vocabulary.Kind.YES_NO
                ? List.of("yes", "no")
                : item().field().words();
    }

    private boolean chosen(String word) {
        Object value = kept().flatMap(k -> k.noted(item().name())).orElse(null);
        return switch (value) {
            case Boolean yes -> word.equals(yes ? "yes" : "no");
            case List<?> list -> list.contains(word);
            case String s -> s.equals(word);
            case null, default -> false;
        };
    }

    private void choose(String word) {
        active = true;
        switch (item().field().kind()) {
            case YES_NO -> put(word.equals("yes"), true);
            case WORDS -> {
                var list = new ArrayList<String>();
                if (kept().flatMap(k -> k.noted(item().name())).orElse(null) instanceof List<?> there) {
                    there.forEach(w -> list.add(String.valueOf(w)));
                }
                if (!list.remove(word)) {
                    list.add(word);
                }
                put(list.isEmpty() ? null : List.copyOf(list), false);
            }
            default -> put(word, true);
        }
    }

    private void typed() {
        Object value;
        try {
            value = Answer.read(item(), entry.getText(), desk.settings().unit().get());
        } catch (IllegalArgumentException e) {
            said.setText(e.getMessage());
            said.pseudoClassStateChanged(Looks.BAD, true);
            return;
        }
        put(value, true);
    }

    private void put(Object value, boolean onwards) {
        said.setText("");
        Object before = kept().flatMap(k -> k.noted(item().name())).orElse(null);
        if (!java.util.Objects.equals(before, value)) {
            Kept base = kept().orElseGet(() -> model.fresh(now().id()));
            record = Optional.of(base.id());
            try {
                model.note(base.with(item().name(), value, desk.clock().instant(),
                        desk.settings().technician().get()));
            } catch (IllegalArgumentException e) {
                said.setText(e.getMessage());
                said.pseudoClassStateChanged(Looks.BAD, true);
                return;
            }
        }
        if (onwards) {
            step(1);
        } else {
            show();
        }
    }

    private void step(int by) {
        field += by;
        if (field >= now().fields().size() || field < 0) {
            boolean forward = field > 0;
            home(type + (forward ? 1 : -1));
            field = forward ? field : 0;
        }
        activate();
    }

    /** Another item of a list. */
    private void another() {
        if (now().many()) {
            record = Optional.empty();
            field = 0;
            activate();
        }
    }

    /** Another of the items that are there. */
    private void turn(int by) {
        List<String> ids = model.job().records(now().id()).stream().map(Kept::id).toList();
        if (!ids.isEmpty()) {
            int at = record.map(ids::indexOf).orElse(ids.size());
            record = Optional.of(ids.get(Math.floorMod(at + by, ids.size())));
            field = 0;
            activate();
        }
    }

    /** A key while the questions have the keyboard and no line is being typed. */
    public boolean key(KeyCode code) {
        if (!active) {
            return false;
        }
        int digit = code.isDigitKey() ? Integer.parseInt(code.getName().replaceAll("\\D", "")) : 0;
        if (digit > 0 && digit <= words().size()) {
            choose(words().get(digit - 1));
            return true;
        }
        switch (code) {
            case ENTER, DOWN -> step(1);
            case UP -> step(-1);
            case RIGHT, TAB -> {
                home(type + 1);
                activate();
            }
            case F2 -> asBefore();
            case INSERT, PLUS, ADD -> another();
            case PAGE_DOWN -> turn(1);
            case PAGE_UP -> turn(-1);
            case DELETE -> put(null, false);
            case ESCAPE -> leave();
            default -> {
                return false;
            }
        }
        return true;
    }

    private String name(RecordType.Item one, Texts texts) {
        return texts.say("record." + now().id() + "." + one.name());
    }

    /** "Face of the tip: flat"; a temperature brings its own unit. */
    private String named(RecordType.Item one, Object value, Texts texts) {
        String name = name(one, texts);
        return (temperature(one) ? name.replaceFirst(", °C$", "") : name) + ": " + shown(one, value, texts);
    }

    private static boolean temperature(RecordType.Item one) {
        return one.name().equals("c") || one.name().endsWith("_c");
    }

    private static String shown(RecordType.Item one, Object value, Texts texts) {
        return switch (value) {
            case Double d when temperature(one) -> texts.words().show(new Quantity.TempC(d));
            case Double d -> number(d);
            case Boolean yes -> texts.say(yes ? "book.yes" : "book.no");
            case List<?> list ->
                String.join(", ", list.stream().map(w -> String.valueOf(w).replace('_', ' ')).toList());
            default -> String.valueOf(value).replace('_', ' ');
        };
    }

    private static String typable(RecordType.Item one, Object value, Texts texts) {
        return switch (value) {
            case Double d when temperature(one) -> texts.words().show(new Quantity.TempC(d));
            case Double d -> number(d);
            case List<?> list -> String.join("; ", list.stream().map(String::valueOf).toList());
            default -> String.valueOf(value);
        };
    }

    private static String number(double d) {
        return d == Math.rint(d) && Math.abs(d) < 1e9
                ? Long.toString((long) d)
                : String.format(Locale.ROOT, "%.4g", d).replaceAll("(\\.\\d*?)0+$", "$1").replaceAll("\\.$",
                        "");
    }
}
