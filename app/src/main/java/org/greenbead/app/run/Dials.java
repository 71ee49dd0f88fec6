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
import org.greenbead.app.shell.BoardPlan;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.board.ProbePlace;
import org.greenbead.core.board.Side;
import org.greenbead.core.quantity.Quantity;
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
    private final VBox chartCard;
    private final VBox side;
    private final StackPane large = new StackPane();
    private final GridPane tiles = new GridPane();
    private final VBox figures = new VBox(3);
    private Optional<StencilPicture> cut = Optional.empty();
    private final Label heatHead = Looks.label("", "caps");

    Dials() {
        setSpacing(10);
        tiles.setHgap(9);
        for (Tile tile : List.of(joint, top, boardTop, under)) {
            var quarter = new ColumnConstraints();
            quarter.setPercentWidth(25);
            tiles.getColumnConstraints().add(quarter);
            tiles.add(tile, tiles.getColumnCount() - 1, 0);
        }
        chartCard = Looks.as(new VBox(chart), "card");
        VBox.setVgrow(chart, Priority.ALWAYS);
        large.getChildren().add(chartCard);
        HBox.setHgrow(large, Priority.ALWAYS);
        var roomCard = Looks.as(new VBox(6, roomHead, rooms), "card");
        chart.setMinHeight(130);
        var pictures = new StackPane(board, heatTop, heatUnder);
        pictures.setId("heat-now");
        heatHead.setId("heat-head");
        boardCard = Looks.as(new VBox(6, heatHead, pictures), "card");
        VBox.setVgrow(pictures, Priority.ALWAYS);
        VBox.setVgrow(boardCard, Priority.ALWAYS);
        side = new VBox(10, roomCard, boardCard);
        side.setMinWidth(225);
        large.setMinWidth(0);
        side.setPrefWidth(250);
        side.setMaxWidth(300);
        var middle = new HBox(10, large, side);
        VBox.setVgrow(middle, Priority.ALWAYS);
        getChildren().addAll(tiles, middle);
        VBox.setVgrow(this, Priority.ALWAYS);
        board.setMinHeight(60);
        chart.setId("chart");
        rooms.setId("rooms");
    }

    /** Balls are made: the cut through chip and stencil while hands work, the acts beside it all along. */
    void forming(FormingPane pane) {
        var picture = new StencilPicture();
        picture.setId("stencil-cut");
        VBox.setVgrow(picture, Priority.ALWAYS);
        figures.setId("forming-figures");
        var cutCard = Looks.as(new VBox(6, picture, figures), "card");
        large.getChildren().add(cutCard);
        cut = Optional.of(picture);
        boardCard.setVisible(false);
        boardCard.setManaged(false);
        VBox.setVgrow(pane, Priority.ALWAYS);
        side.getChildren().setAll(pane);
        side.setPrefWidth(400);
        side.setMaxWidth(420);
    }

    /** Alloy, sheet, window of release and the heat in short: what the hands may want to know before it is hot. */
    private void figures(RunPlan plan, RunState state, Optional<Rehearsal> rehearsal, Texts texts) {
        figures.getChildren().clear();
        plan.forming().ifPresent(f -> state.forming().ifPresent(view -> {
            var alloy = f.balls();
            figure(texts.get("forming.alloy"),
                    texts.get("forming.alloy.is", alloy.name(), texts.temp(alloy.liquidusC())), texts);
            if (!f.bare()) {
                figure(texts.get("forming.sheet"),
                        texts.words().show(new Quantity.Millimetres(f.thicknessMm())),
                        texts);
                figure(texts.get("forming.slides"), texts.get("forming.slides.is",
                        texts.words().bare(view.window().lowC()), texts.temp(view.window().highC())), texts);
            }
            plan.recipe().stages().stream().flatMap(s -> s.air().stream()).reduce((a, b) -> b)
                    .ifPresent(a -> figure(
                            texts.get("forming.air"),
                            texts.get("forming.air.is", texts.temp(a.setC()), texts.words().show(
                                    plan.bench().air().dial().says(a.flowLpm()))),
                            texts));
            if (plan.onPlate()) {
                plan.recipe().stages().stream().flatMap(s -> s.heaterC().stream()).reduce((a, b) -> b)
                        .ifPresent(c -> figure(texts.get("forming.plate"), texts.temp(c), texts));
            }
            rehearsal.ifPresent(r -> figure(texts.get("forming.time"),
                    texts.get("forming.time.is", Words.clock(r.lengthS())), texts));
        }));
    }

    private void figure(String name, String value, Texts texts) {
        var row = new HBox(8, Looks.label(name, "muted", "small"), Looks.label(value, "text-ink", "strong"));
        ((Label) row.getChildren().getFirst()).setMinWidth(120);
        figures.getChildren().add(row);
    }

    private void cut(RunPlan plan, RunState state) {
        cut.ifPresent(picture -> state.forming().ifPresent(f -> {
            boolean hot = state.hot();
            chartCard.setVisible(hot);
            picture.getParent().setVisible(!hot);
            boolean cold = state.status() == RunState.Status.READY;
            tiles.setVisible(!cold);
            tiles.setManaged(!cold);
            double liquidus = plan.target().joint().alloy().liquidusC();
            double low = state.joint().celsius();
            double high = Math.max(low + 0.1, state.jointHot().celsius());
            picture.show(f.forming(), Math.clamp((high - liquidus) / (high - low), 0, 1));
        }));
    }

    /** With large type the board is left out and the room is said in degrees alone. */
    void compact(boolean compact) {
        boardCard.setVisible(!compact && cut.isEmpty());
        boardCard.setManaged(!compact && cut.isEmpty());
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
        cut(plan, state);
        figures(plan, state, rehearsal, texts);
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
        boolean forms = plan.forming().isPresent();
        joint.show(texts.get(forms ? "run.balls" : "run.joint"), texts.words().bare(state.joint().celsius()),
                sign + " ±" + texts.rise(state.joint().plusMinusK()).replaceAll(" .*", ""), melts, false);
        Room body = state.room().get(1);
        top.show(texts.get("run.top"), texts.words().bare(state.chipTop().celsius()),
                sign + " ±" + texts.rise(state.chipTop().plusMinusK()).replaceAll(" .*", ""),
                texts.get("run.limit", texts.words().bare(body.limitC()), texts.rise(body.leftK())),
                body.leftK() < 0);
        Stage stage = plan.recipe().stages().get(state.stage());
        String off = texts.get(plan.bench().heater().isPresent() ? "run.heater.off" : "run.heater.none");
        String heater = state.hot()
                ? stage.heaterC().map(c -> texts.get("run.asked", texts.temp(c))).orElse(off)
                : off;
        boolean sheet = plan.loose() && plan.forming().filter(f -> !f.bare()).isPresent();
        probe(boardTop, sheet ? "run.sheet" : plan.loose() ? "run.edge" : "run.boardtop",
                RunHistory.probe(plan, Side.TOP), state, forms ? "" : heater, sign, texts);
        if (forms) {
            count(state, texts);
        } else {
            probe(under, "run.under", RunHistory.probe(plan, Side.BOTTOM), state, "", sign, texts);
        }
    }

    /** Seconds that the hands wait for: the count from the first ball, until all are liquid, until they are solid. */
    private void count(RunState state, Texts texts) {
        var view = state.forming().orElseThrow();
        double left = view.countS().orElse(Double.NaN);
        if (state.status() == RunState.Status.SAFE || state.status() == RunState.Status.ENDED) {
            seconds("run.count.soft", view.softS(), "", texts);
        } else if (state.status() == RunState.Status.COOLING) {
            seconds("run.count.solid", state.safeInS(), "", texts);
        } else if (state.status() == RunState.Status.HEATING && !Double.isNaN(left)) {
            String late = view.lateS().isEmpty()
                    ? ""
                    : texts.get(view.lateS().getAsDouble() > 0
                            ? "run.count.late"
                            : "run.count.early", Math.round(Math.abs(view.lateS().getAsDouble())));
            seconds("run.count", java.util.OptionalDouble.of(Math.max(0, left)), late, texts);
        } else {
            seconds("run.count.liquid", state.meltsInS(), "", texts);
        }
    }

    private void seconds(String title, java.util.OptionalDouble left, String foot, Texts texts) {
        under.show(texts.get(title), left.isPresent() ? Long.toString(Math.round(left.getAsDouble())) : "–",
                "s",
                foot, false);
    }

    private static void probe(Tile tile, String title, Optional<ProbePlace> place, RunState state,
            String foot, String sign, Texts texts) {
        ProbeView view = place.map(p -> state.probes().get(p.name())).orElse(null);
        if (view == null) {
            boolean byEye = state.standing().byEye();
            tile.show(texts.get(title), "–", sign,
                    byEye
                            ? texts.get("run.no_probe_tile") + (foot.isEmpty() ? "" : " · " + foot)
                            : texts.get("run.probe.silent"),
                    !byEye);
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
            case JUMPED -> tile.show(texts.get(title), texts.words().bare(view.celsius()), sign,
                    texts.get("run.probe.jumped"), true);
            case IMPOSSIBLE -> tile.show(texts.get(title), "–", sign, texts.get("run.probe.impossible"),
                    true);
            case SILENT ->
                tile.show(texts.get(title), "–", sign, texts.get("run.probe.silent"), state.timeS() > 5);
        }
    }
}
