package sarnik.live;

import java.util.ArrayList;
import java.util.List;
import sarnik.geo.GreatCircle;

/** Finds where a device has stopped: it has stayed within a radius for long enough. */
public final class Stops {

    /**
     * A stop.
     *
     * @param from milliseconds since 1970
     * @param until the last moment at which it was there
     * @param lon the middle of its positions there, degrees
     * @param positions how many
     */
    public record Stop(long from, long until, double lon, double lat, int positions) {

        public long millis() {
            return until - from;
        }
    }

    private Stops() {}

    /**
     * The stops of one device. A stop begins at the first position from which on all lie within the radius of their
     * middle, and ends with the last of them.
     *
     * @param way its positions in the order of time
     * @param metres the radius
     * @param millis how long it has to stay
     * @param hole a hole in the readings that is longer ends a stop, milliseconds
     */
    public static List<Stop> of(List<Movement.Position> way, double metres, long millis, long hole) {
        List<Stop> stops = new ArrayList<>();
        int first = 0;
        while (first < way.size()) {
            int next = end(way, first, metres, hole);
            Stop stop = stop(way, first, next);
            if (stop.millis() >= millis) {
                stops.add(stop);
                first = next;
            } else {
                first++;
            }
        }
        return stops;
    }

    /** The position after the last one of a stop that begins with one. */
    private static int end(List<Movement.Position> way, int first, double metres, long hole) {
        double lon = 0;
        double lat = 0;
        int next = first;
        while (next < way.size()) {
            Movement.Position here = way.get(next);
            int count = next - first;
            if (count > 0) {
                if (here.millis() - way.get(next - 1).millis() > hole) break;
                if (GreatCircle.metres(lon / count, lat / count, here.lon(), here.lat()) > metres) break;
            }
            lon += near(here.lon(), way.get(first).lon());
            lat += here.lat();
            next++;
        }
        return next;
    }

    private static Stop stop(List<Movement.Position> way, int from, int to) {
        double lon = 0;
        double lat = 0;
        for (Movement.Position p : way.subList(from, to)) {
            lon += near(p.lon(), way.get(from).lon());
            lat += p.lat();
        }
        int count = to - from;
        return new Stop(way.get(from).millis(), way.get(to - 1).millis(), near(lon / count, 0), lat / count, count);
    }

    /**
     * A longitude so that it lies less than half around the Earth from another, so that means may be taken over the
     * meridian of 180 degrees.
     */
    private static double near(double lon, double other) {
        return lon - 360 * Math.rint((lon - other) / 360);
    }
}
