package sarnik.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.query.FormulaMeasure;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Summary;
import sarnik.table.Table;

@DisplayName("Functions that analysts write")
class FurtherFunctionsTest {

    private static final Surroundings TODAY = Surroundings.on(LocalDate.of(2026, 5, 31));
    private static final Table TABLE = csv("t,n,x,d,blank", "north-12,7,2.345,2024-02-29,");

    private static String value(String formula) {
        return Formula.parse(formula, Scope.of(TABLE))
                .compute(TABLE, TODAY)
                .column()
                .text(0);
    }

    // Expected values are those that the manual of PostgreSQL 15 gives for the function, or follow from its words.
    @ParameterizedTest
    @CsvSource(
            delimiter = '¦',
            quoteCharacter = '`',
            value = {
                "LENGTH('josé')¦4",
                "LEFT('abcde', 2)¦ab",
                "LEFT('abcde', -2)¦abc",
                "RIGHT('abcde', 2)¦de",
                "CONCAT('abcde', 2, NULL, 22)¦abcde222",
                "CONCAT_WS(',', 'abcde', 2, NULL, 22)¦abcde,2,22",
                "SPLIT_PART('abc~@~def~@~ghi', '~@~', 2)¦def",
                "SPLIT_PART('abc,def,ghi,jkl', ',', -2)¦ghi",
                "INITCAP('hi THOMAS')¦Hi Thomas",
                "LPAD('hi', 5, 'xy')¦xyxhi",
                "RPAD('hi', 5, 'xy')¦hixyx",
                "LPAD('hello', 2)¦he",
                "LTRIM('zzzytest', 'xyz')¦test",
                "BTRIM('xyxtrimyyx', 'xyz')¦trim",
                "REVERSE('abcde')¦edcba",
                "STRPOS('high', 'ig')¦2",
                "STARTS_WITH('alphabet', 'alph')¦yes",
                "REGEXP_REPLACE('Thomas', '.[mN]a.', 'M')¦ThM",
                "REGEXP_REPLACE('foobarbaz', 'b(..)', 'X\\1Y', 'g')¦fooXarYXazY",
                "'ÁVILA' ILIKE 'ávi%'¦yes",
                "'thomas' ~ 't.*ma'¦yes",
                "'thomas' ~* 'T.*ma'¦yes",
                "'thomas' !~ 'vadim'¦yes",
                "17 % 5¦2",
                "'12'::BIGINT + 1¦13",
                "2.345::DECIMAL(10,2)¦2.35",
                "LOG(100)¦2.0",
                "TRUNC(-2.7)¦-2.0",
                "SIGN(-8.4)¦-1.0",
                "MAKE_DATE(2013, 7, 15)¦2013-07-15",
                "TO_CHAR(DATE '2026-05-03', 'DD.MM.YYYY')¦03.05.2026",
                "TO_CHAR(DATE '2026-05-03', 'Mon YY')¦May 26",
                "TO_CHAR(DATE '2026-05-03', 'IYYY-IW')¦2026-18",
                "TO_DATE('05 Dec 2000', 'DD Mon YYYY')¦2000-12-05",
                "DATE '2026-01-31' + INTERVAL '1 month'¦2026-02-28T00:00",
                "EXTRACT(YEAR FROM AGE(DATE '2001-04-10', DATE '1957-06-13'))¦43.0",
                "EXTRACT(MONTH FROM AGE(DATE '2001-04-10', DATE '1957-06-13'))¦9.0",
                "EXTRACT(DAY FROM AGE(DATE '2001-04-10', DATE '1957-06-13'))¦27.0",
                "DATE_PART('quarter', d)¦1.0",
                "UPPER(LEFT(t, 1)) || SPLIT_PART(t, '-', 2)¦N12"
            })
    void giveWhatTheManualSays(String formula, String expected) {
        assertThat(value(formula)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '¦',
            quoteCharacter = '`',
            value = {
                "-0.1, '99.99'¦`  -.10`",
                "-0.1, 'FM9.99'¦-.1",
                "-0.1, 'FM90.99'¦-0.1",
                "0.1, '0.9'¦` 0.1`",
                "12, '9990999.9'¦`    0012.0`",
                "12, 'FM9990999.9'¦0012.",
                "485, '999'¦` 485`",
                "-485, '999'¦-485",
                "1485, '9,999'¦` 1,485`",
                "148.5, '999.999'¦` 148.500`",
                "148.5, 'FM999.999'¦148.5",
                "148.5, 'FM999.990'¦148.500",
                "-485, '999S'¦485-",
                "-485, '999MI'¦485-",
                "485, '999MI'¦`485 `",
                "485, 'FM999MI'¦485",
                "-485, '999PR'¦<485>",
                "485, '\"Good number:\"999'¦`Good number: 485`",
                "485.8, '\"Pre:\"999\" Post:\" .999'¦`Pre: 485 Post: .800`",
                "1234, '999'¦` ###`",
                "2.5, 'FM999,990.00 €'¦2.50 €"
            })
    void numbersAreWrittenByTemplates(String arguments, String expected) {
        assertThat(value("TO_CHAR(" + arguments + ")")).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'99.9.9' | one point",
                "'RN' | no meaning in a template for numbers",
                "'.99' | a digit before the point",
                "'9\"' | closing double quote",
                "'S9S' | one S"
            })
    void otherTemplatesForNumbersAreRefused(String template, String why) {
        assertThatThrownBy(() -> Formula.parse("TO_CHAR(n, '" + template + "')", Scope.of(TABLE)))
                .isInstanceOf(FormulaException.class)
                .hasMessageContaining(why);
    }

    // The manual: width_bucket(5.35, 0.024, 10.06, 5) is 3; below and beyond the ends 0 and 6.
    @ParameterizedTest
    @CsvSource({
        "5.35, 0.024, 10.06, 3",
        "0.01, 0.024, 10.06, 0",
        "10.06, 0.024, 10.06, 6",
        "5.35, 10.06, 0.024, 3",
        "11, 10.06, 0.024, 0"
    })
    void stepsAreCounted(double value, double from, double to, String step) {
        assertThat(value("WIDTH_BUCKET(" + value + ", " + from + ", " + to + ", 5)"))
                .isEqualTo(step);
    }

    @Test
    void twoColumnsGoTogetherAsTheyAreKnownTo() {
        // The first of Anscombe's quartet (The American Statistician 27, 1973): y = 3.0001 + 0.5001 x, r = 0.81642.
        StringBuilder rows = new StringBuilder();
        double[][] pairs = {
            {10, 8.04},
            {8, 6.95},
            {13, 7.58},
            {9, 8.81},
            {11, 8.33},
            {14, 9.96},
            {6, 7.24},
            {4, 4.26},
            {12, 10.84},
            {7, 4.82},
            {5, 5.68}
        };
        for (double[] pair : pairs)
            rows.append(pair[0]).append(',').append(pair[1]).append('\n');
        Table table = csv(("x,y\n" + rows + "3,").split("\n"));
        assertThat(measure("CORR(y, x)", table)).isCloseTo(0.81642, within(1e-5));
        assertThat(measure("REGR_SLOPE(y, x)", table)).isCloseTo(0.5001, within(1e-4));
        assertThat(measure("REGR_INTERCEPT(y, x)", table)).isCloseTo(3.0001, within(1e-4));
        assertThat(measure("REGR_R2(y, x)", table)).isCloseTo(0.66654, within(1e-5));
        assertThat(measure("CORR(y, x) FILTER (WHERE x = 10)", table)).isNaN();
    }

    @Test
    void theCommonestTextAndTheFirstAndLastAreThereWithinAFormula() {
        Table table = csv("t,n", "b,1", "a,2", "b,3", "c,4", ",5");
        assertThat(measure("CASE WHEN MODE() WITHIN GROUP (ORDER BY t) = 'b' THEN 1 ELSE 0 END", table))
                .isEqualTo(1);
        assertThat(measure("POSITION(MIN(t) IN 'xya') * 10 + POSITION(MAX(t) IN 'xyc')", table))
                .isEqualTo(33);
        assertThat(measure("CHAR_LENGTH(MIN(t) FILTER (WHERE n > 4))", table)).isNaN();
    }

    @Test
    void windowsGoOverTheGroupsOfTheFigureAndSayWhereTheyCannot() {
        Table table = csv("town,month,n", "Soria,1,10", "Soria,2,30", "Zamora,1,60", "Zamora,3,");
        Query byTown = Query.of(List.of(), List.of("town"), List.of(new Measure(Summary.FORMULA, "m")));
        Query byMonth = Query.of(List.of(), List.of("month"), List.of(new Measure(Summary.FORMULA, "m")));
        assertThat(values(table, byTown, "SUM(n) * 100 / SUM(n) OVER ()")).containsExactly(40, 60);
        assertThat(values(table, byTown, "RANK() OVER (ORDER BY SUM(n) DESC)")).containsExactly(2, 1);
        assertThat(values(table, byMonth, "SUM(SUM(n)) OVER (ORDER BY month)")).containsExactly(70, 100, 100);
        assertThat(values(table, byMonth, "SUM(n) - LAG(SUM(n)) OVER (ORDER BY month)"))
                .containsExactly(Double.NaN, -40, Double.NaN);
        assertThatThrownBy(() -> values(table, byTown, "LAG(SUM(n)) OVER (ORDER BY month)"))
                .hasMessageContaining("goes along “month”, by which the figures here are not grouped");
    }

    private static double[] values(Table table, Query query, String formula) {
        FormulaMeasure made = FormulaMeasure.of(MeasureFormula.parse(formula, Scope.of(table)), table, TODAY);
        return new InMemoryEngine()
                .answer(table, query.with(Map.of("m", made)))
                .values()
                .get(0);
    }

    private static double measure(String formula, Table table) {
        FormulaMeasure made = FormulaMeasure.of(MeasureFormula.parse(formula, Scope.of(table)), table, TODAY);
        return new InMemoryEngine()
                .answer(
                        table,
                        Query.of(List.of(), List.of(), List.of(new Measure(Summary.FORMULA, "m")))
                                .with(Map.of("m", made)))
                .value(0, 0);
    }

    @Test
    void haveNoValueWhereSomethingIsMissing() {
        for (String formula : new String[] {
            "LENGTH(blank)",
            "LEFT(blank, 1)",
            "REGEXP_REPLACE(blank, 'a', 'b')",
            "blank ~ 'a'",
            "TO_DATE(blank, 'YYYY')"
        }) assertThat(value(formula)).as(formula).isNull();
    }

    @Test
    void patternsTakeATimeThatGrowsWithTheTextAlone() {
        // With backtracking this would take longer than the age of the universe.
        Table table = csv("t,u", "a".repeat(5000) + ",x");
        assertThat(Formula.parse("t ~ '(a+)+$'", Scope.of(table))
                        .compute(table, TODAY)
                        .column()
                        .text(0))
                .isEqualTo("yes");
        assertThat(Formula.parse("(t || 'b') ~ '^(a|aa)+$'", Scope.of(table))
                        .compute(table, TODAY)
                        .column()
                        .text(0))
                .isEqualTo("no");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "TO_CHAR(d, t)|template in quotes",
                "TO_CHAR(d, 'YYYY-xx')|has no meaning in a template",
                "n::DECIMAL(40,2)|1 to 15 digits",
                "LENGTH(n)|a text",
                "LENGHT(t)|LENGTH",
                "LEFT(t)|2 values"
            })
    void sayWhatDoesNotFit(String formula, String words) {
        assertThatThrownBy(() -> value(formula))
                .isInstanceOf(FormulaException.class)
                .hasMessageContaining(words);
    }

    @Test
    void bearingIsTheDirectionOfTheGreatCircle() {
        // Baghdad to Osaka, worked out by hand: about 60 degrees.
        assertThat(Double.parseDouble(value("bearing(point(45, 35), point(135, 35))")))
                .isCloseTo(60.16, within(0.01));
        assertThat(Double.parseDouble(value("bearing(point(0, 0), point(0, 10))")))
                .isZero();
        assertThat(Double.parseDouble(value("bearing(point(0, 0), point(-10, 0))")))
                .isCloseTo(270, within(1e-9));
    }

    @Test
    void measuresAreWrittenWholeAndDatesAsDates() {
        Scope scope = Scope.of(csv("d,n", "2025-03-01,1", "2025-04-02,2"));
        assertThat(MeasureFormula.parse("MIN(d)", scope).words(20148)).isEqualTo("2025-03-01");
        assertThat(MeasureFormula.parse("MIN(d)", scope).words(Double.NaN)).isEqualTo("–");
        assertThat(MeasureFormula.parse("SUM(n)", scope).words(12345678)).isEqualTo("12,345,678");
        assertThat(MeasureFormula.parse("AVG(n)", scope).words(1234.5678)).isEqualTo("1,234.5678");
        assertThat(MeasureFormula.parse("SUM(n) / 3", scope).words(1 / 3.0)).isEqualTo("0.333333333333333");
    }
}
