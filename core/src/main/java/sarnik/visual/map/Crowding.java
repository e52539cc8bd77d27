package sarnik.visual.map;

import java.util.Arrays;
import java.util.Collection;
import java.util.Map;
import sarnik.data.LoadedDataset;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.scale.CircleSizes;
import sarnik.sql.StayingRows;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.WholeColumn;

/**
 * How large circles may be before they hide each other: the largest radius at which less than a quarter of what they
 * cover lies under more than one of them, where all places just fit the map.
 */
final class Crowding {

    /** Radii that are tried, pixels; no layer has smaller ones. */
    private static final double[] RADII = {28, 24, 20, 17, 14, 12, 10, 8, 7, 6, 5, 4};

    private static final double MOST_SHARED = 0.25;

    private Crowding() {}

    /**
     * @param wide width of the map, pixels
     * @param high its height
     */
    static double radius(LoadedDataset dataset, Measure measure, int wide, int high) {
        double[][] places = places(dataset, measure);
        return radius(places[0], places[1], places[2], wide, high);
    }

    /**
     * @param x where the circles are, in any unit that is the same for both axes
     * @param y the same upwards
     * @param amounts what the circles stand for; the largest gets the radius that is found
     */
    static double radius(double[] x, double[] y, double[] amounts, int wide, int high) {
        double most = Arrays.stream(amounts)
                .filter(Double::isFinite)
                .map(Math::abs)
                .max()
                .orElse(0);
        for (double radius : RADII)
            if (shared(x, y, amounts, new CircleSizes(CircleSizes.Rule.AREA, most, radius), wide, high) < MOST_SHARED)
                return radius;
        return RADII[RADII.length - 1];
    }

    /** What lies under two circles and more, as a share of what lies under any; counted pixel by pixel. */
    static double shared(double[] x, double[] y, double[] amounts, CircleSizes sizes, int wide, int high) {
        double west = Arrays.stream(x).min().orElse(0);
        double south = Arrays.stream(y).min().orElse(0);
        double span = Math.max(
                (Arrays.stream(x).max().orElse(0) - west) / wide,
                (Arrays.stream(y).max().orElse(0) - south) / high);
        double pixel = span > 0 ? 1 / span : 1;
        byte[] covered = new byte[wide * high];
        for (int i = 0; i < x.length; i++)
            cover(covered, wide, high, (x[i] - west) * pixel, (y[i] - south) * pixel, sizes.radius(amounts[i]));
        int any = 0;
        int more = 0;
        for (byte count : covered) {
            if (count > 0) any++;
            if (count > 1) more++;
        }
        return any == 0 ? 0 : (double) more / any;
    }

    private static void cover(byte[] covered, int wide, int high, double x, double y, double radius) {
        for (int py = (int) Math.max(0, Math.ceil(y - radius)); py < high && py <= y + radius; py++) {
            double half = Math.sqrt(radius * radius - (py - y) * (py - y));
            for (int px = (int) Math.max(0, Math.ceil(x - half)); px < wide && px <= x + half; px++)
                if (covered[py * wide + px] < 2) covered[py * wide + px]++;
        }
    }

    /** Where the places lie, on Mercator's sheet, and what each comes to. */
    private static double[][] places(LoadedDataset dataset, Measure measure) {
        Map<String, Place> places = dataset.places();
        if (!(dataset.table().find(PlacedTable.PLACE).orElse(null) instanceof CodedColumn of))
            return where(places.values(), new double[places.size()]);
        double[] sums = new double[of.dictionary().size()];
        Column column = measure.summary() == Summary.SUM ? dataset.table().column(measure.column()) : null;
        if (dataset.table().staying() instanceof StayingRows there) {
            // Of rows that stay elsewhere it is known how many lie in each place.
            long[] counts = there.face().counts(0, of.size());
            for (int row = 0; row < of.size(); row++) {
                int code = of.codes().get(row);
                if (code >= 0) sums[code] += counts[row];
            }
            return amounts(places, of, sums);
        }
        for (int row = 0; row < of.size(); row++) {
            int code = of.codes().get(row);
            if (code < 0 || column != null && column.isMissing(row)) continue;
            sums[code] += column instanceof DecimalColumn decimals
                    ? decimals.get(row)
                    : column instanceof WholeColumn whole ? whole.get(row) : 1;
        }
        return amounts(places, of, sums);
    }

    private static double[][] amounts(Map<String, Place> places, CodedColumn of, double[] sums) {
        Collection<Place> known =
                of.dictionary().stream().map(places::get).filter(p -> p != null).toList();
        double[] amounts = new double[known.size()];
        int at = 0;
        for (int code = 0; code < sums.length; code++)
            if (places.containsKey(of.dictionary().get(code))) amounts[at++] = sums[code];
        return where(known, amounts);
    }

    private static double[][] where(Collection<Place> places, double[] amounts) {
        return new double[][] {
            places.stream().mapToDouble(Place::lon).toArray(),
            places.stream().mapToDouble(place -> mercator(place.lat())).toArray(),
            amounts
        };
    }

    /** Upwards on Mercator's sheet, in degrees of the equator. */
    private static double mercator(double lat) {
        double within = Math.toRadians(Math.max(-85, Math.min(85, lat)));
        return Math.toDegrees(Math.log(Math.tan(Math.PI / 4 + within / 2)));
    }
}
