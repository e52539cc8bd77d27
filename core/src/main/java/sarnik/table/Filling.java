package sarnik.table;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Fills columns with the cells of blocks of rows, each column by one thread at a time, and tells what is amiss in the order
 * of the file: row by row, in each row column by column, and what is amiss with the whole row last.
 */
final class Filling {

    private final List<String> names;
    private final Set<String> missing;
    private final boolean tidy;
    private final TroubleLog log = new TroubleLog();
    private volatile List<ColumnBuilder> builders;
    private volatile boolean isGivenUp;

    /** Rows that were left out, which are in no block, until the rows before them have been told of. */
    private final List<Row> leftOut = new ArrayList<>();

    /** @param before how many rows that were not left out stand before it */
    private record Row(long line, long before, String text) {}

    /** Rows that have been told of, and those that are in a block. */
    private long told;

    private long taken;

    /**
     * @param names of the columns in the table
     * @param missing words that stand for no value
     * @param tidy whether blanks and marks of every kind are taken from the ends of cells
     */
    Filling(List<String> names, Set<String> missing, boolean tidy) {
        this.names = names;
        this.missing = missing;
        this.tidy = tidy;
    }

    /** Says how the columns are written; null for one that is left out. To be said before the first block. */
    void as(List<ColumnBuilder> columns) {
        builders = columns;
    }

    /** Whether it is said how the columns are written. */
    boolean isBegun() {
        return builders != null;
    }

    /** Lets go of what the columns hold: they are filled no more, cells are looked at only. */
    void giveUp() {
        isGivenUp = true;
        builders = Collections.nCopies(names.size(), null);
        leftOut.clear();
    }

    boolean isGivenUp() {
        return isGivenUp;
    }

    /** Whether the columns were filled as others would be. */
    boolean isAs(List<ColumnBuilder> others) {
        if (isGivenUp) return false;
        for (int i = 0; i < others.size(); i++) {
            ColumnBuilder own = builders.get(i);
            if (own == null ? others.get(i) != null : !own.isAs(others.get(i))) return false;
        }
        return true;
    }

    /** The columns as they are filled now. */
    Table table() {
        List<ColumnBuilder> filled = builders;
        Column[] built = filled.parallelStream()
                .map(builder -> builder == null ? null : builder.build())
                .toArray(Column[]::new);
        Map<String, Column> table = new LinkedHashMap<>();
        for (int i = 0; i < built.length; i++) if (built[i] != null) table.put(names.get(i), built[i]);
        return new Table(table);
    }

    TroubleLog troubles() {
        return log;
    }

    /** Looks at cells before they are taken in. */
    interface Look {

        /**
         * @param cell without blanks around it; may be empty
         * @return forms that it is known to be written in, a bit for each
         */
        long at(String cell);
    }

    /** Fills a column with the cells of a block. */
    void fill(int column, RowBlocks.Block block) {
        fill(column, block, cell -> 0);
    }

    /** The same with a look at each cell, which those of columns that are not filled are given too. */
    void fill(int column, RowBlocks.Block block, Look look) {
        List<ColumnBuilder> said = builders;
        ColumnBuilder builder = said == null ? null : said.get(column);
        List<RowBlocks.Amiss> amiss = block.amiss(column);
        for (int row = 0; row < block.rows(); row++) {
            String[] cells = block.cells(row);
            String written = column < cells.length ? cells[column] : "";
            String cell = tidy ? CellText.strip(written) : written.strip();
            long fits = look.at(cell);
            if (builder == null) continue;
            if (cell.indexOf('\0') >= 0) {
                cell = cell.replace("\0", "");
                fits = 0;
                amiss.add(new RowBlocks.Amiss(row, column, cell, true));
            }
            if (!missing.isEmpty() && missing.contains(cell)) cell = "";
            if (!builder.add(cell, fits)) amiss.add(new RowBlocks.Amiss(row, column, cell, false));
        }
        if (builder != null) block.weigh(column, builder.bytes());
    }

    /** A row goes into a block. */
    void taken() {
        taken++;
    }

    /** A row is a total of others. */
    void total(long line, RowSource.Cells cells) {
        if (isGivenUp) return;
        String[] texts = new String[cells.count()];
        for (int i = 0; i < texts.length; i++) texts[i] = cells.get(i);
        leftOut.add(new Row(line, taken, joined(texts, 0)));
    }

    /** Tells what was amiss in a block. */
    void tell(RowBlocks.Block block) {
        if (isGivenUp) return;
        List<RowBlocks.Amiss> cells = new ArrayList<>();
        for (int column = 0; column < names.size(); column++) cells.addAll(block.amiss(column));
        cells.sort(Comparator.comparingInt(RowBlocks.Amiss::row).thenComparingInt(RowBlocks.Amiss::column));
        int next = 0;
        int out = 0;
        for (int row = 0; row < block.rows(); row++) {
            while (out < leftOut.size() && leftOut.get(out).before <= told) tell(leftOut.get(out++));
            for (; next < cells.size() && cells.get(next).row() == row; next++) tell(block.line(row), cells.get(next));
            width(block.line(row), block.cells(row));
            told++;
        }
        leftOut.subList(0, out).clear();
    }

    /** Tells of the rows that were left out behind the last block. */
    void close() {
        leftOut.forEach(this::tell);
        leftOut.clear();
    }

    private void tell(Row total) {
        log.add(total.line, null, total.text, "The row is a total of others and is left out.");
    }

    private void tell(long line, RowBlocks.Amiss cell) {
        String name = names.get(cell.column());
        if (cell.isNullByte()) log.add(line, name, cell.text(), "The cell held a null byte, which is taken out.");
        else
            log.addUnread(
                    line, name, cell.text(), builders.get(cell.column()).type().words());
    }

    private void width(long line, String[] cells) {
        int columns = builders.size();
        if (cells.length < columns)
            log.add(
                    line,
                    null,
                    joined(cells, 0),
                    "The row has %d of %d cells; the rest are taken as missing.".formatted(cells.length, columns));
        else if (cells.length > columns)
            log.add(
                    line,
                    null,
                    joined(cells, columns),
                    "The row has %d cells where the header has %d; these last ones are left out."
                            .formatted(cells.length, columns));
    }

    private static String joined(String[] cells, int from) {
        return String.join(" · ", List.of(cells).subList(from, cells.length));
    }
}
