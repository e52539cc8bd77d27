package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.sql.Connection;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import javax.sql.DataSource;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.postgresql.PGConnection;
import org.postgresql.copy.PGCopyOutputStream;
import sarnik.app.testing.RunningSarnik;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Having;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Over;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.Sort;
import sarnik.query.SqlText;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/** Generated queries over generated tables, answered by the engine and by the database, row for row. */
@ExtendWith(RunningSarnik.class)
@DisplayName("The engine against PostgreSQL")
class EngineAgainstPostgresTest {

    private static final int TABLES = 25;
    private static final int QUERIES = 40;
    private static final List<String> TEXTS = List.of("Soria", "soria", "Ávila", "a'b", "", " x", "zz\"z", "日本");

    private static final List<String> ZONES = List.of("Europe/Madrid", "Atlantic/Canary", "Australia/Lord_Howe");

    /** Measure formulas with every summary, with filters and distinct values, and with what can go missing. */
    private static final List<String> FORMULAS = List.of(
            "SUM(pieces) / NULLIF(COUNT(*), 0)",
            "AVG(litres) FILTER (WHERE open) - MIN(litres)",
            "COUNT(DISTINCT day)",
            "SUM(DISTINCT pieces)",
            "STDDEV_SAMP(litres)",
            "VAR_SAMP(pieces) FILTER (WHERE litres > 0)",
            "PERCENTILE_CONT(0.25) WITHIN GROUP (ORDER BY litres)",
            "PERCENTILE_DISC(0.9) WITHIN GROUP (ORDER BY pieces)",
            "MODE() WITHIN GROUP (ORDER BY pieces)",
            "COALESCE(MAX(pieces), 0) + COUNT(litres) FILTER (WHERE day IS NULL)",
            "CASE WHEN COUNT(*) > 5 THEN AVG(pieces * litres) END",
            "COUNT(DISTINCT pieces) * 100.0 / NULLIF(COUNT(*), 0)",
            "AVG(DISTINCT litres)",
            "COUNT(DISTINCT open) FILTER (WHERE town = 'Soria')",
            "SUM(CASE WHEN open THEN 1 ELSE 0 END)",
            "CORR(litres, pieces)",
            "REGR_SLOPE(pieces, litres) FILTER (WHERE open)",
            "REGR_INTERCEPT(litres, pieces)",
            "REGR_R2(litres, pieces * 2)",
            "CHAR_LENGTH(MODE() WITHIN GROUP (ORDER BY NULLIF(town, '')))",
            "CASE WHEN MIN(NULLIF(town, '')) < MAX(NULLIF(town, '')) FILTER (WHERE open) THEN COUNT(*) ELSE 0 END",
            "POSITION('o' IN PERCENTILE_DISC(0.5) WITHIN GROUP (ORDER BY NULLIF(town, '')))");

    /** Measure formulas over all groups. */
    private static final List<String> WINDOWS = List.of(
            "SUM(litres) / NULLIF(SUM(SUM(litres)) OVER (), 0)",
            "RANK() OVER (ORDER BY SUM(pieces) DESC)",
            "DENSE_RANK() OVER (PARTITION BY open ORDER BY COUNT(*))",
            "ROW_NUMBER() OVER (ORDER BY SUM(pieces))",
            "SUM(pieces) - LAG(SUM(pieces), 2) OVER (PARTITION BY open ORDER BY day)",
            "LEAD(COUNT(day)) OVER (ORDER BY day DESC)",
            "AVG(SUM(pieces)) OVER (ORDER BY day ROWS 3 PRECEDING)",
            "SUM(pieces) OVER (ORDER BY open)",
            "MAX(litres) OVER (PARTITION BY open) - MIN(litres)",
            "COUNT(*) OVER (ORDER BY SUM(pieces) ROWS BETWEEN 1 PRECEDING AND 2 FOLLOWING)",
            "COALESCE(MIN(SUM(litres)) OVER (PARTITION BY day ORDER BY open DESC NULLS LAST), -1)",
            "CASE WHEN RANK() OVER (ORDER BY COUNT(*) DESC, day) <= 3 THEN SUM(pieces) END");

    private final InMemoryEngine engine = new InMemoryEngine();

    @Test
    void windowsOverGroupsGiveTheSame(RunningSarnik sarnik) throws Exception {
        Random random = new Random(20261127);
        try (Connection connection = sarnik.bean(DataSource.class).getConnection()) {
            for (int t = 0; t < 6; t++) {
                Table table = table(random, 20 + random.nextInt(400));
                store(connection, table);
                for (String text : WINDOWS) {
                    FormulaMeasure made = FormulaMeasure.of(
                            MeasureFormula.parse(text, Scope.of(table)),
                            table,
                            Surroundings.on(java.time.LocalDate.of(2026, 5, 31)));
                    List<GroupKey> keys = new ArrayList<>(List.of(
                            new GroupKey.Of("open"),
                            random.nextBoolean()
                                    ? new GroupKey.Of("day")
                                    : new GroupKey.Step("day", TimeStep.WEEK, null),
                            new GroupKey.Of("town")));
                    Collections.shuffle(keys.subList(0, 2), random);
                    Query query = new Query(
                            List.of(new Stage("stage", List.of(condition(random)))),
                            keys.subList(0, 2 + random.nextInt(2)),
                            Query.Missing.values()[random.nextInt(2)],
                            List.of(new Measure(Summary.FORMULA, text)),
                            List.of(),
                            Optional.empty(),
                            Sort.BY_KEY,
                            Integer.MAX_VALUE,
                            Map.of(text, made));
                    compare(connection, table, query);
                }
            }
        }
    }

    @Test
    void bothGiveTheSameRows(RunningSarnik sarnik) throws Exception {
        Random random = new Random(20261124);
        try (Connection connection = sarnik.bean(DataSource.class).getConnection()) {
            for (int t = 0; t < TABLES; t++) {
                Table table = table(random, random.nextInt(400));
                store(connection, table);
                Map<String, FormulaMeasure> formulas = new LinkedHashMap<>();
                for (String text : FORMULAS) {
                    formulas.put(
                            text,
                            FormulaMeasure.of(
                                    MeasureFormula.parse(text, Scope.of(table)),
                                    table,
                                    Surroundings.on(java.time.LocalDate.of(2026, 5, 31))));
                }
                for (int q = 0; q < QUERIES; q++)
                    compare(connection, table, query(random).with(formulas));
            }
        }
    }

    @Test
    void rowsComeBackFromTheDatabaseAsTheyWent() throws Exception {
        Table table = table(new Random(5), 500);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (CopyWriter writer = new CopyWriter(out)) {
            writer.write(table);
        }
        Table back = CopyReader.read(
                columns(table), table.rows(), new DataInputStream(new ByteArrayInputStream(out.toByteArray())));
        for (String name : table.names()) {
            for (int row = 0; row < table.rows(); row++)
                assertThat(back.column(name).text(row))
                        .as("%s in row %d", name, row)
                        .isEqualTo(table.column(name).text(row));
        }
    }

    private static Table table(Random random, int rows) {
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("town", coded(random, rows, TEXTS, ColumnType.TEXT));
        columns.put("@zone", coded(random, rows, ZONES, ColumnType.TEXT));
        columns.put("open", coded(random, rows, CodedColumn.NO_YES, ColumnType.YES_NO));
        columns.put(
                "pieces",
                new WholeColumn(IntStream.range(0, rows)
                        .mapToLong(i -> random.nextInt(6) == 0 ? WholeColumn.MISSING : random.nextInt(9) - 4)
                        .toArray()));
        columns.put(
                "litres",
                new DecimalColumn(IntStream.range(0, rows)
                        .mapToDouble(i -> random.nextInt(6) == 0 ? Double.NaN : (random.nextInt(81) - 40) / 8.0)
                        .toArray()));
        columns.put(
                "day",
                new DateColumn(IntStream.range(0, rows)
                        .map(i -> random.nextInt(6) == 0 ? DateColumn.MISSING : 20_000 + random.nextInt(20))
                        .toArray()));
        columns.put(
                "at",
                new TimeColumn(IntStream.range(0, rows)
                        .mapToLong(i ->
                                random.nextInt(6) == 0 ? TimeColumn.MISSING : 1_760_000_000L + random.nextInt(400_000))
                        .toArray()));
        return new Table(columns);
    }

    private static Column coded(Random random, int rows, List<String> words, ColumnType type) {
        return new CodedColumn(
                type,
                Codes.of(
                        IntStream.range(0, rows)
                                .map(i -> random.nextInt(words.size() + 1) - 1)
                                .toArray(),
                        rows,
                        words.size()),
                words);
    }

    private static List<StoredColumn> columns(Table table) {
        return table.names().stream()
                .map(n -> StoredColumn.of(n, table.column(n)))
                .toList();
    }

    private static void store(Connection connection, Table table) throws Exception {
        try (var statement = connection.createStatement()) {
            statement.execute("DROP TABLE IF EXISTS engine_check");
            statement.execute("CREATE TABLE engine_check ("
                    + String.join(
                            ", ",
                            columns(table).stream()
                                    .map(c -> "\"" + c.name() + "\" " + StoredColumn.sqlType(c.type()))
                                    .toList())
                    + ")");
        }
        try (var out = new PGCopyOutputStream(
                connection.unwrap(PGConnection.class), "COPY engine_check FROM STDIN (FORMAT binary)")) {
            try (CopyWriter writer = new CopyWriter(out)) {
                writer.write(table);
            }
        }
    }

    private static Query query(Random random) {
        List<String> names = List.of("town", "open", "pieces", "litres", "day", "at");
        List<Stage> stages = new ArrayList<>();
        for (int s = random.nextInt(3); s > 0; s--)
            stages.add(new Stage(
                    "stage", List.of(condition(random), condition(random)).subList(0, 1 + random.nextInt(2))));
        List<GroupKey> groups = random.nextInt(4) == 0
                ? List.of()
                : random.nextInt(3) == 0
                        ? List.of(
                                key(random, names.get(random.nextInt(3))),
                                key(random, names.get(3 + random.nextInt(3))))
                        : List.of(key(random, names.get(random.nextInt(6))));
        List<Measure> measures = new ArrayList<>();
        for (int m = 1 + random.nextInt(4); m > 0; m--) measures.add(measure(random, names));
        // Equal values at the edge of a rank fall by key on both sides; so do equal ones in a sort.
        // Spreads are rounded in two ways, which may order nearly equal ones differently.
        boolean rounded = measures.stream()
                .anyMatch(m -> m.over() != null
                        || m.column() != null && m.column().matches("(STDDEV_SAMP|VAR_SAMP|CORR|REGR_).*"));
        Optional<Rank> rank = !rounded && random.nextInt(3) == 0 && !groups.isEmpty()
                ? Optional.of(
                        new Rank(0, Rank.End.values()[random.nextInt(3)], 1 + random.nextInt(5), random.nextBoolean()))
                : Optional.empty();
        Sort sort = rounded || random.nextBoolean()
                ? Sort.BY_KEY
                : new Sort(random.nextInt(measures.size()), random.nextBoolean());
        return new Query(
                stages,
                groups,
                Query.Missing.values()[random.nextInt(2)],
                measures,
                having(random, rounded, groups),
                rank,
                sort,
                random.nextInt(4) == 0 ? 3 : Integer.MAX_VALUE,
                Map.of());
    }

    /** A column as it is, the steps of time that it lies in, or the classes of its numbers. */
    private static GroupKey key(Random random, String name) {
        if (random.nextBoolean()) return new GroupKey.Of(name);
        TimeStep step = TimeStep.values()[random.nextInt(TimeStep.values().length)];
        return switch (name) {
            case "day" -> step.needsTime() ? new GroupKey.Of(name) : new GroupKey.Step(name, step, null);
            case "at" ->
                new GroupKey.Step(
                        name,
                        step,
                        List.of("Europe/Madrid", "America/New_York", "Asia/Kathmandu", "UTC", "@zone")
                                .get(random.nextInt(5)));
            case "litres", "pieces" -> new GroupKey.Classes(name, List.of(-1.0, 0.5, 2.0));
            default -> new GroupKey.Of(name);
        };
    }

    private static List<Having> having(Random random, boolean rounded, List<GroupKey> groups) {
        if (rounded || groups.isEmpty() || random.nextInt(3) > 0) return List.of();
        return List.of(new Having(
                0,
                random.nextBoolean() ? 1.0 : null,
                random.nextBoolean(),
                random.nextBoolean() ? 30.0 : null,
                random.nextBoolean(),
                random.nextInt(6) == 0,
                "some groups"));
    }

    private static Measure measure(Random random, List<String> names) {
        Measure plain = plain(random, names);
        if (random.nextInt(5) > 0 || plain.column() != null && plain.column().matches("MODE.*|.*DATE.*|.*day.*"))
            return plain;
        Over.Kind kind = Over.Kind.values()[random.nextInt(5)];
        return plain.over(new Over(kind, random.nextBoolean() ? null : 1 + random.nextInt(4), random.nextBoolean()));
    }

    private static Measure plain(Random random, List<String> names) {
        return switch (random.nextInt(7)) {
            case 4 -> new Measure(Summary.MEDIAN, random.nextBoolean() ? "litres" : "pieces");
            case 5 -> new Measure(Summary.FORMULA, FORMULAS.get(random.nextInt(FORMULAS.size())));
            case 6 -> new Measure(Summary.PERCENTILE, "litres", (double) random.nextInt(101), null);
            case 0 -> Measure.ROWS;
            case 1 -> new Measure(Summary.DISTINCT, names.get(random.nextInt(6)));
            case 2 -> new Measure(Summary.COUNT, names.get(random.nextInt(6)));
            default ->
                new Measure(
                        List.of(Summary.SUM, Summary.AVERAGE, Summary.MINIMUM, Summary.MAXIMUM)
                                .get(random.nextInt(4)),
                        random.nextBoolean() ? "litres" : "pieces");
        };
    }

    private static Condition condition(Random random) {
        return switch (random.nextInt(14)) {
            case 0 -> new Condition.OneOf("town", TEXTS.subList(0, random.nextInt(4)));
            case 1 -> new Condition.OneOf("open", List.of("yes"));
            case 2 -> new Condition.OneOf("pieces", List.of("1", "-2"));
            case 3 ->
                new Condition.Between(
                        "litres", random.nextBoolean() ? null : "-2.5", random.nextBoolean() ? null : "3.125");
            case 4 -> new Condition.Between("day", "2024-10-05", random.nextBoolean() ? null : "2024-10-15");
            case 5 ->
                new Condition.Between(
                        "at",
                        "2025-10-09T10:00",
                        random.nextBoolean() ? null : random.nextBoolean() ? "2025-10-11" : "2025-10-12T00:00:00");
            case 8 -> new Condition.NoneOf("town", TEXTS.subList(0, random.nextInt(4)));
            case 9 -> new Condition.NoneOf("pieces", List.of("1"));
            case 10 -> new Condition.InGroups(new GroupKey.Step("day", TimeStep.WEEKDAY, null), List.of("1", "3", "7"));
            case 11 ->
                new Condition.InGroups(
                        new GroupKey.Step("at", TimeStep.HOUR_OF_DAY, "Europe/Madrid"), List.of("08", "14", "23"));
            case 6 -> new Condition.Between("pieces", "-1", "2");
            case 12 ->
                new Condition.Missing(List.of("town", "litres", "day", "open").get(random.nextInt(4)));
            case 13 -> new Condition.Contains("town", List.of("o", "A", "'", "").get(random.nextInt(4)));
            default -> new Condition.Filled(List.of("town", "litres", "day").get(random.nextInt(3)));
        };
    }

    private void compare(Connection connection, Table table, Query query) throws Exception {
        Frame frame = engine.answer(table, query);
        String sql = SqlText.of(table, query, "engine_check", name -> "\"" + name + "\"")
                .sql();
        try (var statement = connection.createStatement();
                ResultSet rows = statement.executeQuery(sql)) {
            int keys = query.groupBy().size();
            int g = 0;
            for (; rows.next(); g++) {
                assertThat(g).as(sql).isLessThan(frame.size());
                for (int k = 0; k < keys; k++)
                    assertThat(frame.key(k, g))
                            .as(sql)
                            .isEqualTo(text(
                                    rows,
                                    k + 1,
                                    query.groupBy().get(k) instanceof GroupKey.Of key
                                            ? table.column(key.column()).type()
                                            : ColumnType.TEXT));
                for (int m = 0; m < query.measures().size(); m++) {
                    double expected = rows.getDouble(keys + m + 1);
                    if (rows.wasNull()) assertThat(frame.value(m, g)).as(sql).isNaN();
                    else
                        assertThat(frame.value(m, g))
                                .as(sql)
                                .isCloseTo(expected, within(1e-9 * Math.max(1, Math.abs(expected))));
                }
            }
            assertThat(frame.size()).as(sql).isEqualTo(g);
        }
    }

    /** The database's value in the engine's canonical text form. */
    private static String text(ResultSet rows, int column, ColumnType type) throws Exception {
        if (rows.getString(column) == null) return null;
        return switch (type) {
            case TEXT -> rows.getString(column);
            case YES_NO -> rows.getBoolean(column) ? "yes" : "no";
            case WHOLE -> Long.toString(rows.getLong(column));
            case DECIMAL -> Double.toString(rows.getDouble(column));
            case DATE -> rows.getObject(column, java.time.LocalDate.class).toString();
            case TIME -> rows.getObject(column, java.time.LocalDateTime.class).toString();
        };
    }
}
