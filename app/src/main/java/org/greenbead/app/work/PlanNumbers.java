package org.greenbead.app.work;

import java.util.Locale;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.overview.Overview;
import org.greenbead.core.quantity.Quantity;

/** The plan in four numbers, beside the steps that settle it. */
final class PlanNumbers {
    private PlanNumbers() {
    }

    static Region of(Overview o, Texts texts) {
        var card = Looks.as(new VBox(3), "card");
        card.setId("plan-numbers");
        card.getChildren().addAll(Looks.label(texts.get("over.short"), "caps"),
                Looks.label(texts.temp(o.ceiling().lowestC()), "figure", "ink-joint"),
                Looks.label(texts.get("over.ceiling.why", o.ceiling().site()), "muted", "small"),
                Looks.label(texts.temp(o.mix().mix().lowestSolidusC()), "figure",
                        o.mix().mix().bismuthLead() ? "ink-hot" : "ink-green"),
                Looks.label(texts.get("over.mix.why", o.mix().ball()), "muted", "small"),
                Looks.label(Double.isNaN(o.moisture().leftH())
                        ? texts.get("over.dry.unknown")
                        : texts.words().show(new Quantity.Hours(Math.max(0, o.moisture().leftH()))), "figure",
                        o.moisture().leftH() <= 0 ? "ink-hot" : "ink-green"),
                Looks.label(texts.get("over.dry.why"), "muted", "small"),
                Looks.label(
                        texts.get("over.lift.short",
                                texts.say("side4."
                                        + o.lift().getFirst().side().name().toLowerCase(Locale.ROOT)),
                                texts.words().show(new Quantity.Millimetres(o.lift().getFirst().clearMm()))),
                        "strong", "text-ink"),
                Looks.label(texts.get("over.open"), "muted", "small"));
        return card;
    }
}
