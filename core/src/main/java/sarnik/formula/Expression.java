package sarnik.formula;

import java.util.List;

/**
 * A formula's tree as it is written, before its types are checked. Positions are characters from 0, the end excluded.
 */
sealed interface Expression {

    int from();

    int to();

    /**
     * @param value Long, Double, String, Boolean, Integer days for a date, Time for a date-time, Interval; null for
     *     NULL
     */
    record Literal(int from, int to, Kind kind, Object value) implements Expression {}

    record Name(int from, int to, String name, boolean quoted) implements Expression {}

    record Parameter(int from, int to, String name) implements Expression {}

    record Star(int from, int to) implements Expression {}

    /** NOT, + and -. */
    record Unary(int from, int to, String operator, Expression of) implements Expression {}

    /** Arithmetic, comparison, AND, OR and ||. */
    record Binary(int from, int to, String operator, Expression left, Expression right) implements Expression {}

    record Call(int from, int to, String function, List<Expression> arguments) implements Expression {}

    /** TRIM with its side: BOTH, LEADING or TRAILING. */
    record Trim(int from, int to, String side, Expression characters, Expression text) implements Expression {}

    record Extract(int from, int to, String field, Expression of) implements Expression {}

    record Cast(int from, int to, Expression of, String target, int targetFrom) implements Expression {}

    record When(Expression condition, Expression result) {}

    /**
     * @param subject null where each WHEN has a condition of its own
     * @param otherwise null where there is no ELSE
     */
    record Case(int from, int to, Expression subject, List<When> whens, Expression otherwise) implements Expression {}

    record In(int from, int to, Expression of, List<Expression> values, boolean not) implements Expression {}

    record Between(int from, int to, Expression of, Expression low, Expression high, boolean not)
            implements Expression {}

    record Like(int from, int to, Expression of, Expression pattern, Expression escape, boolean not, boolean anyCase)
            implements Expression {}

    /**
     * @param test NULL, TRUE, FALSE or UNKNOWN
     */
    record Is(int from, int to, Expression of, String test, boolean not) implements Expression {}

    record Distinct(int from, int to, Expression left, Expression right, boolean not) implements Expression {}

    /** What a window is ordered by. */
    record By(Expression of, boolean down) {}

    /**
     * The rows of a window that take part.
     *
     * @param before how many before the row at hand; {@link Integer#MAX_VALUE} for all
     * @param after how many behind it
     */
    record Frame(int before, int after) {}

    /**
     * A window function over the groups.
     *
     * @param argument what it is of; null for those that count places
     * @param steps of LAG and LEAD how many rows away
     * @param frame the rows that take part; null for the usual
     */
    record Window(
            int from,
            int to,
            String function,
            Expression argument,
            int steps,
            List<Name> partition,
            List<By> order,
            Frame frame)
            implements Expression {}

    /**
     * A summary of rows.
     *
     * @param argument what is summed up; a {@link Star} for COUNT(*); for ordered sets what they are ordered by
     * @param beside the column that the first depends on, for summaries of two; null for others
     * @param fraction the share of PERCENTILE_CONT and PERCENTILE_DISC; null for others
     * @param filter the rows that take part; null for all
     */
    record Summary(
            int from,
            int to,
            String function,
            boolean distinct,
            Expression argument,
            Expression beside,
            Expression fraction,
            Expression filter)
            implements Expression {}
}
