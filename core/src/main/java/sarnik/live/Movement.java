package sarnik.live;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import sarnik.geo.GreatCircle;

/**
 * Where one moving device has been lately. Positions that it cannot have reached are not taken. Not safe for several
 * threads.
 */
public final class Movement {

    /** Nothing that is watched moves faster, metres a second: an airliner with the wind behind it. */
    public static final double FASTEST = 350;

    /** So much is believed at once, metres: positions tremble. */
    private static final double TREMBLES = 500;

    /** After so many positions in a row that agree with each other a device has been carried there. */
    private static final int BELIEVED = 3;

    /** A position. */
    public record Position(long millis, double lon, double lat) {

        double metresTo(Position other) {
            return GreatCircle.metres(lon, lat, other.lon, other.lat);
        }

        boolean isWithinReachOf(Position before) {
            double seconds = Math.max(0, millis - before.millis) / 1000.0;
            return metresTo(before) <= TREMBLES + FASTEST * seconds;
        }
    }

    private final long trailMillis;
    private final Deque<Position> trail = new ArrayDeque<>();
    private final List<Position> doubted = new ArrayList<>();

    /** @param trailMillis how long a way is remembered */
    public Movement(long trailMillis) {
        this.trailMillis = trailMillis;
    }

    /**
     * Takes a position, in the order of time.
     *
     * @return whether it is believed: false for a jump that nothing makes, until more positions agree with it
     */
    public boolean take(Position position) {
        Position last = trail.peekLast();
        if (last != null && position.millis() < last.millis()) return true;
        if (last != null && !position.isWithinReachOf(last)) {
            if (!doubted.isEmpty() && !position.isWithinReachOf(doubted.get(doubted.size() - 1))) doubted.clear();
            doubted.add(position);
            if (doubted.size() < BELIEVED) return false;
            trail.clear();
            trail.addAll(doubted);
        } else {
            trail.addLast(position);
        }
        doubted.clear();
        // The last position before the while is kept: the way of the while begins there.
        while (trail.size() > 2 && position.millis() - second().millis() > trailMillis) trail.removeFirst();
        return true;
    }

    private Position second() {
        var each = trail.iterator();
        each.next();
        return each.next();
    }

    /** The newest position that is believed; null where there is none. */
    public Position newest() {
        return trail.peekLast();
    }

    /** The way of the last while, the oldest first. */
    public List<Position> trail() {
        return List.copyOf(trail);
    }

    /** Where it heads, degrees clockwise from north; NaN where it stands still or that is not known. */
    public double heading() {
        Position last = trail.peekLast();
        if (last == null) return Double.NaN;
        var back = trail.descendingIterator();
        while (back.hasNext()) {
            Position before = back.next();
            if (before.metresTo(last) < 20) continue;
            double dLon = Math.toRadians(last.lon() - before.lon());
            double lat1 = Math.toRadians(before.lat());
            double lat2 = Math.toRadians(last.lat());
            double y = Math.sin(dLon) * Math.cos(lat2);
            double x = Math.cos(lat1) * Math.sin(lat2) - Math.sin(lat1) * Math.cos(lat2) * Math.cos(dLon);
            return (Math.toDegrees(Math.atan2(y, x)) + 360) % 360;
        }
        return Double.NaN;
    }
}
