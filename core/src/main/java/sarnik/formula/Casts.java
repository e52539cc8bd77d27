package sarnik.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Turns values of one type into another, where SQL does. */
final class Casts {

    Typed cast(Expression.Cast cast, Typed of) {
        Expression target = new Expression.Star(cast.targetFrom(), Math.max(cast.targetFrom(), cast.to() - 1));
        Matcher sized = SIZED.matcher(cast.target());
        if (sized.matches()) return sized(cast, of, target, sized);
        record Target(Kind kind, String sql, long low, long high) {}
        Target to = switch (cast.target()) {
            case "SMALLINT" -> new Target(Kind.WHOLE, "smallint", Short.MIN_VALUE, Short.MAX_VALUE);
            case "INTEGER", "INT" -> new Target(Kind.WHOLE, "integer", Integer.MIN_VALUE, Integer.MAX_VALUE);
            case "BIGINT" -> new Target(Kind.WHOLE, "bigint", Long.MIN_VALUE, Long.MAX_VALUE);
            case "DOUBLE PRECISION", "FLOAT", "NUMERIC", "DECIMAL" ->
                new Target(Kind.DECIMAL, "double precision", 0, 0);
            case "VARCHAR", "CHARACTER VARYING", "TEXT" -> new Target(Kind.TEXT, "text", 0, 0);
            case "DATE" -> new Target(Kind.DATE, "date", 0, 0);
            case "TIMESTAMP" -> new Target(Kind.TIME, "timestamp", 0, 0);
            case "BOOLEAN" -> new Target(Kind.YES_NO, "boolean", 0, 0);
            default ->
                throw new FormulaException(
                        target,
                        ("“%s” is no type to cast to. There is INTEGER, BIGINT, DOUBLE PRECISION, VARCHAR, DATE, "
                                        + "TIMESTAMP and BOOLEAN.")
                                .formatted(cast.target()));
        };
        Function<Object, Object> convert = conversion(of.kind(), to.kind, to.low, to.high)
                .orElseThrow(() -> new FormulaException(
                        cast,
                        "%s cannot be cast to %s.".formatted(capital(of.kind().words()), to.kind.words())));
        String sql =
                "(" + of.sql() + ")::" + to.sql + (to.kind == Kind.WHOLE && !to.sql.equals("bigint") ? "::bigint" : "");
        return strict(cast, to.kind, of, convert, "(" + sql + ")");
    }

    private static final Pattern SIZED =
            Pattern.compile("(DECIMAL|NUMERIC|VARCHAR|CHARACTER VARYING)\\((\\d{1,4})(?:,(\\d{1,3}))?\\)");

    /** A number rounded to its places, or a text cut to its length. */
    private Typed sized(Expression.Cast cast, Typed of, Expression target, Matcher sized) {
        int size = Integer.parseInt(sized.group(2));
        boolean number = sized.group(1).equals("DECIMAL") || sized.group(1).equals("NUMERIC");
        int places = sized.group(3) == null ? 0 : Integer.parseInt(sized.group(3));
        if (size < 1 || number && (size > 15 || places > size))
            throw new FormulaException(
                    target, "A decimal number has 1 to 15 digits, of which up to as many stand behind its point.");
        Expression.Cast plain = new Expression.Cast(
                cast.from(), cast.to(), cast.of(), number ? "DOUBLE PRECISION" : "TEXT", cast.targetFrom());
        Typed whole = cast(plain, of);
        if (!number)
            return strict(
                    cast,
                    Kind.TEXT,
                    whole,
                    v -> ((String) v)
                            .substring(0, ((String) v).offsetByCodePoints(0, Math.min(size, Texts.length((String) v)))),
                    "(" + whole.sql() + ")::varchar(" + size + ")::text");
        double most = Math.pow(10, size - places);
        return strict(
                cast,
                Kind.DECIMAL,
                whole,
                v -> {
                    double rounded = Numbers.round((Double) v, places);
                    if (Math.abs(rounded) >= most)
                        throw new RowError(
                                "a number with more than %d digits before its point".formatted(size - places));
                    return rounded;
                },
                "(" + whole.sql() + ")::numeric(" + size + "," + places + ")::double precision");
    }

    private static String capital(String words) {
        return words.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + words.substring(1);
    }

    private static Typed strict(Expression at, Kind kind, Typed of, Function<Object, Object> convert, String sql) {
        return new Typed(
                at,
                kind,
                c -> {
                    Object value = of.eval().at(c);
                    return value == null ? null : convert.apply(value);
                },
                sql);
    }

    private static Optional<Function<Object, Object>> conversion(Kind from, Kind to, long low, long high) {
        if (from == Kind.NOTHING) return Optional.of(v -> v);
        Function<Object, Object> convert = switch (to) {
            case WHOLE ->
                from == Kind.WHOLE
                        ? v -> bounded((Long) v, low, high)
                        : from == Kind.DECIMAL
                                ? v -> Numbers.toWhole((Double) v, low, high)
                                : from == Kind.TEXT ? v -> bounded(whole((String) v), low, high) : null;
            case DECIMAL ->
                from == Kind.DECIMAL
                        ? v -> v
                        : from == Kind.WHOLE
                                ? v -> ((Long) v).doubleValue()
                                : from == Kind.TEXT ? v -> decimal((String) v) : null;
            case TEXT -> from == Kind.PLACE || from == Kind.INTERVAL ? null : v -> text(from, v);
            case DATE ->
                from == Kind.DATE
                        ? v -> v
                        : from == Kind.TIME
                                ? v -> (int) Math.floorDiv((Long) v, Moments.DAY)
                                : from == Kind.TEXT ? v -> Moments.date((String) v) : null;
            case TIME ->
                from == Kind.TIME
                        ? v -> v
                        : from == Kind.DATE
                                ? v -> Moments.midnight((Integer) v)
                                : from == Kind.TEXT ? v -> Moments.time((String) v) : null;
            case YES_NO -> from == Kind.YES_NO ? v -> v : from == Kind.TEXT ? v -> Texts.yesNo((String) v) : null;
            default -> null;
        };
        return Optional.ofNullable(convert);
    }

    private static long bounded(long value, long low, long high) {
        if (value < low || value > high) throw new RowError("a whole number out of range");
        return value;
    }

    private static long whole(String text) {
        try {
            return Long.parseLong(text.strip());
        } catch (NumberFormatException unread) {
            throw new RowError("a text that is no whole number");
        }
    }

    private static double decimal(String text) {
        String number = text.strip();
        // Java would take "1f" and "NaN" too.
        if (!number.matches("[-+]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][-+]?[0-9]+)?"))
            throw new RowError("a text that is no number");
        double value = Double.parseDouble(number);
        return Numbers.inRange(value, number.replaceFirst("[eE].*", "").matches(".*[1-9].*"));
    }

    static String text(Kind from, Object value) {
        return switch (from) {
            case DECIMAL -> Numbers.text((Double) value);
            case DATE -> java.time.LocalDate.ofEpochDay((Integer) value).toString();
            case TIME -> Moments.text((Long) value);
            default -> value.toString();
        };
    }

    /** The value as text, as CAST gives it. */
    Typed asText(Typed of, String where) {
        if (of.kind() == Kind.TEXT) return of;
        if (of.kind() == Kind.PLACE || of.kind() == Kind.INTERVAL) throw Compiler.unfit(of, where, "a text");
        return strict(of.at(), Kind.TEXT, of, v -> text(of.kind(), v), "(" + of.sql() + ")::text");
    }

    Typed asDecimal(Typed of) {
        if (of.kind() == Kind.DECIMAL) return of;
        return strict(of.at(), Kind.DECIMAL, of, v -> ((Long) v).doubleValue(), "(" + of.sql() + ")::double precision");
    }

    /** A whole number as a small one, of 32 bits, which days and positions have to be. */
    Typed asSmall(Typed of) {
        return strict(
                of.at(),
                Kind.WHOLE,
                of,
                v -> bounded((Long) v, Integer.MIN_VALUE, Integer.MAX_VALUE),
                "(" + of.sql() + ")::integer");
    }

    Typed asTime(Typed of) {
        if (of.kind() == Kind.TIME) return of;
        return strict(of.at(), Kind.TIME, of, v -> Moments.midnight((Integer) v), "(" + of.sql() + ")::timestamp");
    }

    /**
     * Texts that are written out where dates are compared with them become dates: day >= '2026-01-01'.
     */
    List<Typed> momentsFromText(List<Typed> values) {
        Kind moment = values.stream()
                .map(Typed::kind)
                .filter(k -> k == Kind.DATE || k == Kind.TIME)
                .findFirst()
                .orElse(null);
        if (moment == null) return values;
        List<Typed> turned = new ArrayList<>();
        for (Typed value : values) {
            if (!(value.at() instanceof Expression.Literal literal) || literal.kind() != Kind.TEXT) turned.add(value);
            else {
                try {
                    String text = (String) literal.value();
                    Kind kind = text.strip().length() > 10 ? Kind.TIME : Kind.DATE;
                    Object at = kind == Kind.DATE ? (Object) Moments.date(text) : (Object) Moments.time(text);
                    String sql = kind == Kind.DATE ? "DATE '" + text.strip() + "'" : "TIMESTAMP '" + text.strip() + "'";
                    turned.add(new Typed(literal, kind, c -> at, sql));
                } catch (RowError unread) {
                    throw new FormulaException(
                            literal,
                            "“%s” is compared with %s, but is none. Write it like '2026-05-31'."
                                    .formatted(literal.value(), moment.words()));
                }
            }
        }
        return turned;
    }

    /**
     * Values that are to be of one type: whole numbers become decimal beside decimal ones, dates become date-times
     * beside
     * those, NULL fits any.
     */
    List<Typed> toOneKind(List<Typed> values, String what) {
        Kind kind = Kind.NOTHING;
        for (Typed value : values) {
            Kind both = kind == Kind.NOTHING || value.kind() == kind
                    ? value.kind()
                    : value.kind() == Kind.NOTHING
                            ? kind
                            : kind.isNumber() && value.kind().isNumber()
                                    ? Kind.DECIMAL
                                    : isMoment(kind) && isMoment(value.kind()) ? Kind.TIME : null;
            if (both == null) {
                throw new FormulaException(
                        value.at(),
                        "%s have to be of one type: this is %s, before it is %s."
                                .formatted(what, value.kind().words(), kind.words()));
            }
            kind = both;
        }
        Kind all = kind;
        return values.stream()
                .map(v -> {
                    if (v.kind() == Kind.NOTHING)
                        return new Typed(v.at(), all, v.eval(), all.sql() == null ? "NULL" : "NULL::" + all.sql());
                    return all == Kind.DECIMAL ? asDecimal(v) : all == Kind.TIME ? asTime(v) : v;
                })
                .toList();
    }

    private static boolean isMoment(Kind kind) {
        return kind == Kind.DATE || kind == Kind.TIME;
    }
}
