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
    /** A ball on a pad of three quarters of its diameter: part of the diameter that it stands high. */
    private static final double HEIGHT_PART = 0.5 + Math.sqrt(0.25 - 0.375 * 0.375);

    private BeadJudge() {
    }

    static BeadVerdict of(BeadMap map, List<BeadReport.Seen> seen, List<BeadReport.Stray> strays,
            double usualMm,
            double spreadPct, boolean doubted) {
        Map<String, Integer> at = BeadCheck.index(map.sites());
        var todo = new ArrayList<BeadVerdict.Todo>();
        double least = Double.MAX_VALUE;
        double most = 0;
        int unknown = 0;
        int moved = 0;
        int bridged = 0;
        int bad = 0;
        for (BeadReport.Seen s : seen) {
            Site site = map.sites().get(at.get(s.site()));
            double nominal = site.diameterMm().orElse(usualMm);
            if (s.state() == BeadState.OK) {
                least = Math.min(least, s.diameterMm().orElse(nominal));
                most = Math.max(most, s.diameterMm().orElse(nominal));
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
            act = BeadVerdict.Act.STRIP;
        } else if (bad == 0 && (unknown > 0 || doubted)) {
            act = BeadVerdict.Act.LOOK_AGAIN;
        } else if (bad == 0 && strays.isEmpty()) {
            act = BeadVerdict.Act.GOOD;
        } else {
            act = bad > 0 && bad == moved ? BeadVerdict.Act.SETTLE : BeadVerdict.Act.TOUCH_UP;
        }
        return new BeadVerdict(act, todo, most > 0 ? (most - least) * HEIGHT_PART : 0);
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
