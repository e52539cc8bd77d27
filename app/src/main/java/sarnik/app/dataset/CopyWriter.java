package sarnik.app.dataset;

import java.io.BufferedOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/** Writes rows in PostgreSQL's binary COPY format. To be closed, which ends the rows and leaves the stream open. */
final class CopyWriter implements AutoCloseable {

    private final DataOutputStream data;

    CopyWriter(OutputStream out) throws IOException {
        data = new DataOutputStream(new BufferedOutputStream(out, 1 << 16));
        data.write(CopyFormat.SIGNATURE);
        data.writeInt(0);
        data.writeInt(0);
    }

    /** Writes the rows of a table below those that have been written, which had as many columns of the same types. */
    void write(Table table) throws IOException {
        List<Column> columns = table.names().stream().map(table::column).toList();
        byte[][][] dictionaries = new byte[columns.size()][][];
        for (int c = 0; c < dictionaries.length; c++) {
            if (columns.get(c) instanceof CodedColumn coded) {
                dictionaries[c] = coded.dictionary().stream()
                        .map(w -> w.getBytes(StandardCharsets.UTF_8))
                        .toArray(byte[][]::new);
            }
        }
        for (int row = 0; row < table.rows(); row++) {
            data.writeShort(dictionaries.length);
            for (int c = 0; c < dictionaries.length; c++) write(columns.get(c), dictionaries[c], row, data);
        }
    }

    @Override
    public void close() throws IOException {
        data.writeShort(-1);
        data.flush();
    }

    private static void write(Column column, byte[][] dictionary, int row, DataOutputStream out) throws IOException {
        if (column.isMissing(row)) {
            out.writeInt(-1);
        } else if (column instanceof CodedColumn coded) {
            int code = coded.codes().get(row);
            if (coded.type() == ColumnType.YES_NO) {
                out.writeInt(1);
                out.writeByte(code);
            } else {
                out.writeInt(dictionary[code].length);
                out.write(dictionary[code]);
            }
        } else if (column instanceof DateColumn dates) {
            out.writeInt(4);
            out.writeInt(dates.day(row) - CopyFormat.EPOCH_DAYS);
        } else {
            out.writeInt(8);
            if (column instanceof WholeColumn whole) out.writeLong(whole.get(row));
            else if (column instanceof DecimalColumn decimal) out.writeDouble(decimal.get(row));
            else out.writeLong((((TimeColumn) column).second(row) - CopyFormat.EPOCH_SECONDS) * 1_000_000);
        }
    }
}
