package org.greenbead.core.configure;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

public class StrapTest {
    private static final Strap.Supply EXACT = new Strap.Supply(1.8, 0, 0, 0.35, 0.65);

    /** The worked values of the trade. */
    @Test
    public void dividerVolts() {
        Strap.Reading low = new Strap("S0", "R1", 47_000, "R2", 4_700).reading(true, true, EXACT);
        assertEquals(low.nominalV(), 0.164, 5e-4);
        assertEquals(low.level(), Strap.Level.LOW);
        Strap.Reading between = new Strap("S0", "R1", 22_000, "R2", 33_000).reading(true, true, EXACT);
        assertEquals(between.nominalV(), 1.08, 1e-9);
        assertEquals(between.level(), Strap.Level.UNDEFINED);
        var strap = new Strap("S0", "R1", 10_000, "R2", 10_000);
        assertEquals(strap.reading(true, false, EXACT).level(), Strap.Level.HIGH);
        assertEquals(strap.reading(false, true, EXACT).level(), Strap.Level.LOW);
        assertEquals(strap.reading(false, false, EXACT).level(), Strap.Level.FLOATING);
        assertEquals(strap.reading(true, true, EXACT).level(), Strap.Level.UNDEFINED, "both fitted");
    }

    /** Lowest and highest volts against every corner of the tolerances, one by one. */
    @Test
    public void toleranceCornersByEnumeration() {
        var random = new Random(5);
        for (int n = 0; n < 300; n++) {
            double up = Math.pow(10, 2 + 4 * random.nextDouble());
            double down = Math.pow(10, 2 + 4 * random.nextDouble());
            var supply = new Strap.Supply(1.8, 5 * random.nextDouble(), 10 * random.nextDouble(), 0.35, 0.65);
            Strap.Reading r = new Strap("S", "A", up, "B", down).reading(true, true, supply);
            double least = Double.MAX_VALUE;
            double most = 0;
            boolean allLow = true;
            boolean allHigh = true;
            for (int corner = 0; corner < 8; corner++) {
                double u = up * (1 + ((corner & 1) == 0 ? -1 : 1) * supply.resistorTolPct() / 100);
                double d = down * (1 + ((corner & 2) == 0 ? -1 : 1) * supply.resistorTolPct() / 100);
                double v = supply.vccV()
                        * (1 + ((corner & 4) == 0 ? -1 : 1) * supply.vccTolerancePct() / 100);
                least = Math.min(least, v * d / (u + d));
                most = Math.max(most, v * d / (u + d));
                allLow &= d / (u + d) <= 0.35;
                allHigh &= d / (u + d) >= 0.65;
            }
            assertEquals(r.lowV(), least, 1e-9);
            assertEquals(r.highV(), most, 1e-9);
            assertEquals(r.level(),
                    allLow ? Strap.Level.LOW : allHigh ? Strap.Level.HIGH : Strap.Level.UNDEFINED);
        }
    }

    private static StrapTable table(int straps) {
        var all = new java.util.ArrayList<Strap>();
        for (int i = 0; i < straps; i++) {
            all.add(new Strap("S" + i, "U" + i, 10_000, "D" + i, 10_000));
        }
        return new StrapTable("schematic", "C", EXACT, all,
                straps == 4 ? Map.of("0110", "MR-4G", "1100", "MR-8G") : Map.of());
    }

    /** From anything that may be fitted to every code: the code stands, one of each pair, and no shorter list does it. */
    @Test
    public void changesByEnumeration() {
        StrapTable table = table(4);
        for (int was = 0; was < 256; was++) {
            Set<String> fitted = new HashSet<>();
            for (int i = 0; i < 4; i++) {
                if ((was >> 2 * i & 1) == 1) {
                    fitted.add("U" + i);
                }
                if ((was >> 2 * i & 2) == 2) {
                    fitted.add("D" + i);
                }
            }
            for (int code = 0; code < 16; code++) {
                String target = String.format("%4s", Integer.toBinaryString(code)).replace(' ', '0');
                List<StrapTable.Change> changes = table.changes(fitted, target);
                Set<String> after = StrapTable.after(fitted, changes);
                assertEquals(table.code(after), target);
                assertEquals(after.size(), 4, "one of each pair");
                int moved = changes.stream().mapToInt(c -> c.take().size() + c.fit().size()).sum();
                Set<String> odd = new HashSet<>(fitted);
                odd.removeAll(after);
                Set<String> missing = new HashSet<>(after);
                missing.removeAll(fitted);
                assertEquals(moved, odd.size() + missing.size(), "nothing is touched that may stay");
            }
        }
        List<StrapTable.Change> worked = table.changes(Set.of("D0", "U1", "U2", "D3"), "1100");
        assertEquals(worked.size(), 2);
        assertEquals(worked.stream().mapToInt(c -> c.take().size()).sum(), 2);
        assertEquals(worked.stream().mapToInt(c -> c.fit().size()).sum(), 2);
        assertEquals(table.codeOf("mr-8g"), Optional.of("1100"));
        assertEquals(table.codeOf("MR-16G"), Optional.empty());
    }

    @Test
    public void nonsenseIsRefused() {
        StrapTable table = table(4);
        assertTrue(expectThrows(IllegalArgumentException.class, () -> table.changes(Set.of("R99"), "0110"))
                .getMessage().contains("R99"));
        expectThrows(IllegalArgumentException.class, () -> table.changes(Set.of(), "01"));
        expectThrows(IllegalArgumentException.class, () -> new Strap("S", "R1", 1000, "R1", 1000));
        expectThrows(IllegalArgumentException.class, () -> new StrapTable("x", "", EXACT,
                List.of(new Strap("A", "R1", 1, "R2", 1), new Strap("B", "R2", 1, "R3", 1)), Map.of()));
        StrapTable twice = new StrapTable("x", "", EXACT, table(2).straps(),
                Map.of("00", "one", "01", "one"));
        assertTrue(expectThrows(IllegalArgumentException.class, () -> twice.codeOf("one")).getMessage()
                .contains("several codes"));
    }

    @Test
    public void capacityByRanks() {
        var c = new Capacity(8, 16, 64, 16);
        assertEquals(c.gigabytes(), 16.0);
        assertEquals(c.chipsPerRank(), 4);
        assertEquals(c.ranks(), 2);
        expectThrows(IllegalArgumentException.class, () -> new Capacity(7, 16, 64, 16));
        expectThrows(IllegalArgumentException.class, () -> new Capacity(8, 16, 64, 24));
    }

    @Test
    public void aPartNumberIsFoundHoweverItIsWritten() {
        byte[] dump = new byte[400];
        put(dump, 20, "MR-8GX");
        put(dump, 100, "RM8-XG");
        byte[] wide = "MR-8GX".getBytes(java.nio.charset.StandardCharsets.UTF_16LE);
        System.arraycopy(wide, 0, dump, 200, wide.length);
        put(dump, 300, "8-RM");
        List<Dump.Hit> hits = Dump.find(dump, "MR-8GX");
        assertEquals(hits, List.of(new Dump.Hit(20, Dump.Mode.TEXT), new Dump.Hit(100, Dump.Mode.SWAPPED),
                new Dump.Hit(200, Dump.Mode.WIDE), new Dump.Hit(300, Dump.Mode.TURNED)));
        assertEquals(Dump.find(dump, "4d:52:2d").getFirst(), new Dump.Hit(20, Dump.Mode.HEX));
        assertEquals(Dump.find(dump, "VG-90"), List.of());
        expectThrows(IllegalArgumentException.class, () -> Dump.find(dump, "M"));
    }

    private static void put(byte[] dump, int at, String text) {
        byte[] bytes = text.getBytes(java.nio.charset.StandardCharsets.ISO_8859_1);
        System.arraycopy(bytes, 0, dump, at, bytes.length);
    }

    @Test
    public void twoReadOutsDifferWhereTheyDiffer() {
        byte[] a = new byte[1000];
        byte[] b = a.clone();
        b[10] = 1;
        b[13] = 1;
        b[500] = 1;
        assertEquals(Dump.differences(a, b), List.of(new Dump.Change(10, 4), new Dump.Change(500, 1)));
        assertEquals(Dump.differences(a, a), List.of());
        assertEquals(Dump.differences(a, new byte[1004]), List.of(new Dump.Change(1000, 4)));
    }
}
