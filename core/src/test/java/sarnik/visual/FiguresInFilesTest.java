package sarnik.visual;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.function.Supplier;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.data.Format;
import sarnik.language.Language;
import sarnik.scale.Aligned;
import sarnik.scale.NumberWords;
import sarnik.scale.ValueWords;

/** Programs take 642.315 for less than a thousand, whatever language it was written in. */
@DisplayName("Figures in files")
class FiguresInFilesTest {

    private static <T> T inFile(String tag, Supplier<T> said) {
        return Language.in(new Language(tag, sentence -> null).forFiles(), said);
    }

    @ParameterizedTest
    @CsvSource({
        "642315, 642315",
        "3492869.75, 3492869.75",
        "-1234.5, -1234.5",
        "0.1234567, 0.1234567",
        "0.30000000000000004, 0.3",
        "1e-9, 0.000000001",
        "-0.0, 0",
        "9007199254740991, 9007199254740991",
        "1e20, 100000000000000000000"
    })
    void haveAllTheirDigitsInEveryLanguage(double value, String text) {
        for (String tag : List.of("en", "de", "es", "fr", "pt")) {
            assertThat(inFile(tag, () -> NumberWords.full(value))).isEqualTo(text);
            assertThat(inFile(tag, () -> NumberWords.brief(value))).isEqualTo(text);
            assertThat(inFile(tag, () -> Aligned.written(value, 1))).isEqualTo(text);
            assertThat(inFile(tag, () -> Aligned.brief(new double[] {value}))).containsExactly(text);
            assertThat(inFile(tag, () -> NumberWords.shown(value))).isEqualTo(value);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"en", "de", "es"})
    void haveNothingBesideThem(String tag) {
        Written euros = new Written(ValueWords.NUMBER, new Format(0, null, null, "€", "net"), false);
        assertThat(inFile(tag, () -> euros.full(12345.67))).isEqualTo("12345.67");
        assertThat(inFile(tag, () -> euros.brief(12345.67))).isEqualTo("12345.67");
        assertThat(inFile(tag, () -> euros.column(new double[] {12345.67, Double.NaN})))
                .containsExactly("12345.67", "–");
        assertThat(inFile(tag, () -> euros.whole(new double[] {1, 12345.67}))).containsExactly("1", "12345.67");
    }

    @Test
    void sayThatTheyArePerCent() {
        Written share = new Written(ValueWords.NUMBER, null, true);
        assertThat(inFile("de", () -> share.full(0.123456))).isEqualTo("12.3456%");
        assertThat(inFile("de", () -> new Written(ValueWords.NUMBER, null, true, true).full(-0.5)))
                .isEqualTo("-50%");
    }

    @Test
    void areWrittenAsEverElsewhere() {
        Language german = new Language("de", sentence -> null);
        assertThat(Language.in(german, () -> NumberWords.full(642315.25))).isEqualTo("642.315");
        assertThat(german.forFiles()).isSameAs(german.forFiles());
        assertThat(german.forFiles().forFiles()).isSameAs(german.forFiles());
        assertThat(inFile("de", () -> Language.phrase("{0} rows", 12345))).isEqualTo("12345 rows");
    }
}
