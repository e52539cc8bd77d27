package sarnik.format;

import java.io.BufferedInputStream;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.PushbackInputStream;
import java.io.Reader;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import sarnik.table.UnreadableTableException;

/**
 * KML (OGC 12-007r2: its placemarks) and GPX 1.1 (its waypoints, and the points of its routes and tracks). Read as a
 * stream;
 * a document type is refused, so that no entity is ever expanded or fetched.
 */
final class XmlFile implements FeatureSource {

    private static final int DECLARATION = 200;
    private static final Pattern ENCODING =
            Pattern.compile("^\\s*<\\?xml[^>]*encoding\\s*=\\s*[\"']([A-Za-z][A-Za-z0-9._-]*)[\"']");
    private static final int DEEPEST = 100;
    private static final int LONGEST_TEXT = 64 << 20;

    enum Kind {
        KML,
        GPX
    }

    interface Opening {
        InputStream open() throws IOException;
    }

    private final Opening opening;
    private final Kind kind;

    XmlFile(Opening opening, Kind kind) {
        this.opening = opening;
        this.kind = kind;
    }

    static XmlFile of(Path file, Kind kind) {
        return new XmlFile(() -> new BufferedInputStream(Files.newInputStream(file), 1 << 16), kind);
    }

    /** The name of the first element, to know the format by; null where the file is no XML. */
    static String root(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            XMLStreamReader reader = reader(in);
            while (reader.hasNext()) if (reader.next() == XMLStreamReader.START_ELEMENT) return reader.getLocalName();
            return null;
        } catch (XMLStreamException broken) {
            throw unreadable(broken);
        }
    }

    private static XMLStreamReader reader(InputStream in) throws XMLStreamException, IOException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        return factory.createXMLStreamReader(text(in));
    }

    /** Decoded here, so that a byte that the encoding does not have becomes U+FFFD as in other text files. */
    private static Reader text(InputStream bytes) throws IOException {
        PushbackInputStream in = new PushbackInputStream(bytes, DECLARATION);
        byte[] head = in.readNBytes(DECLARATION);
        in.unread(head);
        Matcher named = ENCODING.matcher(new String(head, StandardCharsets.ISO_8859_1));
        Charset charset = StandardCharsets.UTF_8;
        if (head.length > 1
                && ((head[0] & 0xFF) == 0xFE && (head[1] & 0xFF) == 0xFF
                        || (head[0] & 0xFF) == 0xFF && (head[1] & 0xFF) == 0xFE)) charset = StandardCharsets.UTF_16;
        else if (named.find() && Charset.isSupported(named.group(1))) charset = Charset.forName(named.group(1));
        BufferedReader reader = new BufferedReader(new InputStreamReader(in, charset));
        reader.mark(1);
        if (reader.read() != '\uFEFF') reader.reset();
        return reader;
    }

    private static UnreadableTableException unreadable(XMLStreamException broken) {
        int line = broken.getLocation() == null ? 0 : broken.getLocation().getLineNumber();
        return new UnreadableTableException(
                "The XML breaks off its own rules" + (line > 0 ? " in line %,d".formatted(line) : "")
                        + ": an element that is not closed, or a sign that may not stand there. Save or "
                        + "download the file again.");
    }

    @Override
    public void each(Consumer<Feature> visitor) throws IOException {
        try (InputStream in = opening.open()) {
            XMLStreamReader reader = reader(in);
            if (kind == Kind.KML) kml(reader, visitor);
            else gpx(reader, visitor);
        } catch (XMLStreamException broken) {
            throw unreadable(broken);
        }
    }

    /** An element that is being read: its own text, its children's values by name. */
    private static final class Element {

        private final StringBuilder text = new StringBuilder();
        private final Map<String, String> values = new LinkedHashMap<>();
        private final List<Geometry> shapes = new ArrayList<>();
        private final List<LinearRing> holes = new ArrayList<>();
        private LinearRing outer;
        private String named;

        /** The name of a folder. */
        private String folder;

        private long line;
    }

    private void kml(XMLStreamReader reader, Consumer<Feature> visitor) throws XMLStreamException {
        Deque<String> path = new ArrayDeque<>();
        Deque<Element> elements = new ArrayDeque<>();
        long number = 0;
        while (reader.hasNext()) {
            int event = reader.next();
            if (event == XMLStreamReader.START_ELEMENT) {
                if (path.size() > DEEPEST)
                    throw new UnreadableTableException("The XML's elements stand inside each other too deeply.");
                path.push(reader.getLocalName());
                Element element = new Element();
                element.named = reader.getAttributeValue(null, "name");
                element.line = reader.getLocation().getLineNumber();
                elements.push(element);
            } else if (event == XMLStreamReader.CHARACTERS || event == XMLStreamReader.CDATA) {
                // Blanks between elements add up over a large file and mean nothing.
                if (!elements.isEmpty() && !reader.isWhiteSpace()) append(elements.peek().text, reader.getText());
            } else if (event == XMLStreamReader.END_ELEMENT) {
                String name = path.pop();
                Element element = elements.pop();
                if (name.equals("Placemark")) {
                    String folders = elements.stream()
                            .map(e -> e.folder)
                            .filter(f -> f != null)
                            .collect(Collectors.collectingAndThen(Collectors.toList(), XmlFile::outermostFirst));
                    if (!folders.isEmpty()) element.values.putIfAbsent("folder", folders);
                    visitor.accept(new Feature(++number, element.values, joined(element.shapes)));
                    continue;
                }
                if (!elements.isEmpty()) close(name, element, path.peek(), elements.peek());
            }
        }
    }

    private static String outermostFirst(List<String> folders) {
        Collections.reverse(folders);
        return String.join(" / ", folders);
    }

    private static void append(StringBuilder text, String more) {
        if (text.length() + more.length() > LONGEST_TEXT)
            throw new UnreadableTableException(
                    "An element of the XML holds more than %,d MB of text.".formatted(LONGEST_TEXT >> 20));
        text.append(more);
    }

    private static void close(String name, Element element, String parentName, Element parent) {
        String text = element.text.toString().strip();
        switch (name) {
            case "coordinates" -> parent.text.append(text);
            case "Point" ->
                shape(
                        parent,
                        coordinates(element.text).length == 0
                                ? null
                                : JsonShapes.SHAPES.createPoint(coordinates(element.text)[0]));
            case "LineString" -> {
                Coordinate[] line = coordinates(element.text);
                shape(parent, line.length < 2 ? null : JsonShapes.SHAPES.createLineString(line));
            }
            case "LinearRing" -> {
                Coordinate[] ring = coordinates(element.text);
                if (ring.length > 0) parent.outer = JsonShapes.SHAPES.createLinearRing(JsonShapes.closed(ring));
            }
            case "outerBoundaryIs" -> parent.outer = element.outer;
            case "innerBoundaryIs" -> {
                if (element.outer != null) parent.holes.add(element.outer);
            }
            case "Polygon" ->
                shape(
                        parent,
                        element.outer == null
                                ? null
                                : JsonShapes.SHAPES.createPolygon(
                                        element.outer, element.holes.toArray(LinearRing[]::new)));
            case "value" -> parent.text.append(text);
            case "Data", "SimpleData" -> {
                if (element.named != null) parent.values.put(element.named, text);
            }
            default -> {
                if ("Folder".equals(parentName) && name.equals("name") && !text.isEmpty()) parent.folder = text;
                boolean ofPlacemark = "Placemark".equals(parentName);
                if (ofPlacemark
                        && element.values.isEmpty()
                        && element.shapes.isEmpty()
                        && !text.isEmpty()
                        && !name.equals("styleUrl")
                        && !name.equals("visibility")) {
                    parent.values.put(name, text);
                }
                // What lies deeper belongs to the placemark around it: extended data, multigeometries, time stamps.
                if (name.equals("when") || name.equals("begin") || name.equals("end")) parent.values.put(name, text);
                if (!name.equals("Folder") && !name.equals("Document") && !name.equals("kml")) {
                    element.values.forEach(parent.values::putIfAbsent);
                    parent.shapes.addAll(element.shapes);
                }
            }
        }
    }

    private static void shape(Element parent, Geometry shape) {
        if (shape != null) parent.shapes.add(shape);
    }

    private static Geometry joined(List<Geometry> shapes) {
        if (shapes.isEmpty()) return null;
        if (shapes.size() == 1) return shapes.get(0);
        if (shapes.stream().allMatch(s -> s instanceof Polygon))
            return JsonShapes.SHAPES.createMultiPolygon(shapes.toArray(Polygon[]::new));
        return JsonShapes.SHAPES.createGeometryCollection(shapes.toArray(Geometry[]::new));
    }

    private static Coordinate[] coordinates(CharSequence text) {
        List<Coordinate> list = new ArrayList<>();
        for (String tuple : text.toString().strip().split("\\s+")) {
            String[] parts = tuple.split(",");
            if (parts.length < 2) continue;
            list.add(new Coordinate(
                    number(parts[0]),
                    number(parts[1]),
                    parts.length > 2 && !parts[2].isBlank() ? number(parts[2]) : Coordinate.NULL_ORDINATE));
        }
        return list.toArray(Coordinate[]::new);
    }

    private static double number(String text) {
        try {
            return Double.parseDouble(text.strip());
        } catch (NumberFormatException | NullPointerException unread) {
            throw new UnreadableTableException("“" + text + "” is no coordinate. Mend the file, or save it again.");
        }
    }

    private void gpx(XMLStreamReader reader, Consumer<Feature> visitor) throws XMLStreamException {
        Deque<String> path = new ArrayDeque<>();
        StringBuilder text = new StringBuilder();
        Map<String, String> point = null;
        Coordinate at = null;
        String part = "";
        int segment = 0;
        long number = 0;
        while (reader.hasNext()) {
            int event = reader.next();
            if (event == XMLStreamReader.START_ELEMENT) {
                if (path.size() > DEEPEST)
                    throw new UnreadableTableException("The XML's elements stand inside each other too deeply.");
                String name = reader.getLocalName();
                path.push(name);
                text.setLength(0);
                if (name.equals("trk") || name.equals("rte")) {
                    part = "";
                    segment = 0;
                } else if (name.equals("trkseg")) {
                    segment++;
                } else if (name.equals("wpt") || name.equals("trkpt") || name.equals("rtept")) {
                    at = new Coordinate(
                            number(reader.getAttributeValue(null, "lon")),
                            number(reader.getAttributeValue(null, "lat")));
                    point = new LinkedHashMap<>();
                    point.put("kind", name.equals("wpt") ? "waypoint" : name.equals("trkpt") ? "track" : "route");
                    if (!name.equals("wpt")) point.put("path", part);
                    if (name.equals("trkpt")) point.put("segment", String.valueOf(segment));
                }
            } else if (event == XMLStreamReader.CHARACTERS || event == XMLStreamReader.CDATA) {
                append(text, reader.getText());
            } else if (event == XMLStreamReader.END_ELEMENT) {
                String name = path.pop();
                String parent = path.isEmpty() ? "" : path.peek();
                if (name.equals("wpt") || name.equals("trkpt") || name.equals("rtept")) {
                    visitor.accept(new Feature(++number, point, JsonShapes.SHAPES.createPoint(at)));
                    point = null;
                } else if (name.equals("name") && (parent.equals("trk") || parent.equals("rte"))) {
                    part = text.toString().strip();
                } else if (point != null && !text.toString().isBlank()) {
                    point.put(
                            name,
                            name.equals("time")
                                    ? localTime(text.toString().strip())
                                    : text.toString().strip());
                }
                text.setLength(0);
            }
        }
    }

    /** GPX gives times in UTC, marked with a Z; a column of times has no zone, so the mark goes. */
    private static String localTime(String text) {
        return text.replaceFirst("(\\.\\d+)?Z$", "");
    }

    @Override
    public String words() {
        return kind == Kind.KML ? "KML" : "GPX";
    }
}
