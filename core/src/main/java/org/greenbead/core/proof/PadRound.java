package org.greenbead.core.proof;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.account.PhotoRecords;
import org.greenbead.core.account.RecordFacts;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.RowNames;
import org.greenbead.core.bead.Site;
import org.greenbead.core.electric.Pad;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;

/**
 * The pads of a field that need a meter: those that a photo or a person called damaged, each with what its net loses with it, and what was
 * measured. The gravest first.
 *
 * @param stops in the order of measuring
 */
public record PadRound(List<Stop> stops) {
    /**
     * One pad.
     *
     * @param record of this job; empty where only a photo named it
     * @param place  on the map; empty without a map
     * @param net    empty = nobody said
     * @param others pads of the map that carry the same net; 0 without a map
     */
    public record Stop(Pad pad, Optional<Kept> record, Optional<Site> place, String net, int others) {
        public String site() {
            return pad.site();
        }

        public Pad.Verdict verdict() {
            return pad.verdict();
        }

        /** Something is to be done or found out before a chip is set there. */
        public boolean open() {
            return switch (verdict()) {
                case SHORTED, LEAKS, OPEN, UNREAD, UNCOVERED -> true;
                case CARRIED, FINE -> false;
            };
        }
    }

    public PadRound {
        stops = List.copyOf(stops);
    }

    /** @param map of the target's balls, with nets where they are known */
    public static PadRound of(Job job, Optional<BeadMap> map) {
        Map<String, Stop> all = new LinkedHashMap<>();
        for (Kept r : job.records("pad")) {
            Pad said = RecordFacts.pad(r);
            all.put(said.site(), stop(said, Optional.of(r), r.text("net"), map));
        }
        job.records("pads").stream().reduce((a, b) -> b).ifPresent(photo -> {
            for (PhotoRecords.Fault fault : PhotoRecords.faults(photo.text("faults"))) {
                Pad seen = RecordFacts.pad(fault);
                if (seen.damage() != Pad.Damage.NONE) {
                    all.computeIfAbsent(fault.site(),
                            site -> stop(seen, Optional.empty(), fault.net(), map));
                }
            }
        });
        var stops = new ArrayList<>(all.values());
        stops.sort(Comparator.comparing(Stop::verdict));
        return new PadRound(stops);
    }

    private static Stop stop(Pad said, Optional<Kept> record, String net, Optional<BeadMap> map) {
        Optional<Site> place = map.flatMap(m -> m.site(said.site()));
        String named = net.isBlank() ? place.map(Site::net).orElse("") : net;
        int others = named.isBlank()
                ? 0
                : (int) map.stream().flatMap(m -> m.sites().stream())
                        .filter(s -> s.net().equals(named) && !s.name().equals(said.site())).count();
        Pad.Carries carries = said.carries() != Pad.Carries.UNKNOWN
                ? said.carries()
                : place.map(p -> carries(p, named, others)).orElse(Pad.Carries.UNKNOWN);
        return new Stop(new Pad(said.site(), said.damage(), carries, said.continues(), said.leakOhm(),
                said.bonded(), said.covered()), record, place, named, others);
    }

    /** By the map: what it says of the site, else how many pads share its net. */
    private static Pad.Carries carries(Site site, String net, int others) {
        return switch (site.critical()) {
            case SPARE -> Pad.Carries.SPARE;
            case ONLY -> Pad.Carries.ONLY;
            case MANY -> Pad.Carries.SHARED;
            case UNKNOWN -> net.isBlank()
                    ? Pad.Carries.UNKNOWN
                    : others > 0 ? Pad.Carries.SHARED : Pad.Carries.ONLY;
        };
    }

    /** What a phrase on a pad's net is about: its name, and how many other pads carry it. */
    public static Quantity[] carried(Stop s) {
        return new Quantity[]{new Quantity.Name(s.net().isBlank() ? s.site() : s.net()),
                new Quantity.Count(s.others())};
    }

    /** The first that a meter was not put to. */
    public Optional<Stop> next() {
        return stops.stream().filter(s -> s.verdict() == Pad.Verdict.UNREAD).findFirst();
    }

    public List<Stop> open() {
        return stops.stream().filter(Stop::open).toList();
    }

    public Optional<Stop> at(String site) {
        return stops.stream().filter(s -> s.site().equals(site)).findFirst();
    }

    /** What was found at a pad. */
    public record Found(Optional<Pad.Damage> damage, Optional<Boolean> continues, double leakOhm, String bond,
            String mask, String cure) {
        private static final Found NOTHING = new Found(Optional.empty(), Optional.empty(), Double.NaN, "", "",
                "");

        public static Found damage(Pad.Damage damage) {
            return new Found(Optional.of(damage), Optional.empty(), Double.NaN, "", "", "");
        }

        public static Found continues(boolean yes) {
            return new Found(Optional.empty(), Optional.of(yes), Double.NaN, "", "", "");
        }

        public static Found leak(double ohm) {
            return new Found(Optional.empty(), Optional.empty(), ohm, "", "", "");
        }

        /**
         * As it is typed, words in any order: "lifted", "missing", "scratched", "bridged"; "on" or "off" for the net; "leak 4.7M"; "wire" or
         * "bonded"; "mask" for mask that was cured.
         *
         * @throws IllegalArgumentException naming the word that is not known
         */
        public static Found typed(String text) {
            Found found = NOTHING;
            String[] words = text.strip().split("[\\s,]+");
            for (int i = 0; i < words.length; i++) {
                String word = words[i].toLowerCase(Locale.ROOT);
                found = switch (word) {
                    case "lifted", "missing", "scratched", "bridged" -> found.with(
                            damage(Pad.Damage.valueOf(word.toUpperCase(Locale.ROOT))));
                    case "on" -> found.with(continues(true));
                    case "off" -> found.with(continues(false));
                    case "leak" -> {
                        if (++i == words.length) {
                            throw new IllegalArgumentException(
                                    "after \"leak\" comes what the meter shows, such as leak 4.7M");
                        }
                        yield found.with(leak(RailRound.reading(words[i])));
                    }
                    case "wire", "bonded" -> found
                            .with(new Found(Optional.empty(), Optional.empty(), Double.NaN, word, "", ""));
                    case "mask" -> found.with(
                            new Found(Optional.empty(), Optional.empty(), Double.NaN, "", "mask", "cured"));
                    default -> throw new IllegalArgumentException("\"" + word
                            + "\" says nothing of a pad; write lifted, missing, scratched or bridged; on or off for its net; leak 4.7M; wire or bonded; mask");
                };
            }
            return found;
        }

        private Found with(Found other) {
            return new Found(other.damage.or(() -> damage), other.continues.or(() -> continues),
                    Double.isFinite(other.leakOhm) ? other.leakOhm : leakOhm,
                    other.bond.isEmpty() ? bond : other.bond, other.mask.isEmpty() ? mask : other.mask,
                    other.cure.isEmpty() ? cure : other.cure);
        }
    }

    /**
     * The job's record of a pad with what was found; net and what it carries are those of the map, where nobody noted others.
     *
     * @throws IllegalArgumentException when the map has no such site
     */
    public static Kept kept(Job job, Optional<BeadMap> map, String site, Found found, Instant at, String by) {
        if (!RowNames.isSite(site) || map.isPresent() && map.get().site(site).isEmpty()) {
            throw new IllegalArgumentException("the map has no pad \"" + site + "\"; pads are named like C4");
        }
        Optional<Stop> known = of(job, map).at(site);
        Kept record = known.flatMap(Stop::record)
                .orElseGet(() -> new Kept(job.freeId("pad"), "pad", at, by, Map.of("site", site)));
        Pad.Damage damage = found.damage().or(() -> known.map(s -> s.pad().damage()))
                .orElse(Pad.Damage.NONE);
        if (damage != Pad.Damage.NONE) {
            record = record.with("kind", small(damage), at, by);
        }
        if (found.continues().isPresent()) {
            record = record.with("continuity", found.continues().get(), at, by);
        }
        if (Double.isFinite(found.leakOhm())) {
            record = record.with("leak_ohm", found.leakOhm(), at, by);
        }
        for (var said : Map.of("bond", found.bond(), "mask", found.mask(), "cure", found.cure()).entrySet()) {
            record = said.getValue().isEmpty() ? record : record.with(said.getKey(), said.getValue(), at, by);
        }
        Stop now = of(job.with(record), map).at(site).orElseThrow();
        if (record.text("net").isBlank() && !now.net().isBlank()) {
            record = record.with("net", now.net(), at, by);
        }
        if (record.noted("carries").isEmpty() && now.pad().carries() != Pad.Carries.UNKNOWN) {
            record = record.with("carries", small(now.pad().carries()), at, by);
        }
        return record;
    }

    private static String small(Enum<?> word) {
        return word.name().toLowerCase(Locale.ROOT);
    }
}
