package sarnik.scale;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Digits written by hand")
class DigitsTest {

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "0|0|0",
                "-0.0|2|0.00",
                "999|0|999",
                "1000|0|1,000",
                "-1234567.5|1|-1,234,567.5",
                "0.29|2|0.29",
                "0.00000012|8|0.00000012",
                "9007199254740993|0|9,007,199,254,740,992",
                "1e20|0|100,000,000,000,000,000,000"
            })
    void haveTheirCommasAndTheirPoint(double value, int decimals, String text) {
        assertThat(Digits.grouped(value, decimals)).isEqualTo(text);
    }

    @Property(tries = 5000)
    void areThoseOfTheStandardFormatter(
            @ForAll @DoubleRange(min = -1e13, max = 1e13) double value,
            @ForAll @IntRange(max = 8) int decimals,
            @ForAll @IntRange(max = 14) int smaller) {
        double rounded = new BigDecimal(value / Math.pow(10, smaller))
                .setScale(decimals, RoundingMode.HALF_UP)
                .doubleValue();
        assertThat(Digits.grouped(rounded, decimals))
                .isEqualTo(String.format(Locale.ENGLISH, "%,." + decimals + "f", rounded == 0 ? 0.0 : rounded));
    }
}
