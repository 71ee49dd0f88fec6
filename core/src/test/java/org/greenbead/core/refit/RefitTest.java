package org.greenbead.core.refit;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.greenbead.core.record.Kept;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Loads against hand-worked examples and tables. */
public class RefitTest {
    /** 40 kg on 105 cm² of strip: 392 N, 37 kPa. */
    @Test
    public void aWeightIsAPressure() {
        var load = new PressLoad(40, 105);
        assertEquals(load.newton(), 392, 0.5);
        assertEquals(load.kpa(), 37.4, 0.1);
        for (double kpa : new double[]{5, 37, 100, 340}) {
            assertEquals(new PressLoad(PressLoad.massKg(kpa, 12.5), 12.5).kpa(), kpa, 1e-9);
        }
        expectThrows(IllegalArgumentException.class, () -> new PressLoad(40, 0));
    }

    private static Kept kept(String type, Map<String, Object> fields) {
        return new Kept(type + "-1", type, Instant.EPOCH, "me", fields);
    }

    /** What is not noted is not reckoned, and figures that are none leave the rest standing. */
    @Test
    public void theSheetSaysWhatIsKnownAndNoMore() {
        RefitSheet nothing = RefitSheet.of(List.of());
        assertTrue(nothing.empty() && !nothing.overdriven());
        RefitSheet label = RefitSheet.of(List.of(
                kept("enclosure", Map.of("press_cm2", 105.0, "press_label_kpa", 37.0, "press_min", 30.0))));
        assertEquals(label.wantedKg().getAsDouble(), 39.6, 0.05);
        assertTrue(label.laidKpa().isEmpty() && label.pressedMin().isEmpty());
        assertEquals(label.pressMin().getAsDouble(), 30.0);
        RefitSheet area = RefitSheet
                .of(List.of(kept("enclosure", Map.of("press_cm2", 0.0, "press_label_kpa", 37.0)),
                        kept("fastening", Map.of("thread_mm", 2.0, "into", "plastic", "torque", "20 Ncm"))));
        assertTrue(area.wantedKg().isEmpty());
        assertTrue(area.overdriven(), "0.2 N·m into plastic");
        assertEquals(area.mostNm().getAsDouble(), new SmallThread(2, SmallThread.Into.PLASTIC).mostNm());
        RefitSheet odd = RefitSheet
                .of(List.of(kept("fastening", Map.of("thread_mm", 2.2, "into", "metal", "torque", "tight"))));
        assertTrue(odd.mostNm().isEmpty() && odd.drivenNm().isEmpty());
    }

    /** Stress areas of ISO 898-1, mm²: M3 5.03, M4 8.78, M5 14.2; the torque follows from them. */
    @Test
    public void torqueFollowsFromTheStressArea() {
        double[][] table = {{3, 5.03}, {4, 8.78}, {5, 14.2}};
        for (double[] row : table) {
            double expected = 0.2 * 0.75 * 310 * row[1] * row[0] / 1000;
            assertEquals(new SmallThread(row[0], SmallThread.Into.METAL).mostNm(), expected, 0.005 * expected,
                    "M" + row[0]);
        }
        double before = 0;
        for (double d : new double[]{1, 1.2, 1.4, 1.6, 2, 2.5, 3, 4, 5}) {
            double now = new SmallThread(d, SmallThread.Into.METAL).mostNm();
            assertTrue(now > before, "M" + d);
            assertTrue(new SmallThread(d, SmallThread.Into.PLASTIC).mostNm() < now / 2);
            before = now;
        }
        assertTrue(expectThrows(IllegalArgumentException.class,
                () -> new SmallThread(2.2, SmallThread.Into.METAL)).getMessage()
                .contains("M2.2 is no thread"));
    }

    @DataProvider
    public Object[][] written() {
        return new Object[][]{{"0.2 Nm", 0.2}, {"0,2 N·m", 0.2}, {"20 Ncm", 0.2}, {"20 cNm", 0.2},
                {"200 mNm", 0.2},
                {"2 kgf-cm", 0.196133}, {"1.8 in-lb", 0.203373}, {"0.25", 0.25}};
    }

    @Test(dataProvider = "written")
    public void aTorqueIsReadAsItIsWritten(String text, double nm) {
        assertEquals(SmallThread.newtonMetres(text).orElseThrow(), nm, 1e-6);
        assertTrue(SmallThread.newtonMetres("hand tight").isEmpty());
        assertTrue(SmallThread.newtonMetres("2 turns").isEmpty());
    }
}
