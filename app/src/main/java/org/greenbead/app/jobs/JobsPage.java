package org.greenbead.app.jobs;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.search.BenchWords;
import org.greenbead.core.search.JobSearch;
import org.greenbead.store.JobBundle;

/** Every job of the ledger; what is written above finds them. */
public final class JobsPage extends Page {
    private final Desk desk;
    private final Navigator go;
    private final Consumer<Job> open;
    private final Consumer<String> arrived;
    private final Line search;
    private final Label read = Looks.note("muted", "small");
    private final Label said = Looks.note("said");
    private final Rows<JobSearch.Hit> rows;
    private final VBox page;
    private List<Job> jobs = List.of();

    /**
     * @param open    puts a job on the workbench
     * @param arrived told the id of a job that came in a bundle
     */
    public JobsPage(Desk desk, Navigator go, Consumer<Job> open, Consumer<String> arrived) {
        this.desk = desk;
        this.go = go;
        this.open = open;
        this.arrived = arrived;
        Texts texts = desk.texts();
        search = new Line("jobs-search", texts.get("jobs.prompt"));
        search.textProperty().subscribe((was, now) -> find());
        search.setOnAction(enter -> openChosen());
        search.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
                move(e.getCode() == KeyCode.DOWN ? 1 : -1);
                e.consume();
            }
        });
        read.setId("jobs-read");
        said.setId("jobs-said");
        rows = new Rows<>("jobs-list", h -> "job-" + h.job().id(), h -> row(h, desk.texts()),
                (hit, pressed) -> {
                    if (pressed) {
                        openChosen();
                    }
                    pedalNow();
                });
        VBox.setVgrow(rows, Priority.ALWAYS);
        var head = Looks.as(new VBox(4, Looks.label(texts.get("jobs.caps"), "caps"),
                Looks.label(texts.get("jobs.title"), "now"), search, read), "instruction");
        page = Looks.as(new VBox(head, rows, said, Looks.label(texts.get("jobs.keys"), "muted", "small")),
                "page");
        backWord(texts.get("key.back"));
        noteWord(texts.get("jobs.new"));
        reread();
    }

    private void reread() {
        desk.io(() -> desk.ledger().jobs(), all -> {
            jobs = all;
            find();
        });
    }

    private void find() {
        Texts texts = desk.texts();
        String query = search.getText();
        List<JobSearch.Hit> hits = JobSearch.find(jobs, query);
        rows.show(hits);
        read.setText(BenchWords.shipped().read(query).stream().filter(w -> w.anyOf().size() > 1)
                .map(w -> texts.get("jobs.read", w.said(),
                        w.anyOf().stream().skip(1).map(t -> t.replace('_', ' ')).distinct()
                                .collect(java.util.stream.Collectors.joining(", ")),
                        w.trap().isEmpty() ? "" : " (" + w.trap() + ")"))
                .reduce((a, b) -> a + " · " + b)
                .orElse(hits.isEmpty() && !jobs.isEmpty() ? texts.get("jobs.nothing") : ""));
        if (jobs.isEmpty()) {
            read.setText(texts.get("jobs.empty"));
        }
        pedalNow();
    }

    private static Region row(JobSearch.Hit hit, Texts texts) {
        Job job = hit.job();
        Label id = Looks.label(job.id(), "text-ink", "strong");
        id.setMinWidth(Region.USE_PREF_SIZE);
        var string = new HBox(3);
        string.setAlignment(Pos.CENTER_LEFT);
        String hand = job.inHand().map(Bead::id).orElse("");
        long done = job.beads().stream().filter(Bead::worked).count();
        job.inHand().ifPresent(b -> string.getChildren().add(Shapes.bead(b, true)));
        Label at = Looks.label(
                job.inHand().map(b -> texts.say("bead." + b.id())).orElse(texts.get("tray.end")), "text-ink",
                "small");
        at.setMinWidth(150);
        at.setPrefWidth(150);
        var words = new VBox(1,
                Looks.label(job.title() + " · " + job.complaint(), "text-ink"),
                Looks.label(job.customer() + " · " + job.board() + " " + job.target() + " · "
                        + job.facts().at("job.kind").map(k -> texts.say("kind." + k)).orElse("")
                        + (hit.where().isEmpty()
                                ? ""
                                : " · " + texts.get("jobs.where", hit.where().replace('_', ' '))),
                        "muted", "small"));
        HBox.setHgrow(words, Priority.ALWAYS);
        Label part = Looks.label(texts.get("jobs.done", done, job.beads().size()), "muted", "small");
        part.setMinWidth(92);
        part.setAlignment(Pos.CENTER_RIGHT);
        var row = new HBox(10, id, words, string, at, part);
        row.setAlignment(Pos.CENTER_LEFT);
        row.setAccessibleText(job.id() + " " + job.title() + " " + hand);
        return row;
    }

    private void pedalNow() {
        Texts texts = desk.texts();
        pedal(rows.chosen()
                .map(h -> new Pedal(texts.get("jobs.open", h.job().id()),
                        h.job().inHand().map(b -> texts.get("jobs.open.so", texts.say("bead." + b.id())))
                                .orElse(texts.get("tray.end")),
                        true, this::openChosen))
                .orElseGet(
                        () -> new Pedal(texts.get("jobs.new"), texts.get("jobs.new.so"), true, this::note)));
    }

    private void openChosen() {
        rows.chosen().map(JobSearch.Hit::job).ifPresent(open);
    }

    private void move(int by) {
        rows.move(by);
        pedalNow();
    }

    /** Packs the chosen job into the export folder. */
    private void pack() {
        Optional<Job> job = rows.chosen().map(JobSearch.Hit::job);
        job.ifPresent(j -> desk.io(() -> {
            Path folder = Files.createDirectories(desk.ledger().folder().resolve("exports"));
            Path out = folder.resolve(j.id().replaceAll("[^A-Za-z0-9_-]", "_") + ".zip");
            try (OutputStream to = Files.newOutputStream(out)) {
                JobBundle.pack(desk.ledger(), j.id(), to);
            }
            return out;
        }, out -> tell(desk.texts().get("jobs.packed", j.id(), out), false)));
    }

    private void fetch() {
        desk.picker().file(page.getScene().getWindow(), desk.texts().get("jobs.fetch"), "ZIP", "*.zip")
                .ifPresent(this::fetch);
    }

    /** Takes a bundle in. */
    private void fetch(Path file) {
        desk.io(() -> JobBundle.unpack(desk.ledger(), file, false), carried -> {
            tell(desk.texts().get("jobs.fetched", carried.job()), false);
            arrived.accept(carried.job());
            reread();
        }, failed -> tell(String.valueOf(failed.getMessage()), true));
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
        go.newJob();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (control) {
            return false;
        }
        switch (code) {
            case DOWN -> move(1);
            case UP -> move(-1);
            case ENTER -> openChosen();
            case I -> search.open();
            case E -> pack();
            case F -> fetch();
            default -> {
                return false;
            }
        }
        return true;
    }
}
