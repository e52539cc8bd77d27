package sarnik.carried;

import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import sarnik.query.ExactSums;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.LongIndex;
import sarnik.table.SummedColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/**
 * Puts rows together that a dashboard cannot tell apart: those that have all values in common but the ones that are
 * only ever summed up. So a table is carried as sums at the finest grain that is asked for, in an order that takes few
 * bytes.
 */
final class Grains {

    /** Rows as they are are carried up to so many. */
    static final int ROWS_AS_THEY_ARE = 100_000;

    /** Sums take more bytes than values; so they are worth it where there are fewer of them. */
    private static final double MOST_LEFT = 0.75;

    private final Table table;
    private final GrainUses.Uses uses;
    /** By column the code of the value of each row: rows with the same value have the same code. */
    private final Map<String, int[]> codes = new LinkedHashMap<>();

    private Grains(Table table, GrainUses.Uses uses) {
        this.table = table;
        this.uses = uses;
    }

    /**
     * @return empty where that would not make it smaller
     */
    static Optional<Table> of(Table table, GrainUses.Uses uses) {
        if (table.rows() <= ROWS_AS_THEY_ARE || uses == null) return Optional.empty();
        return new Grains(table, uses).together();
    }

    private Optional<Table> together() {
        int[] group = new int[table.rows()];
        int groups = 1;
        for (String name : table.names()) {
            if (uses.summed().containsKey(name)) continue;
            int[] own = codes(table.column(name), uses.steps().get(name));
            codes.put(name, own);
            LongIndex index = new LongIndex();
            for (int row = 0; row < group.length; row++) group[row] = index.number((long) group[row] << 31 | own[row]);
            groups = index.size();
            if (groups > MOST_LEFT * group.length) return Optional.empty();
        }
        int[] first = new int[groups];
        Arrays.fill(first, -1);
        for (int row = 0; row < group.length; row++) if (first[group[row]] < 0) first[group[row]] = row;
        int[] order = order(first);
        int[] at = new int[groups];
        for (int i = 0; i < groups; i++) at[order[i]] = i;
        int[] rows = IntStream.of(order).map(g -> first[g]).toArray();
        int[] weights = new int[groups];
        for (int row = 0; row < group.length; row++) {
            group[row] = at[group[row]];
            weights[group[row]]++;
        }
        Map<String, Column> columns = new LinkedHashMap<>();
        for (String name : table.names()) {
            Boolean extremes = uses.summed().get(name);
            Column column = table.column(name);
            columns.put(
                    name,
                    extremes != null
                            ? summed(column, group, weights, extremes)
                            : at(column, earliest(name, column), rows).weighted(weights));
        }
        return Optional.of(new Table(columns));
    }

    /** The groups in the order of their values: of those columns first that have the fewest. */
    private int[] order(int[] first) {
        int[][] keys = codes.values().stream()
                .sorted((a, b) -> Integer.compare(most(b), most(a)))
                .toArray(int[][]::new);
        return IntStream.range(0, first.length)
                .boxed()
                .sorted((a, b) -> {
                    for (int[] key : keys) {
                        int compared = Integer.compare(key[first[a]], key[first[b]]);
                        if (compared != 0) return compared;
                    }
                    return 0;
                })
                .mapToInt(g -> g)
                .toArray();
    }

    private static int most(int[] codes) {
        return IntStream.of(codes).max().orElse(0);
    }

    // --- values ----------------------------------------------------------------------------------------

    /** Codes of the values of a column, in their order; 0 for missing. */
    private static int[] codes(Column column, GrainUses.Grain grain) {
        int rows = column.size();
        if (column instanceof CodedColumn coded)
            return IntStream.range(0, rows)
                    .map(row -> coded.codes().get(row) + 1)
                    .toArray();
        long[] values = new long[rows];
        for (int row = 0; row < rows; row++)
            values[row] = column.isMissing(row) ? Long.MIN_VALUE : value(column, row, grain);
        long[] sorted = Arrays.stream(values).distinct().sorted().toArray();
        Map<Long, Integer> places = new HashMap<>();
        for (long value : sorted) places.put(value, places.size() + (sorted[0] == Long.MIN_VALUE ? 0 : 1));
        return Arrays.stream(values).mapToInt(places::get).toArray();
    }

    private static long value(Column column, int row, GrainUses.Grain grain) {
        if (column instanceof DateColumn dates) return grain == null ? dates.day(row) : grain.ofDay(dates.day(row));
        if (column instanceof TimeColumn times)
            return grain == null ? times.second(row) : grain.number(times.second(row));
        if (column instanceof WholeColumn whole) return whole.get(row);
        return Double.doubleToLongBits(((DecimalColumn) column).get(row));
    }

    /** For each code of a column of time the row with the earliest of its moments; null where it is not by steps. */
    private int[] earliest(String name, Column column) {
        if (!uses.steps().containsKey(name)) return null;
        int[] own = codes.get(name);
        int[] earliest = new int[most(own) + 1];
        Arrays.fill(earliest, -1);
        for (int row = 0; row < own.length; row++) {
            int known = earliest[own[row]];
            if (known < 0 || moment(column, row) < moment(column, known)) earliest[own[row]] = row;
        }
        return IntStream.range(0, own.length).map(row -> earliest[own[row]]).toArray();
    }

    private static long moment(Column column, int row) {
        return column instanceof DateColumn dates ? dates.day(row) : ((TimeColumn) column).second(row);
    }

    /**
     * Some values of a column, with its dictionary as it is.
     *
     * @param instead the row whose value stands for that of each row; null for its own
     */
    private static Column at(Column column, int[] instead, int[] rows) {
        int[] from = instead == null
                ? rows
                : IntStream.of(rows).map(row -> instead[row]).toArray();
        if (column instanceof CodedColumn coded) {
            int[] codes = IntStream.of(from).map(coded.codes()::get).toArray();
            List<String> dictionary = coded.dictionary();
            return new CodedColumn(coded.type(), Codes.of(codes, codes.length, dictionary.size()), dictionary);
        }
        if (column instanceof DateColumn dates)
            return new DateColumn(IntStream.of(from).map(row -> dates.day(row)).toArray());
        if (column instanceof TimeColumn times)
            return new TimeColumn(
                    IntStream.of(from).mapToLong(row -> times.second(row)).toArray());
        if (column instanceof WholeColumn whole)
            return new WholeColumn(
                    IntStream.of(from).mapToLong(row -> whole.get(row)).toArray());
        DecimalColumn values = (DecimalColumn) column;
        return new DecimalColumn(IntStream.of(from).mapToDouble(values::get).toArray());
    }

    private static SummedColumn summed(Column column, int[] group, int[] weights, boolean extremes) {
        int groups = weights.length;
        double unit = ExactSums.unit(column);
        double[] sums = new double[groups];
        int[] filled = column.isComplete() ? null : new int[groups];
        double[] lows = extremes ? new double[groups] : null;
        double[] highs = extremes ? new double[groups] : null;
        if (extremes) {
            Arrays.fill(lows, Double.NaN);
            Arrays.fill(highs, Double.NaN);
        }
        for (int row = 0; row < group.length; row++) {
            if (column.isMissing(row)) continue;
            int g = group[row];
            double value = column instanceof WholeColumn whole ? whole.get(row) : ((DecimalColumn) column).get(row);
            sums[g] += column instanceof WholeColumn ? value : DecimalColumn.whole(value * unit);
            if (filled != null) filled[g]++;
            if (!extremes) continue;
            lows[g] = Double.isNaN(lows[g]) ? value : Math.min(lows[g], value);
            highs[g] = Double.isNaN(highs[g]) ? value : Math.max(highs[g], value);
        }
        return new SummedColumn(column.type(), sums, unit, filled, lows, highs, weights);
    }
}
