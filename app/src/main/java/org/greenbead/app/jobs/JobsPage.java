package org.greenbead.app.jobs;

import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Drops;
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
import org.greenbead.store.JobBin;
import org.greenbead.store.JobBundle;
import org.greenbead.store.Ledger;
import org.greenbead.store.TakeIn;

/** Every job of the ledger; what is written above finds them. */
public final class JobsPage extends Page {
    /** Things that are named one by one where many have come in. */
    private static final int NAMED = 6;
    private final Desk desk;
    private final Navigator go;
    private final Consumer<Job> open;
    private final Consumer<String> arrived;
    private final Consumer<String> left;
    private final Line search;
    private final Button toBin = act("jobs-bin", "", this::throwAway);
    private final Button showBin = act("jobs-show-bin", "", this::showBin);
    private final Button instead = act("jobs-instead", "", this::takeInstead);
    private final Label title = Looks.label("", "now");
    private final Label read = Looks.note("muted", "small");
    private final Label said = Looks.note("said");
    private final Rows<JobSearch.Hit> rows;
    private final VBox page;
    private Known known = new Known(JobSearch.among(List.of()), List.of(), JobSearch.among(List.of()));
    private boolean inBin;
    private List<Path> refused = List.of();
    /** What stops the reading that goes on; empty while nothing is read. */
    private Optional<AtomicBoolean> reading = Optional.empty();
    private Optional<String> lastBinned = Optional.empty();

    /** What the ledger holds, ready to be searched. */
    private record Known(JobSearch jobs, List<JobBin.Binned> binned, JobSearch bin) {
        Known now(List<Job> all, List<JobBin.Binned> thrown) {
            return new Known(jobs.now(all), thrown,
                    bin.now(thrown.stream().map(JobBin.Binned::job).toList()));
        }
    }

    /**
     * @param open    puts a job on the workbench
     * @param arrived told the id of a job that came in a bundle, or back from the bin
     * @param left    told the id of one that went into the bin
     */
    public JobsPage(Desk desk, Navigator go, Consumer<Job> open, Consumer<String> arrived,
            Consumer<String> left) {
        this.desk = desk;
        this.go = go;
        this.open = open;
        this.arrived = arrived;
        this.left = left;
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
        title.setText(texts.get("jobs.title"));
        title.setId("jobs-title");
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
                title, search, read), "instruction");
        var acts = new FlowPane(8, 6, act("jobs-pack", texts.get("jobs.act.pack") + "  E", this::pack),
                act("jobs-fetch", texts.get("jobs.act.fetch") + "  F", this::fetch),
                act("jobs-folder", texts.get("jobs.act.folder") + "  V", this::fetchFolder), instead, toBin,
                showBin);
        instead.setText(texts.get("jobs.act.instead") + "  R");
        refused(List.of());
        page = Looks.as(
                new VBox(head, rows, said, acts, Looks.label(texts.get("jobs.keys"), "muted", "small")),
                "page");
        Drops.all(page, this::fetch);
        backWord(texts.get("key.back"));
        noteWord(texts.get("jobs.new"));
        reread();
    }

    @Override
    public void reread() {
        Known before = known;
        desk.io(() -> before.now(desk.ledger().jobs(), desk.ledger().bin().all()), now -> {
            known = now;
            find();
        });
    }

    private static Button act(String id, String word, Runnable action) {
        var button = Looks.as(new Button(word), "act", "small");
        button.setId(id);
        button.setOnAction(press -> action.run());
        return button;
    }

    private void showBin() {
        inBin = !inBin;
        find();
    }

    private void find() {
        Texts texts = desk.texts();
        toBin.setText(texts.get(inBin ? "jobs.act.empty" : "jobs.act.bin"));
        showBin.setText(texts.get(inBin ? "jobs.act.jobs" : "jobs.act.show", known.binned().size()));
        String query = search.getText();
        JobSearch among = inBin ? known.bin() : known.jobs();
        List<JobSearch.Hit> hits = among.find(query);
        title.setText(inBin ? texts.get("jobs.bin.title", known.binned().size()) : texts.get("jobs.title"));
        rows.show(hits);
        read.setText(BenchWords.shipped().read(query).stream().filter(w -> w.anyOf().size() > 1)
                .map(w -> texts.get("jobs.read", w.said(),
                        w.anyOf().stream().skip(1).map(t -> t.replace('_', ' ')).distinct()
                                .collect(Collectors.joining(", ")),
                        w.trap().isEmpty() ? "" : " (" + w.trap() + ")"))
                .reduce((a, b) -> a + " · " + b)
                .orElse(hits.isEmpty() && !among.isEmpty() ? texts.get("jobs.nothing") : ""));
        if (among.isEmpty()) {
            read.setText(texts.get(inBin ? "jobs.bin.empty" : "jobs.empty"));
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
                Looks.label(Stream.of(job.customer(), job.board() + " " + job.target(),
                        job.facts().at("job.kind").map(k -> texts.say("kind." + k)).orElse(""),
                        hit.where().isEmpty() ? "" : texts.get("jobs.where", hit.where().replace('_', ' ')))
                        .filter(part -> !part.isEmpty()).collect(Collectors.joining(" · ")), "muted",
                        "small"));
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
        if (reading.isPresent()) {
            pedal(new Pedal(texts.get("jobs.stop"), texts.get("jobs.stop.so"), true, this::stopReading));
            return;
        }
        if (inBin) {
            pedal(chosenBinned().map(b -> new Pedal(texts.get("jobs.bin.back", b.job().id()),
                    texts.get("jobs.bin.since", day(b.at()), day(b.until())), true, this::takeBack))
                    .orElseGet(
                            () -> Pedal.shut(texts.get("jobs.bin.choose"), texts.get("jobs.bin.choose.so"))));
            return;
        }
        pedal(rows.chosen()
                .map(h -> new Pedal(texts.get("jobs.open", h.job().id()),
                        h.job().inHand().map(b -> texts.get("jobs.open.so", texts.say("bead." + b.id())))
                                .orElse(texts.get("tray.end")),
                        true, this::openChosen))
                .orElseGet(
                        () -> new Pedal(texts.get("jobs.new"), texts.get("jobs.new.so"), true, this::note)));
    }

    private Optional<JobBin.Binned> chosenBinned() {
        return rows.chosen().flatMap(
                h -> known.binned().stream().filter(b -> b.job().id().equals(h.job().id())).findFirst());
    }

    private static String day(Instant at) {
        return LocalDate.ofInstant(at, ZoneId.systemDefault()).toString();
    }

    /** Into the bin, or, there, what has lain long enough out of it for good. */
    private void throwAway() {
        if (inBin) {
            desk.io(() -> desk.ledger().bin().empty(), gone -> {
                tell(gone.isEmpty()
                        ? desk.texts().get("jobs.bin.none_old")
                        : desk.texts().get("jobs.bin.emptied", String.join(", ", gone)), false);
                reread();
            });
            return;
        }
        rows.chosen().map(h -> h.job().id()).ifPresent(id -> desk.io(() -> {
            desk.ledger().bin().put(id);
            return Ledger.named(desk.ledger().reports(id));
        }, reports -> {
            String gone = id;
            lastBinned = Optional.of(gone);
            Texts texts = desk.texts();
            tell(texts.get("jobs.bin.put", gone)
                    + (reports.isEmpty() ? "" : " " + texts.get("jobs.bin.reports", reports)), false);
            left.accept(gone);
            reread();
        }, failed -> tell(String.valueOf(failed.getMessage()), true)));
    }

    private void takeBack() {
        (inBin ? chosenBinned().map(b -> b.job().id()) : lastBinned).ifPresent(id -> desk.io(() -> {
            desk.ledger().bin().takeBack(id);
            return id;
        }, back -> {
            lastBinned = Optional.empty();
            tell(desk.texts().get("jobs.bin.taken", back), false);
            arrived.accept(back);
            reread();
        }, failed -> tell(String.valueOf(failed.getMessage()), true)));
    }

    private void openChosen() {
        if (inBin) {
            takeBack();
            return;
        }
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
        Texts texts = desk.texts();
        List<Path> files = desk.picker().files(page.getScene().getWindow(), texts.get("jobs.fetch"),
                texts.get("jobs.fetch.kinds"), "*.zip", "*.bead.json");
        if (!files.isEmpty()) {
            fetch(files);
        }
    }

    private void fetchFolder() {
        desk.picker().folder(page.getScene().getWindow(), desk.texts().get("jobs.folder"))
                .ifPresent(folder -> fetch(List.of(folder)));
    }

    /** Takes files, bundles and folders in, all or nothing. */
    private void fetch(List<Path> named) {
        fetch(named, false);
    }

    /** @param instead what comes takes the place of what the ledger holds under the same name */
    private void fetch(List<Path> named, boolean instead) {
        if (reading.isPresent()) {
            tell(desk.texts().get("jobs.fetching.one"), true);
            return;
        }
        refused(List.of());
        tell(desk.texts().get("jobs.fetching"), false);
        var stop = new AtomicBoolean();
        reading = Optional.of(stop);
        pedalNow();
        desk.io(() -> TakeIn.from(desk.ledger(), named, instead, n -> Platform.runLater(() -> readSoFar(n)),
                stop::get), taken -> {
                    reading = Optional.empty();
                    Texts texts = desk.texts();
                    String first = taken.taken().stream().limit(NAMED).collect(Collectors.joining(", "));
                    int more = taken.taken().size() - NAMED;
                    tell(texts.get("jobs.fetched",
                            more > 0 ? texts.get("jobs.fetched.more", first, more) : first)
                            + (taken.left().isEmpty()
                                    ? ""
                                    : texts.get("jobs.fetched.left", taken.left().size())),
                            false);
                    taken.jobs().forEach(arrived);
                    reread();
                }, failed -> {
                    reading = Optional.empty();
                    pedalNow();
                    boolean there = failed instanceof TakeIn.ClashException clash && clash.withLedger();
                    refused(there ? named : List.of());
                    tell(failed.getMessage() + (there ? " " + desk.texts().get("jobs.clash") : ""), true);
                });
    }

    private void readSoFar(int files) {
        if (reading.isPresent()) {
            tell(desk.texts().get("jobs.fetching.so_far", files), false);
        }
    }

    private void stopReading() {
        reading.ifPresent(stop -> stop.set(true));
        tell(desk.texts().get("jobs.fetching.stop"), false);
    }

    /** What was not taken in, since the ledger holds something else of its name; it may be taken in its place. */
    private void refused(List<Path> named) {
        refused = named;
        instead.setVisible(!named.isEmpty());
        instead.setManaged(!named.isEmpty());
    }

    private void takeInstead() {
        if (!refused.isEmpty()) {
            fetch(refused, true);
        }
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
            case V -> fetchFolder();
            case R -> takeInstead();
            case DELETE, BACK_SPACE -> throwAway();
            case Z -> takeBack();
            case X -> showBin();
            default -> {
                return false;
            }
        }
        return true;
    }
}
