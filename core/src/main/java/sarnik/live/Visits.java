package sarnik.live;

import java.util.ArrayList;
import java.util.List;

/** Finds when a device has been within areas: entered, and left again. */
public final class Visits {

    private Visits() {}

    /** Says in which area a position lies. */
    public interface Finder {

        /**
         * @param known the area that the device has been in up to now; null for none. It is in it still where the
         *     position is hardly outside, so that one that trembles at an edge does not come and go
         * @return the area's name; null for none
         */
        String at(double lon, double lat, String known);
    }

    /**
     * A stay within an area.
     *
     * @param entered the first moment at which it was there, milliseconds since 1970
     * @param last the last moment at which it was there
     * @param left the first moment at which it was not any more; null while it is there, or where nothing was heard of
     *     it since
     * @param lon where it entered, degrees
     */
    public record Visit(String area, long entered, long last, Long left, double lon, double lat) {}

    /**
     * The visits of one device.
     *
     * @param way its positions in the order of time
     * @param hole a hole in the readings that is longer ends a visit, since nobody knows where it was meanwhile,
     *     milliseconds
     */
    public static List<Visit> of(List<Movement.Position> way, Finder finder, long hole) {
        List<Visit> visits = new ArrayList<>();
        Movement.Position entered = null;
        Movement.Position last = null;
        String in = null;
        for (Movement.Position here : way) {
            boolean isAfterHole = last != null && here.millis() - last.millis() > hole;
            if (in != null && isAfterHole) {
                visits.add(visit(in, entered, last, null));
                in = null;
            }
            String now = finder.at(here.lon(), here.lat(), in);
            if (in != null && !in.equals(now)) visits.add(visit(in, entered, last, here.millis()));
            if (now != null && !now.equals(in)) entered = here;
            in = now;
            last = here;
        }
        if (in != null) visits.add(visit(in, entered, last, null));
        return visits;
    }

    private static Visit visit(String area, Movement.Position entered, Movement.Position last, Long left) {
        return new Visit(area, entered.millis(), last.millis(), left, entered.lon(), entered.lat());
    }
}
