package sarnik.format;

import com.linuxense.javadbf.DBFException;
import com.linuxense.javadbf.DBFReader;
import java.io.BufferedInputStream;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.text.SimpleDateFormat;
import java.util.ArrayList;
import java.util.Date;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.locationtech.jts.algorithm.Orientation;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.LineString;
import org.locationtech.jts.geom.LinearRing;
import org.locationtech.jts.geom.Polygon;
import sarnik.table.UnreadableTableException;

/**
 * A shapefile in a ZIP archive: shapes (.shp, "Shapefile Technical Description", July 1998), values (.dbf), the
 * coordinate system (.prj) and the encoding (.cpg). Heights are kept, measures are passed over.
 */
final class Shapefile implements FeatureSource {

    private static final int HEADER = 100;
    private static final int LONGEST_RECORD = 256 << 20;

    /** Numbers below -10^38 say that there is none; nothing on earth is as high as this, metres. */
    private static final double MOST_HEIGHT = 1e7;

    private final Path file;
    private final String base;
    private final Systems systems;

    private Shapefile(Path file, String base, Systems systems) {
        this.file = file;
        this.base = base;
        this.systems = systems;
    }

    /** Names of the shapefiles in the archive, without their ending. */
    static List<String> layers(Archive archive) {
        return archive.ending(".shp").stream()
                .map(n -> n.substring(0, n.length() - 4))
                .toList();
    }

    /**
     * @param layer the shapefile of an archive that holds several; null for the first
     * @param system the coordinate system that a person has said, a code of the EPSG dataset; null for that of the file
     */
    static Shapefile open(Path file, String layer, Integer system) throws IOException {
        try (Archive archive = Archive.open(file)) {
            List<String> layers = layers(archive);
            String base = layer == null ? layers.get(0) : layer;
            if (!layers.contains(base))
                throw new UnreadableTableException(
                        "The archive has no shapefile “" + base + "”. It has: " + String.join(", ", layers) + ".");
            Optional<InputStream> description = archive.find(base + ".prj");
            String text = description.isEmpty()
                    ? null
                    : new String(description.get().readNBytes(1 << 16), StandardCharsets.UTF_8);
            return new Shapefile(file, base, Systems.of(system, text));
        }
    }

    @Override
    public void each(Consumer<Feature> visitor) throws IOException {
        try (Archive archive = Archive.open(file);
                DataInputStream shapes =
                        new DataInputStream(new BufferedInputStream(archive.read(base + ".shp"), 1 << 16))) {
            Optional<InputStream> values = archive.find(base + ".dbf");
            readHeader(shapes);
            try (DBFReader table = values.isPresent()
                    ? new DBFReader(new BufferedInputStream(values.get(), 1 << 16), charset(archive))
                    : null) {
                long number = 0;
                for (byte[] record = next(shapes); record != null; record = next(shapes)) {
                    number++;
                    Map<String, String> properties = table == null ? Map.of() : properties(table);
                    visitor.accept(new Feature(number, properties, shape(record, number)));
                }
            } catch (DBFException broken) {
                throw new UnreadableTableException(
                        "The shapefile's table (.dbf) is broken. Save or download the shapefile again.");
            }
        } catch (EOFException cut) {
            throw new UnreadableTableException("The shapefile is cut off. Save or download it again.");
        }
    }

    private Charset charset(Archive archive) throws IOException {
        Optional<InputStream> named = archive.find(base + ".cpg");
        if (named.isEmpty()) return Charset.forName("windows-1252");
        String name = new String(named.get().readNBytes(64), StandardCharsets.US_ASCII).strip();
        try {
            return Charset.forName(name.matches("(ANSI )?\\d{4}") ? "windows-" + name.replace("ANSI ", "") : name);
        } catch (IllegalArgumentException unknown) {
            return StandardCharsets.UTF_8;
        }
    }

    private static Map<String, String> properties(DBFReader table) {
        Map<String, String> properties = new LinkedHashMap<>();
        Object[] row = table.nextRecord();
        for (int i = 0; row != null && i < row.length; i++)
            properties.put(table.getField(i).getName(), text(row[i]));
        return properties;
    }

    private static String text(Object value) {
        if (value == null) return "";
        if (value instanceof Date date) return new SimpleDateFormat("yyyy-MM-dd", Locale.ROOT).format(date);
        if (value instanceof java.math.BigDecimal number)
            return number.signum() == 0 ? "0" : number.stripTrailingZeros().toPlainString();
        return value.toString().strip();
    }

    private static void readHeader(DataInputStream in) throws IOException {
        byte[] header = in.readNBytes(HEADER);
        if (header.length < HEADER || ByteBuffer.wrap(header).getInt() != 9994) {
            throw new UnreadableTableException("The .shp file in the archive is not a shapefile.");
        }
    }

    /** The next record without its header; null at the end. */
    private static byte[] next(DataInputStream in) throws IOException {
        byte[] head = in.readNBytes(8);
        if (head.length == 0) return null;
        if (head.length < 8) throw new EOFException();
        int length = ByteBuffer.wrap(head).getInt(4);
        if (length < 2 || length > LONGEST_RECORD / 2)
            throw new UnreadableTableException(
                    "The shapefile is broken: a record says that it has %,d bytes.".formatted(2L * length));
        byte[] record = in.readNBytes(2 * length);
        if (record.length < 2 * length) throw new EOFException();
        return record;
    }

    private Geometry shape(byte[] record, long number) {
        ByteBuffer in = ByteBuffer.wrap(record).order(ByteOrder.LITTLE_ENDIAN);
        try {
            int type = in.getInt();
            return switch (type) {
                case 0 -> null;
                case 1, 21 -> JsonShapes.SHAPES.createPoint(point(in));
                case 11 -> {
                    Coordinate at = point(in);
                    at.setZ(height(in));
                    yield JsonShapes.SHAPES.createPoint(at);
                }
                case 8, 18, 28 -> {
                    in.position(in.position() + 32);
                    Coordinate[] points = points(in, count(in, 16));
                    if (type == 18) heights(in, List.<Coordinate[]>of(points));
                    yield JsonShapes.SHAPES.createMultiPointFromCoords(points);
                }
                case 3, 13, 23 -> lines(parts(in, type == 13));
                case 5, 15, 25 -> polygons(parts(in, type == 15));
                default ->
                    throw new UnreadableTableException(
                            "Record %,d has shapes of kind %d, which are not read (solids, perhaps)."
                                    .formatted(number, type));
            };
        } catch (java.nio.BufferUnderflowException | IllegalArgumentException broken) {
            throw new UnreadableTableException("The shape of record %,d is broken.".formatted(number));
        }
    }

    private Coordinate point(ByteBuffer in) {
        double[] at = systems.projection().toDegrees(in.getDouble(), in.getDouble());
        return at == null ? new Coordinate(Double.NaN, Double.NaN) : new Coordinate(at[0], at[1]);
    }

    private static int count(ByteBuffer in, int bytesEach) {
        int count = in.getInt();
        if (count < 0 || (long) count * bytesEach > in.remaining())
            throw new IllegalArgumentException("a count is too large");
        return count;
    }

    private Coordinate[] points(ByteBuffer in, int count) {
        Coordinate[] points = new Coordinate[count];
        for (int i = 0; i < count; i++) points[i] = point(in);
        return points;
    }

    private static double height(ByteBuffer in) {
        double height = in.getDouble();
        return Math.abs(height) < MOST_HEIGHT ? height : Coordinate.NULL_ORDINATE;
    }

    /** Gives points their heights, which stand behind them all: the least, the greatest, then one for each. */
    private static void heights(ByteBuffer in, List<Coordinate[]> parts) {
        in.position(in.position() + 16);
        for (Coordinate[] part : parts) for (Coordinate point : part) point.setZ(height(in));
    }

    private static Geometry lines(List<Coordinate[]> parts) {
        LineString[] lines = parts.stream()
                .filter(p -> p.length > 1)
                .map(JsonShapes.SHAPES::createLineString)
                .toArray(LineString[]::new);
        return lines.length == 1 ? lines[0] : JsonShapes.SHAPES.createMultiLineString(lines);
    }

    private List<Coordinate[]> parts(ByteBuffer in, boolean high) {
        in.position(in.position() + 32);
        int parts = count(in, 4);
        int points = in.getInt();
        if (points < 0 || (long) points * 16 + 4L * parts > in.remaining())
            throw new IllegalArgumentException("a count is too large");
        int[] starts = new int[parts + 1];
        for (int i = 0; i < parts; i++) starts[i] = in.getInt();
        starts[parts] = points;
        List<Coordinate[]> lists = new ArrayList<>();
        for (int i = 0; i < parts; i++) {
            if (starts[i] < 0 || starts[i + 1] < starts[i] || starts[i + 1] > points)
                throw new IllegalArgumentException("parts are out of order");
            lists.add(points(in, starts[i + 1] - starts[i]));
        }
        if (high) heights(in, lists);
        return lists;
    }

    /** Rings that run clockwise are outer ones; each hole belongs to the outer ring that holds it. */
    private static Geometry polygons(List<Coordinate[]> rings) {
        List<LinearRing> outer = new ArrayList<>();
        List<LinearRing> holes = new ArrayList<>();
        for (Coordinate[] ring : rings) {
            if (ring.length == 0) continue;
            LinearRing closed = JsonShapes.SHAPES.createLinearRing(JsonShapes.closed(ring));
            if (closed.getNumPoints() > 3 && Orientation.isCCW(closed.getCoordinateSequence())) holes.add(closed);
            else outer.add(closed);
        }
        if (outer.isEmpty()) {
            outer.addAll(holes);
            holes.clear();
        }
        List<List<LinearRing>> within = new ArrayList<>();
        outer.forEach(o -> within.add(new ArrayList<>()));
        for (LinearRing hole : holes) {
            int best = -1;
            for (int i = 0; i < outer.size(); i++) {
                if (!outer.get(i).getEnvelopeInternal().contains(hole.getEnvelopeInternal())) continue;
                if (best < 0
                        || outer.get(best).getEnvelopeInternal().getArea()
                                > outer.get(i).getEnvelopeInternal().getArea()) best = i;
            }
            if (best >= 0) within.get(best).add(hole);
        }
        Polygon[] polygons = new Polygon[outer.size()];
        for (int i = 0; i < polygons.length; i++)
            polygons[i] =
                    JsonShapes.SHAPES.createPolygon(outer.get(i), within.get(i).toArray(LinearRing[]::new));
        return polygons.length == 1 ? polygons[0] : JsonShapes.SHAPES.createMultiPolygon(polygons);
    }

    @Override
    public Optional<String> asks() {
        return Optional.ofNullable(systems.asks());
    }

    @Override
    public String words() {
        return "shapefile “" + base + "”, " + systems.words();
    }
}
