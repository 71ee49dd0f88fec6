package org.greenbead.app.prove;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Shape;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Shapes;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.account.RailReferences;
import org.greenbead.core.proof.Confidence;
import org.greenbead.core.proof.ProofWall;
import org.greenbead.core.record.Kept;
import org.greenbead.core.record.RecordTypes;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;

/** The proofs of a job: each as it was before the work and as it is now, with what that says. */
public final class ProofPage extends Page {
    private static final double NAME_WIDTH = 138;
    private static final double CELL_WIDTH = 138;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label letter = Looks.note("muted");
    private final HBox counts = new HBox(18);
    private final Rows<ProofWall.Proof> list;
    private final VBox page;
    private final Subscription watching;
    private Map<String, RailReferences.Reference> healthy = Map.of();
    private boolean read;
    private List<Job> strands = List.of();
    private List<Job> family = List.of();

    public ProofPage(Desk desk, JobModel model, Navigator go) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("proof-title");
        letter.setId("proof-letter");
        counts.setId("proof-counts");
        list = new Rows<>("proof-list", ProofPage::id, this::row, (proof, pressed) -> {
            if (pressed) {
                open(proof);
            } else {
                pedalFor(Optional.of(proof));
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        var head = Looks.as(new VBox(3, Looks.label(texts.get("proof.caps"), "caps"), title, letter, counts),
                "instruction");
        Button rails = Looks.as(new Button(texts.get("proof.rails")), "act", "small");
        rails.setId("proof-rails");
        rails.setMinWidth(Region.USE_PREF_SIZE);
        rails.setOnAction(press -> go.rails());
        Button pads = Looks.as(new Button(texts.get("proof.pads")), "act", "small");
        pads.setId("proof-pads");
        pads.setMinWidth(Region.USE_PREF_SIZE);
        pads.setOnAction(press -> go.pads());
        Button codes = Looks.as(new Button(texts.get("proof.codes")), "act", "small");
        codes.setId("proof-codes");
        codes.setMinWidth(Region.USE_PREF_SIZE);
        codes.setOnAction(press -> go.codes());
        Button gaps = Looks.as(new Button(texts.get("proof.gaps")), "act", "small");
        gaps.setId("proof-gaps");
        gaps.setMinWidth(Region.USE_PREF_SIZE);
        gaps.setOnAction(press -> go.gaps());
        var foot = new VBox(5, new FlowPane(10, 5, rails, pads, codes, gaps),
                Looks.label(texts.get("proof.keys"), "muted", "small"));
        page = Looks.as(new VBox(head, columns(texts), list, foot), "page");
        backWord(texts.get("book.back"));
        watching = Subscription.combine(model.jobProperty().subscribe(j -> show()),
                model.findingsProperty().subscribe(this::findings));
        Job job = model.job();
        desk.io(() -> {
            List<Job> jobs = desk.ledger().jobs();
            return new Read(RailReferences.learn(jobs, job.board(), job.id()), Strands.of(job, jobs),
                    Strands.family(job, jobs));
        }, found -> {
            healthy = found.healthy();
            strands = job.strandOf().isEmpty() ? found.strands() : List.of();
            family = found.family();
            read = true;
            show();
        });
    }

    /** What the ledger says beside the job. */
    private record Read(Map<String, RailReferences.Reference> healthy, List<Job> strands, List<Job> family) {}

    private static String id(ProofWall.Proof proof) {
        return "proof-" + (small(proof.kind()) + "-" + proof.name()).toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-");
    }

    private static Region columns(Texts texts) {
        var row = new HBox(12, column(texts.get("proof.column.what"), NAME_WIDTH + 30),
                column(texts.get("proof.column.before"), CELL_WIDTH),
                column(texts.get("proof.column.after"), CELL_WIDTH),
                Looks.label(texts.get("proof.column.says"), "caps"));
        row.getStyleClass().add("proof-columns");
        return row;
    }

    private static Label column(String text, double width) {
        Label label = Looks.label(text, "caps");
        wide(label, width);
        return label;
    }

    private void show() {
        Texts texts = desk.texts();
        if (!read) {
            title.setText(texts.get("proof.reading"));
            pedal(Pedal.shut(texts.get("proof.reading"), texts.get("proof.reading")));
            return;
        }
        List<ProofWall.Proof> proofs = ProofWall.of(model.job(), family, healthy, texts.words());
        title.setText(texts.say("proof.answer." + small(ProofWall.answer(proofs))));
        letter.setText(
                Confidence.of(model.job(), strands, proofs)
                        .map(c -> texts.get("proof.letter", c.said(texts.words())))
                        .orElse(""));
        counts.getChildren().clear();
        for (ProofWall.State state : ProofWall.State.values()) {
            long n = proofs.stream().filter(p -> p.state() == state).count();
            var one = new HBox(7, mark(state),
                    Looks.label(n + " " + texts.say("proof.state." + small(state)), "text-ink"));
            one.setAlignment(Pos.CENTER_LEFT);
            counts.getChildren().add(one);
        }
        list.show(proofs);
        pedalFor(list.chosen());
    }

    private void pedalFor(Optional<ProofWall.Proof> proof) {
        Texts texts = desk.texts();
        pedal(proof.map(p -> new Pedal(texts.get("proof.open"),
                texts.get("proof.open.so", p.name()), true, () -> open(p)))
                .orElseGet(
                        () -> new Pedal(texts.get("book.home"), texts.get("book.home.so"), true, go::home)));
    }

    private static String type(ProofWall.Proof proof) {
        return switch (proof.kind()) {
            case COMPLAINT, FUNCTION, UNPLUGGED -> "tested";
            case RAIL -> "rail";
            case CURVE -> "curve";
            case CODE -> "baseline";
            case LEAK -> "leak";
        };
    }

    /** To where the proof is taken: the last step of the route that asks for it. */
    private void open(ProofWall.Proof proof) {
        String type = type(proof);
        List<String> beads = RecordTypes.shipped().require(type).beads();
        Optional<String> bead = model.job().beads().stream().map(Bead::id).filter(beads::contains)
                .reduce((a, b) -> b);
        if (bead.isEmpty()) {
            desk.trouble(desk.texts().get("proof.nowhere"));
        } else if (proof.kind() == ProofWall.Kind.CODE) {
            go.codes();
        } else if (proof.kind() == ProofWall.Kind.CURVE) {
            go.curve(bead.get());
        } else {
            go.ask(bead.get(), asked(proof, type));
        }
    }

    /** A rail is read after the work in its own record; anything else is a test of its own, named already. */
    private Navigator.Question asked(ProofWall.Proof proof, String type) {
        return switch (proof.kind()) {
            case COMPLAINT, FUNCTION, UNPLUGGED -> new Navigator.Question(type, "what", Optional.empty(),
                    proof.name());
            case RAIL -> new Navigator.Question(type, "after_ohm", model.job().records(type).stream()
                    .filter(r -> r.text("name").equals(proof.name())).map(Kept::id).findFirst(), "");
            default -> new Navigator.Question(type, "", Optional.empty(), "");
        };
    }

    private Region row(ProofWall.Proof p) {
        Texts texts = desk.texts();
        var shape = new StackPane(mark(p.state()));
        shape.setMinWidth(18);
        var name = new VBox(1, Looks.label(texts.say("proof.kind." + small(p.kind())), "muted", "small"),
                Looks.label(p.name(), "text-ink", "strong"));
        wide(name, NAME_WIDTH);
        Region before = cell(p.before().isEmpty() ? texts.get("proof.not_taken") : p.before(),
                p.before().isEmpty(), "");
        Region after = cell(p.after().isEmpty() ? texts.get("proof.not_shown") : p.after(),
                p.after().isEmpty(),
                switch (p.state()) {
                    case HOLDS -> "ink-green";
                    case FAILS -> "ink-hot";
                    case OPEN -> "";
                });
        var says = new VBox(3, Looks.label(p.why(), "text-ink", "small"));
        p.ohms().ifPresent(
                o -> says.getChildren().addFirst(new RailStrip(o, p.state() == ProofWall.State.FAILS)));
        HBox.setHgrow(says, Priority.ALWAYS);
        says.setMinWidth(90);
        says.setPrefWidth(140);
        says.setAlignment(Pos.CENTER_LEFT);
        var row = new HBox(12, shape, name, before, after, says);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static Region cell(String text, boolean empty, String ink) {
        Label label = Looks.label(text, empty ? "muted" : "text-ink");
        if (!empty && !ink.isEmpty()) {
            label.getStyleClass().addAll("strong", ink);
        }
        wide(label, CELL_WIDTH);
        return label;
    }

    /** A column as wide in every row. */
    private static void wide(Region cell, double width) {
        cell.setMinWidth(width);
        cell.setPrefWidth(width);
        cell.setMaxWidth(width);
    }

    private static Shape mark(ProofWall.State state) {
        return switch (state) {
            case HOLDS -> Looks.as(new Circle(7), "line-mark-held");
            case FAILS -> Looks.as(Shapes.hexagon(15), "line-mark-broken");
            case OPEN -> Looks.as(new Circle(6), "line-mark-not_proved");
        };
    }

    private static String small(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    @Override
    public List<String> about() {
        return List.of("rails", "test", "curve", "enclosure", "symptoms", "thermal");
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
    public boolean key(KeyCode code, boolean control) {
        if (!control && code == KeyCode.R) {
            go.rails();
            return true;
        }
        if (!control && code == KeyCode.W) {
            go.pads();
            return true;
        }
        if (!control && code == KeyCode.A) {
            go.gaps();
            return true;
        }
        if (!control && code == KeyCode.L) {
            go.codes();
            return true;
        }
        if (!control && (code == KeyCode.DOWN || code == KeyCode.UP)) {
            list.move(code == KeyCode.DOWN ? 1 : -1);
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
    }
}
