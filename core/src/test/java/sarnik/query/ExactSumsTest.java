package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

@DisplayName("Sums of decimals with few digits")
class ExactSumsTest {

    private static double[] sumAndMean(double... values) {
        Frame frame = new InMemoryEngine()
                .answer(
                        new Table(Map.of("x", new DecimalColumn(values))),
                        Query.of(
                                List.of(),
                                List.of(),
                                List.of(new Measure(Summary.SUM, "x"), new Measure(Summary.AVERAGE, "x"))));
        return new double[] {frame.value(0, 0), frame.value(1, 0)};
    }

    @Test
    void areWhatTheyAreOnPaper() {
        double[] dimes = new double[10];
        Arrays.fill(dimes, 0.1);
        assertThat(sumAndMean(dimes)).containsExactly(1.0, 0.1);
        assertThat(sumAndMean(0.1, 0.2)[0]).isEqualTo(0.3);
        assertThat(sumAndMean(1.005, -1.005, 2.0e9, 0.0001)[0]).isEqualTo(2000000000.0001);
    }

    @Test
    void areTheNearestToThatOfDecimalArithmeticInAnyOrder() {
        Random random = new Random(8);
        for (int n = 0; n < 200; n++) {
            double unit = Math.pow(10, random.nextInt(5));
            List<Double> values = random.ints(1 + random.nextInt(400), -900_000, 900_000)
                    .mapToObj(v -> random.nextInt(9) == 0 ? Double.NaN : v / unit)
                    .collect(Collectors.toList());
            BigDecimal sum = values.stream()
                    .filter(v -> !v.isNaN())
                    .map(v -> new BigDecimal(Double.toString(v)))
                    .reduce(BigDecimal.ZERO, BigDecimal::add);
            long filled = values.stream().filter(v -> !v.isNaN()).count();
            if (filled == 0) continue;
            for (int order = 0; order < 3; order++) {
                Collections.shuffle(values, random);
                assertThat(sumAndMean(values.stream().mapToDouble(v -> v).toArray())[0])
                        .isEqualTo(sum.doubleValue());
            }
        }
    }

    private static double unit(double... values) {
        return ExactSums.unit(new DecimalColumn(values));
    }

    @Test
    void areSaidNotToBeExactWhereTheyAreNot() {
        assertThat(unit(1, 2, Double.NaN)).isEqualTo(1);
        assertThat(unit(1.5, 2)).isEqualTo(10);
        assertThat(unit(0.0001, 7)).isEqualTo(10_000);
        assertThat(unit(0.00001)).isZero();
        assertThat(unit(1.0 / 3)).isZero();
        assertThat(unit(-0.0)).isZero();
        assertThat(unit(1e300)).isZero();
        assertThat(unit(1e13, 0.01, 1))
                .as("three of them come to more than is held")
                .isZero();
        assertThat(unit()).isNotZero();
        Column far = new WholeColumn(new long[] {1L << 60, 3});
        assertThat(ExactSums.unit(far)).isZero();
        assertThat(ExactSums.unit(new WholeColumn(new long[] {4, WholeColumn.MISSING})))
                .isEqualTo(1);
    }

    @Test
    void ofOtherNumbersAreAddedAsTheyAre() {
        double[] odd = DoubleStream.iterate(1.0 / 3, v -> v / 3).limit(30).toArray();
        double sum = 0;
        for (double value : odd) sum += value;
        assertThat(sumAndMean(odd)[0]).isEqualTo(sum);
    }
}
