package sarnik.statistics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("Numbers by chance")
class Xoshiro128Test {

    @Test
    void areTheSameForASeedAndOthersForAnother() {
        Xoshiro128 one = new Xoshiro128(7);
        Xoshiro128 same = new Xoshiro128(7);
        Xoshiro128 next = new Xoshiro128(8);
        int alike = 0;
        for (int i = 0; i < 1000; i++) {
            int drawn = one.next(1000);
            assertThat(same.next(1000)).isEqualTo(drawn);
            if (next.next(1000) == drawn) alike++;
        }
        assertThat(alike).isLessThan(10);
    }

    /** Of 100,000 each of ten comes 10,000 times, give or take five standard deviations; so do pairs of neighbours. */
    @Test
    void areAsLikelyEachAndKnowNothingOfTheLast() {
        int[] counts = new int[10];
        int[] pairs = new int[100];
        for (int seed = 0; seed < 100; seed++) {
            Xoshiro128 chance = new Xoshiro128(seed);
            int last = 0;
            for (int i = 0; i < 1000; i++) {
                int drawn = chance.next(10);
                counts[drawn]++;
                pairs[10 * last + drawn]++;
                last = drawn;
            }
        }
        for (int count : counts) assertThat((double) count).isCloseTo(10_000, within(5 * Math.sqrt(9000)));
        for (int pair = 10; pair < 100; pair++)
            assertThat((double) pairs[pair]).isCloseTo(1000, within(5 * Math.sqrt(990)));
    }
}
