package sarnik.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.table.Table;

@DisplayName("Functions that analysts write")
class FurtherFunctionsTest {

    private static final Surroundings TODAY = Surroundings.on(LocalDate.of(2026, 5, 31));
    private static final Table TABLE = csv("t,n,x,d,blank", "north-12,7,2.345,2024-02-29,");

    private static String value(String formula) {
        return Formula.parse(formula, Scope.of(TABLE)).compute(TABLE, TODAY).column().text(0);
    }

    // Expected values are those that the manual of PostgreSQL 15 gives for the function, or follow from its words.
    @ParameterizedTest
    @CsvSource(delimiter = '¦', quoteCharacter = '`', value = {"LENGTH('josé')¦4", "LEFT('abcde', 2)¦ab", "LEFT('abcde', -2)¦abc", "RIGHT('abcde', 2)¦de", "CONCAT('abcde', 2, NULL, 22)¦abcde222", "CONCAT_WS(',', 'abcde', 2, NULL, 22)¦abcde,2,22",
        "SPLIT_PART('abc~@~def~@~ghi', '~@~', 2)¦def", "SPLIT_PART('abc,def,ghi,jkl', ',', -2)¦ghi", "INITCAP('hi THOMAS')¦Hi Thomas", "LPAD('hi', 5, 'xy')¦xyxhi", "RPAD('hi', 5, 'xy')¦hixyx", "LPAD('hello', 2)¦he", "LTRIM('zzzytest', 'xyz')¦test",
        "BTRIM('xyxtrimyyx', 'xyz')¦trim", "REVERSE('abcde')¦edcba", "STRPOS('high', 'ig')¦2", "STARTS_WITH('alphabet', 'alph')¦yes", "REGEXP_REPLACE('Thomas', '.[mN]a.', 'M')¦ThM", "REGEXP_REPLACE('foobarbaz', 'b(..)', 'X\\1Y', 'g')¦fooXarYXazY",
        "'ÁVILA' ILIKE 'ávi%'¦yes", "'thomas' ~ 't.*ma'¦yes", "'thomas' ~* 'T.*ma'¦yes", "'thomas' !~ 'vadim'¦yes", "17 % 5¦2", "'12'::BIGINT + 1¦13", "2.345::DECIMAL(10,2)¦2.35", "LOG(100)¦2.0", "TRUNC(-2.7)¦-2.0", "SIGN(-8.4)¦-1.0",
        "MAKE_DATE(2013, 7, 15)¦2013-07-15", "TO_CHAR(DATE '2026-05-03', 'DD.MM.YYYY')¦03.05.2026", "TO_CHAR(DATE '2026-05-03', 'Mon YY')¦May 26", "TO_CHAR(DATE '2026-05-03', 'IYYY-IW')¦2026-18", "TO_DATE('05 Dec 2000', 'DD Mon YYYY')¦2000-12-05",
        "DATE '2026-01-31' + INTERVAL '1 month'¦2026-02-28T00:00", "EXTRACT(YEAR FROM AGE(DATE '2001-04-10', DATE '1957-06-13'))¦43.0", "EXTRACT(MONTH FROM AGE(DATE '2001-04-10', DATE '1957-06-13'))¦9.0", "EXTRACT(DAY FROM AGE(DATE '2001-04-10', DATE '1957-06-13'))¦27.0",
        "DATE_PART('quarter', d)¦1.0", "UPPER(LEFT(t, 1)) || SPLIT_PART(t, '-', 2)¦N12"})
    void giveWhatTheManualSays(String formula, String expected) {
        assertThat(value(formula)).isEqualTo(expected);
    }

    @Test
    void haveNoValueWhereSomethingIsMissing() {
        for (String formula : new String[] {"LENGTH(blank)", "LEFT(blank, 1)", "REGEXP_REPLACE(blank, 'a', 'b')", "blank ~ 'a'", "TO_DATE(blank, 'YYYY')"}) assertThat(value(formula)).as(formula).isNull();
    }

    @Test
    void patternsTakeATimeThatGrowsWithTheTextAlone() {
        // With backtracking this would take longer than the age of the universe.
        Table table = csv("t,u", "a".repeat(5000) + ",x");
        assertThat(Formula.parse("t ~ '(a+)+$'", Scope.of(table)).compute(table, TODAY).column().text(0)).isEqualTo("yes");
        assertThat(Formula.parse("(t || 'b') ~ '^(a|aa)+$'", Scope.of(table)).compute(table, TODAY).column().text(0)).isEqualTo("no");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', value = {"TO_CHAR(d, t)|template in quotes", "TO_CHAR(d, 'YYYY-xx')|has no meaning in a template", "n::DECIMAL(40,2)|1 to 15 digits", "LENGTH(n)|a text", "LENGHT(t)|LENGTH", "LEFT(t)|2 values"})
    void sayWhatDoesNotFit(String formula, String words) {
        assertThatThrownBy(() -> value(formula)).isInstanceOf(FormulaException.class).hasMessageContaining(words);
    }

    @Test
    void bearingIsTheDirectionOfTheGreatCircle() {
        // Baghdad to Osaka, worked out by hand: about 60 degrees.
        assertThat(Double.parseDouble(value("bearing(point(45, 35), point(135, 35))"))).isCloseTo(60.16, within(0.01));
        assertThat(Double.parseDouble(value("bearing(point(0, 0), point(0, 10))"))).isZero();
        assertThat(Double.parseDouble(value("bearing(point(0, 0), point(-10, 0))"))).isCloseTo(270, within(1e-9));
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
