package sarnik.carried;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.util.List;

/**
 * What a column of numbers tells of another: takings are litres times a price. It is a straight line for each value of
 * a third column (the product), fitted by least squares; what is kept of the other column is how far each value lies
 * from it, which takes few bytes where the relation is close.
 *
 * @param by the number of the column that tells
 * @param of the number of the column for each value of which there is a line; -1 where there is one line for all
 * @param at where lines begin, for 0
 * @param slope how much they rise for each 1
 */
record Line(int by, int of, double[] at, double[] slope) {

    /** Lines are looked for on so many rows, spread evenly. */
    private static final int SOME = 4_096;

    private static final int MOST_LINES = 256;

    /**
     * Looks for the columns that tell most of some values.
     *
     * @param before the columns that may; null for those that may not
     * @param least the bytes that the values take otherwise
     * @return null where the values take fewer bytes otherwise
     */
    static Line of(long[] values, List<long[]> before, int least) {
        long[] some = some(values);
        List<long[]> someBefore = before.stream()
                .map(column -> column == null ? null : some(column))
                .toList();
        Line best = null;
        double fewest = bits(some);
        for (int by = 0; by < before.size(); by++) {
            if (before.get(by) == null) continue;
            for (int of = -1; of < before.size(); of++) {
                if (of == by || of >= 0 && !isFew(before.get(of))) continue;
                Line line = fitted(values, before, by, of);
                double bits = bits(line.distances(some, someBefore));
                if (bits >= fewest) continue;
                fewest = bits;
                best = line;
            }
        }
        if (best == null) return null;
        return ColumnBytes.deflated(ColumnBytes.planes(best.distances(values, before))) < least ? best : null;
    }

    private static long[] some(long[] values) {
        if (values.length <= SOME) return values;
        long[] some = new long[SOME];
        for (int i = 0; i < SOME; i++) some[i] = values[(int) ((long) i * values.length / SOME)];
        return some;
    }

    private static double bits(long[] distances) {
        double bits = 0;
        for (long distance : distances) bits += Math.log(1 + Math.abs((double) distance));
        return bits;
    }

    private static boolean isFew(long[] column) {
        if (column == null) return false;
        for (long value : column) if (value < 0 || value >= MOST_LINES) return false;
        return true;
    }

    private static Line fitted(long[] values, List<long[]> before, int by, int of) {
        long[] known = before.get(by);
        int lines = of < 0 ? 1 : MOST_LINES;
        double[] count = new double[lines];
        double[] x = new double[lines];
        double[] y = new double[lines];
        // Missing values are 0 and lie on no line.
        for (int row = 0; row < values.length; row++) {
            if (known[row] == 0 || values[row] == 0) continue;
            int line = of < 0 ? 0 : (int) before.get(of)[row];
            count[line]++;
            x[line] += known[row];
            y[line] += values[row];
        }
        double[] xx = new double[lines];
        double[] xy = new double[lines];
        for (int row = 0; row < values.length; row++) {
            if (known[row] == 0 || values[row] == 0) continue;
            int line = of < 0 ? 0 : (int) before.get(of)[row];
            double away = known[row] - x[line] / count[line];
            xx[line] += away * away;
            xy[line] += away * (values[row] - y[line] / count[line]);
        }
        double[] at = new double[lines];
        double[] slope = new double[lines];
        for (int line = 0; line < lines; line++) {
            if (count[line] == 0) continue;
            slope[line] = xx[line] == 0 ? 0 : xy[line] / xx[line];
            at[line] = (y[line] - slope[line] * x[line]) / count[line];
        }
        return new Line(by, of, at, slope);
    }

    /** How far values lie from these lines, see {@link ColumnBytes#folded}. */
    long[] distances(long[] values, List<long[]> before) {
        long[] distances = new long[values.length];
        for (int row = 0; row < values.length; row++)
            distances[row] = ColumnBytes.folded(values[row] - told(before, row));
        return distances;
    }

    /** The values that lie so far from these lines. */
    long[] values(long[] distances, List<long[]> before) {
        long[] values = new long[distances.length];
        for (int row = 0; row < values.length; row++)
            values[row] = ColumnBytes.unfolded(distances[row]) + told(before, row);
        return values;
    }

    private long told(List<long[]> before, int row) {
        int line = of < 0 ? 0 : (int) before.get(of)[row];
        return (long) Math.floor(at[line] + slope[line] * before.get(by)[row] + 0.5);
    }

    void write(DataOutputStream out) throws IOException {
        out.writeShort(by);
        out.writeShort(of);
        out.writeInt(at.length);
        for (int line = 0; line < at.length; line++) {
            out.writeDouble(at[line]);
            out.writeDouble(slope[line]);
        }
    }

    static Line read(DataInputStream in) throws IOException {
        int by = in.readShort();
        int of = in.readShort();
        double[] at = new double[in.readInt()];
        double[] slope = new double[at.length];
        for (int line = 0; line < at.length; line++) {
            at[line] = in.readDouble();
            slope[line] = in.readDouble();
        }
        return new Line(by, of, at, slope);
    }
}
