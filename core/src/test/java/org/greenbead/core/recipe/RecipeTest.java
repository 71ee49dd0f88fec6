package org.greenbead.core.recipe;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.Optional;
import org.greenbead.core.run.World;
import org.testng.annotations.Test;

public class RecipeTest {
    @Test
    public void heatDoesNotComeAfterCooling() {
        var e = expectThrows(IllegalArgumentException.class,
                () -> World.recipe(World.cool(), World.peak(320)));
        assertTrue(e.getMessage().contains("out of order"), e.getMessage());
    }

    @Test
    public void coolingHasNoHotAir() {
        expectThrows(IllegalArgumentException.class,
                () -> World.cool().withAir(Optional.of(new AirSetting(300, 20, 10, 20, 0))));
    }

    @Test
    public void stagesHaveNamesOfTheirOwn() {
        expectThrows(IllegalArgumentException.class,
                () -> World.recipe(World.soak(200, 100, 0), World.soak(220, 120, 0)));
        expectThrows(IllegalArgumentException.class, () -> World.recipe());
    }

    @Test
    public void changedStageStandsInItsPlace() {
        Recipe recipe = World.usualRecipe();
        Recipe changed = recipe.with(0, recipe.stages().getFirst().withHeater(Optional.of(222.0)));
        assertEquals(changed.stages().getFirst().heaterC(), Optional.of(222.0));
        assertEquals(changed.stages().subList(1, 4), recipe.stages().subList(1, 4));
    }

    @Test
    public void settingsOutOfRangeAreRefused() {
        expectThrows(IllegalArgumentException.class, () -> new AirSetting(700, 20, 10, 20, 0));
        expectThrows(IllegalArgumentException.class, () -> new AirSetting(300, 0, 10, 20, 0));
        expectThrows(IllegalArgumentException.class, () -> new StageEnd.AfterTime(0));
        expectThrows(IllegalArgumentException.class, () -> new StageEnd.ProbeReaches("", 100, 0));
        expectThrows(IllegalArgumentException.class, () -> new Limits(3, 6, 15, 10, 2, 150));
    }
}
