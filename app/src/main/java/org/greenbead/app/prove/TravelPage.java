package org.greenbead.app.prove;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.JobFacts;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;
import org.greenbead.core.travel.DonorFit;
import org.greenbead.core.travel.LiftOrder;
import org.greenbead.core.travel.TravelSet;
import org.greenbead.core.travel.TravelTable;

/** Which chips have to move with the data, from a table with its source: two boards, the order of lifts and seats, and whether the donor fits. */
public final class TravelPage extends Leaf {
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label says = Looks.label("", "next");
    private final Label said = Looks.note("muted");
    private final VBox donor = new VBox(3);
    private final VBox wrong = new VBox(3);
    private final Label order = Looks.label("", "text-ink", "small");
    private final TravelBoards boards;
    private final Rows<TravelTable.Row> rows;
    private Optional<TravelTable> table = Optional.empty();
    private Optional<Board> board = Optional.empty();
    private Optional<TravelSet> set = Optional.empty();
    private final Set<String> chosen = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
    private boolean choice;

    public TravelPage(Desk desk, JobModel model, Navigator go) {
        super(go::courses, desk.texts().get("courses.back"));
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("travel-title");
        said.setId("travel-note");
        says.setId("travel-says");
        donor.setId("travel-donor");
        wrong.setId("travel-wrong");
        order.setId("travel-order");
        boards = new TravelBoards(texts.get("travel.from"), texts.get("travel.to"), this::toggle);
        var drawn = Looks.as(new VBox(4, boards, order), "card");
        VBox.setVgrow(boards, Priority.ALWAYS);
        HBox.setHgrow(drawn, Priority.ALWAYS);
        rows = new Rows<>("travel-rows", r -> "travels-" + r.chip(), this::row,
                (r, press) -> {
                    if (press) {
                        toggle(r.chip());
                    }
                });
        VBox.setVgrow(rows, Priority.ALWAYS);
        var side = new VBox(8, wrong, Looks.label(texts.get("travel.rows"), "caps"), rows,
                Looks.as(new VBox(4, Looks.label(texts.get("travel.donor"), "caps"), donor), "card"));
        side.setPrefWidth(270);
        side.setMinWidth(230);
        var middle = new HBox(10, drawn, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("travel.caps"), "caps"), title, says),
                "instruction");
        VBox page = Looks
                .as(new VBox(head, middle, Looks.label(texts.get("travel.legend"), "muted", "small"), said,
                        Looks.label(texts.get("travel.keys"), "muted", "small")), "page");
        lay(page);
        Drops.onto(page, this::take);
        noteWord(texts.get("travel.choose"));
        watch(model.findingsProperty().subscribe(this::findings));
        String on = model.job().board();
        desk.io(() -> new Read(desk.ledger().tables().travel(),
                desk.ledger().boards().stream().filter(b -> b.id().equals(on)).findFirst()), read -> {
                    board = read.board();
                    table = read.table();
                    show();
                }, this::failed);
        show();
    }

    private record Read(Optional<TravelTable> table, Optional<Board> board) {}

    private void failed(Throwable error) {
        said.setText(String.valueOf(error.getMessage()));
        show();
    }

    /** A table from a file, kept with the ledger from now on. */
    public void take(Path file) {
        said.setText("");
        desk.io(() -> desk.ledger().tables().takeTravel(file), taken -> {
            table = Optional.of(taken);
            choice = false;
            show();
        }, this::failed);
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker()
                .file(node().getScene().getWindow(), texts.get("travel.choose"), texts.get("travel.kinds"),
                        "*.csv", "*.txt")
                .ifPresent(this::take);
    }

    private void toggle(String chip) {
        set.filter(s -> s.bound().known()).ifPresent(s -> {
            if (!choice) {
                chosen.clear();
                chosen.addAll(s.moving());
                choice = true;
            }
            if (!chosen.remove(chip)) {
                chosen.add(chip);
            }
            said.setText("");
            show();
        });
    }

    private void show() {
        Texts texts = desk.texts();
        wrong.getChildren().clear();
        donor.getChildren().clear();
        order.setText("");
        if (table.isEmpty()) {
            set = Optional.empty();
            title.setText(texts.get("travel.none"));
            says.setText(texts.get("travel.none.so"));
            boards.show(board, set);
            rows.show(List.of());
            pedal(new Pedal(texts.get("travel.choose"), texts.get("travel.choose.so"), true, this::choose));
            return;
        }
        try {
            // An empty choice means the usual set; whoever takes the last chip out has said that nothing moves.
            set = Optional.of(TravelSet.of(model.job(), table.get(), board,
                    choice ? chosen.isEmpty() ? List.of("") : chosen : List.of(), List.of()));
        } catch (IllegalArgumentException e) {
            set = Optional.empty();
            title.setText(texts.get("travel.contradicts"));
            says.setText(String.valueOf(e.getMessage()));
            boards.show(board, set);
            rows.show(List.of());
            pedal(Pedal.shut(texts.get("travel.contradicts"), texts.get("travel.contradicts.so")));
            return;
        }
        TravelSet s = set.get();
        boards.show(board, set);
        rows.show(new ArrayList<>(s.bound().rows()));
        if (s.platform().isEmpty() || !s.bound().known()) {
            stop(s, texts);
            return;
        }
        title.setText(texts.get(s.ready() ? "travel.ready" : "travel.open", s.platform().get()));
        says.setText(texts.get("travel.moves", s.moving().stream().filter(m -> !m.isBlank())
                .collect(Collectors.joining(", "))));
        s.missing().forEach(r -> wrong.getChildren()
                .add(Looks.label(texts.get("travel.missing", r.chip(), r.reason()), "ink-hot", "strong")));
        s.illegal().forEach(r -> wrong.getChildren()
                .add(Looks.label(texts.get("travel.illegal", r.chip(), r.reason()), "ink-hot", "strong")));
        donor(s, texts);
        s.lift().ifPresent(l -> s.seat().ifPresent(t -> order.setText(texts.get("travel.order", names(l),
                names(t), String.format(Locale.ROOT, "%.1f", l.heats() + t.heats())))));
        pedal(new Pedal(texts.get("travel.keep"),
                texts.get(s.ready() ? "travel.keep.so" : "travel.keep.open"), true, () -> keep(s)));
    }

    /** Nobody says what belongs to this platform: nothing may be heated before it has been found out. */
    private void stop(TravelSet s, Texts texts) {
        boolean noted = s.platform().isPresent();
        title.setText(noted
                ? texts.get("travel.unknown", s.platform().get(),
                        s.generation().map(g -> texts.get("travel.generation", g))
                                .orElse(texts.get("travel.generation.none")))
                : texts.get("travel.platform"));
        says.setText(texts.get(noted ? "travel.unknown.so" : "travel.platform.so"));
        if (noted) {
            pedal(new Pedal(texts.get("travel.choose"), texts.get("travel.choose.so"), true, this::choose));
        } else {
            pedal(new Pedal(texts.get("travel.note.unit"), texts.get("travel.note.unit.so"), true,
                    () -> ask("unit")));
        }
    }

    private void donor(TravelSet s, Texts texts) {
        if (s.donor().isEmpty()) {
            donor.getChildren().add(Looks.label(texts.get("travel.donor.none"), "ink-amber"));
            return;
        }
        DonorFit fit = s.donor().get();
        fit.differ().forEach(f -> donor.getChildren()
                .add(Looks.label(texts.get("travel.differs", field(f, texts)), "ink-hot", "strong")));
        fit.ask().forEach(
                f -> donor.getChildren()
                        .add(Looks.label(texts.get("travel.ask", field(f, texts)), "ink-amber")));
        if (fit.fits().orElse(false)) {
            donor.getChildren().add(Looks.label(texts.get("travel.fits"), "ink-green", "strong"));
        }
    }

    private static String field(String name, Texts texts) {
        return texts.say("record.unit." + name);
    }

    private static String names(LiftOrder.Order order) {
        return order.chips().stream().map(Chip::name).collect(Collectors.joining(", "));
    }

    private void keep(TravelSet s) {
        model.change(
                JobFacts.settled(
                        s.written(model.job(), desk.clock().instant(), desk.settings().technician().get())),
                "noted", "paired chips");
        show();
        said.setText(desk.texts().get("travel.kept", s.bound().rows().size()));
    }

    private Region row(TravelTable.Row r) {
        Texts texts = desk.texts();
        boolean moves = set.filter(s -> s.moves(r)).isPresent();
        var head = new HBox(8, Looks.label(r.chip(), "text-ink", "strong"),
                Looks.label(texts.say("travelneed." + r.need().name().toLowerCase(Locale.ROOT)), "muted"),
                Looks.label(texts.get(moves ? "travel.goes" : "travel.stays"),
                        moves ? "ink-joint" : "muted", "strong"));
        return new VBox(1, head, Looks.label(r.reason(), "text-ink", "small"), Looks.label(
                r.source() + ", " + (r.date().isEmpty() ? texts.get("travel.undated") : r.date()), "muted",
                "small"));
    }

    private void ask(String type) {
        model.beadFor(type).ifPresentOrElse(b -> go.ask(b, type, ""),
                () -> desk.trouble(desk.texts().get("courses.nowhere")));
    }

    @Override
    public List<String> about() {
        return List.of("transplant", "donor", "platform");
    }

    @Override
    public void note() {
        choose();
    }

    @Override
    boolean key(KeyCode code) {
        switch (code) {
            case UP -> rows.move(-1);
            case DOWN -> rows.move(1);
            case ENTER -> rows.chosen().ifPresent(r -> toggle(r.chip()));
            case W -> ask("unit");
            case D -> ask("donor");
            default -> {
                return false;
            }
        }
        return true;
    }
}
