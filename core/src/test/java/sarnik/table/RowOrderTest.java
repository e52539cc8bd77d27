package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Rows in order")
class RowOrderTest {

    private final Table table = TestTables.csv(
            "town,n,share,day,seen,open",
            "Soria,3,0.5,2026-01-02,2026-01-02T10:00,yes",
            "ávila,,1.5,2025-01-02,2026-01-02T09:00,no",
            "Zamora,20,,2026-01-01,,yes",
            ",7,0.25,,2026-01-03T00:00,");

    @ParameterizedTest(name = "by {0}, largest first {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "'' | false | 0 1 2 3",
                "n | false | 0 3 2 1",
                "n | true | 2 3 0 1",
                "share | false | 3 0 1 2",
                "day | true | 0 2 1 3",
                "seen | false | 1 0 3 2",
                "town | false | 0 2 1 3",
                "open | false | 1 0 2 3"
            })
    void missingValuesComeLastEitherWay(String column, boolean down, String rows) {
        assertThat(RowOrder.rows(table, "", column, down))
                .containsExactly(java.util.Arrays.stream(rows.split(" "))
                        .mapToInt(Integer::parseInt)
                        .toArray());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"SORI | 0", "2026-01-0 | 0 1 2 3", "0.25 | 3", "ÁV | 1", "x | ''"})
    void thatHoldSomeWords(String find, String rows) {
        int[] expected = rows.isEmpty()
                ? new int[0]
                : java.util.Arrays.stream(rows.split(" "))
                        .mapToInt(Integer::parseInt)
                        .toArray();
        assertThat(RowOrder.rows(table, find, null, false)).containsExactly(expected);
    }

    @Test
    void byNoColumnThereIsAreRefused() {
        assertThatThrownBy(() -> RowOrder.rows(table, "", "height", false)).hasMessageContaining("height");
    }
}
