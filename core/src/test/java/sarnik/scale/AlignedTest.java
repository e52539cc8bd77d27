package sarnik.scale;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Numbers that stand below each other")
class AlignedTest {

    private static double[] numbers(String words) {
        return Arrays.stream(words.split(" ")).mapToDouble(Double::parseDouble).toArray();
    }

    private static List<String> texts(String words) {
        return List.of(words.split(" \\| "));
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "1234 12, '1,234 | 12'",
        "12.34 5.678, 12.3 | 5.7",
        "-12.34 5, -12.3 | 5.0",
        "0.5 0.25, 0.50 | 0.25",
        "0.1 0.05, 0.10 | 0.05",
        "0.05 0.02, 0.050 | 0.020",
        "0.00000123 0.000001, 0.000001 | 0.000001",
        "9999.4 5000.2, '9,999 | 5,000'",
        "9999.5 5000, 10.00 k | 5.00 k",
        "45600 12300, 45.6 k | 12.3 k",
        "999499 500000, 999 k | 500 k",
        "999500 500000, 1.00 M | 0.50 M",
        "999499999 500000000, 999 M | 500 M",
        "999500000 500000000, 1.00 G | 0.50 G",
        "0, 0",
        "5 0, 5 | 0"
    })
    void haveOneUnitAndAsManyDecimals(String values, String expected) {
        assertThat(Aligned.brief(numbers(values))).isEqualTo(texts(expected));
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "2000000 10, '2,000,000 | 10'",
        "2000000 -1, '2,000,000 | -1'",
        "2000000.5 9.5, '2,000,000.5 | 9.5'",
        "2000000 9999, '2,000,000 | 9,999'",
        "2000000 10000, 2.00 M | 0.01 M",
        "1000000000 1, 1.00 G | 0.00 G",
        "3.9 0.0152 0, 3.90 | 0.02 | 0.00",
        "0.05 0.0001, 0.050 | 0.000",
        "5000.5 0.3, '5,000.5 | 0.3'"
    })
    void areWrittenOutWhereNoUnitServesBoth(String values, String expected) {
        assertThat(Aligned.brief(numbers(values))).isEqualTo(texts(expected));
    }

    @Test
    void missingOnesAreDashesAndChangeNothing() {
        assertThat(Aligned.brief(numbers("NaN 5 Infinity 1200"))).containsExactly("–", "5", "–", "1,200");
        assertThat(Aligned.brief(numbers("2000000 NaN 10"))).containsExactly("2,000,000", "–", "10");
        assertThat(Aligned.brief(new double[0])).isEmpty();
    }

    @ParameterizedTest(name = "{0} by {1}: {2}")
    @CsvSource({
        "0 2500 5000 7500, 2500, '0 | 2,500 | 5,000 | 7,500'",
        "0 5000 10000, 5000, 0 | 5 k | 10 k",
        "-10000 0 10000, 10000, -10 k | 0 | 10 k",
        "0 500000 1000000, 500000, 0 | 0.5 M | 1.0 M",
        "0 500000000 1000000000, 500000000, 0 | 0.5 G | 1.0 G",
        "0 0.5 1, 0.5, 0 | 0.5 | 1.0",
        "0 0.02 0.04, 0.02, 0 | 0.02 | 0.04",
        "-0.1 0.00000000000000001 0.1, 0.1, -0.1 | 0 | 0.1",
        "100 110, 10, 100 | 110"
    })
    void marksAreToldApartAndNoughtIsPlain(String values, double step, String expected) {
        assertThat(Aligned.marks(numbers(values), step)).isEqualTo(texts(expected));
    }

    @Test
    void halvesAreRoundedAwayFromNought() {
        assertThat(Aligned.written(2.5, 0)).isEqualTo("3");
        assertThat(Aligned.written(-2.5, 0)).isEqualTo("-3");
        assertThat(Aligned.written(1234.25, 1)).isEqualTo("1,234.3");
    }
}
