package org.greenbead.device;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class LoggerConfigTest {
    private final LoggerConfig good = LoggerConfig.loopback(1502);
    private Path file;

    @BeforeClass
    public void make() throws IOException {
        file = Files.createTempFile("logger", ".json");
    }

    @AfterClass
    public void remove() throws IOException {
        Files.deleteIfExists(file);
    }

    @Test
    public void comesBackAsItWent() throws IOException {
        Files.writeString(file, good.write());
        assertEquals(LoggerConfig.read(file), good);
    }

    @DataProvider
    Object[][] bad() {
        return new Object[][]{{"\"port\" : 1502", "\"port\" : 0", "port is 0"},
                {"\"scale\" : 0.1", "\"scale\" : 0", "scale"},
                {"\"unit\" : 1", "\"unit\" : 300", "unit is 300"},
                {"greenbead/logger/1", "greenbead/logger/2", "format"},
                {"\"table\" : \"INPUT\"", "\"table\" : \"COILS\"", ""},
                {"\"poll_ms\" : 500", "\"poll_ms\" : 5", "poll_ms"},
                {"\"host\" : \"127.0.0.1\"", "\"host\" : \"\"", "host"},
                {"\"open_count\" : 32767,", "", "open"}, {"\"host\"", "\"hosst\"", "host"}, {"\\{", "", ""},
                {"\"register\" : 1\\b", "\"register\" : -4", "register"},
                {"\"channel\" : 2", "\"channel\" : 1", "stands twice"}};
    }

    @Test(dataProvider = "bad")
    public void badFileIsRefusedInOneSentence(String replace, String with, String words) throws IOException {
        String text = good.write().replaceFirst(replace, with);
        Files.writeString(file, text);
        IOException e = expectThrows(IOException.class, () -> LoggerConfig.read(file));
        assertTrue(e.getMessage().contains(words), e.getMessage());
        assertTrue(e.getMessage().endsWith("See docs/formats/logger.md."), e.getMessage());
        assertEquals(e.getMessage().lines().count(), 1);
        assertTrue(!e.getMessage().contains("Feature") && !e.getMessage().contains("jackson"),
                e.getMessage());
    }

    @Test
    public void missingFileIsNamed() {
        assertTrue(expectThrows(IOException.class, () -> LoggerConfig.read(Path.of("nowhere.json")))
                .getMessage().contains("no such file"));
    }
}
