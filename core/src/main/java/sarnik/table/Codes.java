package sarnik.table;

import java.util.Arrays;

/**
 * Dictionary codes of a column, kept in the narrowest array that holds them; -1 where the value is missing.
 *
 * <p>The arrays are handed out as they are because scans need them; nobody writes to them.
 */
public sealed interface Codes {

    int size();

    int get(int row);

    long bytes();

    record Bytes(byte[] values) implements Codes {
        @Override
        public int size() {
            return values.length;
        }

        @Override
        public int get(int row) {
            return values[row];
        }

        @Override
        public long bytes() {
            return values.length;
        }
    }

    record Shorts(short[] values) implements Codes {
        @Override
        public int size() {
            return values.length;
        }

        @Override
        public int get(int row) {
            return values[row];
        }

        @Override
        public long bytes() {
            return 2L * values.length;
        }
    }

    record Ints(int[] values) implements Codes {
        @Override
        public int size() {
            return values.length;
        }

        @Override
        public int get(int row) {
            return values[row];
        }

        @Override
        public long bytes() {
            return 4L * values.length;
        }
    }

    /**
     * Narrows codes to the smallest array.
     *
     * @param codes one code a row, -1 for missing; only the first {@code size} are used
     * @param size number of rows
     * @param dictionarySize number of distinct values; every code is below it
     */
    static Codes of(int[] codes, int size, int dictionarySize) {
        if (dictionarySize <= Byte.MAX_VALUE) {
            byte[] bytes = new byte[size];
            for (int i = 0; i < size; i++) bytes[i] = (byte) codes[i];
            return new Bytes(bytes);
        }
        if (dictionarySize <= Short.MAX_VALUE) {
            short[] shorts = new short[size];
            for (int i = 0; i < size; i++) shorts[i] = (short) codes[i];
            return new Shorts(shorts);
        }
        return new Ints(codes.length == size ? codes : Arrays.copyOf(codes, size));
    }
}
