package sarnik.geo;

import java.util.Collection;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.io.ParseException;
import org.locationtech.jts.io.WKBReader;
import org.locationtech.jts.io.WKTReader;
import org.locationtech.jts.io.WKTWriter;

/**
 * A shape written in a cell: as well-known text or as well-known binary in hexadecimal digits (OGC 06-103r4), with or
 * without
 * the number of its system before it.
 *
 * @param shape the shape, in the units of its system
 * @param system the number of its system in the EPSG register; 0 where it says none
 */
public record WrittenShape(Geometry shape, int system) {

    private static final GeometryFactory SHAPES = new GeometryFactory();
    private static final int DEGREES = 4326;
    private static final int LOOKED_AT = 20;
    private static final Pattern TEXT = Pattern.compile(
            "(?is)^\\s*(?:SRID\\s*=\\s*(\\d{1,6})\\s*;)?\\s*((?:POINT|LINESTRING|LINEARRING|POLYGON|MULTIPOINT|"
                    + "MULTILINESTRING|MULTIPOLYGON|GEOMETRYCOLLECTION)\\b.*)$");
    private static final Pattern BINARY = Pattern.compile("(?s)^\\s*(0[01](?:[0-9A-Fa-f]{2}){4,})\\s*$");

    /** The shape of a cell; null where it holds none. */
    public static WrittenShape read(String cell) {
        try {
            Matcher text = TEXT.matcher(cell);
            if (text.matches())
                return new WrittenShape(
                        new WKTReader(SHAPES).read(text.group(2)),
                        text.group(1) == null ? 0 : Integer.parseInt(text.group(1)));
            Matcher binary = BINARY.matcher(cell);
            if (!binary.matches()) return null;
            Geometry shape = new WKBReader(SHAPES).read(WKBReader.hexToBytes(binary.group(1)));
            return new WrittenShape(shape, shape.getSRID());
        } catch (ParseException | IllegalArgumentException broken) {
            return null;
        }
    }

    /** The shape of a cell in degrees (WGS 84); null where it holds none, or one of another system. */
    public static Geometry inDegrees(String cell) {
        WrittenShape written = cell == null || cell.isBlank() ? null : read(cell);
        return written == null || !written.isDegrees() ? null : written.shape;
    }

    /** Whether cells hold shapes in degrees (WGS 84), and nothing else as far as is looked. */
    public static boolean areAll(Collection<String> cells) {
        return !cells.isEmpty() && cells.stream().limit(LOOKED_AT).allMatch(cell -> inDegrees(cell) != null);
    }

    /** Whether it is in degrees (WGS 84): it says so, or it says nothing and lies where degrees lie. */
    public boolean isDegrees() {
        return (system == 0 || system == DEGREES) && liesInDegrees();
    }

    /** Whether its corners lie where degrees lie. */
    public boolean liesInDegrees() {
        var box = shape.getEnvelopeInternal();
        return box.isNull()
                || box.getMinX() >= -180 && box.getMaxX() <= 180 && box.getMinY() >= -90 && box.getMaxY() <= 90;
    }

    /** A shape as well-known text, with third coordinates where it has some. */
    public static String text(Geometry shape) {
        return new WKTWriter(hasHeight(shape) ? 3 : 2).write(shape);
    }

    /** Whether some corner has a third coordinate that says something: not missing and not nought. */
    public static boolean hasHeight(Geometry shape) {
        for (Coordinate corner : shape.getCoordinates())
            if (Double.isFinite(corner.getZ()) && corner.getZ() != 0) return true;
        return false;
    }

    /** Whether a longitude and a latitude tell all of it: it is a point, without a third coordinate. */
    public static boolean isPlainPoint(Geometry shape) {
        return shape.getNumGeometries() == 1 && shape.getGeometryN(0) instanceof Point && !hasHeight(shape);
    }
}
