package org.greenbead.worlds;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.bead.Site;
import org.greenbead.core.inspect.BeadState;

/**
 * What stands on a chip, in millimetres seen from the balls: what all worlds draw, each in its own way. Deviations up to 8.5 % of the diameter
 * and 5 % of the pitch are good, from 15 % and 15.5 % on faults; what lies between is named and counts for nothing when a check is scored.
 *
 * @param balls   by the name of their site; a missing ball has none
 * @param necks   solder between two sites
 * @param truth   state of every site
 * @param between sites whose ball is neither surely good nor surely bad
 */
public record ChipScene(BeadMap map, Map<String, Ball> balls, List<Neck> necks, List<Ball> strays,
        Map<String, BeadState> truth, Set<String> between) {
    private static final double[][] PITCH_BALL_MM = {{0.35, 0.22}, {0.4, 0.25}, {0.5, 0.3}, {0.65, 0.4},
            {0.8, 0.45}, {0.8, 0.5}, {1.0, 0.5}, {1.0, 0.6}, {1.27, 0.76}};
    private static final double GOOD_SIZE = 0.085;
    private static final double GOOD_PLACE = 0.05;
    private static final double BAD_SIZE = 0.15;
    private static final double BAD_PLACE = 0.155;
    private static final double MIDDLE_SIZE = 0.12;
    private static final double MIDDLE_PLACE = 0.1;

    /** A ball of solder; all lengths mm. */
    public record Ball(double xMm, double yMm, double diameterMm) {}

    /** Solder from one site to another. @param widthMm at its thinnest */
    public record Neck(String from, String to, double widthMm) {}

    /** How a scene is drawn by lot. @param least, @param most sites along a side, @param faults part of the sites, @param strays balls where none belongs, in the mean */
    public record Lot(int least, int most, double faults, double strays) {}

    public static ChipScene drawn(Random random, Lot lot) {
        BeadMap map = field(random, lot);
        double pitch = map.pitchMm();
        double all = 1 + 0.012 * random.nextGaussian();
        var balls = new HashMap<String, Ball>();
        var truth = new HashMap<String, BeadState>();
        var between = new HashSet<String>();
        for (Site s : map.sites()) {
            place(random, lot, s, pitch, all, balls, truth, between);
        }
        List<Neck> necks = necks(random, lot, map, pitch, balls, truth, between);
        var strays = new ArrayList<Ball>();
        int most = Math.max(3, (int) Math.ceil(lot.strays()));
        for (int i = 0; i < most; i++) {
            if (random.nextDouble() < lot.strays() / most) {
                stray(random, map, pitch, balls).ifPresent(strays::add);
            }
        }
        return new ChipScene(map, balls, necks, strays, truth, between);
    }

    private static BeadMap field(Random random, Lot lot) {
        double[] kind = PITCH_BALL_MM[random.nextInt(PITCH_BALL_MM.length)];
        int rows = lot.least() + random.nextInt(lot.most() - lot.least() + 1);
        int columns = lot.least() + random.nextInt(lot.most() - lot.least() + 1);
        double ball = kind[1] * (0.95 + 0.1 * random.nextDouble());
        BeadMap map = BeadMap.grid(rows, columns, kind[0], Optional.of(ball));
        double what = random.nextDouble();
        if (what < 0.12) {
            // Every second site of a field of 0.71 pitches: rows stand between one another.
            BeadMap fine = BeadMap.grid(rows, columns, kind[0] / Math.sqrt(2), Optional.empty());
            var kept = new ArrayList<Site>();
            for (int i = 0; i < fine.sites().size(); i++) {
                Site s = fine.sites().get(i);
                if ((i / columns + i % columns) % 2 == 0) {
                    kept.add(new Site(s.name(), s.xMm(), s.yMm(), Optional.of(ball), "",
                            Site.Critical.UNKNOWN));
                }
            }
            return new BeadMap(kept);
        }
        int r0 = Math.min(rows, columns) < 6 ? 0 : 2 + random.nextInt(Math.min(rows, columns) / 2 - 2);
        if (what < 0.3 && r0 > 0) {
            map = map.without(RowNames.site(r0, r0), RowNames.site(rows - 1 - r0, columns - 1 - r0));
        } else if (what < 0.5) {
            var kept = new ArrayList<>(map.sites());
            double part = 0.1 * random.nextDouble();
            kept.removeIf(s -> random.nextDouble() < part);
            map = kept.size() < 6 ? map : new BeadMap(kept);
        }
        if (random.nextDouble() < 0.4 && map.site("A1").isPresent() && map.sites().size() > 12) {
            map = map.without("A1", "A1");
        }
        return map;
    }

    private static void place(Random random, Lot lot, Site s, double pitch, double all,
            Map<String, Ball> balls,
            Map<String, BeadState> truth, Set<String> between) {
        double nominal = s.diameterMm().orElseThrow();
        double most = Math.min(1.4, 0.97 * pitch / nominal);
        double size = Math.clamp(all + 0.02 * random.nextGaussian(), 1 - GOOD_SIZE, 1 + GOOD_SIZE);
        double off = Math.min(GOOD_PLACE, 0.018 * Math.abs(random.nextGaussian()));
        BeadState state = BeadState.OK;
        if (random.nextDouble() < lot.faults()) {
            double kind = random.nextDouble();
            if (kind < 0.26) {
                state = BeadState.MISSING;
            } else if (kind < 0.44) {
                state = BeadState.SMALL;
                double less = random.nextDouble();
                size = 1 - BAD_SIZE - 0.4 * less * less;
            } else if (kind < 0.6 && most > 1 + BAD_SIZE + 0.01) {
                state = BeadState.LARGE;
                size = 1 + BAD_SIZE + (most - 1 - BAD_SIZE) * random.nextDouble();
            } else if (kind < 0.78) {
                state = BeadState.DISPLACED;
                off = BAD_PLACE + 0.15 * random.nextDouble();
            } else if (kind < 0.9) {
                size = 1 + (random.nextBoolean() ? 1 : -1)
                        * (GOOD_SIZE + (BAD_SIZE - GOOD_SIZE) * random.nextDouble());
                state = size < 1 - MIDDLE_SIZE
                        ? BeadState.SMALL
                        : size > 1 + MIDDLE_SIZE ? BeadState.LARGE : BeadState.OK;
                between.add(s.name());
            } else {
                off = GOOD_PLACE + (BAD_PLACE - GOOD_PLACE) * random.nextDouble();
                state = off > MIDDLE_PLACE ? BeadState.DISPLACED : BeadState.OK;
                between.add(s.name());
            }
        }
        truth.put(s.name(), state);
        if (state != BeadState.MISSING) {
            double way = 2 * Math.PI * random.nextDouble();
            balls.put(s.name(), new Ball(s.xMm() + off * pitch * Math.cos(way),
                    s.yMm() + off * pitch * Math.sin(way), size * nominal));
        }
    }

    private static List<Neck> necks(Random random, Lot lot, BeadMap map, double pitch,
            Map<String, Ball> balls,
            Map<String, BeadState> truth, Set<String> between) {
        var necks = new ArrayList<Neck>();
        for (Site s : map.sites()) {
            if (!balls.containsKey(s.name()) || random.nextDouble() > 0.13 * lot.faults()) {
                continue;
            }
            List<Site> near = map.sites().stream()
                    .filter(o -> o != s && o.distanceMm(s) < 1.15 * pitch && balls.containsKey(o.name()))
                    .toList();
            if (near.isEmpty()) {
                continue;
            }
            Site other = near.get(random.nextInt(near.size()));
            double width = s.diameterMm().orElseThrow() * (0.18 + 0.45 * random.nextDouble());
            necks.add(new Neck(s.name(), other.name(), width));
            truth.put(s.name(), BeadState.BRIDGED);
            truth.put(other.name(), BeadState.BRIDGED);
            between.remove(s.name());
            between.remove(other.name());
        }
        return necks;
    }

    private static Optional<Ball> stray(Random random, BeadMap map, double pitch, Map<String, Ball> balls) {
        for (int attempt = 0; attempt < 20; attempt++) {
            Site s = map.sites().get(random.nextInt(map.sites().size()));
            double d = s.diameterMm().orElseThrow() * (0.18 + 0.35 * random.nextDouble());
            double x = s.xMm() + pitch * (random.nextDouble() * 1.6 - 0.8);
            double y = s.yMm() + pitch * (random.nextDouble() * 1.6 - 0.8);
            boolean free = balls.values().stream()
                    .allMatch(b -> Math.hypot(b.xMm() - x, b.yMm() - y) > (b.diameterMm() + d) / 2
                            + 0.04 * pitch);
            if (free) {
                return Optional.of(new Ball(x, y, d));
            }
        }
        return Optional.empty();
    }

    /** Half a side of the body, field and margin, mm. */
    double halfMm(boolean across) {
        return map.sites().stream().mapToDouble(s -> Math.abs(across ? s.xMm() : s.yMm())).max().orElse(1)
                + 1.3 * map.pitchMm();
    }

    public double usualMm() {
        return map.sites().getFirst().diameterMm().orElseThrow();
    }

    /** Neighbours that solder joins to a site. */
    public List<String> joined(String site) {
        return necks.stream().filter(n -> n.from().equals(site) || n.to().equals(site))
                .map(n -> n.from().equals(site) ? n.to() : n.from()).toList();
    }
}
