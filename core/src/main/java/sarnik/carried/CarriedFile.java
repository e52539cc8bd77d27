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
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;
import sarnik.visual.SharedKey;

/**
 * A dashboard with what it rests on, as bytes: what is said of it as JSON, then the columns one after the other (see
 * {@link ColumnBytes}), then the shapes of boundary sets. All numbers are big-endian. The bytes are compressed by whoever sends them.
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
            for (OfDataset of : head.datasets()) {
                ColumnBytes columns = new ColumnBytes();
                for (OfColumn column : of.columns())
                    columns.write(tables.get(of.id()).column(column.name()), out);
            }
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
                for (OfColumn column : of.columns()) columns.put(column.name(), read.read(column, of.rows(), in));
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
}
