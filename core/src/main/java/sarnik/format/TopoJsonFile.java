package sarnik.format;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import sarnik.table.UnreadableTableException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** One layer of a TopoJSON file (TopoJSON 1.0): shapes put together from the arcs that neighbours share. */
final class TopoJsonFile implements FeatureSource {

    private static final long LARGEST = 200L << 20;
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private final JsonNode layer;
    private final List<Coordinate[]> arcs = new ArrayList<>();
    private final List<String> layers;
    private final String name;
    private double[] scale = {1, 1};
    private double[] translate = {0, 0};
    private boolean quantized;

    /**
     * @param wanted the layer's name; null for the first
     */
    TopoJsonFile(Path file, String wanted) throws IOException {
        this(bounded(file), wanted);
    }

    private static InputStream bounded(Path file) throws IOException {
        if (Files.size(file) > LARGEST)
            throw new UnreadableTableException(
                    "A TopoJSON file is read whole, so it can have up to %,d MB. Save it as GeoJSON."
                            .formatted(LARGEST >> 20));
        return Files.newInputStream(file);
    }

    /** Reads a stream to its end and closes it. */
    TopoJsonFile(InputStream in, String wanted) throws IOException {
        JsonNode root;
        try (in) {
            root = MAPPER.readTree(in);
        } catch (JacksonException broken) {
            throw JsonFile.unreadable(broken);
        }
        layers = new ArrayList<>(root.path("objects").propertyNames());
        if (layers.isEmpty()) throw new UnreadableTableException("The TopoJSON file holds no layer.");
        name = wanted == null ? layers.get(0) : wanted;
        layer = root.path("objects").path(name);
        if (layer.isMissingNode())
            throw new UnreadableTableException(
                    "The file has no layer “" + name + "”. It has: " + String.join(", ", layers) + ".");
        JsonNode transform = root.path("transform");
        if (transform.isObject()) {
            quantized = true;
            scale = pair(transform.path("scale"));
            translate = pair(transform.path("translate"));
        }
        root.path("arcs").forEach(arc -> arcs.add(arc(arc)));
    }

    List<String> layers() {
        return layers;
    }

    private static double[] pair(JsonNode node) {
        if (node.size() < 2 || !node.get(0).isNumber() || !node.get(1).isNumber())
            throw new UnreadableTableException("The TopoJSON file's positions are not two numbers.");
        return new double[] {node.get(0).asDouble(), node.get(1).asDouble()};
    }

    private Coordinate[] arc(JsonNode points) {
        Coordinate[] line = new Coordinate[points.size()];
        double x = 0;
        double y = 0;
        for (int i = 0; i < line.length; i++) {
            double[] at = pair(points.get(i));
            x = quantized ? x + at[0] : at[0];
            y = quantized ? y + at[1] : at[1];
            line[i] = new Coordinate(x * scale[0] + translate[0], y * scale[1] + translate[1]);
        }
        return line;
    }

    @Override
    public void each(Consumer<Feature> visitor) {
        List<JsonNode> items = new ArrayList<>();
        if (layer.path("type").asString("").equals("GeometryCollection"))
            layer.path("geometries").forEach(items::add);
        else items.add(layer);
        long number = 0;
        for (JsonNode item : items) {
            Map<String, String> properties = new LinkedHashMap<>();
            if (item.hasNonNull("id")) properties.put("id", item.get("id").asString());
            if (item.path("properties").isObject()) properties.putAll(JsonShapes.properties(item.get("properties")));
            number++;
            try {
                visitor.accept(new Feature(number, properties, shape(item)));
            } catch (IllegalArgumentException | IndexOutOfBoundsException crooked) {
                throw new UnreadableTableException(
                        "Shape %,d of layer “%s” cannot be put together: its arcs do not make one."
                                .formatted(number, name));
            }
        }
    }

    private Geometry shape(JsonNode item) {
        JsonNode of = item.path("arcs");
        return switch (item.path("type").asString("")) {
            case "Point" -> JsonShapes.SHAPES.createPoint(point(item.path("coordinates")));
            case "MultiPoint" ->
                JsonShapes.SHAPES.createMultiPointFromCoords(
                        IntStream.range(0, item.path("coordinates").size())
                                .mapToObj(i -> point(item.path("coordinates").get(i)))
                                .toArray(Coordinate[]::new));
            case "LineString" -> JsonShapes.SHAPES.createLineString(line(of));
            case "MultiLineString" ->
                JsonShapes.SHAPES.createMultiLineString(IntStream.range(0, of.size())
                        .mapToObj(i -> JsonShapes.SHAPES.createLineString(line(of.get(i))))
                        .toArray(LineString[]::new));
            case "Polygon" -> polygon(of);
            case "MultiPolygon" ->
                JsonShapes.SHAPES.createMultiPolygon(IntStream.range(0, of.size())
                        .mapToObj(i -> polygon(of.get(i)))
                        .toArray(Polygon[]::new));
            default -> null;
        };
    }

    private Coordinate point(JsonNode node) {
        double[] at = pair(node);
        return new Coordinate(at[0] * scale[0] + translate[0], at[1] * scale[1] + translate[1]);
    }

    private Polygon polygon(JsonNode rings) {
        List<LinearRing> made = new ArrayList<>();
        for (JsonNode ring : rings) made.add(JsonShapes.SHAPES.createLinearRing(JsonShapes.closed(line(ring))));
        if (made.isEmpty()) return JsonShapes.SHAPES.createPolygon();
        return JsonShapes.SHAPES.createPolygon(
                made.get(0), made.subList(1, made.size()).toArray(LinearRing[]::new));
    }

    /** Arcs one after the other; a negative number means the arc backwards. The point where two meet is theirs both. */
    private Coordinate[] line(JsonNode numbers) {
        List<Coordinate> line = new ArrayList<>();
        for (JsonNode number : numbers) {
            if (!number.isIntegralNumber()) throw new IllegalArgumentException("an arc is not given by its number");
            int n = number.asInt();
            Coordinate[] arc = arcs.get(n < 0 ? ~n : n);
            for (int i = line.isEmpty() ? 0 : 1; i < arc.length; i++)
                line.add(n < 0 ? arc[arc.length - 1 - i] : arc[i]);
        }
        return line.toArray(Coordinate[]::new);
    }

    @Override
    public String words() {
        return "TopoJSON, layer “" + name + "”";
    }
}
