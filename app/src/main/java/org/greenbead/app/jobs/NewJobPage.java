package org.greenbead.app.jobs;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Phase;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.work.Opening;
import org.greenbead.store.Format;
import org.greenbead.store.NewJob;

/** A new job, one question after another: what for, whose, what is wrong, which board, which chip, which bench. */
public final class NewJobPage extends Page {
    private static final List<String> QUESTIONS = List.of("kind", "title", "complaint", "customer", "board",
            "target",
            "bench");
    /** Stands for a board that is yet to be drawn; no name begins so. */
    private static final String NEW = "/new";
    /** Before a usual bench that nobody has yet. */
    private static final String ASSUME = "/assume-";
    private static final String LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    private static final int KEYS = 9 + LETTERS.length() - 1;
    private static final int MOST_SHOWN = 36;
    private final Desk desk;
    private final Navigator go;
    private final Consumer<Job> begun;
    private final Label question = Looks.label("", "now");
    private final Label why = Looks.label("", "muted");
    private final VBox answers = new VBox(3);
    private final VBox route = new VBox(2);
    private final FlowPane choices = new FlowPane(8, 8);
    private final Line entry;
    private final Label said = Looks.note("said");
    private final VBox page;
    private final Map<String, String> given = new LinkedHashMap<>();
    private List<Board> boards = List.of();
    private List<Bench> benches = List.of();
    private String id = "";
    private int at;
    private boolean loaded;

    /** @param begun told the job once it is in the ledger */
    public NewJobPage(Desk desk, Navigator go, Consumer<Job> begun) {
        this.desk = desk;
        this.go = go;
        this.begun = begun;
        Texts texts = desk.texts();
        question.setId("new-question");
        said.setId("new-said");
        answers.setId("new-answers");
        choices.setId("new-choices");
        entry = new Line("new-line", texts.get("new.prompt"));
        entry.setOnAction(enter -> answer(entry.getText()));
        entry.textProperty().subscribe(typed -> {
            if (searches()) {
                choices();
            }
        });
        said.pseudoClassStateChanged(Looks.BAD, true);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("new.caps"), "caps"), question, why),
                "instruction");
        var card = Looks.as(new VBox(8, choices, entry, said), "card");
        var told = Looks.as(new VBox(4, Looks.label(texts.get("new.told"), "caps"), answers), "card");
        told.setPrefWidth(300);
        var goes = Looks.as(new VBox(4, Looks.label(texts.get("new.route"), "caps"), route), "card");
        HBox.setHgrow(goes, Priority.ALWAYS);
        var below = new HBox(10, told, goes);
        VBox.setVgrow(below, Priority.ALWAYS);
        page = Looks.as(new VBox(head, card, below), "page");
        backWord(texts.get("new.back"));
        desk.io(() -> {
            id = Opening.nextId(desk.ledger().jobIds());
            boards = desk.ledger().boards();
            benches = desk.ledger().benches();
            return boards;
        }, read -> arrived());
        show();
    }

    /** The ledger has answered: what waited for it is offered, and a line that somebody is writing stays as it is. */
    private void arrived() {
        boolean waited = reading();
        loaded = true;
        if (waited) {
            show();
        } else {
            number();
        }
    }

    /** With more boards than keys a part of the name is typed. */
    private boolean searched(String board) {
        String wanted = entry.getText().strip().toLowerCase(Locale.ROOT);
        return boards.size() <= KEYS || wanted.isEmpty() || board.toLowerCase(Locale.ROOT).contains(wanted);
    }

    /** What there is has not been read yet: nothing can be chosen. */
    private boolean reading() {
        return !loaded && (asked().equals("board") || asked().equals("bench"));
    }

    private boolean searches() {
        return asked().equals("board") && boards.size() > KEYS;
    }

    private String asked() {
        return QUESTIONS.get(at);
    }

    private List<String> offered() {
        if (reading()) {
            return List.of();
        }
        return switch (asked()) {
            case "kind" -> Arrays.stream(JobKind.values()).map(JobKind::key).toList();
            case "board" -> java.util.stream.Stream
                    .concat(boards.stream().map(Board::id).filter(this::searched),
                            java.util.stream.Stream.of(NEW))
                    .toList();
            case "target" -> board().map(b -> b.chips().stream().map(Chip::name).toList()).orElse(List.of());
            case "bench" -> java.util.stream.Stream.concat(fitting().stream().map(Bench::id),
                    BenchKind.shipped().stream().map(k -> ASSUME + k.id())).toList();
            default -> List.of();
        };
    }

    /** Benches whose probes lie on this board; all of them where none does, for then they have to be moved anyway. */
    private List<Bench> fitting() {
        List<Bench> fit = benches.stream().filter(b -> board().map(on -> b.on(on).equals(b)).orElse(true))
                .toList();
        return fit.isEmpty() ? benches : fit;
    }

    private java.util.Optional<Board> board() {
        return boards.stream().filter(b -> b.id().equals(given.get("board"))).findFirst();
    }

    private String name(String question, String answer, Texts texts) {
        return switch (question) {
            case "kind" -> texts.say("kind." + answer);
            case "board" -> answer.equals(NEW)
                    ? texts.get("new.board.new")
                    : boards.stream().filter(b -> b.id().equals(answer)).map(b -> b.id() + " " + b.title())
                            .findFirst().orElse(answer);
            case "target" ->
                board().flatMap(b -> b.chip(answer)).map(c -> c.name() + " " + c.part()).orElse(answer);
            case "bench" -> answer.startsWith(ASSUME)
                    ? texts.get("new.bench.assume",
                            texts.say("benchkind." + answer.substring(ASSUME.length())))
                    : benches.stream().filter(b -> b.id().equals(answer)).map(Bench::title).findFirst()
                            .orElse(answer);
            default -> answer;
        };
    }

    private void show() {
        Texts texts = desk.texts();
        question.setText(texts.say("new." + asked()));
        number();
        answers.getChildren().clear();
        given.forEach(
                (q, a) -> answers.getChildren().addAll(Looks.label(texts.say("new." + q), "muted", "small"),
                        Looks.label(name(q, a, texts), "text-ink", "strong")));
        route(texts);
        if (given.isEmpty()) {
            answers.getChildren().add(Looks.label(texts.get("new.empty"), "muted"));
        }
        List<String> offered = choices();
        boolean types = offered.isEmpty() && !reading();
        entry.setVisible(types || searches());
        entry.setManaged(types || searches());
        entry.setPromptText(texts.get(searches() ? "new.search" : "new.prompt"));
        if (reading()) {
            page.requestFocus();
            pedal(Pedal.shut(texts.get("new.reading"), texts.get("new.reading.so")));
        } else if (searches()) {
            pedal(Pedal.shut(texts.get("new.choose"), texts.get("new.choose.so")));
        } else if (types) {
            entry.setText(given.getOrDefault(asked(), ""));
            entry.open();
            pedal(Pedal.shut(texts.get("new.type"), texts.get("new.type.so")));
        } else {
            page.requestFocus();
            pedal(Pedal.shut(texts.get("new.choose"), texts.get("new.choose.so")));
        }
    }

    private void number() {
        why.setText(desk.texts().get("new.number", at + 1, QUESTIONS.size(), id));
    }

    private List<String> choices() {
        Texts texts = desk.texts();
        choices.getChildren().clear();
        List<String> offered = offered();
        for (int i = 0; i < Math.min(MOST_SHOWN, offered.size()); i++) {
            String one = offered.get(i);
            var button = Looks.as(new Button(key(i) + "  " + name(asked(), one, texts)), "act");
            button.setId("new-" + one.replace("/", ""));
            button.setOnAction(press -> answer(one));
            choices.getChildren().add(button);
        }
        return offered;
    }

    /** What the job will go through, once it is known what it is for. */
    private void route(Texts texts) {
        route.getChildren().clear();
        String kind = given.get("kind");
        if (kind == null) {
            route.getChildren().add(Looks.label(texts.get("new.route.none"), "muted"));
            return;
        }
        var templates = Routes.shipped().of(JobKind.valueOf(kind.toUpperCase(Locale.ROOT)));
        for (Phase phase : Phase.values()) {
            String beads = String.join(", ", templates.stream().filter(t -> t.phase() == phase)
                    .map(t -> texts.say("bead." + t.id()) + (t.gate() ? " ⬡" : "")).toList());
            if (!beads.isEmpty()) {
                route.getChildren().addAll(
                        Looks.label(texts.say("phase." + phase.name().toLowerCase(Locale.ROOT)), "caps"),
                        Looks.label(beads, "text-ink", "small"));
            }
        }
    }

    /** 1 to 9, then letters. */
    private static String key(int i) {
        return i < 9
                ? Integer.toString(i + 1)
                : i - 9 < LETTERS.length() ? Character.toString(LETTERS.charAt(i - 9)) : "";
    }

    private void answer(String text) {
        if (text.isBlank()) {
            said.setText(desk.texts().get("new.blank"));
            return;
        }
        if (text.strip().length() > 400) {
            said.setText(desk.texts().get("new.long"));
            return;
        }
        said.setText("");
        if (searches() && offered().stream().noneMatch(text::equals)) {
            List<String> found = offered().stream().filter(o -> !o.equals(NEW)).toList();
            if (found.size() == 1) {
                answer(found.getFirst());
            } else {
                show();
            }
            return;
        }
        if (text.equals(NEW) && asked().equals("board")) {
            entry.clear();
            go.boardFor(this, made -> {
                boards = java.util.stream.Stream.concat(boards.stream(), java.util.stream.Stream.of(made))
                        .toList();
                answer(made.id());
            });
            return;
        }
        if (asked().equals("board") && boards.stream()
                .anyMatch(b -> b.id().equals(text.strip()) && b.chips().isEmpty())) {
            said.setText(desk.texts().get("new.chipless", text.strip()));
            return;
        }
        entry.clear();
        given.put(asked(), text.strip());
        if (at + 1 < QUESTIONS.size()) {
            at++;
            show();
        } else {
            begin();
        }
    }

    private void begin() {
        desk.io(() -> {
            Bench bench = bench(given.get("bench"));
            return new NewJob(id, JobKind.valueOf(given.get("kind").toUpperCase(Locale.ROOT)),
                    given.get("title"), given.get("complaint"), given.get("customer"), given.get("board"),
                    given.get("target"), bench.id()).into(desk.ledger(), Map.of(), "",
                            UnaryOperator.identity(), desk.clock().instant(),
                            desk.settings().technician().get());
        }, begun, failed -> said.setText(String.valueOf(failed.getMessage())));
    }

    /** One of the ledger, or a usual one that is kept from now on. */
    private Bench bench(String wanted) throws org.greenbead.store.BadFileException {
        if (!wanted.startsWith(ASSUME)) {
            return desk.ledger().document(Format.BENCH, wanted, Bench.class);
        }
        String kind = wanted.substring(ASSUME.length());
        int n = 1;
        while (desk.ledger().holds(Format.BENCH, "bench-" + n)) {
            n++;
        }
        Bench made = BenchKind.require(kind).bench("bench-" + n, desk.texts().say("benchkind." + kind));
        desk.ledger().save(made);
        return made;
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        if (at == 0) {
            go.home();
        } else {
            at--;
            given.remove(asked());
            show();
        }
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        List<String> offered = offered();
        for (int i = 0; i < offered.size() && !control; i++) {
            if (code.getName().equals(key(i))
                    || code.isDigitKey() && code.getName().replaceAll("\\D", "").equals(key(i))) {
                answer(offered.get(i));
                return true;
            }
        }
        if (code == KeyCode.ESCAPE) {
            go.home();
            return true;
        }
        return false;
    }
}
