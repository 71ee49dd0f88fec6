package org.greenbead.core.recipe;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.quantity.Check;

/**
 * Staged heat with what it must keep. At most 20 stages, in order.
 *
 * @param shields foil that is laid on the top side before it gets hot
 * @param placing where heater and nozzle stand
 * @param station air station it is meant for; empty for the one in hand
 */
public record Recipe(String id, String title, List<Stage> stages, Limits limits, List<Shield> shields,
        Placing placing, Optional<String> station) {
    public Recipe(String id, String title, List<Stage> stages, Limits limits, List<Shield> shields,
            Placing placing) {
        this(id, title, stages, limits, shields, placing, Optional.empty());
    }

    public Recipe(String id, String title, List<Stage> stages, Limits limits) {
        this(id, title, stages, limits, List.of(), Placing.CENTRED);
    }

    public Recipe {
        Check.text("recipe id", id);
        Check.text("recipe title", title);
        stages = List.copyOf(Check.present("stages", stages));
        if (stages.isEmpty() || stages.size() > 20) {
            throw new IllegalArgumentException(
                    "recipe " + id + " has " + stages.size() + " stages; allowed are 1 to 20");
        }
        Check.distinct("stage", stages, Stage::name);
        Check.present("limits", limits);
        shields = shields == null ? List.of() : List.copyOf(shields);
        placing = placing == null ? Placing.CENTRED : placing;
        station = station == null ? Optional.empty() : station;
        station.ifPresent(s -> Check.text("air station of recipe " + id, s));
        boolean cooling = false;
        for (Stage stage : stages) {
            if (cooling && stage.purpose() != Stage.Purpose.COOL) {
                throw new IllegalArgumentException(
                        "stage " + stage.name() + " heats after a cooling stage; stages are out of order");
            }
            cooling |= stage.purpose() == Stage.Purpose.COOL;
        }
    }

    public Recipe with(int index, Stage stage) {
        var changed = new ArrayList<>(stages);
        changed.set(index, stage);
        return new Recipe(id, title, changed, limits, shields, placing, station);
    }

    /** The same heat with other foil. */
    public Recipe shielded(List<Shield> foil) {
        return new Recipe(id, title, stages, limits, foil, placing, station);
    }

    /** The same heat with heater and nozzle elsewhere. */
    public Recipe placed(Placing where) {
        return new Recipe(id, title, stages, limits, shields, where, station);
    }

    /** The same heat held to other limits. */
    public Recipe within(Limits other) {
        return new Recipe(id, title, stages, other, shields, placing, station);
    }

    /** The same numbers for an air station of this name. */
    public Recipe by(String name) {
        return new Recipe(id, title, stages, limits, shields, placing, Optional.of(name));
    }
}
