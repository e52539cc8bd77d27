package sarnik.scale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import sarnik.scale.Classes.Method;

@DisplayName("Classes")
class ClassesTest {

    private static double[] numbers(String words) {
        return Arrays.stream(words.split(" ")).mapToDouble(Double::parseDouble).toArray();
    }

    private static double[] breaks(Method method, String values, int count) {
        return Classes.of(method, numbers(values), count).breaks();
    }

    @Nested
    @DisplayName("about the mean")
    class AboutTheMean {

        /** Mean 5, standard deviation 2 (of the population). */
        private static final String VALUES = "2 4 4 4 5 5 7 9";

        @Test
        void breakOnTheMeanWithAnEvenNumber() {
            assertThat(breaks(Method.ABOUT_THE_MEAN, VALUES, 4)).containsExactly(3, 5, 7);
        }

        @Test
        void haveTheMeanInTheMiddleWithAnOddNumber() {
            assertThat(breaks(Method.ABOUT_THE_MEAN, VALUES, 3)).containsExactly(4, 6);
        }

        @Test
        void leaveOutBreaksBeyondTheValues() {
            assertThat(breaks(Method.ABOUT_THE_MEAN, VALUES, 8))
                    .as("-1 and 1 lie below all values, 9 and 11 above")
                    .containsExactly(3, 5, 7);
        }
    }

    @Nested
    @DisplayName("of round numbers")
    class RoundNumbers {

        @ParameterizedTest(name = "{0} in up to {1}: {2}")
        @CsvSource({
            "0 97, 5, 20 40 60 80",
            "3 97, 10, 10 20 30 40 50 60 70 80 90",
            "0 1, 4, 0.25 0.5 0.75",
            "20 80, 5, 40 60",
            "0 9, 9, 1 2 3 4 5 6 7 8",
            "-80 -20, 5, -60 -40",
            "0.1 0.95, 10, 0.1 0.2 0.3 0.4 0.5 0.6 0.7 0.8 0.9",
            "-7 8, 4, -5 0 5",
            "1234 9876, 4, 2500 5000 7500",
            "0.012 0.031, 4, 0.015 0.02 0.025 0.03",
            "0 1000000, 2, 500000"
        })
        void stepByOneTwoTwoAndAHalfOrFive(String values, int count, String expected) {
            double[] found = breaks(Method.ROUND_NUMBERS, values, count);
            double[] wanted = numbers(expected);
            assertThat(found.length).as(Arrays.toString(found)).isLessThan(count);
            if (found.length == wanted.length) assertThat(found).containsExactly(wanted, within(1e-12));
            else
                assertThat(found)
                        .as("a wider step, where that many classes would be too many")
                        .hasSizeLessThan(wanted.length);
        }

        @Test
        void haveNoNoiseInTheirDigits() {
            for (double each : breaks(Method.ROUND_NUMBERS, "0 1", 10))
                assertThat(Double.toString(each)).hasSizeLessThanOrEqualTo(3);
        }
    }

    @Nested
    @DisplayName("that grow by a factor")
    class Geometric {

        @Test
        void haveBoundsInOneRatio() {
            assertThat(breaks(Method.GEOMETRIC, "1 3 20 700 10000", 4))
                    .containsExactly(new double[] {10, 100, 1000}, within(1e-9));
        }

        @Test
        void takeWhatIsNotAboveZeroIntoTheFirst() {
            Classes classes = Classes.of(Method.GEOMETRIC, numbers("-5 0 1 10 100"), 2);
            assertThat(classes.breaks()).containsExactly(new double[] {10}, within(1e-9));
            assertThat(classes.classOf(-5)).isZero();
            assertThat(classes.classOf(0)).isZero();
            assertThat(classes.classOf(50)).isEqualTo(1);
        }

        @Test
        void areEqualStepsWhereNothingIsAboveZero() {
            assertThat(breaks(Method.GEOMETRIC, "-10 -6 0", 2)).containsExactly(-5);
        }
    }

    @ParameterizedTest
    @EnumSource(Method.class)
    @DisplayName("of every method ascend, lie within the values, and hold them all")
    void everyMethod(Method method) {
        Random random = new Random(method.ordinal());
        for (int n = 0; n < 300; n++) {
            double spread = Math.pow(10, random.nextInt(12) - 5);
            double[] values = random.doubles(1 + random.nextInt(60))
                    .map(v -> (v - (random.nextBoolean() ? 0.5 : 0)) * spread)
                    .toArray();
            if (n % 5 == 0) Arrays.fill(values, values[0]);
            int count = 2 + random.nextInt(10);
            Classes classes = Classes.of(method, values, count);
            assertThat(classes.count()).isLessThanOrEqualTo(count);
            assertThat(classes.breaks()).isSorted().doesNotHaveDuplicates();
            for (double each : classes.breaks()) assertThat(each).isBetween(classes.low(), classes.high());
            for (double value : values) assertThat(classes.classOf(value)).isBetween(0, classes.count() - 1);
        }
    }

    @ParameterizedTest
    @EnumSource(Method.class)
    @DisplayName("of nothing, of one value and of what is missing are one class or none is asked for")
    void oddValues(Method method) {
        assertThat(Classes.of(method, new double[0], 5).breaks()).isEmpty();
        assertThat(Classes.of(method, new double[] {Double.NaN, Double.POSITIVE_INFINITY}, 5)
                        .breaks())
                .isEmpty();
        assertThat(Classes.of(method, new double[] {7, 7, 7}, 5).count()).isEqualTo(1);
        assertThat(Classes.of(method, new double[] {7}, 5).classOf(Double.NaN)).isEqualTo(-1);
    }
}
