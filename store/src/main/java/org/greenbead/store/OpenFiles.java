package org.greenbead.store;

import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Reads and writes {@code *.bead.json}. A bad file is refused with its line, its field and a remedy. Safe for several threads. */
public final class OpenFiles {
    /** A board with a thousand parts has a tenth of this. */
    public static final int MOST_BYTES = 4 << 20;
    private final JsonMapper mapper = Json.mapper();
    private final SchemaRegistry registry;
    private final Map<Format, Schema> schemas = new EnumMap<>(Format.class);
    private final ReadBefore before = new ReadBefore();

    public OpenFiles() {
        Map<String, String> sources = new HashMap<>();
        for (Format format : Format.values()) {
            sources.put("urn:greenbead:" + format.word() + ":1", schemaText(format));
        }
        registry = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12,
                b -> b.schemas(sources));
    }

    /** Each is made ready when the first file of its format is read. */
    private Schema schema(Format format) {
        synchronized (schemas) {
            return schemas.computeIfAbsent(format,
                    f -> registry.getSchema(SchemaLocation.of("urn:greenbead:" + f.word() + ":1")));
        }
    }

    /** The JSON Schema of a format. */
    public static String schemaText(Format format) {
        try (InputStream in = OpenFiles.class
                .getResourceAsStream("/org/greenbead/store/schema/" + format.word() + ".schema.json")) {
            if (in == null) {
                throw new IllegalStateException("the schema of " + format.tag() + " is not in this build");
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @throws BadFileException when the file is missing, too large, not text, or not of this format */
    public <T> T read(Path file, Format format, Class<T> type) throws BadFileException {
        return parse(text(file), file.getFileName().toString(), format, type);
    }

    /** The text of a file, once its size and encoding are known to be sound. */
    public static String text(Path file) throws BadFileException {
        return text(file, MOST_BYTES);
    }

    static String text(Path file, int mostBytes) throws BadFileException {
        String name = String.valueOf(file.getFileName());
        try {
            return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes(file, mostBytes)))
                    .toString();
        } catch (CharacterCodingException e) {
            throw new BadFileException(name, 0, "", "it is not UTF-8 text", "Save it as UTF-8");
        }
    }

    /** The bytes of a file, once its size is known to be sound. */
    static byte[] bytes(Path file, int mostBytes) throws BadFileException {
        String name = String.valueOf(file.getFileName());
        try {
            if (Files.isDirectory(file)) {
                throw new BadFileException(name, 0, "", "it is a folder", "Name the file inside it");
            }
            if (Files.size(file) > mostBytes) {
                throw new BadFileException(name, 0, "",
                        "it has " + Files.size(file) + " bytes, allowed are " + mostBytes,
                        "Check that it is the right file");
            }
            return Files.readAllBytes(file);
        } catch (NoSuchFileException e) {
            throw new BadFileException(name, 0, "", "there is no such file", "Check the path");
        } catch (IOException e) {
            throw new BadFileException(name, 0, "", "it cannot be read (" + e.getMessage() + ")",
                    "Check the disk and the file's rights");
        }
    }

    /** What a text says it is. */
    public Format formatOf(String text, String name) throws BadFileException {
        return formatOf(tree(text, name), text, name);
    }

    private Format formatOf(JsonNode tree, String text, String name) throws BadFileException {
        String tag = tree.path("format").asString("");
        for (Format format : Format.values()) {
            if (format.tag().equals(tag)) {
                return format;
            }
        }
        if (tag.matches("greenbead/[a-z]{1,20}/([2-9]|[1-9][0-9]{1,3})")) {
            throw new BadFileException(name, lineOf(text, "/format"), "/format",
                    "\"" + tag + "\" was written by a newer Green Bead", "Update this one and read it again");
        }
        throw new BadFileException(name, tree.has("format") ? lineOf(text, "/format") : 1, "/format",
                tree.has("format")
                        ? "\"" + tag + "\" is no format of this version"
                        : "the key \"format\" is missing",
                "Write one of " + String.join(", ",
                        java.util.Arrays.stream(Format.values()).map(Format::tag).toList()));
    }

    /** @throws BadFileException when the text is not of this format */
    public <T> T parse(String text, String name, Format format, Class<T> type) throws BadFileException {
        if (!type.equals(format.record())) {
            throw new IllegalArgumentException(format + " does not become " + type);
        }
        Optional<Object> read = before.of(format, text);
        if (read.isPresent()) {
            return type.cast(read.get());
        }
        JsonNode tree = tree(text, name);
        Format said = formatOf(tree, text, name);
        if (said != format) {
            throw new BadFileException(name, lineOf(text, "/format"), "/format",
                    "this is a " + said.word() + " file, wanted is a " + format.word() + " file",
                    "Choose the other file");
        }
        check(tree, text, name, format);
        ((ObjectNode) tree).remove("format");
        BodyLimits.fill(format == Format.PLAN ? tree.path("board") : tree);
        try {
            T value = mapper.treeToValue(tree, type);
            before.keep(format, text, value);
            return value;
        } catch (JacksonException e) {
            throw bad(e, text, name);
        }
    }

    /**
     * A text that this program has checked and written itself, as it lies in the ledger: read at once into what it becomes, whose own limits hold, without the check
     * against the format. Many are read at a time.
     *
     * @throws BadFileException when it is not of this format any more
     */
    <T> T kept(String text, String name, Format format, Class<T> type) throws BadFileException {
        try {
            return mapper.readValue(text, type);
        } catch (JacksonException e) {
            // What is wrong is said as of any other file, with its line.
            return parse(text, name, format, type);
        }
    }

    private JsonNode tree(String text, String name) throws BadFileException {
        try {
            JsonNode tree = mapper.readTree(text);
            if (tree == null || !tree.isObject()) {
                throw new BadFileException(name, 1, "", "it holds no JSON object",
                        "The first character should be {");
            }
            return tree;
        } catch (JacksonException e) {
            int line = e.getLocation() == null ? 0 : Math.max(0, e.getLocation().getLineNr());
            throw new BadFileException(name, line, "",
                    "this is not JSON: " + firstLine(e.getOriginalMessage()), "Mend the text at that line");
        }
    }

    private void check(JsonNode tree, String text, String name, Format format) throws BadFileException {
        List<Error> errors = schema(format).validate(tree);
        if (!errors.isEmpty()) {
            Error error = errors.getFirst();
            for (Error other : errors) {
                // The deepest fault is the one a person can mend.
                if (other.getInstanceLocation().toString().length() > error.getInstanceLocation().toString()
                        .length()) {
                    error = other;
                }
            }
            String at = error.getInstanceLocation().toString();
            String field = error.getProperty() != null && !at.endsWith("/" + error.getProperty())
                    ? at + "/" + error.getProperty()
                    : at;
            int line = lineOf(text, field);
            throw new BadFileException(name, line > 0 ? line : lineOf(text, at),
                    field.isEmpty() ? "/" : field, sentence(error),
                    "See docs/formats/" + format.word() + ".schema.json");
        }
    }

    private static String sentence(Error error) {
        String message = error.getMessage();
        JsonNode value = error.getInstanceNode();
        return value != null && value.isValueNode() && !message.contains(value.asString(""))
                ? value + " " + message
                : message;
    }

    private BadFileException bad(JacksonException e, String text, String name) {
        var pointer = new StringBuilder();
        if (e instanceof DatabindException bind) {
            for (JacksonException.Reference step : bind.getPath()) {
                pointer.append('/')
                        .append(step.getPropertyName() != null
                                ? step.getPropertyName()
                                : Integer.toString(step.getIndex()));
            }
        }
        Throwable root = e;
        while (root.getCause() != null) {
            root = root.getCause();
        }
        String what = root instanceof IllegalArgumentException
                ? root.getMessage()
                : firstLine(e.getOriginalMessage());
        return new BadFileException(name, lineOf(text, pointer.toString()),
                pointer.isEmpty() ? "/" : pointer.toString(), what,
                "Correct the value and read the file again");
    }

    /** The parser's own sentence, without the names of its classes. */
    private static String firstLine(String text) {
        String line = text == null ? "" : text.lines().findFirst().orElse("");
        if (line.startsWith("Trailing token")) {
            return "more text follows after the end of the object";
        }
        return line.replaceAll("\\s*\\(start marker at .*$", "").replaceAll("\\s*\\[Source: .*$", "")
                .replaceAll(": enable `[^`]*` to allow", " is not allowed")
                .replaceAll("\\s*\\((?:for|bound as) [^)]*\\)", "")
                .replaceAll("`?\\b(?:[a-z]+\\.)+[A-Z][\\w.$]*`?", "value");
    }

    /** Line on which the value at a JSON pointer begins; 0 when it is not there. */
    int lineOf(String text, String pointer) {
        try (JsonParser parser = mapper.createParser(text)) {
            for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
                if (token != JsonToken.END_OBJECT && token != JsonToken.END_ARRAY
                        && token != JsonToken.PROPERTY_NAME) {
                    String here = parser.streamReadContext().pathAsPointer().toString();
                    if (token == JsonToken.START_OBJECT || token == JsonToken.START_ARRAY) {
                        here = parser.streamReadContext().getParent() == null
                                ? ""
                                : parser.streamReadContext().getParent().pathAsPointer().toString();
                    }
                    if (here.equals(pointer)) {
                        return parser.currentTokenLocation().getLineNr();
                    }
                }
            }
            return 0;
        } catch (JacksonException e) {
            return 0;
        }
    }

    /** @return pretty JSON with its format key first */
    public String write(Format format, Object value) {
        if (!format.record().isInstance(value)) {
            throw new IllegalArgumentException(value.getClass() + " is no " + format);
        }
        ObjectNode out = mapper.createObjectNode();
        out.put("format", format.tag());
        out.setAll((ObjectNode) mapper.valueToTree(value));
        if (format == Format.REHEARSAL) {
            // What a set-up has not got is left out of the file, not written as nothing.
            withoutNulls(out);
        }
        return mapper.writerWithDefaultPrettyPrinter().writeValueAsString(out) + "\n";
    }

    private static void withoutNulls(JsonNode node) {
        if (node instanceof ObjectNode object) {
            object.removeIf(JsonNode::isNull);
        }
        node.forEach(OpenFiles::withoutNulls);
    }

    /** One value on one line, as in run logs. */
    String line(Object value) {
        return mapper.writeValueAsString(value);
    }

    <T> T unline(String line, Class<T> type) {
        return mapper.readValue(line, type);
    }

    /** Any result as JSON for people with scripts. */
    public String print(Object value) {
        return mapper.writerWithDefaultPrettyPrinter().writeValueAsString(value) + "\n";
    }
}
