package sarnik.app.dataset;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.place.Gazetteer;
import sarnik.place.Match;
import sarnik.place.Place;
import sarnik.place.PlaceLevel;
import sarnik.place.PlacedTable;
import sarnik.table.ValueMatch;

/**
 * What placing found, for looking at.
 *
 * @param placed rows placed
 * @param doubtful rows placed with doubt
 * @param unplaced rows not placed
 * @param points the places found; gathered where there are very many
 * @param doubts doubtful and unplaced words, commonest first
 * @param moreDoubts how many more there are than listed
 * @param partners for a tie: how many rows find a partner on each side, in words; null for other placings
 */
record PlacingPreview(
        long placed,
        long doubtful,
        long unplaced,
        List<Point> points,
        List<Doubt> doubts,
        int moreDoubts,
        String partners) {

    private static final int LISTED = 200;
    private static final int MOST_POINTS = 4000;

    /** Degrees. */
    private static final double NEAR = 0.02;

    /** Degrees. */
    private static final double FINEST_CELL = 0.01;

    /**
     * @param state 0 placed, 1 doubtful
     */
    record Point(String id, String name, double lon, double lat, long rows, int state) {

        Point and(Point other, String id, String name) {
            long both = rows + other.rows;
            return new Point(
                    id,
                    name,
                    (lon * rows + other.lon * other.rows) / both,
                    (lat * rows + other.lat * other.rows) / both,
                    both,
                    Math.max(state, other.state));
        }
    }

    record Doubt(String words, long rows, String state, String taken, String reason, List<String> runnersUp) {}

    /** Whether two places would look the same to somebody who reads of them. */
    private static boolean isBeside(Place taken, Place other) {
        return called(taken).equals(called(other))
                && Math.abs(taken.lat() - other.lat()) + Math.abs(taken.lon() - other.lon()) < NEAR;
    }

    static PlacingPreview of(PlacedTable placed) {
        Map<String, Point> points = new LinkedHashMap<>();
        List<Doubt> doubts = new ArrayList<>();
        for (PlacedTable.Find find : placed.allFinds()) {
            Match match = find.match();
            Place place = match.place();
            int state = match.state() == Match.State.PLACED ? 0 : 1;
            if (place != null) {
                points.merge(
                        place.id(),
                        new Point(place.id(), place.name(), place.lon(), place.lat(), find.rows(), state),
                        (a, b) -> new Point(
                                a.id(),
                                a.name(),
                                a.lon(),
                                a.lat(),
                                a.rows() + b.rows(),
                                Math.max(a.state(), b.state())));
            }
            if (state == 1) {
                String words = find.words().line();
                doubts.add(new Doubt(
                        words.isEmpty() ? "(missing)" : words,
                        find.rows(),
                        match.state() == Match.State.DOUBTFUL ? "doubtful" : "unplaced",
                        place == null ? "" : called(place),
                        match.reason(),
                        match.runnersUp().stream()
                                .filter(other -> place == null || !isBeside(place, other))
                                .map(PlacingPreview::called)
                                .toList()));
            }
        }
        int listed = Math.min(LISTED, doubts.size());
        return new PlacingPreview(
                placed.rows(Match.State.PLACED),
                placed.rows(Match.State.DOUBTFUL),
                placed.rows(Match.State.UNPLACED),
                gathered(List.copyOf(points.values())),
                List.copyOf(doubts.subList(0, listed)),
                doubts.size() - listed,
                null);
    }

    /** Places that a map of a page cannot show one by one are gathered by cells, the smallest that leave few enough. */
    static List<Point> gathered(List<Point> points) {
        List<Point> cells = points;
        for (double cell = FINEST_CELL; cells.size() > MOST_POINTS; cell *= 2) {
            Map<List<Long>, Point> by = new LinkedHashMap<>();
            for (Point p : cells) {
                List<Long> key = List.of((long) Math.floor(p.lon() / cell), (long) Math.floor(p.lat() / cell));
                by.merge(key, p, (a, b) -> a.and(b, "g" + key, "several places"));
            }
            cells = List.copyOf(by.values());
        }
        return cells;
    }

    /** The same with how a tie matches, see {@link sarnik.table.ValueMatch}. */
    PlacingPreview tied(ValueMatch match) {
        return new PlacingPreview(placed, doubtful, unplaced, points, doubts, moreDoubts, partners(match));
    }

    /** How many rows find a partner on each side, in words. */
    static String partners(ValueMatch match) {
        return "%s of %,d rows find a partner over there; %s of %,d rows over there find one here."
                .formatted(
                        share(match.matchedLeft(), match.left()),
                        match.left(),
                        share(match.matchedRight(), match.right()),
                        match.right());
    }

    private static String share(long part, long all) {
        if (all == 0) return "none";
        if (part == all) return "all";
        return "%.1f %%".formatted(100.0 * part / all);
    }

    /** A place with what tells it from its namesakes. */
    static String called(Place place) {
        String province = Gazetteer.shipped()
                .provinceOf(place)
                .map(Place::name)
                .filter(n -> !n.equals(place.name()))
                .map(n -> ", " + n)
                .orElse("");
        String people = place.population() > 0 ? ", %,d people".formatted(place.population()) : "";
        // A province that is called like its capital says that it is one.
        String level = place.level() == PlaceLevel.TOWN || place.level() == PlaceLevel.POINT
                ? ""
                : ", " + place.level().words();
        return place.name() + level + province + " (" + place.country() + people + ")";
    }
}
