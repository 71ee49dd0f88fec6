package org.greenbead.core.refit;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import org.greenbead.core.record.Kept;

/**
 * What the closing of a case asks for, before it is done: the load that brings the pressure on the label, how long it lies, the most that a screw is driven
 * with. What is not noted is empty, never a usual figure.
 *
 * @param wantedKg  load for the pressure on the label
 * @param laidKpa   what the load that is noted brings
 * @param laidKg    what lies on it
 * @param labelKpa  what the label asks for
 * @param areaCm2   of the glue
 * @param pressMin  how long the label asks for the load
 * @param pressedMin how long it lay
 * @param threadMm  nominal diameter of the screw
 * @param into      what it goes into
 * @param mostNm    the most that it bears
 * @param drivenNm  what is noted of the driver
 */
public record RefitSheet(OptionalDouble wantedKg, OptionalDouble laidKpa, OptionalDouble laidKg,
        OptionalDouble labelKpa,
        OptionalDouble areaCm2, OptionalDouble pressMin, OptionalDouble pressedMin, OptionalDouble threadMm,
        Optional<SmallThread.Into> into, OptionalDouble mostNm, OptionalDouble drivenNm) {

    /** From the last word on the panel and on the screws. Figures that are none (an area of nought, a thread that there is not) leave theirs empty. */
    public static RefitSheet of(List<Kept> records) {
        Optional<Kept> panel = last(records, "enclosure");
        Optional<Kept> screws = last(records, "fastening");
        OptionalDouble cm2 = number(panel, "press_cm2");
        OptionalDouble label = number(panel, "press_label_kpa");
        OptionalDouble laid = number(panel, "press_kg");
        OptionalDouble thread = number(screws, "thread_mm");
        Optional<SmallThread.Into> into = screws.map(s -> s.text("into")).filter(t -> !t.isEmpty())
                .map(t -> SmallThread.Into.valueOf(t.toUpperCase(Locale.ROOT)));
        return new RefitSheet(
                both(label, cm2)
                        ? reckoned(() -> PressLoad.massKg(label.getAsDouble(), cm2.getAsDouble()))
                        : OptionalDouble.empty(),
                both(laid, cm2)
                        ? reckoned(() -> new PressLoad(laid.getAsDouble(), cm2.getAsDouble()).kpa())
                        : OptionalDouble.empty(),
                laid, label, cm2, number(panel, "press_min"), number(panel, "pressed_min"), thread, into,
                thread.isPresent() && into.isPresent()
                        ? reckoned(() -> new SmallThread(thread.getAsDouble(), into.get()).mostNm())
                        : OptionalDouble.empty(),
                screws.map(s -> SmallThread.newtonMetres(s.text("torque"))).orElse(OptionalDouble.empty()));
    }

    /** Nothing that could be shown. */
    public boolean empty() {
        return wantedKg.isEmpty() && laidKpa.isEmpty() && mostNm.isEmpty() && drivenNm.isEmpty();
    }

    /** Whether the driver is set over what the thread bears; false while either is not known. */
    public boolean overdriven() {
        return both(mostNm, drivenNm) && drivenNm.getAsDouble() > mostNm.getAsDouble();
    }

    private static boolean both(OptionalDouble a, OptionalDouble b) {
        return a.isPresent() && b.isPresent();
    }

    private static OptionalDouble reckoned(java.util.function.DoubleSupplier figure) {
        try {
            return OptionalDouble.of(figure.getAsDouble());
        } catch (IllegalArgumentException e) {
            // The record stands as it was written; nothing is computed from it.
            return OptionalDouble.empty();
        }
    }

    private static Optional<Kept> last(List<Kept> records, String type) {
        return records.stream().filter(r -> r.type().equals(type)).reduce((a, b) -> b);
    }

    private static OptionalDouble number(Optional<Kept> record, String field) {
        return record.map(r -> r.number(field)).filter(v -> v > 0).map(OptionalDouble::of)
                .orElse(OptionalDouble.empty());
    }
}
