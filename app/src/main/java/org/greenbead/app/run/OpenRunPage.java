package org.greenbead.app.run;

import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.run.RunEngine;
import org.greenbead.core.run.RunEvent;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.run.Say;
import org.greenbead.core.run.Verdict;
import org.greenbead.store.RunEntry;
import org.greenbead.store.RunLog;
import org.greenbead.store.RunLogWriter;

/** A run that the program left in the middle: shown as it was, to be taken up again or closed. */
public final class OpenRunPage extends Page {
    private final Desk desk;
    private final RunEntry entry;
    private final RunLog log;
    private final RunPlan plan;
    private final Runnable closed;
    private final VBox page;

    /**
     * @param history made by playing the log, off the FX thread
     * @param resume  told to go on with the run
     * @param closed  told when it was closed as broken off
     */
    private OpenRunPage(Desk desk, RunEntry entry, RunLog log, RunPlan plan, RunHistory history,
            BiConsumer<RunEntry, RunLog> resume, Runnable closed) {
        this.desk = desk;
        this.entry = entry;
        this.log = log;
        this.plan = plan;
        this.closed = closed;
        Texts texts = desk.texts();
        RunState state = history.get(history.size() - 1);
        var head = Looks.as(new VBox(3, Looks.label(texts.get("open.caps"), "caps"),
                Looks.label(texts.get("open.title", entry.jobId(), entry.recipe()), "now"),
                Looks.label(texts.get("open.where", Words.clock(state.timeS()),
                        plan.recipe().stages().get(state.stage()).name(), texts.temp(state.joint().celsius()),
                        texts.rise(state.joint().plusMinusK()),
                        log.events().stream().filter(RunEvent.Sampled.class::isInstance).count()), "next"),
                Looks.label(texts.get("open.hot"), "caution")), "instruction");
        head.setId("open-run");
        var dials = new Dials();
        dials.compact(Looks.compact(desk.settings().textPercent().get()));
        dials.show(plan, state, history, history.size(), Optional.empty(), texts);
        VBox.setVgrow(dials, Priority.ALWAYS);
        page = Looks.as(new VBox(head, dials), "page");
        pedal(new Pedal(texts.get("open.resume"), texts.get("open.resume.so"), true,
                () -> resume.accept(entry, log)));
        backWord(texts.get("open.close"));
        clock(Words.clock(state.timeS()));
        findings(state.findings().stream().map(Finding::past).toList());
    }

    /** Reads and plays the log, then shows the page. A log that cannot be read is told and its run closed. */
    public static void offer(Desk desk, RunEntry entry, BiConsumer<RunEntry, RunLog> resume, Runnable closed,
            java.util.function.Consumer<Page> show) {
        desk.io(() -> {
            RunLog log = RunLog.read(desk.ledger().logFile(entry), desk.files());
            var history = new RunHistory();
            RunEngine engine = log.replay(Optional.empty(), history::add);
            if (history.size() == 0) {
                history.add(engine.state());
            }
            return new Read(log, history, engine.plan());
        }, read -> show.accept(
                new OpenRunPage(desk, entry, read.log(), read.plan(), read.history(), resume, closed)),
                error -> {
                    desk.trouble(desk.texts().get("ledger.bad", error.getMessage()));
                    desk.io(() -> {
                        desk.ledger().endRun(entry.id(), desk.clock().instant(),
                                new Verdict(Verdict.Outcome.BROKEN_OFF, java.util.List.of(), Double.NaN, 0,
                                        Double.NaN, 0,
                                        org.greenbead.core.run.MeltProof.NONE, false, java.util.List.of()));
                        return entry;
                    }, done -> closed.run());
                });
    }

    private record Read(RunLog log, RunHistory history, RunPlan plan) {}

    @Override
    public Region node() {
        return page;
    }

    /** Writes the break-off into the log, so that a replay ends as the ledger says. */
    @Override
    public void back() {
        desk.io(() -> {
            RunEngine engine = log.replay(Optional.empty(), s -> {
            });
            var stop = new RunEvent.Said(log.lengthS(), Say.STOP, "closed after the program was away");
            try (RunLogWriter writer = RunLogWriter.resume(desk.ledger().logFile(entry), desk.files(),
                    desk.clock())) {
                writer.append(new RunEvent.Resumed(log.lengthS(), 0));
                writer.append(stop);
            }
            engine.apply(stop);
            desk.ledger().endRun(entry.id(), desk.clock().instant(), engine.verdict());
            return plan;
        }, done -> closed.run());
    }
}
