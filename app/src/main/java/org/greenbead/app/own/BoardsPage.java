package org.greenbead.app.own;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.BoardView;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.board.Assumed;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.route.Job;
import org.greenbead.store.Format;
import org.greenbead.store.SafeFiles;

/** The boards of the ledger: what each is, what of it is assumed, which jobs stand on it. */
public final class BoardsPage extends Page {
    private final Desk desk;
    private final Navigator go;
    private final Rows<Known> rows;
    private final VBox detail = Looks.as(new VBox(6), "card");
    private final Label said = Looks.note("said");
    private final VBox page;

    /** @param ended of its jobs those that are at their end */
    private record Known(Board board, List<String> jobs, List<String> ended) {}

    public BoardsPage(Desk desk, Navigator go) {
        this.desk = desk;
        this.go = go;
        Texts texts = desk.texts();
        said.setId("boards-said");
        detail.setId("boards-detail");
        rows = new Rows<>("boards-list", k -> "board-" + k.board().id(), this::row, (k, pressed) -> detail());
        HBox.setHgrow(rows, Priority.ALWAYS);
        detail.setPrefWidth(380);
        detail.setMinWidth(280);
        var middle = new HBox(12, rows, detail);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("boards.caps"), "caps"),
                Looks.label(texts.get("boards.title"), "now"), said), "instruction");
        page = Looks.as(new VBox(head, middle, Looks.label(texts.get("boards.keys"), "muted", "small")),
                "page");
        backWord(texts.get("key.back"));
        noteWord(texts.get("boards.new"));
        reread();
    }

    @Override
    public void reread() {
        desk.io(() -> {
            var on = desk.ledger().jobs().stream().collect(Collectors.groupingBy(Job::board));
            return desk.ledger().boards().stream().map(b -> known(b, on.getOrDefault(b.id(), List.of())))
                    .toList();
        }, all -> {
            rows.show(all);
            detail();
        });
    }

    private static Known known(Board board, List<Job> jobs) {
        return new Known(board, jobs.stream().map(Job::id).sorted().toList(),
                jobs.stream().filter(j -> j.inHand().isEmpty()).map(Job::id).sorted().toList());
    }

    private Region row(Known known) {
        Texts texts = desk.texts();
        Board board = known.board();
        var words = new VBox(1, Looks.label(board.id(), "text-ink", "strong"),
                Looks.label(texts.get("boards.row", board.title(), Math.round(board.sizeMm().xMm()),
                        Math.round(board.sizeMm().yMm()), board.chips().size(), board.parts().size()),
                        "muted",
                        "small"));
        HBox.setHgrow(words, Priority.ALWAYS);
        Label right = Looks.label(known.jobs().isEmpty()
                ? texts.get("boards.free")
                : texts.get("boards.used", known.jobs().size()), "small", "muted");
        right.setMinWidth(110);
        var row = new HBox(10, words, right);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private void detail() {
        Texts texts = desk.texts();
        detail.getChildren().clear();
        Optional<Known> chosen = rows.chosen();
        if (chosen.isEmpty()) {
            detail.getChildren().add(Looks.label(texts.get("boards.none"), "muted"));
            pedal(new Pedal(texts.get("boards.new"), texts.get("boards.new.so"), true, this::note));
            return;
        }
        Board board = chosen.get().board();
        var view = new BoardView(p -> {
        }, p -> {
        });
        view.setPrefHeight(250);
        view.cross(new Point(-100, -100));
        view.show(board, "", Side.TOP, List.of());
        detail.getChildren().addAll(Looks.label(board.id() + "  " + board.title(), "caps"), view);
        detail.getChildren().add(Looks.label(board.assumed().isEmpty()
                ? texts.get("boards.known")
                : texts.get("boards.assumed",
                        String.join(", ", board.assumed().stream().map(a -> texts.words()
                                .say("assumed." + Assumed.what(a), new Quantity.Name(Assumed.chip(a))))
                                .toList())),
                board.assumed().isEmpty() ? "muted" : "ink-amber", "small"));
        if (!chosen.get().jobs().isEmpty()) {
            detail.getChildren().add(Looks.label(
                    texts.get("boards.jobs", String.join(", ", chosen.get().jobs())), "muted", "small"));
        }
        pedal(new Pedal(texts.get("boards.change", board.id()),
                texts.get(chosen.get().ended().isEmpty() ? "boards.change.so" : "boards.change.kept"), true,
                this::change));
    }

    /** Jobs that are at their end keep it as it was. */
    private void change() {
        rows.chosen().ifPresent(k -> go.ownBoard(Optional.of(k.board())));
    }

    private void copy(Board board) {
        desk.io(() -> {
            int n = 2;
            while (desk.ledger().holds(Format.BOARD, board.id() + "-" + n)) {
                n++;
            }
            Board made = board.copy(board.id() + "-" + n, board.title());
            desk.ledger().save(made);
            BoardPhoto.of(desk.ledger(), board.id()).ifPresent(p -> p.keep(desk.ledger(), made.id()));
            return made;
        }, made -> {
            tell(desk.texts().get("boards.copied", made.id()), false);
            reread();
        });
    }

    private void remove(Known known) {
        desk.io(() -> {
            desk.ledger().remove(Format.BOARD, known.board().id());
            return known.board();
        }, gone -> {
            desk.changes().made(gone.id(), gone.id(), () -> bring(gone));
            tell(desk.texts().get("boards.gone", gone.id()), false);
            reread();
        }, failed -> tell(String.valueOf(failed.getMessage()), true));
    }

    private void bring(Board back) {
        desk.io(() -> {
            desk.ledger().save(back);
            return back;
        }, b -> {
            tell(desk.texts().get("boards.back", b.id()), false);
            reread();
        });
    }

    private void export(Board board) {
        desk.io(() -> {
            Path folder = Files.createDirectories(desk.ledger().folder().resolve("exports"));
            Path out = folder.resolve(board.id().replaceAll("[^A-Za-z0-9_-]", "_") + ".board.bead.json");
            SafeFiles.write(out, desk.files().write(Format.BOARD, board)
                    .getBytes(java.nio.charset.StandardCharsets.UTF_8));
            return out;
        }, out -> tell(desk.texts().get("boards.exported", out), false));
    }

    private void take() {
        Texts texts = desk.texts();
        desk.picker().file(page.getScene().getWindow(), texts.get("boards.file"), texts.get("boards.kinds"),
                "*.json").ifPresent(file -> desk.io(() -> {
                    Board read = desk.files().read(file, Format.BOARD, Board.class);
                    if (desk.ledger().holds(Format.BOARD, read.id())) {
                        throw new IllegalArgumentException(texts.get("own.there", read.id()));
                    }
                    desk.ledger().save(read);
                    return read;
                }, read -> {
                    tell(texts.get("boards.taken", read.id()), false);
                    reread();
                }, failed -> tell(String.valueOf(failed.getMessage()), true)));
    }

    private void tell(String text, boolean bad) {
        said.pseudoClassStateChanged(Looks.BAD, bad);
        said.setText(text);
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
    public void note() {
        go.ownBoard(Optional.empty());
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        switch (code) {
            case DOWN -> rows.move(1);
            case UP -> rows.move(-1);
            case ENTER -> change();
            case C -> rows.chosen().ifPresent(k -> copy(k.board()));
            case E -> rows.chosen().ifPresent(k -> export(k.board()));
            case I -> take();
            case DELETE, BACK_SPACE -> rows.chosen().ifPresent(this::remove);
            default -> {
                return false;
            }
        }
        return true;
    }
}
