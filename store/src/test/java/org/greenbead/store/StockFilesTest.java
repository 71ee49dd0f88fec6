package org.greenbead.store;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.nio.file.Path;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Optional;
import org.greenbead.core.stock.StockItem;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Things of stock through file and ledger. */
public class StockFilesTest {
    private static final Instant NOW = Instant.parse("2031-03-01T09:00:00Z");
    private final OpenFiles files = new OpenFiles();
    private Path folder;

    @BeforeMethod
    public void folder() throws Exception {
        folder = Folders.fresh();
    }

    @AfterMethod(alwaysRun = true)
    public void remove() throws Exception {
        Folders.remove(folder);
    }

    private static StockItem item(String id, String name, StockItem.Moment... moments) {
        return new StockItem(id, StockItem.Kind.PASTE, name, "Sn63Pb37", "", "g", 5, 0.9, Optional.of(24.0),
                Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(),
                List.of("QX-510"), List.of(moments));
    }

    private static StockItem.Moment used(String job) {
        return new StockItem.Moment(NOW, StockItem.Act.USED, 1.5, job, "technician B");
    }

    @Test
    public void goesThroughItsFileUnchanged() throws Exception {
        StockItem item = item("PA-1", "fine, \"type 5\"", used("SB-1"));
        assertEquals(files.parse(files.write(Format.STOCK, item), "x", Format.STOCK, StockItem.class), item);
    }

    /** A file that says nothing but what it must. */
    @Test
    public void leastFileIsEnough() throws Exception {
        StockItem read = files.parse(
                "{\"format\":\"greenbead/stock/1\",\"id\":\"W-1\",\"kind\":\"wick\",\"name\":\"wick\",\"least\":0,\"price\":0}",
                "x", Format.STOCK, StockItem.class);
        assertEquals(read, StockItem.named("W-1", StockItem.Kind.WICK, "wick"));
    }

    @Test
    public void hostileOnesAreRefusedWithTheirField() {
        String sound = files.write(Format.STOCK, item("PA-1", "fine"));
        for (String[] change : new String[][]{{"\"PA-1\"", "\"../PA-1\"", "/id"},
                {"\"least\" : 5.0", "\"least\" : -273.2", "/least"}, {"\"paste\"", "\"jam\"", "/kind"},
                {"\"fine\"", "\"\"", "/name"}}) {
            String bad = sound.replace(change[0], change[1]);
            assertTrue(!bad.equals(sound), change[0] + " in " + sound);
            assertTrue(expectThrows(BadFileException.class,
                    () -> files.parse(bad, "x", Format.STOCK, StockItem.class)).getMessage()
                    .contains(change[2]));
        }
    }

    @Test
    public void whatAJobUsedIsNotRemovedSilently() throws Exception {
        try (Ledger ledger = Ledger.open(folder, files, InstantSource.fixed(NOW))) {
            StockItem used = item("PA-1", "fine", used("SB-1"));
            ledger.save(used);
            ledger.save(item("PA-2", "coarse"));
            assertTrue(expectThrows(LedgerException.class, () -> ledger.remove(used)).getMessage()
                    .contains("SB-1"));
            ledger.remove(item("PA-2", "coarse"));
            assertEquals(ledger.stock(), List.of(used));
        }
        try (Ledger again = Ledger.open(folder, files, InstantSource.fixed(NOW))) {
            assertEquals(again.stock().size(), 1, "kept");
            assertEquals(again.damaged(), List.of());
        }
    }

    @Test
    public void orderListIsNoFormula() {
        String csv = StockCsv.toOrder(List.of(item("PA-1", "=HYPERLINK(1), \"x\"")), NOW);
        assertEquals(csv.lines().toList().getFirst(), "id,kind,name,alloy,left,unit,order_at");
        assertTrue(!csv.contains(",=") && !csv.contains(",\"="), csv);
    }

    /** The demo's stock is read, and something of it wants ordering. */
    @Test
    public void demoHasAStock() throws Exception {
        Path demo = DemoFolder.copy();
        try (Ledger ledger = Ledger.open(demo, files, InstantSource.fixed(NOW))) {
            assertEquals(ledger.stock().size(), 8);
            assertEquals(ledger.stock().stream()
                    .filter(i -> org.greenbead.core.stock.StockCounters.of(i, NOW).low(i)).map(StockItem::id)
                    .toList(), List.of("PA-02", "WI-01"));
        }
    }
}
