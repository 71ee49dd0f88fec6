package org.greenbead.app.heat;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Slider;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.Subscription;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.HeatFilm;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.Room;
import org.greenbead.core.run.RunPlan;
import org.greenbead.store.Format;

/** Both sides of the board over a rehearsal on the full model; probes are put where they are wanted. */
public final class HeatPage extends Page {
    /** Keys of the usual few probes stand in one line; more begin another. */
    private static final double KEYS_WIDE = 620;
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final HeatPicture top = new HeatPicture(Side.TOP);
    private final HeatPicture under = new HeatPicture(Side.BOTTOM);
    private final HeatScale scale = new HeatScale();
    private final Slider time = new Slider(0, 1, 0);
    private final Label clock = Looks.as(new Label("–"), "figure");
    private final Label said = Looks.label("", "muted");
    private final ToggleGroup probes = new ToggleGroup();
    private final FlowPane probeKeys = new FlowPane(6, 6);
    private final AtomicBoolean gone = new AtomicBoolean();
    private final VBox page;
    private final Subscription watching;
    private RunPlan plan;
    private Optional<HeatFilm> film = Optional.empty();
    /** Thermocouples of the bench that this board does not reach: where they were on another. */
    private List<ProbePlace> elsewhere = List.of();
    /** The probe of which is asked what it touches: the one that was put or chosen last. */
    private Optional<String> placed = Optional.empty();

    public HeatPage(Desk desk, JobModel model, Navigator go, RunPlan plan) {
        this.desk = desk;
        this.model = model;
        this.go = go;
        this.plan = plan;
        Texts texts = desk.texts();
        top.setId("heat-top");
        under.setId("heat-under");
        time.setId("heat-time");
        clock.setId("heat-clock");
        said.setId("heat-said");
        clock.setMinWidth(Region.USE_PREF_SIZE);
        top.onPlaced(p -> put(Side.TOP, p));
        under.onPlaced(p -> put(Side.BOTTOM, p));
        var left = Looks.as(new VBox(6, Looks.label(texts.get("heat.top"), "caps"), top), "card");
        var right = Looks.as(new VBox(6, Looks.label(texts.get("heat.under"), "caps"), under), "card");
        VBox.setVgrow(top, Priority.ALWAYS);
        VBox.setVgrow(under, Priority.ALWAYS);
        HBox.setHgrow(left, Priority.ALWAYS);
        HBox.setHgrow(right, Priority.ALWAYS);
        left.setPrefWidth(100);
        right.setPrefWidth(100);
        var sides = new HBox(10, left, right);
        VBox.setVgrow(sides, Priority.ALWAYS);
        HBox.setHgrow(time, Priority.ALWAYS);
        time.setAccessibleText(texts.get("heat.time"));
        time.valueProperty().subscribe(v -> draw());
        var scrub = new HBox(14, clock, time);
        scrub.setAlignment(Pos.CENTER_LEFT);
        probeKeys.setAlignment(Pos.CENTER_LEFT);
        probeKeys();
        var placing = new HBox(12, whole(texts.get("heat.probe")), probeKeys);
        placing.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(probeKeys, Priority.ALWAYS);
        probeKeys.setPrefWrapLength(KEYS_WIDE);
        var foot = Looks.as(new VBox(6, scrub, scale, placing, said), "card");
        var head = Looks.as(new VBox(1, Looks.label(texts.get("heat.caps"), "caps"),
                Looks.label(plan.recipe().title(), "now")), "instruction");
        page = Looks.as(new VBox(head, sides, foot), "page");
        watching = model.findingsProperty().subscribe(f -> findings(f));
        backWord(texts.get("key.back"));
        pedal(new Pedal(texts.get("heat.peak"), texts.get("heat.peak.so"), true, this::toPeak));
        if (!plan.loose()) {
            String id = plan.bench().id();
            desk.io(() -> desk.ledger().document(Format.BENCH, id, Bench.class), usual -> {
                elsewhere = usual.probes().stream()
                        .filter(p -> this.plan.bench().probe(p.name()).isEmpty()).toList();
                if (!elsewhere.isEmpty()) {
                    probeKeys();
                }
            });
        }
        shoot();
    }

    private void shoot() {
        RunPlan mine = plan;
        said.setText(desk.texts().get("heat.wait"));
        desk.background(() -> HeatFilm.of(mine, gone::get), made -> {
            if (!gone.get() && mine == plan) {
                film = Optional.of(made);
                time.setMax(made.rehearsal().lengthS());
                time.setBlockIncrement(HeatFilm.EVERY_S);
                time.setMajorTickUnit(60);
                said.setText(desk.texts().get("heat.place"));
                toPeak();
                draw();
            }
        });
    }

    private void toPeak() {
        film.ifPresent(f -> time.setValue(f.rehearsal().rows().stream()
                .max(java.util.Comparator.comparingDouble(Rehearsal.Row::jointMinC)).orElseThrow().timeS()));
    }

    private void draw() {
        if (film.isEmpty()) {
            return;
        }
        Texts texts = desk.texts();
        HeatFilm f = film.get();
        HeatFilm.Frame frame = f.at(time.getValue());
        Rehearsal.Row row = f.row(time.getValue());
        List<Room> rooms = HeatFilm.rooms(plan, row);
        double solidus = plan.target().joint().alloy().solidusC();
        double lowest = rooms.stream().skip(1).mapToDouble(Room::limitC).min().orElse(solidus);
        double[] levels = {solidus, lowest};
        top.show(plan, frame.top(), rooms, levels, texts);
        under.show(plan, frame.bottom(), rooms, levels, texts);
        var marks = new ArrayList<HeatScale.Mark>();
        marks.add(new HeatScale.Mark(solidus, texts.get("heat.solidus", texts.words().bare(solidus))));
        if (Math.abs(lowest - solidus) > 12) {
            marks.add(new HeatScale.Mark(lowest, texts.get("heat.lowest", texts.words().bare(lowest))));
        }
        scale.show(marks, texts);
        clock.setText(Words.clock(row.timeS()) + "  " + plan.recipe().stages().get(row.stage()).name() + "  "
                + texts.temp(row.jointMinC()));
    }

    private void probeKeys() {
        probeKeys.getChildren().clear();
        probes.getToggles().clear();
        for (ProbePlace probe : plan.bench().probes()) {
            probeKeys.getChildren().add(key("T" + probe.channel(), probe.name()));
        }
        for (ProbePlace probe : elsewhere) {
            probeKeys.getChildren().add(
                    key(desk.texts().get("heat.probe.elsewhere", "T" + probe.channel()), probe.name()));
        }
        if (plan.bench().probes().size() + elsewhere.size() < 8) {
            probeKeys.getChildren().add(key(desk.texts().get("heat.probe.new"), ""));
        }
        if (placed.isEmpty() && probes.getSelectedToggle() == null && !probeKeys.getChildren().isEmpty()) {
            probes.selectToggle((ToggleButton) probeKeys.getChildren().getFirst());
        }
        placed.flatMap(p -> plan.bench().probe(p)).filter(p -> !plan.loose()).ifPresent(this::touchKeys);
    }

    private ToggleButton key(String word, String probe) {
        var key = Looks.as(new ToggleButton(word), "act", "small");
        key.setId("probe-" + (probe.isEmpty() ? "new" : probe));
        key.setToggleGroup(probes);
        key.setUserData(probe);
        key.setMinWidth(Region.USE_PREF_SIZE);
        key.setOnAction(e -> {
            // Pressed once more it is let go of again; what it touches is shown either way.
            Optional<String> now = Optional.of(probe).filter(p -> !p.isEmpty());
            if (!now.equals(placed)) {
                boolean chosen = key.isSelected();
                placed = now;
                probeKeys();
                Node again = probeKeys.lookup("#" + key.getId());
                probes.selectToggle(chosen ? (ToggleButton) again : null);
                again.requestFocus();
            }
        });
        return key;
    }

    /** Moves the chosen probe, or adds one on the next free channel; the bench keeps it. */
    private void put(Side side, Point at) {
        if (probes.getSelectedToggle() == null) {
            return;
        }
        if (plan.loose()) {
            // The one probe of a loose chip is not one of the bench's, whose places would be lost.
            said.setText(desk.texts().get("heat.loose"));
            return;
        }
        String chosen = (String) probes.getSelectedToggle().getUserData();
        Bench bench = plan.bench();
        ProbePlace before = usual(bench).probe(chosen).orElseGet(() -> {
            int channel = usual(bench).freeChannel();
            return new ProbePlace("probe_" + channel, ProbePlace.touches(plan.target(), side, at).getFirst(),
                    channel, side, at);
        });
        ProbePlace probe = before.moved(plan.target(), side, at);
        elsewhere = elsewhere.stream().filter(p -> !p.name().equals(probe.name())).toList();
        keep(bench.put(probe), Optional.of(probe.name()));
    }

    /** A bench of this board with those thermocouples that the board does not reach. */
    private Bench usual(Bench here) {
        Bench all = here;
        for (ProbePlace probe : elsewhere) {
            all = all.put(probe);
        }
        return all;
    }

    /** Shows and keeps the bench with its probes. @param inHand the one of which is asked what it touches */
    private void keep(Bench bench, Optional<String> inHand) {
        plan = plan.with(bench);
        List<ProbePlace> fixed = usual(bench).probes();
        probes.selectToggle(null);
        placed = inHand;
        probeKeys();
        film.ifPresent(f -> draw());
        said.setText(desk.texts().get(inHand.isPresent() ? "heat.placed" : "heat.probe.gone"));
        desk.io(() -> {
            // The plan may have another station in hand, and a run may have told of the bench since.
            Bench kept = desk.ledger().document(Format.BENCH, bench.id(), Bench.class)
                    .probing(fixed);
            desk.ledger().save(kept);
            return kept;
        }, kept -> model.replan());
    }

    private static Label whole(String text) {
        Label label = Looks.label(text, "muted");
        label.setMinWidth(Region.USE_PREF_SIZE);
        return label;
    }

    /** What the probe touches, where its place leaves a choice, and that it is taken away. */
    private void touchKeys(ProbePlace probe) {
        Texts texts = desk.texts();
        List<ProbePlace.Role> can = ProbePlace.touches(plan.target(), probe.side(), probe.atMm());
        probeKeys.getChildren().add(whole(texts.get("heat.probe.touches", "T" + probe.channel())));
        for (ProbePlace.Role role : can) {
            String word = role.name().toLowerCase(Locale.ROOT);
            var key = Looks.as(new ToggleButton(texts.words().say("probe.touches." + word)), "act", "small");
            key.setId("touches-" + word);
            key.setSelected(role == probe.role());
            key.setMinWidth(Region.USE_PREF_SIZE);
            key.setOnAction(e -> keep(plan.bench().put(probe.touching(role)), Optional.of(probe.name())));
            probeKeys.getChildren().add(key);
        }
        var away = Looks.as(new Button(texts.get("heat.probe.away")), "act", "small");
        away.setId("probe-away");
        away.setMinWidth(Region.USE_PREF_SIZE);
        away.setOnAction(e -> keep(plan.bench().withoutProbe(probe.name()), Optional.empty()));
        probeKeys.getChildren().add(away);
    }

    @Override
    public boolean planned() {
        return true;
    }

    @Override
    public void remedy(Finding finding) {
        if (!model.remedy(finding)) {
            back();
        }
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.recipe(bead());
    }

    private String bead() {
        return plan.bead();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        if (top.key(code) || under.key(code)) {
            return true;
        }
        if (code == KeyCode.ESCAPE) {
            back();
            return true;
        }
        double step = control ? 30 : HeatFilm.EVERY_S;
        if (code == KeyCode.LEFT || code == KeyCode.RIGHT) {
            time.setValue(
                    Math.clamp(time.getValue() + (code == KeyCode.LEFT ? -step : step), 0, time.getMax()));
            return true;
        }
        return false;
    }

    @Override
    public void dispose() {
        watching.unsubscribe();
        gone.set(true);
    }
}
