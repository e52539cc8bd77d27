package sarnik.format;

import java.io.IOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.CoordinateFilter;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygonal;
import sarnik.geo.Antimeridian;
import sarnik.geo.WrittenShape;
import sarnik.table.RowSource;
import sarnik.table.TableReader;
import sarnik.table.UnreadableTableException;

/**
 * Features as rows: a column for each property, in the order in which they first occur, then {@code lon} and {@code
 * lat} in
 * degrees. A point gives its own position; a line or an area one that lies on it. Where some shapes are more than a
 * point (a
 * line, an area, several points, a third coordinate), {@code shape} follows: each shape whole, as well-known text in
 * degrees.
 */
final class FeatureRows implements RowSource {

    /** The name of the column of whole shapes. */
    static final String SHAPE = "shape";

    /** Decimals of a degree that are kept: a hundredth of a millimetre. */
    private static final double DEGREE = 1e10;

    private final FeatureSource features;
    private final List<String> header;
    private final Map<String, Integer> columns = new LinkedHashMap<>();
    private final boolean placed;
    private final boolean areas;
    private final boolean whole;

    FeatureRows(FeatureSource features) throws IOException {
        this.features = features;
        boolean[] found = new boolean[3];
        features.each(feature -> {
            for (String name : feature.properties().keySet()) {
                columns.putIfAbsent(name, columns.size());
                if (columns.size() > TableReader.MOST_COLUMNS) {
                    throw new UnreadableTableException(
                            "The file has more than %,d different properties. Leave out those that are not needed."
                                    .formatted(TableReader.MOST_COLUMNS));
                }
            }
            found[0] |= feature.shape() != null;
            found[1] |= feature.shape() instanceof Polygonal;
            found[2] |= feature.shape() != null
                    && !feature.shape().isEmpty()
                    && !WrittenShape.isPlainPoint(feature.shape());
        });
        placed = found[0];
        areas = found[1];
        whole = found[2];
        header = new ArrayList<>(columns.keySet());
        if (placed) {
            header.add("lon");
            header.add("lat");
            if (whole) header.add(SHAPE);
        }
        if (header.isEmpty())
            throw new UnreadableTableException(
                    "The file holds no row. Choose a file with features that have properties or a shape.");
    }

    /** Whether some features are areas, which could be kept as a boundary set. */
    boolean hasAreas() {
        return areas;
    }

    @Override
    public List<String> header() {
        return header;
    }

    @Override
    public int positionAt() {
        return placed ? columns.size() : -1;
    }

    @Override
    public void each(Visitor visitor) throws IOException {
        String[] cells = new String[header.size()];
        Cells view = new Cells() {
            @Override
            public int count() {
                return cells.length;
            }

            @Override
            public String get(int index) {
                return cells[index];
            }
        };
        features.each(feature -> {
            Arrays.fill(cells, "");
            feature.properties().forEach((name, value) -> cells[columns.get(name)] = value == null ? "" : value);
            Coordinate at = position(feature.shape());
            if (placed && at != null) {
                cells[columns.size()] = degrees(at.x);
                cells[columns.size() + 1] = degrees(at.y);
                if (whole) cells[columns.size() + 2] = text(feature.shape());
            }
            visitor.row(feature.line(), view);
        });
    }

    /** A position on the shape; null where it is empty. */
    static Coordinate position(Geometry shape) {
        if (shape == null || shape.isEmpty()) return null;
        if (shape instanceof Point point) return point.getCoordinate();
        try {
            Coordinate inside = (shape instanceof Polygonal ? Antimeridian.cut(shape) : shape)
                    .getInteriorPoint()
                    .getCoordinate();
            return inside != null ? inside : shape.getCoordinate();
        } catch (RuntimeException crooked) {
            // A shape too crooked to find its inside still has a first corner.
            return shape.getCoordinate();
        }
    }

    static String degrees(double value) {
        return Double.isFinite(value) ? BigDecimal.valueOf(rounded(value)).toPlainString() : "";
    }

    private static double rounded(double value) {
        return Math.round(value * DEGREE) / DEGREE;
    }

    /** A shape in degrees as well-known text; empty where there is none, or where a corner has no place. */
    static String text(Geometry shape) {
        if (shape == null || shape.isEmpty()) return "";
        Geometry kept = shape.copy();
        boolean[] lost = new boolean[1];
        kept.apply((CoordinateFilter) corner -> {
            lost[0] |= !Double.isFinite(corner.x) || !Double.isFinite(corner.y);
            corner.x = rounded(corner.x);
            corner.y = rounded(corner.y);
        });
        return lost[0] ? "" : WrittenShape.text(kept);
    }

    @Override
    public String words() {
        return features.words();
    }
}
