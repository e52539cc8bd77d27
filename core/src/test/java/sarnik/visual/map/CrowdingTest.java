package sarnik.visual.map;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.scale.CircleSizes;

@DisplayName("Crowded circles")
class CrowdingTest {

    private static final int WIDE = 680;
    private static final int HIGH = 450;
    private static final int MANY = 1470;

    private static double shared(double[] x, double[] y, double[] amounts, double radius) {
        double most = Arrays.stream(amounts).max().orElseThrow();
        return Crowding.shared(x, y, amounts, new CircleSizes(CircleSizes.Rule.AREA, most, radius), WIDE, HIGH);
    }

    /** Two equal circles: what they share is two segments, by hand. */
    @ParameterizedTest
    @ValueSource(doubles = {5, 20, 39, 60})
    void shareWhatGeometrySays(double apart) {
        double r = 20;
        // Two places without an amount, in far corners, make a unit a pixel.
        double[] x = {300, 300 + apart, 0, WIDE};
        double[] y = {200, 200, 0, HIGH};
        double[] amounts = {1, 1, 0, 0};
        double lens = apart >= 2 * r
                ? 0
                : 2 * r * r * Math.acos(apart / (2 * r)) - apart / 2 * Math.sqrt(4 * r * r - apart * apart);
        double union = 2 * Math.PI * r * r - lens;
        assertThat(shared(x, y, amounts, r)).isCloseTo(lens / union, within(0.02));
    }

    @Test
    void shrinkUntilLessThanAQuarterIsShared() {
        Random random = new Random(3);
        double[] x = random.doubles(MANY).toArray();
        double[] y = random.doubles(MANY).toArray();
        double[] amounts = random.doubles(MANY, 0.2, 1).toArray();
        double radius = Crowding.radius(x, y, amounts, WIDE, HIGH);
        assertThat(shared(x, y, amounts, radius)).isLessThan(0.25);
        assertThat(shared(x, y, amounts, radius * 1.5))
                .as("no smaller than it need be")
                .isGreaterThan(0.25);
    }

    @Test
    void areLargeWhereThereIsRoom() {
        assertThat(Crowding.radius(new double[] {0, 10}, new double[] {0, 10}, new double[] {3, 4}, WIDE, HIGH))
                .isEqualTo(28);
        assertThat(Crowding.radius(new double[0], new double[0], new double[0], WIDE, HIGH))
                .isEqualTo(28);
        assertThat(Crowding.radius(new double[] {1}, new double[] {1}, new double[] {Double.NaN}, WIDE, HIGH))
                .isEqualTo(28);
    }
}
