package sarnik.formula;

import java.util.LinkedHashMap;
import java.util.Map;

/** The words of formulas for people who write them: each function with how it is used. */
public final class FormulaWords {

    /** Functions by name, in the order in which they are taught. */
    public static final Map<String, String> FUNCTIONS = functions();

    private FormulaWords() {}

    private static Map<String, String> functions() {
        Map<String, String> uses = new LinkedHashMap<>();
        String[][] all = {
            {"SUM", "SUM(number)"},
            {"AVG", "AVG(number)"},
            {"COUNT", "COUNT(*) or COUNT(DISTINCT column)"},
            {"MIN", "MIN(number, date or text)"},
            {"MAX", "MAX(number, date or text)"},
            {"STDDEV_SAMP", "STDDEV_SAMP(number)"},
            {"VAR_SAMP", "VAR_SAMP(number)"},
            {"PERCENTILE_CONT", "PERCENTILE_CONT(0.5) WITHIN GROUP (ORDER BY number)"},
            {"PERCENTILE_DISC", "PERCENTILE_DISC(0.9) WITHIN GROUP (ORDER BY number)"},
            {"MODE", "MODE() WITHIN GROUP (ORDER BY value): the commonest"},
            {"CORR", "CORR(number, number): how they go together, -1 to 1"},
            {"REGR_SLOPE", "REGR_SLOPE(number, by number)"},
            {"REGR_INTERCEPT", "REGR_INTERCEPT(number, by number)"},
            {"REGR_R2", "REGR_R2(number, by number)"},
            {"OVER", "SUM(number) OVER (): over all groups; OVER (PARTITION BY column ORDER BY column)"},
            {"RANK", "RANK() OVER (ORDER BY SUM(number) DESC)"},
            {"DENSE_RANK", "DENSE_RANK() OVER (ORDER BY SUM(number) DESC): without gaps"},
            {"ROW_NUMBER", "ROW_NUMBER() OVER (ORDER BY column)"},
            {"LAG", "LAG(SUM(number), 12) OVER (ORDER BY column): of the row so many before"},
            {"LEAD", "LEAD(SUM(number)) OVER (ORDER BY column): of the row behind"},
            {"FILTER", "SUM(…) FILTER (WHERE condition)"},
            {"CASE", "CASE WHEN condition THEN value ELSE value END"},
            {"COALESCE", "the first value that is there"},
            {"NULLIF", "NULLIF(value, value): missing where both are equal"},
            {"CAST", "CAST(value AS DOUBLE PRECISION)"},
            {"ROUND", "ROUND(number, places)"},
            {"CEIL", "CEIL(number)"},
            {"FLOOR", "FLOOR(number)"},
            {"ABS", "ABS(number)"},
            {"POWER", "POWER(number, exponent)"},
            {"SQRT", "SQRT(number)"},
            {"LN", "LN(number)"},
            {"LOG10", "LOG10(number)"},
            {"MOD", "MOD(whole, whole)"},
            {"GREATEST", "GREATEST(value, value)"},
            {"LEAST", "LEAST(value, value)"},
            {"UPPER", "UPPER(text)"},
            {"LOWER", "LOWER(text)"},
            {"TRIM", "TRIM(text)"},
            {"SUBSTRING", "SUBSTRING(text FROM 1 FOR 3)"},
            {"POSITION", "POSITION(part IN text)"},
            {"CHAR_LENGTH", "CHAR_LENGTH(text)"},
            {"REPLACE", "REPLACE(text, from, to)"},
            {"LENGTH", "LENGTH(text)"},
            {"LEFT", "LEFT(text, 3)"},
            {"RIGHT", "RIGHT(text, 3)"},
            {"CONCAT", "CONCAT(value, value): missing ones passed over"},
            {"CONCAT_WS", "CONCAT_WS(', ', value, value)"},
            {"SPLIT_PART", "SPLIT_PART(text, '-', 1)"},
            {"INITCAP", "INITCAP(text)"},
            {"LPAD", "LPAD(text, 5, '0')"},
            {"RPAD", "RPAD(text, 5)"},
            {"LTRIM", "LTRIM(text)"},
            {"RTRIM", "RTRIM(text)"},
            {"BTRIM", "BTRIM(text, '.')"},
            {"REVERSE", "REVERSE(text)"},
            {"STRPOS", "STRPOS(text, part)"},
            {"STARTS_WITH", "STARTS_WITH(text, part)"},
            {"REGEXP_REPLACE", "REGEXP_REPLACE(text, pattern, with, 'g')"},
            {"ILIKE", "text ILIKE 'so%'"},
            {"~", "text ~ 'pattern'; ~* in any case"},
            {"TO_CHAR", "TO_CHAR(date, 'YYYY-MM') or TO_CHAR(number, 'FM999,990.00')"},
            {"TO_DATE", "TO_DATE(text, 'DD.MM.YYYY')"},
            {"MAKE_DATE", "MAKE_DATE(2026, 5, 31)"},
            {"AGE", "AGE(later, earlier): years, months, days"},
            {"DATE_PART", "DATE_PART('year', date)"},
            {"LOG", "LOG(number) or LOG(base, number)"},
            {"EXP", "EXP(number)"},
            {"SIGN", "SIGN(number)"},
            {"TRUNC", "TRUNC(number)"},
            {"WIDTH_BUCKET", "WIDTH_BUCKET(number, from, to, how many): which of equal steps"},
            {"%", "whole % whole: the rest"},
            {"::", "value::DECIMAL(10,2)"},
            {"MEDIAN", "MEDIAN(number)"},
            {"STDDEV", "STDDEV(number)"},
            {"EXTRACT", "EXTRACT(YEAR FROM date)"},
            {"DATE_TRUNC", "DATE_TRUNC('month', date)"},
            {"CURRENT_DATE", "today"},
            {"INTERVAL", "INTERVAL '3 months'"},
            {"BETWEEN", "value BETWEEN low AND high"},
            {"IN", "value IN (a, b)"},
            {"LIKE", "text LIKE 'So%'"},
            {"IS NULL", "value IS NULL"},
            {"distance", "distance(place, point(lon, lat)): metres"},
            {"bearing", "bearing(from, to): degrees from north"},
            {"point", "point(lon, lat)"},
            {"lon", "lon(): degrees east"},
            {"lat", "lat(): degrees north"},
            {"within", "within(place, 'boundary set'): the area's name"}
        };
        for (String[] use : all) uses.put(use[0], use[1]);
        return java.util.Collections.unmodifiableMap(uses);
    }

    /** A column's name as a formula writes it: in double quotes where it has to be. */
    public static String asName(String column) {
        return column.matches("[\\p{L}_][\\p{L}\\p{N}_]*")
                        && !FUNCTIONS.containsKey(column.toUpperCase(java.util.Locale.ROOT))
                        && !column.matches(
                                "(?i)and|or|not|case|when|then|else|end|is|null|true|false|from|for|as|place")
                ? column
                : "\"" + column.replace("\"", "\"\"") + "\"";
    }
}
