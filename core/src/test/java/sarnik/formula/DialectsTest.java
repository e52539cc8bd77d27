package sarnik.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What databases are written to besides formulas; that it comes to the same is for the suite of all engines. */
@DisplayName("What databases write otherwise")
class DialectsTest {

    private static final SqlDialect POSTGRES = PostgresDialect.INSTANCE;
    private static final SqlDialect TRINO = TrinoDialect.INSTANCE;

    private static final Scope SCOPE = new Scope(
            Map.of(
                    "n",
                    Kind.WHOLE,
                    "x",
                    Kind.DECIMAL,
                    "d",
                    Kind.DATE,
                    "s",
                    Kind.TIME,
                    "b",
                    Kind.YES_NO,
                    "t",
                    Kind.TEXT),
            Map.of(),
            Set.of(),
            Set.of());

    @Test
    void zonesAndMoments() {
        assertThat(POSTGRES.inZone("t", "z")).isEqualTo("(t AT TIME ZONE 'UTC' AT TIME ZONE z)");
        assertThat(TRINO.inZone("t", "z")).isEqualTo("CAST(AT_TIMEZONE(WITH_TIMEZONE(t, 'UTC'), z) AS timestamp(6))");
        assertThat(POSTGRES.utc("t")).isEqualTo("(t AT TIME ZONE 'UTC')");
        assertThat(TRINO.utc("t")).isEqualTo("CAST(AT_TIMEZONE(t, 'UTC') AS timestamp(6))");
        assertThat(POSTGRES.moment("t")).isEqualTo("(t AT TIME ZONE 'UTC')");
        assertThat(TRINO.moment("t")).isEqualTo("WITH_TIMEZONE(t, 'UTC')");
        assertThat(POSTGRES.day("d")).isEqualTo("CAST(d - DATE '1970-01-01' AS bigint)");
        assertThat(TRINO.day("d")).isEqualTo("DATE_DIFF('day', DATE '1970-01-01', d)");
    }

    @Test
    void numbersThatAreNone() {
        String finite = "(CASE WHEN x > '-Infinity' AND x < 'Infinity' THEN x END)";
        assertThat(POSTGRES.finite("x")).isEqualTo(finite);
        assertThat(POSTGRES.shortFloat("x")).isEqualTo("CAST(" + finite + " AS numeric)");
        assertThat(POSTGRES.digits("x")).isEqualTo("NULLIF(x, 'NaN')");
        assertThat(TRINO.finite("x")).isEqualTo("IF(IS_FINITE(x), x)");
        assertThat(TRINO.shortFloat("x")).isEqualTo("CAST(CAST(IF(IS_FINITE(x), x) AS varchar) AS double)");
        assertThat(TRINO.digits("x")).isEqualTo("x");
    }

    @Test
    void valuesAtShares() {
        assertThat(POSTGRES.percentile(0.25, "x", null))
                .isEqualTo("PERCENTILE_CONT(0.25) WITHIN GROUP (ORDER BY CAST(x AS double precision))");
        assertThat(POSTGRES.percentileOfValues(0.9, "x", "b"))
                .isEqualTo("PERCENTILE_DISC(0.9) WITHIN GROUP (ORDER BY x) FILTER (WHERE b)");
        assertThat(POSTGRES.mode("x", "b")).isEqualTo("MODE() WITHIN GROUP (ORDER BY x) FILTER (WHERE b)");
        assertThat(TRINO.mode("x", null)).isNull();
        String all = "ARRAY_SORT(ARRAY_AGG(x) FILTER (WHERE (b) AND x IS NOT NULL))";
        assertThat(TRINO.percentileOfValues(0.9, "x", "b"))
                .isEqualTo("ELEMENT_AT(" + all + ", GREATEST(1, CAST(CEIL(CARDINALITY(" + all
                        + ") * DOUBLE '0.9') AS bigint)))");
        String numbers = "ARRAY_SORT(ARRAY_AGG(CAST(x AS double)) FILTER (WHERE CAST(x AS double) IS NOT NULL))";
        String at = "(CARDINALITY(" + numbers + ") - 1) * DOUBLE '0.25'";
        String low = "ELEMENT_AT(" + numbers + ", CAST(FLOOR(" + at + ") AS bigint) + 1)";
        String high = "ELEMENT_AT(" + numbers + ", CAST(CEIL(" + at + ") AS bigint) + 1)";
        assertThat(TRINO.percentile(0.25, "x", null))
                .isEqualTo("(" + low + " + (" + at + " - FLOOR(" + at + ")) * (" + high + " - " + low + "))");
    }

    @Test
    void listsOfValues() {
        List<List<?>> columns = List.of(List.of("a'b", "c\"d\\e\t!"), List.of(1L, 2L), List.of(0.5, -1.0));
        assertThat(POSTGRES.rows(columns, List.of("w", "n", "x")))
                .isEqualTo("unnest(CAST('{\"a''b\",\"c\\\"d\\\\e\t!\"}' AS text[]), CAST('{1,2}' AS bigint[]), "
                        + "CAST('{0.5,-1.0}' AS double precision[])) AS listed(w, n, x)");
        assertThat(TRINO.rows(columns, List.of("w", "n", "x")))
                .isEqualTo("UNNEST(CAST(JSON_PARSE('[[\"a''b\",1,0.5],[\"c\\\"d\\\\e\\u0009!\",2,-1.0]]') AS "
                        + "ARRAY(ROW(w varchar, n bigint, x double)))) AS listed(w, n, x)");
        assertThat(POSTGRES.rows(List.of(List.of()), List.of("w")))
                .isEqualTo("unnest(CAST('{}' AS text[])) AS listed(w)");
        assertThat(TRINO.rows(List.of(List.of()), List.of("w"))).contains("JSON_PARSE('[]') AS ARRAY(ROW(w varchar))");
        assertThat(POSTGRES.gathered("t")).isEqualTo("ARRAY_TO_STRING(ARRAY_AGG(DISTINCT t), E'\\x1f')");
        assertThat(TRINO.gathered("t")).isEqualTo("ARRAY_JOIN(ARRAY_AGG(DISTINCT t), CHR(31))");
        assertThatThrownBy(() -> POSTGRES.text("a\0b")).isInstanceOf(IllegalArgumentException.class);
    }

    private static String summed(String formula, SqlDialect dialect, String only) {
        return MeasureFormula.parse(formula, SCOPE)
                .summed()
                .get(0)
                .sql(
                        new SqlScope(
                                dialect,
                                name -> name,
                                name -> "exact." + name,
                                Surroundings.on(LocalDate.of(2026, 5, 31))),
                        only);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "COUNT(*) | COUNT(*) | COUNT(*) FILTER (WHERE only)",
                "COUNT(*) FILTER (WHERE b) | COUNT(*) FILTER (WHERE (b)) | COUNT(*) FILTER (WHERE (b) AND (only))",
                "COUNT(DISTINCT t) | COUNT(DISTINCT t) | COUNT(DISTINCT t) FILTER (WHERE only)",
                "SUM(x) | (SUM(exact.x)) | (SUM(exact.x) FILTER (WHERE only))",
                "SUM(DISTINCT n) | (SUM(DISTINCT exact.n)) | (SUM(DISTINCT exact.n) FILTER (WHERE only))",
                "SUM(n + 1) FILTER (WHERE b) | (SUM((n + BIGINT '1')) FILTER (WHERE (b))) | (SUM((n + BIGINT '1')) "
                        + "FILTER (WHERE (b) AND (only)))",
                "MIN(d) | (MIN(DATE_DIFF('day', DATE '1970-01-01', d))) | (MIN(DATE_DIFF('day', DATE '1970-01-01', "
                        + "d)) FILTER (WHERE only))",
                "MAX(s) | (MAX(CAST(FLOOR(TO_UNIXTIME(WITH_TIMEZONE(s, 'UTC'))) AS bigint))) | "
                        + "(MAX(CAST(FLOOR(TO_UNIXTIME(WITH_TIMEZONE(s, 'UTC'))) AS bigint)) FILTER (WHERE only))",
                "STDDEV_SAMP(n) | (STDDEV_SAMP(CAST(n AS double))) | (STDDEV_SAMP(CAST(n AS double)) FILTER (WHERE "
                        + "only))",
                "AVG(n) | (CAST(SUM(exact.n) AS double) / NULLIF(COUNT(exact.n), 0)) | (CAST(SUM(exact.n) FILTER "
                        + "(WHERE only) AS double) / NULLIF(COUNT(exact.n) FILTER (WHERE only), 0))",
                "CORR(x, n) | (CORR(CAST(x AS double), CAST(n AS double))) | (CORR(CAST(x AS double), CAST(n AS "
                        + "double)) FILTER (WHERE only))",
                "REGR_SLOPE(x, n) FILTER (WHERE b) | (REGR_SLOPE(CAST(x AS double), CAST(n AS double)) FILTER (WHERE "
                        + "(b))) | (REGR_SLOPE(CAST(x AS double), CAST(n AS double)) FILTER (WHERE (b) AND (only)))",
                "SUM(COALESCE(1 / n, 1)) | (SUM((CASE WHEN (CASE WHEN (n IS NOT NULL AND (BIGINT '1' / NULLIF(n, "
                        + "BIGINT '0')) IS NULL) THEN TRUE ELSE FALSE END) THEN NULL ELSE COALESCE((BIGINT '1' / "
                        + "NULLIF(n, BIGINT '0')), BIGINT '1') END))) | (SUM((CASE WHEN (CASE WHEN (n IS NOT NULL AND "
                        + "(BIGINT '1' / NULLIF(n, BIGINT '0')) IS NULL) THEN TRUE ELSE FALSE END) THEN NULL ELSE "
                        + "COALESCE((BIGINT '1' / NULLIF(n, BIGINT '0')), BIGINT '1') END)) FILTER (WHERE only))"
            })
    void summariesOfSomeRows(String formula, String all, String some) {
        assertThat(summed(formula, TRINO, null)).isEqualTo("CAST(" + all + " AS double)");
        assertThat(summed(formula, TRINO, "only")).isEqualTo("CAST(" + some + " AS double)");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {"MODE() WITHIN GROUP (ORDER BY n) | MODE", "REGR_R2(x, n) | REGR_R2"})
    void summariesThatOneDatabaseLacks(String formula, String what) {
        assertThat(summed(formula, POSTGRES, "only")).contains(what + "(").contains("FILTER (WHERE only)");
        assertThatThrownBy(() -> summed(formula, TRINO, null))
                .isInstanceOf(FormulaException.class)
                .hasMessageStartingWith(what + " cannot be worked out where the rows are: Trino has no such thing.");
    }

    @Test
    void whatAMeasureIsMadeOf() {
        MeasureFormula formula = MeasureFormula.parse("SUM(x) + COUNT(DISTINCT n) + SUM(n * 2) + MAX(x)", SCOPE);
        assertThat(formula.columns()).containsExactly("x", "n");
        assertThat(formula.summed(function -> true))
                .as("n is needed row by row")
                .containsExactly("x");
        assertThat(formula.summed(function -> function.equals("MIN"))).isEmpty();
        assertThat(formula.summed())
                .extracting(MeasureFormula.Summed::function)
                .containsExactly("SUM", "COUNT", "SUM", "MAX");
        assertThat(formula.summed())
                .extracting(MeasureFormula.Summed::isSummedUp)
                .containsExactly(true, false, true, true);
        assertThat(MeasureFormula.parse("SUM(x) + SUM(n)", SCOPE).summed(function -> true))
                .containsExactlyInAnyOrder("x", "n");
        assertThat(MeasureFormula.parse("SUM(x) FILTER (WHERE n > 1) + SUM(n)", SCOPE)
                        .summed(function -> true))
                .isEmpty();
    }

    // As PostgreSQL takes them, over groups; places are told apart by what stands for the columns of the groups.
    @Test
    void windowsOverGroups() {
        String ties = MeasureFormula.TIES;
        assertThat(MeasureFormula.parse("SUM(x) / SUM(SUM(x)) OVER ()", SCOPE).sql())
                .contains("(SUM(((SUM(\"x\"))::double precision)) OVER ())::double precision");
        assertThat(MeasureFormula.parse("SUM(n) - LAG(SUM(n), 2) OVER (PARTITION BY b ORDER BY d)", SCOPE)
                        .sql())
                .contains(
                        ", 2) OVER (PARTITION BY " + MeasureFormula.keyIn("b"), "ORDER BY " + MeasureFormula.keyIn("d"))
                .contains(ties);
        assertThat(MeasureFormula.parse("AVG(SUM(n)) OVER (ORDER BY d DESC ROWS 3 PRECEDING)", SCOPE)
                        .sql())
                .contains(MeasureFormula.keyIn("d") + " DESC", "ROWS BETWEEN 3 PRECEDING AND CURRENT ROW");
        assertThat(MeasureFormula.parse(
                                "SUM(SUM(n)) OVER (ORDER BY d ROWS BETWEEN UNBOUNDED PRECEDING AND 1 FOLLOWING)", SCOPE)
                        .sql())
                .contains("ROWS BETWEEN UNBOUNDED PRECEDING AND 1 FOLLOWING");
        assertThat(MeasureFormula.keyIn("b")).contains("b").isNotEqualTo(MeasureFormula.keyIn("d"));
    }
}
