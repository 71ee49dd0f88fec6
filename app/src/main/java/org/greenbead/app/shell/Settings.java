package org.greenbead.app.shell;

import java.util.Locale;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.Function;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.greenbead.core.quantity.TempUnit;

/** What the technician has chosen for this workplace. Touched on the FX thread only. */
public final class Settings {
    /** Under these names {@link #keep} stores what was chosen. */
    static final java.util.List<String> NAMES = java.util.List.of("unit", "lamp_off", "text_percent", "speed",
            "mute",
            "logger_file", "technician", "camera_folder", "supply", "rule_limits", "report_language",
            "meter");
    private final ObjectProperty<TempUnit> unit = new SimpleObjectProperty<>(TempUnit.CELSIUS);
    private final BooleanProperty lampOff = new SimpleBooleanProperty();
    private final IntegerProperty textPercent = new SimpleIntegerProperty(100);
    private final IntegerProperty speed = new SimpleIntegerProperty(1);
    private final BooleanProperty mute = new SimpleBooleanProperty();
    /** In the place of a logger's file: a bench that is only simulated, to practise on. */
    public static final String SIMULATED = "simulated";
    private final StringProperty loggerFile = new SimpleStringProperty("");
    private final StringProperty technician = new SimpleStringProperty("technician A");
    private final StringProperty cameraFolder = new SimpleStringProperty("");
    private final StringProperty supply = new SimpleStringProperty("");
    private final StringProperty meter = new SimpleStringProperty("");
    private final StringProperty reportLanguage = new SimpleStringProperty("en");
    private final StringProperty ruleLimits = new SimpleStringProperty("");

    /** @param stored values by name as they were kept; anything unreadable keeps its default */
    void load(Map<String, String> stored) {
        take(stored, "unit", t -> TempUnit.valueOf(t.toUpperCase(Locale.ROOT)), unit::set);
        take(stored, "lamp_off", Boolean::valueOf, lampOff::set);
        take(stored, "text_percent", t -> Math.clamp(Integer.parseInt(t), 100, 175), textPercent::set);
        take(stored, "speed", t -> Math.clamp(Integer.parseInt(t), 1, 60), speed::set);
        take(stored, "mute", Boolean::valueOf, mute::set);
        take(stored, "logger_file", Function.identity(), loggerFile::set);
        take(stored, "technician", Function.identity(), technician::set);
        take(stored, "camera_folder", Function.identity(), cameraFolder::set);
        take(stored, "supply", Function.identity(), supply::set);
        take(stored, "meter", Function.identity(), meter::set);
        take(stored, "report_language", Function.identity(), reportLanguage::set);
        take(stored, "rule_limits", Function.identity(), ruleLimits::set);
    }

    private static <T> void take(Map<String, String> stored, String name, Function<String, T> read,
            java.util.function.Consumer<T> set) {
        String text = stored.get(name);
        if (text != null) {
            try {
                set.accept(read.apply(text));
            } catch (IllegalArgumentException e) {
                org.slf4j.LoggerFactory.getLogger(Settings.class)
                        .warn("setting {} has \"{}\"; the default is used", name, text);
            }
        }
    }

    /** Names under which {@link #load} finds them again. */
    void keep(BiConsumer<String, String> store) {
        unit.subscribe((was, now) -> store.accept("unit", now.name().toLowerCase(Locale.ROOT)));
        lampOff.subscribe((was, now) -> store.accept("lamp_off", now.toString()));
        textPercent.subscribe((was, now) -> store.accept("text_percent", now.toString()));
        speed.subscribe((was, now) -> store.accept("speed", now.toString()));
        mute.subscribe((was, now) -> store.accept("mute", now.toString()));
        loggerFile.subscribe((was, now) -> store.accept("logger_file", now));
        technician.subscribe((was, now) -> store.accept("technician", now));
        cameraFolder.subscribe((was, now) -> store.accept("camera_folder", now));
        supply.subscribe((was, now) -> store.accept("supply", now));
        meter.subscribe((was, now) -> store.accept("meter", now));
        reportLanguage.subscribe((was, now) -> store.accept("report_language", now));
        ruleLimits.subscribe((was, now) -> store.accept("rule_limits", now));
    }

    public ObjectProperty<TempUnit> unit() {
        return unit;
    }

    public BooleanProperty lampOff() {
        return lampOff;
    }

    public IntegerProperty textPercent() {
        return textPercent;
    }

    /** How many times faster than real the simulated bench runs: 1, 10 or 60. */
    public IntegerProperty speed() {
        return speed;
    }

    public BooleanProperty mute() {
        return mute;
    }

    /** Path of a logger's file, {@link #SIMULATED}, or empty where nobody chose. */
    public StringProperty loggerFile() {
        return loggerFile;
    }

    /** Who works here; stands beside what is written down. */
    public StringProperty technician() {
        return technician;
    }

    /** Folder into which the camera drops its pictures; empty = none. */
    public StringProperty cameraFolder() {
        return cameraFolder;
    }

    /** Bench supply on the network, {@code host} or {@code host:port}; empty = none, in the demo a made-up one. */
    public StringProperty supply() {
        return supply;
    }

    /** What rails are read with, and how its leads lie. */
    public StringProperty meter() {
        return meter;
    }

    /** Language of the reports for customers, as its two letters. */
    public StringProperty reportLanguage() {
        return reportLanguage;
    }

    /** Thresholds of the rule book that this bench has changed, {@code rule/limit=value} a line. */
    public StringProperty ruleLimits() {
        return ruleLimits;
    }
}
