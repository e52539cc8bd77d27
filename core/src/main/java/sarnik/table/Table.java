package sarnik.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/** An immutable table of named columns of one length. Safe to share between threads. */
public final class Table {

    private final Map<String, Column> columns;
    private final int rows;
    private final int[] weights;
    private final long weight;
    private final Staying staying;

    /**
     * @param columns the columns by name, in their order; names are unique by being keys
     * @throws IllegalArgumentException when the columns differ in length
     */
    public Table(Map<String, ? extends Column> columns) {
        this(columns, null);
    }

    /**
     * The face of a table whose rows stay elsewhere: each column holds, by itself, values that occur there.
     *
     * @param staying where the rows are; null where the columns hold them
     */
    public Table(Map<String, ? extends Column> columns, Staying staying) {
        this.staying = staying;
        this.columns = new LinkedHashMap<>(columns);
        this.rows = columns.values().stream().mapToInt(Column::size).findFirst().orElse(0);
        this.weights = columns.values().stream()
                .map(Column::weights)
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(null);
        this.weight = staying != null ? staying.rows() : weights == null ? rows : weight(weights);
        this.columns.forEach((name, column) -> {
            if (column.size() != rows) {
                throw new IllegalArgumentException(
                        "Column “%s” has %d rows where the table has %d".formatted(name, column.size(), rows));
            }
        });
    }

    public int rows() {
        return rows;
    }

    /** How many rows each row stands for where rows were put together; null where each stands for itself. */
    public int[] weights() {
        return weights;
    }

    /** Where its rows are, of which it is only the face; null where it holds them. */
    public Staying staying() {
        return staying;
    }

    /** The same columns as the face of rows that stay elsewhere. */
    public Table staying(Staying where) {
        return new Table(columns, where);
    }

    /** How many rows its rows stand for. */
    public long weight() {
        return weight;
    }

    /** The sum of weights. */
    public static long weight(int[] weights) {
        long sum = 0;
        for (int weight : weights) sum += weight;
        return sum;
    }

    public List<String> names() {
        return new ArrayList<>(columns.keySet());
    }

    public Optional<Column> find(String name) {
        return Optional.ofNullable(columns.get(name));
    }

    /**
     * @throws IllegalArgumentException when there is no column of that name
     */
    public Column column(String name) {
        return find(name).orElseThrow(() -> new IllegalArgumentException("There is no column “" + name + "”"));
    }

    /** This table with more columns to its right; a column of the same name is replaced. */
    public Table with(Map<String, ? extends Column> more) {
        Map<String, Column> all = new LinkedHashMap<>(columns);
        all.putAll(more);
        return new Table(all, staying);
    }

    /** This table with its columns narrowed to these, in this order. */
    public Table only(List<String> names) {
        Map<String, Column> kept = new LinkedHashMap<>();
        names.forEach(name -> kept.put(name, column(name)));
        return new Table(kept, staying);
    }

    /**
     * The rows of this table and below them those of another. The columns are this table's; where the other lacks one,
     * its
     * rows have no value there.
     *
     * @throws IllegalArgumentException when a column of the other has another type here
     */
    public Table followedBy(Table other) {
        Map<String, Column> below = new LinkedHashMap<>();
        columns.forEach((name, column) -> {
            Column there = other.find(name).orElseGet(() -> Column.of(column.type(), nothing(other.rows)));
            if (there.type() != column.type())
                throw new IllegalArgumentException("Column “%s” holds %s here and %s there"
                        .formatted(name, column.type().words(), there.type().words()));
            below.put(name, there);
        });
        return joined(List.of(this, new Table(below)));
    }

    private static List<String> nothing(int rows) {
        return Collections.nCopies(rows, null);
    }

    /**
     * The rows of several tables, one below the other.
     *
     * @param tables at least one, all with the columns of the first, of the same types
     */
    public static Table joined(List<Table> tables) {
        if (tables.size() == 1) return tables.get(0);
        int rows = tables.stream().mapToInt(Table::rows).sum();
        Map<String, Column> joined = new LinkedHashMap<>();
        tables.get(0).columns.forEach((name, column) -> {
            ColumnBuilder builder = ColumnBuilder.canonical(column.type(), rows);
            for (Table table : tables) {
                Column part = table.column(name);
                for (int row = 0; row < table.rows; row++) builder.add(textOrEmpty(part, row));
            }
            joined.put(name, builder.build());
        });
        return new Table(joined);
    }

    /**
     * Some rows of this table.
     *
     * @param picked row numbers, in the order in which they are wanted
     */
    public Table pick(int[] picked) {
        Map<String, Column> columnsOfPicked = new LinkedHashMap<>();
        columns.forEach((name, column) -> columnsOfPicked.put(name, pick(column, picked)));
        return new Table(columnsOfPicked);
    }

    /** A dictionary is made anew, so that nothing of other rows is left in it. */
    private static Column pick(Column column, int[] picked) {
        if (column instanceof WholeColumn whole)
            return new WholeColumn(
                    Arrays.stream(picked).mapToLong(row -> whole.get(row)).toArray());
        if (column instanceof DecimalColumn decimal)
            return new DecimalColumn(
                    Arrays.stream(picked).mapToDouble(row -> decimal.get(row)).toArray());
        if (column instanceof DateColumn date)
            return new DateColumn(
                    Arrays.stream(picked).map(row -> date.day(row)).toArray());
        if (column instanceof TimeColumn time)
            return new TimeColumn(
                    Arrays.stream(picked).mapToLong(row -> time.second(row)).toArray());
        ColumnBuilder builder = ColumnBuilder.canonical(column.type(), picked.length);
        for (int row : picked) builder.add(textOrEmpty(column, row));
        return builder.build();
    }

    private static String textOrEmpty(Column column, int row) {
        String text = column.text(row);
        return text == null ? "" : text;
    }

    /** Bytes held by all columns, see {@link Column#bytes()}. */
    public long bytes() {
        return columns.values().stream().mapToLong(Column::bytes).sum();
    }
}
