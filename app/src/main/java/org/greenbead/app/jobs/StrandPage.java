package org.greenbead.app.jobs;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.JobKind;
import org.greenbead.core.route.Routes;
import org.greenbead.core.route.Strands;
import org.greenbead.store.NewStrand;

/** The chips of a job: one string with its branches, and a way to take a further chip in. */
public final class StrandPage extends Page {
    private static final String LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    private static final int MOST = 9 + LETTERS.length();
    private final Desk desk;
    private final Job from;
    private final Navigator go;
    private final Consumer<Job> open;
    private final Consumer<Job> begun;
    private final Label title = Looks.label("", "now");
    private final Label says = Looks.label("", "next");
    private final Label ask = Looks.label("", "strong");
    private final FlowPane choices = new FlowPane(8, 8);
    private final Label said = Looks.note("said");
    private final StrandPicture picture;
    private final VBox page;
    private List<Job> family = List.of();
    private List<Board> boards = List.of();
    private int at;
    private Step step = Step.NONE;
    private String board;
    private String chip = "";
    /** The chip sits on another unit than that of the job. */
    private boolean donor;

    /** What is asked of a further chip. */
    private enum Step {
        NONE, CHIP, BOARD, KIND
    }

    /** An answer that a key, the mouse or the pedal gives. */
    private record Choice(String id, String words, Runnable does) {}

    /**
     * @param open  puts a job of the family on the workbench
     * @param begun told a strand once it is in the ledger
     */
    public StrandPage(Desk desk, Job from, Navigator go, Consumer<Job> open, Consumer<Job> begun) {
        this.desk = desk;
        this.from = from;
        this.go = go;
        this.open = open;
        this.begun = begun;
        board = from.board();
        Texts texts = desk.texts();
        title.setId("strand-title");
        says.setId("strand-says");
        ask.setId("strand-ask");
        said.setId("strand-said");
        said.pseudoClassStateChanged(Looks.BAD, true);
        picture = new StrandPicture(texts, i -> {
            at = i;
            openChosen();
        });
        var head = Looks.as(new VBox(4, Looks.label(texts.get("strand.caps"), "caps"), title, says),
                "instruction");
        var drawn = Looks.as(new VBox(picture), "strand-card");
        VBox.setVgrow(picture, Priority.ALWAYS);
        VBox.setVgrow(drawn, Priority.ALWAYS);
        var further = Looks.as(new VBox(8, ask, choices, said), "card");
        further.setMinHeight(Region.USE_PREF_SIZE);
        page = Looks.as(
                new VBox(head, drawn, further, Looks.label(texts.get("strand.keys"), "muted", "small")),
                "page");
        backWord(texts.get("key.back"));
        noteWord(texts.get("strand.another"));
        desk.io(() -> {
            List<Job> jobs = desk.ledger().jobs();
            // Without the job itself its strands are shown, and no further one can be taken in.
            Stream<Job> main = from.strandOf().isEmpty()
                    ? Stream.of(from)
                    : Strands.main(from, jobs).stream();
            boards = desk.ledger().boards();
            return Stream.concat(main, Strands.of(from, jobs).stream()).toList();
        }, this::arrived, this::failed);
        show();
    }

    private void arrived(List<Job> all) {
        family = all;
        at = Math.max(0, all.stream().map(Job::id).toList().indexOf(from.id()));
        board = all.getFirst().board();
        show();
    }

    private void failed(Throwable error) {
        said.setText(String.valueOf(error.getMessage()));
    }

    private void show() {
        Texts texts = desk.texts();
        title.setText(family.size() < 2
                ? texts.get("strand.one", from.id(), from.target())
                : texts.get("strand.many", family.getFirst().id(), family.size()));
        says.setText(texts.get(family.size() < 2 ? "strand.one.so" : "strand.many.so"));
        picture.show(family, at);
        ask.setText(switch (step) {
            case NONE -> texts.get("strand.ask.none");
            case CHIP -> texts.get("strand.ask.chip", board);
            case BOARD -> texts.get("strand.ask.board");
            case KIND -> texts.get("strand.ask.kind", chip);
        });
        choices.getChildren().clear();
        List<Choice> offered = offered();
        for (int i = 0; i < offered.size(); i++) {
            Choice one = offered.get(i);
            var button = Looks.as(new Button(step == Step.NONE ? one.words() : key(i) + "  " + one.words()),
                    "act");
            button.setId(one.id());
            button.setFocusTraversable(false);
            button.setOnAction(press -> one.does().run());
            choices.getChildren().add(button);
        }
        if (step != Step.NONE) {
            pedal(Pedal.shut(texts.get("strand.choose"), texts.get("strand.choose.so")));
        } else if (family.isEmpty()) {
            pedal(Pedal.shut(texts.get("new.reading"), texts.get("strand.reading.so")));
        } else {
            Job there = family.get(at);
            pedal(new Pedal(texts.get("strand.open", there.target()),
                    there.inHand().map(Bead::id).map(b -> texts.get("jobs.open.so", texts.say("bead." + b)))
                            .orElse(texts.get("tray.end")),
                    true, this::openChosen));
        }
    }

    private List<Choice> offered() {
        Texts texts = desk.texts();
        List<Choice> all = switch (step) {
            case NONE ->
                List.of(new Choice("strand-another", texts.get("strand.another.key"), this::another));
            case CHIP -> Stream.concat(free().map(c -> new Choice("strand-chip-" + c.name(),
                    c.name() + " " + c.part(), () -> kindOf(c.name()))),
                    donor
                            ? Stream.of()
                            : Stream.of(new Choice("strand-donor", texts.get("strand.donor"),
                                    () -> to(Step.BOARD))))
                    .toList();
            case BOARD -> boards.stream().filter(b -> !b.chips().isEmpty())
                    .map(b -> new Choice("strand-board-" + b.id(), b.id() + " " + b.title(), () -> {
                        board = b.id();
                        donor = true;
                        to(Step.CHIP);
                    })).toList();
            case KIND -> Routes.shipped().strandKinds().stream()
                    .map(k -> new Choice("strand-kind-" + k.key(), texts.say("kind." + k.key()),
                            () -> begin(k)))
                    .toList();
        };
        return all.size() > MOST ? all.subList(0, MOST) : all;
    }

    /** Chips of the board that nobody works on in this job. */
    private Stream<Chip> free() {
        return boards.stream().filter(b -> b.id().equals(board)).flatMap(b -> b.chips().stream())
                .filter(c -> donor || family.stream().noneMatch(j -> j.board().equals(board)
                        && Strands.donor(j).isEmpty() && j.target().equals(c.name())));
    }

    private void to(Step next) {
        step = next;
        said.setText("");
        show();
        page.requestFocus();
    }

    private void another() {
        if (family.isEmpty()) {
            return;
        }
        if (family.getFirst().strandOf().isPresent()) {
            said.setText(desk.texts().get("strand.lost", family.getFirst().strandOf().get()));
            return;
        }
        board = family.getFirst().board();
        donor = false;
        to(Step.CHIP);
        if (free().findAny().isEmpty()) {
            said.setText(desk.texts().get("strand.nothing", board));
        }
    }

    private void kindOf(String name) {
        chip = name;
        to(Step.KIND);
    }

    private void begin(JobKind kind) {
        Job main = family.getFirst();
        String on = board;
        String name = chip;
        String author = desk.settings().technician().get();
        Optional<String> unit = donor
                ? Optional.of(Strands.freeDonor(family, on, name))
                : Optional.empty();
        desk.io(() -> NewStrand.begin(desk.ledger(), desk.ledger().job(main.id()), on, name, kind, unit,
                desk.clock().instant(), author), begun, this::failed);
    }

    private void openChosen() {
        if (!family.isEmpty()) {
            open.accept(family.get(at));
        }
    }

    /** 1 to 9, then letters. */
    private static String key(int i) {
        return i < 9 ? Integer.toString(i + 1) : Character.toString(LETTERS.charAt(i - 9));
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void note() {
        another();
    }

    @Override
    public void back() {
        switch (step) {
            case NONE -> go.home();
            case CHIP -> to(Step.NONE);
            case BOARD -> another();
            case KIND -> to(Step.CHIP);
        }
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        if (step == Step.NONE) {
            if (code == KeyCode.UP || code == KeyCode.DOWN) {
                at = family.isEmpty()
                        ? 0
                        : Math.floorMod(at + (code == KeyCode.DOWN ? 1 : -1), family.size());
                show();
                return true;
            }
            if (code == KeyCode.ENTER) {
                openChosen();
                return true;
            }
            return false;
        }
        if (code == KeyCode.ESCAPE) {
            back();
            return true;
        }
        List<Choice> offered = offered();
        String typed = code.isDigitKey() ? code.getName().replaceAll("\\D", "") : code.getName();
        Optional<Choice> meant = Stream.iterate(0, i -> i < offered.size(), i -> i + 1)
                .filter(i -> key(i).equals(typed)).map(offered::get).findFirst();
        meant.ifPresent(c -> c.does().run());
        return meant.isPresent();
    }
}
