package sarnik.scale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Against Anscombe (1973), "Graphs in Statistical Analysis": four sets of points with the same line. */
@DisplayName("The line nearest to points")
class LeastSquaresTest {

    private static final String X = "10 8 13 9 11 14 6 4 12 7 5";

    private static double[] numbers(String words) {
        return Arrays.stream(words.split(" ")).mapToDouble(Double::parseDouble).toArray();
    }

    @ParameterizedTest
    @CsvSource({
        X + ", 8.04 6.95 7.58 8.81 8.33 9.96 7.24 4.26 10.84 4.82 5.68, 0.5001, 3.0001, 0.8164",
        X + ", 9.14 8.14 8.74 8.77 9.26 8.10 6.13 3.10 9.13 7.26 4.74, 0.5000, 3.0009, 0.8162",
        X + ", 7.46 6.77 12.74 7.11 7.81 8.84 6.08 5.39 8.15 6.42 5.73, 0.4997, 3.0025, 0.8163",
        "8 8 8 8 8 8 8 19 8 8 8, 6.58 5.76 7.71 8.84 8.47 7.04 5.25 12.50 5.56 7.91 6.89, 0.4999, 3.0017, 0.8165"
    })
    void isThatOfAnscombe(String x, String y, double slope, double intercept, double r) {
        LeastSquares line = LeastSquares.of(numbers(x), numbers(y));
        assertThat(line.slope()).isCloseTo(slope, within(5e-5));
        assertThat(line.intercept()).isCloseTo(intercept, within(5e-5));
        assertThat(line.r()).isCloseTo(r, within(5e-5));
        assertThat(line.points()).isEqualTo(11);
        assertThat(line.at(20)).isCloseTo(intercept + 20 * slope, within(1e-3));
    }

    @Test
    void pointsThatAreNotWholeTakeNoPart() {
        LeastSquares line = LeastSquares.of(numbers("1 2 NaN 3 4 Infinity"), numbers("3 5 100 NaN 9 1"));
        assertThat(line.points()).isEqualTo(3);
        assertThat(line.slope()).isCloseTo(2, within(1e-12));
        assertThat(line.at(0)).isCloseTo(1, within(1e-12));
        assertThat(line.r()).isCloseTo(1, within(1e-12));
    }

    @Test
    void thereIsNoneAboveOnePlaceAndNoLikenessWhereNothingVaries() {
        LeastSquares upright = LeastSquares.of(numbers("4 4 4"), numbers("1 2 3"));
        assertThat(upright.slope()).isNaN();
        assertThat(upright.r()).isNaN();
        LeastSquares level = LeastSquares.of(numbers("1 2 3"), numbers("7 7 7"));
        assertThat(level.slope()).isZero();
        assertThat(level.at(100)).isEqualTo(7);
        assertThat(level.r()).isNaN();
        assertThat(LeastSquares.of(new double[0], new double[0]).points()).isZero();
    }
}
