package org.greenbead.core.proof;

import static org.testng.Assert.assertEquals;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class MaskingTest {
    @DataProvider
    Object[][] texts() {
        return new Object[][]{{"write to mate.two@ferry.example please", "write to ••• please"},
                {"call +44 (0)1555 512 338 after six", "call ••• after six"},
                {"call 0155-512-338", "call •••"},
                {"PIN is 4821", "PIN is •••"}, {"password: Tern", "password: •••"}, {"code 99x", "code •••"},
                {"the code reader is dead", "the code reader is dead"},
                {"18.4 Ω at 21.5 °C, 1180 Ω, 12:30", "18.4 Ω at 21.5 °C, 1180 Ω, 12:30"},
                {"QX-510 with 528 balls, 0.40 mm", "QX-510 with 528 balls, 0.40 mm"},
                {"1,204 files, hash 77aa", "1,204 files, hash 77aa"}};
    }

    @Test(dataProvider = "texts")
    public void whatBelongsToAPersonGoesAndReadingsStay(String text, String masked) {
        assertEquals(Masking.of(text), masked);
    }
}
