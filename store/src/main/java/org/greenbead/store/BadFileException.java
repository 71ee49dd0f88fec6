package org.greenbead.store;

import java.util.ArrayList;

/** A file that cannot be read, with what a person needs to put it right. */
public final class BadFileException extends Exception {
    private static final long serialVersionUID = 1L;
    private final String file;
    private final int line;
    private final String field;
    private final String remedy;

    /**
     * @param file   name of the file
     * @param line   from 1; 0 when the fault is in no one line
     * @param field  JSON pointer or column; empty when the fault is in none
     * @param what   what is wrong
     * @param remedy what to do
     */
    public BadFileException(String file, int line, String field, String what, String remedy) {
        super(message(file, line, field, what, remedy));
        this.file = file;
        this.line = line;
        this.field = field;
        this.remedy = remedy;
    }

    private static String message(String file, int line, String field, String what, String remedy) {
        var place = new ArrayList<String>();
        place.add(file);
        if (line > 0) {
            place.add("line " + line);
        }
        if (!field.isEmpty()) {
            place.add(field);
        }
        return String.join(", ", place) + ": " + what + ". " + remedy;
    }

    public String file() {
        return file;
    }

    public int line() {
        return line;
    }

    public String field() {
        return field;
    }

    public String remedy() {
        return remedy;
    }
}
