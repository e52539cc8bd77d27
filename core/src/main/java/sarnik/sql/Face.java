package sarnik.sql;

import java.time.Instant;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.Table;

/**
 * What is known of a table that stays in its database without asking it. The table that goes with it holds in each
 * column, by itself, values that occur there: of texts all, the commonest first, of numbers and times the least, the
 * greatest and some. Only values that say together where rows are stand in the same row.
 *
 * @param rows how many rows there are
 * @param at when it was looked at
 * @param blocks values that belong together
 * @param open columns of texts of which there are more than are listed
 */
public record Face(long rows, Instant at, List<Block> blocks, List<String> open) {

    /**
     * Values of columns that stand together in rows of the face: all combinations that occur.
     *
     * @param columns their names
     * @param from the first row of the face that holds one
     * @param counts how many rows have each
     */
    public record Block(List<String> columns, int from, List<Long> counts) {
        public Block {
            columns = List.copyOf(columns);
            counts = List.copyOf(counts);
        }
    }

    public Face {
        blocks = List.copyOf(blocks);
        open = List.copyOf(open);
    }

    /** How many rows each row of its table stands for, as one block counts them. */
    public long[] counts(int block, int size) {
        long[] counts = new long[size];
        if (block >= blocks.size()) return counts;
        Block of = blocks.get(block);
        for (int i = 0; i < of.counts().size(); i++)
            counts[of.from() + i] = of.counts().get(i);
        return counts;
    }

    /** The table of a face whose columns know which of their values are the commonest there. */
    public Table ordered(Table table) {
        Map<String, Column> columns = new LinkedHashMap<>();
        for (String name : table.names()) {
            Column column = table.column(name);
            columns.put(name, column instanceof CodedColumn coded ? coded.commonest(order(name, coded)) : column);
        }
        return new Table(columns, table.staying());
    }

    private int[] order(String name, CodedColumn column) {
        int words = column.dictionary().size();
        for (Block block : blocks) {
            if (!block.columns().contains(name)) continue;
            Map<Integer, Long> counts = new HashMap<>();
            for (int i = 0; i < block.counts().size(); i++)
                counts.merge(
                        column.codes().get(block.from() + i), block.counts().get(i), Long::sum);
            return IntStream.range(0, words)
                    .boxed()
                    .sorted(Comparator.comparing((Integer code) -> -counts.getOrDefault(code, 0L)))
                    .mapToInt(i -> i)
                    .toArray();
        }
        // The first of a list is the commonest.
        int[] order = new int[words];
        Arrays.setAll(order, i -> i);
        return order;
    }
}
