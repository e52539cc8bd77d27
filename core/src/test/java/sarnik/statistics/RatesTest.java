package sarnik.statistics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@DisplayName("How sure rates are")
class RatesTest {

    /** Newcombe 1998, Statistics in Medicine 17:857–872, table I, method 3. */
    @ParameterizedTest(name = "{0} of {1}")
    @CsvSource({"81, 263, 0.2553, 0.3662", "15, 148, 0.0624, 0.1605", "0, 20, 0, 0.1611", "1, 29, 0.0061, 0.1718"})
    void wilsonsIntervalIsAsPublished(double events, double trials, double low, double high) {
        Interval interval = Rates.wilson(events, trials, 0.95);
        assertThat(interval.low()).isCloseTo(low, within(5e-5));
        assertThat(interval.high()).isCloseTo(high, within(5e-5));
    }

    /** Pearson and Hartley, Biometrika Tables for Statisticians, table 40: limits of the expected number, 95 %. */
    @ParameterizedTest(name = "{0} events")
    @CsvSource({"0, 0, 3.689", "1, 0.0253, 5.572", "2, 0.242, 7.225", "10, 4.795, 18.39", "50, 37.11, 65.92"})
    void garwoodsIntervalIsAsPublished(double events, double low, double high) {
        Interval interval = Rates.poisson(events, 1, 0.95);
        assertThat(interval.low()).isCloseTo(low, within(6e-3));
        assertThat(interval.high()).isCloseTo(high, within(6e-3));
        assertThat(Rates.poisson(events, 1000, 0.95).high()).isCloseTo(interval.high() / 1000, within(1e-9));
    }

    @Test
    void nothingIsSaidOfWhatIsNoRate() {
        assertThat(Rates.wilson(1, 0, 0.95).isKnown()).isFalse();
        assertThat(Rates.wilson(3, 2, 0.95).isKnown()).isFalse();
        assertThat(Rates.wilson(Double.NaN, 2, 0.95).isKnown()).isFalse();
        assertThat(Rates.poisson(1, -1, 0.95).isKnown()).isFalse();
        assertThat(Rates.poisson(-1, 5, 0.95).isKnown()).isFalse();
        assertThatThrownBy(() -> Rates.wilson(1, 2, 1)).hasMessageContaining("between 0 and 1");
    }

    @Property
    void aShareLiesInItsIntervalAndMoreTrialsMakeItNarrower(
            @ForAll @IntRange(max = 50) int events, @ForAll @IntRange(max = 50) int others) {
        double trials = events + others;
        if (trials == 0) return;
        Interval few = Rates.wilson(events, trials, 0.95);
        assertThat(few.holds(events / trials)).isTrue();
        assertThat(Rates.wilson(10 * events, 10 * trials, 0.95).width()).isLessThan(few.width());
        assertThat(Rates.wilson(events, trials, 0.8).width()).isLessThan(few.width());
    }

    @Test
    void fewEventsAreUnsure() {
        assertThat(Rates.isUnsure(19)).isTrue();
        assertThat(Rates.isUnsure(20)).isFalse();
        assertThat(Rates.isUnsure(Double.NaN)).isTrue();
        assertThat(Rates.isUnsureShare(10, 20)).as("too few").isTrue();
        assertThat(Rates.isUnsureShare(15, 31)).as("an interval wider than 0.3").isTrue();
        assertThat(Rates.isUnsureShare(1, 100)).as("wide for so small a share").isTrue();
        assertThat(Rates.isUnsureShare(99, 100))
                .as("and for what is left of one")
                .isTrue();
        assertThat(Rates.isUnsureShare(20, 100)).isFalse();
        assertThat(Rates.isUnsureShare(10, 10_000)).as("narrow").isFalse();
    }

    /**
     * Worked by hand: rates 0.1, 0.2, 0.3 of 10, 10, 20 have a mean of 0.225; what they differ by is 0.006875 − 0.225 /
     * (40 / 3).
     */
    @Test
    void drawsNothingApartThatChanceAloneWouldDrawApart() {
        assertThat(Rates.smoothed(new double[] {1, 2, 6}, new double[] {10, 10, 20}))
                .containsExactly(new double[] {0.225, 0.225, 0.225}, within(1e-12));
    }

    /**
     * Worked by hand: 100 of 1,000, 300 of 1,000 and 4 of 10 have the rate 404 / 2010; the smallest is drawn the most.
     */
    @Test
    void drawsRatesTowardTheWholeTheMoreTheFewerTheyRestOn() {
        double mean = 404 / 2010.0;
        double spread =
                (1000 * Math.pow(0.1 - mean, 2) + 1000 * Math.pow(0.3 - mean, 2) + 10 * Math.pow(0.4 - mean, 2)) / 2010;
        double between = spread - mean / 670;
        double[] smoothed =
                Rates.smoothed(new double[] {100, 300, 4, Double.NaN, 3}, new double[] {1000, 1000, 10, 5, 0});
        assertThat(smoothed[0]).isCloseTo(mean + between / (between + mean / 1000) * (0.1 - mean), within(1e-12));
        assertThat(smoothed[2]).isCloseTo(mean + between / (between + mean / 10) * (0.4 - mean), within(1e-12));
        assertThat(smoothed[0]).isBetween(0.1, 0.105);
        assertThat(smoothed[2]).isBetween(0.2, 0.3);
        assertThat(Arrays.copyOfRange(smoothed, 3, 5)).containsOnly(Double.NaN);
        assertThat(Rates.smoothed(new double[] {1}, new double[] {0})).containsOnly(Double.NaN);
    }

    @Property(tries = 200)
    void funnelsHoldSoManyAsTheySay(
            @ForAll @DoubleRange(min = 0.01, max = 0.9) double rate, @ForAll @IntRange(min = 1, max = 5000) int size) {
        Interval narrow = Rates.funnel(rate, size, 0.95);
        Interval wide = Rates.funnel(rate, size, 0.998);
        assertThat(wide.low()).isLessThanOrEqualTo(narrow.low());
        assertThat(wide.high()).isGreaterThanOrEqualTo(narrow.high());
        if (rate * size > 4) assertThat(narrow.holds(rate)).isTrue();
        Interval share = Rates.funnelOfShare(rate, size, 0.95);
        assertThat(share.width()).as("a share varies less").isLessThanOrEqualTo(narrow.width() + 1.0 / size);
        // Of many the normal distribution says nearly the same.
        if (rate * size > 500) {
            assertThat(narrow.high()).isCloseTo(rate + 1.96 * Math.sqrt(rate / size), within(1.0 / size));
            assertThat(share.low()).isCloseTo(rate - 1.96 * Math.sqrt(rate * (1 - rate) / size), within(1.0 / size));
        }
    }

    @Test
    void funnelsOfMillionsDoNotTakeLong() {
        assertThat(Rates.funnel(0.5, 4e6, 0.95).high()).isCloseTo(0.5 + 1.96 * Math.sqrt(0.5 / 4e6), within(1e-6));
        assertThat(Rates.funnelOfShare(0.5, 4e6, 0.95).low())
                .isCloseTo(0.5 - 1.96 * Math.sqrt(0.25 / 4e6), within(1e-6));
        assertThat(Rates.funnel(0, 100, 0.95)).isEqualTo(new Interval(0, 0));
    }

    // --- by age ---------------------------------------------------------------------------------------

    @Test
    void ofOneAgeBandTheIntervalIsGarwoods() {
        AgeStandardised.Standardised one =
                AgeStandardised.direct(new double[] {10}, new double[] {2000}, new double[] {7}, 0.95);
        Interval exact = Rates.poisson(10, 2000, 0.95);
        assertThat(one.rate()).isCloseTo(0.005, within(1e-12));
        assertThat(one.interval().low()).isCloseTo(exact.low(), within(1e-9));
        assertThat(one.interval().high()).isCloseTo(exact.high(), within(1e-9));
    }

    /** Alike in every band, an old place and a young one have the same rate once they are standardised. */
    @Test
    void agesDoNotMakeADifferenceAnyMore() {
        double[] standard = {60, 40};
        double young = AgeStandardised.direct(new double[] {9, 10}, new double[] {900, 100}, standard, 0.95)
                .rate();
        double old = AgeStandardised.direct(new double[] {1, 90}, new double[] {100, 900}, standard, 0.95)
                .rate();
        assertThat(young).isCloseTo(old, within(1e-12)).isCloseTo(0.046, within(1e-12));
        assertThat(AgeStandardised.direct(new double[] {1, 0}, new double[] {5, 0}, standard, 0.95)
                        .rate())
                .as("nobody in a band")
                .isNaN();
        AgeStandardised.Standardised ratio =
                AgeStandardised.indirect(12, new double[] {100, 900}, new double[] {0.01, 0.01}, 0.95);
        assertThat(ratio.rate()).isCloseTo(1.2, within(1e-12));
        assertThat(ratio.interval().low()).isCloseTo(Rates.poisson(12, 10, 0.95).low(), within(1e-12));
    }

    @Test
    void standardPopulationsArePutTogetherInCoarserBands() {
        StandardPopulation europe = StandardPopulation.EUROPE_2013;
        assertThat(europe.whole()).isEqualTo(100_000);
        assertThat(StandardPopulation.WORLD_2000.whole()).isCloseTo(100, within(0.05));
        assertThat(europe.weights(new int[] {0, 65})).containsExactly(80_500, 19_500);
        assertThat(Arrays.stream(europe.weights(new int[] {0, 15, 45, 85})).sum())
                .isEqualTo(100_000);
        assertThatThrownBy(() -> europe.weights(new int[] {0, 18}))
                .hasMessageContaining("begins at 18 years")
                .hasMessageContaining("0, 1, 5, 10");
        assertThatThrownBy(() -> europe.weights(new int[] {5, 10})).hasMessageContaining("begin at 0");
    }
}
