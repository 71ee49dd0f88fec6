package org.greenbead.store;

import java.nio.file.Path;
import java.sql.SQLException;
import org.sqlite.SQLiteErrorCode;
import org.sqlite.SQLiteException;

/** Gives a fault of the database its true name and its own remedy: only a damaged file is called damaged. */
final class LedgerFault {
    private LedgerFault() {
    }

    /** Whether the database itself has said what is wrong. */
    static boolean known(Throwable fault) {
        return code(fault) != null;
    }

    static LedgerException of(Path file, Throwable fault) {
        SQLiteErrorCode code = code(fault);
        Path folder = file.toAbsolutePath().getParent();
        String why = said(fault);
        String what = switch (code == null ? "" : primary(code)) {
            case "SQLITE_READONLY", "SQLITE_PERM", "SQLITE_AUTH" -> "The ledger " + file
                    + " may be read but not written. Nothing was changed. Give this user the right to write in "
                    + folder + ", or choose another folder with --data.";
            case "SQLITE_FULL" -> "There is no room on the disk of " + folder
                    + ": the ledger could not be written. What was in it is whole. Free space and start again.";
            case "SQLITE_CANTOPEN" -> "The ledger " + file
                    + " cannot be opened: the folder is missing or may not be entered. Look whether "
                    + folder + " is there and may be read and written.";
            case "SQLITE_IOERR" -> "The disk of " + folder + " gave an error (" + why
                    + "). The ledger was left as it is. Look whether the disk is full, or its cable loose, and start again.";
            case "SQLITE_BUSY", "SQLITE_LOCKED" -> "The ledger " + file
                    + " is being written by another program. Close that one and start again.";
            case "SQLITE_CORRUPT", "SQLITE_NOTADB" -> damaged(file, why);
            default -> code == null
                    ? damaged(file, why)
                    : "The ledger " + file + " cannot be used (" + why
                            + "). It was left as it is; start again, and keep the file if it stays so.";
        };
        return new LedgerException(what, fault);
    }

    static String damaged(Path file, String why) {
        return "The ledger " + file + " is damaged (" + why
                + "). It was left as it is. Move it away and put the newest file from "
                + file.resolveSibling("copies") + " in its place; the run logs in "
                + file.resolveSibling("runs") + " are whole.";
    }

    /** The database's own sentence, without the statement and the text that it was about. */
    private static String said(Throwable fault) {
        for (Throwable t = fault; t != null; t = t.getCause()) {
            if (t instanceof SQLException) {
                return String.valueOf(t.getMessage());
            }
        }
        return String.valueOf(fault.getMessage());
    }

    private static SQLiteErrorCode code(Throwable fault) {
        for (Throwable t = fault; t != null; t = t.getCause()) {
            if (t instanceof SQLiteException s) {
                return s.getResultCode();
            }
            if (t instanceof SQLException s) {
                SQLiteErrorCode code = SQLiteErrorCode.getErrorCode(s.getErrorCode());
                if (code != SQLiteErrorCode.UNKNOWN_ERROR && code != SQLiteErrorCode.SQLITE_OK) {
                    return code;
                }
            }
        }
        return null;
    }

    /** SQLITE_IOERR_WRITE is an SQLITE_IOERR. */
    private static String primary(SQLiteErrorCode code) {
        String name = code.name();
        int second = name.indexOf('_', "SQLITE_".length());
        return second < 0 ? name : name.substring(0, second);
    }
}
