package org.greenbead.core.bead;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.greenbead.core.board.Point;
import org.testng.annotations.Test;

public class FieldGridTest {
    private static final BeadMap FIELD = BeadMap.grid(9, 7, 0.65, Optional.of(0.35));

    private static FieldGrid.Range range(int r0, int c0, int r1, int c1) {
        return new FieldGrid.Range(r0, c0, r1, c1);
    }

    @Test
    public void emptyCellsAreFoundByTheOthers() {
        BeadMap holed = FIELD.without("C3", "E5");
        FieldGrid grid = FieldGrid.of(holed);
        for (Site gone : FIELD.sites()) {
            RowNames.Place p = RowNames.place(gone.name()).orElseThrow();
            Point at = grid.at(p.row(), p.column());
            assertEquals(at.xMm(), gone.xMm(), 1e-9, gone.name());
            assertEquals(at.yMm(), gone.yMm(), 1e-9, gone.name());
            assertEquals(grid.nearest(gone.xMm() + 0.2, gone.yMm() - 0.2), p, gone.name());
        }
        assertEquals(grid.rows(), 9);
        assertEquals(grid.columns(), 7);
    }

    /** A turned, mirrored or slightly crooked field has its rows and columns all the same. */
    @Test
    public void anyTurnAndMirrorHasItsGrid() {
        var random = new Random(3);
        for (int quarter = 0; quarter < 4; quarter++) {
            for (BeadMap map : List.of(FIELD.turned(quarter), FIELD.mirrored().turned(quarter))) {
                var shaken = new BeadMap(map.sites().stream().map(s -> new Site(s.name(),
                        s.xMm() + 0.01 * random.nextGaussian(), s.yMm() + 0.01 * random.nextGaussian(),
                        s.diameterMm(), s.net(), s.critical())).toList());
                FieldGrid grid = FieldGrid.of(shaken);
                for (Site site : map.sites()) {
                    RowNames.Place p = RowNames.place(site.name()).orElseThrow();
                    assertEquals(grid.at(p.row(), p.column()).distanceMm(new Point(site.xMm(), site.yMm())),
                            0, 0.02);
                }
            }
        }
    }

    @Test
    public void emptyingAndFillingAreEachOthersInverse() {
        FieldGrid grid = FieldGrid.of(FIELD);
        FieldGrid.Range middle = range(2, 2, 5, 4);
        BeadMap emptied = grid.emptied(middle);
        assertEquals(emptied.sites().size(), 63 - 12);
        BeadMap back = FieldGrid.of(emptied).filled(range(5, 4, 2, 2));
        assertEquals(back.sites().stream().map(Site::name).toList(),
                FIELD.sites().stream().map(Site::name).toList());
        assertEquals(back.site("D4").orElseThrow().diameterMm(), Optional.of(0.35));
        assertThrows(IllegalArgumentException.class, () -> grid.emptied(range(0, 0, 8, 6)));
    }

    @Test
    public void netsSizesAndWeightsGoToTheRangeAlone() {
        FieldGrid grid = FieldGrid.of(FIELD);
        BeadMap changed = FieldGrid.of(FieldGrid.of(grid.net(range(0, 0, 0, 2), "VDD"))
                .critical(range(0, 0, 0, 2), Site.Critical.MANY)).sized(range(8, 6, 8, 6), 0.3);
        assertEquals(changed.sites().stream().filter(s -> s.net().equals("VDD")).map(Site::name).toList(),
                List.of("A1", "A2", "A3"));
        assertEquals(changed.sites().stream().filter(s -> s.critical() == Site.Critical.MANY).count(), 3);
        assertEquals(changed.sites().getLast().diameterMm(), Optional.of(0.3));
        assertEquals(changed.site("H1").orElseThrow().diameterMm(), Optional.of(0.35));
    }

    @Test
    public void aSecondFieldIsLeftAlone() {
        var both = new ArrayList<>(FIELD.sites());
        both.add(new Site("B:A1", 5, 5, Optional.of(0.5), "", Site.Critical.UNKNOWN));
        FieldGrid grid = FieldGrid.of(new BeadMap(both));
        assertTrue(grid.emptied(range(0, 0, 0, 0)).site("B:A1").isPresent());
        assertEquals(grid.at(0, 0).xMm(), FIELD.site("A1").orElseThrow().xMm(), 1e-9);
    }

    @Test
    public void aFieldIsTypedInWords() {
        BeadMap map = FieldGrid.typed("12 x 10, 0.8 mm, 0.45");
        assertEquals(map.sites().size(), 120);
        assertEquals(map.pitchMm(), 0.8, 1e-9);
        assertEquals(map.sites().getFirst().diameterMm(), Optional.of(0.45));
        assertEquals(FieldGrid.typed("4x4 0.5").sites().getFirst().diameterMm(), Optional.of(0.28));
        for (String odd : List.of("", "12", "12x", "x 3", "12x10", "12x10 fine", "12x10 0.8 0.4 7", "0x3 0.5",
                "12x10 0.01")) {
            assertThrows(IllegalArgumentException.class, () -> FieldGrid.typed(odd));
        }
        assertThrows(IllegalArgumentException.class,
                () -> FieldGrid.of(BeadMap.grid(1, 5, 0.5, Optional.empty())));
    }

    /** Two fields of different pitch: each has its own grid, and what is done in one leaves the other alone. */
    @Test
    public void aSecondFieldHasItsOwnGrid() {
        BeadMap two = FieldGrid.of(FIELD).with("3x4 1.0 0.5 at 0.1 -5.4");
        assertEquals(FieldGrid.fields(two), List.of("", "B"));
        FieldGrid main = FieldGrid.of(two);
        FieldGrid second = main.next();
        assertEquals(second.field(), "B");
        assertEquals(second.next().field(), "");
        assertEquals(second.rows(), 3);
        assertEquals(second.columns(), 4);
        assertEquals(second.pitchMm(), 1.0, 1e-9);
        assertEquals(main.pitchMm(), 0.65, 1e-9);
        assertEquals(main.rows(), 9);
        double midX = 0;
        double midY = 0;
        for (int r = 0; r < 3; r++) {
            for (int c = 0; c < 4; c++) {
                Site site = second.site(r, c).orElseThrow();
                assertEquals(site.name(), "B:" + RowNames.site(r, c));
                assertEquals(second.at(r, c).distanceMm(new Point(site.xMm(), site.yMm())), 0, 1e-9);
                midX += site.xMm() / 12;
                midY += site.yMm() / 12;
            }
        }
        assertEquals(midX, 0.1, 1e-9);
        assertEquals(midY, -5.4, 1e-9);
        BeadMap emptied = second.emptied(range(1, 1, 1, 2));
        assertEquals(emptied.sites().size(), two.sites().size() - 2);
        assertTrue(emptied.site("B2").isPresent() && emptied.site("B:B2").isEmpty());
        BeadMap filled = FieldGrid.of(emptied, "B").filled(range(1, 1, 1, 2));
        assertEquals(filled.site("B:B2").orElseThrow().diameterMm().orElseThrow(), 0.5, 1e-9,
                "the size of its own field");
        assertEquals(filled.sites().stream().map(Site::name).toList(),
                two.sites().stream().map(Site::name).toList());
    }

    /** Both fields carry a letter, as in a map that was taken from a photo. */
    @Test
    public void fieldsMayAllCarryALetter() {
        var sites = new ArrayList<Site>();
        FIELD.sites().forEach(s -> sites.add(new Site("A:" + s.name(), s.xMm(), s.yMm(), s.diameterMm(), "",
                Site.Critical.UNKNOWN)));
        BeadMap.grid(2, 2, 1.2, Optional.of(0.6)).sites().forEach(s -> sites.add(new Site("B:" + s.name(),
                s.xMm() + 9, s.yMm(), s.diameterMm(), "", Site.Critical.UNKNOWN)));
        var map = new BeadMap(sites);
        assertEquals(FieldGrid.of(map).field(), "A");
        assertEquals(FieldGrid.of(map).rows(), 9);
        assertEquals(FieldGrid.of(map).with("2x2 1 0.5 at -9 0").sites().getLast().name(), "C:B2");
    }

    @Test
    public void badSecondFieldsAreRefused() {
        FieldGrid grid = FieldGrid.of(FIELD);
        for (String words : List.of("3x4 1.0 0.5", "3x4 at 1 2", "3x4 1.0 at 1", "three 1.0 at 0 9",
                "3.5x4 1 at 0 9",
                "3x4 1.0 0.5 at 0 0")) {
            assertThrows(IllegalArgumentException.class, () -> grid.with(words));
        }
    }
}
