package sarnik.geo;

/**
 * How thick weighted points lie, per square kilometre: a kernel estimate with the biweight kernel in two dimensions,
 * 3/(πr²)·(1 − d²/r²)² within the radius r (Silverman 1986, "Density estimation", eq. 4.5). Points are first put into
 * the
 * cells of a grid in Web Mercator; the radius is on the ground, so it grows on the map with latitude. Immutable.
 *
 * <p>The error of putting points into cells is at most half a cell's diagonal in the place of a point; a cell is a
 * sixth of
 * the radius wide, or wider where the grid would have more than {@link #MOST_CELLS} cells.
 */
public final class KernelDensity {

    /** The most cells of a grid; 8 bytes each. */
    public static final int MOST_CELLS = 4_000_000;

    private static final double EARTH = 6_378_137;
    private static final double SQUARE_KM = 1e6;
    private static final int CELLS_A_RADIUS = 6;

    private final double west;
    private final double south;
    private final double cell;
    private final int columns;
    private final int rows;
    private final double[] density;

    /**
     * @param lon degrees east of each point
     * @param lat degrees north; what lies beyond 85 degrees is taken to lie there
     * @param weights what each point counts; missing ones (NaN) count nothing
     * @param radius how far a point is felt, metres on the ground, above 0
     */
    public KernelDensity(double[] lon, double[] lat, double[] weights, double radius) {
        if (!(radius > 0)) throw new IllegalArgumentException("The radius has to be above 0 metres, not " + radius);
        double[] x = new double[lon.length];
        double[] y = new double[lon.length];
        double[] ends = {Double.MAX_VALUE, Double.MAX_VALUE, -Double.MAX_VALUE, -Double.MAX_VALUE};
        double widest = radius;
        for (int i = 0; i < lon.length; i++) {
            x[i] = Math.toRadians(lon[i]) * EARTH;
            y[i] = mercator(lat[i]);
            double reach = radius / Math.cos(Math.toRadians(clamped(lat[i])));
            widest = Math.max(widest, reach);
            ends[0] = Math.min(ends[0], x[i]);
            ends[1] = Math.min(ends[1], y[i]);
            ends[2] = Math.max(ends[2], x[i]);
            ends[3] = Math.max(ends[3], y[i]);
        }
        if (lon.length == 0) ends = new double[] {0, 0, 0, 0};
        west = ends[0] - widest;
        south = ends[1] - widest;
        double width = ends[2] + widest - west;
        double height = ends[3] + widest - south;
        cell = Math.max(radius / CELLS_A_RADIUS, Math.sqrt(width * height / MOST_CELLS));
        columns = (int) Math.ceil(width / cell) + 1;
        rows = (int) Math.ceil(height / cell) + 1;
        density = new double[columns * rows];
        double[] sums = new double[columns * rows];
        for (int i = 0; i < lon.length; i++) if (Double.isFinite(weights[i])) sums[at(x[i], y[i])] += weights[i];
        for (int c = 0; c < sums.length; c++) if (sums[c] != 0) spread(c, sums[c], radius);
    }

    private int at(double x, double y) {
        return (int) ((y - south) / cell) * columns + (int) ((x - west) / cell);
    }

    private void spread(int from, double weight, double radius) {
        int row = from / columns;
        int column = from % columns;
        double cosine = 1 / Math.cosh((south + (row + 0.5) * cell) / EARTH);
        double reach = radius / cosine / cell;
        double top = weight * 3 / (Math.PI * radius * radius) * SQUARE_KM;
        int whole = (int) reach;
        for (int dy = -whole; dy <= whole; dy++) {
            int r = row + dy;
            if (r < 0 || r >= rows) continue;
            for (int dx = -whole; dx <= whole; dx++) {
                int c = column + dx;
                double u = (dx * dx + dy * dy) / (reach * reach);
                if (c >= 0 && c < columns && u < 1) density[r * columns + c] += top * (1 - u) * (1 - u);
            }
        }
    }

    /** The greatest density, per square kilometre; 0 without points. */
    public double peak() {
        double peak = 0;
        for (double d : density) peak = Math.max(peak, d);
        return peak;
    }

    /** The density at a point, per square kilometre: that of the cell it lies in; 0 beyond the reach of all points. */
    public double at(Coordinates point) {
        return cell((int) Math.floor((Math.toRadians(point.lon()) * EARTH - west) / cell), (int)
                Math.floor((mercator(point.lat()) - south) / cell));
    }

    /**
     * The density at a point, between those of the four cells about it, for drawing without steps: never above the
     * {@link #peak}.
     */
    public double between(Coordinates point) {
        double x = (Math.toRadians(point.lon()) * EARTH - west) / cell - 0.5;
        double y = (mercator(point.lat()) - south) / cell - 0.5;
        int column = (int) Math.floor(x);
        int row = (int) Math.floor(y);
        double fx = x - column;
        double fy = y - row;
        return (1 - fy) * ((1 - fx) * cell(column, row) + fx * cell(column + 1, row))
                + fy * ((1 - fx) * cell(column, row + 1) + fx * cell(column + 1, row + 1));
    }

    private double cell(int column, int row) {
        return column < 0 || row < 0 || column >= columns || row >= rows ? 0 : density[row * columns + column];
    }

    /** Degrees east and north. */
    public record Coordinates(double lon, double lat) {}

    private static double mercator(double lat) {
        return Math.log(Math.tan(Math.PI / 4 + Math.toRadians(clamped(lat)) / 2)) * EARTH;
    }

    private static double clamped(double lat) {
        return Math.max(-85, Math.min(85, lat));
    }
}
