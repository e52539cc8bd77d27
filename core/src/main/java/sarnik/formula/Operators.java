package sarnik.formula;

import java.util.List;
import sarnik.formula.Typed.Eval;

/** Arithmetic, comparison, patterns, AND, OR and ||. */
final class Operators {

    private final Compiler compiler;
    private final Casts casts = new Casts();

    Operators(Compiler compiler) {
        this.compiler = compiler;
    }

    Typed binary(Expression.Binary b) {
        Typed left = compiler.compile(b.left());
        Typed right = compiler.compile(b.right());
        return switch (b.operator()) {
            case "AND", "OR" -> logic(b, left, right);
            case "||" -> joined(b, left, right);
            case "+", "-", "*", "/" -> arithmetic(b, left, right);
            case "~", "~*", "!~", "!~*" -> TextFunctions.matches(b, left, right);
            default -> comparison(b, left, right);
        };
    }

    private static String sql(Expression.Binary b, Typed left, Typed right) {
        return "(" + left.sql() + " " + b.operator() + " " + right.sql() + ")";
    }

    private static Typed logic(Expression.Binary b, Typed left, Typed right) {
        Compiler.condition(left, b.operator());
        Compiler.condition(right, b.operator());
        // AND is settled by a no, OR by a yes; what is missing settles nothing.
        Boolean settles = b.operator().equals("OR");
        return new Typed(
                b,
                Kind.YES_NO,
                c -> {
                    Object first = left.eval().at(c);
                    if (settles.equals(first)) return settles;
                    Object second = right.eval().at(c);
                    if (settles.equals(second)) return settles;
                    return first == null || second == null ? null : (Object) !settles;
                },
                sql(b, left, right));
    }

    private Typed joined(Expression.Binary b, Typed left, Typed right) {
        if (left.kind() != Kind.TEXT && right.kind() != Kind.TEXT) {
            throw new FormulaException(
                    b, "|| joins texts; neither side is one. Cast one of them, such as CAST(litres AS VARCHAR).");
        }
        Typed first = casts.asText(left, "||");
        Typed second = casts.asText(right, "||");
        return strict(b, Kind.TEXT, first, second, (x, y) -> Texts.bounded((String) x + y), sql(b, first, second));
    }

    private interface Combine {
        Object of(Object left, Object right);
    }

    private static Typed strict(Expression at, Kind kind, Typed left, Typed right, Combine combine, String sql) {
        Eval l = left.eval();
        Eval r = right.eval();
        return new Typed(
                at,
                kind,
                c -> {
                    Object x = l.at(c);
                    Object y = r.at(c);
                    return x == null || y == null ? null : combine.of(x, y);
                },
                sql);
    }

    private Typed arithmetic(Expression.Binary b, Typed left, Typed right) {
        String operator = b.operator();
        boolean leftNumber = left.kind().isNumber() || left.kind() == Kind.NOTHING;
        boolean rightNumber = right.kind().isNumber() || right.kind() == Kind.NOTHING;
        if (leftNumber && rightNumber) {
            List<Typed> same = casts.toOneKind(List.of(left, right), operator);
            Typed first = same.get(0);
            Typed second = same.get(1);
            if (first.kind() == Kind.NOTHING) return new Typed(b, Kind.WHOLE, c -> null, "NULL::bigint");
            if (first.kind() == Kind.WHOLE)
                return strict(
                        b,
                        Kind.WHOLE,
                        first,
                        second,
                        (x, y) -> Numbers.whole(operator, (Long) x, (Long) y),
                        sql(b, first, second));
            return strict(
                    b,
                    Kind.DECIMAL,
                    first,
                    second,
                    (x, y) -> Numbers.decimal(operator, (Double) x, (Double) y),
                    sql(b, first, second));
        }
        Typed moments = moments(b, left, right);
        if (moments != null) return moments;
        Typed odd = !leftNumber && left.kind() != Kind.DATE && left.kind() != Kind.TIME ? left : right;
        String hint = odd.kind() == Kind.TEXT
                ? operator.equals("+") ? " Texts are joined with ||." : " CAST turns a text into a number."
                : "";
        throw new FormulaException(
                odd.at(),
                "%s needs numbers, or dates with days or intervals; this is %s beside %s.%s"
                        .formatted(
                                operator,
                                odd.kind().words(),
                                (odd == left ? right : left).kind().words(),
                                hint));
    }

    /** Dates with whole days, date-times with intervals, differences; null where the types make no sense. */
    private Typed moments(Expression.Binary b, Typed left, Typed right) {
        Kind l = left.kind();
        Kind r = right.kind();
        boolean plus = b.operator().equals("+");
        boolean minus = b.operator().equals("-");
        if (l == Kind.DATE && r == Kind.WHOLE && (plus || minus)) {
            Typed days = casts.asSmall(right);
            return strict(
                    b,
                    Kind.DATE,
                    left,
                    days,
                    (x, y) -> Moments.day((Integer) x + (plus ? (Long) y : -(Long) y)),
                    sql(b, left, days));
        }
        if (l == Kind.WHOLE && r == Kind.DATE && plus) {
            Typed days = casts.asSmall(left);
            return strict(
                    b, Kind.DATE, days, right, (x, y) -> Moments.day((Integer) y + (Long) x), sql(b, days, right));
        }
        if (l == Kind.DATE && r == Kind.DATE && minus)
            return strict(
                    b,
                    Kind.WHOLE,
                    left,
                    right,
                    (x, y) -> (long) ((Integer) x - (Integer) y),
                    "(" + sql(b, left, right) + ")::bigint");
        if ((l == Kind.DATE || l == Kind.TIME) && r == Kind.INTERVAL && (plus || minus)) {
            return strict(
                    b,
                    Kind.TIME,
                    casts.asTime(left),
                    right,
                    (x, y) -> Moments.moved((Long) x, plus ? (Interval) y : ((Interval) y).times(-1)),
                    sql(b, left, right));
        }
        if (l == Kind.INTERVAL && (r == Kind.DATE || r == Kind.TIME) && plus) {
            return strict(
                    b,
                    Kind.TIME,
                    left,
                    casts.asTime(right),
                    (x, y) -> Moments.moved((Long) y, (Interval) x),
                    sql(b, left, right));
        }
        if (isMoment(l) && isMoment(r) && minus) {
            Typed first = casts.asTime(left);
            Typed second = casts.asTime(right);
            return strict(
                    b,
                    Kind.INTERVAL,
                    first,
                    second,
                    (x, y) -> Interval.between((Long) x, (Long) y),
                    sql(b, first, second));
        }
        if (l == Kind.INTERVAL && r == Kind.INTERVAL && (plus || minus)) {
            return strict(
                    b,
                    Kind.INTERVAL,
                    left,
                    right,
                    (x, y) -> exact(() -> ((Interval) x).plus(plus ? (Interval) y : ((Interval) y).times(-1))),
                    sql(b, left, right));
        }
        if (b.operator().equals("*") && l == Kind.WHOLE && r == Kind.INTERVAL)
            return strict(
                    b,
                    Kind.INTERVAL,
                    left,
                    right,
                    (x, y) -> exact(() -> ((Interval) y).times((Long) x)),
                    sql(b, left, right));
        if (b.operator().equals("*") && l == Kind.INTERVAL && r == Kind.WHOLE)
            return strict(
                    b,
                    Kind.INTERVAL,
                    left,
                    right,
                    (x, y) -> exact(() -> ((Interval) x).times((Long) y)),
                    sql(b, left, right));
        return null;
    }

    private static Object exact(java.util.function.Supplier<Interval> interval) {
        try {
            return interval.get();
        } catch (ArithmeticException large) {
            throw new RowError("an interval out of range");
        }
    }

    private static boolean isMoment(Kind kind) {
        return kind == Kind.DATE || kind == Kind.TIME;
    }

    private Typed comparison(Expression.Binary b, Typed left, Typed right) {
        List<Typed> same = same(left, right, b.operator());
        Typed first = same.get(0);
        Typed second = same.get(1);
        String operator = b.operator();
        Kind kind = first.kind();
        return strict(
                b,
                Kind.YES_NO,
                first,
                second,
                (x, y) -> {
                    int order = compare(kind, x, y);
                    return switch (operator) {
                        case "=" -> order == 0;
                        case "<>" -> order != 0;
                        case "<" -> order < 0;
                        case "<=" -> order <= 0;
                        case ">" -> order > 0;
                        default -> order >= 0;
                    };
                },
                "(" + first.sql() + " " + operator + " " + second.sql() + (kind == Kind.TEXT ? " COLLATE \"C\"" : "")
                        + ")");
    }

    private List<Typed> same(Typed left, Typed right, String operator) {
        List<Typed> same = casts.toOneKind(casts.momentsFromText(List.of(left, right)), "The two sides of " + operator);
        comparable(same.get(0), operator);
        return same;
    }

    Typed distinct(Expression.Distinct d) {
        List<Typed> same = same(compiler.compile(d.left()), compiler.compile(d.right()), "IS DISTINCT FROM");
        Typed first = same.get(0);
        Typed second = same.get(1);
        Kind kind = first.kind();
        return new Typed(
                d,
                Kind.YES_NO,
                c -> {
                    Object x = first.eval().at(c);
                    Object y = second.eval().at(c);
                    boolean differ = x == null || y == null ? x != y : compare(kind, x, y) != 0;
                    return differ != d.not();
                },
                "(" + first.sql() + " IS " + (d.not() ? "NOT " : "") + "DISTINCT FROM " + second.sql() + ")");
    }

    static void comparable(Typed value, String where) {
        if (value.kind() == Kind.PLACE)
            throw Compiler.unfit(value, where, "something that has an order, such as distance(place, point(lon, lat))");
        if (value.kind() == Kind.INTERVAL)
            throw Compiler.unfit(value, where, "something that has an order, such as EXTRACT(EPOCH FROM …)");
    }

    static int compare(Kind kind, Object a, Object b) {
        return switch (kind) {
            case TEXT -> Texts.compare((String) a, (String) b);
            case DECIMAL -> {
                // 0 and -0 are equal.
                double x = (Double) a;
                double y = (Double) b;
                yield x < y ? -1 : x > y ? 1 : 0;
            }
            case DATE -> Integer.compare((Integer) a, (Integer) b);
            case YES_NO -> Boolean.compare((Boolean) a, (Boolean) b);
            case NOTHING -> 0;
            default -> Long.compare((Long) a, (Long) b);
        };
    }
}
