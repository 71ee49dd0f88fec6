package org.greenbead.store;

/**
 * A cell of a CSV file that no spreadsheet takes for a formula (OWASP, CSV injection): what begins with =, +, -, @, a tab or a return and is no
 * plain number gets an apostrophe before it.
 */
final class SafeCell {
    private SafeCell() {
    }

    static String of(String text) {
        if (text == null || text.isEmpty() || "=+-@\t\r".indexOf(text.charAt(0)) < 0
                || text.matches("[+-]?[0-9]+([.,][0-9]+)?([eE][+-]?[0-9]+)?")) {
            return text;
        }
        return "'" + text;
    }

    /** The text of a cell that was written so. */
    static String read(String cell) {
        return cell.length() > 1 && cell.charAt(0) == '\'' && "=+-@\t\r".indexOf(cell.charAt(1)) >= 0
                ? cell.substring(1)
                : cell;
    }

    static java.util.List<String> all(java.util.List<String> cells) {
        return cells.stream().map(SafeCell::of).toList();
    }
}
