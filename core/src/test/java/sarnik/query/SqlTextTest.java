package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.Table;

@DisplayName("A query as SQL")
class SqlTextTest {

    private final Table table = csv("town,n,day,open", "Soria,1,2026-01-01,yes", "Zamora,2,2026-01-02,no");

    private String sql(Query query) {
        return SqlText.of(table, query, "rows", n -> "\"" + n + "\"").sql();
    }

    private static Query where(Condition condition) {
        return Query.of(List.of(new Stage("s", List.of(condition))), List.of(), List.of(Measure.ROWS));
    }

    @Test
    void measuresAreItsAggregates() {
        assertThat(sql(Query.of(
                        List.of(),
                        List.of("town"),
                        List.of(Measure.ROWS, new Measure(Summary.DISTINCT, "n"), new Measure(Summary.AVERAGE, "n")))))
                .isEqualTo("SELECT \"town\", COUNT(*) AS m0, COUNT(DISTINCT \"n\") AS m1, AVG(\"n\") AS m2 FROM "
                        + "rows GROUP BY \"town\" ORDER BY \"town\"");
    }

    @Test
    void quotesInValuesAreDoubled() {
        assertThat(sql(where(new Condition.OneOf("town", List.of("a'; DROP TABLE rows; --")))))
                .contains("\"town\" IN ('a''; DROP TABLE rows; --')");
    }

    @Test
    void literalsHaveTheColumnsType() {
        assertThat(sql(where(new Condition.OneOf("open", List.of("yes", "no")))))
                .contains("IN (TRUE, FALSE)");
        assertThat(sql(where(new Condition.Between("day", "2026-01-01", null))))
                .contains("\"day\" >= DATE '2026-01-01'")
                .doesNotContain("<=");
        assertThat(sql(where(new Condition.Between("n", null, "5")))).contains("\"n\" <= 5");
        assertThat(sql(where(new Condition.Between("n", null, "5.5"))))
                .contains("\"n\" <= CAST('5.5' AS DOUBLE PRECISION)");
        assertThat(sql(where(new Condition.OneOf("town", List.of())))).contains("WHERE FALSE");
    }

    @Test
    void aRankIsAWindowOverTheGroups() {
        Query query = new Query(
                List.of(),
                List.of("town"),
                Query.Missing.LEFT_OUT,
                List.of(new Measure(Summary.SUM, "n")),
                Optional.of(new Rank(0, Rank.End.TOP, 3, false)),
                new Sort(0, true),
                2);
        assertThat(sql(query))
                .contains("\"town\" IS NOT NULL")
                .contains("ROW_NUMBER() OVER (ORDER BY m0 DESC, \"town\")")
                .contains("place_in_order <= 3")
                .endsWith("LIMIT 2");
    }

    @Test
    void ordersOfKeysAreThoseOfTheirValues() {
        Table coded = csv("t,n", "b,10", "a,9", ",-3");
        KeyCoder text = KeyCoder.of(coded.column("t"));
        assertThat(List.of(text.rank(text.code(0)), text.rank(text.code(1)), text.rank(text.code(2))))
                .containsExactly(1, 0, 2);
        assertThat(text.hasMissing(3)).isTrue();
        KeyCoder number = KeyCoder.of(coded.column("n"));
        assertThat(number.rank(number.code(2))).isLessThan(number.rank(number.code(1)));
        assertThat(number.hasMissing(3)).isFalse();
        assertThat(number.text(number.code(0))).isEqualTo("10");
    }
}
