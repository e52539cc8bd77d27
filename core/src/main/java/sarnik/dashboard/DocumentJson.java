package sarnik.dashboard;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.Map;
import sarnik.brief.Brief;
import sarnik.data.Format;
import sarnik.data.PlaceSheet;
import sarnik.data.Ranking;
import sarnik.data.Rule;
import sarnik.narrow.Filter;
import sarnik.narrow.Link;
import sarnik.narrow.Parameter;
import sarnik.narrow.Terms;
import sarnik.query.Measure;
import sarnik.query.Over;
import sarnik.visual.Colour;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.Reference;
import sarnik.visual.Visual;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.jsontype.NamedType;

/** How documents and drawings are written as JSON. The kinds themselves know nothing of it. */
public final class DocumentJson {

    private static final JsonMapper MAPPER = with(JsonMapper.builder()).build();

    /** Parts as the server reads and writes them. */
    public static final PartJson PARTS = new PartJson() {
        @Override
        public Map<String, Object> plain(Object part) {
            return DocumentJson.plain(part);
        }

        @Override
        public Visual visual(Map<String, Object> plain) {
            return DocumentJson.visual(plain);
        }

        @Override
        public Filter filter(Map<String, Object> plain) {
            return DocumentJson.filter(plain);
        }
    };

    private DocumentJson() {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    private interface Typed {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
    @JsonInclude(JsonInclude.Include.NON_NULL)
    private interface TypedPart {}

    /** What is not said is not written. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    private interface Said {}

    private interface WithoutIndex {
        @JsonIgnore
        Map<String, Integer> index();
    }

    /** A mapper that knows the kinds. */
    public static JsonMapper.Builder with(JsonMapper.Builder mapper) {
        mapper.addMixIn(Visual.class, TypedPart.class)
                .addMixIn(Filter.class, TypedPart.class)
                .addMixIn(Drawing.class, Typed.class)
                .addMixIn(Brief.Part.class, Typed.class)
                .addMixIn(PlaceSheet.class, WithoutIndex.class);
        for (Class<?> part : new Class<?>[] {
            Measure.class,
            Rule.class,
            Ranking.class,
            Colour.class,
            Over.class,
            Format.class,
            Reference.class,
            Dashboard.Page.class,
            Dashboard.Size.class,
            Dashboard.Spot.class,
            Dashboard.Group.class,
            Finish.class,
            Terms.class,
            Link.class,
            Parameter.class,
            Parameter.Option.class
        }) mapper.addMixIn(part, Said.class);
        mapper.registerSubtypes(
                new NamedType(MisfitDrawing.class, "misfit"),
                new NamedType(Brief.Words.class, "words"),
                new NamedType(Brief.Control.class, "slot"));
        Kinds.ALL.visuals().forEach(kind -> {
            mapper.registerSubtypes(
                    new NamedType(kind.type(), kind.name()), new NamedType(kind.drawing(), kind.name()));
            kind.parts().forEach((type, name) -> mapper.registerSubtypes(new NamedType(type, name)));
            kind.said().forEach(type -> mapper.addMixIn(type, Said.class));
            kind.typed().forEach(type -> mapper.addMixIn(type, Typed.class));
        });
        Kinds.ALL.filters().forEach(kind -> {
            mapper.registerSubtypes(new NamedType(kind.type(), kind.name()));
            kind.said().forEach(type -> mapper.addMixIn(type, Said.class));
        });
        return mapper;
    }

    static <T> T read(String json, Class<T> type) {
        return MAPPER.readValue(json, type);
    }

    /** A part of a document as maps, lists, texts and numbers. */
    @SuppressWarnings("unchecked")
    public static Map<String, Object> plain(Object part) {
        return MAPPER.readValue(write(part), Map.class);
    }

    /** A value of a document as maps, lists, texts and numbers. */
    public static Object plainValue(Object value) {
        return MAPPER.readValue(write(value), Object.class);
    }

    /** The measure that a document says in maps, lists, texts and numbers. */
    public static Measure measure(Map<String, Object> plain) {
        return read(write(plain), Measure.class);
    }

    /** The visual that a document says in maps, lists, texts and numbers. */
    public static Visual visual(Map<String, Object> plain) {
        return read(write(plain), Visual.class);
    }

    /** The filter that a document says in maps, lists, texts and numbers. */
    static Filter filter(Map<String, Object> plain) {
        return read(write(plain), Filter.class);
    }

    /** A part of a document as JSON. */
    public static String write(Object part) {
        return MAPPER.writeValueAsString(part);
    }
}
