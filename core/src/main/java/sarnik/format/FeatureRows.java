package sarnik.format;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.Polygonal;
import sarnik.table.RowSource;
import sarnik.table.TableReader;
import sarnik.table.UnreadableTableException;

/**
 * Features as rows: a column for each property, in the order in which they first occur, then {@code lon} and {@code lat} in
 * degrees. A point gives its own position; a line or an area one that lies on it.
 */
final class FeatureRows implements RowSource {

    private final FeatureSource features;
    private final List<String> header;
    private final Map<String, Integer> columns = new LinkedHashMap<>();
    private final boolean placed;
    private final boolean areas;

    FeatureRows(FeatureSource features) throws IOException {
        this.features = features;
        boolean[] found = new boolean[2];
        features.each(feature -> {
            for (String name : feature.properties().keySet()) {
                columns.putIfAbsent(name, columns.size());
                if (columns.size() > TableReader.MOST_COLUMNS) {
                    throw new UnreadableTableException("The file has more than %,d different properties. Leave out those that are not needed.".formatted(TableReader.MOST_COLUMNS));
                }
            }
            found[0] |= feature.shape() != null;
            found[1] |= feature.shape() instanceof Polygonal;
        });
        placed = found[0];
        areas = found[1];
        header = new ArrayList<>(columns.keySet());
        if (placed) {
            header.add("lon");
            header.add("lat");
        }
        if (header.isEmpty()) throw new UnreadableTableException("The file holds no row. Choose a file with features that have properties or a shape.");
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
            java.util.Arrays.fill(cells, "");
            feature.properties().forEach((name, value) -> cells[columns.get(name)] = value == null ? "" : value);
            Coordinate at = position(feature.shape());
            if (placed && at != null) {
                cells[columns.size()] = degrees(at.x);
                cells[columns.size() + 1] = degrees(at.y);
            }
            visitor.row(feature.line(), view);
        });
    }

    /** A position on the shape; null where it is empty. */
    static Coordinate position(Geometry shape) {
        if (shape == null || shape.isEmpty()) return null;
        if (shape instanceof Point point) return point.getCoordinate();
        try {
            Coordinate inside = shape.getInteriorPoint().getCoordinate();
            return inside != null ? inside : shape.getCoordinate();
        } catch (RuntimeException crooked) {
            // A shape too crooked to find its inside still has a first corner.
            return shape.getCoordinate();
        }
    }

    /** Degrees to a hundredth of a millimetre. */
    static String degrees(double value) {
        return Double.isFinite(value) ? java.math.BigDecimal.valueOf(Math.round(value * 1e10) / 1e10).toPlainString() : "";
    }

    @Override
    public String words() {
        return features.words();
    }
}
