package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("A measure formula")
class FormulaMeasureTest {

    private final Table table = TestTables.csv("town,cases,people,day", "Soria,3,40,2026-01-01", "Zamora,4,30,");
    private final Surroundings on = Surroundings.on(LocalDate.EPOCH);

    private MeasureFormula parsed(String text) {
        return MeasureFormula.parse(text, Scope.of(table));
    }

    private FormulaMeasure measure(String text) {
        return FormulaMeasure.of(parsed(text), table, on);
    }

    private double all(FormulaMeasure measure) {
        Query query = Query.of(List.of(), List.of(), List.of(new Measure(Summary.FORMULA, "m")));
        return new InMemoryEngine()
                .answer(table, query.with(Map.of("m", measure)))
                .value(0, 0);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "SUM(cases) / SUM(people)|1|7|70|false",
                "SUM(cases) / NULLIF(SUM(people), 0)|1|7|70|false",
                "10000 * SUM(cases) / SUM(people)|10000|7|70|false",
                "SUM(cases) * 1000 / (SUM(people) * 2)|500|7|70|false",
                "COUNT(*) FILTER (WHERE cases > 3) * 1.0 / COUNT(*)|1|1|2|true",
                "SUM(cases) / COUNT(people)|1|7|2|false"
            })
    void isARateWhereItDividesOneSumByAnother(String text, double times, double above, double over, boolean counted) {
        FormulaMeasure.Ratio ratio = measure(text).ratio().orElseThrow();
        assertThat(ratio.times()).isEqualTo(times);
        assertThat(all(ratio.above())).isEqualTo(above);
        assertThat(all(ratio.over())).isEqualTo(over);
        assertThat(ratio.counted()).isEqualTo(counted);
        assertThat(ratio.above().sql()).contains(counted ? "COUNT" : "SUM");
        assertThat(ratio.above().pushed()).hasSize(1);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "SUM(cases) + SUM(people)",
                "SUM(cases) / SUM(people) + 1",
                "- SUM(cases) / SUM(people)",
                "SUM(cases) * SUM(people)",
                "SUM(cases) - SUM(people)",
                "POWER(SUM(cases) / SUM(people), 2)",
                "SUM(DISTINCT cases) / SUM(people)",
                "MAX(cases) / SUM(people)",
                "SUM(cases) / 2",
                "1 / (SUM(people) / SUM(cases))",
                "(SUM(cases) + SUM(people)) / COUNT(*)",
                "RANK() OVER (ORDER BY SUM(cases)) + SUM(cases) / SUM(people)",
                "CASE WHEN SUM(cases) > 1000 THEN 0.0 ELSE SUM(cases) / SUM(people) END"
            })
    void isNoneWhereItIsMadeInAnyOtherWay(String text) {
        assertThat(measure(text).ratio()).isEqualTo(Optional.empty());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "SUM(cases)|true",
                "COUNT(*)|true",
                "SUM(cases) + SUM(people)|true",
                "2.5 * SUM(cases) - COUNT(*) / 4.0|true",
                "SUM(cases) FILTER (WHERE cases > 3) - SUM(people)|true",
                "- SUM(cases)|true",
                "SUM(cases) * 10000.0 / SUM(people)|false",
                "SUM(cases) + 1|false",
                "SUM(cases) * SUM(people)|false",
                "GREATEST(SUM(cases), 0)|false",
                "ABS(SUM(cases))|false",
                "SUM(cases) / 2|true",
                "SUM(DISTINCT cases)|false",
                "COUNT(DISTINCT cases)|false",
                "AVG(cases)|false",
                "MAX(cases)|false",
                "MEDIAN(cases)|false",
                "CASE WHEN SUM(cases) > 5 THEN SUM(cases) ELSE 0 END|false",
                "SUM(cases) / SUM(SUM(cases)) OVER ()|false",
                "MIN(day)|false"
            })
    void addsUpWhereItIsMadeOfSumsInProportion(String text, boolean addsUp) {
        assertThat(measure(text).addsUp()).isEqualTo(addsUp);
    }

    @Test
    void oneThatCannotBeWorkedOutDoesNotAddUp() {
        assertThat(FormulaMeasure.unfit("There is no column").addsUp()).isFalse();
    }

    @Test
    void knowsTheColumnsThatItsGroupsAreMadeBy() {
        assertThat(measure("SUM(SUM(cases)) OVER (PARTITION BY town ORDER BY day)")
                        .keys())
                .containsExactlyInAnyOrder("town", "day");
        assertThat(measure("SUM(cases)").keys()).isEmpty();
    }

    @Test
    void saysWhyItCannotBeWorkedOutWhereItIsAsked() {
        assertThatThrownBy(() -> all(FormulaMeasure.unfit("“x” has gone")))
                .isInstanceOf(QueryException.class)
                .hasMessage("“x” has gone");
    }

    /** Only what needs the numbers of all rows, such as a median, takes memory for what a reader has just set. */
    @Test
    void holdsNumbersForTheMomentOnlyWhereSumsAreNotEnough() {
        MeasureFormula.Keeper keeper = (words, work) -> (DecimalColumn) work.get();
        assertThat(FormulaMeasure.of(parsed("SUM(cases * 2)"), table, on, keeper)
                        .isPassing())
                .isFalse();
        assertThat(FormulaMeasure.of(parsed("MEDIAN(cases * 2)"), table, on, keeper)
                        .isPassing())
                .isTrue();
        assertThat(measure("MEDIAN(cases * 2)").isPassing()).isFalse();
    }
}
