package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.table.Table;
import sarnik.table.TestTables;

/** Worked out by hand; the application's tests ask PostgreSQL the same of rows by chance. */
@DisplayName("Window functions over groups")
class WindowResultsTest {

    private static final String NAME = "over";

    private final Table table =
            TestTables.csv("town,month,litres", "A,1,10", "A,2,30", "A,3,30", "A,4,", "B,1,5", "B,2,7", "B,,3");

    private Frame asked(String formula, List<String> by) {
        FormulaMeasure measure = FormulaMeasure.of(
                MeasureFormula.parse(formula, Scope.of(table)), table, Surroundings.on(LocalDate.EPOCH));
        Query query = Query.of(List.of(), by, List.of(new Measure(Summary.FORMULA, NAME)));
        return new InMemoryEngine().answer(table, query.with(Map.of(NAME, measure)));
    }

    /** Expected for town A in months 1 to 4, then for B in months 1, 2 and a missing one. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "RANK() OVER (PARTITION BY town ORDER BY SUM(litres) DESC)|3 1 1 4 2 1 3",
                "DENSE_RANK() OVER (PARTITION BY town ORDER BY SUM(litres) DESC)|2 1 1 3 2 1 3",
                "RANK() OVER (ORDER BY SUM(litres))|4 5 5 7 2 3 1",
                "ROW_NUMBER() OVER (PARTITION BY town ORDER BY month DESC)|4 3 2 1 2 1 3",
                "ROW_NUMBER() OVER (PARTITION BY town ORDER BY SUM(litres) DESC)|3 1 2 4 2 1 3",
                "LAG(SUM(litres)) OVER (PARTITION BY town ORDER BY month)|- 10 30 30 - 5 7",
                "LAG(SUM(litres), 2) OVER (PARTITION BY town ORDER BY month)|- - 10 30 - - 5",
                "LEAD(SUM(litres)) OVER (PARTITION BY town ORDER BY month)|30 30 - - 7 3 -",
                "SUM(SUM(litres)) OVER (PARTITION BY town ORDER BY month)|10 40 70 70 5 12 15",
                "SUM(SUM(litres)) OVER (PARTITION BY town ORDER BY month DESC)|70 60 30 - 12 7 15",
                "SUM(SUM(litres)) OVER (ORDER BY SUM(litres))|25 85 85 85 8 15 3",
                "SUM(SUM(litres)) OVER (PARTITION BY town)|70 70 70 70 15 15 15",
                "COUNT(SUM(litres)) OVER (PARTITION BY town)|3 3 3 3 3 3 3",
                "AVG(SUM(litres)) OVER (PARTITION BY town ORDER BY month ROWS 1 PRECEDING)|10 20 30 30 5 6 5",
                "MIN(SUM(litres)) OVER (PARTITION BY town ORDER BY month ROWS BETWEEN 1 PRECEDING AND 1 FOLLOWING)"
                        + "|10 10 30 30 5 3 3",
                "MAX(SUM(litres)) OVER (PARTITION BY town ORDER BY month ROWS BETWEEN 1 PRECEDING AND 1 FOLLOWING)"
                        + "|30 30 30 30 7 7 7",
                "MIN(SUM(litres)) OVER (PARTITION BY town ORDER BY month)|10 10 10 10 5 5 3",
                "MAX(SUM(litres)) OVER (PARTITION BY town ORDER BY month)|10 30 30 30 5 7 7",
                "SUM(litres) + 2 * RANK() OVER (PARTITION BY town ORDER BY month)|12 34 36 - 7 11 9"
            })
    void areThoseThatAreWorkedOutByHand(String formula, String expected) {
        Frame frame = asked(formula, List.of("town", "month"));
        assertThat(IntStream.range(0, frame.size()).mapToObj(g -> frame.key(0, g) + frame.key(1, g)))
                .containsExactly("A1", "A2", "A3", "A4", "B1", "B2", "Bnull");
        assertThat(frame.values().get(0))
                .containsExactly(Arrays.stream(expected.split(" "))
                        .mapToDouble(word -> word.equals("-") ? Double.NaN : Double.parseDouble(word))
                        .toArray());
    }

    @Test
    void goAlongWhatTheGroupsAreMadeBy() {
        for (String formula : List.of(
                "SUM(SUM(litres)) OVER (ORDER BY month)", "SUM(SUM(litres)) OVER (PARTITION BY month ORDER BY town)"))
            assertThatThrownBy(() -> asked(formula, List.of("town")))
                    .isInstanceOf(QueryException.class)
                    .hasMessageContaining("A measure goes along “month”, by which the figures here are not grouped");
    }
}
