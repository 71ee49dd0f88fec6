package org.greenbead.app.run;

import java.util.Optional;
import java.util.function.BiConsumer;
import javafx.scene.control.Label;
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
    private final Runnable closed;
    private final BiConsumer<RunEntry, RunLog> resume;
    private final Label where = Looks.label("", "next");
    private final Dials dials = new Dials();
    private final VBox page;
    private RunPlan plan;

    /**
     * @param resume told to go on with the run
     * @param closed told when it was closed as broken off
     */
    private OpenRunPage(Desk desk, RunEntry entry, RunLog log, BiConsumer<RunEntry, RunLog> resume,
            Runnable closed) {
        this.desk = desk;
        this.entry = entry;
        this.log = log;
        this.plan = log.header().plan();
        this.closed = closed;
        this.resume = resume;
        Texts texts = desk.texts();
        where.setText(log.lastKnown()
                .map(k -> texts.get("open.where", Words.clock(k.timeS()),
                        plan.recipe().stages().get(k.stage()).name(), texts.temp(k.jointC()),
                        texts.rise((k.highC() - k.lowC()) / 2), samples()))
                .orElse(texts.get("run.taking.unknown", away())));
        var head = Looks.as(new VBox(3, Looks.label(texts.get("open.caps"), "caps"),
                Looks.label(texts.get("open.title", entry.jobId(), entry.recipe()), "now"), where,
                Looks.label(texts.get("open.hot"), "caution")), "instruction");
        head.setId("open-run");
        dials.compact(Looks.compact(desk.settings().textPercent().get()));
        dials.setVisible(false);
        VBox.setVgrow(dials, Priority.ALWAYS);
        page = Looks.as(new VBox(head, dials), "page");
        pedal(new Pedal(texts.get("open.resume"), texts.get("open.resume.so"), true,
                () -> resume.accept(entry, log)));
        backWord(texts.get("open.close"));
        clock(Words.clock(log.lengthS()));
        desk.background(() -> {
            var history = new RunHistory();
            RunEngine engine = log.replay(Optional.empty(), history::add);
            if (history.size() == 0) {
                history.add(engine.state());
            }
            return new Played(history, engine.plan());
        }, this::played);
    }

    private record Played(RunHistory history, RunPlan plan) {}

    private String away() {
        return Words.clock(Math.max(0, java.time.Duration.between(entry.startedAt(), desk.clock().instant())
                .toMillis() / 1000.0 - log.lengthS()));
    }

    private long samples() {
        return log.events().stream().filter(RunEvent.Sampled.class::isInstance).count();
    }

    /** The past has been played through: the whole picture stands under the last known heat. */
    private void played(Played past) {
        Texts texts = desk.texts();
        RunState state = past.history().get(past.history().size() - 1);
        plan = past.plan();
        where.setText(texts.get("open.where", Words.clock(state.timeS()),
                plan.recipe().stages().get(state.stage()).name(), texts.temp(state.joint().celsius()),
                texts.rise(state.joint().plusMinusK()), samples()));
        dials.show(plan, state, past.history(), past.history().size(), Optional.empty(), texts);
        dials.setVisible(true);
        findings(state.findings().stream().map(Finding::past).toList());
        if (state.status() == RunState.Status.ENDED) {
            pedal(new Pedal(texts.get("open.over"), texts.get("open.over.so"), true,
                    () -> resume.accept(entry, log)));
        }
    }

    /** Reads the log, then shows the page with what was last known. A log that cannot be read is told and its run closed. */
    public static void offer(Desk desk, RunEntry entry, Optional<RunLog> read,
            BiConsumer<RunEntry, RunLog> resume, Runnable closed, java.util.function.Consumer<Page> show) {
        if (read.isPresent()) {
            show.accept(new OpenRunPage(desk, entry, read.get(), resume, closed));
            return;
        }
        desk.io(() -> RunLog.read(desk.ledger().logFile(entry), desk.files()),
                log -> show.accept(new OpenRunPage(desk, entry, log, resume, closed)), error -> {
                    desk.trouble(desk.texts().get("ledger.bad", error.getMessage()));
                    desk.io(() -> {
                        desk.ledger().endRun(entry.id(), desk.clock().instant(),
                                new Verdict(Verdict.Outcome.BROKEN_OFF, java.util.List.of(), Double.NaN, 0,
                                        Double.NaN, 0, org.greenbead.core.run.MeltProof.NONE, false,
                                        java.util.List.of()));
                        return entry;
                    }, done -> closed.run());
                });
    }

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
