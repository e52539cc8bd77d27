package sarnik.carried;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.SummedColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;
import sarnik.visual.SharedKey;

/**
 * A dashboard with what it rests on, as bytes: what is said of it as JSON, then the columns one after the other (see
 * {@link ColumnBytes}), then the shapes of boundary sets. All numbers are big-endian. The bytes are compressed by
 * whoever sends them.
 *
 * @param tables by dataset
 * @param sets boundary sets that it counts or shows by
 */
public record CarriedFile(Head head, Map<Long, Table> tables, List<BoundarySet> sets) {

    private static final int FORM = 0x53410003;

    /**
     * What is said of it.
     *
     * @param keys the shared keys that it wears
     * @param provinces the provinces that places lie in
     * @param provinceOf the id of the province of places, by their country, region and province, see {@link #codes}
     */
    public record Head(
            Dashboard dashboard,
            List<SharedKey> keys,
            List<OfDataset> datasets,
            List<OfSet> sets,
            List<Place> provinces,
            Map<String, String> provinceOf) {}

    /** What the province of a place is told by. */
    static String codes(Place place) {
        return place.country() + "/" + place.region() + "/" + place.province();
    }

    /**
     * A dataset.
     *
     * @param rows of its table
     * @param together whether each of them stands for several rows, of which so many is the first column
     * @param placing null where it has no place
     * @param places those that occur
     * @param measures measure formulas
     * @param rules standing rules in words, each of the column {@code @rule} and its number
     */
    public record OfDataset(
            long id,
            String name,
            int rows,
            boolean together,
            Placing placing,
            List<Place> places,
            About about,
            List<Calculations.Item> measures,
            List<String> rules,
            List<Tie> ties,
            List<OfColumn> columns) {}

    /**
     * A column.
     *
     * @param dictionary of text and yes/no; null for others
     * @param sums where only sums of it are carried; null for values
     */
    public record OfColumn(String name, ColumnType type, List<String> dictionary, OfSums sums) {

        static OfColumn of(ColumnType type) {
            return new OfColumn("", type, null, null);
        }
    }

    /**
     * The sums of a column, which stand as whole numbers.
     *
     * @param unit see {@link SummedColumn#unit}
     * @param filled whether numbers of values follow
     * @param extremes whether the smallest and the largest follow
     */
    public record OfSums(double unit, boolean filled, boolean extremes) {}

    /** What is said of a boundary set. */
    public record OfSet(String name, String level, String credit) {}

    /** The ids of all places that it may name: those of its datasets, what they lie in, and the areas of its sets. */
    public Set<String> placeIds() {
        Set<String> ids = new HashSet<>();
        head.datasets().forEach(of -> of.places().forEach(place -> ids.add(place.id())));
        head.provinces().forEach(place -> ids.add(place.id()));
        for (BoundarySet set : sets) set.areas().forEach(area -> ids.add("a" + set.name() + "/" + area.code()));
        return ids;
    }

    // --- columns ---------------------------------------------------------------------------------------

    /** What is said of the columns of a table. */
    static List<OfColumn> columnsOf(Table table) {
        return table.names().stream()
                .map(name -> {
                    Column column = table.column(name);
                    return new OfColumn(
                            name,
                            column.type(),
                            column instanceof CodedColumn coded ? coded.dictionary() : null,
                            column instanceof SummedColumn sums
                                    ? new OfSums(sums.unit(), sums.filled() != null, sums.lows() != null)
                                    : null);
                })
                .toList();
    }

    /** @param json writes the head */
    public byte[] write(Function<Object, String> json) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (DataOutputStream out = new DataOutputStream(bytes)) {
            out.writeInt(FORM);
            block(json.apply(head).getBytes(StandardCharsets.UTF_8), out);
            for (OfDataset of : head.datasets()) {
                ColumnBytes columns = new ColumnBytes();
                Table table = tables.get(of.id());
                if (of.together()) columns.write(new WholeColumn(longs(table.weights())), out);
                for (OfColumn column : of.columns())
                    if (table.column(column.name()) instanceof SummedColumn sums) write(sums, columns, out);
                    else columns.write(table.column(column.name()), out);
            }
            for (BoundarySet set : sets) block(AreaBytes.plain(set.areas()), out);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return bytes.toByteArray();
    }

    private static void write(SummedColumn sums, ColumnBytes columns, DataOutputStream out) throws IOException {
        long[] whole = new long[sums.size()];
        for (int row = 0; row < whole.length; row++) whole[row] = (long) sums.sums()[row];
        columns.write(new WholeColumn(whole), out);
        if (sums.filled() != null) columns.write(new WholeColumn(longs(sums.filled())), out);
        if (sums.lows() == null) return;
        columns.write(new DecimalColumn(sums.lows()), out);
        columns.write(new DecimalColumn(sums.highs()), out);
    }

    private static long[] longs(int[] of) {
        long[] longs = new long[of.length];
        for (int i = 0; i < longs.length; i++) longs[i] = of[i];
        return longs;
    }

    private static void block(byte[] bytes, DataOutputStream out) throws IOException {
        out.writeInt(bytes.length);
        out.write(bytes);
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
                ColumnBytes read = new ColumnBytes();
                int[] weights = of.together() ? ints(read, of.rows(), in) : null;
                for (OfColumn column : of.columns()) {
                    Column found = column.sums() == null
                            ? read.read(column, of.rows(), in)
                            : sums(column, weights, read, of.rows(), in);
                    columns.put(column.name(), weights == null ? found : found.weighted(weights));
                }
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

    private static SummedColumn sums(OfColumn of, int[] weights, ColumnBytes columns, int rows, DataInputStream in)
            throws IOException {
        WholeColumn whole = (WholeColumn) columns.read(OfColumn.of(ColumnType.WHOLE), rows, in);
        double[] sums = new double[rows];
        for (int row = 0; row < rows; row++) sums[row] = whole.get(row);
        int[] filled = of.sums().filled() ? ints(columns, rows, in) : null;
        double[] lows = of.sums().extremes() ? decimals(columns, rows, in) : null;
        double[] highs = of.sums().extremes() ? decimals(columns, rows, in) : null;
        return new SummedColumn(of.type(), sums, of.sums().unit(), filled, lows, highs, weights);
    }

    private static int[] ints(ColumnBytes columns, int rows, DataInputStream in) throws IOException {
        WholeColumn values = (WholeColumn) columns.read(OfColumn.of(ColumnType.WHOLE), rows, in);
        int[] ints = new int[rows];
        for (int row = 0; row < rows; row++) ints[row] = (int) values.get(row);
        return ints;
    }

    private static double[] decimals(ColumnBytes columns, int rows, DataInputStream in) throws IOException {
        return ((DecimalColumn) columns.read(OfColumn.of(ColumnType.DECIMAL), rows, in)).all();
    }

    private static byte[] block(DataInputStream in) throws IOException {
        byte[] bytes = new byte[in.readInt()];
        in.readFully(bytes);
        return bytes;
    }
}
