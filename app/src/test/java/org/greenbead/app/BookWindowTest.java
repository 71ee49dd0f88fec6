package org.greenbead.app;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.time.Instant;
import java.time.InstantSource;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import org.greenbead.core.account.Account;
import org.greenbead.core.book.Facts;
import org.greenbead.core.record.Kept;
import org.greenbead.core.route.Job;
import org.greenbead.store.Ledger;
import org.greenbead.store.OpenFiles;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** The rule book's word on the whole job, and notes written beside it, by keys. */
public class BookWindowTest {
    private BenchWindow window;

    @BeforeMethod
    public void open() throws Exception {
        window = BenchWindow.onDemo();
        window.open();
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.K);
        window.awaitText("#book-title", "warnings");
    }

    @AfterMethod(alwaysRun = true)
    public void close() throws Exception {
        window.close();
        window.remove();
    }

    private Facts kept() throws Exception {
        window.close();
        Facts facts;
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            facts = ledger.job("SB-0417").facts();
        }
        window.open();
        return facts;
    }

    private int cares() throws Exception {
        Matcher title = Pattern.compile("warnings (\\d+)").matcher(window.text("#book-title"));
        assertTrue(title.find(), window.text("#book-title"));
        return Integer.parseInt(title.group(1));
    }

    /** The account stands behind the check: every act with its time, and nothing in it can be changed. */
    @Test
    public void accountIsRead() throws Exception {
        window.press(KeyCode.A);
        window.awaitText("#account-title", "SB-0417");
        window.awaitText("#account-which", "all");
        int all = acts();
        assertTrue(all > 5, "acts: " + all);
        window.press(KeyCode.F);
        window.awaitText("#account-which", "by hand");
        assertTrue(acts() > 0 && acts() < all, "by hand " + acts());
        window.picture("account");
        window.press(KeyCode.F, KeyCode.F);
        window.awaitText("#account-which", "replaced");
        window.press(KeyCode.DOWN, KeyCode.LEFT);
        window.awaitText("#book-title", "warnings");
    }

    /** A record goes and comes back in its account; where a report was made with it that is said first. */
    @Test
    public void aRecordIsTakenBackAndBroughtBack() throws Exception {
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            Job job = ledger.job("SB-0417");
            Kept rail = new Kept("rail-77", "rail", Instant.now(), "technician A",
                    Map.of("name", "harbour", "ohm", 18.0));
            ledger.save(Account.noted(Optional.of(job), job.with(rail), Instant.now(), "technician A"),
                    "noted", "");
        }
        window.open();
        deleteTheNewest();
        window.awaitText("#account-said", "Taken back");
        window.await("gone", () -> record().isEmpty());
        window.picture("account-thrown");
        window.press(KeyCode.ENTER);
        window.awaitText("#account-said", "Brought back");
        window.await("back", () -> record().filter(r -> r.number("ohm") == 18.0).isPresent());
        window.close();
        try (Ledger ledger = Ledger.open(window.data(), new OpenFiles(), InstantSource.system())) {
            ledger.reported("SB-0417", "report-sb-0417.pdf");
        }
        window.open();
        deleteTheNewest();
        window.awaitText("#account-said", "report-sb-0417.pdf");
        assertTrue(record().isPresent(), "said, not done");
        window.press(KeyCode.DELETE);
        window.awaitText("#account-said", "Taken back");
        window.await("gone", () -> record().isEmpty());
    }

    /** From the first page to the account, and there the line in front. */
    private void deleteTheNewest() throws Exception {
        window.awaitNode("#remedy-CELL_CONNECTED");
        window.press(KeyCode.K);
        window.awaitText("#book-title", "warnings");
        window.press(KeyCode.A);
        window.awaitText("#account-title", "SB-0417");
        window.press(KeyCode.DOWN, KeyCode.UP, KeyCode.DELETE);
    }

    private Optional<Kept> record() throws Exception {
        try (Ledger ledger = Ledger.openShared(window.data(), new OpenFiles(), InstantSource.system())) {
            return ledger.job("SB-0417").record("rail-77");
        }
    }

    private int acts() throws Exception {
        return window.fx(() -> window.scene().getRoot().lookupAll("#account-list > .check-row").size());
    }

    /** The number before a card, from 1. */
    private int card(String rule) throws Exception {
        var cards = window.fx(() -> window.scene().getRoot().lookupAll("#book-list > .finding").stream()
                .map(n -> String.valueOf(n.getId())).toList());
        assertTrue(cards.contains("book-" + rule), cards.toString());
        return cards.indexOf("book-" + rule) + 1;
    }

    /** Never more than five in sight; the pedal brings the next and comes round. */
    @Test
    public void fiveAtATime() throws Exception {
        String one = window.scene().getRoot().lookupAll("#book-list > .finding").iterator().next().getId();
        assertEquals(window.scene().getRoot().lookupAll("#book-list > .finding").size(), 5);
        window.pedal("Show the next");
        window.await("others", () -> window.scene().lookup("#" + one.replace(".", "\\.")) == null
                && !window.scene().getRoot().lookupAll("#book-list > .finding").isEmpty());
        window.pedal("Show the worst again");
        window.await("the first again",
                () -> window.scene().getRoot().lookupAll("#book-list > .finding").stream()
                        .anyMatch(n -> one.equals(n.getId())));
    }

    /** A digit asks for a reason; with one the finding is set apart and stays in the job, without one nothing is muted. */
    @Test
    public void aFindingIsMutedWithAReason() throws Exception {
        int before = cares();
        int bent = card("intake.bent-board-cracked-chip");
        window.press(KeyCode.valueOf("DIGIT" + bent));
        window.press(KeyCode.ENTER);
        window.awaitText("#book-said", "with a reason only");
        window.press(KeyCode.valueOf("DIGIT" + bent));
        window.fx(() -> {
            ((TextField) window.scene().lookup("#book-line")).setText("looked at it under the lamp");
            return null;
        });
        window.press(KeyCode.ENTER);
        window.awaitText("#book-title", "warnings " + (before - 1));
        assertEquals(kept().at("waivers.0.reason").orElseThrow(), "looked at it under the lamp");
    }

    /** From a finding to the question that was forgotten; the answer settles it, is kept with its record, and can be taken back. */
    @Test
    public void whatWasForgottenIsWrittenDown() throws Exception {
        int before = cares();
        window.pressControl(KeyCode.valueOf("DIGIT" + card("intake.bent-board-cracked-chip")));
        window.awaitText("#ask-question", "cracks");
        window.fx(() -> {
            TextInputControl line = (TextInputControl) window.scene().lookup("#ask-line");
            line.requestFocus();
            line.setText("none under slanting light");
            return null;
        });
        window.press(KeyCode.ENTER);
        window.press(KeyCode.ESCAPE);
        window.press(KeyCode.K);
        window.awaitText("#book-title", "warnings " + (before - 1));
        window.pressControl(KeyCode.Z);
        window.awaitText("#book-title", "warnings " + before);
        assertTrue(kept().at("chip.crack_check").isEmpty(), "nothing is typed as a fact");
    }

    /** From any page one press shows where its figures come from, and another leads back. */
    @Test
    public void aFigureSaysWhereItIsFrom() throws Exception {
        window.press(KeyCode.Y);
        window.awaitNode("#over-lift");
        window.press(KeyCode.I);
        window.awaitText("#where-title", "figures of this page");
        window.awaitNode("#where-board-factory_alloy");
        window.picture("where");
        assertFalse(window.shows("#where-rails-count"), "of another page");
        window.press(KeyCode.F);
        window.awaitText("#where-title", "are known of this job");
        window.press(KeyCode.I);
        window.awaitNode("#over-lift");
        window.press(KeyCode.V);
        window.awaitNode("#proof-rails");
        window.press(KeyCode.I);
        window.awaitText("#where-title", "figures of this page");
        assertFalse(window.shows("#where-board-factory_alloy"), "of another page");
        window.press(KeyCode.SPACE);
        window.awaitNode("#proof-rails");
        window.press(KeyCode.G);
        window.awaitNode("#bead-lift_run");
    }
}
