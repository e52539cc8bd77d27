package sarnik.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.IntFunction;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.ColumnType;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TestTables;

@DisplayName("A formula")
class FormulaTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 5, 31);
    private final Table table = TestTables.csv(
            "town,litres,people,day,seen,open,on the way",
            "Soria,12.5,40,2026-05-01,2026-05-01T07:30:00,yes,3",
            "Zamora,,0,,,no,",
            "Ávila,-2,7,2025-12-31,2025-12-31T23:59:59,,5");

    private String value(String formula, int row) {
        return Formula.parse(formula, Scope.of(table))
                .compute(table, Surroundings.on(TODAY))
                .column()
                .text(row);
    }

    private FormulaException refused(String formula) {
        return catchThrowableOfType(FormulaException.class, () -> Formula.parse(formula, Scope.of(table)));
    }

    @Nested
    @DisplayName("reaches columns")
    class Names {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {"litres | 12.5", "LITRES | 12.5", "\"on the way\" | 3", "Town | Soria", "\"litres\" * 2 | 25.0"
                })
        void byTheirNamesWhateverTheCaseAndInQuotes(String formula, String first) {
            assertThat(value(formula, 0)).isEqualTo(first);
        }

        @Test
        void andKnowsWhichOnesItUses() {
            assertThat(Formula.parse("litres / people + litres", Scope.of(table))
                            .columns())
                    .containsExactly("litres", "people");
        }

        @Test
        void andNothingElse() {
            for (String reach : new String[] {
                "pg_read_file('/etc/passwd')",
                "(SELECT 1)",
                "litres; DROP TABLE x",
                "town::regclass",
                "version()",
                "@place",
                "current_user",
                "$1",
                "litres[1]",
                "a.b"
            }) {
                assertThatThrownBy(() -> Formula.parse(reach, Scope.of(table)))
                        .as(reach)
                        .isInstanceOf(FormulaException.class);
            }
        }
    }

    @Nested
    @DisplayName("says what is wrong, where, and what would fit")
    class Refusals {

        @ParameterizedTest(name = "{0}: {3}")
        @CsvSource(
                delimiter = '|',
                quoteCharacter = '`',
                value = {
                    "litrs * 2 | 0 | 5 | Did you mean “litres”?",
                    "town * 2 | 0 | 4 | CAST turns a text into a number",
                    "litres + town | 9 | 13 | Texts are joined with ||",
                    "litres > 'many' | 9 | 15 | have to be of one type",
                    "UPER(town) | 0 | 4 | Did you mean “UPPER”?",
                    "IF(litres > 1, 2, 3) | 0 | 2 | Here that is written CASE WHEN",
                    "year(day) | 0 | 4 | EXTRACT(YEAR FROM date)",
                    "NVL(litres, 0) | 0 | 3 | COALESCE",
                    "UPPER(town, town) | 0 | 17 | takes one value in its brackets, not 2",
                    "UPPER(litres) | 6 | 12 | UPPER needs a text; this is a decimal number",
                    "litres + | 8 | 8 | expected here, not the end of the formula",
                    "(litres + 2 | 11 | 11 | ) is expected",
                    "litres 2 | 7 | 8 | could end before “2”",
                    "CASE WHEN open THEN 1 ELSE 'x' END | 27 | 30 | have to be of one type",
                    "CASE WHEN litres THEN 1 END | 10 | 16 | a condition",
                    "day >= '31.12.2025' | 7 | 19 | Write it like",
                    "DATE '2026-02-30' | 5 | 17 | is no date",
                    "INTERVAL '3' WEEKS | 13 | 18 | YEAR, MONTH, DAY",
                    "EXTRACT(HOUR FROM day) | 0 | 22 | has no HOUR",
                    "CAST(town AS MONEY) | 13 | 18 | no type to cast to",
                    "CAST(day AS INTEGER) | 0 | 20 | cannot be cast to a whole number",
                    "SUM(litres) | 0 | 11 | keep the formula as a measure",
                    "day - seen | 0 | 10 | EXTRACT(EPOCH",
                    "1 < litres < 3 | 11 | 12 | Two comparisons",
                    "'open | 0 | 5 | never closed",
                    "3x | 0 | 2 | neither a number nor a name",
                    "litres § 2 | 7 | 8 | has no meaning here",
                    ":year | 0 | 5 | no parameter",
                    "place | 0 | 5 | There is no column “place”",
                    "lon() | 0 | 5 | have no place",
                    "NULL | 0 | 4 | which no column holds",
                    "town IN () | 0 | 10 | list of IN is empty",
                    "LIKE | 0 | 4 | cannot stand here"
                })
        void inOneSentence(String formula, int from, int to, String why) {
            FormulaException refused = refused(formula);
            assertThat(refused).as(formula).isNotNull();
            assertThat(refused.getMessage()).contains(why);
            assertThat(refused.from()).as("from").isEqualTo(from);
            assertThat(refused.to()).as("to").isEqualTo(to);
        }

        @Test
        void forWhateverIsTyped() {
            Random random = new Random(3);
            String[] pieces = {
                "litres",
                "town",
                "(",
                ")",
                "+",
                "||",
                "'a'",
                "CASE",
                "WHEN",
                "THEN",
                "END",
                ",",
                "SUM(",
                "NOT",
                "1",
                ".5e",
                "\"",
                "'",
                ":p",
                "IN",
                "--",
                "\n",
                "BETWEEN",
                "AND",
                "🚰",
                "INTERVAL",
                "DATE",
                "LIKE"
            };
            for (int i = 0; i < 20_000; i++) {
                StringBuilder text = new StringBuilder();
                for (int n = random.nextInt(9); n >= 0; n--)
                    text.append(pieces[random.nextInt(pieces.length)]).append(random.nextBoolean() ? " " : "");
                try {
                    Formula.parse(text.toString(), Scope.of(table)).compute(table, Surroundings.on(TODAY));
                } catch (FormulaException refused) {
                    assertThat(refused.getMessage()).hasSizeGreaterThan(10);
                    assertThat(refused.from()).isBetween(0, text.length());
                    assertThat(refused.to()).isBetween(refused.from(), text.length());
                }
            }
        }

        @Test
        void forWhatIsTooLongOrTooDeep() {
            assertThat(refused("1" + " + 1".repeat(4000)).getMessage()).contains("longer than 10,000");
            assertThat(refused("(".repeat(500) + "1").getMessage()).contains("too deeply");
            assertThat(refused("NOT ".repeat(500) + "open").getMessage()).contains("too deeply");
            assertThat(refused("- ".repeat(500) + "1").getMessage()).contains("in a row");
        }
    }

    @Nested
    @DisplayName("that cannot be computed for a row")
    class Errors {

        @Test
        void hasNoValueThereAndSaysInHowManyRows() {
            Formula.Computed computed =
                    Formula.parse("10 / people", Scope.of(table)).compute(table, Surroundings.on(TODAY));
            assertThat(computed.unworked().count()).isEqualTo(1);
            assertThat(computed.unworked().first()).isEqualTo(1);
            assertThat(computed.unworked().why()).isEqualTo("division by zero");
            assertThat(computed.column().isMissing(1)).isTrue();
            assertThat(computed.column().text(0)).isEqualTo("0");
        }

        @Test
        void doesNotGrowTextsBeyondMemory() {
            String grows = "'" + "a".repeat(100) + "'";
            for (int i = 0; i < 20; i++) grows = "REPLACE(" + grows + ", 'a', 'aaaaaaaaaa')";
            assertThat(Formula.parse(grows, Scope.of(table))
                            .compute(table, Surroundings.on(TODAY))
                            .unworked()
                            .why())
                    .contains("100,000 characters");
        }

        @Test
        void doesNotRunLongOverPatterns() {
            String pattern = "'" + "%a".repeat(40) + "b'";
            Table long1 = TestTables.csv("t", "a".repeat(5000));
            assertThat(Formula.parse("t LIKE " + pattern, Scope.of(long1))
                            .compute(long1, Surroundings.on(TODAY))
                            .column()
                            .text(0))
                    .isEqualTo("no");
        }
    }

    @Nested
    @DisplayName("over places")
    class Places {

        private final Map<String, IntFunction<double[]>> places =
                Map.of("place", row -> row == 1 ? null : new double[] {-2.4667 - row, 41.7667});
        private final Scope scope = Scope.of(table).withPlaces(Set.of("place"), Set.of("Halves"));
        private final Surroundings surroundings = new Surroundings(
                Map.of(), places, Map.of("Halves", (lon, lat) -> lon < -3 ? "West" : lon < 0 ? "East" : null), TODAY);

        private String at(String formula, int row) {
            return Formula.parse(formula, scope)
                    .compute(table, surroundings)
                    .column()
                    .text(row);
        }

        @Test
        void givesDegrees() {
            assertThat(at("lon()", 0)).isEqualTo("-2.4667");
            assertThat(at("lat(place)", 2)).isEqualTo("41.7667");
            assertThat(at("lon()", 1)).isNull();
        }

        @Test
        void measuresDistancesInMetres() {
            // A degree of a great circle of radius 6,371,008.8 m is 111,195.08 m.
            assertThat(Double.parseDouble(at("distance(point(10, 0), point(11, 0))", 0)))
                    .isCloseTo(111_195.08, within(0.01));
            assertThat(Double.parseDouble(at("distance(point(0, 90), point(123, 0))", 0)))
                    .isCloseTo(90 * 111_195.08, within(1.0));
            assertThat(at("distance(place, point(0, 0))", 1)).isNull();
        }

        @Test
        void findsTheAreaThatHoldsThem() {
            assertThat(at("within(place, 'Halves')", 0)).isEqualTo("East");
            assertThat(at("within(place, 'Halves')", 2)).isEqualTo("West");
            assertThat(at("within(point(5, 5), 'Halves')", 0)).isNull();
            assertThatThrownBy(() -> Formula.parse("within(place, 'Halve')", scope))
                    .hasMessageContaining("Did you mean “Halves”?");
            assertThatThrownBy(() -> Formula.parse("within(place, town)", scope))
                    .hasMessageContaining("in quotes");
            assertThatThrownBy(() -> Formula.parse("place = place", scope)).hasMessageContaining("distance(");
            assertThatThrownBy(() -> Formula.parse("place", scope)).hasMessageContaining("lon(…)");
        }

        @Test
        void outOfRangeHaveNoValue() {
            assertThat(Formula.parse("lon(point(litres * 100, 0))", scope)
                            .compute(table, surroundings)
                            .unworked()
                            .why())
                    .contains("degrees out of range");
        }
    }

    @Test
    @DisplayName("knows parameters and the day")
    void parameters() {
        Scope scope = Scope.of(table).withParameters(Map.of("least", Kind.DECIMAL, "town", Kind.TEXT));
        Surroundings surroundings = new Surroundings(Map.of("least", 3.0, "town", "Soria"), Map.of(), Map.of(), TODAY);
        assertThat(Formula.parse("litres > :least AND town = :town", scope)
                        .compute(table, surroundings)
                        .column()
                        .text(0))
                .isEqualTo("yes");
        assertThat(Formula.parse("CURRENT_DATE - day", scope)
                        .compute(table, surroundings)
                        .column()
                        .text(0))
                .isEqualTo("30");
        assertThat(Formula.parse("CURRENT_DATE - day", scope).kind().column()).isEqualTo(ColumnType.WHOLE);
    }

    @Test
    @DisplayName("may hold comments and stand over several lines")
    void comments() {
        assertThat(value("litres -- per kiosk\n  * 2 -- twice", 0)).isEqualTo("25.0");
    }

    @Nested
    @DisplayName("as a measure")
    class AsMeasure {

        @ParameterizedTest
        @CsvSource(
                delimiter = '|',
                value = {
                    "litres | value of each row",
                    "2 * 3 | sums rows up",
                    "SUM(town) | SUM needs a number",
                    "MAX(town) | choose its column for colours or labels",
                    "CORR(litres) | between the two columns",
                    "CORR(litres, town) | a number",
                    "REGR_SLOPE(litres, people, people) | at the end of REGR_SLOPE",
                    "SUM(litres) + town | Sum it up",
                    "SUM(SUM(litres)) | sums up many rows",
                    "SUM(*) | Only COUNT",
                    "SUM() | needs something to sum up",
                    "PERCENTILE_CONT(2) WITHIN GROUP (ORDER BY litres) | from 0 to 1",
                    "MODE() | WITHIN is expected",
                    "COUNT(*) > 3 | A measure is a number",
                    "SUM(litres) FILTER (WHERE litres) | a condition",
                    "RANK() | OVER is expected",
                    "RANK() OVER () | goes along an order",
                    "AVG(litres) OVER () | sum it up first",
                    "LAG(litres) OVER (ORDER BY town) | sum it up first",
                    "LAG(SUM(litres), 1.5) OVER (ORDER BY town) | a whole number",
                    "SUM(litres) FILTER (WHERE open) OVER () | sum up first",
                    "SUM(SUM(litres) OVER ()) OVER () | cannot stand inside another",
                    "SUM(litres) OVER (PARTITION BY litres + 1) | names a column",
                    "SUM(litres) OVER (ROWS 3 PRECEDING) | needs an order",
                    "SUM(litres) OVER (ORDER BY nowhere) | no column",
                    "RANK() OVER (ORDER BY town ROWS 3 PRECEDING) | takes no ROWS"
                })
        void isRefusedWhereItIsNone(String formula, String why) {
            assertThatThrownBy(() -> MeasureFormula.parse(formula, Scope.of(table)))
                    .isInstanceOf(FormulaException.class)
                    .hasMessageContaining(why);
        }

        @Test
        void comesApartIntoSummariesAndWhatIsMadeOfThem() {
            MeasureFormula formula =
                    MeasureFormula.parse("SUM(litres) * 1000 / SUM(people) FILTER (WHERE open)", Scope.of(table));
            assertThat(formula.parts(table, Surroundings.on(TODAY)))
                    .extracting(MeasureFormula.Part::function)
                    .containsExactly("SUM", "SUM");
            assertThat(((DecimalColumn) formula.parts(table, Surroundings.on(TODAY))
                                    .get(1)
                                    .values())
                            .all())
                    .containsExactly(40, Double.NaN, Double.NaN);
            List<MeasureFormula.Part> parts = formula.parts(table, Surroundings.on(TODAY));
            assertThat(formula.of(new double[] {10, 4}, parts, Surroundings.on(TODAY)))
                    .isEqualTo(2500);
            assertThat(formula.of(new double[] {10, Double.NaN}, parts, Surroundings.on(TODAY)))
                    .isNaN();
            assertThat(formula.of(new double[] {10, 0}, parts, Surroundings.on(TODAY)))
                    .as("division by zero")
                    .isNaN();
        }

        @Test
        void wholeNumbersOfSumsKeepTheirFractionWhenDivided() {
            MeasureFormula formula = MeasureFormula.parse("SUM(people) / SUM(people)", Scope.of(table));
            assertThat(formula.of(
                            new double[] {1, 3}, formula.parts(table, Surroundings.on(TODAY)), Surroundings.on(TODAY)))
                    .isCloseTo(1 / 3.0, within(1e-12));
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "litres * 2 > 3 AND NOT open OR town LIKE 'S%'",
                "CASE town WHEN 'Soria' THEN 1 ELSE 2 END",
                "TRIM(LEADING 'S' FROM town) || 'x'",
                "SUBSTRING(town FROM 2 FOR 3)",
                "litres IS NOT DISTINCT FROM people",
                "day + INTERVAL '1' MONTH BETWEEN '2026-01-01' AND TIMESTAMP '2026-12-31 00:00:00'"
            })
    @DisplayName("reads the standard's syntax")
    void syntax(String formula) {
        assertThat(Formula.parse(formula, Scope.of(table)).sql()).isNotBlank();
    }
}
