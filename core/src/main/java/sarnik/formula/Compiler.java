package sarnik.formula;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import sarnik.formula.Typed.Cursor;
import sarnik.formula.Typed.Eval;
import sarnik.table.CodedColumn;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/**
 * Checks the types of a formula's tree and makes it ready: what computes it, and the same as SQL. Missing values
 * follow SQL:
 * what is computed from one is missing, and conditions know three answers.
 */
final class Compiler {

    /** What makes PostgreSQL know the small and capital letters of all scripts, whatever its texts are sorted by. */
    static final String ANY_CASE = " COLLATE \"und-x-icu\"";

    private final Scope scope;
    /** Columns that the formula uses; their place in this set is their place in the cursor. */
    private final Set<String> used = new LinkedHashSet<>();
    /** The summaries of a measure; null where the formula is computed row by row. */
    private final List<SummaryPart> parts;

    /** The window functions of a measure. */
    private final List<WindowPart> windows = new ArrayList<>();

    private boolean inWindow;

    private final Casts casts = new Casts();

    /** The kind of each part of the tree. */
    private final Map<Expression, Kind> kinds;

    /**
     * @param measure whether the formula sums up groups of rows
     */
    Compiler(Scope scope, boolean measure) {
        this(scope, measure, new IdentityHashMap<>());
    }

    private Compiler(Scope scope, boolean measure, Map<Expression, Kind> kinds) {
        this.scope = scope;
        this.parts = measure ? new ArrayList<>() : null;
        this.kinds = kinds;
    }

    Map<Expression, Kind> kinds() {
        return kinds;
    }

    List<String> columns() {
        return List.copyOf(used);
    }

    List<SummaryPart> parts() {
        return parts;
    }

    List<WindowPart> windows() {
        return windows;
    }

    Scope scope() {
        return scope;
    }

    Typed compile(Expression e) {
        Typed typed = typed(e);
        kinds.put(e, typed.kind());
        return typed;
    }

    private Typed typed(Expression e) {
        if (e instanceof Expression.Literal literal) return literal(literal);
        if (e instanceof Expression.Name name) return name(name);
        if (e instanceof Expression.Parameter parameter) return parameter(parameter);
        if (e instanceof Expression.Unary unary) return unary(unary);
        if (e instanceof Expression.Binary binary) return new Operators(this).binary(binary);
        if (e instanceof Expression.Call call) return new Functions(this).call(call);
        if (e instanceof Expression.Trim trim) return new Functions(this).trim(trim);
        if (e instanceof Expression.Extract extract) return new Functions(this).extract(extract);
        if (e instanceof Expression.Cast cast) return casts.cast(cast, compile(cast.of()));
        if (e instanceof Expression.Case choice) return caseOf(choice);
        if (e instanceof Expression.In in) return in(in);
        if (e instanceof Expression.Between between) return between(between);
        if (e instanceof Expression.Like like) return like(like);
        if (e instanceof Expression.Is is) return is(is);
        if (e instanceof Expression.Distinct distinct) return new Operators(this).distinct(distinct);
        if (e instanceof Expression.Summary summary) return summary(summary);
        if (e instanceof Expression.Window window) return window(window);
        throw new FormulaException(e, "* stands only in COUNT(*).");
    }

    private static Typed literal(Expression.Literal literal) {
        return new Typed(literal, literal.kind(), cursor -> literal.value(), sqlOf(literal.kind(), literal.value()));
    }

    private static String sqlOf(Kind kind, Object value) {
        if (value == null) return "NULL";
        return switch (kind) {
            case TEXT -> "'" + value.toString().replace("'", "''") + "'::text";
            case WHOLE -> value + "::bigint";
            case DECIMAL -> "'" + value + "'::double precision";
            case DATE -> "DATE '" + java.time.LocalDate.ofEpochDay((Integer) value) + "'";
            case TIME -> "TIMESTAMP '" + Moments.text((Long) value) + "'";
            case INTERVAL -> ((Interval) value).sql();
            default -> value.toString().toUpperCase(Locale.ROOT);
        };
    }

    private Typed name(Expression.Name name) {
        String column = column(name);
        if (column == null) return place(name);
        if (parts != null) {
            throw new FormulaException(
                    name,
                    ("“%s” stands for a value of each row; a measure needs one value for many rows. Sum it up, "
                                    + "such as SUM(%s).")
                            .formatted(name.name(), name.name()));
        }
        used.add(column);
        int slot = List.copyOf(used).indexOf(column);
        Kind kind = scope.columns().get(column);
        return new Typed(name, kind, value(kind, slot), "\"" + column.replace("\"", "\"\"") + "\"");
    }

    /** The column that is meant; null for none. */
    String column(Expression.Name name) {
        return scope.column(name);
    }

    private Typed place(Expression.Name name) {
        String place = name.name().toLowerCase(Locale.ROOT);
        if (!scope.places().contains(place)) {
            throw new FormulaException(
                    name,
                    "There is no column “" + name.name() + "”."
                            + Nearest.suggestion(name.name(), scope.columns().keySet()));
        }
        if (parts != null)
            throw new FormulaException(
                    name, "“" + place + "” is the place of each row; a measure needs one value for many rows.");
        return new Typed(
                name,
                Kind.PLACE,
                cursor -> cursor.surroundings.places().get(place).apply(cursor.row),
                "NULL");
    }

    private static Eval value(Kind kind, int slot) {
        return switch (kind) {
            case WHOLE ->
                c -> {
                    long value = ((WholeColumn) c.columns[slot]).get(c.row);
                    return value == WholeColumn.MISSING ? null : (Object) value;
                };
            case DECIMAL ->
                c -> {
                    double value = ((DecimalColumn) c.columns[slot]).get(c.row);
                    return Double.isNaN(value) ? null : (Object) value;
                };
            case DATE ->
                c -> {
                    int value = ((DateColumn) c.columns[slot]).day(c.row);
                    return value == DateColumn.MISSING ? null : (Object) value;
                };
            case TIME ->
                c -> {
                    long value = ((TimeColumn) c.columns[slot]).second(c.row);
                    return value == TimeColumn.MISSING ? null : (Object) value;
                };
            case YES_NO ->
                c -> {
                    int code = ((CodedColumn) c.columns[slot]).codes().get(c.row);
                    return code < 0 ? null : (Object) (code == 1);
                };
            default -> c -> c.columns[slot].text(c.row);
        };
    }

    private Typed parameter(Expression.Parameter parameter) {
        Kind kind = scope.parameters().get(parameter.name());
        if (kind == null) {
            throw new FormulaException(
                    parameter,
                    "There is no parameter “:" + parameter.name() + "” here."
                            + Nearest.suggestion(
                                    parameter.name(), scope.parameters().keySet()));
        }
        return new Typed(
                parameter, kind, c -> c.surroundings.parameters().get(parameter.name()), ":" + parameter.name());
    }

    private Typed unary(Expression.Unary unary) {
        Typed of = compile(unary.of());
        if (unary.operator().equals("NOT")) {
            condition(of, "NOT");
            return new Typed(
                    unary,
                    Kind.YES_NO,
                    c -> {
                        Object value = of.eval().at(c);
                        return value == null ? null : (Object) !((Boolean) value);
                    },
                    "(NOT " + of.sql() + ")");
        }
        if (!of.kind().isNumber()) throw unfit(of, unary.operator(), "a number");
        if (unary.operator().equals("+")) return new Typed(unary, of.kind(), of.eval(), of.sql());
        Kind kind = of.kind();
        return new Typed(
                unary,
                kind,
                c -> {
                    Object value = of.eval().at(c);
                    if (value == null) return null;
                    if (kind == Kind.DECIMAL) return -(Double) value;
                    return Numbers.whole("-", 0, (Long) value);
                },
                "(- " + of.sql() + ")");
    }

    static FormulaException unfit(Typed found, String where, String wanted) {
        return new FormulaException(
                found.at(),
                "%s needs %s; this is %s.".formatted(where, wanted, found.kind().words()));
    }

    static void condition(Typed found, String where) {
        if (found.kind() != Kind.YES_NO && found.kind() != Kind.NOTHING)
            throw unfit(found, where, "a condition, such as litres > 5");
    }

    private Typed caseOf(Expression.Case choice) {
        Expression.Case searched = choice.subject() == null ? choice : searched(choice);
        List<Typed> conditions = new ArrayList<>();
        List<Typed> results = new ArrayList<>();
        for (Expression.When when : searched.whens()) {
            Typed condition = compile(when.condition());
            condition(condition, "WHEN");
            conditions.add(condition);
            results.add(compile(when.result()));
        }
        boolean otherwise = searched.otherwise() != null;
        if (otherwise) results.add(compile(searched.otherwise()));
        List<Typed> same = casts.toOneKind(results, "The results of CASE");
        Kind kind = same.get(0).kind();
        String sql = "(CASE "
                + java.util.stream.IntStream.range(0, conditions.size())
                        .mapToObj(i -> "WHEN " + conditions.get(i).sql() + " THEN "
                                + same.get(i).sql())
                        .collect(Collectors.joining(" "))
                + (otherwise ? " ELSE " + same.get(same.size() - 1).sql() : "") + " END)";
        return new Typed(
                choice,
                kind,
                c -> {
                    for (int i = 0; i < conditions.size(); i++)
                        if (Boolean.TRUE.equals(conditions.get(i).eval().at(c)))
                            return same.get(i).eval().at(c);
                    return otherwise ? same.get(same.size() - 1).eval().at(c) : null;
                },
                sql);
    }

    /** CASE x WHEN a … is CASE WHEN x = a … */
    static Expression.Case searched(Expression.Case choice) {
        List<Expression.When> whens = choice.whens().stream()
                .map(w -> new Expression.When(
                        new Expression.Binary(
                                w.condition().from(), w.condition().to(), "=", choice.subject(), w.condition()),
                        w.result()))
                .toList();
        return new Expression.Case(choice.from(), choice.to(), null, whens, choice.otherwise());
    }

    private Typed in(Expression.In in) {
        if (in.values().isEmpty()) throw new FormulaException(in, "The list of IN is empty. Name at least one value.");
        List<Typed> all = new ArrayList<>();
        all.add(compile(in.of()));
        in.values().forEach(v -> all.add(compile(v)));
        List<Typed> same = casts.toOneKind(casts.momentsFromText(all), "IN");
        Typed of = same.get(0);
        List<Typed> values = same.subList(1, same.size());
        Operators.comparable(of, "IN");
        return new Typed(
                in,
                Kind.YES_NO,
                c -> {
                    Object value = of.eval().at(c);
                    if (value == null) return null;
                    boolean unknown = false;
                    for (Typed each : values) {
                        Object other = each.eval().at(c);
                        if (other == null) unknown = true;
                        else if (Operators.compare(of.kind(), value, other) == 0) return !in.not();
                    }
                    return unknown ? null : (Object) in.not();
                },
                "(" + of.sql() + (in.not() ? " NOT" : "") + " IN ("
                        + values.stream().map(Typed::sql).collect(Collectors.joining(", ")) + "))");
    }

    private Typed between(Expression.Between b) {
        Expression low = new Expression.Binary(b.from(), b.to(), ">=", b.of(), b.low());
        Expression high = new Expression.Binary(b.from(), b.to(), "<=", b.of(), b.high());
        Expression both = new Expression.Binary(b.from(), b.to(), "AND", low, high);
        Typed typed = compile(b.not() ? new Expression.Unary(b.from(), b.to(), "NOT", both) : both);
        return new Typed(b, typed.kind(), typed.eval(), typed.sql());
    }

    private Typed like(Expression.Like like) {
        Typed of = text(compile(like.of()), "LIKE");
        Typed pattern = text(compile(like.pattern()), "LIKE");
        Typed escape = like.escape() == null ? null : text(compile(like.escape()), "ESCAPE");
        return new Typed(
                like,
                Kind.YES_NO,
                c -> {
                    Object value = of.eval().at(c);
                    Object wanted = pattern.eval().at(c);
                    Object mark = escape == null ? "\\" : escape.eval().at(c);
                    if (value == null || wanted == null || mark == null) return null;
                    String character = (String) mark;
                    if (Texts.length(character) > 1) throw new RowError("an escape of more than one character");
                    boolean fits = Texts.like(
                            like.anyCase() ? ((String) value).toLowerCase(Locale.ROOT) : (String) value,
                            like.anyCase() ? ((String) wanted).toLowerCase(Locale.ROOT) : (String) wanted,
                            character.isEmpty() ? -1 : character.codePointAt(0));
                    return fits != like.not();
                },
                "(" + of.sql() + (like.anyCase() ? ANY_CASE : "") + (like.not() ? " NOT" : "")
                        + (like.anyCase() ? " ILIKE " : " LIKE ") + pattern.sql() + (like.anyCase() ? ANY_CASE : "")
                        + (escape == null ? "" : " ESCAPE " + escape.sql()) + ")");
    }

    static Typed text(Typed found, String where) {
        if (found.kind() != Kind.TEXT && found.kind() != Kind.NOTHING) throw unfit(found, where, "a text");
        return found;
    }

    private Typed is(Expression.Is is) {
        Typed of = compile(is.of());
        String sql = "(" + of.sql() + " IS " + (is.not() ? "NOT " : "") + is.test() + ")";
        if (is.test().equals("NULL"))
            return new Typed(is, Kind.YES_NO, c -> (of.eval().at(c) == null) != is.not(), sql);
        condition(of, "IS " + is.test());
        Boolean wanted =
                is.test().equals("UNKNOWN") ? null : (Boolean) is.test().equals("TRUE");
        String condition = of.kind() == Kind.NOTHING ? sql.replaceFirst("NULL", "NULL::boolean") : sql;
        return new Typed(is, Kind.YES_NO, c -> Objects.equals(of.eval().at(c), wanted) != is.not(), condition);
    }

    private Typed window(Expression.Window window) {
        if (parts == null)
            throw new FormulaException(
                    window,
                    window.function()
                            + " OVER goes over groups, so it cannot stand inside another nor be a column's value. Keep"
                            + " the formula as a measure.");
        if (inWindow) throw new FormulaException(window, window.function() + " OVER cannot stand inside another.");
        inWindow = true;
        try {
            WindowPart part = WindowPart.of(window, this, this::column);
            int index = windows.size();
            windows.add(part);
            return new Typed(window, part.kind(), (Cursor c) -> c.windows[index], part.sql());
        } finally {
            inWindow = false;
        }
    }

    private Typed summary(Expression.Summary summary) {
        if (parts == null) {
            throw new FormulaException(
                    summary,
                    ("%s sums up many rows; a column has one value for each row. Leave it out, or keep the "
                                    + "formula as a measure.")
                            .formatted(summary.function()));
        }
        Compiler rows = new Compiler(scope, false, kinds);
        rows.used.addAll(used);
        SummaryPart part = SummaryPart.of(summary, rows);
        used.addAll(rows.used);
        int index = parts.size();
        parts.add(part);
        return new Typed(summary, part.kind(), (Cursor c) -> c.sums[index], part.sql());
    }
}
