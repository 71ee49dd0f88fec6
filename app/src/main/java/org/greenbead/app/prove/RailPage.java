package org.greenbead.app.prove;

import java.util.ArrayList;
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
import org.greenbead.app.look.BoardView;
import org.greenbead.app.look.Looks;
import org.greenbead.app.picture.BoardPhoto;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Rows;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.Line;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.board.Point;
import org.greenbead.core.board.Side;
import org.greenbead.core.electric.Rails;
import org.greenbead.core.proof.ProofWall;
import org.greenbead.core.proof.RailRound;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.Format;

/** Rails to ground one after the other: the board shows where, the page what a healthy one reads, and each reading is judged as it is typed. */
public final class RailPage extends Leaf {
    private final Desk desk;
    private final JobModel model;
    private final Navigator go;
    private final Label title = Looks.label("", "now");
    private final Label says = Looks.label("", "next");
    private final Label said = Looks.note("muted");
    private final Line entry;
    private final Line meter;
    private final BoardView view;
    private final Rows<RailRound.Stop> list;
    private Optional<BoardPhoto> board = Optional.empty();
    private List<Job> ledger = List.of();
    private boolean after;
    private RailRound round = new RailRound(false, List.of());
    private Optional<String> wanted = Optional.empty();
    private Side side = Side.TOP;

    /** The meter that stands at the bench of this job comes before the one that was used last. */
    private void ofBench() {
        desk.io(() -> desk.ledger().document(Format.BENCH, model.job().bench(), Bench.class).equipment()
                .meter(),
                named -> {
                    // What somebody has begun to write by then stays.
                    if (!named.isEmpty() && meter.getText().strip().equals(desk.settings().meter().get())) {
                        meter.setText(named);
                    }
                }, none -> {
                });
    }

    public RailPage(Desk desk, JobModel model, Navigator go) {
        super(go::proofs, desk.texts().get("rail.back"));
        this.desk = desk;
        this.model = model;
        this.go = go;
        Texts texts = desk.texts();
        title.setId("rail-title");
        says.setId("rail-says");
        said.setId("rail-note");
        entry = new Line("rail-line", texts.get("rail.prompt"));
        entry.setOnAction(enter -> take(entry.getText()));
        meter = new Line("rail-meter", texts.get("rail.meter"));
        meter.setText(desk.settings().meter().get());
        ofBench();
        meter.textProperty().subscribe(text -> desk.settings().meter().set(text.strip()));
        meter.setOnAction(enter -> entry.open());
        view = new BoardView(this::point, px -> {
        });
        var drawn = Looks
                .as(new VBox(6, view, new HBox(8, tool("rail-when", texts.get("rail.when"), this::turnRound),
                        tool("rail-side", texts.get("rail.side"), this::turnOver))), "card");
        VBox.setVgrow(view, Priority.ALWAYS);
        HBox.setHgrow(drawn, Priority.ALWAYS);
        list = new Rows<>("rail-list",
                s -> "rail-" + s.name().toLowerCase(Locale.ROOT).replaceAll("\\W+", "-"),
                this::row, (s, press) -> {
                    if (press) {
                        want(s);
                    }
                });
        VBox.setVgrow(list, Priority.ALWAYS);
        var column = new VBox(8, list, Looks.as(
                new VBox(6, entry, said, Looks.label(texts.get("rail.meter.caps"), "caps"), meter), "card"));
        column.setPrefWidth(300);
        column.setMinWidth(240);
        var middle = new HBox(10, drawn, column);
        VBox.setVgrow(middle, Priority.ALWAYS);
        var head = Looks.as(new VBox(2, Looks.label(texts.get("rail.caps"), "caps"), title, says,
                Looks.label(texts.get("rail.caution"), "caution")), "instruction");
        VBox page = Looks.as(new VBox(head, middle, Looks.label(texts.get("rail.keys"), "muted", "small")),
                "page");
        lay(page);
        after = RailRound.afterTheWork(model.job());
        watch(Subscription.combine(model.jobProperty().subscribe(j -> show()),
                model.findingsProperty().subscribe(this::findings)));
        Job job = model.job();
        desk.io(() -> new Read(BoardPhoto.of(desk.ledger(), job), desk.ledger().jobs()), read -> {
            board = Optional.of(read.board());
            ledger = read.jobs();
            show();
            entry.open();
        });
    }

    private record Read(BoardPhoto board, List<Job> jobs) {}

    /** From before the work to after it, and back. */
    private void turnRound() {
        after = !after;
        wanted = Optional.empty();
        said.setText("");
        show();
    }

    private void turnOver() {
        side = side == Side.TOP ? Side.BOTTOM : Side.TOP;
        show();
    }

    private Optional<RailRound.Stop> current() {
        return wanted.flatMap(w -> round.stops().stream().filter(s -> s.name().equals(w)).findFirst())
                .or(() -> round.next()).or(() -> round.further());
    }

    private void want(RailRound.Stop stop) {
        wanted = Optional.of(stop.name());
        stop.place().ifPresent(p -> side = p.side());
        said.setText("");
        show();
        entry.open();
    }

    private void show() {
        Texts texts = desk.texts();
        round = RailRound.of(model.job(), ledger, after);
        Optional<RailRound.Stop> now = current();
        list.show(round.stops());
        now.ifPresent(list::choose);
        now.flatMap(RailRound.Stop::place).ifPresent(p -> side = p.side());
        long read = round.stops().stream().filter(RailRound.Stop::read).count();
        title.setText(now.map(s -> s.suggested()
                ? texts.get("rail.between", s.name())
                : texts.get(after ? "rail.read.after" : "rail.read.before", s.name()))
                .orElse(round.stops().isEmpty()
                        ? texts.get("rail.none")
                        : round.odd().isEmpty()
                                ? texts.get("rail.done", read)
                                : texts.get("rail.odd", round.odd().size(), read)));
        says.setText(now.map(s -> s.suggested() ? texts.get("rail.between.so") : expects(s, texts))
                .orElse(texts.get("rail.new")));
        board.ifPresent(b -> {
            view.photo(b.photo(), b.squared());
            view.show(b.board(), model.job().target(), side, spots(now));
            now.flatMap(RailRound.Stop::place).filter(p -> p.side() == side)
                    .ifPresentOrElse(p -> view.cross(p.at()), view::crossless);
        });
        if (now.filter(s -> !s.suggested()).isEmpty() && !round.stops().isEmpty()) {
            pedal(new Pedal(texts.get("rail.proofs"), texts.get("rail.proofs.so"), true, go::proofs));
        } else {
            pedal(Pedal.shut(texts.get("rail.type"), texts.get("rail.type.so")));
        }
    }

    private static String expects(RailRound.Stop s, Texts texts) {
        String healthy = !(s.healthyOhm() > 0)
                ? texts.get("rail.unknown")
                : s.boards() == 0
                        ? texts.get("rail.noted", ohms(s.healthyOhm()), plain(s.tolerancePct()))
                        : s.boards() == 1
                                ? texts.get("rail.learned.one", ohms(s.healthyOhm()), plain(s.tolerancePct()))
                                : texts.get("rail.learned", ohms(s.healthyOhm()), plain(s.tolerancePct()),
                                        s.boards());
        String where = s.place().isPresent()
                ? texts.get("rail.at.cross")
                : s.point().isBlank() ? texts.get("rail.at.nobody") : texts.get("rail.at", s.point());
        return healthy + " " + where;
    }

    private List<BoardView.Spot> spots(Optional<RailRound.Stop> now) {
        var spots = new ArrayList<BoardView.Spot>();
        for (RailRound.Stop s : round.stops()) {
            s.place().filter(p -> p.side() == side)
                    .ifPresent(p -> spots.add(new BoardView.Spot(s.name(), p.at(),
                            now.filter(n -> n.name().equals(s.name())).isPresent()
                                    ? "rail-now"
                                    : !s.read() ? "rail-todo" : s.odd() ? "lost" : "found")));
        }
        return spots;
    }

    /** "18.4" for the rail in hand; "core 18.4" for one by its name, new or known. */
    private void take(String typed) {
        Texts texts = desk.texts();
        if (typed.isBlank()) {
            said.setText(texts.get("rail.blank"));
            return;
        }
        try {
            RailRound.Typed read = RailRound.Typed.of(typed);
            read.name().or(() -> current().map(RailRound.Stop::name)).ifPresentOrElse(
                    name -> keep(name, read.ohm()), () -> said.setText(texts.get("rail.nameless")));
        } catch (IllegalArgumentException e) {
            said.setText(String.valueOf(e.getMessage()));
        }
    }

    private void keep(String name, double ohm) {
        Texts texts = desk.texts();
        Kept record = round.kept(model.job(), name, ohm, desk.settings().meter().get(),
                desk.clock().instant(),
                author());
        entry.clear();
        wanted = Optional.empty();
        model.note(record);
        RailRound.Stop stop = round.stops().stream().filter(s -> s.name().equals(record.text("name")))
                .findFirst().orElseThrow();
        String read = ohms(stop.ohm());
        said.setText(switch (stop.verdict()) {
            case PASS -> texts.get("rail.pass", stop.name(), read);
            case SUSPECT -> texts.get("rail.suspect", stop.name(), read);
            case SHORT -> texts.get("rail.short", stop.name(), read);
            case MISSING -> texts.get("rail.kept", stop.name(), read);
            case OTHERWISE -> texts.get("rail.otherwise", stop.name(), read);
            case ROSE -> texts.get("rail.rose", stop.name(), read);
        });
        said.pseudoClassStateChanged(Looks.BAD, stop.odd());
        entry.open();
    }

    private String author() {
        return desk.settings().technician().get();
    }

    /** The rail in hand is read there. */
    private void point(Point at) {
        current().ifPresentOrElse(s -> {
            model.note(round.pointed(model.job(), s.name(), new RailRound.Place(at, side),
                    desk.clock().instant(), author()));
            said.setText(desk.texts().get("rail.pointed", s.name()));
            entry.open();
        }, () -> said.setText(desk.texts().get("rail.nameless")));
    }

    private Region row(RailRound.Stop s) {
        Texts texts = desk.texts();
        Label name = Looks.label(s.name(), "text-ink", "strong");
        name.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(name, Priority.ALWAYS);
        Label value = Looks.label(s.read() ? ohms(s.ohm()) : texts.get("rail.open"),
                s.read() ? s.odd() ? "ink-hot" : "text-ink" : "muted", "strong");
        value.setMinWidth(Region.USE_PREF_SIZE);
        double before = after
                ? s.record().map(r -> new Rails.Rail("", r.number("ohm"), r.number("lead_ohm"), Double.NaN))
                        .filter(r -> Double.isFinite(r.ohm())).map(Rails.Rail::bareOhm).orElse(Double.NaN)
                : s.ohm();
        return new VBox(1, new HBox(8, name, value), new RailStrip(
                new ProofWall.Ohms(before, after ? s.ohm() : Double.NaN, s.healthyOhm(), s.tolerancePct()),
                s.odd()));
    }

    private static String ohms(double ohm) {
        return ProofWall.said(ohm, Locale.ROOT);
    }

    private static String plain(double value) {
        return String.format(Locale.ROOT, "%.0f", value);
    }

    @Override
    public List<String> about() {
        return List.of("rails");
    }

    @Override
    boolean key(KeyCode code) {
        switch (code) {
            case UP, DOWN -> {
                list.move(code == KeyCode.UP ? -1 : 1);
                list.chosen().ifPresent(this::want);
            }
            case A -> turnRound();
            case F -> turnOver();
            case ENTER -> entry.open();
            default -> {
                return false;
            }
        }
        return true;
    }
}
