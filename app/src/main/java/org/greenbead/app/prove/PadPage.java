package org.greenbead.app.prove;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.electric.Pad;
import org.greenbead.core.proof.PadRound;
import org.greenbead.core.proof.ProofWall;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.BadFileException;

/** Damaged pads one after the other: what each carries, where else its net is found, and what the meter said, by one key each. */
public final class PadPage extends Leaf {
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label says = Looks.label("", "next");
    private final Label said = Looks.note("muted");
    private final Line entry;
    private final PadField field;
    private final Rows<PadRound.Stop> list;
    private Optional<BeadMap> map = Optional.empty();
    private boolean board = true;
    private boolean read;
    private PadRound round = new PadRound(List.of());
    private Optional<String> wanted = Optional.empty();

    public PadPage(Desk desk, JobModel model, Navigator go) {
        super(go::proofs, desk.texts().get("rail.back"));
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("pad-title");
        says.setId("pad-says");
        said.setId("pad-note");
        entry = new Line("pad-line", texts.get("pad.prompt"));
        entry.setOnAction(enter -> take(entry.getText()));
        field = new PadField(this::want);
        VBox.setVgrow(field, Priority.ALWAYS);
        var answers = new HBox(8, tool("pad-on", texts.get("pad.on"), () -> found(true)),
                tool("pad-off", texts.get("pad.off"), () -> found(false)),
                tool("pad-turn", texts.get("pad.turn"), this::turn));
        var drawn = Looks.as(new VBox(8, field, answers), "card");
        HBox.setHgrow(drawn, Priority.ALWAYS);
        list = new Rows<>("pad-list", s -> "pad-row-" + s.site().replace(':', '-'), this::row, (s, press) -> {
            if (press) {
                want(s.site());
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        var column = new VBox(8, list, Looks.as(new VBox(6, entry, said), "card"));
        column.setPrefWidth(320);
        column.setMinWidth(260);
        var middle = new HBox(10, drawn, column);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("pad.caps"), "caps"), title, says,
                Looks.label(texts.get("pad.caution"), "caution")), "instruction");
        VBox page = Looks.as(new VBox(head, middle, Looks.label(texts.get("pad.keys"), "muted", "small")),
                "page");
        lay(page);
        watch(Subscription.combine(model.jobProperty().subscribe(j -> show()),
                model.findingsProperty().subscribe(this::findings)));
        Job job = model.job();
        desk.io(() -> map(job), there -> {
            map = there;
            read = true;
            show();
        });
    }

    /** The bead map that this ledger keeps for the chip in hand. */
    private Optional<BeadMap> map(Job job) throws BadFileException {
        String part = desk.ledger().board(job).requireChip(job.target()).part();
        return part.isBlank() ? Optional.empty() : desk.ledger().beadMaps().find(part);
    }

    private void turn() {
        board = !board;
        show();
    }

    /** The one that was pressed; else the first that no meter was put to, else the gravest. */
    private Optional<PadRound.Stop> current() {
        return wanted.flatMap(round::at).or(round::next).or(() -> round.open().stream().findFirst());
    }

    private void want(String site) {
        wanted = Optional.of(site);
        if (round.at(site).isEmpty()) {
            said.setText(desk.texts().get("pad.fresh", site));
        } else {
            said.setText("");
        }
        show();
    }

    private void show() {
        Texts texts = desk.texts();
        round = PadRound.of(model.job(), map);
        Optional<PadRound.Stop> now = current();
        list.show(round.stops());
        now.ifPresent(list::choose);
        title.setText(!read
                ? texts.get("pad.reading")
                : now.map(s -> texts.get("pad.now", s.site(), damage(s)))
                        .orElse(round.stops().isEmpty()
                                ? texts.get("pad.none")
                                : texts.get("pad.done", round.stops().size())));
        says.setText(now.map(this::carries).orElse(texts.get("pad.new"))
                + (read && map.isEmpty() ? " " + texts.get("pad.no.map") : ""));
        field.show(map.map(m -> new PadField.Shown(m, round, now, board)));
        if (read && round.open().isEmpty() && !round.stops().isEmpty()) {
            pedal(new Pedal(texts.get("rail.proofs"), texts.get("rail.proofs.so"), true, go::proofs));
        } else {
            pedal(Pedal.shut(texts.get("pad.measure"), texts.get("pad.measure.so")));
        }
    }

    private String damage(PadRound.Stop s) {
        return desk.texts().say("paddamage." + small(s.pad().damage()));
    }

    private String carries(PadRound.Stop s) {
        return desk.texts().say(Phrase.of("padcarries." + small(s.pad().carries()), PadRound.carried(s)));
    }

    private void found(boolean net) {
        Optional<String> site = wanted.or(() -> current().map(PadRound.Stop::site));
        site.ifPresentOrElse(s -> keep(s, PadRound.Found.continues(net)),
                () -> said.setText(desk.texts().get("pad.nameless")));
    }

    /** "C4 lifted", or "leak 4.7M" for the one in hand. */
    private void take(String typed) {
        String text = typed.strip();
        int cut = text.indexOf(' ');
        String first = cut < 0 ? text : text.substring(0, cut);
        boolean named = RowNames.isSite(first);
        Optional<String> site = named
                ? Optional.of(first)
                : wanted.or(() -> current().map(PadRound.Stop::site));
        if (site.isEmpty()) {
            said.setText(desk.texts().get("pad.nameless"));
            return;
        }
        String words = !named ? text : cut < 0 ? "" : text.substring(cut + 1);
        if (words.isBlank()) {
            said.setText(desk.texts().get("pad.blank"));
            return;
        }
        try {
            PadRound.Found found = PadRound.Found.typed(words);
            if (keep(site.get(), found)) {
                entry.clear();
            }
        } catch (IllegalArgumentException e) {
            said.setText(String.valueOf(e.getMessage()));
        }
    }

    private boolean keep(String site, PadRound.Found found) {
        Kept record;
        try {
            record = PadRound.kept(model.job(), map, site, found, desk.clock().instant(),
                    desk.settings().technician().get());
        } catch (IllegalArgumentException e) {
            said.setText(String.valueOf(e.getMessage()));
            return false;
        }
        wanted = Optional.empty();
        model.note(record);
        PadRound.Stop stop = round.at(site).orElseThrow();
        said.setText(desk.texts().get("pad.kept", site,
                desk.texts().say("padverdict." + small(stop.verdict()))));
        said.pseudoClassStateChanged(Looks.BAD, stop.open());
        return true;
    }

    private Region row(PadRound.Stop s) {
        Label name = Looks.label(s.site() + " " + damage(s), "text-ink", "strong");
        name.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(name, Priority.ALWAYS);
        Label verdict = Looks.label(desk.texts().say("padverdict." + small(s.verdict())),
                s.open() ? "ink-hot" : "muted", "strong");
        verdict.setMinWidth(Region.USE_PREF_SIZE);
        String leak = s.pad().leakOhm().isPresent()
                ? " \u00b7 " + desk.texts().get("pad.leak",
                        ProofWall.said(s.pad().leakOhm().getAsDouble(), Locale.ROOT))
                : "";
        Label carries = Looks.label(carries(s) + leak, "muted", "small");
        carries.setWrapText(true);
        return new VBox(1, new HBox(8, name, verdict), carries);
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }

    @Override
    public List<String> about() {
        return List.of("pads", "sites");
    }

    @Override
    boolean key(KeyCode code) {
        switch (code) {
            case UP, DOWN -> {
                list.move(code == KeyCode.UP ? -1 : 1);
                list.chosen().map(PadRound.Stop::site).ifPresent(this::want);
            }
            case DIGIT1, NUMPAD1 -> found(true);
            case DIGIT2, NUMPAD2 -> found(false);
            case F -> turn();
            case ENTER -> entry.open();
            default -> {
                return false;
            }
        }
        return true;
    }
}
