package org.greenbead.store;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import org.greenbead.core.stock.StockCounters;
import org.greenbead.core.stock.StockItem;

/** Things of stock as a table for a supplier. */
public final class StockCsv {
    private StockCsv() {
    }

    /** {@code id,kind,name,alloy,left,unit,order_at}; cells that a spreadsheet would take for a formula are defused. */
    public static String toOrder(List<StockItem> items, Instant now) {
        var text = new StringBuilder("id,kind,name,alloy,left,unit,order_at\n");
        for (StockItem i : items) {
            text.append(String.join(",", cell(i.id()), i.kind().word(), cell(i.name()), cell(i.alloy()),
                    number(StockCounters.of(i, now).left()), cell(i.unit()), number(i.least()))).append('\n');
        }
        return text.toString();
    }

    private static String cell(String raw) {
        String text = SafeCell.of(raw);
        return text.matches("[^,\"\r\n]*")
                ? text
                : '"' + text.replace("\"", "\"\"").replaceAll("\\R", " ") + '"';
    }

    private static String number(double value) {
        return String.format(Locale.ROOT, value == Math.rint(value) ? "%.0f" : "%.3f", value);
    }
}
