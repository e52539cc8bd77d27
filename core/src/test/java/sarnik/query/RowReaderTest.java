package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static sarnik.table.TestTables.csv;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.Table;

@DisplayName("Rows as they are")
class RowReaderTest {

    private static final InMemoryEngine ENGINE = new InMemoryEngine();
    private static final Table TABLE = csv(
            "name,size,day",
            "beta,3,2026-01-02",
            "Alpha,,2026-01-01",
            "gamma,10,",
            "alpha,3,2025-12-31",
            ",2,2026-01-01");

    private static RowPage rows(List<Stage> stages, String find, int from, int count, RowQuery.By... order) {
        return ENGINE.rows(TABLE, new RowQuery(stages, List.of("name", "size"), List.of(order), find, from, count));
    }

    @Test
    void standInTheOrderOfTheTableWhereNothingIsSaid() {
        RowPage page = rows(List.of(), "", 1, 2);
        assertThat(page.rows()).containsExactly(1, 2);
        assertThat(page.cell(0, 1)).isNull();
        assertThat(page.all()).isEqualTo(5);
    }

    @Test
    void areOrderedByNumbersAndLettersWithWhatIsMissingLast() {
        assertThat(rows(List.of(), "", 0, 9, new RowQuery.By("size", true), new RowQuery.By("name", false))
                        .rows())
                .containsExactly(2, 3, 0, 4, 1);
        assertThat(rows(List.of(), "", 0, 9, new RowQuery.By("name", false)).rows())
                .containsExactly(1, 3, 0, 2, 4);
        assertThat(rows(List.of(), "", 0, 9, new RowQuery.By("day", false)).rows())
                .containsExactly(3, 1, 4, 0, 2);
    }

    @Test
    void areNarrowedAndSearchedStepByStep() {
        RowPage page =
                rows(List.of(new Stage("Small", List.of(new Condition.Between("size", null, "5")))), " ALPHA ", 0, 9);
        assertThat(page.rows()).containsExactly(3);
        assertThat(page.trail().steps())
                .extracting(RowTrail.Step::words, RowTrail.Step::left)
                .containsExactly(tuple("All rows", 5L), tuple("Small", 3L), tuple("Holding “ALPHA”", 1L));
    }

    @Test
    void beyondTheLastAreNone() {
        assertThat(rows(List.of(), "", 7, 9).rows()).isEmpty();
        assertThat(rows(List.of(), "no such words", 0, 9).all()).isZero();
    }

    @Test
    void ofAColumnThatHasGoneAreRefused() {
        assertThatThrownBy(() -> rows(List.of(), "", 0, 1, new RowQuery.By("gone", true)))
                .isInstanceOf(QueryException.class)
                .hasMessageContaining("no column “gone”");
    }

    @Test
    void followTheGroupsOfAnotherQuery() {
        Query most = new Query(
                List.of(),
                List.of("name"),
                Query.Missing.LEFT_OUT,
                List.of(new Measure(Summary.SUM, "size")),
                Optional.empty(),
                new Sort(0, true),
                1);
        assertThat(rows(
                                List.of(new Stage(
                                        "Of the largest", List.of(new Condition.Among("name", TABLE, most, 0, false)))),
                                "",
                                0,
                                9)
                        .rows())
                .containsExactly(2);
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 90, 12_000})
    void areTheSameWhetherTheFirstAreFoundOrAllAreOrdered(int from) {
        Random random = new Random(7);
        List<String> lines = new ArrayList<>(List.of("key,value"));
        List<int[]> expected = new ArrayList<>();
        for (int row = 0; row < 20_000; row++) {
            int value = random.nextInt(500);
            lines.add("k" + row + "," + value);
            expected.add(new int[] {row, value});
        }
        Table table = csv(lines.toArray(String[]::new));
        expected.sort(Comparator.<int[]>comparingInt(r -> -r[1]).thenComparingInt(r -> r[0]));
        RowPage page = ENGINE.rows(
                table, new RowQuery(List.of(), List.of("key"), List.of(new RowQuery.By("value", true)), "", from, 50));
        assertThat(page.rows())
                .containsExactlyElementsOf(expected.subList(from, from + 50).stream()
                        .map(r -> r[0])
                        .toList());
    }
}
