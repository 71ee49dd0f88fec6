package org.greenbead.core.record;

import static org.testng.Assert.assertEquals;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.testng.annotations.Test;

public class TestedTest {
    private static final Instant NINE = Instant.parse("2031-04-02T09:00:00Z");

    private static Kept test(int minute, String what, String result, Object... more) {
        Map<String, Object> fields = new HashMap<>(Map.of("what", what, "result", result));
        for (int i = 0; i < more.length; i += 2) {
            fields.put((String) more[i], more[i + 1]);
        }
        return new Kept("tested-" + minute, "tested", NINE.plusSeconds(60L * minute), "A", fields);
    }

    private static Kept heat(int minute, String kind) {
        return new Kept("run-" + minute, "run", NINE.plusSeconds(60L * minute), "A",
                Map.of("bead", kind + "_run", "kind", kind, "outcome", "worked"));
    }

    private static List<String> names(List<Kept> records) {
        return records.stream().map(Kept::id).toList();
    }

    @Test
    public void heatVoidsWhatWasTestedBeforeIt() {
        List<Kept> records = List.of(test(1, "Ping", "pass"), test(2, "Lamp", "pass"), heat(10, "seat"),
                test(20, "ping", "pass"));
        assertEquals(names(Tested.now(records, List.of())), List.of("tested-20"));
        assertEquals(names(Tested.overtaken(records, List.of())), List.of("tested-2"),
                "the ping was tried again");
        assertEquals(Tested.standing(records, List.of()).size(), 2, "the run stays");
    }

    @Test
    public void theLastHeatCounts() {
        List<Kept> records = List.of(heat(1, "lift"), test(5, "ping", "pass"), heat(9, "reflow"));
        assertEquals(names(Tested.overtaken(records, List.of())), List.of("tested-5"));
    }

    @Test
    public void ballsOnTheLooseChipVoidNothing() {
        List<Kept> records = List.of(heat(1, "lift"), test(5, "ping", "fail"), heat(9, "form"));
        assertEquals(names(Tested.now(records, List.of())), List.of("tested-5"));
        assertEquals(Tested.overtaken(records, List.of()), List.of());
    }

    /** Another chip of the same board was heated in a job of its own: between jobs there is only the clock. */
    @Test
    public void aHeatForAnotherChipOfTheBoardVoidsAsWell() {
        List<Kept> records = List.of(heat(1, "lift"), test(5, "ping", "pass"), test(20, "lamp", "pass"));
        List<Instant> elsewhere = List.of(NINE.plusSeconds(60 * 12), NINE.plusSeconds(60 * 3));
        assertEquals(names(Tested.now(records, elsewhere)), List.of("tested-20"));
        assertEquals(names(Tested.overtaken(records, elsewhere)), List.of("tested-5"));
        assertEquals(names(Tested.now(records, elsewhere.subList(1, 2))), List.of("tested-5", "tested-20"));
        assertEquals(Tested.heats(List.of(heat(3, "seat"), heat(12, "form"), test(13, "ping", "pass"))),
                List.of(NINE.plusSeconds(60 * 3)), "balls are made off the board");
    }

    @Test
    public void halvesAndDataThatWasReadStand() {
        List<Kept> records = List.of(test(1, "upper half", "pass", "half", "upper"),
                test(2, "log read", "pass", "data_proof", "12 files, checksums equal"), heat(9, "seat"));
        assertEquals(names(Tested.now(records, List.of())), List.of("tested-1", "tested-2"));
    }

    /** A clock that was set back, and a record of before that was written anew after the heat: one of order and time says that it is later. */
    @Test
    public void orderAndClockBothHaveToSayThatItIsOlder() {
        List<Kept> back = List.of(heat(10, "seat"), test(3, "ping", "pass"));
        assertEquals(names(Tested.now(back, List.of())), List.of("tested-3"),
                "written after the heat, by a clock set back");
        List<Kept> anew = new ArrayList<>(List.of(test(30, "ping", "pass"), heat(10, "seat")));
        assertEquals(names(Tested.now(anew, List.of())), List.of("tested-30"), "written anew after the heat");
    }

    @Test
    public void ofOneThingTheLastCountsHoweverItIsWritten() {
        assertEquals(
                Tested.last(List.of(test(1, "Sonar  ping", "pass"), test(2, "sonar ping ", "fail"))).values()
                        .stream().map(t -> t.text("result")).toList(),
                List.of("fail"));
    }
}
