package sarnik.format;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;
import sarnik.table.UnreadableTableException;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.TokenStreamLocation;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * GeoJSON (RFC 7946), and lists of objects: one a line (newline-delimited JSON) or in one array. Read as a stream:
 * only the
 * feature at hand is in memory.
 */
final class JsonFile implements FeatureSource {

    private static final JsonMapper MAPPER = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .build();
    private final Path file;
    private final Kind kind;

    /** The member of the one object that holds the list; null where the objects stand by themselves. */
    private final String member;

    enum Kind {
        GEOJSON("GeoJSON"),
        TOPOJSON("TopoJSON"),
        LINES("JSON, one object a line"),
        LIST("JSON, a list of objects"),
        WITHIN("JSON, a list of objects within an object");

        private final String words;

        Kind(String words) {
            this.words = words;
        }
    }

    private JsonFile(Path file, Kind kind, String member) {
        this.file = file;
        this.kind = kind;
        this.member = member;
    }

    /**
     * @param layer the layer of a TopoJSON file; null for its first
     */
    static FeatureSource open(Path file, String layer) throws IOException {
        String[] member = new String[1];
        Kind kind = kind(file, member);
        return kind == Kind.TOPOJSON
                ? new TopoJsonFile(file, layer)
                : new JsonFile(file, kind, kind == Kind.WITHIN ? member[0] : null);
    }

    /** @param member is told the first member of the object that is a list of objects */
    private static Kind kind(Path file, String[] member) throws IOException {
        try (JsonParser parser = parser(file)) {
            JsonToken first = parser.nextToken();
            if (first == JsonToken.START_ARRAY) return Kind.LIST;
            if (first != JsonToken.START_OBJECT)
                throw new UnreadableTableException("The file holds JSON, but neither an object nor a list of objects.");
            String type = null;
            while (parser.nextToken() == JsonToken.PROPERTY_NAME) {
                String name = parser.currentName();
                JsonToken value = parser.nextToken();
                if (name.equals("type") && value == JsonToken.VALUE_STRING) {
                    type = parser.getString();
                    if (type.equals("Topology")) return Kind.TOPOJSON;
                }
                if (value == JsonToken.START_ARRAY && member[0] == null) {
                    if (parser.nextToken() == JsonToken.START_OBJECT) member[0] = name;
                    rest(parser);
                } else {
                    parser.skipChildren();
                }
            }
            if (parser.nextToken() != null) return Kind.LINES;
            return isGeoJson(type) ? Kind.GEOJSON : member[0] != null ? Kind.WITHIN : Kind.LINES;
        } catch (JacksonException broken) {
            throw unreadable(broken);
        }
    }

    /** Passes over the items of a list up to its end. */
    private static void rest(JsonParser parser) {
        for (JsonToken token = parser.currentToken();
                token != null && token != JsonToken.END_ARRAY;
                token = parser.nextToken()) parser.skipChildren();
    }

    private static boolean isGeoJson(String type) {
        return type != null
                && type.matches("FeatureCollection|Feature|(Multi)?(Point|LineString|Polygon)|GeometryCollection");
    }

    private static JsonParser parser(Path file) throws IOException {
        InputStream in = new BufferedInputStream(Files.newInputStream(file), 1 << 16);
        in.mark(3);
        // A byte order mark is no JSON, but editors write it.
        if (in.read() != 0xEF || in.read() != 0xBB || in.read() != 0xBF) in.reset();
        return MAPPER.createParser(in);
    }

    static UnreadableTableException unreadable(JacksonException broken) {
        TokenStreamLocation at = broken.getLocation();
        String where = at == null
                ? ""
                : " in line %,d, character %,d".formatted(Math.max(1, at.getLineNr()), Math.max(1, at.getColumnNr()));
        return new UnreadableTableException(
                "The JSON breaks off its own rules" + where + ": " + broken.getOriginalMessage() + ".");
    }

    @Override
    public void each(Consumer<Feature> visitor) throws IOException {
        try (JsonParser parser = parser(file)) {
            long number = 0;
            for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
                if (token == JsonToken.START_ARRAY && kind == Kind.LIST) continue;
                if (token == JsonToken.END_ARRAY) continue;
                if (token != JsonToken.START_OBJECT)
                    throw new UnreadableTableException(
                            "Item %,d is not an object but “%s”.".formatted(number + 1, parser.getString()));
                if (kind == Kind.GEOJSON) number = root(parser, visitor, number);
                else if (kind == Kind.WITHIN) number = within(parser, visitor);
                else show(MAPPER.readTree(parser), ++number, visitor);
            }
        } catch (JacksonException broken) {
            throw unreadable(broken);
        }
    }

    /** The objects of the list that the one object holds. */
    private long within(JsonParser parser, Consumer<Feature> visitor) throws IOException {
        long number = 0;
        while (parser.nextToken() == JsonToken.PROPERTY_NAME) {
            String name = parser.currentName();
            JsonToken value = parser.nextToken();
            if (!name.equals(member) || value != JsonToken.START_ARRAY) {
                parser.skipChildren();
                continue;
            }
            while (parser.nextToken() != JsonToken.END_ARRAY) show(MAPPER.readTree(parser), ++number, visitor);
        }
        return number;
    }

    /** A collection's features one by one; anything else whole. */
    private long root(JsonParser parser, Consumer<Feature> visitor, long before) throws IOException {
        long number = before;
        var rest = MAPPER.createObjectNode();
        boolean collection = false;
        while (parser.nextToken() == JsonToken.PROPERTY_NAME) {
            String name = parser.currentName();
            JsonToken value = parser.nextToken();
            if (name.equals("features") && value == JsonToken.START_ARRAY) {
                collection = true;
                while (parser.nextToken() != JsonToken.END_ARRAY) show(MAPPER.readTree(parser), ++number, visitor);
            } else {
                JsonNode node = MAPPER.readTree(parser);
                refuseOtherSystem(name, node);
                rest.set(name, node);
            }
        }
        if (!collection) show(rest, ++number, visitor);
        return number;
    }

    /** The RFC knows degrees only; files of the older kind may name another system, and then mean it. */
    private static void refuseOtherSystem(String name, JsonNode node) {
        if (!name.equals("crs") || node.isNull()) return;
        String system = node.path("properties").path("name").asString("");
        if (!system.isEmpty() && !system.contains("CRS84") && !system.matches(".*\\b4326$")) {
            throw new UnreadableTableException(
                    ("The file says that its coordinates are in “%s”; GeoJSON is in degrees (RFC 7946). Save it "
                                    + "in degrees (WGS 84).")
                            .formatted(system));
        }
    }

    private static void show(JsonNode node, long number, Consumer<Feature> visitor) {
        if (!node.isObject()) throw new UnreadableTableException("Item %,d is not an object.".formatted(number));
        String type = node.path("type").asString("");
        boolean feature = type.equals("Feature") && (node.has("geometry") || node.has("properties"));
        if (feature) {
            Map<String, String> properties = new LinkedHashMap<>();
            if (node.hasNonNull("id") && !node.path("properties").has("id"))
                properties.put("id", node.get("id").asString());
            if (node.path("properties").isObject()) properties.putAll(JsonShapes.properties(node.get("properties")));
            visitor.accept(new Feature(number, properties, JsonShapes.geometry(node.path("geometry"), number)));
        } else if (isGeoJson(type) && (node.has("coordinates") || node.has("geometries"))) {
            visitor.accept(new Feature(number, Map.of(), JsonShapes.geometry(node, number)));
        } else {
            visitor.accept(new Feature(number, JsonShapes.properties(node), null));
        }
    }

    @Override
    public String words() {
        return kind.words + (member == null ? "" : " (“" + member + "”)");
    }
}
