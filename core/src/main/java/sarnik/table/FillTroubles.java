package sarnik.table;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * What is amiss in the rows of a block while its columns are filled at the same time, told in the order of the file: row
 * by row, in each row column by column, and what is amiss with the whole row last.
 */
final class FillTroubles {

    private final List<String> names;
    private final List<ColumnBuilder> builders;
    private final TroubleLog log;
    private final List<List<Cell>> byColumn = new ArrayList<>();

    /** Rows that were left out, which are in no block, until the rows before them have been told of. */
    private final List<Row> leftOut = new ArrayList<>();

    private record Cell(int row, int column, String text, boolean isNullByte) {}

    /** @param before how many rows that were not left out stand before it */
    private record Row(long line, long before, String text) {}

    /** Rows that have been told of, and those that are in a block. */
    private long told;

    private long taken;

    FillTroubles(List<String> names, List<ColumnBuilder> builders, TroubleLog log) {
        this.names = names;
        this.builders = builders;
        this.log = log;
        for (int i = 0; i < builders.size(); i++) byColumn.add(new ArrayList<>());
    }

    /** A cell held null bytes. Called by the one that works on its column. */
    void nullByte(int row, int column, String text) {
        byColumn.get(column).add(new Cell(row, column, text, true));
    }

    /** A cell does not fit its column. Called by the one that works on its column. */
    void unread(int row, int column, String text) {
        byColumn.get(column).add(new Cell(row, column, text, false));
    }

    /** A row goes into a block. */
    void taken() {
        taken++;
    }

    /** A row is a total of others. */
    void total(long line, RowSource.Cells cells) {
        String[] texts = new String[cells.count()];
        for (int i = 0; i < texts.length; i++) texts[i] = cells.get(i);
        leftOut.add(new Row(line, taken, joined(texts, 0)));
    }

    /** Tells what was amiss in a block. */
    void tell(RowBlocks.Block block) {
        List<Cell> cells = new ArrayList<>();
        byColumn.forEach(of -> {
            cells.addAll(of);
            of.clear();
        });
        cells.sort(Comparator.comparingInt(Cell::row).thenComparingInt(Cell::column));
        int next = 0;
        int out = 0;
        for (int row = 0; row < block.rows(); row++) {
            while (out < leftOut.size() && leftOut.get(out).before <= told) tell(leftOut.get(out++));
            for (; next < cells.size() && cells.get(next).row == row; next++) tell(block.line(row), cells.get(next));
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

    private void tell(long line, Cell cell) {
        String name = names.get(cell.column);
        if (cell.isNullByte) log.add(line, name, cell.text, "The cell held a null byte, which is taken out.");
        else
            log.addUnread(
                    line, name, cell.text, builders.get(cell.column).type().words());
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
