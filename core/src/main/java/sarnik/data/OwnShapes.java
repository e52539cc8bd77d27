package sarnik.data;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Polygonal;
import sarnik.geo.Antimeridian;
import sarnik.geo.Area;
import sarnik.geo.BoundarySet;
import sarnik.geo.WrittenShape;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.table.CodedColumn;
import sarnik.table.Table;

/**
 * The shapes that a dataset's rows brought along: lines, areas and points, by the place of the rows. Where rows of one
 * place
 * have several shapes, they are that place's together. Shapes are read from the cells each time they are asked for:
 * what is
 * sent of them is kept elsewhere, and a million corners are not held twice. Immutable; safe to share between threads.
 */
public final class OwnShapes {

    private static final Pattern NO_AREA = Pattern.compile("(?i)\\s*(?:SRID=\\d+;)?\\s*(?:MULTI)?(?:POINT|LINESTRING)");
    private static final GeometryFactory SHAPES = new GeometryFactory();

    private final Map<String, Set<String>> cells;
    private final Map<String, Place> places;
    private final String tag;
    private volatile Map<String, Double> sizes;

    private OwnShapes(Map<String, Set<String>> cells, Map<String, Place> places) {
        this.cells = cells;
        this.places = places;
        this.tag = hash(cells);
    }

    /** The column of a table whose cells are shapes in degrees. */
    static Optional<String> column(Table table) {
        return table.names().stream()
                .filter(name -> !name.startsWith("@") && isShapes(table, name))
                .findFirst();
    }

    /** Whether the cells of a column are shapes, which are no words to group rows by. */
    public static boolean isShapes(Table table, String column) {
        return table.column(column) instanceof CodedColumn coded && WrittenShape.areAll(coded.dictionary());
    }

    /** The shapes of a placed table; empty where it has no column of them. */
    static Optional<OwnShapes> of(Table table, Map<String, Place> places) {
        if (table.find(PlacedTable.PLACE).isEmpty()) return Optional.empty();
        return column(table).map(name -> {
            CodedColumn shapes = (CodedColumn) table.column(name);
            CodedColumn at = (CodedColumn) table.column(PlacedTable.PLACE);
            Map<String, Set<String>> cells = new TreeMap<>();
            for (int row = 0; row < table.rows(); row++) {
                int place = at.codes().get(row);
                int shape = shapes.codes().get(row);
                if (place >= 0 && shape >= 0)
                    cells.computeIfAbsent(at.dictionary().get(place), p -> new LinkedHashSet<>())
                            .add(shapes.dictionary().get(shape));
            }
            return new OwnShapes(cells, places);
        });
    }

    /** Two sums of all characters (after Fowler, Noll and Vo: FNV-1a, 64 bits each), the second of them turned. */
    private static String hash(Map<String, Set<String>> cells) {
        long[] sums = {0xcbf29ce484222325L, 0x84222325cbf29ce4L};
        cells.forEach((place, shapes) -> {
            add(sums, place);
            shapes.forEach(shape -> add(sums, shape));
        });
        return Long.toHexString(sums[0]) + Long.toHexString(sums[1]);
    }

    private static void add(long[] sums, String text) {
        for (int i = 0; i <= text.length(); i++) {
            long next = i < text.length() ? text.charAt(i) : '\n';
            sums[0] = (sums[0] ^ next) * 0x100000001b3L;
            sums[1] = (sums[1] ^ Long.rotateLeft(next, 23)) * 0x100000001b3L;
        }
    }

    /** Changes with the shapes. */
    public String tag() {
        return tag;
    }

    /** The shapes as a set, whose codes are those of {@link #code}. */
    public BoundarySet set() {
        List<Area> areas = new ArrayList<>();
        cells.forEach((place, written) -> {
            List<Geometry> read = written.stream()
                    .map(WrittenShape::inDegrees)
                    .filter(shape -> shape != null && !shape.isEmpty())
                    .map(shape -> shape instanceof Polygonal ? Antimeridian.cut(shape) : shape)
                    .toList();
            if (read.isEmpty()) return;
            Place known = places.get(place);
            areas.add(new Area(
                    code(place),
                    known == null ? place : known.name(),
                    "",
                    read.size() == 1 ? read.get(0) : SHAPES.createGeometryCollection(read.toArray(Geometry[]::new))));
        });
        return new BoundarySet("own shapes", "own", "", areas);
    }

    /** Whether some are areas: all but those written as points or lines. */
    public boolean mayHaveAreas() {
        return cells.values().stream()
                .flatMap(Set::stream)
                .anyMatch(cell -> !NO_AREA.matcher(cell).lookingAt());
    }

    /**
     * What the browser knows a place of a layer of areas by: what stands behind the name of the set, where there is
     * one.
     */
    public static String code(String place) {
        return place.substring(place.indexOf('/') + 1);
    }

    /** Square kilometres of each place's areas, by its id. */
    public Map<String, Double> squareKilometres() {
        Map<String, Double> known = sizes;
        if (known != null) return known;
        Map<String, Double> byCode = new HashMap<>();
        for (Area area : set().areas()) byCode.put(area.code(), area.squareKilometres());
        Map<String, Double> found = new HashMap<>();
        for (String place : cells.keySet()) {
            double size = byCode.getOrDefault(code(place), 0.0);
            if (size > 0) found.put(place, size);
        }
        sizes = found;
        return found;
    }
}
