package sarnik.query;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.PriorityQueue;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.RowOrder;
import sarnik.table.Table;

/** Reads the rows that a {@link RowQuery} asks for. */
final class RowReader {

    /** Up to so many rows the first are found without ordering all. */
    private static final int FEW = 10_000;

    private RowReader() {}

    /**
     * @param query whose stages hold no condition about the groups of another query
     */
    static RowPage read(Table table, RowQuery query, Segments segments) {
        if (table.weights() != null) throw QueryException.noRows();
        List<Column> columns =
                query.columns().stream().map(c -> column(table, c)).toList();
        List<RowFilter[]> filters = RowBlocks.filters(table, query.stages());
        int segment = 1 << 18;
        int count = Math.max(1, (table.rows() + segment - 1) / segment);
        record Left(int[] rows, long[] counts) {}
        List<Left> parts = segments.run(count, s -> {
            RowBlocks blocks = RowBlocks.of(filters, null);
            int end = Math.min((s + 1) * segment, table.rows());
            int[][] rows = {new int[Math.min(1024, Math.max(1, end - s * segment))]};
            int[] size = {0};
            blocks.scan(s * segment, end, (selection, left) -> {
                if (size[0] + left > rows[0].length)
                    rows[0] = Arrays.copyOf(rows[0], Math.max(size[0] + left, 2 * rows[0].length));
                System.arraycopy(selection, 0, rows[0], size[0], left);
                size[0] += left;
            });
            return new Left(Arrays.copyOf(rows[0], size[0]), blocks.counts);
        });
        List<RowTrail.Step> steps = new ArrayList<>();
        steps.add(new RowTrail.Step(phrase("All rows"), table.rows(), RowTrail.Unit.ROWS));
        for (int s = 0; s < query.stages().size(); s++) {
            int stage = s;
            steps.add(new RowTrail.Step(
                    query.stages().get(s).words(),
                    parts.stream().mapToLong(p -> p.counts[stage]).sum(),
                    RowTrail.Unit.ROWS));
        }
        int[] rows = parts.stream().flatMapToInt(p -> IntStream.of(p.rows)).toArray();
        if (!query.find().isEmpty()) {
            IntPredicate holds = holding(columns, query.find().toLowerCase(Locale.ROOT));
            rows = IntStream.of(rows).filter(holds).toArray();
            steps.add(new RowTrail.Step(phrase("Holding “{0}”", query.find()), rows.length, RowTrail.Unit.ROWS));
        }
        int[] wanted = part(rows, order(table, query.order()), query.from(), query.count());
        return new RowPage(
                IntStream.of(wanted).boxed().toList(),
                IntStream.of(wanted)
                        .mapToObj(row -> columns.stream().map(c -> c.text(row)).toArray(String[]::new))
                        .toList(),
                rows.length,
                new RowTrail(steps));
    }

    private static Column column(Table table, String name) {
        return table.find(name)
                .orElseThrow(() -> new QueryException(phrase("There is no column “{0}” any more", name)));
    }

    private static IntPredicate holding(List<Column> columns, String find) {
        IntPredicate holds = row -> false;
        for (Column column : columns) {
            if (column instanceof CodedColumn coded) {
                BitSet codes = new BitSet();
                for (int c = 0; c < coded.dictionary().size(); c++)
                    codes.set(
                            c,
                            coded.dictionary().get(c).toLowerCase(Locale.ROOT).contains(find));
                if (!codes.isEmpty())
                    holds = holds.or(row -> coded.codes().get(row) >= 0
                            && codes.get(coded.codes().get(row)));
            } else {
                holds = holds.or(row -> !column.isMissing(row)
                        && column.text(row).toLowerCase(Locale.ROOT).contains(find));
            }
        }
        return holds;
    }

    private static Comparator<Integer> order(Table table, List<RowQuery.By> order) {
        if (order.isEmpty()) return null;
        Comparator<Integer> all = (a, b) -> 0;
        for (RowQuery.By by : order) all = all.thenComparing(RowOrder.by(column(table, by.column()), by.down()));
        return all.thenComparing(Comparator.naturalOrder());
    }

    private static int[] part(int[] rows, Comparator<Integer> order, int from, int count) {
        int end = Math.min(rows.length, from + count);
        if (from >= end) return new int[0];
        if (order == null) return Arrays.copyOfRange(rows, from, end);
        List<Integer> first;
        if (end <= FEW && end < rows.length) {
            PriorityQueue<Integer> kept = new PriorityQueue<>(end + 1, order.reversed());
            for (int row : rows) {
                if (kept.size() == end && order.compare(row, kept.peek()) > 0) continue;
                kept.add(row);
                if (kept.size() > end) kept.poll();
            }
            first = new ArrayList<>(kept);
            first.sort(order);
        } else {
            first = new ArrayList<>(IntStream.of(rows).boxed().toList());
            first.sort(order);
        }
        return first.subList(from, end).stream().mapToInt(i -> i).toArray();
    }
}
