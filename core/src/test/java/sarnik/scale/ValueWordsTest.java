package sarnik.scale;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("How the values of a measure are read")
class ValueWordsTest {

    @ParameterizedTest(name = "{1} as a {0}: {2}, {3}")
    @CsvSource({
        "NUMBER, 45600, '45,600', 45.6 k",
        "NUMBER, NaN, –, –",
        "DATE, 0, 1970-01-01, 1970-01-01",
        "DATE, 20000.7, 2024-10-04, 2024-10-04",
        "DATE, -0.5, 1969-12-31, 1969-12-31",
        "DATE, NaN, –, –",
        "TIME, 0, 1970-01-01T00:00, 1970-01-01T00:00",
        "TIME, -0.5, 1969-12-31T23:59:59, 1969-12-31T23:59:59",
        "TIME, Infinity, –, –"
    })
    void inFullAndInBrief(ValueWords words, double value, String full, String brief) {
        assertThat(words.full(value)).isEqualTo(full);
        assertThat(words.brief(value)).isEqualTo(brief);
        assertThat(words.isAmount()).isEqualTo(words == ValueWords.NUMBER);
    }
}
