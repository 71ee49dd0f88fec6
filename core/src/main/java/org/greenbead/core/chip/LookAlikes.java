package org.greenbead.core.chip;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Chips that a hand can take for one another, and the question that keeps them apart: the label is asked for before one is lifted, reballed or placed. */
public final class LookAlikes {
    private LookAlikes() {
    }

    /** Beads at which a chip is taken in hand to be lifted, balled or placed. */
    private static final List<String> IN_HAND = List.of("prepare_orientation", "bead_align", "spheres_seat",
            "seat_place");

    /** Whether a chip is taken in hand at a bead, so that its label is asked for first where others look like it. */
    public static boolean takenInHand(String beadId) {
        return IN_HAND.contains(beadId);
    }

    /** What a label that was typed or scanned says of the chip that is wanted. */
    public enum Answer {
        RIGHT, OTHER_CHIP, UNKNOWN_LABEL, NO_LABEL
    }

    /** Loose or fitted, not gone, and of the same part, or of the same size and number of balls where both are noted. */
    public static List<StockChip> of(StockChip chip, List<StockChip> all) {
        return all.stream()
                .filter(o -> !o.label().equals(chip.label()) && o.place() != StockChip.Place.GONE)
                .filter(o -> o.part().equalsIgnoreCase(chip.part())
                        || chip.pads() > 0 && o.pads() == chip.pads()
                                && chip.sideMm() > 0 && Math.abs(o.sideMm() - chip.sideMm()) < 0.5)
                .sorted(Comparator.comparing(StockChip::label)).toList();
    }

    /** The chip of a job that is worked now: of its target's part, or the only one. */
    public static Optional<StockChip> wanted(String jobId, String part, List<StockChip> all) {
        List<StockChip> ours = all.stream().filter(c -> c.job().equals(Optional.of(jobId))
                && c.place() != StockChip.Place.GONE).toList();
        return ours.stream().filter(c -> c.part().equalsIgnoreCase(part)).findFirst()
                .or(() -> ours.size() == 1 ? Optional.of(ours.getFirst()) : Optional.empty());
    }

    /**
     * The chips of a job that may be the one in hand: the one of its target's part, else every one it has, because nothing then says which.
     */
    public static List<StockChip> mayBe(String jobId, String part, List<StockChip> all) {
        return wanted(jobId, part, all).map(List::of)
                .orElseGet(() -> all.stream().filter(c -> c.job().equals(Optional.of(jobId))
                        && c.place() != StockChip.Place.GONE)
                        .sorted(Comparator.comparing(StockChip::label)).toList());
    }

    /** What a hand could take for the chip of a job, the chip itself left out where it is known; empty where there is nothing to confuse. */
    public static List<StockChip> confused(List<StockChip> mayBe, List<StockChip> all) {
        return mayBe.size() == 1 ? of(mayBe.getFirst(), all) : mayBe;
    }

    /** What a label says where one of several chips may be meant. */
    public static Answer answer(List<StockChip> mayBe, String typed, List<StockChip> all) {
        List<Answer> answers = mayBe.stream().map(c -> answer(c, typed, all)).toList();
        return answers.contains(Answer.RIGHT) ? Answer.RIGHT : answers.getFirst();
    }

    public static Answer answer(StockChip wanted, String typed, List<StockChip> all) {
        Optional<ChipLabel> label = ChipLabel.read(typed);
        if (label.isEmpty()) {
            return Answer.NO_LABEL;
        }
        String text = label.get().text();
        if (text.equals(wanted.label())) {
            return Answer.RIGHT;
        }
        return all.stream().anyMatch(c -> c.label().equals(text)) ? Answer.OTHER_CHIP : Answer.UNKNOWN_LABEL;
    }

    /** The lowest number that no chip has had. */
    public static ChipLabel free(List<StockChip> all) {
        int highest = all.stream().flatMap(c -> ChipLabel.read(c.label()).stream())
                .mapToInt(ChipLabel::number)
                .max().orElse(0);
        return new ChipLabel(highest + 1);
    }
}
