package org.greenbead.core.inspect;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/**
 * Counts and measures the balls of a chip from a photo. Limits that name no source are judgement: set where rendered photos with known truth
 * were told apart, with room on both sides. Stateless.
 */
public final class BeadCheck {
    /** Diameter and place beyond which a ball is no good: parts of its nominal diameter and of the pitch. Middle of what is surely good and surely bad. */
    public static final double DIAMETER_LIMIT = 0.12;
    public static final double OFFSET_LIMIT = 0.1;
    private static final double LEAST_MATCH = 0.62;
    private static final double SURE_MATCH = 0.93;
    private static final double CLEARLY_MORE = 0.03;

    private BeadCheck() {
    }

    /** @throws UnclearPhotoException when the photo cannot be judged; nothing is guessed */
    public static BeadReport of(Raster picture, BeadMap map) throws UnclearPhotoException {
        return of(picture, map, Optional.of(PhotoJudge.shipped()));
    }

    /** @param judge the learned judge; empty = outlines and limits alone, for comparing */
    public static BeadReport of(Raster picture, BeadMap map, Optional<PhotoJudge> judge)
            throws UnclearPhotoException {
        return of(picture, map, true, judge);
    }

    /** @param strict refuse what cannot be judged; a first look at an unknown field is content with less */
    static BeadReport of(Raster picture, BeadMap map, boolean strict, Optional<PhotoJudge> judge)
            throws UnclearPhotoException {
        Placed placed = found(picture, map);
        // Only the field and a little round it are looked at from here on.
        var all = new Field(map.sites(), placed.projection(), map.sites().size() > 1 ? map.pitchMm() : 1, 1,
                1);
        double room = 2.2 * all.pitchMm() * all.scale(map.sites().getFirst());
        int left = (int) Math.clamp(map.sites().stream().mapToDouble(all::x).min().orElse(0) - room, 0,
                picture.width() - 64);
        int top = (int) Math.clamp(map.sites().stream().mapToDouble(all::y).min().orElse(0) - room, 0,
                picture.height() - 64);
        int right = (int) Math.clamp(map.sites().stream().mapToDouble(all::x).max().orElse(0) + room,
                left + 64,
                picture.width());
        int low = (int) Math.clamp(map.sites().stream().mapToDouble(all::y).max().orElse(0) + room, top + 64,
                picture.height());
        return new Survey(picture.cut(left, top, right - left, low - top), map,
                new Placed(placed.projection().cut(left, top), placed.mark(), placed.pale()), judge)
                .report(strict)
                .moved(left, top);
    }

    /**
     * By bright balls. Where those do not meet the map well it is tried by what mirrors light and dark at once: between balls that are no brighter than
     * their board, the gaps are a field of their own that meets most of a map.
     */
    private static Placed found(Raster picture, BeadMap map) throws UnclearPhotoException {
        var bright = new Lattice(picture.darkest(), map, 1);
        List<Lattice.Found> turns = bright.turns();
        if (!sure(turns, map)) {
            var busy = new Lattice(picture.busy(), map, 1);
            List<Lattice.Found> other = busy.turns();
            if (score(other) > score(turns) + CLEARLY_MORE * map.sites().size()) {
                Placed found = placed(picture, busy, other, map);
                return new Placed(found.projection(), found.mark(), true);
            }
        }
        return placed(picture, bright, turns, map);
    }

    private static double score(List<Lattice.Found> turns) {
        return turns.isEmpty() ? 0 : turns.getFirst().score();
    }

    private static boolean sure(List<Lattice.Found> turns, BeadMap map) {
        return score(turns) > SURE_MATCH * map.sites().size();
    }

    /** The map laid on the picture. @param pale by rims, on a board as bright as the balls */
    record Placed(Projection projection, BeadReport.Mark mark, boolean pale) {}

    /**
     * @param bright   plane in which the spots are bright
     * @param sizePart size of a spot as a part of the ball's diameter
     */
    static Placed placed(Raster picture, Plane bright, double sizePart, BeadMap map)
            throws UnclearPhotoException {
        var lattice = new Lattice(bright, map, sizePart);
        return placed(picture, lattice, lattice.turns(), map);
    }

    private static Placed placed(Raster picture, Lattice lattice, List<Lattice.Found> turns, BeadMap map)
            throws UnclearPhotoException {
        int count = map.sites().size();
        if (!sure(turns, map)) {
            Optional<Lattice.Found> other = lattice.mirrored();
            double here = score(turns);
            if (other.isPresent() && other.get().matched() > 0.85
                    && other.get().score() > here + Math.max(3, 0.04 * count)) {
                throw new UnclearPhotoException(UnclearPhotoException.Why.MIRRORED,
                        "the field fits this map only mirrored; the photo or the map is seen from the wrong side. Take the balls from the ball side, or mirror the map");
            }
        }
        if (turns.isEmpty() || turns.getFirst().matched() < LEAST_MATCH
                || turns.getFirst().score() < LEAST_MATCH * 0.8 * count) {
            if (turns.isEmpty() || turns.getFirst().matched() < 0.25) {
                throw new UnclearPhotoException(UnclearPhotoException.Why.NO_FIELD,
                        "no field of balls is found; bring the whole chip into the picture, in focus, filling half of it or more");
            }
            throw new UnclearPhotoException(UnclearPhotoException.Why.WRONG_CHIP,
                    "only " + Math.round(100 * turns.getFirst().matched())
                            + " % of the sites of this map find a ball; it may be another chip, another map, or a photo without focus");
        }
        Lattice.Found best = turns.getFirst();
        double slack = 1.6;
        List<Lattice.Found> alike = turns.stream().filter(t -> t.score() >= best.score() - slack).toList();
        if (alike.size() == 1) {
            return new Placed(best.projection(), BeadReport.Mark.NOT_NEEDED, false);
        }
        PinMark.Answer mark = PinMark.of(picture, map, map.sites().size() > 1 ? map.pitchMm() : 1,
                alike.stream().map(Lattice.Found::projection).toList());
        if (mark.clear()) {
            return new Placed(alike.get(mark.best()).projection(), BeadReport.Mark.SEEN, false);
        }
        boolean only = alike.get(1).score() < best.score() - 1.5;
        return new Placed(best.projection(), only ? BeadReport.Mark.NOT_NEEDED : BeadReport.Mark.NOT_FOUND,
                false);
    }

    static double median(List<Float> values) {
        double[] all = new double[values.size()];
        for (int i = 0; i < all.length; i++) {
            all[i] = values.get(i);
        }
        return median(all);
    }

    static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted.length == 0 ? 0 : sorted[sorted.length / 2];
    }

    static Map<String, Integer> index(List<Site> sites) {
        var at = new HashMap<String, Integer>();
        for (int i = 0; i < sites.size(); i++) {
            at.put(sites.get(i).name(), i);
        }
        return at;
    }
}
