package sarnik.app.formula;

import java.util.List;
import java.util.Random;
import sarnik.formula.Kind;

/** Makes expressions of every type at random, over columns of {@link FormulaAgainstPostgresTest}. */
final class Expressions {

    /** One of each thing that can be written, with what is missing, out of range or none. */
    static final List<String> OF_EACH_KIND = List.of(
            "ABS(n)",
            "ABS(x)",
            "CEIL(x)",
            "CEILING(-x)",
            "FLOOR(y)",
            "SQRT(ABS(x))",
            "SQRT(x)",
            "LN(ABS(x) + 1)",
            "LOG(ABS(y) + 1)",
            "LOG(2, ABS(y) + 1)",
            "LOG(1, 5)",
            "EXP(x / 1e6)",
            "SIGN(n)",
            "TRUNC(x)",
            "TRUNC(-0.5)",
            "DEGREES(x)",
            "RADIANS(x)",
            "PI()",
            "LOG10(ABS(x) + 0.001)",
            "POWER(x, 2)",
            "POWER(0, n)",
            "ROUND(x)",
            "ROUND(x, 1)",
            "ROUND(n, -1)",
            "ROUND(2.5)",
            "WIDTH_BUCKET(x, -5, 5, 4)",
            "MOD(n, 7)",
            "MOD(n, m)",
            "GREATEST(n, m, 3)",
            "GREATEST(x, n)",
            "LEAST(t, u)",
            "LEAST(d, e)",
            "GREATEST(s, d)",
            "COALESCE(n, m, 0)",
            "COALESCE(x, n)",
            "COALESCE(t, 'none')",
            "COALESCE(d, s)",
            "NULLIF(n, 3)",
            "NULLIF(t, u)",
            "UPPER(t)",
            "LOWER(t)",
            "CHARACTER_LENGTH(t)",
            "CHAR_LENGTH(NULL)",
            "REPLACE(t, 'a', 'xyz')",
            "REPLACE(t, '', 'x')",
            "POSITION('a' IN t)",
            "SUBSTRING(t FROM 2 FOR 1)",
            "SUBSTRING(t FROM -1 FOR 3)",
            "SUBSTRING(t FROM 1 FOR -1)",
            "SUBSTRING(t, 2)",
            "LEFT(t, n)",
            "RIGHT(t, -1)",
            "LPAD(t, 5)",
            "LPAD(t, 5, '')",
            "RPAD(t, -1, 'x')",
            "LTRIM(t)",
            "RTRIM(t, 'bX')",
            "BTRIM(t, 'a')",
            "TRIM(t)",
            "TRIM(BOTH FROM t)",
            "TRIM(LEADING 'a' FROM t)",
            "TRIM(TRAILING 'b' FROM t)",
            "INITCAP(t)",
            "REVERSE(t)",
            "STRPOS(t, 'b')",
            "STRPOS(t, '')",
            "STARTS_WITH(t, 'a')",
            "CONCAT(t, n, d, b, x)",
            "CONCAT_WS('-', t, n, u)",
            "CONCAT_WS(NULL, t, u)",
            "SPLIT_PART(t, 'b', 1)",
            "SPLIT_PART(t, 'b', -1)",
            "SPLIT_PART(t, '-', 3)",
            "SPLIT_PART(t, '-', 0)",
            "REGEXP_REPLACE(t, 'a', 'z')",
            "REGEXP_REPLACE(t, 'a(.)', '[\\1]', 'g')",
            "REGEXP_REPLACE(t, 'A', 'z', 'i')",
            "REGEXP_REPLACE(t, '.', '\\&\\&', 'g')",
            "t ~ 'a.?b'",
            "t ~* 'AB'",
            "t !~ '[0-9]'",
            "t !~* 'Á'",
            "t LIKE 'a%'",
            "t NOT LIKE '%b'",
            "t ILIKE 'A_B'",
            "t LIKE '10!%' ESCAPE '!'",
            "t || u",
            "t || n",
            "t || x",
            "t || s",
            "b || t",
            "MAKE_DATE(2024, 2, 29)",
            "MAKE_DATE(2023, 2, 29)",
            "MAKE_DATE(2023, 13, 1)",
            "AGE(d, e) IS NULL",
            "EXTRACT(YEAR FROM AGE(s, r))",
            "EXTRACT(MONTH FROM AGE(d, e))",
            "EXTRACT(DAY FROM AGE(e, d))",
            "EXTRACT(DAY FROM s - r)",
            "EXTRACT(HOUR FROM s - r)",
            "EXTRACT(EPOCH FROM s - r)",
            "EXTRACT(EPOCH FROM s)",
            "EXTRACT(SECOND FROM s)",
            "EXTRACT(WEEK FROM d)",
            "EXTRACT(QUARTER FROM d)",
            "EXTRACT(DOW FROM d)",
            "EXTRACT(ISODOW FROM d)",
            "EXTRACT(DOY FROM s)",
            "DATE_PART('month', s)",
            "DATE_PART('hour', s)",
            "DATE_TRUNC('quarter', d)",
            "DATE_TRUNC('week', s)",
            "DATE_TRUNC('hour', s)",
            "DATE_TRUNC('day', d)",
            "TO_CHAR(s, 'YYYY-MM-DD HH24:MI:SS')",
            "TO_CHAR(s, 'HH12:MI AM')",
            "TO_CHAR(s, 'HH:MI pm')",
            "TO_CHAR(d, 'Day, DD Month YYYY')",
            "TO_CHAR(d, 'FMDD FMMonth FMMM YY')",
            "TO_CHAR(d, 'dy mon D ID Q WW IW DDD')",
            "TO_CHAR(d, 'DY MON Dy')",
            "TO_CHAR(d, 'DAY MONTH IYYY')",
            "TO_CHAR(n, '999,999,999,990')",
            "TO_CHAR(x, 'FM990.00')",
            "TO_CHAR(x, 'S9990.0')",
            "TO_CHAR(x, '9990.0MI')",
            "TO_CHAR(x, '9990.0PR')",
            "TO_DATE('31.12.2025', 'DD.MM.YYYY')",
            "TO_DATE('5 Mar 2024', 'DD Mon YYYY')",
            "TO_DATE('30.02.2024', 'DD.MM.YYYY')",
            "d + 1",
            "1 + d",
            "d - 1",
            "d - e",
            "d + INTERVAL '1 month'",
            "INTERVAL '1 month' + d",
            "s + INTERVAL '2 days 3 hours'",
            "s - INTERVAL '90 minutes'",
            "INTERVAL '2 days' + s",
            "EXTRACT(DAY FROM INTERVAL '1 day' * 3)",
            "EXTRACT(HOUR FROM INTERVAL '3 hours' - INTERVAL '1 hour')",
            "EXTRACT(EPOCH FROM INTERVAL '1 day' + INTERVAL '1 hour')",
            "d < s",
            "d = '2025-01-31'",
            "s >= '2025-01-01 12:00'",
            "n + m",
            "n - m",
            "n * m",
            "n / m",
            "n / 0",
            "n * 4000000000 * 4000000000",
            "x + n",
            "x / y",
            "x / 0",
            "-n",
            "+x",
            "-x * y",
            "n % 3",
            "n = m",
            "n <> x",
            "x < y",
            "t < u",
            "t >= 'b'",
            "b = c",
            "b < c",
            "n = NULL",
            "b AND c",
            "b OR c",
            "NOT b",
            "b AND NULL",
            "b OR NULL",
            "NULL OR b",
            "b IS TRUE",
            "b IS NOT FALSE",
            "b IS UNKNOWN",
            "n IS NULL",
            "t IS NOT NULL",
            "n IS DISTINCT FROM m",
            "t IS NOT DISTINCT FROM u",
            "x IS DISTINCT FROM NULL",
            "n BETWEEN 0 AND 5",
            "x NOT BETWEEN n AND 3",
            "d BETWEEN '2024-06-01' AND e",
            "t BETWEEN 'a' AND 'b'",
            "n IN (1, 2, 3)",
            "t NOT IN ('a', 'b')",
            "t IN ('a', NULL)",
            "x IN (n, 1.5)",
            "CASE WHEN n > 0 THEN 'more' WHEN n < 0 THEN 'less' END",
            "CASE t WHEN 'a' THEN 1 WHEN u THEN 2 ELSE 0 END",
            "CASE WHEN b THEN n ELSE x END",
            "CASE WHEN b THEN d ELSE s END",
            "CAST(x AS BIGINT)",
            "CAST(2.5 AS INTEGER)",
            "CAST(n AS INTEGER)",
            "CAST(n AS SMALLINT)",
            "CAST(n AS DOUBLE PRECISION)",
            "CAST(n AS VARCHAR)",
            "CAST(x AS VARCHAR)",
            "CAST(b AS VARCHAR)",
            "CAST(d AS VARCHAR)",
            "CAST(s AS VARCHAR)",
            "CAST(t AS VARCHAR(2))",
            "CAST(n AS VARCHAR(1))",
            "CAST(x AS DECIMAL(12,1))",
            "CAST(x AS DECIMAL(3,1))",
            "CAST(n AS NUMERIC(4))",
            "CAST(' 12 ' AS BIGINT)",
            "CAST('12.5' AS BIGINT)",
            "CAST(' 1.5e2 ' AS DOUBLE PRECISION)",
            "CAST('x' AS DOUBLE PRECISION)",
            "CAST('2025-01-31' AS DATE)",
            "CAST('2025-01-31 10:00' AS TIMESTAMP)",
            "CAST('yes' AS BOOLEAN)",
            "CAST('of' AS BOOLEAN)",
            "CAST('maybe' AS BOOLEAN)",
            "CAST(t AS BIGINT)",
            "CAST(t AS BOOLEAN)",
            "CAST(d AS TIMESTAMP)",
            "CAST(s AS DATE)",
            "n::DOUBLE PRECISION / 3",
            "CURRENT_DATE - d > -100000");

    private final Random random;

    Expressions(long seed) {
        random = new Random(seed);
    }

    private String any(String... words) {
        return words[random.nextInt(words.length)];
    }

    String of(Kind kind, int depth) {
        if (depth > 0 && random.nextInt(12) == 0) return choice(kind, depth - 1);
        if (depth > 0 && random.nextInt(14) == 0)
            return any("COALESCE", "NULLIF") + "(" + column(kind) + ", " + of(kind, depth - 1) + ")";
        if (depth > 0 && random.nextInt(20) == 0 && kind != Kind.YES_NO)
            return any("GREATEST", "LEAST") + "(" + of(kind, depth - 1) + ", " + of(kind, depth - 1) + ", " + leaf(kind)
                    + ")";
        if (depth == 0) return leaf(kind);
        return switch (kind) {
            case WHOLE -> whole(depth - 1);
            case DECIMAL -> decimal(depth - 1);
            case TEXT -> text(depth - 1);
            case DATE -> date(depth - 1);
            case TIME -> time(depth - 1);
            default -> yesNo(depth - 1);
        };
    }

    /**
     * A column and no literal: PostgreSQL leaves out what stands beside a NULL that it knows beforehand, errors and
     * all.
     */
    private String column(Kind kind) {
        return switch (kind) {
            case WHOLE -> any("n", "m");
            case DECIMAL -> any("x", "y");
            case TEXT -> any("t", "u");
            case DATE -> any("d", "e");
            case TIME -> any("s", "r");
            default -> any("b", "c");
        };
    }

    private String choice(Kind kind, int depth) {
        if (random.nextBoolean())
            return "CASE WHEN " + of(Kind.YES_NO, depth) + " THEN " + of(kind, depth)
                    + (random.nextBoolean() ? " ELSE " + of(kind, depth) : "") + " END";
        return "CASE " + of(Kind.WHOLE, 0) + " WHEN 1 THEN " + of(kind, depth) + " WHEN n THEN " + of(kind, depth)
                + " ELSE NULL END";
    }

    private String leaf(Kind kind) {
        return switch (kind) {
            case WHOLE -> any("n", "m", "n", "m", "3", "-2", "0", "1000000007");
            case DECIMAL -> any("x", "y", "x", "y", "0.5", "-2.25", "1e3", "3.0");
            case TEXT -> any("t", "u", "t", "u", "'a'", "'Ávila'", "''", "'12'", "' b '");
            case DATE -> any("d", "e", "d", "DATE '2024-02-29'");
            case TIME -> any("s", "r", "s", "TIMESTAMP '2025-12-31 23:59:59'");
            default -> any("b", "c", "b", "TRUE", "FALSE");
        };
    }

    private String whole(int depth) {
        return switch (random.nextInt(16)) {
            case 12 -> "LENGTH(" + of(Kind.TEXT, depth) + ")";
            case 13 -> "(" + of(Kind.WHOLE, depth) + " % " + any("n", "m", "7") + ")";
            case 15 ->
                "WIDTH_BUCKET(" + of(Kind.DECIMAL, depth) + ", " + any("0", "-2.5", "10", "x") + ", "
                        + any("10", "-2.5", "y", "1e3") + ", " + any("1", "4", "7", "n") + ")";
            case 14 -> "STRPOS(" + of(Kind.TEXT, depth) + ", " + any("'a'", "u", "'b'") + ")";
            case 0, 1, 2 -> "(" + any("n", "m") + " " + any("+", "-", "*", "/") + " " + of(Kind.WHOLE, depth) + ")";
            case 3 -> "MOD(" + of(Kind.WHOLE, depth) + ", " + any("n", "m", "7") + ")";
            case 4 -> "ABS(" + of(Kind.WHOLE, depth) + ")";
            case 5 -> "-(" + of(Kind.WHOLE, 0) + ")";
            case 6 -> "CHAR_LENGTH(" + of(Kind.TEXT, depth) + ")";
            case 7 -> "POSITION(" + of(Kind.TEXT, 0) + " IN " + of(Kind.TEXT, depth) + ")";
            case 8 -> "CAST(" + of(Kind.DECIMAL, depth) + " AS " + any("BIGINT", "INTEGER") + ")";
            case 9 -> "CAST(" + any("t", "u") + " AS BIGINT)";
            case 10 -> "(" + any("d", "e") + " - " + of(Kind.DATE, depth) + ")";
            default -> "CAST(" + of(Kind.WHOLE, depth) + " AS INTEGER)";
        };
    }

    private String decimal(int depth) {
        return switch (random.nextInt(18)) {
            case 14 -> any("SIGN", "TRUNC", "EXP", "LOG") + "(" + of(Kind.DECIMAL, depth) + ")";
            case 15 -> "(" + of(Kind.DECIMAL, depth) + ")::" + any("DECIMAL(10,2)", "NUMERIC(6,1)", "DOUBLE PRECISION");
            case 16 -> "DATE_PART('" + any("year", "month", "dow") + "', " + of(Kind.DATE, depth) + ")";
            case 17 ->
                "EXTRACT(" + any("YEAR", "MONTH", "DAY") + " FROM AGE(" + of(Kind.DATE, 0) + ", " + any("d", "e")
                        + "))";
            case 0, 1, 2 -> "(" + any("x", "y") + " " + any("+", "-", "*", "/") + " " + of(Kind.DECIMAL, depth) + ")";
            case 3 -> "(" + any("n", "m") + " " + any("+", "-", "*", "/") + " " + of(Kind.DECIMAL, depth) + ")";
            case 4 -> "ROUND(" + of(Kind.DECIMAL, depth) + ")";
            case 5 -> "ROUND(" + of(Kind.DECIMAL, depth) + ", " + any("0", "1", "2", "-1") + ")";
            case 6 -> any("CEIL", "FLOOR") + "(" + of(Kind.DECIMAL, depth) + ")";
            case 7 -> "SQRT(" + of(Kind.DECIMAL, depth) + ")";
            case 8 -> any("LN", "LOG10") + "(" + of(Kind.DECIMAL, depth) + ")";
            case 9 -> "POWER(" + of(Kind.DECIMAL, depth) + ", " + any("2", "0.5", "-1", "n") + ")";
            case 10 -> "CAST(" + any("t", "u", "n", "'1e2'") + " AS DOUBLE PRECISION)";
            case 11 ->
                "EXTRACT(" + any("YEAR", "QUARTER", "MONTH", "WEEK", "DAY", "DOW", "ISODOW", "DOY", "EPOCH") + " FROM "
                        + of(random.nextBoolean() ? Kind.DATE : Kind.TIME, depth) + ")";
            case 12 -> "EXTRACT(" + any("HOUR", "MINUTE", "SECOND") + " FROM " + of(Kind.TIME, depth) + ")";
            default ->
                "EXTRACT(" + any("EPOCH", "DAY", "HOUR") + " FROM " + any("s", "r") + " - " + of(Kind.TIME, depth)
                        + ")";
        };
    }

    private String text(int depth) {
        return switch (random.nextInt(19)) {
            case 9 -> any("LEFT", "RIGHT") + "(" + of(Kind.TEXT, depth) + ", " + any("1", "2", "-1", "n") + ")";
            case 10 ->
                any("LPAD", "RPAD") + "(" + of(Kind.TEXT, depth) + ", " + any("3", "6", "0") + any("", ", 'xy'", ", ''")
                        + ")";
            case 11 -> any("LTRIM", "RTRIM", "BTRIM") + "(" + of(Kind.TEXT, depth) + any("", ", 'ab'") + ")";
            case 12 ->
                "CONCAT(" + of(Kind.TEXT, depth) + ", "
                        + of(List.of(Kind.TEXT, Kind.WHOLE, Kind.DATE).get(random.nextInt(3)), 0) + ", t)";
            case 13 ->
                "CONCAT_WS(" + any("'-'", "', '", "u") + ", " + of(Kind.TEXT, depth) + ", " + of(Kind.TEXT, 0) + ")";
            case 14 ->
                "SPLIT_PART(" + of(Kind.TEXT, depth) + ", " + any("'a'", "'-'", "''", "u") + ", " + any("1", "2", "-1")
                        + ")";
            case 15 ->
                "REGEXP_REPLACE(" + of(Kind.TEXT, depth) + ", " + any("'[a-b]+'", "'(a|ab)(.)'", "'\\d'", "'^.'") + ", "
                        + any("'z'", "'<\\1>'", "'[\\&]'") + any("", ", 'g'", ", 'gi'") + ")";
            case 16 ->
                "TO_CHAR(" + any("d", "e", "s", "r") + ", '"
                        + any(
                                "YYYY-MM-DD",
                                "DD.MM.YY",
                                "Mon YYYY",
                                "HH24:MI:SS",
                                "IYYY-IW",
                                "Q",
                                "Day",
                                "MONTH",
                                "DDD",
                                "ID D",
                                "HH12 AM",
                                "FMMonth FMDD")
                        + "')";
            case 18 ->
                "TO_CHAR(" + any("n", "m", "x", "y", "0.5", "-0.25", "1234.565", "0", "-1e7") + ", '"
                        + any(
                                "999",
                                "FM999",
                                "9,990.00",
                                "FM9,999,990.99",
                                "S999.9",
                                "99.9S",
                                "999MI",
                                "FM990.0PR",
                                "0009",
                                "FM9.9",
                                "9G999D9",
                                "999.99PR",
                                "FM099.09",
                                "99%",
                                "9.99 \"L\"")
                        + "')";
            case 17 -> any("INITCAP", "REVERSE") + "(" + of(Kind.TEXT, depth) + ")";
            case 0, 1 ->
                "(" + of(Kind.TEXT, depth) + " || "
                        + of(
                                List.of(Kind.TEXT, Kind.WHOLE, Kind.DATE, Kind.TIME, Kind.YES_NO, Kind.DECIMAL)
                                        .get(random.nextInt(6)),
                                depth)
                        + ")";
            case 2 -> any("UPPER", "LOWER") + "(" + of(Kind.TEXT, depth) + ")";
            case 3 ->
                "TRIM(" + any("", "BOTH FROM ", "LEADING 'ab' FROM ", "TRAILING t FROM ") + of(Kind.TEXT, depth) + ")";
            case 4 ->
                "SUBSTRING(" + of(Kind.TEXT, depth) + " FROM " + any("1", "2", "-1", "n")
                        + any("", " FOR 2", " FOR 0", " FOR m") + ")";
            case 5 -> "REPLACE(" + of(Kind.TEXT, depth) + ", " + of(Kind.TEXT, 0) + ", 'z')";
            case 6 ->
                "CAST("
                        + of(
                                List.of(Kind.WHOLE, Kind.DECIMAL, Kind.DATE, Kind.TIME, Kind.YES_NO)
                                        .get(random.nextInt(5)),
                                depth)
                        + " AS VARCHAR)";
            default -> leaf(Kind.TEXT);
        };
    }

    private String date(int depth) {
        return switch (random.nextInt(7)) {
            case 5 ->
                "MAKE_DATE(" + any("2024", "2025", "n + 2020") + ", " + any("2", "12", "n") + ", " + any("1", "29", "m")
                        + ")";
            case 6 -> "TO_DATE(TO_CHAR(" + of(Kind.DATE, 0) + ", 'DD.MM.YYYY'), 'DD.MM.YYYY')";
            case 0 -> "(" + any("d", "e") + " + " + any("n", "31", "-1") + ")";
            case 1 -> "(" + of(Kind.DATE, depth) + " - " + any("m", "365") + ")";
            case 2 ->
                "DATE_TRUNC('" + any("year", "quarter", "month", "week", "day") + "', " + of(Kind.DATE, depth) + ")";
            case 3 -> "CAST(" + any("s", "r", "'2025-06-01'", "t") + " AS DATE)";
            default -> leaf(Kind.DATE);
        };
    }

    private String time(int depth) {
        return switch (random.nextInt(5)) {
            case 0 ->
                "(" + of(Kind.TIME, depth) + " " + any("+", "-") + " INTERVAL '" + any("1", "3", "-2", "14") + "' "
                        + any("YEAR", "MONTH", "DAY", "HOUR", "MINUTE", "SECOND") + ")";
            case 1 ->
                "(" + of(Kind.DATE, depth) + " + INTERVAL '" + any("1 month", "2 years 3 days", "90 minutes", "1 week")
                        + "' * 2)";
            case 2 ->
                "DATE_TRUNC('" + any("year", "month", "week", "hour", "minute") + "', " + of(Kind.TIME, depth) + ")";
            case 3 -> "CAST(" + of(Kind.DATE, depth) + " AS TIMESTAMP)";
            default -> leaf(Kind.TIME);
        };
    }

    private String yesNo(int depth) {
        Kind kind = List.of(Kind.WHOLE, Kind.DECIMAL, Kind.TEXT, Kind.DATE, Kind.TIME)
                .get(random.nextInt(5));
        return switch (random.nextInt(15)) {
            case 12 -> "(" + of(Kind.TEXT, depth) + any(" ILIKE 'A%'", " NOT ILIKE '%B_'", " ILIKE 'ávila'") + ")";
            case 13 ->
                "(" + of(Kind.TEXT, depth) + any(" ~ '^a'", " ~* 'B$'", " !~ '[0-9]'", " !~* 'á'", " ~ '(a|ab)X?b'")
                        + ")";
            case 14 -> "STARTS_WITH(" + of(Kind.TEXT, depth) + ", " + any("'a'", "u") + ")";
            case 0, 1, 2 ->
                "(" + of(kind, depth) + " " + any("=", "<>", "<", "<=", ">", ">=") + " " + of(kind, depth) + ")";
            case 3, 4 -> "(" + of(Kind.YES_NO, depth) + " " + any("AND", "OR") + " " + of(Kind.YES_NO, depth) + ")";
            case 5 -> "(NOT " + of(Kind.YES_NO, depth) + ")";
            case 6 -> "(" + of(kind, depth) + any(" IS NULL", " IS NOT NULL") + ")";
            case 7 -> "(" + of(Kind.YES_NO, depth) + any(" IS TRUE", " IS NOT TRUE", " IS FALSE", " IS UNKNOWN") + ")";
            case 8 ->
                "(" + of(kind, depth) + any(" BETWEEN ", " NOT BETWEEN ") + of(kind, 0) + " AND " + of(kind, 0) + ")";
            case 9 -> "(" + of(Kind.WHOLE, depth) + any(" IN (1, 2, 3)", " NOT IN (0, 5)", " IN (1, NULL)") + ")";
            case 10 ->
                "(" + of(Kind.TEXT, depth)
                        + any(" LIKE 'a%'", " LIKE '%b_'", " NOT LIKE '_'", " LIKE '%!%%' ESCAPE '!'", " LIKE '%a%b%'")
                        + ")";
            default -> "(" + of(kind, depth) + any(" IS DISTINCT FROM ", " IS NOT DISTINCT FROM ") + of(kind, 0) + ")";
        };
    }
}
