package sarnik.formula;

import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** PostgreSQL, and what speaks its language. */
public final class PostgresDialect implements SqlDialect {

    public static final PostgresDialect INSTANCE = new PostgresDialect();

    private static final Set<String> KNOWN = Set.of(
            "ABS",
            "CEIL",
            "FLOOR",
            "EXP",
            "SIGN",
            "TRUNC",
            "DEGREES",
            "RADIANS",
            "PI",
            "POWER",
            "MOD",
            "COALESCE",
            "NULLIF",
            "REPLACE",
            "SUBSTRING",
            "LEFT",
            "RIGHT",
            "LPAD",
            "RPAD",
            "LTRIM",
            "RTRIM",
            "BTRIM",
            "REVERSE",
            "STARTS_WITH",
            "CONCAT",
            "CONCAT_WS",
            "SPLIT_PART",
            "WIDTH_BUCKET",
            "TO_CHAR",
            "INITCAP",
            "REGR_R2");

    private PostgresDialect() {}

    @Override
    public String name() {
        return "PostgreSQL";
    }

    @Override
    public String type(Kind kind) {
        return kind.sql();
    }

    @Override
    public String literal(Kind kind, Object value) {
        if (value == null) return kind.sql() == null ? "NULL" : "CAST(NULL AS " + kind.sql() + ")";
        return switch (kind) {
            case TEXT -> "CAST(" + text((String) value) + " AS text)";
            case WHOLE -> "CAST(" + value + " AS bigint)";
            case DECIMAL -> "CAST('" + value + "' AS double precision)";
            case DATE -> "DATE '" + LocalDate.ofEpochDay((Integer) value) + "'";
            case TIME -> "TIMESTAMP '" + Moments.text((Long) value) + "'";
            case YES_NO -> (Boolean) value ? "TRUE" : "FALSE";
            case INTERVAL -> ((Interval) value).sql();
            default -> throw new IllegalArgumentException("No literal of " + kind.words());
        };
    }

    @Override
    public String plusDays(String date, String days) {
        return "(" + date + " + CAST(" + days + " AS integer))";
    }

    @Override
    public String daysBetween(String later, String earlier) {
        return "CAST(" + later + " - " + earlier + " AS bigint)";
    }

    @Override
    public String second(String time) {
        return "CAST(FLOOR(EXTRACT(EPOCH FROM " + time + ")) AS bigint)";
    }

    @Override
    public String moved(String time, long months, long days, long seconds) {
        return "(" + time + " + " + new Interval(months, days, seconds).sql() + ")";
    }

    @Override
    public String part(String field, String time) {
        return "CAST(" + (field.equals("SECOND") ? "FLOOR(" : "(") + "EXTRACT(" + field + " FROM " + time
                + ")) AS bigint)";
    }

    @Override
    public String inZone(String time, String zone) {
        return "(" + time + " AT TIME ZONE 'UTC' AT TIME ZONE " + zone + ")";
    }

    @Override
    public String utc(String moment) {
        return "(" + moment + " AT TIME ZONE 'UTC')";
    }

    @Override
    public String moment(String time) {
        return "(" + time + " AT TIME ZONE 'UTC')";
    }

    @Override
    public String finite(String number) {
        // What is no number stands above all there.
        return "(CASE WHEN " + number + " > '-Infinity' AND " + number + " < 'Infinity' THEN " + number + " END)";
    }

    @Override
    public String shortFloat(String number) {
        return "CAST(" + finite(number) + " AS numeric)";
    }

    @Override
    public String digits(String number) {
        return "NULLIF(" + number + ", 'NaN')";
    }

    @Override
    public String lower(String text) {
        return "LOWER(" + text + Compiler.ANY_CASE + ") COLLATE \"C\"";
    }

    @Override
    public String upper(String text) {
        return "UPPER(" + text + Compiler.ANY_CASE + ") COLLATE \"C\"";
    }

    @Override
    public String byCharacter(String text) {
        return text + " COLLATE \"C\"";
    }

    @Override
    public String rounded(String number) {
        return "ROUND(" + number + ")";
    }

    @Override
    public String rounded(String number, String places) {
        return "CAST(ROUND(CAST(" + number + " AS numeric), CAST(" + places + " AS integer)) AS double precision)";
    }

    @Override
    public String truncated(String number) {
        return "TRUNC(" + number + ")";
    }

    @Override
    public String logarithm(String number) {
        return "LOG(" + number + ")";
    }

    @Override
    public String bucket(String number, String from, String to, String steps) {
        return "WIDTH_BUCKET(%s, %s, %s, CAST(%s AS integer))".formatted(number, from, to, steps);
    }

    @Override
    public String trimmed(String side, String characters, String text) {
        return "TRIM(" + side + " " + (characters == null ? "" : characters) + " FROM " + text + ")";
    }

    @Override
    public String fits(String text, String pattern, boolean anyCase) {
        return anyCase
                ? "(" + text + Compiler.ANY_CASE + " ~* " + pattern + Compiler.ANY_CASE + ")"
                : "(" + text + " ~ " + pattern + ")";
    }

    @Override
    public String extreme(boolean greatest, List<String> values) {
        return (greatest ? "GREATEST(" : "LEAST(") + String.join(", ", values) + ")";
    }

    /** A date that may be one; how many days its month has is looked at after it. */
    private static final String DAY = "(?!0000)\\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])";

    private static String isInMonth(String text) {
        return "CAST(SUBSTR(BTRIM(%1$s), 9, 2) AS integer) <= EXTRACT(DAY FROM CAST(SUBSTR(BTRIM(%1$s), 1, 7) || '-01' AS date) + INTERVAL '1 month' - INTERVAL '1 day')"
                .formatted(text);
    }

    @Override
    public String read(String text, Kind as) {
        String pattern = switch (as) {
            case WHOLE -> "^\\s*[-+]?\\d{1,18}\\s*$";
            case DECIMAL -> "^\\s*[-+]?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d{1,2})?\\s*$";
            case DATE -> "^\\s*" + DAY + "\\s*$";
            case TIME -> "^\\s*" + DAY + "([T ]+([01]\\d|2[0-3]):[0-5]\\d(:[0-5]\\d)?)?\\s*$";
            case YES_NO -> "^\\s*(" + String.join("|", YES) + "|" + String.join("|", NO) + ")\\s*$";
            default -> null;
        };
        if (pattern == null) return text;
        String found = "CAST(BTRIM(" + text + ") AS " + as.sql() + ")";
        return "(CASE WHEN " + text + (as == Kind.YES_NO ? " ~* '" : " ~ '") + pattern + "' THEN "
                + (as == Kind.DATE || as == Kind.TIME
                        ? "CASE WHEN " + isInMonth(text) + " THEN " + found + " END"
                        : found)
                + " END)";
    }

    @Override
    public String written(String value, Kind of) {
        return of == Kind.TIME ? "TO_CHAR(" + value + ", 'YYYY-MM-DD HH24:MI:SS')" : "CAST(" + value + " AS text)";
    }

    @Override
    public String percentile(double fraction, String values, String where) {
        return "PERCENTILE_CONT(" + fraction + ") WITHIN GROUP (ORDER BY CAST(" + values + " AS double precision))"
                + SqlDialect.only(where);
    }

    @Override
    public String percentileOfValues(double fraction, String values, String where) {
        return "PERCENTILE_DISC(" + fraction + ") WITHIN GROUP (ORDER BY " + values + ")" + SqlDialect.only(where);
    }

    @Override
    public String mode(String values, String where) {
        return "MODE() WITHIN GROUP (ORDER BY " + values + ")" + SqlDialect.only(where);
    }

    @Override
    public String gathered(String text) {
        return "ARRAY_TO_STRING(ARRAY_AGG(DISTINCT " + text + "), E'\\x1f')";
    }

    @Override
    public boolean knows(String function) {
        return KNOWN.contains(function);
    }

    @Override
    public String rows(List<List<?>> columns, List<String> names) {
        // Each column is one literal, which is read fast however long it is.
        return "unnest("
                + columns.stream().map(this::array).collect(Collectors.joining(", ")) + ") AS listed("
                + String.join(", ", names) + ")";
    }

    private String array(List<?> values) {
        Object first = values.isEmpty() ? "" : values.get(0);
        String type = first instanceof Long ? "bigint[]" : first instanceof Double ? "double precision[]" : "text[]";
        StringBuilder all = new StringBuilder("{");
        for (Object value : values) {
            if (all.length() > 1) all.append(',');
            if (value instanceof String word)
                all.append('"')
                        .append(word.replace("\\", "\\\\").replace("\"", "\\\""))
                        .append('"');
            else all.append(value);
        }
        return "CAST(" + text(all.append('}').toString()) + " AS " + type + ")";
    }
}
