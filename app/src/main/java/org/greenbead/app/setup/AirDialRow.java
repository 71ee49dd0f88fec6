package org.greenbead.app.setup;

import java.util.Arrays;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Line;
import org.greenbead.core.bench.AirDial;
import org.greenbead.core.bench.AirStation;

/** What is written round the air's dials, as the technician reads it there: scale, marks, and how much hotter it blows than it says. */
final class AirDialRow extends VBox {
    private static final int USUAL_STEPS = 8;
    private static final double LOWEST_SHARE = 0.2;
    private final AirStation air;
    private final Texts texts;
    private final Consumer<AirDial> keep;
    private final ToggleGroup scales = new ToggleGroup();
    private final TextField marks;
    private final TextField offset;
    private final Label said = Looks.label("", "muted", "small");
    private AirDial kept;

    /** @param keep takes every dial that makes sense, as soon as it does */
    AirDialRow(String benchId, AirStation air, Texts texts, Consumer<AirDial> keep) {
        this.air = air;
        this.texts = texts;
        this.keep = keep;
        kept = air.dial();
        marks = new Line("dial-marks-" + benchId, texts.get("setup.dial.prompt"));
        marks.setText(kept.written());
        offset = new Line("dial-offset-" + benchId, "0");
        offset.setText(number(texts.words().unit().fromK(kept.offsetK())));
        offset.setPrefColumnCount(4);
        offset.setMaxWidth(70);
        offset.setMinWidth(50);
        said.setId("dial-said-" + benchId);
        var line = new HBox(6);
        line.setAlignment(Pos.CENTER_LEFT);
        for (AirDial.Scale scale : AirDial.Scale.values()) {
            var button = Looks.as(new ToggleButton(word(scale)), "act");
            button.setId("dial-" + scale.name().toLowerCase(Locale.ROOT) + "-" + benchId);
            button.setUserData(scale);
            button.setToggleGroup(scales);
            button.setMinWidth(Region.USE_PREF_SIZE);
            button.setSelected(scale == kept.scale());
            button.setOnAction(press -> {
                button.setSelected(true);
                marks.setText(usual(scale).written());
                changed();
            });
            line.getChildren().add(button);
        }
        HBox.setHgrow(marks, Priority.ALWAYS);
        Label hotter = Looks.label(texts.get("setup.dial.offset", texts.words().unit().sign()), "muted");
        hotter.setMinWidth(USE_PREF_SIZE);
        line.getChildren().addAll(marks, hotter, offset);
        marks.textProperty().subscribe((was, now) -> changed());
        offset.textProperty().subscribe((was, now) -> changed());
        setSpacing(3);
        getChildren().addAll(line, said);
        say();
    }

    private AirDial usual(AirDial.Scale scale) {
        return switch (scale) {
            case LITRES -> AirDial.PLAIN;
            case PERCENT -> AirDial.percent(100 * LOWEST_SHARE, air.maxLpm());
            case STEPS -> AirDial.steps(USUAL_STEPS, LOWEST_SHARE * air.maxLpm(), air.maxLpm());
        };
    }

    private String word(AirDial.Scale scale) {
        return switch (scale) {
            case LITRES -> texts.get("setup.dial.litres");
            case PERCENT -> texts.get("setup.dial.percent");
            case STEPS -> texts.get("setup.dial.steps");
        };
    }

    private void changed() {
        try {
            var dial = new AirDial((AirDial.Scale) scales.getSelectedToggle().getUserData(),
                    AirDial.read(marks.getText()), offsetK());
            air.with(dial);
            marks.pseudoClassStateChanged(Looks.BAD, false);
            if (!dial.equals(kept)) {
                kept = dial;
                keep.accept(dial);
            }
            say();
        } catch (IllegalArgumentException e) {
            marks.pseudoClassStateChanged(Looks.BAD, true);
            said.setText(texts.get("setup.dial.bad", e.getMessage()));
        }
    }

    private double offsetK() {
        String text = offset.getText().strip().replace(',', '.');
        double shown = text.isEmpty() ? 0 : Double.parseDouble(text);
        return shown / texts.words().unit().fromK(1);
    }

    /** What the dial now means, by examples that can be held against the station. */
    private void say() {
        if (kept.measures()) {
            said.setText(texts.get("setup.dial.plain"));
            return;
        }
        double low = kept.marks().getFirst().lpm();
        double high = kept.marks().getLast().lpm();
        String examples = Arrays.stream(new double[]{low, kept.settable((low + high) / 2), high})
                .mapToObj(lpm -> texts.words().show(kept.says(lpm)) + " = " + number(lpm) + " L/min")
                .distinct().collect(Collectors.joining(", "));
        said.setText(texts.get("setup.dial.sure", examples, Math.round(100 * kept.jetLn())));
    }

    private static String number(double value) {
        double tenth = Math.rint(value * 10) / 10;
        return tenth == Math.rint(tenth) ? Long.toString((long) tenth) : Double.toString(tenth);
    }

}
