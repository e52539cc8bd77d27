package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Label;
import net.jqwik.api.Property;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;

@Label("Decimals that are held as steps")
class NarrowColumnsTest {

    private static final List<Summary> SUMMARIES = List.of(
            Summary.COUNT,
            Summary.SUM,
            Summary.AVERAGE,
            Summary.MINIMUM,
            Summary.MAXIMUM,
            Summary.MEDIAN,
            Summary.DISTINCT);

    private final InMemoryEngine engine = new InMemoryEngine();

    /** A table with the same values twice: as they are, and in steps. */
    private static Map<Boolean, Table> tables(Random random) {
        int rows = 1 + random.nextInt(4000);
        double unit = new double[] {1, 10, 100, 1000, 10_000}[random.nextInt(5)];
        int most = new int[] {100, 30_000, 2_000_000_000}[random.nextInt(3)];
        int missing = random.nextInt(3);
        double[] values = IntStream.range(0, rows)
                .mapToDouble(r -> random.nextInt(10) < missing ? Double.NaN : (random.nextInt(most) - most / 3) / unit)
                .toArray();
        int[] towns = IntStream.range(0, rows).map(r -> random.nextInt(6) - 1).toArray();
        Map<Boolean, Table> tables = new LinkedHashMap<>();
        for (boolean narrow : new boolean[] {false, true}) {
            DecimalColumn column = new DecimalColumn(values.clone());
            Map<String, Column> columns = new LinkedHashMap<>();
            columns.put(
                    "town",
                    new CodedColumn(
                            ColumnType.TEXT, Codes.of(towns.clone(), rows, 5), List.of("a", "b", "c", "d", "e")));
            columns.put("litres", narrow ? column.narrow() : column);
            tables.put(narrow, new Table(columns));
        }
        return tables;
    }

    private static Condition condition(Random random, Table table) {
        Column litres = table.column("litres");
        String known = litres.text(random.nextInt(table.rows()));
        String some = known == null ? "0" : known;
        return switch (random.nextInt(6)) {
            case 0 -> new Condition.Between("litres", some, null);
            case 1 -> new Condition.Between("litres", null, some);
            case 2 -> new Condition.Between("litres", "-1e300", random.nextBoolean() ? "1e300" : some);
            case 3 -> new Condition.Between("litres", Double.toString(Math.nextUp(Double.parseDouble(some))), "1e99");
            case 4 -> new Condition.OneOf("litres", List.of(some, "7", "0.25", "1e40"));
            default -> new Condition.NoneOf("litres", List.of(some, "7"));
        };
    }

    private static String told(Frame frame) {
        List<String> lines = new ArrayList<>();
        frame.keys().forEach(key -> lines.add(Arrays.toString(key)));
        frame.values().forEach(of -> lines.add(Arrays.toString(of)));
        frame.trail().steps().forEach(step -> lines.add(step.words() + " " + step.left()));
        return String.join("\n", lines);
    }

    @Property(tries = 150)
    @Label("are narrowed, grouped and summed up as those that are held as they are, bit for bit")
    void areTheSame(@ForAll long seed) {
        Random random = new Random(seed);
        Map<Boolean, Table> tables = tables(random);
        List<Stage> stages = List.of(
                new Stage("first", List.of(condition(random, tables.get(false)))),
                new Stage("then", List.of(new Condition.OneOf("town", List.of("a", "b", "c")))));
        List<Stage> turned = random.nextBoolean() ? stages : List.of(stages.get(1), stages.get(0));
        List<Measure> measures =
                SUMMARIES.stream().map(s -> new Measure(s, "litres")).toList();
        List<GroupKey> keys = switch (random.nextInt(4)) {
            case 0 -> List.of();
            case 1 -> GroupKey.of(List.of("town"));
            case 2 -> GroupKey.of(List.of("litres"));
            default -> List.of(new GroupKey.Classes("litres", List.of(-10.0, 0.0, 0.3, 25.0)));
        };
        Query query = Query.by(turned, keys, measures);
        assertThat(told(engine.answer(tables.get(true), query)))
                .isEqualTo(told(engine.answer(tables.get(false), query)));
        RowQuery rows = new RowQuery(
                turned, List.of("town", "litres"), List.of(new RowQuery.By("litres", random.nextBoolean())), "", 0, 50);
        assertThat(engine.rows(tables.get(true), rows).rows())
                .isEqualTo(engine.rows(tables.get(false), rows).rows());
    }

    @Example
    @Label("keep what is written at a bound, and leave out what is a step beyond it")
    void bounds() {
        Table table = new Table(Map.of(
                "litres", new DecimalColumn(new double[] {0.28, 0.29, 0.3, 1.15, Double.NaN}).narrow()));
        assertThat(kept(table, "0.29", "0.3")).isEqualTo(2);
        assertThat(kept(table, "0.2900000001", null)).isEqualTo(2);
        assertThat(kept(table, "1.15", "1.15")).isEqualTo(1);
        assertThat(kept(table, null, "0.2999999")).isEqualTo(2);
        assertThat(kept(table, "1e300", null)).isZero();
        assertThat(kept(table, null, "-1e300")).isZero();
        assertThat(kept(table, "-1e300", "1e300")).isEqualTo(4);
    }

    private long kept(Table table, String from, String to) {
        Query query = Query.of(
                List.of(new Stage("within", List.of(new Condition.Between("litres", from, to)))),
                List.of(),
                List.of(Measure.ROWS));
        return (long) engine.answer(table, query).values().get(0)[0];
    }

    @Property(tries = 20)
    @Label("and whole blocks of rows that are left out or kept give what a loop over all rows gives")
    void blocks(@ForAll long seed) {
        Random random = new Random(seed);
        int rows = (1 << 16) + random.nextInt(5000);
        int gap = random.nextInt(3) * 7000;
        // Rows in the order of days, as they come in, but for some.
        int[] days = IntStream.range(0, rows)
                .map(r -> gap > 0 && r % gap == 0
                        ? DateColumn.MISSING
                        : 20_000 + r / 500 + (random.nextInt(9000) == 0 ? random.nextInt(100) : 0))
                .toArray();
        int low = 20_000 + random.nextInt(140);
        int high = low + random.nextInt(60);
        Table table = new Table(Map.of("day", new DateColumn(days.clone())));
        Frame frame = engine.answer(
                table,
                Query.of(
                        List.of(new Stage(
                                "days",
                                List.of(new Condition.Between(
                                        "day",
                                        LocalDate.ofEpochDay(low).toString(),
                                        LocalDate.ofEpochDay(high).toString())))),
                        List.of(),
                        List.of(Measure.ROWS)));
        assertThat((long) frame.values().get(0)[0])
                .isEqualTo(IntStream.of(days).filter(d -> d >= low && d <= high).count());
    }
}
