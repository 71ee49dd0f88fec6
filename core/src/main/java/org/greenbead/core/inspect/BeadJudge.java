package org.greenbead.core.inspect;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.greenbead.core.bead.Balls;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;

/** Turns what was seen into what to do. Limits are rules of thumb of the trade. */
final class BeadJudge {
    /** From this part of the field on, touching up takes longer than starting again; also from this many bridges. */
    private static final double STRIP_PART = 0.1;
    private static final int STRIP_LEAST = 6;
    private static final int STRIP_BRIDGED = 9;
    /** Balls that differ more than this came from a bad print. Percent. */
    private static final double STRIP_SPREAD_PCT = 9;
    /** About half the volume of paste is metal. */
    private static final double METAL_PART = 0.5;
    /** Pads are about three quarters of the ball that belongs on them. */
    private static final double PAD_PART = 0.75;

    private BeadJudge() {
    }

    static BeadVerdict of(BeadMap map, List<BeadReport.Seen> seen, List<BeadReport.Stray> strays,
            double usualMm,
            double spreadPct, boolean doubted) {
        Map<String, Integer> at = BeadCheck.index(map.sites());
        var todo = new ArrayList<BeadVerdict.Todo>();
        Standing lowest = null;
        Standing highest = null;
        int unknown = 0;
        int moved = 0;
        int bridged = 0;
        int bad = 0;
        for (BeadReport.Seen s : seen) {
            Site site = map.sites().get(at.get(s.site()));
            double nominal = site.diameterMm().orElse(usualMm);
            if (s.state() == BeadState.OK) {
                Standing one = Standing.of(s.diameterMm().orElse(nominal), s.diameterSdMm(), nominal);
                lowest = lowest == null || one.highMm() < lowest.highMm() ? one : lowest;
                highest = highest == null || one.highMm() > highest.highMm() ? one : highest;
                continue;
            }
            double missing = Balls.sphereMm3(nominal) - s.diameterMm().map(Balls::sphereMm3).orElse(0.0);
            BeadVerdict.Fix fix = switch (s.state()) {
                case MISSING -> BeadVerdict.Fix.ADD_BALL;
                // How much is missing is not known where only the pad round it was measured.
                case SMALL -> s.diameterMm().isPresent() ? BeadVerdict.Fix.ADD_PASTE : BeadVerdict.Fix.LOOK;
                case LARGE -> BeadVerdict.Fix.TAKE_OFF;
                case DISPLACED -> BeadVerdict.Fix.SETTLE;
                case BRIDGED -> BeadVerdict.Fix.PART;
                default -> BeadVerdict.Fix.LOOK;
            };
            boolean paste = fix == BeadVerdict.Fix.ADD_BALL || fix == BeadVerdict.Fix.ADD_PASTE;
            todo.add(new BeadVerdict.Todo(s.site(), s.state(), fix, paste ? missing / METAL_PART : 0,
                    fix == BeadVerdict.Fix.LOOK ? 0 : missing, site.critical(), site.net()));
            unknown += s.state() == BeadState.UNKNOWN ? 1 : 0;
            moved += s.state() == BeadState.DISPLACED ? 1 : 0;
            bridged += s.state() == BeadState.BRIDGED ? 1 : 0;
            bad += s.state() == BeadState.UNKNOWN ? 0 : 1;
        }
        todo.sort(Comparator.<BeadVerdict.Todo>comparingInt(t -> rank(t.critical()))
                .thenComparing(t -> t.fix() == BeadVerdict.Fix.LOOK));
        BeadVerdict.Act act;
        if (bad >= STRIP_LEAST && bad > STRIP_PART * seen.size() || bridged >= STRIP_BRIDGED
                || spreadPct > STRIP_SPREAD_PCT) {
            // A photo that is in doubt itself takes no chip apart.
            act = doubted ? BeadVerdict.Act.LOOK_AGAIN : BeadVerdict.Act.STRIP;
        } else if (bad == 0 && (unknown > 0 || doubted)) {
            act = BeadVerdict.Act.LOOK_AGAIN;
        } else if (bad == 0 && strays.isEmpty()) {
            act = BeadVerdict.Act.GOOD;
        } else {
            act = bad > 0 && bad == moved ? BeadVerdict.Act.SETTLE : BeadVerdict.Act.TOUCH_UP;
        }
        return lowest == null
                ? new BeadVerdict(act, todo, 0, 0)
                : new BeadVerdict(act, todo, highest.highMm() - lowest.highMm(),
                        Math.hypot(highest.sdMm(), lowest.sdMm()));
    }

    /** How high a ball stands over its pad: a sphere cut off where it is as wide as the pad. The pad stays as it is, so a ball grows by more in height than in width. */
    record Standing(double highMm, double sdMm) {
        static Standing of(double diameterMm, double diameterSdMm, double nominalMm) {
            double pad = Math.min(PAD_PART * nominalMm, 0.95 * diameterMm);
            double rise = Math.sqrt(diameterMm * diameterMm - pad * pad);
            return new Standing((diameterMm + rise) / 2, diameterSdMm * (1 + diameterMm / rise) / 2);
        }
    }

    private static int rank(Site.Critical critical) {
        return switch (critical) {
            case ONLY -> 0;
            case UNKNOWN -> 1;
            case MANY -> 2;
            case SPARE -> 3;
        };
    }
}
