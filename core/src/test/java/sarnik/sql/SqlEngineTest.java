package sarnik.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.formula.Formula;
import sarnik.formula.PostgresDialect;
import sarnik.formula.Scope;
import sarnik.formula.SqlDialect;
import sarnik.formula.Surroundings;
import sarnik.formula.TrinoDialect;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryException;
import sarnik.query.RowQuery;
import sarnik.query.RowTrail;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/**
 * What is asked of a database, and what is made of its answers; that both are right is for the suite of all engines.
 */
@DisplayName("Questions to rows that stay in a database")
class SqlEngineTest {

    private static final Instant NOON = Instant.parse("2026-05-31T12:00:00Z");

    private final List<SqlStatement> asked = new ArrayList<>();
    private final List<List<Object[]>> answers = new ArrayList<>();

    /** Answers one after the other what a test has said; where it has said nothing, with one row of zeros. */
    private final SqlRunner runner = statements -> {
        List<SqlRows> given = new ArrayList<>();
        for (SqlStatement statement : statements) {
            asked.add(statement);
            given.add(new SqlRows(
                    answers.isEmpty()
                            ? List.<Object[]>of(statement.outs().stream()
                                    .map(out -> out == SqlStatement.Out.DECIMAL
                                            ? (Object) 0.0
                                            : out == SqlStatement.Out.WHOLE ? 0L : "")
                                    .toArray())
                            : answers.remove(0),
                    NOON));
        }
        return given;
    };

    private Table table(SqlDialect dialect) {
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("to\"wn", Column.of(ColumnType.TEXT, Arrays.asList("Soria", "Zamora", "So'ria", null)));
        columns.put("litres", Column.of(ColumnType.DECIMAL, Arrays.asList("1.5", "99.25", null, null)));
        columns.put("day", Column.of(ColumnType.DATE, Arrays.asList("2026-01-01", "2026-05-31", null, null)));
        columns.put("open", Column.of(ColumnType.YES_NO, Arrays.asList("no", "yes", null, null)));
        Face face = new Face(
                1000, NOON, List.of(new Face.Block(List.of("to\"wn"), 0, List.of(600L, 300L, 90L, 10L))), List.of());
        StayingRows rows = new StayingRows(
                runner,
                dialect,
                "Outlets",
                "public.sales",
                List.of(
                        new SourceColumn("to\"wn", "To\"wn", SourceColumn.Held.TEXT, ColumnType.TEXT),
                        new SourceColumn("litres", "l", SourceColumn.Held.EXACT, ColumnType.DECIMAL),
                        new SourceColumn("day", "day", SourceColumn.Held.DATE, ColumnType.DATE),
                        new SourceColumn("open", "open", SourceColumn.Held.YES_NO, ColumnType.YES_NO)),
                face);
        return new Table(columns, rows)
                .with(Map.of("@place", Column.of(ColumnType.TEXT, Arrays.asList("p1", "p2", "p1", null))));
    }

    private static Query query(List<Condition> conditions, String key, Measure... measures) {
        return Query.of(List.of(new Stage("some", conditions)), List.of(key), List.of(measures));
    }

    @Test
    void groupsOfPlacesAreMadeByTheirWordsAndPutTogether() {
        answers.add(List.of(
                new Object[] {"Soria", 600.0, 10.1, 4.0, 590.0},
                new Object[] {"So'ria", 90.0, 0.2, 7.0, 90.0},
                new Object[] {"Zamora", 300.0, 5.0, null, 298.0},
                new Object[] {"New here", 7.0, 1.0, 1.0, 7.0},
                new Object[] {null, 10.0, null, null, 0.0}));
        answers.add(List.<Object[]>of(new Object[] {1007L}));
        Frame frame = new SqlEngine()
                .answer(
                        table(PostgresDialect.INSTANCE),
                        query(
                                List.of(),
                                "@place",
                                new Measure(Summary.SUM, "litres"),
                                new Measure(Summary.MAXIMUM, "litres"),
                                Measure.ROWS));
        assertThat(asked.get(0).sql()).contains("GROUP BY 1").doesNotContain("unnest");
        assertThat(frame.keys().get(0)).containsExactly("p1", "p2", null);
        assertThat(frame.value(0, 0)).as("sums of cents stay cents").isEqualTo(10.3);
        assertThat(frame.value(1, 0)).isEqualTo(7);
        assertThat(frame.value(2, 0)).isEqualTo(690);
        assertThat(frame.value(1, 1)).isNaN();
        assertThat(frame.value(2, 2))
                .as("words that nobody has placed yet, and none")
                .isEqualTo(17);
        assertThat(frame.trail().steps().stream().map(RowTrail.Step::left).toList())
                .as("all, those of the stage, of them without litres, groups")
                .containsExactly(1007L, 1007L, 22L, 3L);
        assertThat(frame.trail().steps().get(0).words()).isEqualTo("All rows of Outlets as of 12:00:00 UTC");
    }

    @Test
    void whatCannotBePutTogetherIsJoinedThere() {
        new SqlEngine()
                .answer(
                        table(PostgresDialect.INSTANCE),
                        query(List.of(), "@place", new Measure(Summary.DISTINCT, "litres")));
        assertThat(asked.get(0).sql())
                .contains("LEFT JOIN (SELECT w0, NULLIF(v0, '') AS v0 FROM "
                        + "unnest(CAST('{\"Soria\",\"Zamora\",\"So''ria\",\"\"}' AS text[])")
                .contains("ON COALESCE(r.c0, '') = p0.w0");
        asked.clear();
        new SqlEngine()
                .answer(
                        table(TrinoDialect.INSTANCE),
                        query(List.of(), "@place", new Measure(Summary.DISTINCT, "litres")));
        assertThat(asked.get(0).sql())
                .contains("UNNEST(CAST(JSON_PARSE('[[\"Soria\",\"p1\"],[\"Zamora\",\"p2\"],[\"So''ria\",\"p1\"],[\"\","
                        + "\"\"]]') AS ARRAY(ROW(w0 varchar, v0 varchar))))");
    }

    @Test
    void namesAndTextsAreQuoted() {
        new SqlEngine()
                .answer(
                        table(PostgresDialect.INSTANCE),
                        query(
                                List.of(
                                        new Condition.OneOf("to\"wn", List.of("x'); DROP TABLE sales; --")),
                                        new Condition.Contains("to\"wn", "so")),
                                "open",
                                Measure.ROWS));
        assertThat(asked.get(0).sql())
                .contains("NULLIF(TRIM(\"To\"\"wn\"), '') AS c0")
                .contains("r.c0 IN ('x''); DROP TABLE sales; --')")
                .as("which words hold it is known here")
                .contains("r.c0 IN ('Soria', 'So''ria')");
        assertThatThrownBy(() -> new SqlEngine()
                        .answer(
                                table(PostgresDialect.INSTANCE),
                                query(List.of(new Condition.OneOf("to\"wn", List.of("a\0b"))), "open", Measure.ROWS)))
                .hasMessageContaining("the character 0");
    }

    @Test
    void aFewPlacesAreAskedForByTheirWords() {
        new SqlEngine()
                .answer(
                        table(PostgresDialect.INSTANCE),
                        query(List.of(new Condition.OneOf("@place", List.of("p1"))), "open", Measure.ROWS));
        assertThat(asked.get(0).sql()).contains("r.c0 IN ('So''ria', 'Soria')").doesNotContain("unnest");
    }

    @Test
    void stepsWithTheSameRowsAreCountedOnce() {
        Table table = table(PostgresDialect.INSTANCE);
        Stage first = new Stage("first", List.of(new Condition.OneOf("open", List.of("yes"))));
        Stage second = new Stage("second", List.of(new Condition.Filled("day")));
        new SqlEngine()
                .answer(
                        table,
                        List.of(
                                Query.of(List.of(first, second), List.of("open"), List.of(Measure.ROWS)),
                                Query.of(List.of(first, second), List.of("day"), List.of(Measure.ROWS)),
                                Query.of(
                                        List.of(first, second),
                                        List.of("open"),
                                        List.of(new Measure(Summary.SUM, "litres")))));
        assertThat(asked)
                .as("two kinds of groups, and the rows at first and after one step")
                .hasSize(4);
        assertThat(asked.get(0).sql()).contains("SUM(r.c1)").contains("COUNT(*)");
    }

    @Test
    void tooManyGroupsAreNotDrawnInPart() {
        List<Object[]> many = new ArrayList<>();
        for (int g = 0; g <= SqlEngine.MOST_GROUPS; g++) many.add(new Object[] {(double) g, 1.0, 1.0});
        answers.add(many);
        Table table = table(PostgresDialect.INSTANCE);
        Query query = query(List.of(), "litres", Measure.ROWS);
        assertThatThrownBy(() -> new SqlEngine().answer(table, query))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining("more than 250,000 groups, which are not fetched from Outlets");
    }

    @Test
    void rowsStandInAnOrderThatIsTheSameEachTime() {
        new SqlEngine()
                .rows(
                        table(PostgresDialect.INSTANCE),
                        new RowQuery(
                                List.of(),
                                List.of("to\"wn", "litres"),
                                List.of(new RowQuery.By("litres", true)),
                                "",
                                20,
                                10));
        assertThat(asked.get(0).sql())
                .endsWith("DESC NULLS LAST, 1 ASC NULLS LAST, 2 ASC NULLS LAST OFFSET 20 LIMIT 10");
    }

    @Test
    void memoryRefusesRowsThatAreNotInIt() {
        Table table = table(PostgresDialect.INSTANCE);
        Query query = query(List.of(), "open", Measure.ROWS);
        assertThatThrownBy(() -> new InMemoryEngine().answer(table, query)).isInstanceOf(IllegalStateException.class);
        new Engines().answer(table, query);
        assertThat(asked).isNotEmpty();
    }

    @Test
    void columnsThatAreWorkedOutStandInTheQuestion() {
        Table table = table(TrinoDialect.INSTANCE);
        StayingRows rows = StayingRows.of(table).orElseThrow();
        Formula formula = Formula.parse("CASE WHEN litres / 2 > 1 THEN 'large' END", Scope.of(table));
        Table grown = table.with(Map.of("size", Column.of(ColumnType.TEXT, Arrays.asList("large", null, null, null))))
                .staying(rows.with("size", formula, Surroundings.on(LocalDate.EPOCH), table));
        new SqlEngine()
                .answer(
                        grown,
                        Query.by(
                                List.of(),
                                List.of(new GroupKey.Of("size"), new GroupKey.Of("open")),
                                List.of(new Measure(Summary.MEDIAN, "litres"))));
        assertThat(asked.get(0).sql())
                .contains("CASE WHEN ((CAST(r.c1 AS double) / NULLIF(")
                .contains("ARRAY_SORT(ARRAY_AGG(")
                .contains("GROUP BY 1, 2");
    }

    @Test
    void aFaceKnowsWhichWordsAreTheCommonest() {
        Table table = table(PostgresDialect.INSTANCE);
        Face face = StayingRows.of(table).orElseThrow().face();
        CodedColumn towns = (CodedColumn) face.ordered(table).column("to\"wn");
        assertThat(towns.commonest()).containsExactly(0, 1, 2);
        assertThat(face.counts(0, 5)).containsExactly(600, 300, 90, 10, 0);
        assertThat(face.counts(1, 2)).containsExactly(0, 0);
        assertThat(table.weight())
                .as("how many rows there are, whatever the face holds")
                .isEqualTo(1000);
    }
}
