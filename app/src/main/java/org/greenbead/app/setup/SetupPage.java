package org.greenbead.app.setup;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Function;
import javafx.beans.property.Property;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Desk;
import org.greenbead.app.shell.Page;
import org.greenbead.app.shell.Pedal;
import org.greenbead.app.shell.Settings;
import org.greenbead.app.shell.Texts;
import org.greenbead.app.work.Navigator;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.Calibration;
import org.greenbead.core.kind.BenchKind;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.thermal.Uncertainty;
import org.greenbead.store.Format;

/** What the technician chooses once and keeps. */
public final class SetupPage extends Page {
    private final Navigator go;
    private final VBox page;
    private List<Bench> shown = List.of();
    private final VBox benches = Looks.as(new VBox(8), "card");

    public SetupPage(Desk desk, Navigator go) {
        this.go = go;
        Texts texts = desk.texts();
        Settings settings = desk.settings();
        var rows = Looks.as(new VBox(14), "card");
        rows.getChildren().addAll(
                choice("unit", texts.get("setup.unit"), List.of(TempUnit.values()), settings.unit(),
                        TempUnit::sign),
                choice("theme", texts.get("setup.theme"), List.of(false, true), settings.lampOff(),
                        dark -> texts.get(dark ? "setup.theme.dark" : "setup.theme.day")),
                choice("scale", texts.get("setup.scale"), List.<Number>of(100, 115, 130, 150, 175),
                        settings.textPercent(), p -> p + " %"),
                choice("speed", texts.get("setup.speed"), List.<Number>of(1, 10, 60), settings.speed(),
                        t -> t + " ×"),
                choice("sound", texts.get("setup.sound"), List.of(false, true), settings.mute(),
                        m -> texts.get(m ? "setup.sound.off" : "setup.sound.on")));
        rows.getChildren().add(logger(texts, desk));
        rows.getChildren().addAll(
                row(texts.get("setup.technician"),
                        line(desk.settings().technician(), "setup-technician", "")),
                row(texts.get("setup.camera"), line(desk.settings().cameraFolder(), "setup-camera",
                        texts.get("setup.camera.prompt"))),
                row(texts.get("setup.supply"), line(desk.settings().supply(), "setup-supply",
                        texts.get("setup.supply.prompt"))),
                row(texts.get("setup.data"), folder(desk.ledger().folder())));
        var keys = Looks.as(
                new VBox(8, Looks.label(texts.get("setup.keys"), "caps"), keys(texts.get("setup.keys.text"))),
                "card");
        var scroll = Looks.as(new ScrollPane(new VBox(12, benches, rows, keys)), "watch-scroll");
        benches.setId("setup-benches");
        readBenches(desk);
        scroll.setFitToWidth(true);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        page = Looks.as(new VBox(Looks.as(new VBox(Looks.label(texts.get("setup.caps"), "caps"),
                Looks.label(texts.get("place.setup"), "now")), "instruction"), scroll), "page");
        pedal(new Pedal(texts.get("setup.back"), texts.get("setup.back.so"), true, go::home));
        backWord(texts.get("key.back"));
    }

    /** A small button that does something at once. */
    static Button act(String id, String word, Runnable does) {
        var button = Looks.as(new Button(word), "act", "small");
        button.setId(id);
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(press -> does.run());
        return button;
    }

    private static Region line(javafx.beans.property.StringProperty setting, String id, String prompt) {
        var line = new org.greenbead.app.work.Line(id, prompt);
        line.setText(setting.get());
        line.textProperty().subscribe(text -> setting.set(text.strip()));
        return line;
    }

    /** Every bench of the ledger's jobs with its calibrations; each can be counted or left out. */
    private void readBenches(Desk desk) {
        desk.io(() -> {
            return desk.ledger().benches();
        }, found -> showBenches(desk, found));
    }

    private void showBenches(Desk desk, List<Bench> found) {
        Texts texts = desk.texts();
        benches.getChildren().setAll(Looks.label(texts.get("setup.bench"), "caps"));
        if (found.isEmpty()) {
            benches.getChildren().add(Looks.label(texts.get("setup.bench.nobody"), "muted"));
        }
        shown = found;
        int number = 1;
        for (Bench bench : found) {
            String digit = number < 10 ? number + "  " : "";
            number++;
            var change = Looks.as(new Button(digit + texts.get("setup.bench.change")), "act", "small");
            change.setId("bench-" + bench.id());
            change.setMinWidth(Region.USE_PREF_SIZE);
            change.setOnAction(press -> go.bench(bench));
            var guided = Looks.as(new Button(texts.get("setup.guided")), "act", "small");
            guided.setId("guided-" + bench.id());
            guided.setMinWidth(Region.USE_PREF_SIZE);
            guided.setOnAction(press -> go.guided(bench.id()));
            var dots = Looks.as(new Button(texts.get("setup.witness")), "act", "small");
            dots.setId("witness-" + bench.id());
            dots.setMinWidth(Region.USE_PREF_SIZE);
            dots.setOnAction(press -> go.witness(bench.id()));
            benches.getChildren().add(row(bench.title(), withKeys(List.of(change, guided, dots),
                    bench.heater().map(h -> h.name() + " " + texts.temp(h.maxC()))
                            .orElse(texts.get("setup.bench.no_heater")) + ", " + bench.air().name() + ": "
                            + state(bench, texts))));
        }
        benches.getChildren().add(usual(desk, found.size(), texts));
    }

    /** Usual benches to begin with; each press makes one more. */
    private Region usual(Desk desk, int there, Texts texts) {
        var keys = new javafx.scene.layout.FlowPane(6, 6);
        for (BenchKind kind : BenchKind.shipped()) {
            var key = Looks.as(new Button(texts.get("setup.bench.add", texts.say("benchkind." + kind.id()))),
                    "act",
                    "small");
            key.setId("usual-" + kind.id());
            key.setOnAction(press -> desk.io(() -> {
                int n = there + 1;
                while (desk.ledger().holds(Format.BENCH, "bench-" + n)) {
                    n++;
                }
                Bench made = kind.bench("bench-" + n, texts.say("benchkind." + kind.id()));
                desk.ledger().save(made);
                return made;
            }, go::bench));
            keys.getChildren().add(key);
        }
        return row(texts.get("setup.bench.new"), keys);
    }

    private static Region withKeys(List<Button> keys, String words) {
        Label label = Looks.label(words, "text-ink");
        label.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(label, Priority.ALWAYS);
        var line = new HBox(10, label);
        line.getChildren().addAll(keys);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    /** How well its heat is known. */
    static String state(Bench bench, Texts texts) {
        Uncertainty known = Uncertainty.of(bench, "", 0, 0);
        return known.calibrated()
                ? texts.get("setup.bench.knows", Math.round(164.5 * known.jetLn()),
                        Math.round(164.5 * known.preheaterLn()))
                : texts.get("setup.bench.none");
    }

    static String factor(Calibration.Factor f) {
        return f.determined() ? String.format(java.util.Locale.ROOT, "%.2f", f.value()) : "–";
    }

    private static Region logger(Texts texts, Desk desk) {
        Settings settings = desk.settings();
        boolean named = desk.joined() == Desk.Joined.LOGGER;
        var field = Looks.as(new TextField(named ? settings.loggerFile().get() : ""), "text-line");
        field.setId("logger-file");
        field.setPromptText(texts.get("setup.logger.prompt"));
        HBox.setHgrow(field, Priority.ALWAYS);
        var group = new ToggleGroup();
        var none = toggle("logger-none", texts.get("setup.logger.none"), group);
        var simulated = toggle("logger-sim", texts.get("setup.logger.sim"), group);
        var file = toggle("logger-real", texts.get("setup.logger.file"), group);
        switch (desk.joined()) {
            case NOTHING -> none.setSelected(true);
            case SIMULATED -> simulated.setSelected(true);
            case LOGGER -> file.setSelected(true);
        }
        field.disableProperty().bind(file.selectedProperty().not());
        field.textProperty().subscribe((was, now) -> settings.loggerFile().set(now.strip()));
        none.setOnAction(press -> {
            none.setSelected(true);
            settings.loggerFile().set("");
        });
        simulated.setOnAction(press -> {
            simulated.setSelected(true);
            settings.loggerFile().set(Settings.SIMULATED);
        });
        file.setOnAction(press -> {
            file.setSelected(true);
            settings.loggerFile().set(field.getText().strip());
            field.requestFocus();
        });
        var choices = new HBox(6, simulated, file, field);
        if (!desk.demo()) {
            choices.getChildren().addFirst(none);
        }
        return row(texts.get("setup.logger"), choices);
    }

    /** The end of the path; all of it when the pointer rests on it. */
    private static Label folder(Path folder) {
        int names = folder.getNameCount();
        Label label = Looks.label(names > 2 ? "… " + folder.subpath(names - 2, names) : folder.toString(),
                "text-ink");
        Looks.tip(label, folder.toAbsolutePath().toString());
        return label;
    }

    /** Two columns of keys with what each does. */
    private static Region keys(String all) {
        var grid = new GridPane();
        grid.setHgap(12);
        grid.setVgap(7);
        String[] lines = all.split("\\|");
        int half = (lines.length + 1) / 2;
        for (int i = 0; i < lines.length; i++) {
            String[] part = lines[i].split(": ", 2);
            int column = i < half ? 0 : 2;
            Label key = Looks.as(new Label(part[0]), "text-ink", "strong");
            key.setMinWidth(Region.USE_PREF_SIZE);
            grid.add(key, column, i % half);
            grid.add(Looks.label(part[1], "muted"), column + 1, i % half);
        }
        return grid;
    }

    private static ToggleButton toggle(String id, String word, ToggleGroup group) {
        var button = Looks.as(new ToggleButton(word), "act");
        button.setId(id);
        button.setToggleGroup(group);
        button.setMinWidth(Region.USE_PREF_SIZE);
        return button;
    }

    private static Region row(String name, Region value) {
        return row(name, 150, value);
    }

    /** A name of a width and what it stands for. */
    static Region row(String name, double widePx, Region value) {
        Label label = Looks.label(name, "muted");
        label.setMinWidth(widePx);
        label.setPrefWidth(widePx);
        HBox.setHgrow(value, Priority.ALWAYS);
        var row = new HBox(12, label, value);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private static <T> Region choice(String id, String name, List<T> values, Property<T> property,
            Function<T, String> word) {
        var box = new HBox(6);
        var group = new ToggleGroup();
        for (T value : values) {
            var button = toggle(id + "-" + value, word.apply(value), group);
            button.setSelected(value.equals(property.getValue()));
            button.setOnAction(press -> {
                button.setSelected(true);
                property.setValue(value);
            });
            box.getChildren().add(button);
        }
        property.subscribe(now -> group.getToggles()
                .forEach(t -> t.setSelected(((ToggleButton) t).getId().equals(id + "-" + now))));
        return row(name, box);
    }

    @Override
    public Region node() {
        return page;
    }

    @Override
    public void back() {
        go.home();
    }

    @Override
    public boolean key(KeyCode code, boolean control) {
        int digit = code.isDigitKey() ? Integer.parseInt(code.getName().replaceAll("\\D", "")) : 0;
        if (!control && digit > 0 && digit <= shown.size()) {
            go.bench(shown.get(digit - 1));
            return true;
        }
        if (code == KeyCode.ESCAPE) {
            go.home();
            return true;
        }
        return false;
    }
}
