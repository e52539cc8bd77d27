package sarnik.carried;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.DocumentJson;
import sarnik.data.About;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;
import tools.jackson.databind.json.JsonMapper;

@DisplayName("The data of a dashboard that is carried away")
class CarriedFileTest {

    private static final JsonMapper MAPPER =
            DocumentJson.with(JsonMapper.builder()).build();

    private static CarriedFile file(Table table) {
        return new CarriedFile(
                new CarriedFile.Head(
                        DashboardDocument.empty("Carried?").dashboard(),
                        List.of(),
                        List.of(new CarriedFile.OfDataset(
                                1,
                                "Rows",
                                table.rows(),
                                table.weights() != null,
                                null,
                                List.of(),
                                About.NONE,
                                List.of(),
                                List.of(),
                                List.of(),
                                CarriedFile.columnsOf(table))),
                        List.of(),
                        List.of(),
                        Map.of()),
                Map.of(1L, table),
                List.of());
    }

    private static byte[] written(Table table) {
        return file(table).write(MAPPER::writeValueAsString);
    }

    static Table carried(Table table) {
        return CarriedFile.read(written(table), MAPPER::readValue).tables().get(1L);
    }

    /** Bit for bit: also what is missing, and which of two zeros it is. */
    private static void assertSame(Table there, Table here) {
        assertThat(there.names()).isEqualTo(here.names());
        for (String name : here.names()) {
            Column a = here.column(name);
            Column b = there.column(name);
            assertThat(b.type()).isEqualTo(a.type());
            if (a instanceof DecimalColumn decimal) {
                for (int row = 0; row < a.size(); row++)
                    assertThat(Double.doubleToRawLongBits(((DecimalColumn) b).get(row)))
                            .as("%s %d", name, row)
                            .isEqualTo(Double.doubleToRawLongBits(decimal.get(row)));
            } else {
                for (int row = 0; row < a.size(); row++)
                    assertThat(b.text(row)).as("%s %d", name, row).isEqualTo(a.text(row));
            }
            if (a instanceof CodedColumn coded)
                assertThat(((CodedColumn) b).dictionary()).isEqualTo(coded.dictionary());
        }
    }

    private static Table table(Random random, int rows) {
        Map<String, Column> columns = new LinkedHashMap<>();
        int words = 1 + random.nextInt(400);
        List<String> dictionary = new ArrayList<>();
        for (int i = 0; i < words; i++) dictionary.add("word " + i + (i % 7 == 0 ? " “ñ\"\\\n" : ""));
        int[] codes = random.ints(rows, -1, words).toArray();
        columns.put("text", new CodedColumn(ColumnType.TEXT, Codes.of(codes, rows, words), dictionary));
        int[] wider = Arrays.stream(codes).map(c -> c < 0 ? -1 : c % 5).toArray();
        columns.put(
                "determined",
                new CodedColumn(ColumnType.TEXT, Codes.of(wider, rows, 5), List.of("a", "b", "c", "d", "e")));
        byte[] yes = new byte[rows];
        for (int row = 0; row < rows; row++) yes[row] = (byte) (random.nextInt(3) - 1);
        columns.put("yes", CodedColumn.yesNo(yes));
        long span = 1L << random.nextInt(63);
        columns.put(
                "whole",
                new WholeColumn(random.longs(rows, -span, span)
                        .map(v -> random.nextInt(9) == 0 ? WholeColumn.MISSING : v)
                        .toArray()));
        columns.put(
                "days",
                new DateColumn(random.ints(rows, -9000, 30_000)
                        .map(v -> random.nextInt(9) == 0 ? DateColumn.MISSING : v)
                        .toArray()));
        columns.put(
                "moments",
                new TimeColumn(random.longs(rows, -1L << 40, 1L << 40).toArray()));
        double scale = Math.pow(10, random.nextInt(5));
        double[] few =
                random.ints(rows, -5000, 5000).mapToDouble(v -> v / scale).toArray();
        for (int row = 0; row < rows; row += 11) few[row] = Double.NaN;
        columns.put("few", new DecimalColumn(few));
        double[] product = new double[rows];
        for (int row = 0; row < rows; row++) product[row] = Math.round(few[row] * (codes[row] + 2)) / 100.0;
        columns.put("product", new DecimalColumn(product));
        columns.put("any", new DecimalColumn(random.doubles(rows, -1e9, 1e9).toArray()));
        return new Table(columns);
    }

    @Test
    void comeBackBitForBit() {
        Random random = new Random(5);
        for (int n = 0; n < 40; n++) {
            Table table = table(random, n == 0 ? 0 : 1 + random.nextInt(3000));
            assertSame(carried(table), table);
        }
    }

    @Test
    void keepNumbersThatNoFewDecimalsSay() {
        double[] odd = {
            0.0, -0.0, 0.1, 1e300, -1e-300, Double.MIN_VALUE, Double.MAX_VALUE, Double.NaN, 9007199254740993.0, 1.0 / 3
        };
        for (double one : odd) {
            Table table = new Table(Map.of("x", new DecimalColumn(new double[] {one, 2.5, one})));
            assertSame(carried(table), table);
        }
        Table far = new Table(Map.of("x", new WholeColumn(new long[] {Long.MAX_VALUE, Long.MIN_VALUE + 1, 0})));
        assertSame(carried(far), far);
    }

    @Test
    void takeWhatOtherColumnsDetermineOnce() {
        Random random = new Random(6);
        int rows = 20_000;
        int[] kiosk = random.ints(rows, 0, 600).toArray();
        int[] litres = random.ints(rows, 100, 150).toArray();
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("kiosk", new WholeColumn(Arrays.stream(kiosk).asLongStream().toArray()));
        columns.put(
                "litres", new WholeColumn(Arrays.stream(litres).asLongStream().toArray()));
        int alone = written(new Table(columns)).length;
        long[] town = Arrays.stream(kiosk).mapToLong(k -> (k * 7919L) % 40_000).toArray();
        columns.put("town", new WholeColumn(town));
        int withTown = written(new Table(columns)).length;
        assertThat(withTown - alone).as("600 towns of two bytes, not 20,000").isLessThan(2000);
        assertSame(carried(new Table(columns)), new Table(columns));
    }

    @Test
    void takeHowFarTheyLieFromWhatAnotherColumnTells() {
        Random random = new Random(7);
        int rows = 20_000;
        double[] price = {0.35, 1.1, 2.05, 0};
        int[] product = random.ints(rows, -1, 4).toArray();
        long[] litres = random.longs(rows, 0, 200_000)
                .map(v -> random.nextInt(50) == 0 ? WholeColumn.MISSING : v)
                .toArray();
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put(
                "product",
                new CodedColumn(
                        ColumnType.TEXT, Codes.of(product, rows, 4), List.of("still", "warm", "mineral", "free")));
        columns.put("litres", new WholeColumn(litres));
        double[] takings = new double[rows];
        for (int row = 0; row < rows; row++)
            takings[row] = litres[row] == WholeColumn.MISSING
                    ? random.nextInt(5000)
                    : Math.round(litres[row] * (product[row] < 0 ? 7.5 : price[product[row]]) * 100
                                    + random.nextInt(9)
                                    - 4)
                            / 100.0;
        columns.put("takings", new DecimalColumn(takings));
        Table table = new Table(columns);
        assertSame(carried(table), table);
        byte[] all = written(table);
        int plain = written(new Table(Map.of("takings", columns.get("takings")))).length;
        int deflated = ColumnBytes.deflated(all)
                - ColumnBytes.deflated(
                        written(new Table(Map.of("product", columns.get("product"), "litres", columns.get("litres")))));
        assertThat(deflated)
                .as("one byte and not four a row")
                .isLessThan(rows * 5 / 4)
                .isLessThan(plain / 3);
    }

    @Test
    void brokenOffOrOfAnotherFormAreSaidToBe() {
        byte[] bytes = written(table(new Random(1), 100));
        for (int cut : new int[] {0, 3, 9, bytes.length / 2, bytes.length - 1})
            assertThatThrownBy(() -> CarriedFile.read(Arrays.copyOf(bytes, cut), MAPPER::readValue))
                    .isInstanceOf(IllegalArgumentException.class);
        bytes[0]++;
        assertThatThrownBy(() -> CarriedFile.read(bytes, MAPPER::readValue))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("Make the package anew");
    }
}
