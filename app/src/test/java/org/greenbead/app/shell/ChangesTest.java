package org.greenbead.app.shell;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.Test;

public class ChangesTest {
    private final Changes changes = new Changes();
    private final List<String> done = new ArrayList<>();

    private void made(Object of, String what) {
        changes.made(of, what, () -> done.add(what));
    }

    /** What was changed on several pages goes back in one order; what two changes of one act did goes back with one press. */
    @Test
    public void theNewestGoesBackFirstWhereverItWasMade() {
        made("job", "tick");
        made("chip", "drawer");
        changes.together(() -> {
            made("job", "used");
            made("stock", "counted");
        });
        made("board", "part");
        assertEquals(changes.takeBack(of -> true), List.of("part"));
        assertEquals(changes.takeBack(of -> true), List.of("counted", "used"));
        assertEquals(changes.takeBack(of -> true), List.of("drawer"));
        assertEquals(changes.takeBack(of -> true), List.of("tick"));
        assertTrue(changes.takeBack(of -> true).isEmpty());
        assertEquals(done, List.of("part", "counted", "used", "drawer", "tick"));
    }

    /** Another job's changes wait until it is in hand again; a heat ends them all. */
    @Test
    public void anotherJobsChangesStay() {
        var fresh = new Changes();
        var back = new ArrayList<String>();
        fresh.made("J-1", "one", () -> back.add("one"));
        fresh.made("J-2", "two", () -> back.add("two"));
        assertEquals(fresh.takeBack("J-1"::equals), List.of("one"));
        assertTrue(fresh.takeBack("J-1"::equals).isEmpty());
        fresh.forget();
        assertTrue(fresh.takeBack(of -> true).isEmpty());
        assertEquals(back, List.of("one"));
    }

    @Test
    public void aLongSessionForgetsItsBeginning() {
        var many = new Changes();
        for (int i = 0; i < 1000; i++) {
            many.made("job", Integer.toString(i), () -> {
            });
        }
        int left = 0;
        while (!many.takeBack(of -> true).isEmpty()) {
            left++;
        }
        assertEquals(left, 200);
    }
}
