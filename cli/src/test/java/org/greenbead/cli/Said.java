package org.greenbead.cli;

import java.io.PrintWriter;
import java.io.StringWriter;

/** What a command said and how it ended. */
record Said(int status, String out, String err) {
    static Said type(String... words) {
        var out = new StringWriter();
        var err = new StringWriter();
        int status = Main.execute(new PrintWriter(out, true), new PrintWriter(err, true), words);
        return new Said(status, out.toString(), err.toString());
    }
}
