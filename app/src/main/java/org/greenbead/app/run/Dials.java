package org.greenbead.app.run;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.control.Label;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.greenbead.app.heat.HeatPicture;
import org.greenbead.app.look.Looks;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Words;
import org.greenbead.core.recipe.Stage;
import org.greenbead.core.run.ProbeView;
import org.greenbead.core.run.Rehearsal;
import org.greenbead.core.run.Room;
import org.greenbead.core.run.RunPlan;
import org.greenbead.core.run.RunState;
import org.greenbead.core.thermal.HeatField;

/** The tiles, the chart, the room left and the board: the same for a live run and for a replay. */
final class Dials extends VBox {
    private static final int MOST_ROOMS = 6;
    private final Tile joint = new Tile("tile-joint", "ink-joint");
    private final Tile top = new Tile("tile-top", "ink-hot");
    private final Tile boardTop = new Tile("tile-board-top", "ink-green");
    private final Tile under = new Tile("tile-board-under", "ink-tin");
    private final HeatChart chart = new HeatChart();
    private final RoomBars rooms = new RoomBars();
    private final BoardPlan board = new BoardPlan();
    private final HeatPicture heatTop = new HeatPicture(Side.TOP, true);
    private final HeatPicture heatUnder = new HeatPicture(Side.BOTTOM, true);
    private Side heatSide = Side.TOP;
    private Optional<HeatField> heat = Optional.empty();
    private final Label roomHead = Looks.label("", "caps");
    private final VBox boardCard;
    private final Label heatHead = Looks.label("", "caps");

    Dials() {
        setSpacing(10);
        var tiles = new GridPane();
        tiles.setHgap(9);
        for (Tile tile : List.of(joint, top, boardTop, under)) {
            var quarter = new ColumnConstraints();
            quarter.setPercentWidth(25);
            tiles.getColumnConstraints().add(quarter);
            tiles.add(tile, tiles.getColumnCount() - 1, 0);
        }
        var chartCard = Looks.as(new VBox(chart), "card");
        VBox.setVgrow(chart, Priority.ALWAYS);
        HBox.setHgrow(chartCard, Priority.ALWAYS);
        var roomCard = Looks.as(new VBox(6, roomHead, rooms), "card");
        chart.setMinHeight(130);
        var pictures = new StackPane(board, heatTop, heatUnder);
        pictures.setId("heat-now");
        heatHead.setId("heat-head");
        boardCard = Looks.as(new VBox(6, heatHead, pictures), "card");
        VBox.setVgrow(pictures, Priority.ALWAYS);
        VBox.setVgrow(boardCard, Priority.ALWAYS);
        var side = new VBox(10, roomCard, boardCard);
        side.setMinWidth(225);
        chartCard.setMinWidth(0);
        side.setPrefWidth(250);
        side.setMaxWidth(300);
        var middle = new HBox(10, chartCard, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        getChildren().addAll(tiles, middle);
        VBox.setVgrow(this, Priority.ALWAYS);
        board.setMinHeight(60);
        chart.setId("chart");
        rooms.setId("rooms");
    }

    /** With large type the board is left out and the room is said in degrees alone. */
    void compact(boolean compact) {
        boardCard.setVisible(!compact);
        boardCard.setManaged(!compact);
        rooms.compact(compact);
    }

    /** What a side of the board is held to look like, for the next drawing; empty shows the plain board. */
    void heat(Side side, Optional<HeatField> field) {
        heatSide = side;
        heat = field;
    }

    /** @param upTo how many states of the history are drawn */
    void show(RunPlan plan, RunState state, RunHistory history, int upTo, Optional<Rehearsal> rehearsal,
            Texts texts) {
        tiles(plan, state, texts);
        chart.show(history.chart(plan, upTo, rehearsal, true, texts));
        roomHead.setText(texts.get("run.room"));
        rooms.show(closest(state.room()), false, texts);
        Map<String, Double> parts = new HashMap<>();
        // The room list begins with the joints, then the body, the other chips and the parts, in the board's order.
        parts.put(plan.target().name(), state.jointHot().celsius());
        int at = 2;
        for (var chip : plan.board().chips()) {
            if (!chip.name().equals(plan.target().name()) && at < state.room().size()) {
                parts.put(chip.name(), state.room().get(at++).nowC());
            }
        }
        for (var part : plan.board().parts()) {
            if (at < state.room().size()) {
                parts.put(part.name(), state.room().get(at++).nowC());
            }
        }
        boolean shown = heat.isPresent();
        board.setVisible(!shown);
        heatTop.setVisible(shown && heatSide == Side.TOP);
        heatUnder.setVisible(shown && heatSide == Side.BOTTOM);
        heatHead.setText(texts.get(heatSide == Side.TOP ? "run.heat" : "run.heat.under"));
        if (shown) {
            double solidus = plan.target().joint().alloy().solidusC();
            List<Room> rooms = state.room().subList(1, state.room().size());
            double lowest = rooms.stream().skip(1).mapToDouble(Room::limitC).min().orElse(solidus);
            (heatSide == Side.TOP ? heatTop : heatUnder).show(plan, heat.get(), rooms,
                    new double[]{solidus, lowest}, texts);
        } else {
            board.show(plan, parts, texts);
        }
    }

    /** The joints that must melt and the body, then the parts with the least room; the verdict and the recipe list all of them. */
    private static List<Room> closest(List<Room> all) {
        var shown = new ArrayList<>(all.subList(0, 2));
        all.stream().skip(2)
                .sorted(Comparator.comparingDouble(
                        r -> Math.min(r.leftK(), Double.isFinite(r.peakC()) ? r.leftAtPeakK() : r.leftK())))
                .limit(MOST_ROOMS - 2)
                .sorted(Comparator.comparingInt(all::indexOf)).forEach(shown::add);
        return shown;
    }

    private void tiles(RunPlan plan, RunState state, Texts texts) {
        String sign = texts.words().unit().sign();
        double liquidus = plan.target().joint().alloy().liquidusC();
        String melts = state.joint().celsius() >= liquidus
                ? texts.get("run.molten", Words.clock(state.aboveS()))
                : state.meltsInS().isPresent()
                        ? texts.get("run.melts.in", texts.words().bare(liquidus),
                                Words.clock(state.meltsInS().getAsDouble()))
                        : texts.get("run.melts", texts.temp(liquidus));
        joint.show(texts.get("run.joint"), texts.words().bare(state.joint().celsius()),
                sign + " ±" + texts.rise(state.joint().plusMinusK()).replaceAll(" .*", ""), melts, false);
        Room body = state.room().get(1);
        top.show(texts.get("run.top"), texts.words().bare(state.chipTop().celsius()),
                sign + " ±" + texts.rise(state.chipTop().plusMinusK()).replaceAll(" .*", ""),
                texts.get("run.limit", texts.words().bare(body.limitC()), texts.rise(body.leftK())),
                body.leftK() < 0);
        Stage stage = plan.recipe().stages().get(state.stage());
        String heater = state.hot()
                ? stage.heaterC().map(c -> texts.get("run.asked", texts.temp(c)))
                        .orElse(texts.get("run.heater.off"))
                : texts.get("run.heater.off");
        probe(boardTop, "run.boardtop", RunHistory.probe(plan, Side.TOP), state, heater, sign, texts);
        probe(under, "run.under", RunHistory.probe(plan, Side.BOTTOM), state, "", sign, texts);
    }

    private static void probe(Tile tile, String title, Optional<ProbePlace> place, RunState state,
            String foot, String sign, Texts texts) {
        ProbeView view = place.map(p -> state.probes().get(p.name())).orElse(null);
        if (view == null) {
            tile.show(texts.get(title), "–", sign, texts.get("run.probe.silent"), true);
            return;
        }
        String ramp = texts.rate(view.rampKPerS());
        switch (view.health()) {
            case GOOD -> tile.show(texts.get(title), texts.words().bare(view.celsius()), sign,
                    foot.isEmpty() ? ramp : foot + (ramp.isEmpty() ? "" : " · " + ramp), false);
            case OPEN -> tile.show(texts.get(title), "–", sign, texts.get("run.probe.open"), true);
            case FROZEN -> tile.show(texts.get(title), texts.words().bare(view.celsius()), sign,
                    texts.get("run.probe.frozen"), true);
            case DISAGREES -> tile.show(texts.get(title), texts.words().bare(view.celsius()), sign,
                    texts.get("run.probe.disagrees"), true);
            case SILENT ->
                tile.show(texts.get(title), "–", sign, texts.get("run.probe.silent"), state.timeS() > 5);
        }
    }
}
