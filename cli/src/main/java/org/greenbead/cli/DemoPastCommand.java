package org.greenbead.cli;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.greenbead.store.DemoPast;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Makes the shipped past of Skerry Bench anew, after the run engine or the simulated bench has changed. */
@Command(name = "demo-past", hidden = true, mixinStandardHelpOptions = true, description = "Runs the demo's past again and writes its files.")
final class DemoPastCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Parameters(paramLabel = "FOLDER", description = "Where the files go; in the source tree: store/src/main/resources/org/greenbead/store/demo/past.")
    private Path folder;

    @Override
    public Integer call() throws Exception {
        DemoPast.of(shared.files()).record(folder)
                .forEach(name -> spec.commandLine().getOut().println(folder.resolve(name)));
        return 0;
    }
}
