package org.greenbead.device;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.greenbead.core.quantity.Check;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.PropertyNamingStrategies;
import tools.jackson.databind.json.JsonMapper;

/**
 * How a Modbus TCP logger is asked: {@code greenbead/logger/1}.
 *
 * @param host        name or address
 * @param port        1 to 65535, usually 502
 * @param unit        unit identifier, 0 to 255
 * @param table       which table the temperatures stand in
 * @param channels    register of each channel
 * @param scale       °C per count; a register is a signed 16-bit number
 * @param openCount   the count that means an open circuit, as a signed number
 * @param timeoutMs   how long one answer may take, 50 to 10000
 * @param pollMs      time between sweeps, 100 to 10000
 */
public record LoggerConfig(String format, String host, int port, int unit, Table table,
        List<Channel> channels, double scale, int openCount, int timeoutMs,
        int pollMs) {
    static final String TAG = "greenbead/logger/1";

    /** The two read-only ways of Modbus. */
    public enum Table {
        INPUT, HOLDING
    }

    /** Channel number as it is printed on the logger, and its register address from 0. */
    public record Channel(int channel, int register) {
        public Channel {
            Check.within("channel", channel, 1, 32, "");
            Check.within("register", register, 0, 65535, "");
        }
    }

    public LoggerConfig {
        if (!TAG.equals(format)) {
            throw new IllegalArgumentException("format is \"" + format + "\"; write \"" + TAG + "\"");
        }
        Check.text("host", host);
        Check.within("port", port, 1, 65535, "");
        Check.within("unit", unit, 0, 255, "");
        Check.present("table", table);
        channels = List.copyOf(Check.present("channels", channels));
        if (channels.isEmpty()) {
            throw new IllegalArgumentException("channels is empty; list at least one");
        }
        Check.distinct("channel", channels, c -> Integer.toString(c.channel()));
        Check.within("scale", scale, 1e-3, 10, "°C per count");
        Check.within("open_count", openCount, -32768, 32767, "");
        Check.within("timeout_ms", timeoutMs, 50, 10_000, "ms");
        Check.within("poll_ms", pollMs, 100, 10_000, "ms");
    }

    /** The simulated logger on this machine. */
    public static LoggerConfig loopback(int port) {
        return new LoggerConfig(TAG, "127.0.0.1", port, 1, Table.INPUT,
                java.util.stream.IntStream.rangeClosed(1, 8).mapToObj(c -> new Channel(c, c - 1)).toList(),
                0.1,
                32767, 500, 500);
    }

    /** @throws IOException with file, place, fault and remedy in one sentence */
    public static LoggerConfig read(Path file) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw new IOException(
                    file + ": there is no such file. Write one as docs/formats/logger.md shows.");
        }
        if (Files.size(file) > 1 << 16) {
            throw new IOException(file + ": it has more than 65536 bytes. Check that it is the right file.");
        }
        try {
            return mapper().readValue(Files.readString(file), LoggerConfig.class);
        } catch (JacksonException e) {
            Throwable root = e;
            while (root.getCause() != null) {
                root = root.getCause();
            }
            int line = e.getLocation() == null ? 0 : e.getLocation().getLineNr();
            String what = root instanceof JacksonException j ? j.getOriginalMessage() : root.getMessage();
            throw new IOException(file + (line > 0 ? ", line " + line : "") + ": "
                    + sentence(what) + ". See docs/formats/logger.md.",
                    e);
        }
    }

    /** The parser's own sentence, without the names of its settings and classes. */
    private static String sentence(String what) {
        String line = String.valueOf(what).lines().findFirst().orElse("");
        return line.replaceAll("[;,]? `DeserializationFeature\\S* enabled", "")
                .replaceAll(" \\((?:index|class|for|through) [^)]*\\)", "")
                .replaceAll("`?\\b(?:[a-z]+\\.)+[A-Z][\\w.$]*`?", "value");
    }

    public String write() {
        return mapper().writerWithDefaultPrettyPrinter().writeValueAsString(this) + "\n";
    }

    private static JsonMapper mapper() {
        return JsonMapper.builder().propertyNamingStrategy(PropertyNamingStrategies.SNAKE_CASE)
                .enable(DeserializationFeature.FAIL_ON_MISSING_CREATOR_PROPERTIES,
                        DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
                .enable(tools.jackson.databind.MapperFeature.ACCEPT_CASE_INSENSITIVE_ENUMS).build();
    }
}
