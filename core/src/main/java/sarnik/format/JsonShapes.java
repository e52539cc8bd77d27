package sarnik.format;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryCollection;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygon;
import sarnik.table.UnreadableTableException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;

/** Reads and writes GeoJSON's geometries (RFC 7946), and reads the properties of objects. */
final class JsonShapes {

    static final GeometryFactory SHAPES = new GeometryFactory();
    private static final int DEEPEST = 8;

    private JsonShapes() {}

    /** What is odd about a shape, in words for people. */
    private static final class OddShape extends IllegalArgumentException {
        private static final long serialVersionUID = 1L;

        OddShape(String words) {
            super(words);
        }
    }

    /**
     * @return null for a null geometry
     * @throws UnreadableTableException when it is no geometry
     */
    static Geometry geometry(JsonNode node, long number) {
        if (node == null || node.isNull() || node.isMissingNode()) return null;
        try {
            return read(node, 0);
        } catch (OddShape odd) {
            throw new UnreadableTableException(
                    "Feature %,d has a shape that cannot be read: %s.".formatted(number, odd.getMessage()));
        } catch (IllegalArgumentException crooked) {
            throw new UnreadableTableException(
                    "Feature %,d has a shape that cannot be read: its corners do not make one.".formatted(number));
        }
    }

    private static Geometry read(JsonNode node, int depth) {
        if (depth > DEEPEST) throw new OddShape("geometry collections stand inside each other too deeply");
        JsonNode at = node.path("coordinates");
        return switch (node.path("type").asString("")) {
            case "Point" -> at.isEmpty() ? SHAPES.createPoint() : SHAPES.createPoint(position(at));
            case "MultiPoint" -> SHAPES.createMultiPointFromCoords(positions(at));
            case "LineString" -> SHAPES.createLineString(line(at));
            case "MultiLineString" ->
                SHAPES.createMultiLineString(list(at).stream()
                        .map(l -> SHAPES.createLineString(line(l)))
                        .toArray(LineString[]::new));
            case "Polygon" -> polygon(at);
            case "MultiPolygon" ->
                SHAPES.createMultiPolygon(
                        list(at).stream().map(JsonShapes::polygon).toArray(Polygon[]::new));
            case "GeometryCollection" ->
                SHAPES.createGeometryCollection(list(node.path("geometries")).stream()
                        .map(g -> read(g, depth + 1))
                        .toArray(Geometry[]::new));
            default -> throw new OddShape("its type is “" + node.path("type").asString("") + "”");
        };
    }

    private static List<JsonNode> list(JsonNode node) {
        if (!node.isArray()) throw new OddShape("a list of coordinates is missing");
        List<JsonNode> items = new ArrayList<>();
        node.forEach(items::add);
        return items;
    }

    private static Polygon polygon(JsonNode node) {
        List<LinearRing> rings = new ArrayList<>();
        for (JsonNode ring : list(node)) rings.add(SHAPES.createLinearRing(closed(positions(ring))));
        if (rings.isEmpty()) return SHAPES.createPolygon();
        return SHAPES.createPolygon(rings.get(0), rings.subList(1, rings.size()).toArray(LinearRing[]::new));
    }

    /** A ring that ends where it begins and has at least four corners; shorter ones become a ring without area. */
    static Coordinate[] closed(Coordinate[] ring) {
        List<Coordinate> corners = new ArrayList<>(List.of(ring));
        if (corners.isEmpty()) return ring;
        if (!corners.get(0).equals2D(corners.get(corners.size() - 1))) corners.add(corners.get(0));
        while (corners.size() < 4) corners.add(corners.get(0));
        return corners.toArray(Coordinate[]::new);
    }

    private static Coordinate[] line(JsonNode node) {
        Coordinate[] line = positions(node);
        return line.length == 1 ? new Coordinate[] {line[0], line[0]} : line;
    }

    private static Coordinate[] positions(JsonNode node) {
        return list(node).stream().map(JsonShapes::position).toArray(Coordinate[]::new);
    }

    private static Coordinate position(JsonNode node) {
        if (!node.isArray()
                || node.size() < 2
                || !node.get(0).isNumber()
                || !node.get(1).isNumber()) {
            throw new OddShape("a position is not two numbers");
        }
        boolean high = node.size() > 2 && node.get(2).isNumber();
        return new Coordinate(
                node.get(0).asDouble(),
                node.get(1).asDouble(),
                high ? node.get(2).asDouble() : Coordinate.NULL_ORDINATE);
    }

    /** Writes a shape in degrees; null for none. Outer rings run against the clock, holes with it (RFC 7946, 3.1.6). */
    static void write(JsonGenerator json, Geometry shape) {
        if (shape == null) {
            json.writeNull();
            return;
        }
        json.writeStartObject();
        // A ring by itself is a line there.
        json.writeStringProperty("type", shape instanceof LinearRing ? "LineString" : shape.getGeometryType());
        if (shape.getClass() == GeometryCollection.class) {
            json.writeArrayPropertyStart("geometries");
            for (int i = 0; i < shape.getNumGeometries(); i++) write(json, shape.getGeometryN(i));
            json.writeEndArray();
        } else {
            json.writeName("coordinates");
            coordinates(json, shape);
        }
        json.writeEndObject();
    }

    private static void coordinates(JsonGenerator json, Geometry shape) {
        if (shape instanceof Point point && !point.isEmpty()) {
            position(json, point.getCoordinate());
            return;
        }
        json.writeStartArray();
        if (shape instanceof LineString line) for (Coordinate corner : line.getCoordinates()) position(json, corner);
        else if (shape instanceof Polygon polygon && !polygon.isEmpty()) {
            ring(json, polygon.getExteriorRing(), true);
            for (int h = 0; h < polygon.getNumInteriorRing(); h++) ring(json, polygon.getInteriorRingN(h), false);
        } else if (shape instanceof GeometryCollection parts)
            for (int i = 0; i < parts.getNumGeometries(); i++) coordinates(json, parts.getGeometryN(i));
        json.writeEndArray();
    }

    private static void ring(JsonGenerator json, LinearRing ring, boolean outer) {
        boolean against = ring.getNumPoints() < 4 || Orientation.isCCW(ring.getCoordinateSequence());
        json.writeStartArray();
        for (Coordinate corner : (against == outer ? ring : ring.reverse()).getCoordinates()) position(json, corner);
        json.writeEndArray();
    }

    private static void position(JsonGenerator json, Coordinate corner) {
        double[] numbers = Double.isFinite(corner.getZ())
                ? new double[] {corner.x, corner.y, corner.getZ()}
                : new double[] {corner.x, corner.y};
        json.writeArray(numbers, 0, numbers.length);
    }

    /** The values of an object as text; objects inside it give names such as "station.name", lists stay JSON. */
    static Map<String, String> properties(JsonNode object) {
        Map<String, String> values = new LinkedHashMap<>();
        add(values, "", object, 0);
        return values;
    }

    private static void add(Map<String, String> values, String prefix, JsonNode object, int depth) {
        object.properties().forEach(entry -> {
            JsonNode value = entry.getValue();
            String name = prefix + entry.getKey();
            if (value.isObject() && depth < DEEPEST) add(values, name + ".", value, depth + 1);
            else values.put(name, value.isNull() ? "" : value.isValueNode() ? value.asString() : value.toString());
        });
    }
}
