package sarnik.formula;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Trino: the standard's SQL over whatever it reaches. */
public final class TrinoDialect implements SqlDialect {

    public static final TrinoDialect INSTANCE = new TrinoDialect();

    private static final Set<String> KNOWN = Set.of(
            "ABS",
            "CEIL",
            "FLOOR",
            "EXP",
            "SIGN",
            "DEGREES",
            "RADIANS",
            "PI",
            "POWER",
            "MOD",
            "COALESCE",
            "NULLIF",
            "REPLACE",
            "REVERSE",
            "STARTS_WITH",
            "WIDTH_BUCKET",
            "TRUNC");

    private TrinoDialect() {}

    @Override
    public String name() {
        return "Trino";
    }

    @Override
    public String type(Kind kind) {
        return switch (kind) {
            case TEXT, NOTHING -> "varchar";
            case WHOLE -> "bigint";
            case DECIMAL -> "double";
            case DATE -> "date";
            case TIME -> "timestamp(6)";
            case YES_NO -> "boolean";
            default -> null;
        };
    }

    @Override
    public String literal(Kind kind, Object value) {
        if (value == null) return type(kind) == null ? "NULL" : "CAST(NULL AS " + type(kind) + ")";
        return switch (kind) {
            case TEXT -> "CAST(" + text((String) value) + " AS varchar)";
            case WHOLE -> "BIGINT '" + value + "'";
            case DECIMAL -> "DOUBLE '" + value + "'";
            case DATE -> "DATE '" + LocalDate.ofEpochDay((Integer) value) + "'";
            case TIME -> "TIMESTAMP '" + Moments.text((Long) value) + "'";
            case YES_NO -> (Boolean) value ? "TRUE" : "FALSE";
            default -> throw new IllegalArgumentException("No literal of " + kind.words());
        };
    }

    @Override
    public String plusDays(String date, String days) {
        return "DATE_ADD('day', " + days + ", " + date + ")";
    }

    @Override
    public String daysBetween(String later, String earlier) {
        return "DATE_DIFF('day', " + earlier + ", " + later + ")";
    }

    @Override
    public String second(String time) {
        return "CAST(FLOOR(TO_UNIXTIME(WITH_TIMEZONE(" + time + ", 'UTC'))) AS bigint)";
    }

    @Override
    public String moved(String time, long months, long days, long seconds) {
        return "DATE_ADD('second', %d, DATE_ADD('day', %d, DATE_ADD('month', %d, %s)))"
                .formatted(seconds, days, months, time);
    }

    @Override
    public String part(String field, String time) {
        String of = switch (field) {
            case "DOW" -> "MOD(EXTRACT(DAY_OF_WEEK FROM " + time + "), 7)";
            case "ISODOW" -> "EXTRACT(DAY_OF_WEEK FROM " + time + ")";
            case "DOY" -> "EXTRACT(DAY_OF_YEAR FROM " + time + ")";
            default -> "EXTRACT(" + field + " FROM " + time + ")";
        };
        return "CAST(" + of + " AS bigint)";
    }

    @Override
    public String inZone(String time, String zone) {
        return "CAST(AT_TIMEZONE(WITH_TIMEZONE(" + time + ", 'UTC'), " + zone + ") AS timestamp(6))";
    }

    @Override
    public String utc(String moment) {
        return "CAST(AT_TIMEZONE(" + moment + ", 'UTC') AS timestamp(6))";
    }

    @Override
    public String moment(String time) {
        return "WITH_TIMEZONE(" + time + ", 'UTC')";
    }

    @Override
    public String finite(String number) {
        return "IF(IS_FINITE(" + number + "), " + number + ")";
    }

    @Override
    public String shortFloat(String number) {
        return "CAST(CAST(" + finite(number) + " AS varchar) AS double)";
    }

    @Override
    public String digits(String number) {
        return number;
    }

    @Override
    public String lower(String text) {
        return "LOWER(" + text + ")";
    }

    @Override
    public String upper(String text) {
        return "UPPER(" + text + ")";
    }

    @Override
    public String byCharacter(String text) {
        return text;
    }

    @Override
    public String rounded(String number) {
        return "(CASE WHEN ABS(%1$s - FLOOR(%1$s)) = DOUBLE '0.5' THEN 2 * ROUND(%1$s / 2) ELSE ROUND(%1$s) END)"
                .formatted(number);
    }

    @Override
    public String rounded(String number, String places) {
        return "ROUND(" + number + ", CAST(" + places + " AS integer))";
    }

    @Override
    public String truncated(String number) {
        return "TRUNCATE(" + number + ")";
    }

    @Override
    public String logarithm(String number) {
        return "LOG10(" + number + ")";
    }

    @Override
    public String bucket(String number, String from, String to, String steps) {
        return "WIDTH_BUCKET(%s, %s, %s, %s)".formatted(number, from, to, steps);
    }

    @Override
    public String trimmed(String side, String characters, String text) {
        return characters == null ? "TRIM(" + side + " FROM " + text + ")" : null;
    }

    @Override
    public String fits(String text, String pattern, boolean anyCase) {
        return "REGEXP_LIKE(" + text + ", " + (anyCase ? "'(?i)' || " : "") + pattern + ")";
    }

    @Override
    public String extreme(boolean greatest, List<String> values) {
        return (greatest ? "ARRAY_MAX" : "ARRAY_MIN") + "(FILTER(ARRAY[" + String.join(", ", values)
                + "], one -> one IS NOT NULL))";
    }

    private String words(List<String> words) {
        return words.stream().map(this::text).collect(Collectors.joining(", "));
    }

    @Override
    public String read(String text, Kind as) {
        String trimmed = "TRIM(" + text + ")";
        return switch (as) {
            case WHOLE, DATE -> "TRY_CAST(" + trimmed + " AS " + type(as) + ")";
            case DECIMAL ->
                "TRY_CAST(CASE WHEN REGEXP_LIKE(" + trimmed
                        + ", '^[-+]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][-+]?[0-9]+)?$') THEN " + trimmed
                        + " END AS double)";
            case YES_NO ->
                "(CASE WHEN LOWER(" + trimmed + ") IN (" + words(YES) + ") THEN TRUE WHEN LOWER(" + trimmed + ") IN ("
                        + words(NO) + ") THEN FALSE END)";
            case TIME -> "TRY_CAST(REPLACE(" + trimmed + ", 'T', ' ') AS timestamp(6))";
            default -> text;
        };
    }

    @Override
    public String written(String value, Kind of) {
        if (of == Kind.DECIMAL) return null;
        return of == Kind.TIME ? "DATE_FORMAT(" + value + ", '%Y-%m-%d %H:%i:%s')" : "CAST(" + value + " AS varchar)";
    }

    /** All values in their order; there is no exact percentile of its own. */
    private static String sorted(String values, String where) {
        return "ARRAY_SORT(ARRAY_AGG(" + values + ")"
                + SqlDialect.only((where == null ? "" : "(" + where + ") AND ") + values + " IS NOT NULL") + ")";
    }

    @Override
    public String percentile(double fraction, String values, String where) {
        // Between the two values around the place (n - 1) * fraction, as the standard has it.
        String all = sorted("CAST(" + values + " AS double)", where);
        String at = "(CARDINALITY(" + all + ") - 1) * DOUBLE '" + fraction + "'";
        String low = "ELEMENT_AT(" + all + ", CAST(FLOOR(" + at + ") AS bigint) + 1)";
        String high = "ELEMENT_AT(" + all + ", CAST(CEIL(" + at + ") AS bigint) + 1)";
        return "(%s + (%s - FLOOR(%s)) * (%s - %s))".formatted(low, at, at, high, low);
    }

    @Override
    public String percentileOfValues(double fraction, String values, String where) {
        String all = sorted(values, where);
        return "ELEMENT_AT(%s, GREATEST(1, CAST(CEIL(CARDINALITY(%s) * DOUBLE '%s') AS bigint)))"
                .formatted(all, all, fraction);
    }

    @Override
    public String mode(String values, String where) {
        return null;
    }

    @Override
    public String gathered(String text) {
        return "ARRAY_JOIN(ARRAY_AGG(DISTINCT " + text + "), CHR(31))";
    }

    @Override
    public boolean knows(String function) {
        return KNOWN.contains(function);
    }

    @Override
    public String rows(List<List<?>> columns, List<String> names) {
        // One literal of JSON: thousands of values by themselves would be compiled one by one.
        List<String> types = new ArrayList<>();
        for (int c = 0; c < columns.size(); c++) {
            Object first = columns.get(c).isEmpty() ? "" : columns.get(c).get(0);
            types.add(names.get(c)
                    + (first instanceof Long ? " bigint" : first instanceof Double ? " double" : " varchar"));
        }
        StringBuilder json = new StringBuilder("[");
        for (int row = 0; row < columns.get(0).size(); row++) {
            if (row > 0) json.append(',');
            json.append('[');
            for (int c = 0; c < columns.size(); c++) {
                if (c > 0) json.append(',');
                Object value = columns.get(c).get(row);
                if (value instanceof String word) json.append(jsonText(word));
                else json.append(value);
            }
            json.append(']');
        }
        json.append(']');
        return "UNNEST(CAST(JSON_PARSE(" + text(json.toString()) + ") AS ARRAY(ROW(" + String.join(", ", types)
                + ")))) AS listed(" + String.join(", ", names) + ")";
    }

    private static String jsonText(String word) {
        StringBuilder out = new StringBuilder("\"");
        IntStream.range(0, word.length()).forEach(i -> {
            char c = word.charAt(i);
            if (c == '"' || c == '\\') out.append('\\').append(c);
            else if (c < ' ') out.append("\\u%04x".formatted((int) c));
            else out.append(c);
        });
        return out.append('"').toString();
    }
}
