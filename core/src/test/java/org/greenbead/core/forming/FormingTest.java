package org.greenbead.core.forming;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertNotEquals;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.OptionalDouble;
import java.util.Random;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.quantity.TempUnit;
import org.greenbead.core.quantity.Words;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class FormingTest {
    private static final Alloy LEADED = Alloys.require("Sn63Pb37");
    private static final OptionalDouble UNKNOWN = OptionalDouble.empty();
    private static final Words WORDS = new Words(Locale.ENGLISH, TempUnit.CELSIUS);

    @DataProvider
    Object[][] methods() {
        return Arrays.stream(Method.values()).map(m -> new Object[]{m}).toArray(Object[][]::new);
    }

    private static Forming walked(Method method, Act... acts) {
        Forming now = Forming.begin(method, false);
        for (Act act : acts) {
            now = now.after(act, 1, LEADED);
        }
        return now;
    }

    private static Judged.Rating rating(Forming now, Act act) {
        return now.ask(act, LEADED, UNKNOWN).rating();
    }

    /** Following what leads on comes to settled balls, no step of it wrong, in a bounded number of acts. */
    @Test(dataProvider = "methods")
    public void whatLeadsOnIsNeverWrongAndComesToTheEnd(Method method) {
        Forming now = Forming.begin(method, false);
        for (int i = 0; i < 40 && now.stand() != Stand.SETTLED; i++) {
            Act next = now.next(LEADED, UNKNOWN);
            assertEquals(rating(now, next), Judged.Rating.RIGHT, next + " in " + now);
            Forming after = now.after(next, i, LEADED);
            if (next == Act.HEAT_OFF) {
                after = after.solid(i);
            }
            assertNotEquals(after, now, next + " must lead on from " + now);
            now = after;
        }
        assertEquals(now.stand(), Stand.SETTLED);
        assertEquals(now.restarts(), 0);
    }

    /** The trade's main reversals: the same act before the balls stand and after. */
    @Test
    public void theSameActIsWrongThenRight() {
        Forming held = walked(Method.PASTE, Act.ALIGN, Act.FILL, Act.FILL, Act.WIPE, Act.HOLD);
        assertEquals(held.stand(), Stand.HELD);
        Forming solid = held.after(Act.HEAT, 2, LEADED).solid(3);
        Forming free = solid.after(Act.SLIDE, 4, LEADED);
        assertEquals(rating(held, Act.FLUX), Judged.Rating.WRONG);
        assertEquals(rating(free, Act.FLUX), Judged.Rating.RIGHT);
        assertEquals(rating(held, Act.LET_GO), Judged.Rating.WRONG);
        assertEquals(rating(solid, Act.LET_GO), Judged.Rating.RIGHT);
        assertEquals(rating(held.after(Act.HEAT, 2, LEADED), Act.SLIDE), Judged.Rating.WRONG);
        assertEquals(rating(solid, Act.SLIDE), Judged.Rating.RIGHT);
        assertEquals(rating(solid, Act.BRUSH), Judged.Rating.CARE);
        assertEquals(rating(free, Act.BRUSH), Judged.Rating.RIGHT);
        // And by the way of working: flux first for spheres, never for paste.
        Forming aligned = walked(Method.SPHERES, Act.ALIGN);
        assertEquals(rating(aligned, Act.FLUX), Judged.Rating.RIGHT);
        assertEquals(rating(aligned, Act.FILL), Judged.Rating.WRONG);
        assertEquals(rating(aligned.after(Act.FLUX, 1, LEADED), Act.FILL), Judged.Rating.RIGHT);
        assertEquals(rating(walked(Method.PASTE, Act.ALIGN), Act.FLUX), Judged.Rating.WRONG);
    }

    @Test
    public void whatIsMissingMakesARightActWrong() {
        Forming filled = walked(Method.PASTE, Act.ALIGN, Act.FILL);
        assertEquals(filled.ask(Act.HOLD, LEADED, UNKNOWN).why(), "why.paste.wipe_first");
        assertEquals(filled.after(Act.HOLD, 1, LEADED).stand(), Stand.FILLED, "not held over paste on top");
        assertEquals(filled.after(Act.HEAT, 1, LEADED).stand(), Stand.FILLED, "a free sheet is not heated");
        assertEquals(Forming.shaping(Method.PASTE).after(Act.SETTLE, 1, LEADED).stand(), Stand.RELEASED);
        Forming free = Forming.shaping(Method.PASTE);
        assertEquals(free.ask(Act.SETTLE, LEADED, UNKNOWN).why(), "why.paste.crumbs");
        Forming brushed = free.after(Act.BRUSH, 1, LEADED);
        assertEquals(brushed.ask(Act.SETTLE, LEADED, UNKNOWN).why(), "why.paste.dry_melt");
        assertEquals(rating(brushed.after(Act.FLUX, 1, LEADED), Act.SETTLE), Judged.Rating.RIGHT);
    }

    @Test
    public void aSpoiltPrintIsBegunAgainAndCounted() {
        Forming filled = walked(Method.PASTE, Act.ALIGN, Act.FILL, Act.FILL);
        for (Act act : List.of(Act.FLUX, Act.LET_GO, Act.SLIDE)) {
            Forming after = filled.after(act, 1, LEADED);
            assertEquals(after.stand(), Stand.CLEAN, act.toString());
            assertEquals(after.restarts(), 1, act.toString());
            assertEquals(after.passes(), 0, act.toString());
        }
        Forming refilled = walked(Method.PASTE, Act.ALIGN, Act.FILL, Act.FILL, Act.WIPE, Act.HOLD, Act.FILL);
        assertEquals(refilled.stand(), Stand.FILLED, "an empty hole is filled, wiped and held anew");
        assertFalse(refilled.wiped());
    }

    @Test
    public void theStencilComesOffBetweenSoftFluxAndSoftBalls() {
        // Solidus of eutectic tin-lead 183 °C, of tin-bismuth 138 °C, of SAC305 217 °C.
        assertEquals(ReleaseWarm.of(Alloys.require("SAC305")).highC(), 197, 0.6);
        ReleaseWarm bismuth = ReleaseWarm.of(Alloys.require("Sn42Bi58"));
        assertEquals(bismuth.highC(), 118, 0.6);
        assertEquals(bismuth.airC(), 118, 0.6);
        assertEquals(ReleaseWarm.of(Alloys.require("SAC305")).airC(), 150, 0);
        Forming solid = walked(Method.PASTE, Act.ALIGN, Act.FILL, Act.WIPE, Act.HOLD, Act.HEAT).solid(1);
        assertEquals(solid.ask(Act.SLIDE, LEADED, OptionalDouble.of(175)).why(), "why.paste.too_warm");
        assertEquals(solid.ask(Act.SLIDE, LEADED, OptionalDouble.of(120)).rating(), Judged.Rating.RIGHT);
        assertEquals(solid.ask(Act.SLIDE, LEADED, OptionalDouble.of(60)).why(), "why.paste.too_cold");
        assertEquals(solid.next(LEADED, OptionalDouble.of(60)), Act.WARM);
        assertEquals(solid.next(LEADED, OptionalDouble.of(120)), Act.SLIDE);
    }

    @Test
    public void noAlloyOfTheTableIsWarmedIntoItsMelt() {
        for (Alloy alloy : Alloys.all()) {
            assertTrue(ReleaseWarm.of(alloy).airC() <= alloy.solidusC() - ReleaseWarm.UNDER_K, alloy.name());
        }
    }

    @Test
    public void solventWaitsForTheWorkToCool() {
        Forming settled = Forming.shaping(Method.PASTE).after(Act.BRUSH, 1, LEADED).after(Act.FLUX, 2, LEADED)
                .after(Act.SETTLE, 3, LEADED).solid(4);
        assertEquals(settled.stand(), Stand.SETTLED);
        assertEquals(settled.ask(Act.WASH, LEADED, OptionalDouble.of(70)).rating(), Judged.Rating.WRONG);
        assertEquals(settled.ask(Act.WASH, LEADED, OptionalDouble.of(35)).rating(), Judged.Rating.RIGHT);
    }

    /** Whatever is done in whatever order, the state stays one that can be led on, and no act undoes solid balls. */
    @Test(dataProvider = "methods")
    public void noOrderOfActsGetsStuck(Method method) {
        var random = new Random(7);
        for (int walk = 0; walk < 400; walk++) {
            Forming now = Forming.begin(method, random.nextBoolean());
            boolean solid = false;
            for (int i = 0; i < 30; i++) {
                Act act = Act.values()[random.nextInt(Act.values().length)];
                now = now.after(act, i, LEADED);
                if (now.stand() == Stand.FORMING && random.nextInt(4) == 0) {
                    now = now.solid(i);
                }
                solid |= now.stand().ordinal() >= Stand.SOLID.ordinal();
                assertTrue(!solid || now.stand().ordinal() >= Stand.FORMING.ordinal(), act + " " + now);
                assertNotEquals(rating(now, now.next(LEADED, UNKNOWN)), Judged.Rating.IDLE, now.toString());
            }
        }
    }

    @Test(dataProvider = "methods")
    public void everyCellHasItsReasonAndWords(Method method) {
        String way = method.name().toLowerCase(Locale.ROOT);
        for (Stand stand : Stand.values()) {
            assertTrue(WORDS.has("stand." + way + "." + stand.name().toLowerCase(Locale.ROOT)));
            for (Act act : ActTable.shipped().acts(method)) {
                assertTrue(WORDS.has("act." + way + "." + act.name().toLowerCase(Locale.ROOT)),
                        act.toString());
                Judged judged = ActTable.shipped().look(method, act, stand);
                assertEquals(judged.why().isEmpty(), judged.rating() == Judged.Rating.IDLE,
                        act + " " + stand);
                assertTrue(judged.why().isEmpty() || WORDS.has(judged.why()), judged.why());
            }
        }
        for (String why : List.of("wipe_first", "crumbs", "dry_melt", "hot_solvent", "too_warm", "too_cold",
                "flux_first")) {
            assertTrue(method == Method.SPHERES && why.startsWith("too_")
                    || method == Method.PASTE && why.equals("flux_first")
                    || WORDS.has("why." + way + "." + why), why);
        }
    }
}
