package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.util.List;
import java.util.Optional;
import org.greenbead.core.bead.BeadMap;
import org.greenbead.core.bead.Site;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Bead maps as files. */
public class BeadMapCsvTest {
    @Test
    public void mapGoesThroughItsFileUnchanged() throws Exception {
        var sites = new java.util.ArrayList<>(BeadMap.grid(6, 5, 0.65, Optional.of(0.35)).sites());
        sites.set(3, new Site("A4", 0.65, 1.625, Optional.empty(), "RESET, low", Site.Critical.ONLY));
        var map = new BeadMap(sites);
        BeadMap back = BeadMapCsv.parse(BeadMapCsv.write(map), "m.csv");
        assertEquals(BeadMapCsv.write(back), BeadMapCsv.write(map));
        for (int i = 0; i < sites.size(); i++) {
            Site read = back.sites().get(i);
            assertTrue(read.distanceMm(sites.get(i)) < 1e-6, "to the nanometre: " + read);
            assertEquals(read.name() + read.net() + read.critical() + read.diameterMm(),
                    sites.get(i).name() + sites.get(i).net()
                            + sites.get(i).critical() + sites.get(i).diameterMm());
        }
    }

    @Test
    public void lastColumnsMayBeMissing() throws Exception {
        BeadMap map = BeadMapCsv.parse("site,x_mm,y_mm,diameter_mm\nA2,-3.9,4.55,0.4\nA3,-3.25,4.55,\n",
                "m.csv");
        assertEquals(map.sites().get(1).diameterMm(), Optional.empty());
        assertEquals(map.sites().getFirst().critical(), Site.Critical.UNKNOWN);
        assertEquals(BeadMapCsv.parse("\uFEFFsite,x_mm,y_mm\nB:A1,0,0\n", "m.csv").sites().getFirst().name(),
                "B:A1");
    }

    @DataProvider
    Object[][] bad() {
        String head = "site,x_mm,y_mm,diameter_mm,net,critical\n";
        return new Object[][]{{"", "names no site", 1}, {head, "names no site", 1},
                {"name,x,y\nA1,0,0\n", "header", 1},
                {head + "A1,0,0,0.3,,\nA1,1,0,0.3,,\n", "stands twice", 0},
                {head + "A1,0,0,0.3,,\nA2,0.1,0,0.3,,\n", "overlap", 0},
                {head + "O1,0,0,0.3,,\n", "is no site", 2}, {head + "A1,zero,0,0.3,,\n", "no number", 2},
                {head + "A1,0,0,9,,\n", "diameter", 2},
                {head + "A1,0,0,0.3,,vital\n", "says nothing", 2}, {head + "A1,0,0\n", "columns", 2},
                {head + "A1,NaN,0,0.3,,\n", "no number", 2}};
    }

    @Test(dataProvider = "bad")
    public void saysWhereAndWhat(String text, String says, int line) {
        BadFileException e = expectThrows(BadFileException.class, () -> BeadMapCsv.parse(text, "m.csv"));
        assertTrue(e.getMessage().contains(says), e.getMessage());
        assertEquals(e.line(), line, e.getMessage());
        assertTrue(List.of("Write", "Correct").stream().anyMatch(e.remedy()::startsWith), e.remedy());
    }
}
