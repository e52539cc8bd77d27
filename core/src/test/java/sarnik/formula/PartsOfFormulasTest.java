package sarnik.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDateTime;
import java.time.ZoneOffset;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@DisplayName("The parts that formulas are computed with")
class PartsOfFormulasTest {

    @Nested
    @DisplayName("numbers")
    class OfNumbers {

        /** Written as PostgreSQL 15 writes them with extra_float_digits = 1. */
        @ParameterizedTest(name = "{0} is written {1}")
        @CsvSource({
            "12, 12",
            "0.5, 0.5",
            "-2.25, -2.25",
            "1e20, 1e+20",
            "1e15, 1e+15",
            "123456789012345, 123456789012345",
            "0.0001, 0.0001",
            "0.00001, 1e-05",
            "1.5e-7, 1.5e-07",
            "0.1, 0.1",
            "100, 100",
            "1.7976931348623157e308, 1.7976931348623157e+308",
            "5e-324, 5e-324",
            "-1e100, -1e+100",
            "0, 0",
            "1234.5, 1234.5"
        })
        void areWrittenInTheirShortestForm(double value, String text) {
            assertThat(Numbers.text(value)).isEqualTo(text);
        }

        @Test
        void anyNumberReadsBackAsItself() {
            java.util.Random random = new java.util.Random(5);
            for (int i = 0; i < 20_000; i++) {
                double value = Double.longBitsToDouble(random.nextLong());
                if (Double.isFinite(value))
                    assertThat(Double.parseDouble(Numbers.text(value))).isEqualTo(value);
            }
        }

        @ParameterizedTest(name = "{0} to {1} places is {2}")
        @CsvSource({
            "2.5, 0, 3",
            "-2.5, 0, -3",
            "1.005, 2, 1.01",
            "2.675, 2, 2.68",
            "1234.567, -2, 1200",
            "0.1, 5, 0.1",
            "999.995, 2, 1000"
        })
        void areRoundedFromTheirFifteenSureDigitsHalvesAway(double value, int places, double rounded) {
            assertThat(Numbers.round(value, places)).isEqualTo(rounded);
        }

        @ParameterizedTest
        @CsvSource({
            "+, 9223372036854775807, 1",
            "-, -9223372036854775808, 1",
            "*, 4611686018427387904, 2",
            "/, -9223372036854775808, -1"
        })
        void thatDoNotFitAreAnError(String operator, long a, long b) {
            assertThatThrownBy(() -> Numbers.whole(operator, a, b))
                    .isInstanceOf(RowError.class)
                    .hasMessageContaining("out of range");
        }

        @Test
        void divideTowardsZero() {
            assertThat(Numbers.whole("/", 7, 2)).isEqualTo(3);
            assertThat(Numbers.whole("/", -7, 2)).isEqualTo(-3);
            assertThatThrownBy(() -> Numbers.whole("/", 7, 0)).hasMessage("division by zero");
            assertThatThrownBy(() -> Numbers.decimal("/", 7, 0)).hasMessage("division by zero");
        }

        @Test
        void tooSmallOrTooLargeForADecimalAreAnError() {
            assertThatThrownBy(() -> Numbers.decimal("*", 1e-200, 1e-200)).isInstanceOf(RowError.class);
            assertThatThrownBy(() -> Numbers.decimal("*", 1e200, 1e200)).isInstanceOf(RowError.class);
            assertThat(Numbers.decimal("*", 0, 1e200)).isZero();
        }

        @Test
        void raisedToPowersKnowTheirLimits() {
            assertThat(Numbers.power(-2, 3)).isEqualTo(-8);
            assertThatThrownBy(() -> Numbers.power(0, -1)).hasMessageContaining("negative power");
            assertThatThrownBy(() -> Numbers.power(-2, 0.5)).hasMessageContaining("fraction");
            assertThatThrownBy(() -> Numbers.power(10, 400)).hasMessageContaining("out of range");
        }

        @ParameterizedTest
        @CsvSource({"2.5, 2", "3.5, 4", "-2.5, -2", "2147483647.4, 2147483647"})
        void becomeWholeToTheNearestHalvesToTheEvenOne(double value, long whole) {
            assertThat(Numbers.toWhole(value, Integer.MIN_VALUE, Integer.MAX_VALUE))
                    .isEqualTo(whole);
        }

        @ParameterizedTest
        @ValueSource(doubles = {2147483647.6, -2147483649.0, 1e300, Double.NaN})
        void thatAreNoSmallWholeNumberAreAnError(double value) {
            assertThatThrownBy(() -> Numbers.toWhole(value, Integer.MIN_VALUE, Integer.MAX_VALUE))
                    .isInstanceOf(RowError.class);
        }

        @Test
        void ofTwoToTheSixtyThirdAreNoWholeNumber() {
            assertThatThrownBy(() -> Numbers.toWhole(0x1p63, Long.MIN_VALUE, Long.MAX_VALUE))
                    .isInstanceOf(RowError.class);
            assertThat(Numbers.toWhole(-0x1p63, Long.MIN_VALUE, Long.MAX_VALUE)).isEqualTo(Long.MIN_VALUE);
        }
    }

    @Nested
    @DisplayName("texts")
    class OfTexts {

        @ParameterizedTest(name = "{0} LIKE {1} is {2}")
        @CsvSource(
                quoteCharacter = '"',
                value = {
                    "Soria, S%, true",
                    "Soria, s%, false",
                    "Soria, %ria, true",
                    "Soria, _oria, true",
                    "Soria, Soria, true",
                    "Soria, Sor, false",
                    "10%, 10\\%, true",
                    "10x, 10\\%, false",
                    "aXbXc, a%X%c, true",
                    "abc, %%%, true",
                    "a_c, a\\_c, true",
                    "abc, a\\_c, false",
                    "🚰x, _x, true"
                })
        void areComparedWithPatterns(String text, String pattern, boolean fits) {
            assertThat(Texts.like(text, pattern, '\\')).isEqualTo(fits);
        }

        @Test
        void emptyOnesFitOnlyWhatMayBeEmpty() {
            assertThat(Texts.like("", "", '\\')).isTrue();
            assertThat(Texts.like("", "%", '\\')).isTrue();
            assertThat(Texts.like("", "_", '\\')).isFalse();
            // As in PostgreSQL, the mark that escapes nothing is noticed only where text is left for it.
            assertThat(Texts.like("a", "a\\", '\\')).isFalse();
            assertThatThrownBy(() -> Texts.like("ab", "a\\", '\\')).isInstanceOf(RowError.class);
        }

        /** Positions that lie before the text count, as the standard says: SUBSTRING('abc' FROM -1 FOR 3) is 'a'. */
        @ParameterizedTest(name = "from {1} for {2} is {3}")
        @CsvSource(
                nullValues = "-",
                value = {
                    "abc, 1, -, abc",
                    "abc, 2, 1, b",
                    "abc, -1, 3, a",
                    "abc, 0, 1, ''",
                    "abc, 4, 2, ''",
                    "abc, 2, 100, bc",
                    "a🚰c, 2, 1, 🚰",
                    "abc, -9, 5, ''"
                })
        void areCutByCharacters(String text, long from, Long count, String part) {
            assertThat(Texts.substring(text, from, count)).isEqualTo(part);
        }

        @Test
        void areNotCutByANegativeLength() {
            assertThatThrownBy(() -> Texts.substring("abc", 1, -1L)).hasMessageContaining("negative length");
        }

        @ParameterizedTest
        @CsvSource({"BOTH, xxabxx, ab", "LEADING, xxabxx, abxx", "TRAILING, xxabxx, xxab", "BOTH, xxxx, ''"})
        void areTrimmedAtTheirSides(String side, String text, String trimmed) {
            assertThat(Texts.trim(side, "x", text)).isEqualTo(trimmed);
        }

        @Test
        void areOrderedByCodePointsNotByHalvesOfThem() {
            assertThat(Texts.compare("\uFFFD", "🚰"))
                    .as("a code unit above, a code point below")
                    .isNegative();
            assertThat(Texts.compare("a", "ab")).isNegative();
            assertThat(Texts.compare("b", "ab")).isPositive();
            assertThat(Texts.compare("ñ", "ñ")).isZero();
        }

        @Test
        void countCharactersAndPositionsFromOne() {
            assertThat(Texts.length("a🚰c")).isEqualTo(3);
            assertThat(Texts.position("c", "a🚰c")).isEqualTo(3);
            assertThat(Texts.position("", "abc")).isEqualTo(1);
            assertThat(Texts.position("z", "abc")).isZero();
        }

        @ParameterizedTest
        @ValueSource(strings = {"t", "TRUE", " yes ", "y", "on", "1", "tr"})
        void meanYes(String text) {
            assertThat(Texts.yesNo(text)).isTrue();
        }

        @ParameterizedTest
        @ValueSource(strings = {"f", "False", "no", "n", "off", "of", "0"})
        void meanNo(String text) {
            assertThat(Texts.yesNo(text)).isFalse();
        }

        @ParameterizedTest
        @ValueSource(strings = {"", "o", "maybe", "yess", "2", "sí"})
        void meanNeither(String text) {
            assertThatThrownBy(() -> Texts.yesNo(text)).isInstanceOf(RowError.class);
        }
    }

    @Nested
    @DisplayName("dates and intervals")
    class OfMoments {

        private static long second(String text) {
            return LocalDateTime.parse(text).toEpochSecond(ZoneOffset.UTC);
        }

        @ParameterizedTest(name = "{0} of {1} is {2}")
        @CsvSource({
            "YEAR, 2026-05-31T07:30:05, 2026",
            "QUARTER, 2026-05-31T07:30:05, 2",
            "WEEK, 2027-01-01T00:00, 53",
            "DOW, 2026-05-31T00:00, 0",
            "ISODOW, 2026-05-31T00:00, 7",
            "DOY, 2024-12-31T00:00, 366",
            "HOUR, 2026-05-31T07:30:05, 7",
            "SECOND, 2026-05-31T07:30:05, 5",
            "EPOCH, 1970-01-02T00:00, 86400"
        })
        void areTakenApart(String field, String at, double value) {
            assertThat(Moments.extract(field, second(at))).isEqualTo(value);
        }

        @ParameterizedTest(name = "to the {0}: {2}")
        @CsvSource({
            "year, 2026-05-31T07:30:05, 2026-01-01T00:00",
            "quarter, 2026-05-31T07:30:05, 2026-04-01T00:00",
            "month, 2026-05-31T07:30:05, 2026-05-01T00:00",
            "week, 2026-05-31T07:30:05, 2026-05-25T00:00",
            "hour, 2026-05-31T07:30:05, 2026-05-31T07:00",
            "second, 2026-05-31T07:30:05, 2026-05-31T07:30:05"
        })
        void areCut(String field, String at, String cut) {
            assertThat(Moments.at(Moments.truncate(field, second(at)))).isEqualTo(LocalDateTime.parse(cut));
        }

        @Test
        void aMonthAfterTheLastOfJanuaryIsTheLastOfFebruary() {
            assertThat(Moments.at(Moments.moved(second("2026-01-31T10:00"), new Interval(1, 0, 0))))
                    .isEqualTo(LocalDateTime.parse("2026-02-28T10:00"));
            assertThat(Moments.at(Moments.moved(second("2026-03-31T10:00"), new Interval(-1, 0, 3600))))
                    .isEqualTo(LocalDateTime.parse("2026-02-28T11:00"));
        }

        @Test
        void farBeyondAllCalendarsAreAnError() {
            assertThatThrownBy(() -> Moments.moved(0, new Interval(12_000_000, 0, 0)))
                    .isInstanceOf(RowError.class);
            assertThatThrownBy(() -> Moments.day(3_000_000_000L)).isInstanceOf(RowError.class);
            assertThatThrownBy(() -> Moments.midnight(200_000_000L)).isInstanceOf(RowError.class);
        }

        @Test
        void intervalsKeepMonthsDaysAndSecondsApart() {
            Interval both = new Interval(14, 3, 3661).plus(new Interval(0, -1, -1));
            assertThat(both).isEqualTo(new Interval(14, 2, 3660));
            assertThat(Moments.extract("YEAR", both)).isEqualTo(1);
            assertThat(Moments.extract("MONTH", both)).isEqualTo(2);
            assertThat(Moments.extract("MINUTE", both)).isEqualTo(1);
            assertThat(both.epoch()).isCloseTo(365.25 * 86_400 + 2 * 30 * 86_400 + 2 * 86_400 + 3660, within(1e-6));
            assertThat(Interval.between(second("2026-05-01T12:00"), second("2026-05-03T00:00")))
                    .isEqualTo(new Interval(0, -1, -43_200));
        }

        @ParameterizedTest
        @ValueSource(strings = {"31.5.2026", "2026-02-30", "yesterday", ""})
        void textsThatAreNoneAreAnError(String text) {
            assertThatThrownBy(() -> Moments.date(text)).isInstanceOf(RowError.class);
            assertThatThrownBy(() -> Moments.time(text)).isInstanceOf(RowError.class);
        }
    }
}
