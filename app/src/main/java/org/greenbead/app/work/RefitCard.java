package org.greenbead.app.work;

import java.util.Locale;
import java.util.OptionalDouble;
import javafx.geometry.Pos;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Rectangle;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.refit.RefitSheet;

/** Before the case is closed: the load on the glue as a block on its strip, the torque as a bar up to what the thread bears. */
final class RefitCard {
    private static final double WIDTH = 250;
    private static final double BLOCK = 64;
    /** The bar ends at this part over what the thread bears. */
    private static final double OVER = 1.5;

    private RefitCard() {
    }

    static Region of(RefitSheet sheet, Texts texts) {
        var card = Looks.as(new VBox(6, Looks.label(texts.get("refit.caps"), "caps")), "card");
        card.setId("refit-card");
        if (sheet.empty()) {
            card.getChildren().add(Looks.label(texts.get("refit.none"), "muted", "small"));
            return card;
        }
        if (sheet.wantedKg().isPresent() || sheet.laidKpa().isPresent()) {
            card.getChildren().add(press(sheet, texts));
        }
        if (sheet.mostNm().isPresent() || sheet.drivenNm().isPresent()) {
            card.getChildren().add(screw(sheet, texts));
        }
        return card;
    }

    private static Region press(RefitSheet sheet, Texts texts) {
        var box = new VBox(3);
        sheet.wantedKg().ifPresent(kg -> {
            String load = number(kg, 3);
            var block = Looks.as(new Rectangle(BLOCK * 1.6, BLOCK * 0.6), "press-block");
            var words = Looks.label(texts.get("refit.press", load), "text-ink", "strong");
            var strip = Looks.as(new Rectangle(WIDTH, 5), "press-strip");
            var drawn = new VBox(1, block, strip);
            drawn.setAlignment(Pos.CENTER);
            drawn.setMaxWidth(WIDTH);
            box.getChildren().addAll(drawn, words, Looks.label(texts.get("refit.press.so",
                    number(sheet.labelKpa().orElseThrow(), 3), number(sheet.areaCm2().orElseThrow(), 3)),
                    "muted", "small"));
        });
        sheet.laidKpa().ifPresent(kpa -> {
            String laid = number(sheet.laidKg().orElseThrow(), 3);
            box.getChildren().add(Looks.label(sheet.labelKpa().isPresent()
                    ? texts.get("refit.laid", laid, Math.round(kpa / sheet.labelKpa().getAsDouble() * 100))
                    : texts.get("refit.laid.bare", laid, number(kpa, 3)), "text-ink"));
        });
        sheet.pressMin().ifPresent(min -> box.getChildren().add(Looks.label(sheet.pressedMin().isPresent()
                ? texts.get("refit.held", number(sheet.pressedMin().getAsDouble(), 3), number(min, 3))
                : texts.get("refit.hold", number(min, 3)), "text-ink")));
        return box;
    }

    private static Region screw(RefitSheet sheet, Texts texts) {
        var box = new VBox(3);
        OptionalDouble most = sheet.mostNm();
        most.ifPresent(nm -> {
            var bar = new Pane();
            bar.setMinSize(WIDTH, 18);
            bar.setMaxSize(WIDTH, 18);
            bar.getChildren().add(Looks.as(new Rectangle(0, 6, WIDTH, 6), "torque-track"));
            bar.getChildren().add(Looks.as(new Rectangle(0, 6, WIDTH / OVER, 6), "torque-bears"));
            sheet.drivenNm().ifPresent(driven -> {
                var mark = Looks.as(new Rectangle(Math.min(WIDTH - 4, driven / nm * WIDTH / OVER), 0, 4, 18),
                        "torque-mark");
                mark.pseudoClassStateChanged(Looks.BAD, sheet.overdriven());
                bar.getChildren().add(mark);
            });
            box.getChildren().addAll(new StackPane(bar), Looks.label(texts.get("refit.screw",
                    number(sheet.threadMm().orElseThrow(), 2), texts.say("thread.into."
                            + sheet.into().orElseThrow().name().toLowerCase(Locale.ROOT)),
                    number(nm, 2)), "text-ink", "strong"));
        });
        sheet.drivenNm().ifPresent(nm -> box.getChildren().add(Looks.label(
                texts.get(sheet.overdriven() ? "refit.over" : "refit.driven", number(nm, 2)),
                sheet.overdriven() ? "ink-hot" : "text-ink")));
        return box;
    }

    private static String number(double value, int digits) {
        return new java.math.BigDecimal(value).round(new java.math.MathContext(digits)).stripTrailingZeros()
                .toPlainString();
    }
}
