package sarnik.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.font.FontRenderContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class FaceTest {

    @ParameterizedTest
    @EnumSource(Face.class)
    void measuresByItsOwnLetters(Face face) {
        double one = face.wide("m", 12);
        assertThat(one).isBetween(7.0, 13.0);
        assertThat(face.wide("mm", 12)).isCloseTo(2 * one, within(0.6));
        assertThat(face.wide("m", 24)).isCloseTo(2 * one, within(0.6));
        assertThat(face.wide("i", 12)).isLessThan(one / 2);
        assertThat(face.wide("  ", 12)).isZero();
    }

    @Test
    void digitsAreOfOneWidthSoThatFiguresAlign() {
        for (char digit = '0'; digit <= '9'; digit++)
            assertThat(Face.TEXT.wide(String.valueOf(digit), 12)).isCloseTo(Face.TEXT.wide("0", 12), within(0.05));
    }

    @ParameterizedTest
    @EnumSource(Face.class)
    void lettersOfOtherAlphabetsAreDrawnToo(Face face) {
        for (String text : new String[] {"Coruña", "Łódź", "Kraków – Gdańsk", "Αθήνα", "東京", "\uD83D\uDEB0 tap"}) {
            assertThat(face.layout(text, 12, new FontRenderContext(null, true, true))
                            .getAdvance())
                    .as(text)
                    .isPositive();
        }
    }
}
