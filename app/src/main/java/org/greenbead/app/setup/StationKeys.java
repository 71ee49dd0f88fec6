package org.greenbead.app.setup;

import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.bench.AirStation;
import org.greenbead.core.bench.Bench;

/** The air stations of a bench: which is in hand, one more, one less. */
final class StationKeys extends FlowPane {
    private static final double WRAP = 600;

    /** @param keep takes each change of the bench */
    StationKeys(Bench bench, Texts texts, Consumer<UnaryOperator<Bench>> keep) {
        super(6, 6);
        setPrefWrapLength(WRAP);
        int number = 1;
        for (AirStation station : bench.stationsByName()) {
            boolean inHand = station.name().equals(bench.air().name());
            var key = Looks.as(new ToggleButton(station.name()), "act", "small");
            key.setId("station-" + number++);
            key.setSelected(inHand);
            key.setMinWidth(Region.USE_PREF_SIZE);
            key.setOnAction(press -> {
                key.setSelected(true);
                keep.accept(b -> b.taking(station.name()));
            });
            getChildren().add(key);
        }
        getChildren().add(SetupPage.act("station-add", texts.get("bench.station.add"),
                () -> keep.accept(b -> more(b, texts))));
        if (bench.stations().size() > 1) {
            getChildren().add(SetupPage.act("station-remove",
                    texts.get("bench.station.remove", bench.air().name()),
                    () -> keep.accept(StationKeys::less)));
        }
    }

    /** One more that begins as the one in hand is, and is in hand at once, for what it is like is said next. */
    static Bench more(Bench bench, Texts texts) {
        int n = 2;
        while (bench.has(texts.get("bench.station.new", n))) {
            n++;
        }
        String name = texts.get("bench.station.new", n);
        return bench.adding(bench.air().another(name)).taking(name);
    }

    /** The one in hand goes; the next is taken. */
    private static Bench less(Bench bench) {
        String going = bench.air().name();
        return bench.taking(bench.equipment().stations().getFirst().name()).without(going);
    }
}
