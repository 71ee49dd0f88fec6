package org.greenbead.app.main;

import java.time.Instant;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.util.Duration;
import org.greenbead.app.shell.Cues;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.quantity.Minutes;
import org.greenbead.core.route.Job;
import org.greenbead.core.timer.JobTimer;

/** Waits of all jobs on the bench: they tick in the tray whatever page is open, and ring until somebody ends them. Touched on the FX thread only. */
final class Waits {
    private static final double BEAT_MS = 500;
    /** A ring that nobody answers comes again. */
    private static final int AGAIN_S = 30;
    private final Desk desk;
    private final Consumer<List<BenchTray.Wait>> show;
    private final Map<String, List<JobTimer>> byJob = new HashMap<>();
    private final Map<String, List<JobTimer>> ended = new HashMap<>();
    private final Map<JobTimer, Instant> rang = new HashMap<>();
    /** The last turn of a soak that was said. */
    private final Map<JobTimer, JobTimer.Turn> turned = new HashMap<>();
    private final Timeline beat = new Timeline();

    Waits(Desk desk, Consumer<List<BenchTray.Wait>> show) {
        this.desk = desk;
        this.show = show;
        beat.getKeyFrames().setAll(new KeyFrame(Duration.millis(BEAT_MS), tick -> beat()));
        beat.setCycleCount(Timeline.INDEFINITE);
    }

    /** A job in its present form. */
    void take(Job job) {
        take(List.of(job));
    }

    /** All at once: the tray is drawn when the last is known. */
    void take(List<Job> jobs) {
        for (Job job : jobs) {
            List<JobTimer> all = JobTimer.of(job);
            byJob.put(job.id(), all.stream().filter(JobTimer::running).toList());
            ended.put(job.id(), all.stream().filter(t -> !t.running()).toList());
        }
        changed();
    }

    void forget(String job) {
        byJob.remove(job);
        ended.remove(job);
        changed();
    }

    /** The one that rings first in front. */
    List<JobTimer> running() {
        return byJob.values().stream().flatMap(List::stream).sorted(Comparator.comparing(JobTimer::due))
                .toList();
    }

    /** What has ended, the latest in front. */
    List<JobTimer> over() {
        return ended.values().stream().flatMap(List::stream)
                .sorted(Comparator.comparing((JobTimer t) -> t.ended().orElseThrow()).reversed()).toList();
    }

    private void changed() {
        List<JobTimer> now = running();
        rang.keySet().retainAll(now);
        turned.keySet().retainAll(now);
        if (now.isEmpty()) {
            beat.stop();
            show.accept(List.of());
        } else {
            beat.play();
            beat();
        }
    }

    private void beat() {
        Instant now = desk.clock().instant();
        Texts texts = desk.texts();
        show.accept(running().stream().map(t -> {
            String kind = texts.say("timer.short." + t.kind().word());
            boolean rings = t.rings(now);
            String left = t.turn(now)
                    .map(turn -> turn.warm()
                            ? texts.get("tray.warm", Minutes.say(turn.leftS()))
                            : texts.get("tray.cool", Minutes.say(turn.leftS())))
                    .orElseGet(() -> Minutes.say(Math.abs(t.leftS(now))));
            return new BenchTray.Wait(t.job() + "/" + t.record(), rings ? texts.get("tray.rang", left) : left,
                    texts.get("tray.wait", t.job(), kind), rings);
        }).toList());
        for (JobTimer t : running()) {
            t.turn(now).ifPresent(turn -> turns(t, turn));
            if (t.rings(now) && !now.isBefore(rang.getOrDefault(t, Instant.MIN).plusSeconds(AGAIN_S))) {
                rang.put(t, now);
                desk.cues().play(Cues.Cue.TWO_TONE);
                desk.say(texts.get("timers.say", texts.say("timer." + t.kind().word()), t.job()));
            }
        }
    }

    /** A soak goes from warm to cool or back: somebody has to do it. Its first warming was just begun by hand. */
    private void turns(JobTimer t, JobTimer.Turn turn) {
        JobTimer.Turn before = turned.put(t, turn);
        if (before == null || before.cycle() == turn.cycle() && before.warm() == turn.warm()) {
            return;
        }
        Texts texts = desk.texts();
        desk.cues().play(Cues.Cue.TWO_TONE);
        desk.say(turn.warm()
                ? texts.get("timers.say.warm", t.job(), turn.cycle(), t.cycles())
                : texts.get("timers.say.cool", t.job(), turn.cycle(), t.cycles()));
    }

    void close() {
        beat.stop();
    }
}
