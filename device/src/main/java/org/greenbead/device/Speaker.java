package org.greenbead.device;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.TimeUnit;

/** Says words aloud through the speech program that the system brings. Silent where there is none. One saying at a time: a newer one cuts the older off. */
public final class Speaker implements AutoCloseable {
    private final Optional<List<String>> command;
    private Process saying;

    Speaker(Optional<List<String>> command) {
        this.command = command;
    }

    /** The speech program of this system, if it has one. */
    public static Speaker ofSystem() {
        return new Speaker(find(System.getProperty("os.name", ""), System.getenv().getOrDefault("PATH", "")));
    }

    /** @param path folders in which programs are looked for */
    static Optional<List<String>> find(String system, String path) {
        String os = system.toLowerCase(Locale.ROOT);
        if (os.startsWith("windows")) {
            return Optional.of(List.of("powershell", "-NoProfile", "-Command",
                    "Add-Type -AssemblyName System.Speech; (New-Object System.Speech.Synthesis.SpeechSynthesizer).Speak([Console]::In.ReadToEnd())"));
        }
        for (List<String> one : List.of(List.of("say"), List.of("spd-say", "--wait", "--pipe-mode"),
                List.of("espeak-ng", "--stdin"), List.of("espeak", "--stdin"))) {
            for (String folder : path.split(java.io.File.pathSeparator)) {
                if (!folder.isBlank() && Files.isExecutable(Path.of(folder, one.getFirst()))) {
                    return Optional.of(one);
                }
            }
        }
        return Optional.empty();
    }

    public boolean speaks() {
        return command.isPresent();
    }

    /** Begins to say it and returns. A program that fails is silence, not a fault of the step that is worked. */
    public synchronized void say(String words) {
        if (command.isEmpty()) {
            return;
        }
        hush();
        try {
            saying = new ProcessBuilder(command.get()).redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD).start();
            try (var to = saying.getOutputStream()) {
                // Words go in by a pipe, never on the command line.
                to.write(words.getBytes(StandardCharsets.UTF_8));
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(Speaker.class).info("not said: {}", e.getMessage());
        }
    }

    /** Stops what is being said. */
    public synchronized void hush() {
        if (saying != null && saying.isAlive()) {
            saying.destroy();
        }
    }

    /** For tests: until it has been said. */
    boolean await(long seconds) throws InterruptedException {
        return saying == null || saying.waitFor(seconds, TimeUnit.SECONDS);
    }

    @Override
    public void close() {
        hush();
    }
}
