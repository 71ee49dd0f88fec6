package org.greenbead.store;

import com.fasterxml.jackson.annotation.JsonFormat;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonIncludeProperties;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.greenbead.core.alloy.Alloy;
import org.greenbead.core.alloy.Alloys;
import org.greenbead.core.board.Layer;
import org.greenbead.core.board.Point;
import org.greenbead.core.book.Facts;
import org.greenbead.core.book.Vocabulary;
import org.greenbead.core.finding.Remedy;
import org.greenbead.core.quantity.Quantity;
import org.greenbead.core.recipe.StageEnd;
import org.greenbead.core.route.Job;
import org.greenbead.core.run.Reading;
import org.greenbead.core.run.RunEvent;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.PropertyNamingStrategies;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.module.SimpleModule;

/** How records of the core are written as JSON: snake_case keys with their unit, small-letter words, points as [x, y]. */
final class Json {
    private Json() {
    }

    static JsonMapper mapper() {
        var module = new SimpleModule("greenbead");
        module.addSerializer(Alloy.class, new AlloyName());
        module.addDeserializer(Alloy.class, new AlloyByName());
        module.addSerializer(Facts.class, new FactsTree());
        module.addDeserializer(Facts.class, new FactsFromTree());
        module.addSerializer(Enum.class, new SmallLetters());
        return JsonMapper.builder().addModule(module).propertyNamingStrategy(new Snake())
                .enable(MapperFeature.ACCEPT_CASE_INSENSITIVE_ENUMS)
                .disable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
                .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES,
                        DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES,
                        DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION).addMixIn(Layer.class, LayerTypes.class)
                .addMixIn(StageEnd.class, StageEndTypes.class).addMixIn(RunEvent.class, EventTypes.class)
                .addMixIn(Reading.class, ReadingTypes.class).addMixIn(Remedy.class, RemedyTypes.class)
                .addMixIn(Quantity.class, QuantityTypes.class).addMixIn(Point.class, AsArray.class)
                .addMixIn(Job.class, AsJob.class).build();
    }

    /** Every capital becomes an underscore and a small letter: {@code kThroughWPerMK} is {@code k_through_w_per_m_k}. */
    private static final class Snake extends PropertyNamingStrategies.NamingBase {
        private static final long serialVersionUID = 1L;

        @Override
        public String translate(String name) {
            return name.replaceAll("([A-Z])", "_$1").toLowerCase(Locale.ROOT);
        }
    }

    private static final class SmallLetters extends ValueSerializer<Enum> {
        @Override
        public void serialize(Enum value, JsonGenerator out, SerializationContext context) {
            out.writeString(value.name().toLowerCase(Locale.ROOT));
        }
    }

    private static final class AlloyName extends ValueSerializer<Alloy> {
        @Override
        public void serialize(Alloy value, JsonGenerator out, SerializationContext context) {
            out.writeString(value.name());
        }
    }

    private static final class AlloyByName extends ValueDeserializer<Alloy> {
        @Override
        public Alloy deserialize(JsonParser in, DeserializationContext context) {
            return Alloys.require(in.getString());
        }
    }

    private static final class FactsTree extends ValueSerializer<Facts> {
        @Override
        public void serialize(Facts value, JsonGenerator out, SerializationContext context) {
            out.writePOJO(value.root());
        }
    }

    /** Numbers as doubles, objects and lists as the facts want them; what does not fit the vocabulary is refused with its place. */
    private static final class FactsFromTree extends ValueDeserializer<Facts> {
        @Override
        @SuppressWarnings("unchecked")
        public Facts deserialize(JsonParser in, DeserializationContext context) {
            var facts = new Facts((Map<String, Object>) plain(context.readTree(in)));
            List<Vocabulary.Misfit> misfits = Vocabulary.ofTheTrade().misfits(facts);
            if (!misfits.isEmpty()) {
                Vocabulary.Misfit first = misfits.getFirst();
                throw new IllegalArgumentException(
                        first.pointer() + ": " + first.what() + ". " + first.remedy());
            }
            return facts;
        }

        private static Object plain(JsonNode node) {
            if (node.isObject()) {
                var map = new LinkedHashMap<String, Object>();
                node.properties().forEach(e -> {
                    Object value = plain(e.getValue());
                    if (value != null) {
                        map.put(e.getKey(), value);
                    }
                });
                return map;
            }
            if (node.isArray()) {
                var list = new ArrayList<Object>();
                node.forEach(item -> list.add(plain(item)));
                return list;
            }
            return node.isNumber()
                    ? (Object) node.asDouble()
                    : node.isBoolean() ? (Object) node.asBoolean() : node.isNull() ? null : node.asString();
        }
    }

    /** A job that stands alone says nothing of strands; what its text says it is has been read before it becomes one. */
    @JsonIgnoreProperties("format")
    private interface AsJob {
        @JsonInclude(JsonInclude.Include.NON_ABSENT)
        Optional<String> strandOf();
    }

    @JsonFormat(shape = JsonFormat.Shape.ARRAY)
    @JsonIncludeProperties({"x_mm", "y_mm"})
    private interface AsArray {
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonSubTypes({@JsonSubTypes.Type(value = Layer.Joint.class, name = "joint"),
            @JsonSubTypes.Type(value = Layer.Plain.class, name = "plain"),
            @JsonSubTypes.Type(value = Layer.Die.class, name = "die")})
    private interface LayerTypes {
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonSubTypes({@JsonSubTypes.Type(value = StageEnd.AfterTime.class, name = "after_time"),
            @JsonSubTypes.Type(value = StageEnd.ProbeReaches.class, name = "probe_reaches"),
            @JsonSubTypes.Type(value = StageEnd.TechnicianSays.class, name = "technician_says"),
            @JsonSubTypes.Type(value = StageEnd.MeltShown.class, name = "melt_shown"),
            @JsonSubTypes.Type(value = StageEnd.SafeToMove.class, name = "safe_to_move")})
    private interface StageEndTypes {
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonSubTypes({@JsonSubTypes.Type(value = RunEvent.Started.class, name = "started"),
            @JsonSubTypes.Type(value = RunEvent.Sampled.class, name = "sample"),
            @JsonSubTypes.Type(value = RunEvent.Said.class, name = "said"),
            @JsonSubTypes.Type(value = RunEvent.Acted.class, name = "acted"),
            @JsonSubTypes.Type(value = RunEvent.Changed.class, name = "changed"),
            @JsonSubTypes.Type(value = RunEvent.Resumed.class, name = "resumed"),
            @JsonSubTypes.Type(value = RunEvent.Saw.class, name = "saw"),
            @JsonSubTypes.Type(value = RunEvent.Checkpoint.class, name = "checkpoint")})
    private interface EventTypes {
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonSubTypes({@JsonSubTypes.Type(value = Reading.Measured.class, name = "measured"),
            @JsonSubTypes.Type(value = Reading.Open.class, name = "open")})
    private interface ReadingTypes {
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonSubTypes({@JsonSubTypes.Type(value = Remedy.Attest.class, name = "attest"),
            @JsonSubTypes.Type(value = Remedy.SetHeater.class, name = "set_heater"),
            @JsonSubTypes.Type(value = Remedy.SetAir.class, name = "set_air"),
            @JsonSubTypes.Type(value = Remedy.SetEnd.class, name = "set_end"),
            @JsonSubTypes.Type(value = Remedy.OpenRecipe.class, name = "open_recipe"),
            @JsonSubTypes.Type(value = Remedy.Tell.class, name = "tell")})
    private interface RemedyTypes {
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonSubTypes({@JsonSubTypes.Type(value = Quantity.TempC.class, name = "temp"),
            @JsonSubTypes.Type(value = Quantity.RiseK.class, name = "rise"),
            @JsonSubTypes.Type(value = Quantity.RateKPerS.class, name = "rate"),
            @JsonSubTypes.Type(value = Quantity.Seconds.class, name = "seconds"),
            @JsonSubTypes.Type(value = Quantity.Hours.class, name = "hours"),
            @JsonSubTypes.Type(value = Quantity.Millimetres.class, name = "mm"),
            @JsonSubTypes.Type(value = Quantity.LitresPerMinute.class, name = "flow"),
            @JsonSubTypes.Type(value = Quantity.Percent.class, name = "percent"),
            @JsonSubTypes.Type(value = Quantity.DialStep.class, name = "dial_step"),
            @JsonSubTypes.Type(value = Quantity.Count.class, name = "count"),
            @JsonSubTypes.Type(value = Quantity.Name.class, name = "name"),
            @JsonSubTypes.Type(value = Quantity.Word.class, name = "word")})
    private interface QuantityTypes {
    }
}
