package sarnik.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("Rounding")
class RoundedTest {

    @Test
    void isThatOfJavaBitForBit() {
        Random random = new Random(3);
        for (double value : new double[] {
            0.0,
            -0.0,
            0.49999999999999994,
            0.5,
            -0.5,
            1.5,
            2.5,
            -2.5,
            2020.5,
            0x1p52,
            0x1p53,
            1e300,
            Double.NaN,
            Double.POSITIVE_INFINITY
        }) assertSame(value);
        for (int n = 0; n < 20_000; n++) {
            assertSame(random.nextInt(2_000_000) / 2.0 - 500_000);
            assertSame(Double.longBitsToDouble(random.nextLong()));
        }
    }

    @Test
    void tellsHowOftenTenGoesIntoANumber() {
        for (int exponent = -300; exponent <= 300; exponent++) {
            assertThat(Rounded.tens(Rounded.power(exponent))).isEqualTo(exponent);
            assertThat(Rounded.tens(Math.nextDown(Rounded.power(exponent)))).isEqualTo(exponent - 1);
            assertThat(Rounded.tens(5 * Rounded.power(exponent))).isEqualTo(exponent);
        }
    }

    private static void assertSame(double value) {
        assertThat(Double.doubleToLongBits(Rounded.even(value)))
                .as("%s", value)
                .isEqualTo(Double.doubleToLongBits(Math.rint(value)));
        assertThat(Rounded.up(value)).as("%s", value).isEqualTo(Math.round(value));
    }
}
