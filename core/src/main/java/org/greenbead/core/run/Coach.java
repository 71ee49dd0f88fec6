package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.recipe.Placing;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.recipe.StageEnd;

/** Says what to do now, what comes next, and what the pedal means. */
final class Coach {
    /** Under this it may be touched, powered or wetted with solvent, °C; a judgement of the trade. */
    private static final double TOUCH_C = 40;
    /** So long the new settings stay on the screen before the eyes are asked for, s. */
    private static final double SETTING_S = 8;

    Coaching say(RunView run, boolean started) {
        return run.forming().flatMap(f -> BallCoach.say(run, f, started))
                .orElseGet(() -> any(run, started));
    }

    /** Where heater and nozzle stand is said before there is heat, where it is not the usual. */
    private static Phrase place(RunView run) {
        Placing placing = run.plan().recipe().placing();
        return placing.centred()
                ? Phrase.of("coach.ready.next", new Quantity.Name(run.stage().name()))
                : placing.says(run.plan().target().name());
    }

    /** Which of several stations is meant is said before any of its numbers. */
    private static Phrase ready(RunView run) {
        Quantity[] settings = settings(run);
        if (run.plan().bench().stations().size() == 1) {
            return Phrase.of("coach.ready", settings);
        }
        Quantity[] more = Arrays.copyOf(settings, settings.length + 1);
        more[settings.length] = new Quantity.Name(run.plan().bench().air().name());
        return Phrase.of("coach.ready.station", more);
    }

    private Coaching any(RunView run, boolean started) {
        if (!started) {
            return new Coaching(ready(run),
                    place(run),
                    Optional.empty(), Phrase.of("pedal.start"), Phrase.of("pedal.start.so"),
                    Optional.of(Phrase.of("caution.hot")));
        }
        return switch (run.status()) {
            case READY, HEATING -> heating(run);
            case MOLTEN -> molten(run);
            case COOLING -> cooling(run);
            case SAFE -> new Coaching(Phrase.of(run.forming().isPresent() ? "coach.form.safe" : "coach.safe"),
                    touch(run),
                    Optional.of(Say.FINISH), Phrase.of("pedal.finish"),
                    Phrase.of("pedal.finish.so"), Optional.of(Phrase.of("caution.still_hot")));
            case ENDED -> new Coaching(Phrase.of("coach.ended"), Phrase.of("coach.ended.next"),
                    Optional.empty(), Phrase.of("pedal.none"),
                    Phrase.of("pedal.none.so"), Optional.empty());
        };
    }

    /** How long until bare hands, power or solvent may touch it: free cooling, its time constant read off the last half minute. */
    private static Phrase touch(RunView run) {
        double room = run.plan().bench().ambientC();
        double slope = run.jointTrace().isEmpty()
                ? Double.NaN
                : run.jointTrace().slope(run.timeS() - 30, run.timeS());
        double now = run.jointTrace().isEmpty() ? Double.NaN : run.jointTrace().last();
        if (!(slope < -0.02) || !(now > TOUCH_C) || room >= TOUCH_C) {
            return Phrase.of("coach.safe.next", new Quantity.TempC(TOUCH_C));
        }
        double tauS = (now - room) / -slope;
        return Phrase.of("coach.safe.next.in", new Quantity.TempC(TOUCH_C),
                new Quantity.Seconds(CoolDown.secondsTo(now, TOUCH_C, room, tauS)));
    }

    private static Coaching heating(RunView run) {
        Stage stage = run.stage();
        if (stage.purpose() == Stage.Purpose.PEAK) {
            double goal = stage.jointGoalC().orElse(run.plan().target().joint().alloy().liquidusC()
                    + run.plan().recipe().limits().overLiquidusK());
            double liquidus = run.plan().target().joint().alloy().liquidusC();
            // The lower bound decides: what may be liquid is not liquid yet.
            boolean molten = run.joint().lowC() >= liquidus;
            Phrase now = Phrase.of(
                    molten && run.joint().celsius() >= goal ? "coach.peak.nudge" : "coach.peak",
                    settings(run));
            String task = run.plan().word();
            if (run.byEye() && run.forming().isEmpty() && !run.melt().eye() && !molten) {
                return watching(run, stage);
            }
            Phrase next = !run.looked()
                    ? Phrase.of("coach.peak.next.wait", new Quantity.TempC(goal))
                    : run.meltsInS().isPresent()
                            ? Phrase.of("coach.peak.next", new Quantity.TempC(goal),
                                    new Quantity.Seconds(run.meltsInS().getAsDouble()))
                            : Phrase.of(
                                    run.joint().celsius() < liquidus
                                            ? "coach.peak.next.never"
                                            : molten ? "coach.peak.next.now" : "coach.peak.next.nearly",
                                    new Quantity.TempC(goal), new Quantity.RiseK(run.joint().plusMinusK()));
            return new Coaching(now, next, Optional.of(Say.MOVES), Phrase.of("pedal.moves." + task),
                    Phrase.of("pedal.moves.so", new Quantity.Seconds(run.timeS())),
                    Optional.of(Phrase.of("caution.fumes")));
        }
        String work = run.forming().isEmpty() ? "coach." : "coach.form." + BallCoach.place(run.plan());
        Phrase now = Phrase.of(work + stage.purpose().name().toLowerCase(Locale.ROOT), settings(run));
        return new Coaching(now, waitingFor(run), Optional.of(Say.GO_ON),
                Phrase.of("pedal.go_on", new Quantity.Name(nextName(run))),
                Phrase.of("pedal.go_on.so"), Optional.of(Phrase.of("caution.hot")));
    }

    /** Without a thermocouple the coach asks for the one sight that tells most by now, and says what it will tell. */
    private static Coaching watching(RunView run, Stage stage) {
        double solidus = run.plan().target().joint().alloy().solidusC();
        double across = Math.max(0, run.jointHot().celsius() - run.joint().celsius());
        boolean near = run.jointHot().highC() >= solidus;
        Sight sight = near ? Sight.CORNER_SHINES : Sight.FLUX_SHIMMERS;
        String key = near ? "ball" : "flux";
        Phrase next = near
                ? Phrase.of("coach.eye.wait.soon")
                : run.meltsInS().isPresent()
                        ? Phrase.of("coach.eye.wait", new Quantity.Seconds(run.meltsInS().getAsDouble()),
                                new Quantity.RiseK(run.joint().plusMinusK()))
                        : Phrase.of("coach.peak.next.wait",
                                new Quantity.TempC(run.plan().target().joint().alloy().liquidusC()));
        return new Coaching(
                run.stageS() < SETTING_S
                        ? Phrase.of("coach.peak", settings(run))
                        : Phrase.of("coach.eye." + key),
                next, Optional.empty(), Optional.empty(), Optional.of(sight), Phrase.of("pedal.eye." + key),
                Phrase.of("coach.eye." + key + ".so", new Quantity.RiseK(run.joint().plusMinusK()),
                        new Quantity.RiseK(
                                sight.leavesK(run.joint(), run.heat().rampKPerS(), across))),
                Optional.of(Phrase.of("caution.fumes")));
    }

    private static String nextName(RunView run) {
        List<Stage> stages = run.plan().recipe().stages();
        return run.stageIndex() + 1 < stages.size()
                ? stages.get(run.stageIndex() + 1).name()
                : run.stage().name();
    }

    private static Phrase waitingFor(RunView run) {
        var next = new Quantity.Name(nextName(run));
        return switch (run.stage().end()) {
            case StageEnd.AfterTime t -> Phrase.of("coach.until.time", next,
                    new Quantity.Seconds(Math.max(0, t.seconds() - run.stageS())));
            case StageEnd.ProbeReaches p -> {
                ProbeWatch probe = run.probes().get(p.probe());
                if (probe == null && run.byEye()) {
                    yield Phrase.of("coach.eye.until.twin", next, new Quantity.TempC(p.celsius()),
                            new Quantity.TempC(run.boardC()));
                }
                if (probe == null || !probe.good()) {
                    yield Phrase.of("coach.until.probe.lost", next, new Quantity.Name(p.probe()));
                }
                yield Double.isNaN(run.reachedSinceS())
                        ? Phrase.of("coach.until.probe", next, new Quantity.Name(p.probe()),
                                new Quantity.TempC(p.celsius()),
                                new Quantity.RiseK(Math.max(0, p.celsius() - probe.trace().last())))
                        : Phrase.of("coach.until.hold", next, new Quantity.Seconds(
                                Math.max(0, p.holdS() - (run.timeS() - run.reachedSinceS()))));
            }
            case StageEnd.TechnicianSays t -> Phrase.of("coach.until.word", next);
            case StageEnd.MeltShown m -> Phrase.of("coach.until.melt", next);
            case StageEnd.SafeToMove s -> Phrase.of("coach.until.safe", next);
        };
    }

    private static Coaching molten(RunView run) {
        String task = run.plan().word();
        return new Coaching(Phrase.of("coach.molten." + task, new Quantity.Name(run.plan().target().name())),
                Phrase.of("coach.molten.next." + task),
                Optional.of(Say.HEAT_OFF), Phrase.of("pedal.heat_off." + task),
                Phrase.of("pedal.heat_off.so"), Optional.of(Phrase.of("caution.molten")));
    }

    private static Coaching cooling(RunView run) {
        Phrase next = run.safeInS().isPresent()
                ? Phrase.of("coach.cool.next", new Quantity.Seconds(run.safeInS().getAsDouble()),
                        new Quantity.TempC(run.movingC()))
                : Phrase.of("coach.cool.wait", new Quantity.TempC(run.movingC()));
        return new Coaching(Phrase.of("coach.cool"), next, Optional.empty(), Phrase.of("pedal.hands_off"),
                run.safeInS().isPresent()
                        ? Phrase.of("pedal.hands_off.so", new Quantity.Seconds(run.safeInS().getAsDouble()))
                        : Phrase.of("pedal.hands_off.wait"),
                Optional.of(Phrase.of("caution.hands_off")));
    }

    /** Heater, air, flow, nozzle, distance, circle: the gaps of every stage's sentence, with a word where one is off. */
    private static Quantity[] settings(RunView run) {
        Stage stage = run.stage();
        var gaps = new ArrayList<Quantity>();
        gaps.add(stage.heaterC().<Quantity>map(Quantity.TempC::new).orElse(new Quantity.Word("word.off")));
        if (stage.air().isPresent()) {
            AirSetting air = stage.air().get();
            gaps.add(new Quantity.TempC(air.setC()));
            gaps.add(run.plan().bench().air().dial().says(air.flowLpm()));
            gaps.add(new Quantity.Millimetres(air.nozzleMm()));
            gaps.add(new Quantity.Millimetres(air.distanceMm()));
            gaps.add(new Quantity.Word(air.circleMm() > 0 ? "word.circles" : "word.still"));
        } else {
            for (int i = 0; i < 5; i++) {
                gaps.add(new Quantity.Word("word.off"));
            }
        }
        return gaps.toArray(Quantity[]::new);
    }
}
