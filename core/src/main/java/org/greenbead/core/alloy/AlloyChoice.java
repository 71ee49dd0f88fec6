package org.greenbead.core.alloy;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Which alloy for the balls, by what the joint has to live through. Eutectic tin-lead is ductile and wide in its window; bismuth alloys
 * crack when dropped or bent and creep when warm; as built keeps what was proved. Judgement of the trade over the window of joint
 * temperatures.
 */
public final class AlloyChoice {
    /** Joints are made 15 to 30 K over the liquidus; the package keeps 5 K below its rating. Rules of thumb. */
    private static final double LEAST_OVER_K = 15;
    private static final double MOST_OVER_K = 30;
    private static final double BODY_ROOM_K = 5;
    /** Ranges of one alloy differ by this much from table to table: a neighbour of the same solder does not melt before. */
    private static final double SAME_K = 1;

    private AlloyChoice() {
    }

    /** What the joint has to live through. */
    public enum Duty {
        PORTABLE, FIXED, SCRAP
    }

    /** What speaks for or against; words {@code alloyword.<word>}. */
    public enum Word {
        AS_BUILT, DUCTILE, NEEDS_CONSENT, LEAD, BRITTLE, NO_WINDOW, MEETS_LEAD, MEETS_BISMUTH, NEIGHBOURS_MELT, PASTY, LOW_HEAT, HARD_TO_FORM, FORGIVING
    }

    /**
     * One alloy.
     *
     * @param fromC  coolest sensible joint peak, °C
     * @param toC    hottest, °C; below {@code fromC} when there is no window
     * @param rank   the lower the better; 100 and more = not for this job
     */
    public record Option(String alloy, double fromC, double toC, int rank, List<Word> words) {
        public Option {
            words = List.copyOf(words);
        }

        public boolean possible() {
            return rank < 100;
        }
    }

    /** Many balls of an alloy that needs this much heat ask for this level of practice; rules of thumb, as the rule book has them. */
    private static final double HARD_FROM_C = 200;
    private static final int MANY_BALLS = 300;
    private static final int LEVEL_FOR_MANY = 3;

    /**
     * Whose hands form the balls.
     *
     * @param level 1 a learner, 2 with practice, 3 and more able; 0 = not noted, which speaks neither for nor against
     * @param balls of the chip; 0 = not noted
     */
    public record Hands(int level, int balls) {
        public static final Hands UNKNOWN = new Hands(0, 0);

        boolean few(double liquidusC) {
            return level > 0 && level < LEVEL_FOR_MANY && balls > MANY_BALLS && liquidusC > HARD_FROM_C;
        }
    }

    /**
     * @param factory        alloy it was built with
     * @param bodyLimitC     rated peak of the package, °C
     * @param padsPb         lead left on the pads, percent
     * @param padsBi         bismuth left on the pads, percent
     * @param neighbourC     lowest solidus of joints close by, °C; NaN = not known
     * @param leadConsented  the customer agreed to lead
     * @param hands          who forms the balls
     * @return the best first
     */
    public static List<Option> of(String factory, Duty duty, double bodyLimitC, double padsPb, double padsBi,
            double neighbourC, boolean leadConsented, Hands hands) {
        var options = new ArrayList<Option>();
        for (String name : List.of(MeltingTable.standard().require(factory).name(), "Sn63Pb37", "SAC305",
                "Sn62Pb36Ag2", "Sn42Bi58", "Sn42Bi57Ag1")) {
            if (options.stream().noneMatch(o -> o.alloy().equals(name))) {
                options.add(option(MeltingTable.standard().require(name), factory, duty, bodyLimitC, padsPb,
                        padsBi, neighbourC, leadConsented, hands));
            }
        }
        options.sort(Comparator.comparingInt(Option::rank));
        return List.copyOf(options);
    }

    private static Option option(MeltingTable.Row row, String factory, Duty duty, double bodyLimitC,
            double padsPb, double padsBi, double neighbourC, boolean leadConsented, Hands hands) {
        var words = new ArrayList<Word>();
        boolean lead = row.made().pct("Pb") > 0;
        boolean bismuth = row.made().pct("Bi") > 0;
        int rank = 10;
        double from = row.liquidusC() + LEAST_OVER_K;
        double to = Math.min(row.liquidusC() + MOST_OVER_K, bodyLimitC - BODY_ROOM_K);
        if (row.name().equals(MeltingTable.standard().require(factory).name())) {
            words.add(Word.AS_BUILT);
            rank -= 6;
        }
        if (to < from) {
            words.add(Word.NO_WINDOW);
            rank += 100;
        }
        if (lead) {
            words.add(Word.LEAD);
            if (!row.name().equals(MeltingTable.standard().require(factory).name())) {
                words.add(leadConsented ? Word.DUCTILE : Word.NEEDS_CONSENT);
                rank += leadConsented ? -2 : 20;
            }
            if (padsBi >= Dilution.TRACE_BI_PCT) {
                words.add(Word.MEETS_BISMUTH);
                rank += 100;
            }
        }
        if (bismuth) {
            words.add(Word.LOW_HEAT);
            if (duty != Duty.SCRAP) {
                words.add(Word.BRITTLE);
                rank += duty == Duty.PORTABLE ? 100 : 40;
            } else {
                rank -= 8;
            }
            if (padsPb >= Dilution.TRACE_PB_PCT) {
                words.add(Word.MEETS_LEAD);
                rank += 100;
            }
        }
        if (row.liquidusC() - row.solidusC() > 10) {
            words.add(Word.PASTY);
            rank += 5;
        }
        if (Double.isFinite(neighbourC) && neighbourC < row.liquidusC() - SAME_K) {
            words.add(Word.NEIGHBOURS_MELT);
            rank += 4;
        }
        if (hands.few(row.liquidusC())) {
            words.add(Word.HARD_TO_FORM);
            rank += 6;
        } else if (hands.level() == 1 && row.liquidusC() - row.solidusC() < 1) {
            words.add(Word.FORGIVING);
            rank -= 1;
        }
        return new Option(row.name(), from, to, rank, words);
    }
}
