package org.greenbead.core.run;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;
import org.greenbead.core.board.Side;
import org.greenbead.core.thermal.HeatField;
import org.greenbead.core.thermal.HeatModel;
import org.greenbead.core.thermal.Resolution;
import org.greenbead.core.thermal.SheetModel;

/**
 * Both sides of the board over a whole rehearsal, on the full model.
 *
 * @param rehearsal rows and marks of the same heating
 * @param frames    one every {@link #EVERY_S}
 */
public record HeatFilm(Rehearsal rehearsal, List<Frame> frames) {
    public static final double EVERY_S = 2;

    /** One picture. */
    public record Frame(double timeS, HeatField top, HeatField bottom) {
        public HeatField of(Side side) {
            return side == Side.TOP ? top : bottom;
        }
    }

    public HeatFilm {
        frames = List.copyOf(frames);
    }

    public static HeatFilm of(RunPlan plan, BooleanSupplier cancelled) {
        var frames = new ArrayList<Frame>();
        var model = new SheetModel(plan.scene(), plan.knowledge().mean(), Resolution.FULL);
        Rehearsal rehearsal = Rehearsal.of(plan, model, cancelled, m -> {
            if (frames.isEmpty() || m.timeS() - frames.getLast().timeS() >= EVERY_S - 1e-6) {
                frames.add(frame(m));
            }
        });
        return new HeatFilm(rehearsal, frames);
    }

    private static Frame frame(HeatModel model) {
        return new Frame(model.timeS(), model.field(Side.TOP), model.field(Side.BOTTOM));
    }

    /** The picture nearest to a time. */
    public Frame at(double timeS) {
        return frames.get((int) Math.clamp(Math.round(timeS / EVERY_S), 0, frames.size() - 1));
    }

    /** Row of the rehearsal nearest to a time. */
    public Rehearsal.Row row(double timeS) {
        List<Rehearsal.Row> rows = rehearsal.rows();
        return rows.get((int) Math.clamp(Math.round(timeS), 0, rows.size() - 1));
    }

    /** What each protected part has at a time, with its room, in the order of the plan. */
    public static List<Room> rooms(RunPlan plan, Rehearsal.Row row) {
        List<Protected> parts = Protected.of(plan);
        return IntStream.range(0, parts.size())
                .mapToObj(i -> new Room(parts.get(i).what(), parts.get(i).kind(), row.guardedC()[i],
                        row.guardedC()[i],
                        parts.get(i).limitC()))
                .toList();
    }
}
