package sarnik.visual;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("How much amounts tell")
class SpreadTest {

    @Test
    void nothingWhereTheyAreAlike() {
        assertThat(Spread.of(3, 3, 3)).isZero();
        assertThat(Spread.of()).isZero();
        assertThat(Spread.of(7)).isZero();
        assertThat(Spread.of(0, 0)).isZero();
        assertThat(Spread.of(Double.NaN, 4, Double.NaN)).isZero();
    }

    @Test
    void moreTheMoreTheyDiffer() {
        assertThat(Spread.of(1, 2, 3)).isLessThan(Spread.of(1, 1, 30));
        assertThat(Spread.of(0, 2)).as("deviation and mean are 1").isEqualTo(.5, within(1e-12));
        assertThat(Spread.of(0, 0, 0, 1000)).isLessThan(1);
        assertThat(Spread.of(2, Double.NaN, 0)).isEqualTo(Spread.of(0, 2));
    }

    @Test
    void allWhereTwoGoTogether() {
        assertThat(Spread.together(new int[] {1, 2, 3}, new int[] {20, 40, 60})).isEqualTo(1, within(1e-12));
        assertThat(Spread.together(new int[] {1, 2, 3}, new int[] {9, 6, 3})).isEqualTo(1, within(1e-12));
        assertThat(Spread.together(new int[] {1, 2, 1, 2}, new int[] {1, 1, 2, 2}))
                .isZero();
        assertThat(Spread.together(new int[] {5, 5}, new int[] {1, 2})).isZero();
    }
}
