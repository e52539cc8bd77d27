package sarnik.statistics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("What is unlikely, and what makes a difference")
class UnlikelyTest {

    /** The middle is 3.3, the median of what they are away from it 0.2. */
    @Test
    void aValueThatStandsOutDoesNotHideItself() {
        double[] values = {3.2, 3.3, 8.1, 3.2, 2.9, 3.7, 3.1, 3.5, 3.3};
        Unlikely.Usual usual = Unlikely.usual(values);
        assertThat(usual.away(8.1)).isCloseTo(0.6745 * 4.8 / 0.2, within(1e-9));
        assertThat(usual.away(2.9)).isCloseTo(-0.6745 * 0.4 / 0.2, within(1e-9));
        assertThat(Arrays.stream(values).filter(v -> Math.abs(usual.away(v)) > Unlikely.FROM))
                .containsExactly(8.1);
        assertThat(usual.interval().holds(3.7)).isTrue();
        assertThat(usual.interval().holds(8.1)).isFalse();
    }

    @Test
    void ofFewOrOfTheSameNothingStandsOut() {
        assertThat(Unlikely.usual(new double[] {1, 2, 100}).away(100)).isNaN();
        assertThat(Unlikely.usual(new double[] {}).away(1)).isNaN();
        double[] same = new double[12];
        Arrays.fill(same, 4);
        assertThat(Unlikely.usual(same).away(4)).isZero();
        assertThat(Unlikely.usual(same).away(5)).isInfinite();
        same[3] = 5;
        assertThat(Unlikely.usual(same).away(5)).isGreaterThan(Unlikely.FROM).isFinite();
    }

    @Property
    void valuesThatOccurSeveralTimesAreAsIfTheyStoodThereAsOften(
            @ForAll @Size(max = 12) List<@IntRange(min = -9, max = 9) Integer> some,
            @ForAll @Size(value = 12) List<@IntRange(min = 1, max = 5) Integer> often) {
        double[] values =
                some.stream().distinct().sorted().mapToDouble(v -> v / 4.0).toArray();
        long[] times = IntStream.range(0, values.length).mapToLong(often::get).toArray();
        double[] each = IntStream.range(0, values.length)
                .boxed()
                .flatMapToDouble(i -> DoubleStream.generate(() -> values[i]).limit(times[i]))
                .toArray();
        // The definition, value by value.
        double[] sorted = each.clone();
        double median = middle(sorted);
        double[] away =
                Arrays.stream(sorted).map(v -> Math.abs(v - median)).sorted().toArray();
        double deviation = middle(away) / 0.6745;
        if (deviation == 0) deviation = Arrays.stream(away).sum() / away.length / 0.7979;
        Unlikely.Usual usual = Unlikely.usual(values, times);
        assertThat(usual.count()).isEqualTo(each.length);
        if (each.length == 0) return;
        assertThat(usual.median()).isEqualTo(median);
        assertThat(usual.deviation()).isCloseTo(deviation, within(1e-12));
        assertThat(Unlikely.usual(each)).isEqualTo(usual);
    }

    private static double middle(double[] sorted) {
        int n = sorted.length;
        return n == 0 ? Double.NaN : (sorted[(n - 1) / 2] + sorted[n / 2]) / 2;
    }

    /** A value that is usual in its month is not unlikely, the same in another month is. */
    @Test
    void historiesAreComparedWithTheirOwnSeason() {
        double[] values = IntStream.range(0, 132)
                .mapToDouble(t -> (t % 12 == 6 ? 100 : 10) + (t * 7 % 5) / 10.0)
                .toArray();
        double[] away = Unlikely.ofHistory(values, 12);
        assertThat(Math.abs(away[126])).isLessThan(Unlikely.FROM);
        values[124] = 100;
        assertThat(Unlikely.ofHistory(values, 12)[124]).isGreaterThan(Unlikely.FROM);
        assertThat(Unlikely.ofHistory(values, 1)[3])
                .as("too little came before")
                .isNaN();
        // What comes later says nothing of what came before.
        double[] later = values.clone();
        later[131] = 1e9;
        assertThat(Arrays.copyOf(Unlikely.ofHistory(later, 12), 131))
                .containsExactly(Arrays.copyOf(Unlikely.ofHistory(values, 12), 131));
    }

    @Test
    void placesStandOutOfTheirNeighbours() {
        // A slope along which each differs from those beside it by as much; one of them does not lie on it.
        int n = 30;
        Random chance = new Random(2);
        double[] values = IntStream.range(0, n)
                .mapToDouble(p -> p + chance.nextGaussian())
                .toArray();
        values[15] += 12;
        int[][] of = IntStream.range(0, n)
                .mapToObj(p -> IntStream.of(p - 2, p - 1, p + 1, p + 2)
                        .filter(o -> o >= 0 && o < n)
                        .toArray())
                .toArray(int[][]::new);
        double[] away = Unlikely.ofNeighbours(values, new Neighbours(of));
        assertThat(away[15]).isGreaterThan(Unlikely.FROM);
        assertThat(away[0]).as("two neighbours only").isNaN();
        assertThat(IntStream.range(3, 27).filter(p -> Math.abs(p - 15) > 2 && Math.abs(away[p]) > Unlikely.FROM))
                .isEmpty();
    }

    @Property
    void whatGroupsAddIsTheWholeDifference(
            @ForAll @Size(5) int[] seeds, @ForAll @Size(5) int[] sizes, @ForAll @Size(5) int[] otherSizes) {
        double[] one =
                Arrays.stream(sizes).mapToDouble(s -> Math.floorMod(s, 50)).toArray();
        double[] other =
                Arrays.stream(otherSizes).mapToDouble(s -> Math.floorMod(s, 40)).toArray();
        if (Arrays.stream(one).sum() == 0 || Arrays.stream(other).sum() == 0) return;
        double[] sums = IntStream.range(0, 5)
                .mapToDouble(g -> one[g] * (seeds[g] % 100))
                .toArray();
        double[] otherSums = IntStream.range(0, 5)
                .mapToDouble(g -> other[g] * (seeds[4 - g] % 90))
                .toArray();
        Contributions.Part[] parts = Contributions.ofMean(sums, one, otherSums, other);
        double difference = Arrays.stream(sums).sum() / Arrays.stream(one).sum()
                - Arrays.stream(otherSums).sum() / Arrays.stream(other).sum();
        assertThat(Arrays.stream(parts).mapToDouble(Contributions.Part::whole).sum())
                .isCloseTo(difference, within(1e-9));
    }

    /** Worked by hand: half of the rows at 10 and at 20 against three quarters at 10: all of it is of the shares. */
    @Test
    void sharesAndValuesAreToldApart() {
        Contributions.Part[] parts = Contributions.ofMean(
                new double[] {500, 1000}, new double[] {50, 50}, new double[] {750, 500}, new double[] {75, 25});
        assertThat(parts[0].ofValue()).isZero();
        assertThat(parts[1].ofValue()).isZero();
        assertThat(parts[0].ofShare()).isCloseTo(-0.25 * (10 - 13.75), within(1e-12));
        assertThat(parts[0].ofShare() + parts[1].ofShare()).isCloseTo(2.5, within(1e-12));
        assertThat(Contributions.ofSum(new double[] {4, 6}, new double[] {1, 2}, 2))
                .containsExactly(2, 2);
        assertThat(Contributions.chanceOfShares(50, 100, 50, 100)).isEqualTo(1);
        assertThat(Contributions.chanceOfShares(60, 100, 40, 100)).isCloseTo(0.00468, within(1e-4));
        assertThat(Contributions.chanceOfShares(0, 10, 0, 10)).isEqualTo(1);
    }
}
