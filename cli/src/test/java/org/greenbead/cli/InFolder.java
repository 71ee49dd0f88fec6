package org.greenbead.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.testng.annotations.BeforeMethod;

/** The command line on an empty data folder, with what it said last. */
abstract class InFolder {
    protected Path data;
    protected String out = "";
    protected String err = "";

    @BeforeMethod
    public void folder() throws Exception {
        data = Files.createTempDirectory("greenbead-own");
    }

    /** @return the exit status */
    protected int run(String... words) {
        var all = new ArrayList<>(Arrays.asList(words));
        all.addAll(List.of("--data", data.toString()));
        Said said = Said.type(all.toArray(String[]::new));
        out = said.out();
        err = said.err();
        return said.status();
    }
}
