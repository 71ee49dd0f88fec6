package org.greenbead.app.prove;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
import org.greenbead.core.configure.StrapTable;
import org.greenbead.core.proof.ProofWall;
import org.greenbead.core.record.Kept;

/** The configuration resistors of a board: what is fitted, what that says, and what to take off and to fit for another code. */
public final class StrapPage extends Leaf {
    private static final String TYPE = "configuration";
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label says = Looks.label("", "next");
    private final Label said = Looks.note("muted");
    private final VBox todo = new VBox(4);
    private final StrapPicture picture;
    private final Rows<Map.Entry<String, String>> codes;
    private Optional<StrapTable> table = Optional.empty();
    private Set<String> fitted = Set.of();
    private Optional<String> target = Optional.empty();
    private int picked;

    public StrapPage(Desk desk, JobModel model, Navigator go) {
        super(go::courses, desk.texts().get("courses.back"));
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("strap-title");
        said.setId("strap-note");
        says.setId("strap-says");
        todo.setId("strap-todo");
        picture = new StrapPicture(this::press);
        var drawn = Looks.as(new VBox(picture), "card");
        VBox.setVgrow(picture, Priority.ALWAYS);
        HBox.setHgrow(drawn, Priority.ALWAYS);
        codes = new Rows<>("strap-codes", e -> "code-" + e.getKey(), this::row,
                (e, press) -> {
                    if (press) {
                        aim(e.getKey());
                    }
                });
        VBox.setVgrow(codes, Priority.ALWAYS);
        var side = new VBox(8,
                Looks.as(new VBox(4, Looks.label(texts.get("strap.todo"), "caps"), todo), "card"),
                Looks.label(texts.get("strap.codes"), "caps"), codes);
        side.setPrefWidth(250);
        side.setMinWidth(220);
        var middle = new HBox(10, drawn, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("strap.caps"), "caps"), title, says),
                "instruction");
        VBox page = Looks
                .as(new VBox(head, middle, Looks.label(texts.get("strap.legend"), "muted", "small"), said,
                        Looks.label(texts.get("strap.keys"), "muted", "small")), "page");
        lay(page);
        Drops.onto(page, this::take);
        noteWord(texts.get("strap.choose"));
        watch(model.findingsProperty().subscribe(this::findings));
        String board = model.job().board();
        desk.io(() -> desk.ledger().tables().straps(board), this::read, this::failed);
        show();
    }

    private void read(Optional<StrapTable> found) {
        table = found;
        String code = model.job().records(TYPE).stream().reduce((a, b) -> b)
                .map(k -> k.text("straps_after").isBlank() ? k.text("straps_before") : k.text("straps_after"))
                .orElse("");
        fitted = found.map(t -> t.fittedFor(code)).orElse(Set.of());
        target = Optional.empty();
        show();
    }

    private void failed(Throwable error) {
        said.setText(String.valueOf(error.getMessage()));
        show();
    }

    /** A table from a file, kept with the board's ledger from now on. */
    public void take(Path file) {
        said.setText("");
        String board = model.job().board();
        desk.io(() -> Optional.of(desk.ledger().tables().takeStraps(board, file)), this::read, this::failed);
    }

    private void choose() {
        Texts texts = desk.texts();
        desk.picker().file(node().getScene().getWindow(), texts.get("strap.choose"), texts.get("strap.kinds"),
                "*.csv", "*.txt").ifPresent(this::take);
    }

    private void press(String place) {
        var now = new HashSet<>(fitted);
        if (!now.remove(place)) {
            now.add(place);
        }
        fitted = Set.copyOf(now);
        said.setText("");
        table.ifPresent(t -> {
            for (int i = 0; i < t.straps().size(); i++) {
                boolean here = t.straps().get(i).up().equals(place) || t.straps().get(i).down().equals(place);
                picked = here ? i : picked;
            }
        });
        show();
    }

    private void aim(String code) {
        target = Optional.of(code);
        said.setText("");
        show();
    }

    private List<StrapTable.Change> changes() {
        return table.flatMap(t -> target.map(c -> t.changes(fitted, c))).orElse(List.of());
    }

    private void show() {
        Texts texts = desk.texts();
        todo.getChildren().clear();
        if (table.isEmpty()) {
            title.setText(texts.get("strap.none"));
            says.setText(texts.get("strap.none.so"));
            picture.show(Optional.empty());
            codes.show(List.of());
            pedal(new Pedal(texts.get("strap.choose"), texts.get("strap.choose.so"), true, this::choose));
            return;
        }
        StrapTable t = table.get();
        List<StrapTable.Change> changes = changes();
        Set<String> then = StrapTable.after(fitted, changes);
        picture.show(Optional.of(new StrapPicture.Shown(t, fitted, then, picked)));
        codes.show(new ArrayList<>(t.codes().entrySet()));
        t.codes().entrySet().stream().filter(e -> target.filter(e.getKey()::equals).isPresent()).findFirst()
                .ifPresent(codes::choose);
        title.setText(texts.get("strap.now", t.code(fitted), meaning(t, t.code(fitted))));
        says.setText(texts.get("strap.source", t.source(),
                t.revision().isEmpty() ? texts.get("strap.revision.none") : t.revision()));
        t.oddPairs(fitted).forEach(s -> todo.getChildren().add(Looks.label(
                texts.get(fitted.contains(s.up()) ? "strap.both" : "strap.neither", s.name()), "ink-hot")));
        for (StrapTable.Change c : changes) {
            if (!c.take().isEmpty()) {
                todo.getChildren().add(Looks.label(texts.get("strap.take", String.join(", ", c.take())),
                        "text-ink", "strong"));
            }
            if (!c.fit().isEmpty()) {
                todo.getChildren().add(Looks.label(texts.get("strap.fit", c.fit().stream()
                        .map(p -> p + " " + ProofWall.said(
                                p.equals(c.strap().up()) ? c.strap().upOhm() : c.strap().downOhm(),
                                java.util.Locale.ROOT))
                        .collect(Collectors.joining(", "))), "text-ink", "strong"));
            }
        }
        if (target.isPresent() && changes.isEmpty()) {
            todo.getChildren().add(Looks.label(texts.get("strap.nothing"), "ink-green"));
        } else if (target.isEmpty()) {
            todo.getChildren().add(Looks.label(texts.get("strap.pick"), "muted"));
        }
        todo.getChildren().add(Looks.label(texts.get("strap.caution"), "ink-amber", "small"));
        pedalFor(t, changes);
    }

    private void pedalFor(StrapTable t, List<StrapTable.Change> changes) {
        Texts texts = desk.texts();
        if (!changes.isEmpty()) {
            pedal(new Pedal(texts.get("strap.keep.plan"), texts.get("strap.keep.plan.so"), true,
                    () -> keep(t, changes)));
        } else if (t.code(fitted).contains("?")) {
            pedal(Pedal.shut(texts.get("strap.open"), texts.get("strap.open.so")));
        } else {
            pedal(new Pedal(texts.get("strap.keep.now"), texts.get("strap.keep.now.so"), true,
                    () -> keep(t, List.of())));
        }
    }

    private void keep(StrapTable t, List<StrapTable.Change> changes) {
        Kept record = model.job().records(TYPE).stream().reduce((a, b) -> b)
                .orElseGet(() -> model.fresh(TYPE));
        for (Map.Entry<String, Object> field : t.recorded(fitted, changes).entrySet()) {
            record = record.with(field.getKey(), field.getValue(), desk.clock().instant(),
                    desk.settings().technician().get());
        }
        model.note(record);
        show();
        said.setText(desk.texts().get(changes.isEmpty() ? "strap.kept" : "strap.kept.plan", record.id()));
    }

    private String meaning(StrapTable t, String code) {
        return t.codes().getOrDefault(code,
                desk.texts().get(code.contains("?") ? "strap.meaning.none" : "strap.meaning.unknown"));
    }

    private Region row(Map.Entry<String, String> code) {
        boolean mine = target.filter(code.getKey()::equals).isPresent();
        return new HBox(10, Looks.label(code.getKey(), "mono", mine ? "ink-green" : "text-ink", "strong"),
                Looks.label(code.getValue(), "text-ink"));
    }

    @Override
    public List<String> about() {
        return List.of("strap", "firmware", "platform");
    }

    @Override
    public void note() {
        choose();
    }

    @Override
    boolean key(KeyCode code) {
        if (table.isEmpty()) {
            return false;
        }
        StrapTable t = table.get();
        int count = t.straps().size();
        switch (code) {
            case RIGHT -> picked = Math.floorMod(picked + 1, count);
            case PAGE_UP -> press(t.straps().get(picked).up());
            case PAGE_DOWN -> press(t.straps().get(picked).down());
            case UP, DOWN -> {
                List<String> all = List.copyOf(t.codes().keySet());
                if (!all.isEmpty()) {
                    int at = target.map(all::indexOf).orElse(code == KeyCode.UP ? 0 : -1);
                    aim(all.get(Math.floorMod(at + (code == KeyCode.UP ? -1 : 1), all.size())));
                }
            }
            case ESCAPE -> target = Optional.empty();
            default -> {
                return false;
            }
        }
        show();
        return true;
    }
}
