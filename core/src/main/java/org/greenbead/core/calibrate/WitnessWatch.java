package org.greenbead.core.calibrate;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.quantity.Phrase;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.AirSetting;

/**
 * A heating of dots while it is watched: what to set now, which dot is next, what was pressed. A step counts from the moment at
 * which it was really set, a dot from the moment of its press. Moved by the times it is given; it has no clock.
 */
public final class WitnessWatch {
    private final String id;
    private final WitnessDesign design;
    private final Bench bench;
    private final boolean foreign;
    private final List<Witness.Step> set = new ArrayList<>();
    private final Map<String, Double> pressS = new LinkedHashMap<>();
    private final List<Witness.Read> readings = new ArrayList<>();
    private OptionalDouble named = OptionalDouble.empty();
    private OptionalDouble over = OptionalDouble.empty();

    /** @param foreign true on a board of another kind than the job's */
    public WitnessWatch(String id, WitnessDesign design, Bench bench, boolean foreign) {
        this.id = id;
        this.design = design;
        this.bench = bench;
        this.foreign = foreign;
    }

    /**
     * What is to be done at a moment.
     *
     * @param now      said large
     * @param next     what comes, and when
     * @param pedal    what one press of the pedal would state
     * @param due      true when a step waits to be set
     * @param unnamed  true when a melting was pressed and waits for its name
     */
    public record Asked(Phrase now, Phrase next, Phrase pedal, boolean due, boolean unnamed) {}

    public WitnessDesign design() {
        return design;
    }

    public boolean started() {
        return !set.isEmpty();
    }

    public boolean over() {
        return over.isPresent();
    }

    /** What acts: the last step that was set. */
    public Optional<Witness.Step> acts() {
        return set.isEmpty() || over() ? Optional.empty() : Optional.of(set.getLast());
    }

    public boolean melted(String dot) {
        return pressS.containsKey(dot);
    }

    private boolean due(double nowS) {
        return set.size() < design.steps().size()
                && (set.isEmpty() || nowS >= dueS());
    }

    /** When the next step is due, s: each lasts as long as the design has it, from when it was really set. */
    private double dueS() {
        int at = set.size();
        return at == 0
                ? 0
                : set.getLast().fromS() + design.steps().get(at).fromS() - design.steps().get(at - 1).fromS();
    }

    /** When the last step is over, s. */
    private double endS() {
        return set.getLast().fromS() + design.endS() - design.steps().getLast().fromS();
    }

    public Asked asked(double nowS) {
        if (over()) {
            return new Asked(Phrase.of("witness.over"), Phrase.of("witness.over.next"),
                    Phrase.of("witness.over.pedal"), false, false);
        }
        if (named.isPresent()) {
            return new Asked(Phrase.of("witness.which"), Phrase.of("witness.which.next"),
                    Phrase.of("witness.which.pedal"), false, true);
        }
        if (due(nowS)) {
            Witness.Step step = design.steps().get(set.size());
            return new Asked(Phrase.of(step.air().isPresent() ? "witness.set.air" : "witness.set",
                    settings(step)),
                    Phrase.of(set.isEmpty() ? "witness.set.first" : "witness.set.next"),
                    Phrase.of(set.isEmpty() ? "witness.set.begin" : "witness.set.pedal"), true, false);
        }
        Optional<Witness.Dot> next = design.dots().stream().filter(d -> !melted(d.name())).findFirst();
        boolean last = set.size() == design.steps().size();
        if (next.isEmpty() || last && nowS >= endS()) {
            return new Asked(Phrase.of(next.isEmpty() ? "witness.all" : "witness.late"),
                    Phrase.of("witness.end.next"), Phrase.of("witness.end.pedal"), true, false);
        }
        var left = new Quantity.Seconds(Math.max(0, (last ? endS() : dueS()) - nowS));
        return new Asked(
                Phrase.of("witness.watch", new Quantity.Name(next.get().name()),
                        new Quantity.Name(next.get().alloy()), new Quantity.TempC(next.get().meltsC())),
                Phrase.of(last ? "witness.watch.last" : "witness.watch.next", left),
                Phrase.of("witness.watch.pedal"), false, false);
    }

    private Quantity[] settings(Witness.Step step) {
        AirDial dial = bench.air().dial();
        Quantity heater = step.heaterC().<Quantity>map(Quantity.TempC::new)
                .orElse(new Quantity.Word("word.off"));
        if (step.air().isEmpty()) {
            return new Quantity[]{heater};
        }
        AirSetting air = step.air().get();
        return new Quantity[]{heater, new Quantity.TempC(air.setC()), dial.says(air.flowLpm()),
                new Quantity.Millimetres(air.nozzleMm()), new Quantity.Millimetres(air.distanceMm()),
                new Quantity.Word(air.circleMm() > 0 ? "word.circles" : "word.still")};
    }

    /** The one key: a step is set, a dot melts, or it is over; whichever is asked for. */
    public void press(double nowS) {
        Asked asked = asked(nowS);
        if (over() || asked.unnamed()) {
            return;
        }
        if (due(nowS)) {
            Witness.Step step = design.steps().get(set.size());
            set.add(new Witness.Step(set.isEmpty() ? 0 : nowS, step.heaterC(), step.air()));
        } else if (asked.due()) {
            over = OptionalDouble.of(nowS);
        } else {
            named = OptionalDouble.of(nowS);
        }
    }

    /** A dot is named: the one whose melting was pressed before, or one that melts now. @return false for one that has melted, or before the start */
    public boolean name(String dot, double nowS) {
        if (!started() || over() || melted(dot)
                || design.dots().stream().noneMatch(d -> d.name().equals(dot))) {
            return false;
        }
        pressS.put(dot, named.orElse(nowS));
        named = OptionalDouble.empty();
        return true;
    }

    /** The last press is taken back. @return what it was about: a dot, or "" for one that had no name yet */
    public Optional<String> takeBack() {
        if (named.isPresent()) {
            named = OptionalDouble.empty();
            return Optional.of("");
        }
        if (over() || pressS.isEmpty()) {
            return Optional.empty();
        }
        String last = null;
        for (String dot : pressS.keySet()) {
            last = dot;
        }
        pressS.remove(last);
        return Optional.ofNullable(last);
    }

    /** A thermocouple of the bench showed something while it went on. */
    public void read(String probe, double nowS, double celsius) {
        if (started() && !over()) {
            readings.add(new Witness.Read(probe, nowS, celsius));
        }
    }

    /** It is broken off, or over: the heat is off from now. */
    public void end(double nowS) {
        if (!over()) {
            over = OptionalDouble.of(nowS);
        }
    }

    /** All that is known of it by now; empty before the first step was set. */
    public Optional<Witness> seen(double nowS) {
        if (set.isEmpty()) {
            return Optional.empty();
        }
        return Optional.of(new Witness(id, design.dots(), set,
                pressS.entrySet().stream().map(e -> new Witness.Press(e.getKey(), e.getValue())).toList(),
                Math.max(1, over.orElse(nowS)), foreign, readings));
    }
}
