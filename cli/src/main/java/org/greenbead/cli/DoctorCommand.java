package org.greenbead.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import org.greenbead.device.LoggerConfig;
import org.greenbead.device.SimulatedLogger;
import org.greenbead.store.Ledger;
import org.greenbead.store.LedgerException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Looks whether everything that is needed is there. */
@Command(name = "doctor", mixinStandardHelpOptions = true, description = "Checks the JDK, the data folder, the ledger and the logger's port.")
final class DoctorCommand implements Callable<Integer> {
    @Mixin
    private Shared shared;
    @Spec
    private CommandSpec spec;
    @Option(names = "--logger", paramLabel = "FILE", description = "A logger file (greenbead/logger/1) whose port is tried.")
    private Path logger;
    private boolean well = true;

    @Override
    public Integer call() {
        int java = Runtime.version().feature();
        say(java >= 25, "JDK " + java, "install a JDK 25 or newer");
        Path data = shared.data();
        try {
            Files.createDirectories(data);
            Path probe = Files.createTempFile(data, "doctor", ".tmp");
            Files.delete(probe);
            long free = Files.getFileStore(data).getUsableSpace();
            say(true, "data folder " + data + " can be written", "");
            say(free > Ledger.ROOM_BYTES, String.format(Locale.ROOT, "%d MB free there", free >> 20),
                    "free space: a day of runs needs up to 200 MB");
        } catch (IOException e) {
            say(false, "data folder " + data + " cannot be written (" + e.getMessage() + ")",
                    "choose another with --data");
        }
        try (Ledger ledger = shared.ledger()) {
            String answer = ledger.integrity();
            say("ok".equals(answer), "ledger: " + answer + ", " + ledger.runs().size() + " runs, "
                    + ledger.openRuns().size() + " left open"
                    + (ledger.writes() ? "" : ", open in another Green Bead, so only read here"),
                    "restore a copy");
            for (String row : ledger.damaged()) {
                say(false, row, "its copies lie in " + ledger.folder().resolve("copies"));
            }
        } catch (LedgerException e) {
            say(false, e.getMessage(), "see above");
        }
        try (var simulated = new SimulatedLogger()) {
            reach("simulated logger", simulated.config());
        } catch (IOException e) {
            say(false, "no loopback port can be opened (" + e.getMessage() + ")",
                    "check the firewall of this machine");
        }
        if (logger != null) {
            try {
                reach("logger", LoggerConfig.read(logger));
            } catch (IOException e) {
                say(false, e.getMessage(), "correct the logger file");
            }
        }
        return well ? 0 : 1;
    }

    private void reach(String name, LoggerConfig config) {
        try (var socket = new Socket()) {
            socket.connect(new InetSocketAddress(config.host(), config.port()), config.timeoutMs());
            say(true, name + " answers at " + config.host() + ":" + config.port(), "");
        } catch (IOException e) {
            say(false, name + " does not answer at " + config.host() + ":" + config.port() + " ("
                    + e.getMessage() + ")", "check its cable, power and address");
        }
    }

    private void say(boolean good, String what, String remedy) {
        PrintWriter out = spec.commandLine().getOut();
        out.println((good ? "good  " : "BAD   ") + what + (good ? "" : ": " + remedy));
        well &= good;
    }
}
