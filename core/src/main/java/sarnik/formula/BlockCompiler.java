package sarnik.formula;

import java.util.ArrayList;
import java.util.List;
import sarnik.formula.BlockNumbers.Reading;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;

/**
 * Makes an expression ready to be worked out for blocks of rows: what changes with a parameter is worked out anew in a
 * few passes over numbers, and what does not is worked out once.
 *
 * <p>Every value is that of {@link Formula} for the same row. Yes is 1 and no 0, dates are days, date-times seconds. A
 * missing value is NaN, and one that cannot be worked out is the NaN {@link #ERROR}: it makes the whole row missing,
 * where a merely missing one may be settled by CASE, COALESCE, AND or OR.
 */
final class BlockCompiler {

    private static final long ERROR_BITS = 0x7ff8000000000001L;
    private static final double ERROR = Double.longBitsToDouble(ERROR_BITS);

    /** Words of a column up to which a condition on it is worked out by word instead of by row. */
    private static final int MOST_WORDS = 1 << 16;

    private final Table table;
    private final Scope scope;
    private final Surroundings surroundings;
    private final MeasureFormula.Keeper keeper;

    BlockCompiler(Table table, Scope scope, Surroundings surroundings, MeasureFormula.Keeper keeper) {
        this.table = table;
        this.scope = scope;
        this.surroundings = surroundings;
        this.keeper = keeper;
    }

    /** An expression whose types are known, and the columns that it names. */
    private record Checked(Expression of, Typed typed, List<String> columns) {
        Kind kind() {
            return typed.kind();
        }
    }

    private Checked check(Expression of) {
        Compiler compiler = new Compiler(scope, false);
        Typed typed = compiler.compile(of);
        return new Checked(of, typed, compiler.columns());
    }

    /**
     * @param of an expression of rows that gives a number, a date, a date-time, or yes or no
     * @param filter the condition that rows have to meet; null for none
     */
    BlockNumbers of(Expression of, Expression filter) {
        BlockNumbers values = of == null ? constant(1) : make(check(of));
        if (filter == null) return values;
        return values.where(make(check(filter)));
    }

    private static BlockNumbers constant(double value) {
        return () -> (rows, count, into) -> {
            for (int i = 0; i < count; i++) into[i] = value;
        };
    }

    private BlockNumbers make(Checked e) {
        if (e.columns.isEmpty() && !Expressions.any(e.of, x -> x instanceof Expression.Name))
            return constant(value(e.typed, cursor(e)));
        if (e.of instanceof Expression.Name && !e.columns.isEmpty())
            return BlockNumbers.of(table.column(e.columns.get(0)));
        BlockNumbers known = byWord(e);
        if (known != null) return known;
        if (e.of instanceof Expression.Unary unary) known = unary(unary);
        else if (e.of instanceof Expression.Binary binary) known = binary(binary);
        else if (e.of instanceof Expression.Between between) known = between(between);
        else if (e.of instanceof Expression.Case choice) known = caseOf(choice);
        else if (e.of instanceof Expression.Is is) known = is(is);
        else if (e.of instanceof Expression.Call call) known = call(call);
        return known == null ? each(e) : known;
    }

    private static boolean isRead(Kind kind) {
        return kind.isNumber() || kind == Kind.DATE || kind == Kind.TIME || kind == Kind.YES_NO;
    }

    private Typed.Cursor cursor(Checked e) {
        Typed.Cursor cursor = new Typed.Cursor();
        cursor.columns = e.columns.stream().map(table::column).toArray(Column[]::new);
        cursor.surroundings = surroundings;
        return cursor;
    }

    private static double value(Typed typed, Typed.Cursor cursor) {
        try {
            Object value = typed.eval().at(cursor);
            if (value == null) return Double.NaN;
            return value instanceof Boolean yes ? (yes ? 1 : 0) : ((Number) value).doubleValue();
        } catch (RowError error) {
            return ERROR;
        }
    }

    /** What depends on one column of words is worked out once for each word; null where it does not. */
    private BlockNumbers byWord(Checked e) {
        if (e.columns.size() != 1
                || !isRead(e.kind())
                || !(table.column(e.columns.get(0)) instanceof CodedColumn coded)
                || coded.dictionary().size() > MOST_WORDS) return null;
        int words = coded.dictionary().size();
        int[] each = new int[words + 1];
        for (int word = 0; word < words; word++) each[word] = word;
        each[words] = -1;
        Typed.Cursor cursor = new Typed.Cursor();
        cursor.columns =
                new Column[] {new CodedColumn(coded.type(), Codes.of(each, words + 1, words), coded.dictionary())};
        cursor.surroundings = surroundings;
        double[] byWord = new double[words + 1];
        for (cursor.row = 0; cursor.row <= words; cursor.row++) byWord[cursor.row] = value(e.typed, cursor);
        Codes codes = coded.codes();
        return () -> (rows, count, into) -> {
            for (int i = 0; i < count; i++) {
                int code = codes.get(rows[i]);
                into[i] = byWord[code < 0 ? words : code];
            }
        };
    }

    /** Row by row; once for all rows where no parameter changes it. */
    private BlockNumbers each(Checked e) {
        if (!isRead(e.kind()) && e.kind() != Kind.NOTHING)
            throw new IllegalStateException(e.kind().words() + " is not worked out in blocks");
        if (!Expressions.any(e.of, x -> x instanceof Expression.Parameter))
            return BlockNumbers.of(keeper.of(e.typed.sql() + " on " + surroundings.today(), () -> {
                double[] all = new double[table.rows()];
                Typed.Cursor cursor = cursor(e);
                for (cursor.row = 0; cursor.row < all.length; cursor.row++) all[cursor.row] = value(e.typed, cursor);
                return new DecimalColumn(all);
            }));
        return () -> {
            Typed.Cursor cursor = cursor(e);
            return (rows, count, into) -> {
                for (int i = 0; i < count; i++) {
                    cursor.row = rows[i];
                    into[i] = value(e.typed, cursor);
                }
            };
        };
    }

    // --- arithmetic ------------------------------------------------------------------------------

    private static boolean isError(double value) {
        return Double.isNaN(value) && Double.doubleToRawLongBits(value) == ERROR_BITS;
    }

    /** What an operation gives that needs a second look: of what is missing, or out of range. */
    private static double odd(String operator, double x, double y) {
        if (isError(x) || isError(y)) return ERROR;
        if (Double.isNaN(x) || Double.isNaN(y)) return Double.NaN;
        try {
            return Numbers.decimal(operator, x, y);
        } catch (RowError error) {
            return ERROR;
        }
    }

    /** Joins what two expressions give, in the first one's place. */
    private interface Join {
        void of(double[] left, double[] right, int count);
    }

    private static BlockNumbers joined(BlockNumbers left, BlockNumbers right, Join join) {
        return () -> {
            Reading first = left.open();
            Reading second = right.open();
            double[] other = new double[BlockNumbers.MOST];
            return (rows, count, into) -> {
                first.fill(rows, count, into);
                second.fill(rows, count, other);
                join.of(into, other, count);
            };
        };
    }

    private BlockNumbers unary(Expression.Unary unary) {
        Checked of = check(unary.of());
        if (unary.operator().equals("+")) return make(of);
        if (unary.operator().equals("NOT")) return make(of).changed(v -> Double.isNaN(v) ? v : 1 - v);
        return of.kind() == Kind.DECIMAL ? make(of).changed(v -> Double.isNaN(v) ? v : -v) : null;
    }

    private BlockNumbers binary(Expression.Binary b) {
        Checked left = check(b.left());
        Checked right = check(b.right());
        Kind l = left.kind();
        Kind r = right.kind();
        return switch (b.operator()) {
            case "AND", "OR" ->
                joined(make(left), make(right), logic(b.operator().equals("OR") ? 1 : 0));
            // Whole numbers have an arithmetic of their own, which no parameter takes part in.
            case "+", "-", "*", "/" ->
                l.isNumber() && r.isNumber() && (l == Kind.DECIMAL || r == Kind.DECIMAL)
                        ? joined(make(left), make(right), arithmetic(b.operator()))
                        : null;
            case "=", "<>", "<", "<=", ">", ">=" ->
                l.isNumber() && r.isNumber() && (l == Kind.DECIMAL || r == Kind.DECIMAL)
                                || l == r && (l == Kind.DATE || l == Kind.TIME || l == Kind.YES_NO)
                        ? joined(make(left), make(right), comparison(b.operator()))
                        : null;
            default -> null;
        };
    }

    /**
     * @param settles what the first alone decides: 1 for OR, 0 for AND
     */
    private static Join logic(double settles) {
        return (x, y, count) -> {
            for (int i = 0; i < count; i++) {
                if (x[i] == settles || isError(x[i])) continue;
                if (y[i] == settles || isError(y[i])) x[i] = y[i];
                else x[i] = Double.isNaN(x[i]) || Double.isNaN(y[i]) ? Double.NaN : 1 - settles;
            }
        };
    }

    private static Join arithmetic(String operator) {
        return switch (operator) {
            case "+" ->
                (x, y, count) -> {
                    for (int i = 0; i < count; i++) {
                        double sum = x[i] + y[i];
                        x[i] = Math.abs(sum) <= Double.MAX_VALUE ? sum : odd("+", x[i], y[i]);
                    }
                };
            case "-" ->
                (x, y, count) -> {
                    for (int i = 0; i < count; i++) {
                        double difference = x[i] - y[i];
                        x[i] = Math.abs(difference) <= Double.MAX_VALUE ? difference : odd("-", x[i], y[i]);
                    }
                };
            case "*" ->
                (x, y, count) -> {
                    for (int i = 0; i < count; i++) {
                        double product = x[i] * y[i];
                        double size = Math.abs(product);
                        x[i] = size > 0 && size <= Double.MAX_VALUE ? product : odd("*", x[i], y[i]);
                    }
                };
            default ->
                (x, y, count) -> {
                    for (int i = 0; i < count; i++) {
                        double quotient = x[i] / y[i];
                        double size = Math.abs(quotient);
                        x[i] = size > 0 && size <= Double.MAX_VALUE ? quotient : odd("/", x[i], y[i]);
                    }
                };
        };
    }

    private static Join comparison(String operator) {
        double below = operator.equals("<") || operator.equals("<=") || operator.equals("<>") ? 1 : 0;
        double equal = operator.endsWith("=") ? 1 : 0;
        double above = operator.equals(">") || operator.equals(">=") || operator.equals("<>") ? 1 : 0;
        return (x, y, count) -> {
            for (int i = 0; i < count; i++)
                x[i] = x[i] < y[i]
                        ? below
                        : x[i] > y[i]
                                ? above
                                : x[i] == y[i] ? equal : isError(x[i]) || isError(y[i]) ? ERROR : Double.NaN;
        };
    }

    private BlockNumbers between(Expression.Between b) {
        Expression low = new Expression.Binary(b.from(), b.to(), ">=", b.of(), b.low());
        Expression high = new Expression.Binary(b.from(), b.to(), "<=", b.of(), b.high());
        Expression both = new Expression.Binary(b.from(), b.to(), "AND", low, high);
        return make(check(b.not() ? new Expression.Unary(b.from(), b.to(), "NOT", both) : both));
    }

    // --- choices ---------------------------------------------------------------------------------

    private BlockNumbers caseOf(Expression.Case choice) {
        Expression.Case searched = choice.subject() == null ? choice : Compiler.searched(choice);
        List<Checked> results = new ArrayList<>();
        searched.whens().forEach(when -> results.add(check(when.result())));
        if (searched.otherwise() != null) results.add(check(searched.otherwise()));
        if (!results.stream().allMatch(r -> isRead(r.kind()) || r.kind() == Kind.NOTHING) || isMixed(results))
            return null;
        List<BlockNumbers> conditions = searched.whens().stream()
                .map(when -> make(check(when.condition())))
                .toList();
        List<BlockNumbers> values = results.stream().map(this::make).toList();
        boolean otherwise = searched.otherwise() != null;
        return () -> {
            Reading[] ifs = conditions.stream().map(BlockNumbers::open).toArray(Reading[]::new);
            Reading[] thens = values.stream().map(BlockNumbers::open).toArray(Reading[]::new);
            double[] met = new double[BlockNumbers.MOST];
            double[] then = new double[BlockNumbers.MOST];
            boolean[] settled = new boolean[BlockNumbers.MOST];
            return (rows, count, into) -> {
                for (int i = 0; i < count; i++) {
                    settled[i] = false;
                    into[i] = Double.NaN;
                }
                for (int c = 0; c < ifs.length; c++) {
                    ifs[c].fill(rows, count, met);
                    thens[c].fill(rows, count, then);
                    for (int i = 0; i < count; i++) {
                        if (settled[i] || met[i] != 1 && !isError(met[i])) continue;
                        settled[i] = true;
                        into[i] = met[i] == 1 ? then[i] : ERROR;
                    }
                }
                if (!otherwise) return;
                thens[ifs.length].fill(rows, count, then);
                for (int i = 0; i < count; i++) if (!settled[i]) into[i] = then[i];
            };
        };
    }

    /** Whether values are of kinds that are brought to one by more than being read as numbers. */
    private static boolean isMixed(List<Checked> values) {
        Kind first = null;
        for (Checked value : values) {
            if (value.kind() == Kind.NOTHING) continue;
            if (first != null
                    && first != value.kind()
                    && !(first.isNumber() && value.kind().isNumber())) return true;
            first = value.kind();
        }
        return false;
    }

    private BlockNumbers is(Expression.Is is) {
        Checked of = check(is.of());
        if (!isRead(of.kind())) return null;
        double wanted = is.test().equals("TRUE") ? 1 : is.test().equals("FALSE") ? 0 : Double.NaN;
        double yes = is.not() ? 0 : 1;
        return make(of).changed(
                        v -> isError(v) ? v : (Double.isNaN(wanted) ? Double.isNaN(v) : v == wanted) ? yes : 1 - yes);
    }

    /** Functions that choose between numbers; null for others. */
    private BlockNumbers call(Expression.Call call) {
        List<Checked> arguments = call.arguments().stream().map(this::check).toList();
        boolean decimal = arguments.stream().anyMatch(a -> a.kind() == Kind.DECIMAL)
                && arguments.stream().allMatch(a -> a.kind().isNumber());
        if (!decimal) return null;
        return switch (call.function()) {
            case "ABS" -> make(arguments.get(0)).changed(v -> Double.isNaN(v) ? v : Math.abs(v));
            case "GREATEST" -> folded(arguments, (best, next) -> Double.isNaN(best) || next > best ? next : best);
            case "LEAST" -> folded(arguments, (best, next) -> Double.isNaN(best) || next < best ? next : best);
            case "COALESCE" -> coalesced(arguments);
            case "NULLIF" ->
                joined(make(arguments.get(0)), make(arguments.get(1)), (x, y, count) -> {
                    for (int i = 0; i < count; i++)
                        if (isError(x[i]) || isError(y[i])) x[i] = ERROR;
                        else if (x[i] == y[i]) x[i] = Double.NaN;
                });
            default -> null;
        };
    }

    private interface Better {
        double of(double best, double next);
    }

    private BlockNumbers folded(List<Checked> arguments, Better better) {
        BlockNumbers all = make(arguments.get(0));
        for (Checked next : arguments.subList(1, arguments.size()))
            all = joined(all, make(next), (x, y, count) -> {
                for (int i = 0; i < count; i++)
                    if (isError(y[i])) x[i] = isError(x[i]) ? x[i] : y[i];
                    else if (!isError(x[i]) && !Double.isNaN(y[i])) x[i] = better.of(x[i], y[i]);
            });
        return all;
    }

    private BlockNumbers coalesced(List<Checked> arguments) {
        BlockNumbers all = make(arguments.get(0));
        for (Checked next : arguments.subList(1, arguments.size()))
            all = joined(all, make(next), (x, y, count) -> {
                for (int i = 0; i < count; i++) if (Double.isNaN(x[i]) && !isError(x[i])) x[i] = y[i];
            });
        return all;
    }
}
