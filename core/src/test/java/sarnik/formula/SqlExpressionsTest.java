package sarnik.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Map;
import java.util.Set;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What formulas are written as; that it comes to the same is for the suite of all engines. */
@DisplayName("Formulas written for a database")
class SqlExpressionsTest {

    private static final Scope SCOPE = new Scope(
            Map.ofEntries(
                    Map.entry("town", Kind.TEXT),
                    Map.entry("n", Kind.WHOLE),
                    Map.entry("m", Kind.WHOLE),
                    Map.entry("x", Kind.DECIMAL),
                    Map.entry("y", Kind.DECIMAL),
                    Map.entry("t", Kind.TEXT),
                    Map.entry("u", Kind.TEXT),
                    Map.entry("day", Kind.DATE),
                    Map.entry("d", Kind.DATE),
                    Map.entry("e", Kind.DATE),
                    Map.entry("at", Kind.TIME),
                    Map.entry("s", Kind.TIME),
                    Map.entry("r", Kind.TIME),
                    Map.entry("open", Kind.YES_NO),
                    Map.entry("b", Kind.YES_NO),
                    Map.entry("c", Kind.YES_NO)),
            Map.of("rise", Kind.DECIMAL, "which", Kind.TEXT),
            Set.of("place"),
            Set.of("Provinces"));

    private static SqlScope where(SqlDialect dialect) {
        return new SqlScope(
                dialect,
                name -> "t." + name,
                name -> "exact." + name,
                new Surroundings(Map.of("rise", 2.5, "which", "a'b"), Map.of(), Map.of(), LocalDate.of(2026, 5, 31)));
    }

    private static String written(String formula, SqlDialect dialect) {
        return Formula.parse(formula, SCOPE).sql(where(dialect));
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "n / n|(t.n / NULLIF(t.n, CAST(0 AS bigint)))|(t.n / NULLIF(t.n, BIGINT '0'))",
                "x * :rise|(t.x * CAST('2.5' AS double precision))|(t.x * DOUBLE '2.5')",
                "town = :which|(t.town = CAST('a''b' AS text) COLLATE \"C\")|(t.town = CAST('a''b' AS varchar))",
                "day > '2026-01-01'|(t.day > DATE '2026-01-01')|(t.day > DATE '2026-01-01')",
                "day + 1|(t.day + CAST((CAST(1 AS bigint)) AS integer))|DATE_ADD('day', (BIGINT '1'), t.day)",
                "CURRENT_DATE - day|CAST(DATE '2026-05-31' - t.day AS bigint)|DATE_DIFF('day', t.day, DATE "
                        + "'2026-05-31')",
                "EXTRACT(DOW FROM day)|CAST(CAST((EXTRACT(DOW FROM CAST(t.day AS timestamp))) AS bigint) AS double "
                        + "precision)|CAST(CAST(MOD(EXTRACT(DAY_OF_WEEK FROM CAST(t.day AS timestamp(6))), 7) AS "
                        + "bigint) AS double)",
                "open IS NOT TRUE|(NOT COALESCE(t.open, FALSE))|(NOT COALESCE(t.open, FALSE))",
                "GREATEST(n, x)|GREATEST(CAST(t.n AS double precision), t.x)|ARRAY_MAX(FILTER(ARRAY[CAST(t.n AS "
                        + "double), t.x], one -> one IS NOT NULL))",
                "SQRT(x)|SQRT(CASE WHEN t.x >= CAST('0.0' AS double precision) THEN t.x END)|SQRT(CASE WHEN t.x >= "
                        + "DOUBLE '0.0' THEN t.x END)",
                "CAST(town AS BIGINT)|(CASE WHEN t.town ~ '^\\s*[-+]?\\d{1,18}\\s*$' THEN CAST(BTRIM(t.town) AS "
                        + "bigint) END)|TRY_CAST(TRIM(t.town) AS bigint)"
            })
    void areWrittenInEachLanguage(String formula, String postgres, String trino) {
        assertThat(written(formula, PostgresDialect.INSTANCE)).isEqualTo(postgres);
        assertThat(written(formula, TrinoDialect.INSTANCE)).isEqualTo(trino);
    }

    /** Each as it is written in both, looked through by hand; “lacks” with what there is no word for. */
    @Test
    void areWrittenAsTheyWereLookedThrough() throws IOException {
        SoftAssertions all = new SoftAssertions();
        try (InputStream in = getClass().getResourceAsStream("dialects.tsv")) {
            for (String line : new String(in.readAllBytes(), StandardCharsets.UTF_8).split("\n")) {
                String[] parts = line.split("\t");
                all.assertThat(orLacks(parts[0], PostgresDialect.INSTANCE))
                        .as(parts[0])
                        .isEqualTo(parts[1]);
                all.assertThat(orLacks(parts[0], TrinoDialect.INSTANCE))
                        .as(parts[0])
                        .isEqualTo(parts[2]);
            }
        }
        all.assertAll();
    }

    private static String orLacks(String formula, SqlDialect dialect) {
        try {
            return written(formula, dialect);
        } catch (FormulaException lacks) {
            return "lacks " + lacks.getMessage().replaceFirst(" cannot be worked out where the rows are.*", "");
        }
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "REGEXP_REPLACE(town, 'a', 'b')|REGEXP_REPLACE",
                "DISTANCE(place, POINT(1, 2)) > 5|DISTANCE",
                "WITHIN(place, 'Provinces') = 'Soria'|WITHIN",
                "MAKE_DATE(2026, n, 1)|MAKE_DATE",
                "EXTRACT(DAY FROM AGE(day, at))|A part of a span of time"
            })
    void whatADatabaseHasNoWordForIsSaidWithItsName(String formula, String what) {
        Formula parsed = Formula.parse(formula, SCOPE);
        for (SqlDialect dialect : new SqlDialect[] {PostgresDialect.INSTANCE, TrinoDialect.INSTANCE})
            assertThatThrownBy(() -> parsed.sql(where(dialect)))
                    .isInstanceOf(FormulaException.class)
                    .hasMessage(what + " cannot be worked out where the rows are: " + dialect.name()
                            + " has no such thing. Bring the rows in, or write it otherwise.");
    }

    @Test
    void sumsUseAllDigitsThatTheDatabaseHas() {
        MeasureFormula formula = MeasureFormula.parse("SUM(x) + AVG(x * 2) + COUNT(*) FILTER (WHERE open)", SCOPE);
        assertThat(formula.summed().get(0).sql(where(PostgresDialect.INSTANCE), null))
                .isEqualTo("CAST((SUM(exact.x)) AS double precision)");
        assertThat(formula.summed().get(1).divided().get(1).sql(where(PostgresDialect.INSTANCE), "t.n > 1"))
                .contains("COUNT((t.x * ")
                .endsWith("FILTER (WHERE t.n > 1) AS double precision)");
        assertThat(formula.summed().get(2).sql(where(TrinoDialect.INSTANCE), "t.n > 1"))
                .isEqualTo("CAST(COUNT(*) FILTER (WHERE (t.open) AND (t.n > 1)) AS double)");
        assertThatThrownBy(() -> MeasureFormula.parse("CHAR_LENGTH(MAX(town))", SCOPE)
                        .summed()
                        .get(0)
                        .sql(where(PostgresDialect.INSTANCE), null))
                .hasMessageContaining("The MAX of texts cannot be worked out where the rows are");
    }
}
