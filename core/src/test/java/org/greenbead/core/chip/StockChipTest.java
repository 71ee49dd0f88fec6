package org.greenbead.core.chip;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Labels, lives and look-alikes. */
public class StockChipTest {
    private static final Instant NOW = Instant.parse("2026-03-01T09:00:00Z");

    static StockChip chip(int number, String part, String job) {
        return new StockChip(new ChipLabel(number).text(), part, 528, 14, StockChip.Origin.OWN,
                "WB-7 of SB-0417",
                StockChip.Place.TRAY, "A1", StockChip.Health.UNKNOWN, "", "", "", 1, 0,
                job.isEmpty() ? Optional.empty() : Optional.of(job), List.of());
    }

    /** The standard's own promise: every single wrong digit is found. */
    @Test
    public void everySingleSlipIsFound() {
        int swaps = 0;
        int missed = 0;
        for (int number = 1; number < 10_000; number += 37) {
            String digits = new ChipLabel(number).text().replaceAll("\\D", "");
            for (int at = 0; at < 5; at++) {
                for (char wrong = '0'; wrong <= '9'; wrong++) {
                    if (wrong != digits.charAt(at)) {
                        String slipped = digits.substring(0, at) + wrong + digits.substring(at + 1);
                        assertTrue(ChipLabel.read(slipped).isEmpty(), digits + " as " + slipped);
                    }
                }
                if (at < 4 && digits.charAt(at) != digits.charAt(at + 1)) {
                    swaps++;
                    String swapped = digits.substring(0, at) + digits.charAt(at + 1) + digits.charAt(at)
                            + digits.substring(at + 2);
                    missed += ChipLabel.read(swapped).isPresent() ? 1 : 0;
                }
            }
        }
        assertTrue(missed < swaps * 0.03, missed + " of " + swaps + " swaps were not noticed");
    }

    @Test
    public void labelIsReadAsItIsTyped() {
        String text = new ChipLabel(42).text();
        assertTrue(text.matches("GB-0042-\\d"));
        assertEquals(ChipLabel.read(text.toLowerCase(java.util.Locale.ROOT)).orElseThrow().number(), 42);
        assertEquals(ChipLabel.read(" " + text.replaceAll("\\D", "") + " ").orElseThrow().number(), 42);
        assertTrue(ChipLabel.read("hello").isEmpty());
        assertTrue(ChipLabel.read("GB-0000-2").isEmpty());
        expectThrows(IllegalArgumentException.class, () -> new ChipLabel(10_000));
        var seen = new HashSet<String>();
        for (int n = 1; n < 10_000; n++) {
            assertTrue(seen.add(new ChipLabel(n).text()));
        }
    }

    @Test
    public void lookAlikesAreKeptApart() {
        StockChip ours = chip(1, "QX-510", "SB-0417");
        StockChip twin = chip(2, "qx-510", "SB-0420");
        StockChip sameSize = chip(3, "QX-512", "");
        StockChip gone = chip(4, "QX-510", "").moved(StockChip.Place.GONE, "", Optional.empty(), NOW, "sold");
        List<StockChip> all = List.of(ours, twin, sameSize, gone);
        assertEquals(LookAlikes.of(ours, all), List.of(twin, sameSize));
        assertEquals(LookAlikes.answer(ours, ours.label(), all), LookAlikes.Answer.RIGHT);
        assertEquals(LookAlikes.answer(ours, twin.label(), all), LookAlikes.Answer.OTHER_CHIP);
        assertEquals(LookAlikes.answer(ours, new ChipLabel(9).text(), all), LookAlikes.Answer.UNKNOWN_LABEL);
        assertEquals(LookAlikes.answer(ours, "QX-510", all), LookAlikes.Answer.NO_LABEL);
        assertEquals(LookAlikes.wanted("SB-0417", "QX-510", all), Optional.of(ours));
        assertEquals(LookAlikes.wanted("SB-9999", "QX-510", all), Optional.empty());
        assertEquals(LookAlikes.free(all).number(), 5);
    }

    /** With no chip of the job noted as its target's part, the label of any of them says which it is; none is taken unasked. */
    @Test
    public void chipsOfAJobThatNobodyNamedAreAskedFor() {
        StockChip one = chip(1, "not named yet", "SB-0417");
        StockChip two = chip(2, "not named yet", "SB-0417");
        StockChip stock = chip(3, "QX-510", "");
        List<StockChip> all = List.of(stock, two, one);
        List<StockChip> mayBe = LookAlikes.mayBe("SB-0417", "QX-510", all);
        assertEquals(mayBe, List.of(one, two));
        assertEquals(LookAlikes.confused(mayBe, all), List.of(one, two));
        assertEquals(LookAlikes.answer(mayBe, two.label(), all), LookAlikes.Answer.RIGHT);
        assertEquals(LookAlikes.answer(mayBe, stock.label(), all), LookAlikes.Answer.OTHER_CHIP);
        StockChip named = two.named("QX-510", NOW, "part: QX-510");
        List<StockChip> then = List.of(stock, named, one);
        assertEquals(LookAlikes.mayBe("SB-0417", "QX-510", then), List.of(named));
        assertTrue(LookAlikes.confused(List.of(named), then).contains(stock));
        assertEquals(named.life().getLast().what(), "part: QX-510");
        assertTrue(LookAlikes.confused(LookAlikes.mayBe("SB-9999", "QX-510", then), then).isEmpty());
    }

    @Test
    public void healthWantsAProof() {
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> chip(1, "QX-510", "").known(StockChip.Health.GOOD, " ", NOW, "called good"))
                .getMessage()
                .contains("without a proof"));
        StockChip good = chip(1, "QX-510", "").known(StockChip.Health.GOOD, "three rails within 12 %", NOW,
                "measured");
        assertEquals(good.health(), StockChip.Health.GOOD);
        assertEquals(good.life().getLast().what(), "measured");
    }

    @Test
    public void lifeIsAddedUp() {
        StockChip chip = chip(1, "QX-510", "").heated(1, 4.5, NOW, "lifted").heated(2, 3, NOW,
                "balls formed, shaped");
        assertEquals(chip.melts(), 4);
        assertEquals(chip.hotMin(), 7.5);
        assertEquals(chip.life().size(), 2);
        expectThrows(IllegalArgumentException.class,
                () -> new StockChip("GB-0001-0", "QX", 0, 0, StockChip.Origin.NEW,
                        "", StockChip.Place.TRAY, "", StockChip.Health.UNKNOWN, "", "", "", 0, 0,
                        Optional.empty(), List.of()));
    }

    @DataProvider
    Object[][] places() {
        return new Object[][]{{"drawer 3", StockChip.Place.DRAWER, "3"}, {"Tray", StockChip.Place.TRAY, ""},
                {"board AB-1 U1", StockChip.Place.BOARD, "AB-1 U1"},
                {" AB-1 U1 ", StockChip.Place.BOARD, "AB-1 U1"},
                {"gone", StockChip.Place.GONE, ""}, {"trayed up", StockChip.Place.BOARD, "trayed up"},
                {"DRAWER left, second", StockChip.Place.DRAWER, "left, second"}};
    }

    /** The first word says what it lies in or on, and only where it is that word. */
    @Test(dataProvider = "places")
    public void whereItWasPutIsRead(String typed, StockChip.Place place, String where) {
        assertEquals(StockChip.Put.read(typed), new StockChip.Put(place, where));
    }
}
