package sarnik.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Where a formula cannot be worked out, such as after a division by zero, a database goes on with a missing value, which
 * what stands around it may take for an answer: COALESCE(a / 0, 1). Here that makes the whole row missing, so it is asked
 * for as a condition of its own. The order in which parts are looked at is that of {@link Compiler}.
 */
final class SqlTroubles {

    /** Functions that have no value for some numbers or texts, though none is missing. */
    private static final Set<String> PARTIAL =
            Set.of("MOD", "SQRT", "LN", "LOG", "LOG10", "POWER", "EXP", "WIDTH_BUCKET", "SPLIT_PART", "SUBSTRING");

    private static final Set<String> OF_LENGTHS = Set.of("LEFT", "RIGHT", "LPAD", "RPAD");

    /** Functions that give a value though one that they are given is missing. */
    private static final Set<String> FORGIVING = Set.of("GREATEST", "LEAST", "CONCAT", "CONCAT_WS");

    private final SqlExpressions write;

    /**
     * What may go wrong in an expression.
     *
     * @param when the condition under which it does; null for never
     * @param isLost whether it may have a value all the same
     */
    private record Trouble(String when, boolean isLost) {

        static final Trouble NONE = new Trouble(null, false);
    }

    SqlTroubles(SqlExpressions write) {
        this.write = write;
    }

    /** The condition under which an expression cannot be worked out; null for never. */
    String when(Expression e) {
        return of(e).when;
    }

    /** The condition under which an expression has a value though a part of it cannot be worked out; null for never. */
    String lost(Expression e) {
        Trouble trouble = of(e);
        return trouble.isLost ? trouble.when : null;
    }

    /** Parts that are looked at one after the other, until one of them fails or settles the value. */
    private static final class Steps {

        private final StringBuilder sql = new StringBuilder();
        /** How much of it there is up to the last that can fail. */
        private int needed;

        Steps fail(Trouble trouble) {
            return trouble.when == null ? this : then(trouble.when, null, "TRUE");
        }

        /** Where this holds only what follows of it can fail. */
        Steps settled(String when, Trouble trouble) {
            return then(when, trouble.when, "FALSE");
        }

        private Steps then(String when, String trouble, String otherwise) {
            sql.append(" WHEN ").append(when).append(" THEN ").append(trouble == null ? otherwise : trouble);
            if (trouble != null || otherwise.equals("TRUE")) needed = sql.length();
            return this;
        }

        Trouble end(boolean isLost) {
            if (needed == 0) return Trouble.NONE;
            return new Trouble("(CASE" + sql.substring(0, needed) + " ELSE FALSE END)", isLost);
        }

        Trouble end(Trouble last, boolean isLost) {
            if (last.when == null) return end(isLost);
            return new Trouble(sql.isEmpty() ? last.when : "(CASE" + sql + " ELSE " + last.when + " END)", isLost);
        }
    }

    private Trouble of(Expression e) {
        if (e instanceof Expression.Binary b
                && (b.operator().equals("AND") || b.operator().equals("OR")))
            return logic(of(b.left()), write.condition(b.left()), b.operator(), of(b.right()));
        if (e instanceof Expression.Between b) {
            Trouble first = all(Stream.of(b.of(), b.low()), false);
            return logic(first, write.atLeast(b), "AND", all(Stream.of(b.of(), b.high()), false));
        }
        if (e instanceof Expression.Case choice) return choice(choice);
        if (e instanceof Expression.In in) return in(in);
        if (e instanceof Expression.Is is) return all(Stream.of(is.of()), true);
        if (e instanceof Expression.Distinct d) return all(Stream.of(d.left(), d.right()), true);
        if (e instanceof Expression.Call call) {
            if (call.function().equals("COALESCE")) return coalesce(call);
            if (call.function().equals("NULLIF")) {
                Trouble second = of(call.arguments().get(1));
                return all(call.arguments().stream(), second.when != null);
            }
            if (FORGIVING.contains(call.function())) return all(call.arguments().stream(), true);
        }
        List<Expression> parts = Expressions.children(e);
        Trouble within = all(parts.stream(), false);
        return isPartial(e) ? either(within, own(e, parts)) : within;
    }

    /** @param absorbs whether there may be a value though one of the parts has none */
    private Trouble all(Stream<Expression> parts, boolean absorbs) {
        return parts.map(this::of).reduce(Trouble.NONE, (one, other) -> either(one, other, absorbs));
    }

    private static Trouble either(Trouble one, Trouble other) {
        return either(one, other, false);
    }

    private static Trouble either(Trouble one, Trouble other, boolean absorbs) {
        if (one.when == null && other.when == null) return Trouble.NONE;
        String when = Stream.of(one.when, other.when)
                .filter(some -> some != null)
                .distinct()
                .collect(Collectors.joining(" OR "));
        boolean areBoth = one.when != null && other.when != null && !one.when.equals(other.when);
        return new Trouble(areBoth ? "(" + when + ")" : when, absorbs || one.isLost || other.isLost);
    }

    /** None of what it is given is missing, and it is. */
    private Trouble own(Expression e, List<Expression> parts) {
        if (parts.stream().anyMatch(part -> part instanceof Expression.Literal literal && literal.value() == null))
            return Trouble.NONE;
        String given = parts.stream()
                .filter(part -> !(part instanceof Expression.Literal))
                .map(part -> write.write(part) + " IS NOT NULL AND ")
                .distinct()
                .collect(Collectors.joining());
        return new Trouble("(" + given + write.write(e) + " IS NULL)", false);
    }

    private static Trouble logic(Trouble first, String left, String operator, Trouble second) {
        String settles = operator.equals("OR") ? left : "NOT " + left;
        boolean isLost = first.when != null || second.isLost;
        if (second.when == null) return new Trouble(first.when, isLost);
        return new Steps().fail(first).settled(settles, Trouble.NONE).end(second, isLost);
    }

    private Trouble choice(Expression.Case choice) {
        Steps steps = new Steps();
        boolean isLost = false;
        for (Expression.When when : choice.whens()) {
            Trouble asked = choice.subject() == null
                    ? of(when.condition())
                    : all(Stream.of(choice.subject(), when.condition()), false);
            Trouble result = of(when.result());
            String condition;
            if (choice.subject() == null) condition = write.condition(when.condition());
            else condition = String.join(" = ", write.alike(List.of(choice.subject(), when.condition())));
            steps.fail(asked).settled(condition, result);
            isLost |= asked.when != null || result.isLost;
        }
        Trouble otherwise = choice.otherwise() == null ? Trouble.NONE : of(choice.otherwise());
        return steps.end(otherwise, isLost || otherwise.isLost);
    }

    private Trouble in(Expression.In in) {
        Trouble of = of(in.of());
        Steps steps = new Steps().fail(of).settled(write.write(in.of()) + " IS NULL", Trouble.NONE);
        List<Expression> all = new ArrayList<>(List.of(in.of()));
        all.addAll(in.values());
        List<String> same = write.alike(all);
        boolean isLost = of.isLost;
        for (int i = 0; i < in.values().size(); i++) {
            Trouble value = of(in.values().get(i));
            steps.fail(value).settled(same.get(0) + " = " + same.get(i + 1), Trouble.NONE);
            isLost |= value.when != null;
        }
        return steps.end(isLost);
    }

    private Trouble coalesce(Expression.Call call) {
        Steps steps = new Steps();
        boolean isLost = false;
        int last = call.arguments().size() - 1;
        for (Expression value : call.arguments().subList(0, last)) {
            Trouble trouble = of(value);
            steps.fail(trouble).settled(write.write(value) + " IS NOT NULL", Trouble.NONE);
            isLost |= trouble.when != null;
        }
        Trouble end = of(call.arguments().get(last));
        return steps.end(end, isLost || end.isLost);
    }

    private boolean isPartial(Expression e) {
        if (e instanceof Expression.Binary b) {
            if (b.operator().equals("/")) return !isOtherThanZero(b.right());
            return (b.operator().equals("+") || b.operator().equals("-"))
                    && (isDays(b.left(), b.right()) || isDays(b.right(), b.left()));
        }
        if (e instanceof Expression.Call call) {
            Expression last = call.arguments().isEmpty()
                    ? null
                    : call.arguments().get(call.arguments().size() - 1);
            if (OF_LENGTHS.contains(call.function()))
                return number(call.arguments().get(1)) == null;
            if (call.function().equals("MOD")) return !isOtherThanZero(last);
            return PARTIAL.contains(call.function());
        }
        if (!(e instanceof Expression.Cast cast)) return false;
        Kind from = write.kind(cast.of());
        Kind to = write.kind(cast);
        return to != Kind.TEXT
                && (from == Kind.TEXT
                        || cast.target().endsWith(")")
                        || to == Kind.WHOLE
                                && !(from == Kind.WHOLE && cast.target().equals("BIGINT")));
    }

    private boolean isDays(Expression date, Expression days) {
        return write.kind(date) == Kind.DATE && write.kind(days) == Kind.WHOLE && number(days) == null;
    }

    /** A number that is written out, such as -1; null for anything else. */
    static Double number(Expression e) {
        if (e instanceof Expression.Unary unary) {
            Double of = number(unary.of());
            return of == null || !unary.operator().equals("-") ? of : Double.valueOf(-of);
        }
        return e instanceof Expression.Literal literal && literal.value() instanceof Number number
                ? Double.valueOf(number.doubleValue())
                : null;
    }

    private static boolean isOtherThanZero(Expression e) {
        Double written = number(e);
        return written != null && written != 0;
    }
}
