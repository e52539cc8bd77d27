package sarnik.geo;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.algorithm.locate.IndexedPointInAreaLocator;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Location;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;

/**
 * Finds the area of a boundary set that holds a point. The set's extent is cut into cells; a cell that lies wholly in one
 * area answers at once, the others ask the few areas that reach into them. Built once for a set; safe to share between
 * threads. On a border that two areas share, the first in the order of the set holds the point.
 */
public final class AreaFinder {

    private static final int CELLS = 512;
    private static final int NONE = -1;

    private final Envelope extent = new Envelope();
    private final IndexedPointInAreaLocator[] locators;
    private final double cellWidth;
    private final double cellHeight;
    /** By cell the one area that fills it, {@link #NONE}, or for several, from -2 down, which of {@link #several}. */
    private final int[] cells = new int[CELLS * CELLS];
    /** Areas that reach into one cell; each combination stands once, however many cells along a border have it. */
    private final int[][] several;

    public AreaFinder(BoundarySet set) {
        List<Area> areas = set.areas();
        locators = new IndexedPointInAreaLocator[areas.size()];
        for (int i = 0; i < locators.length; i++) {
            Geometry shape = areas.get(i).shape();
            locators[i] = new IndexedPointInAreaLocator(shape);
            extent.expandToInclude(shape.getEnvelopeInternal());
        }
        // A little wider, so that the outermost points fall into a cell.
        extent.expandBy(Math.max(1e-9, extent.getWidth() * 1e-9), Math.max(1e-9, extent.getHeight() * 1e-9));
        cellWidth = extent.getWidth() / CELLS;
        cellHeight = extent.getHeight() / CELLS;
        Arrays.fill(cells, NONE);
        several = combinations(reaching(areas));
    }

    /** Fills the cells that lie in one area; by cell, for those that areas share or fill in part, which reach into them. */
    private int[][] reaching(List<Area> areas) {
        int[][] reaching = new int[CELLS * CELLS][];
        for (int i = 0; i < areas.size(); i++) {
            Geometry shape = areas.get(i).shape();
            var prepared = PreparedGeometryFactory.prepare(shape);
            Envelope reach = shape.getEnvelopeInternal();
            for (int y = row(reach.getMinY()); y <= row(reach.getMaxY()); y++) {
                for (int x = column(reach.getMinX()); x <= column(reach.getMaxX()); x++) {
                    Geometry cell = shape.getFactory()
                            .toGeometry(new Envelope(
                                    extent.getMinX() + x * cellWidth,
                                    extent.getMinX() + (x + 1) * cellWidth,
                                    extent.getMinY() + y * cellHeight,
                                    extent.getMinY() + (y + 1) * cellHeight));
                    if (!prepared.intersects(cell)) continue;
                    int at = y * CELLS + x;
                    if (cells[at] == NONE && reaching[at] == null && prepared.containsProperly(cell)) cells[at] = i;
                    else add(reaching, at, i);
                }
            }
        }
        return reaching;
    }

    private void add(int[][] reaching, int cell, int area) {
        int[] before =
                reaching[cell] != null ? reaching[cell] : cells[cell] >= 0 ? new int[] {cells[cell]} : new int[0];
        reaching[cell] = Arrays.copyOf(before, before.length + 1);
        reaching[cell][before.length] = area;
    }

    private int[][] combinations(int[][] reaching) {
        List<int[]> found = new ArrayList<>();
        Map<List<Integer>, Integer> numbers = new HashMap<>();
        for (int cell = 0; cell < cells.length; cell++) {
            if (reaching[cell] == null) continue;
            int[] areas = reaching[cell];
            int number = numbers.computeIfAbsent(Arrays.stream(areas).boxed().toList(), n -> {
                found.add(areas);
                return found.size() - 1;
            });
            cells[cell] = -2 - number;
        }
        return found.toArray(int[][]::new);
    }

    private int column(double lon) {
        return Math.max(0, Math.min(CELLS - 1, (int) ((lon - extent.getMinX()) / cellWidth)));
    }

    private int row(double lat) {
        return Math.max(0, Math.min(CELLS - 1, (int) ((lat - extent.getMinY()) / cellHeight)));
    }

    /**
     * @param lon degrees east
     * @param lat degrees north
     * @return the place of the area in the set's list; -1 where no area holds the point
     */
    public int at(double lon, double lat) {
        if (!extent.contains(lon, lat)) return NONE;
        int cell = row(lat) * CELLS + column(lon);
        if (cells[cell] >= NONE) return cells[cell];
        Coordinate point = new Coordinate(lon, lat);
        for (int area : several[-2 - cells[cell]]) if (locators[area].locate(point) != Location.EXTERIOR) return area;
        return NONE;
    }
}
