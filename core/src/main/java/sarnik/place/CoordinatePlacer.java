package sarnik.place;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import sarnik.geo.Projection;

/**
 * Places coordinates in degrees (WGS 84). Two columns, or one that holds both. Where the columns are the wrong way
 * round, seen
 * by the ranges of the values and by where towns are, they are turned, and every match says so.
 */
final class CoordinatePlacer {

    private static final double NEAR_A_TOWN = 100_000;
    private static final double IN_A_PROVINCE = 25_000;
    private static final int LOOKED_AT = 500;
    private static final int FEWEST_FOR_STRAYS = 10;
    private static final double STRAY_METRES = 300_000;
    private static final double STRAY_TIMES = 8;
    private static final int MOST_OFFERED = 3;

    /** Where more rows than this share lie in the sea, the table is one of the sea. */
    private static final double OF_THE_SEA = 0.05;

    /** Reasons that hold for many rows of a table alike, so that they are said once for all of them. */
    static final String FAR = "The coordinates can be read. No town of the gazetteer lies within 100 km.";

    static final String TURNED = "The coordinates stand the other way round in this table and were turned.";
    static final String AT_SEA = "The coordinates can be read. They lie in the sea, as others of this table do.";
    private static final String IN_THE_SEA = "This lies in the sea, off ";

    private final Gazetteer gazetteer;
    private final Projection projection;
    private final List<Projection> alike;

    private final Land land;
    private final Watch watch;

    CoordinatePlacer(Gazetteer gazetteer) {
        this(gazetteer, Projection.DEGREES, List.of(), Land.EVERYWHERE, Watch.NONE);
    }

    /**
     * @param projection the system that the coordinates are in
     * @param alike other systems that they may be in, as long as nobody has said which it is
     * @param land tells rows in the sea
     * @param watch told how far it has come
     */
    CoordinatePlacer(Gazetteer gazetteer, Projection projection, List<Projection> alike, Land land, Watch watch) {
        this.alike = alike;
        this.gazetteer = gazetteer;
        this.projection = projection;
        this.land = land;
        this.watch = watch;
    }

    /**
     * @param words the texts of each row: the latitude as {@code town} and the longitude as {@code province}; where
     *     one column
     *     holds both, it is the {@code town} and the {@code province} is null
     */
    List<Match> place(List<Words> words) {
        return withoutStrays(ofTheSea(each(words)));
    }

    /** Ships, buoys and earthquakes lie in the sea: where many rows do, that is no doubt. */
    private static List<Match> ofTheSea(List<Match> matches) {
        long sea = matches.stream().filter(CoordinatePlacer::isInTheSea).count();
        if (sea <= OF_THE_SEA * matches.size() || sea < 2) return matches;
        return matches.stream()
                .map(m -> isInTheSea(m) ? new Match(m.place(), Match.State.PLACED, 0.95, AT_SEA, List.of()) : m)
                .toList();
    }

    private static boolean isInTheSea(Match match) {
        return match.state() == Match.State.DOUBTFUL && match.reason().startsWith(IN_THE_SEA);
    }

    /**
     * Points out rows that lie far outside the rest: more than 300 km and eight times as far as the middle row from
     * the middle
     * of all (the medians of longitudes and latitudes, which few strays do not move).
     */
    private static List<Match> withoutStrays(List<Match> matches) {
        List<Place> places = matches.stream()
                .filter(m -> m.state() == Match.State.PLACED)
                .map(Match::place)
                .toList();
        if (places.size() < FEWEST_FOR_STRAYS) return matches;
        Place middle = new Place(
                "",
                PlaceLevel.POINT,
                "",
                "",
                "",
                "",
                false,
                median(places.stream().mapToDouble(Place::lon)),
                median(places.stream().mapToDouble(Place::lat)),
                0);
        double limit =
                Math.max(STRAY_METRES, STRAY_TIMES * median(places.stream().mapToDouble(middle::metresTo)));
        return matches.stream()
                .map(m -> m.state() != Match.State.PLACED || middle.metresTo(m.place()) <= limit
                        ? m
                        : new Match(
                                m.place(),
                                Match.State.DOUBTFUL,
                                0.3,
                                "It lies %,.0f km from the middle of the table's rows, far outside the rest."
                                        .formatted(middle.metresTo(m.place()) / 1000),
                                List.of()))
                .toList();
    }

    private static double median(java.util.stream.DoubleStream values) {
        double[] sorted = values.sorted().toArray();
        return sorted[sorted.length / 2];
    }

    private List<Match> each(List<Words> words) {
        List<double[]> read = words.stream()
                .map(projection.isDegrees() ? CoordinatePlacer::read : CoordinatePlacer::readMetres)
                .toList();
        if (!projection.isDegrees()) {
            List<double[]> straight = read.stream().map(this::toDegrees).toList();
            List<double[]> other = read.stream()
                    .map(pair -> toDegrees(pair == null ? null : new double[] {pair[1], pair[0]}))
                    .toList();
            boolean swapped = sense(other) > sense(straight);
            return watch.each(
                    words.size(),
                    i -> undecided(
                            projected(words.get(i), swapped ? other.get(i) : straight.get(i), swapped),
                            read.get(i),
                            swapped));
        }
        boolean turned = isTurned(read);
        return watch.each(words.size(), i -> match(words.get(i), read.get(i), turned));
    }

    /** Latitude and longitude as they stand; null where they cannot be read. */
    private static double[] read(Words words) {
        if (words.province() == null) {
            double[] pair = Degrees.readPair(words.town());
            return pair == null ? null : pair;
        }
        double lat = Degrees.read(words.town());
        double lon = Degrees.read(words.province());
        if (Double.isNaN(lat) || Double.isNaN(lon)) return null;
        boolean saidTurned = Degrees.saysEastOrWest(words.town()) && !Degrees.saysEastOrWest(words.province());
        return saidTurned ? new double[] {lon, lat} : new double[] {lat, lon};
    }

    /** Northing and easting as they stand; null where they cannot be read. */
    private static double[] readMetres(Words words) {
        String[] texts = words.province() == null
                ? words.town().strip().split("\\s*[;|]\\s*|\\s+|,\\s+", 2)
                : new String[] {words.town(), words.province()};
        if (texts.length < 2) return null;
        try {
            return new double[] {
                Double.parseDouble(texts[0].strip().replace(',', '.')),
                Double.parseDouble(texts[1].strip().replace(',', '.'))
            };
        } catch (NumberFormatException unread) {
            return null;
        }
    }

    /** Latitude and longitude of a northing and an easting; null where there are none. */
    private double[] toDegrees(double[] metres) {
        double[] at = metres == null ? null : projection.toDegrees(metres[1], metres[0]);
        return at == null ? null : new double[] {at[1], at[0]};
    }

    /** How many of some rows lie near a town. */
    private int sense(List<double[]> degrees) {
        int step = Math.max(1, degrees.size() / LOOKED_AT);
        int sense = 0;
        for (int i = 0; i < degrees.size(); i += step) {
            double[] pair = degrees.get(i);
            if (pair != null && makesSense(pair[0], pair[1])) sense++;
        }
        return sense;
    }

    private Match projected(Words words, double[] degrees, boolean swapped) {
        if (words.town().isBlank()
                || words.province() != null && words.province().isBlank())
            return Match.unplaced("The coordinates are missing.");
        if (degrees == null)
            return Match.unplaced("“" + words.line() + "” lies outside what " + projection.words()
                    + " can show, or is no pair of numbers.");
        return match(words, degrees, false, swapped);
    }

    /** A row whose numbers fit several systems is in doubt until somebody says which it is; the others are offered. */
    private Match undecided(Match match, double[] read, boolean swapped) {
        if (alike.isEmpty() || match.place() == null || read == null) return match;
        List<Place> others = new ArrayList<>();
        for (Projection other : alike.subList(0, Math.min(MOST_OFFERED, alike.size()))) {
            double[] at = swapped ? other.toDegrees(read[0], read[1]) : other.toDegrees(read[1], read[0]);
            if (at != null) others.add(point(at[0], at[1]));
        }
        String words = alike.stream().limit(MOST_OFFERED).map(Projection::words).collect(Collectors.joining(", "));
        return new Match(
                match.place(),
                Match.State.DOUBTFUL,
                1.0 / (1 + alike.size()),
                "The numbers fit %s, but also %s%s. Choose the system they are in."
                        .formatted(
                                projection.words(),
                                words,
                                alike.size() > MOST_OFFERED
                                        ? " and %,d more".formatted(alike.size() - MOST_OFFERED)
                                        : ""),
                others);
    }

    /**
     * Whether more rows make sense the other way round, and most do or cannot be meant as they stand: in tables of the
     * sea few lie near towns either way.
     */
    private boolean isTurned(List<double[]> read) {
        int straight = 0;
        int turned = 0;
        int looked = 0;
        int outside = 0;
        int step = Math.max(1, read.size() / LOOKED_AT);
        for (int i = 0; i < read.size(); i += step) {
            double[] pair = read.get(i);
            if (pair == null || pair[0] == 0 && pair[1] == 0) continue;
            looked++;
            if (Math.abs(pair[0]) > 90 && Math.abs(pair[1]) <= 90) outside++;
            if (makesSense(pair[0], pair[1])) straight++;
            if (makesSense(pair[1], pair[0])) turned++;
        }
        return turned > straight && 2 * Math.max(turned, outside) >= looked;
    }

    private boolean makesSense(double lat, double lon) {
        return Math.abs(lat) <= 90
                && Math.abs(lon) <= 180
                && gazetteer.nearestTown(lon, lat, NEAR_A_TOWN).isPresent();
    }

    private Match match(Words words, double[] read, boolean turned) {
        return match(words, read, turned, turned);
    }

    /**
     * @param turned whether the two numbers still have to be turned
     * @param said whether the table has them the other way round
     */
    private Match match(Words words, double[] read, boolean turned, boolean said) {
        if (words.town().isBlank()
                || words.province() != null && words.province().isBlank())
            return Match.unplaced("The coordinates are missing.");
        if (read == null) return Match.unplaced("“" + words.line() + "” cannot be read as degrees.");
        double lat = turned ? read[1] : read[0];
        double lon = turned ? read[0] : read[1];
        if (Math.abs(lat) > 90 || Math.abs(lon) > 180) {
            return Match.unplaced(
                    "%s, %s lies outside the world: a latitude reaches from -90 to 90, a longitude from -180 to 180."
                            .formatted(words.town(), words.province()));
        }
        Place near = gazetteer.nearestTown(lon, lat, NEAR_A_TOWN).orElse(null);
        Place point = point(lon, lat, near);
        if (lat == 0 && lon == 0) {
            return new Match(
                    point,
                    Match.State.DOUBTFUL,
                    0.05,
                    "0, 0 lies in the sea off Africa; it usually stands for a missing value.",
                    List.of());
        }
        if (near == null) {
            return new Match(point, Match.State.PLACED, said ? 0.85 : 0.93, said ? TURNED : FAR, List.of());
        }
        if (!land.isNear(lon, lat)) {
            return new Match(point, Match.State.DOUBTFUL, 0.3, IN_THE_SEA + near.name() + ".", List.of());
        }
        return new Match(
                point,
                Match.State.PLACED,
                said ? 0.9 : 0.98,
                said ? TURNED : "The coordinates can be read.",
                List.of());
    }

    /** The place that stands for a point. */
    Place point(double lon, double lat) {
        return point(lon, lat, gazetteer.nearestTown(lon, lat, NEAR_A_TOWN).orElse(null));
    }

    private static Place point(double lon, double lat, Place near) {
        boolean beside = near != null;
        Place bare = new Place(
                String.format(Locale.ROOT, "c%.5f,%.5f", lon, lat),
                PlaceLevel.POINT,
                words(lon, lat),
                beside ? near.country() : "",
                beside ? near.region() : "",
                beside ? near.province() : "",
                false,
                lon,
                lat,
                0);
        if (!beside || bare.metresTo(near) > IN_A_PROVINCE) return bare;
        return new Place(
                bare.id(),
                bare.level(),
                near.name(),
                near.country(),
                near.region(),
                near.province(),
                false,
                lon,
                lat,
                0);
    }

    private static String words(double lon, double lat) {
        return String.format(
                Locale.ROOT, "%.3f°%s %.3f°%s", Math.abs(lat), lat < 0 ? "S" : "N", Math.abs(lon), lon < 0 ? "W" : "E");
    }
}
