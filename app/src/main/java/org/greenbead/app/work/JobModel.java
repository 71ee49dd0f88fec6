package org.greenbead.app.work;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.greenbead.app.shell.Desk;
import org.greenbead.core.account.Account;
import org.greenbead.core.account.Around;
import org.greenbead.core.account.Gates;
import org.greenbead.core.account.Judgement;
import org.greenbead.core.board.Board;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.NotKnown;
import org.greenbead.core.book.Noticed;
import org.greenbead.core.book.RuleBook;
import org.greenbead.core.chip.LookAlikes;
import org.greenbead.core.chip.StockChip;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.recipe.Recipe;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Attest;
import org.greenbead.core.route.Bead;
import org.greenbead.core.route.BeadState;
import org.greenbead.core.route.Job;
import org.greenbead.core.route.Strands;
import org.greenbead.core.run.AfterRun;
import org.greenbead.core.run.PlanRules;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.Verdict;
import org.greenbead.core.work.AsBefore;
import org.greenbead.store.Format;

/** One job on the bench with the plan of its next run, rehearsed and judged. Touched on the FX thread only. */
public final class JobModel {
    private final Desk desk;
    private final ReadOnlyObjectWrapper<Job> job;
    private final ReadOnlyObjectWrapper<Optional<RunPlan>> plan = new ReadOnlyObjectWrapper<>(
            Optional.empty());
    private final ReadOnlyObjectWrapper<Optional<RunPlan>> onBoard = new ReadOnlyObjectWrapper<>(
            Optional.empty());
    private Optional<RunPlan> rehearsed = Optional.empty();
    private final ReadOnlyObjectWrapper<Optional<Rehearsal>> rehearsal = new ReadOnlyObjectWrapper<>(
            Optional.empty());
    private final ReadOnlyObjectWrapper<List<Finding>> findings = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyBooleanWrapper thinking = new ReadOnlyBooleanWrapper();
    private final ReadOnlyObjectWrapper<Judgement> judged = new ReadOnlyObjectWrapper<>(Judgement.NONE);
    private Optional<Around> around = Optional.empty();
    private final AtomicInteger turn = new AtomicInteger();
    private int bookTurn;
    private boolean inHand;

    /** Rehearsed only once it is taken in hand: until then its plan is judged as it is written. */
    public JobModel(Desk desk, Job job) {
        this.desk = desk;
        this.job = new ReadOnlyObjectWrapper<>(job);
        replan();
    }

    public ReadOnlyObjectProperty<Job> jobProperty() {
        return job.getReadOnlyProperty();
    }

    public Job job() {
        return job.get();
    }

    /** The plan of the next run of this job; empty when all are done. */
    public ReadOnlyObjectProperty<Optional<RunPlan>> planProperty() {
        return plan.getReadOnlyProperty();
    }

    /** The same on the job's own board: while balls are made on the loose chip, with the next heat there. */
    public ReadOnlyObjectProperty<Optional<RunPlan>> onBoardProperty() {
        return onBoard.getReadOnlyProperty();
    }

    public ReadOnlyObjectProperty<Optional<Rehearsal>> rehearsalProperty() {
        return rehearsal.getReadOnlyProperty();
    }

    public ReadOnlyObjectProperty<List<Finding>> findingsProperty() {
        return findings.getReadOnlyProperty();
    }

    public ReadOnlyBooleanProperty thinkingProperty() {
        return thinking.getReadOnlyProperty();
    }

    /** The bead whose run comes next. */
    public Optional<Bead> nextRun() {
        return nextRun(job());
    }

    /** The same of a job that nobody looks at. */
    public static Optional<Bead> nextRun(Job job) {
        return job.beads().stream().filter(b -> b.kind() == Bead.Kind.RUN && !b.worked()).findFirst();
    }

    /** Somebody works on it now: its next heat is rehearsed. */
    public void takeInHand() {
        if (!inHand) {
            inHand = true;
            replan();
        }
    }

    /** Reads plan and recipe anew, rehearses and judges them. */
    public void replan() {
        int mine = turn.incrementAndGet();
        Optional<Bead> next = nextRun();
        Job now = job();
        if (next.isEmpty()) {
            plan.set(Optional.empty());
            rehearsal.set(Optional.empty());
            findings.set(List.of());
            askBook();
            // No heat comes any more; what is known of the board, and of the other chips, still counts.
            desk.io(() -> {
                RunPlan there = desk.ledger().onBoard(now);
                return new Read(there, there, around(there));
            }, read -> {
                if (mine == turn.get()) {
                    onBoard.set(Optional.of(read.onBoard()));
                    around = Optional.of(read.around());
                    askBook();
                }
            });
            return;
        }
        thinking.set(inHand);
        askBook();
        desk.io(() -> {
            RunPlan comes = desk.ledger().plan(now, next.get().id());
            RunPlan there = desk.ledger().onBoard(now, comes);
            return new Read(comes, there, around(there));
        }, both -> {
            RunPlan read = both.next();
            if (mine == turn.get()) {
                onBoard.set(Optional.of(both.onBoard()));
                around = Optional.of(both.around());
                // Of another board, bench or recipe it says nothing of this one.
                if (rehearsed.filter(r -> r.with(now).equals(read.with(now))).isEmpty()) {
                    rehearsal.set(Optional.empty());
                }
                plan.set(Optional.of(read));
                if (!inHand) {
                    judge();
                    return;
                }
                desk.compute(() -> Rehearsal.of(read, () -> mine != turn.get()), made -> {
                    if (mine == turn.get()) {
                        rehearsed = Optional.of(read);
                        rehearsal.set(Optional.of(made));
                        thinking.set(false);
                        judge();
                    }
                });
            }
        });
    }

    private record Read(RunPlan next, RunPlan onBoard, Around around) {}

    /** What the ledger says beside the job; read on the ledger's thread. */
    private Around around(RunPlan there) {
        return Around.of(there.job(), there.target().part(), desk.ledger().jobs(), desk.ledger().chips(),
                desk.ledger().practice(Optional.of(there), desk.demo()));
    }

    private void judge() {
        plan.get().ifPresent(p -> {
            RunPlan current = p.with(job());
            plan.set(Optional.of(current));
            findings.set(PlanRules.look(current, rehearsal.get()));
        });
        askBook();
    }

    /** Lets the rule book look at the whole job anew. */
    public void askBook() {
        int mine = ++bookTurn;
        Job now = job();
        Optional<RunPlan> with = onBoard.get();
        Optional<Around> beside = around;
        RuleBook.Settings limits = desk.limits();
        Optional<Rehearsal> heat = Judgement.heat(now, with)
                .filter(p -> rehearsed.filter(r -> r.with(now).equals(p.with(now))).isPresent())
                .flatMap(p -> rehearsal.get());
        desk.compute(() -> Judgement.of(now, with, beside, heat, desk.book(), limits), found -> {
            if (mine == bookTurn) {
                judged.set(found);
                Job settled = Gates.settle(job(), found.look());
                if (!settled.equals(job())) {
                    settled = accounted(settled);
                    job.set(settled);
                    save(settled, "gate opened", "");
                }
            }
        });
    }

    /** Whether the book has looked at the job at all; before that nothing is known to be free. */
    public boolean looked() {
        return judged.get() != Judgement.NONE;
    }

    /** What the rule book says of the whole job. */
    public ReadOnlyObjectProperty<Judgement> judgedProperty() {
        return judged.getReadOnlyProperty();
    }

    /** What holds a heat of this strand in the job it belongs to. */
    public Optional<Strands.Held> heldByItsJob(String beadId) {
        return Strands.held(job(), beadId, around.map(Around::family).orElse(List.of()));
    }

    /** The stops of the rule book that hold a bead. */
    public List<Noticed> holding(String beadId) {
        return Gates.holding(job(), beadId, judged.get().judged());
    }

    /** What is not known and holds a bead until somebody finds it out. */
    public List<NotKnown> unknown(String beadId) {
        return Gates.unknown(job(), beadId, judged.get().notKnown());
    }

    /** What a gate still asks to be shown. */
    public List<Gates.Demand> missing(String beadId) {
        return Gates.missing(job(), beadId, judged.get().look().evidence().facts());
    }

    /** What a bead asks for and is not on record, whether it was passed or not. */
    public List<Gates.Demand> unshown(String beadId) {
        return Gates.unshown(beadId, judged.get().look().evidence().facts());
    }

    /** The worst stop that holds the next run; empty when it may start. */
    public Optional<Finding> stop() {
        return findings.get().stream().filter(f -> f.severity() == Severity.STOP).findFirst();
    }

    /** Writes a person's word on a check. */
    public void attest(String check, Attest word) {
        keep(Gates.attest(job(), check, word, judged.get().look()), "attested",
                check + " " + word.name().toLowerCase(Locale.ROOT));
        judge();
    }

    /** Keeps what has been noted of the job; its plan follows. */
    public void note(Facts noted) {
        keep(job().with(noted), "noted", "facts");
        judge();
    }

    /** Keeps a record, new or changed. */
    public void note(Kept record) {
        keep(job().with(record), "noted", record.id());
        judge();
    }

    /** Keeps records that say the same as another job's. @param source that job's number */
    public void asIn(String source, List<Kept> records) {
        keep(AsBefore.written(job(), records), "noted", "as in " + source);
        judge();
    }

    /** Where records of these types were written down before, for what this job shares with others; told when the ledger has been asked. */
    public void before(List<String> types, Consumer<Map<String, AsBefore.Source>> told) {
        Job now = job();
        desk.io(() -> {
            List<Job> all = desk.ledger().jobs();
            return types.stream().flatMap(t -> AsBefore.of(now, t, all).stream())
                    .collect(Collectors.toMap(AsBefore.Source::type, s -> s));
        }, told);
    }

    /** Another form of the job: a way of working, a step left out. */
    public void change(Job changed, String kind, String detail) {
        keep(changed, kind, detail);
        replan();
    }

    private void back(Job was) {
        Job earlier = accounted(was);
        job.set(earlier);
        save(earlier, "taken back", "");
        replan();
    }

    /** A line of history that changes nothing of the job. */
    public void said(String kind, String detail) {
        save(job(), kind, detail);
    }

    /** The first bead of this job where a type of record is asked for. */
    public Optional<String> beadFor(String type) {
        List<String> beads = org.greenbead.core.record.RecordTypes.shipped().require(type).beads();
        return job().beads().stream().map(Bead::id).filter(beads::contains).findFirst();
    }

    /** A record of this job that does not exist yet. */
    public Kept fresh(String type) {
        return new Kept(job().freeId(type), type, desk.clock().instant(), desk.settings().technician().get(),
                java.util.Map.of());
    }

    /** The board was changed: plan and findings follow. */
    public void boardChanged() {
        replan();
    }

    /** A recipe bead is worked once its recipe was kept; green when nothing stops it. */
    public void recipeKept(Recipe recipe) {
        Job now = job();
        Job changed = now.beads().stream()
                .filter(b -> b.kind() == Bead.Kind.RECIPE && b.recipe().equals(Optional.of(recipe.id()))
                        && !b.worked())
                .findFirst()
                .map(b -> accounted(now.with(b.id(), BeadState.GREEN))).orElse(now);
        job.set(changed);
        desk.io(() -> {
            desk.ledger().save(recipe);
            desk.ledger().save(changed, "recipe kept", recipe.id());
            return recipe;
        }, kept -> replan());
    }

    /** Another form of the recipe in hand, which is not yet approved by that. */
    public void reshape(Recipe recipe) {
        desk.io(() -> {
            desk.ledger().save(recipe);
            return recipe;
        }, kept -> replan());
    }

    /** What one key in Watch can do to a plan. @return false when it asks for the recipe page */
    public boolean remedy(Finding finding) {
        if (finding.remedy().isEmpty() || plan.get().isEmpty()) {
            return true;
        }
        Recipe recipe = plan.get().get().recipe();
        switch (finding.remedy().get()) {
            case Remedy.Attest a -> attest(a.check(), Attest.YES);
            case Remedy.SetHeater h -> change(recipe, h.stage(),
                    recipe.stages().get(h.stage()).withHeater(Optional.of(h.celsius())));
            case Remedy.SetAir a ->
                change(recipe, a.stage(), recipe.stages().get(a.stage()).withAir(Optional.of(a.air())));
            case Remedy.SetEnd e ->
                change(recipe, e.stage(), recipe.stages().get(e.stage()).withEnd(e.end()));
            case Remedy.Tell t -> {
                // Only while a run is on.
            }
            case Remedy.OpenRecipe o -> {
                return false;
            }
        }
        return true;
    }

    private void change(Recipe recipe, int index, Stage stage) {
        recipeKept(recipe.with(index, stage));
    }

    /** A run of this job is over: bead, chip and history follow. */
    public void runOver(RunPlan ran, List<RunEvent> events, Verdict verdict, boolean simulated) {
        if (ran.task() == RunPlan.Task.CALIBRATE) {
            keep(job(), "calibration run over", verdict.outcome().name().toLowerCase(Locale.ROOT));
            return;
        }
        Job changed = accounted(AfterRun.over(job(), ran, events, verdict, desk.clock().instant(),
                desk.settings().technician().get(), simulated));
        desk.changes().forget();
        job.set(changed);
        desk.io(() -> {
            if (verdict.targetMelted()) {
                // The board of the ledger is a type; what this unit went through stands in its job.
                chipHeated(ran, verdict);
            }
            desk.ledger().save(changed, "run over",
                    ran.bead() + " " + verdict.outcome().name().toLowerCase(Locale.ROOT));
            return changed;
        }, done -> replan());
    }

    /** The heat of a bead that was not proven is taken in hand once more. */
    public void onceMore(String beadId) {
        keep(job().with(beadId, BeadState.OPEN), "heat once more", beadId);
        replan();
    }

    /** The chip's own life, where the ledger knows it by its label. */
    private void chipHeated(RunPlan ran, Verdict verdict) throws org.greenbead.store.BadFileException {
        Optional<StockChip> chip = LookAlikes.wanted(ran.job().id(), ran.target().part(),
                desk.ledger().chips());
        chip.ifPresent(c -> desk.ledger().save(c.heated(1, verdict.lengthS() / 60, desk.clock().instant(),
                ran.job().id() + " " + ran.bead())));
    }

    /** Written on from the job as it stands: taking back is a line of the account like any other. */
    private Job accounted(Job changed) {
        return Account.noted(Optional.of(job()), changed, desk.clock().instant(),
                desk.settings().technician().get());
    }

    private void keep(Job other, String kind, String detail) {
        Job changed = accounted(other);
        Job was = job();
        desk.changes().made(this, was.id(), () -> back(was));
        job.set(changed);
        save(changed, kind, detail);
    }

    private void save(Job changed, String kind, String detail) {
        desk.io(() -> {
            desk.ledger().save(changed, kind, detail);
            return changed;
        }, done -> {
        });
    }
}
