package sarnik.app.live;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.index.strtree.STRtree;
import sarnik.geo.GreatCircle;
import sarnik.geo.IndexedSet;
import sarnik.live.Movement;
import sarnik.live.Stops;
import sarnik.live.Visits;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.GrowingTable;
import sarnik.table.Table;
import sarnik.table.TimeColumn;

/** Where the devices of a feed stopped, and when they were within areas, of all readings that are at hand. */
final class Stays {

    /** Nothing is known of a device for longer than this: it may have been elsewhere meanwhile. */
    private static final long HOLE = 15 * 60_000L;

    /** One that is within a place's reach is so until it is further away by this part of it. */
    private static final double LEAVES = 1.25;

    private static final double METRES_OF_A_DEGREE = 111_320;

    static final Visits.Finder NOWHERE = (lon, lat, known) -> null;

    static final Map<String, ColumnType> COLUMNS = new LinkedHashMap<>();

    static {
        COLUMNS.put(RunningFeed.DEVICE, ColumnType.TEXT);
        COLUMNS.put(RunningFeed.NAME, ColumnType.TEXT);
        COLUMNS.put(RunningFeed.KIND, ColumnType.TEXT);
        COLUMNS.put("what", ColumnType.TEXT);
        COLUMNS.put("where", ColumnType.TEXT);
        COLUMNS.put("from", ColumnType.TIME);
        COLUMNS.put("until", ColumnType.TIME);
        COLUMNS.put("minutes", ColumnType.DECIMAL);
        COLUMNS.put(RunningFeed.LON, ColumnType.DECIMAL);
        COLUMNS.put(RunningFeed.LAT, ColumnType.DECIMAL);
    }

    private Stays() {}

    /** A place at which devices arrive. */
    record Spot(String name, double lon, double lat) {}

    /** The nearest place within reach. */
    static Visits.Finder near(List<Spot> spots, int metres) {
        STRtree index = new STRtree();
        spots.forEach(spot -> index.insert(new Envelope(spot.lon, spot.lon, spot.lat, spot.lat), spot));
        if (!spots.isEmpty()) index.build();
        return (lon, lat, known) -> {
            if (spots.isEmpty()) return null;
            double reach = metres * LEAVES;
            double high = reach / METRES_OF_A_DEGREE;
            double wide = Math.min(180, high / Math.max(0.01, Math.cos(Math.toRadians(lat))));
            String nearest = null;
            double least = metres;
            for (Object found : index.query(new Envelope(lon - wide, lon + wide, lat - high, lat + high))) {
                Spot spot = (Spot) found;
                double away = GreatCircle.metres(lon, lat, spot.lon, spot.lat);
                if (spot.name.equals(known) && away <= reach) return known;
                if (away > least) continue;
                least = away;
                nearest = spot.name;
            }
            return nearest;
        };
    }

    /** The area of a set. */
    static Visits.Finder within(IndexedSet set) {
        return (lon, lat, known) -> set.at(lon, lat).map(area -> area.name()).orElse(null);
    }

    /** Stays of all devices, the newest first. A stay that goes on has no end. */
    static Table table(RunningFeed feed, Visits.Finder finder) {
        GrowingTable table = new GrowingTable(COLUMNS);
        if (feed.shape == null || !feed.shape.isMoving()) return table.table();
        FeedSettings.StaysSaid said = feed.settings.stays();
        List<Object[]> rows = new ArrayList<>();
        ways(feed.readings()).forEach((code, way) -> {
            RunningFeed.Listed listed = feed.listed(code);
            long last = way.get(way.size() - 1).millis();
            for (Stops.Stop stop : Stops.of(way, said.metres(), said.minutes() * 60_000L, HOLE))
                rows.add(row(
                        code,
                        listed,
                        "stop",
                        finder.at(stop.lon(), stop.lat(), null),
                        stop.from(),
                        stop.until() == last ? null : stop.until(),
                        stop.lon(),
                        stop.lat()));
            for (Visits.Visit visit : Visits.of(way, finder, HOLE)) {
                Long left = visit.left() != null ? visit.left() : visit.last() == last ? null : (Long) visit.last();
                rows.add(row(code, listed, "visit", visit.area(), visit.entered(), left, visit.lon(), visit.lat()));
            }
        });
        rows.sort(Comparator.comparingLong((Object[] row) -> (Long) row[5]).reversed());
        rows.forEach(table::add);
        return table.table();
    }

    private static Object[] row(
            String code,
            RunningFeed.Listed listed,
            String what,
            String where,
            long from,
            Long until,
            double lon,
            double lat) {
        return new Object[] {
            code,
            listed == null || listed.name() == null ? code : listed.name(),
            listed == null ? null : listed.kind(),
            what,
            where,
            Math.floorDiv(from, 1000L),
            until == null ? null : (Object) Math.floorDiv(until, 1000L),
            until == null ? null : (Object) ((until - from) / 60_000.0),
            lon,
            lat
        };
    }

    /** The positions of each device in the order of time. */
    private static Map<String, List<Movement.Position>> ways(Table readings) {
        Column device = readings.find(RunningFeed.DEVICE).orElseThrow();
        TimeColumn times = (TimeColumn) readings.find(RunningFeed.TIME).orElseThrow();
        double[] lon = ((DecimalColumn) readings.find(RunningFeed.LON).orElseThrow()).all();
        double[] lat = ((DecimalColumn) readings.find(RunningFeed.LAT).orElseThrow()).all();
        Map<String, List<Movement.Position>> ways = new LinkedHashMap<>();
        for (int row = 0; row < readings.rows(); row++)
            if (!Double.isNaN(lon[row]) && !Double.isNaN(lat[row]))
                ways.computeIfAbsent(device.text(row), d -> new ArrayList<>())
                        .add(new Movement.Position(times.second(row) * 1000, lon[row], lat[row]));
        ways.values().forEach(way -> way.sort(Comparator.comparingLong(Movement.Position::millis)));
        return ways;
    }
}
