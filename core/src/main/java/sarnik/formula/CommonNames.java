package sarnik.formula;

import java.util.HashMap;
import java.util.Map;

/** What functions are called elsewhere, with how the same is written here. */
final class CommonNames {

    private static final Map<String, String> WRITE = new HashMap<>();

    static {
        same("AVG(number)", "AVERAGE", "MEAN");
        same("CASE WHEN condition THEN value ELSE value END", "IF", "IIF", "IFS", "SWITCH", "DECODE", "CHOOSE");
        same("COALESCE(value, value)", "IFNULL", "NVL", "IFNA", "IFERROR", "ZEROIFNULL");
        same("value IS NULL", "ISNULL", "ISBLANK", "ISNA", "ISEMPTY");
        same("LENGTH(text)", "LEN");
        same("SUBSTRING(text FROM 1 FOR 3)", "SUBSTR", "MID", "SLICE");
        same("CONCAT(value, value)", "CONCATENATE", "JOIN", "TEXTJOIN", "STRING_AGG");
        same("POSITION(part IN text)", "CHARINDEX", "INSTR", "FIND", "INDEXOF", "LOCATE", "SEARCH", "CONTAINS");
        same("UPPER(text)", "UCASE", "TOUPPER");
        same("LOWER(text)", "LCASE", "TOLOWER");
        same("INITCAP(text)", "PROPER", "TITLE", "CAPITALIZE");
        same("TRIM(text)", "STRIP", "CLEAN");
        same("REPLACE(text, from, to)", "SUBSTITUTE", "TRANSLATE");
        same("SPLIT_PART(text, '-', 1)", "SPLIT");
        same("CURRENT_DATE", "TODAY", "NOW", "GETDATE", "SYSDATE", "CURDATE", "CURRENT_TIMESTAMP");
        for (String part : new String[] {"YEAR", "MONTH", "DAY", "HOUR", "MINUTE", "SECOND", "QUARTER", "WEEK"})
            same("EXTRACT(" + part + " FROM date)", part);
        same("EXTRACT(ISODOW FROM date)", "WEEKDAY", "DAYOFWEEK");
        same("EXTRACT(WEEK FROM date)", "WEEKNUM", "ISOWEEKNUM", "WEEKOFYEAR");
        same("later - earlier, which is days", "DATEDIFF", "DAYS", "DATE_DIFF", "TIMESTAMPDIFF");
        same("date + INTERVAL '1 month'", "DATEADD", "DATE_ADD", "EDATE", "ADD_MONTHS", "ADDDATE");
        same("MAKE_DATE(2026, 5, 31)", "DATEFROMPARTS", "MAKEDATE", "DATEVALUE");
        same("TO_CHAR(value, 'template')", "TEXT", "FORMAT", "DATE_FORMAT", "STRFTIME");
        same(
                "CAST(value AS DOUBLE PRECISION)",
                "VALUE",
                "TO_NUMBER",
                "FLOAT",
                "INT",
                "INTEGER",
                "NUMBER",
                "CONVERT",
                "STR");
        same("POWER(number, exponent)", "POW");
        same("CEIL(number)", "ROUNDUP");
        same("FLOOR(number)", "ROUNDDOWN");
        same("TRUNC(number)", "TRUNCATE", "FIX");
        same("COUNT(DISTINCT column)", "COUNTD", "DISTINCTCOUNT", "COUNT_DISTINCT", "COUNTUNIQUE", "NUNIQUE", "UNIQUE");
        same("COUNT(*) FILTER (WHERE condition)", "COUNTIF", "COUNTIFS");
        same("SUM(number) FILTER (WHERE condition)", "SUMIF", "SUMIFS");
        same("AVG(number) FILTER (WHERE condition)", "AVERAGEIF", "AVERAGEIFS");
        same("STDDEV(number)", "STDEV", "STD", "SD");
        same("VARIANCE(number)", "VAR");
        same("PERCENTILE_CONT(0.9) WITHIN GROUP (ORDER BY number)", "PERCENTILE", "QUANTILE", "QUARTILE");
        same("CORR(number, number)", "CORREL", "PEARSON");
        same("REGR_SLOPE(number, by number)", "SLOPE", "LINEST");
        same("MIN(value)", "MINIMUM");
        same("MAX(value)", "MAXIMUM");
        same("LOG(number)", "LOG_10");
        same("distance(place, point(lon, lat))", "GEODISTANCE", "HAVERSINE");
    }

    private CommonNames() {}

    private static void same(String write, String... names) {
        for (String name : names) WRITE.put(name, write);
    }

    /** How the same is written here, as a sentence with a blank before it; empty where the name means nothing known. */
    static String advice(String name) {
        String write = WRITE.get(name.toUpperCase(java.util.Locale.ROOT));
        return write == null ? "" : " Here that is written " + write + ".";
    }
}
