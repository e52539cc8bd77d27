package sarnik.app.dataset;

import java.io.DataInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/** Reads a table from PostgreSQL's binary COPY format. */
final class CopyReader {

    private CopyReader() {}

    /**
     * @param rows number of rows to come
     */
    static Table read(List<StoredColumn> columns, int rows, DataInputStream in) throws IOException {
        in.skipNBytes(CopyFormat.SIGNATURE.length);
        in.readInt();
        in.skipNBytes(in.readInt());
        List<Filling> fillings =
                columns.stream().map(c -> new Filling(c.type(), rows)).toList();
        int row = 0;
        for (int fields = in.readShort(); fields >= 0; fields = in.readShort()) {
            for (Filling filling : fillings) filling.take(row, in.readInt(), in);
            row++;
        }
        if (row != rows) throw new IOException("The version has %d rows where %d were expected".formatted(row, rows));
        Map<String, Column> table = new LinkedHashMap<>();
        for (int c = 0; c < columns.size(); c++)
            table.put(columns.get(c).name(), fillings.get(c).column());
        return new Table(table);
    }

    /** A column being filled. */
    private static final class Filling {

        private final ColumnType type;
        private final int[] ints;
        private final long[] longs;
        private final double[] doubles;
        private final Map<String, Integer> codes = new HashMap<>();
        private final List<String> dictionary = new ArrayList<>();
        private byte[] buffer = new byte[256];

        Filling(ColumnType type, int rows) {
            this.type = type;
            boolean isLong = type == ColumnType.WHOLE || type == ColumnType.TIME;
            ints = isLong || type == ColumnType.DECIMAL ? null : new int[rows];
            longs = isLong ? new long[rows] : null;
            doubles = type == ColumnType.DECIMAL ? new double[rows] : null;
        }

        void take(int row, int length, DataInputStream in) throws IOException {
            boolean missing = length < 0;
            switch (type) {
                case TEXT -> ints[row] = missing ? -1 : code(length, in);
                case YES_NO -> ints[row] = missing ? -1 : in.readByte();
                case DATE -> ints[row] = missing ? DateColumn.MISSING : in.readInt() + CopyFormat.EPOCH_DAYS;
                case WHOLE -> longs[row] = missing ? WholeColumn.MISSING : in.readLong();
                case TIME ->
                    longs[row] = missing
                            ? TimeColumn.MISSING
                            : Math.floorDiv(in.readLong(), 1_000_000L) + CopyFormat.EPOCH_SECONDS;
                case DECIMAL -> doubles[row] = missing ? Double.NaN : in.readDouble();
            }
        }

        private int code(int length, DataInputStream in) throws IOException {
            if (buffer.length < length) buffer = new byte[length];
            in.readFully(buffer, 0, length);
            String text = new String(buffer, 0, length, StandardCharsets.UTF_8);
            Integer code = codes.putIfAbsent(text, dictionary.size());
            if (code != null) return code;
            dictionary.add(text);
            return dictionary.size() - 1;
        }

        Column column() {
            return switch (type) {
                case TEXT -> new CodedColumn(type, Codes.of(ints, ints.length, dictionary.size()), dictionary);
                case YES_NO -> new CodedColumn(type, Codes.of(ints, ints.length, 2), CodedColumn.NO_YES);
                case DATE -> new DateColumn(ints);
                case WHOLE -> new WholeColumn(longs);
                case TIME -> new TimeColumn(longs);
                case DECIMAL -> new DecimalColumn(doubles).narrow();
            };
        }
    }
}
