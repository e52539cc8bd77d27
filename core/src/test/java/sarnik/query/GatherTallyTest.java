package sarnik.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.table.DecimalColumn;
import sarnik.table.WholeColumn;

@DisplayName("Values gathered by group")
class GatherTallyTest {

    /**
     * Expected by hand, from the definitions in ISO/IEC 9075-2, 10.9: between the two neighbours, or the first that
     * reaches the share.
     */
    @ParameterizedTest(name = "{0} of 1 2 3 10: between {1}, of the values {2}")
    @CsvSource({"0, 1, 1", "0.25, 1.75, 1", "0.5, 2.5, 2", "0.75, 4.75, 3", "0.9, 7.9, 10", "1, 10, 10"})
    void percentiles(double share, double between, double ofValues) {
        double[] sorted = {1, 2, 3, 10};
        assertThat(GatherTally.percentile(sorted, share)).isCloseTo(between, within(1e-12));
        assertThat(GatherTally.percentileOfValues(sorted, share)).isEqualTo(ofValues);
    }

    @Test
    void theCommonestOfEquallyCommonIsTheSmallest() {
        assertThat(GatherTally.mode(new double[] {1, 2, 2, 3, 3})).isEqualTo(2);
        assertThat(GatherTally.mode(new double[] {7})).isEqualTo(7);
    }

    @Test
    void spreadIsThatOfASample() {
        assertThat(GatherTally.variance(new double[] {2, 4, 4, 4, 5, 5, 7, 9})).isCloseTo(32 / 7.0, within(1e-12));
        assertThat(GatherTally.variance(new double[] {3})).isNaN();
        assertThat(GatherTally.variance(new double[] {1e9 + 4, 1e9 + 7, 1e9 + 13, 1e9 + 16}))
                .as("far from zero")
                .isEqualTo(30);
    }

    @Test
    void equalValuesAreDistinctOnce() {
        assertThat(GatherTally.distinct(new double[] {1, 1, 2, 5, 5})).containsExactly(1, 2, 5);
        assertThat(GatherTally.distinct(new double[0])).isEmpty();
    }

    @Test
    void groupsGetTheirOwnValuesWhateverTheOrderAndTheSegments() {
        Random random = new Random(9);
        double[] values = random.doubles(5000)
                .map(v -> v < 0.1 ? Double.NaN : Math.floor(v * 20))
                .toArray();
        int[] groups = random.ints(5000, 0, 7).toArray();
        GatherTally whole = new GatherTally(new DecimalColumn(values), null);
        whole.add(IntStream.range(0, 5000).toArray(), groups, 5000);
        GatherTally first = new GatherTally(new DecimalColumn(values), null);
        GatherTally second = new GatherTally(new DecimalColumn(values), null);
        first.add(IntStream.range(0, 2000).toArray(), groups, 2000);
        // The second part numbers its groups the other way round.
        int[] turned = IntStream.range(2000, 5000).map(i -> 6 - groups[i]).toArray();
        second.add(IntStream.range(2000, 5000).toArray(), turned, 3000);
        first.merge(second, new int[] {6, 5, 4, 3, 2, 1, 0});
        double[] expected = new double[8];
        for (int g = 0; g < 7; g++) {
            int group = g;
            double[] own = IntStream.range(0, 5000)
                    .filter(i -> groups[i] == group && !Double.isNaN(values[i]))
                    .mapToDouble(i -> values[i])
                    .sorted()
                    .toArray();
            expected[g] = Arrays.stream(own).sum();
        }
        expected[7] = Double.NaN;
        assertThat(whole.results(8, sorted -> Arrays.stream(sorted).sum())).containsExactly(expected);
        assertThat(first.results(8, sorted -> Arrays.stream(sorted).sum())).containsExactly(expected);
    }

    @Test
    void wholeNumbersAreGatheredToo() {
        GatherTally tally = new GatherTally(new WholeColumn(new long[] {5, WholeColumn.MISSING, 1}), null);
        tally.add(new int[] {0, 1, 2}, new int[] {0, 0, 0}, 3);
        assertThat(tally.results(1, sorted -> sorted.length * 100 + sorted[0])).containsExactly(201);
    }
}
