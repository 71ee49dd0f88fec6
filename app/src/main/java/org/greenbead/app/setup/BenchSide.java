package org.greenbead.app.setup;

import javafx.geometry.VPos;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import org.greenbead.app.look.HeatColour;
import org.greenbead.app.look.Looks;
import org.greenbead.app.look.Sketch;
import org.greenbead.app.shell.Texts;
import org.greenbead.core.bench.Bench;
import org.greenbead.core.bench.BottomHeater;
import org.greenbead.core.board.Board;
import org.greenbead.core.board.Chip;

/** A bench from the side, to scale along the board: what heats from below, the board, its chip, and every nozzle of the drawer above it. */
final class BenchSide extends Sketch {
    private static final double EDGE = 14;
    private static final double BOARD_HIGH = 7;
    private static final double CHIP_HIGH = 9;
    private static final double NOZZLE_HIGH = 46;
    private static final double AIR_MM = 20;
    /** A plate this thick is drawn, whatever it is. */
    private static final double PLATE_HIGH = 22;
    private static final double LEAST_GAP = 5;
    private final Texts texts;
    private Bench bench;
    private Board board;
    private Chip chip;

    BenchSide(Texts texts, Bench bench, Board board, Chip chip) {
        super(260, 210);
        this.texts = texts;
        setId("bench-side");
        show(bench, board, chip);
    }

    void show(Bench now, Board on, Chip target) {
        bench = now;
        board = on;
        chip = target;
        requestLayout();
    }

    @Override
    protected void draw() {
        double widest = Math.max(board.sizeMm().xMm(), bench.heater().map(h -> h.sizeMm().xMm()).orElse(0.0));
        double perMm = (getWidth() - 2 * EDGE) / widest;
        double middle = getWidth() / 2;
        double boardTop = getHeight() * 0.6;
        double wide = board.sizeMm().xMm() * perMm;
        nozzles(perMm, middle, boardTop - CHIP_HIGH);
        add(Looks.as(new Rectangle(middle - chip.sizeMm().xMm() * perMm / 2, boardTop - CHIP_HIGH,
                chip.sizeMm().xMm() * perMm, CHIP_HIGH), "bench-chip"));
        add(Looks.as(new Rectangle(middle - wide / 2, boardTop, wide, BOARD_HIGH), "bench-board"));
        if (bench.heater().isPresent()) {
            heater(bench.heater().get(), perMm, middle, boardTop + BOARD_HIGH);
        } else {
            centred(texts.get("bench.side.nothing"), middle, boardTop + BOARD_HIGH + 34, "chart-text");
        }
    }

    /** The widest behind, so that each can be told. */
    private void nozzles(double perMm, double middle, double chipTop) {
        double above = Math.max(10, AIR_MM * perMm * 0.6);
        double exit = chipTop - above;
        bench.air().nozzlesMm().stream().sorted(java.util.Comparator.reverseOrder()).forEach(mm -> {
            double half = Math.max(1.5, mm * perMm / 2);
            add(Looks.as(new Polygon(middle - half, exit, middle + half, exit, middle + half * 0.8 + 4,
                    exit - NOZZLE_HIGH, middle - half * 0.8 - 4, exit - NOZZLE_HIGH), "bench-nozzle"));
        });
        double most = bench.air().nozzlesMm().stream().mapToDouble(n -> n).max().orElse(0) * perMm / 2;
        for (double x = middle - most * 0.6; x <= middle + most * 0.6 + 0.1; x += Math.max(6, most * 0.4)) {
            line(x, exit + 3, x, chipTop - 3, "bench-air");
        }
        centred(texts.get("bench.side.air", texts.temp(bench.air().maxC()), Math.round(bench.air().maxLpm())),
                middle, exit - NOZZLE_HIGH - 28, "chart-strong");
        centred(texts.get("bench.side.nozzles", numbers(bench)), middle, exit - NOZZLE_HIGH - 11,
                "chart-text");
    }

    private void heater(BottomHeater heater, double perMm, double middle, double under) {
        double gap = heater.contact() ? 0 : Math.max(LEAST_GAP, heater.gapMm() * perMm);
        double wide = heater.sizeMm().xMm() * perMm;
        var face = new Rectangle(middle - wide / 2, under + gap, wide, PLATE_HIGH);
        face.setArcWidth(6);
        face.setArcHeight(6);
        face.setFill(HeatColour.of(heater.maxC()));
        add(face);
        if (!heater.contact()) {
            double at = middle + Math.min(wide, board.sizeMm().xMm() * perMm) / 2 - 16;
            line(at, under + 1, at, under + gap - 1, "bench-measure");
            text(texts.get("bench.side.mm", number(heater.gapMm())), at + 5, under + gap / 2, "chart-text")
                    .setTextOrigin(VPos.CENTER);
        }
        centred(texts.get("bench.side.heater", texts.temp(heater.maxC()), number(heater.sizeMm().xMm()),
                number(heater.sizeMm().yMm())), middle, under + gap + PLATE_HIGH + 15, "chart-strong");
    }

    private void centred(String words, double middle, double y, String style) {
        Text text = text(words, 0, y, style);
        text.setTextOrigin(VPos.CENTER);
        text.setX(middle - text.getLayoutBounds().getWidth() / 2);
    }

    /** Nozzles as they are written in the drawer. */
    static String numbers(Bench bench) {
        return String.join(", ", bench.air().nozzlesMm().stream().map(BenchSide::number).toList());
    }

    static String number(double value) {
        return value == Math.rint(value) ? Long.toString((long) value) : Double.toString(value);
    }
}
