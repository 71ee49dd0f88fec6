package org.greenbead.core.alloy;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Compositions, mixes, and the choice of an alloy. */
public class DilutionTest {
    private static final MeltingTable TABLE = MeltingTable.standard();

    private static Dilution.Part part(String alloy, double mass) {
        return new Dilution.Part(TABLE.require(alloy).made(), mass);
    }

    @DataProvider
    Object[][] densities() {
        return new Object[][]{{"Sn42Bi58", 8.55}, {"Sn63Pb37", 8.40}, {"SAC305", 7.37},
                {"Sn99.3Cu0.7", 7.30}};
    }

    @Test(dataProvider = "densities")
    public void densityIsThatOfIdealMixing(String alloy, double gPerCm3) {
        assertEquals(TABLE.require(alloy).made().densityGPerCm3(), gPerCm3, 0.011);
    }

    @Test
    public void bismuthThatThinnedMeetsLeadInTheBall() {
        Dilution.Mix mix = Dilution
                .of(new Dilution.Mixed(part("SAC305", 1), part("Sn42Bi58", 1.5), 0.12,
                        part("Sn63Pb37", 1.2)));
        assertEquals(mix.made().pct("Bi"), 6.96, 0.01);
        assertEquals(mix.made().pct("Pb"), 29.6, 0.01);
        assertTrue(mix.bismuthLead());
        assertEquals(mix.lowestSolidusC(), 96.0);
        assertEquals(Dilution.leftAllowed(part("SAC305", 1), part("Sn42Bi58", 1.5), part("Sn63Pb37", 1.2)),
                0.0293,
                0.0002);
    }

    /** At the part that is allowed, bismuth stands exactly at its trace. */
    @Test
    public void allowedPartIsWhereTheTraceIsMet() {
        var random = new Random(7);
        for (int i = 0; i < 200; i++) {
            var f = part("SAC305", 0.5 + random.nextDouble());
            var a = part(List.of("Sn42Bi58", "Sn64Bi35Ag1", "Sn43Pb43Bi14").get(random.nextInt(3)),
                    0.5 + random.nextDouble());
            var b = part("Sn63Pb37", 0.5 + random.nextDouble());
            double left = Dilution.leftAllowed(f, a, b);
            Dilution.Mix at = Dilution.of(new Dilution.Mixed(f, a, left, b));
            assertTrue(at.made().pct("Bi") <= Dilution.TRACE_BI_PCT + 1e-9);
            if (left < 1) {
                assertEquals(at.made().pct("Bi"), Dilution.TRACE_BI_PCT, 1e-9);
            }
        }
    }

    /** Mass is kept: the parts of a mix add up to a hundred, and each lies between those of its parents. */
    @Test
    public void elementsAreKept() {
        var random = new Random(11);
        List<MeltingTable.Row> rows = TABLE.rows();
        for (int i = 0; i < 200; i++) {
            var f = part(rows.get(random.nextInt(rows.size())).name(), random.nextDouble());
            var a = part(rows.get(random.nextInt(rows.size())).name(), random.nextDouble());
            var b = part(rows.get(random.nextInt(rows.size())).name(), 0.1 + random.nextDouble());
            Composition made = Dilution.of(new Dilution.Mixed(f, a, random.nextDouble(), b)).made();
            assertEquals(made.weightPct().values().stream().mapToDouble(Double::doubleValue).sum(), 100, 0.5);
            for (String element : List.of("Sn", "Pb", "Bi", "Ag", "Cu")) {
                double low = Math.min(f.made().pct(element),
                        Math.min(a.made().pct(element), b.made().pct(element)));
                double high = Math.max(f.made().pct(element),
                        Math.max(a.made().pct(element), b.made().pct(element)));
                assertTrue(made.pct(element) >= low - 1e-9 && made.pct(element) <= high + 1e-9, element);
            }
        }
    }

    @Test
    public void nothingAddedChangesNothing() {
        Dilution.Mix mix = Dilution
                .of(new Dilution.Mixed(part("SAC305", 1), part("Sn63Pb37", 0), 0.1, part("SAC305", 1)));
        assertEquals(mix.made().pct("Sn"), 96.5, 1e-9);
        assertEquals(mix.lowestSolidusC(), 217.0);
        assertFalse(mix.bismuthLead());
        assertEquals(Dilution.leftAllowed(part("SAC305", 1), part("Sn63Pb37", 1), part("SAC305", 1)), 1.0);
    }

    @Test
    public void tinBismuthLiquidusFalls() {
        Dilution.Mix mix = Dilution.of(new Dilution.Mixed(part("Sn99.3Cu0.7", 0), part("Sn42Bi58", 0), 0,
                new Dilution.Part(Composition.read("Sn 85 Bi 15"), 1)));
        assertEquals(mix.liquidusC(), 207.7, 0.01);
    }

    @Test
    public void tracesBelowTheirLimitsSayNothing() {
        assertEquals(Dilution.tracesSolidusC(2, 1), 96.0);
        assertEquals(Dilution.tracesSolidusC(2, 0.9), 138.0);
        assertEquals(Dilution.tracesSolidusC(1.9, 1), 179.0);
        assertTrue(Double.isNaN(Dilution.tracesSolidusC(1.9, 0.9)));
    }

    @Test
    public void refusesWhatIsNoSolder() {
        expectThrows(IllegalArgumentException.class, () -> Composition.read("Sn 63 Pb 30"));
        expectThrows(IllegalArgumentException.class, () -> Composition.read("Sn 63 Xx 37"));
        expectThrows(IllegalArgumentException.class,
                () -> new Dilution.Mixed(part("SAC305", 1), part("SAC305", 1), 1.2, part("SAC305", 1)));
        assertTrue(
                expectThrows(IllegalArgumentException.class, () -> TABLE.require("Unobtainium")).getMessage()
                        .contains("SAC305"));
    }

    private static AlloyChoice.Option of(List<AlloyChoice.Option> options, String alloy) {
        return options.stream().filter(o -> o.alloy().equals(alloy)).findFirst().orElseThrow();
    }

    @Test
    public void whatWasBuiltComesFirstForPortableUse() {
        var options = AlloyChoice.of("SAC305", AlloyChoice.Duty.PORTABLE, 260, 0, 0, Double.NaN, false,
                AlloyChoice.Hands.UNKNOWN);
        assertEquals(options.getFirst().alloy(), "SAC305");
        assertEquals(options.getFirst().fromC(), 235.0);
        assertEquals(options.getFirst().toC(), 250.0);
        assertFalse(of(options, "Sn42Bi58").possible(), "it cracks when dropped");
        assertTrue(of(options, "Sn63Pb37").words().contains(AlloyChoice.Word.NEEDS_CONSENT));
    }

    @Test
    public void windowIsCutByThePackage() {
        assertEquals(
                of(AlloyChoice.of("SAC305", AlloyChoice.Duty.FIXED, 245, 0, 0, 217, true,
                        AlloyChoice.Hands.UNKNOWN), "SAC305").toC(),
                240.0);
        var none = AlloyChoice.of("SAC305", AlloyChoice.Duty.FIXED, 235, 0, 0, 217, true,
                AlloyChoice.Hands.UNKNOWN);
        assertFalse(of(none, "SAC305").possible());
        assertEquals(none.getFirst().alloy(), "Sn63Pb37", "consented, and the only one with room");
        assertEquals(of(none, "Sn63Pb37").fromC(), 198.0);
        assertEquals(of(none, "Sn63Pb37").toC(), 213.0);
    }

    /** A learner with 528 balls: lead-free asks for more practice, the agreed eutectic comes first; able hands keep what was built. */
    @Test
    public void handsCount() {
        var learner = AlloyChoice.of("SAC305", AlloyChoice.Duty.FIXED, 260, 0, 0, Double.NaN, true,
                new AlloyChoice.Hands(1, 528));
        assertEquals(learner.getFirst().alloy(), "Sn63Pb37");
        assertTrue(of(learner, "SAC305").words().contains(AlloyChoice.Word.HARD_TO_FORM));
        assertTrue(of(learner, "Sn63Pb37").words().contains(AlloyChoice.Word.FORGIVING));
        for (AlloyChoice.Hands hands : List.of(new AlloyChoice.Hands(3, 528), new AlloyChoice.Hands(1, 96),
                AlloyChoice.Hands.UNKNOWN)) {
            assertEquals(AlloyChoice
                    .of("SAC305", AlloyChoice.Duty.FIXED, 260, 0, 0, Double.NaN, true, hands)
                    .getFirst().alloy(), "SAC305", hands.toString());
        }
    }

    @Test
    public void leadAndBismuthNeverMeet() {
        assertFalse(of(AlloyChoice.of("SAC305", AlloyChoice.Duty.SCRAP, 260, 5, 0, 217, true,
                AlloyChoice.Hands.UNKNOWN), "Sn42Bi58")
                .possible());
        assertFalse(of(AlloyChoice.of("SAC305", AlloyChoice.Duty.FIXED, 260, 0, 4, 217, true,
                AlloyChoice.Hands.UNKNOWN), "Sn63Pb37")
                .possible());
        assertTrue(of(AlloyChoice.of("SAC305", AlloyChoice.Duty.SCRAP, 260, 0, 0, 217, true,
                AlloyChoice.Hands.UNKNOWN), "Sn42Bi58")
                .possible());
    }
}
