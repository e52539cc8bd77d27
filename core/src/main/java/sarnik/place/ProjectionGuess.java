package sarnik.place;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import sarnik.geo.Projection;
import sarnik.geo.SystemRegister;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.Table;

/**
 * Guesses in which projected system coordinates are. Every system of the register is tried: the rows have to fall into
 * its own
 * area and beside towns there. Systems that put them at the same spots count as one. What the rows name beside (towns,
 * provinces, countries) tells the others apart; where nothing does, as between the zones of UTM, all that are left are
 * given.
 */
final class ProjectionGuess {

    /**
     * Of systems that agree the commoner one is named: these before others, in this order (codes of the EPSG dataset).
     */
    private static final List<Integer> COMMON = List.of(
            25830, 25829, 25831, 25828, 25832, 25833, 3857, 3035, 3763, 2154, 27700, 32630, 32629, 32631, 32632, 32633);

    private static final double BESIDE = 12_000;
    /** A country often writes all of its rows in the zone of its middle: some may lie in the zones beside. */
    private static final double IN_ITS_AREA = 0.5;

    private static final double AROUND_ITS_AREA = 0.9;
    private static final double MARGIN_LON = 12;
    private static final double MARGIN_LAT = 2;
    private static final double BESIDE_TOWNS = 0.5;
    private static final double NAMED = 0.2;
    private static final double NAMES_PROVINCE = 0.6;
    private static final double NAMES_COUNTRY = 0.3;
    private static final double CLEARLY = 0.2;
    private static final int LOOKED_AT = 150;
    private static final int FIRST_LOOK = 6;

    /** Systems that put rows within this of each other are the same for a guess, degrees. */
    private static final double SAME = 0.0005;

    private final Gazetteer gazetteer;

    ProjectionGuess(Gazetteer gazetteer) {
        this.gazetteer = gazetteer;
    }

    /**
     * What the numbers may be.
     *
     * @param epsg the likeliest system
     * @param alike others that fit as well and put the rows elsewhere, the likeliest first; empty where it is the only
     *     one
     */
    record Guess(int epsg, List<Integer> alike) {}

    /** A row to look at. */
    private record Sample(int row, double x, double y) {}

    private record Candidate(SystemRegister.Entry entry, double[] first, double beside, double named) {

        boolean isBeside(Candidate other) {
            return Math.abs(first[0] - other.first[0]) < SAME && Math.abs(first[1] - other.first[1]) < SAME;
        }

        int rank() {
            int at = COMMON.indexOf(entry.code());
            return at < 0 ? COMMON.size() : at;
        }
    }

    /**
     * @param easting column of eastings
     * @param northing column of northings
     * @return empty where no system puts half of the rows beside towns of its own area
     */
    Optional<Guess> guess(Table table, String easting, String northing) {
        List<Sample> samples = samples(table.column(easting), table.column(northing), table.rows());
        if (samples.isEmpty()) return Optional.empty();
        List<Candidate> fits = new ArrayList<>();
        for (SystemRegister.Entry entry : SystemRegister.shipped().projected())
            fit(entry, table, samples).ifPresent(fits::add);
        double named = fits.stream().mapToDouble(Candidate::named).max().orElse(0);
        fits.removeIf(c -> c.beside < BESIDE_TOWNS || named >= NAMED && c.named < named - CLEARLY);
        // The best named and the best beside towns come first; of those that agree the commoner one speaks for all.
        fits.sort(Comparator.comparingDouble((Candidate c) -> -Math.round(10 * (c.named + c.beside)))
                .thenComparingInt(Candidate::rank)
                .thenComparingDouble(c -> c.entry.size())
                .thenComparingInt(c -> c.entry.code()));
        List<Candidate> apart = new ArrayList<>();
        for (Candidate fit : fits) if (apart.stream().noneMatch(fit::isBeside)) apart.add(fit);
        if (apart.isEmpty()) return Optional.empty();
        List<Integer> codes = apart.stream().map(c -> spokesman(c, fits)).toList();
        return Optional.of(new Guess(codes.get(0), codes.subList(1, codes.size())));
    }

    private static int spokesman(Candidate of, List<Candidate> fits) {
        return fits.stream()
                .filter(of::isBeside)
                .min(Comparator.comparingInt(Candidate::rank)
                        .thenComparingDouble(c -> c.entry.size())
                        .thenComparingInt(c -> c.entry.code()))
                .orElse(of)
                .entry
                .code();
    }

    private static List<Sample> samples(Column x, Column y, int rows) {
        List<Sample> samples = new ArrayList<>();
        int step = Math.max(1, rows / LOOKED_AT);
        for (int row = 0; row < rows; row += step) {
            if (x.isMissing(row) || y.isMissing(row)) continue;
            double east = number(x, row);
            double north = number(y, row);
            if (Double.isFinite(east) && Double.isFinite(north)) samples.add(new Sample(row, east, north));
        }
        return samples;
    }

    private Optional<Candidate> fit(SystemRegister.Entry entry, Table table, List<Sample> samples) {
        Optional<Projection> projection = Projection.ofEpsg(entry.code());
        if (projection.isEmpty()) return Optional.empty();
        int within = 0;
        int around = 0;
        int beside = 0;
        double named = 0;
        double[] first = null;
        for (int i = 0; i < samples.size(); i++) {
            Sample sample = samples.get(i);
            double[] at = projection.get().toDegrees(sample.x, sample.y);
            if (at != null && isAround(entry, at[0], at[1])) {
                around++;
                if (entry.holds(at[0], at[1])) within++;
                if (first == null) first = at;
                Place near = gazetteer.nearestTown(at[0], at[1], BESIDE).orElse(null);
                if (near != null) beside++;
                if (near != null) named += named(table, sample.row, near);
            }
            // Most systems do not fit at all, which a few rows tell.
            if (i + 1 == FIRST_LOOK && around < FIRST_LOOK / 2) return Optional.empty();
        }
        double all = samples.size();
        return around < AROUND_ITS_AREA * all || within < IN_ITS_AREA * all && named < IN_ITS_AREA * all
                ? Optional.empty()
                : Optional.of(new Candidate(entry, first, beside / all, named / all));
    }

    private static boolean isAround(SystemRegister.Entry entry, double lon, double lat) {
        if (lat < entry.south() - MARGIN_LAT || lat > entry.north() + MARGIN_LAT) return false;
        if (entry.holds(lon, Math.max(entry.south(), Math.min(entry.north(), lat)))) return true;
        return Math.abs(Math.IEEEremainder(lon - entry.west(), 360)) <= MARGIN_LON
                || Math.abs(Math.IEEEremainder(lon - entry.east(), 360)) <= MARGIN_LON;
    }

    private static double number(Column column, int row) {
        try {
            return Double.parseDouble(column.text(row).replace(',', '.'));
        } catch (NumberFormatException unread) {
            return Double.NaN;
        }
    }

    /** How well a row names a place that its numbers lie beside: its town 1, its province and its country less. */
    private double named(Table table, int row, Place near) {
        String town = PlaceNames.fold(near.name());
        String province =
                gazetteer.provinceOf(near).map(p -> PlaceNames.fold(p.name())).orElse("");
        double best = 0;
        for (String column : table.names()) {
            if (!(table.column(column) instanceof CodedColumn)
                    || table.column(column).isMissing(row)) continue;
            String text = table.column(column).text(row);
            String folded = PlaceNames.fold(text);
            if (folded.equals(town)) return 1;
            if (folded.equals(province)) best = Math.max(best, NAMES_PROVINCE);
            else if (gazetteer.country(text).filter(near.country()::equals).isPresent())
                best = Math.max(best, NAMES_COUNTRY);
        }
        return best;
    }
}
