package sarnik.table;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** An immutable table of named columns of one length. Safe to share between threads. */
public final class Table {

    private final Map<String, Column> columns;
    private final int rows;

    /**
     * @param columns the columns by name, in their order; names are unique by being keys
     * @throws IllegalArgumentException when the columns differ in length
     */
    public Table(Map<String, ? extends Column> columns) {
        this.columns = new LinkedHashMap<>(columns);
        this.rows = columns.values().stream().mapToInt(Column::size).findFirst().orElse(0);
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
        return new Table(all);
    }

    /** Bytes held by all columns, see {@link Column#bytes()}. */
    public long bytes() {
        return columns.values().stream().mapToLong(Column::bytes).sum();
    }
}
