package sarnik.app.formula;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.math.MathContext;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.regex.Pattern;
import javax.sql.DataSource;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.formula.Formula;
import sarnik.formula.Kind;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.ColumnValues;
import sarnik.table.Table;

@ExtendWith(RunningSarnik.class)
@DisplayName("A formula gives PostgreSQL's answer")
class FormulaAgainstPostgresTest {

    /** Literals as {@link Formula#sql} writes them. */
    private static final Pattern LITERAL = Pattern.compile(
            "(?<![\\w\"'])(?:-?\\d+::bigint|'(?:[^']|'')*'::(?:text|double precision)|DATE '[^']*'|TIMESTAMP "
                    + "'[^']*'|(?<!IS )(?<!NOT )\\b(?:TRUE|FALSE)\\b)");

    /** What PostgreSQL answers, for the tests of the core, which have none. */
    private static final Path RECORDED = Path.of("../core/src/test/resources/sarnik/formula/postgres.tsv");

    private static final int RECORDED_ROWS = 8;
    private static final int ROWS = 24;
    private static final int EXPRESSIONS = 4000;
    private static final Map<String, ColumnType> COLUMNS = new LinkedHashMap<>();

    static {
        for (String name : List.of("n", "m")) COLUMNS.put(name, ColumnType.WHOLE);
        for (String name : List.of("x", "y")) COLUMNS.put(name, ColumnType.DECIMAL);
        for (String name : List.of("t", "u")) COLUMNS.put(name, ColumnType.TEXT);
        for (String name : List.of("d", "e")) COLUMNS.put(name, ColumnType.DATE);
        for (String name : List.of("s", "r")) COLUMNS.put(name, ColumnType.TIME);
        for (String name : List.of("b", "c")) COLUMNS.put(name, ColumnType.YES_NO);
    }

    private Connection connection;
    private Table table;

    @BeforeEach
    void rows(RunningSarnik sarnik) throws SQLException {
        connection = sarnik.bean(DataSource.class).getConnection();
        try (var statement = connection.createStatement()) {
            // What the planner does not see through it cannot compute beforehand: an error then comes up in a row, as
            // ours do.
            statement.execute("CREATE OR REPLACE FUNCTION pg_temp.opaque(value anyelement) RETURNS anyelement VOLATILE "
                    + "LANGUAGE plpgsql AS 'BEGIN RETURN value; END'");
            statement.execute("CREATE TEMPORARY TABLE f (i int, n bigint, m bigint, x double precision, y double "
                    + "precision, t text, u text, d date, e date, s timestamp, r timestamp, b boolean, c boolean)");
        }
        Random random = new Random(11);
        Map<String, ColumnValues> values = new LinkedHashMap<>();
        COLUMNS.forEach((name, type) -> values.put(name, new ColumnValues(type, ROWS)));
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT INTO f VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")) {
            for (int row = 0; row < ROWS; row++) {
                insert.setInt(1, row);
                int c = 2;
                for (var column : COLUMNS.entrySet()) {
                    Object value = random.nextInt(5) == 0 ? null : value(column.getValue(), random);
                    values.get(column.getKey()).add(value);
                    insert.setObject(c++, sqlValue(column.getValue(), value));
                }
                insert.execute();
            }
        }
        Map<String, Column> columns = new LinkedHashMap<>();
        values.forEach((name, column) -> columns.put(name, column.build()));
        table = new Table(columns);
    }

    @AfterEach
    void close() throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute("DROP TABLE f");
            statement.execute("DROP FUNCTION pg_temp.opaque");
        }
        connection.close();
    }

    private static Object value(ColumnType type, Random random) {
        return switch (type) {
            case WHOLE ->
                random.nextInt(4) == 0
                        ? random.nextLong(-3_000_000_000L, 3_000_000_000L)
                        : (long) random.nextInt(-5, 9);
            case DECIMAL -> random.nextInt(4) == 0 ? random.nextDouble() * 1e6 - 3e5 : random.nextInt(-8, 12) / 4.0;
            case TEXT ->
                List.of("a", "ab", "b", "Ávila", "aXb", "12", "-3.5", " pad ", "2025-01-31", "ñandú", "10%", "true")
                        .get(random.nextInt(12));
            case DATE -> (int) LocalDate.of(2024, 1, 1).toEpochDay() + random.nextInt(900);
            case TIME -> LocalDateTime.of(2024, 1, 1, 0, 0).toEpochSecond(ZoneOffset.UTC) + random.nextInt(70_000_000);
            case YES_NO -> random.nextBoolean();
        };
    }

    private static Object sqlValue(ColumnType type, Object value) {
        if (value == null) return null;
        return switch (type) {
            case DATE -> LocalDate.ofEpochDay((Integer) value);
            case TIME -> LocalDateTime.ofEpochSecond((Long) value, 0, ZoneOffset.UTC);
            default -> value;
        };
    }

    /** PostgreSQL's answers in the canonical text of columns; null where it refuses to compute one of the first rows. */
    private List<String> theirs(Formula formula, int count) throws SQLException {
        List<String> answers = new ArrayList<>();
        String sql = LITERAL.matcher(formula.sql())
                .replaceAll(
                        literal -> "pg_temp.opaque(" + java.util.regex.Matcher.quoteReplacement(literal.group()) + ")");
        try (var statement = connection.createStatement();
                ResultSet rows =
                        statement.executeQuery("SELECT " + sql + " FROM f WHERE i < " + count + " ORDER BY i")) {
            while (rows.next()) answers.add(text(formula.kind(), rows));
            return answers;
        } catch (SQLException refused) {
            if (!refused.getSQLState().startsWith("22"))
                throw new SQLException(refused.getMessage() + "\nin " + sql, refused);
            return null;
        }
    }

    private static String text(Kind kind, ResultSet row) throws SQLException {
        if (row.getObject(1) == null) return null;
        return switch (kind) {
            case DECIMAL -> Double.toString(row.getDouble(1) + 0.0);
            case YES_NO -> row.getBoolean(1) ? "yes" : "no";
            case TIME -> row.getObject(1, LocalDateTime.class).toString();
            // A column holds no empty text: it is missing there.
            case TEXT -> row.getString(1).isEmpty() ? null : row.getString(1);
            default -> row.getString(1);
        };
    }

    private static boolean same(Kind kind, String ours, String theirs) {
        if (ours == null || theirs == null || kind != Kind.DECIMAL) return java.util.Objects.equals(ours, theirs);
        double a = Double.parseDouble(ours);
        double b = Double.parseDouble(theirs);
        // Powers and logarithms may differ in the last digits between two libraries.
        return Math.abs(a - b) <= 1e-9 * Math.max(1e-9, Math.max(Math.abs(a), Math.abs(b)));
    }

    @Test
    void forThousandsOfExpressionsOverRowsWithMissingValues() throws SQLException {
        Expressions expressions = new Expressions(7);
        List<Kind> kinds = List.of(Kind.WHOLE, Kind.DECIMAL, Kind.TEXT, Kind.DATE, Kind.TIME, Kind.YES_NO);
        List<String> differences = new ArrayList<>();
        int computed = 0;
        int refused = 0;
        for (int i = 0; i < EXPRESSIONS; i++) {
            String text = expressions.of(kinds.get(i % kinds.size()), 1 + i % 4);
            Formula formula = Formula.parse(text, Scope.of(table));
            Formula.Computed ours = formula.compute(table, Surroundings.on(LocalDate.of(2026, 5, 31)));
            List<String> theirs = theirs(formula, ROWS);
            if (theirs == null) {
                refused++;
                if (ours.unworked().isEmpty()) differences.add(text + ": PostgreSQL refuses, we do not");
                continue;
            }
            computed++;
            if (!ours.unworked().isEmpty())
                differences.add(text + ": we refuse (" + ours.unworked().why() + " in row "
                        + ours.unworked().first() + "), PostgreSQL does not");
            for (int row = 0; row < ROWS; row++) {
                if (!same(formula.kind(), ours.column().text(row), theirs.get(row))) {
                    differences.add("%s in row %d: %s, PostgreSQL %s"
                            .formatted(text, row, ours.column().text(row), theirs.get(row)));
                    break;
                }
            }
        }
        assertThat(differences).isEmpty();
        assertThat(computed).as("expressions without errors").isGreaterThan(EXPRESSIONS / 2);
        assertThat(refused).as("expressions that neither computes").isGreaterThan(50);
    }

    /** With {@code -Dformula.record=true} it is written anew. */
    @Test
    void asItIsRecordedForTheCore() throws IOException, SQLException {
        List<String> formulas = new ArrayList<>(Expressions.OF_EACH_KIND);
        Expressions expressions = new Expressions(23);
        List<Kind> kinds = List.of(Kind.WHOLE, Kind.DECIMAL, Kind.TEXT, Kind.DATE, Kind.TIME, Kind.YES_NO);
        for (int i = 0; i < 480; i++) formulas.add(expressions.of(kinds.get(i % kinds.size()), 1 + i / 240));
        StringBuilder text = new StringBuilder();
        COLUMNS.forEach((name, type) -> {
            text.append(name).append('\t').append(type);
            for (int row = 0; row < RECORDED_ROWS; row++)
                text.append('\t').append(recorded(table.column(name).text(row), false));
            text.append('\n');
        });
        for (String words : formulas.stream().distinct().toList()) {
            Formula formula = Formula.parse(words, Scope.of(table));
            List<String> theirs = theirs(formula, RECORDED_ROWS);
            text.append(words).append('\t').append(formula.sql());
            if (theirs == null) text.append("\trefused");
            else theirs.forEach(answer -> text.append('\t').append(recorded(answer, formula.kind() == Kind.DECIMAL)));
            text.append('\n');
        }
        if (Boolean.getBoolean("formula.record")) Files.writeString(RECORDED, text);
        assertThat(text.toString()).isEqualTo(Files.readString(RECORDED));
    }

    /** Numbers with the digits that two libraries have in common. */
    private static String recorded(String answer, boolean isDecimal) {
        if (answer == null) return "–";
        return isDecimal
                ? new BigDecimal(answer)
                        .round(new MathContext(10))
                        .stripTrailingZeros()
                        .toString()
                : answer;
    }
}
