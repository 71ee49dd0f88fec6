package org.greenbead.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;

import com.networknt.schema.InputFormat;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.greenbead.device.LoggerConfig;
import org.testng.annotations.Test;

/** The published schema of the logger file against what the program writes. */
public class LoggerSchemaTest {
    private static List<com.networknt.schema.Error> check(String text) throws IOException {
        String schema = Files.readString(Path.of("../docs/formats/logger.schema.json"));
        return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(schema, InputFormat.JSON).validate(text, InputFormat.JSON);
    }

    @Test
    public void schemaTakesWhatIsWritten() throws IOException {
        assertEquals(check(LoggerConfig.loopback(1502).write()), List.of());
    }

    @Test
    public void schemaRefusesWhatIsRefused() throws IOException {
        assertFalse(check(LoggerConfig.loopback(1502).write().replace("1502", "0")).isEmpty());
        assertFalse(check(LoggerConfig.loopback(1502).write().replace("\"host\"", "\"hosst\"")).isEmpty());
    }

    /** The example in the documentation is a good file. */
    @Test
    public void exampleInTheDocumentationIsRead() throws IOException {
        String page = Files.readString(Path.of("../docs/formats/logger.md"));
        String example = page.substring(page.indexOf("    {"), page.indexOf("    }\n") + 6);
        assertEquals(check(example), List.of());
        Path file = Files.createTempFile("logger", ".json");
        try {
            Files.writeString(file, example);
            assertEquals(LoggerConfig.read(file).channels().size(), 2);
        } finally {
            Files.delete(file);
        }
    }
}
