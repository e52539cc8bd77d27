package sarnik.app.formula;

import java.util.List;
import java.util.Random;
import sarnik.formula.Kind;

/** Makes expressions of every type at random, over columns of {@link FormulaAgainstPostgresTest}. */
final class Expressions {

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
