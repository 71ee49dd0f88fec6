package org.greenbead.core.run;

import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.finding.Finding;
import org.greenbead.core.finding.Rule;
import org.greenbead.core.finding.Severity;
import org.greenbead.core.forming.Act;
import org.greenbead.core.forming.Forming;
import org.greenbead.core.forming.Judged;
import org.greenbead.core.forming.Method;
import org.greenbead.core.forming.ReleaseWarm;
import org.greenbead.core.forming.Stand;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.AirSetting;
import org.greenbead.core.route.Attest;
import org.greenbead.core.thermal.HeatInput;

/** The balls of a run while it goes: acts, the count from the first ball, the stencil's release. For one thread. */
final class BallLine {
    /** After the last ball is liquid it is given this long to round up, s; the trade counts to five. */
    private static final double ROUND_UP_S = 5;
    private static final double LONGEST_COUNT_S = 120;
    private final RunPlan plan;
    private final Alloy alloy;
    private final ReleaseWarm window;
    private final boolean thinFlux;
    private Forming forming;
    private Optional<Finding> wrong = Optional.empty();
    private double countEndS = Double.NaN;
    private double lateS = Double.NaN;
    private boolean warming;
    private double releasedC = Double.NaN;

    BallLine(RunPlan plan, BallForming setUp) {
        this.plan = plan;
        this.alloy = setUp.balls();
        this.window = ReleaseWarm.of(alloy);
        this.thinFlux = BallForming.thinFlux(plan.job());
        this.forming = setUp.shaping()
                ? Forming.shaping(setUp.method())
                : Forming.begin(setUp.method(), plan.job().attested("arrows_meet") == Attest.YES);
    }

    Forming forming() {
        return forming;
    }

    Judged ask(Act act, double ballsC) {
        return byWay(forming.ask(act, alloy, OptionalDouble.of(ballsC)));
    }

    /** Who chose a thin film under the paste is warned of it and not held up; in or over filled holes it stays wrong. */
    private Judged byWay(Judged usual) {
        return ownWay(usual.act()) ? new Judged(Act.FLUX, Judged.Rating.CARE, "why.paste.thin_first") : usual;
    }

    private boolean ownWay(Act act) {
        return thinFlux && act == Act.FLUX && forming.method() == Method.PASTE && !forming.fluxed()
                && (forming.stand() == Stand.CLEAN || forming.stand() == Stand.ALIGNED);
    }

    /** @return what was wrong with it */
    Optional<Finding> act(Act act, double atS, double ballsC) {
        Judged judged = ask(act, ballsC);
        String subject = act.name().toLowerCase(java.util.Locale.ROOT) + " "
                + forming.stand().name().toLowerCase(java.util.Locale.ROOT);
        String method = forming.method().name().toLowerCase(java.util.Locale.ROOT);
        wrong = judged.rating() == Judged.Rating.WRONG || judged.rating() == Judged.Rating.CARE
                ? Optional.of(Finding.of(
                        judged.rating() == Judged.Rating.WRONG ? Rule.ACT_WRONG : Rule.ACT_AT_A_PRICE,
                        subject,
                        judged.rating() == Judged.Rating.WRONG ? Severity.STOP : Severity.CARE,
                        new Quantity.Word(
                                "act." + method + "." + act.name().toLowerCase(java.util.Locale.ROOT)),
                        new Quantity.Word(judged.why()),
                        new Quantity.Word("stand." + method + "."
                                + forming.stand().name().toLowerCase(java.util.Locale.ROOT))))
                : Optional.empty();
        if (act == Act.WARM && judged.rating() == Judged.Rating.RIGHT) {
            warming = true;
        }
        boolean held = forming.stand() == Stand.SOLID || forming.stand() == Stand.FORMING;
        if ((act == Act.SLIDE || act == Act.PICK_OUT) && held) {
            warming = false;
            releasedC = ballsC;
        }
        boolean refused = judged.rating() == Judged.Rating.WRONG && (act == Act.HEAT || act == Act.SETTLE);
        // The film of one's own way lies under the paste and spoils nothing.
        forming = refused || ownWay(act) ? forming : forming.after(act, atS, alloy);
        return wrong;
    }

    /** Heat was begun. */
    void heated() {
        if (forming.stand() != Stand.FORMING) {
            forming = forming.heated();
        }
    }

    /**
     * The first ball shines: the count ends when the last one has had its time, as far behind the first as the model has it.
     *
     * @param firstS when the model has its first joint liquid, s
     * @param lastS  and its last
     * @param ledS   how far the last is behind the first where the nozzle is led over the chip, s
     */
    void first(double atS, OptionalDouble firstS, OptionalDouble lastS, OptionalDouble ledS) {
        if (firstS.isPresent()) {
            lateS = atS - firstS.getAsDouble();
            countEndS = lastS.isPresent()
                    ? atS + Math.max(ledS.orElse(0),
                            Math.clamp(lastS.getAsDouble() - firstS.getAsDouble(), 0, LONGEST_COUNT_S))
                            + ROUND_UP_S
                    : Double.NaN;
        }
    }

    void solid(double atS) {
        forming = forming.solid(atS);
    }

    /** Nothing holds the chip any more. */
    boolean free() {
        return forming.stand() == Stand.RELEASED || forming.stand() == Stand.SETTLED;
    }

    /** Temperature of the balls when the stencil came off; NaN before. */
    double releasedC() {
        return releasedC;
    }

    ReleaseWarm window() {
        return window;
    }

    Optional<Finding> wrong() {
        return wrong;
    }

    /** Air that frees the stencil, blown as at the peak; never hot enough to melt a ball. */
    Optional<HeatInput> warm() {
        if (!warming) {
            return Optional.empty();
        }
        AirSetting as = plan.recipe().stages().stream().flatMap(s -> s.air().stream()).reduce((a, b) -> b)
                .orElseGet(() -> plan.gentleAir(window.airC()));
        return Optional.of(HeatInput.of(Optional.empty(), Optional.of(new AirSetting(window.airC(),
                as.flowLpm(), as.nozzleMm(), as.distanceMm(), as.circleMm()))));
    }

    /** @param fallKPerS how fast the balls cool, negative while they do */
    FormingView view(double timeS, double ballsC, double fallKPerS) {
        OptionalDouble c = OptionalDouble.of(ballsC);
        return new FormingView(forming, forming.all(alloy, c).stream().map(this::byWay).toList(),
                forming.next(alloy, c),
                Double.isNaN(countEndS) ? OptionalDouble.empty() : OptionalDouble.of(countEndS - timeS),
                Double.isNaN(lateS) ? OptionalDouble.empty() : OptionalDouble.of(lateS), window,
                softS(ballsC, fallKPerS), warming);
    }

    /** Free cooling with the time constant that the last seconds show. */
    private OptionalDouble softS(double ballsC, double fallKPerS) {
        double room = plan.bench().ambientC();
        boolean falls = forming.stand() == Stand.SOLID && ballsC > window.lowC() && fallKPerS < -0.02
                && room < window.lowC();
        return falls
                ? OptionalDouble
                        .of(CoolDown.secondsTo(ballsC, window.lowC(), room, (ballsC - room) / -fallKPerS))
                : OptionalDouble.empty();
    }
}
