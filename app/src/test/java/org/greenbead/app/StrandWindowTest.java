package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.InstantSource;
import java.util.Optional;
import javafx.scene.input.KeyCode;
import org.greenbead.core.route.Job;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.Test;

/** A job with a second chip, and a donor's chip beside it, taken in and worked by hand. */
public class StrandWindowTest extends DemoWindow {
    @Test
    public void aSecondChipIsTakenInAndWorked() throws Exception {
        String main = window.text("#job-id");
        String first = window.text("#strand-key").split(" ")[0];
        window.press(KeyCode.C);
        window.awaitText("#strand-title", "works on one chip, " + first);
        window.picture("strand-one");
        window.await("what is there to be read", () -> window.text("#pedal-word").contains(first));
        window.press(KeyCode.N);
        window.awaitText("#strand-ask", "Which chip of board");
        assertFalse(window.shows("#strand-chip-" + first), "it has its beads already");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#strand-ask", "What is done with");
        window.press(KeyCode.LEFT);
        window.awaitText("#strand-ask", "Which chip of board");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#strand-ask", "What is done with");
        window.picture("strand-kind");
        window.click("#strand-kind-replace");
        window.awaitText("#job-id", main + "-");
        String strand = window.text("#job-id");
        window.awaitText("#strand-key", "2/2");
        assertTrue(window.shows("#bead-plan_history") && !window.shows("#bead-intake_record")
                && !window.shows("#bead-prove_rails"), "from the plan to the seat");
        window.picture("strand-bead");
        window.press(KeyCode.C);
        window.awaitText("#strand-title", "has 2 chips");
        window.picture("strand-two");
        window.press(KeyCode.UP);
        window.pedal("Go to " + first);
        window.awaitText("#job-id", main);
        window.await("the job itself", () -> window.text("#job-id").equals(main));
        window.press(KeyCode.C);
        window.awaitText("#strand-title", "has 2 chips");
        window.mouse("#strand-" + strand);
        window.await("the strand by mouse", () -> window.text("#job-id").equals(strand));
        Job kept = kept(strand);
        assertEquals(kept.strandOf(), Optional.of(main));
        window.press(KeyCode.C);
        window.awaitText("#strand-title", "has 2 chips");
    }

    /** The donor's chip is on its own board; where every chip has its beads, that is said. */
    @Test
    public void aDonorsChipIsTakenIn() throws Exception {
        String main = window.text("#job-id");
        window.press(KeyCode.C);
        window.await("what is there to be read", () -> window.text("#pedal-word").startsWith("Go to"));
        window.click("#strand-another");
        window.awaitText("#strand-ask", "Which chip of board");
        window.click("#strand-donor");
        window.awaitText("#strand-ask", "Of which board");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#strand-ask", "Which chip of board");
        window.press(KeyCode.DIGIT1);
        window.awaitText("#strand-ask", "What is done with");
        window.click("#strand-kind-harvest");
        window.awaitText("#job-id", main + "-");
        window.awaitText("#strand-key", "2/2");
        Job kept = kept(window.text("#job-id"));
        assertEquals(kept.strandOf(), Optional.of(main));
        assertTrue(kept.beads().stream().anyMatch(b -> b.id().equals("lift_run"))
                && kept.beads().stream().noneMatch(b -> b.id().equals("seat_run")),
                "lifted, and that is all");
    }

    private Job kept(String id) throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            return ledger.job(id);
        } finally {
            window.open();
        }
    }
}
