package sarnik.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * Writes a formula for a database that holds the rows, so that it comes to the same: where a value cannot be worked
 * out, such as after a division by zero, it is missing, and nothing fails.
 */
final class SqlExpressions {

    /** Functions of one decimal number that all databases call alike. */
    private static final Set<String> OF_ONE = Set.of("CEIL", "FLOOR", "SIGN", "DEGREES", "RADIANS");

    /** Beyond these the exponential function is nothing, or without end. */
    private static final double LEAST_EXPONENT = -745.1332191019411;

    private static final double MOST_EXPONENT = 709.782712893384;

    /** Texts are no longer than this. */
    private static final long LONGEST = 100_000;

    private final SqlScope scope;
    private final SqlDialect dialect;
    private final Map<Expression, Kind> kinds;
    private final Scope names;
    private final SqlTroubles troubles;

    /**
     * @param kinds the kind of each part of the tree
     * @param names what the formula may name
     */
    SqlExpressions(SqlScope scope, Map<Expression, Kind> kinds, Scope names) {
        this.scope = scope;
        this.dialect = scope.dialect();
        this.kinds = kinds;
        this.names = names;
        this.troubles = new SqlTroubles(this);
    }

    /**
     * A formula, or what is summed up: missing where a part of it cannot be worked out, also where what stands around that
     * part would have a value all the same.
     */
    String whole(Expression e) {
        String lost = troubles.lost(e);
        return lost == null ? write(e) : "(CASE WHEN " + lost + " THEN NULL ELSE " + write(e) + " END)";
    }

    /** The condition under which it cannot be worked out; null for never. */
    String unworked(Expression e) {
        return troubles.when(e);
    }

    /** A part of a formula; missing where it cannot be worked out. */
    String write(Expression e) {
        if (e instanceof Expression.Literal literal) return dialect.literal(literal.kind(), checked(literal));
        if (e instanceof Expression.Name name) return scope.value().apply(column(name));
        if (e instanceof Expression.Parameter parameter)
            return dialect.literal(kind(e), scope.on().parameters().get(parameter.name()));
        if (e instanceof Expression.Unary unary) return unary(unary);
        if (e instanceof Expression.Binary binary) return binary(binary);
        if (e instanceof Expression.Call call) return call(call);
        if (e instanceof Expression.Trim trim) return trim(trim);
        if (e instanceof Expression.Extract extract) return extract(extract);
        if (e instanceof Expression.Cast cast) return cast(cast);
        if (e instanceof Expression.Case choice) return caseOf(choice);
        if (e instanceof Expression.In in) return in(in);
        if (e instanceof Expression.Between between) return between(between);
        if (e instanceof Expression.Like like) return like(like);
        if (e instanceof Expression.Is is) return is(is);
        if (e instanceof Expression.Distinct distinct) {
            List<String> both = alike(List.of(distinct.left(), distinct.right()));
            return "(" + both.get(0) + " IS " + (distinct.not() ? "NOT " : "") + "DISTINCT FROM " + both.get(1) + ")";
        }
        throw lacks(e, "A part of the formula");
    }

    /** A column of numbers as it is summed up; any other expression as it is. */
    String exact(Expression e) {
        return e instanceof Expression.Name name ? scope.exact().apply(column(name)) : whole(e);
    }

    Kind kind(Expression e) {
        Kind kind = kinds.get(e);
        if (kind == null) throw new IllegalStateException("A part of a formula has no kind");
        return kind;
    }

    private FormulaException lacks(Expression e, String what) {
        return dialect.lacks(e.from(), e.to(), what);
    }

    private Object checked(Expression.Literal literal) {
        if (literal.kind() == Kind.INTERVAL) throw lacks(literal, "An interval by itself");
        return literal.value();
    }

    private String column(Expression.Name name) {
        String column = names.column(name);
        if (column == null) throw lacks(name, "What is asked of the place of each row");
        return column;
    }

    private String unary(Expression.Unary unary) {
        String of = write(unary.of());
        return switch (unary.operator()) {
            case "NOT" -> "(NOT " + of + ")";
            case "-" -> "(- " + of + ")";
            default -> of;
        };
    }

    /** The kind that values have in common; see {@link Casts#toOneKind}. */
    private Kind common(List<Expression> values) {
        Kind kind = Kind.NOTHING;
        boolean moments = values.stream().map(this::kind).anyMatch(SqlExpressions::isMoment);
        for (Expression value : values) {
            Kind one = kind(value);
            if (moments && one == Kind.TEXT) one = isLong(value) ? Kind.TIME : Kind.DATE;
            if (kind == Kind.NOTHING || one == kind) kind = one;
            else if (one != Kind.NOTHING)
                kind = kind.isNumber() && one.isNumber() ? Kind.DECIMAL : isMoment(kind) ? Kind.TIME : kind;
        }
        return kind;
    }

    private static boolean isLong(Expression value) {
        return value instanceof Expression.Literal literal
                && String.valueOf(literal.value()).strip().length() > 10;
    }

    private static boolean isMoment(Kind kind) {
        return kind == Kind.DATE || kind == Kind.TIME;
    }

    List<String> alike(List<Expression> values) {
        Kind kind = common(values);
        return values.stream().map(value -> as(value, kind)).toList();
    }

    /** An expression as a value of a kind. */
    private String as(Expression e, Kind kind) {
        Kind own = kind(e);
        if (own == kind) return write(e);
        if (own == Kind.NOTHING) return dialect.literal(kind, null);
        if (own == Kind.TEXT && isMoment(kind) && e instanceof Expression.Literal literal) {
            String text = (String) literal.value();
            return kind == Kind.DATE
                    ? dialect.literal(Kind.DATE, Moments.date(text))
                    : dialect.literal(Kind.TIME, Moments.time(text));
        }
        return dialect.cast(write(e), kind);
    }

    String condition(Expression e) {
        return as(e, Kind.YES_NO);
    }

    private String binary(Expression.Binary b) {
        String operator = b.operator();
        if (operator.equals("AND") || operator.equals("OR"))
            return "(" + condition(b.left()) + " " + operator + " " + condition(b.right()) + ")";
        if (operator.equals("||")) return "(" + text(b.left()) + " || " + text(b.right()) + ")";
        if (Set.of("+", "-", "*", "/").contains(operator)) return arithmetic(b);
        if (operator.contains("~")) {
            String fits = dialect.fits(text(b.left()), text(b.right()), operator.endsWith("*"));
            return operator.startsWith("!") ? "(NOT " + fits + ")" : fits;
        }
        return "(" + compared(b.left(), operator, b.right()) + ")";
    }

    /** A value as the text that it is written as. */
    private String text(Expression e) {
        Kind kind = kind(e);
        if (kind == Kind.TEXT) return write(e);
        if (kind == Kind.NOTHING) return dialect.literal(Kind.TEXT, null);
        return written(e, kind);
    }

    private String written(Expression e, Kind kind) {
        String written = dialect.written(write(e), kind);
        if (written == null) throw lacks(e, "A decimal number as a text");
        return written;
    }

    private String arithmetic(Expression.Binary b) {
        Kind left = kind(b.left());
        Kind right = kind(b.right());
        String operator = b.operator();
        boolean minus = operator.equals("-");
        if (isMoment(left) || isMoment(right)) {
            if (left == Kind.DATE && right == Kind.WHOLE)
                return dialect.plusDays(write(b.left()), (minus ? "- " : "") + "(" + days(b.right()) + ")");
            if (left == Kind.WHOLE && right == Kind.DATE)
                return dialect.plusDays(write(b.right()), "(" + days(b.left()) + ")");
            if (left == Kind.DATE && right == Kind.DATE) return dialect.daysBetween(write(b.left()), write(b.right()));
            Expression span = right == Kind.INTERVAL ? b.right() : b.left();
            if (span instanceof Expression.Literal literal && literal.value() instanceof Interval interval) {
                int sign = minus ? -1 : 1;
                return dialect.moved(
                        as(span == b.right() ? b.left() : b.right(), Kind.TIME),
                        sign * interval.months(),
                        sign * interval.days(),
                        sign * interval.seconds());
            }
            throw lacks(b, "A span of time");
        }
        if (left == Kind.INTERVAL || right == Kind.INTERVAL) throw lacks(b, "A span of time");
        Kind kind = common(List.of(b.left(), b.right()));
        if (kind == Kind.NOTHING) return dialect.literal(Kind.WHOLE, null);
        String first = as(b.left(), kind);
        String second = as(b.right(), kind);
        if (operator.equals("/")) second = "NULLIF(" + second + ", " + zero(kind) + ")";
        return "(" + first + " " + operator + " " + second + ")";
    }

    private String days(Expression e) {
        return within(e, Integer.MIN_VALUE, Integer.MAX_VALUE);
    }

    /** A whole number; missing where it is out of range. */
    private String within(Expression e, long least, long most) {
        String number = write(e);
        Double written = SqlTroubles.number(e);
        if (written != null && written >= least && written <= most) return number;
        return "(CASE WHEN " + number + " BETWEEN " + least + " AND " + most + " THEN " + number + " END)";
    }

    private String zero(Kind kind) {
        return kind == Kind.WHOLE ? dialect.literal(kind, 0L) : dialect.literal(kind, 0.0);
    }

    private String decimal(Expression e) {
        return as(e, Kind.DECIMAL);
    }

    private String call(Expression.Call call) {
        List<Expression> a = call.arguments();
        String name = call.function();
        switch (name) {
            case "CURRENT_DATE" -> {
                return dialect.literal(Kind.DATE, (int) scope.on().today().toEpochDay());
            }
            case "SQRT" -> {
                return guarded("SQRT", decimal(a.get(0)), ">=");
            }
            case "LN" -> {
                return guarded("LN", decimal(a.get(0)), ">");
            }
            case "LOG10" -> {
                return logarithm(a.get(0));
            }
            case "LOG" -> {
                if (a.size() == 1) return logarithm(a.get(0));
                return "(" + guarded("LN", decimal(a.get(1)), ">") + " / NULLIF("
                        + guarded("LN", decimal(a.get(0)), ">") + ", " + zero(Kind.DECIMAL) + "))";
            }
            case "POWER" -> {
                return power(decimal(a.get(0)), decimal(a.get(1)));
            }
            case "ROUND" -> {
                return round(call);
            }
            case "ABS" -> {
                return "ABS(" + (kind(a.get(0)) == Kind.NOTHING ? dialect.literal(Kind.WHOLE, null) : write(a.get(0)))
                        + ")";
            }
            case "MOD" -> {
                return "MOD(" + as(a.get(0), Kind.WHOLE) + ", NULLIF(" + as(a.get(1), Kind.WHOLE) + ", "
                        + zero(Kind.WHOLE) + "))";
            }
            case "GREATEST", "LEAST" -> {
                boolean texts = common(a) == Kind.TEXT;
                return dialect.extreme(
                        name.equals("GREATEST"),
                        alike(a).stream()
                                .map(v -> texts ? dialect.byCharacter(v) : v)
                                .toList());
            }
            case "COALESCE", "NULLIF" -> {
                return name + "(" + String.join(", ", alike(a)) + ")";
            }
            case "UPPER" -> {
                return dialect.upper(text(a.get(0)));
            }
            case "LOWER" -> {
                return dialect.lower(text(a.get(0)));
            }
            case "CHAR_LENGTH", "CHARACTER_LENGTH", "LENGTH" -> {
                return dialect.cast("LENGTH(" + text(a.get(0)) + ")", Kind.WHOLE);
            }
            case "REPLACE" -> {
                return all("REPLACE", a);
            }
            case "POSITION" -> {
                return dialect.cast("STRPOS(" + text(a.get(1)) + ", " + text(a.get(0)) + ")", Kind.WHOLE);
            }
            case "STRPOS" -> {
                return dialect.cast("STRPOS(" + text(a.get(0)) + ", " + text(a.get(1)) + ")", Kind.WHOLE);
            }
            case "DATE_TRUNC" -> {
                Kind of = kind(a.get(1));
                String cut = "DATE_TRUNC("
                        + dialect.text(((String) ((Expression.Literal) a.get(0)).value()).toLowerCase(Locale.ROOT))
                        + ", " + as(a.get(1), Kind.TIME) + ")";
                return of == Kind.DATE ? dialect.cast(cut, Kind.DATE) : cut;
            }
            default -> {
                return further(call);
            }
        }
    }

    private String further(Expression.Call call) {
        List<Expression> a = call.arguments();
        String name = call.function().equals("CEILING") ? "CEIL" : call.function();
        if (!dialect.knows(name)) throw lacks(call, call.function());
        if (name.equals("EXP"))
            return "EXP(CASE WHEN %1$s BETWEEN %2$s AND %3$s THEN %1$s END)"
                    .formatted(
                            decimal(a.get(0)),
                            dialect.literal(Kind.DECIMAL, LEAST_EXPONENT),
                            dialect.literal(Kind.DECIMAL, MOST_EXPONENT));
        if (OF_ONE.contains(name)) return name + "(" + decimal(a.get(0)) + ")";
        return switch (name) {
            case "PI" -> "PI()";
            case "TRUNC" -> dialect.truncated(decimal(a.get(0)));
            case "WIDTH_BUCKET" ->
                dialect.cast(
                        dialect.bucket(
                                decimal(a.get(0)),
                                decimal(a.get(1)),
                                "NULLIF(" + decimal(a.get(2)) + ", " + decimal(a.get(1)) + ")",
                                within(a.get(3), 1, Integer.MAX_VALUE)),
                        Kind.WHOLE);
            case "REVERSE", "STARTS_WITH", "LTRIM", "RTRIM", "BTRIM" -> all(name, a);
            case "CONCAT", "CONCAT_WS" -> all(name, a);
            case "TO_CHAR" ->
                "TO_CHAR(" + (kind(a.get(0)).isNumber() ? write(a.get(0)) : as(a.get(0), Kind.TIME)) + ", "
                        + text(a.get(1)) + ")";
            case "INITCAP" -> "INITCAP(" + text(a.get(0)) + Compiler.ANY_CASE + ") COLLATE \"C\"";
            case "SUBSTRING", "LEFT", "RIGHT", "LPAD", "RPAD", "SPLIT_PART" -> {
                // Positions and lengths are small numbers there.
                List<String> parts = new ArrayList<>();
                for (int i = 0; i < a.size(); i++)
                    parts.add(
                            kind(a.get(i)) == Kind.WHOLE
                                    ? "CAST(" + position(name, i, a.get(i)) + " AS integer)"
                                    : text(a.get(i)));
                yield name + "(" + String.join(", ", parts) + ")";
            }
            default -> throw lacks(call, call.function());
        };
    }

    /** A position in a text, or a length. */
    private String position(String function, int place, Expression e) {
        if (function.equals("SPLIT_PART")) return "NULLIF(" + days(e) + ", " + zero(Kind.WHOLE) + ")";
        boolean isLength = function.equals("SUBSTRING") && place == 2;
        return within(e, isLength ? 0 : Integer.MIN_VALUE, function.endsWith("PAD") ? LONGEST : Integer.MAX_VALUE);
    }

    private String all(String name, List<Expression> texts) {
        return name + "(" + texts.stream().map(this::text).collect(Collectors.joining(", ")) + ")";
    }

    /** A function of a number that has none below zero. */
    private String guarded(String function, String of, String bound) {
        return function + "(CASE WHEN " + of + " " + bound + " " + zero(Kind.DECIMAL) + " THEN " + of + " END)";
    }

    private String logarithm(Expression of) {
        String number = decimal(of);
        return dialect.logarithm("CASE WHEN " + number + " > " + zero(Kind.DECIMAL) + " THEN " + number + " END");
    }

    private String power(String base, String exponent) {
        String zero = zero(Kind.DECIMAL);
        return "POWER(CASE WHEN (%1$s <> %3$s OR %2$s >= %3$s) AND (%1$s >= %3$s OR %2$s = FLOOR(%2$s)) THEN %1$s END, %2$s)"
                .formatted(base, exponent, zero);
    }

    private String round(Expression.Call call) {
        List<Expression> a = call.arguments();
        if (a.size() == 1) return dialect.rounded(decimal(a.get(0)));
        return dialect.rounded(decimal(a.get(0)), write(a.get(1)));
    }

    private String trim(Expression.Trim trim) {
        String trimmed = dialect.trimmed(
                trim.side(), trim.characters() == null ? null : text(trim.characters()), text(trim.text()));
        if (trimmed == null) throw lacks(trim, "TRIM of other characters than spaces");
        return trimmed;
    }

    private String extract(Expression.Extract extract) {
        String field = extract.field();
        Kind of = kind(extract.of());
        if (of == Kind.INTERVAL) {
            if (field.equals("EPOCH")
                    && extract.of() instanceof Expression.Binary b
                    && b.operator().equals("-")
                    && isMoment(kind(b.left()))
                    && isMoment(kind(b.right())))
                return dialect.cast(
                        "(" + dialect.second(as(b.left(), Kind.TIME)) + " - " + dialect.second(as(b.right(), Kind.TIME))
                                + ")",
                        Kind.DECIMAL);
            throw lacks(extract, "A part of a span of time");
        }
        String time = as(extract.of(), Kind.TIME);
        return dialect.cast(field.equals("EPOCH") ? dialect.second(time) : dialect.part(field, time), Kind.DECIMAL);
    }

    private String cast(Expression.Cast cast) {
        Kind from = kind(cast.of());
        Kind to = kind(cast);
        String of = from == Kind.NOTHING ? dialect.literal(to, null) : write(cast.of());
        if (from == Kind.NOTHING) return of;
        String target = cast.target();
        boolean sized = target.endsWith(")");
        if (to == Kind.TEXT) {
            String written = from == Kind.TEXT ? of : written(cast.of(), from);
            if (!sized) return written;
            return "SUBSTR(" + written + ", 1, " + target.replaceAll("\\D", "") + ")";
        }
        String read = from == Kind.TEXT && to != Kind.TEXT ? dialect.read(of, to) : of;
        Kind now = from == Kind.TEXT ? to : from;
        if (to == Kind.DECIMAL) {
            String number = now == Kind.DECIMAL ? read : dialect.cast(read, Kind.DECIMAL);
            return sized ? sized(number, target) : number;
        }
        if (to == Kind.WHOLE) {
            String number = now == Kind.DECIMAL ? wholeOf(read) : read;
            if (target.equals("BIGINT")) return number;
            long most = target.equals("SMALLINT") ? Short.MAX_VALUE : Integer.MAX_VALUE;
            return "(CASE WHEN " + number + " BETWEEN " + (-most - 1) + " AND " + most + " THEN " + number + " END)";
        }
        return now == to ? read : dialect.cast(read, to);
    }

    /** @param target a type such as DECIMAL(6,2) */
    private String sized(String number, String target) {
        String[] sizes = target.replaceAll("[^\\d,]", "").split(",");
        int places = sizes.length == 2 ? Integer.parseInt(sizes[1]) : 0;
        return "(CASE WHEN ABS(%s) < %s THEN %s END)"
                .formatted(
                        dialect.rounded(number, dialect.literal(Kind.WHOLE, (long) places)),
                        dialect.literal(Kind.DECIMAL, Math.pow(10, Integer.parseInt(sizes[0]) - places)),
                        dialect.cast(
                                "CAST(" + number + " AS DECIMAL" + target.substring(target.indexOf('(')) + ")",
                                Kind.DECIMAL));
    }

    /** A decimal number rounded to a whole one, if there is one as large. */
    private String wholeOf(String number) {
        String most = dialect.literal(Kind.DECIMAL, -(double) Long.MIN_VALUE);
        return "(CASE WHEN %1$s >= - %2$s AND %1$s < %2$s THEN %3$s END)"
                .formatted(number, most, dialect.cast(dialect.rounded(number), Kind.WHOLE));
    }

    private String caseOf(Expression.Case choice) {
        List<Expression> results = new ArrayList<>(
                choice.whens().stream().map(Expression.When::result).toList());
        if (choice.otherwise() != null) results.add(choice.otherwise());
        Kind kind = kind(choice);
        StringBuilder sql = new StringBuilder("(CASE");
        for (Expression.When when : choice.whens()) {
            String condition;
            if (choice.subject() == null) condition = as(when.condition(), Kind.YES_NO);
            else {
                List<String> both = alike(List.of(choice.subject(), when.condition()));
                condition = both.get(0) + " = " + both.get(1);
            }
            sql.append(" WHEN ").append(condition).append(" THEN ").append(as(when.result(), kind));
        }
        if (choice.otherwise() != null) sql.append(" ELSE ").append(as(choice.otherwise(), kind));
        return sql.append(" END)").toString();
    }

    private String in(Expression.In in) {
        List<Expression> all = new ArrayList<>(List.of(in.of()));
        all.addAll(in.values());
        List<String> same = alike(all);
        return "(" + same.get(0) + (in.not() ? " NOT" : "") + " IN (" + String.join(", ", same.subList(1, same.size()))
                + "))";
    }

    private String between(Expression.Between b) {
        String both = "(" + atLeast(b) + " AND " + compared(b.of(), "<=", b.high()) + ")";
        return b.not() ? "(NOT " + both + ")" : both;
    }

    String atLeast(Expression.Between b) {
        return compared(b.of(), ">=", b.low());
    }

    private String compared(Expression left, String operator, Expression right) {
        List<String> both = alike(List.of(left, right));
        boolean texts = common(List.of(left, right)) == Kind.TEXT;
        return both.get(0) + " " + operator + " " + (texts ? dialect.byCharacter(both.get(1)) : both.get(1));
    }

    private String like(Expression.Like like) {
        String of = text(like.of());
        String pattern = text(like.pattern());
        if (like.anyCase()) {
            of = dialect.lower(of);
            pattern = dialect.lower(pattern);
        }
        String escape = like.escape() == null ? "'\\'" : text(like.escape());
        return "(" + of + (like.not() ? " NOT" : "") + " LIKE " + pattern + " ESCAPE " + escape + ")";
    }

    private String is(Expression.Is is) {
        if (is.test().equals("NULL") || is.test().equals("UNKNOWN")) {
            String of = kind(is.of()) == Kind.NOTHING ? dialect.literal(Kind.YES_NO, null) : write(is.of());
            return "(" + of + " IS " + (is.not() ? "NOT " : "") + "NULL)";
        }
        String of = as(is.of(), Kind.YES_NO);
        String holds = "COALESCE(" + (is.test().equals("TRUE") ? of : "NOT " + of) + ", FALSE)";
        return is.not() ? "(NOT " + holds + ")" : holds;
    }
}
