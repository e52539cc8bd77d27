package sarnik.carried;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.zip.Deflater;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.LongIndex;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/**
 * The columns of a table as few bytes. Values are whole numbers from the smallest on, 0 for missing; decimals as so
 * many tenths, hundredths and so on where that gives them back bit for bit, else by their bits. They stand byte by
 * byte: the lowest of all rows, then the next, which compresses well. A column that one or two columns before it
 * determine (a kiosk its town; a product and its litres their price) is a list of values by what determines it, in the
 * order in which that is first met. Of others the changes from row to row stand there where those take fewer bytes, or
 * how far they lie from what another column tells of them (see {@link Line}).
 */
final class ColumnBytes {

    private static final double[] TENS = {1, 10, 100, 1000, 10_000};
    private static final int BITS = -1;

    /**
     * In the place of the number of columns that determine one: changes from row to row stand there instead of values.
     */
    private static final int CHANGES = -1;

    /** In the same place: distances from lines. */
    private static final int DISTANCES = -2;

    /** What determines a column has to occur so much less often than rows do. */
    private static final int SAVES = 4;

    private static final long MOST_KEYS = 1L << 62;

    /** A column in numbers. */
    private record Numbers(long least, int tens, long most, long[] values) {

        /** Whether all values are whole numbers that a double holds. */
        boolean isExact() {
            return tens != BITS && most < 1L << 52;
        }
    }

    private final List<Numbers> before = new ArrayList<>();

    // --- writing ---------------------------------------------------------------------------------------

    void write(Column column, DataOutputStream out) throws IOException {
        Numbers numbers = numbers(column);
        out.writeLong(numbers.least);
        out.writeByte(numbers.tens);
        int[] by = numbers.values.length == 0 ? null : determining(numbers.values);
        if (by == null) {
            shortest(numbers, out);
        } else {
            out.writeByte(by.length);
            for (int one : by) out.writeShort(one);
            long[] found = table(by, numbers.values).orElseThrow();
            out.writeInt(found.length);
            out.write(planes(found));
        }
        before.add(numbers);
    }

    private void shortest(Numbers numbers, DataOutputStream out) throws IOException {
        byte[] shortest = planes(numbers.values);
        int kind = 0;
        Line line = null;
        if (numbers.tens != BITS && numbers.values.length > 0) {
            int least = deflated(shortest);
            byte[] changes = planes(changes(numbers.values));
            if (deflated(changes) < least) {
                least = deflated(changes);
                shortest = changes;
                kind = CHANGES;
            }
            if (numbers.isExact()) line = Line.of(numbers.values, columns(), least);
            if (line != null) {
                shortest = planes(line.distances(numbers.values, columns()));
                kind = DISTANCES;
            }
        }
        out.writeByte(kind);
        if (line != null) line.write(out);
        out.write(shortest);
    }

    /** The columns before that may tell of others; null for those that may not. */
    private List<long[]> columns() {
        return before.stream().map(of -> of.isExact() ? of.values : null).collect(Collectors.toList());
    }

    private static Numbers numbers(Column column) {
        int rows = column.size();
        if (column instanceof CodedColumn coded) {
            long[] codes = new long[rows];
            for (int row = 0; row < rows; row++) codes[row] = coded.codes().get(row) + 1L;
            return new Numbers(0, 0, coded.dictionary().size(), codes);
        }
        if (column instanceof DecimalColumn decimal) return decimals(decimal);
        long[] values = new long[rows];
        for (int row = 0; row < rows; row++)
            values[row] = column.isMissing(row)
                    ? WholeColumn.MISSING
                    : column instanceof DateColumn date
                            ? date.day(row)
                            : column instanceof TimeColumn time ? time.second(row) : ((WholeColumn) column).get(row);
        return fromLeast(values, 0);
    }

    private static Numbers fromLeast(long[] values, int tens) {
        long least = Long.MAX_VALUE;
        long most = Long.MIN_VALUE;
        for (long value : values) {
            if (value == WholeColumn.MISSING) continue;
            least = Math.min(least, value);
            most = Math.max(most, value);
        }
        if (most < least) least = most = 0;
        // The order of numbers that lie too far apart does not matter here: they come back by the same sum.
        for (int row = 0; row < values.length; row++)
            values[row] = values[row] == WholeColumn.MISSING ? 0 : values[row] - least + 1;
        long range = most - least;
        return new Numbers(least, tens, range < 0 || range > MOST_KEYS ? MOST_KEYS : range + 1, values);
    }

    private static Numbers decimals(DecimalColumn column) {
        double[] values = column.all();
        long[] numbers = new long[values.length];
        double unit = column.unit();
        if (unit == 0) {
            for (int row = 0; row < numbers.length; row++) numbers[row] = Double.doubleToLongBits(values[row]);
            return new Numbers(0, BITS, MOST_KEYS, numbers);
        }
        for (int row = 0; row < numbers.length; row++)
            numbers[row] =
                    Double.isNaN(values[row]) ? WholeColumn.MISSING : (long) DecimalColumn.whole(values[row] * unit);
        return fromLeast(numbers, Arrays.binarySearch(TENS, unit));
    }

    /** The columns before that determine these values, fewest first; null where none do. */
    private int[] determining(long[] values) {
        for (int one = 0; one < before.size(); one++)
            if (table(new int[] {one}, values).isPresent()) return new int[] {one};
        for (int one = 0; one < before.size(); one++)
            for (int two = one + 1; two < before.size(); two++)
                if (table(new int[] {one, two}, values).isPresent()) return new int[] {one, two};
        return null;
    }

    /** The values by what determines them, in the order in which it is met; empty where it does not. */
    private Optional<long[]> table(int[] by, long[] values) {
        if (!isKey(by)) return Optional.empty();
        LongIndex index = new LongIndex();
        long[] found = new long[16];
        for (int row = 0; row < values.length; row++) {
            int known = index.size();
            int number = index.number(key(by, row));
            if (number < known) {
                if (found[number] != values[row]) return Optional.empty();
            } else {
                if ((long) index.size() * SAVES > values.length) return Optional.empty();
                if (number == found.length) found = Arrays.copyOf(found, 2 * number);
                found[number] = values[row];
            }
        }
        return Optional.of(Arrays.copyOf(found, index.size()));
    }

    private boolean isKey(int[] by) {
        double keys = 1;
        for (int one : by) keys *= before.get(one).most + 1.0;
        return keys < MOST_KEYS;
    }

    private long key(int[] by, int row) {
        long key = before.get(by[0]).values[row];
        return by.length == 1 ? key : key * (before.get(by[1]).most + 1) + before.get(by[1]).values[row];
    }

    /** Each value less the one before it, see {@link #folded}. */
    private static long[] changes(long[] values) {
        long[] changes = new long[values.length];
        for (int row = 0; row < values.length; row++) {
            long change = row == 0 ? values[row] : values[row] - values[row - 1];
            changes[row] = folded(change);
        }
        return changes;
    }

    /** Numbers below 0 between the others: 0, -1, 1, -2 and so on. */
    static long folded(long number) {
        return number << 1 ^ number >> 63;
    }

    static long unfolded(long number) {
        return number >>> 1 ^ -(number & 1);
    }

    static int deflated(byte[] bytes) {
        Deflater deflater = new Deflater();
        deflater.setInput(bytes);
        deflater.finish();
        byte[] some = new byte[1 << 16];
        int length = 0;
        while (!deflater.finished()) length += deflater.deflate(some);
        deflater.end();
        return length;
    }

    static byte[] planes(long[] values) {
        long all = 0;
        for (long value : values) all |= value;
        int width = Math.max(1, (71 - Long.numberOfLeadingZeros(all)) / 8);
        byte[] planes = new byte[1 + width * values.length];
        planes[0] = (byte) width;
        for (int at = 0; at < width; at++)
            for (int row = 0; row < values.length; row++)
                planes[1 + at * values.length + row] = (byte) (values[row] >>> (8 * at));
        return planes;
    }

    // --- reading ---------------------------------------------------------------------------------------

    Column read(CarriedFile.OfColumn of, int rows, DataInputStream in) throws IOException {
        long least = in.readLong();
        int tens = in.readByte();
        int count = in.readByte();
        long[] values;
        if (count == 0) {
            values = planes(rows, in);
        } else if (count == CHANGES) {
            values = planes(rows, in);
            long before = 0;
            for (int row = 0; row < rows; row++) {
                before += unfolded(values[row]);
                values[row] = before;
            }
        } else if (count == DISTANCES) {
            Line line = Line.read(in);
            values = line.values(planes(rows, in), columns());
        } else {
            int[] by = new int[count];
            for (int i = 0; i < count; i++) by[i] = in.readShort();
            long[] found = planes(in.readInt(), in);
            values = new long[rows];
            LongIndex index = new LongIndex();
            for (int row = 0; row < rows; row++) values[row] = found[index.number(key(by, row))];
        }
        long most = 0;
        if (of.dictionary() != null) most = of.dictionary().size();
        else if (tens == BITS) most = MOST_KEYS;
        else for (long value : values) most = Math.max(most, value);
        before.add(new Numbers(least, tens, most, values));
        return column(of, least, tens, values);
    }

    private static Column column(CarriedFile.OfColumn of, long least, int tens, long[] values) {
        int rows = values.length;
        if (of.type() == ColumnType.TEXT || of.type() == ColumnType.YES_NO) {
            int[] codes = new int[rows];
            for (int row = 0; row < rows; row++) codes[row] = (int) values[row] - 1;
            return new CodedColumn(
                    of.type(), Codes.of(codes, rows, of.dictionary().size()), of.dictionary());
        }
        if (of.type() == ColumnType.DECIMAL) {
            double[] decimals = new double[rows];
            for (int row = 0; row < rows; row++)
                decimals[row] = tens == BITS
                        ? Double.longBitsToDouble(values[row])
                        : values[row] == 0 ? Double.NaN : (least + values[row] - 1) / TENS[tens];
            return new DecimalColumn(decimals, tens == BITS ? 0 : TENS[tens]);
        }
        if (of.type() == ColumnType.DATE) {
            int[] days = new int[rows];
            for (int row = 0; row < rows; row++)
                days[row] = values[row] == 0 ? DateColumn.MISSING : (int) (least + values[row] - 1);
            return new DateColumn(days);
        }
        long[] whole = new long[rows];
        for (int row = 0; row < rows; row++)
            whole[row] = values[row] == 0 ? WholeColumn.MISSING : least + values[row] - 1;
        return of.type() == ColumnType.TIME ? new TimeColumn(whole) : new WholeColumn(whole);
    }

    private static long[] planes(int rows, DataInputStream in) throws IOException {
        int width = in.readByte();
        byte[][] planes = new byte[width][rows];
        for (byte[] plane : planes) in.readFully(plane);
        long[] values = new long[rows];
        for (int row = 0; row < rows; row++) {
            // Three bytes fit a whole number of the browser, in which they are put together faster.
            int low = planes[0][row] & 0xff;
            for (int at = 1; at < Math.min(width, 3); at++) low |= (planes[at][row] & 0xff) << (8 * at);
            long value = low;
            for (int at = 3; at < width; at++) value |= (planes[at][row] & 0xffL) << (8 * at);
            values[row] = value;
        }
        return values;
    }
}
