package org.greenbead.core.board;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * A bare board and what sits on it.
 *
 * @param id             "WB-7"
 * @param sizeMm         10 to 500 each way
 * @param thicknessMm    0.05 to 5 (a stencil counts as a board)
 * @param copperLayers   1 to 40
 * @param copperUm       thickness of one layer, 5 to 210
 * @param copperCoverage part of a layer that is copper, 0.05 to 1
 * @param kThroughWPerMK conductivity through the laminate, 0.1 to 400 (a stencil is metal)
 * @param assumed        what nobody has measured or read, by the names of {@link Assumed}
 * @param marks          shields, screws, holes and regions; each name once on the board
 */
public record Board(String id, String title, Point sizeMm, double thicknessMm, int copperLayers,
        double copperUm,
        double copperCoverage, double kThroughWPerMK, List<Chip> chips, List<ProtectedPart> parts,
        List<String> assumed, List<Mark> marks) {
    private static final double NEAR_MM = 8;

    /** One without shields, screws or regions. */
    public Board(String id, String title, Point sizeMm, double thicknessMm, int copperLayers,
            double copperUm, double copperCoverage, double kThroughWPerMK, List<Chip> chips,
            List<ProtectedPart> parts, List<String> assumed) {
        this(id, title, sizeMm, thicknessMm, copperLayers, copperUm, copperCoverage, kThroughWPerMK, chips,
                parts, assumed, List.of());
    }

    /** One whose build is known. */
    public Board(String id, String title, Point sizeMm, double thicknessMm, int copperLayers,
            double copperUm, double copperCoverage, double kThroughWPerMK, List<Chip> chips,
            List<ProtectedPart> parts) {
        this(id, title, sizeMm, thicknessMm, copperLayers, copperUm, copperCoverage, kThroughWPerMK, chips,
                parts, List.of(), List.of());
    }

    public Board {
        Check.id("board id", id);
        Check.text("board title", title);
        Check.present("board size", sizeMm);
        Check.within("board width", sizeMm.xMm(), 10, 500, "mm");
        Check.within("board depth", sizeMm.yMm(), 10, 500, "mm");
        Check.within("board thickness", thicknessMm, 0.05, 5, "mm");
        Check.within("copper layers", copperLayers, 1, 40, "");
        Check.within("copper thickness", copperUm, 5, 210, "µm");
        Check.within("copper coverage", copperCoverage, 0.05, 1, "");
        Check.within("conductivity through the board", kThroughWPerMK, 0.1, 400, "W/mK");
        chips = List.copyOf(Check.present("chips", chips));
        parts = List.copyOf(Check.present("parts", parts));
        assumed = assumed == null ? List.of() : List.copyOf(assumed);
        Check.distinct("chip", chips, Chip::name);
        Check.distinct("part", parts, ProtectedPart::name);
        marks = marks == null ? List.of() : List.copyOf(marks);
        Check.distinct("mark", marks, Mark::name);
        for (Chip chip : chips) {
            inside(chip.name(), chip.centreMm(), chip.sizeMm(), sizeMm);
        }
        for (ProtectedPart part : parts) {
            inside(part.name(), part.centreMm(), new Point(0, 0), sizeMm);
        }
        for (Mark mark : marks) {
            inside(mark.name(), mark.centreMm(), new Point(0, 0), sizeMm);
            if (chip(chips, mark.name()).isPresent()
                    || parts.stream().anyMatch(p -> p.name().equals(mark.name()))) {
                throw new IllegalArgumentException(mark.name() + " names two things on the board");
            }
        }
        for (int i = 0; i < chips.size(); i++) {
            for (int j = i + 1; j < chips.size(); j++) {
                if (overlap(chips.get(i), chips.get(j))) {
                    throw new IllegalArgumentException(chips.get(i).name() + " and " + chips.get(j).name()
                            + " overlap on the " + (chips.get(i).side() == Side.TOP ? "top" : "bottom")
                            + " side; check their centres and sizes");
                }
            }
        }
    }

    /** The chip or part of the top side whose middle lies nearest to a place, within 8 mm. */
    public Optional<String> nearest(Point at) {
        var places = new java.util.HashMap<String, Point>();
        chips.stream().filter(c -> c.side() == Side.TOP).forEach(c -> places.put(c.name(), c.centreMm()));
        parts.stream().filter(p -> p.side() == Side.TOP).forEach(p -> places.put(p.name(), p.centreMm()));
        return places.entrySet().stream().filter(e -> e.getValue().distanceMm(at) <= NEAR_MM)
                .min(java.util.Comparator.comparingDouble(e -> e.getValue().distanceMm(at)))
                .map(java.util.Map.Entry::getKey);
    }

    public Optional<Chip> chip(String name) {
        return chip(chips, name);
    }

    private static Optional<Chip> chip(List<Chip> chips, String name) {
        for (Chip chip : chips) {
            if (chip.name().equals(name)) {
                return Optional.of(chip);
            }
        }
        return Optional.empty();
    }

    /** Whether a place lies on it, its edge with it. */
    public boolean reaches(Point at) {
        return at.xMm() >= 0 && at.yMm() >= 0 && at.xMm() <= sizeMm.xMm() && at.yMm() <= sizeMm.yMm();
    }

    /** @throws IllegalArgumentException naming the chips that there are */
    public Chip requireChip(String name) {
        return chip(name)
                .orElseThrow(() -> new IllegalArgumentException(
                        "board " + id + " has no chip \"" + name + "\"; it has "
                                + (chips.isEmpty()
                                        ? "none yet"
                                        : String.join(", ", chips.stream().map(Chip::name).toList()))));
    }

    /** The same board with one chip exchanged for its later state. */
    public Board with(Chip changed) {
        return new Board(id, title, sizeMm, thicknessMm, copperLayers, copperUm, copperCoverage,
                kThroughWPerMK,
                chips.stream().map(c -> c.name().equals(changed.name()) ? changed : c).toList(), parts,
                assumed, marks);
    }

    /** The same board with another list of parts. */
    public Board withParts(List<ProtectedPart> changed) {
        return new Board(id, title, sizeMm, thicknessMm, copperLayers, copperUm, copperCoverage,
                kThroughWPerMK, chips, changed, assumed, marks);
    }

    /** The same board under another name; its assumptions go with it. */
    public Board copy(String newId, String newTitle) {
        return new Board(newId, newTitle, sizeMm, thicknessMm, copperLayers, copperUm, copperCoverage,
                kThroughWPerMK, chips, parts, assumed, marks);
    }

    /** Of another size; what then lies beside it is refused. */
    public Board sized(Point newSizeMm) {
        return new Board(id, title, newSizeMm, thicknessMm, copperLayers, copperUm, copperCoverage,
                kThroughWPerMK, chips, parts, assumed, marks);
    }

    /** Measured with a caliper. */
    public Board thick(double measuredMm) {
        return new Board(id, title, sizeMm, measuredMm, copperLayers, copperUm, copperCoverage,
                kThroughWPerMK, chips, parts, Assumed.without(assumed, Assumed.THICKNESS),
                marks);
    }

    /** Read from the board's sheet. */
    public Board copper(int layers, double micrometres, double coverage) {
        return new Board(id, title, sizeMm, thicknessMm, layers, micrometres, coverage, kThroughWPerMK,
                chips, parts, Assumed.without(assumed, Assumed.COPPER), marks);
    }

    /** With one chip more, or in the place of the one of its name; the given things of it are assumed. */
    public Board put(Chip chip, List<String> itsAssumed) {
        var all = new java.util.ArrayList<>(chips);
        int at = chips.stream().map(Chip::name).toList().indexOf(chip.name());
        if (at < 0) {
            all.add(chip);
        } else {
            all.set(at, chip);
        }
        var rest = assumed.stream().filter(a -> !Assumed.chip(a).equals(chip.name())).toList();
        return new Board(id, title, sizeMm, thicknessMm, copperLayers, copperUm, copperCoverage,
                kThroughWPerMK, all, parts, Assumed.with(rest, itsAssumed.toArray(String[]::new)),
                marks);
    }

    /** The first name that nothing on the board has: U1, U2, and for parts J1, BT1. */
    public String freeName(String stem) {
        return java.util.stream.IntStream.iterate(1, i -> i + 1).mapToObj(i -> stem + i)
                .filter(n -> chip(n).isEmpty() && parts.stream().noneMatch(p -> p.name().equals(n))
                        && mark(n).isEmpty())
                .findFirst().orElseThrow();
    }

    /** Where something of the board lies. */
    public record Place(Side side, Point centreMm, Point sizeMm) {
        public boolean covers(Side face, Point at) {
            return side == face && Math.abs(at.xMm() - centreMm.xMm()) <= sizeMm.xMm() / 2
                    && Math.abs(at.yMm() - centreMm.yMm()) <= sizeMm.yMm() / 2;
        }
    }

    /** Where the chip, part or mark of that name lies. */
    public Optional<Place> place(String name) {
        return chip(name).map(c -> new Place(c.side(), c.centreMm(), c.sizeMm()))
                .or(() -> parts.stream().filter(p -> p.name().equals(name)).findFirst()
                        .map(p -> new Place(p.side(), p.centreMm(), p.sizeMm())))
                .or(() -> mark(name).map(m -> new Place(m.side(), m.centreMm(), m.sizeMm())));
    }

    /** What lies uppermost at a place: a chip before a part, a part before a mark, the smallest mark first. */
    public Optional<String> at(Side side, Point at) {
        return java.util.stream.Stream
                .concat(java.util.stream.Stream.concat(chips.stream().map(Chip::name),
                        parts.stream().map(ProtectedPart::name)),
                        marks.stream().sorted(
                                java.util.Comparator.comparingDouble((Mark m) -> m.sizeMm().areaMm2()))
                                .map(Mark::name))
                .filter(n -> place(n).orElseThrow().covers(side, at)).findFirst();
    }

    public Optional<Mark> mark(String name) {
        return marks.stream().filter(m -> m.name().equals(name)).findFirst();
    }

    /** Marks of one kind, as they were put. */
    public List<Mark> marks(Mark.Kind kind) {
        return marks.stream().filter(m -> m.kind() == kind).toList();
    }

    /** With one mark more, or in the place of the one of its name. */
    public Board put(Mark mark) {
        var all = new java.util.ArrayList<>(marks);
        int at = marks.stream().map(Mark::name).toList().indexOf(mark.name());
        if (at < 0) {
            all.add(mark);
        } else {
            all.set(at, mark);
        }
        return new Board(id, title, sizeMm, thicknessMm, copperLayers, copperUm, copperCoverage,
                kThroughWPerMK, chips, parts, assumed, all);
    }

    /** The region with a rule of its own that a place lies in, the smallest first; milled ground has none. */
    public Optional<Mark> regionAt(Side side, Point at) {
        return marks.stream().filter(m -> m.kind().region() && m.kind() != Mark.Kind.MILLED)
                .filter(m -> m.covers(side, at))
                .min(java.util.Comparator.comparingDouble(m -> m.sizeMm().areaMm2()));
    }

    /** Without the chip, part or mark of that name. */
    public Board without(String name) {
        return new Board(id, title, sizeMm, thicknessMm, copperLayers, copperUm, copperCoverage,
                kThroughWPerMK, chips.stream().filter(c -> !c.name().equals(name)).toList(),
                parts.stream().filter(p -> !p.name().equals(name)).toList(),
                assumed.stream().filter(a -> !Assumed.chip(a).equals(name)).toList(),
                marks.stream().filter(m -> !m.name().equals(name)).toList());
    }

    private static void inside(String name, Point centre, Point size, Point board) {
        if (centre.xMm() - size.xMm() / 2 < 0 || centre.yMm() - size.yMm() / 2 < 0
                || centre.xMm() + size.xMm() / 2 > board.xMm()
                || centre.yMm() + size.yMm() / 2 > board.yMm()) {
            throw new IllegalArgumentException(
                    name + " does not lie wholly on the board; check its centre and size");
        }
    }

    private static boolean overlap(Chip a, Chip b) {
        return a.side() == b.side()
                && Math.abs(a.centreMm().xMm() - b.centreMm().xMm()) < (a.sizeMm().xMm() + b.sizeMm().xMm())
                        / 2
                && Math.abs(a.centreMm().yMm() - b.centreMm().yMm()) < (a.sizeMm().yMm() + b.sizeMm().yMm())
                        / 2;
    }
}
