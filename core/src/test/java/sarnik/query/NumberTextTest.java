package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("Whole numbers in conditions")
class NumberTextTest {

    /** As a decimal number each of the first three is 90071992547409930. */
    private final Table orders = TestTables.csv(
            "number,row",
            "90071992547409930,a",
            "90071992547409931,b",
            "90071992547409932,c",
            "1,d",
            "-7,e",
            ",f",
            "999999999999999999,g",
            "-99999999999999999,h");

    private List<String> rows(Condition condition) {
        Query query = Query.of(List.of(new Stage("some", List.of(condition))), List.of("row"), List.of(Measure.ROWS));
        return Stream.of(new InMemoryEngine().answer(orders, query).keys().get(0))
                .sorted()
                .toList();
    }

    @ParameterizedTest
    @CsvSource({
        "90071992547409931, b",
        "1, d",
        "1.0, d",
        "1e0, d",
        "' 1 ', d",
        "+1, d",
        "-7, e",
        "999999999999999999, g",
        "-99999999999999999, h",
        "1.5, ''",
        "0.5, ''",
        "1e30, ''",
        "-1e30, ''",
        "NaN, ''",
        "Infinity, ''",
        "9223372036854775808, ''",
        "-9223372036854775808, ''",
    })
    void areTheVeryOnes(String number, String found) {
        List<String> expected = found.isEmpty() ? List.of() : List.of(found);
        assertThat(rows(new Condition.OneOf("number", List.of(number)))).isEqualTo(expected);
        assertThat(rows(new Condition.NoneOf("number", List.of(number))))
                .as("none of it")
                .isEqualTo(Stream.of("a", "b", "c", "d", "e", "g", "h")
                        .filter(row -> !expected.contains(row))
                        .toList());
    }

    @ParameterizedTest
    @CsvSource({
        "90071992547409931, 90071992547409931, b",
        "90071992547409931, , bcg",
        ", 90071992547409931, abdeh",
        "0.5, 1.5, d",
        "1, 1, d",
        "1.5, 2, ''",
        "-7.5, -7, e",
        "-7, -6.5, e",
        "-6.5, 0.5, ''",
        "-1e30, 1e30, abcdegh",
    })
    void areWithinTheirBounds(String from, String to, String found) {
        assertThat(String.join("", rows(new Condition.Between("number", from, to))))
                .isEqualTo(found);
    }

    @Test
    void sayWhatIsNone() {
        assertThatThrownBy(() -> rows(new Condition.OneOf("number", List.of("1", "a lot"))))
                .isInstanceOf(QueryException.class)
                .hasMessage("“a lot” is not a number");
        assertThatThrownBy(() -> rows(new Condition.Between("number", "a lot", null)))
                .hasMessage("“a lot” is not a number");
    }
}
