package sarnik.scale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("Scales")
class ScaleTest {

    @Nested
    @DisplayName("Classes")
    class OfValues {

        @Test
        void equalStepsAreEquallyWide() {
            Classes classes = Classes.of(Classes.Method.EQUAL_STEPS, new double[] {0, 10, 3}, 4);
            assertThat(classes.breaks()).containsExactly(2.5, 5, 7.5);
        }

        @Test
        void equalCountsAreEquallyFull() {
            Classes classes = Classes.of(Classes.Method.EQUAL_COUNTS, new double[] {1, 2, 3, 4, 5, 6, 7, 8}, 4);
            assertThat(classes.breaks()).containsExactly(2, 4, 6);
        }

        @Test
        void naturalBreaksFallIntoTheGaps() {
            Classes classes = Classes.of(Classes.Method.NATURAL, new double[] {1, 2, 3, 40, 41, 42, 900, 901}, 3);
            assertThat(classes.breaks()).containsExactly(3, 42);
        }

        @Test
        void aBoundBelongsToTheClassBelowIt() {
            Classes classes = new Classes(new double[] {3, 42}, 1, 901);
            assertThat(new int[] {
                        classes.classOf(3),
                        classes.classOf(3.01),
                        classes.classOf(42),
                        classes.classOf(901),
                        classes.classOf(Double.NaN)
                    })
                    .containsExactly(0, 1, 1, 2, -1);
        }

        @Test
        void fewDistinctValuesMakeFewClasses() {
            for (Classes.Method method : Classes.Method.values()) {
                assertThat(Classes.of(method, new double[] {7, 7, 7}, 5).count())
                        .as(method.words())
                        .isEqualTo(1);
                assertThat(Classes.of(method, new double[] {}, 5).low())
                        .as(method.words())
                        .isNaN();
                assertThat(Classes.of(method, new double[] {Double.NaN, 3, Double.POSITIVE_INFINITY}, 2)
                                .count())
                        .as(method.words())
                        .isEqualTo(1);
            }
            assertThat(Classes.of(Classes.Method.NATURAL, new double[] {1, 1, 5, 9}, 5)
                            .count())
                    .isEqualTo(3);
        }

        @Test
        void whatOnlyArithmeticTellsApartIsOneValue() {
            Classes classes = Classes.of(Classes.Method.NATURAL, new double[] {0.3, 0.1 + 0.2, 1, 2}, 5);
            assertThat(classes.count()).isEqualTo(3);
            assertThat(classes.classOf(0.3)).isEqualTo(classes.classOf(0.1 + 0.2));
            assertThat(classes.low()).isEqualTo(0.3);
        }

        @Test
        void theirMethodsAreCalledByTheirNames() {
            assertThat(Arrays.stream(Classes.Method.values()).map(Classes.Method::words))
                    .doesNotHaveDuplicates()
                    .allSatisfy(words -> assertThat(words).isNotBlank());
        }

        @Test
        void therAreTwoToElevenOfThem() {
            assertThatThrownBy(() -> Classes.of(Classes.Method.NATURAL, new double[] {1}, 12))
                    .hasMessageContaining("2 to 11");
        }
    }

    @Property(tries = 300)
    void naturalBreaksHaveTheLeastSquaresOfAllCuts(
            @ForAll @Size(min = 3, max = 11) int[] numbers, @ForAll @IntRange(min = 2, max = 4) int count) {
        double[] values =
                Arrays.stream(numbers).mapToDouble(n -> n % 100).sorted().toArray();
        double found = squares(values, Classes.of(Classes.Method.NATURAL, values, count));
        double best = leastSquares(values, 0, count);
        assertThat(found).isCloseTo(best, within(1e-6 * Math.max(1, best)));
    }

    private static double squares(double[] values, Classes classes) {
        double sum = 0;
        for (int c = 0; c < classes.count(); c++) {
            int wanted = c;
            double[] members = Arrays.stream(values)
                    .filter(v -> classes.classOf(v) == wanted)
                    .toArray();
            sum += squares(members);
        }
        return sum;
    }

    private static double squares(double[] members) {
        double mean = Arrays.stream(members).average().orElse(0);
        return Arrays.stream(members).map(v -> (v - mean) * (v - mean)).sum();
    }

    /** The best of all ways to cut, tried one by one. */
    private static double leastSquares(double[] values, int from, int classes) {
        if (classes == 1) return squares(Arrays.copyOfRange(values, from, values.length));
        double best = squares(Arrays.copyOfRange(values, from, values.length));
        for (int cut = from + 1; cut < values.length; cut++) {
            best = Math.min(
                    best, squares(Arrays.copyOfRange(values, from, cut)) + leastSquares(values, cut, classes - 1));
        }
        return best;
    }

    @Nested
    @DisplayName("Circles")
    class Circles {

        @Test
        void areasAreProportionalToAmounts() {
            CircleSizes sizes = new CircleSizes(CircleSizes.Rule.AREA, 100, 40);
            assertThat(sizes.radius(100)).isEqualTo(40);
            assertThat(sizes.radius(25)).isEqualTo(20);
        }

        @Test
        void flanneryExaggeratesByHisExponent() {
            assertThat(new CircleSizes(CircleSizes.Rule.FLANNERY, 100, 40).radius(25))
                    .isCloseTo(40 * Math.pow(0.25, 0.5716), within(1e-12));
        }

        @Test
        void steppedOnesHaveFiveSizes() {
            CircleSizes sizes = new CircleSizes(CircleSizes.Rule.STEPPED, 100, 40);
            assertThat(sizes.radius(20)).isCloseTo(40 * Math.sqrt(0.2), within(1e-12));
            assertThat(sizes.radius(1)).isEqualTo(sizes.radius(20));
            assertThat(sizes.radius(21)).isCloseTo(40 * Math.sqrt(0.4), within(1e-12));
            assertThat(sizes.radius(250)).as("no larger than the largest").isEqualTo(40);
            assertThat(new CircleSizes(CircleSizes.Rule.AREA, 0, 40).radius(5)).isZero();
        }

        @Test
        void smallAmountsCanStillBeHitAndNoneIsNothing() {
            CircleSizes sizes = new CircleSizes(CircleSizes.Rule.AREA, 1e9, 40);
            assertThat(sizes.radius(1)).isEqualTo(CircleSizes.SMALLEST);
            assertThat(sizes.radius(0)).isZero();
            assertThat(sizes.radius(Double.NaN)).isZero();
            assertThat(sizes.radius(-1e9)).as("negative: by its size").isEqualTo(40);
        }
    }

    @Nested
    @DisplayName("Numbers in words")
    class Numbers {

        @ParameterizedTest
        @CsvSource({
            "1234567, '1,234,567'",
            "12.345, 12.35",
            "999.94, 999.9",
            "0, 0",
            "-0.0, 0",
            "-1234.4, '-1,234'",
            "0.5, 0.50",
            "0.00216, 0.0022",
            "0.094, 0.094",
            "0.0996, 0.10",
            "-0.0371, -0.037",
            "100.25, 100.3",
            "99.995, 100",
            "999.95, '1,000'",
            "1000.5, '1,000'",
            "0.1, 0.10",
            "-12.345, -12.35",
            "1e-14, 0"
        })
        void full(double value, String expected) {
            assertThat(NumberWords.full(value)).isEqualTo(expected);
        }

        @ParameterizedTest
        @CsvSource({
            "1234567, 1.23 M",
            "45600, 45.6 k",
            "789, 789",
            "999.6, 1 k",
            "999.4, 999",
            "1000, 1 k",
            "1000000, 1 M",
            "-1000000000, -1 G",
            "15229508, 15.2 M",
            "2.5e9, 2.5 G",
            "12.345, 12.3",
            "-1234, -1.23 k",
            "0, 0"
        })
        void brief(double value, String expected) {
            assertThat(NumberWords.brief(value)).isEqualTo(expected);
        }

        @ParameterizedTest
        @CsvSource({
            "12.345, 12.35",
            "1234.5, 1234",
            "1235.5, 1236",
            "5, 5",
            "0.00216, 0.0022",
            "-99.994, -99.99",
            "NaN, NaN"
        })
        void shownIsWhatIsWrittenInFull(double value, double expected) {
            assertThat(NumberWords.shown(value)).isEqualTo(Double.valueOf(expected));
        }

        @Test
        void missingIsADash() {
            assertThat(NumberWords.full(Double.NaN)).isEqualTo("–");
            assertThat(NumberWords.brief(Double.POSITIVE_INFINITY)).isEqualTo("–");
        }

        @ParameterizedTest
        @CsvSource({
            "370, 500, 200",
            "1, 1, 1",
            "0.03, 0.05, 0.02",
            "5000, 5000, 5000",
            "0, 0, 0",
            "-3, 0, 0",
            "0.7, 1, 0.5"
        })
        void roundNumbersAreOneTwoOrFiveTimesAPowerOfTen(double value, double up, double down) {
            assertThat(NumberWords.roundUp(value)).isCloseTo(up, within(1e-9));
            assertThat(NumberWords.roundDown(value)).isCloseTo(down, within(1e-9));
        }
    }

    @Nested
    @DisplayName("Palettes")
    class Palettes {

        @Test
        void lightnessFallsInEvenSteps() {
            for (String name : Palette.NAMES) {
                for (int count = 2; count <= 9; count++) {
                    double[] lightness = Palette.ALL.get(name).colours(count).stream()
                            .mapToDouble(Palettes::lightness)
                            .toArray();
                    double step = (lightness[0] - lightness[count - 1]) / (count - 1);
                    for (int i = 1; i < count; i++)
                        assertThat(lightness[i - 1] - lightness[i])
                                .as("%s in %d classes", name, count)
                                .isCloseTo(step, within(0.025));
                }
            }
        }

        /** OKLab lightness of a colour, worked out from its bytes (Ottosson 2020). */
        private static double lightness(String hex) {
            double[] rgb = new double[3];
            for (int i = 0; i < 3; i++) {
                double v = Integer.parseInt(hex.substring(1 + 2 * i, 3 + 2 * i), 16) / 255.0;
                rgb[i] = v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
            }
            double l = Math.cbrt(0.4122214708 * rgb[0] + 0.5363325363 * rgb[1] + 0.0514459929 * rgb[2]);
            double m = Math.cbrt(0.2119034982 * rgb[0] + 0.6806995451 * rgb[1] + 0.1073969566 * rgb[2]);
            double s = Math.cbrt(0.0883024619 * rgb[0] + 0.2817188376 * rgb[1] + 0.6299787005 * rgb[2]);
            return 0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s;
        }

        @Test
        void knownColoursComeOutRight() {
            assertThat(new Oklch(1, 0, 0).hex()).isEqualTo("#ffffff");
            assertThat(new Oklch(0, 0, 0).hex()).isEqualTo("#000000");
            // sRGB red in OKLCH.
            assertThat(new Oklch(0.62796, 0.25768, 29.234).hex()).isEqualTo("#ff0000");
        }
    }

    @Test
    void naturalBreaksOfManyValuesAreThoseOfTheirDistinctOnes() {
        Random random = new Random(3);
        double[] many = random.ints(20_000, 0, 300).asDoubleStream().toArray();
        Classes classes = Classes.of(Classes.Method.NATURAL, many, 7);
        assertThat(classes.count()).isEqualTo(7);
        for (int c = 0; c < 7; c++) {
            int wanted = c;
            assertThat(Arrays.stream(many)
                            .filter(v -> classes.classOf(v) == wanted)
                            .count())
                    .isPositive();
        }
    }
}
