package org.greenbead.app.main;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.geometry.Insets;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.util.Subscription;
import org.greenbead.app.book.AccountPage;
import org.greenbead.app.book.BookPage;
import org.greenbead.app.book.LimitsPage;
import org.greenbead.app.book.WherePage;
import org.greenbead.app.chips.ChipsPage;
import org.greenbead.app.inspect.BallsPage;
import org.greenbead.app.inspect.ChangePage;
import org.greenbead.app.inspect.MapPage;
import org.greenbead.app.inspect.StencilPage;
import org.greenbead.app.jobs.JobsPage;
import org.greenbead.app.jobs.NewJobPage;
import org.greenbead.app.jobs.StrandPage;
import org.greenbead.app.ledger.LedgerPage;
import org.greenbead.app.ledger.OddsPage;
import org.greenbead.app.look.Looks;
import org.greenbead.app.overview.OverviewPage;
import org.greenbead.app.overview.WaysPage;
import org.greenbead.app.own.BoardsPage;
import org.greenbead.app.own.OwnBoardPage;
import org.greenbead.app.picture.PicturePage;
import org.greenbead.app.prove.CodePage;
import org.greenbead.app.prove.CoursePage;
import org.greenbead.app.prove.CurvePage;
import org.greenbead.app.prove.GapPage;
import org.greenbead.app.prove.PadPage;
import org.greenbead.app.prove.ProofPage;
import org.greenbead.app.prove.RailPage;
import org.greenbead.app.prove.ReportPage;
import org.greenbead.app.prove.StrapPage;
import org.greenbead.app.prove.TravelPage;
import org.greenbead.app.recipe.RecipePage;
import org.greenbead.app.run.OpenRunPage;
import org.greenbead.app.run.ReplayPage;
import org.greenbead.app.run.RunPage;
import org.greenbead.app.setup.BenchPage;
import org.greenbead.app.setup.CalibratePage;
import org.greenbead.app.setup.SetupPage;
import org.greenbead.app.setup.WitnessPage;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.stock.StockPage;
import org.greenbead.app.timers.TimersPage;
import org.greenbead.app.work.CheckPage;
import org.greenbead.app.work.IronPage;
import org.greenbead.app.work.JobModel;
import org.greenbead.app.work.LapPage;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.book.Phase;
import org.greenbead.core.calibrate.GuidedRun;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.PlanRules;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunLog;

/** The window's inside: puts pages on the workbench and binds the frame round them. Touched on the FX thread only. */
public final class Workshop implements Navigator {
    /** Width that the screens are drawn for; what stands beside the workbench there, and what it gives away in a narrower one. */
    private static final double DESIGN_PX = 1280;
    private static final double WATCH_PX = 288;
    private static final double WATCH_LEAST_PX = 230;
    private static final double WATCH_GIVES = 0.32;
    private static final double TRAY_PX = 212;
    private static final double TRAY_COMPACT_PX = 204;
    private static final double TRAY_LEAST_PX = 200;
    private static final double TRAY_GIVES = 0.05;
    private static final int CARDS = 4;
    /** Places at which Watch goes on about the job in hand. */
    private static final List<String> ABOUT_THE_JOB = List.of("overview", "picture", "book");
    /** Places that say something while there is no job. */
    private static final List<String> WITHOUT_A_JOB = List.of("jobs", "timers", "boards", "chips", "stock",
            "ledger",
            "setup");
    private final Desk desk;
    private final BorderPane root = new BorderPane();
    private final StackPane bench = new StackPane();
    private static final int MOST_SAID = 3;
    private final Label trouble = Looks.label("", "said");
    private final BeadString string = new BeadString(this::bead, this::strands);
    private final BenchTray tray = new BenchTray(this::choose);
    private final WatchPane watch;
    private final PedalBar bar;
    /** Every job of the ledger by its number, as it was when it was last looked at. */
    private final Map<String, Job> known = new HashMap<>();
    /** Of those somebody has looked at: planning and judging each of thousands would take minutes. */
    private final Map<String, JobModel> models = new HashMap<>();
    private final List<String> order = new ArrayList<>();
    private Optional<Page> page = Optional.empty();
    private Optional<RunPage> live = Optional.empty();
    private Optional<String> shownBead = Optional.empty();
    private String place = "";
    private String current = "";
    private Subscription bound = Subscription.EMPTY;
    private boolean warned;
    private final Waits waits;
    private final KeyGate keys;
    private final Runnable elsewhere;
    /** What the page in sight is waiting to be replaced by. */
    private Optional<Object> awaited = Optional.empty();
    private boolean moving;
    private Optional<javafx.scene.Node> chosen = Optional.empty();

    /** @param elsewhere leaves for the demo, or from it for one's own ledger */
    public Workshop(Desk desk, List<Job> jobs, Runnable elsewhere) {
        this.desk = desk;
        this.elsewhere = elsewhere;
        keys = new KeyGate(desk.clock());
        tray.onWait(this::timers);
        waits = new Waits(desk, tray::waits);
        watch = new WatchPane(this::remedy);
        bar = new PedalBar(this::pressPedal, () -> page.ifPresent(Page::back),
                () -> page.ifPresent(Page::note));
        root.widthProperty().subscribe(w -> sides());
        sides();
        trouble.pseudoClassStateChanged(Looks.BAD, true);
        trouble.setVisible(false);
        trouble.setManaged(false);
        trouble.setId("trouble");
        trouble.setPadding(new Insets(8, 14, 2, 14));
        var scroll = Looks.as(new ScrollPane(bench), "watch-scroll");
        scroll.setFitToWidth(true);
        scroll.setFitToHeight(true);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        scroll.setFocusTraversable(false);
        scroll.setMinSize(0, 0);
        var middle = new javafx.scene.layout.VBox(trouble, scroll);
        javafx.scene.layout.VBox.setVgrow(scroll, javafx.scene.layout.Priority.ALWAYS);
        middle.setMinSize(0, 0);
        root.setTop(string);
        root.setLeft(tray);
        root.setRight(watch);
        root.setCenter(middle);
        root.setBottom(bar);
        root.setFocusTraversable(true);
        desk.onTrouble(this::tell);
        for (Job job : jobs) {
            order.add(job.id());
            known.put(job.id(), job);
        }
        waits.take(jobs);
        desk.settings().unit().subscribe((was, now) -> again());
        desk.settings().lampOff().subscribe(d -> dress());
        desk.settings().textPercent().subscribe(p -> {
            dress();
            frame();
        });
        desk.settings().speed().subscribe(s -> frame());
        if (!order.isEmpty()) {
            current = order.getFirst();
        }
    }

    private JobModel bind(Job job) {
        JobModel model = new JobModel(desk, job);
        known.put(job.id(), job);
        models.put(job.id(), model);
        model.jobProperty().subscribe(j -> {
            known.put(j.id(), j);
            waits.take(j);
            frame();
        });
        model.findingsProperty().subscribe(f -> frame());
        model.judgedProperty().subscribe(j -> watchNow());
        model.thinkingProperty().subscribe(t -> watchNow());
        return model;
    }

    /** The model of a job that is known; it begins when somebody first looks at the job. */
    private JobModel modelOf(String id) {
        JobModel there = models.get(id);
        return there == null ? bind(known.get(id)) : there;
    }

    /** A job that was begun here, or came in a bundle. */
    private void arrived(Job job) {
        if (current.isEmpty()) {
            current = job.id();
        }
        if (!order.contains(job.id())) {
            order.addFirst(job.id());
        }
        bind(job);
        frame();
    }

    /** A job that went into the bin. */
    private void left(String id) {
        models.remove(id);
        known.remove(id);
        waits.forget(id);
        order.remove(id);
        if (current.equals(id)) {
            current = order.isEmpty() ? "" : order.getFirst();
        }
        frame();
    }

    public Region node() {
        return root;
    }

    private void remedy(Finding finding) {
        if (ABOUT_THE_JOB.contains(place) && !current.isEmpty()) {
            if (!model().remedy(finding)) {
                model().nextRun().ifPresent(b -> recipe(b.id()));
            }
        } else {
            page.ifPresent(p -> p.remedy(finding));
        }
    }

    /**
     * Shows what is due: a run that was left open, or the bead in hand.
     *
     * @param read log of the first run that was left open, where it has been read already
     */
    public void begin(List<RunEntry> open, Optional<RunLog> read) {
        if (open.isEmpty()) {
            home();
            return;
        }
        RunEntry left = open.getFirst();
        List<RunEntry> rest = open.subList(1, open.size());
        if (known.containsKey(left.jobId())) {
            current = left.jobId();
        }
        OpenRunPage.offer(desk, left, read, this::resume, () -> begin(rest, Optional.empty()),
                p -> show(p, "", Optional.of(left.bead())));
    }

    private void resume(RunEntry entry, RunLog log) {
        if (!known.containsKey(entry.jobId())) {
            tell(desk.texts().get("ledger.bad", entry.jobId()));
            return;
        }
        JobModel model = modelOf(entry.jobId());
        current = entry.jobId();
        var run = new RunPage(desk, model, this, log.header().plan(), model.rehearsalProperty().get(),
                p -> frame());
        live = Optional.of(run);
        run.resume(entry, log);
        show(run, "", Optional.of(entry.bead()));
    }

    /** What goes wrong beside it does not wipe what was said before and not yet read. */
    private void tell(String words) {
        String message = words.replace('\n', ' ');
        boolean more = trouble.isVisible() && !trouble.getText().isEmpty();
        if (more && trouble.getText().contains(message)) {
            return;
        }
        List<String> said = more ? List.of(trouble.getText().split("\n")) : List.of();
        // The first is what began it; of the rest the last ones are news.
        List<String> shown = said.size() < MOST_SAID ? said : List.of(said.getFirst(), said.getLast());
        trouble.setText(Stream.concat(shown.stream(), Stream.of(message))
                .collect(Collectors.joining("\n")));
        trouble.setVisible(true);
        trouble.setManaged(true);
    }

    private JobModel model() {
        JobModel here = modelOf(current);
        here.takeInHand();
        return here;
    }

    private void choose(String jobId) {
        current = jobId;
        JobModel chosen = modelOf(jobId);
        if (!family(chosen.job()).isEmpty()) {
            // What was done on its other chips since counts here, too.
            chosen.replan();
        }
        home();
    }

    private void show(Page next, String newPlace, Optional<String> bead) {
        trouble.setText("");
        trouble.setVisible(false);
        trouble.setManaged(false);
        bound.unsubscribe();
        Optional<Page> before = page;
        awaited = Optional.empty();
        page = Optional.of(next);
        place = newPlace;
        shownBead = bead;
        bench.getChildren().setAll(next.node());
        before.filter(b -> b != next && live.filter(l -> l == b && l.going()).isEmpty()).ifPresent(b -> {
            b.dispose();
            if (live.filter(l -> l == b).isPresent()) {
                live = Optional.empty();
            }
        });
        bound = Subscription.combine(next.pedalProperty().subscribe(p -> {
            keys.says(p);
            bar.show(p, desk.texts());
        }),
                next.findingsProperty().subscribe(f -> watchNow()),
                next.clockProperty().subscribe(bar::clock),
                next.backWordProperty().subscribe(w -> bar.words(w, next.noteWordProperty().get())),
                next.noteWordProperty().subscribe(w -> bar.words(next.backWordProperty().get(), w)));
        frame();
        root.requestFocus();
        keys.acted();
    }

    private void watchNow() {
        Texts texts = desk.texts();
        if (current.isEmpty()) {
            watch.newcomer(texts);
            return;
        }
        boolean thinking = model().thinkingProperty().get()
                && !(page.orElse(null) instanceof ReplayPage);
        boolean about = ABOUT_THE_JOB.contains(place);
        List<Finding> own = page.map(p -> p.findingsProperty().get()).orElse(List.of());
        // Stock, timers and the like say nothing of the job: what holds it stays in sight, to be pressed where the job is.
        boolean beside = own.isEmpty() && WITHOUT_A_JOB.contains(place);
        List<Finding> ofJob = about || beside
                ? PlanRules.timely(model().findingsProperty().get(),
                        model().job().inHand().map(Bead::phase).orElse(Phase.CLOSE))
                : List.of();
        watch.show(about ? ofJob : beside ? ofJob.stream().map(Finding::past).toList() : own, thinking,
                texts);
        var open = model().judgedProperty().get().judged().open();
        watch.book(
                open.stream().filter(n -> n.rule().severity() == Severity.STOP).map(n -> n.rule().id())
                        .distinct().count(),
                open.stream().filter(n -> n.rule().severity() == Severity.CARE).map(n -> n.rule().id())
                        .distinct().count(),
                texts, this::book);
    }

    private void frame() {
        if (page.isEmpty()) {
            return;
        }
        Texts texts = desk.texts();
        if (current.isEmpty()) {
            string.none(texts);
        } else {
            string.show(model().job(), shownBead, family(model().job()), texts);
        }
        List<BenchTray.Place> places = List.of(
                new BenchTray.Place("jobs", texts.get("place.jobs", order.size()), "O", "jobs".equals(place),
                        this::jobs),
                new BenchTray.Place("timers", texts.get("place.timers"), "H", "timers".equals(place),
                        this::timers),
                new BenchTray.Place("overview", texts.get("place.overview"), "Y", "overview".equals(place),
                        this::overview),
                new BenchTray.Place("picture", texts.get("place.picture"), "D", "picture".equals(place),
                        this::picture),
                new BenchTray.Place("balls", texts.get("place.balls"), "P", "balls".equals(place),
                        this::balls),
                new BenchTray.Place("boards", texts.get("place.boards"), "U", "boards".equals(place),
                        this::boards),
                new BenchTray.Place("chips", texts.get("place.chips"), "Q", "chips".equals(place),
                        this::chips),
                new BenchTray.Place("stock", texts.get("place.stock"), "S", "stock".equals(place),
                        this::stock),
                new BenchTray.Place("ledger", texts.get("place.ledger"), "L", "ledger".equals(place),
                        this::ledger),
                new BenchTray.Place("book", texts.get("place.book"), "K", "book".equals(place),
                        this::book),
                new BenchTray.Place("setup", texts.get("place.setup"), "B", "setup".equals(place),
                        this::setup));
        tray.show(current.isEmpty()
                ? List.of()
                : onTheBench().stream().map(id -> card(id, texts)).toList(),
                places.stream().filter(p -> !current.isEmpty() || WITHOUT_A_JOB.contains(p.id())).toList(),
                texts);
        if (desk.demo()) {
            tray.flag(texts.get("tray.demo"), texts.get("tray.demo.leave"), elsewhere);
        }
        int speed = desk.settings().speed().get();
        bar.speed(speed == 1 || desk.joined() == Desk.Joined.LOGGER
                ? ""
                : texts.get("speed.flag", speed));
        watchNow();
    }

    /** The job and its further chips; nothing where it has but one. */
    private List<Job> family(Job job) {
        List<Job> all = List.copyOf(known.values());
        List<Job> strands = Strands.of(job, all);
        return strands.isEmpty()
                ? List.of()
                : java.util.stream.Stream.concat(Strands.main(job, all).or(() -> Optional.of(job)).stream(),
                        strands.stream()).distinct().toList();
    }

    /** What the tray has room for: the job in hand, one that is hot, then the newest. */
    private List<String> onTheBench() {
        var shown = new ArrayList<String>();
        order.stream().limit(desk.demo() ? CARDS - 1 : CARDS).forEach(shown::add);
        live.filter(RunPage::going).map(RunPage::jobId).filter(id -> !shown.contains(id)).ifPresent(id -> {
            shown.removeLast();
            shown.add(id);
        });
        if (!shown.contains(current)) {
            shown.removeLast();
            shown.add(current);
        }
        return shown;
    }

    private static String named(Job job) {
        return job.strandOf().isEmpty() ? job.title() : job.target() + " · " + job.title();
    }

    private BenchTray.Card card(String id, Texts texts) {
        JobModel model = modelOf(id);
        Job job = model.job();
        boolean here = id.equals(current) && place.isEmpty();
        Optional<RunState> run = live.filter(l -> l.going() && l.jobId().equals(id)).flatMap(RunPage::state);
        String where = job.inHand()
                .map(b -> texts.say("phase." + b.phase().name().toLowerCase(java.util.Locale.ROOT)) + " · ")
                .orElse("");
        if (run.isPresent()) {
            boolean cooling = run.get().status() == RunState.Status.COOLING
                    || run.get().status() == RunState.Status.SAFE;
            String time = cooling && run.get().safeInS().isPresent()
                    ? Words.clock(run.get().safeInS().getAsDouble())
                    : Words.clock(run.get().timeS());
            return new BenchTray.Card(id, named(job),
                    where + switch (run.get().status()) {
                        case READY -> texts.get("tray.hands", time);
                        case SAFE -> texts.get("tray.solid");
                        default -> texts.get(cooling ? "tray.cooling" : "tray.hot", time);
                    }, "hot", here);
        }
        Optional<Bead> hand = job.inHand();
        if (hand.isEmpty()) {
            return new BenchTray.Card(id, named(job), texts.get("tray.end"), "", here);
        }
        Optional<Finding> stop = hand.get().kind() == Bead.Kind.RUN
                ? model.findingsProperty().get().stream().filter(f -> f.severity() == Severity.STOP)
                        .findFirst()
                : Optional.empty();
        if (stop.isPresent()) {
            return new BenchTray.Card(id, named(job),
                    where + texts.get("tray.stopped",
                            texts.say(stop.get().what()).toLowerCase(java.util.Locale.ROOT)),
                    "stopped", here);
        }
        return new BenchTray.Card(id, named(job), where + texts.get("tray.waiting"),
                hand.get().phase() == Phase.PROVE ? "proving" : "waiting", here);
    }

    /** In a narrow window what stands beside the workbench gives way, for the work does not. */
    private void sides() {
        double lacks = root.getWidth() > 0 ? Math.max(0, DESIGN_PX - root.getWidth()) : 0;
        double wide = Math.max(WATCH_LEAST_PX, WATCH_PX - lacks * WATCH_GIVES);
        watch.setPrefWidth(wide);
        watch.setMinWidth(wide);
        boolean compact = Looks.compact(desk.settings().textPercent().get());
        double places = Math.max(TRAY_LEAST_PX, (compact ? TRAY_COMPACT_PX : TRAY_PX) - lacks * TRAY_GIVES);
        tray.setPrefWidth(places);
        tray.setMinWidth(places);
    }

    private void dress() {
        boolean compact = Looks.compact(desk.settings().textPercent().get());
        tray.compact(compact);
        sides();
        string.compact(compact);
        Scene scene = root.getScene();
        if (scene != null) {
            Looks.dress(scene, desk.settings().lampOff().get(), desk.settings().textPercent().get());
        }
    }

    /** The unit has changed: pages that were built in words of the old one are built anew. */
    private void again() {
        if ("setup".equals(place)) {
            setup();
        } else if ("book".equals(place)) {
            book();
        }
        frame();
    }

    // Navigator.

    @Override
    public void home() {
        if (current.isEmpty()) {
            show(new org.greenbead.app.first.FirstPage(desk, this, elsewhere), "", Optional.empty());
            return;
        }
        if (live.filter(l -> l.going() && l.jobId().equals(current)).isPresent()) {
            show(live.get(), "", Optional.of(live.get().plan().bead()));
            return;
        }
        model().job().inHand().ifPresentOrElse(b -> bead(b.id()),
                () -> bead(model().job().beads().getLast().id()));
    }

    @Override
    public void bead(String beadId) {
        Bead bead = model().job().bead(beadId).orElseThrow();
        switch (bead.kind()) {
            case CHECK -> show(new CheckPage(desk, model(), this, beadId), "", Optional.of(beadId));
            case RECIPE -> recipe(beadId);
            case RUN -> {
                if (bead.worked()) {
                    String job = current;
                    fetch(() -> desk.ledger().runs().stream()
                            .filter(r -> r.jobId().equals(job) && r.bead().equals(beadId)).findFirst(),
                            found -> found.ifPresentOrElse(this::replay, this::ledger));
                } else {
                    run(beadId);
                }
            }
        }
    }

    @Override
    public void recipe(String beadId) {
        JobModel model = model();
        Optional<Page> asked = page;
        fetch(() -> desk.ledger().plan(model.job(), beadId), plan -> {
            // Whoever has gone elsewhere meanwhile is left there.
            if (model == model() && page.equals(asked)) {
                show(new RecipePage(desk, model, this, plan), "", Optional.of(beadId));
            }
        });
    }

    @Override
    public void run() {
        if (current.isEmpty()) {
            return;
        }
        model().nextRun().ifPresent(b -> run(b.id()));
    }

    private void run(String beadId) {
        if (live.filter(RunPage::going).isPresent()) {
            if (live.get().jobId().equals(current)) {
                show(live.get(), "", Optional.of(beadId));
                return;
            }
            // One hot task a person: the run that goes on is shown instead of beginning another.
            current = live.get().jobId();
            show(live.get(), "", Optional.of(live.get().plan().bead()));
            return;
        }
        JobModel model = model();
        Optional<Page> asked = page;
        fetch(() -> new Ready(desk.ledger().plan(model.job(), beadId), desk.ledger().lowRoomMb()), ready -> {
            RunPlan plan = ready.plan();
            // Whoever has gone elsewhere meanwhile is left there.
            if (model == model() && page.equals(asked) && live.filter(RunPage::going).isEmpty()) {
                boolean blind = desk.joined() == Desk.Joined.NOTHING && !plan.bench().probes().isEmpty();
                var fresh = new RunPage(desk, model, this, blind ? plan.byEye() : plan,
                        model.rehearsalProperty().get(), p -> frame()).waiting();
                if (blind) {
                    fresh.remark(desk.texts().get("run.eye.no_logger"));
                }
                ready.roomMb().ifPresent(mb -> fresh
                        .remark(desk.texts().get("room.low", mb, desk.ledger().folder())));
                live = Optional.of(fresh);
                show(fresh, "", Optional.of(beadId));
            }
        });
    }

    /** A run that may begin, and what is left on a disk that is nearly full. */
    private record Ready(RunPlan plan, OptionalLong roomMb) {}

    @Override
    public void page(Page next, String jobId, String beadId) {
        warned = false;
        current = jobId;
        show(next, "", Optional.of(beadId));
    }

    @Override
    public void replay(RunEntry entry) {
        show(new ReplayPage(desk, this, entry), "replay", shownBead);
    }

    @Override
    public void ledger() {
        show(new LedgerPage(desk, this), "ledger", Optional.empty());
    }

    @Override
    public void odds() {
        show(new OddsPage(desk, this), "ledger", Optional.empty());
    }

    /** What the rule book says of the whole job. */
    @Override
    public void book() {
        if (!current.isEmpty()) {
            show(new BookPage(desk, model(), this, this::limits), "book", Optional.empty());
        }
    }

    private void limits() {
        show(new LimitsPage(desk, this::book, () -> models.values().forEach(JobModel::askBook)), "book",
                Optional.empty());
    }

    private void jobs() {
        show(new JobsPage(desk, this, job -> {
            if (!known.containsKey(job.id())) {
                arrived(job);
            }
            choose(job.id());
        }, id -> desk.io(() -> desk.ledger().job(id), this::arrived), this::left), "jobs", Optional.empty());
    }

    private void boards() {
        show(new BoardsPage(desk, this), "boards", Optional.empty());
    }

    @Override
    public void ownBoard(Optional<org.greenbead.core.board.Board> change) {
        show(new OwnBoardPage(desk, change, kept -> {
            models.values().stream().filter(m -> m.job().board().equals(kept.id())).forEach(JobModel::replan);
            boards();
        }, this::boards), "boards", Optional.empty());
    }

    @Override
    public void boardFor(Page from, java.util.function.Consumer<org.greenbead.core.board.Board> kept) {
        Runnable back = () -> show(from, "jobs", Optional.empty());
        show(new OwnBoardPage(desk, Optional.empty(), board -> {
            back.run();
            kept.accept(board);
        }, back), "jobs", Optional.empty());
    }

    private void chips() {
        show(new ChipsPage(desk, this, current.isEmpty() ? Optional.empty() : Optional.of(model().job())),
                "chips", Optional.empty());
    }

    @Override
    public void newJob() {
        show(new NewJobPage(desk, this, job -> {
            arrived(job);
            choose(job.id());
        }), "jobs", Optional.empty());
    }

    @Override
    public void strands() {
        if (!current.isEmpty()) {
            show(new StrandPage(desk, model().job(), this, job -> choose(job.id()), strand -> {
                arrived(strand);
                choose(strand.id());
            }), "", Optional.empty());
        }
    }

    @Override
    public void overview() {
        if (!current.isEmpty()) {
            show(new OverviewPage(desk, model(), this), "overview", Optional.empty());
        }
    }

    @Override
    public void ways() {
        if (!current.isEmpty()) {
            show(new WaysPage(desk, model(), this), "overview", Optional.empty());
        }
    }

    @Override
    public void picture() {
        if (!current.isEmpty()) {
            show(new PicturePage(desk, model(), this), "picture", Optional.empty());
        }
    }

    @Override
    public void changes() {
        if (!current.isEmpty()) {
            show(new ChangePage(desk, model(), this), "picture", Optional.empty());
        }
    }

    @Override
    public void map() {
        if (!current.isEmpty()) {
            show(new MapPage(desk, model(), this), "balls", Optional.empty());
        }
    }

    @Override
    public void stencil() {
        if (!current.isEmpty()) {
            show(new StencilPage(desk, model(), this), "balls", Optional.empty());
        }
    }

    /** Where the figures of the page in hand come from. */
    private void where() {
        if (current.isEmpty() || page.isEmpty()
                || live.filter(l -> l == page.get() && l.going()).isPresent()) {
            return;
        }
        Page here = page.get();
        show(new WherePage(desk, model(), this, here.about(), again(here)), place, shownBead);
    }

    /** How a page is come to once more. */
    private Runnable again(Page here) {
        return switch (here) {
            case OverviewPage o -> this::overview;
            case WaysPage w -> this::ways;
            case PicturePage p -> this::picture;
            case BallsPage b -> this::balls;
            case MapPage m -> this::map;
            case StencilPage s -> this::stencil;
            case CoursePage c -> this::courses;
            case StrapPage s -> this::straps;
            case TravelPage t -> this::paired;
            case ProofPage p -> this::proofs;
            case RailPage r -> this::rails;
            case CodePage c -> this::codes;
            case ReportPage r -> this::report;
            case BookPage b -> this::book;
            case AccountPage a -> this::account;
            case StrandPage s -> this::strands;
            default -> shownBead.filter(b -> model().job().bead(b).isPresent())
                    .map(b -> (Runnable) () -> bead(b)).orElse(this::home);
        };
    }

    @Override
    public void account() {
        if (!current.isEmpty()) {
            show(new AccountPage(desk, model(), this), "book", Optional.empty());
        }
    }

    @Override
    public void balls() {
        if (!current.isEmpty()) {
            show(new BallsPage(desk, model(), this), "balls", Optional.empty());
        }
    }

    @Override
    public void curve(String beadId) {
        if (!current.isEmpty()) {
            show(new CurvePage(desk, model(), this, beadId), "", Optional.of(beadId));
        }
    }

    @Override
    public void courses() {
        if (!current.isEmpty()) {
            show(new CoursePage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void straps() {
        if (!current.isEmpty()) {
            show(new StrapPage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void paired() {
        if (!current.isEmpty()) {
            show(new TravelPage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void proofs() {
        if (!current.isEmpty()) {
            show(new ProofPage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void rails() {
        if (!current.isEmpty()) {
            show(new RailPage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void pads() {
        if (!current.isEmpty()) {
            show(new PadPage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void gaps() {
        if (!current.isEmpty()) {
            show(new GapPage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void codes() {
        if (!current.isEmpty()) {
            show(new CodePage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void report() {
        if (!current.isEmpty()) {
            show(new ReportPage(desk, model(), this), "", Optional.empty());
        }
    }

    @Override
    public void ask(String beadId, Question question) {
        var asked = new CheckPage(desk, model(), this, beadId);
        show(asked, "", Optional.of(beadId));
        asked.ask(question);
    }

    @Override
    public void iron(String beadId) {
        if (!current.isEmpty()) {
            show(new IronPage(desk, model(), this, beadId), "", Optional.of(beadId));
        }
    }

    @Override
    public void laps(String beadId) {
        if (!current.isEmpty()) {
            show(new LapPage(desk, model(), this, beadId), "", Optional.of(beadId));
        }
    }

    @Override
    public void stock() {
        show(new StockPage(desk, this, current.isEmpty() ? Optional.empty() : Optional.of(model())), "stock",
                Optional.empty());
    }

    @Override
    public void timers() {
        show(new TimersPage(desk, this, current.isEmpty() ? Optional.empty() : Optional.of(model()),
                waits::running, waits::over,
                id -> known.containsKey(id) ? Optional.of(modelOf(id)) : Optional.empty()), "timers",
                Optional.empty());
    }

    @Override
    public void setup() {
        show(new SetupPage(desk, this), "setup", Optional.empty());
    }

    @Override
    public void bench(Bench bench) {
        Optional<Job> on = order.stream().map(known::get)
                .filter(j -> j.bench().equals(bench.id())).findFirst();
        show(new BenchPage(desk, this, bench, on), "setup", Optional.empty());
    }

    @Override
    public void guided(String benchId) {
        if (desk.joined() == Desk.Joined.NOTHING) {
            desk.trouble(desk.texts().get("setup.guided.no_logger"));
            return;
        }
        teaching(benchId, GuidedRun::of, (m, plan) -> {
            var fresh = new RunPage(desk, m, this, plan, Optional.empty(), p -> frame())
                    .waiting();
            live = Optional.of(fresh);
            show(fresh, "", Optional.empty());
        });
    }

    @Override
    public void witness(String benchId) {
        teaching(benchId, plan -> plan,
                (m, plan) -> show(new WitnessPage(desk, this, plan), "setup", Optional.empty()));
    }

    @Override
    public void benchChanged(String benchId) {
        models.values().stream().filter(m -> m.job().bench().equals(benchId)).forEach(JobModel::replan);
    }

    /** Opens what teaches a bench, with the plan of a job that lies on it and has a run ahead. */
    private void teaching(String benchId, java.util.function.UnaryOperator<RunPlan> made,
            java.util.function.BiConsumer<JobModel, RunPlan> open) {
        if (live.filter(RunPage::going).isPresent()) {
            home();
            return;
        }
        Optional<JobModel> on = order.stream().map(known::get)
                .filter(j -> j.bench().equals(benchId) && JobModel.nextRun(j).isPresent()).findFirst()
                .map(j -> modelOf(j.id()));
        on.ifPresentOrElse(
                m -> fetch(() -> made.apply(desk.ledger().plan(m.job(), m.nextRun().orElseThrow().id())),
                        plan -> {
                            current = m.job().id();
                            open.accept(m, plan);
                        }),
                () -> desk.trouble(desk.texts().get("setup.guided.none")));
    }

    @Override
    public void calibrate(RunEntry entry) {
        show(new CalibratePage(desk, this, entry), "setup", Optional.empty());
    }

    // Keys.

    private void pressPedal() {
        if (page.isEmpty()) {
            return;
        }
        Pedal pedal = page.get().pedalProperty().get();
        switch (keys.pedal(pedal, awaited.isPresent())) {
            case ACT -> pedal.action().run();
            case TOO_SOON -> tell(desk.texts().get("pedal.soon", pedal.word()));
            case TURNED -> tell(desk.texts().get("pedal.turned", pedal.word()));
            case LOADING -> tell(desk.texts().get("pedal.loading"));
            case NOTHING -> {
            }
        }
    }

    /** Reads something that the next page needs; until it is there the pedal does nothing and says so. */
    private <T> void fetch(java.util.concurrent.Callable<T> work, java.util.function.Consumer<T> then) {
        var mine = new Object();
        awaited = Optional.of(mine);
        desk.io(work, found -> {
            here(mine);
            then.accept(found);
        }, error -> {
            here(mine);
            desk.trouble(desk.texts().get("error.ledger", String.valueOf(error.getMessage())));
        });
    }

    private void here(Object what) {
        awaited = awaited.filter(w -> w != what);
    }

    /** Listens on the scene before any control does. */
    public void listen(Scene scene) {
        scene.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        // A button under the focus must not take the pedal's key for its own.
        scene.addEventFilter(KeyEvent.KEY_RELEASED, e -> {
            keys.released(e.getCode());
            if (e.getCode() == KeyCode.SPACE && !(scene.getFocusOwner() instanceof TextInputControl)) {
                e.consume();
            }
        });
        // Enter fires what a person has gone to, never what was given the focus by the program.
        scene.addEventFilter(javafx.scene.input.MouseEvent.MOUSE_PRESSED, e -> byHand());
        scene.focusOwnerProperty()
                .subscribe(owner -> chosen = moving ? Optional.ofNullable(owner) : Optional.empty());
        scene.windowProperty().flatMap(javafx.stage.Window::focusedProperty).subscribe(on -> {
            if (on != null) {
                keys.away(!on);
            }
        });
        dress();
    }

    /** Whatever the focus does until this event is through, a person did. */
    private void byHand() {
        moving = true;
        javafx.application.Platform.runLater(() -> moving = false);
    }

    private void pressed(KeyEvent event) {
        if (page.isEmpty()) {
            return;
        }
        Scene scene = root.getScene();
        KeyCode code = event.getCode();
        boolean typing = scene.getFocusOwner() instanceof TextInputControl;
        boolean fresh = keys.pressed(code);
        if (!fresh && !(typing && code != KeyCode.F8 && code != KeyCode.ENTER)) {
            event.consume();
            return;
        }
        if (code == KeyCode.TAB) {
            byHand();
        }
        if (code == KeyCode.F8) {
            pressPedal();
            event.consume();
            return;
        }
        if (typing) {
            if (code == KeyCode.ESCAPE) {
                root.requestFocus();
                event.consume();
            }
            return;
        }
        if (event.isAltDown() || event.isMetaDown()) {
            return;
        }
        if (code == KeyCode.ENTER && scene.getFocusOwner() instanceof ButtonBase button) {
            if (chosen.filter(c -> c == button).isPresent()) {
                button.fire();
                event.consume();
                return;
            }
            if (awaited.isPresent() || !page.get().key(code, event.isControlDown())) {
                root.requestFocus();
            }
            event.consume();
            return;
        }
        if (handle(code, event.isControlDown())) {
            event.consume();
        }
    }

    /** The last change, wherever it was made; of jobs only those of the one in hand, and nothing while a board is hot. */
    private void takeBack() {
        if (live.filter(RunPage::going).isPresent()) {
            tell(desk.texts().get("undo.hot"));
            return;
        }
        if (awaited.isEmpty() && page.filter(Page::unstep).isPresent()) {
            return;
        }
        List<String> back = desk.changes().takeBack(
                of -> !(of instanceof JobModel m) || m.job().id().equals(current));
        if (!back.isEmpty()) {
            page.ifPresent(Page::reread);
        }
        tell(back.isEmpty()
                ? desk.texts().get("undo.nothing")
                : desk.texts().get("undo.done", String.join(", ", back)));
    }

    private boolean handle(KeyCode code, boolean control) {
        Page here = page.orElseThrow();
        if (code == KeyCode.SPACE) {
            pressPedal();
            return true;
        }
        if (control && code == KeyCode.Z) {
            takeBack();
            return true;
        }
        // A page that is about to be replaced takes no keys any more; the places still do.
        if (awaited.isEmpty() && here.key(code, control)) {
            return true;
        }
        if (control) {
            return false;
        }
        if (code.isDigitKey()) {
            return watch.press(Integer.parseInt(code.getName().replaceAll("\\D", "")));
        }
        switch (code) {
            case LEFT -> here.back();
            case N -> here.note();
            case M -> desk.settings().mute().set(!desk.settings().mute().get());
            case L -> ledger();
            case B -> setup();
            case K -> book();
            case O -> jobs();
            case H -> timers();
            case S -> stock();
            case Y -> overview();
            case C -> strands();
            case I -> where();
            case X -> courses();
            case V -> proofs();
            case E -> report();
            case D -> picture();
            case P -> balls();
            case Q -> chips();
            case U -> boards();
            case G -> home();
            case R -> Optional.of(current).filter(c -> !c.isEmpty()).flatMap(c -> model().nextRun())
                    .ifPresent(b -> {
                        if (live.filter(RunPage::going).isEmpty()) {
                            recipe(b.id());
                        }
                    });
            case J -> {
                if (!order.isEmpty()) {
                    choose(order.get((order.indexOf(current) + 1) % order.size()));
                }
            }
            case T -> desk.settings().speed().set(
                    desk.settings().speed().get() == 1 ? 10 : desk.settings().speed().get() == 10 ? 60 : 1);
            default -> {
                return false;
            }
        }
        return true;
    }

    /** The window wants to close. @return false the first time while a run is hot */
    public boolean mayClose() {
        Optional<RunPage> hot = live.filter(RunPage::going);
        if (hot.isPresent() && !warned) {
            warned = true;
            show(hot.get(), "", Optional.of(hot.get().plan().bead()));
            hot.get().warnLeaving();
            return false;
        }
        return true;
    }

    /** Closes what lies on the bench; a run that goes on stays open in the ledger. */
    public void close() {
        waits.close();
        live.ifPresent(Page::dispose);
        page.filter(p -> live.filter(l -> l == p).isEmpty()).ifPresent(Page::dispose);
        live = Optional.empty();
        page = Optional.empty();
    }

    // For the walk through the demo.

    public Optional<RunState> runState() {
        return live.flatMap(RunPage::state);
    }
}
