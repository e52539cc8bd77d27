package sarnik.carried;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Function;
import sarnik.dashboard.Dashboard;
import sarnik.data.About;
import sarnik.data.Calculations;
import sarnik.data.Tie;
import sarnik.geo.Area;
import sarnik.geo.AreaBytes;
import sarnik.geo.BoundarySet;
import sarnik.place.Place;
import sarnik.place.Placing;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;
import sarnik.visual.SharedKey;

/**
 * A dashboard with what it rests on, as bytes: what is said of it as JSON, then the columns one after the other, each in
 * the narrowest width that holds its values (whole numbers, days and moments from the smallest on), then the shapes of
 * boundary sets. All numbers are big-endian. The bytes are compressed by whoever sends them.
 *
 * @param tables by dataset
 * @param sets boundary sets that it counts or shows by
 */
public record CarriedFile(Head head, Map<Long, Table> tables, List<BoundarySet> sets) {

    private static final int FORM = 0x53410001;

    /**
     * What is said of it.
     *
     * @param keys the shared keys that it wears
     * @param provinces the provinces that places lie in
     * @param provinceOf the id of the province of a place, by the place's id
     */
    public record Head(
            Dashboard dashboard,
            List<SharedKey> keys,
            List<OfDataset> datasets,
            List<OfSet> sets,
            List<Place> provinces,
            Map<String, String> provinceOf) {}

    /**
     * A dataset.
     *
     * @param placing null where it has no place
     * @param places those that occur
     * @param measures measure formulas
     * @param rules standing rules in words, each of the column {@code @rule} and its number
     */
    public record OfDataset(
            long id,
            String name,
            int rows,
            Placing placing,
            List<Place> places,
            About about,
            List<Calculations.Item> measures,
            List<String> rules,
            List<Tie> ties,
            List<OfColumn> columns) {}

    /** @param dictionary of text and yes/no; null for others */
    public record OfColumn(String name, ColumnType type, List<String> dictionary) {}

    /** What is said of a boundary set. */
    public record OfSet(String name, String level, String credit) {}

    // --- columns ---------------------------------------------------------------------------------------

    /** What is said of the columns of a table. */
    static List<OfColumn> columnsOf(Table table) {
        return table.names().stream()
                .map(name -> {
                    Column column = table.column(name);
                    return new OfColumn(
                            name, column.type(), column instanceof CodedColumn coded ? coded.dictionary() : null);
                })
                .toList();
    }

    /** @param json writes the head */
    public byte[] write(Function<Object, String> json) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (DataOutputStream out = new DataOutputStream(bytes)) {
            out.writeInt(FORM);
            block(json.apply(head).getBytes(StandardCharsets.UTF_8), out);
            for (OfDataset of : head.datasets())
                for (OfColumn column : of.columns()) write(tables.get(of.id()).column(column.name()), out);
            for (BoundarySet set : sets) block(AreaBytes.plain(set.areas()), out);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }

    private static void block(byte[] bytes, DataOutputStream out) throws IOException {
        out.writeInt(bytes.length);
        out.write(bytes);
    }

    private static void write(Column column, DataOutputStream out) throws IOException {
        if (column instanceof CodedColumn coded) {
            int width =
                    coded.dictionary().size() < 0xff ? 1 : coded.dictionary().size() < 0xffff ? 2 : 4;
            out.writeByte(width);
            for (int row = 0; row < coded.size(); row++) unsigned(coded.codes().get(row) + 1L, width, out);
        } else if (column instanceof DecimalColumn decimal) {
            for (double value : decimal.values()) out.writeDouble(value);
        } else if (column instanceof DateColumn date) {
            long[] days = new long[date.size()];
            for (int row = 0; row < days.length; row++)
                days[row] = date.isMissing(row) ? WholeColumn.MISSING : date.days()[row];
            whole(days, out);
        } else if (column instanceof WholeColumn whole) {
            whole(whole.values(), out);
        } else if (column instanceof TimeColumn time) {
            whole(time.seconds(), out);
        }
    }

    /** Numbers from the smallest on, 0 for missing; as they are where they lie too far apart. */
    private static void whole(long[] values, DataOutputStream out) throws IOException {
        long least = Long.MAX_VALUE;
        long most = Long.MIN_VALUE;
        for (long value : values) {
            if (value == WholeColumn.MISSING) continue;
            least = Math.min(least, value);
            most = Math.max(most, value);
        }
        long range = most < least ? 0 : most - least;
        int width = range < 0 ? 8 : range < 0xff ? 1 : range < 0xffff ? 2 : range < 0xffffffffL ? 4 : 8;
        out.writeByte(width);
        if (width < 8) out.writeLong(least);
        for (long value : values) {
            if (width == 8) out.writeLong(value);
            else unsigned(value == WholeColumn.MISSING ? 0 : value - least + 1, width, out);
        }
    }

    private static void unsigned(long value, int width, DataOutputStream out) throws IOException {
        if (width == 1) out.writeByte((int) value);
        else if (width == 2) out.writeShort((int) value);
        else out.writeInt((int) value);
    }

    // --- reading ---------------------------------------------------------------------------------------

    /**
     * @param json reads the head
     * @throws IllegalArgumentException when the bytes are of another form
     */
    public static CarriedFile read(byte[] bytes, BiFunction<String, Class<Head>, Head> json) {
        try (DataInputStream in = new DataInputStream(new ByteArrayInputStream(bytes))) {
            if (in.readInt() != FORM)
                throw new IllegalArgumentException("The data are not of this form. Make the package anew.");
            Head head = json.apply(new String(block(in), StandardCharsets.UTF_8), Head.class);
            Map<Long, Table> tables = new LinkedHashMap<>();
            for (OfDataset of : head.datasets()) {
                Map<String, Column> columns = new LinkedHashMap<>();
                for (OfColumn column : of.columns()) columns.put(column.name(), read(column, of.rows(), in));
                tables.put(of.id(), new Table(columns));
            }
            List<BoundarySet> sets = new ArrayList<>();
            for (OfSet of : head.sets()) {
                List<Area> areas = AreaBytes.ofPlain(block(in));
                sets.add(new BoundarySet(of.name(), of.level(), of.credit(), areas));
            }
            return new CarriedFile(head, tables, sets);
        } catch (IOException broken) {
            throw new IllegalArgumentException("The data are broken off. Load them again.", broken);
        }
    }

    private static byte[] block(DataInputStream in) throws IOException {
        byte[] bytes = new byte[in.readInt()];
        in.readFully(bytes);
        return bytes;
    }

    private static Column read(OfColumn of, int rows, DataInputStream in) throws IOException {
        switch (of.type()) {
            case TEXT, YES_NO -> {
                int width = in.readByte();
                int[] codes = new int[rows];
                for (int row = 0; row < rows; row++) codes[row] = (int) (unsigned(width, in) - 1);
                return new CodedColumn(
                        of.type(), Codes.of(codes, rows, of.dictionary().size()), of.dictionary());
            }
            case DECIMAL -> {
                double[] values = new double[rows];
                for (int row = 0; row < rows; row++) values[row] = in.readDouble();
                return new DecimalColumn(values);
            }
            case DATE -> {
                long[] read = whole(rows, in);
                int[] days = new int[rows];
                for (int row = 0; row < rows; row++)
                    days[row] = read[row] == WholeColumn.MISSING ? DateColumn.MISSING : (int) read[row];
                return new DateColumn(days);
            }
            case TIME -> {
                return new TimeColumn(whole(rows, in));
            }
            default -> {
                return new WholeColumn(whole(rows, in));
            }
        }
    }

    private static long[] whole(int rows, DataInputStream in) throws IOException {
        int width = in.readByte();
        long least = width < 8 ? in.readLong() : 0;
        long[] values = new long[rows];
        for (int row = 0; row < rows; row++) {
            if (width == 8) values[row] = in.readLong();
            else {
                long value = unsigned(width, in);
                values[row] = value == 0 ? WholeColumn.MISSING : least + value - 1;
            }
        }
        return values;
    }

    private static long unsigned(int width, DataInputStream in) throws IOException {
        if (width == 1) return in.readUnsignedByte();
        if (width == 2) return in.readUnsignedShort();
        return in.readInt() & 0xffffffffL;
    }
}
